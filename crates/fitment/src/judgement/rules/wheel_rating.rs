//! The wheel's own load rating.

use super::rotation::changes_axles;
use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::Fact;
use crate::judgement::case::{Case, half_rating_kg};
use crate::setup::{Arrangement, Axle};
use crate::values::working::{Phrase, Quantity, Source, Step};

const SOURCE: Source = Source::common_practice(
    "a wheel carries at least half of its axle's rating, of the heavier one where the set is rotated",
);

pub(super) const RULE: Rule = Rule {
    title: "Wheel's load rating",
    source: SOURCE,
    asked: Asked::PerAxle(LineCode::WheelLoad, judge),
    of_car: &[Fact::AxleRating],
};

const CAUTION: &str = "A wheel rated too low cracks. The rating is cast or stamped into the wheel; local codes and a licensed inspector \
                       have the last word.";

/// What one wheel on an axle must carry, in kilograms: half of its own axle's rating; of the heavier one where the wheels
/// may change axles. `None` while the rating is not written down.
pub fn needed_kg(case: &Case<'_>, axle: Axle, arrangement: Option<Arrangement>) -> Option<f64> {
    let half = |axle| half_rating_kg(&case.state.car, axle);
    if changes_axles(arrangement) {
        Axle::BOTH.into_iter().filter_map(half).reduce(f64::max)
    } else {
        half(axle)
    }
}

/// Whether a rating is enough; `true` where one of both is not known.
pub fn is_enough(rating_kg: Option<f64>, needed_kg: Option<f64>) -> bool {
    rating_kg.zip(needed_kg).is_none_or(|(rating, needed)| rating >= needed)
}

/// `None` while neither a rating of the car's nor of the wheel's is known: there is nothing to hold together. And `None` for
/// the car's own wheel with no rating at hand: a line that nobody will ever answer is no line.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    check.planned.wheel?;
    let arrangement = check.case.planned.arrangement();
    let needed = needed_kg(check.case, check.axle.axle, arrangement);
    let rating = check.case.state.parts.wheel_of(check.planned).and_then(|row| row.load_kg);
    let whose = if changes_axles(arrangement) {
        "half of the heavier axle's rating, "
    } else {
        "half of its axle's rating, "
    };
    let (rating, needed) = match (rating, needed) {
        (None, None) => return None,
        // The car came on it, or drives on it: nobody reads a rating off a wheel that stays.
        (None, Some(_)) if check.axle.keeps_the_wheel(check.planned) => return None,
        (None, Some(needed)) => {
            let needed = Quantity::mass(needed);
            return Some(Finding {
                severity: Severity::Mind,
                word: "read the rating",
                says: Phrase::new(
                    "The wheel's rating is not stated: read it off the wheel or its list before the order; ",
                )
                .quantity(needed)
                .text(" at least."),
                limit: Phrase::new(whose).quantity(needed),
                caution: Some(CAUTION),
                ..Finding::unknown("")
            });
        }
        (Some(_), None) => {
            return Some(Finding::unknown(
                "The axle's rating is not in the car's record: half of it is needed.",
            ));
        }
        (Some(rating), Some(needed)) => (rating, needed),
    };
    let step = Step {
        what: "what one wheel must carry",
        formula: "axle's rating / 2",
        inputs: vec![("axle's rating", Quantity::mass(needed * 2.0))],
        result: Quantity::mass(needed),
        source: SOURCE,
    };
    let listed = Step {
        what: "wheel's rating",
        formula: "as listed",
        inputs: Vec::new(),
        result: Quantity::mass(rating),
        source: Source::LISTED,
    };
    let enough = is_enough(Some(rating), Some(needed));
    Some(Finding {
        severity: if enough { Severity::Good } else { Severity::Stop },
        word: if enough { "enough" } else { "too low" },
        figure: Some(listed.result),
        limit: Phrase::new(whose).quantity(Quantity::mass(needed)),
        says: Phrase::new("Rated ")
            .quantity(listed.result)
            .text(", one wheel must carry ")
            .quantity(step.result)
            .text("."),
        caution: (!enough).then_some(CAUTION),
        working: vec![step, listed],
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_in_state;
    use crate::car::{Car, Fact};
    use crate::judgement::case::CarState;
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::wheel_row;

    fn state(ratings: [Option<&str>; 2], load_kg: Option<f64>) -> CarState {
        let mut car = Car::default();
        for (axle, rating) in Axle::BOTH.into_iter().zip(ratings) {
            if let Some(rating) = rating {
                car.note(Fact::AxleRating, Some(axle), rating).unwrap();
            }
        }
        let mut row = wheel_row("18x8.5 ET35");
        row.load_kg = load_kg;
        let parts = PickedParts { wheels: vec![row], ..PickedParts::default() };
        CarState::default().of_car(car).with_parts(parts)
    }

    #[test]
    fn its_own_axle_counts_and_the_heavier_one_only_where_the_set_is_rotated() {
        // Common practice: half of an axle rated 900 kg is 450, of one rated 1300 kg 650.
        let square = "18x8.5 ET35 245/40R18";
        let staggered = "F: 18x8.5 ET35 245/40R18 R: 18x9.5 ET40 265/35R18";
        for (planned, severity) in [(square, Severity::Stop), (staggered, Severity::Good)] {
            let state = state([Some("900"), Some("1300")], Some(600.0));
            let line = line_in_state(state, "wheel-load", "17x7.5 ET45 225/45R17", planned).unwrap();
            assert_eq!(line.severity, severity, "{planned}: {line:?}");
        }
    }

    #[test]
    fn what_is_not_known_is_said_and_never_taken_for_enough() {
        let fitted = "17x7.5 ET45 225/45R17";
        let planned = "18x8.5 ET35 245/40R18";
        let unknown =
            line_in_state(state([Some("1000"), None], None), "wheel-load", fitted, planned).unwrap();
        assert_eq!((unknown.severity, unknown.word), (Severity::Mind, "read the rating"));
        let unknown = line_in_state(state([None, None], Some(690.0)), "wheel-load", fitted, planned).unwrap();
        assert_eq!(unknown.severity, Severity::Unknown);
        assert_eq!(line_in_state(state([None, None], None), "wheel-load", fitted, planned), None);
        // The car's own wheel with another tire on it.
        let own = CarState::default().of_car(state([Some("1000"), None], None).car);
        assert_eq!(line_in_state(own, "wheel-load", fitted, "17x7.5 ET45 235/45R17"), None);
    }
}
