//! How tall a tire goes on at each height of lift: for light trucks and crossovers.
//!
//! A lift with spacers over the strut or longer springs raises the body over the wheel and leaves the bump stop where it was:
//! it gives room standing and at lock, and none at full bump. What is carried by the upright is helped by nothing that is
//! done above it.

use rayon::prelude::*;

use super::places::parts_in_space;
use super::{PartInSpace, SweepContext, Usage, moving_wheel};
use crate::car::corner::Feature;
use crate::car::lever::Lever;
use crate::car::motion::{Carried, DistanceField};
use crate::judgement::case::AxleCase;
use crate::judgement::clearance::Verdict;
use crate::parts::tire::dimensions::overall_diameter;
use crate::parts::tire::rims::{PermittedRims, RimFit};
use crate::parts::tire::{InchSize, MetricSize, Size, Tire};
use crate::setup::standard_sizes::is_made;
use crate::setup::{Listed, Setup};
use crate::values::length::Length;
use crate::values::working::{Phrase, Quantity, Source};

/// Heights of lift that are tried, in millimetres.
pub const LIFTS_MM: [f64; 6] = [0.0, 25.0, 50.0, 75.0, 100.0, 150.0];
/// How much smaller and taller than the reference the tires are, in millimetres of overall diameter.
const GROWTH_MM: (f64, f64) = (-12.0, 125.0);
/// Two rungs nearer than this are one.
const RUNG_MM: f64 = 7.0;

/// What growth over the factory's diameter usually asks for, from so many millimetres on.
const USUAL: [(f64, &str); 5] = [
    (f64::NEG_INFINITY, "bolts on"),
    (25.0, "40 to 60 mm of lift or spacers, liner trimmed"),
    (50.0, "60 to 75 mm of lift, arms for caster, pinch weld flattened, light cutting"),
    (75.0, "75 mm of lift and more, body mount cut, fenders cut front, rear and above"),
    (115.0, "other axles"),
];

/// Where the usual measures come from.
pub const USUAL_SOURCE: Source =
    Source::common_practice("growth over the factory's diameter; the proven fits of a model say more");

/// What growth by so much usually asks for.
pub fn usual(growth_mm: f64) -> &'static str {
    USUAL.iter().rev().find(|(from, _)| growth_mm > *from).map_or(USUAL[0].1, |(_, words)| words)
}

/// A tire at a height of lift.
#[derive(Debug, Clone, PartialEq)]
pub struct Lifted {
    /// The worst word of what was read.
    pub verdict: Verdict,
    /// The parts that stand against it, the worst first, and how much room each is short of.
    pub short: Vec<(Feature, f64)>,
    /// The parts that nobody read and that decide, in bay order: until they are read nobody knows.
    pub unread: Vec<Feature>,
}

/// A tire on every height of lift.
#[derive(Debug, Clone, PartialEq)]
pub struct TallerTire {
    /// The tire on the planned wheel.
    pub setup: Setup,
    /// Its overall diameter.
    pub overall_diameter: Length,
    /// Over the factory's, in millimetres.
    pub growth_mm: f64,
    /// What that usually asks for.
    pub usual: &'static str,
    /// At each of [`LIFTS_MM`].
    pub at: Vec<Lifted>,
}

/// How tall a tire goes on.
#[derive(Debug, Clone, PartialEq)]
pub struct LiftLadder {
    /// From the lowest to the tallest.
    pub tires: Vec<TallerTire>,
    /// Parts that no lift helps, each with the tallest of the tires that it lets by.
    pub not_helped: Vec<(Feature, Option<usize>)>,
    /// The tallest at each height of lift of which everything that decides was read.
    pub tallest: Vec<Option<usize>>,
    /// The tallest that nothing that was read stands against, whatever else must be measured.
    pub tallest_as_read: Vec<Option<usize>>,
    /// In sentences.
    pub says: Vec<Phrase>,
}

/// Sizes like a tire's on the same rim code, lower and taller than a diameter; whether each is made is not asked.
fn sizes_like(tire: &Tire, reference: Length) -> Vec<Size> {
    let mut sizes = vec![tire.size];
    match tire.size {
        Size::Metric(_) => {
            let section = tire.size.named_section_width().as_mm().round() as u32;
            for wider in [0, 10, 20, 30] {
                sizes.extend((25..=85).step_by(5).filter_map(|aspect| {
                    let prefix = tire.size.prefix()?;
                    let size = MetricSize::new(
                        prefix,
                        section + wider,
                        aspect,
                        tire.size.construction(),
                        tire.size.rim(),
                    )?;
                    Some(Size::Metric(size))
                }));
            }
        }
        Size::Inch(size) => {
            let width = tire.size.named_section_width().as_inches();
            let from = (reference.as_inches() - 1.0).floor();
            sizes.extend((0..=7).filter_map(|more| {
                let tall = from + f64::from(more);
                let size =
                    InchSize::new(size.style(), tall, width, tire.size.construction(), tire.size.rim())?;
                Some(Size::Inch(size))
            }));
        }
        Size::Racing(_) => {}
    }
    sizes
}

