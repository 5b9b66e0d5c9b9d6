//! The setup line: one axle or both in one breath, typed, pasted or said.
//!
//! `18x8.5 ET35 · 245/40R18 · 5 mm spacer`. Separators are free, the parts come in any order, parts may be
//! missing. A staggered car is two lines, or one with `F:` and `R:`; what stands before the first of them
//! belongs to both axles.
//!
//! - `figures`: figures without a label, by what stands round them, or asked.
//! - `axles`: which axle each piece belongs to.
//! - `draft`: what the pieces of one axle make together.

mod axles;
mod draft;
mod figures;

use std::ops::Range;
use std::str::FromStr;

use super::{PerAxle, Setup, SetupPair};
use crate::notation::{Axles, Lexed, NotationError, Piece, Reason, Spacing, at_whole, lex};
use crate::parts::tire::Tire;
use crate::parts::wheel::Wheel;
use crate::values::codes::BoltCircle;
use draft::Draft;

/// What a stretch of the line was read as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "the pieces of a setup, by name")]
pub enum SegmentKind {
    /// Blanks, separators and words people put between the pieces.
    Gap,
    /// A word, name or quantity that says nothing about a setup. A strict reading refuses it.
    LeftAside,
    /// `F:`, `R:`, "front", "rear".
    Axle,
    Wheel,
    Offset,
    Backspacing,
    BoltCircle,
    CenterBore,
    CenterLock,
    Tire,
    /// Load index and speed symbol, `XL`, load range, `RFT`, `M+S`, a factory mark.
    Service,
    Spacer,
    DateCode,
}

/// One stretch of the line. All segments together are the line.
#[derive(Debug, Clone, PartialEq)]
pub struct Segment {
    /// Where it stands, in bytes.
    pub span: Range<usize>,
    /// What it was read as, or what is wrong with it.
    pub outcome: Result<SegmentKind, Reason>,
}

/// A line as far as it could be read.
#[derive(Debug, Clone, PartialEq)]
pub struct LineReading {
    /// The line, stretch by stretch.
    pub segments: Vec<Segment>,
    /// What the pieces make; `None` as long as a piece is at fault.
    pub setups: Option<SetupPair>,
    /// Whether the line itself names axles (or is two lines, front and rear).
    pub names_axles: bool,
    /// What was assumed of each axle's parts because nobody wrote it: names of quantities ("aspect_ratio",
    /// "center_bore").
    pub assumed: PerAxle<Vec<&'static str>>,
}

impl LineReading {
    /// What was left aside, as it was written.
    pub fn left_aside<'t>(&'t self, text: &'t str) -> impl Iterator<Item = &'t str> {
        self.segments
            .iter()
            .filter(|segment| segment.outcome == Ok(SegmentKind::LeftAside))
            .filter_map(|segment| text.get(segment.span.clone()))
            .map(str::trim)
    }

    /// The one setup of a text that may be about one axle or the same on both; the rest of it left aside.
    ///
    /// # Errors
    /// The first fault; a text that says nothing.
    fn any_axle(&self, text: &str) -> Result<Setup, NotationError> {
        if let Some(fault) = self.first_fault(text) {
            return Err(fault);
        }
        let pair = self.setups.unwrap_or_default();
        if let (Some(front), Some(rear)) = (pair.front, pair.rear)
            && front != rear
        {
            return Err(at_whole(text, Reason::Repeated("setup")));
        }
        // Words that say nothing of a setup are something all the same.
        let nothing = || if text.trim().is_empty() { Reason::Empty } else { Reason::Unknown };
        pair.front
            .or(pair.rear)
            .filter(|setup| *setup != Setup::default())
            .ok_or_else(|| at_whole(text, nothing()))
    }

    /// The first fault, with its piece.
    pub fn first_fault(&self, text: &str) -> Option<NotationError> {
        self.segments.iter().find_map(|segment| {
            let reason = segment.outcome.as_ref().err()?;
            let lexed = Lexed { span: segment.span.clone(), outcome: Ok(Piece::Gap) };
            Some(lexed.error(text, reason.clone()))
        })
    }
}

/// Reads a line for one axle or both, leaving aside words that say nothing about a setup.
///
/// # Errors
/// Only for a text too long to be a setup. Everything else that is wrong stands in the segments.
pub fn read(text: &str) -> Result<LineReading, NotationError> {
    let mut lexed = lex(text)?;
    figures::resolve(&mut lexed);
    name_what_is_for_no_car(text, &mut lexed);
    // The first assignment without a fault; where there is none, the faults of the one that is read by the line's axle words.
    let mut told: Option<Made> = None;
    for assigned in axles::assignments(text, &lexed) {
        let made = Made::of(&lexed, assigned);
        let is_sound = made.faults.is_empty();
        if is_sound || told.as_ref().is_none_or(|told| told.is_by_clause) {
            told = Some(made);
        }
        if is_sound {
            break;
        }
    }
    let Some(Made { faults, setups, assumed, names_axles, .. }) = told else {
        return Err(at_whole(text, Reason::Empty));
    };
    // Of a stretch's faults the first that was found is told.
    for (at, reason) in faults {
        if let Some(one) = lexed.get_mut(at).filter(|one| one.outcome.is_ok()) {
            one.outcome = Err(reason);
        }
    }
    let sound = lexed.iter().all(|one| one.outcome.is_ok());
    let setups = setups.filter(|_| sound);
    let segments =
        lexed.into_iter().map(|Lexed { span, outcome }| Segment { span, outcome: outcome.map(kind_of) });
    Ok(LineReading { segments: segments.collect(), setups, names_axles, assumed })
}

