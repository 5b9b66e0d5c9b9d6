//! How a part's place is kept: one file for each shape, with how a reading fixes it, how a wheel meets it, how much nearer
//! another wheel comes to it, and where it stands in space.
//!
//! Every question about a shape is a method of [`ObstacleShape`] here that names all of them, so that the compiler names each
//! place a new shape must be thought of.

mod beside;
mod ceiling;
mod edge;
mod obstacle_shape;
mod perch;
mod spot;
mod wall;

pub(super) use edge::Lean;
pub use obstacle_shape::ObstacleShape;

use super::edge_at_lock::EdgeAtLock;
use super::feature::{BlocksFrom, ShapeKind};
use super::held_at_lock::HeldAtLock;
use super::obstacle::{Faces, Obstacle, TroubleKind};
use super::{Corner, Direction, Feature, Moving, Reading, quick_rule};
use crate::car::motion::{Place, Pose};
use crate::car::section::{MountedSetup, Outline, Standing};
use crate::setup::Setup;

/// Why a reading fixes no place.
pub(super) type CannotBe = (TroubleKind, &'static str);

pub(super) const NOT_THERE: CannotBe = (
    TroubleKind::Impossible,
    "Nothing of the fitted wheel and tire comes that near at this distance from the axle.",
);

/// What was fitted when a part was read.
pub(super) struct Fitted<'a> {
    pub(super) setup: Setup,
    pub(super) outline: &'a Outline,
    /// Where its rim's centre plane stood.
    pub(super) center: f64,
    pub(super) camber: f64,
    /// How a strut beside it leans.
    pub(super) lean: Lean,
}

impl Fitted<'_> {
    /// Where a reading puts its part. The usual way of reading each is the part's own ([`Feature`]'s `how`): level from the
    /// innermost place near the noted height to a strut or perch, the shortest way to a knuckle or arm.
    ///
    /// # Errors
    /// When nothing of the fitted wheel comes so near there.
    pub(super) fn place(&self, reading: &Reading, height: Option<f64>) -> Result<ObstacleShape, CannotBe> {
        match (reading.feature.facts().shape, height) {
            (ShapeKind::Wall, _) | (ShapeKind::Spot | ShapeKind::Edge | ShapeKind::Perch, None) => {
                Ok(wall::read(self, reading))
            }
            (ShapeKind::Spot, Some(height)) => spot::read(self, reading, height),
            (ShapeKind::Edge, Some(_)) => Ok(edge::read(self, reading)),
            (ShapeKind::Perch, Some(height)) => perch::read(self, reading, height),
            (ShapeKind::Ceiling, _) => Ok(ceiling::read(self, reading)),
            (ShapeKind::Beside, _) => beside::read(self, reading),
        }
    }
}

/// All that a room is worked out from, in one case.
#[derive(Clone, Copy)]
pub(crate) struct RoomInputs<'a> {
    /// Where the part stands.
    pub(crate) shape: ObstacleShape,
    /// The faces of what was fitted.
    pub(crate) faces: Faces,
    /// What is held against it.
    pub(crate) standing: Standing<'a>,
    /// How much nearer the setup comes to a part that only a gap is known of than what was fitted.
    pub(crate) nearer_by: Option<f64>,
    /// Room that work on the car makes to the part.
    pub(crate) by_work: f64,
    /// How far the body is raised.
    pub(crate) raised: f64,
    /// Where the part was read at full lock and the steering is known.
    pub(crate) lock: Option<HeldAtLock<'a>>,
}

/// How the room to a part changes as the wheel moves along the hub.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum AlongTheHub {
    /// By so much for each millimetre outboard.
    Evenly(f64),
    /// By at most a millimetre for each, growing outboard (1) or inboard (−1).
    Bent(f64),
    /// By at most a millimetre for each, growing to whichever side the turned wheel swings away.
    Swung,
    /// Not at all.
    NotAtAll,
}

/// The car round a part, to say where that stands in space.
#[derive(Clone, Copy)]
pub(crate) struct CarInSpace<'a> {
    pub(crate) corner: &'a Corner,
    pub(crate) moving: &'a Moving,
    /// With which the steering was measured.
    pub(crate) fitted: &'a Setup,
    /// Where what was read at lock stands; `None` for what was not, and where that is not known.
    pub(crate) edge: Option<EdgeAtLock>,
    /// Against which the part was read, and where its rim's centre plane stood.
    pub(crate) outline: &'a Outline,
    pub(crate) center_y: f64,
    /// Room that work on the car makes to the part.
    pub(crate) by_work: f64,
    /// How far the body is raised.
    pub(crate) raised: f64,
    /// How far above the hub's centre the arch lies with what is done to the car; `None` while nobody read it.
    pub(crate) arch: Option<f64>,
    /// Where the fender's line is; `None` while nobody read it.
    pub(crate) lip: Option<f64>,
}

