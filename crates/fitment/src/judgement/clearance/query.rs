//! What is asked: the room from one part to one setup, wherever on the hub that stands.

use super::fender_line::room_by_work;
use super::nearer::nearer_by;
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::shape::{RoomInputs, room, room_as_read};
use crate::car::corner::{Carrier, Direction, HeldAtLock, Obstacle, ObstacleShape, Reading};
use crate::car::section::{MountedSetup, Standing, Variants};
use crate::judgement::case::AxleCase;
use crate::setup::Setup;

/// What of a reading's own setup stays on the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Stays {
    pub(super) tire: bool,
    pub(super) wheel: bool,
}

/// A part and a setup that is held against it: everything but where it stands on the hub is worked out once.
pub(crate) struct ClearanceQuery<'a> {
    pub(super) case: &'a AxleCase<'a>,
    pub(super) obstacle: &'a Obstacle,
    pub(super) stand: &'a MountedSetup,
    /// What the part was read against that stays on the car.
    pub(super) stays: Stays,
    /// Where the part was read at full lock and the steering is known.
    pub(super) lock: Option<HeldAtLock<'a>>,
    /// The outlines of a tire that stays, as it was measured.
    own: Option<Variants>,
    /// How the setup leans against the part: nothing for what leans along.
    camber_deg: f64,
    /// How much nearer the setup comes to a part that only a gap is known of than what was fitted; it has no place then.
    nearer_by: Option<f64>,
    /// Room that work on the car makes to the part.
    by_work: f64,
}

impl<'a> ClearanceQuery<'a> {
    /// A part, and a setup that is held against it.
    pub(crate) fn of(case: &'a AxleCase<'a>, obstacle: &'a Obstacle, stand: &'a MountedSetup) -> Self {
        let feature = obstacle.feature;
        let stays = Stays::of(case, &obstacle.reading, stand.setup());
        let is_measured = stays.tire && case.corner.is_fitted_tire_measured();
        let own = is_measured.then(|| case.corner.cut_of_fitted(stand.setup())).flatten();
        let is_of_body = feature.carrier() == Carrier::Body;
        let camber_deg = if is_of_body { stand.camber_deg() } else { 0.0 };
        let nearer_by = match obstacle.shape {
            ObstacleShape::Beside { fitted, .. } if feature.blocks_from() != BlocksFrom::AheadOrBehind => {
                MountedSetup::of(&fitted, case.corner.camber())
                    .and_then(|fitted| nearer_by(case, feature, &fitted, stand))
            }
            _ => None,
        };
        let by_work = room_by_work(case, feature);
        let edge = case.resolved.edge_at_lock(case.corner, case.fitted, obstacle);
        let lock = edge.and_then(|edge| {
            let read_against = case.resolved.read_at_lock(&obstacle.reading.on?)?;
            HeldAtLock::of(edge, case.corner, case.fitted, (obstacle, read_against), stand.camber_deg())
        });
        Self { case, obstacle, stand, stays, lock, own, camber_deg, nearer_by, by_work }
    }

    /// Whether the part was read on one side alone, and the plan is not the very set that stands clear of it on the other.
    pub(super) fn may_be_nearer_on_the_other_side(&self) -> bool {
        let Obstacle { feature, side, reading, .. } = *self.obstacle;
        let is_other = |one: &Obstacle| one.side != side;
        let is_read_there = self.case.resolved.of(feature).any(is_other);
        let is_the_set = self.stays.tire
            && self.stays.wheel
            && reading.on.is_some_and(|on| on.spacer == self.stand.setup().spacer);
        side.is_some() && !reading.steer.is_at_lock() && !is_read_there && !is_the_set
    }

    /// The outlines of what stands there.
    pub(super) fn cut(&self) -> &Variants {
        self.own.as_ref().unwrap_or_else(|| self.stand.cut())
    }

    /// Things as they are written, with the rim's centre plane at `center_y`.
    pub(super) fn as_written(&self, center_y: f64) -> RoomInputs<'_> {
        RoomInputs {
            shape: self.obstacle.shape,
            faces: self.obstacle.against.unwrap_or_default().faces,
            nearer_by: self.nearer_by,
            by_work: self.by_work,
            raised: self.case.levers.raised_at(self.obstacle.feature),
            lock: self.lock,
            standing: Standing { outline: self.cut().nominal(), center_y, camber_deg: self.camber_deg },
        }
    }

    /// The room as written the way it was read, where that is another than the nearest, in millimetres.
    pub(super) fn as_read(&self) -> Option<(f64, Direction)> {
        room_as_read(&self.obstacle.reading, &self.as_written(self.stand.center_y()))
    }

    /// The room as written, in millimetres, without how sure it is.
    pub(crate) fn nominal_at(&self, center_y: f64) -> Option<f64> {
        room(&self.obstacle.reading, &self.as_written(center_y))
    }
}

/// Where a part is drawn with what is done to the car: y outboard of the hub face and height above the axle, each where it is
/// known, in millimetres. The very work is counted that its room is judged with. `None` for what is known only by its gap.
pub fn drawn_at(case: &AxleCase<'_>, obstacle: &Obstacle) -> Option<(Option<f64>, Option<f64>)> {
    let feature = obstacle.feature;
    obstacle.shape.drawn(feature, room_by_work(case, feature), case.levers.raised_at(feature))
}

impl Stays {
    /// Whether wheel and tire of a reading are the planned ones: as somebody said, else equal lines are the same parts.
    fn of(case: &AxleCase<'_>, reading: &Reading, planned: &Setup) -> Self {
        let Some(on) = reading.on else { return Self { tire: false, wheel: false } };
        let placed = |setup: &Setup| setup.wheel.map(|wheel| wheel.placed());
        let keeps = case.evidence.keeps;
        let is_fitted = on == *case.fitted;
        let said = |said: Option<bool>, is_same: bool| match said {
            Some(said) if is_fitted => said,
            _ => is_same,
        };
        Self {
            tire: said(keeps.tire, on.tire.is_some() && on.tire == planned.tire),
            wheel: said(keeps.wheel, placed(&on) == placed(planned)),
        }
    }
}
