//! The bench: a plan judged on a job's car, whole or as much as a hand on a lever needs, in one answer made by one code.

use std::sync::Arc;

use fitment::answers::headline::{Headline, Kind};
use fitment::answers::ledger::Line;
use fitment::answers::measurement_plan::{MeasureItem, measure_list};
use fitment::answers::remedies::{Proposal, mildest_for};
use fitment::car::lever::PairLevers;
use fitment::car::limits::{Drive, HouseLimits};
use fitment::car::style::{StyleReading, StyleTarget};
use fitment::judgement::case::{AxleCase, CarState, Case};
use fitment::judgement::clearance::{Clearance, Fit, JudgedCase, Verdict, fender_line, style};
use fitment::judgement::rules::dial::{IMPERIAL_SPEEDS_KMH, METRIC_SPEEDS_KMH, true_speed};
use fitment::judgement::window::{TireChoice, WidthWindow, widths_round};
use fitment::setup::adjust::{AdjustError, Adjustment};
use fitment::setup::change::{AxleChange, PairChange};
use fitment::setup::{Axle, PerAxle, Setup, SetupPair};
use fitment::values::date_code::Day;
use fitment::values::working::Phrase;

use crate::{CachedJob, JudgingContext};

/// What is asked.
#[derive(Debug)]
pub struct BenchQuestion {
    /// On the car.
    pub fitted: SetupPair,
    /// Planned, before the steps.
    pub planned: SetupPair,
    /// Driven axles, when known.
    pub drive: Option<Drive>,
    /// Which tire the window puts on each rim width.
    pub tire_choice: TireChoice,
    /// Steps to take on the planned setups first, in their order.
    pub steps: Vec<Step>,
    /// What is done to the car; as the job has it when `None`.
    pub levers: Option<PairLevers>,
    /// How it is to stand; as the job has it when `None`.
    pub wanted: Option<(Option<StyleTarget>, Option<StyleTarget>)>,
}

/// A step of the hand on one axle's planned setup.
#[derive(Debug, Clone, Copy)]
pub struct Step {
    /// Which axle.
    pub axle: Axle,
    /// By how much.
    pub by: Adjustment,
    /// A place on the fit window to go to after that: rim width in inches, offset in millimetres.
    pub to: Option<(f64, f64)>,
}

/// A step that cannot be taken, by its place in the question.
#[derive(Debug)]
pub struct StepRefused {
    /// Which.
    pub at: usize,
    /// Why.
    pub error: AdjustError,
}

/// How much is asked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Depth {
    /// Everything that is shown of a plan.
    Whole,
    /// What moves with a hand on a lever.
    Moving,
}

/// A plan, judged.
#[derive(Debug)]
pub struct BenchAnswer {
    /// The plan after the steps, as it was typed.
    pub planned: SetupPair,
    /// What it counts as done to the car.
    pub levers: PairLevers,
    /// Front and rear.
    pub axles: PerAxle<AxleAnswer>,
    /// What changes between the axles.
    pub pair: PairChange,
    /// True speeds; `None` while a tire is not stated.
    pub true_speeds: Option<TrueSpeeds>,
    /// The plan in a few words.
    pub headline: Headline,
    /// By which use it was judged, in words.
    pub judged_for: String,
    /// The ledger.
    pub ledger: Vec<Line>,
}

/// One axle of the answer.
#[derive(Debug)]
pub struct AxleAnswer {
    /// On the car.
    pub fitted: Option<Setup>,
    /// Planned, with what the lists say of the picked rows, as the ledger has it.
    pub planned: Option<Setup>,
    /// What changes.
    pub change: Option<AxleChange>,
    /// The plan, or without one what is fitted, against what was measured; `None` for what cannot be placed.
    pub judged: Option<JudgedAxle>,
}

/// One axle against what was measured.
#[derive(Debug)]
pub struct JudgedAxle {
    /// Part by part.
    pub fit: Fit,
    /// How it stands at the fender line; `None` while the lip was not read.
    pub style: Option<StyleReading>,
    /// Camber of the plan in degrees, as aligned and with what is done to the car.
    pub camber_deg: f64,
    /// The window, narrowest rim first.
    pub window: Vec<WidthWindow>,
    /// What does not move with a hand on a lever; `None` where only that was asked for.
    pub rest: Option<RestOfAxle>,
}

