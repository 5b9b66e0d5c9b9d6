//! The setup line: one axle or both in one breath, typed, pasted or said.
//!
//! `18x8.5 ET35 · 245/40R18 · 5 mm spacer`. Separators are free, the parts come in any order, parts may be
//! missing. A staggered car is two lines, or one with `F:` and `R:`; what stands before the first of them
//! belongs to both axles.

use std::ops::Range;

use super::{Setup, SetupPair};
use crate::codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
use crate::date_code::DateCode;
use crate::length::Length;
use crate::notation::{AxleTag, Lexed, NotationError, Piece, Reason, at_whole, lex};
use crate::tire::{LoadRange, LoadVersion, ServiceDescription, Size, Tire};
use crate::wheel::{Backspacing, Wheel};

/// What a stretch of the line was read as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "the pieces of a setup, by name")]
pub enum SegmentKind {
    /// Blanks, separators and words people put between the pieces.
    Gap,
    /// A word that says nothing about a setup. A strict reading refuses it.
    LeftAside,
    /// `F:`, `R:`, "front", "rear".
    Axle,
    Wheel,
    Offset,
    Backspacing,
    BoltCircle,
    CenterBore,
    Tire,
    /// Load index and speed symbol, `XL`, load range, `RFT`, `M+S`.
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
}

impl LineReading {
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
    let lexed = lex(text)?;
    let (targets, names_axles) = targets(text, &lexed);
    let mut segments: Vec<Segment> = lexed
        .iter()
        .map(|lexed| Segment { span: lexed.span.clone(), outcome: lexed.outcome.clone().map(kind_of) })
        .collect();
    let mut front = Draft::default();
    let mut rear = Draft::default();
    for (at, (lexed, target)) in lexed.iter().zip(&targets).enumerate() {
        let Ok(piece) = &lexed.outcome else { continue };
        let mut put = Ok(());
        if *target != AxleTag::Rear {
            put = put.and(front.put(*piece, at));
        }
        if *target != AxleTag::Front {
            put = put.and(rear.put(*piece, at));
        }
        if let (Err(reason), Some(segment)) = (put, segments.get_mut(at)) {
            segment.outcome = Err(reason);
        }
    }
    let mut finish = |draft: &Draft| {
        draft.finish().map_err(|(at, reason)| {
            if let Some(segment) = segments.get_mut(at) {
                segment.outcome = Err(reason);
            }
        })
    };
    let (front, rear) = (finish(&front), finish(&rear));
    let sound = segments.iter().all(|segment| segment.outcome.is_ok());
    let setups = match (sound, front, rear) {
        (true, Ok(front), Ok(rear)) => Some(SetupPair { front, rear }),
        _ => None,
    };
    Ok(LineReading { segments, setups, names_axles })
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
        Piece::LeftAside => SegmentKind::LeftAside,
        Piece::Axle(_) => SegmentKind::Axle,
        Piece::WheelSize(..) => SegmentKind::Wheel,
        Piece::Offset(_) => SegmentKind::Offset,
        Piece::Backspacing(_) => SegmentKind::Backspacing,
        Piece::BoltCircle(_) => SegmentKind::BoltCircle,
        Piece::CenterBore(_) => SegmentKind::CenterBore,
        Piece::Tire { .. } => SegmentKind::Tire,
        Piece::Beside(_) => SegmentKind::Service,
        Piece::Spacer(_) => SegmentKind::Spacer,
        Piece::DateCode(_) => SegmentKind::DateCode,
    }
}

