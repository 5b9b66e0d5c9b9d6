//! What is above the tire: the arch.

use super::{AlongTheHub, CarInSpace, Fitted, InSpace, ObstacleShape, arc};
use crate::car::corner::Reading;
use crate::car::section::{MountedSetup, Standing};

/// Straight up from the top of the tire as it leans.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading) -> ObstacleShape {
    ObstacleShape::Ceiling { z: fitted.outline.top(fitted.center, fitted.camber) + reading.gap.as_mm() }
}

pub(super) fn room(z: f64, standing: &Standing<'_>) -> f64 {
    z - standing.outline.top(standing.center_y, standing.camber_deg)
}

pub(super) fn nearer_by(fitted: &MountedSetup, planned: &MountedSetup) -> f64 {
    planned.top() - fitted.top()
}

/// A leaned wheel that stands further out stands higher at its top, or lower.
pub(super) fn along_the_hub(lean_rad: f64) -> AlongTheHub {
    let slope = lean_rad.sin();
    if slope.abs() > 1e-9 { AlongTheHub::Evenly(slope) } else { AlongTheHub::NotAtAll }
}

/// Over the wheel where the fender's line is; without one, over its outmost face.
pub(super) fn in_space(z: f64, car: &CarInSpace<'_>) -> InSpace {
    let outmost = car.outline.bounds().0.1 + car.center_y;
    InSpace::of(arc(car.lip.unwrap_or(outmost), z + car.by_work + car.raised), car.lip.is_none())
}