/// What is asked for when the hand lets go.
#[derive(Debug)]
pub struct RestOfAxle {
    /// The fender line at the top of the arch, in millimetres outboard of the hub.
    pub fender_line_y_mm: Option<f64>,
    /// What is kept, fitted and planned, as marks on the window.
    pub marks: Vec<Mark>,
    /// The mildest set of levers that turns the verdict, and what it says.
    pub proposal: Option<(Proposal, Phrase)>,
    /// What must still be read, the most decisive first.
    pub measure_list: Vec<MeasureItem>,
}

impl BenchQuestion {
    /// The plan after its steps.
    ///
    /// # Errors
    /// The first step that cannot be taken.
    fn stepped(&self) -> Result<SetupPair, StepRefused> {
        let mut planned = self.planned;
        for (at, step) in self.steps.iter().enumerate() {
            let setup = planned.on_mut(step.axle);
            let adjusted = setup.unwrap_or_default().adjusted(step.by).and_then(|setup| match step.to {
                Some((rim_width_in, offset_mm)) => setup.moved_to(rim_width_in, offset_mm),
                None => Ok(setup),
            });
            *setup = Some(adjusted.map_err(|error| StepRefused { at, error })?);
        }
        Ok(planned)
    }

    /// The car's state: what is given here is newer than what was saved with the job.
    fn state(&self, known: &CachedJob) -> Arc<CarState> {
        known.state(&self.fitted, self.levers, self.wanted)
    }

    /// Judges the plan.
    ///
    /// # Errors
    /// The first step that cannot be taken.
    pub fn answer(
        &self,
        known: &CachedJob,
        limits: HouseLimits,
        today: Day,
        depth: Depth,
    ) -> Result<BenchAnswer, StepRefused> {
        let planned = self.stepped()?;
        let kept = known.knowledge().candidates.clone();
        let context = JudgingContext { limits, today, state: self.state(known), kept };
        let case = context.case(&self.fitted, &planned, self.drive);
        let judged = JudgedCase::of(&case);
        let axle = |axle: Axle| AxleAnswer {
            fitted: self.fitted.on(axle).copied(),
            planned: case.planned.on(axle).copied(),
            change: case.change(axle).cloned(),
            judged: judge_axle(&judged, axle, self.tire_choice, &context, depth),
        };
        // Neither axle asks anything of the other: a hand at a lever waits for the slower one only.
        let (front, rear, ledger) = std::thread::scope(|both| {
            let rear = both.spawn(|| axle(Axle::Rear));
            let (front, ledger) = (axle(Axle::Front), case.ledger_of(&judged));
            (front, rear.join(), ledger)
        });
        let rear = rear.unwrap_or_else(|panic| std::panic::resume_unwind(panic));
        let mut headline = Headline::of(&ledger, planned != SetupPair::default());
        name_mends(&mut headline, &front, &rear);
        Ok(BenchAnswer {
            planned,
            levers: context.state.levers,
            axles: PerAxle { front, rear },
            pair: case.pair_change(),
            true_speeds: true_speeds(&case),
            headline,
            judged_for: context.state.purpose.words(),
            ledger,
        })
    }
}

/// What was sought to clear an axle's rooms is said with the cause it clears.
fn name_mends(headline: &mut Headline, front: &AxleAnswer, rear: &AxleAnswer) {
    let mend = |axle: &AxleAnswer| {
        let rest = axle.judged.as_ref()?.rest.as_ref()?;
        rest.proposal.as_ref().map(|(_, says)| says.clone())
    };
    for cause in &mut headline.causes {
        let is_room = cause.code.part().is_some() && matches!(cause.kind, Kind::Stop | Kind::Condition);
        cause.mend = match cause.axle {
            _ if !is_room => None,
            Some(Axle::Rear) => mend(rear),
            Some(Axle::Front) | None => mend(front),
        };
    }
}

/// What a mark on the window stands for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs, reason = "the marks by their names")]
pub enum MarkKind {
    Fitted,
    Planned,
    Kept(char),
}

