//! What stands beside a tire's size: load index and speed symbol, load version and range, marks.

use super::Reason;
use super::scan::{Scan, Words};
use super::tire_size::{Read, out_of_range};
use crate::parts::tire::{FactoryMark, LoadRange, LoadVersion, ServiceDescription, Size};
use crate::values::load_index::LoadIndex;
use crate::values::speed_symbol::SpeedSymbol;

/// Something stated beside the size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Beside {
    Service(ServiceDescription),
    LoadVersion(LoadVersion),
    LoadRange(LoadRange),
    /// `HL` behind the size.
    HighLoad,
    /// `LT` behind the size, parted from it.
    LightTruck,
    /// A lone `C` behind a passenger size.
    Commercial,
    RunFlat,
    MudAndSnow,
    Snowflake,
    FactoryMark(FactoryMark),
}

/// Words for uses that no car has.
static REFUSED: [(Words, Reason); 3] = [
    (
        Words::new(&["temporary use only", "temporary use", "temporary spare", "spare use only"]),
        Reason::SPARE,
    ),
    (
        Words::new(&["trailer use only", "trailer only", "for trailers", "trailer tire", "trailer tires"]),
        Reason::TRAILER,
    ),
    (Words::new(&["m/c", "motorcycle", "tt m/c", "moped"]), Reason::MOTORCYCLE),
];

/// Words for what a tire is.
static MARKS: [(Words, Beside); 8] = [
    (
        Words::new(&[
            "xl",
            "x.l.",
            "x.l",
            "extra load",
            "extraload",
            "reinforced",
            "reinf",
            "verstarkt",
            "renforce",
        ]),
        Beside::LoadVersion(LoadVersion::Extra),
    ),
    (Words::new(&["sl", "standard load"]), Beside::LoadVersion(LoadVersion::Standard)),
    (Words::new(&["hl"]), Beside::HighLoad),
    (Words::new(&["lt"]), Beside::LightTruck),
    (Words::new(&["rft", "zrf", "runflat", "run-flat", "run flat"]), Beside::RunFlat),
    (Words::new(&["m+s", "m&s", "m/s", "ms", "m + s"]), Beside::MudAndSnow),
    (Words::new(&["3pmsf", "3-pmsf", "three peak"]), Beside::Snowflake),
    (Words::new(&["*"]), Beside::FactoryMark(FactoryMark::STAR)),
];

/// `XL`, `LR E`, `RFT`, `M+S`, `N0`. A lone letter counts as a load range only right behind a tire.
pub(super) fn mark<'t>(scan: Scan<'t>, behind: Option<&Size>) -> Read<'t, Beside> {
    for (words, what) in &REFUSED {
        if let Some(end) = scan.eat_known(words) {
            return Err((what.clone(), end));
        }
    }
    // "XL94W": the service runs into the mark.
    for (letters, version) in [("xl", LoadVersion::Extra), ("sl", LoadVersion::Standard)] {
        if let Some(end) = scan.eat(letters).filter(|end| behind.is_some() && end.digits() >= 2) {
            return Ok(Some((Beside::LoadVersion(version), end)));
        }
    }
    for (words, mark) in &MARKS {
        let needs_tire = matches!(mark, Beside::HighLoad | Beside::LightTruck | Beside::FactoryMark(_));
        if let Some(end) = scan.eat_known(words)
            && (!needs_tire || behind.is_some())
        {
            return Ok(Some((*mark, end)));
        }
    }
    let letter = |at: Scan<'_>| at.peek().and_then(LoadRange::from_letter);
    if let Some(at) = scan.eat("load range ").or_else(|| scan.eat("lr").map(Scan::blanks))
        && let Some(range) = letter(at)
        && at.skip(1).at_word_end()
    {
        return Ok(Some((Beside::LoadRange(range), at.skip(1))));
    }
    let Some(size) = behind else { return Ok(None) };
    // Behind a passenger tire "RF" is reinforced; run-flat is "RFT".
    if let Some(end) = scan.eat_word(&["rf"]).filter(|_| size.is_plain_metric() && scan.is_capital()) {
        return Ok(Some((Beside::LoadVersion(LoadVersion::Extra), end)));
    }
    // "C A 71 dB", "C B 70 2": the classes of the label, each by itself.
    if label_classes(scan).is_some() {
        return Ok(None);
    }
    if let Some(range) = letter(scan)
        && scan.skip(1).at_word_end()
        && !matches!(scan.skip(1).peek(), Some('/' | ':' | '='))
    {
        // On a passenger size a lone C is the commercial mark, and B and H are no load range.
        return Ok(match scan.peek() {
            Some('c') if size.is_plain_metric() => Some((Beside::Commercial, scan.skip(1))),
            Some('b' | 'h') if !size.is_light_truck() => None,
            _ => Some((Beside::LoadRange(range), scan.skip(1))),
        });
    }
    Ok(factory_mark(scan))
}

