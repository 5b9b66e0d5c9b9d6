//! Reading tire sizes and what stands beside them.

use super::Reason;
use super::scan::{Number, Scan};
use crate::codes::RimDiameter;
use crate::load_index::LoadIndex;
use crate::speed_symbol::SpeedSymbol;
use crate::tire::{
    Construction, InchSize, InchStyle, LoadRange, LoadVersion, MetricSize, Prefix, RacingSize,
    ServiceDescription, Size,
};

/// "Not mine", "mine" with what was read and where it ends, or "mine, but wrong".
pub(super) type Read<'t, T> = Result<Option<(T, Scan<'t>)>, (Reason, Scan<'t>)>;

/// A tire size, and whether it is marked run-flat inside the size (`RF`, `ZRF`).
pub(super) fn tire_size(start: Scan<'_>) -> Read<'_, (Size, bool)> {
    let (prefix, scan) = prefix(start)?;
    let Some((first, after)) = scan.number() else { return Ok(None) };
    if prefix == Prefix::None {
        if first.decimals == 0 && first.figures == 7 && after.at_word_end() {
            return run_together(scan, after);
        }
        if let Some(found) = inch_size(first, after)? {
            return Ok(Some(found));
        }
    }
    let Some(section) = first.whole() else { return Ok(None) };
    match after.peek() {
        _ if section >= 60 && after.blanks().peek() == Some('/') => {
            metric_or_racing(prefix, section, after.blanks().skip(1).blanks())
        }
        Some('-') if section >= 100 && first.figures == 3 => spoken(prefix, section, after.skip(1), "-"),
        Some(' ') if first.figures == 3 => spoken(prefix, section, after.blanks(), " "),
        _ => Ok(None),
    }
}

fn prefix(start: Scan<'_>) -> Result<(Prefix, Scan<'_>), (Reason, Scan<'_>)> {
    let known = [("lt", Prefix::Lt), ("hl", Prefix::Hl), ("p", Prefix::P)];
    for (letters, prefix) in known {
        if let Some(after) = start.eat(letters) {
            let after = after.blanks();
            if after.digits() == 3 {
                return Ok((prefix, after));
            }
        }
    }
    for (letters, shown) in [("st", "ST"), ("t", "T"), ("c", "C")] {
        if let Some(after) = start.eat(letters)
            && after.digits() == 3
            && after.skip(3).peek() == Some('/')
        {
            return Err((Reason::UnknownPrefix(shown.to_owned()), after.piece_end()));
        }
    }
    Ok((Prefix::None, start))
}

/// `2653518`.
fn run_together<'t>(start: Scan<'t>, end: Scan<'t>) -> Read<'t, (Size, bool)> {
    let figure = |from: usize, to: usize| {
        (from..to).fold(0, |sum, at| {
            sum * 10 + start.peek_at(at).and_then(|char| char.to_digit(10)).unwrap_or_default()
        })
    };
    let rim = rim_code(f64::from(figure(5, 7)), end)?;
    metric(Prefix::None, figure(0, 3), figure(3, 5), Construction::Radial, rim, end)
        .map(|size| Some(((size, false), end)))
}

/// `33x12.50R15LT`, `31x10.50-15`, `28x6.0-17`, `26.0/10.0-15`.
fn inch_size<'t>(overall: Number, after: Scan<'t>) -> Read<'t, (Size, bool)> {
    let slash = after.peek() == Some('/');
    let whole_slash = slash && overall.decimals == 0 && !(11.0..60.0).contains(&overall.value);
    if whole_slash || !(slash || after.blanks().peek() == Some('x')) {
        return Ok(None);
    }
    let after = after.blanks().skip(1);
    let Some((width, mut scan)) = (if slash { after } else { after.blanks() }).number() else {
        return Ok(None);
    };
    let (construction, run_flat) = match scan.peek() {
        Some('-') => {
            scan = scan.skip(1);
            (Construction::BiasPly, false)
        }
        _ => match radial_mark(scan.blanks()) {
            Some((construction, run_flat, after)) => {
                scan = after;
                (construction, run_flat)
            }
            None => return Ok(None),
        },
    };
    let Some((rim, mut end)) = scan.number() else { return Ok(None) };
    if !slash && overall.decimals == 0 && construction == Construction::BiasPly && overall.value <= 26.0 {
        // "20x9-12" is a wheel, "22x10-15" could be either, "18x8.5-12" is a wheel again.
        let tire_is_possible = rim.value >= 13.0 && overall.value - rim.value >= 5.0;
        if !tire_is_possible {
            return Ok(None);
        }
        return Err((Reason::WheelOrTire, end));
    }
    let mut light_truck = false;
    if let Some(after) = end.eat("lt") {
        (light_truck, end) = (true, after);
    }
    let style = if slash {
        InchStyle::Slash
    } else if light_truck || width.decimals >= 2 || construction != Construction::BiasPly {
        InchStyle::Flotation { light_truck }
    } else {
        InchStyle::Cross
    };
    let rim = rim_code(rim.value, end)?;
    for (what, value, range) in [
        ("overall diameter", overall.value, InchSize::OVERALL_IN),
        ("section width", width.value, InchSize::WIDTH_IN),
    ] {
        if !range.contains(&value) {
            let (low, high) = (*range.start(), *range.end());
            return Err((Reason::OutOfRange { what, value: format!("{value} in"), low, high }, end));
        }
    }
    if width.decimals > 2 || overall.decimals > 2 || (slash && (width.decimals > 1 || overall.decimals > 1)) {
        let step = if slash { 0.1 } else { 0.01 };
        let finer = if width.decimals > overall.decimals { width } else { overall };
        let value = format!("{} in", finer.value);
        return Err((Reason::OffStep { what: "a figure of an inch size", value, step }, end));
    }
    match InchSize::new(style, overall.value, width.value, construction, rim) {
        Some(size) => Ok(Some(((Size::Inch(size), run_flat), end))),
        None => Err((Reason::NoSidewall { value: format!("{} in", overall.value), rim: rim.code() }, end)),
    }
}

