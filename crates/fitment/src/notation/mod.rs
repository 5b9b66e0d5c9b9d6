//! Reading sizes as people write, type, say and paste them.
//!
//! - `even`, `spoken`: the text made even (`×` is x, `8½` is 8.5, "eighteen" is 18). `scan`: a cursor over it.
//! - `tire_size`, `beside`, `wheel_size`, `offset`, `hub`, `spacer`, `axle`: one function per notation. Each answers
//!   "not mine", "mine" or "mine, but wrong".
//! - `words`: what the pieces are called, in the languages that messages and price lists come in.
//! - `aside`: what stands beside a setup and is no part of it: quantities, money, measured things.
//! - `lex`: a whole text cut into pieces, gaps, what is left aside, and faults.
//!
//! What is not here: which axle a piece belongs to and what the pieces make together, and therefore the reading of whole
//! sizes. That is [`crate::setup::line`].
//!
//! A wrong size is refused with the place and the reason, a doubtful one asked. It is never guessed at.

mod axle;
mod hub;
mod ignored_text;
mod lex;
mod normalize;
mod offset;
mod placed;
mod scan;
mod service_description;
mod spacer;
mod spoken;
mod tire_size;
mod wheel_size;
mod words;

use std::fmt;
use std::ops::Range;
use std::str::FromStr;

pub(crate) use axle::{AxleTag, Axles};
pub(crate) use hub::Drilling;
pub(crate) use lex::{Lexed, Piece, lex};
pub(crate) use offset::Unit;
pub(crate) use service_description::Beside;
pub(crate) use spacer::Spacing;
pub(crate) use tire_size::TireSize;

use crate::values::date_code::DateCode;

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
    /// A size that goes on no car.
    #[error("{0}")]
    NotForACar(&'static str),
    /// A date code of three figures, or with a year that lies ahead of every tire.
    #[error("was made before 2000: codes have four figures since; not for use")]
    BeforeTwoThousand,
    /// A letter that is no speed symbol.
    #[error("speed symbol {0} is not one of F G J K L M N P Q R S T U H V W Y (Y)")]
    UnknownSpeedSymbol(String),
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
    /// It can be read in more than one way, and nothing in the text says which is meant.
    #[error("{question}")]
    WhichDoYouMean {
        /// What must be known.
        question: String,
        /// What may stand in its place, each a text that is read without a question.
        choices: Vec<String>,
    },
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
    pub(crate) const SPARE: Self = Self::NotForACar(
        "a temporary spare: 420 kPa, 80 km/h, for the way to the workshop and not for a plan",
    );
    pub(crate) const TRAILER: Self = Self::NotForACar("a trailer tire: not for a car");
    pub(crate) const MOTORCYCLE: Self = Self::NotForACar("a motorcycle tire: not for a car");
    pub(crate) const FARM: Self = Self::NotForACar("a farm tire: not for a car");
    pub(crate) const TRUCK: Self = Self::NotForACar("a truck tire: not for a car");
    pub(crate) const MILLIMETRE_RIM: Self =
        Self::NotForACar("a rim in millimetres: no tire of an inch code fits it, and the other way round");

    /// A question with the texts that would answer it.
    pub(crate) fn which(question: impl Into<String>, choices: impl IntoIterator<Item = String>) -> Self {
        Self::WhichDoYouMean { question: question.into(), choices: choices.into_iter().collect() }
    }

    /// The texts that would answer a question; none for a fault.
    pub fn choices(&self) -> Option<&[String]> {
        match self {
            Self::WhichDoYouMean { choices, .. } => Some(choices),
            _ => None,
        }
    }

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
            Self::UnknownSpeedSymbol(_) | Self::DualAboveSingle { .. } => "94W, (94Y) or 121/118S",
            Self::BeforeTwoThousand => "DOT 2325",
            Self::NeedsUnit { .. } => "4.5 in bs or 114 mm bs",
            Self::Repeated(_) => "F: 18x8.5 ET35 245/40R18  R: 18x9.5 ET40 265/35R18",
            Self::RimMismatch { .. } => "18x8.5 ET35 245/40R18",
            Self::NotPartOf("a wheel") => "18x8.5 ET35 5x114.3 CB67.1",
            Self::NotPartOf("a bolt circle") => "5x114.3",
            Self::NotPartOf("a date code") => "DOT 2325",
            Self::NotForACar(_)
            | Self::NeitherRatioNorDiameter { .. }
            | Self::NoSidewall { .. }
            | Self::NotPartOf(_) => "245/40R18 97Y XL",
            _ => "18x8.5 ET35 · 245/40R18 · 5 mm spacer",
        }
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
