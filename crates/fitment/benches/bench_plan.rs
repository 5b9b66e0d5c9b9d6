//! The core's speed on what the bench asks of it at every step of a drag.
#![allow(
    clippy::unwrap_used,
    missing_docs,
    reason = "a bench that cannot go on fails; criterion makes the items"
)]

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fitment::Length;
use fitment::car::corner::{Corner, Feature, Reading};
use fitment::car::lever::Levers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::section::{rim_section, tire_section};
use fitment::judgement::case::AxleCase;
use fitment::judgement::case::Case;
use fitment::judgement::window::{TireChoice, widths_round};
use fitment::setup::change::{axle_change, pair_change};
use fitment::setup::{Axle, Setup, SetupPair};

const FITTED: [&str; 2] =
    ["18x8 ET34 5x120 CB72.6 · 225/45R18 95Y XL", "18x8.5 ET47 5x120 CB72.6 · 245/40R18 97Y XL"];
const PLANNED: [&str; 2] = [
    "19x8.5 ET33 5x120 · 235/35R19 91Y XL · 3 mm spacer",
    "19x9.5 ET40 5x120 · 265/30R19 93Y XL · 5 mm spacer",
];

fn pair(lines: [&str; 2]) -> SetupPair {
    let [front, rear] = lines.map(|line| line.parse::<Setup>().ok());
    SetupPair { front, rear }
}

fn plans(c: &mut Criterion) {
    c.bench_function("parse_and_compare_staggered", |b| {
        b.iter(|| {
            let (fitted, planned) = (pair(black_box(FITTED)), pair(black_box(PLANNED)));
            let front = axle_change(&fitted.front.unwrap(), &planned.front.unwrap());
            let rear = axle_change(&fitted.rear.unwrap(), &planned.rear.unwrap());
            (front, rear, pair_change(&fitted, &planned))
        });
    });
    let (fitted, planned) = (pair(FITTED), pair(PLANNED));
    c.bench_function("ledger_staggered", |b| {
        b.iter(|| {
            let limits = HouseLimits::DEFAULT;
            Case::new(black_box(&fitted), black_box(&planned), Some(Drive::Rear), &limits, None).ledger()
        });
    });
    let setup = planned.rear.unwrap();
    c.bench_function("section_of_one_wheel", |b| {
        b.iter(|| (rim_section(&black_box(setup).wheel.unwrap()), tire_section(&black_box(setup))));
    });
}

fn reading(feature: Feature, gap: f64, plus_minus: f64, on: &Setup) -> Reading {
    let gap = Length::from_mm(gap).unwrap();
    let plus_minus = Length::from_mm(plus_minus).unwrap();
    Reading {
        radius: (feature == Feature::SpringPerch).then(|| Length::from_mm(300.0).unwrap()),
        ..Reading::new(feature, gap, plus_minus, *on)
    }
}

/// A corner read thoroughly, as the sample shop's staggered coupé.
fn corner(fitted: &Setup) -> Corner {
    let readings = [
        (Feature::Strut, 32.0, 0.2),
        (Feature::SpringPerch, 28.0, 0.2),
        (Feature::Knuckle, 17.0, 1.0),
        (Feature::FenderLateral, 25.0, 1.0),
        (Feature::Arch, 60.0, 1.0),
        (Feature::CaliperRadial, 9.0, 0.1),
        (Feature::CaliperFace, 8.0, 0.5),
        (Feature::LinerAhead, 30.0, 2.0),
    ];
    let readings = readings.map(|(feature, gap, off)| reading(feature, gap, off, fitted));
    Corner { readings: readings.into(), camber_deg: Some(-1.6), ..Corner::default() }
}

fn windows(c: &mut Criterion) {
    let (fitted, planned) = (pair(FITTED), pair(PLANNED));
    let axles = [
        (Axle::Front, fitted.front.unwrap(), planned.front.unwrap()),
        (Axle::Rear, fitted.rear.unwrap(), planned.rear.unwrap()),
    ];
    let (limits, levers) = (HouseLimits::DEFAULT, Levers::default());
    // From readings to the window, for both axles: what a moved lever asks for.
    let mut both = |name: &str, choice: TireChoice| {
        c.bench_function(name, |b| {
            b.iter(|| {
                axles.each_ref().map(|(axle, fitted, planned)| {
                    let corner = corner(fitted);
                    let resolved = corner.resolve();
                    let trial = AxleCase::new(*axle, &corner, &resolved, fitted, &limits, &levers);
                    trial.window(planned, choice, &widths_round(Some(fitted), Some(planned)), None)
                })
            });
        });
    };
    both("window_of_both_axles", TireChoice::Same);
    both("window_of_both_axles_squarest_tires", TireChoice::NearestSquare);
}

criterion_group!(benches, plans, windows);
criterion_main!(benches);
