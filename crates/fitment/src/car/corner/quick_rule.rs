//! What poke costs at full lock, while nobody has measured the steering axis.

use super::{CarSide, Feature, Reading, Steer};
use crate::values::length::Length;
use crate::values::working::Source;

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

/// Of what changes inside, how much may not count: met at the tread's edge a part is met aslant.
const INSIDE_OFF: f64 = 0.3;

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

/// Clearance lost at full lock for so much more poke. What less poke gives is told by [`given_at_lock`], of a part that was
/// read at the lock which decides.
///
/// ```
/// use fitment::{Length, judgement::clearance::quick_rule::lost_at_lock, car::corner::Feature};
/// let poke = Length::from_mm(20.0).unwrap();
/// assert_eq!(lost_at_lock(Feature::LinerAhead, poke).as_mm(), 11.0);
/// ```
pub fn lost_at_lock(feature: Feature, extra_poke: Length) -> Length {
    extra_poke.max(Length::ZERO) * share_lost(feature)
}

/// Clearance that so much less poke gives at the lock at which the part is met by the tire's outer face: counted, as every gain
/// at lock, by the cosine of it. At the other lock the inner face comes nearer, and it gives nothing.
pub fn given_at_lock(reading: &Reading, extra_poke: Length) -> Length {
    let less = (-extra_poke).max(Length::ZERO);
    if meets_the_outer_face(reading) { less * (share_lost(reading.feature) * GAINED) } else { Length::ZERO }
}

/// Whether a part was read at the lock at which the outer face meets it: ahead where the front edge is inboard, the outer wheel
/// of a turn; behind where it is outboard. A reading that names no side is of the wheel that decides.
fn meets_the_outer_face(reading: &Reading) -> bool {
    let is_outward = match (reading.steer, reading.side) {
        (Steer::Straight, _) | (_, None) => return true,
        (Steer::LockLeft, Some(side)) => side == CarSide::Left,
        (Steer::LockRight, Some(side)) => side == CarSide::Right,
    };
    is_outward == (reading.feature == Feature::SillBehind)
}

/// Clearance lost for so much more radius; negative is gained.
pub fn lost_by_radius(larger: f64) -> f64 {
    if larger > 0.0 { larger } else { larger * GAINED }
}

/// What a wheel that stays further out gives back of the room to an inner part at lock, where that was read: its gain by the
/// cosine of the lock.
pub fn not_gained_inside(gain: f64) -> f64 {
    gain.max(0.0) * (1.0 - GAINED)
}

/// How much less and how much more room than the rule says there may be ahead or behind, in millimetres.
pub fn may_be_off(reading: &Reading, larger: f64, poke: f64) -> (f64, f64) {
    let of_radius = larger * RADIUS_OFF;
    let of_poke = poke.abs() * POKE_OFF;
    let share = share_lost(reading.feature);
    let (down, up) = match (poke > 0.0, meets_the_outer_face(reading)) {
        // An upright edge behind may be passed by.
        (true, _) if reading.feature == Feature::SillBehind => (of_poke, poke * share),
        (true, _) | (false, true) => (of_poke, of_poke),
        (false, false) => (0.0, poke.abs() * share),
    };
    (of_radius.hypot(down), of_radius.hypot(up))
}

/// How far the room to an inner part at lock may be off: it is met somewhere between the sidewall and the tread's edge.
pub fn may_be_off_inside(larger: f64, further_in: f64) -> f64 {
    (larger * INSIDE_OFF).hypot(further_in * INSIDE_OFF)
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
        assert_eq!((lost_by_radius(10.0), lost_by_radius(-10.0)), (10.0, -7.9));
        // The shares are sines of the locks they name.
        assert!((SHARE_BEHIND - 40f64.to_radians().sin()).abs() < 0.01);
        assert!((SHARE_AHEAD - 33f64.to_radians().sin()).abs() < 0.01);
        assert!((GAINED - 38f64.to_radians().cos()).abs() < 0.01);
    }

    fn read(feature: Feature, steer: Steer, side: Option<CarSide>) -> Reading {
        let fitted = "17x7.5 ET45 225/45R17".parse().unwrap();
        Reading { steer, side, ..Reading::new(feature, Length::mm(20.0), Length::mm(1.0), fitted) }
    }

    #[test]
    fn less_poke_gives_room_only_where_the_outer_face_is_what_meets_the_part() {
        let given = |reading: &Reading| given_at_lock(reading, Length::mm(-10.0)).as_mm();
        let (left, right) = (Some(CarSide::Left), Some(CarSide::Right));
        // Turned to the left the left wheel's front edge is outboard and its rear edge inboard (geometry).
        let behind = |side| read(Feature::SillBehind, Steer::LockLeft, side);
        let ahead = |side| read(Feature::LinerAhead, Steer::LockLeft, side);
        assert!((given(&behind(left)) - 10.0 * 0.64 * 0.79).abs() < 1e-9 && given(&behind(right)) == 0.0);
        assert!((given(&ahead(right)) - 10.0 * 0.55 * 0.79).abs() < 1e-9 && given(&ahead(left)) == 0.0);
        assert_eq!(given(&ahead(None)), given(&ahead(right)), "of the wheel that decides");
        assert_eq!(given_at_lock(&ahead(right), Length::mm(10.0)), Length::ZERO, "more poke gives nothing");
    }

    #[test]
    fn where_nothing_changes_nothing_is_off() {
        let behind = read(Feature::SillBehind, Steer::LockLeft, None);
        assert_eq!(may_be_off(&behind, 0.0, 0.0), (0.0, 0.0));
        assert_eq!((may_be_off_inside(0.0, 0.0), not_gained_inside(-5.0)), (0.0, 0.0));
        // More poke loses a share of itself, and behind an edge that it passes by nothing.
        let (down, up) = may_be_off(&behind, 0.0, 20.0);
        assert!(down < up && (up - 20.0 * SHARE_BEHIND).abs() < 1e-9);
    }
}
