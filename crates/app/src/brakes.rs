//! A wheel over a job's brakes.
//!
//! The gaps are the profiles' own; the word is the ledger's ([`AxleCase::brake_verdict`]): what was read on the car and
//! what was tried overrule what was drawn.

use fitment::car::Fact;
use fitment::car::brake::{
    Bound, Limits, Over, SpacerStep, Weights, WheelProfile, bounds_from_fitted, judge, sweep,
};
use fitment::car::corner::Feature;
use fitment::judgement::case::AxleCase;
use fitment::judgement::clearance::Verdict;
use fitment::judgement::clearance::brake::brake_verdict;
use fitment::judgement::rules::mount::{Hub, MountingPart, WheelSide, mount};
use fitment::setup::spacers;
use fitment::setup::{Axle, Setup, SetupPair};
use fitment::{Length, Spacer};
use store::jobs::JobContent;
use store::workshop::KeptTemplate;

use crate::JudgingContext;
use crate::evidence::package_of;

/// What is asked of a wheel.
#[derive(Debug, Clone)]
pub struct BrakeQuestion {
    /// On which axle.
    pub axle: Axle,
    /// Against the profiles of a planned upgrade, where there are some: what the ledger does.
    pub planned_brakes: bool,
    /// The wheel; `None` while the plan names none.
    pub setup: Option<Setup>,
    /// The line it belongs to, by which a measured inside is found; the picked row's when left out.
    pub line: Option<String>,
    /// Stick-on weights on the barrel.
    pub weights: Option<Weights>,
}

/// A part inside the barrel, as it was kept and as the wheel stands over it.
#[derive(Debug)]
pub struct PartUnder<'a> {
    /// The record.
    pub kept: &'a KeptTemplate,
    /// The gaps.
    pub over: Over,
}

/// A wheel over the brakes.
#[derive(Debug)]
pub struct BrakeAnswer<'a> {
    /// Its inside; `None` while size or offset is not stated.
    pub inside: Option<WheelProfile>,
    /// The line or design it belongs to; empty while that is not known.
    pub line: String,
    /// The parts.
    pub parts: Vec<PartUnder<'a>>,
    /// How it stands.
    pub verdict: Verdict,
    /// What spacers do.
    pub spacers: Vec<SpacerStep>,
    /// The smallest spacer in whole millimetres with which it clears.
    pub smallest: Option<SmallestSpacer>,
    /// What the gaps read on the fitted wheel say of this one, radial and axial.
    pub bounds: (Option<Bound>, Option<Bound>),
    /// The least gap read between fitted barrel and caliper.
    pub gap_read: Option<Length>,
}

/// The smallest spacer that clears, and what it costs.
#[derive(Debug)]
pub struct SmallestSpacer {
    /// Its thickness in millimetres; 0 when none is needed.
    pub spacer_mm: f64,
    /// The setup with it.
    pub setup: Setup,
    /// What it costs outside, in threads and at the hub's lip.
    pub costs: Vec<String>,
}

