//! Reading offset and backspacing.

use super::Reason;
use super::scan::Scan;
use super::tire_size::Read;
use super::words;
use crate::values::codes::Offset;
use crate::values::length::Length;

/// `ET45`, `ET 45`, `+45`, `IS45`, `-12`, `plus 38`, `offset 35 mm`, `neg 12`, `35mm offset`, `zero offset`.
/// `behind_wheel`: a sign may stand apart from its figure right behind a wheel's size.
pub(super) fn offset(start: Scan<'_>, behind_wheel: bool) -> Read<'_, Offset> {
    if let Some(end) = start.eat_word(&["no offset"]) {
        let choices = ["ET0".to_owned()];
        return Err((Reason::which("an offset of zero, or none that is known?", choices), end));
    }
    if let Some(end) = start.eat_word(&["zero offset", "null offset", "neutral offset"]) {
        return Ok(Offset::from_mm(0.0).map(|offset| (offset, end)));
    }
    // "-ET38", "-offset 38": the dash parts the offset from the size.
    let start = start.eat("-").filter(|after| after.eat_label(&["et"]).is_some()).unwrap_or(start);
    // "is" and "of" are words of any sentence: labels only with their figure on them, or behind a wheel's size.
    let is_a_word = !behind_wheel && start.eat_any(&["is ", "of "]).is_some();
    let (scan, labelled) = match start.eat_known_label(&words::OFFSET).filter(|_| !is_a_word) {
        Some(after) => (after, true),
        None => (start, false),
    };
    if behind_wheel
        && !labelled
        && let Some(asked) = dash_apart(scan)
    {
        return Err(asked);
    }
    let loose = labelled || behind_wheel;
    let (sign, scan, signed) = if let Some(after) = scan.eat("+").or_else(|| scan.eat("plus ")) {
        (1.0, if loose { after.blanks() } else { after }, true)
    } else if let Some(after) =
        scan.eat("-").or_else(|| scan.eat_any(&["minus ", "negative ", "neg. ", "neg "]))
    {
        (-1.0, if labelled { after.blanks() } else { after }, true)
    } else if let Some(after) = scan.eat_any(&["positive ", "pos "]) {
        (1.0, after, true)
    } else {
        (1.0, scan, false)
    };
    let Some((number, end)) = scan.number() else { return Ok(None) };
    // "Pos 4:" is a line of an order.
    if start.eat("pos ").is_some() && end.eat_any(&[":", ")"]).is_some() {
        return Ok(None);
    }
    // "+1.5 inch offset": the unit is said, and the word behind it.
    let (number, end) = match unit(end) {
        (Unit::Inches, past)
            if past.blanks().eat_known(&words::OFFSET_BEHIND).is_some() && number.value <= 6.0 =>
        {
            (super::scan::Number { value: number.value * crate::values::length::MM_PER_INCH, ..number }, past)
        }
        _ => (number, end),
    };
    let (end, mm) = match end.blanks().eat("mm").filter(|after| after.at_word_end()) {
        Some(after) => (after, true),
        None => (end, false),
    };
    let behind = end.blanks().eat_known(&words::OFFSET_BEHIND).filter(|after| {
        // "35 offset" is one piece; in "17 ET 45" the word belongs to what follows.
        !labelled && !is_an_offset_without_its_word(after.blanks())
    });
    let negative = end.blanks().eat_word(&["negative offset", "neg offset"]).filter(|_| !labelled && !signed);
    let (sign, behind) = if negative.is_some() { (-1.0, negative) } else { (sign, behind) };
    if !labelled && !signed && behind.is_none() {
        return Ok(None);
    }
    if signed && start.byte() < end.byte() && end.blanks().eat("degree").or_else(|| end.eat("°")).is_some() {
        return Ok(None);
    }
    let end = behind.unwrap_or(end);
    // In "18x9+30/255/35/18" the slash parts the offset from a tire's size.
    let tire_follows = behind_wheel && end.peek() == Some('/') && end.skip(1).digits() >= 3;
    let part_of_more = matches!(end.peek(), Some('/' | 'x' | '"'))
        && end.peek_at(1).is_some_and(|c| c.is_ascii_digit())
        && !tire_follows;
    if !labelled
        && behind.is_none()
        && (part_of_more || end.blanks().eat_known(&words::SPACER).is_some() || !end.at_word_end())
    {
        return Ok(None);
    }
    if !end.at_word_end() || !end.at_number_end() {
        return Err((Reason::Unknown, end.piece_end()));
    }
    if let Some(second) = end.eat("-").filter(|_| !mm && behind.is_none())
        && let Some((other, past)) = second.number()
        && other.decimals == 0
        && past.at_word_end()
    {
        let choices = [format!("ET{}", sign * number.value), format!("ET{}", other.value)];
        return Err((Reason::which("a range of offsets: which one?", choices), past));
    }
    let value = sign * number.value;
    let limit = Offset::LIMIT_MM;
    Offset::from_mm(value).map(|offset| Some((offset, end))).ok_or_else(|| {
        (Reason::OutOfRange { what: "offset", value: value.to_string(), low: -limit, high: limit }, end)
    })
}

/// Whether a figure stands here that the word before it may be of: "45", "+45", ": 45"; not "18x8.5", "5/112".
fn is_an_offset_without_its_word(at: Scan<'_>) -> bool {
    let Some((_, past)) = at.number() else { return matches!(at.peek(), Some('+' | '-' | ':' | '=')) };
    let sized = past.blanks().eat_any(&["x", "/"]).or_else(|| past.eat("-"));
    sized.is_none_or(|next| next.blanks().digits() == 0)
}

/// A dash with blanks about it between a wheel's size and a figure that an offset may be: a separator to one writer, a minus to
/// another.
fn dash_apart(start: Scan<'_>) -> Option<(Reason, Scan<'_>)> {
    const LIKELY_MM: std::ops::RangeInclusive<f64> = 10.0..=80.0;
    let after = start.eat("-")?;
    let blank = after.blanks();
    let (number, end) = blank.number().filter(|_| blank.byte() > after.byte())?;
    let stands_alone = end.at_word_end() && !matches!(end.peek(), Some('/' | '"' | '-'));
    let is_in_inches = matches!(unit(end), (Unit::Inches, _));
    let is_likely = LIKELY_MM.contains(&number.value) && stands_alone && !is_in_inches;
    is_likely.then(|| (dash_or_minus(number.value), end))
}

fn dash_or_minus(mm: f64) -> Reason {
    let choices = [format!("ET{mm}"), format!("ET-{mm}")];
    Reason::which("does the dash part the offset from the size, or is it a minus?", choices)
}

/// A dash right behind a hump mark: a separator to one writer, a minus to another, and 70 to 90 mm apart.
pub(super) fn dash_behind_hump(start: Scan<'_>) -> Read<'_, Offset> {
    let Some(after) = start.eat("-") else { return Ok(None) };
    let Some((number, end)) = after.number().filter(|(_, end)| end.at_word_end()) else { return Ok(None) };
    Err((dash_or_minus(number.value), end))
}

/// A length with its unit, when one is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Unit {
    Millimetres,
    Inches,
    None,
}

pub(super) fn unit(scan: Scan<'_>) -> (Unit, Scan<'_>) {
    let blank = scan.blanks();
    if let Some(after) = blank.eat_known(&words::MILLIMETRES) {
        (Unit::Millimetres, after)
    } else if let Some(after) =
        blank.eat_known(&words::INCHES).or_else(|| blank.eat("\"").or_else(|| blank.eat("''")))
    {
        (Unit::Inches, after)
    } else {
        (Unit::None, scan)
    }
}

/// `4.5"bs`, `4.5 in bs`, `backspacing 4.5`, `115 mm bs`, `4-1/2" backspace`, `backspace of 5"`.
pub(super) fn backspacing(start: Scan<'_>) -> Read<'_, Length> {
    let (number, written_unit, end) = if let Some(after) = start.eat_known_label(&words::BACKSPACING) {
        // A label that has lost its figure is asked about, never left aside.
        let Some((number, after)) = after.number_with_fraction() else {
            return Err((Reason::Missing("the figure of the backspacing"), after));
        };
        let (written_unit, end) = unit(after);
        (number, written_unit, end)
    } else {
        let Some((number, after)) = start.number_with_fraction() else { return Ok(None) };
        let (written_unit, after) = unit(after);
        let blank = after.blanks();
        let Some(end) = blank.eat("of ").unwrap_or(blank).eat_known(&words::BACKSPACING) else {
            return Ok(None);
        };
        (number, written_unit, end)
    };
    let value = number.value;
    let out = |low, high| {
        let shown = value.to_string();
        Err((Reason::OutOfRange { what: "backspacing", value: shown, low, high }, end))
    };
    let length = match written_unit {
        Unit::Millimetres if !(0.0..=350.0).contains(&value) => return out(0.0, 350.0),
        Unit::Millimetres => Length::mm(value),
        // No rim is 20 in deep behind its face: from there on only millimetres make sense.
        Unit::None if (20.0..=350.0).contains(&value) => Length::mm(value),
        Unit::None if value > 14.0 => {
            return Err((Reason::NeedsUnit { what: "backspacing", value: value.to_string() }, end));
        }
        _ if !(0.0..=14.0).contains(&value) => return out(0.0, 14.0),
        _ => Length::inches(value),
    };
    Ok(Some((length, end)))
}
