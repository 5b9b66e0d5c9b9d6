//! Which poses a use of the car reaches.

use super::Pose;
use crate::values::coded::coded;
use crate::values::working::Source;

/// A use of the car, as far as it bounds steer and travel together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum Envelope {
    /// Every combination of lock and travel.
    #[default]
    All,
    /// Full lock, small travel.
    Parking,
    /// Full lock up to 20 mm of bump, falling to 8° at full bump.
    Road,
    /// The same, falling to 12°.
    Track,
    /// Every combination: rocks do not ask.
    OffRoad,
}

coded!(Envelope: All = "all", Parking = "parking", Road = "road", Track = "track", OffRoad = "off_road");

impl Envelope {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::All => "every combination",
            Self::Parking => "parking: full lock, little travel",
            Self::Road => "on the road",
            Self::Track => "on the track",
            Self::OffRoad => "off the road",
        }
    }

    /// Where the bounds come from.
    pub const SOURCE: Source =
        Source::estimate("how much lock is met at how much bump, by use; drag it to what the owner does");
}

/// Travel up to which full lock is met on the road; and all there is of it when parking, either way. Estimate.
const FULL_LOCK_TO_MM: f64 = 20.0;

/// How far a corner's wheel turns and travels.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reach {
    /// Full lock with the front edge outboard, in degrees.
    pub outward_deg: f64,
    /// Full lock with the front edge inboard.
    pub inward_deg: f64,
    /// Up to the bump stop, in millimetres.
    pub bump_mm: f64,
    /// Down to full droop, as a positive figure.
    pub droop_mm: f64,
}

impl Reach {
    /// Least and most travel that a use reaches.
    pub fn travel(&self, envelope: Envelope) -> (f64, f64) {
        match envelope {
            Envelope::Parking => (-self.droop_mm.min(FULL_LOCK_TO_MM), self.bump_mm.min(FULL_LOCK_TO_MM)),
            _ => (-self.droop_mm, self.bump_mm),
        }
    }

    /// Least and most steer angle that a use reaches at a travel.
    pub fn steer(&self, envelope: Envelope, travel_mm: f64) -> (f64, f64) {
        let left_at_full_bump = match envelope {
            Envelope::Road => 8.0,
            Envelope::Track => 12.0,
            _ => return (-self.inward_deg, self.outward_deg),
        };
        let over = self.bump_mm - FULL_LOCK_TO_MM;
        let share = if over > 0.0 { ((travel_mm - FULL_LOCK_TO_MM) / over).clamp(0.0, 1.0) } else { 0.0 };
        let at = |lock: f64| lock + share * (lock.min(left_at_full_bump) - lock);
        (-at(self.inward_deg), at(self.outward_deg))
    }

    /// Whether a use reaches a pose.
    pub fn holds(&self, envelope: Envelope, pose: Pose) -> bool {
        let (down, up) = self.travel(envelope);
        let (inward, outward) = self.steer(envelope, pose.travel_mm);
        (down..=up).contains(&pose.travel_mm) && (inward..=outward).contains(&pose.steer_deg)
    }

    /// The pose nearest to this one that a use reaches: travel first, then steer.
    pub fn nearest(&self, envelope: Envelope, pose: Pose) -> Pose {
        let (down, up) = self.travel(envelope);
        let travel_mm = pose.travel_mm.clamp(down, up);
        let (inward, outward) = self.steer(envelope, travel_mm);
        Pose { travel_mm, steer_deg: pose.steer_deg.clamp(inward, outward) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const CAR: Reach = Reach { outward_deg: 38.0, inward_deg: 31.0, bump_mm: 80.0, droop_mm: 90.0 };

    #[test]
    fn lock_falls_with_bump_as_the_use_says() {
        assert_eq!(CAR.steer(Envelope::Road, 20.0), (-31.0, 38.0));
        assert_eq!(CAR.steer(Envelope::Road, -90.0), (-31.0, 38.0));
        assert_eq!(CAR.steer(Envelope::Road, 80.0), (-8.0, 8.0));
        assert_eq!(CAR.steer(Envelope::Track, 80.0), (-12.0, 12.0));
        // Half of the way from 20 to 80: half of the way from 38 to 8.
        assert_eq!(CAR.steer(Envelope::Road, 50.0), (-19.5, 23.0));
        assert_eq!(CAR.travel(Envelope::Parking), (-20.0, 20.0));
        assert_eq!(CAR.steer(Envelope::All, 80.0), (-31.0, 38.0));
        assert!(CAR.holds(Envelope::OffRoad, Pose { steer_deg: -31.0, travel_mm: 80.0 }));
        assert!(!CAR.holds(Envelope::Road, Pose { steer_deg: -31.0, travel_mm: 80.0 }));
        let back = CAR.nearest(Envelope::Road, Pose { steer_deg: 38.0, travel_mm: 99.0 });
        assert_eq!(back, Pose { steer_deg: 8.0, travel_mm: 80.0 });
    }

    #[test]
    fn a_car_without_much_travel_or_lock_keeps_what_it_has() {
        let low = Reach { bump_mm: 15.0, ..CAR };
        assert_eq!(low.steer(Envelope::Road, 15.0), (-31.0, 38.0));
        let rear = Reach { outward_deg: 0.0, inward_deg: 0.0, ..CAR };
        assert_eq!(rear.steer(Envelope::Road, 80.0), (0.0, 0.0));
    }
}
