//! A plan turned and travelling past the parts that were read: where each part stands in space, what moves it, how near the
//! wheel comes, and in words.

use crate::case::AxleCase;
use crate::clearance::{MountedSetup, Verdict};
use crate::corner::feature::BlocksFrom;
use crate::corner::{Feature, Moving, Obstacle, ObstacleShape};
use crate::length::Length;
use crate::motion::axis::SCRUB_MATTERS_MM;
use crate::motion::sweep::{Cell, GRID};
use crate::motion::{
    Carried, Cloud, CloudAnswer, Envelope, Kinematics, MovingWheel, Place, Pose, Reach, SuspensionKind, Sweep,
};
use crate::section::Outline;
use crate::setup::{Axle, Setup};
use crate::working::{Phrase, Quantity};

/// A part of the car in space.
#[derive(Debug, Clone, PartialEq)]
pub struct PartInSpace {
    /// The part.
    pub feature: Feature,
    /// Its places, where they are at rest, and what carries them.
    pub cloud: Cloud,
    /// The house's least gap to it.
    pub least_mm: f64,
    /// How much less the room may be, as it stands still: the band of the ledger.
    pub plus_minus_mm: f64,
    /// Whether a figure that its place rests on was taken as usual, not read.
    pub is_estimated: bool,
}

/// What a sweep says of a part.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptPart {
    /// The part.
    pub part: PartInSpace,
    /// What was found.
    pub found: CloudAnswer,
    /// Its word over all poses that the use reaches.
    pub verdict: Verdict,
    /// Its room in every pose of the map.
    pub map: Vec<f64>,
    /// In a sentence.
    pub says: Phrase,
}

/// A plan in motion.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptAxle {
    /// The planned wheel.
    pub wheel: MovingWheel,
    /// How far the axle reaches.
    pub reach: Reach,
    /// What of it was taken as usual.
    pub assumed: Vec<&'static str>,
    /// The poses of the map, row by row from full droop to full bump, each from full inward to full outward lock.
    pub poses: Vec<Pose>,
    /// The parts, the tightest over its limit first.
    pub parts: Vec<SweptPart>,
    /// The worst of them; "measure first" while nothing that moves was read.
    pub verdict: Verdict,
    /// Degrees of lock to give up each way, where that alone does.
    pub steering_limiter_deg: Option<f64>,
    /// Bump travel to give up, where that alone does.
    pub bump_stop_mm: Option<f64>,
    /// Scrub radius and trail with what is fitted and with the plan; `None` where the axle does not steer.
    pub on_the_ground: Option<[(f64, f64); 2]>,
    /// What must be minded of it, in sentences.
    pub says: Vec<Phrase>,
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
        Feature::Knuckle if steers => Carried::SteeredUpright,
        Feature::Knuckle => Carried::UnsteeredUpright,
        Feature::UpperArm => Carried::Arm,
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

