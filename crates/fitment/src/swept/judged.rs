//! How near a wheel comes to a part over what a use reaches, how sure that is, and the word for it.

use super::words::says;
use super::{PartInSpace, Swinging};
use crate::car::Fact;
use crate::clearance::{Contribution, Fit, Input, Verdict};
use crate::coded::coded;
use crate::corner::{Feature, Moving};
use crate::length::Length;
use crate::motion::{Carried, Cloud, CloudAnswer, CloudMap, Envelope, Pose, Reach};
use crate::working::{Phrase, Source, SourceKind};

/// A stretch of the way a wheel moves, judged by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Stretch {
    /// Straight ahead at static height: the ledger's own line.
    Standing,
    /// From lock to lock at static height.
    AtLock,
    /// From full droop to full bump, straight ahead.
    OverBumps,
    /// Steer and travel together, as the use reaches them.
    Together,
}

coded!(Stretch: Standing = "standing", AtLock = "at_lock", OverBumps = "over_bumps", Together = "together");

impl Stretch {
    /// In the trade's words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Standing => "standing",
            Self::AtLock => "at lock",
            Self::OverBumps => "over bumps",
            Self::Together => "together",
        }
    }

    fn of(self, reach: Reach, envelope: Envelope) -> (Reach, Envelope) {
        match self {
            Self::Standing => {
                (Reach { outward_deg: 0.0, inward_deg: 0.0, bump_mm: 0.0, droop_mm: 0.0 }, Envelope::All)
            }
            Self::AtLock => (Reach { bump_mm: 0.0, droop_mm: 0.0, ..reach }, Envelope::All),
            Self::OverBumps => (Reach { outward_deg: 0.0, inward_deg: 0.0, ..reach }, Envelope::All),
            Self::Together => (reach, envelope),
        }
    }
}

/// Least room to a part over a stretch.
#[derive(Debug, Clone, PartialEq)]
pub struct Stretched {
    /// Which stretch.
    pub stretch: Stretch,
    /// The least room of it.
    pub room_mm: f64,
    /// Where that is.
    pub at: Pose,
    /// What may be off there.
    pub contributions: Vec<Contribution>,
    /// How much less the room likely is at most.
    pub plus_minus_mm: f64,
    /// Its word.
    pub verdict: Verdict,
    /// What nobody measured and what turns the word, if anything does.
    pub decided_by: Option<Input>,
}

/// What a sweep says of a part.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptPart {
    /// The part.
    pub part: PartInSpace,
    /// What was found over all that the use reaches.
    pub found: CloudAnswer,
    /// Stretch by stretch, in their order; at lock only where the axle steers.
    pub stretches: Vec<Stretched>,
    /// The worst word of them.
    pub verdict: Verdict,
    /// Its room in every pose of the map.
    pub map: Vec<f64>,
    /// In a sentence.
    pub says: Phrase,
}

impl SweptPart {
    /// One stretch.
    pub fn over(&self, stretch: Stretch) -> Option<&Stretched> {
        self.stretches.iter().find(|one| one.stretch == stretch)
    }

    /// Its name in a sentence.
    pub fn name(&self) -> &'static str {
        self.part.name()
    }

    /// How much less the room likely is at most, over all that the use reaches.
    pub fn plus_minus_mm(&self) -> f64 {
        self.over(Stretch::Together).map_or(self.part.plus_minus_mm, |one| one.plus_minus_mm)
    }

    /// The room from which on it clears: the house's least, and what the room may be less.
    pub fn clears_from(&self) -> f64 {
        self.part.least_mm + self.plus_minus_mm()
    }

    /// What is left over of the room; negative where it is short.
    pub fn left_mm(&self) -> f64 {
        self.found.least_mm - self.clears_from()
    }
}

/// How far a figure may be off that was measured, and one that was taken as usual for the kind of suspension. Estimates.
struct MayBeOff {
    input: Input,
    fact: Option<Fact>,
    measured: f64,
    usual: f64,
    moved: fn(&mut Moving, f64),
}