/// What follows `225/`.
fn metric_or_racing(prefix: Prefix, section: u32, scan: Scan<'_>) -> Read<'_, (Size, bool)> {
    let Some((second, after)) = scan.number() else {
        return Err((Reason::Missing("the aspect ratio"), scan.piece_end()));
    };
    let Some(second) = second.whole() else {
        let value = second.value.to_string();
        return Err((Reason::OffStep { what: "aspect ratio", value, step: 1.0 }, after.piece_end()));
    };
    let next = after.blanks();
    let (construction, run_flat, rim_at) = if let Some(found) = radial_mark(next) {
        found
    } else if after.peek() == Some('-') {
        (Construction::BiasPly, false, after.skip(1))
    } else {
        (Construction::Radial, false, next.eat("/").unwrap_or(next))
    };
    let marked = rim_at.byte() > next.byte();
    let Some((rim, end)) = rim_at.blanks().number().filter(|(_, end)| {
        // Unmarked, "225/45 18x8.5" is a size without its rim and then a wheel.
        marked || !matches!(end.blanks().peek(), Some('x' | 'j' | '"')) && end.eat(" by ").is_none()
    }) else {
        return Err((Reason::Missing("the rim diameter"), after.piece_end()));
    };
    let rim = rim_code(rim.value, end)?;
    let (prefix, end) = match (prefix, end.eat("lt"), end.eat("c").filter(|after| after.at_word_end())) {
        (Prefix::None | Prefix::Lt, Some(after), _) => (Prefix::Lt, after),
        (Prefix::None, _, Some(after)) => (Prefix::Commercial, after),
        _ => (prefix, end),
    };
    if second < 300 {
        return metric(prefix, section, second, construction, rim, end)
            .map(|size| Some(((size, run_flat), end)));
    }
    match RacingSize::new(section, second, construction, rim) {
        Some(_) if prefix != Prefix::None => {
            Err((out_of_range("aspect ratio", second, 20.0, 95.0), end.piece_end()))
        }
        Some(size) => Ok(Some(((Size::Racing(size), run_flat), end))),
        None if !MetricSize::SECTION_MM.contains(&section) => Err((section_out_of_range(section), end)),
        None => Err((
            Reason::NeitherRatioNorDiameter { value: second.to_string(), rim: rim.code() },
            end.piece_end(),
        )),
    }
}

/// `265 35 18`, `265-35-18`: what follows the section width. Today this always means a radial.
fn spoken<'t>(prefix: Prefix, section: u32, scan: Scan<'t>, separator: &str) -> Read<'t, (Size, bool)> {
    let Some((aspect, after)) = scan.number().filter(|(n, _)| n.decimals == 0 && n.figures == 2) else {
        return Ok(None);
    };
    let next = after.blanks();
    let (construction, run_flat, rim_at) = match radial_mark(next)
        .or_else(|| after.eat(separator).map(|at| (Construction::Radial, false, at)))
    {
        Some(found) => found,
        None => return Ok(None),
    };
    let Some((rim, end)) = rim_at
        .blanks()
        .number()
        .filter(|(n, end)| n.figures == 2 && end.at_word_end() && end.at_number_end())
    else {
        return Ok(None);
    };
    let rim = rim_code(rim.value, end)?;
    metric(prefix, section, aspect.value as u32, construction, rim, end)
        .map(|size| Some(((size, run_flat), end)))
}

