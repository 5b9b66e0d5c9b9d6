//! The mildest set of levers that turns a verdict.
//!
//! Sets are tried from mild to hard: by their hardest lever, then by how many there are, then by how far they
//! are set. What the wheel can do (spacer, offset) follows from the fit window in closed form; what the car
//! must give is tried in the steps it is done in, two kinds of work at most.

use crate::car::corner::Feature;
use crate::car::corner::feature::BlocksFrom;
use crate::car::lever::{Lever, Levers};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::{Fit, Verdict, style};
use crate::judgement::rules::permitted_rim::rim_fit;
use crate::judgement::window::{KnownEdges, WidthWindow, is_hopeless, open_window_of_its_width, sizes_near};
use crate::parts::tire::Tire;
use crate::parts::tire::rims::{PermittedRims, RimFit};
use crate::setup::spacers;
use crate::setup::{Listed, ListedTire, Setup};
use crate::values::codes::{Offset, RimWidth, Spacer};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity};

/// A set of levers that turns the verdict.
#[derive(Debug, Clone, PartialEq)]
pub struct Proposal {
    /// The levers pulled, from mild to hard, each with its amount: millimetres, inches for a rim width, degrees
    /// for camber, 0 for a tire.
    pub pulled: Vec<(Lever, f64)>,
    /// The setup with them.
    pub setup: Setup,
    /// What is done to the car, with what was already set.
    pub levers: Levers,
    /// How it then stands.
    pub fit: Fit,
}

impl Proposal {
    /// Whether all of it can be undone.
    pub fn can_be_undone(&self) -> bool {
        self.pulled.iter().all(|(lever, _)| lever.facts().can_be_undone)
    }

    /// The proposal as a sentence: what is done, that it clears, and how it then stands to the fender line.
    pub fn says(&self, trial: &AxleCase<'_>) -> Phrase {
        let mut phrase = Phrase::default();
        for (at, (lever, amount)) in self.pulled.iter().enumerate() {
            let joint = match at {
                0 => "",
                _ if at + 1 == self.pulled.len() => " and ",
                _ => ", ",
            };
            phrase = self.says_one(phrase.text(joint), *lever, *amount);
        }
        let is_open = self.fit.verdict == Verdict::MeasureFirst;
        phrase = phrase.text(match (is_open, self.pulled.len() == 1) {
            (true, true) => " clears what was read, the rest is measured first",
            (true, false) => " clear what was read, the rest is measured first",
            (false, true) => " clears it",
            (false, false) => " clear it",
        });
        let after = AxleCase { levers: &self.levers, ..*trial };
        match style(&after, &self.setup) {
            Some(style) => {
                let beyond = style.beyond();
                let side = if beyond > Length::ZERO { " outside the lip." } else { " inside the lip." };
                phrase.text("; it then stands ").quantity(Quantity::length(beyond.abs())).text(side)
            }
            None => phrase.text("."),
        }
    }

    fn says_one(&self, phrase: Phrase, lever: Lever, amount: f64) -> Phrase {
        let length = |mm: f64| Quantity::length(Length::mm(mm));
        let offset = self.setup.wheel.and_then(|wheel| wheel.offset);
        match lever {
            Lever::Spacer if amount > 0.0 => match self.setup.spacer {
                Some(whole) if whole.as_mm() > amount => {
                    phrase.text("a spacer of ").quantity(length(whole.as_mm()))
                }
                _ => phrase.text("a spacer of ").quantity(length(amount)),
            },
            Lever::Spacer => phrase.text("a spacer thinner by ").quantity(length(-amount)),
            Lever::Offset => phrase.text(offset.map(|offset| format!("{offset}")).unwrap_or_default()),
            Lever::RimWidth => {
                let width = self.setup.wheel.map_or(0.0, |wheel| wheel.width.code());
                phrase.text("a rim of ").quantity(Quantity::rim_inches(width))
            }
            Lever::Tire => {
                let size = self.setup.tire.map(|tire| tire.size.to_string()).unwrap_or_default();
                phrase.text(format!("a {size} tire"))
            }
            Lever::Camber => phrase.text(format!("{} ° more negative camber", amount.abs())),
            Lever::RideHeight if amount > 0.0 => phrase.text("raising it by ").quantity(length(amount)),
            other => phrase.text(format!("{} by ", other.facts().title)).quantity(length(amount.abs())),
        }
    }

    fn hardness(&self) -> (usize, usize, f64) {
        let hardest = self.pulled.iter().map(|(lever, _)| *lever as usize).max().unwrap_or(0);
        (hardest, self.pulled.len(), self.pulled.iter().map(|(_, amount)| amount.abs()).sum())
    }
}

/// The mildest set that makes every measured line clear; `None` when they all do, when the setup cannot be
/// placed, or when nothing known helps.
pub fn mildest(case: &AxleCase<'_>, planned: &Setup) -> Option<Proposal> {
    mildest_for(case, planned, &case.fit(planned)?)
}

