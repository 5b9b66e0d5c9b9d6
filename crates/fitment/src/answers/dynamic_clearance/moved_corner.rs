//! What may be off of a corner in motion, and what follows for the room.

use super::places::part_in_space;
use super::{PartInSpace, SweepContext};
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{Feature, Moving, further_round};
use crate::car::motion::{Carried, Cloud, Envelope, Place, Pose, Reach};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{Contribution, Input};
use crate::values::length::Length;
use crate::values::working::Source;

/// A corner that may be otherwise in one figure.
#[derive(Debug)]
pub(super) struct MovedCorner {
    input: Input,
    is_usual: bool,
    source: Source,
    /// At both ends.
    ends: [End; 2],
}

/// A corner at one end of a figure's range.
#[derive(Debug)]
struct End {
    moving: Moving,
    /// Where the part stands then, if that is elsewhere.
    cloud: Option<Cloud>,
    /// How much higher it is met there.
    higher_mm: f64,
}

/// What may be off, and whether nobody measured it.
pub(super) type Off = (Contribution, bool);

impl SweepContext<'_> {
    /// How the corner may be otherwise, each figure at both ends of its range; what was read at lock stands elsewhere then.
    pub(super) fn otherwise(&self, part: &PartInSpace) -> Vec<MovedCorner> {
        if part.cloud.carried == Carried::SteeredUpright {
            return Vec::new();
        }
        let figures = Input::of_motion()
            // What a part was read at is in its standing figure already.
            .filter(|(input, _)| !(part.is_read_at_lock() && *input == Input::LockAngle))
            .map(|(input, moves)| {
                let is_measured = input.is_measured(self.moving);
                let by = input.off(is_measured);
                let ends = [-by, by].map(|by| {
                    let mut moving = self.moving.clone();
                    moves(&mut moving, by);
                    let is_elsewhere = part.is_read_at_lock() && moving.steering != self.moving.steering;
                    let cloud = if is_elsewhere {
                        let AxleCase { corner, fitted, .. } = self.case;
                        let edge =
                            part.edge.and_then(|edge| edge.on(corner, &moving, fitted, &part.obstacle));
                        part_in_space(self.case, &part.obstacle, &moving, edge).map(|part| part.cloud)
                    } else {
                        None
                    };
                    End { moving, cloud, higher_mm: 0.0 }
                });
                MovedCorner { input, is_usual: !is_measured, source: input.source(is_measured), ends }
            });
        figures.chain(self.further_round(part)).chain(self.askew(part)).collect()
    }

    /// An edge across the car that does not run square to it: about the place where its gap was read.
    fn askew(&self, part: &PartInSpace) -> Option<MovedCorner> {
        let [x, y, _] = part.edge_at?;
        let ends = [-1.0, 1.0].map(|end| end * Input::EdgeAskew.off(true)).map(|by| {
            let (sin, cos) = by.to_radians().sin_cos();
            let turned = |place: &Place| {
                let aside = place[1] - y;
                [x + aside * sin, y + aside * cos, place[2]]
            };
            let points = part.cloud.points.iter().map(turned).collect();
            let cloud = Some(Cloud { points, ..part.cloud });
            End { moving: self.moving.clone(), cloud, higher_mm: 0.0 }
        });
        let source = Input::EdgeAskew.source(true);
        Some(MovedCorner { input: Input::EdgeAskew, is_usual: false, source, ends })
    }

    /// A part ahead that is further round the tire than it was taken for: at the gap that was read, higher or lower, and so
    /// nearer when the wheel comes to that height. The edge behind is upright, and met at any.
    fn further_round(&self, part: &PartInSpace) -> Option<MovedCorner> {
        if part.feature.blocks_from() != BlocksFrom::AheadOrBehind || part.feature == Feature::SillBehind {
            return None;
        }
        let crown = self.case.fitted.overall_diameter()?.as_mm() / 2.0;
        let is_usual = part.obstacle.reading.clock.is_none();
        let off_deg = Input::Clock.off(!is_usual);
        let ends = [-off_deg, off_deg].map(|by| {
            let (nearer, higher_mm) = further_round(by, crown);
            let moved = |[x, y, z]: &Place| [x - nearer, *y, z + higher_mm];
            let points = part.cloud.points.iter().map(moved).collect();
            let cloud = Cloud { points, ..part.cloud };
            End { moving: self.moving.clone(), cloud: Some(cloud), higher_mm }
        });
        Some(MovedCorner { input: Input::Clock, is_usual, source: Input::Clock.source(!is_usual), ends })
    }

    /// Law of propagation in motion: each figure of the corner is moved to both ends of its range, what was read at lock moves
    /// along with it, and the room is worked out again in the pose that has the least. Where that pose lies on a bound which
    /// moves, it goes along.
    pub(super) fn may_be_off(
        &self,
        part: &PartInSpace,
        otherwise: &[MovedCorner],
        at: Pose,
        reach: Reach,
        envelope: Envelope,
    ) -> Vec<Off> {
        let length = Length::mm;
        let mut all = vec![(
            Contribution {
                input: Input::StandingStill,
                down: length(part.plus_minus_mm),
                up: length(part.plus_minus_mm),
                source: Input::StandingStill.source(true),
            },
            false,
        )];
        let is_at_rest = at.steer_deg.abs() < 0.01 && at.travel_mm.abs() < 0.01;
        if part.cloud.carried == Carried::SteeredUpright || is_at_rest {
            return all;
        }
        let whole = self.case.reach(self.moving);
        let room = |moving: &Moving, cloud: &Cloud, reached: Reach, higher_mm: f64| {
            // A stretch that leaves out lock or travel leaves it out here too, and one that was limited stays so.
            let by_as_much =
                |of: f64, was: f64, is: f64| if of > 0.0 { (of + is - was).max(0.0) } else { 0.0 };
            let moved = Reach {
                outward_deg: by_as_much(reach.outward_deg, whole.outward_deg, reached.outward_deg),
                inward_deg: by_as_much(reach.inward_deg, whole.inward_deg, reached.inward_deg),
                bump_mm: by_as_much(reach.bump_mm, whole.bump_mm, reached.bump_mm),
                droop_mm: by_as_much(reach.droop_mm, whole.droop_mm, reached.droop_mm),
            };
            let kinematics = moving.kinematics(self.case.fitted, self.case.planned_camber())?;
            let Pose { steer_deg, travel_mm } = along(envelope, reach, moved, at);
            let pose = moved.nearest(envelope, Pose { steer_deg, travel_mm: travel_mm + higher_mm });
            Some(self.field.room(&kinematics, self.wheel.center_y, cloud, pose))
        };
        let Some(nominal) = room(self.moving, &part.cloud, whole, 0.0) else { return all };
        for one in otherwise {
            let ends = one.ends.each_ref().map(|End { moving, cloud, higher_mm }| {
                let cloud = cloud.as_ref().unwrap_or(&part.cloud);
                room(moving, cloud, self.case.reach(moving), *higher_mm).unwrap_or(nominal)
            });
            let (low, high) = (ends[0].min(ends[1]).min(nominal), ends[0].max(ends[1]).max(nominal));
            let (down, up) = (length(nominal - low), length(high - nominal));
            all.push((Contribution { input: one.input, down, up, source: one.source }, one.is_usual));
        }
        if part.gives_under_load() && envelope != Envelope::Parking {
            let down = self.case.limits.compliance;
            let source = Input::Compliance.source(true);
            let contribution = Contribution { input: Input::Compliance, down, up: Length::ZERO, source };
            all.push((contribution, false));
        }
        all.retain(|(one, _)| one.down.as_mm() > 1e-9 || one.up.as_mm() > 1e-9);
        all.sort_by(|a, b| b.0.down.as_mm().total_cmp(&a.0.down.as_mm()));
        all
    }
}

/// A pose under another reach: on a bound it stays on that bound.
fn along(envelope: Envelope, was: Reach, is: Reach, at: Pose) -> Pose {
    const ON: f64 = 0.02;
    let ((down_was, up_was), (down, up)) = (was.travel(envelope), is.travel(envelope));
    let travel_mm = match at.travel_mm {
        travel if travel >= up_was - ON && up_was > 0.0 => up,
        travel if travel <= down_was + ON && down_was < 0.0 => down,
        travel => travel.clamp(down, up),
    };
    let ((in_was, out_was), (inward, outward)) =
        (was.steer(envelope, at.travel_mm), is.steer(envelope, travel_mm));
    let steer_deg = match at.steer_deg {
        steer if steer >= out_was - ON && out_was > 0.0 => outward,
        steer if steer <= in_was + ON && in_was < 0.0 => inward,
        steer => steer.clamp(inward, outward),
    };
    Pose { steer_deg, travel_mm }
}

impl PartInSpace {
    /// Sheet metal and liners come nearer under load.
    fn gives_under_load(&self) -> bool {
        matches!(
            self.feature,
            Feature::FenderLateral | Feature::Arch | Feature::LinerAhead | Feature::InnerLiner
        )
    }
}
