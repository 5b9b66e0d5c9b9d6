//! A setup on a car whose steering was measured with another one.

use super::axis::loaded_radius;
use super::{Kinematics, Steering, SteeringAxis, Travel};
use crate::car::section::Outline;
use crate::car::section::outline::flange_top;
use crate::setup::Setup;

/// A setup ready to move: its outline, where it stands, and how.
#[derive(Debug, Clone, PartialEq)]
pub struct MovingWheel {
    /// Rim and tire.
    pub outline: Outline,
    /// Height of the flange's top above the axle: where the wheel ends and the tire begins, seen from the side.
    pub flange_top_r: f64,
    /// Where the rim's centre plane stands on the hub: spacer − ET, in millimetres. The contact's centre is taken there.
    pub center_y: f64,
    /// Hub to ground.
    pub loaded_radius_mm: f64,
    /// What it moves about.
    pub kinematics: Kinematics,
    /// Scrub radius with it; `None` where it does not steer.
    pub scrub_radius_mm: Option<f64>,
    /// Trail with it; `None` where it does not steer.
    pub trail_mm: Option<f64>,
}

/// Contact's centre and loaded radius; `None` without wheel, offset and tire.
fn on_the_ground(setup: &Setup) -> Option<(f64, f64)> {
    Some((-setup.effective_offset()?.as_mm(), loaded_radius(setup.overall_diameter()?)))
}

impl MovingWheel {
    /// A planned setup on the car on which `steering` was measured with `fitted`; the axis stays with the upright. `None`
    /// while wheel, offset or tire of either is not stated.
    pub fn of(
        fitted: &Setup,
        planned: &Setup,
        steering: Option<&Steering>,
        camber_deg: f64,
        travel: &Travel,
    ) -> Option<Self> {
        let (fitted_y, fitted_loaded) = on_the_ground(fitted)?;
        let (center_y, loaded_radius_mm) = on_the_ground(planned)?;
        let axis = steering.map(|steering| SteeringAxis::of(steering, fitted_y, fitted_loaded));
        let on_ground = axis.map(|axis| axis.scrub_and_trail(center_y, loaded_radius_mm));
        Some(Self {
            outline: Outline::of(planned)?,
            flange_top_r: flange_top(planned)?,
            center_y,
            loaded_radius_mm,
            kinematics: Kinematics {
                axis,
                camber_deg,
                camber_gain_deg_per_mm: travel.camber_gain_deg_per_mm,
            },
            scrub_radius_mm: on_ground.map(|(scrub, _)| scrub),
            trail_mm: on_ground.map(|(_, trail)| trail),
        })
    }

    /// The outline in the corner frame as it stands unleaned: y from the hub face, r from the spin axis.
    pub fn outline_on_the_hub(&self) -> impl Iterator<Item = (f64, f64)> {
        self.outline.points().iter().map(|point| (point.y + self.center_y, point.r))
    }
}