/// A part's places in space, as the wheel stands at rest.
pub(crate) struct InSpace {
    /// Its places.
    pub(crate) points: Vec<Place>,
    /// Where the gap was read to an edge across the car.
    pub(crate) edge_at: Option<Place>,
    /// Whether a figure that its place rests on was taken as usual.
    pub(crate) is_estimated: bool,
}

impl InSpace {
    fn of(points: Vec<Place>, is_estimated: bool) -> Self {
        Self { points, edge_at: None, is_estimated }
    }
}

impl ObstacleShape {
    /// How the room to it changes as a wheel of this lean moves along the hub.
    pub(crate) fn along_the_hub(self, reading: &Reading, lean_rad: f64) -> AlongTheHub {
        let feature = reading.feature;
        let is_at_lock = reading.steer.is_at_lock();
        match self {
            Self::Wall { .. } => wall::along_the_hub(feature, is_at_lock, lean_rad),
            Self::Spot { .. } | Self::Perch { .. } => AlongTheHub::Bent(1.0),
            Self::Edge { .. } if is_at_lock => AlongTheHub::Bent(1.0),
            Self::Edge { .. } => AlongTheHub::Evenly(1.0),
            Self::Ceiling { .. } => ceiling::along_the_hub(lean_rad),
            Self::Beside { .. } => beside::along_the_hub(feature, is_at_lock),
        }
    }

    /// A part's places in space; `None` where the steering that it rests on is not known.
    pub(crate) fn in_space(self, obstacle: &Obstacle, car: &CarInSpace<'_>) -> Option<InSpace> {
        match self {
            Self::Wall { y } => wall::in_space(y, obstacle, car),
            Self::Spot { y, height } => Some(spot::in_space(y, height, obstacle.feature, car)),
            Self::Edge { y, height, lean_deg } => Some(edge::in_space(y, height, lean_deg, car)),
            Self::Perch { y, height } => Some(perch::in_space(y, height, car)),
            Self::Ceiling { z } => Some(ceiling::in_space(z, car)),
            Self::Beside { gap, .. } => beside::in_space(gap, obstacle, car),
        }
    }
}

/// The room to a part in one case, in millimetres, with what is done to the car; negative is an overlap. `None` where another
/// wheel's shape is not known.
pub(crate) fn room(reading: &Reading, inputs: &RoomInputs<'_>) -> Option<f64> {
    let feature = reading.feature;
    let RoomInputs { standing, by_work, .. } = inputs;
    Some(match inputs.shape {
        ObstacleShape::Wall { y } => {
            wall::room(y, feature, standing) + by_work - lost_at_lock(reading, inputs)
        }
        ObstacleShape::Spot { y, height } => {
            spot::room(y, height, standing) + by_work - lost_at_lock(reading, inputs)
        }
        ObstacleShape::Edge { y, height, lean_deg } => {
            edge::room(y, height, lean_deg, reading, standing) + by_work - lost_at_lock(reading, inputs)
        }
        ObstacleShape::Perch { y, height } => {
            perch::room(y, height, standing) + by_work - lost_at_lock(reading, inputs)
        }
        ObstacleShape::Ceiling { z } => ceiling::room(z, standing) + inputs.raised + by_work,
        ObstacleShape::Beside { gap, .. } => beside::room(gap, reading, inputs)?,
    })
}

impl Obstacle {
    /// The nearest room to it from the wheel it was read against, in millimetres, with nothing done to the car; `None` where a part
    /// is known only by its gap.
    pub(crate) fn room_when_read(&self, standing: Standing<'_>) -> Option<f64> {
        let faces = self.against.unwrap_or_default().faces;
        let nothing = RoomInputs {
            shape: self.shape,
            faces,
            standing,
            nearer_by: None,
            by_work: 0.0,
            raised: 0.0,
            lock: None,
        };
        room(&self.reading, &nothing)
    }
}

/// The same the way it was read, where the nearest way that [`room`] says is another; `None` where they are one, and where nothing
/// of the wheel is there to read it from.
pub(crate) fn room_as_read(reading: &Reading, inputs: &RoomInputs<'_>) -> Option<(f64, Direction)> {
    let RoomInputs { standing, by_work, .. } = inputs;
    let level = match inputs.shape {
        ObstacleShape::Spot { y, height } => spot::level(y, height, reading, standing),
        ObstacleShape::Perch { y, height } => perch::level(y, height, reading, standing),
        ObstacleShape::Wall { .. }
        | ObstacleShape::Edge { .. }
        | ObstacleShape::Ceiling { .. }
        | ObstacleShape::Beside { .. } => None,
    }?;
    Some((level + by_work - lost_at_lock(reading, inputs), Direction::Level))
}

