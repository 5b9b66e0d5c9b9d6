//! What an axle's trials come to.

use super::{Contact, TryOn};
use crate::brake::smaller_rim::smaller_rims;
use crate::case::AxleCase;
use crate::clearance::Verdict;
use crate::codes::RimDiameter;
use crate::corner::{Carrier, Feature};
use crate::setup::{Axle, Setup};
use crate::wheel::Backspacing;
use crate::working::{Phrase, Quantity, Source};

/// Where the sentences come from.
const SOURCE: Source =
    Source::common_practice("a rim that hits inside its barrel rules out every smaller one; no source");

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
    rims(&here, &mut lines);
    widths(&here, &mut lines);
    backspacing(&here, corner, &mut lines);
    outboard(&here, corner, &mut lines);
    open_questions(&here, corner, &mut lines);
    Conclusion { lines, next: next(corner, could_try) }
}

fn say(lines: &mut Vec<Line>, kind: Kind, says: Phrase) {
    lines.push(Line { kind, says });
}

fn rim_of(one: &TryOn) -> Option<RimDiameter> {
    one.setup.wheel.map(|wheel| wheel.diameter)
}

/// Which rim codes go over what stands inside the barrel.
fn rims(here: &[&TryOn], lines: &mut Vec<Line>) {
    let hits = here.iter().filter(|one| one.contact.is_of_barrel() && one.touched());
    if let Some(largest) = hits.max_by(|a, b| rim_of(a).cmp(&rim_of(b)))
        && let Some(rim) = rim_of(largest)
    {
        let says = Phrase::new("")
            .quantity(Quantity::rim_inches(rim.code()))
            .text(format!(" is out, and everything smaller: {}", largest.contact.title()));
        let says = match largest.gap {
            Some(gap) => says.text(", ").quantity(Quantity::length(gap.abs())).text(" of overlap."),
            None => says.text("."),
        };
        say(lines, Kind::Out, says);
    }
    let over = here.iter().filter(|one| !(one.contact.is_of_barrel() && one.touched()));
    let Some(smallest) = over.filter_map(|one| rim_of(one)).min() else { return };
    let gap = here
        .iter()
        .filter(|one| rim_of(one) == Some(smallest) && one.contact.is_of_barrel())
        .filter_map(|one| one.gap)
        .reduce(|a, b| if b < a { b } else { a });
    let says = Phrase::new("")
        .quantity(Quantity::rim_inches(smallest.code()))
        .text(" goes over what stands in the barrel");
    let says = match gap {
        Some(gap) => says.text(", with ").quantity(Quantity::length(gap)).text("."),
        None => says.text("."),
    };
    say(lines, Kind::Open, says);
    let below = gap.and_then(|gap| smaller_rims(smallest, gap, 1).pop());
    if let Some(below) = below.filter(|below| !below.is_worth_trying) {
        let says = Phrase::new("")
            .quantity(Quantity::rim_inches(below.rim.code()))
            .text(" is not worth lifting on: an inch less takes half an inch all round, ")
            .quantity(below.gap.quantity)
            .text(" left.");
        say(lines, Kind::Out, says);
    }
}

/// The widest wheel of each rim that went on without touching.
fn widths(here: &[&TryOn], lines: &mut Vec<Line>) {
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

/// The most backspacing that leaves the house's gap to what was met inboard.
fn backspacing(here: &[&TryOn], corner: &AxleCase<'_>, lines: &mut Vec<Line>) {
    let most = here
        .iter()
        .filter_map(|one| {
            let feature = one.contact.feature()?;
            let is_inboard = matches!(feature, Feature::Strut | Feature::Knuckle | Feature::InnerLiner);
            let (wheel, gap) = (one.setup.wheel?, one.gap?);
            let offset = one.setup.effective_offset()?;
            let own = Backspacing::from_offset(wheel.width, offset).length();
            is_inboard.then(|| (own + gap - corner.least(feature), one.contact))
        })
        .reduce(|a, b| if b.0 < a.0 { b } else { a });
    let Some((most, contact)) = most else { return };
    let says = Phrase::new("Backspacing up to ")
        .quantity(Quantity::length(most))
        .text(" open, bound by the ")
        .text(contact.part())
        .text(", the house's gap kept.");
    say(lines, Kind::Open, says);
}

/// How far out a wheel can stand before the fender.
fn outboard(here: &[&TryOn], corner: &AxleCase<'_>, lines: &mut Vec<Line>) {
    let least = here
        .iter()
        .filter(|one| one.contact == Contact::Fender)
        .filter_map(|one| {
            let (wheel, gap) = (one.setup.wheel?, one.gap?);
            let offset = one.setup.effective_offset()?;
            let room = gap - corner.least(Feature::FenderLateral);
            Some((wheel.width, offset.as_mm() - room.as_mm()))
        })
        .reduce(|a, b| if b.1 > a.1 { b } else { a });
    let Some((width, least)) = least else { return };
    let says = Phrase::new("At a rim of ")
        .quantity(Quantity::rim_inches(width.code()))
        .text(format!(" the fender allows ET {least:.1} and more, the house's gap kept."));
    say(lines, Kind::Open, says);
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
    use super::super::tests::tried;
    use super::*;
    use crate::corner::Corner;
    use crate::lever::Levers;
    use crate::limits::HouseLimits;

    fn concluded(tries: &[TryOn], could_try: &[&str]) -> (Vec<(Kind, String)>, Option<usize>) {
        let fitted: Setup = "18x8 ET40 245/45R18".parse().unwrap();
        let corner =
            Corner { readings: tries.iter().filter_map(TryOn::reading).collect(), ..Corner::default() };
        let (resolved, limits, levers) = (corner.resolve(), HouseLimits::DEFAULT, Levers::default());
        let trial = AxleCase {
            axle: Axle::Rear,
            corner: &corner,
            resolved: &resolved,
            fitted: &fitted,
            limits: &limits,
            levers: &levers,
        };
        let could_try: Vec<Setup> = could_try.iter().map(|text| text.parse().unwrap()).collect();
        let conclusion = conclude(Axle::Rear, tries, &trial, &could_try);
        let text = |phrase: &Phrase| {
            let piece = |fragment: &crate::working::Fragment| match fragment {
                crate::working::Fragment::Text(text) => text.to_string(),
                crate::working::Fragment::Quantity(quantity) => format!("{:.1}", quantity.value),
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
        assert!(
            has(Kind::Out, "15.0 is out, and everything smaller: barrel on parking brake, 6.0"),
            "{lines:?}"
        );
        assert!(has(Kind::Open, "17.0 goes over what stands in the barrel, with 9.0"), "{lines:?}");
        // By hand: 9.0 − 12.7 = −3.7 mm for the next inch.
        assert!(has(Kind::Out, "16.0 is not worth lifting on"), "{lines:?}");
        // (10 / 2 + 0.5) × 25.4 + 25 + 24 − 5 = 183.7 mm.
        assert!(has(Kind::Open, "Backspacing up to 183.7"), "{lines:?}");
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
        let trial = AxleCase { axle: Axle::Rear, corner, resolved, fitted, limits: &limits, levers: &levers };
        assert_eq!(resolved.troubles.len(), 1, "it is no reading of the fender");
        let lines = conclude(Axle::Rear, &[hanging], &trial, &[]).lines;
        let asked = lines.iter().filter(|line| format!("{:?}", line.says).contains("Read it on the ground"));
        assert!(
            asked.clone().count() == 1 && asked.clone().all(|line| line.kind == Kind::ToFind),
            "{lines:?}"
        );
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
