//! What may be off: the one table that every way of asking how sure a room is goes by.
//!
//! Propagation ([`super::propagate`]) moves one row after another to both ends of its range, drawn cases
//! ([`super::monte_carlo`]) move all of them at once, and the sweep ([`crate::answers::dynamic_clearance`]) moves the rows of the steering and
//! the travel. None of them knows a figure of its own.

use super::query::{ClearanceQuery, Stays};
use super::quick_rule;
use super::shift::Shift;
use crate::car::Fact;
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::obstacle::{AlongTheRange, CAMBER_STEP_DEG};
use crate::car::corner::{Carrier, Moving};
use crate::car::motion::estimate;
use crate::car::section::Part;
use crate::setup::Setup;
use crate::values::working::{Source, SourceKind};

/// What may be off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
#[allow(missing_docs, reason = "each is told by its row of the table")]
pub enum Input {
    Instrument,
    ReadAt,
    CopiedSide,
    OtherSide,
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

/// How far an input may be off, either way, in millimetres or degrees as its name says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum HalfRange {
    /// As the reading, the profile or the part's own tolerance says.
    Stated,
    /// So much where somebody measured it, and so much where it was taken as usual.
    Of {
        /// Where it was measured.
        measured: f64,
        /// Where it was taken as usual.
        usual: f64,
    },
}

/// One row of the table.
#[derive(Debug, Clone, Copy)]
struct Facts {
    input: Input,
    words: &'static str,
    half_range: HalfRange,
    /// Where the range comes from where it was measured, and where it was taken as usual.
    sources: [Source; 2],
    /// The fact of the car that settles it.
    fact: Option<Fact>,
    /// What it moves of a corner in motion; nothing for what plays its part standing still.
    moves: Option<fn(&mut Moving, f64)>,
}

const READ: Source = Source { kind: SourceKind::Measured, cite: "as read in the bay" };
const RECORDED: Source = Source { kind: SourceKind::Measured, cite: "as the car's record says" };
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
/// How much nearer a part may be on one side of a road car than on the other, in millimetres. Common practice; no source.
const SIDE_TO_SIDE_MM: f64 = 3.0;
const SIDE_TO_SIDE: Source = Source::estimate("road cars, side to side");
const TURN_PLATES: Source = Source::estimate("turn plates, or as usual for the suspension");
const ROUND_THE_TIRE: Source = Source::estimate("where round the tire the part is");

/// By stated ranges.
const fn stated(input: Input, words: &'static str, source: Source) -> Facts {
    let half_range = HalfRange::Stated;
    Facts { input, words, half_range, sources: [source; 2], fact: None, moves: None }
}

/// By one range, whoever measured what.
const fn by(input: Input, words: &'static str, half: f64, source: Source) -> Facts {
    let half_range = HalfRange::Of { measured: half, usual: half };
    Facts { input, words, half_range, sources: [source; 2], fact: None, moves: None }
}