/// "C A 71 dB", "C B 70 2", "(C,A,B,71)": the classes of a tire's label, parted, with the noise behind them.
pub(super) fn label_classes(scan: Scan<'_>) -> Option<Scan<'_>> {
    let class =
        |at: Scan<'_>| at.peek().is_some_and(|c| ('a'..='g').contains(&c)) && at.skip(1).at_word_end();
    fn apart(at: Scan<'_>) -> Option<Scan<'_>> {
        let past = at.blanks();
        let past = past.eat_any(&[",", ";", "/"]).unwrap_or(past).blanks();
        (past.byte() > at.byte()).then_some(past)
    }
    let bracket = scan.eat("(");
    let mut at = bracket.unwrap_or(scan);
    let mut classes = 0;
    while class(at) {
        classes += 1;
        at = apart(at.skip(1))?;
    }
    let (noise, end) = at.number().filter(|(noise, _)| (60.0..=80.0).contains(&noise.value))?;
    if classes < 2 || noise.decimals > 0 {
        return None;
    }
    let end = end.blanks().eat_word(&["db(a)", "db"]).unwrap_or(end);
    // The waves of the noise: "70 2".
    let waves = end.blanks();
    let end = if waves.digits() == 1 && waves.skip(1).at_word_end() { waves.skip(1) } else { end };
    match bracket {
        Some(_) => end.eat(")"),
        None => Some(end),
    }
}

/// A lone load range letter behind a tire, before it could be taken for an axle's: F and R alone name axles only where
/// both do, and a light truck's F is its load range.
pub(super) fn service_or_range_letter<'t>(
    scan: Scan<'t>,
    behind: Option<&Size>,
    letters_name_axles: bool,
) -> Read<'t, Beside> {
    match behind {
        Some(size) if !letters_name_axles && scan.peek() == Some('f') && scan.skip(1).at_word_end() => {
            mark(scan, Some(size))
        }
        _ => Ok(None),
    }
}

/// The mark of the maker that a tire was made for, out of the list.
fn factory_mark(scan: Scan<'_>) -> Option<(Beside, Scan<'_>)> {
    FactoryMark::KNOWN.iter().find_map(|mark| {
        let end = scan.eat_mark(mark).filter(|end| end.at_word_end())?;
        (scan.is_capital() || scan.peek().is_some_and(|c| !c.is_alphabetic()))
            .then(|| FactoryMark::read(mark).map(|mark| (Beside::FactoryMark(mark), end)))
            .flatten()
    })
}