/// Tires from the reference's diameter upward on the planned wheel, at each height of lift: sizes that are made, and those
/// that some price list has. `None` while the plan cannot be swept.
pub fn lift_ladder(
    case: &AxleCase<'_>,
    planned: &Setup,
    reference: Length,
    usage: &Usage,
    is_listed: &dyn Fn(&Size) -> bool,
) -> Option<LiftLadder> {
    let tire = planned.tire?;
    let width = planned.wheel?.width;
    let growth = |size: &Size| (overall_diameter(size) - reference).as_mm();
    let mut sizes = sizes_like(&tire, reference);
    sizes.retain(|size| {
        (GROWTH_MM.0..=GROWTH_MM.1).contains(&growth(size))
            && (*size == tire.size
                || (is_made(size) || is_listed(size))
                    && PermittedRims::estimated(size).judge(width) == RimFit::Permitted)
    });
    // Of sizes that come to the same height the one that is nearest to the planned in width; the planned itself stays.
    let own = tire.size.named_section_width();
    sizes.sort_by(|a, b| {
        let rank = |size: &Size| (*size != tire.size, (size.named_section_width() - own).as_mm().abs());
        let (a, b) = (rank(a), rank(b));
        a.0.cmp(&b.0).then(a.1.total_cmp(&b.1))
    });
    let mut kept: Vec<Size> = Vec::new();
    for size in sizes {
        if kept.iter().all(|other| (growth(other) - growth(&size)).abs() > RUNG_MM) {
            kept.push(size);
        }
    }
    kept.sort_by(|a, b| growth(a).total_cmp(&growth(b)));
    // Tire by tire, on as many threads as the machine has.
    let tires: Vec<TallerTire> = kept
        .into_par_iter()
        .filter_map(|size| {
            let is_planned = size == tire.size;
            let listed = if is_planned {
                planned.listed
            } else {
                Listed { tire: Default::default(), ..planned.listed }
            };
            let tire = if is_planned { tire } else { Tire { size, service: None, ..tire } };
            let setup = Setup { tire: Some(tire), listed, ..*planned };
            let growth_mm = growth(&size);
            Some(TallerTire {
                setup,
                overall_diameter: setup.overall_diameter()?,
                growth_mm,
                usual: usual(growth_mm),
                at: at_each_lift(case, &setup, usage)?,
            })
        })
        .collect();
    let tallest_where = |goes: &dyn Fn(&Lifted) -> bool| -> Vec<Option<usize>> {
        let at = |lift: usize| tires.iter().rposition(|tire| goes(&tire.at[lift]));
        (0..LIFTS_MM.len()).map(at).collect()
    };
    let tallest = tallest_where(&|one| one.verdict == Verdict::Clears);
    let tallest_as_read = tallest_where(&|one| one.short.is_empty());
    let not_helped = not_helped(case, &tires);
    let mut ladder = LiftLadder { tires, not_helped, tallest, tallest_as_read, says: Vec::new() };
    ladder.says = ladder.sentences();
    Some(ladder)
}

fn at_each_lift(case: &AxleCase<'_>, setup: &Setup, usage: &Usage) -> Option<Vec<Lifted>> {
    let moving = case.moving();
    let wheel = moving_wheel(case, setup, &moving, usage)?;
    let field = DistanceField::of(&wheel.outline);
    let raised = case.levers.raised();
    Some(
        LIFTS_MM
            .iter()
            .map(|lift| {
                let levers = case.levers.with(Lever::RideHeight, raised + lift);
                let case = AxleCase { levers: &levers, ..*case };
                let reach = case.reach(&moving);
                let context = SweepContext {
                    case: &case,
                    moving: &moving,
                    planned: setup,
                    wheel: &wheel,
                    field: &field,
                    reach,
                    usage: *usage,
                };
                lifted(&context)
            })
            .collect(),
    )
}

/// Parts of the steered upright: nothing that is done above them helps.
fn not_helped(case: &AxleCase<'_>, tires: &[TallerTire]) -> Vec<(Feature, Option<usize>)> {
    let Some(first) = tires.first() else { return Vec::new() };
    let moving = case.moving();
    let parts = parts_in_space(case, &moving, &first.setup);
    let mut all: Vec<(Feature, Option<usize>)> = Vec::new();
    for part in parts.iter().filter(|part| part.cloud.carried == Carried::SteeredUpright) {
        let stands_against =
            |tire: &TallerTire| tire.at[0].short.iter().any(|(feature, _)| *feature == part.feature);
        if all.iter().all(|(feature, _)| *feature != part.feature) {
            all.push((part.feature, tires.iter().rposition(|tire| !stands_against(tire))));
        }
    }
    all
}

