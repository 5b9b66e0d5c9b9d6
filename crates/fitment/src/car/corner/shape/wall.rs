//! A level line that may be met at any height.

use super::{AlongTheHub, CarInSpace, Fitted, InSpace, ObstacleShape, arc, furthest, spread};
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{Carrier, Feature, Obstacle, Reading};
use crate::car::section::{MountedSetup, Standing, Toward};

/// Level, from whatever of the fitted wheel reaches furthest.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading) -> ObstacleShape {
    let gap = reading.gap.as_mm();
    let is_of_body = reading.feature.carrier() == Carrier::Body;
    let reach = |toward, camber| fitted.outline.reach(toward, fitted.center, camber);
    if reading.feature.blocks_from() == BlocksFrom::Outboard {
        return ObstacleShape::Wall { y: reach(Toward::Outboard, fitted.camber) + gap };
    }
    let camber = if is_of_body { fitted.camber } else { 0.0 };
    ObstacleShape::Wall { y: -reach(Toward::Inboard, camber) - gap }
}

pub(super) fn room(y: f64, feature: Feature, standing: &Standing<'_>) -> f64 {
    if feature.blocks_from() == BlocksFrom::Outboard { y - standing.outer() } else { -y - standing.inner() }
}

pub(super) fn nearer_by(feature: Feature, fitted: &MountedSetup, planned: &MountedSetup) -> f64 {
    let toward =
        if feature.blocks_from() == BlocksFrom::Outboard { Toward::Outboard } else { Toward::Inboard };
    let is_of_body = feature.carrier() == Carrier::Body;
    planned.reach(toward, is_of_body) - fitted.reach(toward, is_of_body)
}

pub(super) fn along_the_hub(feature: Feature, is_at_lock: bool, lean_rad: f64) -> AlongTheHub {
    match feature.blocks_from() {
        BlocksFrom::Outboard => AlongTheHub::Evenly(-lean_rad.cos()),
        _ if is_at_lock => AlongTheHub::Bent(1.0),
        _ => AlongTheHub::Evenly(lean_rad.cos()),
    }
}

/// The fender's lip follows the arch where that was read; a wall inboard goes up beside the tire; what was read at lock stands
/// where the turned tire is furthest in.
pub(super) fn in_space(y: f64, obstacle: &Obstacle, car: &CarInSpace<'_>) -> Option<InSpace> {
    let feature = obstacle.feature;
    let crown = car.outline.crown();
    if feature.blocks_from() == BlocksFrom::Outboard {
        // Only to draw the lip's edge, where nobody read the arch.
        let (usual_gap, _) = Feature::Arch.facts().usual_mm;
        let usual = crown + usual_gap + car.raised;
        return Some(InSpace::of(arc(y + car.by_work, car.arch.unwrap_or(usual)), car.arch.is_none()));
    }
    if !feature.facts().at_lock {
        let points = spread(0.6 * crown, crown + 60.0).map(|z| [0.0, y - car.by_work, z]);
        return Some(InSpace::of(points.collect(), false));
    }
    let reading = &obstacle.reading;
    let [x, y, z] = furthest(car, car.moving.at_lock(reading.steer, reading.side), |place| -place[1])?;
    // The body goes up with the ride height, and what hangs on it.
    let up = if feature.carrier() == Carrier::Body { car.raised } else { 0.0 };
    let gap = reading.gap.as_mm() + car.by_work;
    let points = spread(-45.0, 45.0).map(|off| [x + off, y - gap, z + up]).collect();
    Some(InSpace::of(points, !car.moving.knows_the_steering()))
}
