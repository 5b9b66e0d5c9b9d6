//! A whole text cut into pieces.

use std::ops::Range;

use super::scan::{EvenText, Scan};
use super::tire::{self, Beside, Read};
use super::{LONGEST_TEXT, NotationError, Reason, at_whole, wheel};
use crate::codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
use crate::date_code::DateCode;
use crate::length::Length;
use crate::tire::Size;

/// Which axle the pieces behind it belong to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum AxleTag {
    Front,
    Rear,
    Both,
}

/// One recognised piece.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Piece {
    /// Blanks, separators, line ends.
    Gap,
    /// A word people put between the pieces ("with", "on").
    Filler,
    /// A word that says nothing about a setup and carries no figures.
    LeftAside,
    Axle(AxleTag),
    WheelSize(RimDiameter, RimWidth),
    Offset(Offset),
    Backspacing(Length),
    BoltCircle(BoltCircle),
    CenterBore(CenterBore),
    Tire {
        size: Size,
        run_flat: bool,
    },
    Beside(Beside),
    Spacer(Spacer),
    DateCode(DateCode),
}

/// A stretch of the text and what it was read as. All stretches together are the text.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Lexed {
    pub(crate) span: Range<usize>,
    pub(crate) outcome: Result<Piece, Reason>,
}

impl Lexed {
    /// An error about this stretch.
    pub(crate) fn error(&self, text: &str, reason: Reason) -> NotationError {
        let piece = text.get(self.span.clone()).unwrap_or_default().trim().to_owned();
        NotationError { piece, span: self.span.clone(), reason }
    }
}

/// Cuts a text into pieces. Fails only for a text that is too long to be one.
pub(crate) fn lex(text: &str) -> Result<Vec<Lexed>, NotationError> {
    if text.len() > LONGEST_TEXT {
        return Err(at_whole(text, Reason::TooLong));
    }
    let even = EvenText::new(text);
    let mut scan = even.start();
    let mut pieces = Vec::with_capacity(12);
    let mut after_tire = false;
    while !scan.is_at_end() {
        let (outcome, end) = match piece(scan, after_tire) {
            Ok(Some((piece, end))) => (Ok(piece), end),
            Ok(None) => rest(scan),
            Err((reason, end)) => (Err(reason), end.piece_end()),
        };
        // A fraction written as one sign ends where it began; every stretch takes at least that sign.
        let end = if end.byte() > scan.byte() { end } else { scan.skip(1).piece_end() };
        if outcome != Ok(Piece::Gap) {
            after_tire = matches!(outcome, Ok(Piece::Tire { .. } | Piece::Beside(_)));
        }
        pieces.push(Lexed { span: scan.byte()..end.byte(), outcome });
        scan = end;
    }
    Ok(pieces)
}

