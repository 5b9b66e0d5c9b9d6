//! The edge of wheel and tire that can meet the car, and how near it comes.

use super::rim::{flange, flange_width};
use super::{Point, tire};
use crate::codes::J_FLANGE_HEIGHT;
use crate::setup::Setup;

/// A side of the wheel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Toward {
    /// Toward the middle of the car.
    Inboard,
    /// Toward the fender.
    Outboard,
}

/// Rim flanges and tire as open polylines.
///
/// # Frame
/// y from the rim's centre plane, outboard positive; r up from the spin axis. Millimetres. Moving the wheel
/// sideways moves the frame, not the polylines: so a silhouette is made once for every offset.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Silhouette {
    /// The tire from bead to bead, when there is one; then the outboard and the inboard flange.
    lines: Vec<Vec<Point>>,
    inmost: f64,
    outmost: f64,
    top: f64,
}

impl Silhouette {
    /// The silhouette of a setup; `None` without a wheel and its offset.
    pub fn of(setup: &Setup) -> Option<Self> {
        let wheel = setup.wheel?;
        let center = -wheel.offset?.as_mm();
        let mut lines = Vec::with_capacity(3);
        if let Some(tire) = tire::outside(setup) {
            lines.push(tire.into_iter().map(|point| point.moved(-center)).collect());
        }
        let outboard = flange(&wheel, flange_width(setup));
        lines.push(outboard.clone());
        lines.push(outboard.into_iter().map(Point::mirrored).collect());
        Some(Self::new(lines))
    }

    fn new(lines: Vec<Vec<Point>>) -> Self {
        let points = || lines.iter().flatten();
        let inmost = points().map(|point| point.y).fold(f64::INFINITY, f64::min);
        let outmost = points().map(|point| point.y).fold(f64::NEG_INFINITY, f64::max);
        let top = points().map(|point| point.r).fold(f64::NEG_INFINITY, f64::max);
        Self { lines, inmost, outmost, top }
    }

    /// The same, turned about the wheel centre by a camber angle: negative leans the top inward.
    pub fn leaned(&self, camber_deg: f64) -> Self {
        if camber_deg == 0.0 {
            return self.clone();
        }
        let (sin, cos) = camber_deg.to_radians().sin_cos();
        let turned = |point: &Point| Point::new(point.y * cos + point.r * sin, point.r * cos - point.y * sin);
        Self::new(self.lines.iter().map(|line| line.iter().map(turned).collect()).collect())
    }

    /// How far it reaches from the rim's centre plane, positive toward that side.
    pub fn reach(&self, toward: Toward) -> f64 {
        match toward {
            Toward::Inboard => -self.inmost,
            Toward::Outboard => self.outmost,
        }
    }

    /// Its highest point above the axle.
    pub fn top(&self) -> f64 {
        self.top
    }

    /// The polylines.
    pub fn lines(&self) -> &[Vec<Point>] {
        &self.lines
    }

    fn segments(&self) -> impl Iterator<Item = (Point, Point)> {
        self.lines.iter().flat_map(|line| line.iter().copied().zip(line.iter().copied().skip(1)))
    }

    /// How far it reaches inboard at a height, after everything was grown by `grown_by` all round; positive
    /// inboard. `None` where even the grown silhouette does not come to that height.
    ///
    /// This is the exact limit for a part of the car that begins at this height and goes on inboard: it
    /// stays `grown_by` away as long as it begins further in.
    pub fn inboard_at(&self, height: f64, grown_by: f64) -> Option<f64> {
        self.segments()
            .filter_map(|(a, b)| leftmost_of_capsule(a, b, height, grown_by))
            .reduce(f64::min)
            .map(|y| -y)
    }

    /// Smallest distance to a part that begins at (`y`, `height`) and goes on inboard; negative by how far
    /// the two overlap sideways.
    pub fn distance_to_inboard_part(&self, y: f64, height: f64) -> f64 {
        match self.inboard_at(height, 0.0) {
            Some(reach) if -reach <= y => -reach - y,
            _ => self.segments().map(|(a, b)| distance_to_ray(a, b, y, height)).fold(f64::INFINITY, f64::min),
        }
    }
}

