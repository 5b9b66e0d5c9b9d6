//! Reading which axle is meant.

use super::scan::Scan;
use super::words;

/// Which axle a word names, and whether it announces what follows by a colon ("F: 18x8.5").
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct AxleTag {
    pub(crate) axles: Axles,
    /// A colon, an equals sign or a slash behind it: what follows belongs to it.
    pub(crate) announces: bool,
    /// "only" behind it: what went before belongs to it.
    pub(crate) only: bool,
}

/// The axles a word names.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Axles {
    Front,
    Rear,
    Both,
}

/// An axle named by a word.
pub(super) fn word(scan: Scan<'_>) -> Option<(AxleTag, Scan<'_>)> {
    let bracket = scan.eat("(");
    let at = bracket.unwrap_or(scan);
    let at = at
        .eat_any(&[
            "at the ", "on the ", "in the ", "up ", "out ", "the ", "a l'", "a la ", "al ", "l'", "na ", "w ",
        ])
        .unwrap_or(at);
    let found = [(&words::BOTH, Axles::Both), (&words::FRONT, Axles::Front), (&words::REAR, Axles::Rear)]
        .into_iter()
        .find_map(|(names, axles)| Some((axles, at.eat_known(names)?)));
    let (axles, end) = found.or_else(|| match at.eat_word(&["back"]) {
        Some(end) if at.byte() > scan.byte() => Some((Axles::Rear, end)),
        _ => None,
    })?;
    let end = end.blanks().eat_known(&words::AXLE).unwrap_or(end);
    let end = match bracket {
        Some(_) => end.eat(")")?,
        None => end,
    };
    let only = end.blanks().eat_word(&["only"]);
    let end = only.unwrap_or(end);
    let colon = end.blanks().eat_any(&[":", "="]);
    let tag = AxleTag { axles, announces: colon.is_some(), only: only.is_some() };
    Some((tag, colon.unwrap_or(end)))
}

/// Names of the two axles that are words of their own elsewhere: each names an axle where the other one stands in the text too.
const COUNTERPARTS: [(&str, &str); 8] = [
    ("fr", "rr"),
    ("frt", "rr"),
    ("vo", "hi"),
    ("vr", "ar"),
    ("for", "bag"),
    ("on", "arka"),
    ("pred", "zad"),
    ("fra", "bak"),
];

/// The four corners by letters; two of each axle.
const CORNERS_IN_FRONT: [&str; 4] = ["fl", "lf", "vl", "avg"];
const FRONT_CORNERS: [&str; 5] = ["fl", "fr", "lf", "rf", "vl"];
const REAR_CORNERS: [&str; 4] = ["rl", "rr", "lr", "hl"];

/// How a text names its axles by letters and short words.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(crate) enum NamedBy {
    /// Not so, or by a letter with its colon alone.
    #[default]
    Nothing,
    /// "F 18x8.5 / R 18x9.5".
    Letters,
    /// By a pair of [`COUNTERPARTS`].
    Pair(&'static str, &'static str),
    /// "LF …, RF …, LR …, RR …".
    Corners,
}

impl NamedBy {
    /// How a text does.
    pub(super) fn of(start: Scan<'_>) -> Self {
        let has = |words: &[&str]| has_word(start, words);
        if has(&CORNERS_IN_FRONT) && has(&REAR_CORNERS) {
            return Self::Corners;
        }
        let pair = COUNTERPARTS.into_iter().find(|(front, rear)| has(&[rear]) && has(&[front]));
        match pair {
            Some((front, rear)) => Self::Pair(front, rear),
            None if names_axles_by_letters(start) => Self::Letters,
            None => Self::Nothing,
        }
    }

    /// A short name of an axle, where the text names them so.
    fn short(self, scan: Scan<'_>) -> Option<(Axles, Scan<'_>)> {
        let (front, rear): (&[&str], &[&str]) = match &self {
            Self::Pair(front, rear) => (std::slice::from_ref(front), std::slice::from_ref(rear)),
            Self::Corners => (&FRONT_CORNERS, &REAR_CORNERS),
            Self::Nothing | Self::Letters => return None,
        };
        let end = |names: &[&str]| scan.eat_word(names).map(|end| end.eat(".").unwrap_or(end));
        end(front).map(|end| (Axles::Front, end)).or_else(|| end(rear).map(|end| (Axles::Rear, end)))
    }
}