/// In [`Input`]'s order. Ranges without a standard are estimates of ours; a room's own table of rows is made from them by
/// [`of_a_room`].
const TABLE: [Facts; 39] = {
    use Input as I;
    [
        stated(I::Instrument, "instrument", READ),
        stated(
            I::ReadAt,
            "height at which it was read",
            Source::estimate("where on the part its smallest gap was"),
        ),
        by(I::CopiedSide, "left against right, copied", SIDE_TO_SIDE_MM, SIDE_TO_SIDE),
        by(I::OtherSide, "the other side, not read", SIDE_TO_SIDE_MM, SIDE_TO_SIDE),
        stated(I::FittedTireMeasured, "fitted tire, measured", READ),
        stated(I::FittedTireWidth, "fitted tire, against its size", R30_WIDTH),
        stated(I::FittedTireHeight, "fitted tire's height", R30_HEIGHT),
        stated(I::FittedShoulder, "fitted tire's shoulder", SHOULDER),
        Facts { sources: [WEAR_NOTED, WEAR], ..stated(I::Wear, "fitted tire's wear", WEAR) },
        stated(I::NewTireWidth, "new tire, against its size", R30_WIDTH),
        stated(I::FittedRimGuard, "fitted tire's rim guard", R30_RIM_GUARD),
        stated(I::NewRimGuard, "new tire's rim guard", R30_RIM_GUARD),
        stated(I::NewTireHeight, "new tire's height", R30_HEIGHT),
        stated(I::NewShoulder, "new tire's shoulder", SHOULDER),
        stated(I::SameTire, "the tire, which stays", R30_WIDTH),
        stated(I::RimWidth, "rim width", PRACTICE),
        stated(I::FittedFlange, "fitted rim's flange, from below", FLANGE),
        stated(I::NewFlange, "new rim's flange, from below", FLANGE),
        by(I::Offset, "offset", 0.5, PRACTICE),
        // Nobody has read it: road cars are aligned within a degree of upright. Estimate.
        Facts {
            half_range: HalfRange::Of { measured: 0.25, usual: 1.0 },
            ..by(I::Camber, "camber", 0.25, PRACTICE)
        },
        by(I::CamberSet, "camber, as it is set", 0.25, PRACTICE),
        stated(
            I::StrutLean,
            "lean of the strut",
            Source::estimate(
                "as the radius has it where its gap was smallest, upright to 16° inboard at its top",
            ),
        ),
        stated(I::RuleAtLock, "quick rule at lock", quick_rule::ITS_OWN),
        // Standing and moving alike: a full lock is read on turn plates to two degrees.
        Facts {
            half_range: HalfRange::Of { measured: 2.0, usual: 4.0 },
            fact: Some(Fact::LockInward),
            moves: Some(|moving, by| {
                if let Some(steering) = &mut moving.steering {
                    steering.lock_inward_deg = (steering.lock_inward_deg + by).max(0.0);
                    steering.lock_outward_deg = (steering.lock_outward_deg + by).max(0.0);
                }
            }),
            ..stated(I::LockAngle, "full lock", TURN_PLATES)
        },
        Facts {
            half_range: HalfRange::Of { measured: 5.0, usual: 10.0 },
            ..stated(I::Clock, "clock position of the reading", ROUND_THE_TIRE)
        },
        by(
            I::EdgeAskew,
            "how the edge runs across the car",
            6.0,
            Source::estimate("edges of liners and bumpers run round the corner of the car"),
        ),
        // A share of the change of ride height, not millimetres.
        by(
            I::ArmShift,
            "arm shifts with ride height",
            0.5,
            Source::estimate("an unmeasured share of the travel"),
        ),
        by(
            I::OtherBarrel,
            "barrel of another wheel, not measured",
            4.0,
            Source::estimate("rim code and width alone"),
        ),
        stated(I::BrakeProfile, "the brake's profile", READ),
        stated(I::WheelInside, "the wheel's inside", READ),
        stated(
            I::WheelInsideDrawn,
            "the wheel's inside, drawn from its size",
            Source::estimate("rim code and width alone"),
        ),
        stated(I::StandingStill, "the room as it stands still", Source::GEOMETRY),
        of_the_record(
            I::Inclination,
            "steering axis inclination",
            Fact::Inclination,
            [0.5, 3.0],
            |moving, by| {
                if let Some(steering) = &mut moving.steering {
                    steering.inclination_deg += by;
                }
            },
        ),
        of_the_record(I::Caster, "caster", Fact::Caster, [0.5, 2.5], |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.caster_deg += by;
            }
        }),
        of_the_record(I::ScrubRadius, "scrub radius", Fact::ScrubRadius, [3.0, 10.0], |moving, by| {
            if let Some(steering) = &mut moving.steering {
                steering.scrub_radius_mm += by;
            }
        }),
        of_the_record(I::BumpTravel, "bump travel", Fact::BumpTravel, [5.0, 25.0], |moving, by| {
            moving.travel.bump_mm = (moving.travel.bump_mm + by).max(0.0);
        }),
        of_the_record(I::DroopTravel, "droop travel", Fact::DroopTravel, [5.0, 30.0], |moving, by| {
            moving.travel.droop_mm = (moving.travel.droop_mm + by).max(0.0)
        }),
        // No fact of the car says it: it is always as usual for the kind.
        Facts {
            moves: Some(|moving, by| moving.travel.camber_gain_deg_per_mm += by),
            ..by(I::CamberGain, "camber gain", 0.01, estimate::SOURCE)
        },
        stated(
            I::Compliance,
            "body and bushings under load",
            Source::estimate("body and bushings give under load: house figure"),
        ),
    ]
};

/// A figure of the steering or the travel: turn plates and a protractor against a guess by the kind of suspension.
const fn of_the_record(
    input: Input,
    words: &'static str,
    fact: Fact,
    [measured, usual]: [f64; 2],
    moves: fn(&mut Moving, f64),
) -> Facts {
    Facts {
        input,
        words,
        half_range: HalfRange::Of { measured, usual },
        sources: [RECORDED, estimate::SOURCE],
        fact: Some(fact),
        moves: Some(moves),
    }
}

