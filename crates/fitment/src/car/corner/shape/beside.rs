//! A part that is known only by the gap it left to what was fitted: caliper and spokes, and what is ahead of the tire or behind.

use super::{
    AlongTheHub, CannotBe, CarInSpace, EdgeAtLock, Fitted, InSpace, ObstacleShape, RoomInputs, spread,
};
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::obstacle::TroubleKind;
use crate::car::corner::{Carrier, Feature, Obstacle, Reading, quick_rule};
use crate::car::section::{MountedSetup, Toward};
use crate::values::length::Length;

/// A caliper's outer edge nearer to the axle than this would lie inside the hub.
const LEAST_CALIPER_RADIUS_MM: f64 = 80.0;
/// How far the edge behind the tire goes on up, down and to either side, in millimetres. Estimate.
const BEHIND_MM: f64 = 60.0;

/// By its gap alone; a caliper must lie between hub and rim.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading) -> Result<ObstacleShape, CannotBe> {
    let gap = reading.gap.as_mm();
    if reading.feature.blocks_from() == BlocksFrom::Barrel {
        let seat = fitted.setup.wheel.map_or(0.0, |wheel| wheel.diameter.bead_seat().as_mm() / 2.0);
        let impossible = |says| Err((TroubleKind::Impossible, says));
        if reading.radius.is_some_and(|radius| radius.as_mm() + gap > seat) {
            return impossible(
                "The caliper would stand outside the rim: check the radius and the wheel's size.",
            );
        }
        if seat - gap < LEAST_CALIPER_RADIUS_MM {
            return impossible("The caliper would lie inside the hub: check the figure and its unit.");
        }
    }
    Ok(ObstacleShape::Beside { gap, fitted: fitted.setup })
}

/// Ahead and behind by the edge where the steering is known, else by the quick rule; else by how much nearer the wheel comes.
pub(super) fn room(gap: f64, reading: &Reading, inputs: &RoomInputs<'_>) -> Option<f64> {
    let RoomInputs { faces, standing, by_work, .. } = inputs;
    if reading.feature.blocks_from() != BlocksFrom::AheadOrBehind {
        return Some(gap - inputs.nearer_by?);
    }
    if let Some(lock) = &inputs.lock {
        return Some(lock.room(gap, faces.crown, standing) + by_work);
    }
    let larger = standing.outline.crown() - faces.crown;
    if !reading.steer.is_at_lock() {
        return Some(gap - larger + by_work);
    }
    let poke = Length::mm(standing.outer() - faces.outer);
    let lost = quick_rule::lost_at_lock(reading.feature, poke);
    let given = quick_rule::given_at_lock(reading, poke);
    Some(gap - quick_rule::lost_by_radius(larger) - (lost - given).as_mm() + by_work)
}

pub(super) fn nearer_by(feature: Feature, fitted: &MountedSetup, planned: &MountedSetup) -> Option<f64> {
    match feature.blocks_from() {
        BlocksFrom::Barrel => Some(fitted.rim_radius() - planned.rim_radius()),
        BlocksFrom::Spoke if planned.has_the_wheel_of(fitted) => Some(fitted.spacer() - planned.spacer()),
        BlocksFrom::Spoke => None,
        BlocksFrom::Inboard | BlocksFrom::Outboard | BlocksFrom::Above | BlocksFrom::AheadOrBehind => {
            let is_of_body = feature.carrier() == Carrier::Body;
            let outer = |stand: &MountedSetup| stand.reach(Toward::Outboard, is_of_body);
            let poke = Length::mm(outer(planned) - outer(fitted));
            let larger = planned.crown() - fitted.crown();
            Some(quick_rule::lost_by_radius(larger) + quick_rule::lost_at_lock(feature, poke).as_mm())
        }
    }
}

pub(super) fn along_the_hub(feature: Feature, is_at_lock: bool) -> AlongTheHub {
    let is_ahead_or_behind = feature.blocks_from() == BlocksFrom::AheadOrBehind;
    if is_ahead_or_behind && is_at_lock { AlongTheHub::Swung } else { AlongTheHub::NotAtAll }
}

/// An edge across the car at the gap that was read at lock; behind the tire it goes up and down as well.
pub(super) fn in_space(gap: f64, obstacle: &Obstacle, car: &CarInSpace<'_>) -> Option<InSpace> {
    let feature = obstacle.feature;
    let edge = car.edge?;
    let [x, y, z] = edge.place(gap + car.by_work);
    // The body goes up with the ride height, and what hangs on it.
    let up = if feature.carrier() == Carrier::Body { car.raised } else { 0.0 };
    let z = z + up;
    let is_upright = feature == Feature::SillBehind;
    let (inboard, outboard) = edge.across(if is_upright { BEHIND_MM } else { EdgeAtLock::ACROSS_MM });
    let across = spread(inboard, outboard).map(|off| [x, y + off, z]);
    let (down, upward) = edge.up_and_down();
    let up_and_down = spread(down, upward).map(|off| [x, y, z + off]);
    let points = across.chain(up_and_down.filter(|_| is_upright)).collect();
    let is_estimated = !car.moving.knows_the_steering();
    Some(InSpace { points, edge_at: Some([x, y, z]), is_estimated })
}