/// A setup as a mark on the window.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mark {
    /// What it stands for.
    pub kind: MarkKind,
    /// Its rim width, in inches.
    pub rim_width_in: f64,
    /// On the window's scale: the offset that a wheel on the plan's spacer would have to stand there, in millimetres.
    pub offset_mm: f64,
    /// How the setup stands with its own tire.
    pub verdict: Verdict,
}

/// `None` for a setup that cannot be placed.
fn mark(case: &AxleCase<'_>, planned: &Setup, setup: &Setup, kind: MarkKind) -> Option<Mark> {
    let spacer = planned.spacer.map_or(0.0, |spacer| spacer.as_mm());
    Some(Mark {
        kind,
        rim_width_in: setup.wheel?.width.code(),
        offset_mm: setup.effective_offset()?.as_mm() + spacer,
        verdict: case.fit(setup)?.verdict,
    })
}

/// Judges an axle of a plan, or without one what is fitted; `None` for a setup that cannot be placed.
fn judge_axle(
    plan: &JudgedCase<'_>,
    axle: Axle,
    choice: TireChoice,
    context: &JudgingContext,
    depth: Depth,
) -> Option<JudgedAxle> {
    let case = &plan.case.axle(axle)?;
    let (planned, fit) = plan.stands(axle)?;
    let widths = widths_round(Some(case.fitted), Some(planned));
    let rest = match depth {
        Depth::Whole => Some(rest_of(case, planned, fit, context)?),
        Depth::Moving => None,
    };
    Some(JudgedAxle {
        style: style(case, planned),
        camber_deg: case.planned_camber(),
        window: case.window(planned, choice, &widths, context.state.wanted(case.axle)),
        fit: fit.clone(),
        rest,
    })
}

fn rest_of(case: &AxleCase<'_>, planned: &Setup, fit: &Fit, context: &JudgingContext) -> Option<RestOfAxle> {
    let of_the_plan = Mark {
        kind: MarkKind::Planned,
        rim_width_in: planned.wheel?.width.code(),
        offset_mm: planned.wheel?.offset?.as_mm(),
        verdict: fit.verdict,
    };
    let kept = context.kept.iter().filter_map(|kept| Some((kept.setups.on(case.axle)?, kept.letter)));
    let marks = kept
        .filter_map(|(setup, letter)| {
            mark(case, planned, &case.parts.as_listed(setup), MarkKind::Kept(letter))
        })
        .chain(mark(case, planned, case.fitted, MarkKind::Fitted))
        .chain([of_the_plan])
        .collect();
    let proposal = mildest_for(case, planned, fit);
    Some(RestOfAxle {
        fender_line_y_mm: fender_line(case),
        marks,
        proposal: proposal.map(|proposal| {
            let says = proposal.says(case);
            (proposal, says)
        }),
        measure_list: measure_list(case, fit),
    })
}

/// The measured part with least to spare over its limit; `None` while nothing was measured.
pub fn tightest(fit: &Fit) -> Option<&Clearance> {
    let to_spare = |line: &Clearance| Some((line.band.as_ref()?.likely_low() - line.limit).as_mm());
    let measured = fit.clearances.iter().filter_map(|line| Some((to_spare(line)?, line)));
    measured.min_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, line)| line)
}

/// True speeds at the speeds on the signs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TrueSpeeds {
    /// Which axle's tire the dial was taken to follow.
    pub by_axle: Axle,
    /// Shown and true, in km/h, at the speeds on metric signs.
    pub metric: [(f64, f64); 3],
    /// The same on imperial ones.
    pub imperial: [(f64, f64); 3],
}

/// A plan's true speeds; `None` while a tire is not stated.
pub fn true_speeds(plan: &Case<'_>) -> Option<TrueSpeeds> {
    let (by_axle, ratio) = plan.speedometer_ratio()?;
    let at = |speeds: [f64; 3]| speeds.map(|shown| (shown, true_speed(shown, ratio.value())));
    Some(TrueSpeeds { by_axle, metric: at(METRIC_SPEEDS_KMH), imperial: at(IMPERIAL_SPEEDS_KMH) })
}
