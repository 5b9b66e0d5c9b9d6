//! A strut: an edge that goes on up and down, leaning inboard at its top.
//!
//! Its reading is the smallest level gap. So the edge lies against the fitted outline, moved inboard by the gap: where a gap was
//! smallest, edge and outline run alike, and the radius that was noted there says how far the edge leans. A gap that is given back
//! so is the gap that was read, whatever the lean is.

use super::{CannotBe, CarInSpace, Fitted, InSpace, ObstacleShape, spread};
use crate::car::corner::obstacle::{HEIGHT_PLUS_MINUS_MM, TroubleKind};
use crate::car::corner::{Direction, Reading};
use crate::car::section::{Outline, Point, Standing};

/// Heights below this, above the axle, a strut does not reach down to: there the knuckle begins. Estimate.
const STRUT_FROM_MM: f64 = 120.0;
/// How far a strut's top leans inboard at least and at most, in degrees. Estimate.
const LEAST_LEAN_DEG: u32 = 0;
const MOST_LEAN_DEG: u32 = 16;
/// How sure a lean is at best, in degrees, where the radius was noted: tires of one size are not of one curve. Estimate.
const LEAN_AT_BEST_DEG: f64 = 2.0;
/// How far below the place where it is nearest, or above the crown, a radius may be noted and still be taken for a slip of the
/// rule, in millimetres.
const BESIDE_MM: f64 = 25.0;

const NOT_ON_THE_WHEEL: CannotBe = (
    TroubleKind::Impossible,
    "The smallest gap to a strut is at the rim's lip or at the sidewall, and nothing of the fitted wheel is so far from the axle \
     there. Was the radius read from another place than the axle, or across the whole wheel?",
);

/// How far a strut leans, and how far that may be off, in degrees.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(in crate::car::corner) struct Lean {
    pub(in crate::car::corner) deg: f64,
    pub(in crate::car::corner) off_deg: f64,
}

impl Lean {
    /// As the noted radius has it: where the gap was smallest, the edge runs as the outline does there.
    pub(in crate::car::corner) fn of(outline: &Outline, noted: f64) -> Self {
        let leans = || (LEAST_LEAN_DEG..=MOST_LEAN_DEG).map(f64::from);
        let between = |least: f64, most: f64| {
            let off_deg = ((most - least) / 2.0).max(LEAN_AT_BEST_DEG);
            Self { deg: (least + most) / 2.0, off_deg }
        };
        let off = |lean: f64| (nearest(outline, lean).r - noted).abs();
        let alike = leans().filter(|lean| off(*lean) <= HEIGHT_PLUS_MINUS_MM);
        let ends = alike
            .fold(None, |ends: Option<(f64, f64)>, lean| Some((ends.map_or(lean, |(least, _)| least), lean)));
        match ends {
            Some((least, most)) => between(least, most),
            // The outline has no such place: the lean whose place is the nearest to it.
            None => leans()
                .min_by(|a, b| off(*a).total_cmp(&off(*b)))
                .map_or(Self::default(), |lean| between(lean, lean)),
        }
    }

    /// # Errors
    /// Where no smallest gap to a strut can have been at the noted radius.
    pub(in crate::car::corner) fn is_on(self, outline: &Outline, noted: f64) -> Result<(), CannotBe> {
        let lowest = nearest(outline, f64::from(MOST_LEAN_DEG)).r;
        let there = lowest - BESIDE_MM..=outline.crown() + BESIDE_MM;
        if there.contains(&noted) { Ok(()) } else { Err(NOT_ON_THE_WHEEL) }
    }
}

/// The place of an outline that a leaning edge is nearest to.
fn nearest(outline: &Outline, lean_deg: f64) -> Point {
    let tan = lean_deg.to_radians().tan();
    let along = |point: &Point| point.y + point.r * tan;
    let there = outline.points().iter().filter(|point| point.r >= STRUT_FROM_MM);
    there.min_by(|a, b| along(a).total_cmp(&along(b))).copied().unwrap_or(Point::new(0.0, 0.0))
}

