//! How sure a clearance is.

use super::inputs::Input;
use crate::values::length::Length;
use crate::values::working::Source;

/// Something that may be off, and what it does to the room.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contribution {
    /// What.
    pub input: Input,
    /// By how much the room may be less for it; never negative.
    pub down: Length,
    /// By how much it may be more; never negative.
    pub up: Length,
    /// Where that comes from.
    pub source: Source,
}

impl Contribution {
    /// One that is off as much either way.
    pub fn either_way(input: Input, by: Length, source: Source) -> Self {
        Self { input, down: by, up: by, source }
    }

    /// What it takes at most: the side that is held against the house minimum.
    pub fn plus_minus(&self) -> Length {
        self.down
    }

    /// Its input's name.
    pub fn what(&self) -> &'static str {
        self.input.words()
    }
}

/// A clearance with its contributions, largest first.
///
/// ```
/// use fitment::judgement::clearance::{Contribution, Input, Uncertainty};
/// use fitment::{values::length::Length, values::working::Source};
/// let mm = |mm: f64| Length::from_mm(mm).unwrap();
/// let of = |input, by| Contribution::either_way(input, mm(by), Source::estimate("an example"));
/// let room = Uncertainty::new(mm(10.0), vec![of(Input::Instrument, 3.0), of(Input::Offset, 4.0)]);
/// assert_eq!(room.likely_low(), mm(5.0)); // the root of 3² + 4²
/// assert_eq!(room.worst_low(), mm(3.0)); // the straight sum
/// ```
#[derive(Debug, Clone, PartialEq)]
pub struct Uncertainty {
    /// The clearance if everything is as written; negative is an overlap.
    pub nominal: Length,
    /// What may be off.
    pub contributions: Vec<Contribution>,
}

impl Uncertainty {
    /// Sorts the contributions, largest first; what contributes nothing is left out.
    pub fn new(nominal: Length, mut contributions: Vec<Contribution>) -> Self {
        contributions.retain(|one| one.down > Length::ZERO || one.up > Length::ZERO);
        let order = |one: &Contribution| (one.down.as_mm(), one.up.as_mm());
        contributions.sort_by(|a, b| {
            let (a, b) = (order(a), order(b));
            b.0.total_cmp(&a.0).then(b.1.total_cmp(&a.1))
        });
        Self { nominal, contributions }
    }

    /// How much less the room likely is at most: the root of the sum of squares.
    pub fn likely(&self) -> Length {
        Length::root_sum_square(self.contributions.iter().map(Contribution::plus_minus))
    }

    /// How much less at worst: the straight sum.
    pub fn worst(&self) -> Length {
        self.contributions.iter().fold(Length::ZERO, |sum, one| sum + one.plus_minus())
    }

    /// Lower end of the likely band.
    pub fn likely_low(&self) -> Length {
        self.nominal - self.likely()
    }

    /// Upper end of the likely band.
    pub fn likely_high(&self) -> Length {
        self.nominal + Length::root_sum_square(self.contributions.iter().map(|one| one.up))
    }

    /// Lower end of the worst case.
    pub fn worst_low(&self) -> Length {
        self.contributions.iter().fold(self.nominal, |sum, one| sum - one.down)
    }

    /// Upper end of the worst case.
    pub fn worst_high(&self) -> Length {
        self.contributions.iter().fold(self.nominal, |sum, one| sum + one.up)
    }
}
