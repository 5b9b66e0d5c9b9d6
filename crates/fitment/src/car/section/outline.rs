//! The one closed outline of rim and tire: what is drawn, held against the car, and swept.
//!
//! Tire over the rim, flanges, air sides and the barrel's underside; the spokes are left out, since nothing of the car but
//! the brake reaches there, and that is judged by profiles of its own ([`crate::car::brake`]).

use super::deviations::Deviations;
use super::rim::{
    CURL, air_side, barrel_inside, flange, flange_width, seat_side, under_the_outer_hump, well_floor,
};
use super::{Point, tire};
use crate::setup::Setup;
use crate::values::codes::J_FLANGE_HEIGHT;

/// A side of the wheel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Toward {
    /// Toward the middle of the car.
    Inboard,
    /// Toward the fender.
    Outboard,
}

/// Height of the rim flange's top above the axle.
pub fn flange_top(setup: &Setup) -> Option<f64> {
    Some(setup.wheel?.diameter.bead_seat().as_mm() / 2.0 + J_FLANGE_HEIGHT.as_mm())
}

/// A closed outline.
///
/// # Frame
/// y from the rim's centre plane, outboard positive; r from the spin axis. Millimetres. Moving the wheel sideways moves
/// the frame, not the outline: it is made once for every offset.
#[derive(Debug, Clone, PartialEq)]
pub struct Outline {
    points: Vec<Point>,
    edges: Vec<Edge>,
    /// The same edges by runs of a few, each with a box round it: whole runs are left out where they cannot be nearest.
    runs: Vec<Run>,
    /// The box round all of it.
    low: Point,
    high: Point,
}

/// Edges of one run.
const RUN: usize = 12;

/// A few edges one after another, and the box round them.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Run {
    first: usize,
    end: usize,
    low: Point,
    high: Point,
}

impl Run {
    /// Square of a place's distance to the box; nothing inside.
    #[inline]
    fn square_to_box(&self, y: f64, r: f64) -> f64 {
        square_to_box(self.low, self.high, y, r)
    }
}

#[inline]
fn square_to_box(low: Point, high: Point, y: f64, r: f64) -> f64 {
    let off = |value: f64, least: f64, most: f64| (least - value).max(value - most).max(0.0);
    let (y, r) = (off(y, low.y, high.y), off(r, low.r, high.r));
    y * y + r * r
}

/// From one point to the next, with what every distance to it asks for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Edge {
    from: Point,
    along: Point,
    /// One over the square of its length; nothing for an edge without one.
    per_square: f64,
}

impl Edge {
    fn new(from: Point, to: Point) -> Self {
        let along = Point::new(to.y - from.y, to.r - from.r);
        let square = along.y * along.y + along.r * along.r;
        Self { from, along, per_square: if square == 0.0 { 0.0 } else { 1.0 / square } }
    }

    /// Square of a place's distance.
    #[inline]
    pub(crate) fn square_to(&self, y: f64, r: f64) -> f64 {
        let (y, r) = (y - self.from.y, r - self.from.r);
        let t = ((y * self.along.y + r * self.along.r) * self.per_square).clamp(0.0, 1.0);
        let (off_y, off_r) = (t * self.along.y - y, t * self.along.r - r);
        off_y * off_y + off_r * off_r
    }

    /// Whether a ray outboard from a place crosses it.
    #[inline]
    fn is_crossed_from(&self, y: f64, r: f64) -> bool {
        is_crossed(self.from, self.along, y, r)
    }
}

/// Whether a ray outboard from a place crosses what lies between a point and one so far along from it.
#[inline]
fn is_crossed(from: Point, along: Point, y: f64, r: f64) -> bool {
    (from.r > r) != (from.r + along.r > r) && y < from.y + (r - from.r) / along.r * along.y
}

/// The least and the most of some points; an empty box of none.
fn box_round(points: impl Iterator<Item = Point>) -> (Point, Point) {
    let empty = (Point::new(f64::INFINITY, f64::INFINITY), Point::new(f64::NEG_INFINITY, f64::NEG_INFINITY));
    points.fold(empty, |(low, high), point| {
        (
            Point::new(low.y.min(point.y), low.r.min(point.r)),
            Point::new(high.y.max(point.y), high.r.max(point.r)),
        )
    })
}