/// Whether one of these words stands in a text by itself.
fn has_word(start: Scan<'_>, words: &[&str]) -> bool {
    let mut scan = start;
    let mut is_at_word_start = true;
    while !scan.is_at_end() {
        if is_at_word_start && scan.eat_word(words).is_some() {
            return true;
        }
        is_at_word_start = scan.at_word_end();
        scan = scan.skip(1);
    }
    false
}

/// An axle named by a word or by letters. A single letter needs its colon, its slash or its brackets, or the other
/// letter elsewhere in the text (`letters_alone`): "R" alone may be a symbol or a slip.
pub(super) fn tag(scan: Scan<'_>, named_by: NamedBy) -> Option<(AxleTag, Scan<'_>)> {
    if let Some(found) = word(scan) {
        return Some(found);
    }
    if let Some((axles, end)) = named_by.short(scan) {
        let colon = end.blanks().eat_any(&[":", "="]);
        return Some((AxleTag { axles, announces: colon.is_some(), only: false }, colon.unwrap_or(end)));
    }
    // "F255/35R19": the letter stands on the size.
    let on_a_tire = |letter: &str| {
        scan.eat(letter)
            .filter(|end| scan.is_capital() && end.digits() == 3 && end.skip(3).peek() == Some('/'))
    };
    if let Some((axles, end)) =
        on_a_tire("f").map(|end| (Axles::Front, end)).or_else(|| on_a_tire("r").map(|end| (Axles::Rear, end)))
    {
        return Some((AxleTag { axles, announces: true, only: false }, end));
    }
    let letters_alone = named_by == NamedBy::Letters;
    let names = [
        ("f+r", Axles::Both),
        ("f & r", Axles::Both),
        ("fr", Axles::Front),
        ("rr", Axles::Rear),
        ("f", Axles::Front),
        ("r", Axles::Rear),
        ("v", Axles::Front),
        ("h", Axles::Rear),
    ];
    let bracket = scan.eat("(");
    names.into_iter().find_map(|(letters, axles)| {
        let end = bracket.unwrap_or(scan).eat(letters)?;
        if bracket.is_some() {
            let end = end.eat(")")?;
            let colon = end.blanks().eat_any(&[":", "="]);
            return Some((AxleTag { axles, announces: colon.is_some(), only: false }, colon.unwrap_or(end)));
        }
        if let Some(end) = end.blanks().eat_any(&[":", "="]) {
            return Some((AxleTag { axles, announces: true, only: false }, end));
        }
        if let Some(end) = end.eat("/").filter(|end| end.digits() > 0) {
            return Some((AxleTag { axles, announces: true, only: false }, end));
        }
        let alone = letters_alone && matches!(letters, "f" | "r") && end.at_word_end() && scan.is_capital();
        alone.then_some((AxleTag { axles, announces: false, only: false }, end))
    })
}

/// Whether a text names both axles by single letters: "F 18x8.5 / R 18x9.5".
pub(super) fn names_axles_by_letters(start: Scan<'_>) -> bool {
    if !start.has_capital('f') {
        return false;
    }
    let (mut front, mut rear) = (false, false);
    let mut scan = start;
    let mut at_word_start = true;
    while let Some(char) = scan.peek() {
        if at_word_start && scan.is_capital() && scan.skip(1).at_word_end() {
            front |= char == 'f';
            // In "245/40 R 18" the letter is the tire's.
            rear |= char == 'r'
                && !(scan.skip(1).blanks().digits() == 2
                    && scan.skip(1).blanks().skip(2).peek() != Some('x'));
        }
        at_word_start = scan.at_word_end() && char != '.';
        scan = scan.skip(1);
    }
    front && rear
}
