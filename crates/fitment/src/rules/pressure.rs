//! The cold pressure at which the planned tire carries half of the axle's rating.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::car::Fact;
use crate::pressure::{CAUTION, SOURCE, pressure_for};
use crate::working::{Phrase, Quantity};

pub(super) const RULE: Rule =
    Rule { code: "pressure", title: "Cold pressure", source: SOURCE, asked: Asked::PerAxle(judge) };

/// `None` while the axle's rating is not written down: nothing says what must be carried.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let axle = Some(check.axle.axle);
    let car = &check.case.state.car;
    let load = car.number(Fact::AxleRating, axle)? / 2.0;
    let placard = car.number(Fact::PlacardPressure, axle);
    let tire = check.planned.tire?;
    let Some(found) = pressure_for(&tire, load, placard) else {
        return Some(Finding::unknown("Name the planned tire's load index, as in 97Y."));
    };
    let limit = match placard {
        Some(kpa) => Phrase::new("placard ").quantity(Quantity::pressure(kpa)),
        None => Phrase::new("placard not written down"),
    };
    let (standing, word, says) = if !found.is_enough {
        let says = Phrase::new("Half of the axle's rating is ")
            .quantity(Quantity::mass(load))
            .text(": no pressure makes this tire carry it.");
        (Severity::Stop, "not enough", says)
    } else if found.by_placard {
        let says = Phrase::new("The placard is more than ")
            .quantity(Quantity::mass(load))
            .text(" on each tire asks for: it stays.");
        (Severity::Good, "the placard's", says)
    } else {
        let says =
            Phrase::new("To carry ").quantity(Quantity::mass(load)).text(", half of the axle's rating.");
        (Severity::Mind, "suggested", says)
    };
    Some(Finding {
        standing,
        word,
        figure: Some(Quantity::pressure(found.kpa)),
        limit,
        says,
        caution: Some(CAUTION),
        working: found.figure.working,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::Car;
    use crate::ledger::tests::line_on;

    #[test]
    fn the_rating_asks_and_the_placard_is_the_least() {
        let car = |rating: &str, placard: &str| {
            let mut car = Car::default();
            car.note(Fact::AxleRating, Some(crate::Axle::Front), rating).unwrap();
            car.note(Fact::PlacardPressure, Some(crate::Axle::Front), placard).unwrap();
            car
        };
        // ETRTO (memory): 250 × (L / L_max)^1.25; 92 is 630 kg (ISO 4000-1).
        for (rating, placard, word, kpa) in [
            ("1000", "230", "the placard's", 230.0),
            ("1200", "210", "suggested", 250.0 * (600.0_f64 / 630.0).powf(1.25)),
            ("1300", "230", "not enough", 250.0),
        ] {
            let line =
                line_on(car(rating, placard), "pressure", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18 92Y");
            let line = line.unwrap();
            assert_eq!(line.word, word, "{rating}");
            assert!((line.figure.unwrap().value - kpa).abs() < 1e-9, "{rating}: {:?}", line.figure);
        }
        assert!(line_on(Car::default(), "pressure", "17x7.5 ET45 225/45R17", "18x8 225/40R18 92Y").is_none());
    }
}
