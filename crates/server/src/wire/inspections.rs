//! Wheels of the track looked over: what was done when, and when it comes due.

use fitment::car::limits::HouseLimits;
use fitment::road::inspection::{Inspection, PLAN, Since};
use jiff::civil::Date;
use jiff::{Span, Unit};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ledger::StandingCode;
use super::read::FieldErrors;

/// Something that was looked at.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct InspectedSheet {
    /// What, by its code.
    pub code: String,
    /// The day, as in 2026-05-02.
    pub at: String,
    /// Runs of the tires on the car then; null when nobody counted.
    #[serde(default)]
    pub runs: Option<f64>,
    /// What was found.
    #[serde(default)]
    pub found: String,
}

/// Looks noted with a job at most.
const MOST_LOOKS: usize = 500;

/// Notes faults of what was looked at.
pub fn check(done: &[InspectedSheet], errors: &mut FieldErrors) {
    if done.len() > MOST_LOOKS {
        errors.fault("/inspections", format!("more than {MOST_LOOKS} looks are not kept with a job"));
    }
    for (at, one) in done.iter().enumerate() {
        let pointer = format!("/inspections/{at}");
        errors.text(&format!("{pointer}/code"), &one.code, 40);
        errors.text(&format!("{pointer}/found"), &one.found, 200);
        if one.at.parse::<Date>().is_err() {
            errors.fault(&format!("{pointer}/at"), "write the day, as in 2026-05-02");
        }
        if one.runs.is_some_and(|runs| !(0.0..=1_000_000.0).contains(&runs)) {
            errors.fault(&format!("{pointer}/runs"), "runs go from 0 to 1 000 000");
        }
    }
}

/// When a look comes due.
#[derive(Debug, Serialize, ToSchema)]
pub struct InspectionView {
    /// Its code.
    pub code: &'static str,
    /// What is looked at.
    pub title: &'static str,
    /// How.
    pub how: &'static str,
    /// The day it was last done; null while nobody noted it.
    pub last_at: Option<String>,
    /// What was found then.
    pub found: Option<String>,
    /// Whether it is due now.
    pub is_due: bool,
    /// How it stands.
    pub standing: StandingCode,
    /// In words.
    pub says: String,
}

/// The plan on a day. `runs` are those of the tires on the car.
pub fn plan(
    done: &[InspectedSheet],
    runs: Option<f64>,
    limits: &HouseLimits,
    today: Date,
) -> Vec<InspectionView> {
    PLAN.iter().map(|one| of(one, done, runs, limits, today)).collect()
}

fn of(
    inspection: &Inspection,
    done: &[InspectedSheet],
    runs: Option<f64>,
    limits: &HouseLimits,
    today: Date,
) -> InspectionView {
    let on = |one: &InspectedSheet| one.at.parse::<Date>().ok();
    let own = done.iter().filter(|one| one.code == inspection.code).filter_map(|one| Some((on(one)?, one)));
    let last = own.max_by_key(|(day, _)| *day);
    let since = last.and_then(|(day, one)| {
        let days = day.until((Unit::Day, today)).ok()?.get_days();
        // Fewer runs than then: the tires are others, and nobody knows how many the wheels have run since.
        let runs = runs.zip(one.runs).map(|(now, then)| now - then).filter(|runs| *runs >= 0.0);
        Some(Since { days: f64::from(days), runs })
    });
    let due = inspection.due(since, limits);
    let day = due.in_days.and_then(|days| today.checked_add(Span::new().days(days.ceil() as i64)).ok());
    let says = match (day, due.in_runs) {
        (None, _) => "due: nobody noted that it was done".to_owned(),
        (Some(day), _) if due.in_days.is_some_and(|days| days <= 0.0) => format!("due since {day}"),
        (Some(_), Some(runs)) if runs <= 0.0 => format!("due: {:.0} runs over", -runs),
        (Some(day), Some(runs)) => format!("due in {runs:.0} runs, on {day} at the latest"),
        (Some(day), None) => format!("due on {day}"),
    };
    InspectionView {
        code: inspection.code,
        title: inspection.title,
        how: inspection.how,
        last_at: last.map(|(_, one)| one.at.clone()),
        found: last.map(|(_, one)| one.found.clone()).filter(|found| !found.is_empty()),
        is_due: due.is_now(),
        standing: if due.is_now() { StandingCode::Stop } else { StandingCode::Good },
        says,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_look_comes_due_by_day_and_by_runs() {
        let limits =
            HouseLimits { inspect_wheels_days: 180.0, inspect_wheels_runs: 20.0, ..HouseLimits::DEFAULT };
        let looked = |at: &str, runs| InspectedSheet {
            code: "cracks".to_owned(),
            at: at.to_owned(),
            runs,
            found: "none".to_owned(),
        };
        let says = |done: &[InspectedSheet], runs, today: &str| {
            let view = plan(done, runs, &limits, today.parse().unwrap()).remove(0);
            (view.is_due, view.says)
        };
        let done = [looked("2026-05-01", Some(10.0)), looked("2026-03-01", None)];
        assert!(says(&[], None, "2026-06-01").0);
        assert_eq!(says(&done, None, "2026-05-31"), (false, "due on 2026-10-28".into()));
        assert_eq!(
            says(&done, Some(24.0), "2026-05-31"),
            (false, "due in 6 runs, on 2026-10-28 at the latest".into())
        );
        assert_eq!(says(&done, Some(33.0), "2026-05-31"), (true, "due: 3 runs over".into()));
        assert_eq!(
            says(&done, Some(2.0), "2026-10-28"),
            (true, "due since 2026-10-28".into()),
            "other tires by now"
        );
        // A year that wraps: twelve hundred days on.
        assert!(says(&done, None, "2029-08-13").0);
    }
}
