//! A part that was read at full lock, held against another wheel where the steering was measured.

use super::{Corner, EdgeAtLock, Obstacle, further_round};
use crate::car::motion::{Carried, IntoWheel, Kinematics, Place};
use crate::car::section::{Outline, Standing};
use crate::setup::Setup;

/// A wheel that is turned to the lock at which a part was read, and that part's edge.
///
/// The edge is taken to be met at one height and square to the car; where it truly is, nobody read. What the fitted wheel leaves to
/// it, taken so, is the gap all the same: what it is out by is `given_back`, and is worked out anew as what may be off is moved. So
/// an unchanged wheel has the gap that was read, and what is off of the steering or the clock is off of both wheels.
#[derive(Debug, Clone, Copy)]
pub(crate) struct HeldAtLock<'a> {
    edge: EdgeAtLock,
    kinematics: Kinematics,
    /// Back into the frame of the wheel that is turned so.
    into: IntoWheel,
    /// The place of the fitted tire from which the gap was read.
    from: Place,
    /// The fitted crown.
    crown: f64,
    /// The gap that was read, and what it was read against.
    gap: f64,
    fitted: Standing<'a>,
    /// The crown that this is taken to have had.
    fitted_crown: f64,
    /// What the gap is more than the fitted wheel leaves to the edge as it is taken to be.
    given_back: f64,
    /// Whether a figure of the axis or the lock was taken as usual.
    pub(crate) is_usual: bool,
}

/// How far an edge is held against the tire to either side at most, in millimetres, and in how many steps.
const EDGE_MM: f64 = 60.0;
const EDGE_STEPS: u32 = 6;

impl<'a> HeldAtLock<'a> {
    /// How a part at lock is met by a wheel of this camber, where the steering was measured with `fitted`; `None` where the
    /// quick rule stands in.
    pub(crate) fn of(
        edge: EdgeAtLock,
        corner: &Corner,
        fitted: &Setup,
        (obstacle, read_against): (&Obstacle, &'a Outline),
        camber_deg: f64,
    ) -> Option<Self> {
        let moving = corner.moving.as_ref()?;
        let kinematics = moving.kinematics(fitted, camber_deg)?;
        let center_y = -obstacle.reading.on?.effective_offset()?.as_mm();
        let held = Self {
            edge,
            kinematics,
            into: kinematics.inverse(edge.pose, Carried::Body),
            from: edge.read_at,
            crown: obstacle.against?.faces.crown,
            gap: obstacle.reading.gap.as_mm(),
            fitted: Standing { outline: read_against, center_y, camber_deg: 0.0 },
            fitted_crown: obstacle.against?.faces.crown,
            given_back: 0.0,
            is_usual: !moving.assumed.is_empty(),
        };
        Some(held.giving_back())
    }

    /// The same, with the fitted wheel's room to its edge as it is now.
    fn giving_back(self) -> Self {
        self.read_against(self.fitted.outline, self.crown)
    }

    /// The same if it was turned further when it was read.
    pub(crate) fn turned_by(self, by_deg: f64) -> Self {
        let edge = self.edge.turned_by(by_deg);
        let into = self.kinematics.inverse(edge.pose, Carried::Body);
        Self { edge, into, from: edge.read_at, ..self }.giving_back()
    }

    /// The same if the part is further round the wheel: its edge is met as far from the axle, and so less far ahead.
    pub(crate) fn read_round(mut self, by_deg: f64, crown: f64) -> Self {
        let (nearer, higher) = further_round(by_deg, crown);
        self.from[0] -= self.edge.ahead() * nearer;
        self.from[2] += higher;
        self.giving_back()
    }

    /// The same if what it was read against was of another outline and crown.
    pub(crate) fn read_against<'b>(self, outline: &'b Outline, crown: f64) -> HeldAtLock<'b>
    where
        'a: 'b,
    {
        let held = HeldAtLock { fitted: Standing { outline, ..self.fitted }, fitted_crown: crown, ..self };
        HeldAtLock { given_back: held.given_back_at(self.gap), ..held }
    }

    /// What a gap is more than the fitted wheel leaves to the edge that is taken to be at it.
    fn given_back_at(&self, gap: f64) -> f64 {
        let Standing { outline, center_y, .. } = self.fitted;
        let places = self.places(gap + self.fitted_crown - self.crown);
        gap - self.edge.turned_back().room_to(outline, center_y, places)
    }

    /// The edge at such a gap.
    fn places(&self, gap: f64) -> impl Iterator<Item = Place> {
        let [x, y, z] = self.from;
        let off = self.edge.ahead() * gap;
        let (inboard, outboard) = self.edge.across(EDGE_MM);
        let step = (outboard - inboard) / f64::from(EDGE_STEPS);
        // The place that was read is one of them, whichever way the edge goes on; it and the outboard end are mostly nearest.
        let aside = (0..=EDGE_STEPS).map(move |at| outboard - step * f64::from(at));
        std::iter::once(0.0).chain(aside).map(move |aside| [x + off, y + aside, z])
    }

    /// The room to the edge at this gap from a fitted tire of this crown, in millimetres.
    pub(crate) fn room(&self, gap: f64, fitted_crown: f64, standing: &Standing<'_>) -> f64 {
        let places = self.places(gap + fitted_crown - self.crown);
        let given_back = if gap == self.gap { self.given_back } else { self.given_back_at(gap) };
        self.into.room_to(standing.outline, standing.center_y, places) + given_back
    }
}
