//! The tire on its rim: square, stretched or bulging, and whether the rim is one it may be put on.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::parts::tire::rims::{PERMITTED_SOURCE, PermittedRims, RimFit};
use crate::setup::Setup;
use crate::setup::tire_on_rim::{SidewallShape, TireOnRim, over_flange_worked, tire_on_rim};
use crate::values::codes::RimWidth;
use crate::values::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    title: "Tire on its rim",
    source: PERMITTED_SOURCE,
    asked: Asked::PerAxle(LineCode::TireOnRim, judge),
    of_car: &[],
};

const CAUTION: &str = "Outside the maker's permitted rims a bead can leave its seat. Do not fit without the tire maker's table; a licensed \
                       inspector has the last word.";
const STRETCH_CAUTION: &str = "A stretched tire's bead holds by its pressure: never under the placard, and inspect it after every kerb.";

/// What a setup's rim is for its tire; `None` without both.
pub fn rim_fit(setup: &Setup) -> Option<RimFit> {
    Some(setup.permitted_rims()?.judge(setup.wheel?.width))
}

/// So far beyond an estimated range a rim is asked about before the order, in inches; beyond that it is measured first. A list
/// decides by itself. Common practice; the estimate is within half an inch of most makers' tables.
const ASKED_BEFORE_THE_ORDER_IN: f64 = 0.5;

/// How a line about a rim stands: an estimate alone stops nothing, a list does.
fn severity(on_rim: &TireOnRim, rim: RimWidth) -> Severity {
    match (on_rim.fit, on_rim.shape) {
        (RimFit::Permitted, SidewallShape::Square) => Severity::Good,
        (RimFit::Permitted, _) => Severity::Mind,
        (RimFit::NotPermitted, _) if on_rim.permitted.is_listed => Severity::Stop,
        (RimFit::Ask | RimFit::NotPermitted, _) => {
            let PermittedRims { least, most, .. } = on_rim.permitted;
            let beyond = (least.code() - rim.code()).max(rim.code() - most.code());
            if beyond <= ASKED_BEFORE_THE_ORDER_IN { Severity::Mind } else { Severity::Measure }
        }
    }
}

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let Some(on_rim) = tire_on_rim(check.planned) else {
        return Some(Finding::unknown("Wheel and tire must both be stated."));
    };
    let figure = over_flange_worked(check.planned)?;
    let permitted = on_rim.permitted;
    let limit = Phrase::new("rims ")
        .quantity(Quantity::rim_inches(permitted.least.code()))
        .text(" to ")
        .quantity(Quantity::rim_inches(permitted.most.code()))
        .text(if permitted.is_listed { ", as listed" } else { ", estimated" });
    let stands = match on_rim.shape {
        SidewallShape::Stretched => "The rim flange stands proud of the tire by ",
        SidewallShape::Square if on_rim.over_flange.as_mm() < 0.0 => {
            "Square: the rim flange stands proud of the tire by "
        }
        SidewallShape::Square => "Square: the tire stands over the rim flange by ",
        SidewallShape::Bulging => "The tire hangs over the rim flange by ",
    };
    let shape = match on_rim.shape {
        SidewallShape::Square => "square",
        SidewallShape::Stretched => "stretched",
        SidewallShape::Bulging => "bulging",
    };
    let stands = Phrase::new(stands).quantity(Quantity::length(on_rim.over_flange.abs())).text(" a side. ");
    let first = |says: &'static str| {
        let mut says = Phrase::new(says);
        says.0.extend(stands.clone().0);
        says
    };
    let says = match (on_rim.fit, on_rim.shape) {
        (RimFit::NotPermitted, _) if permitted.is_listed => {
            first("This rim is outside the maker's table: do not fit. ")
        }
        (RimFit::NotPermitted, _) => first(
            "This rim is outside the estimated range: get the maker's range before the order, and do not fit without it. ",
        ),
        (RimFit::Ask, _) => first(
            "This rim may be permitted or not, and an estimate does not decide it: ask for the maker's table. ",
        ),
        (RimFit::Permitted, SidewallShape::Square) => stands,
        (RimFit::Permitted, SidewallShape::Stretched) => {
            stands.text("The rim, not the tire, meets the car and the kerb first.")
        }
        (RimFit::Permitted, SidewallShape::Bulging) => {
            stands.text("Expect a vague, squirming feel and more heat.")
        }
    };
    let says = match on_rim.fit {
        RimFit::Permitted if !permitted.is_listed => says.text(" Confirm the range with the maker's table."),
        _ => says,
    };
    let severity = severity(&on_rim, check.planned.wheel?.width);
    Some(Finding {
        severity,
        word: match on_rim.fit {
            RimFit::NotPermitted if severity == Severity::Stop => "do not fit",
            RimFit::NotPermitted | RimFit::Ask => "ask the maker",
            RimFit::Permitted => shape,
        },
        figure: Some(figure.quantity),
        limit,
        says,
        caution: match (on_rim.fit, on_rim.shape) {
            (RimFit::Permitted, SidewallShape::Stretched) => Some(STRETCH_CAUTION),
            (RimFit::Permitted, _) => None,
            _ => Some(CAUTION),
        },
        working: figure.working,
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::{line, line_with_parts};
    use crate::setup::catalogue::PickedParts;
    use crate::setup::catalogue::picked::tests::tire_row;

    #[test]
    fn the_makers_table_beats_the_estimate_in_both_directions() {
        // Makers' tables (memory): 285/30R20 on 9.5 to 10.5; 275/35R18 on 9.0 to 11.0.
        let rim = |code| RimWidth::from_code(code).unwrap();
        for (tire, wheel, table, word) in [
            ("275/35R18", "18x11 ET30", None, "ask the maker"),
            ("275/35R18", "18x11 ET30", Some((9.0, 11.0)), "stretched"),
            ("285/30R20", "20x10.5 ET30", Some((9.5, 10.0)), "do not fit"),
        ] {
            let planned = format!("{wheel} {tire}");
            let severity = match table {
                None => line("tire-on-rim", "17x7.5 ET45 225/45R17", &planned, None),
                Some((least, most)) => {
                    let mut row = tire_row(tire);
                    row.permitted = Some((rim(least), rim(most)));
                    let parts = PickedParts { tires: vec![row], ..PickedParts::default() };
                    line_with_parts(parts, "tire-on-rim", &planned).unwrap()
                }
            };
            assert_eq!(severity.word, word, "{planned} {table:?}");
        }
    }

    #[test]
    fn an_estimate_asks_where_it_cannot_decide() {
        // Drag and racing sizes: an estimate never says "do not fit"; from aspect ratio 50 one inch narrower is asked.
        for (planned, severity, word) in [
            ("15x10 ET0 26.0/8.5-15", Severity::Mind, "ask the maker"),
            ("15x11 ET0 26.0/8.5-15", Severity::Measure, "ask the maker"),
            ("15x10 ET0 28.0/10.5-15", Severity::Good, "square"),
            ("15x5 ET35 195/65R15", Severity::Mind, "ask the maker"),
            ("15x4.5 ET35 195/65R15", Severity::Measure, "ask the maker"),
            // TRA (memory): 31x10.50R15 on 7.0 to 9.0, 37x12.50R17 on 8.5 to 11.0.
            ("15x9 ET0 31x10.50R15LT", Severity::Good, "square"),
            ("15x6.5 ET0 31x10.50R15LT", Severity::Mind, "ask the maker"),
            ("17x11 ET0 37x12.50R17LT", Severity::Good, "square"),
        ] {
            let line = line("tire-on-rim", "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.severity, line.word), (severity, word), "{planned}: {line:?}");
        }
    }
}
