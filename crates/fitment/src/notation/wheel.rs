//! Reading wheel sizes, offsets, backspacing, bolt circles, bores, spacers and date codes.

use super::Reason;
use super::scan::{Number, Scan};
use super::tire::{Read, rim_code};
use crate::codes::{BoltCircle, CenterBore, Offset, RimDiameter, RimWidth, Spacer};
use crate::date_code::DateCode;
use crate::length::{Length, MM_PER_INCH};

/// `18x8.5`, `8.5x18`, `8½Jx18H2`, `18 × 8.5J`, `18 by 9 and a half`. The larger figure is the diameter.
pub(super) fn wheel_size(start: Scan<'_>) -> Read<'_, (RimDiameter, RimWidth)> {
    let Some((first, after)) = start.number_with_fraction() else { return Ok(None) };
    let (first_j, scan) = contour(after);
    let scan = scan.blanks();
    let Some(scan) = scan.eat("x").or_else(|| scan.eat("by ")) else { return Ok(None) };
    let Some((second, after)) = scan.blanks().number_with_fraction() else { return Ok(None) };
    let (second_j, end) = contour(after);
    let end = hump(end);
    let (a, b) = (first.value, second.value);
    let rims = RimDiameter::MIN..=RimDiameter::MAX;
    if !first_j && !second_j {
        let looks_like_bolt_circle = a <= f64::from(BoltCircle::MAX_COUNT) && b >= BoltCircle::MIN_MM;
        if looks_like_bolt_circle || a.max(b) < RimDiameter::MIN {
            return Ok(None);
        }
    }
    // When only one of the two can be a diameter, it is, and the complaint goes to the other one.
    let (diameter, width) = match (rims.contains(&a), rims.contains(&b)) {
        (true, false) => (a, b),
        (false, true) => (b, a),
        _ => (a.max(b), a.min(b)),
    };
    let goes_on_wrong =
        end.peek().is_some_and(char::is_alphanumeric) && end.eat_any(&["et", "is", "bs", "off"]).is_none();
    if goes_on_wrong || !end.at_number_end() {
        return Err((Reason::Unknown, end.piece_end()));
    }
    let diameter = rim_code(diameter, end)?;
    match RimWidth::from_code(width) {
        Some(width) => Ok(Some(((diameter, width), end))),
        None => Err((width_reason(width), end)),
    }
}

fn width_reason(width: f64) -> Reason {
    let (what, value) = ("rim width", width.to_string());
    let (low, high) = (RimWidth::MIN, RimWidth::MAX);
    if (low..=high).contains(&width) {
        Reason::OffStep { what, value, step: 0.25 }
    } else {
        Reason::OutOfRange { what, value, low, high }
    }
}

/// Past an inch mark and a flange letter; whether there was a letter.
fn contour(scan: Scan<'_>) -> (bool, Scan<'_>) {
    let scan = scan.eat("\"").unwrap_or(scan);
    let blank = scan.blanks();
    match blank.eat("jj").or_else(|| blank.eat("j")) {
        Some(after) => (true, after),
        None => (false, scan.eat("\"").unwrap_or(scan)),
    }
}

/// Past a hump mark: H, H2, EH2, EH2+, FH, CH.
fn hump(scan: Scan<'_>) -> Scan<'_> {
    let blank = scan.blanks();
    let mark = blank.eat_any(&["eh2+", "eh2", "h2", "fh", "ch", "h"]);
    mark.filter(|after| after.at_word_end()).unwrap_or(scan)
}

/// `ET45`, `ET 45`, `+45`, `IS45`, `-12`, `plus 38`, `offset 35 mm`.
pub(super) fn offset(start: Scan<'_>) -> Read<'_, Offset> {
    let (scan, labelled) = match start.eat_label(&["et", "is", "offset", "inset"]) {
        Some(after) => (after, true),
        None => (start, false),
    };
    let (sign, scan, signed) = if let Some(after) = scan.eat("+").or_else(|| scan.eat("plus ")) {
        (1.0, after, true)
    } else if let Some(after) = scan.eat("-").or_else(|| scan.eat("minus ")) {
        (-1.0, after, true)
    } else {
        (1.0, scan, false)
    };
    if !labelled && !signed {
        return Ok(None);
    }
    let scan = if labelled { scan.blanks() } else { scan };
    let Some((number, end)) = scan.number() else { return Ok(None) };
    let end = end.blanks().eat("mm").filter(|after| after.at_word_end()).unwrap_or(end);
    let part_of_more =
        matches!(end.peek(), Some('/' | 'x' | '"')) && end.peek_at(1).is_some_and(|c| c.is_ascii_digit());
    if !labelled && (part_of_more || end.blanks().eat("spacer").is_some() || !end.at_word_end()) {
        return Ok(None);
    }
    if !end.at_word_end() || !end.at_number_end() {
        return Err((Reason::Unknown, end.piece_end()));
    }
    let value = sign * number.value;
    let limit = Offset::LIMIT_MM;
    Offset::from_mm(value).map(|offset| Some((offset, end))).ok_or_else(|| {
        (Reason::OutOfRange { what: "offset", value: value.to_string(), low: -limit, high: limit }, end)
    })
}

/// A length with its unit, when one is written.
enum Unit {
    Millimetres,
    Inches,
    None,
}

fn unit(scan: Scan<'_>) -> (Unit, Scan<'_>) {
    let blank = scan.blanks();
    if let Some(after) = blank.eat_word(&["mm"]) {
        (Unit::Millimetres, after)
    } else if let Some(after) = blank.eat_word(&["inches", "inch", "in"]).or_else(|| blank.eat("\"")) {
        (Unit::Inches, after)
    } else {
        (Unit::None, scan)
    }
}

/// `4.5"bs`, `4.5 in bs`, `backspacing 4.5`, `115 mm bs`.
pub(super) fn backspacing(start: Scan<'_>) -> Read<'_, Length> {
    const WORDS: &[&str] = &["backspacing", "backspace", "b/s", "bs"];
    let (number, written_unit, end) = if let Some(after) = start.eat_label(WORDS) {
        let Some((number, after)) = after.number_with_fraction() else { return Ok(None) };
        let (written_unit, end) = unit(after);
        (number, written_unit, end)
    } else {
        let Some((number, after)) = start.number_with_fraction() else { return Ok(None) };
        let (written_unit, after) = unit(after);
        let Some(end) = after.blanks().eat_word(WORDS) else { return Ok(None) };
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
        Unit::None if value > 14.0 => {
            return Err((Reason::NeedsUnit { what: "backspacing", value: value.to_string() }, end));
        }
        _ if !(0.0..=14.0).contains(&value) => return out(0.0, 14.0),
        _ => Length::inches(value),
    };
    Ok(Some((length, end)))
}

/// `5x114.3`, `5/112`, `5-100`, `5x4.5in`, `PCD 5x112`. Under 10 the diameter is in inches.
pub(super) fn bolt_circle(start: Scan<'_>) -> Read<'_, BoltCircle> {
    let labelled = start.eat_label(&["pcd", "lk", "bolt circle", "bolt pattern"]);
    let scan = labelled.unwrap_or(start);
    let Some((count, after)) = scan.number() else { return Ok(None) };
    let Some(count) = count.whole() else { return Ok(None) };
    let blank = after.blanks();
    let Some(at) =
        blank.eat("x").map(Scan::blanks).or_else(|| after.eat_any(&["/", "-"])).or_else(|| blank.eat("on "))
    else {
        return Ok(None);
    };
    let Some((diameter, after)) = at.blanks().number() else { return Ok(None) };
    let (written_unit, end) = unit(after);
    let inches = match written_unit {
        Unit::Inches => true,
        Unit::Millimetres => false,
        Unit::None => (3.0..10.0).contains(&diameter.value),
    };
    let mm = if inches { diameter.value * MM_PER_INCH } else { diameter.value };
    let least_count = u32::from(BoltCircle::MIN_COUNT);
    let most_count = u32::from(BoltCircle::MAX_COUNT);
    let goes_on = matches!(end.peek(), Some('/' | 'x' | '-')) && end.skip(1).digits() > 0;
    if labelled.is_none() && (count > most_count || mm < 60.0 || !end.at_word_end() || goes_on) {
        return Ok(None);
    }
    if !(least_count..=most_count).contains(&count) {
        let (low, high) = (f64::from(least_count), f64::from(most_count));
        return Err((
            Reason::OutOfRange { what: "fastener count", value: count.to_string(), low, high },
            end,
        ));
    }
    BoltCircle::new(count as u8, mm).map(|circle| Some((circle, end))).ok_or_else(|| {
        let (low, high) = (BoltCircle::MIN_MM, BoltCircle::MAX_MM);
        (Reason::OutOfRange { what: "bolt circle", value: format!("{mm} mm"), low, high }, end)
    })
}

/// `CB67.1`, `center bore 67.1`, `Ø67.1`.
pub(super) fn center_bore(start: Scan<'_>) -> Read<'_, CenterBore> {
    const LABELS: &[&str] =
        &["cb", "c/b", "center bore", "centre bore", "hub bore", "bore", "hub", "dia", "ø"];
    let Some(scan) = start.eat_label(LABELS) else { return Ok(None) };
    let Some((number, after)) = scan.number() else { return Ok(None) };
    let end = after.blanks().eat_word(&["mm"]).unwrap_or(after);
    CenterBore::from_mm(number.value).map(|bore| Some((bore, end))).ok_or_else(|| {
        let (low, high) = (CenterBore::MIN_MM, CenterBore::MAX_MM);
        (Reason::OutOfRange { what: "center bore", value: number.value.to_string(), low, high }, end)
    })
}

/// `5 mm spacer`, `spacer 5`, `+5mm spacers`, `1/4" spacer`.
pub(super) fn spacer(start: Scan<'_>) -> Read<'_, Spacer> {
    const WORDS: &[&str] = &["spacers", "spacer"];
    let (number, written_unit, end) = if let Some(after) = start.eat_label(WORDS) {
        let after = after.eat("of ").unwrap_or(after);
        let Some((number, after)) = thickness(after) else { return Ok(None) };
        let (written_unit, end) = unit(after);
        (number, written_unit, end)
    } else {
        let Some((number, after)) = thickness(start.eat("+").unwrap_or(start)) else { return Ok(None) };
        let (written_unit, after) = unit(after);
        let Some(end) = after.blanks().eat_word(WORDS) else { return Ok(None) };
        (number, written_unit, end)
    };
    let mm = if matches!(written_unit, Unit::Inches) { number * MM_PER_INCH } else { number };
    Spacer::from_mm(mm).map(|spacer| Some((spacer, end))).ok_or_else(|| {
        let value = format!("{mm} mm");
        (Reason::OutOfRange { what: "spacer", value, low: 0.01, high: Spacer::MAX_MM }, end)
    })
}

/// A thickness, also as a fraction of an inch.
fn thickness(scan: Scan<'_>) -> Option<(f64, Scan<'_>)> {
    let (Number { value, .. }, after) = scan.number()?;
    if let Some(below) = after.eat("/")
        && let Some((divisor, end)) = below.number()
        && divisor.value > 0.0
        && matches!(unit(end).0, Unit::Inches)
    {
        return Some((value / divisor.value, end));
    }
    Some((value, after))
}

/// `DOT 2325`, `DOT XY12 AB34 2325`: four figures at the end.
pub(super) fn date_code(start: Scan<'_>) -> Read<'_, DateCode> {
    let Some(mut scan) = start.eat_label(&["dot", "date code"]) else { return Ok(None) };
    // Plant and maker's codes stand before the date; none of them is four bare figures.
    for _ in 0..4 {
        if scan.digits() == 4 && scan.skip(4).at_word_end() {
            let (number, end) = match scan.number() {
                Some(found) => found,
                None => return Ok(None),
            };
            let code = number.whole().unwrap_or_default();
            return DateCode::new(code / 100, 2000 + code % 100).map(|code| Some((code, end))).ok_or_else(
                || {
                    let value = format!("{:02}", code / 100);
                    (Reason::OutOfRange { what: "week", value, low: 1.0, high: 53.0 }, end)
                },
            );
        }
        let word_end = (0..).take_while(|n| scan.peek_at(*n).is_some_and(char::is_alphanumeric)).count();
        if word_end == 0 {
            break;
        }
        scan = scan.skip(word_end).blanks();
    }
    Err((Reason::Missing("the four-figure date code"), scan.piece_end()))
}