impl AxleCase<'_> {
    /// The parts that were read, where they stand in space. The brake, which turns with nothing, is judged by itself.
    pub fn parts_in_space(&self, moving: &Moving, planned: &Setup) -> Vec<PartInSpace> {
        let Some(stand) = MountedSetup::of(planned, self.planned_camber()) else { return Vec::new() };
        let arch = self.arch_above_hub().map(Length::as_mm);
        let obstacles = self.resolved.obstacles.iter().filter(|one| !one.feature.is_of_the_brake());
        obstacles
            .filter_map(|obstacle| {
                let part = self.part_in_space(obstacle, moving, arch)?;
                let plus_minus_mm = self.band(obstacle, &stand)?.likely().as_mm();
                Some(PartInSpace { plus_minus_mm, ..part })
            })
            .collect()
    }

    fn part_in_space(&self, obstacle: &Obstacle, moving: &Moving, arch: Option<f64>) -> Option<PartInSpace> {
        let feature = obstacle.feature;
        let room = self.levers.room(feature);
        let fitted = obstacle.reading.on.unwrap_or(*self.fitted);
        let outline = Outline::of(&fitted)?;
        let crown = outline.bounds().1.1;
        let center_y = -fitted.effective_offset()?.as_mm();
        let mut is_estimated = false;
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
                arc(y + room, arch.unwrap_or(crown + USUAL_ARCH_GAP_MM) + self.levers.raised())
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
                spread(-15.0, 15.0).map(|x| [x, y - room, height]).collect()
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
                    kinematics: moving.kinematics(&fitted, self.corner.camber())?,
                    pose: moving.at_lock(obstacle.reading.steer, obstacle.reading.side),
                };
                match (feature, blocks) {
                    (Feature::SillBehind, _) => {
                        let [x, y, z] = read.furthest(|place| -place[0]);
                        spread(-60.0, 60.0).map(|off| [x - gap, y + off, z]).collect()
                    }
                    (_, BlocksFrom::AheadOrBehind) => {
                        let [x, y, z] = read.furthest(|place| place[0]);
                        spread(-90.0, 90.0).map(|off| [x + gap, y + off, z]).collect()
                    }
                    _ => {
                        let [x, y, z] = read.furthest(|place| -place[1]);
                        spread(-45.0, 45.0).map(|off| [x + off, y - gap, z]).collect()
                    }
                }
            }
        };
        let cloud = Cloud { carried: carried(feature, self.axle, moving.kind), points };
        let least_mm = self.least(feature).as_mm();
        Some(PartInSpace { feature, cloud, least_mm, plus_minus_mm: 0.0, is_estimated })
    }

    /// A plan swept over what a use of the car reaches; `None` while wheel, offset or tire of plan or fitted set is missing.
    pub fn sweep(&self, planned: &Setup, envelope: Envelope) -> Option<SweptAxle> {
        let nothing_said = Moving::of(&crate::car::Car::default(), self.axle, Some(self.fitted));
        let moving = self.corner.moving.as_ref().unwrap_or(&nothing_said);
        let wheel = MovingWheel::of(
            self.fitted,
            planned,
            moving.steering.as_ref(),
            self.planned_camber(),
            &moving.travel,
        )?;
        let reach = moving.reach();
        let parts = self.parts_in_space(moving, planned);
        let standing = self.fit(planned);
        let sweep = |least_mm| Sweep {
            outline: &wheel.outline,
            center_y: wheel.center_y,
            kinematics: wheel.kinematics,
            reach,
            envelope,
            least_mm,
        };
        // The map shows all that the axle reaches, whatever the use.
        let poses: Vec<Pose> = Sweep { envelope: Envelope::All, ..sweep(0.0) }.poses().split_off(1);
        let mut swept: Vec<SweptPart> = parts
            .into_iter()
            .filter_map(|part| {
                let one = sweep(part.least_mm);
                let found = one.over(std::slice::from_ref(&part.cloud)).parts.first().copied().flatten()?;
                let map = one.map(&part.cloud, &poses).iter().map(|cell: &Cell| cell.room_mm).collect();
                let mut verdict = part.word(found.least_mm);
                let mut says = says(&part, &found);
                // One part has one word: here it is never better than where it stands still.
                let line = standing.as_ref().and_then(|fit| fit.line(part.feature));
                if let Some(line) = line.filter(|line| line.verdict > verdict) {
                    verdict = line.verdict;
                    says = says.text(format!(" Standing still the ledger says: {}.", line.verdict.word()));
                }
                Some(SweptPart { part, found, verdict, map, says })
            })
            .collect();
        swept.sort_by(|a, b| {
            let left = |one: &SweptPart| one.found.least_mm - one.part.clears_from();
            left(a).total_cmp(&left(b))
        });
        // No better word than standing still: what nobody read, and what decides, is measured first.
        let standing = standing.map_or(Verdict::MeasureFirst, |fit| fit.verdict);
        let nothing_read = if swept.is_empty() { Verdict::MeasureFirst } else { Verdict::Clears };
        let verdict = swept.iter().map(|one| one.verdict).fold(standing.max(nothing_read), Verdict::max);
        // One part's own limit for all that move: the strictest is kept.
        let clouds: Vec<Cloud> = swept.iter().map(|one| one.part.cloud.clone()).collect();
        let strictest = swept.iter().map(|one| one.part.least_mm).fold(0.0, f64::max);
        let is_ruled_out = swept.iter().any(|one| one.verdict.rules_out());
        let mend = is_ruled_out.then(|| sweep(strictest).over(&clouds));
        let on_the_ground = moving.steering.zip(wheel.scrub_radius_mm.zip(wheel.trail_mm));
        let on_the_ground =
            on_the_ground.map(|(steering, planned)| [(steering.scrub_radius_mm, steering.trail_mm), planned]);
        let mut all = SweptAxle {
            reach,
            assumed: moving.assumed.clone(),
            poses,
            parts: swept,
            verdict,
            steering_limiter_deg: mend.as_ref().and_then(|mend| mend.steering_limiter_deg),
            bump_stop_mm: mend.and_then(|mend| mend.bump_stop_mm),
            on_the_ground,
            says: Vec::new(),
            wheel,
        };
        all.says = all.minded();
        Some(all)
    }
}

/// Room that is usually found under an arch, where nobody read it: only to draw the lip's edge, in millimetres.
const USUAL_ARCH_GAP_MM: f64 = 62.0;

