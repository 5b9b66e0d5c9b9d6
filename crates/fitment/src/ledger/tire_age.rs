//! Age of a used tire, by its date code.

use super::{Check, Corner, Finding, Rule, Standing};
use crate::date_code;
use crate::working::{Figure, Phrase, Quantity, Step};

pub(super) const CHECK: Check =
    Check { code: "tire-age", title: "Tire age", source: date_code::SOURCE, rule: Rule::PerAxle(judge) };

fn judge(corner: &Corner<'_>) -> Option<Finding> {
    let (code, today) = (corner.planned.date_code?, corner.plan.today?);
    let age = code.age_in_years(today);
    let old = corner.plan.limits.tire_age_years;
    let figure = Figure::of(Step {
        what: "age",
        formula: "today − week of making",
        put_in: vec![
            ("week", Quantity::count(f64::from(code.week()))),
            ("year", Quantity::count(f64::from(code.year()))),
        ],
        gives: Quantity::years(age),
        source: date_code::SOURCE,
    });
    let (standing, word, says) = if age < -0.03 {
        (Standing::Stop, "not possible", "The date code lies in the future: read it again.")
    } else if age >= old {
        (Standing::Mind, "old", "Rubber hardens with age: inspect it inside and out before it is used again.")
    } else {
        (Standing::Good, "fresh enough", "Within the house's age. Inspect any used tire all the same.")
    };
    Some(Finding {
        standing,
        word,
        figure: Some(figure.quantity),
        limit: Phrase::new("house limit ").quantity(Quantity::years(old)),
        says: Phrase::new(says),
        caution: (standing != Standing::Good).then_some("An aged tire can shed its tread without warning."),
        working: figure.working,
    })
}

#[cfg(test)]
mod tests {
    use super::super::tests::line;
    use super::*;

    #[test]
    fn a_used_tire_is_judged_by_its_week() {
        // 49 CFR 574.5; six years is common practice. The tests' today is 2 June 2026.
        for (code, standing) in
            [("DOT 2325", Standing::Good), ("DOT 0120", Standing::Mind), ("DOT 5026", Standing::Stop)]
        {
            let planned = format!("18x8 ET45 225/40R18 {code}");
            assert_eq!(
                line("tire-age", "17x7.5 ET45 225/45R17", &planned, None).standing,
                standing,
                "{code}"
            );
        }
    }
}