impl Outline {
    /// The outline of a setup; `None` without a wheel and its offset.
    pub fn of(setup: &Setup) -> Option<Self> {
        Self::of_true(setup, &Deviations::default())
    }

    /// The outline of a setup whose parts differ from their sizes.
    pub fn of_true(setup: &Setup, off: &Deviations) -> Option<Self> {
        let wheel = setup.wheel?;
        let center = -wheel.offset?.as_mm();
        let a = wheel.width.between_flanges().as_mm() / 2.0 + off.half_rim;
        let seat = wheel.diameter.bead_seat().as_mm() / 2.0;
        let wide = flange_width(setup);
        let mut points = match tire::above_the_flanges(setup, off) {
            Some(rubber) => {
                let rubber = rubber.into_iter().map(|point| point.moved(-center)).collect();
                with_flanges(rubber, &flange(a, seat, wide, off.flange), a, seat)
            }
            None => {
                let outboard = seat_side(a, seat, wide, off.flange);
                let inboard = outboard.iter().rev().map(|point| point.mirrored());
                outboard.iter().copied().chain(well_floor(a, seat)).chain(inboard).collect()
            }
        };
        points.extend(barrel_inside(a, seat, off.flange));
        points.extend(under_the_outer_hump(a, seat));
        points.extend(air_side(a, seat, off.flange).into_iter().rev());
        Some(Self::from_points(points))
    }

    /// An outline from points, in order; the last joins the first.
    pub fn from_points(points: Vec<Point>) -> Self {
        let count = points.len();
        let runs = (0..count).step_by(RUN).map(|first| {
            let end = (first + RUN).min(count);
            let (low, high) = box_round((first..=end).map(|at| points[if at == count { 0 } else { at }]));
            Run { first, end, low, high }
        });
        let runs = runs.collect();
        let (low, high) = box_round(points.iter().copied());
        let edge = |at: usize| Edge::new(points[at], points[if at + 1 == count { 0 } else { at + 1 }]);
        let edges = (0..count).map(edge).collect();
        Self { points, edges, runs, low, high }
    }

    /// Its points, in order; the last joins the first.
    pub fn points(&self) -> &[Point] {
        &self.points
    }

    fn segments(&self) -> impl Iterator<Item = (Point, Point)> {
        let next = self.points.iter().copied().cycle().skip(1);
        self.points.iter().copied().zip(next)
    }

    /// Signed distance of a place to it, in millimetres: negative inside.
    pub fn signed_distance(&self, y: f64, r: f64) -> f64 {
        let distance = self.square_to_nearest(y, r).sqrt();
        if self.is_inside(y, r) { -distance } else { distance }
    }

    /// The signed distance of a place; `None` where it is not under `limit`. Most places are left out by the boxes.
    pub fn nearer_than(&self, y: f64, r: f64, limit: f64) -> Option<f64> {
        if limit == f64::INFINITY {
            let distance = self.signed_distance(y, r);
            return (distance < limit).then_some(distance);
        }
        if self.is_inside(y, r) {
            let distance = -self.square_to_nearest(y, r).sqrt();
            return (distance < limit).then_some(distance);
        }
        let mut nearest = if limit > 0.0 { limit * limit } else { return None };
        if square_to_box(self.low, self.high, y, r) >= nearest {
            return None;
        }
        for run in &self.runs {
            if run.square_to_box(y, r) < nearest {
                nearest = self.square_to_run(run, y, r, nearest);
            }
        }
        let distance = nearest.sqrt();
        (distance < limit).then_some(distance)
    }

    /// Square of the distance to the nearest edge of a run, or what was nearer before.
    #[inline]
    fn square_to_run(&self, run: &Run, y: f64, r: f64, nearest: f64) -> f64 {
        let edges = &self.edges[run.first..run.end];
        edges.iter().map(|edge| edge.square_to(y, r)).fold(nearest, f64::min)
    }

