//! The tire on its rim: square, stretched or bulging, and whether the rim is a permitted one.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::tire::rims::PERMITTED_SOURCE;
use crate::tire_on_rim::{SidewallShape, over_flange_worked, tire_on_rim};
use crate::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    code: "tire-on-rim",
    title: "Tire on its rim",
    source: PERMITTED_SOURCE,
    asked: Asked::PerAxle(judge),
};

const CAUTION: &str = "Outside the maker's permitted rims a bead can leave its seat. Do not fit without the \
                       tire maker's table; a licensed inspector has the last word.";

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let (Some(wheel), Some(tire)) = (check.planned.wheel, check.planned.tire) else {
        return Some(Finding::unknown("Wheel and tire must both be stated."));
    };
    let on_rim = tire_on_rim(&tire.size, wheel.width);
    let figure = over_flange_worked(&tire.size, wheel.width);
    let (least, most) = on_rim.permitted;
    let limit = Phrase::new("rims ")
        .quantity(Quantity::rim_inches(least.code()))
        .text(" to ")
        .quantity(Quantity::rim_inches(most.code()))
        .text(", estimated");
    let shape = match on_rim.shape {
        SidewallShape::Square => "square",
        SidewallShape::Stretched => "stretched",
        SidewallShape::Bulging => "bulging",
    };
    let stands = match on_rim.shape {
        SidewallShape::Stretched => "The rim flange stands proud of the rubber by ",
        SidewallShape::Square if on_rim.over_flange.as_mm() < 0.0 => {
            "Square: the rim flange stands proud of the rubber by "
        }
        SidewallShape::Square => "Square: the rubber stands over the rim flange by ",
        SidewallShape::Bulging => "The rubber hangs over the rim flange by ",
    };
    let says =
        Phrase::new(stands).quantity(Quantity::length(on_rim.over_flange.abs())).text(" a side. ").text(
            match (on_rim.is_permitted, on_rim.shape) {
                (false, _) => {
                    "This rim is outside the estimated range: do not fit unless the maker's table permits it."
                }
                (true, SidewallShape::Square) => "Confirm the range with the maker's table.",
                (true, SidewallShape::Stretched) => {
                    "The rim, not the tire, meets the car and the kerb first. Confirm the range with the maker's table."
                }
                (true, SidewallShape::Bulging) => {
                    "Expect a vague, squirming feel and more heat. Confirm the range with the maker's table."
                }
            },
        );
    let (standing, word) = match (on_rim.is_permitted, on_rim.shape) {
        (false, _) => (Severity::Stop, "do not fit"),
        (true, SidewallShape::Square) => (Severity::Good, shape),
        (true, _) => (Severity::Mind, shape),
    };
    Some(Finding {
        standing,
        word,
        figure: Some(figure.quantity),
        limit,
        says,
        caution: (!on_rim.is_permitted).then_some(CAUTION),
        working: figure.working,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ledger::tests::line;

    #[test]
    fn outside_the_permitted_rims_is_never_fitted() {
        // 225/45R17: 7.0 to 8.5 permitted (ETRTO, memory).
        for (planned, standing, word) in [
            ("17x7 ET45 225/45R17", Severity::Good, "square"),
            ("17x8.5 ET45 225/45R17", Severity::Mind, "stretched"),
            ("17x9 ET45 225/45R17", Severity::Stop, "do not fit"),
            ("17x6.5 ET45 225/45R17", Severity::Stop, "do not fit"),
        ] {
            let line = line("tire-on-rim", "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.standing, line.word), (standing, word), "{planned}");
            assert_eq!(line.caution.is_some(), standing == Severity::Stop);
        }
    }
}
