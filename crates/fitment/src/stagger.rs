//! Front against rear: the drift of the diameter ratio, which axle stands taller, and what can be rotated.

use crate::change::pair_change;
use crate::coded::coded;
use crate::length::Length;
use crate::limits::{Drive, HouseLimits};
use crate::setup::{Arrangement, Axle, SetupPair};
use crate::tire::dimensions::overall_diameter;
use crate::working::{Figure, Source};

/// Where the rotation rules come from.
pub const ROTATION_SOURCE: Source =
    Source::common_practice("staggered sets cannot change axles, directional ones cannot change sides");

/// A way to rotate tires.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Rotation {
    /// Front to rear on the same side.
    FrontToRear,
    /// Left to right on the same axle.
    SideToSide,
    /// Front to rear, crossing over.
    Cross,
}

coded!(Rotation: FrontToRear = "front_to_rear", SideToSide = "side_to_side", Cross = "cross");

impl Rotation {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::FrontToRear => "front to rear on the same side",
            Self::SideToSide => "left to right on the same axle",
            Self::Cross => "front to rear, crossing over",
        }
    }
}

/// Which rotations a set allows. Directional: tires or wheels with a turning direction, not remounted.
pub fn rotations(arrangement: Arrangement, is_directional: bool) -> &'static [Rotation] {
    match (arrangement, is_directional) {
        (Arrangement::Square, false) => &[Rotation::FrontToRear, Rotation::SideToSide, Rotation::Cross],
        (Arrangement::Square, true) => &[Rotation::FrontToRear],
        (Arrangement::Staggered, false) => &[Rotation::SideToSide],
        (Arrangement::Staggered, true) => &[],
    }
}

/// A planned pair against the factory's.
#[derive(Debug, Clone, PartialEq)]
pub struct Stagger {
    /// Drift of the front-to-rear diameter ratio from the factory's, in per cent, with its working.
    pub ratio_change: Figure,
    /// What the house allows for this drive, in per cent.
    pub limit_pct: f64,
    /// Whether it is inside.
    pub keeps_ratio: bool,
    /// The axle that stands taller; `None` when both are equal.
    pub taller: Option<Axle>,
    /// How much taller in diameter.
    pub height_difference: Length,
    /// Square or staggered.
    pub arrangement: Arrangement,
}

/// Judges a planned pair; `None` while not all four tires are stated.
pub fn stagger(
    factory: &SetupPair,
    planned: &SetupPair,
    drive: Option<Drive>,
    limits: &HouseLimits,
) -> Option<Stagger> {
    let ratio_change = pair_change(factory, planned).front_to_rear_ratio_pct?;
    let diameter = |axle| Some(overall_diameter(&planned.on(axle)?.tire?.size));
    let difference = diameter(Axle::Front)? - diameter(Axle::Rear)?;
    let limit_pct = limits.ratio_pct(drive);
    Some(Stagger {
        keeps_ratio: ratio_change.value().abs() <= limit_pct,
        ratio_change,
        limit_pct,
        taller: match difference.as_mm() {
            d if d > 0.0 => Some(Axle::Front),
            d if d < 0.0 => Some(Axle::Rear),
            _ => None,
        },
        height_difference: difference.abs(),
        arrangement: planned.arrangement()?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn pair(text: &str) -> SetupPair {
        crate::setup::line::read(text).unwrap().setups.unwrap()
    }

    #[test]
    fn a_square_factory_set_made_staggered() {
        // By hand: 645.2 / 661.2 = 0.97580 against 1: −2.420 %; 16.0 mm in diameter.
        let planned = pair("F: 18x8.5 ET40 235/40R18 R: 18x9 ET40 255/40R18");
        let of =
            |drive| stagger(&pair("17x7.5 ET45 225/45R17"), &planned, drive, &HouseLimits::DEFAULT).unwrap();
        let rear = of(Some(Drive::Rear));
        assert!((rear.ratio_change.value() + 2.4198).abs() < 1e-3);
        assert_eq!((rear.taller, rear.keeps_ratio, rear.limit_pct), (Some(Axle::Rear), true, 2.5));
        assert!((rear.height_difference.as_mm() - 16.0).abs() < 1e-9);
        assert!(!of(Some(Drive::All)).keeps_ratio, "common practice: 1 % on all-wheel drive");
        assert_eq!(of(None).limit_pct, 1.0, "an unknown drive takes the stricter limit");
    }

    #[test]
    fn the_factorys_own_stagger_is_the_reference() {
        let factory = pair("F: 18x8 ET34 225/45R18 R: 18x8.5 ET47 245/40R18");
        let same = stagger(&factory, &factory, Some(Drive::All), &HouseLimits::DEFAULT).unwrap();
        assert!(same.ratio_change.value().abs() < 1e-12 && same.keeps_ratio);
        assert_eq!(same.taller, Some(Axle::Front), "659.7 in front of 653.2");
    }

    /// Common practice: a staggered set cannot be rotated front to rear, directional tires not side to side
    /// without remounting; so no rotation at all for directional staggered sets.
    #[test]
    fn what_can_be_rotated() {
        use Arrangement::{Square, Staggered};
        assert_eq!(rotations(Square, false).len(), 3);
        assert_eq!(rotations(Square, true), [Rotation::FrontToRear]);
        assert_eq!(rotations(Staggered, false), [Rotation::SideToSide]);
        assert!(rotations(Staggered, true).is_empty());
    }
}
