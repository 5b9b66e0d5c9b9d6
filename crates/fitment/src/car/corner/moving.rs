//! How a corner moves, as far as somebody measured it; the rest as usual for its kind of suspension.

use super::{CamberBy, Steer};
use crate::car::corner::CarSide;
use crate::car::motion::axis::{LOADED_SHARE, loaded_radius};
use crate::car::motion::estimate::bump_after_lowering;
use crate::car::motion::{Kinematics, Pose, Reach, Steering, SteeringAxis, SuspensionKind, Travel};
use crate::car::{Car, Fact};
use crate::setup::{Axle, Setup};

/// How a corner moves.
#[derive(Debug, Clone, PartialEq)]
pub struct Moving {
    /// How its wheel is carried.
    pub kind: SuspensionKind,
    /// Its steering, against the fitted setup; `None` for an axle that does not steer.
    pub steering: Option<Steering>,
    /// How far it travels.
    pub travel: Travel,
    /// How another camber is had on it; `None` while nobody said.
    pub camber_by: Option<CamberBy>,
    /// Titles of what nobody measured and was taken as usual.
    pub assumed: Vec<&'static str>,
}

/// Radius under load of a usual tire, where nothing is fitted to go by, in millimetres.
const USUAL_LOADED_MM: f64 = 660.0 / 2.0 * LOADED_SHARE;

impl Moving {
    /// Of an axle, by the car's record.
    pub fn of(car: &Car, axle: Axle, fitted: Option<&Setup>) -> Self {
        let mut assumed = Vec::new();
        let kind = car.words(Fact::SuspensionKind, Some(axle));
        let kind = SuspensionKind::ALL.iter().copied().find(|one| Some(one.words()) == kind);
        if kind.is_none() {
            assumed.push(Fact::SuspensionKind.facts().title);
        }
        let kind = kind.unwrap_or_default();
        let loaded = fitted.and_then(|setup| setup.overall_diameter()).map_or(USUAL_LOADED_MM, loaded_radius);
        let mut or = |fact: Fact, axle: Option<Axle>, usual: f64| {
            car.number(fact, axle).unwrap_or_else(|| {
                assumed.push(fact.facts().title);
                usual
            })
        };
        let usual = kind.steering(loaded);
        let steering = (axle == Axle::Front).then(|| Steering {
            inclination_deg: or(Fact::Inclination, None, usual.inclination_deg),
            caster_deg: or(Fact::Caster, None, usual.caster_deg),
            scrub_radius_mm: or(Fact::ScrubRadius, None, usual.scrub_radius_mm),
            trail_mm: or(Fact::Trail, None, usual.trail_mm),
            lock_outward_deg: or(Fact::LockOutward, None, usual.lock_outward_deg),
            lock_inward_deg: or(Fact::LockInward, None, usual.lock_inward_deg),
        });
        let usual = kind.travel();
        let lowered = car.number(Fact::Dropped, Some(axle)).unwrap_or(0.0);
        let travel = Travel {
            bump_mm: or(Fact::BumpTravel, Some(axle), bump_after_lowering(usual.bump_mm, lowered)),
            droop_mm: or(Fact::DroopTravel, Some(axle), usual.droop_mm),
            camber_gain_deg_per_mm: usual.camber_gain_deg_per_mm,
        };
        let said = car.words(Fact::CamberBy, Some(axle));
        let camber_by = CamberBy::ALL.into_iter().find(|by| Some(by.words()) == said);
        Self { kind, steering, travel, camber_by, assumed }
    }

    /// Whether anything of the steering was measured: only then is it better than the quick rule.
    pub fn knows_the_steering(&self) -> bool {
        let of_steering =
            [Fact::Inclination, Fact::Caster, Fact::ScrubRadius, Fact::LockOutward, Fact::LockInward];
        self.steering.is_some() && of_steering.iter().any(|fact| self.is_measured(*fact))
    }

    /// Whether a figure was measured, not taken as usual.
    pub fn is_measured(&self, fact: Fact) -> bool {
        !self.assumed.contains(&fact.facts().title)
    }