/// A word right behind a tire that says what else it is for: in other places it is what the car tows, or what its owner rides.
fn name_what_is_for_no_car(text: &str, lexed: &mut [Lexed]) {
    const WORDS: [(&[&str], Reason); 3] = [
        (&["trailer", "trailers", "caravan"], Reason::TRAILER),
        (&["scooter", "motorbike", "quad", "atv"], Reason::MOTORCYCLE),
        (&["tractor", "implement"], Reason::FARM),
    ];
    let mut is_behind_a_tire = false;
    for one in lexed {
        let said = text.get(one.span.clone()).unwrap_or_default().trim().to_lowercase();
        match one.outcome {
            Ok(Piece::Tire(_) | Piece::Beside(_)) => is_behind_a_tire = true,
            Ok(Piece::Gap) => {}
            Ok(Piece::LeftAside) if is_behind_a_tire => {
                let known = WORDS.into_iter().find(|(words, _)| words.contains(&said.as_str()));
                if let Some((_, reason)) = known {
                    one.outcome = Err(reason);
                }
                is_behind_a_tire = false;
            }
            _ => is_behind_a_tire = false,
        }
    }
}

/// What a line makes with its pieces on the axles that one assignment gives them.
struct Made {
    faults: Vec<(usize, Reason)>,
    setups: Option<SetupPair>,
    assumed: PerAxle<Vec<&'static str>>,
    names_axles: bool,
    is_by_clause: bool,
}

impl Made {
    fn of(lexed: &[Lexed], assigned: axles::Assigned) -> Self {
        let axles::Assigned { axles, names_axles, question, is_by_clause } = assigned;
        let mut faults: Vec<(usize, Reason)> = question.into_iter().collect();
        let mut draft_of = |axle: Axles| {
            let mut draft = Draft::default();
            for (at, (one, axles)) in lexed.iter().zip(&axles).enumerate() {
                if let Ok(piece) = &one.outcome
                    && (*axles == axle || *axles == Axles::Both)
                    && let Err(reason) = draft.put(*piece, at, axle)
                {
                    faults.push((at, reason));
                }
            }
            draft
        };
        let front = draft_of(Axles::Front);
        // What names no axle says the same of both, unless it says two thicknesses in one breath.
        let parted = names_axles
            || lexed.iter().any(|one| matches!(one.outcome, Ok(Piece::Spacing(Spacing::Pair(..)))));
        let rear = parted.then(|| draft_of(Axles::Rear));
        let mut finished =
            |draft: &Draft, other: &Draft| draft.finish(other.rim()).map_err(|fault| faults.push(fault)).ok();
        let made_in_front = finished(&front, rear.as_ref().unwrap_or(&front));
        let made_behind = rear.as_ref().map_or(made_in_front, |rear| finished(rear, &front));
        let assumed = PerAxle {
            front: front.assumed(),
            rear: rear.as_ref().map_or_else(|| front.assumed(), Draft::assumed),
        };
        let setups = made_in_front.zip(made_behind).map(|(front, rear)| SetupPair { front, rear });
        Self { faults, setups, assumed, names_axles, is_by_clause }
    }
}

/// A tire or a wheel read out of a text, with what was left aside and what was assumed.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadPart<T> {
    /// The part.
    pub part: T,
    /// Words, names and quantities that say nothing of it, as they were written.
    pub left_aside: Vec<String>,
    /// Names of the quantities that nobody wrote.
    pub assumed: Vec<&'static str>,
}

/// Reads the tire in a text, leaving aside what says nothing of it ("Reifen 245/40 R18 97Y XL neu").
///
/// # Errors
/// A fault or an open question in the text; a text about something else.
pub fn read_tire(text: &str) -> Result<ReadPart<Tire>, NotationError> {
    read_part(text, "a tire size", |setup| {
        setup.tire.filter(|_| setup.wheel.is_none() && setup.spacer.is_none())
    })
}

/// Reads the wheel in a text, leaving aside what says nothing of it ("matte bronze 18x9.5 +22 5x114.3").
///
/// # Errors
/// As [`read_tire`].
pub fn read_wheel(text: &str) -> Result<ReadPart<Wheel>, NotationError> {
    read_part(text, "a wheel", |setup| {
        setup.wheel.filter(|_| setup.tire.is_none() && setup.spacer.is_none() && setup.date_code.is_none())
    })
}

