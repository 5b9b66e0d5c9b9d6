//! What an axle's trials come to.

use super::TryOn;
use crate::car::brake::smaller_rim::smaller_rims;
use crate::car::corner::{Carrier, Feature};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::Verdict;
use crate::judgement::window::{Edge, TireChoice, WidthWindow};
use crate::parts::wheel::Backspacing;
use crate::setup::{Axle, Setup};
use crate::values::codes::{Offset, RimDiameter};
use crate::values::working::{Phrase, Quantity, Source};

/// Where the sentences come from.
const SOURCE: Source =
    Source::common_practice("a wheel that hits inside its barrel rules out every smaller rim; no source");

/// What a line of the conclusion is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// It cannot be fitted.
    Out,
    /// It can.
    Open,
    /// It is not known yet.
    ToFind,
}

/// One sentence of the conclusion.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// What it is.
    pub kind: Kind,
    /// The sentence.
    pub says: Phrase,
}

/// What to try next.
#[derive(Debug, Clone, PartialEq)]
pub struct Next {
    /// Its place among those that could be tried.
    pub index: usize,
    /// Why that one.
    pub says: Phrase,
}

/// What an axle's trials come to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Conclusion {
    /// In sentences: what is out, what is open, what is still to find.
    pub lines: Vec<Line>,
    /// The next most useful trial.
    pub next: Option<Next>,
}

impl Conclusion {
    /// Where its rules come from.
    pub const SOURCE: Source = SOURCE;
}

/// Draws the conclusion of an axle's trials.
///
/// `corner` is the axle with every reading and contact in it; `could_try` are the setups at hand.
pub fn conclude(axle: Axle, tries: &[TryOn], corner: &AxleCase<'_>, could_try: &[Setup]) -> Conclusion {
    let here: Vec<&TryOn> = tries.iter().filter(|one| one.axle == axle).collect();
    let mut lines = Vec::new();
    if here.is_empty() {
        return Conclusion { lines, next: next(corner, could_try) };
    }
    conflicts(&here, &mut lines);
    over_the_brake(&here, &mut lines);
    went_on(&here, &mut lines);
    offsets(&here, corner, &mut lines);
    without_offset(&here, &mut lines);
    open_questions(&here, corner, &mut lines);
    Conclusion { lines, next: next(corner, could_try) }
}

fn say(lines: &mut Vec<Line>, kind: Kind, says: Phrase) {
    lines.push(Line { kind, says });
}

fn rim_of(one: &TryOn) -> Option<RimDiameter> {
    one.setup.wheel.map(|wheel| wheel.diameter)
}

/// Trials of one wheel that cannot both be true: it met a part, and it ran clean past the same part as the car stood then.
fn conflicts(here: &[&TryOn], lines: &mut Vec<Line>) {
    for (at, one) in here.iter().enumerate().filter(|(_, one)| one.touched()) {
        let denies = |other: &&TryOn| {
            other.ran_clean()
                && (other.setup, other.steer, other.is_hanging, other.side)
                    == (one.setup, one.steer, one.is_hanging, one.side)
                && (other.contact == one.contact || other.contact == super::Contact::None)
        };
        let is_told = here[..at].iter().any(|before| before.touched() && before.setup == one.setup);
        if !is_told && here.iter().copied().any(|other| denies(&other)) {
            let says = format!(
                "{}: two trials contradict each other at {}: it was met once and not another time. Try it on again, as the \
                 car will stand; until then the contact counts.",
                one.setup,
                one.contact.title()
            );
            say(lines, Kind::ToFind, Phrase::new(says));
        }
    }
}

