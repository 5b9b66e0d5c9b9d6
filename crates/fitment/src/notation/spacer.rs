//! Reading spacers and date codes.

use super::Reason;
use super::offset::{Unit, unit};
use super::scan::Scan;
use super::tire_size::Read;
use super::words;
use crate::values::codes::Spacer;
use crate::values::date_code::{DateCode, LAST_YEAR_READ};
use crate::values::length::MM_PER_INCH;

/// What a text says of spacers.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Spacing {
    /// One thickness.
    One(Spacer),
    /// `15/20 spacers`: front and rear.
    Pair(Spacer, Spacer),
    /// "no spacers", "0 mm spacer".
    None,
    /// The word without a figure: figures may follow, axle by axle.
    Word,
}

/// `5 mm spacer`, `spacer 5`, `+5mm spacers`, `1/4" spacer`, `15/20 spacers`, `25 mm bolt-on spacers`.
pub(super) fn spacer(start: Scan<'_>) -> Read<'_, Spacing> {
    if let Some(end) = ["no ", "without ", "w/o ", "ohne ", "sans ", "zero "]
        .iter()
        .find_map(|word| start.eat(word)?.blanks().eat_known(&words::SPACER))
    {
        return Ok(Some((Spacing::None, end)));
    }
    if let Some(end) = start.eat_known(&words::SPACER) {
        let after = start.eat_known_label(&words::SPACER).unwrap_or(end);
        if let Some(end) = after.eat_word(&["none", "no", "keine"]) {
            return Ok(Some((Spacing::None, end)));
        }
        return match thickness(after) {
            Some((first, past)) => finish(start, first, None, past),
            None => Ok(Some((Spacing::Word, end))),
        };
    }
    if let Some(after) = start.eat_known_label(&words::SPACER) {
        return match thickness(after) {
            Some((first, past)) => finish(start, first, None, past),
            None => Ok(None),
        };
    }
    let negative = start.eat("-");
    let signed = negative.or_else(|| start.eat("+")).unwrap_or(start);
    let Some((first, after)) = thickness(signed) else { return Ok(None) };
    let (second, after) = match after.eat("/").and_then(thickness) {
        Some((second, past)) => (Some(second), past),
        None => (None, after),
    };
    let (range, after) =
        match after.blanks().eat_any(&["to ", "bis ", "or ", "- "]).map(Scan::blanks).and_then(thickness) {
            Some((other, past)) => (Some(other), past),
            None => (None, after),
        };
    let mut at = after.blanks();
    while let Some(past) = at.eat_known(&words::SPACER_KIND) {
        at = past.blanks();
    }
    let Some(end) = at.eat_known(&words::SPACER) else { return Ok(None) };
    if let Some(other) = range {
        let choices = [format!("{} mm spacer", first.mm), format!("{} mm spacer", other.mm)];
        return Err((Reason::which("a range of spacers: which one?", choices), end));
    }
    if negative.is_some() && first.mm > 0.0 {
        let choices = [format!("{} mm spacer", first.mm), "0 mm spacer".to_owned()];
        return Err((
            Reason::which("a spacer moves a wheel out, never in: is the dash only a separator?", choices),
            end,
        ));
    }
    finish(start, first, second, end)
}

fn finish<'t>(
    start: Scan<'t>,
    first: Thickness,
    second: Option<Thickness>,
    end: Scan<'t>,
) -> Read<'t, Spacing> {
    let total = end.blanks().eat_known(&words::IN_TOTAL);
    if let Some(past) = total {
        let choices = [format!("{} mm spacer", first.mm / 2.0), format!("{} mm spacer", first.mm)];
        return Err((Reason::which("for both sides together, or at each wheel?", choices), past));
    }
    let end = end
        .blanks()
        .eat_known(&words::SPACER)
        .filter(|_| start.eat_known_label(&words::SPACER).is_none())
        .unwrap_or(end);
    let spacer = |thickness: Thickness| {
        Spacer::from_mm(thickness.mm).ok_or_else(|| {
            let value = format!("{} mm", thickness.mm);
            (Reason::OutOfRange { what: "spacer", value, low: 0.01, high: Spacer::MAX_MM }, end)
        })
    };
    if first.mm == 0.0 && second.is_none() {
        return Ok(Some((Spacing::None, end)));
    }
    match second {
        Some(second) => Ok(Some((Spacing::Pair(spacer(first)?, spacer(second)?), end))),
        None => Ok(Some((Spacing::One(spacer(first)?), end))),
    }
}

