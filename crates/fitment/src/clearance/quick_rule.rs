//! What poke costs at full lock, while nobody has measured the steering axis.

use crate::corner::Feature;
use crate::length::Length;
use crate::working::Source;

/// The trade's round figure: at full lock half of any extra poke is lost. The sine of the lock says a little more behind the
/// wheel, which is met by the inner wheel of a turn, and a little more ahead, met by the outer one.
pub const ROUND_SHARE: f64 = 0.5;
/// Sine of about 40°, the inner wheel's lock.
const SHARE_BEHIND: f64 = 0.64;
/// Sine of about 33°, the outer wheel's lock.
const SHARE_AHEAD: f64 = 0.55;
/// Cosine of 38°: what a smaller tire gives back at lock. What a larger one takes counts in full.
const GAINED: f64 = 0.79;
/// How much of a change of poke the rule itself may be off by: the sine from 20° to 45°.
const POKE_OFF: f64 = 0.25;
/// How much of a change of radius: the cosine of the same.
const RADIUS_OFF: f64 = 0.2;

/// Where the rule comes from.
pub const SOURCE: Source = Source::common_practice(
    "quick rule: at full lock half of any extra poke is lost as clearance; by the sine of the lock 0.55 of it ahead, 0.64 behind",
);

/// How far the rule itself may be off, either way, in millimetres, for so much more radius and poke: nothing where nothing
/// changes. Estimate.
pub const ITS_OWN: Source =
    Source::estimate("the lock and the place at which a part is met are not measured");

/// Share of extra poke that is lost as clearance at full lock.
pub fn share_lost(feature: Feature) -> f64 {
    match feature {
        Feature::SillBehind => SHARE_BEHIND,
        _ => SHARE_AHEAD,
    }
}

/// Clearance lost at full lock for so much more poke. Less poke gives nothing back: on the other lock it comes nearer.
///
/// ```
/// use fitment::{Length, clearance::quick_rule::lost_at_lock, corner::Feature};
/// let poke = Length::from_mm(20.0).unwrap();
/// assert_eq!(lost_at_lock(Feature::LinerAhead, poke).as_mm(), 11.0);
/// ```
pub fn lost_at_lock(feature: Feature, extra_poke: Length) -> Length {
    extra_poke.max(Length::ZERO) * share_lost(feature)
}

/// Clearance lost for so much more radius; negative is gained.
pub fn lost_by_radius(larger: f64) -> f64 {
    if larger > 0.0 { larger } else { larger * GAINED }
}

/// How far the rule may be off, in millimetres. Less poke is given nothing for, so there is nothing to be off by.
pub fn plus_minus(larger: f64, poke: f64) -> f64 {
    (larger * RADIUS_OFF).hypot(poke.max(0.0) * POKE_OFF)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_little_more_than_half_of_the_poke_is_lost() {
        // Common practice: 63.5 mm more poke, "half" of it less at lock; by the sine of 33° and of 40° a little more.
        for (poke, ahead, behind) in
            [(63.5, 34.925, 40.64), (25.0, 13.75, 16.0), (0.0, 0.0, 0.0), (-20.0, 0.0, 0.0)]
        {
            let lost = |feature| lost_at_lock(feature, Length::mm(poke)).as_mm();
            assert!((lost(Feature::LinerAhead) - ahead).abs() < 1e-9, "{poke}");
            assert!((lost(Feature::SillBehind) - behind).abs() < 1e-9, "{poke}");
            assert!(lost(Feature::LinerAhead) >= poke.max(0.0) * ROUND_SHARE);
        }
        assert_eq!((lost_by_radius(10.0), lost_by_radius(-10.0), plus_minus(0.0, 0.0)), (10.0, -7.9, 0.0));
        // The shares are sines of the locks they name.
        assert!((SHARE_BEHIND - 40f64.to_radians().sin()).abs() < 0.01);
        assert!((SHARE_AHEAD - 33f64.to_radians().sin()).abs() < 0.01);
        assert!((GAINED - 38f64.to_radians().cos()).abs() < 0.01);
    }
}
