//! Curves as points, within a tolerance and a budget.

use super::SheetError;
use super::budget::Budget;

/// Points of an arc from one angle to another (degrees, counter-clockwise), both ends included.
pub(super) fn arc(
    center: (f64, f64),
    radius: f64,
    from_deg: f64,
    to_deg: f64,
    tolerance: f64,
    budget: &mut Budget,
) -> Result<Vec<(f64, f64)>, SheetError> {
    let sweep = to_deg - from_deg;
    // The sagitta of a chord is r (1 − cos half): so wide may a step be.
    let half = (1.0 - (tolerance / radius.max(tolerance)).min(1.0)).acos().max(1e-3);
    let steps = ((sweep.to_radians().abs() / (2.0 * half)).ceil() as usize).clamp(1, 2000);
    budget.take(steps + 1)?;
    Ok((0..=steps)
        .map(|step| {
            let angle = (from_deg + sweep * step as f64 / steps as f64).to_radians();
            (center.0 + radius * angle.cos(), center.1 + radius * angle.sin())
        })
        .collect())
}

/// Points of a polyline's piece with a bulge, the first left out. A bulge is the tangent of a quarter of the arc's angle.
pub(super) fn bulge(
    from: (f64, f64),
    to: (f64, f64),
    bulge: f64,
    tolerance: f64,
    budget: &mut Budget,
) -> Result<Vec<(f64, f64)>, SheetError> {
    let (dx, dy) = (to.0 - from.0, to.1 - from.1);
    let chord = dx.hypot(dy);
    if bulge.abs() < 1e-9 || chord == 0.0 || !bulge.is_finite() {
        budget.take(1)?;
        return Ok(vec![to]);
    }
    let angle = 4.0 * bulge.atan();
    let radius = (chord / 2.0 / (angle / 2.0).sin()).abs();
    // From the middle of the chord to the centre, to the left of it for an arc that turns left by less than half.
    let away = chord / 2.0 / (angle / 2.0).tan();
    let center = ((from.0 + to.0) / 2.0 - dy / chord * away, (from.1 + to.1) / 2.0 + dx / chord * away);
    let start = (from.1 - center.1).atan2(from.0 - center.0).to_degrees();
    let mut points = arc(center, radius, start, start + angle.to_degrees(), tolerance, budget)?;
    points.remove(0);
    if let Some(last) = points.last_mut() {
        *last = to;
    }
    Ok(points)
}

/// A rational B-spline.
pub(super) struct Spline<'a> {
    pub degree: usize,
    pub knots: &'a [f64],
    pub control: &'a [(f64, f64)],
    /// Empty for weights that are all alike.
    pub weights: &'a [f64],
}

/// Highest degree that is read; drawings have three.
const HIGHEST_DEGREE: usize = 11;

