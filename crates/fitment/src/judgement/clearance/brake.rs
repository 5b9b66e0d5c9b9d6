//! Room to what stands inside the barrel: from profiles, from readings at the caliper, from trials.
//!
//! One word for one wheel: ledger, window, finder, compare and brake bench ask here.

use super::unmeasured_parts::{ran_clean, unread_part};
use super::{Clearance, Contribution, Input, MountedSetup, Uncertainty, Verdict, judged, nearer_by};
use crate::car::brake::{Limits, Over, ProfileSource, over_each_part};
use crate::car::corner::{Feature, Obstacle};
use crate::judgement::case::AxleCase;
use crate::parts::wheel::Wheel;
use crate::setup::Setup;
use crate::values::codes::Spacer;
use crate::values::length::Length;
use crate::values::working::Source;

const TEMPLATE: Source =
    Source { kind: crate::values::working::SourceKind::Measured, cite: "the brake's profile, as measured" };
const INSIDE: Source =
    Source { kind: crate::values::working::SourceKind::Measured, cite: "the wheel's inside, as measured" };

/// What is asked of the brake.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Detail {
    /// The words alone.
    Words,
    /// What must be found where nobody read it, too.
    Whole,
}

/// The lines of caliper and spokes for a planned setup; none where the very wheel that is fitted or ran clean stays.
pub(super) fn over_the_brake(case: &AxleCase<'_>, planned: &Setup, stand: &MountedSetup) -> Vec<Clearance> {
    over_the_brake_as_picked(case, planned, stand, Detail::Whole)
}

fn over_the_brake_as_picked(
    case: &AxleCase<'_>,
    planned: &Setup,
    stand: &MountedSetup,
    detail: Detail,
) -> Vec<Clearance> {
    let line = case.parts.wheel_of(planned).map(|row| row.line.to_string());
    over_the_brake_of(case, planned, stand, line.as_deref(), case.keeps_the_wheel(planned), detail)
}

/// The parts of the brake that a planned setup touches, or comes too near to.
pub fn brake_blocks(case: &AxleCase<'_>, planned: &Setup) -> Vec<Feature> {
    let Some(stand) = MountedSetup::of(planned, case.planned_camber()) else { return Vec::new() };
    let lines = over_the_brake_as_picked(case, planned, &stand, Detail::Words);
    lines.into_iter().filter(|line| line.verdict.rules_out()).map(|line| line.feature).collect()
}

/// How a setup stands to the brake; `None` where it cannot be placed. A wheel of which nothing must be asked clears: it is
/// fitted or ran clean.
///
/// `line` is the price list's line of the wheel; the picked row's, or none, when left out.
pub fn brake_verdict(case: &AxleCase<'_>, planned: &Setup, line: Option<&str>) -> Option<Verdict> {
    let stand = MountedSetup::of(planned, case.planned_camber())?;
    let lines = match line {
        Some(line) => over_the_brake_of(case, planned, &stand, Some(line), false, Detail::Words),
        None => over_the_brake_as_picked(case, planned, &stand, Detail::Words),
    };
    Some(lines.into_iter().map(|line| line.verdict).max().unwrap_or(Verdict::Clears))
}

/// Whether anything of the brake was read, drawn or tried: without, no wheel is ruled out by it.
pub fn knows_the_brake(case: &AxleCase<'_>) -> bool {
    !case.evidence.package.templates.is_empty()
        || case.resolved.knows(Feature::CaliperRadial)
        || case.resolved.knows(Feature::CaliperFace)
}

/// Whether the brake rules out a wheel of a price list's line that was not picked yet; without a line it is the
/// owner's own.
pub fn brake_rules_out(
    case: &AxleCase<'_>,
    wheel: Wheel,
    spacer: Option<Spacer>,
    line: Option<&str>,
) -> bool {
    let setup = Setup { wheel: Some(wheel), spacer, ..Setup::default() };
    let is_own = line.is_none() && case.fitted.wheel.is_some_and(|own| own.placed() == wheel.placed());
    MountedSetup::of(&setup, case.planned_camber()).is_some_and(|stand| {
        let lines = over_the_brake_of(case, &setup, &stand, line, is_own, Detail::Words);
        lines.iter().any(|line| line.verdict.rules_out())
    })
}

