//! Standing, at lock, over bumps and together: what ledger and compare say of a plan in motion.

use app::JudgingContext;
use fitment::answers::dynamic_clearance::{Stretched, SweptAxle, SweptPart, Usage};
use fitment::car::corner::Feature;
use fitment::car::lever::PairLevers;
use fitment::car::motion::Carried;
use fitment::judgement::case::CarState;
use fitment::setup::{Axle, SetupPair};
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::usage::UsageRequest;
use crate::problem::ApiError;
use crate::wire::corner::{LeverAmount, VerdictCode};
use crate::wire::measured::read_pair_levers;
use crate::wire::read::FieldErrors;
use crate::wire::{Lines, PerAxle};

/// Plans to be looked at in motion, over one use.
#[derive(Debug, Deserialize, ToSchema)]
pub struct StretchesRequest {
    /// The plans.
    pub plans: Vec<PlanRequest>,
    /// What they are swept over.
    #[serde(default)]
    pub usage: UsageRequest,
}

/// A plan, with what it counts as done to the car.
#[derive(Debug, Deserialize, ToSchema)]
pub struct PlanRequest {
    /// Front line.
    #[serde(default)]
    pub front: Option<String>,
    /// Rear line.
    #[serde(default)]
    pub rear: Option<String>,
    /// What is done to the car; the job's own when left out.
    #[serde(default)]
    pub levers: Option<PerAxle<Vec<LeverAmount>>>,
}

/// Most plans of one request: what is fitted, what is kept, what is on the bench.
const MOST_PLANS: usize = 30;

/// The least room over a stretch of the way a wheel moves.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct StretchView {
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    pub room_mm: f64,
    /// How much less it likely is at most.
    pub plus_minus_mm: f64,
    pub steer_deg: f64,
    pub travel_mm: f64,
    pub verdict: VerdictCode,
}

impl From<&Stretched> for StretchView {
    fn from(one: &Stretched) -> Self {
        Self {
            code: one.stretch.code(),
            name: one.stretch.words(),
            room_mm: one.room_mm,
            plus_minus_mm: one.plus_minus_mm,
            steer_deg: one.at.steer_deg,
            travel_mm: one.at.travel_mm,
            verdict: one.verdict.into(),
        }
    }
}

/// A part of the car, stretch by stretch.
#[derive(Debug, Serialize, ToSchema)]
pub struct StretchedPart {
    /// The code of its line in the ledger.
    pub ledger_code: &'static str,
    /// Its code.
    pub code: &'static str,
    /// Its name.
    pub name: &'static str,
    /// Stretch by stretch.
    pub stretches: Vec<StretchView>,
}

/// The tightest part of a stretch.
#[derive(Debug, Serialize, ToSchema)]
pub struct WorstView {
    /// Its name.
    pub part: &'static str,
    /// What it comes to.
    #[serde(flatten)]
    pub stretch: StretchView,
}

/// An axle, stretch by stretch.
#[derive(Debug, Serialize, ToSchema)]
pub struct StretchedAxle {
    /// The worst word over all of it.
    pub verdict: VerdictCode,
    /// The worst of each stretch.
    pub worst: Vec<WorstView>,
    /// Part by part, in the order of the bay; without those that steer and travel along.
    pub parts: Vec<StretchedPart>,
}

/// A plan, stretch by stretch; an axle that cannot be swept is null.
#[derive(Debug, Serialize, ToSchema)]
pub struct StretchedPlan {
    /// Front axle.
    pub front: Option<StretchedAxle>,
    /// Rear axle.
    pub rear: Option<StretchedAxle>,
}

impl StretchesRequest {
    /// Sweeps each plan.
    ///
    /// # Errors
    /// Lines that cannot be read; a use that cannot be; too many plans.
    pub fn answer(
        &self,
        content: &JobContent,
        context: &JudgingContext,
    ) -> Result<Vec<StretchedPlan>, ApiError> {
        let mut errors = FieldErrors::default();
        let usage = self.usage.read(&mut errors, "/usage");
        if self.plans.len() > MOST_PLANS {
            errors.fault("/plans", format!("more than {MOST_PLANS} plans are not looked at at once"));
        }
        let read = |(at, plan): (usize, &PlanRequest)| {
            let pointer = format!("/plans/{at}");
            let lines = Lines { front: plan.front.clone(), rear: plan.rear.clone() };
            let setups = errors.pair(&pointer, &lines);
            let levers = plan.levers.as_ref();
            let levers =
                levers.map(|levers| read_pair_levers(&mut errors, &format!("{pointer}/levers"), levers));
            (setups, levers.unwrap_or(context.state.levers))
        };
        let plans: Vec<(SetupPair, PairLevers)> = self.plans.iter().enumerate().map(read).collect();
        errors.finish(())?;
        Ok(plans.iter().map(|(plan, levers)| stretched(content, context, plan, *levers, &usage)).collect())
    }
}

fn stretched(
    content: &JobContent,
    context: &JudgingContext,
    planned: &SetupPair,
    levers: PairLevers,
    usage: &Usage,
) -> StretchedPlan {
    let mut state = CarState::clone(&context.state);
    state.levers = levers;
    let case = context.case_in(state, &content.fitted, planned, content.drive);
    let on = |axle: Axle| {
        let swept = case.axle(axle)?.sweep(case.planned.on(axle)?, usage)?;
        Some(StretchedAxle::from(&swept))
    };
    StretchedPlan { front: on(Axle::Front), rear: on(Axle::Rear) }
}

impl From<&SweptAxle> for StretchedAxle {
    fn from(swept: &SweptAxle) -> Self {
        // What steers and travels along is the same in all of them.
        let moved = |part: &&SweptPart| part.part.cloud.carried != Carried::SteeredUpright;
        let parts = Feature::ALL.into_iter().filter_map(|feature| {
            let part = swept.part(feature).filter(moved)?;
            Some(StretchedPart {
                ledger_code: feature.facts().ledger_code,
                code: feature.code(),
                name: part.name(),
                stretches: part.stretches.iter().map(StretchView::from).collect(),
            })
        });
        Self {
            verdict: swept.verdict.into(),
            worst: swept
                .worst()
                .map(|(part, one)| WorstView { part: part.name(), stretch: StretchView::from(one) })
                .collect(),
            parts: parts.collect(),
        }
    }
}
