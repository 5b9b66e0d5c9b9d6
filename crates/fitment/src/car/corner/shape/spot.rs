//! A part that is met at one height: a knuckle, an arm, a joint.

use super::{CannotBe, CarInSpace, Fitted, InSpace, NOT_THERE, ObstacleShape, spread};
use crate::car::corner::feature::MetAt;
use crate::car::corner::{Carrier, Direction, Feature, Reading};
use crate::car::section::{MountedSetup, Outline, Standing, Toward};

/// The place from which a gap to a part at this height is read level: where nobody noted how high it is, the innermost of all
/// heights at which it may be.
fn face(outline: &Outline, height: f64, reading: &Reading) -> Option<f64> {
    let over = reading.height_doubt();
    outline.inmost_between(height - over, height + over)
}

/// The shortest way, unless it was said to be level.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading, height: f64) -> Result<ObstacleShape, CannotBe> {
    let &Fitted { outline, center, .. } = fitted;
    let gap = reading.gap.as_mm();
    if reading.direction == Some(Direction::Level) {
        let face = face(outline, height, reading).ok_or(NOT_THERE)?;
        return Ok(ObstacleShape::Spot { y: center + face - gap, height });
    }
    let reach = outline.inboard_at(height, gap.max(0.0)).ok_or(NOT_THERE)?;
    Ok(ObstacleShape::Spot { y: center - reach - gap.min(0.0), height })
}

/// The gap as it is read level at the part's own height; `None` where it was read the shortest way, as [`room`] says it, and where
/// nothing of the wheel is as high.
pub(super) fn level(y: f64, height: f64, reading: &Reading, standing: &Standing<'_>) -> Option<f64> {
    if reading.direction != Some(Direction::Level) {
        return None;
    }
    Some(face(standing.outline, height, reading)? + standing.center_y - y)
}

pub(super) fn room(y: f64, height: f64, standing: &Standing<'_>) -> f64 {
    standing.outline.distance_to_inboard_part(y - standing.center_y, height)
}

/// By the inner flange where that meets it, and never less than all of it comes nearer.
pub(super) fn nearer_by(feature: Feature, fitted: &MountedSetup, planned: &MountedSetup) -> f64 {
    let is_of_body = feature.carrier() == Carrier::Body;
    let inner = |stand: &MountedSetup| stand.reach(Toward::Inboard, is_of_body);
    let whole = inner(planned) - inner(fitted);
    match feature.facts().met_at {
        MetAt::InnerFlange => (planned.inner_flange() - fitted.inner_flange()).max(whole),
        MetAt::Nearest | MetAt::Shoulder | MetAt::Sidewall => whole,
    }
}

pub(super) fn in_space(y: f64, height: f64, feature: Feature, car: &CarInSpace<'_>) -> InSpace {
    let z = if feature.is_below() { -height } else { height };
    InSpace::of(spread(-15.0, 15.0).map(|x| [x, y - car.by_work, z]).collect(), false)
}
