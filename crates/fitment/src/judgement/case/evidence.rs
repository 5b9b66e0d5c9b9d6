//! What the workshop knows of an axle beside its readings: profiles of the brake, insides of wheels, trials.

use crate::car::brake::{Package, WheelProfile};
use crate::car::corner::TryOn;
use crate::parts::wheel::Wheel;
use crate::setup::Setup;

/// The inside of a wheel that somebody measured or drew.
#[derive(Debug, Clone, PartialEq)]
pub struct KnownInside {
    /// Line or design.
    pub line: String,
    /// Its size and offset.
    pub wheel: Wheel,
    /// Its inside.
    pub profile: WheelProfile,
}

impl KnownInside {
    fn is_of(&self, wheel: &Wheel) -> bool {
        self.wheel.placed() == wheel.placed()
    }
}

/// What of the fitted set stays on the car, as far as somebody said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Keeps {
    /// The very wheel.
    pub wheel: Option<bool>,
    /// The very tire.
    pub tire: Option<bool>,
}

/// One axle's.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct AxleEvidence {
    /// What stands inside the barrel.
    pub package: Package,
    /// Insides of wheels that were measured.
    pub insides: Vec<KnownInside>,
    /// Wheels that were tried on this axle.
    pub tries: Vec<TryOn>,
    /// What of the fitted set is said to stay; where nothing is said, equal lines are the same parts.
    pub keeps: Keeps,
    /// Records that were kept and can no longer be read, as they stand: they may say that something touches, so nothing
    /// is called clear beside them.
    pub unreadable: Vec<String>,
}

impl AxleEvidence {
    /// The inside of a wheel: of its line as measured; without a line the only one of its size; else drawn from the size.
    /// `None` without an offset.
    pub fn inside(&self, wheel: &Wheel, line: Option<&str>) -> Option<WheelProfile> {
        let of_size = || self.insides.iter().filter(|known| known.is_of(wheel));
        let measured = match line {
            Some(line) => of_size().find(|known| known.line.trim().eq_ignore_ascii_case(line.trim())),
            None => of_size().next().filter(|_| of_size().count() == 1),
        };
        measured.map(|known| known.profile.clone()).or_else(|| WheelProfile::estimated(wheel))
    }

    /// Whether the inside of this line's wheel of this size was measured.
    pub fn has_inside_of(&self, wheel: &Wheel, line: &str) -> bool {
        self.insides
            .iter()
            .any(|known| known.is_of(wheel) && known.line.trim().eq_ignore_ascii_case(line.trim()))
    }

    /// The trials of a setup's very wheel.
    pub fn tries_of<'e>(&'e self, setup: &'e Setup) -> impl Iterator<Item = &'e TryOn> {
        self.tries.iter().filter(move |tried| tried.is_of_the_wheel_of(setup))
    }
}
