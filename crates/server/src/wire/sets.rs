//! A job's sets side by side: what each weighs, how it gears and stands, what it costs, and how it stands at the limit.

use app::picked::price_of;
use app::road::classed;
use app::{JobKnowledge, JudgingContext};
use fitment::judgement::case::Case;
use fitment::judgement::club::{Class, is_legal};
use fitment::road::dial::diameters;
use fitment::road::rolling::tractive_effort_change_pct;
use fitment::road::rolling_mass::{Weighed, rolling_mass};
use fitment::road::track::TrackCase;
use fitment::road::track::heat_width::{self, load_per_width_change_pct};
use fitment::setup::{Axle, Setup};
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
    /// How the wheels are made, by the rows that were picked.
    pub made: PerAxle<Option<String>>,
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

/// A set of the job on the car as it knows it.
#[derive(Debug)]
pub struct JobSet<'a> {
    /// `fitted`, `bench`, or a candidate's letter.
    pub name: String,
    /// The candidate's letter.
    pub letter: Option<char>,
    /// The set as the plan.
    pub case: Case<'a>,
}

/// What is fitted, what is on the bench, and what was kept.
#[derive(Debug)]
pub struct JobSets<'a> {
    /// On the car.
    pub fitted: JobSet<'a>,
    /// The plan.
    pub bench: JobSet<'a>,
    /// Each kept setup with its own work and rows.
    pub kept: Vec<JobSet<'a>>,
}

impl<'a> JobSets<'a> {
    /// Of a job.
    pub fn of(content: &'a JobContent, known: &JobKnowledge, context: &'a JudgingContext) -> Self {
        let (fitted, drive) = (&content.fitted, content.drive);
        let plain = |name: &str, pair| JobSet {
            name: name.to_owned(),
            letter: None,
            case: context.case(fitted, pair, drive),
        };
        let own = |kept: &'a Candidate| JobSet {
            name: kept.letter.to_string(),
            letter: Some(kept.letter),
            case: context.case_in(known.with_candidate(kept).car_state(), fitted, &kept.setups, drive),
        };
        Self {
            fitted: plain(FITTED, fitted),
            bench: plain("bench", &content.planned),
            kept: content.candidates.iter().map(own).collect(),
        }
    }

    /// The plan and what was kept.
    pub fn plans(&self) -> impl Iterator<Item = &JobSet<'a>> {
        std::iter::once(&self.bench).chain(&self.kept)
    }

    /// All of them side by side.
    pub fn views(&self, content: &JobContent, against: Against<'_>) -> Vec<SetView> {
        let budget = content.wishes.as_deref().and_then(|text| FinderRequest::of_kept(text).ok()?.budget);
        let all = std::iter::once(&self.fitted).chain(self.plans());
        all.map(|set| SetView::new(set, budget, against)).collect()
    }
}

impl SetView {
    fn new(set: &JobSet<'_>, budget: Option<f64>, against: Against<'_>) -> Self {
        let JobSet { name, case, .. } = set;
        let pair = &case.planned;
        let mass = rolling_mass(case, against.fitted.filter(|_| name == FITTED));
        let reference = case.reference_pair();
        let made = |axle: Axle| Some(case.state.parts.wheel_of(pair.on(axle)?)?.make?.words().to_owned());
        let heat = |axle: Axle| {
            let (before, after) = (reference.on(axle)?.section_width()?, pair.on(axle)?.section_width()?);
            let change_pct = load_per_width_change_pct(before, after);
            Some(HeatWidthView { change_pct, says: heat_width::words(change_pct) })
        };
        let each = |of: &dyn Fn(&Setup) -> Option<f64>| PerAxle {
            front: pair.on(Axle::Front).and_then(of),
            rear: pair.on(Axle::Rear).and_then(of),
        };
        let price = price_of(&case.state.parts, pair)
            .map(|price| PriceView { amount: price.hundredths as f64 / 100.0, is_whole: price.is_whole });
        let cases = against.car.map_or_else(Vec::new, |car| car.cases(case));
        let worst = |case: TrackCase| {
            let wheel = WheelAtLimitView::from(*case.worst()?);
            Some(WorstWheelView { code: case.code, name: case.name, wheel })
        };
        Self {
            set: name.clone(),
            wheels_kg: mass.map(|mass| mass.wheels_kg),
            tires_kg: mass.map(|mass| mass.tires_kg),
            to_lift_kg: mass.map(|mass| mass.wheels_kg + mass.tires_kg),
            to_accelerate_kg: mass.map(|mass| mass.to_accelerate_kg),
            overall_diameter_mm: each(&|setup| Some(setup.overall_diameter()?.as_mm())),
            sidewall_mm: each(&|setup| Some(setup.sidewall()?.as_mm())),
            pull_change_pct: diameters(case)
                .map(|(_, reference, planned)| tractive_effort_change_pct(reference, planned)),
            heat_width: PerAxle { front: heat(Axle::Front), rear: heat(Axle::Rear) },
            made: PerAxle { front: made(Axle::Front), rear: made(Axle::Rear) },
            is_within_budget: budget
                .map(|budget| price.as_ref().is_some_and(|price| price.is_whole && price.amount <= budget)),
            price,
            legal: against.class.map(|class| is_legal(&classed(class, case))),
            cases: cases.into_iter().filter_map(worst).collect(),
        }
    }
}
