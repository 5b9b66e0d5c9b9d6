//! A club's class over a job's plan: what the picked rows and the fender line say of it counts.

use fitment::judgement::case::Case;
use fitment::judgement::clearance::style;
use fitment::judgement::club::{Class, Entry, JudgedClause};
use fitment::setup::Axle;

/// A class over a plan: what the picked rows and the fender line say of it counts.
pub fn classed(class: &Class, case: &Case<'_>) -> Vec<JudgedClause> {
    let parts = &case.state.parts;
    let of = |axle: Axle| case.planned.on(axle);
    let entry = Entry {
        factory: case.reference_pair(),
        planned: case.planned,
        treadwear: Axle::BOTH.map(|axle| parts.tire_of(of(axle)?)?.treadwear),
        tires: Axle::BOTH.map(|axle| Some(&*parts.tire_of(of(axle)?)?.line)),
        make: Axle::BOTH.map(|axle| parts.wheel_of(of(axle)?)?.make),
        beyond_fender_mm: Axle::BOTH.map(|axle| Some(style(&case.axle(axle)?, of(axle)?)?.beyond().as_mm())),
    };
    class.judge(&entry)
}
