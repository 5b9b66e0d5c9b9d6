//! Records that were kept and can no longer be read. They may say that something touches.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::values::working::{Phrase, Source};

pub(super) const RULE: Rule = Rule {
    title: "Records that cannot be read",
    source: Source::common_practice("what nobody can read any more counts as not known; no source"),
    asked: Asked::PerAxle(LineCode::Unreadable, judge),
    of_car: &[],
};

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let unreadable = &check.axle.evidence.unreadable;
    (!unreadable.is_empty()).then(|| Finding {
        severity: Severity::Measure,
        word: "measure first",
        figure: None,
        limit: Phrase::default(),
        says: Phrase::new(format!(
            "Can no longer be read: {}. Take it away, or measure it again: until then nothing is called clear.",
            unreadable.join(", ")
        )),
        caution: None,
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line_in_state;
    use crate::judgement::case::{AxleEvidence, CarState};

    #[test]
    fn a_record_that_cannot_be_read_is_named_and_no_good_word_stands_beside_it() {
        let unreadable =
            AxleEvidence { unreadable: vec!["the trial of \"?\"".to_owned()], ..Default::default() };
        let state = CarState::default().with_evidence(unreadable.clone(), unreadable);
        let on = |state: CarState| {
            line_in_state(state, "unreadable", "17x7.5 ET45 225/45R17", "17x7.5 ET45 225/45R17")
        };
        assert_eq!(on(state).map(|line| line.severity), Some(Severity::Measure));
        assert!(on(CarState::default()).is_none());
    }
}