/// Everything that was read, over what the use reaches; what is carried along as it stands.
fn lifted(context: &SweepContext<'_>) -> Lifted {
    // What is short rules it out, whatever else must still be measured.
    let (mut verdict, mut worst_of_short) = (Verdict::Clears, None);
    let mut short: Vec<(Feature, f64)> = Vec::new();
    let parts = parts_in_space(context.case, context.moving, context.planned);
    let judged = |part: &PartInSpace| context.together_at_a_glance(part);
    for (part, together) in parts.iter().filter_map(|part| Some((part, judged(part)?))) {
        verdict = verdict.max(together.verdict);
        if together.verdict.rules_out() {
            worst_of_short = worst_of_short.max(Some(together.verdict));
            let by = part.least_mm + together.plus_minus_mm - together.room_mm;
            match short.iter_mut().find(|(feature, _)| *feature == part.feature) {
                Some((_, other)) => *other = by.max(*other),
                None => short.push((part.feature, by)),
            }
        }
    }
    if parts.is_empty() {
        verdict = Verdict::MeasureFirst;
    }
    // At lock as the ledger judges it: no better word than there. Lip and arch are one edge here, looked at with its travel; the
    // ledger's line of the lip is how far a wheel stands out.
    let fit = context.case.fit(context.planned);
    let lines = || fit.iter().flat_map(|fit| &fit.clearances);
    for line in lines().filter(|line| line.verdict.rules_out() && line.feature.facts().at_lock) {
        let Some(band) = line.band.as_ref() else { continue };
        worst_of_short = worst_of_short.max(Some(line.verdict));
        if short.iter().all(|(feature, _)| *feature != line.feature) {
            short.push((line.feature, (line.limit + band.likely() - band.nominal).as_mm()));
        }
    }
    short.sort_by(|a, b| b.1.total_cmp(&a.1));
    // What nobody read, and what decides, is measured first here too.
    let unread: Vec<Feature> =
        lines().filter(|line| line.verdict == Verdict::MeasureFirst).map(|line| line.feature).collect();
    if !unread.is_empty() {
        verdict = verdict.max(Verdict::MeasureFirst);
    }
    Lifted { verdict: worst_of_short.unwrap_or(verdict), short, unread }
}

impl LiftLadder {
    fn size(&self, at: usize) -> String {
        self.tires[at].setup.tire.map(|tire| tire.size.to_string()).unwrap_or_default()
    }

    /// What must be measured of a tire at a height of lift, in words.
    fn unread_at(&self, tire: usize, lift: usize) -> String {
        let unread = &self.tires[tire].at[lift].unread;
        let names: Vec<&str> = unread.iter().map(|feature| feature.facts().name).collect();
        if names.is_empty() { "what may be off decides".to_owned() } else { names.join(", ") }
    }

    fn sentences(&self) -> Vec<Phrase> {
        let mut says = Vec::new();
        for (feature, tallest) in &self.not_helped {
            let name = feature.facts().name;
            match tallest {
                Some(at) if *at + 1 < self.tires.len() => says.push(Phrase::new(format!(
                    "The {name} goes with the upright: no lift helps, and at this offset it lets {} by and nothing taller.",
                    self.size(*at)
                ))),
                Some(_) => {}
                None => says.push(Phrase::new(format!(
                    "The {name} goes with the upright: no lift helps, and at this offset none of these tires passes it.",
                ))),
            }
        }
        let mut last = None;
        for (at, tallest) in self.tallest.iter().zip(&self.tallest_as_read).enumerate() {
            let lift = Quantity::length(Length::mm(LIFTS_MM[at]));
            let phrase = match at {
                0 => Phrase::new("As it stands"),
                _ => Phrase::new("Lifted by ").quantity(lift),
            };
            if at > 0 && last == Some(tallest) {
                continue;
            }
            last = Some(tallest);
            says.push(match tallest {
                (Some(tire), as_read) if as_read.is_none_or(|taller| taller <= *tire) => {
                    phrase.text(format!(" the tallest is {}.", self.size(*tire)))
                }
                (sure, Some(tire)) => {
                    let sure = sure.map(|sure| format!(" {} goes;", self.size(sure))).unwrap_or_default();
                    phrase.text(format!(
                        "{sure} as far as what was read goes, up to {}. Measure first: {}.",
                        self.size(*tire),
                        self.unread_at(*tire, at)
                    ))
                }
                (_, None) => phrase.text(" none of these tires clears."),
            });
        }
        says
    }
}
