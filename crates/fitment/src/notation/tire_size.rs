//! Reading tire sizes.

use super::scan::{Number, Scan};
use super::{Reason, words};
use crate::parts::tire::{
    Construction, InchSize, InchStyle, LoadRange, MetricSize, Prefix, RacingSize, Size,
};
use crate::values::codes::RimDiameter;
use crate::values::speed_symbol::SpeedSymbol;

/// "Not mine", "mine" with what was read and where it ends, or "mine, but wrong".
pub(super) type Read<'t, T> = Result<Option<(T, Scan<'t>)>, (Reason, Scan<'t>)>;

/// A tire size, and what is written inside of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct TireSize {
    pub(crate) size: Size,
    /// `RF`, `ZRF` before the rim code.
    pub(crate) run_flat: bool,
    /// The load range written onto the size: `LT285/70R17E`.
    pub(crate) load_range: Option<LoadRange>,
}

impl TireSize {
    fn plain(size: Size) -> Self {
        Self { size, run_flat: false, load_range: None }
    }
}

/// A whole size, or a metric one whose rim code stands elsewhere ("18x8.5 ET35 245/40").
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Sized {
    Whole(TireSize),
    WithoutRim { section: u32, aspect: u32 },
}

/// What stands between aspect ratio (or width) and rim code.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Mark {
    construction: Construction,
    run_flat: bool,
}

impl Mark {
    const RADIAL: Self = Self { construction: Construction::Radial, run_flat: false };
    const DASH: Self = Self { construction: Construction::BiasPly, ..Self::RADIAL };
}