    /// Square of the distance to the nearest edge.
    fn square_to_nearest(&self, y: f64, r: f64) -> f64 {
        let of_run = |run: &Run, nearest: f64| self.square_to_run(run, y, r, nearest);
        self.least_by_runs(|run| run.square_to_box(y, r), of_run)
    }

    /// The least of a figure, run by run: `of_box` bounds it from below by the box round a run. The run whose box promises the
    /// least is looked at first; most others need not be.
    #[inline]
    fn least_by_runs(&self, of_box: impl Fn(&Run) -> f64, of_run: impl Fn(&Run, f64) -> f64) -> f64 {
        let mut first: Option<(f64, &Run)> = None;
        for run in &self.runs {
            let bound = of_box(run);
            if first.is_none_or(|(least, _)| bound < least) {
                first = Some((bound, run));
            }
        }
        let Some((_, first)) = first else { return f64::INFINITY };
        let mut least = of_run(first, f64::INFINITY);
        for run in &self.runs {
            if run.first != first.first && of_box(run) < least {
                least = of_run(run, least);
            }
        }
        least
    }

    /// Whether a place is inside: a ray outboard from it crosses an odd number of edges.
    pub(crate) fn is_inside(&self, y: f64, r: f64) -> bool {
        if y < self.low.y || y > self.high.y || r < self.low.r || r > self.high.r {
            return false;
        }
        let runs = self.runs.iter().filter(|run| run.low.r <= r && r <= run.high.r && y <= run.high.y);
        let edges = runs.flat_map(|run| &self.edges[run.first..run.end]);
        edges.filter(|edge| edge.is_crossed_from(y, r)).count() % 2 == 1
    }

    /// The edges that may be the nearest to some place within `reach` of this one.
    pub(crate) fn edges_near(&self, y: f64, r: f64, reach: f64) -> impl Iterator<Item = Edge> {
        let square = reach * reach;
        let runs = self.runs.iter().filter(move |run| run.square_to_box(y, r) <= square);
        let edges = runs.flat_map(|run| &self.edges[run.first..run.end]);
        edges.filter(move |edge| edge.square_to(y, r) <= square).copied()
    }

    /// Radius of the crown, or of the flange without a tire.
    pub fn crown(&self) -> f64 {
        self.high.r
    }

    /// Least and most y, and least and most r.
    pub fn bounds(&self) -> ((f64, f64), (f64, f64)) {
        ((self.low.y, self.high.y), (self.low.r, self.high.r))
    }
}

impl Outline {
    /// How far it reaches from the hub face, positive toward that side: leaned by a camber angle about the x axis through the hub
    /// face, the rim's centre plane standing at `center_y`. Negative leans the top inward.
    pub fn reach(&self, toward: Toward, center_y: f64, camber_deg: f64) -> f64 {
        let (sin, cos) = camber_deg.to_radians().sin_cos();
        match toward {
            Toward::Inboard => -(center_y * cos + self.least_along(cos, sin)),
            Toward::Outboard => center_y * cos - self.least_along(-cos, -sin),
        }
    }

    /// Its highest point above the axle, standing so.
    pub fn top(&self, center_y: f64, camber_deg: f64) -> f64 {
        let (sin, cos) = camber_deg.to_radians().sin_cos();
        -center_y * sin - self.least_along(sin, -cos)
    }

    /// The least of a·y + b·r over its points.
    fn least_along(&self, a: f64, b: f64) -> f64 {
        let along = |y: f64, r: f64| a * y + b * r;
        let corner = |low: Point, high: Point| {
            along(if a < 0.0 { high.y } else { low.y }, if b < 0.0 { high.r } else { low.r })
        };
        self.least_of_points(corner, |point| along(point.y, point.r))
    }

