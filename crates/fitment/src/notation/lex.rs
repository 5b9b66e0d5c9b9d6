//! A whole text cut into pieces.

use std::ops::Range;

use super::axle::{self, AxleTag, NamedBy};
use super::hub::{self, Drilling};
use super::normalize::EvenText;
use super::offset::{self, Unit, unit};
use super::scan::Scan;
use super::service_description::{self, Beside};
use super::spacer::{self, Spacing};
use super::tire_size::{self, Read, Sized, TireSize};
use super::wheel_size::{self, WheelSize};
use super::{LONGEST_TEXT, NotationError, Reason, at_whole, ignored_text, words};
use crate::parts::tire::Size;
use crate::values::codes::{CenterBore, Offset};
use crate::values::date_code::DateCode;
use crate::values::length::Length;

/// One recognised piece.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Piece {
    /// Blanks, separators, line ends.
    Gap,
    /// A word people put between the pieces ("with", "on").
    Filler,
    /// A word, a name or a quantity that says nothing about a setup.
    LeftAside,
    Axle(AxleTag),
    Wheel(WheelSize),
    Offset(Offset),
    Backspacing(Length),
    Drilling(Drilling),
    /// A bolt circle's diameter in millimetres, the count stands elsewhere.
    CircleAlone(f64),
    /// A number of fasteners, the circle stands elsewhere.
    CountAlone(u8),
    CenterBore {
        bore: CenterBore,
        /// Nobody wrote what the figure is; behind a bolt circle it is the bore.
        assumed: bool,
    },
    CenterLock,
    Tire(TireSize),
    /// `245/40`: the wheel or the other tire says the rim code.
    TireWithoutRim {
        section: u32,
        aspect: u32,
    },
    Beside(Beside),
    Spacing(Spacing),
    DateCode(DateCode),
    /// A figure that nobody said what it is of. What stands round it decides, or it is asked.
    Figure {
        value: f64,
        decimals: usize,
        unit: Unit,
    },
}

impl Piece {
    /// Whether it says something about a setup.
    pub(crate) fn counts(&self) -> bool {
        !matches!(self, Self::Gap | Self::Filler | Self::LeftAside)
    }
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

/// What was read so far, as far as it decides how the next piece is read.
#[derive(Debug, Clone, Copy, Default)]
struct Before {
    /// The tire whose marks may follow.
    tire: Option<Size>,
    /// Its load index and speed symbol were said.
    service: bool,
    /// Directly behind a wheel's size.
    wheel: bool,
    /// That size ended in a hump mark.
    hump: bool,
    /// Directly behind a name: what follows may be its number ("Frostal 8").
    name: bool,
    letters_name_axles: NamedBy,
    /// What may be said again of the other axle behind a slash: "19x8.5/9.5", "ET35/40".
    pair: Option<PairOf>,
    /// That slash stands right before.
    slash: bool,
}

/// Of what a second figure may be.
#[derive(Debug, Clone, Copy, PartialEq)]
enum PairOf {
    /// A wheel of this size: the other one's width.
    Width(WheelSize),
    /// The other one's offset.
    Offset,
}

/// Cuts a text into pieces. Fails only for a text that is too long to be one.
pub(crate) fn lex(text: &str) -> Result<Vec<Lexed>, NotationError> {
    if text.len() > LONGEST_TEXT {
        return Err(at_whole(text, Reason::TooLong));
    }
    let even = EvenText::new(text);
    let mut scan = even.start();
    // The line of one axle with all there is to say of it.
    let mut pieces: Vec<Lexed> = Vec::with_capacity(14);
    let mut before = Before { letters_name_axles: NamedBy::of(scan), ..Before::default() };
    while !scan.is_at_end() {
        let (outcome, end) = match piece(scan, before) {
            Ok(Some((piece, end))) => (Ok(piece), end),
            Ok(None) => rest(scan, before),
            Err((reason, end)) => (Err(reason), end.piece_end()),
        };
        // A fraction written as one sign ends where it began; every stretch takes at least that sign.
        let end = if end.byte() > scan.byte() { end } else { scan.skip(1).piece_end() };
        let end = if end.byte() > scan.byte() { end } else { scan.skip(1) };
        before.follow(scan, end, &outcome);
        pieces.push(Lexed { span: scan.byte()..end.byte().max(scan.byte()), outcome });
        scan = end;
    }
    Ok(pieces)
}

impl Before {
    fn follow(&mut self, scan: Scan<'_>, end: Scan<'_>, outcome: &Result<Piece, Reason>) {
        let was_pair = self.pair.take();
        let is_slash = matches!(outcome, Ok(Piece::Gap))
            && scan.blanks().eat("/").is_some_and(|past| past.blanks().byte() == end.byte());
        self.follow_piece(scan, end, outcome);
        self.slash = is_slash;
        self.pair = match outcome {
            Ok(Piece::Wheel(size)) if size.width.is_some() && size.diameter.is_some() => {
                Some(PairOf::Width(*size))
            }
            Ok(Piece::Offset(_)) => Some(PairOf::Offset),
            Ok(Piece::Gap) if is_slash => was_pair,
            _ => None,
        };
    }