pub(super) fn tire_size(start: Scan<'_>) -> Read<'_, Sized> {
    refused_prefix(start)?;
    let (prefix, scan) = prefix(start);
    let Some((first, after)) = scan.number() else { return Ok(None) };
    if prefix == Prefix::None || prefix == Prefix::Lt {
        if let Some((mut found, end)) = inch_size(first, after)? {
            if prefix == Prefix::Lt {
                found.size = found.size.as_light_truck();
            }
            return Ok(Some((Sized::Whole(found), end)));
        }
        if prefix == Prefix::None
            && let Some(found) = numeric_size(first, after)?
        {
            return Ok(Some(found));
        }
    }
    // "225,45,17" reads as a decimal first, "225.45.17" too: the section is the figures before the sign.
    let (section, after) = match first.whole() {
        Some(section) => (section, after),
        None if first.figures == 3 => (first.value.trunc() as u32, scan.skip(3)),
        None => return Ok(None),
    };
    match first.figures {
        7 if first.decimals == 0 && after.at_word_end() => {
            let aspect = section / 100 % 100;
            return whole_metric(
                prefix,
                section / 10_000,
                aspect,
                Mark::RADIAL,
                f64::from(section % 100),
                after,
            );
        }
        5 if first.decimals == 0 && (100..=455).contains(&(section / 100)) => {
            if let Some((mark, at)) = radial_mark(after)
                && let Some((rim, end)) = at.number()
            {
                return whole_metric(prefix, section / 100, section % 100, mark, rim.value, end);
            }
            return Ok(None);
        }
        _ => {}
    }
    if section >= 60 && after.blanks().peek() == Some('/') {
        return by_slash(prefix, section, after.blanks().skip(1).blanks());
    }
    if first.figures != 3 || !(100..=455).contains(&section) {
        return Ok(None);
    }
    if let Some(found) = spoken(prefix, section, after)? {
        return Ok(Some(found));
    }
    without_aspect(prefix, section, after)
}

/// Sizes that go on no car, by what stands before them.
fn refused_prefix(start: Scan<'_>) -> Result<(), (Reason, Scan<'_>)> {
    if start.digits() > 0 {
        return Ok(());
    }
    for (letters, what) in
        [("st", Reason::TRAILER), ("t", Reason::SPARE), ("vf", Reason::FARM), ("if", Reason::FARM)]
    {
        if let Some(after) =
            start.eat(letters).map(|after| if what == Reason::FARM { after } else { after.blanks() })
            && after.digits() == 3
            && after.skip(3).peek() == Some('/')
        {
            return Err((what, after.piece_end()));
        }
    }
    Ok(())
}

fn prefix(start: Scan<'_>) -> (Prefix, Scan<'_>) {
    for (letters, prefix) in [("lt", Prefix::Lt), ("hl", Prefix::Hl), ("p", Prefix::P)] {
        if let Some(after) = start.eat(letters) {
            let after = after.eat("-").unwrap_or(after.blanks());
            let digits = after.digits();
            let inch =
                prefix == Prefix::Lt && digits == 2 && matches!(after.skip(2).peek(), Some('x' | '/' | '.'));
            if inch
                || matches!(digits, 3 | 7)
                    && after.skip(3).peek().is_some_and(|c| !c.is_alphabetic() || "rzsthvqw".contains(c))
            {
                return (prefix, after);
            }
        }
    }
    (Prefix::None, start)
}

/// `33x12.50R15LT`, `31x10.50-15`, `28x6.0-17`, `26.0/10.0-15`, `33 12.50 17`, `33x12.5x17`; in centimetres `30/65-18`.
fn inch_size<'t>(first: Number, after: Scan<'t>) -> Read<'t, TireSize> {
    let after = after.eat("\"").unwrap_or(after);
    let slash = after.peek() == Some('/');
    let cross = !slash && after.blanks().peek() == Some('x');
    let spaced = !slash && !cross && after.peek() == Some(' ') && first.value > RimDiameter::MAX;
    if first.value > 60.0 {
        return Ok(None);
    }
    // "31-10.50-15".
    let dashed = after.eat("-").is_some_and(|at| {
        first.decimals == 0
            && first.value >= 27.0
            && at.number().is_some_and(|(width, end)| width.decimals == 2 && end.peek() == Some('-'))
    });
    let whole_slash = slash && first.decimals == 0 && !(8.0..60.0).contains(&first.value);
    if whole_slash || !(slash || cross || spaced || dashed) {
        return Ok(None);
    }
    let after = if spaced { after } else { after.blanks().skip(1) };
    let Some((second, scan)) = (if slash { after } else { after.blanks() }).number() else {
        return Ok(None);
    };
    let scan = scan.eat("\"").unwrap_or(scan);
    let (mark, rim_at) = match radial_mark(scan.blanks()) {
        Some(found) => found,
        None => match (scan.peek(), scan.blanks().peek()) {
            (Some('-'), _) => (Mark::DASH, scan.skip(1)),
            // "33x12.5x17" and "33 12.50 17" say nothing of the carcass: today such a tire is a radial.
            (_, Some('x')) if cross => (Mark::RADIAL, scan.blanks().skip(1).blanks()),
            (Some(' '), _) if spaced => (Mark::RADIAL, scan.blanks()),
            _ => return Ok(None),
        },
    };
    let Some((rim, end)) = rim_at.number().filter(|(_, end)| end.at_number_end()) else { return Ok(None) };
    let could_be_a_wheel = first.value <= RimDiameter::MAX || second.value < 6.0;
    if mark == Mark::RADIAL && could_be_a_wheel && (cross || spaced) && radial_mark(scan.blanks()).is_none() {
        return Ok(None);
    }
    // Slicks are also named width first, in inches or in centimetres: the overall diameter is the larger figure.
    let (overall, width) =
        if slash && second.value > first.value { (second, first) } else { (first, second) };
    if slash
        && first.decimals == 0
        && second.decimals == 0
        && (40.0..=80.0).contains(&overall.value)
        && first.value < second.value
    {
        let (section, diameter) = (width.value as u32 * 10, overall.value as u32 * 10);
        let code = rim_code(rim.value, end)?;
        return Ok(RacingSize::new(section, diameter, mark.construction, code)
            .map(|size| (TireSize::plain(Size::Racing(size)), end)));
    }
    if cross && overall.decimals == 0 && mark == Mark::DASH && overall.value <= 26.0 {
        // "20x9-12" is a wheel, "22x10-15" could be either, "18x8.5-12" is a wheel again.
        if !(rim.value >= 13.0 && overall.value - rim.value >= 5.0) {
            return Ok(None);
        }
        let (d, w, rim) = (overall.value, width.value, rim.value);
        return Err((
            Reason::which(
                "a wheel with its offset, or a tire?",
                [format!("{d}x{w} ET-{rim}"), format!("{d}.0x{w:.1}-{rim}")],
            ),
            end,
        ));
    }
    let (light_truck, end) = light_truck(end);
    let (load_range, end) = load_range(end, light_truck);
    // "28.0/10.5-15W", "28x10.5-15S": wide, stiff; no speed symbol, and nothing here computes with it.
    let end =
        end.eat_any(&["w", "s"]).filter(|after| mark == Mark::DASH && after.at_word_end()).unwrap_or(end);
    let style = if slash && !is_of_a_truck(&overall, &width) && (mark == Mark::DASH || width.decimals < 2) {
        InchStyle::Slash
    } else if light_truck
        || width.decimals >= 2
        || is_of_a_truck(&overall, &width)
        || mark.construction != Construction::BiasPly
    {
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
    let finest = if style == InchStyle::Slash { 1 } else { 2 };
    if width.decimals > finest || overall.decimals > finest {
        let step = if finest == 1 { 0.1 } else { 0.01 };
        let finer = if width.decimals > overall.decimals { width } else { overall };
        let value = format!("{} in", finer.value);
        return Err((Reason::OffStep { what: "a figure of an inch size", value, step }, end));
    }
    match InchSize::new(style, overall.value, width.value, mark.construction, rim) {
        Some(size) => {
            Ok(Some((TireSize { size: Size::Inch(size), run_flat: mark.run_flat, load_range }, end)))
        }
        None => Err((Reason::NoSidewall { value: format!("{} in", overall.value), rim: rim.code() }, end)),
    }
}

