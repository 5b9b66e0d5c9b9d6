//! One car has one bolt circle: the wheels of a set share one.

use super::{Asked, Case, Finding, LineCode, Rule, Severity};
use crate::values::codes::BoltCircle;
use crate::values::working::{Phrase, Source};

pub(super) const RULE: Rule = Rule {
    title: "Bolt circle of the set",
    source: Source::common_practice("front and rear wheels of a car are drilled alike; no source"),
    asked: Asked::PerCar(LineCode::SetBoltCircle, judge),
    of_car: &[],
};

/// `None` where both axles' wheels share a circle, or one of them names none.
fn judge(case: &Case<'_>) -> Option<Finding> {
    let drilled = |setup: Option<&crate::setup::Setup>| -> Vec<BoltCircle> {
        setup.and_then(|setup| setup.wheel).map(|wheel| wheel.circles().collect()).unwrap_or_default()
    };
    let (front, rear) = (drilled(case.planned.front.as_ref()), drilled(case.planned.rear.as_ref()));
    let is_shared = front.iter().any(|circle| rear.contains(circle));
    if front.is_empty() || rear.is_empty() || is_shared {
        return None;
    }
    Some(Finding {
        severity: Severity::Stop,
        word: "does not match",
        figure: None,
        limit: Phrase::new("one bolt circle all round"),
        says: Phrase::new(format!(
            "The front wheels are drilled {}, the rear ones {}: one of them does not go on this car.",
            front[0], rear[0]
        )),
        caution: None,
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_on;
    use crate::car::Car;

    #[test]
    fn wheels_of_two_circles_are_no_set() {
        let of = |plan: &str| line_on(Car::default(), "set-bolt-circle", "17x7.5 ET45 225/45R17", plan);
        let mixed = of("F: 18x8 ET40 5x112 225/40R18 R: 18x9 ET40 5x100 255/35R18");
        assert_eq!(mixed.map(|line| line.severity), Some(Severity::Stop));
        assert!(of("F: 18x8 ET40 5x112 225/40R18 R: 18x9 ET40 5x112 255/35R18").is_none());
        // One that is drilled for both goes with either.
        assert!(of("F: 18x8 ET40 5x112 225/40R18 R: 18x9 ET40 5x100/112 255/35R18").is_none());
    }
}