/// Height of the rim flange's top above the axle.
pub fn flange_top(setup: &Setup) -> Option<f64> {
    Some(setup.wheel?.diameter.bead_seat().as_mm() / 2.0 + J_FLANGE_HEIGHT.as_mm())
}

/// Smallest y on the line r = `height` inside the segment a–b grown by `radius`.
fn leftmost_of_capsule(a: Point, b: Point, height: f64, radius: f64) -> Option<f64> {
    let round = |end: Point| {
        let up = height - end.r;
        let square = radius * radius - up * up;
        (square >= 0.0).then(|| end.y - square.sqrt())
    };
    let (dy, dr) = (b.y - a.y, b.r - a.r);
    let length = dy.hypot(dr);
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

/// Smallest distance between the segment a–b and the half line from (y, height) inboard, which it does not
/// cross.
fn distance_to_ray(a: Point, b: Point, y: f64, height: f64) -> f64 {
    let to_ray = |point: Point| (point.y - y).max(0.0).hypot(point.r - height);
    let (dy, dr) = (b.y - a.y, b.r - a.r);
    let square = dy * dy + dr * dr;
    let t =
        if square == 0.0 { 0.0 } else { (((y - a.y) * dy + (height - a.r) * dr) / square).clamp(0.0, 1.0) };
    let to_tip = (a.y + t * dy - y).hypot(a.r + t * dr - height);
    to_ray(a).min(to_ray(b)).min(to_tip)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::change::Faces;

    fn silhouette(line: &str) -> Silhouette {
        Silhouette::of(&line.parse().unwrap()).unwrap()
    }

    #[test]
    fn it_reaches_as_far_as_the_faces_say() {
        for line in ["18x8.5 ET35 245/40R18", "17x10 ET20 205/40R17", "15x6 ET40 195/65R15", "18x8.5 ET35"] {
            let setup: Setup = line.parse().unwrap();
            let faces = Faces::of(&setup).unwrap();
            let offset = setup.effective_offset().unwrap().as_mm();
            let drawn = silhouette(line);
            let outer = faces.tire_outer.map_or(faces.rim_outer, |tire| tire.max(faces.rim_outer));
            let inner = faces.tire_inner.map_or(faces.rim_inner, |tire| tire.max(faces.rim_inner));
            assert!((drawn.reach(Toward::Outboard) - offset - outer.as_mm()).abs() < 1e-9, "{line}");
            assert!((drawn.reach(Toward::Inboard) + offset - inner.as_mm()).abs() < 1e-9, "{line}");
        }
    }

    #[test]
    fn negative_camber_takes_the_top_inward_by_r_sine() {
        // A point at radius R moves inward by R · sin|γ|: 320 mm at 2° is 11.17 mm (geometry).
        let upright = silhouette("18x8.5 ET35 245/40R18");
        let leaned = upright.leaned(-2.0);
        let crown = |drawn: &Silhouette| drawn.lines()[0].iter().copied().nth(23).unwrap();
        let moved = crown(&leaned).y - (crown(&upright).y * 2f64.to_radians().cos());
        assert!((moved + crown(&upright).r * 2f64.to_radians().sin()).abs() < 1e-9, "{moved}");
        assert!(leaned.reach(Toward::Outboard) < upright.reach(Toward::Outboard));
        assert_eq!(upright.leaned(0.0), upright);
    }

    #[test]
    fn a_part_at_the_grown_edge_is_that_far_away() {
        let drawn = silhouette("18x9.5 ET40 265/35R18");
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
        let drawn = silhouette("18x9.5 ET40 265/35R18");
        let edge = -drawn.inboard_at(280.0, 0.0).unwrap();
        let at = |y: f64| drawn.distance_to_inboard_part(y, 280.0);
        assert!((at(edge + 7.0) + 7.0).abs() < 1e-9);
        assert!(at(edge - 1e-6).abs() < 1e-5 && at(edge + 1e-6).abs() < 1e-5);
    }
}
