//! A plan in motion: the sweep of a corner, of many places, the window on the road, the lift ladder. Prints `name median most`
//! in milliseconds.
#![allow(
    clippy::unwrap_used,
    clippy::print_stdout,
    reason = "a bench that cannot go on fails; it prints figures"
)]

use fitment::answers::dynamic_clearance::lift::lift_ladder;
use fitment::answers::dynamic_clearance::remedies::remedies;
use fitment::answers::dynamic_clearance::{Usage, parts_in_space, window_in_motion};
use std::hint::black_box;
use std::time::Instant;

use fitment::Length;
use fitment::car::corner::{Corner, Feature, Moving, Reading, Steer};
use fitment::car::lever::Levers;
use fitment::car::limits::HouseLimits;
use fitment::car::motion::{Carried, Cloud, CloudMap, DistanceField, Envelope, MovingWheel, Sweep};
use fitment::car::{Car, Fact};
use fitment::judgement::case::AxleCase;
use fitment::judgement::window::{TireChoice, widths_round};
use fitment::setup::{Axle, Setup};

const FITTED: &str = "17x7 ET45 225/65R17";
const PLANNED: &str = "17x8 ET35 245/65R17";

/// Rows are timed one by one when a part of their name is given: `cargo bench -p fitment --bench bench_motion -- places`.
fn timed(name: &str, rounds: usize, mut run: impl FnMut()) {
    let mut asked = std::env::args().skip(1).filter(|argument| !argument.starts_with("--"));
    if asked.next().is_some_and(|part| !name.contains(&part)) {
        return;
    }
    let mut took: Vec<f64> = (0..rounds)
        .map(|_| {
            let start = Instant::now();
            run();
            start.elapsed().as_secs_f64() * 1e3
        })
        .collect();
    took.sort_by(f64::total_cmp);
    println!("{name} {:.2} {:.2}", took[took.len() / 2], took[took.len() - 1]);
}

fn corner(axle: Axle) -> Corner {
    let fitted: Setup = FITTED.parse().unwrap();
    let mm = |mm: f64| Length::from_mm(mm).unwrap();
    let read = |feature, gap: f64| Reading::new(feature, mm(gap), mm(1.0), fitted);
    let at = |feature, gap: f64, radius: f64| Reading { radius: Some(mm(radius)), ..read(feature, gap) };
    let mut car = Car::default();
    car.note(Fact::SuspensionKind, Some(axle), "strut").unwrap();
    for (fact, value) in [(Fact::Inclination, "13"), (Fact::LockInward, "31"), (Fact::LockOutward, "37")] {
        car.note(fact, None, value).unwrap();
    }
    car.note(Fact::BumpTravel, Some(axle), "80").unwrap();
    let mut readings = vec![
        read(Feature::FenderLateral, 30.0),
        read(Feature::Arch, 110.0),
        at(Feature::Strut, 27.0, 262.0),
        at(Feature::SpringPerch, 25.0, 345.0),
        at(Feature::Knuckle, 20.0, 190.0),
    ];
    if axle == Axle::Front {
        readings.extend([
            Reading { steer: Steer::LockRight, ..read(Feature::LinerAhead, 40.0) },
            Reading { steer: Steer::LockLeft, ..read(Feature::SillBehind, 38.0) },
            Reading { steer: Steer::LockLeft, ..read(Feature::Frame, 40.0) },
            Reading { steer: Steer::LockLeft, ..read(Feature::InnerLiner, 45.0) },
        ]);
    }
    let moving = Some(Moving::of(&car, axle, Some(&fitted)));
    Corner { readings, camber_deg: Some(-1.0), moving, ..Corner::default() }
}

fn main() {
    let is_bench = std::env::args().any(|argument| argument == "--bench");
    let rounds = if is_bench { 9 } else { 1 };
    let (fitted, planned): (Setup, Setup) = (FITTED.parse().unwrap(), PLANNED.parse().unwrap());
    let (limits, levers) = (HouseLimits::DEFAULT, Levers::default());
    let corners = Axle::BOTH.map(corner);
    let resolved = corners.each_ref().map(Corner::resolve);
    let cases: Vec<AxleCase<'_>> = Axle::BOTH
        .into_iter()
        .enumerate()
        .map(|(at, axle)| AxleCase::new(axle, &corners[at], &resolved[at], &fitted, &limits, &levers))
        .collect();
    let front = &cases[0];
    timed("fit_ms", rounds * 10, || {
        black_box(front.fit(black_box(&planned)));
    });
    let envelopes = [Envelope::Parking, Envelope::Road, Envelope::Track, Envelope::All];
    timed("sweep_corner_one_use_ms", rounds, || {
        black_box(front.sweep(black_box(&planned), &Usage::from(Envelope::Road)));
    });
    let moving = front.moving();
    let parts = parts_in_space(front, &moving, &planned);
    let clouds: Vec<Cloud> = parts.iter().map(|part| part.cloud.clone()).collect();
    let wheel = MovingWheel::of(&fitted, &planned, moving.steering.as_ref(), -1.0, &moving.travel).unwrap();
    timed("sweep_corner_four_uses_ms", rounds, || {
        let field = DistanceField::of(&wheel.outline);
        let sweep = Sweep {
            field: &field,
            center_y: wheel.center_y,
            kinematics: wheel.kinematics,
            reach: moving.reach(),
            envelope: Envelope::All,
            least_mm: 5.0,
        };
        for cloud in &clouds {
            let map = CloudMap::of(&sweep, cloud).unwrap();
            for envelope in envelopes {
                black_box(map.told(envelope));
            }
        }
    });
    let many = if is_bench { 20_000 } else { 200 };
    // A liner: a shell ahead of and above the tire.
    let shell = Cloud::new(
        Carried::Body,
        (0..many)
            .map(|at| {
                let angle = (f64::from(at) * 0.618_034).fract() * 150f64.to_radians();
                let across = -200.0 + 260.0 * (f64::from(at) * 0.754_877).fract();
                [420.0 * angle.cos(), across, 420.0 * angle.sin()]
            })
            .collect(),
    );
    timed("sweep_20000_places_ms", rounds.div_ceil(3), || {
        let field = DistanceField::of(&wheel.outline);
        let sweep = Sweep {
            field: &field,
            center_y: wheel.center_y,
            kinematics: wheel.kinematics,
            reach: moving.reach(),
            envelope: Envelope::All,
            least_mm: 5.0,
        };
        black_box(sweep.over(std::slice::from_ref(&shell)));
    });
    timed("window_standing_both_axles_ms", rounds, || {
        for case in &cases {
            let widths = widths_round(Some(&fitted), Some(&planned));
            black_box(case.window(&planned, TireChoice::Same, &widths, None));
        }
    });
    timed("window_standing_and_moving_both_axles_ms", rounds, || {
        for case in &cases {
            let widths = widths_round(Some(&fitted), Some(&planned));
            let standing = case.window(&planned, TireChoice::Same, &widths, None);
            black_box(window_in_motion(case, &planned, &standing, &Usage::from(Envelope::Road)));
        }
    });
    timed("remedies_ms", rounds.div_ceil(3), || {
        black_box(remedies(front, &planned, &Usage::from(Envelope::Road)));
    });
    let reference = fitted.overall_diameter().unwrap();
    timed("lift_ladder_ms", rounds.div_ceil(3), || {
        black_box(lift_ladder(front, &planned, reference, &Usage::from(Envelope::Road), &|_| false));
    });
}
