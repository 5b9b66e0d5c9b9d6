//! Where each part that was read stands in space, and what carries it.

use crate::case::AxleCase;
use crate::clearance::{Contribution, Input, MountedSetup};
use crate::corner::feature::BlocksFrom;
use crate::corner::{Carrier, EdgeAtLock, Feature, Moving, Obstacle, ObstacleShape, ReadFrom};
use crate::length::Length;
use crate::motion::{Carried, Cloud, Kinematics, Place, Pose, SuspensionKind};
use crate::section::Outline;
use crate::setup::{Axle, Setup};

/// A part of the car in space.
#[derive(Debug, Clone, PartialEq)]
pub struct PartInSpace {
    /// The part.
    pub feature: Feature,
    /// The reading it rests on.
    pub obstacle: Obstacle,
    /// Whether it stands for the arch as well: lip and arch are one edge of metal.
    pub is_with_the_arch: bool,
    /// Its places, where they are at rest, and what carries them.
    pub cloud: Cloud,
    /// Where the gap was read to an edge across the car; `None` for other shapes.
    pub edge_at: Option<Place>,
    /// The house's least gap to it.
    pub least_mm: f64,
    /// How much less the room may be, as it stands still: the band of the ledger.
    pub plus_minus_mm: f64,
    /// Whether a figure that its place rests on was taken as usual, not read.
    pub is_estimated: bool,
}

/// Parts of a strut suspension that are carried by the steered upright; on other axles the damper stands on an arm.
fn carried(feature: Feature, axle: Axle, kind: SuspensionKind) -> Carried {
    let steers = axle == Axle::Front;
    match feature {
        Feature::Strut | Feature::SpringPerch => match (kind, steers) {
            (SuspensionKind::Strut, true) => Carried::SteeredUpright,
            (SuspensionKind::Strut, false) => Carried::UnsteeredUpright,
            _ => Carried::Arm,
        },
        Feature::Knuckle | Feature::TieRodEnd if steers => Carried::SteeredUpright,
        Feature::Knuckle | Feature::TieRodEnd => Carried::UnsteeredUpright,
        Feature::UpperArm | Feature::LowerArm | Feature::TrailingArm => Carried::Arm,
        _ => Carried::Body,
    }
}

/// Numbers from `least` to `most`, no further apart than 3 mm or 3°, whichever the caller counts in.
fn spread(least: f64, most: f64) -> impl Iterator<Item = f64> {
    let steps = ((most - least) / 3.0).ceil().max(1.0) as u32;
    (0..=steps).map(move |at| least + (most - least) * f64::from(at) / f64::from(steps))
}

/// What a part at lock was read against: the fitted outline as it stood, turned.
struct ReadAtLock<'a> {
    outline: &'a Outline,
    center_y: f64,
    kinematics: Kinematics,
    pose: Pose,
}

impl ReadAtLock<'_> {
    /// The place of the turned tire that is furthest that way: of the whole tread, all round.
    fn furthest(&self, of: impl Fn(Place) -> f64) -> Place {
        let crown = self.outline.bounds().1.1;
        let placing = self.kinematics.placing(self.pose);
        let places = self.outline.points().iter().filter(|point| point.r > 0.8 * crown).flat_map(|point| {
            (0..72).map(|at| {
                let (sin, cos) = f64::to_radians(5.0 * f64::from(at)).sin_cos();
                let place = [point.r * cos, point.y + self.center_y, point.r * sin];
                placing.of(place)
            })
        });
        places.max_by(|a, b| of(*a).total_cmp(&of(*b))).unwrap_or_default()
    }
}

/// How far the edge behind the tire goes on up, down and to either side, in millimetres. Estimate.
const BEHIND_MM: f64 = 60.0;
/// Room that is usually found under an arch, where nobody read it: only to draw the lip's edge, in millimetres.
const USUAL_ARCH_GAP_MM: f64 = 62.0;