impl Spline<'_> {
    /// `None` for what is no spline: too few points or knots, or knots that go back.
    pub(super) fn points(
        &self,
        tolerance: f64,
        budget: &mut Budget,
    ) -> Result<Option<Vec<(f64, f64)>>, SheetError> {
        let (degree, count) = (self.degree, self.control.len());
        let is_sound = (1..=HIGHEST_DEGREE).contains(&degree)
            && count > degree
            && self.knots.len() == count + degree + 1
            && self.knots.windows(2).all(|two| two[0] <= two[1])
            && (self.weights.is_empty() || self.weights.len() == count)
            && self.weights.iter().all(|weight| *weight > 0.0);
        if !is_sound {
            return Ok(None);
        }
        budget.take(1)?;
        let mut points = vec![self.at(self.knots[degree])];
        for span in degree..count {
            let (from, to) = (self.knots[span], self.knots[span + 1]);
            if to > from {
                // A piece bends at most as often as its degree: halves of pieces cannot hide a bend.
                for part in 0..degree {
                    let share = |part: usize| from + (to - from) * part as f64 / degree as f64;
                    self.split((share(part), share(part + 1)), tolerance, 0, &mut points, budget)?;
                }
            }
        }
        Ok(Some(points))
    }

    fn split(
        &self,
        (from, to): (f64, f64),
        tolerance: f64,
        depth: u32,
        points: &mut Vec<(f64, f64)>,
        budget: &mut Budget,
    ) -> Result<(), SheetError> {
        let (a, b) = (self.at(from), self.at(to));
        let off = |share: f64| {
            let on = self.at(from + (to - from) * share);
            let chord = (a.0 + (b.0 - a.0) * share, a.1 + (b.1 - a.1) * share);
            (on.0 - chord.0).hypot(on.1 - chord.1)
        };
        if depth < 12 && [0.25, 0.5, 0.75].into_iter().any(|share| off(share) > tolerance) {
            let middle = f64::midpoint(from, to);
            self.split((from, middle), tolerance, depth + 1, points, budget)?;
            self.split((middle, to), tolerance, depth + 1, points, budget)
        } else {
            budget.take(1)?;
            points.push(b);
            Ok(())
        }
    }

    /// De Boor's algorithm, on points with their weights.
    fn at(&self, t: f64) -> (f64, f64) {
        let degree = self.degree;
        let last = self.control.len() - 1;
        let span = self.knots[degree..=last].partition_point(|knot| *knot <= t) + degree - 1;
        let span = span.clamp(degree, last);
        let mut d: Vec<(f64, f64, f64)> = (0..=degree)
            .map(|j| {
                let at = span - degree + j;
                let weight = self.weights.get(at).copied().unwrap_or(1.0);
                (self.control[at].0 * weight, self.control[at].1 * weight, weight)
            })
            .collect();
        for r in 1..=degree {
            for j in (r..=degree).rev() {
                let low = self.knots[span - degree + j];
                let high = self.knots[span + 1 + j - r];
                let share = if high > low { (t - low) / (high - low) } else { 0.0 };
                let mix = |a: f64, b: f64| a + (b - a) * share;
                d[j] = (mix(d[j - 1].0, d[j].0), mix(d[j - 1].1, d[j].1), mix(d[j - 1].2, d[j].2));
            }
        }
        let (x, y, weight) = d[degree];
        (x / weight, y / weight)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_arc_is_within_its_tolerance() {
        let points = arc((0.0, 0.0), 150.0, 10.0, 100.0, 0.05, &mut Budget::new()).unwrap();
        for two in points.windows(2) {
            let middle = ((two[0].0 + two[1].0) / 2.0, (two[0].1 + two[1].1) / 2.0);
            assert!(150.0 - middle.0.hypot(middle.1) <= 0.05 + 1e-9);
        }
        assert!(points.len() < 60, "and no finer than it must be: {}", points.len());
    }

    #[test]
    fn a_bulge_of_one_is_half_a_circle() {
        let points = bulge((-10.0, 0.0), (10.0, 0.0), 1.0, 0.01, &mut Budget::new()).unwrap();
        assert!(
            points.iter().all(|(x, y)| (x.hypot(*y) - 10.0).abs() < 1e-9 && *y <= 1e-9),
            "turning left, below"
        );
        assert_eq!(points.last(), Some(&(10.0, 0.0)));
    }

    #[test]
    fn a_rational_spline_can_be_a_quarter_of_a_circle() {
        // The textbook quadratic: weights 1, 1/√2, 1.
        let root = std::f64::consts::FRAC_1_SQRT_2;
        let spline = Spline {
            degree: 2,
            knots: &[0.0, 0.0, 0.0, 1.0, 1.0, 1.0],
            control: &[(100.0, 0.0), (100.0, 100.0), (0.0, 100.0)],
            weights: &[1.0, root, 1.0],
        };
        let points = spline.points(0.05, &mut Budget::new()).unwrap().unwrap();
        assert!(points.iter().all(|(x, y)| (x.hypot(*y) - 100.0).abs() < 1e-9));
        assert!(points.len() > 10);
        let broken = Spline { knots: &[0.0, 1.0], ..spline };
        assert!(broken.points(0.05, &mut Budget::new()).unwrap().is_none());
    }
}
