//! A job's sets side by side: what each weighs, how it gears and stands, what it costs, and how it stands at the limit.

use app::picked::price_of;
use app::road::{TrackCase, Weighed, classed, diameters_of, rolling_mass};
use app::{JobKnowledge, JudgingContext};
use fitment::club::{Class, is_legal};
use fitment::road::tractive_effort_change_pct;
use fitment::setup::{Axle, Setup, SetupPair};
use fitment::track::heat_width::{self, load_per_width_change_pct};
use serde::Serialize;
use store::jobs::{Candidate, JobContent};
use utoipa::ToSchema;

use super::PerAxle;
use super::at_limit::{CarSheet, WheelAtLimitView};
use super::bench::PriceView;
use super::finder::FinderRequest;

/// The wheel of a set that stands worst in a case.
#[derive(Debug, Serialize, ToSchema)]
pub struct WorstWheelView {
    /// The case's code.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// The wheel.
    pub wheel: WheelAtLimitView,
}

/// Load for each millimetre of tread.
#[derive(Debug, Serialize, ToSchema)]
pub struct HeatWidthView {
    /// Against the reference tire's, in per cent.
    pub change_pct: f64,
    /// What that usually says.
    pub says: &'static str,
}

/// The set on the car, by its name here.
const FITTED: &str = "fitted";

/// A set: four wheels with their tires.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct SetView {
    /// `fitted`, `bench`, or a candidate's letter.
    pub set: String,
    /// The wheels alone; null, as the rest of the weights, while the rows that were picked do not list every one.
    pub wheels_kg: Option<f64>,
    pub tires_kg: Option<f64>,
    /// Unsprung: both together.
    pub to_lift_kg: Option<f64>,
    /// What the engine feels. Estimate.
    pub to_accelerate_kg: Option<f64>,
    pub overall_diameter_mm: PerAxle<Option<f64>>,
    pub sidewall_mm: PerAxle<Option<f64>>,
    /// Change of the pull at the road against the reference tire, on the axle that the dial follows.
    pub pull_change_pct: Option<f64>,
    /// Load for each millimetre of tread against the reference tire's. Trend.
    pub heat_width: PerAxle<Option<HeatWidthView>>,
    /// By the rows that were picked.
    pub price: Option<PriceView>,
    /// Whether all of it has a price and that is within the budget of what is wanted; null without a budget.
    pub is_within_budget: Option<bool>,
    /// Whether the class is known to allow it; null without a class.
    pub legal: Option<bool>,
    /// The worst wheel of each case at the limit.
    pub cases: Vec<WorstWheelView>,
}

/// What sets are held against.
#[derive(Debug, Clone, Copy)]
pub struct Against<'a> {
    /// The car at the limit; `None` while it is not stated.
    pub car: Option<&'a CarSheet>,
    /// Its class.
    pub class: Option<&'a Class>,
    /// The fitted set on the scale.
    pub fitted: Option<Weighed>,
}

/// A kept setup's own picture of the car: what it counts as done, and the rows it is made of.
pub fn of_candidate(kept: &Candidate, known: &JobKnowledge, context: &JudgingContext) -> JudgingContext {
    JudgingContext::of(&known.with_candidate(kept), context.limits, context.today)
}

/// What is fitted, what is on the bench, and what was kept.
pub fn sets(
    content: &JobContent,
    known: &JobKnowledge,
    context: &JudgingContext,
    against: Against<'_>,
) -> Vec<SetView> {
    let budget = content.wishes.as_deref().and_then(FinderRequest::of_kept).and_then(|wish| wish.budget);
    let of = |set: &str, pair: &SetupPair, context: &JudgingContext| {
        SetView::new(set, pair, (content, context), budget, against)
    };
    let own =
        |kept: &Candidate| of(&kept.letter.to_string(), &kept.setups, &of_candidate(kept, known, context));
    [(FITTED, &content.fitted), ("bench", &content.planned)]
        .into_iter()
        .map(|(set, pair)| of(set, pair, context))
        .chain(content.candidates.iter().map(own))
        .collect()
}

impl SetView {
    fn new(
        set: &str,
        pair: &SetupPair,
        (content, context): (&JobContent, &JudgingContext),
        budget: Option<f64>,
        against: Against<'_>,
    ) -> Self {
        let weighed = against.fitted.filter(|_| set == FITTED);
        let mass = rolling_mass(pair, weighed, context);
        let reference = context.case(&content.fitted, pair, content.drive).reference_pair();
        let heat = |axle: Axle| {
            let (before, after) = (reference.on(axle)?.section_width()?, pair.on(axle)?.section_width()?);
            let change_pct = load_per_width_change_pct(before, after);
            Some(HeatWidthView { change_pct, says: heat_width::words(change_pct) })
        };
        let each = |of: &dyn Fn(&Setup) -> Option<f64>| PerAxle {
            front: pair.on(Axle::Front).and_then(of),
            rear: pair.on(Axle::Rear).and_then(of),
        };
        let price = price_of(&context.state.parts, pair)
            .map(|price| PriceView { amount: price.hundredths as f64 / 100.0, is_whole: price.is_whole });
        let cases = against.car.map_or_else(Vec::new, |car| car.cases(context, pair));
        let worst = |case: TrackCase| {
            let wheel = WheelAtLimitView::from(*case.worst()?);
            Some(WorstWheelView { code: case.code, name: case.name, wheel })
        };
        Self {
            set: set.to_owned(),
            wheels_kg: mass.map(|mass| mass.wheels_kg),
            tires_kg: mass.map(|mass| mass.tires_kg),
            to_lift_kg: mass.map(|mass| mass.wheels_kg + mass.tires_kg),
            to_accelerate_kg: mass.map(|mass| mass.to_accelerate_kg),
            overall_diameter_mm: each(&|setup| Some(setup.overall_diameter()?.as_mm())),
            sidewall_mm: each(&|setup| Some(setup.sidewall()?.as_mm())),
            pull_change_pct: diameters_of(context, content, pair)
                .map(|(_, reference, planned)| tractive_effort_change_pct(reference, planned)),
            heat_width: PerAxle { front: heat(Axle::Front), rear: heat(Axle::Rear) },
            is_within_budget: budget
                .map(|budget| price.as_ref().is_some_and(|price| price.is_whole && price.amount <= budget)),
            price,
            legal: against.class.map(|class| is_legal(&classed(class, content, pair, context))),
            cases: cases.into_iter().filter_map(worst).collect(),
        }
    }
}