/// Judges a wheel over a job's brakes.
pub fn answer<'a>(
    question: &BrakeQuestion,
    content: &'a JobContent,
    context: &JudgingContext,
) -> BrakeAnswer<'a> {
    let axle = question.axle;
    let limits = Limits::from(&context.limits);
    let (package, kept) = package_of(&content.workshop, axle, question.planned_brakes);
    let nothing = SetupPair::default();
    let case = context.case(&content.fitted, &nothing, content.drive);
    // An axle of which nothing is fitted is still asked: by its profiles alone.
    let evidence = context.state.evidence.on(axle);
    let trial = case.axle(axle);
    let setup = question.setup;
    let picked_line = |setup: &Setup| context.state.parts.wheel_of(setup).map(|row| row.line.to_string());
    let line = question.line.clone().or_else(|| setup.as_ref().and_then(picked_line));
    let inside_of = |setup: &Setup, line: Option<&str>| evidence.inside(&setup.wheel?, line);
    let inside = setup.as_ref().and_then(|setup| inside_of(setup, line.as_deref()));
    let spacer_mm = setup.map_or(0.0, |setup| spacer_of(&setup));
    let over = inside.as_ref().map(|inside| judge(&package, inside, spacer_mm, question.weights, limits));
    // The ledger's word where the same brakes are asked; the weights can only make it worse.
    let with_package =
        fitment::judgement::case::AxleEvidence { package: package.clone(), ..evidence.clone() };
    let asked = trial.map(|trial| AxleCase { evidence: &with_package, ..trial });
    let word = |setup: &Setup| -> Verdict {
        let ledger = asked.as_ref().and_then(|axle| brake_verdict(axle, setup, question.line.as_deref()));
        let by_weights = inside.as_ref().and_then(|inside| {
            question.weights?;
            let parts = judge(&package, inside, spacer_of(setup), question.weights, limits).parts;
            parts.iter().filter(|over| over.weights.is_some()).map(|over| over.verdict).max()
        });
        ledger.unwrap_or(Verdict::MeasureFirst).max(by_weights.unwrap_or(Verdict::Clears))
    };
    let on = |mm: f64| setup.map(|setup| Setup { spacer: spacer(mm), ..setup });
    let clears = |mm: f64| {
        !package.templates.is_empty() && on(mm).is_some_and(|setup| word(&setup) == Verdict::Clears)
    };
    let smallest_mm = spacers::smallest_that(clears);
    let shown = spacers::shelf_and(smallest_mm);
    let spacers = inside.as_ref().map_or_else(Vec::new, |inside| {
        sweep(&package, inside, &shown, question.weights, limits)
            .into_iter()
            .map(|step| SpacerStep {
                verdict: on(step.spacer_mm).map_or(step.verdict, |setup| word(&setup)),
                ..step
            })
            .collect()
    });
    let (gaps_read, bounds) = {
        let read = gaps_read(content, context, axle);
        let fitted = content.fitted.on(axle);
        let own = fitted.and_then(|fitted| Some((inside_of(fitted, None)?, spacer_of(fitted))));
        let bounds = match (&own, &inside) {
            (Some((own, own_spacer)), Some(inside)) => {
                bounds_from_fitted((own, *own_spacer), read, (inside, spacer_mm))
            }
            _ => (None, None),
        };
        (read, bounds)
    };
    BrakeAnswer {
        verdict: setup.filter(|_| inside.is_some()).map_or(Verdict::MeasureFirst, |setup| word(&setup)),
        parts: over
            .into_iter()
            .flat_map(|fit| fit.parts)
            .zip(kept)
            .map(|(over, kept)| PartUnder { kept, over })
            .collect(),
        spacers,
        smallest: setup.zip(smallest_mm).map(|(setup, mm)| SmallestSpacer {
            spacer_mm: mm,
            setup: Setup { spacer: spacer(mm), ..setup },
            costs: costs(&setup, mm, trial.as_ref(), content, axle),
        }),
        inside,
        line: line.unwrap_or_default(),
        bounds,
        gap_read: gaps_read.0.and_then(Length::from_mm),
    }
}

fn spacer_of(setup: &Setup) -> f64 {
    setup.spacer.map_or(0.0, |spacer| spacer.as_mm())
}

fn spacer(mm: f64) -> Option<Spacer> {
    Spacer::from_mm(mm).filter(|_| mm > 0.0)
}

/// The least gaps read between the fitted wheel and its caliper, radial and axial, in millimetres.
fn gaps_read(content: &JobContent, context: &JudgingContext, axle: Axle) -> (Option<f64>, Option<f64>) {
    let corner = context.state.corners.on(axle);
    let least = |feature| {
        let of = |reading: &&fitment::car::corner::Reading| {
            reading.feature == feature
                && reading.on == content.fitted.on(axle).copied()
                && reading.tried.is_none()
        };
        corner.readings.iter().filter(of).map(|reading| reading.gap.as_mm()).reduce(f64::min)
    };
    (least(Feature::CaliperRadial), least(Feature::CaliperFace))
}

/// What a thicker spacer costs, in sentences.
fn costs(
    setup: &Setup,
    spacer_mm: f64,
    trial: Option<&AxleCase<'_>>,
    content: &JobContent,
    axle: Axle,
) -> Vec<String> {
    let now = spacer_of(setup);
    if spacer_mm <= now {
        return Vec::new();
    }
    let with = Setup { spacer: spacer(spacer_mm), ..*setup };
    let mut costs = vec![format!("The wheel stands {:.1} mm further out.", spacer_mm - now)];
    let fender = trial.and_then(|trial| trial.fit(&with)?.line(Feature::FenderLateral).cloned());
    match fender.and_then(|line| Some((line.band?.nominal.as_mm(), line.verdict))) {
        Some((gap, verdict)) => costs.push(format!("Fender lip with it: {gap:.1} mm, {}.", verdict.word())),
        None => costs.push("The fender lip was not read: measure it first.".to_owned()),
    }
    let car = &content.measurements.car;
    let fitted_wheel = content.fitted.on(axle).and_then(|fitted| fitted.wheel);
    let hub = Hub::of_car(car, axle, fitted_wheel.as_ref());
    let length = car.number(Fact::FastenerLength, None).and_then(Length::from_mm);
    let side = setup.wheel.map(|wheel| WheelSide::of_size(&wheel)).unwrap_or_default();
    let problems = mount(&hub, &side, with.spacer, length).problems;
    costs.extend(
        problems
            .into_iter()
            .filter(|problem| matches!(problem.code, MountingPart::Lip | MountingPart::Length))
            .map(|problem| problem.says),
    );
    costs
}
