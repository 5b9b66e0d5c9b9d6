//! Where the edge of a part is that was read at full lock, ahead of the tire or behind it.

use std::sync::OnceLock;

use super::feature::BlocksFrom;
use super::{Corner, Feature, Moving, Obstacle};
use crate::car::motion::{Carried, IntoWheel, Kinematics, Passing, Place, Pose};
use crate::car::section::Outline;
use crate::setup::Setup;

/// An edge across the car, at the gap that was read ahead of, or behind, the foremost or rearmost place of the turned tire.
///
/// # Frame
/// Corner frame of [`crate::car::corner`], millimetres.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct EdgeAtLock {
    /// How the wheel turned that it was read against, leaning as it did.
    kinematics: Kinematics,
    /// How far it was turned.
    pub(crate) pose: Pose,
    /// Which place of that wheel's tread it was read from, in the wheel's own frame.
    on_the_wheel: Place,
    /// Where that place was.
    pub(crate) read_at: Place,
    /// From there to the edge, a unit vector.
    toward: Place,
    /// The same in the wheel's own frame, where the edge is square to the tire there; `None` where it is straight ahead or behind.
    square_to: Option<Place>,
    /// How much further than the gap it stands that way, so that the nearest place of the whole tire, its rounded shoulders
    /// included, leaves just the gap.
    further: f64,
    /// How far it goes on, inboard as a negative figure and outboard: nothing of it stands where that wheel passes.
    across: (f64, f64),
    /// How far it goes on downward, as a negative figure, and upward.
    up_and_down: (f64, f64),
}

/// From which place of the tire a gap is taken to have been read, where nobody noted it. Common practice, no source.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum ReadFrom {
    /// As high as the hub, where such parts mostly are: how the gap is held against another tire as it stands at that lock.
    HubHeight,
    /// Wherever the turned tire is foremost or rearmost: what goes on up and down, and is met on the way by other places.
    AllRound,
}

/// So far round a shoulder, from square to the tread, such a part is met; further round it would be beside the tire, not ahead of it
/// or behind. Estimate.
const FURTHEST_ROUND_DEG: f64 = 45.0;
/// Steps on that way.
const ROUND_THE_SHOULDER: u32 = 4;
/// Places round the tire that are looked at for the nearest.
const ROUND: u32 = 72;

/// How much nearer to the axle and how much higher an edge is met that is further round the wheel than it was taken for, in
/// millimetres.
pub(crate) fn further_round(by_deg: f64, crown_mm: f64) -> (f64, f64) {
    let (sin, cos) = by_deg.to_radians().sin_cos();
    (crown_mm * (1.0 - cos), crown_mm * sin)
}

impl EdgeAtLock {
    /// So much nearer than the gap that was read the wheel may come on its way: the outline's own rounding. Estimate.
    const PASSED_BY_MM: f64 = 1.0;
    /// How far an upright edge goes on up and down at most. Estimate.
    pub(crate) const UP_AND_DOWN_MM: f64 = 60.0;
    /// How far such an edge goes on to either side at most. Estimate.
    pub(crate) const ACROSS_MM: f64 = 90.0;

