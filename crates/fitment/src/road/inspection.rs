//! Looking wheels over: what is looked at, how, and when it comes due again. Every wheel at the track is a wear part.

use crate::car::limits::HouseLimits;
use crate::values::working::Source;

/// Where plan and intervals come from.
pub const SOURCE: Source =
    Source::common_practice("inspection of wheels used at the track; the house's intervals");

/// Something that is looked at again and again.
#[derive(Debug, Clone, Copy)]
pub struct Inspection {
    /// Its code.
    pub code: &'static str,
    /// What.
    pub title: &'static str,
    /// How, and what ends the part.
    pub how: &'static str,
    every_days: fn(&HouseLimits) -> f64,
    every_runs: Option<fn(&HouseLimits) -> f64>,
}

/// The plan.
pub const PLAN: [Inspection; 3] = [
    Inspection {
        code: "cracks",
        title: "Cracks at spoke roots, barrel and seats",
        how: "Wheels off and washed: a lamp and a glass along every spoke root front and back, both flanges, and round each \
              seat; dye where a line shows. A crack ends the wheel: it is never welded.",
        every_days: |limits| limits.inspect_wheels_days,
        every_runs: Some(|limits| limits.inspect_wheels_runs),
    },
    Inspection {
        code: "seats",
        title: "Seats, studs and fasteners",
        how: "Seats for fretting and black dust, knurled seats for smeared knurls, threads for stretch: a nut that turns hard \
              near its end goes with its stud.",
        every_days: |limits| limits.inspect_wheels_days,
        every_runs: Some(|limits| limits.inspect_wheels_runs),
    },
    Inspection {
        code: "true_running",
        title: "True running of both flanges",
        how: "On the hub with a dial indicator, radially and sideways, inner and outer flange; a bent flange that was \
              straightened is looked over for cracks before it is driven.",
        every_days: |limits| limits.inspect_true_running_days,
        every_runs: None,
    },
];

/// What has passed since it was last done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Since {
    /// Days.
    pub days: f64,
    /// Runs; `None` while nobody counts them.
    pub runs: Option<f64>,
}

/// When it comes due.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Due {
    /// Days from now; not above zero when it is due. `None` while it was never done: due now.
    pub in_days: Option<f64>,
    /// Runs from now; `None` where runs do not count or nobody counts them.
    pub in_runs: Option<f64>,
}

impl Due {
    /// Whether it is due now.
    pub fn is_now(&self) -> bool {
        self.in_days.is_none_or(|days| days <= 0.0) || self.in_runs.is_some_and(|runs| runs <= 0.0)
    }
}

impl Inspection {
    /// When it comes due again by the house's intervals.
    pub fn due(&self, since: Option<Since>, limits: &HouseLimits) -> Due {
        let Some(since) = since else { return Due { in_days: None, in_runs: None } };
        let every_runs = self.every_runs.map(|every| every(limits));
        Due {
            in_days: Some((self.every_days)(limits) - since.days),
            in_runs: every_runs.zip(since.runs).map(|(every, runs)| every - runs),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_is_due_by_whichever_comes_first_and_at_once_when_it_was_never_done() {
        let limits =
            HouseLimits { inspect_wheels_days: 180.0, inspect_wheels_runs: 20.0, ..HouseLimits::DEFAULT };
        let due = |days, runs| PLAN[0].due(Some(Since { days, runs }), &limits);
        assert!(PLAN[0].due(None, &limits).is_now());
        for (days, runs, is_now) in [
            (179.0, None, false),
            (180.0, None, true),
            (10.0, Some(19.0), false),
            (10.0, Some(20.0), true),
            (200.0, Some(0.0), true),
        ] {
            assert_eq!(due(days, runs).is_now(), is_now, "{days} {runs:?}");
        }
        assert_eq!(PLAN[2].due(Some(Since { days: 10.0, runs: Some(900.0) }), &limits).in_runs, None);
    }
}