/// Which axle each piece belongs to, and whether the text says so itself.
fn targets(text: &str, lexed: &[Lexed]) -> (Vec<AxleTag>, bool) {
    let tagged =
        lexed.iter().any(|piece| matches!(piece.outcome, Ok(Piece::Axle(AxleTag::Front | AxleTag::Rear))));
    let line_of = |span: &Range<usize>| text.as_bytes()[..span.start].iter().filter(|b| **b == b'\n').count();
    let mut lines: Vec<usize> = lexed
        .iter()
        .filter(|piece| matches!(piece.outcome, Ok(Piece::WheelSize(..) | Piece::Tire { .. })))
        .map(|piece| line_of(&piece.span))
        .collect();
    let sizes = lines.len();
    lines.dedup();
    // Two lines with as many sizes each are front and rear; a wheel on one line and its tire on the next
    // are one setup.
    let two_lines = !tagged && lines.len() == 2 && repeats_a_kind(lexed) && sizes.is_multiple_of(2);
    let mut current = AxleTag::Both;
    let targets = lexed
        .iter()
        .map(|piece| {
            if let Ok(Piece::Axle(tag)) = piece.outcome {
                current = tag;
            } else if two_lines {
                current =
                    if Some(&line_of(&piece.span)) == lines.first() { AxleTag::Front } else { AxleTag::Rear };
            }
            current
        })
        .collect();
    (targets, tagged || two_lines)
}

fn repeats_a_kind(lexed: &[Lexed]) -> bool {
    let count = |is: fn(&Piece) -> bool| {
        lexed.iter().filter(|lexed| lexed.outcome.as_ref().is_ok_and(is)).count() > 1
    };
    count(|piece| matches!(piece, Piece::WheelSize(..))) || count(|piece| matches!(piece, Piece::Tire { .. }))
}

/// A value and the segment it came from.
type Found<T> = Option<(T, usize)>;

/// The pieces of one axle while they come in.
#[derive(Debug, Default)]
struct Draft {
    wheel: Found<(RimDiameter, RimWidth)>,
    offset: Found<Offset>,
    backspacing: Found<Length>,
    bolt_circle: Found<BoltCircle>,
    center_bore: Found<CenterBore>,
    tire: Found<Size>,
    service: Found<ServiceDescription>,
    load_version: Found<LoadVersion>,
    load_range: Found<LoadRange>,
    run_flat: Found<()>,
    mud_and_snow: Found<()>,
    spacer: Found<Spacer>,
    date_code: Found<DateCode>,
}

impl Draft {
    fn put(&mut self, piece: Piece, at: usize) -> Result<(), Reason> {
        use crate::notation::Beside;
        match piece {
            Piece::Gap | Piece::Filler | Piece::LeftAside | Piece::Axle(_) => Ok(()),
            Piece::WheelSize(diameter, width) => place(&mut self.wheel, (diameter, width), at, "wheel size"),
            Piece::Offset(offset) => place(&mut self.offset, offset, at, "offset"),
            Piece::Backspacing(length) => place(&mut self.backspacing, length, at, "backspacing"),
            Piece::BoltCircle(circle) => place(&mut self.bolt_circle, circle, at, "bolt circle"),
            Piece::CenterBore(bore) => place(&mut self.center_bore, bore, at, "center bore"),
            Piece::Tire { size, run_flat } => {
                if run_flat {
                    place(&mut self.run_flat, (), at, "run-flat mark")?;
                }
                place(&mut self.tire, size, at, "tire size")
            }
            Piece::Beside(Beside::Service(service)) => {
                place(&mut self.service, service, at, "load index and speed symbol")
            }
            Piece::Beside(Beside::LoadVersion(version)) => {
                place(&mut self.load_version, version, at, "load version")
            }
            Piece::Beside(Beside::LoadRange(range)) => place(&mut self.load_range, range, at, "load range"),
            Piece::Beside(Beside::RunFlat) => place(&mut self.run_flat, (), at, "run-flat mark"),
            Piece::Beside(Beside::MudAndSnow) => place(&mut self.mud_and_snow, (), at, "M+S mark"),
            Piece::Spacer(spacer) => place(&mut self.spacer, spacer, at, "spacer"),
            Piece::DateCode(code) => place(&mut self.date_code, code, at, "date code"),
        }
    }