/// The same of a setup whose fit is known.
pub fn mildest_for(case: &AxleCase<'_>, planned: &Setup, fit: &Fit) -> Option<Proposal> {
    let failing: Vec<Feature> = fit
        .clearances
        .iter()
        .filter(|line| line.band.is_some() && line.verdict != Verdict::Clears)
        .map(|line| line.feature)
        .collect();
    if failing.is_empty() {
        return None;
    }
    let mut known = KnownEdges::of(planned)?;
    by_a_spacer_over_the_brake(case, planned, &failing)
        .or_else(|| with_the_wheel_moved(case, planned, case.levers, Vec::new(), &mut known))
        .or_else(|| by_width(case, planned))
        .or_else(|| by_tire(case, planned))
        .or_else(|| by_work_on_the_car(case, planned, &failing, &mut known))
}

/// Where the brake alone stands against it: the thinnest spacer of the shelf with which the whole clears. A window of offsets
/// knows nothing of the brake.
fn by_a_spacer_over_the_brake(case: &AxleCase<'_>, planned: &Setup, failing: &[Feature]) -> Option<Proposal> {
    if failing.iter().any(|feature| !feature.is_of_the_brake()) {
        return None;
    }
    let there = planned.spacer.map_or(0.0, Spacer::as_mm);
    spacers::SHELF_MM.into_iter().filter(|mm| *mm > there).find_map(|mm| {
        let setup = Setup { spacer: Spacer::from_mm(mm), ..*planned };
        let fit = case.fit(&setup)?;
        let is_mended =
            |feature: &Feature| fit.line(*feature).is_some_and(|line| line.verdict == Verdict::Clears);
        let pulled = vec![(Lever::Spacer, mm - there)];
        (!fit.rules_out() && failing.iter().all(is_mended)).then_some(Proposal {
            pulled,
            setup,
            levers: *case.levers,
            fit,
        })
    })
}

fn by_width(case: &AxleCase<'_>, planned: &Setup) -> Option<Proposal> {
    let other = |quarters: i32| {
        let mut setup = *planned;
        let wheel = setup.wheel.as_mut()?;
        wheel.width = wheel.width.stepped(quarters)?;
        if rim_fit(&setup).is_some_and(|fit| fit != RimFit::Permitted) {
            return None;
        }
        let pulled = vec![(Lever::RimWidth, f64::from(quarters) / 4.0)];
        with_the_wheel_moved(case, &setup, case.levers, pulled, &mut KnownEdges::of(&setup)?)
    };
    mildest_of([-2, 2, -4].into_iter().filter_map(other))
}

fn by_tire(case: &AxleCase<'_>, planned: &Setup) -> Option<Proposal> {
    let (tire, width) = (planned.tire?, planned.wheel?.width);
    let section = tire.size.named_section_width();
    let narrower = sizes_near(&tire.size)
        .into_iter()
        .filter(|size| size.named_section_width() < section && may_go_on(size, width))
        .rev()
        .take(2);
    mildest_of(narrower.filter_map(|size| {
        let listed = Listed { tire: ListedTire::default(), ..planned.listed };
        let setup = Setup { tire: Some(Tire { size, service: None, ..tire }), listed, ..*planned };
        let pulled = vec![(Lever::Tire, 0.0)];
        with_the_wheel_moved(case, &setup, case.levers, pulled, &mut KnownEdges::of(&setup)?)
    }))
}

fn by_work_on_the_car(
    case: &AxleCase<'_>,
    planned: &Setup,
    failing: &[Feature],
    known: &mut KnownEdges,
) -> Option<Proposal> {
    let helpful: Vec<(Lever, f64)> = Lever::ALL
        .into_iter()
        .filter(|lever| failing.iter().any(|feature| helps(*lever, *feature)))
        .flat_map(|lever| amounts(lever).map(move |amount| (lever, amount)))
        .collect();
    let singles = helpful.iter().map(|one| vec![*one]);
    let pairs = helpful.iter().enumerate().flat_map(|(at, one)| {
        let others = helpful[at + 1..].iter().filter(move |other| other.0 != one.0);
        others.map(move |other| vec![*one, *other])
    });
    let mut sets: Vec<Vec<(Lever, f64)>> = singles.chain(pairs).collect();
    let hardest = |set: &[(Lever, f64)]| set.iter().map(|(lever, _)| *lever as usize).max();
    sets.sort_by_key(|set| (hardest(set), set.len()));
    let mut best: Option<Proposal> = None;
    for set in sets {
        let harder = |best: &Proposal| hardest(&set) > Some(best.hardness().0);
        if best.as_ref().is_some_and(harder) {
            break;
        }
        let levers = set.iter().fold(*case.levers, |levers, (lever, amount)| {
            levers.with(*lever, levers.amount(*lever) + amount)
        });
        if set.iter().all(|(lever, _)| in_range(&levers, *lever)) {
            let found = with_the_wheel_moved(case, planned, &levers, set, known);
            best = mildest_of([best, found].into_iter().flatten());
        }
    }
    best
}

