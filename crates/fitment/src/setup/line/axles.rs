//! Which axle each piece belongs to.
//!
//! People name an axle before what sits on it ("front 245/40R18 rear 275/35R18"), behind it ("10 mm spacer rear"), by
//! two lines, or by a slash between the two. A text in which something follows the last axle word names them before;
//! one that ends in an axle word names them behind. Spacers are spoken of by themselves: an axle word at a spacer is the
//! spacer's alone, and wheel and tire stay on both axles.
//!
//! A clause is a thought: where each clause can be understood by itself, an axle word in it is about what stands in it and about
//! nothing else. So a line has several assignments that may be meant ([`assignments`]); the first in which nothing is said twice
//! of an axle is the line's.

use std::ops::Range;

use crate::notation::{Axles, Lexed, Piece, Reason};

/// The axles of every stretch, and whether the text names them itself.
#[derive(Debug)]
pub(super) struct Assigned {
    pub(super) axles: Vec<Axles>,
    pub(super) names_axles: bool,
    /// A stretch that must be asked before anything can be assigned.
    pub(super) question: Option<(usize, Reason)>,
    /// Whether each clause was understood by itself.
    pub(super) is_by_clause: bool,
}

/// What a piece is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Topic {
    Wheel,
    Tire,
    Spacer,
}

fn topic(one: &Lexed) -> Option<Topic> {
    match one.outcome.as_ref().ok()? {
        Piece::Wheel(_)
        | Piece::Offset(_)
        | Piece::Backspacing(_)
        | Piece::Drilling(_)
        | Piece::CircleAlone(_)
        | Piece::CountAlone(_)
        | Piece::CenterBore { .. }
        | Piece::CenterLock => Some(Topic::Wheel),
        Piece::Tire(_) | Piece::TireWithoutRim { .. } | Piece::Beside(_) | Piece::DateCode(_) => {
            Some(Topic::Tire)
        }
        Piece::Spacing(_) => Some(Topic::Spacer),
        Piece::Gap | Piece::Filler | Piece::LeftAside | Piece::Axle(_) | Piece::Figure { .. } => None,
    }
}

/// The assignments that may be meant, the likeliest first.
pub(super) fn assignments(text: &str, lexed: &[Lexed]) -> impl Iterator<Item = Assigned> {
    type Way = fn(&str, &[Lexed]) -> Option<Assigned>;
    let ways: [Way; 3] = [by_clause, |text, lexed| Some(assign(text, lexed)), by_pairs];
    ways.into_iter().filter_map(move |way| way(text, lexed))
}

/// Clause by clause, where one of them ends in its axle word ("245/35R19 front, 275/30R19 rear") and something else follows the
/// last axle word, so that neither "before" nor "behind" is true of the whole line. `None` where no clause is so.
fn by_clause(text: &str, lexed: &[Lexed]) -> Option<Assigned> {
    let mut axles = vec![Axles::Both; lexed.len()];
    let (mut has_trailing, mut names) = (false, false);
    let mut from = 0;
    let is_end = |at: usize| {
        lexed.get(at).is_none_or(|one| {
            matches!(one.outcome, Ok(Piece::Gap)) && text[one.span.clone()].contains([',', ';', '\n', '|'])
        })
    };
    for at in 0..=lexed.len() {
        if !is_end(at) {
            continue;
        }
        let clause = from..at;
        from = at + 1;
        let mut tags =
            lexed[clause.clone()].iter().enumerate().filter_map(|(place, one)| match one.outcome {
                Ok(Piece::Axle(tag)) => Some((clause.start + place, tag)),
                _ => None,
            });
        let (first, others) = (tags.next(), tags.next());
        let Some((tag_at, tag)) = first else { continue };
        let topics = |range: Range<usize>| lexed[range].iter().filter_map(topic).count();
        // A word alone, or two words, need their neighbours to be understood.
        if others.is_some() || topics(clause.clone()) == 0 {
            return None;
        }
        let trails = topics(clause.start..tag_at) > 0;
        // "18x8.5 front ET35": before and behind at once is nobody's clause.
        if trails && topics(tag_at..at) > 0 {
            return None;
        }
        has_trailing |= trails;
        names |= tag.axles != Axles::Both;
        axles[clause].fill(tag.axles);
    }
    let is_one_axle = |one: &Lexed| matches!(one.outcome, Ok(Piece::Axle(tag)) if tag.axles != Axles::Both);
    let last = lexed.iter().rposition(is_one_axle)?;
    let goes_on = lexed[last..].iter().any(|one| topic(one).is_some());
    let leads =
        lexed.iter().position(|one| topic(one).is_some() || matches!(one.outcome, Ok(Piece::Axle(_))));
    let begins_with_an_axle = leads.is_some_and(|at| matches!(lexed[at].outcome, Ok(Piece::Axle(_))));
    let is_mixed = has_trailing && (goes_on || begins_with_an_axle);
    (is_mixed && names).then_some(Assigned { axles, names_axles: true, question: None, is_by_clause: true })
}