impl PartInSpace {
    /// The room from which on it clears: the house's least, and what the room may be less.
    pub fn clears_from(&self) -> f64 {
        self.least_mm + self.plus_minus_mm
    }

    /// How so much room stands.
    pub fn word(&self, room_mm: f64) -> Verdict {
        let length = |mm: f64| Length::from_mm(mm).unwrap_or_default();
        Verdict::of(length(room_mm), length(room_mm - self.plus_minus_mm), length(self.least_mm))
    }
}

fn degrees(deg: f64) -> String {
    let lock = if deg > 0.0 { "outward" } else { "inward" };
    format!("{:.0}° of {lock} lock", deg.abs())
}

fn travel(mm: f64) -> String {
    format!("{:.0} mm of {}", mm.abs(), if mm > 0.0 { "bump" } else { "droop" })
}

/// Where a pose is, in words.
fn at(pose: Pose) -> String {
    match (pose.steer_deg.abs() >= 0.5, pose.travel_mm.abs() >= 0.5) {
        (false, false) => "standing straight".to_owned(),
        (true, false) => format!("at {}", degrees(pose.steer_deg)),
        (false, true) => format!("straight at {}", travel(pose.travel_mm)),
        (true, true) => format!("at {} and {}", degrees(pose.steer_deg), travel(pose.travel_mm)),
    }
}

/// One part in a sentence.
fn says(part: &PartInSpace, found: &CloudAnswer) -> Phrase {
    let name = part.feature.facts().name;
    let length = |mm: f64| Quantity::length(Length::from_mm(mm).unwrap_or_default());
    let along = match part.cloud.carried {
        Carried::SteeredUpright => {
            Some("steers and travels with the wheel, so no lift or limiter changes its gap")
        }
        _ => None,
    };
    let begin = match (found.touches_from_steer_deg, found.touches_from_travel_mm) {
        (Some(0.0), _) | (_, Some(0.0)) => Some("touches standing still".to_owned()),
        (Some(steer), Some(mm)) => Some(format!(
            "touches from {} on, and over bumps from {} straight ahead",
            degrees(steer),
            travel(mm)
        )),
        (Some(steer), None) => Some(format!("touches from {} on", degrees(steer))),
        (None, Some(mm)) => Some(format!("touches from {} on, straight ahead", travel(mm))),
        (None, None) if found.least_mm <= 0.0 => {
            Some("touches only with lock and travel together".to_owned())
        }
        (None, None) => None,
    };
    let phrase = match (begin, found.least_mm <= 0.0) {
        (Some(begin), _) => Phrase::new(format!("The {name}: {begin}; the most overlap is "))
            .quantity(length(-found.least_mm))
            .text(format!(" {}", at(found.at))),
        (None, _) => Phrase::new(format!("The {name}: "))
            .quantity(length(found.least_mm))
            .text(format!(" at the least, {}", at(found.at))),
    };
    let phrase = phrase.text(" (").quantity(length(found.at_rest_mm)).text(" standing)");
    match along {
        Some(along) => phrase.text(format!("; it {along}.")),
        None => phrase.text("."),
    }
}

impl SweptAxle {
    /// What must be minded.
    fn minded(&self) -> Vec<Phrase> {
        let mut all = Vec::new();
        match (self.steering_limiter_deg, self.bump_stop_mm) {
            (Some(deg), _) => all.push(Phrase::new(format!(
                "A steering limiter that takes {deg:.1}° of lock each way would do; the turning circle grows. A patch: mend the cause where you can."
            ))),
            (None, Some(mm)) => all.push(Phrase::new(format!(
                "A bump stop that takes {mm:.0} mm of travel would do. A patch: the ride gets harsher, and what is limited can still be met under load."
            ))),
            (None, None) if self.parts.iter().any(|one| one.verdict.rules_out()) => all.push(Phrase::new(
                "Neither less lock nor less bump alone does: another offset, width or tire, or trimming.",
            )),
            (None, None) => {}
        }
        if let Some([(before, _), (after, _)]) = self.on_the_ground
            && (after - before).abs() > SCRUB_MATTERS_MM
        {
            all.push(Phrase::new(format!(
                "Scrub radius goes from {before:.0} to {after:.0} mm: the steering pulls harder under braking on split grip, and the bearings carry more."
            )));
        }
        all
    }

