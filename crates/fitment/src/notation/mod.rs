//! Reading sizes as people write, type, say and paste them.
//!
//! - `scan`: the text made even (`×` is x, `8½` is 8.5), and a cursor that knows where each piece stood.
//! - `tire`, `wheel`: one function per notation. Each answers "not mine", "mine" or "mine, but wrong".
//! - [`lex`]: a whole text cut into pieces, gaps, words left aside and faults.
//!
//! What is not here: which axle a piece belongs to and what the pieces make together. That is
//! [`crate::setup::line`].
//!
//! A wrong size is refused with the place and the reason. It is never guessed at.

mod lex;
mod scan;
mod tire;
mod wheel;

use std::fmt;
use std::ops::Range;
use std::str::FromStr;

pub(crate) use lex::{AxleTag, Lexed, Piece, lex};
pub(crate) use tire::Beside;

use crate::codes::BoltCircle;
use crate::date_code::DateCode;
use crate::setup::Setup;
use crate::tire::Tire;
use crate::wheel::Wheel;

/// Longest text read, in bytes: far beyond any message with a setup in it.
pub const LONGEST_TEXT: usize = 2_000;

/// A text that could not be read, with the piece at fault.
#[derive(Debug, Clone, PartialEq)]
pub struct NotationError {
    /// The piece as it was written.
    pub piece: String,
    /// Where it stands in the text, in bytes.
    pub span: Range<usize>,
    /// What is wrong with it.
    pub reason: Reason,
}

impl std::error::Error for NotationError {}

impl fmt::Display for NotationError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if self.piece.is_empty() {
            self.reason.fmt(f)
        } else {
            write!(f, "\"{}\": {}", self.piece, self.reason)
        }
    }
}

/// What is wrong with a piece.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum Reason {
    /// A figure lies outside what can be.
    #[error("{what} {value} is outside {low}–{high}")]
    OutOfRange {
        /// Which figure.
        what: &'static str,
        /// As it was read.
        value: String,
        /// Least.
        low: f64,
        /// Most.
        high: f64,
    },
    /// A code lies between two steps.
    #[error("{what} {value} is not on a step of {step}")]
    OffStep {
        /// Which code.
        what: &'static str,
        /// As it was read.
        value: String,
        /// The step.
        step: f64,
    },
    /// The second figure of a size is too large for an aspect ratio and too small for a diameter.
    #[error(
        "aspect ratio {value} is outside 20–95, and as an overall diameter of {value} mm it leaves no sidewall on a {rim} in rim"
    )]
    NeitherRatioNorDiameter {
        /// The second figure.
        value: String,
        /// The rim code.
        rim: f64,
    },
    /// The size leaves no sidewall.
    #[error("an overall diameter of {value} leaves no sidewall on a {rim} in rim")]
    NoSidewall {
        /// The overall diameter with its unit.
        value: String,
        /// The rim code.
        rim: f64,
    },
    /// Something belongs here.
    #[error("{0} is missing")]
    Missing(&'static str),
    /// A size prefix we do not know.
    #[error("prefix {0} is not read: P, LT and HL are")]
    UnknownPrefix(String),
    /// A letter that is no speed symbol.
    #[error("speed symbol {0} is not one of L M N P Q R S T U H V W Y (Y)")]
    UnknownSpeedSymbol(String),
    /// Brackets round another symbol than Y.
    #[error("brackets go with Y only, for over 300 km/h")]
    BracketsWithoutY,
    /// A twin index above the single one.
    #[error("the index for twins, {dual}, is above the one for a single tire, {single}")]
    DualAboveSingle {
        /// The second index.
        dual: u32,
        /// The first index.
        single: u32,
    },
    /// A length that needs its unit.
    #[error("{what} {value} needs a unit: mm or in")]
    NeedsUnit {
        /// Which length.
        what: &'static str,
        /// As it was read.
        value: String,
    },
    /// Could be either.
    #[error("could be a wheel with its offset or a tire: put a space or ET before the offset")]
    WheelOrTire,
    /// The same kind of piece twice, with different figures.
    #[error("a second {0}: name the axles with F: and R:")]
    Repeated(&'static str),
    /// A piece that is of no use alone.
    #[error("{what} needs {needs}")]
    Needs {
        /// This piece.
        what: &'static str,
        /// What must stand with it.
        needs: &'static str,
    },
    /// Offset and backspacing disagree.
    #[error("the backspacing gives ET{from_backspacing}, the offset says ET{offset}")]
    OffsetsDisagree {
        /// From the backspacing, in millimetres.
        from_backspacing: f64,
        /// As stated, in millimetres.
        offset: f64,
    },
    /// Tire and wheel of different diameters.
    #[error("the tire is for {tire} in rims and the wheel is {wheel} in: it cannot be mounted")]
    RimMismatch {
        /// The tire's rim code.
        tire: f64,
        /// The wheel's.
        wheel: f64,
    },
    /// An axle named where the text is about one axle only.
    #[error("names an axle, and this line is for one axle only")]
    AxleNamed,
    /// A piece of another kind than asked for.
    #[error("does not belong in {0}")]
    NotPartOf(&'static str),
    /// Not a piece of a setup.
    #[error("is not a piece of a setup")]
    Unknown,
    /// Nothing written.
    #[error("nothing is written here")]
    Empty,
    /// Too much written.
    #[error("is longer than {LONGEST_TEXT} characters")]
    TooLong,
}

impl Reason {
    /// How it would be written right.
    pub fn example(&self) -> &'static str {
        match self {
            Self::OutOfRange { what, .. } | Self::OffStep { what, .. } => match *what {
                "rim width" | "rim diameter" => "18x8.5 or 245/40R18",
                "offset" => "ET35",
                "backspacing" => "4.5 in bs",
                "bolt circle" | "fastener count" => "5x114.3",
                "center bore" => "CB67.1",
                "spacer" => "5 mm spacer",
                "load index" => "94W",
                "week" => "DOT 2325",
                _ => "245/40R18",
            },
            Self::UnknownSpeedSymbol(_) | Self::BracketsWithoutY | Self::DualAboveSingle { .. } => {
                "94W, (94Y) or 121/118S"
            }
            Self::NeedsUnit { .. } => "4.5 in bs or 114 mm bs",
            Self::WheelOrTire => "20x10 ET-15",
            Self::Repeated(_) => "F: 18x8.5 ET35 245/40R18  R: 18x9.5 ET40 265/35R18",
            Self::RimMismatch { .. } => "18x8.5 ET35 245/40R18",
            Self::NotPartOf("a wheel") => "18x8.5 ET35 5x114.3 CB67.1",
            Self::NotPartOf("a bolt circle") => "5x114.3",
            Self::NotPartOf("a date code") => "DOT 2325",
            Self::UnknownPrefix(_)
            | Self::NeitherRatioNorDiameter { .. }
            | Self::NoSidewall { .. }
            | Self::NotPartOf(_) => "245/40R18 97Y XL",
            _ => "18x8.5 ET35 · 245/40R18 · 5 mm spacer",
        }
    }
}

/// Reads a tire: a size, and what stands beside it.
///
/// ```
/// let tire: fitment::Tire = "p225/45 zr17 (94y) xl".parse().unwrap();
/// assert_eq!(tire.to_string(), "P225/45ZR17 (94Y) XL");
/// ```
impl FromStr for Tire {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        let setup = whole(text, "a tire size", |setup| {
            setup.wheel.is_none() && setup.spacer.is_none() && setup.date_code.is_none()
        })?;
        setup.tire.ok_or_else(|| at_whole(text, Reason::NotPartOf("a tire size")))
    }
}

