//! Front share of the total tread width against the factory's.

use super::{Asked, Finding, LineCode, Rule, Severity};
use crate::judgement::case::{Case, Reference};
use crate::parts::tire::rims::estimated_tread_width;
use crate::setup::{Axle, Setup};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source, Step};

const SOURCE: Source = Source::common_practice("less front share of the tread leans to understeer");

pub(super) const RULE: Rule = Rule {
    title: "Balance of tread",
    source: SOURCE,
    asked: Asked::PerCar(LineCode::Balance, judge),
    of_car: &[],
};

/// `None` while not all tires are stated, or when front and rear are alike as they were.
fn judge(case: &Case<'_>) -> Option<Finding> {
    let pair = Reference::pair_of(&case.state.car, &case.fitted)?;
    let which = pair.front.which();
    let reference = treads(&pair.front.setup, &pair.rear.setup)?;
    let planned = treads(case.planned.on(Axle::Front)?, case.planned.on(Axle::Rear)?)?;
    let share = |(front, rear): (Length, Length)| front / (front + rear) * 100.0;
    let (was, is) = (share(reference), share(planned));
    let change = is - was;
    if change.abs() < 1e-9 {
        return None;
    }
    let limit_pct = case.limits.balance_pct;
    let (severity, word, says) = if change < -limit_pct {
        (Severity::Mind, "to understeer", "Less of the tread is in front: it leans to understeer.")
    } else if change > limit_pct {
        (Severity::Mind, "to oversteer", "More of the tread is in front: the rear lets go sooner.")
    } else {
        (Severity::Good, "kept", "Front and rear keep their shares.")
    };
    let step = |what, (front, rear): (Length, Length)| Step {
        what,
        formula: "front / (front + rear) × 100",
        inputs: vec![("front", Quantity::length(front)), ("rear", Quantity::length(rear))],
        result: Quantity::percent(share((front, rear))),
        source: SOURCE,
    };
    let figure = Quantity::percent(change).signed();
    Some(Finding {
        severity,
        word,
        figure: Some(figure),
        limit: Phrase::new("house limit ")
            .quantity(Quantity::percent(limit_pct))
            .text(format!(" either way of the {which} share")),
        says: Phrase::new(says).text(" Tread widths are the list's where known, else estimated."),
        caution: None,
        working: vec![
            step("front share before", reference),
            step("front share planned", planned),
            Step {
                what: "change of the front share",
                formula: "planned − before",
                inputs: vec![("planned", Quantity::percent(is)), ("before", Quantity::percent(was))],
                result: figure,
                source: SOURCE,
            },
        ],
        points: Vec::new(),
    })
}

/// Both axles' tread widths. The list's figure only for both alike: an estimate on one side would lie about the other.
fn treads(front: &Setup, rear: &Setup) -> Option<(Length, Length)> {
    let (listed_front, listed_rear) = (front.tread_width()?, rear.tread_width()?);
    if listed_front.1 && listed_rear.1 {
        return Some((listed_front.0, listed_rear.0));
    }
    let estimated = |setup: &Setup| Some(estimated_tread_width(&setup.tire?.size));
    Some((estimated(front)?, estimated(rear)?))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_on};
    use crate::car::{Car, Fact};

    #[test]
    fn a_wider_rear_leans_to_understeer() {
        // By hand: 0.88 × 235 and 0.90 × 265 against equal ones: 206.8 / 445.3 = 46.44 %, −3.56 points.
        let planned = "F: 18x8.5 ET40 235/40R18 R: 18x9.5 ET40 265/35R18";
        let wider = line("balance", "17x7.5 ET45 225/45R17", planned, None);
        assert_eq!((wider.severity, wider.word), (Severity::Mind, "to understeer"));
        assert!((wider.figure.unwrap().value + 3.56).abs() < 0.005, "{:?}", wider.figure);
        let square = line("balance", planned, "18x8.5 ET40 235/40R18", None);
        assert_eq!(square.word, "to oversteer");
    }

    #[test]
    fn the_factorys_share_is_the_reference_and_square_on_square_says_nothing() {
        let mut car = Car::default();
        car.note(Fact::FactorySetup, Some(Axle::Front), "18x8 ET40 235/40R18").unwrap();
        car.note(Fact::FactorySetup, Some(Axle::Rear), "18x9 ET40 265/35R18").unwrap();
        let planned = "F: 18x8.5 ET40 235/40R18 R: 18x9.5 ET40 265/35R18";
        assert!(line_on(car, "balance", "18x8 ET40 235/40R18", planned).is_none(), "as the factory has it");
        let alike = line_on(Car::default(), "balance", "17x7.5 ET45 225/45R17", "18x8 ET45 225/40R18");
        assert!(alike.is_none());
    }
}