impl Input {
    fn facts(self) -> &'static Facts {
        &TABLE[self as usize]
    }

    /// Its name in a list, as "full lock".
    pub fn words(self) -> &'static str {
        self.facts().words
    }

    /// How far it may be off.
    pub fn half_range(self) -> HalfRange {
        self.facts().half_range
    }

    /// How far it may be off where it was measured, or was taken as usual: millimetres, or degrees. Nothing where that is
    /// stated with the reading or by the part.
    ///
    /// ```
    /// use fitment::judgement::clearance::Input;
    /// assert_eq!(Input::LockAngle.off(true), 2.0);
    /// assert_eq!(Input::LockAngle.off(false), 4.0);
    /// ```
    pub fn off(self, is_measured: bool) -> f64 {
        match self.half_range() {
            HalfRange::Stated => 0.0,
            HalfRange::Of { measured, usual } => {
                if is_measured {
                    measured
                } else {
                    usual
                }
            }
        }
    }

    /// Where that range comes from.
    pub fn source(self, is_measured: bool) -> Source {
        self.facts().sources[usize::from(!is_measured)]
    }

    /// Whether the car's record says it. What no fact of the car can say has one range, and counts as measured: nobody is asked
    /// for it.
    pub(crate) fn is_measured(self, moving: &Moving) -> bool {
        self.facts().fact.is_none_or(|fact| moving.is_measured(fact))
    }

    /// The inputs of a corner in motion, with what each moves of it.
    pub(crate) fn of_motion() -> impl Iterator<Item = (Self, fn(&mut Moving, f64))> {
        TABLE.iter().filter_map(|one| Some((one.input, one.moves?)))
    }
}

/// What a row does to a room, with its half-range.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Moves {
    /// The gap that was read, in millimetres.
    Gap(f64),
    /// The part along the axis that its readings differ along, in millimetres.
    Place(f64),
    /// The height at which it was read, and where it stands then.
    ReadAt { off_mm: f64, along: AlongTheRange },
    /// A part of the outline of what was fitted, of what is planned, or of both where they are one thing.
    Outline { part: Part, fitted: bool, planned: bool },
    /// Where the planned rim's centre plane stands, in millimetres.
    CenterPlane(f64),
    /// How the wheel leans, and with `fitted` also how it leaned when the part was read; degrees.
    Camber { off_deg: f64, fitted: bool },
    /// How a strut leans, and where it stands then.
    Lean { off_deg: f64, along: AlongTheRange },
    /// How far the wheel was turned when the part was read, in degrees.
    Turned(f64),
    /// Where round the tire it was read, in degrees.
    Round(f64),
    /// What the quick rule at lock says, by as much as it may be off itself.
    Rule,
    /// The room alone, in millimetres.
    Room(f64),
    /// The room alone, to less of it and never to more, in millimetres.
    Less(f64),
}

/// Something that may be off of one room.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct MayBeOff {
    pub(super) input: Input,
    pub(super) source: Source,
    pub(super) moves: Moves,
}

/// The regulation's share where it applies to the tire, and what is said where it does not.
fn under_r30(setup: &Setup, source: Source) -> Source {
    let applies = setup.tire.is_none_or(|tire| tire.size.is_under_r30());
    if applies { source } else { NOT_UNDER_R30 }
}

/// Of a part of the outline: the input as it is of what was fitted, as it is of what is planned, and its source.
fn of_the_outline(part: Part, is_section_measured: bool, is_tread_noted: bool) -> (Input, Input, Source) {
    use Input as I;
    let (fitted, planned) = match part {
        Part::TireWidth if is_section_measured => (I::FittedTireMeasured, I::NewTireWidth),
        Part::TireWidth => (I::FittedTireWidth, I::NewTireWidth),
        Part::RimGuard => (I::FittedRimGuard, I::NewRimGuard),
        Part::TireHeight => (I::FittedTireHeight, I::NewTireHeight),
        Part::Shoulder => (I::FittedShoulder, I::NewShoulder),
        Part::Wear => (I::Wear, I::Wear),
        Part::RimWidth => (I::RimWidth, I::RimWidth),
        Part::Flange => (I::FittedFlange, I::NewFlange),
    };
    (fitted, planned, planned.source(is_tread_noted))
}