impl AxleCase<'_> {
    /// The parts that were read, where they stand in space. The brake, which turns with nothing, is judged by itself.
    pub fn parts_in_space(&self, moving: &Moving, planned: &Setup) -> Vec<PartInSpace> {
        let Some(stand) = MountedSetup::of(planned, self.planned_camber()) else { return Vec::new() };
        // Lip and arch are one edge of metal: where both were read, the lip stands for both.
        let is_one = self.resolved.knows(Feature::FenderLateral) && self.resolved.knows(Feature::Arch);
        // What the quick rule may be off of an inner part plays no part where its place is turned past.
        let band = |obstacle: &Obstacle| {
            let band = self.band(obstacle, &stand)?;
            let is_inside = obstacle.feature.blocks_from() == BlocksFrom::Inboard;
            let counts = |one: &&Contribution| !(is_inside && one.input == Input::RuleAtLock);
            let squares = band.contributions.iter().filter(counts).map(|one| one.down.as_mm().powi(2));
            Some(squares.sum::<f64>().sqrt())
        };
        let of_the_arch = self.resolved.of(Feature::Arch).filter_map(band).fold(0.0, f64::max);
        let obstacles = self.resolved.obstacles.iter().filter(|one| !one.feature.is_of_the_brake());
        obstacles
            .filter(|one| !(is_one && one.feature == Feature::Arch))
            .filter_map(|obstacle| {
                let part = self.part_in_space(obstacle, moving)?;
                let own = band(obstacle)?;
                let is_with_the_arch = is_one && obstacle.feature == Feature::FenderLateral;
                let plus_minus_mm = if is_with_the_arch { own.max(of_the_arch) } else { own };
                Some(PartInSpace { plus_minus_mm, is_with_the_arch, ..part })
            })
            .collect()
    }

    /// A part that was read, where it stands in space with what is done to the car.
    pub(super) fn part_in_space(&self, obstacle: &Obstacle, moving: &Moving) -> Option<PartInSpace> {
        let feature = obstacle.feature;
        let arch = self.arch_above_hub().map(Length::as_mm);
        let room = self.room_by_work(feature);
        let fitted = obstacle.reading.on.unwrap_or(*self.fitted);
        let outline = Outline::of(&fitted)?;
        let crown = outline.bounds().1.1;
        let center_y = -fitted.effective_offset()?.as_mm();
        let (mut is_estimated, mut edge_at) = (false, None);
        let arc = |y: f64, z: f64| -> Vec<Place> {
            spread(35.0, 145.0)
                .map(|deg| {
                    let (sin, cos) = deg.to_radians().sin_cos();
                    [z * cos, y, z * sin]
                })
                .collect()
        };
        let points: Vec<Place> = match (obstacle.place, feature.blocks_from()) {
            // The lip's edge follows the arch where that was read.
            (ObstacleShape::Wall { y }, BlocksFrom::Outboard) => {
                is_estimated = arch.is_none();
                let usual = crown + USUAL_ARCH_GAP_MM + self.levers.raised();
                arc(y + room, arch.unwrap_or(usual))
            }
            (ObstacleShape::Ceiling { z }, _) => {
                let lip = self.fender_line();
                is_estimated = lip.is_none();
                arc(lip.unwrap_or(outline.bounds().0.1 + center_y), z + room + self.levers.raised())
            }
            (ObstacleShape::Edge { y, height, lean_deg }, _) => spread(140.0, 420.0)
                .map(|z| [0.0, y - room - (z - height) * lean_deg.to_radians().tan(), z])
                .collect(),
            (ObstacleShape::Perch { y, height }, _) => {
                spread(-45.0, 45.0).map(|x| [x, y - room, height]).collect()
            }
            (ObstacleShape::Spot { y, height }, _) => {
                let z = if feature.is_below() { -height } else { height };
                spread(-15.0, 15.0).map(|x| [x, y - room, z]).collect()
            }
            (ObstacleShape::Wall { y }, _) if !feature.facts().at_lock => {
                spread(0.6 * crown, crown + 60.0).map(|z| [0.0, y - room, z]).collect()
            }
            (place, blocks) => {
                let gap = match place {
                    ObstacleShape::Beside { gap, .. } => gap + room,
                    _ => obstacle.reading.gap.as_mm() + room,
                };
                is_estimated = !moving.knows_the_steering();
                let read = ReadAtLock {
                    outline: &outline,
                    center_y,
                    kinematics: moving.kinematics(self.fitted, self.corner.camber())?,
                    pose: moving.at_lock(obstacle.reading.steer, obstacle.reading.side),
                };
                // The body goes up with the ride height, and what hangs on it.
                let up = if feature.carrier() == Carrier::Body { self.levers.raised() } else { 0.0 };
                match blocks {
                    BlocksFrom::AheadOrBehind => {
                        let edge =
                            EdgeAtLock::of(self.corner, moving, self.fitted, obstacle, ReadFrom::AllRound)?;
                        let [x, y, z] = edge.read_at;
                        let (x, z) = (x + edge.ahead() * gap, z + up);
                        edge_at = Some([x, y, z]);
                        let is_upright = feature == Feature::SillBehind;
                        let (inboard, outboard) =
                            edge.across(if is_upright { BEHIND_MM } else { EdgeAtLock::ACROSS_MM });
                        let across = spread(inboard, outboard).map(|off| [x, y + off, z]);
                        let up_and_down = spread(-BEHIND_MM, BEHIND_MM).map(|off| [x, y, z + off]);
                        across.chain(up_and_down.filter(|_| is_upright)).collect()
                    }
                    _ => {
                        let [x, y, z] = read.furthest(|place| -place[1]);
                        let z = z + up;
                        spread(-45.0, 45.0).map(|off| [x + off, y - gap, z]).collect()
                    }
                }
            }
        };
        // Parts of the upright and the arms were read against the wheel as it leans: their places lean with it.
        let leaning = Kinematics::standing(self.planned_camber()).placing(Pose::AT_REST);
        let leans = feature.carrier() != Carrier::Body;
        let points = points.into_iter().map(|place| if leans { leaning.of(place) } else { place });
        let points = points.collect();
        let cloud = Cloud { carried: carried(feature, self.axle, moving.kind), points };
        // The house's gap under the arch is there for the travel, and here the travel itself is looked at: what is left is the
        // gap to the lip.
        let least_mm = match feature {
            Feature::Arch => self.least(Feature::FenderLateral).as_mm(),
            other => self.least(other).as_mm(),
        };
        let obstacle = *obstacle;
        let is_with_the_arch = false;
        Some(PartInSpace {
            feature,
            obstacle,
            is_with_the_arch,
            cloud,
            edge_at,
            least_mm,
            plus_minus_mm: 0.0,
            is_estimated,
        })
    }
}