/// Where along the hub a part must begin to be so near: `room` there falls as it begins further out, and from `level` on inboard
/// it is less than the gap. `None` where no place does.
fn placed_at(gap: f64, level: f64, room: impl Fn(f64) -> f64) -> Option<f64> {
    const NEAR_MM: f64 = 1e-7;
    let (mut near, mut at_near) = (level, room(level) - gap);
    if at_near.abs() < NEAR_MM {
        return Some(level);
    }
    // Where even level it is further than the gap, it begins further out.
    let toward = if at_near > 0.0 { 1.0 } else { -1.0 };
    let mut step = gap.abs().max(1.0);
    let (mut far, mut at_far) = (1..=8).find_map(|_| {
        let at = near + toward * step;
        step *= 2.0;
        let there = room(at) - gap;
        ((there > 0.0) != (at_near > 0.0)).then_some((at, there))
    })?;
    // False position with the stale end halved (Illinois).
    for _ in 0..60 {
        let at = (near * at_far - far * at_near) / (at_far - at_near);
        let there = room(at) - gap;
        if there.abs() < NEAR_MM {
            return Some(at);
        }
        if (there > 0.0) == (at_far > 0.0) {
            (far, at_far) = (at, there);
            at_near /= 2.0;
        } else {
            (near, at_near) = (far, at_far);
            (far, at_far) = (at, there);
        }
    }
    Some(far)
}

/// What a part that was read at lock loses beside another wheel, by the quick rule: its radius counts, and not all that it stays
/// further out.
fn lost_at_lock(reading: &Reading, inputs: &RoomInputs<'_>) -> f64 {
    let RoomInputs { faces, standing, .. } = inputs;
    if !(reading.steer.is_at_lock() && reading.on.is_some()) {
        return 0.0;
    }
    let larger = standing.outline.crown() - faces.crown;
    // What stands outboard is come nearer to by all of the poke, turned or not.
    let is_inside = reading.feature.blocks_from() != BlocksFrom::Outboard;
    let further_out = if is_inside { faces.inner - standing.inner() } else { 0.0 };
    quick_rule::lost_by_radius(larger) + quick_rule::not_gained_inside(further_out)
}

/// How much less and how much more room the quick rule may leave than it says, to a part that was read at lock, in millimetres.
pub(crate) fn rule_at_lock_off(reading: &Reading, standing: &Standing<'_>, fitted: Faces) -> (f64, f64) {
    let larger = standing.outline.crown() - fitted.crown;
    if reading.feature.blocks_from() == BlocksFrom::AheadOrBehind {
        return quick_rule::may_be_off(reading, larger, standing.outer() - fitted.outer);
    }
    let by = quick_rule::may_be_off_inside(larger, standing.inner() - fitted.inner);
    (by, by)
}

/// How much nearer to a part a setup comes than what was fitted, in millimetres, where the part's place is not known: by the face
/// that it is read from. `None` where that cannot be said before the part is measured (another wheel's spokes).
pub(crate) fn nearer_by(feature: Feature, fitted: &MountedSetup, planned: &MountedSetup) -> Option<f64> {
    match feature.facts().shape {
        ShapeKind::Wall | ShapeKind::Edge => Some(wall::nearer_by(feature, fitted, planned)),
        ShapeKind::Spot => Some(spot::nearer_by(feature, fitted, planned)),
        ShapeKind::Perch => Some(perch::nearer_by(fitted, planned)),
        ShapeKind::Ceiling => Some(ceiling::nearer_by(fitted, planned)),
        ShapeKind::Beside => beside::nearer_by(feature, fitted, planned),
    }
}

/// The place of a turned wheel's tread that is furthest that way, all round.
fn furthest(car: &CarInSpace<'_>, pose: Pose, of: impl Fn(Place) -> f64) -> Option<Place> {
    let crown = car.outline.crown();
    let placing = car.moving.kinematics(car.fitted, car.corner.camber())?.placing(pose);
    let tread = car.outline.points().iter().filter(|point| point.r > 0.8 * crown);
    let places = tread.flat_map(|point| {
        (0..72).map(|at| {
            let (sin, cos) = f64::to_radians(5.0 * f64::from(at)).sin_cos();
            placing.of([point.r * cos, point.y + car.center_y, point.r * sin])
        })
    });
    Some(places.max_by(|a, b| of(*a).total_cmp(&of(*b))).unwrap_or_default())
}

/// Numbers from `least` to `most`, no further apart than 3 mm or 3°, whichever the caller counts in.
fn spread(least: f64, most: f64) -> impl Iterator<Item = f64> {
    let steps = ((most - least) / 3.0).ceil().max(1.0) as u32;
    (0..=steps).map(move |at| least + (most - least) * f64::from(at) / f64::from(steps))
}

/// An arch over the wheel, at so far out and so far from the axle.
fn arc(y: f64, radius: f64) -> Vec<Place> {
    let place = |deg: f64| {
        let (sin, cos) = deg.to_radians().sin_cos();
        [radius * cos, y, radius * sin]
    };
    spread(35.0, 145.0).map(place).collect()
}
