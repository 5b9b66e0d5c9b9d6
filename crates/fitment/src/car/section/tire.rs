//! The tire in section, on a rim.

use super::deviations::Deviations;
use super::{Point, cubic};
use crate::setup::Setup;
use crate::values::codes::J_FLANGE_HEIGHT;

/// A tire cut across.
#[derive(Debug, Clone, PartialEq)]
pub struct TireSection {
    /// Outside, from the outboard bead toe over the crown to the inboard one. What meets the car.
    pub outer: Vec<Point>,
    /// Inside, back from the inboard toe to the outboard one.
    pub inner: Vec<Point>,
    /// Tread grooves, each a bottom edge from inboard to outboard and its depth; schematic.
    pub grooves: Vec<Groove>,
    /// Innermost and outermost rubber.
    pub faces_y: (f64, f64),
    /// Radius where the section is widest.
    pub widest_r: f64,
    /// Radius of the crown, half the overall diameter.
    pub crown_r: f64,
}

/// A circumferential groove.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Groove {
    /// Middle of the groove.
    pub y: f64,
    /// Half its width.
    pub half_width: f64,
    /// Radius of its bottom.
    pub bottom_r: f64,
    /// Radius of the tread there.
    pub top_r: f64,
}

/// Where the section is widest, as a share of the section height.
///
/// Common practice: near half height; a little above, since the bead stands in the flange.
const WIDEST_AT: f64 = 0.52;
/// Rubber at the sidewall; schematic.
const WALL: f64 = 7.5;

/// The measures that a section is drawn from, in rim coordinates: y from the rim's centre plane.
struct Shape {
    center_y: f64,
    /// Half of the rim between its flanges.
    a: f64,
    seat: f64,
    crown_r: f64,
    height: f64,
    flange_top: f64,
    half_section: f64,
    widest_r: f64,
    half_tread: f64,
    crown_drop: f64,
    leaves_flange: Point,
}

impl Shape {
    fn of(setup: &Setup, off: &Deviations) -> Option<Self> {
        let wheel = setup.wheel?;
        let center_y = -wheel.offset?.as_mm();
        let a = wheel.width.between_flanges().as_mm() / 2.0 + off.half_rim;
        let seat = wheel.diameter.bead_seat().as_mm() / 2.0;
        let crown_r = setup.overall_diameter()?.as_mm() / 2.0 + off.radius;
        let height = setup.sidewall()?.as_mm() + off.radius;
        let flange_top = seat + J_FLANGE_HEIGHT.as_mm();
        let half_section = setup.section_width()?.as_mm() / 2.0 + off.half_section;
        let widest_r = (crown_r - height * (1.0 - WIDEST_AT)).max(flange_top + 1.0).min(crown_r - 8.0);
        let half_tread = (setup.tread_width()?.0.as_mm() / 2.0 + off.shoulder).min(half_section - 5.0);
        // The crown falls away toward the shoulder, more on a tall narrow tire.
        let crown_drop = (half_tread * 0.055).min(height * 0.12);
        let leaves_flange = Point::new(a + 3.4, flange_top - 1.6);
        Some(Self {
            center_y,
            a,
            seat,
            crown_r,
            height,
            flange_top,
            half_section,
            widest_r,
            half_tread,
            crown_drop,
            leaves_flange,
        })
    }

    fn crown_at(&self, y: f64) -> f64 {
        let share = y / self.half_tread;
        self.crown_r - self.crown_drop * share * share
    }

    fn rise(&self) -> f64 {
        self.widest_r - self.leaves_flange.r
    }

    /// Both halves of a line, from the outboard end over the crown to the inboard one, in the corner frame.
    fn both_sides(&self, half: &[Point], crown: Point) -> Vec<Point> {
        half.iter()
            .copied()
            .chain([crown])
            .chain(half.iter().rev().map(|point| point.mirrored()))
            .map(|point| point.moved(self.center_y))
            .collect()
    }

    /// The outside.
    fn outer(&self) -> Vec<Point> {
        let Self { a, seat, flange_top, half_section, widest_r, half_tread, leaves_flange, .. } = *self;
        // Outboard half, from the toe up to the crown, in rim coordinates.
        let widest = Point::new(half_section, widest_r);
        let rise = self.rise();
        let mut half = Vec::with_capacity(40);
        half.extend([
            Point::new(a - 15.0, seat - 1.3),
            Point::new(a - 4.0, seat - 0.3),
            Point::new(a - 1.2, seat + 1.5),
            Point::new(a, seat + 5.0),
            Point::new(a + 0.3, flange_top - 7.5),
            Point::new(a + 1.4, flange_top - 4.4),
            leaves_flange,
        ]);
        half.extend(cubic(
            leaves_flange,
            Point::new(leaves_flange.y + (widest.y - leaves_flange.y) * 0.55, leaves_flange.r + rise * 0.15),
            Point::new(widest.y, widest_r - rise * 0.55),
            widest,
        ));
        // A round shoulder: up from the widest point, over into the tread.
        let tread_edge = half_tread - 4.0;
        let edge = Point::new(tread_edge, self.crown_at(tread_edge));
        half.extend(cubic(
            widest,
            Point::new(widest.y, widest_r + (edge.r - widest_r) * 0.62),
            Point::new(edge.y + (widest.y - edge.y) * 0.62, edge.r - 1.0),
            edge,
        ));
        half.extend(
            [0.75, 0.5, 0.25].map(|share| Point::new(tread_edge * share, self.crown_at(tread_edge * share))),
        );
        self.both_sides(&half, Point::new(0.0, self.crown_r))
    }