    fn follow_piece(&mut self, scan: Scan<'_>, end: Scan<'_>, outcome: &Result<Piece, Reason>) {
        match outcome {
            // A separator ends what a name or a wheel's size announces; blanks and brackets do not.
            Ok(Piece::Gap) => {
                let mut at = scan;
                while at.byte() < end.byte() {
                    if !matches!(at.peek(), Some(' ' | '(' | ')' | '-' | '"' | '\'')) {
                        self.name = false;
                    }
                    at = at.skip(1);
                }
            }
            Ok(Piece::Filler) => self.name = false,
            Ok(Piece::LeftAside) => {
                self.name = scan.is_capital() && scan.peek().is_some_and(char::is_alphabetic);
                self.wheel = false;
            }
            Ok(Piece::Wheel(size)) => {
                *self = Self {
                    wheel: true,
                    hump: size.ends_in_hump,
                    letters_name_axles: self.letters_name_axles,
                    ..Self::default()
                };
            }
            Ok(Piece::Tire(tire)) => {
                *self = Self {
                    tire: Some(tire.size),
                    letters_name_axles: self.letters_name_axles,
                    ..Self::default()
                };
            }
            Ok(Piece::Beside(beside)) => {
                self.name = false;
                self.service |= matches!(beside, Beside::Service(_));
            }
            Ok(Piece::DateCode(_)) => self.name = false,
            _ => *self = Self { letters_name_axles: self.letters_name_axles, ..Self::default() },
        }
    }
}

/// The readers that may begin with this sign, in turn. The order matters where one notation begins like another.
fn piece(scan: Scan<'_>, before: Before) -> Read<'_, Piece> {
    macro_rules! first_of {
        ($($read:expr => $make:expr),+ $(,)?) => {
            $(if let Some((value, end)) = $read? { return Ok(Some(($make(value), end))); })+
        };
    }
    let bore = |bore| Piece::CenterBore { bore, assumed: false };
    if let Some(found) = second_of_a_pair(scan, before) {
        return Ok(Some(found));
    }
    match scan.peek() {
        Some(c) if c.is_ascii_digit() => {
            first_of! {
                service_description::service(scan, before.tire.is_some()) => Piece::Beside,
            }
            first_of! { tire(scan) => |piece| piece }
            if let Some(end) = ignored_text::left_aside(scan) {
                return Ok(Some((Piece::LeftAside, end)));
            }
            first_of! {
                service_description::ply_rating(scan) => Piece::Beside,
                spacer::spacer(scan) => Piece::Spacing,
                offset::backspacing(scan) => Piece::Backspacing,
                wheel_size::wheel_size(scan) => Piece::Wheel,
                hub::drilling(scan) => Piece::Drilling,
                wheel_size::bare_figures(scan) => Piece::Wheel,
                hub::count_alone(scan) => Piece::CountAlone,
                hub::center_bore(scan) => bore,
                offset::offset(scan, before.wheel) => Piece::Offset,
            }
            if !before.name {
                first_of! { wheel_size::one_figure(scan) => Piece::Wheel }
            }
            if let Some(end) = scan.eat_word(&["3pmsf", "3-pmsf"]) {
                return Ok(Some((Piece::Beside(Beside::Snowflake), end)));
            }
        }
        Some('+' | '-') => {
            if before.hump && scan.peek() == Some('-') {
                first_of! { offset::dash_behind_hump(scan) => Piece::Offset }
            }
            if let Some(end) = scan.eat("-").and_then(|_| ignored_text::left_aside(scan)) {
                return Ok(Some((Piece::LeftAside, end)));
            }
            first_of! {
                spacer::spacer(scan) => Piece::Spacing,
                offset::offset(scan, before.wheel) => Piece::Offset,
            }
        }
        Some('(') => {
            if let Some((tag, end)) = axle::tag(scan, NamedBy::Nothing) {
                return Ok(Some((Piece::Axle(tag), end)));
            }
            let service = service_description::service(scan, before.tire.is_some())?;
            match service {
                // In brackets behind a service description stands an additional one.
                Some((_, end)) if before.service => return Ok(Some((Piece::LeftAside, end))),
                Some((beside, end)) => return Ok(Some((Piece::Beside(beside), end))),
                None => {}
            }
            if let Some(end) = ignored_text::left_aside(scan) {
                return Ok(Some((Piece::LeftAside, end)));
            }
        }
        Some('*') => {
            first_of! { service_description::mark(scan, before.tire.as_ref()) => Piece::Beside }
        }
        Some('$' | '€' | '£' | '#') => {
            if let Some(end) = ignored_text::left_aside(scan) {
                return Ok(Some((Piece::LeftAside, end)));
            }
        }
        Some(c) if c.is_alphabetic() || c == 'ø' => {
            first_of! {
                service_description::labelled_service(scan) => Piece::Beside,
                service_description::service_turned_round(scan, before.tire.is_some()) => Piece::Beside,
            }
            first_of! { service_description::service_or_range_letter(scan, before.tire.as_ref(), before.letters_name_axles == NamedBy::Letters) => Piece::Beside }
            if let Some((tag, end)) = axle::tag(scan, before.letters_name_axles) {
                return Ok(Some((Piece::Axle(tag), end)));
            }
            if let Some(end) = hub::center_lock(scan) {
                return Ok(Some((Piece::CenterLock, end)));
            }
            first_of! {
                offset::offset(scan, before.wheel) => Piece::Offset,
                spacer::spacer(scan) => Piece::Spacing,
                offset::backspacing(scan) => Piece::Backspacing,
                hub::center_bore(scan) => bore,
                spacer::date_code(scan) => Piece::DateCode,
            }
            if let Some(end) = ignored_text::left_aside(scan) {
                return Ok(Some((Piece::LeftAside, end)));
            }
            first_of! {
                service_description::mark(scan, before.tire.as_ref()) => Piece::Beside,
                tire(scan) => |piece| piece,
                hub::drilling(scan) => Piece::Drilling,
                hub::circle_alone(scan) => Piece::CircleAlone,
                hub::count_alone(scan) => Piece::CountAlone,
                wheel_size::one_figure(scan) => Piece::Wheel,
            }
            if matches!(scan.peek(), Some('r' | 'w')) {
                first_of! { wheel_size::wheel_size(scan) => Piece::Wheel }
            }
        }
        _ => {}
    }
    Ok(None)
}

/// "19x8.5/9.5", "ET35/40": what stands behind the slash is the other axle's.
fn second_of_a_pair(scan: Scan<'_>, before: Before) -> Option<(Piece, Scan<'_>)> {
    let of = before.pair.filter(|_| before.slash)?;
    let (number, end) = scan.number_with_fraction()?;
    if !end.at_word_end() || matches!(end.peek(), Some('/' | '"' | '-')) || end.blanks().peek() == Some('x') {
        return None;
    }
    match of {
        PairOf::Width(size) if (4.0..=14.0).contains(&number.value) => {
            let width = crate::values::codes::RimWidth::from_code(number.value)?;
            Some((Piece::Wheel(WheelSize { width: Some(width), ..size }), end))
        }
        PairOf::Offset if number.decimals == 0 && number.value <= 80.0 => {
            Some((Piece::Offset(Offset::from_mm(number.value)?), end))
        }
        PairOf::Width(_) | PairOf::Offset => None,
    }
}

/// A tire size that nothing runs into, but what may stand beside a size ("225/45R17XL", "265/35R18x9.5").
fn tire(scan: Scan<'_>) -> Read<'_, Piece> {
    match tire_size::tire_size(scan)? {
        Some((Sized::Whole(found), end)) => {
            let next_is_a_piece = || {
                let width = end.peek() == Some('x') && end.skip(1).number().is_some();
                // "225/45r17XL94W": a mark, and the service run into it.
                let run_in = end.eat_any(&["xl", "sl"]).is_some_and(|at| at.digits() > 0);
                Ok(width || run_in || service_description::mark(end, Some(&found.size))?.is_some())
            };
            if !end.at_number_end() || !end.at_word_end() && !next_is_a_piece()? {
                return Err((Reason::Unknown, end.piece_end()));
            }
            // In "265/35R18x9.5" the rim code is the wheel's too: the width follows it.
            Ok(Some((Piece::Tire(found), end)))
        }
        Some((Sized::WithoutRim { section, aspect }, end)) => {
            Ok(Some((Piece::TireWithoutRim { section, aspect }, end)))
        }
        None => Ok(None),
    }
}

/// What no reader took: a gap, a filler, a name, a figure, or a fault when it mixes figures and letters.
fn rest(scan: Scan<'_>, before: Before) -> (Result<Piece, Reason>, Scan<'_>) {
    // "265/35R18x9.5": the rim's width behind the tire's code.
    if before.tire.is_some()
        && let Some(at) = scan.eat("x")
        && let Some((number, end)) = at.number_with_fraction()
        && end.at_word_end()
    {
        let width = crate::values::codes::RimWidth::from_code(number.value);
        let size = WheelSize { diameter: None, width, offset: None, ends_in_hump: false };
        return (if width.is_some() { Ok(Piece::Wheel(size)) } else { Err(Reason::Unknown) }, end);
    }
    let mut end = scan;
    while !end.is_at_end() && end.at_word_end() && (end.byte() == scan.byte() || !starts_piece(end, before)) {
        end = end.skip(1);
    }
    if end.byte() > scan.byte() {
        return (Ok(Piece::Gap), end);
    }
    // "ET" that says no figure is an offset left out; in other languages the small word is "and".
    if scan.is_capital() && scan.eat("et").is_some_and(|after| after.at_word_end() || before.wheel) {
        return (Err(Reason::Missing("the offset's figure")), scan.piece_end());
    }
    if let Some(end) = scan.eat_known(&words::FILLERS) {
        return (Ok(Piece::Filler), end);
    }
    let end = scan.piece_end();
    if scan.peek().is_some_and(|c| c.is_ascii_digit()) {
        return figure(scan, before);
    }
    // "E735" behind a wheel's size is its offset misread, rather than a name.
    let misread = before.wheel
        && scan.peek() == Some('e')
        && (1..=2).any(|n| scan.skip(n).digits() >= 2 && scan.skip(n + scan.skip(n).digits()).at_word_end());
    if misread {
        return (Err(Reason::Unknown), end);
    }
    // Words and names, with the figures that belong to them ("RX-4S", "K052").
    (Ok(Piece::LeftAside), end)
}

/// A figure that no reader took.
fn figure(scan: Scan<'_>, before: Before) -> (Result<Piece, Reason>, Scan<'_>) {
    let whole = scan.piece_end();
    let Some((number, after)) = scan.number_with_fraction() else { return (Err(Reason::Unknown), whole) };
    let (unit, end) = unit(after);
    // "Frostal 8", "Tour 4S"; a length behind a name is no part of it.
    if before.name && unit == Unit::None {
        return (Ok(Piece::LeftAside), whole);
    }
    // "380 mm rotors", "2.5in lift": the word behind it says what it is of.
    let noun = end.blanks().word().is_some_and(|(past, _)| {
        let at = end.blanks();
        at.eat_known(&words::FILLERS).is_none()
            && axle::tag(at, NamedBy::Nothing).is_none()
            && matches!(piece(at, Before::default()), Ok(None) | Ok(Some((Piece::LeftAside, _))))
            && past.byte() > at.byte()
    });
    let year = number.whole().is_some_and(|year| number.figures == 4 && (1950..2040).contains(&year));
    if noun && (unit != Unit::None || year) {
        return (Ok(Piece::LeftAside), end);
    }
    let goes_on = end.peek() == Some('/') && end.skip(1).digits() > 0;
    if !end.at_word_end() || !end.at_number_end() || goes_on {
        return (Err(Reason::Unknown), whole);
    }
    (Ok(Piece::Figure { value: number.value, decimals: number.decimals, unit }), end)
}

/// Whether a sign that looks like a separator begins a piece: "(94Y)", "+35", "-12", "ø67.1".
fn starts_piece(scan: Scan<'_>, before: Before) -> bool {
    matches!(scan.peek(), Some('(' | '+' | '-' | 'ø' | '*' | '#' | '$' | '€' | '£'))
        && !matches!(piece(scan, before), Ok(None))
}
