//! A wheel over a caliper, and a catalogue's wheels over one brake package. Prints `name median most`.
#![allow(
    clippy::unwrap_used,
    clippy::print_stdout,
    reason = "a bench that cannot go on fails; it prints figures"
)]

use std::collections::HashMap;
use std::hint::black_box;
use std::time::Instant;

use fitment::car::brake::{
    BrakePart, Limits, Package, Profile, ProfileSource, Template, WheelProfile, gaps, verdict,
};
use fitment::{Offset, RimDiameter, RimWidth, Wheel};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

fn print(name: &str, mut figures: Vec<f64>) {
    figures.sort_by(f64::total_cmp);
    println!("{name} {:.2} {:.2}", figures[figures.len() / 2], figures[figures.len() - 1]);
}

/// A caliper of so many points: up, over the top with its ripples, and down the face.
fn caliper(points: usize) -> Profile {
    Profile::new((0..points).map(|at| {
        let share = at as f64 / (points - 1) as f64;
        let (y, r) = match share {
            s if s < 0.2 => (-60.0, 110.0 + 350.0 * s),
            s if s < 0.8 => (-60.0 + 125.0 * (s - 0.2), 180.0 + 3.0 * (s * 40.0).sin()),
            s => (15.0, 180.0 - 300.0 * (s - 0.8)),
        };
        (y, r)
    }))
    .unwrap()
}

fn main() {
    let is_bench = std::env::args().any(|argument| argument == "--bench");
    let (rounds, wheels) = if is_bench { (400, 50_000) } else { (3, 200) };
    let brake = caliper(200);
    let wheel = WheelProfile {
        barrel: Profile::new((0..200).map(|at| {
            let y = -130.0 + 0.8 * f64::from(at);
            (y, 199.0 + 4.0 * (y / 25.0).sin())
        }))
        .unwrap(),
        spoke_back: Profile::new((0..200).map(|at| {
            let r = 205.0 - 0.65 * f64::from(at);
            (24.0 + 3.0 * (r / 20.0).sin(), r)
        }))
        .unwrap(),
        source: ProfileSource::Template,
        plus_minus_mm: 0.0,
    };
    let took = (0..rounds)
        .map(|_| {
            let start = Instant::now();
            black_box(gaps(black_box(&brake), black_box(&wheel), 0.0));
            start.elapsed().as_secs_f64() * 1e6
        })
        .collect();
    print("one_wheel_us", took);

    let template = Template {
        part: BrakePart::Caliper,
        profile: brake,
        source: ProfileSource::Template,
        plus_minus_mm: 0.5,
    };
    let package = Package { templates: vec![template] };
    let limits = Limits { radial_mm: 3.0, axial_mm: 3.0 };
    let mut rng = StdRng::seed_from_u64(3);
    let rows: Vec<Wheel> = (0..wheels)
        .map(|_| Wheel {
            diameter: RimDiameter::from_code(f64::from(rng.random_range(15..22))).unwrap(),
            width: RimWidth::from_code(f64::from(rng.random_range(12..24)) / 2.0).unwrap(),
            offset: Offset::from_mm(f64::from(rng.random_range(0..60))),
            bolt_circle: None,
            center_bore: None,
            second_circle: None,
            center_lock: false,
        })
        .collect();
    // Every row by itself, as when each had a profile of its own.
    let start = Instant::now();
    for wheel in &rows {
        if let Some(profile) = WheelProfile::estimated(wheel) {
            black_box(verdict(&package, &profile, limits));
        }
    }
    print("catalogue_each_s", vec![start.elapsed().as_secs_f64()]);
    // Like sizes once, as the program does it.
    let start = Instant::now();
    let mut known = HashMap::new();
    for wheel in &rows {
        known.entry((wheel.diameter, wheel.width, wheel.offset)).or_insert_with(|| {
            WheelProfile::estimated(wheel).map(|profile| verdict(&package, &profile, limits))
        });
    }
    black_box(&known);
    print("catalogue_by_size_s", vec![start.elapsed().as_secs_f64()]);
}
