//! How sure a clearance is.

use super::at_lock::Lock;
use super::quick_rule;
use super::room::Standing;
use super::stand::MountedSetup;
use crate::case::AxleCase;
use crate::corner::feature::BlocksFrom;
use crate::corner::obstacle::{CAMBER_STEP_DEG, Faces, Otherwise};
use crate::corner::{Carrier, Feature, Obstacle, ObstacleShape, Reading};
use crate::length::Length;
use crate::section::{Part, Variants};
use crate::setup::Setup;
use crate::working::Source;

/// What may be off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
#[allow(missing_docs, reason = "see the words of each")]
pub enum Input {
    Instrument,
    ReadAt,
    CopiedSide,
    FittedTireMeasured,
    FittedTireWidth,
    FittedTireHeight,
    FittedShoulder,
    Wear,
    NewTireWidth,
    FittedRimGuard,
    NewRimGuard,
    NewTireHeight,
    NewShoulder,
    SameTire,
    RimWidth,
    FittedFlange,
    NewFlange,
    Offset,
    Camber,
    CamberSet,
    StrutLean,
    RuleAtLock,
    LockAngle,
    Clock,
    EdgeAskew,
    ArmShift,
    OtherBarrel,
    BrakeProfile,
    WheelInside,
    WheelInsideDrawn,
    StandingStill,
    Inclination,
    Caster,
    ScrubRadius,
    BumpTravel,
    DroopTravel,
    CamberGain,
    Compliance,
}

impl Input {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::Instrument => "instrument",
            Self::ReadAt => "height at which it was read",
            Self::CopiedSide => "left against right, copied",
            Self::FittedTireMeasured => "fitted tire, measured",
            Self::FittedTireWidth => "fitted tire, against its size",
            Self::FittedTireHeight => "fitted tire's height",
            Self::FittedShoulder => "fitted tire's shoulder",
            Self::Wear => "fitted tire's wear",
            Self::NewTireWidth => "new tire, against its size",
            Self::FittedRimGuard => "fitted tire's rim guard",
            Self::NewRimGuard => "new tire's rim guard",
            Self::NewTireHeight => "new tire's height",
            Self::NewShoulder => "new tire's shoulder",
            Self::SameTire => "the tire, which stays",
            Self::RimWidth => "rim width",
            Self::FittedFlange => "fitted rim's flange, from below",
            Self::NewFlange => "new rim's flange, from below",
            Self::Offset => "offset",
            Self::Camber => "camber",
            Self::CamberSet => "camber, as it is set",
            Self::StrutLean => "lean of the strut",
            Self::RuleAtLock => "quick rule at lock",
            Self::LockAngle => "full lock",
            Self::Clock => "clock position of the reading",
            Self::EdgeAskew => "how the edge runs across the car",
            Self::ArmShift => "arm shifts with ride height",
            Self::OtherBarrel => "barrel of another wheel, not measured",
            Self::BrakeProfile => "the brake's profile",
            Self::WheelInside => "the wheel's inside",
            Self::WheelInsideDrawn => "the wheel's inside, drawn from its size",
            Self::StandingStill => "the room as it stands still",
            Self::Inclination => "steering axis inclination",
            Self::Caster => "caster",
            Self::ScrubRadius => "scrub radius",
            Self::BumpTravel => "bump travel",
            Self::DroopTravel => "droop travel",
            Self::CamberGain => "camber gain",
            Self::Compliance => "body and bushings under load",
        }
    }
}

/// Something that may be off, and what it does to the room.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contribution {
    /// What.
    pub input: Input,
    /// By how much the room may be less for it.
    pub down: Length,
    /// By how much it may be more.
    pub up: Length,
    /// Where that comes from.
    pub source: Source,
}

impl Contribution {
    /// One that is off as much either way.
    pub fn either_way(input: Input, by: Length, source: Source) -> Self {
        Self { input, down: by, up: by, source }
    }

    /// What it takes at most: the side that is held against the house minimum.
    pub fn plus_minus(&self) -> Length {
        self.down
    }

    /// In words.
    pub fn what(&self) -> &'static str {
        self.input.words()
    }
}

/// A clearance with its contributions, largest first.
#[derive(Debug, Clone, PartialEq)]
pub struct Band {
    /// The clearance if everything is as written.
    pub nominal: Length,
    /// What may be off.
    pub contributions: Vec<Contribution>,
}