/// `LI 97 SI Y`, `load index 97 speed symbol Y`: both with their names.
pub(super) fn labelled_service(start: Scan<'_>) -> Read<'_, Beside> {
    let Some(at) = start.eat_label(&["li", "load index", "lastindex", "tragfahigkeitsindex"]) else {
        return Ok(None);
    };
    let Some((index, after)) = at.number().filter(|(index, _)| index.decimals == 0) else { return Ok(None) };
    let after = after.blanks();
    let after = after.eat_any(&[",", "/"]).unwrap_or(after).blanks();
    let names = ["si", "ss", "sr", "speed index", "speed symbol", "speed rating", "geschwindigkeitsindex"];
    let Some(letter_at) = after.eat_label(&names) else { return Ok(None) };
    let speed = letter_at.peek().and_then(SpeedSymbol::from_letter);
    let index = index.whole().and_then(LoadIndex::new);
    let end = letter_at.skip(1);
    Ok(match (index, speed) {
        (Some(single), Some(speed)) if end.at_word_end() => {
            Some((Beside::Service(ServiceDescription { single, dual: None, speed }), end))
        }
        _ => None,
    })
}

/// "W94" behind a tire: index and symbol the other way round, as nobody prints them.
pub(super) fn service_turned_round(start: Scan<'_>, behind_tire: bool) -> Read<'_, Beside> {
    let letter = start.peek().filter(|letter| "qsthvwy".contains(*letter) && behind_tire);
    let number = start.skip(1).number().filter(|(n, end)| n.decimals == 0 && end.at_word_end());
    let (Some(letter), Some((index, end))) = (letter, number) else { return Ok(None) };
    match index.whole() {
        Some(index) if (60..=MOST_ON_A_VAN).contains(&index) => {
            let choices = [format!("{index}{}", letter.to_ascii_uppercase())];
            Err((Reason::which("the load index stands before its symbol: is it this?", choices), end))
        }
        _ => Ok(None),
    }
}

/// `10PR`, `10 ply`, `8-ply`: the load range in its old words.
pub(super) fn ply_rating(start: Scan<'_>) -> Read<'_, Beside> {
    let Some((number, after)) = start.number() else { return Ok(None) };
    let after = after.eat("-").unwrap_or(after.blanks());
    let Some(end) = after.eat_word(&["ply rating", "ply rated", "ply", "pr"]) else { return Ok(None) };
    match number.whole().and_then(LoadRange::from_ply_rating) {
        Some(range) => Ok(Some((Beside::LoadRange(range), end))),
        None => Err((out_of_range("ply rating", number.value as u32, 4.0, 16.0), end)),
    }
}

/// Indexes above are of trucks' tires: they are asked about.
const MOST_ON_A_VAN: u32 = 135;

/// `94W`, `(94Y)`, `121/118S`, `94 W`, `95(Y)`, `94-W`; a gap before the letter only right behind a tire.
pub(super) fn service(start: Scan<'_>, behind_tire: bool) -> Read<'_, Beside> {
    let bracket = start.eat("(");
    let scan = bracket.unwrap_or(start);
    let Some((single, mut after)) =
        scan.number().filter(|(n, _)| n.decimals == 0 && (2..=3).contains(&n.figures))
    else {
        return Ok(None);
    };
    let mut dual = None;
    if let Some(second) = after.eat("/")
        && let Some((number, end)) =
            second.number().filter(|(n, _)| n.decimals == 0 && (2..=3).contains(&n.figures))
    {
        (dual, after) = (number.whole(), end);
    }
    let single = single.whole().unwrap_or_default();
    let plausible = (u32::from(LoadIndex::MIN)..=MOST_ON_A_VAN).contains(&single);
    // "225/40s" is a size of several, no index of 225 with its twin.
    if !plausible && dual.is_some() && single > MOST_ON_A_VAN {
        return Ok(None);
    }
    let inner = after.eat("(");
    // "94/W".
    let slash = after.eat("/").filter(|at| behind_tire && plausible && at.skip(1).at_word_end());
    let after = slash.unwrap_or(after);
    let gap =
        after.eat("-").filter(|_| behind_tire).unwrap_or(if behind_tire { after.blanks() } else { after });
    let at = inner.unwrap_or(gap);
    let Some(symbol) = at.peek().filter(char::is_ascii_alphabetic) else { return Ok(None) };
    let mut end = at.skip(1);
    if inner.is_some() {
        match end.eat(")") {
            Some(after) => end = after,
            None => return Ok(None),
        }
    }
    // "94WXL": a mark may be written onto the letter.
    let runs_on = |end: Scan<'_>| !end.at_word_end() && end.eat_word(&["xl", "sl", "hl", "rft"]).is_none();
    if runs_on(end) {
        return Ok(None);
    }
    if bracket.is_some() && inner.is_none() {
        match end.eat(")") {
            Some(after) => end = after,
            None => return Ok(None),
        }
    }
    let Some(speed) = SpeedSymbol::from_letter(symbol) else {
        // "18j" or "90d" may be anything; only a plausible index makes the letter a wrong symbol.
        return if plausible && at.byte() == after.byte() && !matches!(symbol, 'x' | 'd' | 'i') {
            Err((Reason::UnknownSpeedSymbol(symbol.to_ascii_uppercase().to_string()), end))
        } else {
            Ok(None)
        };
    };
    // "17K" or "18J" is a rim's contour, "12 F" no service: letters of slow symbols need an index that can be one.
    if !plausible && (symbol < 'l' || at.byte() > after.byte()) {
        return Ok(None);
    }
    if !plausible && dual.is_none() && single < 40 {
        return Ok(None);
    }
    let bracketed = bracket.is_some() || inner.is_some();
    // Brackets stand round Y for over 300 km/h; round other letters they are an older way of writing the same.
    let speed = if bracketed && speed == SpeedSymbol::Y { SpeedSymbol::OverY } else { speed };
    let index = |index: u32| {
        LoadIndex::new(index).filter(|_| index <= MOST_ON_A_VAN).ok_or_else(|| {
            let (low, high) = (f64::from(LoadIndex::MIN), f64::from(MOST_ON_A_VAN));
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
