//! The words of a judgement.

use crate::values::coded::coded;
use crate::values::length::Length;

/// How room to a part, or a whole setup, stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Verdict {
    /// The likely low is at or above the house minimum.
    Clears,
    /// There is room, but the likely low is under the minimum.
    Tight,
    /// Nothing usable was read there, or two readings contradict each other, or nothing decides.
    MeasureFirst,
    /// No room.
    Touches,
}

coded!(Verdict: Clears = "clears", Tight = "tight", MeasureFirst = "measure_first", Touches = "touches");

impl Verdict {
    /// The trade's word.
    pub fn word(self) -> &'static str {
        match self {
            Self::Clears => "clears",
            Self::Tight => "tight",
            Self::MeasureFirst => "measure first",
            Self::Touches => "touches",
        }
    }

    /// A room against a minimum: as it stands, and what it likely is at least.
    pub fn of(nominal: Length, likely_low: Length, limit: Length) -> Self {
        if nominal.as_mm() <= 0.0 {
            Self::Touches
        } else if likely_low < limit {
            Self::Tight
        } else {
            Self::Clears
        }
    }

    /// Whether nothing is proposed that stands so.
    pub fn rules_out(self) -> bool {
        matches!(self, Self::Tight | Self::Touches)
    }

    /// How a line with this word stands.
    pub fn severity(self) -> Severity {
        match self {
            Self::Clears => Severity::Good,
            Self::Tight => Severity::Mind,
            Self::MeasureFirst => Severity::Measure,
            Self::Touches => Severity::Stop,
        }
    }
}

/// How a line stands. Shown as a word and a mark, never by colour alone.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Severity {
    /// In order.
    Good,
    /// Not known: a part of the setup was not stated.
    Unknown,
    /// Only the car can tell: something must be measured.
    Measure,
    /// To be minded.
    Mind,
    /// Do not fit it so.
    Stop,
}

coded!(Severity: Good = "good", Unknown = "unknown", Measure = "measure", Mind = "mind", Stop = "stop");
