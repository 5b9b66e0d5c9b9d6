//! Age of a used tire, by its date code.

use super::{Asked, AxleCheck, Finding, LineCode, Rule, Severity};
use crate::values::date_code;
use crate::values::working::{Figure, Phrase, Quantity, Step};

pub(super) const RULE: Rule = Rule {
    title: "Tire age",
    source: date_code::SOURCE,
    asked: Asked::PerAxle(LineCode::TireAge, judge),
    of_car: &[],
};

/// From here on a tire is not used again, in years. Common practice, and several makers' rule.
const NEVER_USED_AGAIN_YEARS: f64 = 10.0;

/// How a tire of an age in years stands before the house's limit: severity, word and sentence.
pub fn severity(age: f64, old: f64) -> (Severity, &'static str, &'static str) {
    if age < -0.03 {
        (Severity::Stop, "not possible", "The date code lies in the future: read it again.")
    } else if age >= NEVER_USED_AGAIN_YEARS {
        (Severity::Stop, "too old", "Ten years and more: not to be used again, the spare included.")
    } else if age >= old {
        (Severity::Mind, "old", "Rubber hardens with age: inspect it inside and out before it is used again.")
    } else {
        (Severity::Good, "fresh enough", "Within the house's age. Inspect any used tire all the same.")
    }
}

fn judge(check: &AxleCheck<'_>) -> Option<Finding> {
    let (code, today) = (check.planned.date_code?, check.case.today?);
    let age = code.age_in_years(today);
    let old = check.case.limits.tire_age_years;
    let figure = Figure::of(Step {
        what: "age",
        formula: "today − week of making",
        inputs: vec![
            ("week", Quantity::count(f64::from(code.week()))),
            ("year", Quantity::count(f64::from(code.year()))),
        ],
        result: Quantity::years(age),
        source: date_code::SOURCE,
    });
    let (severity, word, says) = severity(age, old);
    Some(Finding {
        severity,
        word,
        figure: Some(figure.quantity),
        limit: Phrase::new("house limit ").quantity(Quantity::years(old)),
        says: Phrase::new(says),
        caution: (severity != Severity::Good).then_some("An aged tire can shed its tread without warning."),
        working: figure.working,
        points: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answers::ledger::tests::line;

    #[test]
    fn a_used_tire_is_judged_by_its_week() {
        // 49 CFR 574.5; six years is common practice. The tests' today is 2 June 2026.
        for (code, severity) in
            [("DOT 2325", Severity::Good), ("DOT 0120", Severity::Mind), ("DOT 5026", Severity::Stop)]
        {
            let planned = format!("18x8 ET45 225/40R18 {code}");
            assert_eq!(
                line("tire-age", "17x7.5 ET45 225/45R17", &planned, None).severity,
                severity,
                "{code}"
            );
        }
    }
}