/// What of a moving corner may be off, in degrees or millimetres: turn plates and a protractor against a guess by kind.
const OFF: [MayBeOff; 7] = [
    MayBeOff {
        input: Input::Inclination,
        fact: Some(Fact::Inclination),
        measured: 0.5,
        usual: 3.0,
        moved: |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.inclination_deg += by;
            }
        },
    },
    MayBeOff {
        input: Input::Caster,
        fact: Some(Fact::Caster),
        measured: 0.5,
        usual: 2.5,
        moved: |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.caster_deg += by;
            }
        },
    },
    MayBeOff {
        input: Input::ScrubRadius,
        fact: Some(Fact::ScrubRadius),
        measured: 3.0,
        usual: 10.0,
        moved: |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.scrub_radius_mm += by;
            }
        },
    },
    MayBeOff {
        input: Input::LockAngle,
        fact: Some(Fact::LockInward),
        measured: 1.0,
        usual: 4.0,
        moved: |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.lock_inward_deg = (steering.lock_inward_deg + by).max(0.0);
                steering.lock_outward_deg = (steering.lock_outward_deg + by).max(0.0);
            }
        },
    },
    MayBeOff {
        input: Input::BumpTravel,
        fact: Some(Fact::BumpTravel),
        measured: 5.0,
        usual: 25.0,
        moved: |moving, by| moving.travel.bump_mm = (moving.travel.bump_mm + by).max(0.0),
    },
    MayBeOff {
        input: Input::DroopTravel,
        fact: Some(Fact::DroopTravel),
        measured: 5.0,
        usual: 30.0,
        moved: |moving, by| moving.travel.droop_mm = (moving.travel.droop_mm + by).max(0.0),
    },
    MayBeOff {
        input: Input::CamberGain,
        fact: None,
        measured: 0.01,
        usual: 0.01,
        moved: |moving, by| moving.travel.camber_gain_deg_per_mm += by,
    },
];

const MEASURED: Source = Source { kind: SourceKind::Measured, cite: "as the car's record says" };
const UNDER_LOAD: Source = Source::estimate("body and bushings give under load: house figure");

fn rss(parts: impl Iterator<Item = f64>) -> f64 {
    parts.map(|part| part * part).sum::<f64>().sqrt()
}

/// A corner that may be otherwise in one figure.
#[derive(Debug)]
pub(super) struct Otherwise {
    input: Input,
    is_usual: bool,
    source: Source,
    /// At both ends; with where the part stands then, if that is elsewhere.
    ends: [(Moving, Option<Cloud>); 2],
}

/// What may be off, and whether nobody measured it.
type Off = (Contribution, bool);