    /// What the pieces make together, or the segment that stands in the way.
    fn finish(&self) -> Result<Option<Setup>, (usize, Reason)> {
        let wheel = self.wheel()?;
        let tire = self.tire()?;
        if let (Some(wheel), Some((tire, at))) = (wheel, tire)
            && wheel.diameter != tire.size.rim()
        {
            let (tire, wheel) = (tire.size.rim().code(), wheel.diameter.code());
            return Err((at, Reason::RimMismatch { tire, wheel }));
        }
        let setup = Setup {
            wheel,
            tire: tire.map(|(tire, _)| tire),
            spacer: self.spacer.map(|(spacer, _)| spacer),
            date_code: self.date_code.map(|(code, _)| code),
        };
        Ok((setup != Setup::default()).then_some(setup))
    }

    fn wheel(&self) -> Result<Option<Wheel>, (usize, Reason)> {
        let Some(((diameter, width), _)) = self.wheel else {
            return needs(
                "a wheel size",
                [
                    (self.offset.map(|f| f.1), "an offset"),
                    (self.backspacing.map(|f| f.1), "backspacing"),
                    (self.bolt_circle.map(|f| f.1), "a bolt circle"),
                    (self.center_bore.map(|f| f.1), "a center bore"),
                ],
            );
        };
        let mut offset = self.offset.map(|(offset, _)| offset);
        if let Some((length, at)) = self.backspacing {
            let half = (width.over_flanges() / 2.0).as_mm();
            let from_backspacing = Backspacing::measured(length).to_offset(width).ok_or_else(|| {
                let (what, value) = ("backspacing", format!("{} mm", length.as_mm()));
                let (low, high) = (half - Offset::LIMIT_MM, half + Offset::LIMIT_MM);
                (at, Reason::OutOfRange { what, value, low, high })
            })?;
            // Backspacing is read with a rule to the nearest tenth of an inch.
            if let Some(stated) = offset
                && (stated.as_mm() - from_backspacing.as_mm()).abs() > 2.6
            {
                let (from_backspacing, offset) = (from_backspacing.as_mm(), stated.as_mm());
                return Err((at, Reason::OffsetsDisagree { from_backspacing, offset }));
            }
            offset = offset.or(Some(from_backspacing));
        }
        Ok(Some(Wheel {
            diameter,
            width,
            offset,
            bolt_circle: self.bolt_circle.map(|(circle, _)| circle),
            center_bore: self.center_bore.map(|(bore, _)| bore),
        }))
    }

    fn tire(&self) -> Result<Option<(Tire, usize)>, (usize, Reason)> {
        let Some((size, at)) = self.tire else {
            return needs(
                "a tire size",
                [
                    (self.service.map(|f| f.1), "a load index"),
                    (self.load_version.map(|f| f.1), "a load version"),
                    (self.load_range.map(|f| f.1), "a load range"),
                    (self.run_flat.or(self.mud_and_snow).map(|f| f.1), "a tire mark"),
                ],
            );
        };
        let tire = Tire {
            size,
            service: self.service.map(|(service, _)| service),
            load_version: self.load_version.map(|(version, _)| version),
            load_range: self.load_range.map(|(range, _)| range),
            run_flat: self.run_flat.is_some(),
            mud_and_snow: self.mud_and_snow.is_some(),
        };
        Ok(Some((tire, at)))
    }
}

fn needs<T>(
    needs: &'static str,
    lonely: [(Option<usize>, &'static str); 4],
) -> Result<Option<T>, (usize, Reason)> {
    match lonely.into_iter().find_map(|(at, what)| at.map(|at| (at, what))) {
        Some((at, what)) => Err((at, Reason::Needs { what, needs })),
        None => Ok(None),
    }
}

/// Puts a piece in its place; the same piece said twice is one, two different ones are a fault.
fn place<T: PartialEq>(slot: &mut Found<T>, value: T, at: usize, what: &'static str) -> Result<(), Reason> {
    match slot {
        Some((there, _)) if *there != value => Err(Reason::Repeated(what)),
        _ => {
            *slot = Some((value, at));
            Ok(())
        }
    }
}