/// "33x12.5-17", "35/12.5R17": tall tires in whole inches with half an inch of width are a light truck's, their second 0 left out. The
/// slicks that are named so are told with a decimal of their height, or are lower.
fn is_of_a_truck(overall: &Number, width: &Number) -> bool {
    overall.decimals == 0 && overall.value >= 30.0 && width.decimals == 1 && width.value.fract() == 0.5
}

/// `7.00-15`, `6.00R16`, `7.50R16LT`: width in inches, no more. The larger ones are for trucks.
fn numeric_size<'t>(width: Number, after: Scan<'t>) -> Read<'t, Sized> {
    if width.decimals != 2 || !(3.0..=15.0).contains(&width.value) {
        return Ok(None);
    }
    let (mark, at) = match radial_mark(after.blanks()) {
        Some(found) => found,
        None if after.peek() == Some('-') => (Mark::DASH, after.skip(1)),
        None => return Ok(None),
    };
    let Some((rim, end)) = at.number().filter(|(n, end)| n.figures == 2 && end.at_number_end()) else {
        return Ok(None);
    };
    let (light_truck, end) = light_truck(end);
    let rim = rim_code(rim.value, end)?;
    match InchSize::numeric(width.value, light_truck, mark.construction, rim) {
        Some(size) => Ok(Some((Sized::Whole(TireSize::plain(Size::Inch(size))), end))),
        None => Err((Reason::TRUCK, end)),
    }
}