impl Band {
    /// Sorts the contributions, largest first; what contributes nothing is left out.
    pub fn new(nominal: Length, mut contributions: Vec<Contribution>) -> Self {
        contributions.retain(|one| one.down > Length::ZERO || one.up > Length::ZERO);
        let order = |one: &Contribution| (one.down.as_mm(), one.up.as_mm());
        contributions.sort_by(|a, b| {
            let (a, b) = (order(a), order(b));
            b.0.total_cmp(&a.0).then(b.1.total_cmp(&a.1))
        });
        Self { nominal, contributions }
    }

    /// How much less the room likely is at most: the root of the sum of squares.
    pub fn likely(&self) -> Length {
        rss(self.contributions.iter().map(Contribution::plus_minus))
    }

    /// How much less at worst: the straight sum.
    pub fn worst(&self) -> Length {
        self.contributions.iter().fold(Length::ZERO, |sum, one| sum + one.plus_minus())
    }

    /// Lower end of the likely band.
    pub fn likely_low(&self) -> Length {
        self.nominal - self.likely()
    }

    /// Upper end of the likely band.
    pub fn likely_high(&self) -> Length {
        self.nominal + rss(self.contributions.iter().map(|one| one.up))
    }

    /// Lower end of the worst case.
    pub fn worst_low(&self) -> Length {
        self.contributions.iter().fold(self.nominal, |sum, one| sum - one.down)
    }

    /// Upper end of the worst case.
    pub fn worst_high(&self) -> Length {
        self.contributions.iter().fold(self.nominal, |sum, one| sum + one.up)
    }
}

/// The root of the sum of squares.
pub(super) fn rss(lengths: impl Iterator<Item = Length>) -> Length {
    Length::mm(lengths.map(|one| one.as_mm().powi(2)).sum::<f64>().sqrt())
}

/// How far a wheel's offset may be off.
pub const OFFSET: Length = Length::mm(0.5);
/// How far a camber reading may be off, in degrees.
pub const CAMBER_DEG: f64 = 0.25;
/// The same while nobody has read it: road cars are aligned within this of upright. Estimate.
pub const CAMBER_UNKNOWN_DEG: f64 = 1.0;
/// How far left and right of one car may differ.
pub const LEFT_TO_RIGHT: Length = Length::mm(3.0);
/// How far the barrel of another wheel may stand from where its rim code puts it.
pub const OTHER_BARREL: Length = Length::mm(4.0);
/// Share of a change of ride height by which an arm may shift.
pub const ARM_SHARE: f64 = 0.5;

const READ: Source = Source { kind: crate::working::SourceKind::Measured, cite: "as read in the bay" };
const R30_WIDTH: Source =
    Source::from_memory("UN R30 §6.1: overall width up to 4 % over the section, half on each side");
const R30_RIM_GUARD: Source = Source::standard(
    "UN R30 §6.1: up to 8 mm more over all with a protective band, half on each side; its list is silent on it or says so",
);
const R30_HEIGHT: Source = Source::from_memory("UN R30 §6.1: section height up to 4 % over, 3 % under");
const NOT_UNDER_R30: Source = Source::estimate(
    "UN R30's limits do not apply to LT, flotation and racing sizes: its shares, until the tire is measured",
);
const SHOULDER: Source = Source::estimate("shape of a tire's shoulder, above 0.95 of its radius");
const FLANGE: Source = Source::estimate("a flange's metal from below, where makers differ");
const WEAR: Source =
    Source::estimate("its tread depth was not noted: a worn tire leaves more room under the arch");
const WEAR_NOTED: Source = Source::estimate("how deep its tread was when it was new");
const PRACTICE: Source = Source::common_practice("what wheels and alignment are trusted for");

/// How far the lean of a strut that nobody measured may be off, in degrees. Estimate.
pub(super) const STRUT_LEAN_OFF_DEG: f64 = 4.0;
/// A change that is whole half way through a range counts as one so many times as large that grows evenly: so that nine of ten
/// cases stay inside, worked out for an input that is as large as the rest together.
const SATURATED: f64 = 1.45;

