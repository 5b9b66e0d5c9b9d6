//! The finder over large catalogues: how long the first page takes, and how it grows with the rows.
//!
//! Prints `wheels tires median_ms bytes` a line; the catalogue comes from a seeded generator.
#![allow(
    clippy::unwrap_used,
    clippy::print_stdout,
    reason = "a bench that cannot go on fails; it prints figures"
)]

use std::hint::black_box;
use std::time::Instant;

use fitment::answers::finder::{Approach, Arrangements, KeptParts, Scene, SearchCriteria, Weights, find};
use fitment::car::corner::{Corner, Corners, Feature, Reading};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{Style, StyleTarget};
use fitment::judgement::case::{CarState, Case};
use fitment::judgement::club::{Class, Clause};
use fitment::parts::tire::{Construction, LoadVersion, MetricSize, Prefix, ServiceDescription, Size};
use fitment::setup::catalogue::{Catalogue, TireKind, TireRow, WheelRow};
use fitment::{BoltCircle, CenterBore, Length, Offset, RimDiameter, RimWidth, Setup, SetupPair, Tire, Wheel};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};

/// Wheels: lines of some 24 sizes and offsets, drilled for the circles cars have.
fn wheels(rng: &mut StdRng, count: u32) -> Vec<WheelRow> {
    let circles = [(5, 112.0), (5, 114.3), (5, 120.0), (5, 108.0), (4, 100.0), (5, 100.0)];
    (1..=count)
        .map(|id| {
            let (bolts, circle) = circles[rng.random_range(0..circles.len())];
            WheelRow {
                id,
                line: format!("line {}", id / 24).into(),
                finish: ["silver", "black", "bronze"][rng.random_range(0..3)].into(),
                wheel: Wheel {
                    diameter: RimDiameter::from_code(f64::from(rng.random_range(15..22))).unwrap(),
                    width: RimWidth::from_code(f64::from(rng.random_range(12..24)) / 2.0).unwrap(),
                    offset: Offset::from_mm(f64::from(rng.random_range(0..60))),
                    bolt_circle: BoltCircle::new(bolts, circle),
                    center_bore: CenterBore::from_mm([66.6, 72.6, 73.1][rng.random_range(0..3)]),
                    second_circle: None,
                    center_lock: false,
                },
                more_circles: Vec::new(),
                seat: None,
                load_kg: Some(f64::from(rng.random_range(550..900))),
                mass_kg: Some(f64::from(rng.random_range(70..140)) / 10.0),
                make: None,
                is_directional: false,
                overall_width: None,
                price: Some(rng.random_range(15_000..120_000)),
                stock: Some(rng.random_range(0..12)),
            }
        })
        .collect()
}

/// Tires: lines of some 60 sizes.
fn tires(rng: &mut StdRng, count: u32) -> Vec<TireRow> {
    let kinds = TireKind::ALL;
    (1..=count)
        .map(|id| {
            let rim = RimDiameter::from_code(f64::from(rng.random_range(15..22))).unwrap();
            let (section, aspect) = (165 + 10 * rng.random_range(0..17), 25 + 5 * rng.random_range(0..8));
            let size = MetricSize::new(Prefix::None, section, aspect, Construction::Radial, rim).unwrap();
            let index = rng.random_range(86..104);
            let service: ServiceDescription = ServiceDescription {
                single: fitment::values::load_index::LoadIndex::new(index).unwrap(),
                dual: None,
                speed: fitment::values::speed_symbol::SpeedSymbol::from_letter(
                    ['V', 'W', 'Y'][rng.random_range(0..3)],
                )
                .unwrap(),
            };
            let tread = f64::from(section) * 0.86;
            TireRow {
                id,
                line: format!("tread {}", id / 60).into(),
                tire: Tire {
                    service: Some(service),
                    load_version: Some(LoadVersion::Extra),
                    ..Tire::plain(Size::Metric(size))
                },
                kind: Some(kinds[rng.random_range(0..kinds.len())]),
                section: None,
                tread_width: Length::from_mm(tread),
                overall_diameter: None,
                permitted: None,
                measuring_rim: None,
                mass_kg: Some(f64::from(rng.random_range(70..140)) / 10.0),
                void_pct: None,
                treadwear: None,
                has_rim_guard: None,
                wet_grade: "".into(),
                temperature_grade: "".into(),
                factory_mark: "".into(),
                is_directional: false,
                is_asymmetric: true,
                price: Some(rng.random_range(7_000..40_000)),
                stock: Some(rng.random_range(0..12)),
            }
        })
        .collect()
}

