//! The steering axis.

use super::Place;
use crate::values::length::Length;
use crate::values::working::Source;

/// A steering geometry as it is measured: against the ground and the wheel that was on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Steering {
    /// How far the axis leans inboard at its top, in degrees.
    pub inclination_deg: f64,
    /// How far it leans rearward at its top.
    pub caster_deg: f64,
    /// How far inboard of the contact's centre it meets the ground; negative outboard.
    pub scrub_radius_mm: f64,
    /// How far ahead of the contact's centre it meets the ground.
    pub trail_mm: f64,
    /// Full lock with the front edge outboard.
    pub lock_outward_deg: f64,
    /// Full lock with the front edge inboard.
    pub lock_inward_deg: f64,
}

/// A figure no car has.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[error("{what} goes from {least} to {most}, not {given}")]
pub struct OutOfRange {
    /// Its name in a request.
    pub field: &'static str,
    /// What it is.
    pub what: &'static str,
    /// The least there is.
    pub least: f64,
    /// The most.
    pub most: f64,
    /// What was given.
    pub given: f64,
}

/// Holds a figure to its range; what is no number is out of every one.
pub(super) fn held(
    field: &'static str,
    what: &'static str,
    given: f64,
    (least, most): (f64, f64),
) -> Option<OutOfRange> {
    let is_inside = (least..=most).contains(&given);
    (!is_inside).then_some(OutOfRange { field, what, least, most, given })
}

impl Steering {
    /// What no car has; empty when all of it can be.
    pub fn faults(&self) -> Vec<OutOfRange> {
        [
            held("inclination_deg", "a steering axis' inclination", self.inclination_deg, (-30.0, 30.0)),
            held("caster_deg", "caster", self.caster_deg, (-20.0, 20.0)),
            held("scrub_radius_mm", "a scrub radius", self.scrub_radius_mm, (-200.0, 200.0)),
            held("trail_mm", "a trail", self.trail_mm, (-200.0, 200.0)),
            held("lock_outward_deg", "a lock", self.lock_outward_deg, (0.0, 60.0)),
            held("lock_inward_deg", "a lock", self.lock_inward_deg, (0.0, 60.0)),
        ]
        .into_iter()
        .flatten()
        .collect()
    }
}

/// Share of a tire's radius that is left under load.
///
/// Estimate: a radial passenger tire at its pressure; hub to ground, where it was measured, is better.
pub const LOADED_SHARE: f64 = 0.96;
/// Where that comes from.
pub const LOADED_SOURCE: Source =
    Source::estimate("0.96 of the radius: a radial passenger tire at its pressure; hub to ground is better");

/// A tire's radius under load, from its overall diameter.
pub fn loaded_radius(overall_diameter: Length) -> f64 {
    overall_diameter.as_mm() / 2.0 * LOADED_SHARE
}

/// From this change of scrub radius on a caution is due. Estimate.
pub const SCRUB_MATTERS_MM: f64 = 25.0;

/// A steering axis where it stands on the car: it stays with the upright, whatever wheel is on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SteeringAxis {
    /// A place on it.
    pub through: Place,
    /// Upward along it, a unit vector.
    pub along: Place,
}

impl SteeringAxis {
    /// From a geometry that was measured with a wheel whose contact is centred at `contact_y` (spacer − ET, the lean not
    /// counted) and whose loaded radius is known.
    pub fn of(steering: &Steering, contact_y: f64, loaded_radius: f64) -> Self {
        let along =
            [-steering.caster_deg.to_radians().tan(), -steering.inclination_deg.to_radians().tan(), 1.0];
        let length = along.iter().map(|part| part * part).sum::<f64>().sqrt();
        Self {
            through: [steering.trail_mm, contact_y - steering.scrub_radius_mm, -loaded_radius],
            along: along.map(|part| part / length),
        }
    }

    /// Where it passes a height.
    fn at_height(&self, z: f64) -> (f64, f64) {
        let up = (z - self.through[2]) / self.along[2];
        (self.through[0] + up * self.along[0], self.through[1] + up * self.along[1])
    }

    /// Scrub radius and trail with a wheel whose contact and loaded radius are these.
    ///
    /// With Δ the change against the wheel it was measured with:
    /// scrub = scrub₀ + Δy − Δloaded·tan σ, trail = trail₀ + Δloaded·tan τ. Geometry.
    pub fn scrub_and_trail(&self, contact_y: f64, loaded_radius: f64) -> (f64, f64) {
        let (x, y) = self.at_height(-loaded_radius);
        (contact_y - y, x)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::motion::STRUT;

    #[test]
    fn a_plan_moves_the_contact_and_the_axis_stays() {
        let axis = SteeringAxis::of(&STRUT, -45.0, 305.0);
        let (scrub, trail) = axis.scrub_and_trail(-45.0, 305.0);
        assert!((scrub + 5.0).abs() < 1e-9 && (trail - 26.0).abs() < 1e-9);
        // By hand: 20 mm less offset adds all of it; 10 mm more loaded radius takes 10·tan 13° = 2.31 back and gives
        // 10·tan 5° = 0.87 of trail.
        let (scrub, trail) = axis.scrub_and_trail(-25.0, 315.0);
        assert!((scrub - (-5.0 + 20.0 - 2.308_681_911)).abs() < 1e-6, "{scrub}");
        assert!((trail - (26.0 + 0.874_886_635)).abs() < 1e-6, "{trail}");
    }

    #[test]
    fn what_no_car_has_is_named() {
        assert!(STRUT.faults().is_empty());
        let wild = Steering { inclination_deg: 31.0, caster_deg: f64::NAN, lock_inward_deg: 61.0, ..STRUT };
        let fields: Vec<&str> = wild.faults().iter().map(|fault| fault.field).collect();
        assert_eq!(fields, ["inclination_deg", "caster_deg", "lock_inward_deg"]);
        assert!(wild.faults()[0].to_string().contains("-30 to 30"), "{}", wild.faults()[0]);
    }
}
