//! How much nearer to a part a plan comes than what is known to run clean, where the part itself was not read.

use super::fender_line::room_by_work;
use crate::car::corner::feature::BlocksFrom;
use crate::car::corner::{Feature, shape};
use crate::car::section::MountedSetup;
use crate::judgement::case::AxleCase;

/// How much nearer to a part the plan comes than what is fitted, in millimetres, with what is done to the car; negative is
/// further away. `None` where that cannot be said before the part is measured (another wheel's spokes).
pub fn nearer_by(
    case: &AxleCase<'_>,
    feature: Feature,
    fitted: &MountedSetup,
    planned: &MountedSetup,
) -> Option<f64> {
    let raised =
        if feature.blocks_from() == BlocksFrom::Above { case.levers.raised_at(feature) } else { 0.0 };
    Some(shape::nearer_by(feature, fitted, planned)? - raised - room_by_work(case, feature))
}
