//! The one closed outline of rim and tire: what is drawn, held against the car, and swept.
//!
//! Tire over the rim, flanges, air sides and the barrel's underside; the spokes are left out, since nothing of the car but
//! the brake reaches there, and that is judged by profiles of its own ([`crate::brake`]).

use super::rim::{
    CURL, air_side, barrel_inside, flange, flange_width, seat_side, under_the_outer_hump, well_floor,
};
use super::{Point, tire};
use crate::codes::J_FLANGE_HEIGHT;
use crate::setup::Setup;

/// A closed outline.
///
/// # Frame
/// y from the rim's centre plane, outboard positive; r from the spin axis. Millimetres. Moving the wheel sideways moves
/// the frame, not the outline: it is made once for every offset.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Outline {
    points: Vec<Point>,
}

impl Outline {
    /// The outline of a setup; `None` without a wheel and its offset.
    pub fn of(setup: &Setup) -> Option<Self> {
        let wheel = setup.wheel?;
        let center = -wheel.offset?.as_mm();
        let a = wheel.width.between_flanges().as_mm() / 2.0;
        let seat = wheel.diameter.bead_seat().as_mm() / 2.0;
        let wide = flange_width(setup);
        let mut points = match tire::above_the_flanges(setup) {
            Some(rubber) => {
                let rubber = rubber.into_iter().map(|point| point.moved(-center)).collect();
                with_flanges(rubber, &flange(&wheel, wide), a, seat)
            }
            None => {
                let outboard = seat_side(a, seat, wide);
                let inboard = outboard.iter().rev().map(|point| point.mirrored());
                outboard.iter().copied().chain(well_floor(a, seat)).chain(inboard).collect()
            }
        };
        points.extend(barrel_inside(a, seat));
        points.extend(under_the_outer_hump(a, seat));
        points.extend(air_side(a, seat).into_iter().rev());
        Some(Self { points })
    }

    /// An outline from points that somebody else drew.
    pub fn from_points(points: Vec<Point>) -> Self {
        Self { points }
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
        let mut nearest = f64::INFINITY;
        let mut inside = false;
        for (a, b) in self.segments() {
            let (dy, dr) = (b.y - a.y, b.r - a.r);
            let square = dy * dy + dr * dr;
            let t = if square == 0.0 {
                0.0
            } else {
                (((y - a.y) * dy + (r - a.r) * dr) / square).clamp(0.0, 1.0)
            };
            let (off_y, off_r) = (a.y + t * dy - y, a.r + t * dr - r);
            nearest = nearest.min(off_y * off_y + off_r * off_r);
            // A ray outboard from the place crosses an odd number of edges when it starts inside.
            if (a.r > r) != (b.r > r) && y < a.y + (r - a.r) / dr * dy {
                inside = !inside;
            }
        }
        if inside { -nearest.sqrt() } else { nearest.sqrt() }
    }

    /// Least and most y, and least and most r.
    pub fn bounds(&self) -> ((f64, f64), (f64, f64)) {
        let span = |of: fn(&Point) -> f64| {
            self.points.iter().map(of).fold((f64::INFINITY, f64::NEG_INFINITY), |(least, most), value| {
                (least.min(value), most.max(value))
            })
        };
        (span(|point| point.y), span(|point| point.r))
    }
}

/// Flange, tire, flange: from the outboard flange's edge over the tire to the inboard one's. Each stands where it is the
/// outer of the two.
fn with_flanges(rubber: Vec<Point>, outboard: &[Point], a: f64, seat: f64) -> Vec<Point> {
    let curl_r = seat + J_FLANGE_HEIGHT.as_mm() - CURL;
    let in_the_metal = |point: &Point| {
        let off = (point.y.abs() - a - CURL).hypot(point.r - curl_r);
        off < CURL - 1e-6
    };
    // Nothing of a flange stands above the tire where it leaves it.
    let leaves = rubber.first().map_or(a, |point| point.y);
    let tire = Outline { points: rubber.clone() };
    let bare: Vec<Point> = outboard
        .iter()
        .copied()
        .take_while(|point| point.y > leaves && tire.signed_distance(point.y, point.r) > 0.0)
        .collect();
    let mut points = bare.clone();
    points.extend(rubber.into_iter().filter(|point| !in_the_metal(point)));
    points.extend(bare.into_iter().rev().map(Point::mirrored));
    points
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::change::Faces;

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
