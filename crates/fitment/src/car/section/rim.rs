//! The rim and spoke in section.

use super::{Point, arc, cubic};
use crate::parts::wheel::Wheel;
use crate::setup::Setup;
use crate::values::codes::{FLANGE_WIDTH, J_FLANGE_HEIGHT};

/// A wheel cut through a spoke.
#[derive(Debug, Clone, PartialEq)]
pub struct RimSection {
    /// Closed outline of rim, spoke and pad.
    pub outline: Vec<Point>,
    /// Where the rim's centre plane lies: −ET.
    pub center_y: f64,
    /// Inner faces of the flanges, inboard and outboard: the rim width lies between them.
    pub flange_faces_y: (f64, f64),
    /// Outer faces of the flanges, inboard and outboard.
    pub flange_edges_y: (f64, f64),
    /// Radius of the bead seat.
    pub bead_seat_r: f64,
    /// Radius of the flange's top.
    pub flange_top_r: f64,
}

/// Radius of a J flange's curl (ISO 4000-2, from memory).
pub(super) const CURL: f64 = 9.5;
/// Metal under the seats and the well; schematic.
const METAL: f64 = 5.0;
/// How far down the outer face of a flange goes before it turns in under the seat, with the solid lip that castings have;
/// schematic. Sheet and forgings are hollower and others blunter: what that is worth stands in the range of
/// [`Part::Flange`](super::Part).
const FLANGE_FACE: f64 = 9.0;
/// Taper of the bead seat, 5° (ISO 4000-2).
const SEAT_TAPER: f64 = 0.087_488_663_525_924;
/// Depth of the well below the bead seat: the standard asks for 17.3 mm or more (from memory).
const WELL_DEPTH: f64 = 19.0;
/// Outer radius of the mounting pad; schematic, it lies outside the usual bolt circles.
const PAD_RADIUS: f64 = 78.0;
/// Metal between pad and wheel centre's face; schematic.
const PAD_THICKNESS: f64 = 34.0;

/// Where the outer side of a flange, seat and hump runs, from its edge to the inner end of the hump; rim
/// coordinates, outboard side, `a` half the rim width; the flange's face goes so much `further_down` than usual.
pub(super) fn seat_side(a: f64, seat: f64, flange_width: f64, further_down: f64) -> Vec<Point> {
    let curl = Point::new(a + CURL, seat + J_FLANGE_HEIGHT.as_mm() - CURL);
    let edge = ((flange_width - CURL) / CURL).acos().to_degrees();
    let lowest = seat + J_FLANGE_HEIGHT.as_mm() - FLANGE_FACE - further_down;
    let mut points = vec![Point::new(a + flange_width, lowest)];
    points.extend(arc(curl, CURL, edge, 180.0, 7));
    points.extend([
        Point::new(a, seat + 4.5),
        Point::new(a - 1.3, seat + 1.5),
        Point::new(a - 4.0, seat - 4.0 * SEAT_TAPER),
        Point::new(a - 20.0, seat - 20.0 * SEAT_TAPER),
        Point::new(a - 22.5, seat - 0.6),
        Point::new(a - 25.0, seat - 0.6),
        Point::new(a - HUMP_END, seat - 3.8),
    ]);
    points
}

/// How wide each flange of a setup's wheel is: half of what its overall width, as listed, has over the nominal one.
/// What no curl can have is held to what one can.
pub(super) fn flange_width(setup: &Setup) -> f64 {
    let wider = setup
        .over_flanges()
        .zip(setup.wheel)
        .map(|(over, wheel)| (over - wheel.width.between_flanges()) / 2.0);
    wider.map_or(FLANGE_WIDTH.as_mm(), |width| width.as_mm().clamp(CURL, CURL * 2.0))
}

/// The outboard flange from its edge over the curl, in rim coordinates, `a` half the rim width: what of a rim can meet the
/// car. The inboard one is its mirror image.
pub(super) fn flange(a: f64, seat: f64, flange_width: f64, further_down: f64) -> Vec<Point> {
    let mut points = seat_side(a, seat, flange_width, further_down);
    points.truncate(FLANGE_POINTS);
    points
}

/// The edge and the arc of the curl in [`seat_side`].
const FLANGE_POINTS: usize = 9;

/// From the flange's inner face to where the hump ends, at most; narrow rims have less.
const HUMP_END: f64 = 30.0;

/// The side of flange and seat that faces the air, from under the flange's edge to under the seat.
pub(super) fn air_side(a: f64, seat: f64, further_down: f64) -> [Point; 2] {
    [
        Point::new(a + 6.0, seat - 0.5 - further_down * 0.75),
        Point::new(a + 1.0, seat - METAL - 1.5 - further_down / 2.0),
    ]
}

