//! Reading how a wheel is held: bolt circles, centre bore, centre lock.

use super::Reason;
use super::offset::{Unit, unit};
use super::scan::Scan;
use super::tire_size::Read;
use super::words;
use crate::values::codes::{BoltCircle, CenterBore};
use crate::values::length::MM_PER_INCH;

/// One bolt circle, two of a wheel that is drilled twice, or a circle with the bore behind it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Drilling {
    pub(crate) circle: BoltCircle,
    pub(crate) second: Option<BoltCircle>,
    pub(crate) bore: Option<CenterBore>,
}

/// `5x114.3`, `5/112`, `5-100`, `5x4.5in`, `PCD 5x112`, `5x4-1/2`, `114.3x5`, `5x100/114.3`, `5/112/66.6`, `5H114`,
/// `5 lug 4.5`. Under 10 the diameter is in inches.
pub(super) fn drilling(start: Scan<'_>) -> Read<'_, Drilling> {
    let labelled = start.eat_known_label(&words::CIRCLE);
    let scan = labelled.unwrap_or(start);
    let Some((count, after)) = scan.number() else { return Ok(None) };
    let blank = after.blanks();
    let word_at = after.eat("-").unwrap_or(after.blanks());
    let by_count = word_at.eat_any(&["h", "lug", "bolt", "hole", "loch", "穴"]).map(|at| {
        let at = at.eat("s").unwrap_or(at).blanks();
        at.eat_any(&["pcd", "lk", "x", "on ", "-"])
            .map_or(at, |at| at.eat_any(&[":", " "]).unwrap_or(at).blanks())
    });
    let by_count = by_count.filter(|at| at.digits() > 0);
    let Some(at) = by_count.or_else(|| {
        blank
            .eat("x")
            .map(Scan::blanks)
            .or_else(|| after.eat_any(&["/", "-"]))
            .or_else(|| blank.eat("on "))
            .or_else(|| blank.eat("by").map(Scan::blanks))
    }) else {
        return Ok(None);
    };
    let Some((diameter, mut end)) = at.blanks().number_with_fraction() else { return Ok(None) };
    // "114.3x5": the other way round.
    let reversed = count.value >= BoltCircle::MIN_MM && diameter.decimals == 0 && diameter.value <= 10.0;
    let (count, diameter) = if reversed { (diameter, count) } else { (count, diameter) };
    let Some(count) = count.whole() else { return Ok(None) };
    let mm = if reversed {
        diameter.value
    } else {
        let (written_unit, after) = unit(end);
        end = after;
        match written_unit {
            Unit::Inches => diameter.value * MM_PER_INCH,
            Unit::None if (3.0..10.0).contains(&diameter.value) => diameter.value * MM_PER_INCH,
            Unit::Millimetres | Unit::None => diameter.value,
        }
    };
    let least_count = u32::from(BoltCircle::MIN_COUNT);
    let most_count = u32::from(BoltCircle::MAX_COUNT);
    let (second, past) = second_figure(end, count);
    let ends = end.at_word_end() || second.is_some();
    if labelled.is_none() && by_count.is_none() && (count > most_count || mm < 60.0 || !ends) {
        return Ok(None);
    }
    let goes_on = matches!(end.peek(), Some('/' | 'x' | '-')) && end.skip(1).digits() > 0;
    if goes_on && second.is_none() && labelled.is_none() && by_count.is_none() {
        return Ok(None);
    }
    if !(least_count..=most_count).contains(&count) {
        let (low, high) = (f64::from(least_count), f64::from(most_count));
        let what = "fastener count";
        return Err((Reason::OutOfRange { what, value: count.to_string(), low, high }, end));
    }
    let circle_of = |count: u32, mm: f64| {
        BoltCircle::new(count as u8, mm).ok_or_else(|| {
            let (low, high) = (BoltCircle::MIN_MM, BoltCircle::MAX_MM);
            (Reason::OutOfRange { what: "bolt circle", value: format!("{mm} mm"), low, high }, end)
        })
    };
    let circle = circle_of(count, mm)?;
    match second {
        None => Ok(Some((Drilling { circle, second: None, bore: None }, end))),
        Some(second) if is_a_circle(second) => {
            // Eight holes on two circles are twice four, ten are twice five.
            let each = if matches!(count, 8 | 10) { count / 2 } else { count };
            let both = (circle_of(each, mm)?, circle_of(each, second)?);
            Ok(Some((Drilling { circle: both.0, second: Some(both.1), bore: None }, past)))
        }
        Some(bore) => match CenterBore::from_mm(bore) {
            bore @ Some(_) => Ok(Some((Drilling { circle, second: None, bore }, past))),
            None => Err((Reason::Unknown, past)),
        },
    }
}

/// What follows a circle by a sign: `/114.3`, `/5x114.3`, `x66.6`, ` + 5x120`.
fn second_figure(end: Scan<'_>, count: u32) -> (Option<f64>, Scan<'_>) {
    let none = (None, end);
    let spaced = end.blanks().eat("+").map(Scan::blanks);
    let Some(at) = end.eat_any(&["/", "x", "+"]).or(spaced) else { return none };
    let Some((first, after)) = at.number() else { return none };
    // The count may be said again.
    let repeated = first.whole() == Some(count);
    let found = match after.eat("x").and_then(Scan::number) {
        Some((second, past)) if repeated => (second, past),
        _ if spaced.is_some() || first.value < 40.0 => return none,
        _ => (first, after),
    };
    // "6x135/6x5.5": under 10 it is in inches.
    let mm = if found.0.value < 10.0 { found.0.value * MM_PER_INCH } else { found.0.value };
    if found.1.at_word_end() && found.1.at_number_end() { (Some(mm), found.1) } else { none }
}

/// Whether a figure is a bolt circle that is made, to the tenth; bores lie between them.
fn is_a_circle(mm: f64) -> bool {
    BoltCircle::KNOWN_MM.iter().any(|known| (known - mm).abs() <= BoltCircle::SNAP_MM)
}

/// A circle's diameter alone, behind its label: `PCD 114.3`, `Lochkreis 112`.
pub(super) fn circle_alone(start: Scan<'_>) -> Read<'_, f64> {
    let Some(at) = start.eat_known_label(&words::CIRCLE) else { return Ok(None) };
    let Some((number, after)) = at.number() else { return Ok(None) };
    if number.value < BoltCircle::MIN_MM && !(3.0..10.0).contains(&number.value) {
        return Ok(None);
    }
    let (written_unit, end) = unit(after);
    let inches = written_unit == Unit::Inches || number.value < 10.0;
    if !end.at_word_end() || end.peek() == Some('/') {
        return Ok(None);
    }
    Ok(Some((if inches { number.value * MM_PER_INCH } else { number.value }, end)))
}

/// How many fasteners, alone: `5H`, `5 lug`, `Lochzahl 5`.
pub(super) fn count_alone(start: Scan<'_>) -> Read<'_, u8> {
    let count = |number: super::scan::Number| {
        number
            .whole()
            .filter(|n| (u32::from(BoltCircle::MIN_COUNT)..=u32::from(BoltCircle::MAX_COUNT)).contains(n))
    };
    if let Some(at) = start.eat_known_label(&words::COUNT) {
        return Ok(at
            .number()
            .and_then(|(number, end)| Some((count(number)? as u8, end)))
            .filter(|(_, end)| end.at_word_end()));
    }
    let Some((number, after)) = start.number() else { return Ok(None) };
    let behind = after.eat("-").unwrap_or(after.blanks());
    Ok(behind.eat_known(&words::COUNT_BEHIND).and_then(|end| Some((count(number)? as u8, end))))
}

/// `CB67.1`, `center bore 67.1`, `Ø67.1`, `66.6 hub`, `D56.1`.
pub(super) fn center_bore(start: Scan<'_>) -> Read<'_, CenterBore> {
    let (number, end) = if let Some(scan) = start.eat_known_label(&words::BORE) {
        let Some((number, after)) = scan.number() else { return Ok(None) };
        (number, after.blanks().eat_word(&["mm"]).unwrap_or(after))
    } else {
        let Some((number, after)) = start.number() else { return Ok(None) };
        let after = after.blanks().eat_word(&["mm"]).unwrap_or(after);
        let Some(end) = after.blanks().eat_known(&words::BORE_BEHIND) else { return Ok(None) };
        // "66.6 hub rings" is a ring's.
        let is_of_the_next = |(_, after): (super::scan::Number, Scan<'_>)| {
            !matches!(after.blanks().peek(), Some('x' | '/'))
                && after.blanks().eat_known(&words::FOREIGN_UNITS).is_none()
        };
        let next_is_its_own = end.blanks().number().is_some_and(is_of_the_next);
        if end.blanks().eat_word(&["rings", "ring"]).is_some() || next_is_its_own {
            return Ok(None);
        }
        (number, end)
    };
    if !end.at_word_end() || !end.at_number_end() {
        return Err((Reason::Unknown, end.piece_end()));
    }
    CenterBore::from_mm(number.value).map(|bore| Some((bore, end))).ok_or_else(|| {
        let (low, high) = (CenterBore::MIN_MM, CenterBore::MAX_MM);
        (Reason::OutOfRange { what: "center bore", value: number.value.to_string(), low, high }, end)
    })
}

/// `center lock`, `CL`.
pub(super) fn center_lock(start: Scan<'_>) -> Option<Scan<'_>> {
    start.eat_known(&words::CENTER_LOCK)
}