/// Reads a wheel: a size, and what stands beside it. Backspacing becomes an offset.
///
/// ```
/// let wheel: fitment::Wheel = "18 by 9 and a half plus 38".parse().unwrap();
/// assert_eq!(wheel.to_string(), "18x9.5 ET38");
/// ```
impl FromStr for Wheel {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        let setup = whole(text, "a wheel", |setup| {
            setup.tire.is_none() && setup.spacer.is_none() && setup.date_code.is_none()
        })?;
        setup.wheel.ok_or_else(|| at_whole(text, Reason::NotPartOf("a wheel")))
    }
}

impl FromStr for BoltCircle {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        only_piece(text, "a bolt circle", |piece| match piece {
            Piece::BoltCircle(circle) => Some(*circle),
            _ => None,
        })
    }
}

impl FromStr for DateCode {
    type Err = NotationError;

    fn from_str(text: &str) -> Result<Self, NotationError> {
        let dotted;
        let text = if text.trim().len() == 4 && text.trim().bytes().all(|b| b.is_ascii_digit()) {
            dotted = format!("DOT {}", text.trim());
            &dotted
        } else {
            text
        };
        only_piece(text, "a date code", |piece| match piece {
            Piece::DateCode(code) => Some(*code),
            _ => None,
        })
    }
}

fn whole(text: &str, what: &'static str, fits: fn(&Setup) -> bool) -> Result<Setup, NotationError> {
    let setup: Setup = text.parse()?;
    if fits(&setup) { Ok(setup) } else { Err(at_whole(text, Reason::NotPartOf(what))) }
}

fn only_piece<T>(text: &str, what: &'static str, pick: fn(&Piece) -> Option<T>) -> Result<T, NotationError> {
    let mut found = None;
    for lexed in lex(text)? {
        let picked = match &lexed.outcome {
            Ok(Piece::Gap) => continue,
            Ok(piece) => pick(piece).ok_or(Reason::NotPartOf(what)),
            Err(reason) => Err(reason.clone()),
        };
        match picked {
            Ok(_) if found.is_some() => return Err(lexed.error(text, Reason::NotPartOf(what))),
            Ok(value) => found = Some(value),
            Err(reason) => return Err(lexed.error(text, reason)),
        }
    }
    found.ok_or_else(|| at_whole(text, Reason::Empty))
}

/// An error about the text as a whole.
pub(crate) fn at_whole(text: &str, reason: Reason) -> NotationError {
    let piece: String = text.trim().chars().take(80).collect();
    NotationError { piece, span: 0..text.len(), reason }
}