/// Where the well lies, in rim coordinates.
struct Well {
    /// Where its floor begins, outboard.
    outer: f64,
    /// Where its floor ends.
    inner: f64,
    /// Where its inboard wall ends.
    end: f64,
}

impl Well {
    /// Between the two humps: wall, well, wall, and a barrel that leads back in. The well lies outboard, where the tire
    /// is mounted from.
    fn of(a: f64) -> Self {
        let hump_end = a - HUMP_END;
        let between = 2.0 * hump_end;
        let wall = (between * 0.12).min(9.0);
        let outer = hump_end - wall;
        let inner = outer - (between * 0.28).min(38.0);
        Self { outer, inner, end: inner - wall }
    }
}

/// The side of the barrel that faces the brake, from the inboard flange to under the well; rim coordinates.
pub(super) fn barrel_inside(a: f64, seat: f64, further_down: f64) -> Vec<Point> {
    let (hump_end, well) = (a - HUMP_END, Well::of(a));
    let mut points: Vec<Point> = air_side(a, seat, further_down).into_iter().map(Point::mirrored).collect();
    points.extend([
        Point::new(-hump_end - 8.0, seat - METAL - 2.2),
        Point::new(-hump_end, seat - METAL - 3.8),
        Point::new(well.end - 1.5, seat - METAL - 7.0),
        Point::new(well.inner - 2.0, seat - WELL_DEPTH - METAL),
        Point::new(well.outer + 2.0, seat - WELL_DEPTH - METAL),
    ]);
    points
}

/// From under the well to under the outboard seat, where no spoke meets the barrel; rim coordinates.
pub(super) fn under_the_outer_hump(a: f64, seat: f64) -> [Point; 2] {
    let (hump_end, well) = (a - HUMP_END, Well::of(a));
    [
        Point::new(((well.outer + 2.0) + hump_end) / 2.0 + 1.0, seat - METAL - 7.0),
        Point::new(hump_end, seat - METAL - 3.8),
    ]
}

/// The floor of the well, from outboard, and where its inboard wall ends; rim coordinates.
pub(super) fn well_floor(a: f64, seat: f64) -> [Point; 3] {
    let Well { outer, inner, end } = Well::of(a);
    [Point::new(outer, seat - WELL_DEPTH), Point::new(inner, seat - WELL_DEPTH), Point::new(end, seat - 7.0)]
}

/// What of a wheel can meet the brake: barrel inside from the inboard flange outboard, and spoke back from the barrel
/// down to the pad; wheel coordinates. `None` while the offset is not stated.
pub(crate) fn inner_profile(wheel: &Wheel) -> Option<(Vec<Point>, Vec<Point>)> {
    let center_y = -wheel.offset?.as_mm();
    let a = wheel.width.between_flanges().as_mm() / 2.0;
    let seat = wheel.diameter.bead_seat().as_mm() / 2.0;
    let barrel = barrel_inside(a, seat, 0.0).into_iter().map(|point| point.moved(center_y)).collect();
    let mut back = spoke_back(center_y + a - HUMP_END + 3.0, seat, wheel);
    let bore = bore_r(wheel);
    back.push(Point::new(0.0, bore));
    Some((barrel, back))
}

/// Builds the section of a wheel; `None` when its offset is not stated, since then nothing tells where the
/// pad lies.
pub fn rim_section(wheel: &Wheel) -> Option<RimSection> {
    let center_y = -wheel.offset?.as_mm();
    let a = wheel.width.between_flanges().as_mm() / 2.0;
    let seat = wheel.diameter.bead_seat().as_mm() / 2.0;
    let hump_end = a - HUMP_END;
    let outboard = seat_side(a, seat, FLANGE_WIDTH.as_mm(), 0.0);
    let mut outline = outboard.clone();
    outline.extend(well_floor(a, seat));
    outline.extend(outboard.iter().rev().map(|point| point.mirrored()));
    // Back along the air side, from the inboard flange to under the well.
    outline.extend(barrel_inside(a, seat, 0.0));
    let mut outline: Vec<Point> = outline.into_iter().map(|point| point.moved(center_y)).collect();
    // The spoke's face goes over into the outboard flange, whose edge the outline began with.
    outline.extend(spoke(center_y + hump_end + 3.0, center_y + a + METAL - 0.6, seat, wheel));
    Some(RimSection {
        outline,
        center_y,
        flange_faces_y: (center_y - a, center_y + a),
        flange_edges_y: (center_y - a - FLANGE_WIDTH.as_mm(), center_y + a + FLANGE_WIDTH.as_mm()),
        bead_seat_r: seat,
        flange_top_r: seat + J_FLANGE_HEIGHT.as_mm(),
    })
}

