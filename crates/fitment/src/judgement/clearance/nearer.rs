//! How much nearer to a part a plan comes than what is known to run clean, where the part itself was not read.

use super::fender_line::room_by_work;
use super::query::uncertainty;
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{Feature, STEEL_RULE, shape};
use crate::car::section::MountedSetup;
use crate::judgement::case::AxleCase;
use crate::values::length::Length;

/// How much nearer to a part the plan comes than what is fitted, in millimetres, with what is done to the car; negative is
/// further away. `None` where that cannot be said before the part is measured (another wheel's spokes).
pub fn nearer_by(
    case: &AxleCase<'_>,
    feature: Feature,
    fitted: &MountedSetup,
    planned: &MountedSetup,
) -> Option<f64> {
    let raised = if feature.blocks_from() == BlocksFrom::Above { case.levers.raised() } else { 0.0 };
    Some(shape::nearer_by(feature, fitted, planned)? - raised - room_by_work(case, feature))
}

/// The gap that must be found with the fitted wheel, read with a steel rule, for the plan to clear.
pub fn must_find(case: &AxleCase<'_>, feature: Feature, nearer_by_mm: f64, planned: &MountedSetup) -> Length {
    let usual = case.resolved.as_usual.of(feature, case.corner, case.fitted);
    let likely = usual.and_then(|usual| uncertainty(case, &usual, planned));
    let likely = likely.map_or(STEEL_RULE, |band| band.likely());
    Length::mm(nearer_by_mm) + case.least(feature) + likely
}
