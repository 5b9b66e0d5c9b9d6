//! A part that was read at full lock, held against another wheel where the steering was measured.

use super::band::Case;
use super::stand::MountedSetup;
use crate::case::AxleCase;
use crate::corner::obstacle::Against;
use crate::corner::{Feature, ObstacleShape, Reading};
use crate::motion::{Carried, IntoWheel, Kinematics, Passing, Place, Pose};
use crate::section::Outline;

/// A part that was read at full lock, where the steering was measured: an edge across the car at the gap that was read ahead
/// of, or behind, the foremost or rearmost place of the turned tire.
#[derive(Debug, Clone, Copy)]
pub(super) struct Lock {
    kinematics: Kinematics,
    steer_deg: f64,
    /// Back into the frame of the wheel that is turned so.
    into: IntoWheel,
    /// That place of the fitted tire, and where it is on the wheel.
    at: Place,
    on_the_wheel: Place,
    /// Its crown.
    crown: f64,
    /// How far the edge goes on to either side.
    across: (f64, f64),
    /// Whether a figure of the axis or the lock was taken as usual.
    pub(super) is_usual: bool,
}

/// How far such an edge that is held against the tire goes on to either side at most, in millimetres, and in how many steps.
const EDGE_MM: f64 = 60.0;
const EDGE_STEPS: u32 = 6;

impl Lock {
    pub(super) fn ahead(&self) -> f64 {
        self.on_the_wheel[0].signum()
    }

    /// The same if it was turned further when it was read.
    pub(super) fn turned_by(mut self, by_deg: f64) -> Self {
        self.steer_deg += by_deg;
        let pose = Pose { steer_deg: self.steer_deg, travel_mm: 0.0 };
        self.into = self.kinematics.inverse(pose, Carried::Body);
        self.at = self.kinematics.placed(pose, self.on_the_wheel);
        self
    }

    /// The same if the part is further round the wheel: its edge is met as far from the axle, and so less far ahead.
    pub(super) fn read_round(mut self, by_deg: f64, crown: f64) -> Self {
        let (sin, cos) = by_deg.to_radians().sin_cos();
        self.at[0] -= self.ahead() * crown * (1.0 - cos);
        self.at[2] += crown * sin;
        self
    }

    /// The room of an outline to the edge, with the fitted crown of this case.
    pub(super) fn room(&self, case: Case<'_>, outline: &Outline) -> f64 {
        let ObstacleShape::Beside { gap, .. } = case.place else { return f64::INFINITY };
        let [x, y, z] = self.at;
        let off = self.ahead() * (gap + case.faces.crown - self.crown);
        let (inboard, outboard) = self.across;
        let step = (outboard - inboard) / f64::from(EDGE_STEPS);
        // The place that was read is one of them, whichever way the edge goes on; it and the outboard end are mostly nearest.
        let aside = (0..=EDGE_STEPS).map(|at| outboard - step * f64::from(at));
        let places = std::iter::once(0.0).chain(aside).map(|aside| [x + off, y + aside, z]);
        self.into.room_to(outline, case.standing.center_y, places)
    }
}

impl AxleCase<'_> {
    /// How a part at lock is met, where the steering was measured; `None` where the quick rule stands in.
    pub(super) fn lock(
        &self,
        feature: Feature,
        reading: &Reading,
        stand: &MountedSetup,
        against: &Against,
    ) -> Option<Lock> {
        let moving = self.corner.moving.as_ref().filter(|moving| moving.knows_the_steering())?;
        let kinematics = moving.kinematics(self.fitted, stand.camber_deg())?;
        let steer_deg = moving.at_lock(reading.steer, reading.side).steer_deg;
        let pose = Pose { steer_deg, travel_mm: 0.0 };
        let placing = kinematics.placing(pose);
        // A clock's hours run the other way than angles, and begin above.
        let usual = if feature == Feature::SillBehind { 180.0 } else { 0.0 };
        let angle = reading.clock.map_or(usual, |hours| 90.0 - hours * 30.0);
        let (sin, cos) = f64::to_radians(angle).sin_cos();
        let ahead = cos.signum();
        let on_the_wheel = against
            .tread
            .map(|[y, r]| [r * cos, y, r * sin])
            .into_iter()
            .max_by(|a, b| (ahead * placing.of(*a)[0]).total_cmp(&(ahead * placing.of(*b)[0])))?;
        let at = placing.of(on_the_wheel);
        // Nothing of the edge stands where the fitted wheel passes.
        let fitted = Outline::of(reading.on.as_ref().unwrap_or(self.fitted))?;
        let center_y = -reading.on.unwrap_or(*self.fitted).effective_offset()?.as_mm();
        let passing = Passing::of(&kinematics, &fitted, center_y, moving.reach());
        let [x, y, z] = at;
        let across = passing.leaves_free([x + ahead * reading.gap.as_mm(), y, z], EDGE_MM);
        Some(Lock {
            kinematics,
            steer_deg,
            into: kinematics.inverse(pose, Carried::Body),
            at,
            on_the_wheel,
            across,
            crown: against.faces.crown,
            is_usual: !moving.assumed.is_empty(),
        })
    }
}