fn bore_r(wheel: &Wheel) -> f64 {
    wheel.center_bore.map_or(33.0, |bore| bore.diameter().as_mm() / 2.0)
}

fn pad_r(seat: f64, wheel: &Wheel) -> f64 {
    PAD_RADIUS.max(bore_r(wheel) + 20.0).min(seat - 60.0)
}

/// From the rim down the spoke's back to the pad: in wheel coordinates.
fn spoke_back(back_y: f64, seat: f64, wheel: &Wheel) -> Vec<Point> {
    let pad = pad_r(seat, wheel);
    let rim_back = Point::new(back_y, seat - METAL - 5.0);
    // The back bows outboard, where calipers want the room.
    let bow = if back_y > 0.0 { 0.85 } else { 0.2 };
    std::iter::once(rim_back)
        .chain(cubic(
            rim_back,
            Point::new(back_y, seat - 55.0),
            Point::new(back_y * bow + 4.0, pad + 34.0),
            Point::new(2.0, pad),
        ))
        .collect()
}

/// Down the spoke's back, round the bore, and up its face: in wheel coordinates.
fn spoke(back_y: f64, face_y: f64, seat: f64, wheel: &Wheel) -> Vec<Point> {
    let (bore, pad) = (bore_r(wheel), pad_r(seat, wheel));
    let back = spoke_back(back_y, seat, wheel);
    let thickness = face_y - back_y;
    let last = (back.len() - 1) as f64;
    let mut points = back.clone();
    points.extend([
        Point::new(0.0, pad - 3.0),
        Point::new(0.0, bore),
        Point::new(PAD_THICKNESS * 0.8, bore),
        Point::new(PAD_THICKNESS, bore + 6.0),
    ]);
    points.extend(back.iter().enumerate().rev().map(|(at, point)| {
        let t = 1.0 - at as f64 / last;
        let thick = PAD_THICKNESS * (1.0 - t) * (1.0 - t) + 2.0 * 17.0 * t * (1.0 - t) + thickness * t * t;
        Point::new(point.y + thick, point.r + (METAL + 5.0 - 0.5) * t)
    }));
    points
}

#[cfg(test)]
mod tests {
    use super::*;

    fn section(line: &str) -> RimSection {
        rim_section(&line.parse().unwrap()).unwrap()
    }

    #[test]
    fn the_section_is_as_wide_and_high_as_the_codes_say() {
        // 8.5 in between flanges, an inch more over them (common practice); 5° seat 462.0 mm and a 17.5 mm
        // J flange for code 18 (ETRTO / ISO 4000-2, memory).
        let rim = section("18x8.5 ET35");
        let widest = |f: fn(f64, f64) -> f64, from: f64| rim.outline.iter().fold(from, |m, p| f(m, p.y));
        assert!((widest(f64::max, f64::MIN) - (-35.0 + 107.95 + 12.7)).abs() < 1e-9);
        assert!((widest(f64::min, f64::MAX) - (-35.0 - 107.95 - 12.7)).abs() < 1e-9);
        let highest = rim.outline.iter().map(|p| p.r).fold(f64::MIN, f64::max);
        assert!((highest - (231.0 + 17.5)).abs() < 0.2, "{highest}");
        assert_eq!(rim.bead_seat_r, 231.0);
        assert!(rim.outline.iter().any(|p| p.y == 0.0), "the pad lies at y = 0");
    }

    #[test]
    fn offset_moves_the_rim_and_leaves_the_pad() {
        let (near, far) = (section("18x8.5 ET35"), section("18x8.5 ET25"));
        assert!((far.flange_edges_y.1 - near.flange_edges_y.1 - 10.0).abs() < 1e-9);
        let pad = |rim: &RimSection| rim.outline.iter().filter(|p| p.y == 0.0).count();
        assert_eq!(pad(&near), pad(&far));
    }

    #[test]
    fn every_rim_that_can_be_written_can_be_drawn() {
        for width in ["3", "5", "8.5", "16"] {
            for diameter in ["16", "18", "26"] {
                for offset in ["-150", "0", "150"] {
                    let rim = section(&format!("{diameter}x{width} ET{offset}"));
                    assert!(rim.outline.iter().all(|p| p.y.is_finite() && p.r > 20.0), "{diameter}x{width}");
                }
            }
        }
    }
}
