//! Whether the wing covers the tire, from 30° ahead of the wheel's center to 50° behind.
//!
//! At each place the lip was read against the fitted wheel, level, to its sidewall or flange, whichever stands further
//! out; the plan moves that by its outward change. The sidewall stands further out than the tread: what covers it covers
//! the tread.

use crate::car::corner::Feature;
use crate::car::style::COVERAGE_CAUTION;
use crate::judgement::case::Case;
use crate::judgement::clearance::{Uncertainty, Verdict};
use crate::setup::Axle;
use crate::values::length::Length;
use crate::values::working::Source;

/// Where the arc comes from.
pub const SOURCE: Source =
    Source::from_memory("EU 2021/535, before it 1009/2010: the guard from 30° ahead to 50° behind");

/// Stands beside every word on coverage.
pub const CAUTION: &str = COVERAGE_CAUTION;

/// What a level read beside the wheel, and the section behind it, may be off together, where the bay says nothing of it.
/// Estimate.
const PLUS_MINUS: Length = Length::mm(5.0);

/// A place on the arc.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Place {
    /// 30° ahead of the wheel's center.
    Ahead,
    /// Straight above it.
    Top,
    /// 50° behind it.
    Behind,
}

impl Place {
    /// From ahead to behind.
    pub const ALL: [Self; 3] = [Self::Ahead, Self::Top, Self::Behind];

    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Ahead => "30° ahead",
            Self::Top => "top of the arch",
            Self::Behind => "50° behind",
        }
    }
}

/// What was read beside the top of the arch, in millimetres that the lip stands outside the fitted wheel.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct ReadBeside {
    /// 30° ahead.
    pub ahead: Option<Length>,
    /// 50° behind.
    pub behind: Option<Length>,
}

/// A place with what the plan leaves there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Covered {
    /// Which.
    pub place: Place,
    /// How far the lip stands outside the planned wheel; below zero the wheel stands beyond it. `None` while nobody read
    /// it, or the plan cannot be placed.
    pub by: Option<Length>,
    /// What that may be off.
    pub plus_minus: Length,
}

impl Covered {
    /// Covered for certain, beyond for certain, or to be measured.
    pub fn verdict(&self) -> Verdict {
        match self.by {
            Some(by) if by - self.plus_minus >= Length::ZERO => Verdict::Clears,
            Some(by) if by + self.plus_minus < Length::ZERO => Verdict::Touches,
            _ => Verdict::MeasureFirst,
        }
    }

    /// In words of its own: nothing touches here.
    pub fn word(&self) -> &'static str {
        match self.verdict() {
            Verdict::Clears => "covered",
            Verdict::Touches => "stands beyond the wing",
            _ => Verdict::MeasureFirst.word(),
        }
    }
}

/// The arc over an axle's planned wheel.
pub fn coverage(case: &Case<'_>, axle: Axle, beside: ReadBeside) -> [Covered; 3] {
    let outward = case
        .change(axle)
        .and_then(|change| change.outer.as_ref())
        .and_then(|figure| Length::from_mm(figure.value()));
    let planned = case.planned.on(axle);
    let lip = case
        .axle(axle)
        .zip(planned)
        .and_then(|(on, planned)| on.clearance_of(Feature::FenderLateral, planned)?.band);
    let plus_minus = lip.as_ref().map_or(PLUS_MINUS, Uncertainty::likely);
    Place::ALL.map(|place| {
        let read = |gap: Option<Length>| gap.zip(outward).map(|(gap, outward)| gap - outward);
        let by = match place {
            Place::Ahead => read(beside.ahead),
            Place::Top => lip.as_ref().map(|band| band.nominal),
            Place::Behind => read(beside.behind),
        };
        Covered { place, by, plus_minus }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::limits::HouseLimits;

    fn arc(planned: &str, ahead: Option<f64>, behind: Option<f64>) -> Vec<(&'static str, Option<f64>)> {
        let pair = |line: &str| crate::setup::line::read(line).unwrap().setups.unwrap();
        let (fitted, planned) = (pair("17x7.5 ET45 225/45R17"), pair(planned));
        let limits = HouseLimits::DEFAULT;
        let case = Case::new(&fitted, &planned, None, &limits, None);
        let read = ReadBeside { ahead: ahead.map(Length::mm), behind: behind.map(Length::mm) };
        let all = coverage(&case, Axle::Front, read);
        all.iter().map(|one| (one.word(), one.by.map(|by| by.as_mm()))).collect()
    }

    #[test]
    fn the_plan_takes_its_outward_change_from_what_was_read() {
        // The same wheel with 10 mm less offset stands 10 mm further out.
        let same = arc("17x7.5 ET45 225/45R17", Some(12.0), Some(20.0));
        let out = arc("17x7.5 ET35 225/45R17", Some(12.0), Some(20.0));
        for (before, after) in same.iter().zip(&out).filter(|(one, _)| one.1.is_some()) {
            assert!((before.1.unwrap() - after.1.unwrap() - 10.0).abs() < 1e-9);
        }
        assert_eq!(same[0].0, "covered");
        assert_eq!(
            (out[0].0, out[2].0),
            ("measure first", "covered"),
            "2 mm are less than the reading may be off"
        );
        assert_eq!(arc("17x7.5 ET20 225/45R17", Some(12.0), Some(20.0))[0].0, "stands beyond the wing");
    }

    #[test]
    fn what_nobody_read_is_measured_first() {
        for (word, by) in arc("17x7.5 ET35 225/45R17", None, None) {
            assert_eq!((word, by), ("measure first", None));
        }
    }
}