    /// How a wheel of this camber moves whose steering was measured with `fitted`; `None` while wheel, offset or tire of
    /// that is not stated.
    pub fn kinematics(&self, fitted: &Setup, camber_deg: f64) -> Option<Kinematics> {
        let contact = -fitted.effective_offset()?.as_mm();
        let loaded = loaded_radius(fitted.overall_diameter()?);
        let axis = self.steering.map(|steering| SteeringAxis::of(&steering, contact, loaded));
        Some(Kinematics { axis, camber_deg, camber_gain_deg_per_mm: self.travel.camber_gain_deg_per_mm })
    }

    /// How far it reaches.
    pub fn reach(&self) -> Reach {
        Reach {
            outward_deg: self.steering.map_or(0.0, |steering| steering.lock_outward_deg),
            inward_deg: self.steering.map_or(0.0, |steering| steering.lock_inward_deg),
            bump_mm: self.travel.bump_mm,
            droop_mm: self.travel.droop_mm,
        }
    }

    /// The same with the body raised by so much, or lowered: the stops stay where they were, so a lift gives bump and takes
    /// droop, and at full bump the tire comes exactly as high as before.
    pub fn reach_raised(&self, raised_mm: f64) -> Reach {
        let reach = self.reach();
        let bump_mm = if raised_mm < 0.0 {
            bump_after_lowering(reach.bump_mm, -raised_mm)
        } else {
            reach.bump_mm + raised_mm
        };
        Reach { bump_mm, droop_mm: (reach.droop_mm - raised_mm).max(0.0), ..reach }
    }

    /// The pose at a lock, for a wheel of a side; without a side the left one's. Turned to the left, the left wheel's front
    /// edge swings outboard.
    pub fn at_lock(&self, steer: Steer, side: Option<CarSide>) -> Pose {
        let reach = self.reach();
        let steer_deg = match (steer, side) {
            (Steer::Straight, _) => 0.0,
            (Steer::LockLeft, Some(CarSide::Right)) | (Steer::LockRight, Some(CarSide::Left) | None) => {
                -reach.inward_deg
            }
            (Steer::LockLeft | Steer::LockRight, _) => reach.outward_deg,
        };
        Pose { steer_deg, travel_mm: 0.0 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_measured_counts_and_the_rest_is_named() {
        let mut car = Car::default();
        car.note(Fact::SuspensionKind, Some(Axle::Front), "double wishbone").unwrap();
        car.note(Fact::Inclination, None, "10.5").unwrap();
        car.note(Fact::BumpTravel, Some(Axle::Rear), "62").unwrap();
        let front = Moving::of(&car, Axle::Front, None);
        assert_eq!(
            (front.kind, front.steering.unwrap().inclination_deg),
            (SuspensionKind::DoubleWishbone, 10.5)
        );
        assert_eq!(front.steering.unwrap().caster_deg, 6.0, "as usual for its kind");
        assert!(front.knows_the_steering() && front.assumed.contains(&Fact::Caster.facts().title));
        assert!(!front.assumed.contains(&Fact::Inclination.facts().title));
        let rear = Moving::of(&car, Axle::Rear, None);
        assert_eq!((rear.steering, rear.travel.bump_mm), (None, 62.0));
        assert!(!rear.knows_the_steering());
    }

    #[test]
    fn each_lock_turns_the_wheels_of_both_sides_their_own_way() {
        let front = Moving::of(&Car::default(), Axle::Front, None);
        let at = |steer, side| front.at_lock(steer, side).steer_deg;
        assert_eq!((at(Steer::LockLeft, Some(CarSide::Left)), at(Steer::LockLeft, None)), (38.0, 38.0));
        assert_eq!(at(Steer::LockLeft, Some(CarSide::Right)), -31.0);
        assert_eq!(at(Steer::LockRight, Some(CarSide::Right)), 38.0);
        assert_eq!(at(Steer::Straight, None), 0.0);
    }
}