/// What follows `225/`.
fn by_slash(prefix: Prefix, section: u32, scan: Scan<'_>) -> Read<'_, Sized> {
    let Some((second, after)) = scan.number() else {
        return Err((Reason::Missing("the aspect ratio"), scan.piece_end()));
    };
    let Some(number) = second.whole() else {
        let value = second.value.to_string();
        return Err((Reason::OffStep { what: "aspect ratio", value, step: 1.0 }, after.piece_end()));
    };
    if second.figures == 4 && after.at_word_end() {
        return whole_metric(prefix, section, number / 100, Mark::RADIAL, f64::from(number % 100), after);
    }
    let next = after.blanks();
    // "235/35-265/30", "225/40 / 245/40": another tire follows the sign.
    let another = next
        .eat_any(&["/", "-"])
        .map(Scan::blanks)
        .is_some_and(|at| second.figures == 2 && at.digits() == 3 && at.skip(3).peek() == Some('/'));
    if another && MetricSize::SECTION_MM.contains(&section) && MetricSize::ASPECT.contains(&number) {
        return Ok(Some((Sized::WithoutRim { section, aspect: number }, after)));
    }
    let parted = next.eat_any(&["/", "-"]).map(Scan::blanks);
    let (mark, rim_at) = if let Some(found) = radial_mark(next).or_else(|| parted.and_then(radial_mark)) {
        found
    } else if let Some(at) = next.eat("-").map(Scan::blanks) {
        (Mark::DASH, at)
    } else {
        (Mark::RADIAL, next.eat("/").unwrap_or(next).blanks())
    };
    let marked = rim_at.byte() > next.byte();
    let rim = rim_at.number().filter(|(rim, end)| {
        // Unmarked, "225/45 18x8.5" is a size without its rim and then a wheel, "225/45 94W" one with its service.
        marked
            || rim.figures == 2
                && !matches!(end.blanks().peek(), Some('x' | 'j' | '"'))
                && end.eat(" by ").is_none()
                && end.at_number_end()
                && end.at_word_end()
    });
    let Some((rim, end)) = rim else {
        let after = after.eat_word(&["s", "er", "ers"]).unwrap_or(after);
        let missing_rim = second.figures == 2 && after.at_word_end() && MetricSize::ASPECT.contains(&number);
        return if missing_rim && MetricSize::SECTION_MM.contains(&section) {
            Ok(Some((Sized::WithoutRim { section, aspect: number }, after)))
        } else {
            Err((Reason::Missing("the rim diameter"), after.piece_end()))
        };
    };
    whole_metric(prefix, section, number, mark, rim.value, end)
}

/// `265 35 18`, `265-35-18`, `225.45.17`, `225x45x17`: three groups by one separator.
fn spoken<'t>(prefix: Prefix, section: u32, after: Scan<'t>) -> Read<'t, Sized> {
    let two = |at: Scan<'t>| (at.digits() == 2).then(|| (at.two_digits(), at.skip(2)));
    for separator in [" ", "-", ".", ",", "x", " x ", " - "] {
        let Some(at) = after.eat(separator).map(Scan::blanks) else { continue };
        let Some((aspect, next)) = two(at) else { continue };
        if !MetricSize::ASPECT.contains(&aspect) {
            continue;
        }
        let found = radial_mark(next.blanks())
            .or_else(|| next.eat(separator).and_then(radial_mark))
            .or_else(|| next.eat(separator).map(|at| (Mark::RADIAL, at.blanks())))
            .and_then(|(mark, at)| two(at).map(|(rim, end)| (mark, rim, end)));
        let Some((mark, rim, end)) = found else { continue };
        let inch = end.eat("\"").unwrap_or(end);
        let plural = inch.eat("s").filter(|after| after.at_word_end()).unwrap_or(inch);
        if plural.at_word_end() && plural.at_number_end() {
            return whole_metric(prefix, section, aspect, mark, f64::from(rim), plural);
        }
    }
    Ok(None)
}

/// `165R13`, `185 R 14 C`, `155 SR 15`: the series that needs no aspect ratio.
fn without_aspect<'t>(prefix: Prefix, section: u32, after: Scan<'t>) -> Read<'t, Sized> {
    let Some((mark, at)) = radial_mark(after.blanks()) else { return Ok(None) };
    let Some((rim, end)) = at.number().filter(|(n, end)| n.figures == 2 && end.at_number_end()) else {
        return Ok(None);
    };
    let rim = rim_code(rim.value, end)?;
    let Some(size) = MetricSize::without_aspect(prefix, section, mark.construction, rim) else {
        return Ok(None);
    };
    finish(Size::Metric(size), mark, end)
}