/// The readers that may begin with this sign, in turn. The order matters where one notation begins like
/// another.
fn piece(scan: Scan<'_>, after_tire: bool) -> Read<'_, Piece> {
    macro_rules! first_of {
        ($($read:expr => $make:expr),+ $(,)?) => {
            $(if let Some((value, end)) = $read? { return Ok(Some(($make(value), end))); })+
        };
    }
    match scan.peek() {
        Some(c) if c.is_ascii_digit() => {
            first_of! {
                tire::service(scan) => Piece::Beside,
                tire_size(scan) => |(size, run_flat)| Piece::Tire { size, run_flat },
                wheel::wheel_size(scan) => |(diameter, width)| Piece::WheelSize(diameter, width),
                wheel::spacer(scan) => Piece::Spacer,
                wheel::bolt_circle(scan) => Piece::BoltCircle,
                wheel::backspacing(scan) => Piece::Backspacing,
            }
        }
        Some('+' | '-') => {
            first_of! {
                wheel::offset(scan) => Piece::Offset,
                wheel::spacer(scan) => Piece::Spacer,
            }
        }
        Some('(') => {
            first_of! { tire::service(scan) => Piece::Beside }
        }
        Some('ø') => {
            first_of! { wheel::center_bore(scan) => Piece::CenterBore }
        }
        Some(c) if c.is_alphabetic() => {
            if let Some(found) = axle_tag(scan) {
                return Ok(Some(found));
            }
            first_of! {
                wheel::offset(scan) => Piece::Offset,
                wheel::spacer(scan) => Piece::Spacer,
                wheel::backspacing(scan) => Piece::Backspacing,
                wheel::center_bore(scan) => Piece::CenterBore,
                wheel::date_code(scan) => Piece::DateCode,
                tire::mark(scan, after_tire) => Piece::Beside,
                tire_size(scan) => |(size, run_flat)| Piece::Tire { size, run_flat },
                wheel::bolt_circle(scan) => Piece::BoltCircle,
            }
        }
        _ => {}
    }
    Ok(None)
}

/// A tire size that nothing runs into, but what may stand beside a size ("225/45R17XL").
fn tire_size(scan: Scan<'_>) -> Read<'_, (Size, bool)> {
    match tire::tire_size(scan)? {
        Some((_, end)) if !end.at_number_end() => Err((Reason::Unknown, end.piece_end())),
        Some((_, end)) if !end.at_word_end() && tire::mark(end, true)?.is_none() => {
            Err((Reason::Unknown, end.piece_end()))
        }
        found => Ok(found),
    }
}

fn axle_tag(scan: Scan<'_>) -> Option<(Piece, Scan<'_>)> {
    let both: &[&str] = &[
        "front and rear",
        "front & rear",
        "front + rear",
        "front/rear",
        "both axles",
        "both",
        "all four",
        "all round",
    ];
    let words: [(&[&str], AxleTag); 3] =
        [(both, AxleTag::Both), (&["fronts", "front"], AxleTag::Front), (&["rears", "rear"], AxleTag::Rear)];
    for (names, tag) in words {
        if let Some(end) = scan.eat_word(names) {
            let end = end.blanks().eat_any(&[":", "="]).unwrap_or(end);
            return Some((Piece::Axle(tag), end));
        }
    }
    // A single letter needs its colon: "R" alone may be a symbol or a slip.
    let letters = [("f+r", AxleTag::Both), ("f", AxleTag::Front), ("r", AxleTag::Rear)];
    letters.into_iter().find_map(|(letter, tag)| {
        let end = scan.eat(letter)?.blanks().eat_any(&[":", "="])?;
        Some((Piece::Axle(tag), end))
    })
}

const FILLERS: &[&str] = &[
    "with", "and", "on", "in", "at", "a", "an", "the", "of", "set", "wheel", "wheels", "rim", "rims", "tire",
    "tires", "tyre", "tyres", "mm", "pcs", "each", "axle", "size", "new", "used",
];

/// What no reader took: a gap, a filler, a word left aside, or a fault when it carries figures.
fn rest(scan: Scan<'_>) -> (Result<Piece, Reason>, Scan<'_>) {
    let mut end = scan;
    while end.peek().is_some_and(|c| !c.is_alphanumeric())
        && (end.byte() == scan.byte() || !starts_piece(end))
    {
        end = end.skip(1);
    }
    if end.byte() > scan.byte() {
        return (Ok(Piece::Gap), end);
    }
    if let Some(end) = scan.eat_word(FILLERS) {
        return (Ok(Piece::Filler), end);
    }
    let end = scan.piece_end();
    let mut walk = scan;
    while walk.byte() < end.byte() {
        if walk.peek().is_some_and(|c| c.is_ascii_digit()) {
            return (Err(Reason::Unknown), end);
        }
        walk = walk.skip(1);
    }
    (Ok(Piece::LeftAside), end)
}

/// Whether a sign that looks like a separator begins a piece: "(94Y)", "+35", "-12", "ø67.1".
fn starts_piece(scan: Scan<'_>) -> bool {
    matches!(scan.peek(), Some('(' | '+' | '-' | 'ø')) && !matches!(piece(scan, false), Ok(None))
}