/// Which wheels go over what stands inside the barrel, and which rim codes that settles.
///
/// Barrels of one rim code differ by some millimetres, so a hit says that this wheel is out, not its rim code; smaller
/// codes are out as long as no wheel as small went over.
fn over_the_brake(here: &[&TryOn], lines: &mut Vec<Line>) {
    let hit = |one: &&&TryOn| one.contact.is_of_barrel() && one.touched();
    let has_hit = |one: &TryOn| here.iter().filter(hit).any(|other| other.setup.wheel == one.setup.wheel);
    let smallest_over = here
        .iter()
        .filter(|one| one.setup.wheel.is_some() && !has_hit(one))
        .min_by(|a, b| rim_of(a).cmp(&rim_of(b)));
    for one in here.iter().filter(hit) {
        let says = Phrase::new(format!("{} does not go over: {}", one.setup, one.contact.title()));
        let says = match one.gap {
            Some(gap) => says.text(", ").quantity(Quantity::length(gap.abs())).text(" of overlap."),
            None => says.text("."),
        };
        say(lines, Kind::Out, says);
    }
    let largest_hit = here.iter().filter(hit).filter_map(|one| rim_of(one)).max();
    if let Some(largest) = largest_hit
        && smallest_over.and_then(|one| rim_of(one)).is_none_or(|over| over >= largest)
    {
        let says = Phrase::new("Every rim smaller than ")
            .quantity(Quantity::rim_inches(largest.code()))
            .text(" is out with it.");
        say(lines, Kind::Out, says);
    }
    let Some(smallest) = smallest_over.and_then(|one| rim_of(one)) else { return };
    let tightest = here
        .iter()
        .filter(|one| rim_of(one) == Some(smallest) && one.contact.is_of_barrel() && !has_hit(one))
        .filter_map(|one| Some((one.gap?, one)))
        .min_by(|a, b| a.0.as_mm().total_cmp(&b.0.as_mm()));
    let Some((gap, one)) = tightest else { return };
    let says = Phrase::new(format!("{} goes over what stands in the barrel, with ", one.setup))
        .quantity(Quantity::length(gap))
        .text(".");
    say(lines, Kind::Open, says);
    let below = smaller_rims(smallest, gap, 1).pop();
    let is_said = |rim: RimDiameter| largest_hit.is_some_and(|hit| rim <= hit);
    if let Some(below) = below.filter(|below| !below.is_worth_trying && !is_said(below.rim)) {
        let says = Phrase::new("")
            .quantity(Quantity::rim_inches(below.rim.code()))
            .text(" is not worth lifting on: by the bead seats ")
            .quantity(below.gap.quantity)
            .text(" would be left.");
        say(lines, Kind::Out, says);
    }
}

/// The widest wheel of each rim that went on without touching.
fn went_on(here: &[&TryOn], lines: &mut Vec<Line>) {
    let mut widest: std::collections::BTreeMap<RimDiameter, &TryOn> = std::collections::BTreeMap::new();
    for one in here {
        let Some(wheel) = one.setup.wheel else { continue };
        // A wheel that touched anywhere in any of its trials is not one that went on.
        let touched = here.iter().any(|other| other.setup.wheel == Some(wheel) && other.touched());
        if touched {
            continue;
        }
        let known = widest.entry(wheel.diameter).or_insert(one);
        if known.setup.wheel.is_some_and(|known| known.width < wheel.width) {
            *known = one;
        }
    }
    for one in widest.values() {
        let bare = if one.setup.tire.is_none() { ", bare" } else { "" };
        let says = Phrase::new(format!("{}{bare}: went on without touching.", one.setup));
        say(lines, Kind::Open, says);
    }
}

/// Where wheels like the tried ones may stand: the fit window's own answer, with its ±, camber and what is done to the
/// car.
fn offsets(here: &[&TryOn], corner: &AxleCase<'_>, lines: &mut Vec<Line>) {
    let mut told: Vec<Setup> = Vec::new();
    for one in here {
        let Some(wheel) = one.setup.wheel.filter(|wheel| wheel.offset.is_some()) else { continue };
        let like = Setup {
            wheel: Some(crate::parts::wheel::Wheel { offset: None, ..wheel.placed() }),
            spacer: None,
            ..one.setup
        };
        if told.contains(&like) {
            continue;
        }
        told.push(like);
        let planned = Setup { spacer: None, ..one.setup };
        let windows = corner.window(&planned, TireChoice::Same, &[wheel.width], None);
        // What the brake rules out at any offset is said already.
        let is_bound = |window: &&WidthWindow| window.least.is_some() || window.most.is_some();
        let Some(window) = windows.first().filter(is_bound).filter(|window| window.blocked_by.is_empty())
        else {
            continue;
        };
        lines.push(offsets_of(&like, window));
    }
}

fn offsets_of(like: &Setup, window: &WidthWindow) -> Line {
    let bare = if like.tire.is_none() { ", bare" } else { "" };
    let name = |edge: Edge| edge.bound_by.facts().name;
    let kept = "the house's gaps and what the readings may be off kept.";
    let what = format!("{like}{bare}");
    if let Some(short) = window.short_by()
        && let (Some(least), Some(most)) = (window.least, window.most)
    {
        let says = Phrase::new(format!("{what}: no offset clears, "))
            .quantity(Quantity::length(short))
            .text(format!(" short between {} and {}, {kept}", name(least), name(most)));
        return Line { kind: Kind::Out, says };
    }
    let backspacing = |edge: Edge| {
        let offset = Offset::from_mm(edge.offset_mm)?;
        Some(Backspacing::from_offset(window.rim_width, offset).length())
    };
    let mut says = Phrase::new(format!("{what}: open "));
    says = match (window.least, window.most) {
        (Some(least), Some(most)) => says.text(format!(
            "from ET {:.1} ({}) to ET {:.1} ({})",
            least.offset_mm,
            name(least),
            most.offset_mm,
            name(most)
        )),
        (Some(least), None) => says.text(format!("from ET {:.1} up ({})", least.offset_mm, name(least))),
        (None, Some(most)) => says.text(format!("up to ET {:.1} ({})", most.offset_mm, name(most))),
        (None, None) => says.text("at any offset"),
    };
    if let Some(backspacing) = window.most.and_then(backspacing) {
        says = says.text(", backspacing up to ").quantity(Quantity::length(backspacing));
    }
    Line { kind: Kind::Open, says: says.text(format!(", {kept}")) }
}