/// Of each kind of piece what is said twice is front and rear, as written; what is said once is of both. Only where something
/// that has a width is said twice, a sign or "and" stands between the two, no width falls, and no word speaks of another time or
/// of a choice: all else is asked. `None` where it is not so.
fn by_pairs(text: &str, lexed: &[Lexed]) -> Option<Assigned> {
    let names_an_axle =
        lexed.iter().any(|one| matches!(one.outcome, Ok(Piece::Axle(tag)) if tag.axles != Axles::Both));
    if names_an_axle || says_any(text, &OF_ANOTHER_TIME) || says_any(text, &OF_ANOTHER_SET) {
        return None;
    }
    let mut axles = vec![Axles::Both; lexed.len()];
    let mut seen: Vec<(std::mem::Discriminant<Piece>, Vec<usize>)> = Vec::new();
    for (at, one) in lexed.iter().enumerate().filter(|(_, one)| topic(one).is_some()) {
        let kind = discriminant(one)?;
        match seen.iter_mut().find(|(known, _)| *known == kind) {
            Some((_, places)) => places.push(at),
            None => seen.push((kind, vec![at])),
        }
    }
    // One pair with a sign says that the line is of pairs; the others may stand side by side.
    let mut parted_widths = 0;
    for (_, places) in &seen {
        match places.as_slice() {
            [_] => {}
            [first, second] => {
                let between = &lexed[*first..*second];
                let is_parted = parted_by_a_sign(text, between) || parted_by_and(text, between);
                if let Some((ahead, behind)) = width_of(&lexed[*first]).zip(width_of(&lexed[*second])) {
                    if behind < ahead {
                        return None;
                    }
                    parted_widths += usize::from(is_parted);
                }
                (axles[*first], axles[*second]) = (Axles::Front, Axles::Rear);
            }
            _ => return None,
        }
    }
    (parted_widths > 0).then_some(Assigned { axles, names_axles: true, question: None, is_by_clause: false })
}

/// Words by which a line speaks of two times, or of a choice: two sizes in it are two setups, and no axles.
const OF_ANOTHER_TIME: [&str; 17] = [
    "before", "after", "was", "were", "now", "or", "vs", "versus", "instead", "option", "options", "alt",
    "oder", "statt", "vorher", "nachher", "want",
];
/// Words by which one of two sets may be named.
const OF_ANOTHER_SET: [&str; 9] =
    ["old", "new", "stock", "oem", "factory", "original", "summer", "winter", "serie"];

fn says_any(text: &str, words: &[&str]) -> bool {
    let low = text.to_lowercase();
    low.split(|letter: char| !letter.is_alphanumeric()).any(|word| words.contains(&word))
}

/// Whether nothing but "and" stands between two pieces.
fn parted_by_and(text: &str, between: &[Lexed]) -> bool {
    let inner = between.get(1..).unwrap_or_default();
    let says: String = inner.iter().filter_map(|one| text.get(one.span.clone())).collect();
    matches!(says.trim().to_lowercase().as_str(), "and" | "und" | "et" | "y" | "e" | "en" | "och" | "og")
}

