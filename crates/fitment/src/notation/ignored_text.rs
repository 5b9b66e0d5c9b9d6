//! What is written beside a setup and is no part of it: quantities, money, measured things, names. It is left aside and
//! shown; nothing of it is ever taken for a piece.

use super::axle;
use super::scan::Scan;
use super::{service_description, tire_size, wheel_size, words};

/// Past something that says by itself that it is no piece of a setup; `None` when it does not.
pub(super) fn left_aside(scan: Scan<'_>) -> Option<Scan<'_>> {
    if let Some(end) = times_a_tire(scan) {
        return Some(end);
    }
    if is_a_size_at_a_glance(scan) {
        return None;
    }
    filed(scan)
        .or_else(|| announced(scan))
        .or_else(|| announced_behind(scan))
        .or_else(|| quantity(scan))
        .or_else(|| money(scan))
        .or_else(|| foreign_unit(scan))
        .or_else(|| label_classes(scan))
        .or_else(|| tread_depth(scan))
        .or_else(|| day(scan))
        .or_else(|| long_number(scan))
        .or_else(|| thread(scan))
        .or_else(|| bracketed_service(scan))
        .or_else(|| year_in_brackets(scan))
        .or_else(|| thousands_of_a_thing(scan))
        .or_else(|| time_of_day(scan))
        .or_else(|| count_of_things(scan))
}

/// "4x205/55R16": how many of a tire, run into it.
fn times_a_tire(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (count, after) = scan.number()?;
    count.whole().filter(|count| (1..=20).contains(count))?;
    let end = after.eat("x")?;
    // Section, aspect ratio and the mark of a radial: in "5x120/72.6" and "5x100/112" a circle goes on.
    let ratio = end.skip(3).eat("/").filter(|at| end.digits() == 3 && at.digits() == 2)?;
    ratio.skip(2).blanks().eat_any(&["r", "zr"]).map(|_| end)
}

/// "#4471", "invoice 2254517", "P/N 1885045-BK", "order no. 12-881": what a paper or a part is filed under.
fn filed(scan: Scan<'_>) -> Option<Scan<'_>> {
    // "Pos 2:" is a line of an order.
    if let Some(at) = scan.eat_label(&["pos", "position", "item", "line"])
        && let Some((_, end)) = at.number()
        && end.eat_any(&[":", ")"]).is_some()
    {
        return Some(end);
    }
    let least = if scan.peek() == Some('#') { 1 } else { 3 };
    let mut end = match scan.eat("#") {
        Some(after) => after,
        None => {
            let mut at = scan.eat_known(&words::FILED_UNDER)?;
            while let Some(past) =
                at.blanks().eat_any(&[".", ":", "#"]).or_else(|| at.blanks().eat_known(&words::FILED_UNDER))
            {
                at = past;
            }
            at.blanks()
        }
    };
    if end.digits() == 0 || is_a_size_at_a_glance(end) {
        return None;
    }
    let mut figures = 0;
    while let Some(sign) = end.peek().filter(|sign| sign.is_alphanumeric() || *sign == '-') {
        figures += usize::from(sign.is_ascii_digit());
        end = end.skip(1);
    }
    (figures >= least).then_some(end)
}

/// "6k springs": a spring's rate, in thousands.
fn thousands_of_a_thing(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (_, after) = scan.number()?;
    let end = after.eat_word(&["k"])?;
    end.blanks().word().filter(|_| end.blanks().byte() > end.byte()).map(|(past, _)| past)
}

/// "(2021)": a year of make.
fn year_in_brackets(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (year, after) = scan.eat("(")?.number()?;
    year.whole().filter(|year| (1990..2040).contains(year))?;
    after.eat(")")
}

/// "5pm", "10:30", "5 pm".
fn time_of_day(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (hour, after) = scan.number()?;
    hour.whole().filter(|hour| *hour <= 24)?;
    if let Some((minutes, end)) = after.eat(":").filter(|at| at.digits() == 2).and_then(Scan::number) {
        return (minutes.value < 60.0 && end.at_word_end())
            .then(|| end.blanks().eat_word(&["am", "pm", "uhr", "h"]).unwrap_or(end));
    }
    after.blanks().eat_word(&["am", "pm", "uhr", "oclock", "o'clock"])
}

/// "4 hub rings", "1 set wheels", "20 bolts M14x1.5", "4  alloy wheel": a small count with what is counted behind it.
fn count_of_things(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (count, after) = scan.number()?;
    count.whole().filter(|count| (1..=40).contains(count))?;
    let at = after.blanks();
    if at.byte() == after.byte() {
        return None;
    }
    at.eat_known(&words::COUNTED)
}

/// "18x8.5", "5x120": figures with an x between them are no quantity of anything.
fn is_a_size_at_a_glance(scan: Scan<'_>) -> bool {
    let behind = scan.skip(scan.digits());
    behind.byte() > scan.byte() && behind.peek() == Some('x') && behind.skip(1).digits() > 0
}

/// "camber -2.5 front -1.8 rear", "load 690 kg", "in stock 8": a word that announces figures, with all of them.
fn announced(scan: Scan<'_>) -> Option<Scan<'_>> {
    let mut end = scan.eat_known(&words::ANNOUNCES_ASIDE)?;
    while let Some(after) =
        end.blanks().eat_any(&[":", "="]).or_else(|| end.blanks().eat_known(&words::ANNOUNCES_ASIDE))
    {
        end = after;
    }
    let mut figures = 0;
    loop {
        let at = end.blanks();
        let signed = at.eat_any(&["-", "+", "~", "±"]).unwrap_or(at);
        let Some(past) = figure_with_unit(signed) else { break };
        (end, figures) = (past, figures + 1);
        // Axle words behind a figure belong to it, and so does a range or a second figure.
        if let Some((_, past)) = axle::word(end.blanks()) {
            end = past;
        }
        let next = end.blanks().eat_any(&["/", "-", "to "]).unwrap_or(end).blanks();
        if figure_with_unit(next.eat_any(&["-", "+"]).unwrap_or(next)).is_some() {
            end = next;
        }
    }
    (figures > 0).then_some(end)
}

/// "-2.0 camber", "30 mm drop": the announcing word behind its figure, when no figure follows it.
fn announced_behind(scan: Scan<'_>) -> Option<Scan<'_>> {
    let signed = scan.eat_any(&["-", "+"]).unwrap_or(scan);
    let end = figure_or_size_with_unit(signed)?.blanks().eat_known(&words::ANNOUNCES_ASIDE)?;
    if is_a_size(signed) {
        return None;
    }
    let next = end.blanks();
    let next = next.eat_any(&["-", "+", ":", "="]).unwrap_or(next);
    let has_own_figure = next.digits() > 0 && !is_a_size(next);
    (!has_own_figure).then_some(end)
}

/// A figure that is no size and no piece with a label, and the unit behind it.
fn figure_with_unit(at: Scan<'_>) -> Option<Scan<'_>> {
    // Whether it is a size takes longest to say, and most places are no figure with a unit anyway.
    figure_or_size_with_unit(at).filter(|_| !is_a_size(at))
}

fn figure_or_size_with_unit(at: Scan<'_>) -> Option<Scan<'_>> {
    if let Some(end) = long_number(at) {
        return Some(end);
    }
    let (_, mut end) = at.number()?;
    // Thousands by a comma: "12,000 km".
    while end.peek() == Some(',') && end.skip(1).digits() == 3 {
        end = end.skip(4);
    }
    if let Some(past) = end.eat("/32") {
        end = past;
    }
    if matches!(end.peek(), Some('/' | 'x')) && end.skip(1).digits() > 0 && end.skip(1).digits() > 2 {
        return None;
    }
    let unit = end.blanks().eat_known(&words::FOREIGN_UNITS);
    let unit = unit.or_else(|| end.blanks().eat_known(&words::LENGTHS));
    let unit = unit.or_else(|| end.eat_any(&["°", "%", "\"", "€", "$"]));
    let end = unit.unwrap_or(end);
    end.at_word_end().then_some(end)
}

fn is_a_size(at: Scan<'_>) -> bool {
    !matches!(tire_size::tire_size(at), Ok(None)) || !matches!(wheel_size::wheel_size(at), Ok(None))
}

/// "4x 18x8.5", "2ea", "(4)", "(x2)", "4 pcs".
fn quantity(scan: Scan<'_>) -> Option<Scan<'_>> {
    if let Some(inner) = scan.eat("(") {
        let at = inner.eat("x").unwrap_or(inner);
        let (number, end) = at.number()?;
        let end = end.eat("x").unwrap_or(end).eat(")")?;
        return number.whole().filter(|count| (1..=20).contains(count)).map(|_| end);
    }
    if let Some(at) = scan.eat("x") {
        return (at.digits() == 1 && at.skip(1).at_word_end() && at.skip(1).at_number_end())
            .then(|| at.skip(1));
    }
    let (number, after) = scan.number()?;
    number.whole().filter(|count| (1..=20).contains(count))?;
    if let Some(end) = after.blanks().eat("x") {
        return (end.peek() == Some(' ') && is_a_size(end.blanks())).then_some(end);
    }
    after.blanks().eat_known(&words::PIECES)
}

/// "$1,250", "1.499,00 €", "129.90": money, by its sign or by figures that only money is written with.
fn money(scan: Scan<'_>) -> Option<Scan<'_>> {
    let sign = scan.eat_any(&["$", "€", "£", "eur ", "usd ", "gbp ", "chf "]);
    let mut end = sign.unwrap_or(scan).blanks();
    let from = end;
    let mut groups = 0;
    let mut last = end.digits();
    if last == 0 || last > 7 {
        return None;
    }
    end = end.skip(last);
    while matches!(end.peek(), Some('.' | ',')) && end.skip(1).digits() > 0 {
        last = end.skip(1).digits();
        end = end.skip(1 + last);
        groups += 1;
    }
    // In "66.6 $219" the sign is of the figure behind it.
    let behind_sign = end.blanks().eat_any(&["€", "$", "£"]).filter(|at| at.digits() == 0);
    let behind = behind_sign.or_else(|| end.blanks().eat_known(&words::MONEY));
    if sign.is_some() || behind.is_some() {
        return Some(behind.unwrap_or(end));
    }
    // Without a sign: thousands and cents ("1.499,00"), or a price's two decimals alone between separators.
    let cents = groups >= 1 && last == 2 && end.at_word_end() && end.peek() != Some('/');
    let is_price = groups == 2
        || from.digits() >= 3 && !(100..=455).contains(&(from.number()?.0.value as u32))
        || from.digits() >= 2
            && matches!(end.blanks().peek(), Some('|' | ';') | None)
            && from.number()?.0.value > 80.0;
    (cents && is_price).then_some(end)
}

/// "24.5 lbs", "2.3 bar front 2.5 bar rear", "71dB", "32/34 psi".
fn foreign_unit(scan: Scan<'_>) -> Option<Scan<'_>> {
    let signed = scan.eat_any(&["+", "-"]).unwrap_or(scan);
    let (_, mut end) = signed.number()?;
    while end.peek() == Some(',') && end.skip(1).digits() == 3 {
        end = end.skip(4);
    }
    if let Some((_, past)) = end.eat_any(&["/", "-"]).and_then(Scan::number) {
        end = past;
    }
    let unit = end.blanks();
    // In "57.1 £189" the sign is of the figure behind it.
    if unit.eat_any(&["€", "$", "£"]).is_some_and(|at| at.digits() > 0) {
        return None;
    }
    let past = unit
        .eat_known(&words::FOREIGN_UNITS)
        .or_else(|| unit.eat_any(&["°", "%"]))
        .filter(|_| !(unit.peek() == Some('d') && end.byte() == unit.byte() && unit.eat("db").is_none()))?;
    // The word behind a degree says what of: "-2.5° camber".
    let past =
        past.blanks().eat_word(&["camber", "toe", "caster", "sturz", "negative", "load"]).unwrap_or(past);
    let pressure = unit.eat_known(&words::PRESSURES).is_some();
    Some(match axle::word(past.blanks()) {
        Some((_, after)) if pressure => after,
        _ => past,
    })
}

/// "C/A/71dB", "C/A", "B/A/70": the classes of the label, and "300AAA".
fn label_classes(scan: Scan<'_>) -> Option<Scan<'_>> {
    if let Some(end) = service_description::label_classes(scan) {
        return Some(end);
    }
    let class = |at: Scan<'_>| at.peek().is_some_and(|c| ('a'..='g').contains(&c));
    if class(scan) && scan.skip(1).peek() == Some('/') && class(scan.skip(2)) {
        let end = scan.skip(3);
        let noise = end.eat("/").and_then(|at| Some(at.number()?.1)).unwrap_or(end);
        let end = noise.blanks().eat_word(&["db(a)", "db"]).unwrap_or(noise);
        return end.at_word_end().then_some(end);
    }
    let (number, after) = scan.number()?;
    let end = after.blanks().eat_known(&words::GRADES)?;
    (number.value >= 40.0).then_some(end)
}

/// "6/32 tread", "5mm tread left", "5 mm Profil".
fn tread_depth(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (_, after) = scan.number()?;
    if let Some(end) = after.eat("/32") {
        return Some(end.eat("\"").unwrap_or(end));
    }
    let after = after.blanks().eat("mm").unwrap_or(after).blanks();
    after.eat_known(&words::TREAD_LEFT)
}

/// "12/05/2023", "12.5.23": a day.
fn day(scan: Scan<'_>) -> Option<Scan<'_>> {
    let mut end = scan;
    for digits in [1..=2, 1..=2, 2..=4] {
        if end.byte() > scan.byte() {
            end = end.eat_any(&["/", "."])?;
        }
        let found = end.digits();
        if !digits.contains(&found) {
            return None;
        }
        end = end.skip(found);
    }
    (end.at_word_end() && end.at_number_end()).then_some(end)
}

/// Article and telephone numbers: seven figures and more with dashes, or an article's number.
fn long_number(scan: Scan<'_>) -> Option<Scan<'_>> {
    let (mut end, mut figures, mut groups) = (scan, 0, 0);
    while end.digits() > 0 {
        figures += end.digits();
        groups += 1;
        end = end.skip(end.digits());
        if end.peek() == Some('-') && end.skip(1).digits() > 0 {
            end = end.skip(1);
        }
    }
    (figures >= 7 && groups >= 2 && end.at_word_end() && end.at_number_end()).then_some(end)
}

/// "M14x1.5", "1/2-20", with the seat's radius behind it.
fn thread(scan: Scan<'_>) -> Option<Scan<'_>> {
    let after = scan.eat("m").filter(|after| (1..=2).contains(&after.digits()))?;
    let (_, after) = after.number()?;
    let (_, end) = after.eat("x")?.number()?;
    end.at_word_end().then_some(end)
}

/// "(120/119S)" behind a service description: an additional one.
fn bracketed_service(scan: Scan<'_>) -> Option<Scan<'_>> {
    let inner = scan.eat("(")?;
    let (_, after) = inner.number()?;
    let (_, after) = after.eat("/")?.number()?;
    let end = after.skip(1).eat(")")?;
    after.peek().is_some_and(char::is_alphabetic).then_some(end)
}
