//! A spring perch: a corner that goes on inboard and up, met from beside and from below.

use super::{CannotBe, CarInSpace, Fitted, InSpace, NOT_THERE, ObstacleShape, placed_at, spread};
use crate::car::corner::{Direction, Reading};
use crate::car::section::{MountedSetup, Outline, Standing};

/// How far above the fitted tire a perch's edge can be and still be read from its shoulder, in millimetres.
const MOST_ABOVE_MM: f64 = 60.0;
/// Above this share of the crown there is no shoulder any more: it is read level from the tread's edge.
const TREAD_EDGE_AT: f64 = 0.985;

/// The place of a tire from which the gap to a perch at this height is read level: of all that is as high as the perch is, since
/// that goes on upward.
fn face(outline: &Outline, height: f64) -> Option<f64> {
    let top = outline.crown();
    outline.inmost_between(height.min(TREAD_EDGE_AT * top), top)
}

/// Level at its own height, unless it was said to be the shortest way.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading, height: f64) -> Result<ObstacleShape, CannotBe> {
    let &Fitted { outline, center, .. } = fitted;
    let gap = reading.gap.as_mm();
    if height > outline.crown() + MOST_ABOVE_MM {
        return Err(NOT_THERE);
    }
    let level = center + face(outline, height).ok_or(NOT_THERE)? - gap;
    let y = match reading.direction {
        Some(Direction::Shortest) => {
            let standing = Standing { outline, center_y: center, camber_deg: 0.0 };
            placed_at(gap, level, |y| room(y, height, &standing)).ok_or(NOT_THERE)?
        }
        Some(Direction::Level) | None => level,
    };
    Ok(ObstacleShape::Perch { y, height })
}

/// The gap as it is read level; `None` where it was read the shortest way, as [`room`] says it.
pub(super) fn level(y: f64, height: f64, reading: &Reading, standing: &Standing<'_>) -> Option<f64> {
    if reading.direction == Some(Direction::Shortest) {
        return None;
    }
    Some(face(standing.outline, height)? + standing.center_y - y)
}

/// The nearest way to the corner: beside it, below it, or past its edge.
pub(super) fn room(y: f64, height: f64, standing: &Standing<'_>) -> f64 {
    let to_corner = |at_y: f64, at_r: f64| {
        let (beside, below) = (at_y + standing.center_y - y, height - at_r);
        match (beside > 0.0, below > 0.0) {
            (true, true) => (beside * beside + below * below).sqrt(),
            _ => beside.max(below),
        }
    };
    // No place of a whole stretch of the outline is nearer than its corner that is highest and furthest in.
    let nearest = standing
        .outline
        .least_of_points(|low, high| to_corner(low.y, high.r), |point| to_corner(point.y, point.r));
    nearest.min(standing.outline.signed_distance(y - standing.center_y, height))
}

/// Past the corner sideways and upward together.
pub(super) fn nearer_by(fitted: &MountedSetup, planned: &MountedSetup) -> f64 {
    let nearer = planned.inner_shoulder() - fitted.inner_shoulder();
    let larger = (planned.crown() - fitted.crown()).max(0.0);
    if nearer > 0.0 { nearer.hypot(larger) } else { nearer + larger }
}

pub(super) fn in_space(y: f64, height: f64, car: &CarInSpace<'_>) -> InSpace {
    InSpace::of(spread(-45.0, 45.0).map(|x| [x, y - car.by_work, height]).collect(), false)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_perch_is_met_from_beside_and_from_below() {
        let tire = Outline::of(&"18x8 ET45 225/40R18".parse().unwrap()).unwrap();
        let top = tire.crown();
        let standing = Standing { outline: &tire, center_y: 0.0, camber_deg: 0.0 };
        let room = |y: f64, height: f64| room(y, height, &standing);
        // Far inboard at the widest height: level distance to the sidewall.
        assert!((room(-130.0, 270.0) - (130.0 - 114.3)).abs() < 2.5);
        // Above the tread: what is between.
        assert!((room(0.0, top + 9.0) - 9.0).abs() < 1e-9);
        // The tire stands into it: negative, and more so the further.
        assert!(room(-90.0, 290.0) < -5.0 && room(-60.0, 290.0) < room(-90.0, 290.0));
    }
}