fn read_part<T>(
    text: &str,
    what: &'static str,
    pick: fn(&Setup) -> Option<T>,
) -> Result<ReadPart<T>, NotationError> {
    let reading = read(text)?;
    let setup = reading.any_axle(text)?;
    let part = pick(&setup).ok_or_else(|| at_whole(text, Reason::NotPartOf(what)))?;
    let left_aside = reading.left_aside(text).map(str::to_owned).collect();
    let PerAxle { front, rear } = reading.assumed;
    Ok(ReadPart { part, left_aside, assumed: if front.is_empty() { rear } else { front } })
}

/// Reads bolt circles in any notation: `5x112`, `5x100/114.3`, `5H PCD 114.3`, `5x4.5"`.
///
/// # Errors
/// A fault in the text, or anything in it that is no bolt circle.
pub fn read_bolt_circles(text: &str) -> Result<Vec<BoltCircle>, NotationError> {
    let mut lexed = lex(text)?;
    figures::resolve(&mut lexed);
    let mut draft = Draft::default();
    for (at, one) in lexed.iter().enumerate() {
        match &one.outcome {
            Ok(Piece::Gap) => {}
            Ok(piece @ (Piece::Drilling(_) | Piece::CircleAlone(_) | Piece::CountAlone(_))) => {
                draft.put(*piece, at, Axles::Both).map_err(|reason| one.error(text, reason))?;
            }
            Ok(_) => return Err(one.error(text, Reason::NotPartOf("a bolt circle"))),
            Err(reason) => return Err(one.error(text, reason.clone())),
        }
    }
    let circles = draft.only_circles().map_err(|(at, reason)| lexed[at].error(text, reason))?;
    if circles.is_empty() { Err(at_whole(text, Reason::Empty)) } else { Ok(circles) }
}

/// Reads one bolt circle.
impl FromStr for BoltCircle {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        match read_bolt_circles(text)?.as_slice() {
            [circle] => Ok(*circle),
            _ => Err(at_whole(text, Reason::NotPartOf("a bolt circle"))),
        }
    }
}

/// Reads a tire strictly: a size, and what stands beside it, and no other word.
///
/// ```
/// let tire: fitment::Tire = "p225/45 zr17 (94y) xl".parse().unwrap();
/// assert_eq!(tire.to_string(), "P225/45ZR17 (94Y) XL");
/// ```
impl FromStr for Tire {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        let setup = read_one_axle(text)?;
        let alone = setup.wheel.is_none() && setup.spacer.is_none() && setup.date_code.is_none();
        setup.tire.filter(|_| alone).ok_or_else(|| at_whole(text, Reason::NotPartOf("a tire size")))
    }
}

/// Reads a wheel strictly: a size, and what stands beside it. Backspacing becomes an offset.
///
/// ```
/// let wheel: fitment::Wheel = "18 by 9 and a half plus 38".parse().unwrap();
/// assert_eq!(wheel.to_string(), "18x9.5 ET38");
/// ```
impl FromStr for Wheel {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        let setup = read_one_axle(text)?;
        let alone = setup.tire.is_none() && setup.spacer.is_none() && setup.date_code.is_none();
        setup.wheel.filter(|_| alone).ok_or_else(|| at_whole(text, Reason::NotPartOf("a wheel")))
    }
}

/// Reads a line that must be about one axle, every word of it.
///
/// # Errors
/// The first piece at fault, left aside, or naming an axle.
pub(super) fn read_one_axle(text: &str) -> Result<Setup, NotationError> {
    let reading = read(text)?;
    if let Some(fault) = reading.first_fault(text) {
        return Err(fault);
    }
    for segment in &reading.segments {
        let reason = match segment.outcome {
            Ok(SegmentKind::LeftAside) => Reason::Unknown,
            Ok(SegmentKind::Axle) => Reason::AxleNamed,
            _ => continue,
        };
        return Err(Lexed { span: segment.span.clone(), outcome: Ok(Piece::Gap) }.error(text, reason));
    }
    if reading.names_axles {
        return Err(at_whole(text, Reason::AxleNamed));
    }
    reading.setups.and_then(|pair| pair.front).ok_or_else(|| at_whole(text, Reason::Empty))
}

fn kind_of(piece: Piece) -> SegmentKind {
    match piece {
        Piece::Gap | Piece::Filler => SegmentKind::Gap,
        Piece::LeftAside | Piece::Figure { .. } => SegmentKind::LeftAside,
        Piece::Axle(_) => SegmentKind::Axle,
        Piece::Wheel(_) => SegmentKind::Wheel,
        Piece::Offset(_) => SegmentKind::Offset,
        Piece::Backspacing(_) => SegmentKind::Backspacing,
        Piece::Drilling(_) | Piece::CircleAlone(_) | Piece::CountAlone(_) => SegmentKind::BoltCircle,
        Piece::CenterBore { .. } => SegmentKind::CenterBore,
        Piece::CenterLock => SegmentKind::CenterLock,
        Piece::Tire(_) | Piece::TireWithoutRim { .. } => SegmentKind::Tire,
        Piece::Beside(_) => SegmentKind::Service,
        Piece::Spacing(_) => SegmentKind::Spacer,
        Piece::DateCode(_) => SegmentKind::DateCode,
    }
}