/// Steps in which lock and clock position are moved to see what follows, in degrees. Estimates.
pub(super) const LOCK_OFF_DEG: f64 = 2.0;
/// The same for an axis of which a figure was taken as usual.
pub(super) const LOCK_USUAL_OFF_DEG: f64 = 4.0;
pub(crate) const CLOCK_OFF_DEG: f64 = 10.0;

/// The regulation's share where it applies to the tire, and what is said where it does not.
fn under(setup: &Setup, source: Source) -> Source {
    let applies = setup.tire.is_none_or(|tire| tire.size.is_under_r30());
    if applies { source } else { NOT_UNDER_R30 }
}

/// What of a reading's own setup stays on the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Stays {
    pub(super) tire: bool,
    pub(super) wheel: bool,
}

/// One way in which things may be.
#[derive(Clone, Copy)]
pub(super) struct Case<'a> {
    pub(super) place: ObstacleShape,
    /// Of what was fitted.
    pub(super) faces: Faces,
    pub(super) standing: Standing<'a>,
    /// How much nearer the setup comes to a part that only a gap is known of than what was fitted; it has no place then.
    pub(super) nearer_by: Option<f64>,
    /// Room that work on the car makes to the part.
    pub(super) by_work: f64,
    /// Where the part was read at full lock and the steering is known.
    pub(super) lock: Option<Lock>,
}

/// A part and a setup that is held against it, wherever on the hub that stands: everything but the place is worked out once.
pub(crate) struct Meeting<'a> {
    case: &'a AxleCase<'a>,
    obstacle: &'a Obstacle,
    stand: &'a MountedSetup,
    /// The outlines of a tire that stays, as it was measured.
    own: Option<Variants>,
    camber_deg: f64,
    nearer_by: Option<f64>,
    by_work: f64,
    lock: Option<Lock>,
}

impl Meeting<'_> {
    /// Things as they are written: the outlines of what stands there, and the nominal case.
    pub(super) fn as_written(&self, center_y: f64) -> (&Variants, Case<'_>) {
        let cut = self.own.as_ref().unwrap_or_else(|| self.stand.cut());
        let nominal = Case {
            place: self.obstacle.place,
            faces: self.obstacle.against.unwrap_or_default().faces,
            nearer_by: self.nearer_by,
            by_work: self.by_work,
            lock: self.lock,
            standing: Standing { outline: cut.nominal(), center_y, camber_deg: self.camber_deg },
        };
        (cut, nominal)
    }

    /// The room with the setup standing at `center_y`, with its band. `None` where another wheel's shape is not known.
    pub(crate) fn band_at(&self, center_y: f64) -> Option<Band> {
        let (cut, nominal) = self.as_written(center_y);
        self.case.propagated(self.obstacle, self.stand, cut, nominal)
    }

    /// The room as written, without its band.
    pub(crate) fn nominal_at(&self, center_y: f64) -> Option<f64> {
        let (_, nominal) = self.as_written(center_y);
        self.case.room(self.obstacle.feature, &self.obstacle.reading, nominal)
    }
}