    /// Its innermost place between two heights; `None` where nothing of it is.
    pub fn inmost_between(&self, low: f64, high: f64) -> Option<f64> {
        self.segments()
            .filter_map(|(a, b)| {
                let (least, most) = (a.r.min(b.r).max(low), a.r.max(b.r).min(high));
                if least > most {
                    return None;
                }
                let at = |r: f64| {
                    if a.r == b.r { a.y.min(b.y) } else { a.y + (r - a.r) / (b.r - a.r) * (b.y - a.y) }
                };
                Some(at(least).min(at(most)))
            })
            .reduce(f64::min)
    }

    /// How far it reaches inboard at a height, after everything was grown by `grown_by` all round; positive inboard of the
    /// rim's centre plane. `None` where even the grown outline does not come to that height.
    ///
    /// This is the exact limit for a part of the car that begins at this height and goes on inboard: it stays `grown_by`
    /// away as long as it begins further in.
    pub fn inboard_at(&self, height: f64, grown_by: f64) -> Option<f64> {
        let meets = |low: f64, high: f64| low - grown_by <= height && height <= high + grown_by;
        let runs = self.runs.iter().filter(|run| meets(run.low.r, run.high.r));
        let edges = runs.flat_map(|run| &self.edges[run.first..run.end]);
        edges
            .filter(|edge| {
                let (a, b) = (edge.from.r, edge.from.r + edge.along.r);
                meets(a.min(b), a.max(b))
            })
            .filter_map(|edge| leftmost_of_capsule(edge, height, grown_by))
            .reduce(f64::min)
            .map(|y| -y)
    }

    /// The least of a figure over its points; `least_in` bounds it by the corners of a box from below, so that whole runs are
    /// left out.
    pub(crate) fn least_of_points(
        &self,
        least_in: impl Fn(Point, Point) -> f64,
        of_point: impl Fn(Point) -> f64,
    ) -> f64 {
        let of_run = |run: &Run, least: f64| {
            let points = self.points[run.first..run.end].iter();
            points.map(|point| of_point(*point)).fold(least, f64::min)
        };
        self.least_by_runs(|run| least_in(run.low, run.high), of_run)
    }

    /// Smallest distance to a part that begins at (`y`, `height`) and goes on inboard; negative by how far the two overlap
    /// sideways.
    pub fn distance_to_inboard_part(&self, y: f64, height: f64) -> f64 {
        match self.inboard_at(height, 0.0) {
            Some(reach) if -reach <= y => -reach - y,
            _ => {
                // Nothing of a run is nearer to the half line than its box is.
                let to_box = |run: &Run| {
                    let beside = (run.low.y - y).max(0.0);
                    let off = (run.low.r - height).max(height - run.high.r).max(0.0);
                    beside * beside + off * off
                };
                let of_run = |run: &Run, nearest: f64| {
                    let edges = self.edges[run.first..run.end].iter();
                    edges.map(|edge| square_to_ray(edge, y, height)).fold(nearest, f64::min)
                };
                let nearest = self.least_by_runs(to_box, of_run);
                nearest.sqrt()
            }
        }
    }
}

/// Smallest y on the line r = `height` inside an edge grown by `radius`.
fn leftmost_of_capsule(edge: &Edge, height: f64, radius: f64) -> Option<f64> {
    let (a, along) = (edge.from, edge.along);
    let b = Point::new(a.y + along.y, a.r + along.r);
    if radius == 0.0 && along.r != 0.0 {
        let t = (height - a.r) / along.r;
        return (0.0..=1.0).contains(&t).then_some(a.y + t * along.y);
    }
    let round = |end: Point| {
        let up = height - end.r;
        let square = radius * radius - up * up;
        (square >= 0.0).then(|| end.y - square.sqrt())
    };
    let (dy, dr) = (along.y, along.r);
    let length = (dy * dy + dr * dr).sqrt();
    let ends = [round(a), round(b)].into_iter().flatten().reduce(f64::min);
    if length == 0.0 || dr == 0.0 {
        // A level segment's extremes are those of its round ends.
        return ends;
    }
    // The flank that faces inboard: moved by `radius` along the normal with the smaller y.
    let (ny, nr) = if dr > 0.0 { (-dr / length, dy / length) } else { (dr / length, -dy / length) };
    let t = (height - a.r - nr * radius) / dr;
    let flank = (0.0..=1.0).contains(&t).then_some(a.y + t * dy + ny * radius);
    [flank, ends].into_iter().flatten().reduce(f64::min)
}

