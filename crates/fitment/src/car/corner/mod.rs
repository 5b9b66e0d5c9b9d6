//! The corner of the car as it was measured: readings, and the obstacles they fix.
//!
//! - [`camber_by`]: how another camber is had.
//! - [`feature`]: what can be in the way, what carries it, and how it is read.
//! - [`instrument`]: what it is read with, in which unit, and how sure that is.
//! - [`taken`]: a reading as it is kept, and how readings and the car's record make a corner.
//! - [`moving`]: how it moves.
//! - [`obstacle`]: a part whose place is known. `placing`: from a reading to that place, by its [`shape`]. `resolved`: all
//!   readings of a corner together; those that cannot be, kept and explained.
//! - [`quick_rule`]: what poke costs at full lock, while nobody measured the steering.
//!
//! # Frame
//! Origin where the spin axis meets the hub's bare mounting face; static ride height, wheels straight. y
//! outboard, so the same on both sides; z up. Millimetres; degrees. Camber negative = top inward. (ISO 8855
//! with y mirrored on the right-hand side.)

mod alike;
pub mod camber_by;
mod edge_at_lock;
pub mod feature;
mod held_at_lock;
pub mod instrument;
pub mod moving;
pub mod obstacle;
mod placing;
pub mod quick_rule;
pub mod recorded;
mod resolved;
pub mod shape;
mod to_read;
pub mod try_on;
mod typical_gaps;

use crate::setup::{Axle, Setup};
use crate::values::coded::coded;
use crate::values::length::Length;

pub use camber_by::CamberBy;
pub(crate) use edge_at_lock::{EdgeAtLock, further_round};
pub use feature::{Carrier, Feature};
pub(crate) use held_at_lock::HeldAtLock;
pub use instrument::{Instrument, ReadingUnit};
pub use moving::Moving;
pub use obstacle::{Obstacle, Trouble, TroubleKind};
pub use recorded::RecordedReading;
pub use resolved::Resolved;
pub use shape::ObstacleShape;
pub use to_read::ToRead;
pub use try_on::{Contact, TryOn};
pub(crate) use typical_gaps::STEEL_RULE;

/// Side of the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum CarSide {
    /// Left.
    Left,
    /// Right.
    Right,
}

coded!(CarSide: Left = "left", Right = "right");

/// How the car stood.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum Suspension {
    /// On its wheels, at ride height.
    #[default]
    AtRideHeight,
    /// Wheel hanging.
    Drooped,
}

coded!(Suspension: AtRideHeight = "ground", Drooped = "hanging");

/// How the wheels were turned.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum Steer {
    /// Straight ahead.
    #[default]
    Straight,
    /// Full lock to the left.
    LockLeft,
    /// Full lock to the right.
    LockRight,
}

coded!(Steer: Straight = "straight", LockLeft = "lock_left", LockRight = "lock_right");

impl Steer {
    /// How a part is read unless it is said: what is met at lock at the lock that turns the wheel on that side inward
    /// behind, everything else straight ahead.
    pub fn usual(feature: Option<Feature>, side: Option<CarSide>) -> Self {
        match side {
            _ if !feature.is_some_and(|feature| feature.facts().at_lock) => Self::Straight,
            Some(CarSide::Right) => Self::LockRight,
            _ => Self::LockLeft,
        }
    }

    /// At either lock.
    pub fn is_at_lock(self) -> bool {
        self != Self::Straight
    }
}

/// The face of the fitted wheel or tire that a gap was read from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Face {
    /// Whichever is the nearer there.
    Nearest,
    /// The tire's sidewall, where it is widest.
    Sidewall,
    /// The tire's shoulder.
    Shoulder,
    /// The rim's flange.
    Flange,
}

coded!(Face: Nearest = "nearest", Sidewall = "sidewall", Shoulder = "shoulder", Flange = "flange");