/// Where its reading puts it, leaning so.
pub(super) fn read(fitted: &Fitted<'_>, reading: &Reading) -> ObstacleShape {
    let lean_deg = fitted.lean.deg;
    let at = nearest(fitted.outline, lean_deg);
    let level = reading.gap.as_mm() / as_level(reading, lean_deg);
    ObstacleShape::Edge { y: fitted.center + at.y - level, height: at.r, lean_deg }
}

/// What of a level gap is left the way it was read.
fn as_level(reading: &Reading, lean_deg: f64) -> f64 {
    match reading.direction {
        Some(Direction::Shortest) => lean_deg.to_radians().cos(),
        Some(Direction::Level) | None => 1.0,
    }
}

/// The way it was read, mostly level, from whatever of the wheel is as high as the strut.
pub(super) fn room(y: f64, height: f64, lean_deg: f64, reading: &Reading, standing: &Standing<'_>) -> f64 {
    let tan = lean_deg.to_radians().tan();
    let off = |at_y: f64, at_r: f64| at_y + standing.center_y - y + (at_r - height) * tan;
    // No place of a whole stretch of the outline is nearer than its corner that is lowest and furthest in.
    let least_in = |low: Point, high: Point| {
        let nearest_r = if tan >= 0.0 { low.r } else { high.r };
        if high.r < STRUT_FROM_MM { f64::INFINITY } else { off(low.y, nearest_r) }
    };
    let level = standing.outline.least_of_points(least_in, |point| {
        if point.r < STRUT_FROM_MM { f64::INFINITY } else { off(point.y, point.r) }
    });
    level * as_level(reading, lean_deg)
}

pub(super) fn in_space(y: f64, height: f64, lean_deg: f64, car: &CarInSpace<'_>) -> InSpace {
    let slope = lean_deg.to_radians().tan();
    let points = spread(140.0, 420.0).map(|z| [0.0, y - car.by_work - (z - height) * slope, z]);
    InSpace::of(points.collect(), false)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::car::corner::Feature;
    use crate::values::length::Length;

    fn outline(setup: &str) -> Outline {
        Outline::of(&setup.parse().unwrap()).unwrap()
    }

    #[test]
    fn a_larger_rim_does_not_pass_over_a_strut() {
        // Worked by hand in the shared findings: fitted 17x7.5 ET45 with its inner lip at −152.95; a strut 10 mm further in
        // at 232 mm leans by 14° and so stands at −167.9 at 252 mm; a 19x8.5 ET50 has its lip at −170.65: it touches.
        let planned = outline("19x8.5 ET50 225/35R19");
        let standing = Standing { outline: &planned, center_y: -50.0, camber_deg: 0.0 };
        let reading = Reading::new(
            Feature::Strut,
            Length::mm(10.0),
            Length::mm(1.0),
            "17x7.5 ET45 225/45R17".parse().unwrap(),
        );
        let leaning = room(-162.95, 232.0, 14.0, &reading, &standing);
        assert!(leaning < -1.0, "{leaning}");
        let upright = room(-162.95, 232.0, 0.0, &reading, &standing);
        assert!((upright + 7.7).abs() < 0.05, "upright it is 7.7 mm: {upright}");
    }

    #[test]
    fn the_radius_where_a_gap_is_smallest_says_how_far_a_strut_leans() {
        let outline = outline("18x8 ET40 225/40R18");
        // An upright edge is nearest to the widest place, one that leans further in to a lower one; and back.
        let heights = [0.0, 4.0, 8.0, 12.0, 16.0].map(|lean| nearest(&outline, lean).r);
        assert!(heights.is_sorted_by(|a, b| a >= b) && heights[0] > heights[4] + 5.0, "{heights:?}");
        for lean in [0.0, 8.0, 16.0] {
            let found = Lean::of(&outline, nearest(&outline, lean).r);
            assert!((found.deg - lean).abs() <= found.off_deg, "{lean}: {found:?}");
        }
    }
}
