//! One axle on the bench, and the same in a column beside others: every question that the page shows an answer to, asked
//! of the core once.

use fitment::Setup;
use fitment::answers::measurement_plan::{MeasureItem, measure_list};
use fitment::answers::remedies::{Proposal, mildest_for};
use fitment::car::style::StyleReading;
use fitment::judgement::case::{AxleCase, Case};
use fitment::judgement::clearance::{Clearance, Fit, JudgedCase, Verdict, fender_line, style};
use fitment::judgement::rules::dial::{IMPERIAL_SPEEDS_KMH, METRIC_SPEEDS_KMH, true_speed};
use fitment::judgement::window::{TireChoice, WidthWindow, widths_round};
use fitment::setup::Axle;

use crate::JudgingContext;

/// One axle against what was measured.
#[derive(Debug)]
pub struct AxleBench {
    /// Part by part.
    pub fit: Fit,
    /// How it stands at the fender line; `None` while the lip was not read.
    pub style: Option<StyleReading>,
    /// The fender line at the top of the arch, in millimetres outboard of the hub.
    pub fender_line_y_mm: Option<f64>,
    /// Camber of the plan, as aligned and with what is done to the car.
    pub camber_deg: f64,
    /// The window, narrowest rim first.
    pub window: Vec<WidthWindow>,
    /// What is kept, fitted and planned, as marks on the window.
    pub marks: Vec<Mark>,
    /// The mildest set of levers that turns the verdict.
    pub proposal: Option<Proposal>,
    /// What must still be read, the most decisive first.
    pub measure_list: Vec<MeasureItem>,
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
pub fn judge_axle(
    plan: &JudgedCase<'_>,
    axle: Axle,
    choice: TireChoice,
    context: &JudgingContext,
) -> Option<AxleBench> {
    let case = &plan.case.axle(axle)?;
    let (planned, fit) = plan.stands(axle)?;
    let widths = widths_round(Some(case.fitted), Some(planned));
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
    Some(AxleBench {
        style: style(case, planned),
        fender_line_y_mm: fender_line(case),
        camber_deg: case.planned_camber(),
        window: case.window(planned, choice, &widths, context.state.wanted(case.axle)),
        marks,
        proposal: mildest_for(case, planned, fit),
        measure_list: measure_list(case, fit),
        fit: fit.clone(),
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
