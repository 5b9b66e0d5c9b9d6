//! A wheel to be swept past parts of the car, and what that finds.
//!
//! The wheel with its tire is a solid of revolution. A place on a part is brought into the wheel's own frame by the inverse
//! of the pose, reduced to what lies along the axle and to the distance from it, and its signed distance to the closed
//! outline is taken: exact, without a mesh. The poses are a grid; from its lowest cells a local search (`search`) goes on to
//! [`REFINED_MM`].

use super::field::DistanceField;
use super::{Envelope, Kinematics, Pose, Reach};
use crate::values::verdict::Verdict;

/// Poses of the grid in steer and in travel.
pub const GRID: (usize, usize) = (41, 31);
/// How near the least room is found, in millimetres.
pub const REFINED_MM: f64 = 0.05;
/// No place of a wheel is further from its steering axis, in millimetres.
pub(super) const FURTHEST_FROM_AXIS_MM: f64 = 700.0;
/// A wheel to be swept.
#[derive(Debug, Clone, Copy)]
pub struct Sweep<'a> {
    /// Rim and tire.
    pub field: &'a DistanceField<'a>,
    /// Where the rim's centre plane stands on the hub: spacer − ET.
    pub center_y: f64,
    /// How it moves.
    pub kinematics: Kinematics,
    /// How far.
    pub reach: Reach,
    /// What of that the use reaches.
    pub envelope: Envelope,
    /// The least room the house wants.
    pub least_mm: f64,
}

/// What a sweep found of one part.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CloudAnswer {
    /// Room at rest; negative is an overlap.
    pub at_rest_mm: f64,
    /// Least room of all poses.
    pub least_mm: f64,
    /// Where that is.
    pub at: Pose,
    /// The smallest steer angle at static height from which on it touches.
    pub touches_from_steer_deg: Option<f64>,
    /// The smallest travel straight ahead from which on it touches.
    pub touches_from_travel_mm: Option<f64>,
}

/// What a sweep found.
#[derive(Debug, Clone, PartialEq)]
pub struct SweepAnswer {
    /// Part by part, in the order given. `None` for a part without a place.
    pub parts: Vec<Option<CloudAnswer>>,
    /// The worst of them.
    pub verdict: Verdict,
    /// Degrees of lock to give up each way for everything to have the least room; `None` where nothing is to be given up,
    /// or that alone does not do.
    pub steering_limiter_deg: Option<f64>,
    /// Millimetres of bump travel to give up; `None` likewise.
    pub bump_stop_mm: Option<f64>,
}

/// A cell of the map.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cell {
    /// Its pose.
    pub pose: Pose,
    /// The room there.
    pub room_mm: f64,
}