/// `R`, `ZR`, `RF`, `ZRF` before a rim code.
fn radial_mark(scan: Scan<'_>) -> Option<(Construction, bool, Scan<'_>)> {
    [
        ("zrf", Construction::ZrRadial, true),
        ("zr", Construction::ZrRadial, false),
        ("rf", Construction::Radial, true),
        ("r", Construction::Radial, false),
    ]
    .into_iter()
    .find_map(|(mark, construction, run_flat)| {
        let after = scan.eat(mark)?.blanks();
        (after.digits() > 0).then_some((construction, run_flat, after))
    })
}

fn metric<'t>(
    prefix: Prefix,
    section: u32,
    aspect: u32,
    construction: Construction,
    rim: RimDiameter,
    end: Scan<'t>,
) -> Result<Size, (Reason, Scan<'t>)> {
    MetricSize::new(prefix, section, aspect, construction, rim).map(Size::Metric).ok_or_else(|| {
        let reason = if MetricSize::SECTION_MM.contains(&section) {
            out_of_range("aspect ratio", aspect, 20.0, 95.0)
        } else {
            section_out_of_range(section)
        };
        (reason, end)
    })
}

fn section_out_of_range(section: u32) -> Reason {
    let range = MetricSize::SECTION_MM;
    out_of_range("section width", section, f64::from(*range.start()), f64::from(*range.end()))
}

fn out_of_range(what: &'static str, value: u32, low: f64, high: f64) -> Reason {
    Reason::OutOfRange { what, value: value.to_string(), low, high }
}

/// A rim code, or why it is none.
pub(super) fn rim_code(code: f64, end: Scan<'_>) -> Result<RimDiameter, (Reason, Scan<'_>)> {
    RimDiameter::from_code(code).ok_or_else(|| {
        let (what, value) = ("rim diameter", code.to_string());
        let (low, high) = (RimDiameter::MIN, RimDiameter::MAX);
        let reason = if (low..=high).contains(&code) {
            Reason::OffStep { what, value, step: 0.5 }
        } else {
            Reason::OutOfRange { what, value, low, high }
        };
        (reason, end)
    })
}

/// Something stated beside the size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Beside {
    Service(ServiceDescription),
    LoadVersion(LoadVersion),
    LoadRange(LoadRange),
    RunFlat,
    MudAndSnow,
}