fn assign(text: &str, lexed: &[Lexed]) -> Assigned {
    let tags: Vec<usize> = lexed
        .iter()
        .enumerate()
        .filter(|(_, one)| matches!(one.outcome, Ok(Piece::Axle(tag)) if tag.axles != Axles::Both))
        .map(|(at, _)| at)
        .collect();
    if tags.is_empty() {
        return by_place(text, lexed);
    }
    let axles = Named { text, lexed, tags: &tags }.assign();
    Assigned { axles, names_axles: true, question: None, is_by_clause: false }
}

/// A text that names axles by words.
struct Named<'l> {
    text: &'l str,
    lexed: &'l [Lexed],
    tags: &'l [usize],
}

impl Named<'_> {
    fn assign(&self) -> Vec<Axles> {
        let mut axles = vec![Axles::Both; self.lexed.len()];
        let last = self.tags.last().copied().unwrap_or_default();
        let announced = self.tags.iter().any(|tag| self.tag(*tag).announces);
        if announced || !self.topics(last..self.lexed.len()).is_empty() {
            self.named_before(&mut axles);
        } else {
            self.named_behind(&mut axles);
        }
        axles
    }

    fn tag(&self, at: usize) -> crate::notation::AxleTag {
        match self.lexed[at].outcome {
            Ok(Piece::Axle(tag)) => tag,
            _ => crate::notation::AxleTag { axles: Axles::Both, announces: false, only: false },
        }
    }

    fn topics(&self, stretches: Range<usize>) -> Vec<Topic> {
        self.lexed[stretches].iter().filter_map(topic).collect()
    }

    /// The spacers right before an axle word that are meant by it: nothing but blanks between, and the word ends there
    /// what is said.
    fn spacers_before(&self, tag: usize) -> Option<Range<usize>> {
        if self.tag(tag).announces {
            return None;
        }
        let mut from = tag;
        while from > 0
            && matches!(
                self.lexed[from - 1].outcome,
                Ok(Piece::Gap | Piece::Filler | Piece::LeftAside | Piece::Spacing(_))
            )
        {
            from -= 1;
        }
        let has_spacer = self.topics(from..tag).contains(&Topic::Spacer);
        let next = self.lexed[tag + 1..]
            .iter()
            .find(|one| topic(one).is_some() || matches!(one.outcome, Ok(Piece::Axle(_))));
        let ends = self.tag(tag).only
            || self.ends_a_clause(tag + 1)
            || next.is_none_or(|next| {
                topic(next) != Some(Topic::Spacer) && matches!(next.outcome, Ok(Piece::Axle(_)))
            });
        (has_spacer && ends).then_some(from..tag)
    }

    /// Whether a separator stands at this stretch, before anything else.
    fn ends_a_clause(&self, at: usize) -> bool {
        match self.lexed.get(at) {
            None => true,
            Some(one) => {
                matches!(one.outcome, Ok(Piece::Gap))
                    && self.text[one.span.clone()].contains([',', ';', '.', '\n', '|', '·'])
            }
        }
    }

    fn named_before(&self, axles: &mut [Axles]) {
        let mut current = Axles::Both;
        let mut said: Vec<Topic> = Vec::new();
        let mut parted = false;
        for at in 0..self.lexed.len() {
            if let Ok(Piece::Axle(tag)) = self.lexed[at].outcome {
                let behind = self.tags.iter().copied().find(|next| *next > at).unwrap_or(self.lexed.len());
                if let Some(range) = self.spacers_before(at) {
                    axles[range].fill(tag.axles);
                } else if !tag.announces && self.topics(at..behind).is_empty() && current == Axles::Both {
                    // "18x8.5 ET35 front, rear 18x9.5 ET40": the word stands behind, once.
                    let from = self.tags.iter().rev().copied().find(|before| *before < at).unwrap_or(0);
                    axles[from..at].fill(tag.axles);
                } else {
                    current = tag.axles;
                    said.clear();
                    parted = false;
                }
                continue;
            }
            parted |= self.ends_a_clause(at);
            if let Some(topic) = topic(&self.lexed[at]) {
                // What is said of an axle's spacer ends with its clause.
                if parted
                    && topic != Topic::Spacer
                    && !said.is_empty()
                    && said.iter().all(|one| *one == Topic::Spacer)
                {
                    current = Axles::Both;
                    said.clear();
                }
                said.push(topic);
                axles[at] = current;
            }
        }
        self.other_axle_before(axles);
    }

    /// "18x9.5 +40 / rear: 18x8.5 +35": where only one axle is named and its wheel or tire is said twice, the other one
    /// sits on the other axle.
    fn other_axle_before(&self, axles: &mut [Axles]) {
        let first = self.tags.first().copied().unwrap_or_default();
        let named = self.tag(first).axles;
        if self.tags.iter().any(|tag| self.tag(*tag).axles != named) {
            return;
        }
        let other = if named == Axles::Front { Axles::Rear } else { Axles::Front };
        for size in [is_wheel as fn(&Lexed) -> bool, is_tire] {
            let before = self.lexed[..first].iter().filter(|one| size(one)).count();
            let after = self.lexed[first..].iter().filter(|one| size(one)).count();
            if before == 1 && after == 1 {
                let about = self.lexed[..first].iter().find(|one| size(one)).and_then(topic);
                for (one, axle) in self.lexed[..first].iter().zip(axles.iter_mut()) {
                    if topic(one) == about && *axle == Axles::Both {
                        *axle = other;
                    }
                }
            }
        }
    }

    fn named_behind(&self, axles: &mut [Axles]) {
        let mut from = 0;
        let mut chunks: Vec<(Range<usize>, Axles)> = Vec::new();
        for tag in self.tags {
            chunks.push((from..*tag, self.tag(*tag).axles));
            from = *tag;
        }
        chunks.retain(|(range, _)| !self.topics(range.clone()).is_empty());
        if let [(range, named)] = chunks.as_slice() {
            match self.spacers_before(range.end) {
                Some(spacers) => axles[spacers].fill(*named),
                None => axles[range.clone()].fill(*named),
            }
            return;
        }
        // What only one axle is said to have of wheels or tires is on both; where nothing is said of both, each has its own.
        let topics: Vec<Vec<Topic>> = chunks.iter().map(|(range, _)| self.topics(range.clone())).collect();
        let shared = |topic: Topic| topics.iter().all(|chunk| chunk.contains(&topic));
        let nothing_shared = ![Topic::Wheel, Topic::Tire, Topic::Spacer].into_iter().any(shared);
        for (range, named) in &chunks {
            for at in range.clone() {
                if let Some(topic) = topic(&self.lexed[at])
                    && (topic == Topic::Spacer || nothing_shared || shared(topic))
                {
                    axles[at] = *named;
                }
            }
        }
    }
}