impl AxleCase<'_> {
    /// An obstacle and a setup that is held against it.
    pub(crate) fn meeting<'a>(&'a self, obstacle: &'a Obstacle, stand: &'a MountedSetup) -> Meeting<'a> {
        let feature = obstacle.feature;
        let stays = self.stays(&obstacle.reading, stand.setup());
        let is_measured =
            stays.tire && (self.corner.fitted_section.is_some() || self.corner.tread_depth_mm.is_some());
        let own = is_measured.then(|| self.corner.cut_of_fitted(stand.setup())).flatten();
        let is_of_body = feature.carrier() == Carrier::Body;
        let camber_deg = if is_of_body { stand.camber_deg() } else { 0.0 };
        let lock = self.lock(obstacle, stand);
        let nearer_by = match obstacle.place {
            ObstacleShape::Beside { fitted, .. } if feature.blocks_from() != BlocksFrom::AheadOrBehind => {
                MountedSetup::of(&fitted, self.corner.camber())
                    .and_then(|fitted| self.nearer_by(feature, &fitted, stand))
            }
            _ => None,
        };
        let by_work = self.room_by_work(feature);
        Meeting { case: self, obstacle, stand, own, camber_deg, nearer_by, by_work, lock }
    }

    /// Law of propagation (JCGM 100), numerically: each input is moved to both ends of its range and the whole room is
    /// worked out again. What is one thing in life is one input: of a tire that stays, what its place was read against and
    /// what is held against it move together, and mostly cancel.
    fn propagated(
        &self,
        obstacle: &Obstacle,
        stand: &MountedSetup,
        cut: &Variants,
        nominal: Case<'_>,
    ) -> Option<Band> {
        let feature = obstacle.feature;
        let reading = &obstacle.reading;
        let against = obstacle.against.unwrap_or_default();
        let stays = self.stays(reading, stand.setup());
        let is_of_body = feature.carrier() == Carrier::Body;
        let Case { lock, standing: Standing { center_y, camber_deg, .. }, .. } = nominal;
        let room = |case: Case<'_>| self.room(feature, reading, case);
        let at = self.room(feature, reading, nominal)?;
        let mut all: Vec<Contribution> = Vec::with_capacity(12);
        let mut add = |input: Input, ends: [Option<f64>; 2], source: Source| {
            let [one, other] = ends.map(|end| end.unwrap_or(at));
            let (low, high) = (one.min(other).min(at), one.max(other).max(at));
            all.push(Contribution { input, down: Length::mm(at - low), up: Length::mm(high - at), source });
        };
        let moved = |by: f64| room(Case { place: nominal.place.moved(by), ..nominal });
        let read = reading.plus_minus.as_mm();
        add(Input::Instrument, [moved(-read), moved(read)], READ);
        if reading.is_copied {
            let by = LEFT_TO_RIGHT.as_mm();
            add(Input::CopiedSide, [moved(-by), moved(by)], Source::estimate("road cars, side to side"));
        }
        if let Some((off, along)) = against.read_at {
            // Beside a rounded edge the room may be as short half way as at the end of the range, and is then short more often
            // than its end says: in half of all cases, where an even slope is it in one of twenty.
            let ends = [(-off, along[0]), (off, along[1])].map(|(height, along)| {
                let change = |share: f64| {
                    let place = nominal.place.moved(share * along).read_higher(share * height);
                    Some(room(Case { place, ..nominal })? - at)
                };
                let (half_way, end) = (change(0.5)? * SATURATED, change(1.0)?);
                Some(at + if half_way.abs() > end.abs() { half_way } else { end })
            });
            add(Input::ReadAt, ends, Source::estimate("where on the part its smallest gap was"));
        }
        let with = |otherwise: Otherwise| Case {
            place: nominal.place.moved(otherwise.along),
            faces: otherwise.faces,
            ..nominal
        };
        let standing =
            |case: Case<'_>, outline| room(Case { standing: Standing { outline, ..case.standing }, ..case });
        for part in Part::ALL.into_iter().filter(|_| !feature.is_of_the_brake()) {
            let fitted = against.parts[part as usize];
            let is_one = if part.is_of_the_tire() { stays.tire } else { stays.wheel };
            let (of_fitted, of_new, share) = match part {
                Part::TireWidth if self.corner.fitted_section.is_some() => {
                    (Input::FittedTireMeasured, Input::NewTireWidth, R30_WIDTH)
                }
                Part::TireWidth => (Input::FittedTireWidth, Input::NewTireWidth, R30_WIDTH),
                Part::RimGuard => (Input::FittedRimGuard, Input::NewRimGuard, R30_RIM_GUARD),
                Part::TireHeight => (Input::FittedTireHeight, Input::NewTireHeight, R30_HEIGHT),
                Part::Shoulder => (Input::FittedShoulder, Input::NewShoulder, SHOULDER),
                Part::Wear => (Input::Wear, Input::Wear, self.wear_source()),
                Part::RimWidth => (Input::RimWidth, Input::RimWidth, PRACTICE),
                Part::Flange => (Input::FittedFlange, Input::NewFlange, FLANGE),
            };
            // Shoulder and underside of the flange count only where a part is met by them.
            if matches!(part, Part::Shoulder | Part::Flange)
                && !matches!(obstacle.place, ObstacleShape::Spot { .. } | ObstacleShape::Perch { .. })
            {
                continue;
            }
            // What its outline is whatever the part is like says nothing.
            let otherwise = [0, 1].map(|end| against.parts[part as usize][end].is_other_than(against.faces));
            let is_sure_before = obstacle.against.is_none() || otherwise == [false; 2];
            if (is_sure_before && cut.is_sure(part)) || (part == Part::Wear && stays.tire) {
                continue;
            }
            let new = under(stand.setup(), share);
            let new_ends = || [0, 1].map(|end| standing(nominal, cut.at_end(part, end)));
            if obstacle.against.is_none() {
                add(of_new, new_ends(), new);
                continue;
            }
            if is_one {
                let input = if part.is_of_the_tire() { Input::SameTire } else { of_new };
                add(input, [0, 1].map(|end| standing(with(fitted[end]), cut.at_end(part, end))), new);
                continue;
            }
            let source = match (of_fitted, reading.on) {
                (Input::Wear, _) => share,
                (Input::FittedTireMeasured, _) => READ,
                (_, Some(on)) => under(&on, share),
                _ => share,
            };
            if !is_sure_before {
                add(of_fitted, fitted.map(|end| room(with(end))), source);
            }
            if !cut.is_sure(part) {
                add(of_new, new_ends(), new);
            }
        }
        if !stays.wheel {
            let by = OFFSET.as_mm();
            let ends = [-by, by].map(|by| {
                room(Case { standing: Standing { center_y: center_y + by, ..nominal.standing }, ..nominal })
            });
            add(Input::Offset, ends, PRACTICE);
            if obstacle.against.is_some() {
                add(Input::Offset, [moved(-by), moved(by)], PRACTICE);
            }
        }
        // At the top of the tire a lean of a degree is a hundredth of a millimetre, and nothing beside the tires' heights.
        if is_of_body && feature.blocks_from() != BlocksFrom::Above {
            let off = if self.corner.camber_deg.is_some() { CAMBER_DEG } else { CAMBER_UNKNOWN_DEG };
            let leaned = |case: Case<'_>, by: f64| {
                let camber_deg = case.standing.camber_deg + by;
                room(Case { standing: Standing { camber_deg, ..case.standing }, ..case })
            };
            let share = off / CAMBER_STEP_DEG;
            let ends = [(0, -off), (1, off)].map(|(end, by)| {
                let fitted = against.camber[end];
                let part = Otherwise {
                    along: fitted.along * share,
                    faces: against.faces.toward(fitted.faces, share),
                };
                leaned(with(part), by)
            });
            add(Input::Camber, ends, PRACTICE);
            if self.levers.camber_deg() != 0.0 {
                let ends = [-CAMBER_DEG, CAMBER_DEG].map(|by| leaned(nominal, by));
                add(Input::CamberSet, ends, PRACTICE);
            }
        }
        if let ObstacleShape::Edge { y, height, lean_deg } = nominal.place {
            let ends = [-STRUT_LEAN_OFF_DEG, STRUT_LEAN_OFF_DEG].map(|by| {
                let place = ObstacleShape::Edge { y, height, lean_deg: lean_deg + by };
                room(Case { place, ..nominal })
            });
            add(Input::StrutLean, ends, Source::estimate("12° ± 4° inboard at the top, unless measured"));
        }
        let mut one_sided = |input, down: f64, up: f64, source| {
            all.push(Contribution { input, down: Length::mm(down), up: Length::mm(up), source });
        };
        if let Some(lock) = lock {
            let room = |lock: Lock| lock.room(nominal, cut.nominal()) + nominal.by_work;
            let off = if lock.is_usual { LOCK_USUAL_OFF_DEG } else { LOCK_OFF_DEG };
            // The edge was read where the tire really was turned to: it moves with the angle.
            let turned = [-off, off].map(|by| room(lock.turned_by(by)));
            let clock_off = if reading.clock.is_some() { CLOCK_OFF_DEG / 2.0 } else { CLOCK_OFF_DEG };
            let round = [-clock_off, clock_off].map(|by| room(lock.read_round(by, against.faces.crown)));
            for (input, ends, source) in [
                (Input::LockAngle, turned, Source::estimate("turn plates, or as usual for the suspension")),
                (Input::Clock, round, Source::estimate("where round the tire the part is")),
            ] {
                let low = ends[0].min(ends[1]).min(at);
                let high = ends[0].max(ends[1]).max(at);
                one_sided(input, at - low, high - at, source);
            }
        } else if reading.steer.is_at_lock() && feature.facts().at_lock {
            let standing = Standing { outline: cut.nominal(), center_y, camber_deg };
            let (down, up) = rule_at_lock(reading, &standing, against.faces);
            one_sided(Input::RuleAtLock, down, up, quick_rule::ITS_OWN);
        }
        let mut both = |input, by: f64, source| one_sided(input, by, by, source);
        if feature.blocks_from() == BlocksFrom::Barrel
            && !reading.on.is_some_and(|on| on.wheel == stand.setup().wheel)
        {
            both(Input::OtherBarrel, OTHER_BARREL.as_mm(), Source::estimate("rim code and width alone"));
        }
        if feature.carrier() == Carrier::Arm {
            let shift = self.levers.raised().abs() * ARM_SHARE;
            both(Input::ArmShift, shift, Source::estimate("an unmeasured share of the travel"));
        }
        Some(Band::new(Length::mm(at), all))
    }

    /// Where it is from how much of the fitted tire's tread is gone.
    fn wear_source(&self) -> Source {
        if self.corner.tread_depth_mm.is_some() { WEAR_NOTED } else { WEAR }
    }

    /// Whether wheel and tire of a reading are the planned ones: as somebody said, else equal lines are the same parts.
    pub(super) fn stays(&self, reading: &Reading, planned: &Setup) -> Stays {
        let Some(on) = reading.on else { return Stays { tire: false, wheel: false } };
        let placed = |setup: &Setup| setup.wheel.map(|wheel| wheel.placed());
        let keeps = self.evidence.keeps;
        let is_fitted = on == *self.fitted;
        let said = |said: Option<bool>, is_same: bool| match said {
            Some(said) if is_fitted => said,
            _ => is_same,
        };
        Stays {
            tire: said(keeps.tire, on.tire.is_some() && on.tire == planned.tire),
            wheel: said(keeps.wheel, placed(&on) == placed(planned)),
        }
    }

    /// The room in one case, with what is done to the car.
    pub(super) fn room(&self, feature: Feature, reading: &Reading, case: Case<'_>) -> Option<f64> {
        let Case { place, faces, standing, by_work, .. } = case;
        let crown = || standing.outline.bounds().1.1;
        let outer = || standing.outer();
        Some(match (place, feature.blocks_from()) {
            (ObstacleShape::Ceiling { .. }, blocks) => {
                standing.room_to(place, blocks)? + self.levers.raised() + by_work
            }
            (ObstacleShape::Beside { .. }, BlocksFrom::AheadOrBehind) if let Some(lock) = case.lock => {
                lock.room(case, standing.outline) + by_work
            }
            (ObstacleShape::Beside { gap, .. }, BlocksFrom::AheadOrBehind) => {
                let larger = crown() - faces.crown;
                if reading.steer.is_at_lock() {
                    let poke = Length::mm(outer() - faces.outer);
                    let lost = quick_rule::lost_at_lock(feature, poke);
                    let given = quick_rule::given_at_lock(reading, poke);
                    gap - quick_rule::lost_by_radius(larger) - (lost - given).as_mm() + by_work
                } else {
                    gap - larger + by_work
                }
            }
            (ObstacleShape::Beside { gap, .. }, _) => gap - case.nearer_by?,
            (place, blocks) => {
                let lost = if reading.steer.is_at_lock() && reading.on.is_some() {
                    let gain = faces.inner - standing.inner();
                    quick_rule::lost_by_radius(crown() - faces.crown) + quick_rule::not_gained_inside(gain)
                } else {
                    0.0
                };
                standing.room_to(place, blocks)? + by_work - lost
            }
        })
    }
}

/// How much less and how much more room the quick rule may leave than it says, to a part that was read at lock.
pub(super) fn rule_at_lock(reading: &Reading, standing: &Standing<'_>, fitted: Faces) -> (f64, f64) {
    let larger = standing.outline.bounds().1.1 - fitted.crown;
    if reading.feature.blocks_from() == BlocksFrom::AheadOrBehind {
        return quick_rule::may_be_off(reading, larger, standing.outer() - fitted.outer);
    }
    let by = quick_rule::may_be_off_inside(larger, standing.inner() - fitted.inner);
    (by, by)
}
