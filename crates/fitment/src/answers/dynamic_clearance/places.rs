//! Where each part that was read stands in space, and what carries it.

use crate::car::corner::EdgeAtLock;
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::shape::{CarInSpace, InSpace};
use crate::car::corner::{Carrier, Feature, Moving, Obstacle, ObstacleShape};
use crate::car::motion::{Carried, Cloud, Kinematics, Place, Pose, SuspensionKind};
use crate::car::section::{Outline, Standing};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{
    Contribution, Input, MountedSetup, fender_line, room_by_work, uncertainty,
};
use crate::setup::{Axle, Setup};
use crate::values::length::Length;

/// A part of the car in space.
#[derive(Debug, Clone, PartialEq)]
pub struct PartInSpace {
    /// The part.
    pub feature: Feature,
    /// The reading it rests on.
    pub obstacle: Obstacle,
    /// Whether it stands for the arch as well: lip and arch are one edge of metal.
    pub is_with_the_arch: bool,
    /// Its places, where they are at rest, and what carries them.
    pub cloud: Cloud,
    /// Where the gap was read to an edge across the car; `None` for other shapes.
    pub edge_at: Option<Place>,
    /// The same edge, that stands elsewhere on a corner that turns otherwise.
    pub(super) edge: Option<EdgeAtLock>,
    /// The house's least gap to it.
    pub least_mm: f64,
    /// How much less the room may be, as it stands still: the band of the ledger.
    pub plus_minus_mm: f64,
    /// Whether a figure that its place rests on was taken as usual, not read.
    pub is_estimated: bool,
}

/// Parts of a strut suspension that are carried by the steered upright; on other axles the damper stands on an arm.
fn carried(feature: Feature, axle: Axle, kind: SuspensionKind) -> Carried {
    let steers = axle == Axle::Front;
    match feature {
        Feature::Strut | Feature::SpringPerch => match (kind, steers) {
            (SuspensionKind::Strut, true) => Carried::SteeredUpright,
            (SuspensionKind::Strut, false) => Carried::UnsteeredUpright,
            _ => Carried::Arm,
        },
        Feature::Knuckle | Feature::TieRodEnd if steers => Carried::SteeredUpright,
        Feature::Knuckle | Feature::TieRodEnd => Carried::UnsteeredUpright,
        Feature::UpperArm | Feature::LowerArm | Feature::TrailingArm => Carried::Arm,
        _ => Carried::Body,
    }
}

/// The parts that were read, where they stand in space. The brake, which turns with nothing, is judged by itself.
pub fn parts_in_space(case: &AxleCase<'_>, moving: &Moving, planned: &Setup) -> Vec<PartInSpace> {
    let Some(stand) = MountedSetup::of(planned, case.planned_camber()) else { return Vec::new() };
    // Lip and arch are one edge of metal: where both were read, the lip stands for both.
    let is_one = case.resolved.knows(Feature::FenderLateral) && case.resolved.knows(Feature::Arch);
    // What the quick rule may be off of an inner part plays no part where its place is turned past.
    let band = |obstacle: &Obstacle| {
        let band = uncertainty(case, obstacle, &stand)?;
        let is_inside = obstacle.feature.blocks_from() == BlocksFrom::Inboard;
        let counts = |one: &&Contribution| !(is_inside && one.input == Input::RuleAtLock);
        let counted = band.contributions.iter().filter(counts).map(|one| one.down);
        Some(Length::root_sum_square(counted).as_mm())
    };
    let of_the_arch = case.resolved.of(Feature::Arch).filter_map(band).fold(0.0, f64::max);
    let obstacles = case.resolved.obstacles.iter().filter(|one| !one.feature.is_of_the_brake());
    obstacles
        .filter(|one| !(is_one && one.feature == Feature::Arch))
        .filter_map(|obstacle| {
            let edge = case.resolved.edge_in_motion(case.corner, moving, case.fitted, obstacle);
            let part = part_in_space(case, obstacle, moving, edge)?;
            let own = band(obstacle)?;
            let is_with_the_arch = is_one && obstacle.feature == Feature::FenderLateral;
            let plus_minus_mm = if is_with_the_arch { own.max(of_the_arch) } else { own };
            Some(PartInSpace { plus_minus_mm, is_with_the_arch, ..part })
        })
        .collect()
}

