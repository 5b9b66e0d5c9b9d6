//! A part of the car whose place is known, and what that place rests on.

use super::shape::ObstacleShape;
use super::{CarSide, Feature, Reading};
use crate::car::section::{Outline, PARTS, Toward};
use crate::values::working::Phrase;

/// A part of the car whose place is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Obstacle {
    /// Which part.
    pub feature: Feature,
    /// On which side of the car, when noted.
    pub side: Option<CarSide>,
    /// Where it is.
    pub shape: ObstacleShape,
    /// The reading it rests on.
    pub reading: Reading,
    /// That reading's place in the corner's list.
    pub index: usize,
    /// Whether another reading contradicts it.
    pub is_contradicted: bool,
    /// What it was read against, and how its place follows from that; `None` from the bare hub.
    pub against: Option<ReferenceGeometry>,
}

/// How far what was fitted reaches: by these three figures alone a part that was read at lock is held against another wheel.
/// Millimetres from the hub face, and from the axle for the crown.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Faces {
    /// Radius of the crown.
    pub crown: f64,
    /// Reach outboard, leaned.
    pub outer: f64,
    /// Reach inboard, leaned.
    pub inner: f64,
}

impl Faces {
    /// Of an outline that stands at `center_y`.
    pub fn of(outline: &Outline, center_y: f64, camber_deg: f64) -> Self {
        let reach = |toward| outline.reach(toward, center_y, camber_deg);
        Self { crown: outline.crown(), outer: reach(Toward::Outboard), inner: reach(Toward::Inboard) }
    }

    /// Each further by so much.
    pub(crate) fn off_by(self, off: Self) -> Self {
        Self { crown: self.crown + off.crown, outer: self.outer + off.outer, inner: self.inner + off.inner }
    }
}

/// What a reading's place would be if something of what it was read against were otherwise.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Sensitivity {
    /// How much further along its axis the place is.
    pub along: f64,
    /// The fitted faces then.
    pub faces: Faces,
}

impl Sensitivity {
    /// Whether anything is otherwise than with the faces as they are.
    pub(crate) fn is_other_than(&self, faces: Faces) -> bool {
        self.along != 0.0 || self.faces != faces
    }
}

/// What a part was read against.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct ReferenceGeometry {
    /// The fitted faces.
    pub faces: Faces,
    /// Places of its tread across: y from the hub face, and radius. Shoulder, middle, shoulder.
    pub tread: [[f64; 2]; 5],
    /// With each [`Part`] of the fitted set at the lower and upper end of its range.
    pub parts: [[Sensitivity; 2]; PARTS],
    /// With the camber lower and higher by [`CAMBER_STEP_DEG`].
    pub camber: [Sensitivity; 2],
    /// With the gap that was read smaller and larger by the instrument's ±: how much further along the place is. `None` where no
    /// place leaves one of them.
    pub gap: Option<[f64; 2]>,
    /// Read lower and higher by this; `None` where the height plays no part.
    pub read_at: Option<(f64, AlongTheRange)>,
    /// With a strut that leans less and more by so many degrees; `None` where no lean plays a part.
    pub lean: Option<(f64, AlongTheRange)>,
}

/// How much further along its axis a place is as something of what it was read with goes through its range: at its lower end, half
/// way there, half way to its upper end, and there. It bends, so the ends alone would not give the reading back.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct AlongTheRange(pub [f64; 4]);

impl AlongTheRange {
    const SHARES: [f64; 4] = [-1.0, -0.5, 0.5, 1.0];

    /// Of a figure that is asked for at these shares of the range.
    pub(crate) fn of(along: impl Fn(f64) -> f64) -> Self {
        Self(Self::SHARES.map(along))
    }

    /// At a share of the range: straight between the places that are known.
    pub(crate) fn at(&self, share: f64) -> f64 {
        let (half, whole) = if share < 0.0 { (self.0[1], self.0[0]) } else { (self.0[2], self.0[3]) };
        let share = share.abs();
        if share <= 0.5 { half * share * 2.0 } else { half + (whole - half) * (share - 0.5) * 2.0 }
    }
}

/// By how much the camber is moved to see what follows, in degrees.
pub const CAMBER_STEP_DEG: f64 = 1.0;
/// Tread depth of a new tire. Common practice; no source.
pub const NEW_TREAD_MM: f64 = 8.0;
/// How far a noted height may be off. Estimate.
pub const HEIGHT_PLUS_MINUS_MM: f64 = 5.0;

/// What is wrong with a reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TroubleKind {
    /// It cannot be true on a road car.
    Impossible,
    /// Another reading of the same place differs by more than both can be off.
    Contradicts,
    /// It is true and cannot be used for this.
    NotUsable,
}

/// A reading that is kept, marked and explained.
#[derive(Debug, Clone, PartialEq)]
pub struct Trouble {
    /// Its place in the corner's list.
    pub reading: usize,
    /// What is wrong.
    pub kind: TroubleKind,
    /// The reading it contradicts.
    pub other: Option<usize>,
    /// Why, in a sentence.
    pub says: Phrase,
}
