//! The core's speed on what the bench asks of it at every step of a drag.
#![allow(
    clippy::unwrap_used,
    missing_docs,
    reason = "a bench that cannot go on fails; criterion makes the items"
)]

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use fitment::change::{axle_change, pair_change};
use fitment::ledger::Plan;
use fitment::limits::{Drive, HouseLimits};
use fitment::section::{rim_section, tire_section};
use fitment::setup::{Setup, SetupPair};

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
            Plan::new(black_box(&fitted), black_box(&planned), Some(Drive::Rear), &limits, None).ledger()
        });
    });
    let setup = planned.rear.unwrap();
    c.bench_function("section_of_one_wheel", |b| {
        b.iter(|| (rim_section(&black_box(setup).wheel.unwrap()), tire_section(&black_box(setup))));
    });
}

criterion_group!(benches, plans);
criterion_main!(benches);