    /// The inside, back from the inboard toe to the outboard one, and how thick the crown is.
    fn inner(&self) -> (Vec<Point>, f64) {
        let Self {
            a, seat, crown_r, height, flange_top, half_section, widest_r, half_tread, crown_drop, ..
        } = *self;
        let rise = self.rise();
        // Inside, from the toe up.
        let crown_gauge = (height * 0.16).clamp(9.0, 16.0);
        let toe_inside = Point::new(a - 15.0, seat + 3.0);
        let above_bead = Point::new(a - 8.5, flange_top - 2.5);
        let wall = Point::new((half_section - WALL).max(above_bead.y - 6.0), widest_r);
        let corner = Point::new(half_tread - 10.0, crown_r - crown_drop - crown_gauge - 3.0);
        let up = (corner.r - widest_r).max(0.0);
        let mut inside = vec![toe_inside, above_bead];
        inside.extend(cubic(
            above_bead,
            Point::new(above_bead.y + (wall.y - above_bead.y) * 0.6, above_bead.r + rise * 0.3),
            Point::new(wall.y, widest_r - rise * 0.4),
            wall,
        ));
        inside.extend(cubic(
            wall,
            Point::new(wall.y, widest_r + up * 0.6),
            Point::new(corner.y + (wall.y - corner.y) * 0.5, corner.r - up * 0.05),
            corner,
        ));
        let mut inner = self.both_sides(&inside, Point::new(0.0, crown_r - crown_gauge));
        inner.reverse();
        (inner, crown_gauge)
    }
}

/// The outside of a setup's tire on its rim, from where it leaves the outboard flange to where it meets the inboard one;
/// `None` without tire, wheel or offset.
pub(super) fn above_the_flanges(setup: &Setup, off: &Deviations) -> Option<Vec<Point>> {
    let mut points = Shape::of(setup, off)?.outer();
    points.truncate(points.len() - IN_THE_RIM);
    points.drain(..IN_THE_RIM);
    Some(points)
}

/// Points of each bead that lie in the rim, in [`Shape::outer`].
const IN_THE_RIM: usize = 6;

/// Builds the section of a setup's tire on its rim; `None` without tire, wheel or offset.
pub fn tire_section(setup: &Setup) -> Option<TireSection> {
    let shape = Shape::of(setup, &Deviations::default())?;
    let outer = shape.outer();
    let (inner, crown_gauge) = shape.inner();
    let Shape { center_y, crown_r, half_section, widest_r, half_tread, leaves_flange, .. } = shape;
    let grooves = [-0.56, -0.19, 0.19, 0.56]
        .into_iter()
        .map(|share| {
            let y = half_tread * share;
            let top_r = shape.crown_at(y);
            Groove { y: y + center_y, half_width: 4.2, bottom_r: top_r - crown_gauge * 0.5, top_r }
        })
        .collect();
    let reach = half_section.max(leaves_flange.y);
    Some(TireSection {
        outer,
        inner,
        grooves,
        faces_y: (center_y - reach, center_y + reach),
        widest_r,
        crown_r,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn section(line: &str) -> TireSection {
        tire_section(&line.parse().unwrap()).unwrap()
    }

    fn extremes(points: &[Point]) -> (f64, f64, f64) {
        points.iter().fold((f64::MAX, f64::MIN, f64::MIN), |(least, most, top), p| {
            (least.min(p.y), most.max(p.y), top.max(p.r))
        })
    }

    #[test]
    fn the_section_is_as_wide_and_high_as_the_size_says() {
        for line in [
            "18x8.5 ET35 245/40R18",
            "17x7.5 ET45 225/45R17",
            "20x10 ET25 305/30R20",
            "15x10 ET-38 33x12.50R15LT",
            "15x3.5 ET-20 26.0/5.0-15",
            "18x9 ET20 245/640R18",
            "22x9 ET30 265/20R22",
            "15x6 ET40 195/95R15",
        ] {
            let setup: Setup = line.parse().unwrap();
            let drawn = section(line);
            let (least, most, top) = extremes(&drawn.outer);
            let wide = setup.section_width().unwrap().as_mm();
            let high = setup.overall_diameter().unwrap().as_mm() / 2.0;
            assert!((most - least - wide).abs() < 1e-9, "{line}: {} wide, not {wide}", most - least);
            assert!((top - high).abs() < 1e-9, "{line}: {top} high, not {high}");
            let (inside_least, inside_most, inside_top) = extremes(&drawn.inner);
            assert!(
                inside_least > least && inside_most < most && inside_top < top,
                "{line}: the cavity lies inside"
            );
        }
    }

    #[test]
    fn both_sides_are_alike_about_the_rim_centre() {
        let drawn = section("18x8.5 ET35 245/40R18");
        for (point, twin) in drawn.outer.iter().zip(drawn.outer.iter().rev()) {
            assert!((point.y + 35.0 + (twin.y + 35.0)).abs() < 1e-9 && point.r == twin.r);
        }
    }

    #[test]
    fn a_stretched_tire_is_widest_at_its_beads() {
        let drawn = section("17x10 ET20 205/40R17");
        let (_, most, _) = extremes(&drawn.outer);
        assert!((most - drawn.faces_y.1).abs() < 1e-9);
        let at_widest =
            drawn.outer.iter().filter(|p| p.r == drawn.widest_r).map(|p| p.y).fold(f64::MIN, f64::max);
        assert!(at_widest < most, "the sidewall leans in from the flange");
    }

    #[test]
    fn without_an_offset_nothing_is_drawn() {
        assert_eq!(tire_section(&"18x8.5 245/40R18".parse().unwrap()), None);
        assert_eq!(tire_section(&"245/40R18".parse().unwrap()), None);
    }
}
