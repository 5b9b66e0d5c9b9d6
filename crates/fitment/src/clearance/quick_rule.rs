//! What poke costs at full lock, while nobody has measured the steering axis.

use crate::length::Length;
use crate::working::Source;

/// Share of extra poke that is lost as clearance at full lock.
pub const LOST_AT_LOCK: f64 = 0.5;

/// Where the rule comes from.
pub const SOURCE: Source =
    Source::common_practice("quick rule: at full lock half of any extra poke is lost as clearance");

/// Clearance lost at full lock for so much more poke. Less poke gives nothing back: the rule says no such
/// thing, and the tire still swings.
///
/// ```
/// use fitment::{Length, clearance::quick_rule::lost_at_lock};
/// let poke = Length::from_mm(63.5).unwrap();
/// assert_eq!(lost_at_lock(poke).as_mm(), 31.75); // common practice
/// ```
pub fn lost_at_lock(extra_poke: Length) -> Length {
    extra_poke.max(Length::ZERO) * LOST_AT_LOCK
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn half_of_the_poke_is_lost() {
        // Common practice: 63.5 mm more poke, 31.75 less at lock; 25 costs "about 13".
        for (poke, lost) in [(63.5, 31.75), (25.0, 12.5), (0.0, 0.0), (-20.0, 0.0)] {
            assert_eq!(lost_at_lock(Length::mm(poke)), Length::mm(lost), "{poke}");
        }
    }
}
