//! A size that no maker's list has. It is computed all the same.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::values::working::{Phrase, Source};

pub(super) const RULE: Rule = Rule {
    title: "Listed size",
    source: Source::common_practice("sizes are listed in tens of width and fives of aspect ratio"),
    asked: Asked::PerAxle(LineCode::ListedSize, judge),
    of_car: &[],
};

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let tire = check.planned.tire?;
    (!tire.size.is_on_the_listed_grid()).then(|| Finding {
        severity: Severity::Mind,
        word: "not listed",
        figure: None,
        limit: Phrase::default(),
        says: Phrase::new(format!("{} is not a listed size: computed all the same.", tire.size)),
        caution: None,
        working: Vec::new(),
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    #[test]
    fn a_size_off_the_grid_is_named() {
        let line = line("listed-size", "17x7.5 ET45 225/45R17", "17x7.5 ET45 228/44R17", None);
        assert_eq!((line.severity, line.word), (Severity::Mind, "not listed"));
    }
}