/// A wheel whose offset nobody noted is kept: what it met inside the barrel counts, where it stood is not known.
fn without_offset(here: &[&TryOn], lines: &mut Vec<Line>) {
    let unplaced = here.iter().filter(|one| one.setup.wheel.is_some_and(|wheel| wheel.offset.is_none()));
    for one in unplaced {
        let says = format!(
            "{}: its offset is not noted, so what it met says nothing of how far in or out another wheel may stand.",
            one.setup
        );
        say(lines, Kind::ToFind, Phrase::new(says));
    }
}

/// What nobody tried or read yet.
fn open_questions(here: &[&TryOn], corner: &AxleCase<'_>, lines: &mut Vec<Line>) {
    if here.iter().all(|one| one.setup.tire.is_none()) {
        let says = "Only bare wheels were tried: with the tire on, strut, fender and arch are still open.";
        say(lines, Kind::ToFind, Phrase::new(says));
    }
    for one in here.iter().filter(|one| one.is_hanging) {
        let of_body = one.contact.feature().filter(|feature| feature.carrier() != Carrier::Upright);
        if let Some(feature) = of_body {
            let says = format!(
                "{}: the {} was met with the wheel hanging, and does not move with it. Read it on the ground.",
                one.setup,
                feature.facts().name
            );
            say(lines, Kind::ToFind, Phrase::new(says));
        }
    }
    let unknown: Vec<&str> = [Feature::Strut, Feature::FenderLateral, Feature::Arch]
        .into_iter()
        .filter(|feature| !corner.resolved.knows(*feature))
        .map(|feature| feature.facts().name)
        .collect();
    if !unknown.is_empty() {
        say(lines, Kind::ToFind, Phrase::new(format!("Not read yet: {}.", unknown.join(", "))));
    }
}

/// The setup whose trial would decide most: not known to clear nor to touch, and of those the one with the fewest open
/// lines, so that one trial settles it.
fn next(corner: &AxleCase<'_>, could_try: &[Setup]) -> Option<Next> {
    let (index, open) = could_try
        .iter()
        .enumerate()
        .filter_map(|(index, setup)| {
            let fit = corner.fit(setup)?;
            let is_open = |verdict| matches!(verdict, Verdict::MeasureFirst | Verdict::Tight);
            is_open(fit.verdict).then(|| {
                let open: Vec<&'static str> = fit
                    .clearances
                    .iter()
                    .filter(|line| is_open(line.verdict))
                    .map(|line| line.feature.facts().name)
                    .collect();
                (index, open)
            })
        })
        .min_by_key(|(index, open)| (open.len(), *index))?;
    let says = Phrase::new(format!("{}: it decides {}.", could_try[index], open.join(", ")));
    Some(Next { index, says })
}

#[cfg(test)]
mod tests {
    use super::super::Contact;
    use super::super::tests::tried;
    use super::*;
    use crate::car::corner::Corner;
    use crate::car::lever::Levers;
    use crate::car::limits::HouseLimits;

    fn concluded(tries: &[TryOn], could_try: &[&str]) -> (Vec<(Kind, String)>, Option<usize>) {
        let fitted: Setup = "18x8 ET40 245/45R18".parse().unwrap();
        let corner =
            Corner { readings: tries.iter().filter_map(TryOn::reading).collect(), ..Corner::default() };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let trial = AxleCase::new(Axle::Rear, &corner, &resolved, &fitted, &limits, &levers);
        let could_try: Vec<Setup> = could_try.iter().map(|text| text.parse().unwrap()).collect();
        let conclusion = conclude(Axle::Rear, tries, &trial, &could_try);
        let text = |phrase: &Phrase| {
            let piece = |fragment: &crate::values::working::Fragment| match fragment {
                crate::values::working::Fragment::Text(text) => text.to_string(),
                crate::values::working::Fragment::Quantity(quantity) => format!("{:.1}", quantity.value),
            };
            phrase.0.iter().map(piece).collect::<String>()
        };
        let lines = conclusion.lines.iter().map(|line| (line.kind, text(&line.says))).collect();
        (lines, conclusion.next.map(|next| next.index))
    }