impl Swinging<'_> {
    /// Every part that was read, judged; of the places of one part only the tightest. The tightest part over its limit first.
    pub(super) fn parts(&self, fit: Option<&Fit>) -> Vec<SweptPart> {
        let mut swept: Vec<SweptPart> = Vec::new();
        for part in self.case.parts_in_space(self.moving, self.planned) {
            let Some(one) = self.judged(part, fit) else { continue };
            match swept.iter_mut().find(|other| other.part.feature == one.part.feature) {
                Some(other) if one.left_mm() < other.left_mm() => *other = one,
                Some(_) => {}
                None => swept.push(one),
            }
        }
        swept.sort_by(|a, b| a.left_mm().total_cmp(&b.left_mm()));
        swept
    }

    fn judged(&self, part: PartInSpace, fit: Option<&Fit>) -> Option<SweptPart> {
        let whole = self.sweep(self.reach, self.usage.envelope, part.least_mm);
        let map = CloudMap::of(&whole, &part.cloud)?;
        let found = map.told(self.usage.envelope);
        let map = map.rooms().collect();
        let otherwise = self.otherwise(&part);
        let mut stretches = vec![self.at(&part, &[], Stretch::Standing, found.at_rest_mm, Pose::AT_REST)];
        if self.wheel.kinematics.axis.is_some() {
            stretches.push(self.stretched(&part, &otherwise, Stretch::AtLock)?);
        }
        stretches.push(self.stretched(&part, &otherwise, Stretch::OverBumps)?);
        stretches.push(self.at(&part, &otherwise, Stretch::Together, found.least_mm, found.at));
        self.heed_the_ledger(&part, fit, &mut stretches);
        let verdict = stretches.iter().map(|one| one.verdict).fold(Verdict::Clears, Verdict::max);
        let at_lock = part.is_read_at_lock().then(|| {
            [-self.reach.inward_deg, self.reach.outward_deg]
                .map(|steer_deg| whole.room(&part.cloud, Pose { steer_deg, travel_mm: 0.0 }))
        });
        let says = says(&part, &found, &stretches, at_lock);
        Some(SweptPart { part, found, stretches, verdict, map, says })
    }

    /// One part has one word. Standing still it is the ledger's own line, lip and arch, one edge here, with the worse of both; of
    /// what was read at lock the ledger's line is at lock, and no word over all of that is better.
    fn heed_the_ledger(&self, part: &PartInSpace, fit: Option<&Fit>, stretches: &mut [Stretched]) {
        let fit = fit.filter(|_| self.usage.added.is_nothing());
        let lines = part.features().iter().filter_map(|feature| fit?.line(*feature));
        let judged = lines.filter_map(|line| Some((line.verdict, line.band.as_ref()?)));
        let Some((verdict, band)) = judged.max_by_key(|(verdict, _)| *verdict) else { return };
        for one in stretches {
            match one.stretch {
                Stretch::Standing if !part.is_read_at_lock() => {
                    one.room_mm = band.nominal.as_mm();
                    one.plus_minus_mm = band.likely().as_mm();
                    one.contributions = band.contributions.clone();
                    (one.verdict, one.decided_by) = (verdict, None);
                }
                Stretch::AtLock | Stretch::Together if part.is_read_at_lock() && verdict > one.verdict => {
                    (one.verdict, one.decided_by) = (verdict, None);
                }
                _ => {}
            }
        }
    }

    /// The least room over a stretch.
    fn stretched(&self, part: &PartInSpace, otherwise: &[Otherwise], stretch: Stretch) -> Option<Stretched> {
        let (reach, envelope) = stretch.of(self.reach, self.usage.envelope);
        let found = self.sweep(reach, envelope, part.least_mm).least(&part.cloud)?;
        Some(self.at(part, otherwise, stretch, found.room_mm, found.pose))
    }

    /// Over all that the use reaches, where many plans are looked at.
    pub(super) fn together_at_a_glance(&self, part: &PartInSpace) -> Option<Stretched> {
        let found =
            self.sweep(self.reach, self.usage.envelope, part.least_mm).least_at_a_glance(&part.cloud)?;
        Some(self.at(part, &self.otherwise(part), Stretch::Together, found.room_mm, found.pose))
    }

    /// How the corner may be otherwise, each figure at both ends of its range; what was read at lock stands elsewhere then.
    pub(super) fn otherwise(&self, part: &PartInSpace) -> Vec<Otherwise> {
        if part.cloud.carried == Carried::SteeredUpright {
            return Vec::new();
        }
        OFF.iter()
            // What a part was read at is in its standing figure already.
            .filter(|one| !(part.is_read_at_lock() && one.input == Input::LockAngle))
            .map(|one| {
                let is_usual = one.fact.is_some_and(|fact| !self.moving.is_measured(fact));
                let by = if is_usual { one.usual } else { one.measured };
                let ends = [-by, by].map(|by| {
                    let mut moving = self.moving.clone();
                    (one.moved)(&mut moving, by);
                    let is_elsewhere = part.is_read_at_lock() && moving.steering != self.moving.steering;
                    let cloud = if is_elsewhere {
                        self.case.part_in_space(&part.obstacle, &moving).map(|part| part.cloud)
                    } else {
                        None
                    };
                    (moving, cloud)
                });
                let source =
                    if is_usual || one.fact.is_none() { crate::motion::estimate::SOURCE } else { MEASURED };
                Otherwise { input: one.input, is_usual, source, ends }
            })
            .collect()
    }

    /// What a least room comes to that was found in a pose.
    pub(super) fn at(
        &self,
        part: &PartInSpace,
        otherwise: &[Otherwise],
        stretch: Stretch,
        room_mm: f64,
        at: Pose,
    ) -> Stretched {
        let (reach, envelope) = stretch.of(self.reach, self.usage.envelope);
        let off = self.may_be_off(part, otherwise, at, reach, envelope);
        let plus_minus_mm = rss(off.iter().map(|(one, _)| one.down.as_mm()));
        let mut verdict = part.word(room_mm, plus_minus_mm);
        // What nobody measured rules nothing out when its mild end would not.
        let mild = rss(off.iter().filter(|(_, is_usual)| *is_usual).map(|(one, _)| one.up.as_mm()));
        let known = rss(off.iter().filter(|(_, is_usual)| !*is_usual).map(|(one, _)| one.down.as_mm()));
        let mut decided_by = None;
        if mild > 0.0 && verdict.rules_out() && !part.word(room_mm + mild, known).rules_out() {
            verdict = Verdict::MeasureFirst;
            let usual = off.iter().filter(|(_, is_usual)| *is_usual);
            decided_by =
                usual.max_by(|a, b| a.0.up.as_mm().total_cmp(&b.0.up.as_mm())).map(|(one, _)| one.input);
        }
        let contributions = off.into_iter().map(|(one, _)| one).collect();
        Stretched { stretch, room_mm, at, contributions, plus_minus_mm, verdict, decided_by }
    }

    /// Law of propagation in motion: each figure of the corner is moved to both ends of its range, what was read at lock moves
    /// along with it, and the room is worked out again in the pose that has the least. Where that pose lies on a bound which
    /// moves, it goes along.
    fn may_be_off(
        &self,
        part: &PartInSpace,
        otherwise: &[Otherwise],
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
                source: Source::GEOMETRY,
            },
            false,
        )];
        let is_at_rest = at.steer_deg.abs() < 0.01 && at.travel_mm.abs() < 0.01;
        if part.cloud.carried == Carried::SteeredUpright || is_at_rest {
            return all;
        }
        let raised = self.case.levers.raised();
        let whole = self.moving.reach_raised(raised);
        let room = |moving: &Moving, cloud: &Cloud, reached: Reach| {
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
            let pose = along(envelope, reach, moved, at);
            Some(self.field.room(&kinematics, self.wheel.center_y, cloud, pose))
        };
        let Some(nominal) = room(self.moving, &part.cloud, whole) else { return all };
        for one in otherwise {
            let ends = one.ends.each_ref().map(|(moving, cloud)| {
                let cloud = cloud.as_ref().unwrap_or(&part.cloud);
                room(moving, cloud, moving.reach_raised(raised)).unwrap_or(nominal)
            });
            let (low, high) = (ends[0].min(ends[1]).min(nominal), ends[0].max(ends[1]).max(nominal));
            let (down, up) = (length(nominal - low), length(high - nominal));
            all.push((Contribution { input: one.input, down, up, source: one.source }, one.is_usual));
        }
        if part.gives_under_load() && envelope != Envelope::Parking {
            let down = self.case.limits.compliance;
            let contribution =
                Contribution { input: Input::Compliance, down, up: Length::ZERO, source: UNDER_LOAD };
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
    /// Its name in a sentence.
    pub fn name(&self) -> &'static str {
        if self.is_with_the_arch { "lip and arch" } else { self.feature.facts().name }
    }

    /// Whether it was read at full lock, so that its place rests on the steering.
    pub(super) fn is_read_at_lock(&self) -> bool {
        self.feature.facts().at_lock
    }

    /// Sheet metal and liners come nearer under load.
    fn gives_under_load(&self) -> bool {
        matches!(
            self.feature,
            Feature::FenderLateral | Feature::Arch | Feature::LinerAhead | Feature::InnerLiner
        )
    }

    /// The parts of the ledger that it is: lip and arch are one edge of metal.
    pub(super) fn features(&self) -> &[Feature] {
        match self.feature {
            Feature::FenderLateral if self.is_with_the_arch => &[Feature::FenderLateral, Feature::Arch],
            Feature::FenderLateral => &[Feature::FenderLateral],
            _ => std::slice::from_ref(&self.feature),
        }
    }

    /// How so much room stands that may be less by so much.
    pub(super) fn word(&self, room_mm: f64, plus_minus_mm: f64) -> Verdict {
        let length = |mm: f64| Length::from_mm(mm).unwrap_or_default();
        Verdict::of(length(room_mm), length(room_mm - plus_minus_mm), length(self.least_mm))
    }
}
