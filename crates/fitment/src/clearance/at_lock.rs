//! A part that was read at full lock, held against another wheel where the steering was measured.

use super::band::Case;
use super::stand::MountedSetup;
use crate::case::AxleCase;
use crate::corner::{EdgeAtLock, Obstacle, ObstacleShape, further_round};
use crate::motion::{Carried, IntoWheel, Kinematics, Place};
use crate::section::Outline;

/// A wheel that is turned to the lock at which a part was read, and that part's edge.
#[derive(Debug, Clone, Copy)]
pub(super) struct Lock {
    edge: EdgeAtLock,
    kinematics: Kinematics,
    /// Back into the frame of the wheel that is turned so.
    into: IntoWheel,
    /// The place of the fitted tire from which the gap was read.
    from: Place,
    /// The fitted crown.
    crown: f64,
    /// Whether a figure of the axis or the lock was taken as usual.
    pub(super) is_usual: bool,
}

/// How far an edge is held against the tire to either side at most, in millimetres, and in how many steps.
const EDGE_MM: f64 = 60.0;
const EDGE_STEPS: u32 = 6;

impl Lock {
    /// The same if it was turned further when it was read.
    pub(super) fn turned_by(self, by_deg: f64) -> Self {
        let edge = self.edge.turned_by(by_deg);
        Self { edge, into: self.kinematics.inverse(edge.pose, Carried::Body), from: edge.read_at, ..self }
    }

    /// The same if the part is further round the wheel: its edge is met as far from the axle, and so less far ahead.
    pub(super) fn read_round(mut self, by_deg: f64, crown: f64) -> Self {
        let (nearer, higher) = further_round(by_deg, crown);
        self.from[0] -= self.edge.ahead() * nearer;
        self.from[2] += higher;
        self
    }

    /// The room of an outline to the edge, with the fitted crown of this case.
    pub(super) fn room(&self, case: Case<'_>, outline: &Outline) -> f64 {
        let ObstacleShape::Beside { gap, .. } = case.place else { return f64::INFINITY };
        let [x, y, z] = self.from;
        let off = self.edge.ahead() * (gap + case.faces.crown - self.crown);
        let (inboard, outboard) = self.edge.across(EDGE_MM);
        let step = (outboard - inboard) / f64::from(EDGE_STEPS);
        // The place that was read is one of them, whichever way the edge goes on; it and the outboard end are mostly nearest.
        let aside = (0..=EDGE_STEPS).map(|at| outboard - step * f64::from(at));
        let places = std::iter::once(0.0).chain(aside).map(|aside| [x + off, y + aside, z]);
        self.into.room_to(outline, case.standing.center_y, places)
    }
}

impl AxleCase<'_> {
    /// How a part at lock is met, where the steering was measured; `None` where the quick rule stands in.
    pub(super) fn lock(&self, obstacle: &Obstacle, stand: &MountedSetup) -> Option<Lock> {
        let edge = self.resolved.edge_at_lock(self.corner, self.fitted, obstacle)?;
        let moving = self.corner.moving.as_ref()?;
        let kinematics = moving.kinematics(self.fitted, stand.camber_deg())?;
        Some(Lock {
            edge,
            kinematics,
            into: kinematics.inverse(edge.pose, Carried::Body),
            from: edge.read_at,
            crown: obstacle.against?.faces.crown,
            is_usual: !moving.assumed.is_empty(),
        })
    }
}