    /// The outline of what a use reaches on the map: steer and travel, round it once.
    pub fn bounds(&self, envelope: Envelope) -> Vec<Pose> {
        let (down, up) = self.reach.travel(envelope);
        let rows = GRID.1 as u32;
        let travels = (0..rows).map(|at| down + (up - down) * f64::from(at) / f64::from(rows - 1));
        let sides: Vec<(Pose, Pose)> = travels
            .map(|travel_mm| {
                let (inward, outward) = self.reach.steer(envelope, travel_mm);
                (Pose { steer_deg: inward, travel_mm }, Pose { steer_deg: outward, travel_mm })
            })
            .collect();
        let back = sides.iter().rev().map(|(inward, _)| *inward);
        sides.iter().map(|(_, outward)| *outward).chain(back).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::{Car, Fact};
    use crate::corner::{Corner, Reading, Steer};
    use crate::lever::Levers;
    use crate::limits::HouseLimits;

    const FITTED: &str = "17x7 ET45 225/65R17";

    fn swept(readings: Vec<Reading>, planned: &str, envelope: Envelope, ask: impl FnOnce(&SweptAxle)) {
        let fitted: Setup = FITTED.parse().unwrap();
        let mut car = Car::default();
        car.note(Fact::SuspensionKind, Some(Axle::Front), "strut").unwrap();
        car.note(Fact::Inclination, None, "13").unwrap();
        let moving = Some(Moving::of(&car, Axle::Front, Some(&fitted)));
        let corner = Corner { readings, camber_deg: Some(0.0), moving, ..Corner::default() };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let case = AxleCase::new(Axle::Front, &corner, &resolved, &fitted, &limits, &levers);
        ask(&case.sweep(&planned.parse().unwrap(), envelope).unwrap());
    }

    fn reading(feature: Feature, gap: f64) -> Reading {
        Reading::new(feature, Length::mm(gap), Length::mm(1.0), FITTED.parse().unwrap())
    }

    fn of(swept: &SweptAxle, feature: Feature) -> &SweptPart {
        swept.parts.iter().find(|one| one.part.feature == feature).unwrap()
    }

    #[test]
    fn the_perch_of_a_strut_keeps_its_gap_and_the_arch_closes_with_bump() {
        let perch = Reading { radius: Some(Length::mm(345.0)), ..reading(Feature::SpringPerch, 14.0) };
        let readings = vec![perch, reading(Feature::Arch, 90.0), reading(Feature::FenderLateral, 12.0)];
        swept(readings, FITTED, Envelope::All, |all| {
            let perch = of(all, Feature::SpringPerch);
            assert_eq!(perch.found.least_mm, perch.found.at_rest_mm);
            assert!(perch.map.iter().all(|room| (room - perch.found.at_rest_mm).abs() < 1e-9));
            let arch = of(all, Feature::Arch);
            // The lip stands beyond the sidewall, so the shortest way to the tread is a little longer than straight up.
            assert!((90.0..110.0).contains(&arch.found.at_rest_mm), "{:?}", arch.found);
            assert!(arch.found.least_mm < 45.0 && arch.found.at.travel_mm > 60.0, "{:?}", arch.found);
            assert_eq!(all.poses.len(), GRID.0 * GRID.1);
            assert_eq!(arch.map.len(), all.poses.len());
        });
    }

    #[test]
    fn what_was_read_at_lock_has_its_gap_there_and_more_when_straight() {
        let at_lock = Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 22.0) };
        let behind = Reading { steer: Steer::LockLeft, ..reading(Feature::SillBehind, 25.0) };
        swept(vec![at_lock, behind], FITTED, Envelope::Parking, |all| {
            for (feature, gap) in [(Feature::LinerAhead, 22.0), (Feature::SillBehind, 25.0)] {
                let part = of(all, feature);
                assert!(part.found.least_mm <= gap + 0.5 && part.found.at_rest_mm > 0.0, "{:?}", part.found);
            }
        });
        // 25 mm further out it comes forward at inward lock: it touches from some angle on, and less lock would do.
        let at_lock = Reading { steer: Steer::LockRight, ..reading(Feature::LinerAhead, 9.0) };
        swept(vec![at_lock], "17x7 ET15 225/65R17", Envelope::Parking, |all| {
            let liner = of(all, Feature::LinerAhead);
            assert!(liner.found.touches_from_steer_deg.unwrap() < 0.0, "{:?}", liner.found);
            assert_eq!(all.verdict, Verdict::Touches);
            assert!(all.steering_limiter_deg.is_some_and(|deg| deg > 0.0 && deg < 31.0), "{all:?}");
            assert!(all.says.len() >= 2, "the limiter, and the scrub radius: {:?}", all.says);
        });
    }

    #[test]
    fn without_readings_nothing_is_known() {
        swept(Vec::new(), FITTED, Envelope::Road, |all| {
            assert_eq!((all.verdict, all.parts.len()), (Verdict::MeasureFirst, 0));
            let bounds = all.bounds(Envelope::Road);
            assert!(
                bounds
                    .iter()
                    .all(|pose| all.reach.holds(Envelope::Road, all.reach.nearest(Envelope::Road, *pose)))
            );
        });
    }
}
