//! The gap between tire top and arch: half of what the diameter gains.

use super::reach::gap_to_find;
use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::corner::Feature;
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source};

pub(super) const RULE: Rule = Rule {
    title: "Under the arch",
    source: Source::GEOMETRY,
    asked: Asked::PerAxle(LineCode::ArchGap, judge),
    of_car: &[],
};

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    if check.axle.resolved.knows(Feature::Arch) {
        return None;
    }
    let Some(change) = &check.change.arch_gap else {
        return Some(Finding::unknown("Both tires must be stated."));
    };
    let least = check.axle.least(Feature::Arch);
    let closes = -change.value();
    let limit = Phrase::new("house minimum ").quantity(Quantity::length(least));
    let (severity, word, says) = if closes > 0.0 {
        let says = Phrase::new("A tire ")
            .quantity(Quantity::length(Length::mm(closes * 2.0)))
            .text(" larger in diameter closes the gap by half of it, ")
            .quantity(Quantity::length(Length::mm(closes)))
            .text(". ");
        let says = Phrase(
            says.0.into_iter().chain(gap_to_find(check, Feature::Arch, Length::mm(closes)).0).collect(),
        );
        (Severity::Measure, "measure first", says)
    } else {
        let says = Phrase::new("The gap does not close: half of the change in diameter is ")
            .quantity(Quantity::length(Length::mm(-closes)))
            .text(".");
        (Severity::Good, "no closer", says)
    };
    Some(Finding {
        severity,
        word,
        figure: Some(change.quantity),
        limit,
        says,
        caution: (closes > 0.0)
            .then_some("Check at full bump and with the car loaded: a tire that touches the arch can fail."),
        working: change.working.clone(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    #[test]
    fn the_gap_closes_by_half() {
        // Geometry: 215/50R17 is 12.3 mm larger than 195/65R15, so the gap closes by 6.15.
        let line = line("arch-gap", "15x6 ET40 195/65R15", "17x7 ET40 215/50R17", None);
        assert_eq!(line.severity, Severity::Measure);
        assert!((line.figure.unwrap().value + 6.15).abs() < 1e-9);
    }
}