/// The setup with the spacer or offset that clears, if there is one; no other offset where none is needed.
fn with_the_wheel_moved(
    case: &AxleCase<'_>,
    setup: &Setup,
    levers: &Levers,
    mut pulled: Vec<(Lever, f64)>,
    known: &mut KnownEdges,
) -> Option<Proposal> {
    let trial = AxleCase { levers, ..*case };
    let offset = setup.wheel?.offset?.as_mm();
    if is_hopeless(&trial, known) {
        return None;
    }
    let window = open_window_of_its_width(&trial, setup, known)?;
    let mut setup = *setup;
    if !window.clears(offset) {
        let (lever, amount, moved) = moved_into(&window, &setup, offset)?;
        setup = moved;
        pulled.push((lever, amount));
    }
    pulled.sort_by_key(|(lever, _)| *lever);
    let fit = trial.fit(&setup)?;
    // Nothing is proposed that something else then stands against.
    (!fit.rules_out()).then_some(Proposal { pulled, setup, levers: *levers, fit })
}

/// Moves a wheel into its window: outward by a spacer, else by another offset; inward by a thinner spacer or
/// another offset. Whole millimetres.
fn moved_into(window: &WidthWindow, setup: &Setup, offset: f64) -> Option<(Lever, f64, Setup)> {
    let spacer = setup.spacer.map_or(0.0, Spacer::as_mm);
    let with_spacer = |thickness: f64| Setup { spacer: Spacer::from_mm(thickness), ..*setup };
    if let Some(most) = window.most.filter(|most| offset > most.offset_mm) {
        let out = (offset - most.offset_mm - 1e-9).ceil();
        if !window.clears(offset - out) {
            return None;
        }
        // A spacer of the shelf may stand in for less offset.
        let of_the_shelf = spacers::SHELF_MM
            .into_iter()
            .find(|mm| *mm >= spacer + out && window.clears(offset - (mm - spacer)));
        if let Some(mm) = of_the_shelf {
            return Some((Lever::Spacer, mm - spacer, with_spacer(mm)));
        }
        return Some((Lever::Offset, -out, at_offset(setup, offset - out)?));
    }
    let least = window.least?;
    let inward = (least.offset_mm - offset - 1e-9).ceil();
    if !window.clears(offset + inward) {
        return None;
    }
    if spacer >= inward {
        return Some((Lever::Spacer, -inward, with_spacer(spacer - inward)));
    }
    Some((Lever::Offset, inward, at_offset(setup, offset + inward)?))
}

fn at_offset(setup: &Setup, offset: f64) -> Option<Setup> {
    let mut wheel = setup.wheel?;
    wheel.offset = Some(Offset::from_mm(offset)?);
    Some(Setup { wheel: Some(wheel), ..*setup })
}

fn may_go_on(size: &crate::parts::tire::Size, width: RimWidth) -> bool {
    PermittedRims::estimated(size).judge(width) == RimFit::Permitted
}

/// Whether work on the car with this lever can make room to a part.
pub fn helps(lever: Lever, feature: Feature) -> bool {
    match lever {
        Lever::Camber => feature == Feature::FenderLateral,
        Lever::RideHeight => feature == Feature::Arch,
        Lever::Spacer | Lever::Offset => {
            matches!(
                feature.blocks_from(),
                BlocksFrom::Inboard | BlocksFrom::Outboard | BlocksFrom::AheadOrBehind
            )
        }
        Lever::RimWidth => matches!(feature.blocks_from(), BlocksFrom::Inboard | BlocksFrom::Outboard),
        Lever::Tire => !matches!(feature.blocks_from(), BlocksFrom::Barrel | BlocksFrom::Spoke),
        other => other.facts().moves.iter().any(|(moved, share)| *moved == feature && *share > 0.0),
    }
}

/// The amounts a lever on the car is tried at, away from nothing; only upward for ride height.
fn amounts(lever: Lever) -> impl Iterator<Item = f64> {
    let ((_, _, step), (least, most)) = (lever.facts().range, lever.facts().proposed);
    let far = if lever == Lever::Camber { least } else { most };
    let steps = if step > 0.0 { (far.abs() / step).floor() as i32 } else { 0 };
    (1..=steps).map(move |at| f64::from(at) * step * far.signum())
}

fn in_range(levers: &Levers, lever: Lever) -> bool {
    let (least, most) = lever.facts().proposed;
    (least..=most).contains(&levers.amount(lever))
}

fn mildest_of(proposals: impl Iterator<Item = Proposal>) -> Option<Proposal> {
    proposals.min_by(|a, b| {
        let (a, b) = (a.hardness(), b.hardness());
        (a.0, a.1).cmp(&(b.0, b.1)).then(a.2.total_cmp(&b.2))
    })
}
