//! Front against rear: the drift of the diameter ratio from the fitted one, and which axle stands taller.

use super::{Asked, Case, Finding, Rule, Severity};
use crate::limits::{Drive, HouseLimits};
use crate::tire::dimensions::overall_diameter;
use crate::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    code: "front-to-rear",
    title: "Front against rear",
    source: HouseLimits::SOURCE,
    asked: Asked::PerCar(judge),
};

fn judge(plan: &Case<'_>) -> Option<Finding> {
    let Some(drift) = &plan.pair.front_to_rear_ratio_pct else {
        return Some(Finding::unknown("All four tires must be stated."));
    };
    let allowed = plan.limits.ratio_pct(plan.drive);
    let drive = match plan.drive {
        Some(Drive::All) => "all-wheel drive, limit ",
        Some(Drive::Front) => "front drive, limit ",
        Some(Drive::Rear) => "rear drive, limit ",
        None => "drive not known, limit ",
    };
    let limit = Phrase::new(drive).quantity(Quantity::percent(allowed));
    let diameter = |axle| plan.planned.on(axle).and_then(|s| s.tire).map(|t| overall_diameter(&t.size));
    let (front, rear) =
        (diameter(crate::Axle::Front).unwrap_or_default(), diameter(crate::Axle::Rear).unwrap_or_default());
    let taller = if front > rear { "The front tire is " } else { "The rear tire is " };
    let mut says = if front == rear {
        Phrase::new("Front and rear stand equally tall.")
    } else {
        Phrase::new(taller).quantity(Quantity::length((front - rear).abs())).text(" taller.")
    };
    let over = drift.value().abs() > allowed;
    if over {
        says = says.text(match plan.drive {
            Some(Drive::All) => {
                " The coupling between the axles would work all the time: choose closer diameters."
            }
            None => " Name the drive: on all-wheel drive this wears the coupling.",
            _ => " Anti-lock and stability control compare the axles: choose closer diameters.",
        });
    }
    Some(Finding {
        standing: if over { Severity::Stop } else { Severity::Good },
        word: if over { "drifts" } else { "keeps ratio" },
        figure: Some(drift.quantity),
        limit,
        says,
        caution: over.then_some("The car maker's own limit rules, and many ask for less."),
        working: drift.working.clone(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ledger::tests::line;

    #[test]
    fn the_limit_follows_the_drive() {
        // 235/40R18 in front of 255/40R18: 645.2 / 661.2 = 0.9758, −2.42 % against a square fitted set.
        let fitted = "17x7.5 ET45 225/45R17";
        let planned = "F: 18x8.5 ET40 235/40R18 R: 18x9 ET40 255/40R18";
        for (drive, standing) in [
            (Some(Drive::All), Severity::Stop),
            (None, Severity::Stop),
            (Some(Drive::Rear), Severity::Good),
            (Some(Drive::Front), Severity::Good),
        ] {
            let line = line("front-to-rear", fitted, planned, drive);
            assert_eq!(line.standing, standing, "{drive:?}");
            assert!((line.figure.unwrap().value + 2.4198).abs() < 1e-3);
        }
    }
}