impl Face {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Nearest => "whichever is nearer",
            Self::Sidewall => "the sidewall",
            Self::Shoulder => "the tire's shoulder",
            Self::Flange => "the rim's flange",
        }
    }
}

/// Along which way a gap was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Direction {
    /// Level, along the axle.
    Level,
    /// The shortest way.
    Shortest,
}

coded!(Direction: Level = "level", Shortest = "shortest");

impl Direction {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Level => "level",
            Self::Shortest => "the shortest way",
        }
    }
}

/// One reading taken on the car.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// What was read.
    pub feature: Feature,
    /// On which side; `None` when nobody wrote it down.
    pub side: Option<CarSide>,
    /// The gap. With the wheel on: from tire or rim to the part, positive while there is room. On the bare
    /// hub: from the hub face (for the arch: from the hub's centre) to the part.
    pub gap: Length,
    /// How far the instrument may be off, either way.
    pub plus_minus: Length,
    /// What was fitted; `None` for the bare hub.
    pub on: Option<Setup>,
    /// On the ground or hanging.
    pub stance: Suspension,
    /// Straight or at lock.
    pub steer: Steer,
    /// How far from the spin axis the smallest gap was, when it was noted.
    pub radius: Option<Length>,
    /// From which face; `None` for the part's usual one.
    pub face: Option<Face>,
    /// Along which way; `None` for the part's usual one.
    pub direction: Option<Direction>,
    /// Where round the wheel, as hours of a clock seen from outboard with the car's front to the right: 3 ahead at hub
    /// height, 12 above, 9 behind. `None` for the part's usual place.
    pub clock: Option<f64>,
    /// Written over from the other side, not read.
    pub is_copied: bool,
    /// How it was found at a trial fit; `None` for a reading of the bay.
    pub tried: Option<Tried>,
}

/// What a trial fit tells of a gap.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tried {
    /// The gap, or the overlap, was measured.
    Measured,
    /// It touched and nobody measured by how much: there is at most so much room.
    AtMost,
}

impl Reading {
    /// A reading with the wheel on, straight, on the ground.
    pub fn new(feature: Feature, gap: Length, plus_minus: Length, on: Setup) -> Self {
        Self {
            feature,
            side: None,
            gap,
            plus_minus,
            on: Some(on),
            stance: Suspension::AtRideHeight,
            steer: Steer::Straight,
            radius: None,
            face: None,
            direction: None,
            clock: None,
            is_copied: false,
            tried: None,
        }
    }
}

/// A figure measured with its ±.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measured {
    /// What was read.
    pub value: Length,
    /// How far it may be off, either way.
    pub plus_minus: Length,
}

/// One axle as it was measured.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Corner {
    /// The readings, as taken.
    pub readings: Vec<Reading>,
    /// Camber as aligned; `None` when nobody knows.
    pub camber_deg: Option<f64>,
    /// The fitted tire's real section width, when somebody measured it: its product tolerance then drops out.
    pub fitted_section: Option<Measured>,
    /// Whether it stands lower than the factory built it: stiff springs leave less travel, so the arch needs more.
    pub is_lowered: bool,
    /// Tread depth of the fitted tire, in millimetres; `None` when nobody noted it.
    pub tread_depth_mm: Option<f64>,
    /// How it moves; `None` when nobody said anything of it.
    pub moving: Option<Moving>,
}

impl Corner {
    /// Whether anything was read at all.
    pub fn is_unmeasured(&self) -> bool {
        self.readings.is_empty()
    }

    /// Camber the figures go by: as aligned, else none; the doubt then goes into the band.
    pub fn camber(&self) -> f64 {
        self.camber_deg.unwrap_or(0.0)
    }
}

/// Both axles as measured.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Corners {
    /// Front axle.
    pub front: Corner,
    /// Rear axle.
    pub rear: Corner,
}

impl Corners {
    /// One axle's.
    pub fn on(&self, axle: Axle) -> &Corner {
        match axle {
            Axle::Front => &self.front,
            Axle::Rear => &self.rear,
        }
    }
}