    #[test]
    fn the_smaller_rim_is_out_and_the_backspacing_is_open() {
        let tries = [
            tried("15x10 ET25", Contact::BarrelParkingBrake, Some(-6.0)),
            tried("17x10 ET25", Contact::BarrelParkingBrake, Some(9.0)),
            tried("17x10 ET25", Contact::Strut, Some(24.0)),
        ];
        let (lines, _) = concluded(&tries, &[]);
        let has =
            |kind: Kind, words: &str| lines.iter().any(|(of, text)| *of == kind && text.contains(words));
        assert!(has(Kind::Out, "15x10 ET25 does not go over: barrel on parking brake, 6.0"), "{lines:?}");
        assert!(has(Kind::Out, "Every rim smaller than 15.0 is out with it"), "{lines:?}");
        assert!(has(Kind::Open, "17x10 ET25 goes over what stands in the barrel, with 9.0"), "{lines:?}");
        // By hand: 9.0 − 15.5 = −6.5 mm from 17 to 16 (ETRTO bead seats 436.6 and 405.6 mm).
        assert!(has(Kind::Out, "16.0 is not worth lifting on: by the bead seats -6.5"), "{lines:?}");
        // By hand, common practice: 25 + 24 − 5 = ET 44 before what the reading may be off; the window takes its ± away.
        assert!(has(Kind::Open, "17x10, bare: open up to ET 4"), "{lines:?}");
        assert!(has(Kind::Open, "17x10 ET25, bare: went on"), "{lines:?}");
        assert!(has(Kind::ToFind, "Only bare wheels"), "{lines:?}");
    }

    #[test]
    fn what_was_met_hanging_and_does_not_hang_along_is_asked_for_again() {
        let mut hanging = tried("18x9.5 ET30 255/40R18", Contact::Fender, Some(8.0));
        hanging.is_hanging = true;
        let fitted: Setup = "18x8 ET40 245/45R18".parse().unwrap();
        let corner = Corner { readings: hanging.reading().into_iter().collect(), ..Corner::default() };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let (corner, resolved, fitted) = (&corner, &resolved, &fitted);
        let trial = AxleCase::new(Axle::Rear, corner, resolved, fitted, &limits, &levers);
        assert_eq!(resolved.troubles.len(), 1, "it is no reading of the fender");
        let lines = conclude(Axle::Rear, &[hanging], &trial, &[]).lines;
        let asked = lines.iter().filter(|line| format!("{:?}", line.says).contains("Read it on the ground"));
        assert!(
            asked.clone().count() == 1 && asked.clone().all(|line| line.kind == Kind::ToFind),
            "{lines:?}"
        );
    }

    #[test]
    fn trials_that_cannot_both_be_true_are_told_as_such_and_others_are_not() {
        let told = |tries: &[TryOn]| {
            let (lines, _) = concluded(tries, &[]);
            lines.iter().filter(|(kind, text)| *kind == Kind::ToFind && text.contains("contradict")).count()
        };
        let met = tried("18x8 ET35", Contact::Fender, Some(-2.0));
        let clean = tried("18x8 ET35", Contact::None, None);
        assert_eq!(told(&[met, clean]), 1);
        assert_eq!(told(&[met, tried("18x8 ET35", Contact::Fender, Some(3.0))]), 1);
        // At lock, another wheel, or another part is another question.
        assert_eq!(told(&[met, TryOn { steer: crate::car::corner::Steer::LockLeft, ..clean }]), 0);
        assert_eq!(told(&[met, tried("18x8 ET40", Contact::None, None)]), 0);
        assert_eq!(told(&[met, tried("18x8 ET35", Contact::Strut, Some(9.0))]), 0);
    }

    #[test]
    fn the_next_trial_is_the_one_that_decides() {
        let tries = [tried("18x9.5 ET30 255/40R18", Contact::Fender, Some(8.0))];
        // ET20 would stand 2 mm out: ruled out; ET24 is tight by the tire's own tolerance: worth trying.
        let (_, next) = concluded(&tries, &["18x9.5 ET15 255/40R18", "18x9.5 ET26 255/40R18"]);
        assert_eq!(next, Some(1));
        let (lines, next) = concluded(&[], &[]);
        assert!(lines.is_empty() && next.is_none());
    }
}
