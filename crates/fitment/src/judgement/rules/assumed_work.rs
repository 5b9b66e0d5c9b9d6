//! Work on the car that a plan counts as done: every figure of its room hangs on it.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::car::lever::{self, Levers};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

pub(super) const RULE: Rule = Rule {
    title: "Assumed work",
    source: lever::SOURCE,
    asked: Asked::PerAxle(LineCode::AssumedWork, judge),
    of_car: &[],
};

/// `None` where nothing is assumed.
fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let levers = check.axle.levers;
    let hardest = levers.that_are_set().last()?.0;
    Some(Finding {
        severity: Severity::Mind,
        word: "assumed",
        figure: None,
        limit: Phrase::default(),
        says: said(levers),
        caution: Some(hardest.facts().caution).filter(|caution| !caution.is_empty()),
        working: Vec::new(),
        points: Vec::new(),
    })
}

/// What is counted as done, in a sentence.
fn said(levers: &Levers) -> Phrase {
    let mut says = Phrase::new("Counted as done on the car: ");
    for (at, (lever, amount)) in levers.that_are_set().enumerate() {
        let facts = lever.facts();
        let between = if at == 0 { "" } else { "; " };
        says = says.text(format!("{between}{} ", facts.title.to_lowercase()));
        says = if facts.in_degrees {
            says.text(format!("{amount:+}°"))
        } else {
            says.quantity(Quantity::length(Length::mm(amount)))
        };
    }
    says.text(". Until it is, the room is smaller by what it gives; a lip that is rolled does not move the fender line.")
}

#[cfg(test)]
mod tests {
    use crate::answers::ledger::tests::line_in_state;
    use crate::car::corner::Corners;
    use crate::car::lever::{Lever, PairLevers};
    use crate::judgement::case::CarState;
    use crate::judgement::rules::Severity;

    const PLAN: &str = "18x8.5 ET35 245/40R18";

    #[test]
    fn what_a_plan_counts_on_is_named_with_its_caution_and_never_a_good_word() {
        let state = |levers: PairLevers| CarState::new(Corners::default(), levers, (None, None));
        let on =
            |levers: PairLevers| line_in_state(state(levers), "assumed-work", "17x7.5 ET45 225/45R17", PLAN);
        assert_eq!(on(PairLevers::default()), None);
        let mut levers = PairLevers::default();
        levers.front.set(Lever::LipRolled, 10.0).unwrap();
        levers.front.set(Lever::Camber, -1.5).unwrap();
        let line = on(levers).unwrap();
        assert_eq!((line.severity, line.word), (Severity::Mind, "assumed"));
        let says = format!("{:?}", line.says);
        assert!(says.contains("-1.5°") && says.contains("lip"), "{says}");
        assert!(line.caution.is_some());
    }
}
