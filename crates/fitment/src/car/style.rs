//! How a setup stands to the fender line: tucked, flush or poke, from rim and tire.
//!
//! Read at the top of the arch with camber applied. House tolerance: level within ± 3 mm is flush. Suspension is a
//! show setup by camber, stretch and height; it takes the other three's marks and adds cautions.

use crate::car::limits::HouseLimits;
use crate::values::coded::coded;
use crate::values::length::Length;
use crate::values::working::Source;

/// Where the words come from.
pub const SOURCE: Source =
    Source::common_practice("style read at the top of the arch from rim and tire, camber applied");

/// How a setup stands to the fender line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Style {
    /// Rim and tire wholly inside the fender line.
    Tucked,
    /// Level with it, within the house's tolerance.
    Flush,
    /// Beyond it.
    Poke,
}

coded!(Style: Tucked = "tucked", Flush = "flush", Poke = "poke");

impl Style {
    /// The trade's word, which is its code.
    pub fn word(self) -> &'static str {
        self.code()
    }

    pub(crate) fn of(beyond: Length, within: Length) -> Self {
        if beyond.abs() <= within {
            Self::Flush
        } else if beyond > Length::ZERO {
            Self::Poke
        } else {
            Self::Tucked
        }
    }
}

/// Camber from which a car is called stanced, in degrees. Common practice.
pub const STANCE_CAMBER_DEG: f64 = -3.5;

/// What must be said of a stanced car.
pub const STANCE_CAUTION: &str = "A show setup: much camber, stretch or too little travel wear tires unevenly, \
    lengthen braking, and can unseat a bead. Short, slow drives; local codes and a licensed inspector decide \
    whether it may be driven at all.";

/// Wheel coverage, which nobody has computed here.
pub const COVERAGE_CAUTION: &str = "Coverage: EU 2021/535, before it 1009/2010 (from memory), wants the guard to \
    cover the tire's width from 30° ahead of the wheel centre to 50° behind; elsewhere local rules differ. A licensed inspector \
    has the last word.";

/// A setup against the fender line.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StyleReading {
    /// Whichever of rim and tire stands further out.
    pub style: Style,
    /// Rim flange beyond the line; negative inside.
    pub rim_beyond: Length,
    /// Tire sidewall beyond the line; `None` without a tire.
    pub tire_beyond: Option<Length>,
    /// The rim's own style, and the tire's: they can disagree.
    pub each: (Style, Option<Style>),
    /// Whether camber makes a show setup of it.
    pub is_stance: bool,
}

impl StyleReading {
    /// Whichever of rim and tire stands further out, beyond the line.
    pub fn beyond(&self) -> Length {
        self.tire_beyond.map_or(self.rim_beyond, |tire| tire.max(self.rim_beyond))
    }
}

/// A wanted style.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StyleTarget {
    /// How it is to stand.
    pub style: Style,
    /// How far from level still counts, either way; `None` for the house's tolerance.
    pub within: Option<Length>,
    /// Whether it is a show setup, made by camber, stretch and height, and is to be marked as one.
    pub is_show: bool,
}

impl StyleTarget {
    /// Least and most that the further of rim and tire may stand beyond the line; `None` is open.
    pub fn beyond(&self, limits: &HouseLimits) -> (Option<Length>, Option<Length>) {
        let within = self.within.unwrap_or(limits.flush_within);
        match self.style {
            Style::Tucked => (None, Some(-within)),
            Style::Flush => (Some(-within), Some(within)),
            Style::Poke => (Some(within), None),
        }
    }
}
