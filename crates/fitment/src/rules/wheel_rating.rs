//! The wheel's own load rating.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::car::Fact;
use crate::setup::Axle;
use crate::working::{Phrase, Quantity, Source, Step};

const SOURCE: Source = Source::common_practice("a wheel carries at least half of the heavier axle's rating");

pub(super) const RULE: Rule =
    Rule { code: "wheel-load", title: "Wheel's load rating", source: SOURCE, asked: Asked::PerAxle(judge) };

const CAUTION: &str = "A wheel rated too low cracks. The rating is cast or stamped into the wheel; local codes and a licensed \
                       inspector have the last word.";

/// `None` while neither a rating of the car's nor of the wheel's is known: there is nothing to hold together.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    check.planned.wheel?;
    let bay = &check.case.state;
    let heavier = Axle::BOTH
        .into_iter()
        .filter_map(|axle| bay.car.number(Fact::AxleRating, Some(axle)))
        .reduce(f64::max);
    let rating = bay.parts.wheel_of(check.planned).and_then(|row| row.load_kg);
    let (rating, heavier) = match (rating, heavier) {
        (None, None) => return None,
        (None, Some(heavier)) => {
            let finding =
                Finding::unknown("The wheel's rating is not stated: read it off the wheel or its list.");
            let limit =
                Phrase::new("half of the heavier axle's rating, ").quantity(Quantity::mass(heavier / 2.0));
            return Some(Finding { limit, ..finding });
        }
        (Some(_), None) => {
            return Some(Finding::unknown(
                "The axles' ratings are not in the car's record: half of the heavier one is needed.",
            ));
        }
        (Some(rating), Some(heavier)) => (rating, heavier),
    };
    let need = heavier / 2.0;
    let step = Step {
        what: "what one wheel must carry",
        formula: "heavier axle's rating / 2",
        put_in: vec![("heavier axle's rating", Quantity::mass(heavier))],
        gives: Quantity::mass(need),
        source: SOURCE,
    };
    let listed = Step {
        what: "wheel's rating",
        formula: "as listed",
        put_in: Vec::new(),
        gives: Quantity::mass(rating),
        source: Source { kind: crate::working::SourceKind::Measured, cite: "the price list's rating" },
    };
    let is_enough = rating >= need;
    Some(Finding {
        standing: if is_enough { Severity::Good } else { Severity::Stop },
        word: if is_enough { "enough" } else { "too low" },
        figure: Some(listed.gives),
        limit: Phrase::new("half of the heavier axle's rating, ").quantity(Quantity::mass(need)),
        says: Phrase::new("Rated ")
            .quantity(listed.gives)
            .text(", one wheel must carry ")
            .quantity(step.gives)
            .text("."),
        caution: (!is_enough).then_some(CAUTION),
        working: vec![step, listed],
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::Car;
    use crate::case::CarState;
    use crate::catalogue::PickedParts;
    use crate::catalogue::picked::tests::wheel_row;
    use crate::ledger::tests::{line_in_bay, line_on};

    fn car() -> Car {
        let mut car = Car::default();
        car.note(Fact::AxleRating, Some(Axle::Front), "1100").unwrap();
        car.note(Fact::AxleRating, Some(Axle::Rear), "1240").unwrap();
        car
    }

    #[test]
    fn half_of_the_heavier_axle_is_what_a_wheel_carries() {
        // Common practice, no source: 1240 / 2 = 620 kg on either axle.
        for (rating, standing) in [(620.0, Severity::Good), (619.0, Severity::Stop)] {
            let mut row = wheel_row("18x8 ET45");
            row.load_kg = Some(rating);
            let parts = PickedParts { wheels: vec![row], ..PickedParts::default() };
            let bay = CarState::default().of_car(car()).with_parts(parts);
            let line =
                line_in_bay(bay, "wheel-load", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18").unwrap();
            assert_eq!(line.standing, standing, "{rating}");
            assert_eq!(line.caution.is_some(), standing == Severity::Stop);
        }
    }

    #[test]
    fn a_rating_nobody_knows_is_not_enough() {
        let line = line_on(car(), "wheel-load", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18").unwrap();
        assert_eq!((line.standing, line.figure), (Severity::Unknown, None));
        assert!(line_on(Car::default(), "wheel-load", "17x7.5 ET45", "18x8 ET45").is_none());
    }
}