/// Everything that may be off of the room that a query asks for.
///
/// What is one thing in life is one row: of a tire that stays, what its place was read against and what is held against it
/// move together, and mostly cancel. What plays no part has no row.
pub(super) fn of_a_room(query: &ClearanceQuery<'_>) -> Vec<MayBeOff> {
    let ClearanceQuery { case, obstacle, stand, stays, .. } = *query;
    let Stays { wheel: wheel_stays, .. } = stays;
    let (feature, reading) = (obstacle.feature, &obstacle.reading);
    let mut all: Vec<MayBeOff> = Vec::with_capacity(16);
    let mut row = |input: Input, source: Source, moves: Moves| all.push(MayBeOff { input, source, moves });
    row(Input::Instrument, READ, Moves::Gap(reading.plus_minus.as_mm()));
    let fixed = |input: Input| (input.off(true), input.source(true));
    if reading.is_copied {
        let (off, source) = fixed(Input::CopiedSide);
        row(Input::CopiedSide, source, Moves::Place(off));
    }
    if query.may_be_nearer_on_the_other_side() {
        let (off, source) = fixed(Input::OtherSide);
        row(Input::OtherSide, source, Moves::Less(off));
    }
    if let Some((off_mm, along)) = obstacle.against.and_then(|against| against.read_at) {
        row(Input::ReadAt, Input::ReadAt.source(true), Moves::ReadAt { off_mm, along });
    }
    outline_rows(query, &mut row);
    if !wheel_stays {
        let (off, source) = fixed(Input::Offset);
        row(Input::Offset, source, Moves::CenterPlane(off));
        if obstacle.against.is_some() {
            row(Input::Offset, source, Moves::Place(off));
        }
    }
    // At the top of the tire a lean of a degree is a hundredth of a millimetre, and nothing beside the tires' heights.
    if feature.carrier() == Carrier::Body && feature.blocks_from() != BlocksFrom::Above {
        let off_deg = Input::Camber.off(case.corner.camber_deg.is_some());
        row(Input::Camber, PRACTICE, Moves::Camber { off_deg, fitted: true });
        if case.levers.camber_deg() != 0.0 {
            let (off_deg, source) = fixed(Input::CamberSet);
            row(Input::CamberSet, source, Moves::Camber { off_deg, fitted: false });
        }
    }
    if let Some((off_deg, along)) = obstacle.against.and_then(|against| against.lean) {
        row(Input::StrutLean, Input::StrutLean.source(true), Moves::Lean { off_deg, along });
    }
    if let Some(lock) = &query.lock {
        let source = Input::LockAngle.source(true);
        row(Input::LockAngle, source, Moves::Turned(Input::LockAngle.off(!lock.is_usual)));
        row(Input::Clock, ROUND_THE_TIRE, Moves::Round(Input::Clock.off(reading.clock.is_some())));
    } else if reading.steer.is_at_lock() && feature.facts().at_lock {
        row(Input::RuleAtLock, quick_rule::ITS_OWN, Moves::Rule);
    }
    let is_its_wheel = reading.on.is_some_and(|on| on.wheel == stand.setup().wheel);
    if feature.blocks_from() == BlocksFrom::Barrel && !is_its_wheel {
        let (off, source) = fixed(Input::OtherBarrel);
        row(Input::OtherBarrel, source, Moves::Room(off));
    }
    if feature.carrier() == Carrier::Arm {
        let (share, source) = fixed(Input::ArmShift);
        row(Input::ArmShift, source, Moves::Room(case.levers.raised().abs() * share));
    }
    all
}