    /// Of a part that was read at lock, on a car whose steering was measured with `fitted`; `None` while that is not known
    /// well enough to place it.
    pub(crate) fn of(
        corner: &Corner,
        moving: &Moving,
        fitted: &Setup,
        obstacle: &Obstacle,
        unless_noted: ReadFrom,
    ) -> Option<Self> {
        let reading = &obstacle.reading;
        let (against, on) = (obstacle.against?, reading.on?);
        let kinematics = moving.kinematics(fitted, corner.camber())?;
        let pose = moving.at_lock(reading.steer, reading.side);
        let placing = kinematics.placing(pose);
        // A clock's hours run the other way than angles, and begin above.
        let noted = reading.clock.map(|hours| 90.0 - hours * 30.0);
        let hub_height = if obstacle.feature == Feature::SillBehind { 180.0 } else { 0.0 };
        let ahead = f64::to_radians(noted.unwrap_or(hub_height)).cos().signum();
        let angles: Vec<f64> = match (noted, unless_noted) {
            (Some(angle), _) => vec![angle],
            (None, ReadFrom::HubHeight) => vec![hub_height],
            (None, ReadFrom::AllRound) => {
                (0..ROUND).map(|at| 360.0 * f64::from(at) / f64::from(ROUND)).collect()
            }
        };
        let on_the_wheel = angles
            .into_iter()
            .flat_map(|angle| {
                let (sin, cos) = angle.to_radians().sin_cos();
                against.tread.map(|[y, r]| [r * cos, y, r * sin])
            })
            .max_by(|a, b| (ahead * placing.of(*a)[0]).total_cmp(&(ahead * placing.of(*b)[0])))?;
        let read_at = placing.of(on_the_wheel);
        let (outline, center_y) = (Outline::of(&on)?, -on.effective_offset()?.as_mm());
        let passing = Passing::of(&kinematics, &outline, center_y, moving.reach());
        let gap = reading.gap.as_mm();
        let straight = Self {
            kinematics,
            pose,
            on_the_wheel,
            read_at,
            toward: [ahead, 0.0, 0.0],
            square_to: None,
            further: 0.0,
            across: (0.0, 0.0),
            up_and_down: (-Self::UP_AND_DOWN_MM, Self::UP_AND_DOWN_MM),
        };
        Some(match unless_noted {
            ReadFrom::HubHeight => {
                let across = passing.leaves_free(straight.place(gap), Self::ACROSS_MM);
                Self { across, ..straight }
            }
            ReadFrom::AllRound => {
                let placed = straight.where_the_wheel_passes_by(&passing, &against.tread, gap);
                let turned = kinematics.inverse(pose, Carried::Body);
                let left = turned.room_to(&outline, center_y, std::iter::once(placed.place(gap)));
                let placed = Self { further: gap - left, ..placed };
                let edge = placed.place(gap);
                let free = |along, most| passing.leaves_room(edge, along, gap - Self::PASSED_BY_MM, most);
                Self {
                    across: free([0.0, 1.0, 0.0], Self::ACROSS_MM),
                    up_and_down: free([0.0, 0.0, 1.0], Self::UP_AND_DOWN_MM),
                    ..placed
                }
            }
        })
    }

    /// The edge's place with such a gap.
    pub(crate) fn place(&self, gap: f64) -> Place {
        [0, 1, 2].map(|axis| self.read_at[axis] + (gap + self.further) * self.toward[axis])
    }

    /// The gap was the smallest, and the wheel came to its lock from straight ahead: what it was read to stands where the wheel
    /// comes no nearer on its way. Where straight ahead of the foremost place it would be passed nearer, or through, it is further
    /// along the wheel: over another place of the tread, or round the shoulder that swings out.
    fn where_the_wheel_passes_by(self, passing: &Passing<'_>, tread: &[[f64; 2]; 5], gap: f64) -> Self {
        let least = |edge: &Self| passing.room(edge.place(gap));
        let enough = gap - Self::PASSED_BY_MM;
        let mut best = (least(&self), self);
        if best.0 >= enough {
            return self;
        }
        let [x, _, z] = self.on_the_wheel;
        let r = x.hypot(z);
        let shares = (1..=ROUND_THE_SHOULDER).map(|step| f64::from(step) / f64::from(ROUND_THE_SHOULDER));
        // Across the tread first, each place square to it; then round the shoulder that leads to the edge's own side.
        let over_the_tread = tread.iter().map(|place| (*place, 0.0));
        let shoulders = [tread[0], tread[4]].into_iter();
        let round = shoulders.flat_map(|shoulder| shares.clone().map(move |share| (shoulder, share)));
        let middle_y = tread[2][0];
        for ([y, tread_r], share) in over_the_tread.chain(round) {
            let on_the_wheel = [x * tread_r / r, y, z * tread_r / r];
            let (sin, cos) = (share * FURTHEST_ROUND_DEG.to_radians()).sin_cos();
            let aside = if y < middle_y { -sin } else { sin };
            let normal = [x / r * cos, aside, z / r * cos];
            let edge = Self { on_the_wheel, square_to: Some(normal), ..self }.placed(self.pose);
            let room = least(&edge);
            if room > best.0 {
                best = (room, edge);
            }
            if best.0 >= enough {
                break;
            }
        }
        best.1
    }

