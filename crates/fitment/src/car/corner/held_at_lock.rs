//! A part that was read at full lock, held against another wheel where the steering was measured.

use super::{Corner, EdgeAtLock, Obstacle, further_round};
use crate::car::motion::{Carried, IntoWheel, Kinematics, Place};
use crate::car::section::Standing;
use crate::setup::Setup;

/// A wheel that is turned to the lock at which a part was read, and that part's edge.
#[derive(Debug, Clone, Copy)]
pub(crate) struct HeldAtLock {
    edge: EdgeAtLock,
    kinematics: Kinematics,
    /// Back into the frame of the wheel that is turned so.
    into: IntoWheel,
    /// The place of the fitted tire from which the gap was read.
    from: Place,
    /// The fitted crown.
    crown: f64,
    /// Whether a figure of the axis or the lock was taken as usual.
    pub(crate) is_usual: bool,
}

/// How far an edge is held against the tire to either side at most, in millimetres, and in how many steps.
const EDGE_MM: f64 = 60.0;
const EDGE_STEPS: u32 = 6;

impl HeldAtLock {
    /// How a part at lock is met by a wheel of this camber, where the steering was measured with `fitted`; `None` where the
    /// quick rule stands in.
    pub(crate) fn of(
        edge: EdgeAtLock,
        corner: &Corner,
        fitted: &Setup,
        obstacle: &Obstacle,
        camber_deg: f64,
    ) -> Option<Self> {
        let moving = corner.moving.as_ref()?;
        let kinematics = moving.kinematics(fitted, camber_deg)?;
        Some(Self {
            edge,
            kinematics,
            into: kinematics.inverse(edge.pose, Carried::Body),
            from: edge.read_at,
            crown: obstacle.against?.faces.crown,
            is_usual: !moving.assumed.is_empty(),
        })
    }

    /// The same if it was turned further when it was read.
    pub(crate) fn turned_by(self, by_deg: f64) -> Self {
        let edge = self.edge.turned_by(by_deg);
        Self { edge, into: self.kinematics.inverse(edge.pose, Carried::Body), from: edge.read_at, ..self }
    }

    /// The same if the part is further round the wheel: its edge is met as far from the axle, and so less far ahead.
    pub(crate) fn read_round(mut self, by_deg: f64, crown: f64) -> Self {
        let (nearer, higher) = further_round(by_deg, crown);
        self.from[0] -= self.edge.ahead() * nearer;
        self.from[2] += higher;
        self
    }

    /// The room to the edge at this gap from a fitted tire of this crown, in millimetres.
    pub(crate) fn room(&self, gap: f64, fitted_crown: f64, standing: &Standing<'_>) -> f64 {
        let [x, y, z] = self.from;
        let off = self.edge.ahead() * (gap + fitted_crown - self.crown);
        let (inboard, outboard) = self.edge.across(EDGE_MM);
        let step = (outboard - inboard) / f64::from(EDGE_STEPS);
        // The place that was read is one of them, whichever way the edge goes on; it and the outboard end are mostly nearest.
        let aside = (0..=EDGE_STEPS).map(|at| outboard - step * f64::from(at));
        let places = std::iter::once(0.0).chain(aside).map(|aside| [x + off, y + aside, z]);
        self.into.room_to(standing.outline, standing.center_y, places)
    }
}