fn is_wheel(one: &Lexed) -> bool {
    matches!(&one.outcome, Ok(Piece::Wheel(size)) if size.width.is_some())
}

fn is_tire(one: &Lexed) -> bool {
    matches!(one.outcome, Ok(Piece::Tire(_) | Piece::TireWithoutRim { .. }))
}

/// A text without axle words: two lines, or two sizes of a kind with a sign between them.
fn by_place(text: &str, lexed: &[Lexed]) -> Assigned {
    let nothing_named = Assigned {
        axles: vec![Axles::Both; lexed.len()],
        names_axles: false,
        question: None,
        is_by_clause: false,
    };
    let sizes = [is_wheel, is_tire].map(|is| lexed.iter().filter(|one| is(one)).count());
    if sizes.iter().all(|sizes| *sizes < 2) || sizes.iter().any(|sizes| *sizes > 2) {
        return nothing_named;
    }
    if says_any(text, &OF_ANOTHER_TIME) {
        return nothing_named;
    }
    let places = |is: fn(&Lexed) -> bool| -> Vec<usize> {
        lexed.iter().enumerate().filter(|(_, one)| is(one)).map(|(at, _)| at).collect()
    };
    let kinds = [(Topic::Wheel, places(is_wheel)), (Topic::Tire, places(is_tire))];
    let mut axles = nothing_named.axles.clone();
    if let Some(first_of_second) = second_line(text, lexed, &kinds) {
        for (at, axle) in axles.iter_mut().enumerate() {
            *axle = if lexed[at].span.start < first_of_second { Axles::Front } else { Axles::Rear };
        }
        return Assigned { axles, names_axles: true, question: None, is_by_clause: false };
    }
    for (about, places) in &kinds {
        let [first, second] = places.as_slice() else { continue };
        if !parted_by_a_sign(text, &lexed[*first..*second]) {
            return nothing_named;
        }
        if !second_is_wider(&lexed[*first], &lexed[*second]) {
            let written = text[lexed[*second].span.clone()].trim();
            let choices = [format!("rear: {written}"), format!("front: {written}")];
            let question = Reason::which("the wider one is named first: which axle is this?", choices);
            return Assigned {
                axles,
                names_axles: true,
                question: Some((*second, question)),
                is_by_clause: false,
            };
        }
        for at in 0..lexed.len() {
            // A bolt circle, bore or mark said once is said of both.
            let once = lexed.iter().filter(|one| discriminant(one) == discriminant(&lexed[at])).count() == 1
                && matches!(
                    lexed[at].outcome,
                    Ok(Piece::Drilling(_)
                        | Piece::CircleAlone(_)
                        | Piece::CountAlone(_)
                        | Piece::CenterBore { .. }
                        | Piece::CenterLock)
                );
            if topic(&lexed[at]) == Some(*about) && !once {
                axles[at] = if at < *second { Axles::Front } else { Axles::Rear };
            }
        }
    }
    Assigned { axles, names_axles: true, question: None, is_by_clause: false }
}