/// `XL`, `LR E`, `RFT`, `M+S`. A lone letter counts as a load range only right behind a tire (`after_tire`).
pub(super) fn mark(scan: Scan<'_>, after_tire: bool) -> Read<'_, Beside> {
    let marks: [(&[&str], Beside); 4] = [
        (&["xl", "extra load", "reinforced", "reinf"], Beside::LoadVersion(LoadVersion::Extra)),
        (&["sl", "standard load"], Beside::LoadVersion(LoadVersion::Standard)),
        (&["rft", "zrf", "runflat", "run-flat", "run flat"], Beside::RunFlat),
        (&["m+s", "m&s", "m/s", "ms"], Beside::MudAndSnow),
    ];
    for (words, mark) in marks {
        if let Some(end) = scan.eat_word(words) {
            return Ok(Some((mark, end)));
        }
    }
    let letter = |at: Scan<'_>| at.peek().and_then(LoadRange::from_letter);
    if let Some(at) = scan.eat("load range ").or_else(|| scan.eat("lr").map(Scan::blanks))
        && let Some(range) = letter(at)
        && at.skip(1).at_word_end()
    {
        return Ok(Some((Beside::LoadRange(range), at.skip(1))));
    }
    if after_tire
        && matches!(scan.peek(), Some('c' | 'd' | 'e'))
        && scan.skip(1).at_word_end()
        && let Some(range) = letter(scan)
    {
        return Ok(Some((Beside::LoadRange(range), scan.skip(1))));
    }
    Ok(None)
}

/// `94W`, `(94Y)`, `121/118S`.
pub(super) fn service(start: Scan<'_>) -> Read<'_, Beside> {
    let bracket = start.eat("(");
    let scan = bracket.unwrap_or(start);
    let Some((single, mut after)) =
        scan.number().filter(|(n, _)| n.decimals == 0 && (2..=3).contains(&n.figures))
    else {
        return Ok(None);
    };
    let mut dual = None;
    if let Some(second) = after.eat("/")
        && let Some((number, end)) = second.number().filter(|(n, _)| n.decimals == 0 && n.figures <= 3)
    {
        (dual, after) = (number.whole(), end);
    }
    let Some(symbol) = after.peek().filter(char::is_ascii_alphabetic) else { return Ok(None) };
    let mut end = after.skip(1);
    if !end.at_word_end() {
        return Ok(None);
    }
    if bracket.is_some() {
        match end.eat(")") {
            Some(after) => end = after,
            None => return Ok(None),
        }
    }
    let single = single.whole().unwrap_or_default();
    let known = SpeedSymbol::from_letter(symbol);
    let Some(speed) = known else {
        // "18j" or "90d" may be anything; only a plausible index makes the letter a wrong symbol.
        let index = (u32::from(LoadIndex::MIN)..=u32::from(LoadIndex::MAX)).contains(&single);
        return if index && symbol != 'j' && symbol != 'x' {
            Err((Reason::UnknownSpeedSymbol(symbol.to_ascii_uppercase().to_string()), end))
        } else {
            Ok(None)
        };
    };
    let speed = match (bracket, speed) {
        (None, speed) => speed,
        (Some(_), SpeedSymbol::Y) => SpeedSymbol::OverY,
        (Some(_), _) => return Err((Reason::BracketsWithoutY, end)),
    };
    let index = |index: u32| {
        LoadIndex::new(index).ok_or_else(|| {
            let (low, high) = (f64::from(LoadIndex::MIN), f64::from(LoadIndex::MAX));
            (out_of_range("load index", index, low, high), end)
        })
    };
    let service = ServiceDescription { single: index(single)?, dual: dual.map(index).transpose()?, speed };
    if let Some(dual) = service.dual
        && dual > service.single
    {
        let (dual, single) = (u32::from(dual.index()), u32::from(service.single.index()));
        return Err((Reason::DualAboveSingle { dual, single }, end));
    }
    Ok(Some((Beside::Service(service), end)))
}