fn whole_metric<'t>(
    prefix: Prefix,
    section: u32,
    second: u32,
    mark: Mark,
    rim: f64,
    end: Scan<'t>,
) -> Read<'t, Sized> {
    if (300.0..1000.0).contains(&rim) {
        return Err((Reason::MILLIMETRE_RIM, end.piece_end()));
    }
    let rim = rim_code(rim, end.piece_end())?;
    if second < 300 {
        let size = metric(prefix, section, second, mark.construction, rim, end)?;
        return finish(size, mark, end);
    }
    match RacingSize::new(section, second, mark.construction, rim) {
        Some(_) if prefix != Prefix::None => {
            Err((out_of_range("aspect ratio", second, 20.0, 95.0), end.piece_end()))
        }
        Some(size) => Ok(Some((Sized::Whole(TireSize::plain(Size::Racing(size))), end))),
        None if !MetricSize::SECTION_MM.contains(&section) => Err((section_out_of_range(section), end)),
        None => Err((
            Reason::NeitherRatioNorDiameter { value: second.to_string(), rim: rim.code() },
            end.piece_end(),
        )),
    }
}

/// What may stand behind a metric size: `LT`, `C`, `CP`, `HL`, a load range, an inch mark.
fn finish<'t>(size: Size, mark: Mark, end: Scan<'t>) -> Read<'t, Sized> {
    let (light_truck, end) = light_truck(end);
    let mut size = if light_truck { size.as_light_truck() } else { size };
    let mut end = end;
    let behind = end.blanks();
    if let Some(after) = behind.eat_word(&["hl"]) {
        (size, end) = (size.as_high_load(), after);
    } else if let Some(after) = behind.eat_word(&["cp", "c"])
        && size.is_plain_metric()
        && after.peek() != Some('/')
    {
        (size, end) = (size.as_commercial(), after);
    } else if let Some(after) = behind.eat_known(&words::INCHES_OF_A_TIRE).or_else(|| end.eat("\"")) {
        end = after;
    } else if let Some(after) = end.eat("s").filter(|after| after.at_word_end()) {
        end = after;
    }
    let (load_range, end) = load_range(end, size.is_light_truck());
    if size.is_for_a_motorcycle() {
        return Err((Reason::MOTORCYCLE, end.piece_end()));
    }
    Ok(Some((Sized::Whole(TireSize { size, run_flat: mark.run_flat, load_range }), end)))
}

fn light_truck(end: Scan<'_>) -> (bool, Scan<'_>) {
    match end.blanks().eat("lt") {
        Some(after) if !after.peek().is_some_and(|c| c.is_ascii_digit()) => (true, after),
        _ => (false, end),
    }
}

/// A load range written onto the size.
fn load_range(end: Scan<'_>, light_truck: bool) -> (Option<LoadRange>, Scan<'_>) {
    let letter = end.peek().and_then(LoadRange::from_letter);
    match letter {
        Some(range) if light_truck && end.skip(1).at_word_end() => (Some(range), end.skip(1)),
        _ => (None, end),
    }
}

/// `R`, `ZR`, `RF`, `ZRF`, `HR`, `VR` before a rim code.
fn radial_mark(scan: Scan<'_>) -> Option<(Mark, Scan<'_>)> {
    use Construction::{BiasPly, Radial, SpeedRadial, ZrRadial};
    if scan.at_word_end() || scan.digits() > 0 {
        return None;
    }
    [
        ("zrf", ZrRadial, true),
        ("zr", ZrRadial, false),
        ("rz", Radial, false),
        ("rf", Radial, true),
        ("sr", SpeedRadial(SpeedSymbol::S), false),
        ("tr", SpeedRadial(SpeedSymbol::T), false),
        ("qr", SpeedRadial(SpeedSymbol::Q), false),
        ("hr", SpeedRadial(SpeedSymbol::H), false),
        ("vr", SpeedRadial(SpeedSymbol::V), false),
        ("wr", SpeedRadial(SpeedSymbol::W), false),
        ("r", Radial, false),
        ("d", BiasPly, false),
        ("b", BiasPly, false),
    ]
    .into_iter()
    .find_map(|(mark, construction, run_flat)| {
        let after = scan.eat(mark)?;
        let after = after.eat("-").unwrap_or(after).blanks();
        (after.digits() > 0).then_some((Mark { construction, run_flat }, after))
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

pub(super) fn out_of_range(what: &'static str, value: u32, low: f64, high: f64) -> Reason {
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