fn discriminant(one: &Lexed) -> Option<std::mem::Discriminant<Piece>> {
    one.outcome.as_ref().ok().map(std::mem::discriminant)
}

/// Where the second line begins when the text is two lines with a setup each. A wheel on one line and its tire on the
/// next are one setup.
fn second_line(text: &str, lexed: &[Lexed], kinds: &[(Topic, Vec<usize>); 2]) -> Option<usize> {
    let line_of =
        |at: usize| text.as_bytes()[..lexed[at].span.start].iter().filter(|byte| **byte == b'\n').count();
    let mut lines = Vec::new();
    for (_, places) in kinds {
        if let [first, second] = places.as_slice() {
            lines.push((line_of(*first), line_of(*second)));
        }
    }
    let (first, second) = lines.first().copied()?;
    let whole = first != second && lines.iter().all(|pair| *pair == (first, second));
    let line_start = |line: usize| text.match_indices('\n').nth(line.checked_sub(1)?).map(|(at, _)| at + 1);
    whole.then(|| line_start(second)).flatten()
}

/// Whether a slash, an ampersand, a bar or a plus stands between the pieces.
fn parted_by_a_sign(text: &str, between: &[Lexed]) -> bool {
    between.iter().any(|one| {
        matches!(one.outcome, Ok(Piece::Gap | Piece::Filler))
            && text.get(one.span.clone()).is_some_and(|gap| {
                // A dash alone, right between two.
                gap.contains(['/', '&', '|', '+', '／', '∕']) || gap == "-"
            })
    })
}

fn width_of(one: &Lexed) -> Option<f64> {
    match &one.outcome {
        Ok(Piece::Wheel(size)) => size.width.map(|width| width.code()),
        Ok(Piece::Tire(tire)) => Some(tire.size.named_section_width().as_mm()),
        Ok(Piece::TireWithoutRim { section, .. }) => Some(f64::from(*section)),
        _ => None,
    }
}

fn second_is_wider(first: &Lexed, second: &Lexed) -> bool {
    width_of(first).zip(width_of(second)).is_some_and(|(first, second)| second > first)
}