/// Square of the smallest distance between an edge and the half line from (y, height) inboard, which it does not cross.
fn square_to_ray(edge: &Edge, y: f64, height: f64) -> f64 {
    let to_ray = |point: Point| (point.y - y).max(0.0).powi(2) + (point.r - height).powi(2);
    let to = Point::new(edge.from.y + edge.along.y, edge.from.r + edge.along.r);
    to_ray(edge.from).min(to_ray(to)).min(edge.square_to(y, height))
}

/// Points of an outline, about.
const POINTS: usize = 128;

/// Whether a place is inside of a closed line through some points.
fn is_within(points: &[Point], y: f64, r: f64) -> bool {
    let crosses = |from: Point, to: Point| is_crossed(from, Point::new(to.y - from.y, to.r - from.r), y, r);
    let closing = points.first().zip(points.last()).is_some_and(|(first, last)| crosses(*last, *first));
    let crossed = points.windows(2).filter(|ends| crosses(ends[0], ends[1])).count();
    (crossed + usize::from(closing)) % 2 == 1
}

/// Flange, tire, flange: from the outboard flange's edge over the tire to the inboard one's. Each stands where it is the
/// outer of the two.
fn with_flanges(rubber: Vec<Point>, outboard: &[Point], a: f64, seat: f64) -> Vec<Point> {
    let curl_r = seat + J_FLANGE_HEIGHT.as_mm() - CURL;
    let in_the_metal = |point: &Point| {
        let (off_y, off_r) = (point.y.abs() - a - CURL, point.r - curl_r);
        off_y * off_y + off_r * off_r < (CURL - 1e-6) * (CURL - 1e-6)
    };
    // Nothing of a flange stands above the tire where it leaves it.
    let leaves = rubber.first().map_or(a, |point| point.y);
    let bare: Vec<Point> = outboard
        .iter()
        .copied()
        .take_while(|point| point.y > leaves && !is_within(&rubber, point.y, point.r))
        .collect();
    let mut points = Vec::with_capacity(POINTS);
    points.extend(bare.iter().copied());
    points.extend(rubber.into_iter().filter(|point| !in_the_metal(point)));
    points.extend(bare.into_iter().rev().map(Point::mirrored));
    points
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::change::Faces;

    fn outline(line: &str) -> Outline {
        Outline::of(&line.parse().unwrap()).unwrap()
    }

    #[test]
    fn it_is_as_wide_and_high_as_the_sizes_say() {
        for line in ["18x8.5 ET35 245/40R18", "17x10 ET20 205/40R17", "15x6 ET40 195/65R15", "18x8.5 ET35"] {
            let setup: Setup = line.parse().unwrap();
            let faces = Faces::of(&setup).unwrap();
            let center = -setup.effective_offset().unwrap().as_mm();
            let outer = faces.tire_outer.map_or(faces.rim_outer, |tire| tire.max(faces.rim_outer));
            let ((inmost, outmost), (_, top)) = outline(line).bounds();
            assert!((outmost + center - outer.as_mm()).abs() < 1e-9, "{line}");
            assert!((inmost + outmost).abs() < 1e-9, "{line}: both sides are alike");
            if let Some(diameter) = setup.overall_diameter() {
                assert!((top - diameter.as_mm() / 2.0).abs() < 1e-9, "{line}");
            }
        }
    }

    #[test]
    fn inside_is_metal_and_rubber_and_the_barrel_is_open_below() {
        let drawn = outline("18x8.5 ET35 245/40R18");
        // Tread, sidewall, metal under the seat; the air over the brake; beside the sidewall.
        for (y, r, is_inside) in [
            (0.0, 320.0, true),
            (110.0, 290.0, true),
            (-100.0, 229.0, true),
            (0.0, 190.0, false),
            (-90.0, 215.0, false),
            (140.0, 290.0, false),
            (0.0, 330.0, false),
        ] {
            assert_eq!(drawn.signed_distance(y, r) < 0.0, is_inside, "({y}, {r})");
        }
        // 245 mm wide: 130 from the centre plane is 7.5 mm off the sidewall at its widest.
        let widest = (0..400).map(|at| f64::from(at) * 0.25 + 235.0);
        let nearest = widest.map(|r| drawn.signed_distance(130.0, r)).fold(f64::INFINITY, f64::min);
        assert!((nearest - 7.5).abs() < 0.02, "{nearest}");
    }

    #[test]
    fn a_leaned_wheel_reaches_as_far_as_its_furthest_point() {
        let drawn = outline("18x8.5 ET35 245/40R18");
        // A point at radius R moves inward by R · sin|γ|: 320 mm at 2° is 11.17 mm (geometry).
        for camber in [-4.0, -2.0, 0.0, 1.5] {
            let (sin, cos) = f64::to_radians(camber).sin_cos();
            for center_y in [-35.0, 0.0, 12.5] {
                let placed = drawn.points().iter().map(|point| {
                    let y = point.y + center_y;
                    (y * cos + point.r * sin, point.r * cos - y * sin)
                });
                let outmost = placed.clone().map(|(y, _)| y).fold(f64::NEG_INFINITY, f64::max);
                let inmost = placed.clone().map(|(y, _)| y).fold(f64::INFINITY, f64::min);
                let top = placed.map(|(_, r)| r).fold(f64::NEG_INFINITY, f64::max);
                let is = |found: f64, wanted: f64| assert!((found - wanted).abs() < 1e-9, "{found} {wanted}");
                is(drawn.reach(Toward::Outboard, center_y, camber), outmost);
                is(drawn.reach(Toward::Inboard, center_y, camber), -inmost);
                is(drawn.top(center_y, camber), top);
            }
        }
        let outboard = |camber| drawn.reach(Toward::Outboard, -35.0, camber);
        assert!(outboard(-2.0) < outboard(0.0), "negative takes the top inward");
    }

    #[test]
    fn a_part_at_the_grown_edge_is_that_far_away() {
        let drawn = outline("18x9.5 ET40 265/35R18");
        for height in [210.0, 240.0, 255.0, 270.0, 300.0, 318.0, 322.0, 326.0] {
            for gap in [0.5, 4.0, 11.0] {
                if let Some(reach) = drawn.inboard_at(height, gap) {
                    let distance = drawn.distance_to_inboard_part(-reach, height);
                    assert!((distance - gap).abs() < 1e-9, "at {height}: {distance}, not {gap}");
                }
            }
        }
        assert_eq!(drawn.inboard_at(400.0, 20.0), None, "nothing of it is up there");
    }

    #[test]
    fn an_overlap_is_negative_and_meets_zero_without_a_jump() {
        let drawn = outline("18x9.5 ET40 265/35R18");
        let edge = -drawn.inboard_at(280.0, 0.0).unwrap();
        let at = |y: f64| drawn.distance_to_inboard_part(y, 280.0);
        assert!((at(edge + 7.0) + 7.0).abs() < 1e-9);
        assert!(at(edge - 1e-6).abs() < 1e-5 && at(edge + 1e-6).abs() < 1e-5);
        // The innermost place at a height is where a part with no room begins.
        assert!((drawn.inmost_between(280.0, 280.0).unwrap() - edge).abs() < 1e-9);
        assert!(drawn.inmost_between(235.0, 300.0).unwrap() <= edge);
    }

    #[test]
    fn leaving_out_runs_leaves_out_nothing_that_is_nearest() {
        // A row of places without a pattern, the same at every run, against every edge asked by itself.
        for line in ["18x8.5 ET35 245/40R18", "15x10 ET-38 33x12.50R15LT", "20x9 ET30 255/30R20", "16x7 ET40"]
        {
            let drawn = outline(line);
            for at in 0..4000_u32 {
                let y = -260.0 + 520.0 * (f64::from(at) * 0.618_034).fract();
                let r = 460.0 * (f64::from(at) * 0.754_877).fract();
                let nearest =
                    drawn.edges.iter().map(|edge| edge.square_to(y, r)).fold(f64::INFINITY, f64::min);
                assert!((drawn.square_to_nearest(y, r) - nearest).abs() < 1e-9, "{line} at ({y}, {r})");
                if drawn.inboard_at(r, 0.0).is_none_or(|reach| -reach > y) {
                    let to_ray = drawn.edges.iter().map(|edge| square_to_ray(edge, y, r));
                    let nearest = to_ray.fold(f64::INFINITY, f64::min).sqrt();
                    let found = drawn.distance_to_inboard_part(y, r);
                    assert!((found - nearest).abs() < 1e-9, "{line} from ({y}, {r}) inboard");
                }
                // A leaning line and the corner of a perch, each over all points.
                let (sin, cos) = (f64::from(at % 60) - 30.0).to_radians().sin_cos();
                let lean = |point: Point| (point.y - y) * cos + (point.r - r) * sin;
                let found = drawn.least_of_points(
                    |low, high| {
                        let nearest_r = if sin >= 0.0 { low.r } else { high.r };
                        (low.y - y) * cos + (nearest_r - r) * sin
                    },
                    lean,
                );
                let each = drawn.points.iter().map(|point| lean(*point)).fold(f64::INFINITY, f64::min);
                assert!((found - each).abs() < 1e-9, "{line} along a line through ({y}, {r})");
            }
        }
    }

    #[test]
    fn a_limit_leaves_out_only_what_is_not_under_it() {
        for line in ["18x8.5 ET35 245/40R18", "15x10 ET-38 33x12.50R15LT", "17x7 ET45"] {
            let drawn = outline(line);
            let mut under = 0;
            for at in 0..6000u32 {
                // Spread evenly over the well and beyond it, the inside of tire and barrel with it.
                let y = -260.0 + 520.0 * (f64::from(at) * 0.618_034).fract();
                let r = 520.0 * (f64::from(at) * 0.754_877).fract();
                let exact = drawn.signed_distance(y, r);
                for limit in [-8.0, 0.0, 3.0, 70.0, f64::INFINITY] {
                    let found = drawn.nearer_than(y, r, limit);
                    assert_eq!(found, (exact < limit).then_some(exact), "{line}: ({y}, {r}) under {limit}");
                    under += usize::from(found.is_some());
                }
            }
            assert!(under > 6000, "{line}");
        }
    }

    #[test]
    fn what_differs_from_its_size_is_drawn_so() {
        let setup: Setup = "18x8.5 ET35 245/40R18".parse().unwrap();
        let off = Deviations { half_section: 3.0, radius: 2.0, ..Deviations::default() };
        let (named, real) = (outline("18x8.5 ET35 245/40R18"), Outline::of_true(&setup, &off).unwrap());
        // Half of 245 over 8.5 in with its flanges: the flange stands at 120.65, the tire at 122.5.
        assert!((real.bounds().0.1 - named.bounds().0.1 - 3.0).abs() < 1e-9);
        assert!((real.crown() - named.crown() - 2.0).abs() < 1e-9);
        let narrow = Outline::of_true(&setup, &Deviations { half_section: -9.0, ..Deviations::default() });
        assert!((narrow.unwrap().bounds().0.1 - 120.65).abs() < 1e-9, "then the flange is the outer one");
    }

    #[test]
    fn every_setup_has_an_outline() {
        for line in [
            "15x3.5 ET-20 26.0/5.0-15",
            "22x9 ET30 265/20R22",
            "17x10 ET20 205/40R17",
            "15x10 ET-38 33x12.50R15LT",
            "16x3 ET0",
            "26x16 ET150",
        ] {
            let drawn = outline(line);
            assert!(drawn.points().iter().all(|point| point.y.is_finite() && point.r > 20.0), "{line}");
            assert!(drawn.points().len() > 40, "{line}");
        }
        assert_eq!(Outline::of(&"18x8.5 245/40R18".parse().unwrap()), None);
    }
}
