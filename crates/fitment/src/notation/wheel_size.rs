//! Reading wheel sizes.

use super::scan::Scan;
use super::tire_size::{Read, rim_code};
use super::{Reason, words};
use crate::values::codes::{BoltCircle, Offset, RimDiameter, RimWidth};

/// What a wheel's size says: both figures, one of them, or all three in bare figures.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct WheelSize {
    pub(crate) diameter: Option<RimDiameter>,
    pub(crate) width: Option<RimWidth>,
    /// `17 8 35`: diameter, width, offset.
    pub(crate) offset: Option<Offset>,
    /// Whether a hump mark ends it: a dash behind one is no sign.
    pub(crate) ends_in_hump: bool,
}

/// `18x8.5`, `8.5x18`, `8½Jx18H2`, `18 × 8.5J`, `18 by 9 and a half`, `8.5J18`, `9.5J-19`, `R18 8.5J`, `18 in 8.5J`.
/// The larger figure is the diameter.
pub(super) fn wheel_size(start: Scan<'_>) -> Read<'_, WheelSize> {
    let start = start.eat("w").filter(|after| after.digits() > 0).unwrap_or(start);
    let first_at = start.eat("r").filter(|after| after.digits() == 2).unwrap_or(start);
    let marked_r = first_at.byte() > start.byte();
    let Some((first, after)) = first_at.number_with_fraction() else { return Ok(None) };
    let (first_j, scan) = contour(after);
    let (inch, after_unit) = inch_mark(after);
    let blank = scan.blanks();
    let joined = blank.eat("x").or_else(|| blank.eat("by "));
    let scan = match joined {
        Some(after) => after,
        // Without a sign between them a contour letter or an inch mark must say what the figures are.
        None if first_j => scan.eat("-").unwrap_or(blank),
        None if marked_r || inch => after_unit.blanks(),
        // "18/9.5": no tire is so narrow and no fraction so large.
        None if is_a_rim_code(&first) && after.peek() == Some('/') && is_a_width(after.skip(1)) => {
            after.skip(1)
        }
        // "18 8.5J": the contour letter behind says what both are.
        None if is_a_rim_code(&first) && blank.byte() > after.byte() && blank.digits() > 0 => blank,
        None => return Ok(None),
    };
    let by_slash = joined.is_none() && after.peek() == Some('/');
    let scan = scan.blanks();
    let scan = scan.eat("r").filter(|after| after.digits() == 2).unwrap_or(scan);
    let Some((second, after)) = scan.number_with_fraction() else { return Ok(None) };
    let (second_j, end) = contour(after);
    let (end, ends_in_hump) = hump(inch_mark(end).1);
    // "17x7.5s": as people speak of several.
    let end = end.eat_word(&["s"]).unwrap_or(end);
    let (a, b) = (first.value, second.value);
    let rims = RimDiameter::MIN..=RimDiameter::MAX;
    let is_spoken_for = first_j && rims.contains(&b) || second_j && rims.contains(&a) || by_slash;
    if joined.is_none() && !is_spoken_for {
        return Ok(None);
    }
    // "114.3x5" is a circle, written the other way round.
    if joined.is_some()
        && a >= BoltCircle::MIN_MM
        && b <= f64::from(BoltCircle::MAX_COUNT)
        && second.decimals == 0
    {
        return Ok(None);
    }
    if joined.is_none() && !(RimWidth::MIN..=RimWidth::MAX).contains(&if first_j { a } else { b }) {
        return Ok(None);
    }
    if !first_j && !second_j {
        let looks_like_bolt_circle = a <= f64::from(BoltCircle::MAX_COUNT) && b >= BoltCircle::MIN_MM;
        if looks_like_bolt_circle || a.max(b) < RimDiameter::MIN {
            return Ok(None);
        }
    }
    if a >= 100.0 && b >= 60.0 {
        return Err((Reason::MILLIMETRE_RIM, end.piece_end()));
    }
    // When only one of the two can be a diameter, it is, and the complaint goes to the other one.
    let (diameter, width) = match (rims.contains(&a), rims.contains(&b)) {
        (true, false) => (a, b),
        (false, true) => (b, a),
        _ => (a.max(b), a.min(b)),
    };
    let goes_on_wrong =
        end.peek().is_some_and(char::is_alphanumeric) && end.eat_any(&["et", "is", "bs", "off"]).is_none();
    if goes_on_wrong || !end.at_number_end() || end.peek() == Some('x') {
        return Err((Reason::Unknown, end.piece_end()));
    }
    let diameter = rim_code(diameter, end)?;
    if (RimWidth::MIN..=RimWidth::MAX).contains(&width) && !is_on_a_step(width) {
        return Err((Reason::OffStep { what: "rim width", value: width.to_string(), step: 0.25 }, end));
    }
    match RimWidth::from_code(width) {
        Some(width) => Ok(Some((
            WheelSize { diameter: Some(diameter), width: Some(width), offset: None, ends_in_hump },
            end,
        ))),
        None => Err((width_reason(width), end)),
    }
}

/// `17 8 35`, `17-8-35`, `18 8 and a half 35`: diameter, width and offset in bare figures.
pub(super) fn bare_figures(start: Scan<'_>) -> Read<'_, WheelSize> {
    let Some((diameter, after)) = start.number() else { return Ok(None) };
    let Some(rim) = diameter.whole().filter(|code| (13..=30).contains(code)) else { return Ok(None) };
    let parted = |scan: Scan<'_>| scan.eat_any(&["-", ";", "/", "|"]).is_some() || scan.peek() == Some(' ');
    if !parted(after) {
        return Ok(None);
    }
    let Some((width, after)) = after.skip(1).blanks().number_with_fraction() else { return Ok(None) };
    if !(4.0..=14.0).contains(&width.value) || !parted(after) {
        return Ok(None);
    }
    let Some((offset, end)) = after.skip(1).blanks().number() else { return Ok(None) };
    let Some(offset) = offset.whole().filter(|offset| (10..=75).contains(offset)) else { return Ok(None) };
    let circle_follows =
        end.eat_any(&["-", "/"]).is_some_and(|at| at.digits() == 1 && at.skip(1).peek() == Some('x'));
    if !end.at_word_end()
        || matches!(end.peek(), Some('/' | '-' | '"' | '.')) && !circle_follows
        || end.blanks().peek() == Some('x')
    {
        return Ok(None);
    }
    let diameter = RimDiameter::from_code(f64::from(rim));
    let (width, offset) = (RimWidth::from_code(width.value), Offset::from_mm(f64::from(offset)));
    Ok(Some((WheelSize { diameter, width, offset, ends_in_hump: false }, end)))
}

/// One figure of a wheel: `8.5J`, `8.5 wide`, `10.5s`, `18 inch`, `20s`, `width 8.5`, `diameter 18`.
pub(super) fn one_figure(start: Scan<'_>) -> Read<'_, WheelSize> {
    let labelled = [
        ("diameter", true),
        ("durchmesser", true),
        ("diametro", true),
        ("diametre", true),
        ("srednica", true),
        ("width", false),
        ("breite", false),
        ("canale", false),
        ("largeur", false),
        ("larghezza", false),
        ("szerokosc", false),
        ("ancho", false),
        ("リム幅", false),
    ]
    .into_iter()
    .find_map(|(word, is_diameter)| Some((start.eat_label(&[word])?, Some(is_diameter))));
    let (scan, said) = labelled.unwrap_or((start, None));
    let Some((number, after)) = scan.number_with_fraction() else { return Ok(None) };
    let (inch, past_unit) = inch_mark(after);
    let (j, past_letter) = contour(after);
    let behind = past_unit.blanks();
    let (is_diameter, end) = if let Some(is_diameter) = said {
        (is_diameter, past_unit)
    } else if let Some(end) = behind.eat_word(&["diameter"]).filter(|_| inch) {
        (true, end)
    } else if let Some(end) = behind.eat_word(&["wide", "width", "breit", "large", "larghi", "szerokie"]) {
        (false, end)
    } else if j && past_letter.at_word_end() {
        (false, hump(past_letter).0)
    } else if let Some(end) = after.eat_word(&["s", "er", "ers"]) {
        (number.value >= 13.0 && number.decimals == 0, end)
    } else if inch && number.decimals == 0 && (13.0..=RimDiameter::MAX).contains(&number.value) {
        (true, past_unit)
    } else {
        return Ok(None);
    };
    if !end.at_word_end() || !end.at_number_end() {
        return Ok(None);
    }
    if is_diameter {
        if said.is_none() && !(10.0..=RimDiameter::MAX).contains(&number.value) {
            return Ok(None);
        }
        let diameter = Some(rim_code(number.value, end)?);
        return Ok(Some((WheelSize { diameter, width: None, offset: None, ends_in_hump: false }, end)));
    }
    match RimWidth::from_code(number.value) {
        width @ Some(_) => {
            Ok(Some((WheelSize { diameter: None, width, offset: None, ends_in_hump: false }, end)))
        }
        None => Err((width_reason(number.value), end)),
    }
}

/// Whether rims are made so wide: in quarters of an inch, and some racing ones in thirds. 8.55 is a figure too many.
fn is_on_a_step(width: f64) -> bool {
    let on = |steps: f64| (width * steps - (width * steps).round()).abs() < 0.02;
    on(8.0) || on(3.0)
}

/// Whether a figure is a rim's diameter at a glance.
fn is_a_rim_code(number: &super::scan::Number) -> bool {
    number.whole().is_some_and(|code| (13..=26).contains(&code))
}

/// Whether a rim's width stands here and nothing of a tire goes on from it.
fn is_a_width(at: Scan<'_>) -> bool {
    at.number_with_fraction().is_some_and(|(number, end)| {
        (5.0..=13.5).contains(&number.value)
            && end.at_word_end()
            && !matches!(end.peek(), Some('/' | '"' | 'x'))
    })
}

fn width_reason(width: f64) -> Reason {
    let (what, value) = ("rim width", width.to_string());
    Reason::OutOfRange { what, value, low: RimWidth::MIN, high: RimWidth::MAX }
}

/// Past an inch mark or word; whether there was one.
fn inch_mark(scan: Scan<'_>) -> (bool, Scan<'_>) {
    let blank = scan.blanks();
    match scan.eat("\"").or_else(|| blank.eat_known(&words::INCHES_OF_A_RIM)) {
        Some(after) => (true, after),
        None => (false, scan),
    }
}

/// Past an inch mark and a contour letter; whether there was a letter.
fn contour(scan: Scan<'_>) -> (bool, Scan<'_>) {
    let scan = inch_mark(scan).1;
    let blank = scan.blanks();
    let ends_here = |after: Scan<'_>| {
        after.at_word_end()
            || after.peek().is_some_and(|c| matches!(c, 'x' | 'h' | 'r') || c.is_ascii_digit())
    };
    // Letters other than J stand right behind the figure: " D56" and " B" are something else.
    let letter = blank.eat("jj").or_else(|| blank.eat("jk")).or_else(|| blank.eat("j")).filter(|after| {
        !after.peek().is_some_and(|c| c.is_alphabetic() && !matches!(c, 'x' | 'h' | 'r' | 'e'))
    });
    let letter = letter.or_else(|| scan.eat_any(&["b", "k", "p"]).filter(|after| ends_here(*after)));
    match letter {
        Some(after) => (true, after),
        None => (false, scan),
    }
}

/// Past a hump mark: H, H2, EH2, EH2+, FH, CH, AH2; whether there was one.
fn hump(scan: Scan<'_>) -> (Scan<'_>, bool) {
    let blank = scan.blanks();
    let mark =
        blank.eat_any(&["eh2+", "eh2", "eh+", "eh", "ah2", "ah", "ch2", "ch", "fh2", "fh", "h2", "h1", "h"]);
    match mark.filter(|after| after.at_word_end() || after.eat("et").is_some()) {
        Some(after) => (after, true),
        None => (scan, false),
    }
}