/// The rows of rim and tire.
fn outline_rows(query: &ClearanceQuery<'_>, row: &mut impl FnMut(Input, Source, Moves)) {
    let ClearanceQuery { case, obstacle, stand, stays, .. } = *query;
    let feature = obstacle.feature;
    // Inside of the barrel no tire and no flange is met.
    if feature.is_of_the_brake() {
        return;
    }
    let (cut, corner) = (query.cut(), case.corner);
    for part in Part::ALL {
        // Shoulder and underside of the flange count only where a part is met by them.
        if matches!(part, Part::Shoulder | Part::Flange) && !obstacle.shape.is_met_at_its_height() {
            continue;
        }
        let is_one = if part.is_of_the_tire() { stays.tire } else { stays.wheel };
        // A tire that stays is as worn as it was.
        if part == Part::Wear && is_one {
            continue;
        }
        let of_fitted = obstacle.against.map(|against| {
            let ends = against.parts[part as usize];
            // What its outline is whatever the part is like says nothing.
            ends.iter().any(|end| end.is_other_than(against.faces))
        });
        let (may_be_fitted, may_be_planned) = (of_fitted == Some(true), !cut.is_sure(part));
        if !may_be_fitted && !may_be_planned {
            continue;
        }
        let (fitted, planned, share) =
            of_the_outline(part, corner.fitted_section.is_some(), corner.tread_depth_mm.is_some());
        let of_planned = under_r30(stand.setup(), share);
        if is_one && of_fitted.is_some() {
            let input = if part.is_of_the_tire() { Input::SameTire } else { planned };
            row(input, of_planned, Moves::Outline { part, fitted: true, planned: true });
            continue;
        }
        if may_be_fitted {
            let source = match (fitted, obstacle.reading.on) {
                (Input::Wear, _) => share,
                (Input::FittedTireMeasured, _) => READ,
                (_, Some(on)) => under_r30(&on, share),
                _ => share,
            };
            row(fitted, source, Moves::Outline { part, fitted: true, planned: false });
        }
        if may_be_planned {
            row(planned, of_planned, Moves::Outline { part, fitted: false, planned: true });
        }
    }
}

impl Moves {
    /// Adds a share of this row's half-range to what is off: −1 and 1 are its ends.
    pub(super) fn add(&self, share: f64, query: &ClearanceQuery<'_>, shift: &mut Shift) {
        let against = query.obstacle.against.unwrap_or_default();
        match *self {
            Self::Gap(off) => match query.obstacle.against.map(|against| against.gap) {
                Some(Some(along)) => shift.along += share.abs() * along[usize::from(share > 0.0)],
                Some(None) => shift.room += share * off,
                None => shift.along += share * off,
            },
            Self::Place(off) => shift.along += share * off,
            Self::ReadAt { off_mm, along } => {
                shift.higher += share * off_mm;
                shift.along += along.at(share);
            }
            Self::Outline { part, fitted, planned } => {
                if planned {
                    shift.outline[part as usize] = share;
                    shift.is_of_both |= fitted;
                }
                if fitted {
                    let ends = &against.parts[part as usize];
                    // A worn tire is off to that side or not at all.
                    let is_one_sided = part == Part::Wear && !ends[1].is_other_than(against.faces);
                    let is_more = share > 0.0 && !is_one_sided;
                    shift.read_otherwise(&against, &ends[usize::from(is_more)], share.abs());
                }
            }
            Self::CenterPlane(off) => shift.center_y += share * off,
            Self::Camber { off_deg, fitted } => {
                shift.camber_deg += share * off_deg;
                if fitted {
                    let end = &against.camber[usize::from(share > 0.0)];
                    shift.read_otherwise(&against, end, share.abs() * off_deg / CAMBER_STEP_DEG);
                }
            }
            Self::Lean { off_deg, along } => {
                shift.lean_deg += share * off_deg;
                shift.along += along.at(share);
            }
            Self::Turned(off_deg) => shift.turned_deg += share * off_deg,
            Self::Round(off_deg) => shift.round_deg += share * off_deg,
            Self::Rule => shift.rule += share,
            Self::Room(off) => shift.room -= share * off,
            Self::Less(off) => shift.room -= share.max(0.0) * off,
        }
    }

    /// Whether the makers' own limits hold it: no part is further off its size than a little beyond its range.
    pub(super) fn is_made_to_limits(&self) -> bool {
        matches!(self, Self::Outline { .. })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_input_stands_in_its_own_row() {
        for (at, row) in TABLE.iter().enumerate() {
            assert_eq!(row.input as usize, at, "{}", row.words);
            let others = TABLE.iter().filter(|other| other.words == row.words).count();
            assert_eq!(others, 1, "{} is there twice", row.words);
            if let HalfRange::Of { measured, usual } = row.half_range {
                assert!(0.0 < measured && measured <= usual, "{}: what was measured is the surer", row.words);
            }
        }
    }

    #[test]
    fn a_row_of_motion_moves_the_corner_by_what_it_says() {
        for (input, moves) in Input::of_motion() {
            let mut moving = Moving::of(&crate::car::Car::default(), crate::setup::Axle::Front, None);
            let before = moving.clone();
            moves(&mut moving, input.off(true));
            assert_ne!(moving, before, "{}", input.words());
            moves(&mut moving, -input.off(true));
            let back = |moving: &Moving| format!("{:.6?}", (moving.steering, moving.travel));
            assert_eq!(back(&moving), back(&before), "{}", input.words());
        }
    }
}