/// A part that was read, where it stands in space with what is done to the car; `edge` is where it stands if it was read at lock.
pub(super) fn part_in_space(
    case: &AxleCase<'_>,
    obstacle: &Obstacle,
    moving: &Moving,
    edge: Option<EdgeAtLock>,
) -> Option<PartInSpace> {
    let feature = obstacle.feature;
    let read_on = obstacle.reading.on.unwrap_or(*case.fitted);
    let outline = outline_as_read(case, &read_on)?;
    let as_it_was = CarInSpace {
        corner: case.corner,
        moving,
        fitted: case.fitted,
        edge,
        outline: &outline,
        center_y: -read_on.effective_offset()?.as_mm(),
        by_work: 0.0,
        raised: 0.0,
        arch: case.arch_above_hub().map(Length::as_mm),
        lip: fender_line(case),
    };
    let car = CarInSpace {
        by_work: room_by_work(case, feature),
        raised: case.levers.raised_at(feature),
        ..as_it_was
    };
    let InSpace { points, edge_at, is_estimated } = obstacle.shape.in_space(obstacle, &car)?;
    let carried = carried(feature, case.axle, moving.kind);
    let points = leaning(feature, case.planned_camber(), points);
    let cloud =
        Cloud { given_back_mm: given_back(obstacle, carried, &as_it_was), ..Cloud::new(carried, points) };
    // The house's gap under the arch is there for the travel, and here the travel itself is looked at: what is left is the
    // gap to the lip.
    let least_mm = match feature {
        Feature::Arch => case.least(Feature::FenderLateral).as_mm(),
        other => case.least(other).as_mm(),
    };
    let obstacle = *obstacle;
    let is_with_the_arch = false;
    Some(PartInSpace {
        feature,
        obstacle,
        is_with_the_arch,
        cloud,
        edge_at,
        edge,
        least_mm,
        plus_minus_mm: 0.0,
        is_estimated,
    })
}

/// The outline of what a part was read against, as it was measured.
fn outline_as_read(case: &AxleCase<'_>, read_on: &Setup) -> Option<Outline> {
    if case.corner.is_fitted_tire_measured() {
        return Some(case.corner.cut_of_fitted(read_on)?.nominal().clone());
    }
    Outline::of(read_on)
}

/// Parts of the upright and the arms were read against the wheel as it leans: their places lean with it.
fn leaning(feature: Feature, camber_deg: f64, points: Vec<Place>) -> Vec<Place> {
    if feature.carrier() == Carrier::Body {
        return points;
    }
    let leaning = Kinematics::standing(camber_deg).placing(Pose::AT_REST);
    points.into_iter().map(|place| leaning.of(place)).collect()
}

/// What the room that was read is more than the distance of the wheel it was read against to the part's places, in the pose in
/// which it was read. Nothing for the lip, which is read level and met as an edge.
fn given_back(obstacle: &Obstacle, carried: Carried, car: &CarInSpace<'_>) -> f64 {
    let (feature, reading) = (obstacle.feature, &obstacle.reading);
    if feature == Feature::FenderLateral {
        return 0.0;
    }
    let camber_deg = car.corner.camber();
    let is_met_at_lock = matches!(obstacle.shape, ObstacleShape::Beside { .. })
        || (feature.facts().at_lock && reading.steer.is_at_lock());
    let (kinematics, pose, read) = if is_met_at_lock {
        let kinematics = car.moving.kinematics(car.fitted, camber_deg);
        (kinematics, car.moving.at_lock(reading.steer, reading.side), Some(reading.gap.as_mm()))
    } else {
        let lean = if feature.carrier() == Carrier::Body { camber_deg } else { 0.0 };
        let standing = Standing { outline: car.outline, center_y: car.center_y, camber_deg: lean };
        (Some(Kinematics::standing(camber_deg)), Pose::AT_REST, obstacle.room_when_read(standing))
    };
    let places =
        obstacle.shape.in_space(obstacle, car).map(|place| leaning(feature, camber_deg, place.points));
    let (Some(kinematics), Some(read), Some(places)) = (kinematics, read, places) else { return 0.0 };
    let distance = kinematics.room(car.outline, car.center_y, &Cloud::new(carried, places), pose);
    if distance.is_finite() { read - distance } else { 0.0 }
}