fn over_the_brake_of(
    case: &AxleCase<'_>,
    planned: &Setup,
    stand: &MountedSetup,
    line: Option<&str>,
    keeps_the_wheel: bool,
    detail: Detail,
) -> Vec<Clearance> {
    let mut lines: Vec<Clearance> = Vec::new();
    let fitted = MountedSetup::of(case.fitted, case.corner.camber());
    // What was met with this very wheel is sure; what was read with another one is carried over.
    let exact = |obstacle: &Obstacle| {
        obstacle.reading.on.is_some_and(|on| {
            on.wheel.map(|wheel| wheel.placed()) == planned.wheel.map(|wheel| wheel.placed())
                && (obstacle.reading.tried.is_some() || keeps_the_wheel)
        })
    };
    let by_profiles = by_profiles(case, planned, line);
    for feature in [Feature::CaliperRadial, Feature::CaliperFace] {
        let read = judged(case, feature, stand);
        let is_exact = read.as_ref().and_then(|line| line.obstacle.as_ref()).is_some_and(exact);
        let drawn = by_profiles.iter().find(|line| line.feature == feature).cloned();
        let ran_clean = case.evidence.tries_of(planned).any(|tried| tried.ran_clean())
            && !case
                .evidence
                .tries_of(planned)
                .any(|tried| tried.touched() && tried.contact.feature() == Some(feature));
        match (read, drawn) {
            (Some(read), _) if is_exact => lines.push(read),
            // A trial of this very wheel overrules what was drawn or carried over.
            _ if ran_clean => {}
            (_, Some(drawn)) => lines.push(drawn),
            (Some(read), None) => lines.push(read),
            (None, None) if case.resolved.knows(feature) => lines.push(cannot_be_used(case, feature)),
            (None, None) => {}
        }
    }
    let ran_clean = case.evidence.tries_of(planned).any(|tried| tried.ran_clean());
    if keeps_the_wheel || ran_clean {
        let nearer =
            |fitted: &MountedSetup| nearer_by(case, Feature::CaliperFace, fitted, stand).unwrap_or(0.0);
        // The very wheel on a thinner spacer comes nearer to the caliper.
        if !ran_clean && lines.is_empty() && fitted.as_ref().is_some_and(|fitted| nearer(fitted) > 0.0) {
            lines.push(unknown_brake(case, Feature::CaliperFace, stand, detail));
        }
        return lines;
    }
    let smaller = fitted.as_ref().is_some_and(|fitted| stand.rim_radius() < fitted.rim_radius());
    let knows = |feature| lines.iter().any(|line| line.feature == feature);
    if smaller && !knows(Feature::CaliperRadial) {
        lines.push(unknown_brake(case, Feature::CaliperRadial, stand, detail));
    } else if lines.is_empty() && planned.wheel.is_some() {
        lines.push(unknown_brake(case, Feature::CaliperFace, stand, detail));
    }
    lines
}

fn unknown_brake(case: &AxleCase<'_>, feature: Feature, stand: &MountedSetup, detail: Detail) -> Clearance {
    let is_unread = detail == Detail::Whole && !case.resolved.knows(feature);
    let unread = || unread_part(case, feature, stand, &ran_clean(case));
    let must_find = is_unread.then(unread).flatten().and_then(|one| one.must_find);
    Clearance {
        feature,
        obstacle: None,
        drawn_at: None,
        band: None,
        as_read: None,
        limit: case.least(feature),
        verdict: Verdict::MeasureFirst,
        must_find,
        past_the_lip: None,
    }
}

/// A reading that says nothing of another wheel: it is shown as such.
fn cannot_be_used(case: &AxleCase<'_>, feature: Feature) -> Clearance {
    let obstacle = case.resolved.of(feature).next().copied();
    let limit = case.least(feature);
    let verdict = Verdict::MeasureFirst;
    Clearance {
        feature,
        obstacle,
        drawn_at: None,
        band: None,
        as_read: None,
        limit,
        verdict,
        must_find: None,
        past_the_lip: None,
    }
}

/// By the profiles of brake and wheel; none while the axle has none. Where only the wheel's size is known its barrel
/// is drawn and off by some millimetres, and its spokes say nothing: those are to be tried.
fn by_profiles(case: &AxleCase<'_>, planned: &Setup, line: Option<&str>) -> Vec<Clearance> {
    let Some(wheel) = planned.wheel.filter(|_| !case.evidence.package.templates.is_empty()) else {
        return Vec::new();
    };
    let Some(inside) = case.evidence.inside(&wheel, line) else { return Vec::new() };
    let is_estimate = inside.source == ProfileSource::Estimate;
    let spacer = planned.spacer.map_or(0.0, |spacer| spacer.as_mm());
    let limits = Limits::from(case.limits);
    let parts = over_each_part(&case.evidence.package, &inside, spacer, limits);
    let template = |over: &Over| {
        let off = (over.plus_minus_mm.powi(2) - inside.plus_minus_mm.powi(2)).max(0.0).sqrt();
        vec![
            Contribution::either_way(Input::BrakeProfile, Length::mm(off), TEMPLATE),
            Contribution::either_way(
                if is_estimate { Input::WheelInsideDrawn } else { Input::WheelInside },
                Length::mm(inside.plus_minus_mm),
                if is_estimate { Source::estimate("rim code, width and offset alone") } else { INSIDE },
            ),
        ]
    };
    let mut lines = Vec::new();
    for feature in [Feature::CaliperRadial, Feature::CaliperFace] {
        let gap = |over: &Over| match feature {
            Feature::CaliperRadial => over.gaps.radial.map(|gap| gap.mm),
            _ => over.gaps.axial.map(|gap| gap.mm),
        };
        let tightest =
            parts.iter().filter_map(|over| Some((gap(over)?, over))).min_by(|a, b| a.0.total_cmp(&b.0));
        let Some((gap, over)) = tightest else { continue };
        let band = Uncertainty::new(Length::mm(gap), template(over));
        let limit = case.least(feature);
        let verdict = match Verdict::of(band.nominal, band.likely_low(), limit) {
            _ if is_estimate && feature == Feature::CaliperFace => Verdict::MeasureFirst,
            // An estimate stops only what cannot be even at its best.
            Verdict::Touches if is_estimate && band.likely_high() > Length::ZERO => Verdict::MeasureFirst,
            verdict => verdict,
        };
        lines.push(Clearance {
            feature,
            obstacle: None,
            drawn_at: None,
            band: Some(band),
            as_read: None,
            limit,
            verdict,
            must_find: None,
            past_the_lip: None,
        });
    }
    lines
}