fn corner(on: &Setup, strut: f64, fender: f64) -> Corner {
    let one = |feature, gap: f64| {
        Reading::new(feature, Length::from_mm(gap).unwrap(), Length::from_mm(1.0).unwrap(), *on)
    };
    Corner {
        readings: vec![
            one(Feature::Strut, strut),
            one(Feature::FenderLateral, fender),
            one(Feature::Arch, 62.0),
        ],
        camber_deg: Some(-1.2),
        ..Corner::default()
    }
}

fn main() {
    let is_bench = std::env::args().any(|argument| argument == "--bench");
    let sizes: &[(u32, u32)] = if is_bench {
        &[(1_000, 600), (5_000, 3_000), (10_000, 6_000), (50_000, 30_000), (100_000, 60_000)]
    } else {
        &[(200, 100)]
    };
    let fitted = SetupPair {
        front: "18x8 ET34 5x120 CB72.6 225/45R18 95Y XL".parse().ok(),
        rear: "18x8.5 ET47 5x120 CB72.6 245/40R18 97Y XL".parse().ok(),
    };
    let limits = HouseLimits::DEFAULT;
    let corners = Corners {
        front: corner(&fitted.front.unwrap(), 20.0, 22.0),
        rear: corner(&fitted.rear.unwrap(), 30.0, 26.0),
    };
    let flush = StyleTarget { style: Style::Flush, within: None, is_show: false };
    let nothing = SetupPair::default();
    let plan = Case::new(&fitted, &nothing, Some(Drive::Rear), &limits, None).in_state(CarState::new(
        corners,
        PairLevers::default(),
        (Some(flush), Some(flush)),
    ));
    let scene = Scene { plan: &plan };
    let wish = SearchCriteria {
        season: None,
        keeps: KeptParts::Nothing,
        approach: Approach::WheelFirst,
        uses: vec![fitment::setup::catalogue::Use::Daily],
        arrangements: Arrangements::Either,
        mixed_diameters: true,
        rims: (RimDiameter::from_code(17.0).unwrap(), RimDiameter::from_code(20.0).unwrap()),
        rear_rims: None,
        class: None,
        budget: None,
        thickest_spacer_mm: 0.0,
        wheel_line: None,
        tire_line: None,
        weights: Weights::of(Approach::WheelFirst),
        count: 20,
    };
    // One that leaves everything in: what asking it costs, not what it saves.
    let class = Class {
        name: "all".to_owned(),
        clauses: vec![
            Clause::RimDiameterChange { most_in: 12.0 },
            Clause::WidthChange { most_in: 8.0 },
            Clause::OffsetChange { most_mm: 150.0 },
            Clause::TrackChange { most_mm: 300.0 },
            Clause::Spacers { most_mm: 100.0 },
        ],
    };
    for (wheel_count, tire_count) in sizes {
        let mut rng = StdRng::seed_from_u64(4);
        let catalogue =
            Catalogue { wheels: wheels(&mut rng, *wheel_count), tires: tires(&mut rng, *tire_count) };
        for (name, wish) in [
            ("open", wish.clone()),
            ("budget", SearchCriteria { budget: Some(260_000), ..wish.clone() }),
            ("class", SearchCriteria { class: Some(class.clone()), ..wish.clone() }),
            ("square", SearchCriteria { arrangements: Arrangements::Square, ..wish.clone() }),
        ] {
            let mut took: Vec<f64> = (0..if is_bench { 9 } else { 1 })
                .map(|_| {
                    let start = Instant::now();
                    black_box(find(&scene, &catalogue, &wish));
                    start.elapsed().as_secs_f64() * 1e3
                })
                .collect();
            took.sort_by(f64::total_cmp);
            let found = find(&scene, &catalogue, &wish);
            println!(
                "find_{name}_{wheel_count} {:.1} {:.1} found {} best {:.3} rows {:?}",
                took[took.len() / 2],
                took[took.len() - 1],
                found.found.len(),
                found.found.first().map_or(0.0, |best| best.score),
                found.rows
            );
        }
    }
}
