//! What of the planned set can be rotated.

use super::{Asked, Case, Finding, Rule, Severity};
use crate::setup::{Arrangement, Axle};
use crate::stagger::{ROTATION_SOURCE, rotations};
use crate::working::Phrase;

pub(super) const RULE: Rule =
    Rule { code: "rotation", title: "Rotation", source: ROTATION_SOURCE, asked: Asked::PerCar(judge) };

fn judge(plan: &Case<'_>) -> Option<Finding> {
    let arrangement = plan.planned.arrangement()?;
    plan.planned.front?.tire?;
    plan.planned.rear?.tire?;
    let parts = &plan.state.parts;
    let is_directional = Axle::BOTH.into_iter().filter_map(|axle| plan.planned.on(axle)).any(|setup| {
        parts.wheel_of(setup).is_some_and(|wheel| wheel.is_directional)
            || parts.tire_of(setup).is_some_and(|tire| tire.is_directional)
    });
    let ways = rotations(arrangement, is_directional);
    let words: Vec<&str> = ways.iter().map(|way| way.words()).collect();
    let words = words.join("; ");
    let set = match arrangement {
        Arrangement::Square => "Square",
        Arrangement::Staggered => "Staggered",
    };
    let (word, says) = match (ways, is_directional) {
        ([], _) => ("not at all", format!("{set} with a turning direction: no rotation, unless remounted.")),
        (_, true) => ("front to rear", format!("{set} with a turning direction: {words}, unless remounted.")),
        ([_], false) => (
            "side to side",
            format!("{set}: {words}, never between the axles. Directional tires or wheels not at all."),
        ),
        (_, false) => (
            "rotates",
            format!("{set}: {words}. Directional tires or wheels only front to rear, unless remounted."),
        ),
    };
    Some(Finding {
        standing: Severity::Good,
        word,
        figure: None,
        limit: Phrase::new("by the planned sizes"),
        says: Phrase::new(says),
        caution: None,
        working: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use crate::ledger::tests::line;

    #[test]
    fn a_staggered_set_stays_on_its_axles() {
        let fitted = "17x7.5 ET45 225/45R17";
        assert_eq!(line("rotation", fitted, "18x8 ET45 225/40R18", None).word, "rotates");
        let staggered = "F: 18x8 ET45 225/40R18 R: 18x8.5 ET45 245/35R18";
        assert_eq!(line("rotation", fitted, staggered, None).word, "side to side");
    }
}