#[derive(Debug, Clone, Copy)]
struct Thickness {
    mm: f64,
}

/// A thickness with its unit, also as a fraction of an inch.
fn thickness(scan: Scan<'_>) -> Option<(Thickness, Scan<'_>)> {
    for (words, inches) in
        [("half inch", 0.5), ("half an inch", 0.5), ("quarter inch", 0.25), ("one inch", 1.0)]
    {
        if let Some(end) = scan.eat_word(&[words]) {
            return Some((Thickness { mm: inches * MM_PER_INCH }, end));
        }
    }
    let (number, after) = scan.number()?;
    if let Some(below) = after.eat("/")
        && let Some((divisor, end)) = below.number()
        && divisor.value > 0.0
        && let (Unit::Inches, end) = unit(end)
    {
        return Some((Thickness { mm: number.value / divisor.value * MM_PER_INCH }, end));
    }
    let (written_unit, end) = unit(after);
    let mm = if written_unit == Unit::Inches { number.value * MM_PER_INCH } else { number.value };
    Some((Thickness { mm }, end))
}

/// `DOT 2325`, `DOT XY12 AB34 2325`, `DOT 23/25`, `KW23/2025`: week and year.
pub(super) fn date_code(start: Scan<'_>) -> Read<'_, DateCode> {
    let week = start
        .eat("kw")
        .map(Scan::blanks)
        .filter(|after| after.digits() == 2 && after.skip(2).peek() == Some('/'));
    if let Some(found) = in_words(start) {
        return found;
    }
    let Some(mut scan) = start.eat_label(&["dot", "date code"]).or(week) else { return Ok(None) };
    // Plant and maker's codes stand before the date; none of them is four bare figures.
    for _ in 0..5 {
        let parted = scan.digits() == 2 && scan.skip(2).peek() == Some('/');
        let year = scan.skip(3);
        if parted && matches!(year.digits(), 2 | 4) && year.skip(year.digits()).at_word_end() {
            let year_at = if year.digits() == 4 { year.skip(2) } else { year };
            return coded(scan.two_digits(), year_at.two_digits(), year_at.skip(2));
        }
        match scan.digits() {
            4 if scan.skip(4).at_word_end() => {
                return coded(scan.two_digits(), scan.skip(2).two_digits(), scan.skip(4));
            }
            3 if scan.skip(3).at_word_end() => return Err((Reason::BeforeTwoThousand, scan.skip(3))),
            _ => {}
        }
        let word_end = (0..).take_while(|n| scan.peek_at(*n).is_some_and(char::is_alphanumeric)).count();
        if word_end == 0 {
            break;
        }
        scan = scan.skip(word_end).blanks();
    }
    Err((Reason::Missing("the four-figure date code"), scan.piece_end()))
}

/// "week 23 2025", "KW 5 of 2024": `None` where it is not so.
fn in_words<'t>(start: Scan<'t>) -> Option<Read<'t, DateCode>> {
    let at = start.eat_label(&["week", "wk", "kw", "woche", "semaine", "settimana", "semana"])?;
    let (week, after) = at.number().filter(|(week, _)| week.figures <= 2 && week.decimals == 0)?;
    let after = after.blanks();
    let after = after.eat_any(&["/", "of ", "-"]).unwrap_or(after).blanks();
    let (year, end) = after.number().filter(|(year, end)| year.figures == 4 && end.at_word_end())?;
    let (week, year) = (week.whole()?, year.whole()?);
    (1990..2100).contains(&year).then(|| coded(week, year % 100, end))
}

fn coded(week: u32, year: u32, end: Scan<'_>) -> Read<'_, DateCode> {
    // A code of four figures began with the year 2000; "99" is an older tire with a figure too many.
    if year > LAST_YEAR_READ {
        return Err((Reason::BeforeTwoThousand, end));
    }
    DateCode::new(week, 2000 + year).map(|code| Some((code, end))).ok_or_else(|| {
        let value = format!("{week:02}");
        (Reason::OutOfRange { what: "week", value, low: 1.0, high: 53.0 }, end)
    })
}