    /// 1 for an edge ahead of the tire, −1 for one behind it.
    pub(crate) fn ahead(&self) -> f64 {
        self.on_the_wheel[0].signum()
    }

    /// How far it goes on, inboard as a negative figure and outboard, followed so far at most.
    pub(crate) fn across(&self, most_mm: f64) -> (f64, f64) {
        (self.across.0.max(-most_mm), self.across.1.min(most_mm))
    }

    /// How far an upright edge goes on downward, as a negative figure, and upward.
    pub(crate) fn up_and_down(&self) -> (f64, f64) {
        self.up_and_down
    }

    /// Back into the frame of the wheel that it was read against, turned as it was.
    pub(crate) fn turned_back(&self) -> IntoWheel {
        self.kinematics.inverse(self.pose, Carried::Body)
    }

    /// The same if the wheel was turned further when it was read.
    pub(crate) fn turned_by(self, by_deg: f64) -> Self {
        self.placed(Pose { steer_deg: self.pose.steer_deg + by_deg, ..self.pose })
    }

    /// The same place of the wheel on a corner that moves otherwise; `None` while that is not known.
    pub(crate) fn on(
        self,
        corner: &Corner,
        moving: &Moving,
        fitted: &Setup,
        obstacle: &Obstacle,
    ) -> Option<Self> {
        let kinematics = moving.kinematics(fitted, corner.camber())?;
        let reading = &obstacle.reading;
        Some(Self { kinematics, ..self }.placed(moving.at_lock(reading.steer, reading.side)))
    }

    fn placed(self, pose: Pose) -> Self {
        let placing = self.kinematics.placing(pose);
        let read_at = placing.of(self.on_the_wheel);
        let toward = match self.square_to {
            None => self.toward,
            Some(normal) => {
                let to = placing.of([0, 1, 2].map(|axis| self.on_the_wheel[axis] + normal[axis]));
                [0, 1, 2].map(|axis| to[axis] - read_at[axis])
            }
        };
        Self { pose, read_at, toward, ..self }
    }
}

/// The edges of a corner's parts, one for each of its obstacles: worked out when first asked for, since each plan, lift and use is
/// held against all of them. One such list for each way to place them ([`ReadFrom`]).
#[derive(Debug, Clone, PartialEq, Default)]
pub(crate) struct PlacedEdges(OnceLock<(Setup, Moving, Vec<Option<EdgeAtLock>>)>);

impl PlacedEdges {
    /// The edge of one of a corner's obstacles; `None` for what is met otherwise, and where it cannot be placed. As it stands at
    /// lock only what was read there has one.
    pub(super) fn of(
        &self,
        obstacles: &[Obstacle],
        obstacle: &Obstacle,
        (corner, moving, fitted): (&Corner, &Moving, &Setup),
        unless_noted: ReadFrom,
    ) -> Option<EdgeAtLock> {
        let edge = |obstacle: &Obstacle| {
            let is_met_so = obstacle.feature.blocks_from() == BlocksFrom::AheadOrBehind
                && (unless_noted == ReadFrom::AllRound || obstacle.reading.steer.is_at_lock());
            if is_met_so { EdgeAtLock::of(corner, moving, fitted, obstacle, unless_noted) } else { None }
        };
        // One of these very obstacles: a copy, or a part as it is usually found, is placed for itself.
        let Some(at) = obstacles.iter().position(|one| std::ptr::eq(one, obstacle)) else {
            return edge(obstacle);
        };
        let known = self.0.get_or_init(|| (*fitted, moving.clone(), obstacles.iter().map(edge).collect()));
        if known.0 == *fitted && known.1 == *moving { known.2[at] } else { edge(obstacle) }
    }
}
