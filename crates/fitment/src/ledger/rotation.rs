//! What of the planned set can be rotated.

use super::{Check, Finding, Plan, Rule, Standing};
use crate::choose::stagger::{ROTATION_SOURCE, rotations};
use crate::setup::Arrangement;
use crate::working::Phrase;

pub(super) const CHECK: Check =
    Check { code: "rotation", title: "Rotation", source: ROTATION_SOURCE, rule: Rule::PerCar(judge) };

fn judge(plan: &Plan<'_>) -> Option<Finding> {
    let arrangement = plan.planned.arrangement()?;
    plan.planned.front?.tire?;
    plan.planned.rear?.tire?;
    let ways: Vec<&str> = rotations(arrangement, false).iter().map(|way| way.words()).collect();
    let ways = ways.join("; ");
    let (word, says) = match arrangement {
        Arrangement::Square => (
            "rotates",
            format!("Square: {ways}. Directional tires or wheels only front to rear, unless remounted."),
        ),
        Arrangement::Staggered => (
            "side to side",
            format!("Staggered: {ways}, never between the axles. Directional tires or wheels not at all."),
        ),
    };
    Some(Finding {
        standing: Standing::Good,
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
    use super::super::tests::line;

    #[test]
    fn a_staggered_set_stays_on_its_axles() {
        let fitted = "17x7.5 ET45 225/45R17";
        assert_eq!(line("rotation", fitted, "18x8 ET45 225/40R18", None).word, "rotates");
        let staggered = "F: 18x8 ET45 225/40R18 R: 18x8.5 ET45 245/35R18";
        assert_eq!(line("rotation", fitted, staggered, None).word, "side to side");
    }
}
