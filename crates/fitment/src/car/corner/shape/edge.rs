//! A strut: an edge through the place where it was read, leaning inboard at its top.

use super::{CannotBe, CarInSpace, Fitted, InSpace, NOT_THERE, ObstacleShape, spread};
use crate::car::corner::Reading;
use crate::car::corner::obstacle::{HEIGHT_PLUS_MINUS_MM, STRUT_LEAN_DEG};
use crate::car::section::{Point, Standing};

/// Heights below this, above the axle, a strut does not reach down to: there the knuckle begins. Estimate.
const STRUT_FROM_MM: f64 = 120.0;

/// Level, from the innermost place near the noted height.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading, height: f64) -> Result<ObstacleShape, CannotBe> {
    // A height noted a little beside the wheel's own edge is still that edge's.
    let face = [1.0, 2.0, 4.0]
        .into_iter()
        .map(|wide| wide * HEIGHT_PLUS_MINUS_MM)
        .find_map(|wide| fitted.outline.inmost_between(height - wide, height + wide))
        .ok_or(NOT_THERE)?;
    let y = fitted.center + face - reading.gap.as_mm();
    Ok(ObstacleShape::Edge { y, height, lean_deg: STRUT_LEAN_DEG })
}

/// Square to the edge, from whatever of the wheel is as high as the strut.
pub(super) fn room(y: f64, height: f64, lean_deg: f64, standing: &Standing<'_>) -> f64 {
    let (sin, cos) = lean_deg.to_radians().sin_cos();
    let off = |at_y: f64, at_r: f64| (at_y + standing.center_y - y) * cos + (at_r - height) * sin;
    // No place of a whole stretch of the outline is nearer than its corner that is lowest and furthest in.
    let least_in = |low: Point, high: Point| {
        let nearest_r = if sin >= 0.0 { low.r } else { high.r };
        if high.r < STRUT_FROM_MM { f64::INFINITY } else { off(low.y, nearest_r) }
    };
    standing.outline.least_of_points(least_in, |point| {
        if point.r < STRUT_FROM_MM { f64::INFINITY } else { off(point.y, point.r) }
    })
}

pub(super) fn in_space(y: f64, height: f64, lean_deg: f64, car: &CarInSpace<'_>) -> InSpace {
    let slope = lean_deg.to_radians().tan();
    let points = spread(140.0, 420.0).map(|z| [0.0, y - car.by_work - (z - height) * slope, z]);
    InSpace::of(points.collect(), false)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::section::Outline;

    #[test]
    fn a_larger_rim_does_not_pass_over_a_strut() {
        // Worked by hand in the shared findings: fitted 17x7.5 ET45 with its inner lip at −152.95; a strut 10 mm further in
        // at 232 mm leans by 14° and so stands at −167.9 at 252 mm; a 19x8.5 ET50 has its lip at −170.65: it touches.
        let planned = Outline::of(&"19x8.5 ET50 225/35R19".parse().unwrap()).unwrap();
        let standing = Standing { outline: &planned, center_y: -50.0, camber_deg: 0.0 };
        let leaning = room(-162.95, 232.0, 14.0, &standing);
        assert!(leaning < -1.0, "{leaning}");
        let upright = room(-162.95, 232.0, 0.0, &standing);
        assert!((upright + 7.7).abs() < 0.05, "upright it is 7.7 mm: {upright}");
    }
}
