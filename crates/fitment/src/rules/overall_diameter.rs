//! Overall diameter against the fitted tire, in the house's bands.

use super::{Asked, AxleCheck, Finding, Rule, Severity};
use crate::length::Length;
use crate::limits::HouseLimits;
use crate::tire::dimensions::revolutions_worked;
use crate::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    code: "overall-diameter",
    title: "Overall diameter",
    source: HouseLimits::SOURCE,
    asked: Asked::PerAxle(judge),
};

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let change = check.change;
    let (Some(pct), Some(by)) = (&change.overall_diameter_pct, &change.overall_diameter) else {
        return Some(Finding::unknown("Both tires must be stated."));
    };
    let limits = check.case.limits;
    let bands = [
        (limits.diameter_ideal_pct, Severity::Good, "ideal"),
        (limits.diameter_good_pct, Severity::Good, "good"),
        (limits.diameter_limit_pct, Severity::Mind, "at the limit"),
    ];
    let beyond = (limits.diameter_limit_pct, Severity::Stop, "beyond the limit");
    let (band, standing, word) =
        bands.into_iter().find(|(band, ..)| pct.value().abs() <= *band).unwrap_or(beyond);
    let limit = match standing {
        Severity::Stop => Phrase::new("house limit ").quantity(Quantity::percent(band)),
        _ => Phrase::new("house band ").quantity(Quantity::percent(band)),
    };
    let direction = if by.value() > 0.0 { " larger" } else { " smaller" };
    let says = if by.value() == 0.0 {
        Phrase::new("The same diameter as fitted.")
    } else {
        Phrase::default()
            .quantity(Quantity::length(Length::mm(by.value().abs())))
            .text(direction)
            .text(" than fitted: the car stands ")
            .quantity(Quantity::length(Length::mm(by.value().abs() / 2.0)))
            .text(if by.value() > 0.0 { " higher here." } else { " lower here." })
    };
    let mut working = by.working.clone();
    working.extend(pct.working.iter().cloned());
    if let Some(tire) = check.planned.tire {
        working.extend(revolutions_worked(&tire.size));
    }
    Some(Finding { standing, word, figure: Some(pct.quantity), limit, says, caution: None, working })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ledger::tests::line;

    #[test]
    fn the_bands_are_the_houses() {
        // 225/45R17 measures 634.3 mm; bands 1, 2 and 3 % (common practice).
        for (planned, standing, word) in [
            ("18x8 ET45 225/40R18", Severity::Good, "ideal"), // 637.2: +0.5 %
            ("18x8 ET45 235/40R18", Severity::Good, "good"),  // 645.2: +1.7 %
            ("18x8 ET45 245/40R18", Severity::Mind, "at the limit"), // 653.2: +3.0 %
            ("18x8 ET45 255/40R18", Severity::Stop, "beyond the limit"), // 661.2: +4.2 %
        ] {
            let line = line("overall-diameter", "17x7.5 ET45 225/45R17", planned, None);
            assert_eq!((line.standing, line.word), (standing, word), "{planned}: {:?}", line.figure);
        }
    }
}
