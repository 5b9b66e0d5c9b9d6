//! What becomes of the pressure sensors.

use super::{Asked, Case, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::values::working::{Phrase, Source};

const SOURCE: Source =
    Source::common_practice("sensors move over, or four are ordered and taught; no source");

pub(super) const RULE: Rule = Rule {
    title: "Pressure sensors",
    source: SOURCE,
    asked: Asked::PerCar(LineCode::Sensors, judge),
    of_car: &[Fact::PressureSensors],
};

/// `None` without new wheels or tires, or on a car of which nothing is written down.
fn judge(plan: &Case<'_>) -> Option<Finding> {
    let car = &plan.state.car;
    if car.is_unknown() || (plan.planned.front.is_none() && plan.planned.rear.is_none()) {
        return None;
    }
    let (severity, word, says) = match car.words(Fact::PressureSensors, None) {
        None => {
            return Some(Finding::unknown(
                "Find out whether the car has pressure sensors in its wheels, and note it in its record.",
            ));
        }
        Some("in the wheels") => (
            Severity::Mind,
            "move or order",
            "The sensors move over to the new wheels, or four are ordered and taught to the car. Check that the new \
             wheel takes them, and that nothing behind it touches them.",
        ),
        Some("through wheel speed") => (
            Severity::Good,
            "to be reset",
            "The car counts wheel turns: reset it with the new tires cold and set. It compares the tires, so uneven \
             wear or sizes raise false alarms.",
        ),
        Some(_) => (Severity::Good, "none", "The car has none: pressures are read by hand."),
    };
    Some(Finding {
        severity,
        word,
        figure: None,
        limit: Phrase::new("by the car's record"),
        says: Phrase::new(says),
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
    fn sensors_in_the_wheels_are_minded() {
        let line = |sensors: &str| {
            let mut car = Car::default();
            car.note(Fact::TopSpeed, None, "210").unwrap();
            car.note(Fact::PressureSensors, None, sensors).unwrap();
            line_on(car, "sensors", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18").unwrap().severity
        };
        assert_eq!(line("in the wheels"), Severity::Mind);
        assert_eq!(line("through wheel speed"), Severity::Good);
        assert_eq!(line("none"), Severity::Good);
        assert_eq!(line(""), Severity::Unknown, "a record without a word on them");
        assert!(line_on(Car::default(), "sensors", "17x7.5 ET45", "18x8 ET45").is_none());
    }
}
