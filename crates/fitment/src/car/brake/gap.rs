//! The gaps between what stands inside a wheel and the wheel.

use super::{Profile, WheelProfile};
use crate::car::section::Point;

/// A gap and where it is smallest.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gap {
    /// In millimetres; negative is an overlap.
    pub mm: f64,
    /// Where, on the brake: y in the corner's frame, and r.
    pub at: (f64, f64),
}

/// The gaps of a wheel over a brake. A gap is `None` where the two never stand opposite each other.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gaps {
    /// Radial: least difference in r between barrel and brake at equal y.
    pub radial: Option<Gap>,
    /// Axial: least difference in y between spoke back and brake at equal r.
    pub axial: Option<Gap>,
    /// The shortest distance between the two, in any direction; 0 where they cross.
    pub shortest_mm: f64,
}

/// The gaps between a brake's profile and a wheel that a spacer moves outboard.
///
/// # Frame
/// `brake` in the corner's frame, the wheel in its own; see [`super`].
///
/// # Source
/// Geometry: on an interval where both profiles are straight their difference is, so it is least at an end.
pub fn gaps(brake: &Profile, wheel: &WheelProfile, spacer_mm: f64) -> Gaps {
    let (brake_turned, brake) = (Line::turned(brake, 0.0), Line::of(brake, 0.0));
    let barrel = Line::of(&wheel.barrel, spacer_mm);
    let radial = least_above(&brake, &barrel);
    let axial = least_above(&brake_turned, &Line::turned(&wheel.spoke_back, spacer_mm));
    let spokes = Line::of(&wheel.spoke_back, spacer_mm);
    let axial = axial.map(|gap| Gap { at: (gap.at.1, gap.at.0), ..gap });
    let overlaps = |gap: Option<Gap>| gap.is_some_and(|gap| gap.mm <= 0.0);
    // No distance is longer than a gap: it starts the search.
    let bound = [radial, axial].into_iter().flatten().map(|gap| gap.mm).fold(f64::INFINITY, f64::min);
    let bound = if bound > 0.0 { bound } else { f64::INFINITY };
    let shortest = shortest(&brake, &spokes, shortest(&brake, &barrel, bound));
    // A brake that lies on the far side of the line does not touch it, and does not fit either.
    let is_through = overlaps(radial) || overlaps(axial);
    Gaps { radial, axial, shortest_mm: if is_through { 0.0 } else { shortest } }
}

/// A straight piece, with its place on the axis that is gone along.
#[derive(Debug, Clone, Copy)]
struct Piece {
    a: Point,
    b: Point,
    low: f64,
    high: f64,
    /// Its extent across that axis.
    across: (f64, f64),
    /// How much it rises across for each millimetre along; `None` when it stands upright.
    slope: Option<f64>,
}

/// The pieces of a profile in the order of their lower ends, with the furthest upper end so far.
struct Line {
    pieces: Vec<Piece>,
    reach: Vec<f64>,
    /// Extent of all of them, along and across.
    along: (f64, f64),
    across: (f64, f64),
}

impl Line {
    fn of(profile: &Profile, moved_mm: f64) -> Self {
        Self::sorted(profile.segments().map(|(a, b)| (a.moved(moved_mm), b.moved(moved_mm))))
    }

    /// With y and r exchanged.
    fn turned(profile: &Profile, moved_mm: f64) -> Self {
        let turn = |point: Point| Point::new(point.r, point.y + moved_mm);
        Self::sorted(profile.segments().map(|(a, b)| (turn(a), turn(b))))
    }

    fn sorted(segments: impl Iterator<Item = (Point, Point)>) -> Self {
        let mut pieces: Vec<Piece> = segments
            .map(|(a, b)| Piece {
                a,
                b,
                low: a.y.min(b.y),
                high: a.y.max(b.y),
                across: (a.r.min(b.r), a.r.max(b.r)),
                slope: (a.y != b.y).then(|| (b.r - a.r) / (b.y - a.y)),
            })
            .collect();
        // A profile goes one way for long stretches: this sort finds its runs.
        pieces.sort_by(|a, b| a.low.total_cmp(&b.low));
        let across = pieces.iter().fold((f64::MAX, f64::MIN), |(low, high), piece| {
            (low.min(piece.across.0), high.max(piece.across.1))
        });
        let mut furthest = f64::MIN;
        let reach = pieces
            .iter()
            .map(|piece| {
                furthest = furthest.max(piece.high);
                furthest
            })
            .collect();
        let along = (pieces.first().map_or(f64::MAX, |piece| piece.low), furthest);
        Self { pieces, reach, along, across }
    }

    /// The pieces that lie between two places.
    fn between(&self, low: f64, high: f64) -> impl Iterator<Item = &Piece> {
        let end = self.pieces.partition_point(|piece| piece.low <= high);
        let start = self.reach[..end].partition_point(|reach| *reach < low);
        self.pieces[start..end].iter().filter(move |piece| piece.high >= low)
    }
}

impl Piece {
    /// The other coordinate at a place, never beyond the piece's ends; `upright` is that of a piece that stands upright.
    fn at(&self, y: f64, upright: f64) -> f64 {
        match self.slope {
            Some(slope) => (self.a.r + slope * (y - self.a.y)).clamp(self.across.0, self.across.1),
            None => upright,
        }
    }
}

/// The least that `above` lies over `below`, going along the first coordinate.
fn least_above(below: &Line, above: &Line) -> Option<Gap> {
    let mut least: Option<Gap> = None;
    for over in &above.pieces {
        // Nothing of the line can come nearer than its highest place.
        if least.is_some_and(|least| over.across.0 - below.across.1 >= least.mm) {
            continue;
        }
        for under in below.between(over.low, over.high) {
            if least.is_some_and(|least| over.across.0 - under.across.1 >= least.mm) {
                continue;
            }
            for y in [over.low.max(under.low), over.high.min(under.high)] {
                let r = under.at(y, under.across.1);
                let mm = over.at(y, over.across.0) - r;
                if least.is_none_or(|least| mm < least.mm) {
                    least = Some(Gap { mm, at: (y, r) });
                }
            }
        }
    }
    least
}

/// The shortest distance between two lines, if it is under a bound; else the bound.
fn shortest(one: &Line, other: &Line, bound: f64) -> f64 {
    let mut best = bound;
    // How far two extents lie apart; 0 where they overlap.
    let apart = |one: (f64, f64), other: (f64, f64)| (other.0 - one.1).max(one.0 - other.1).max(0.0);
    let square = |along: f64, across: f64| along * along + across * across;
    for piece in &one.pieces {
        let own = (piece.low, piece.high);
        // Boxes further apart than the best hold nothing nearer.
        if square(apart(own, other.along), apart(piece.across, other.across)) >= best * best {
            continue;
        }
        let reach = best.min(2.0 * Profile::REACH_MM);
        for against in other.between(piece.low - reach, piece.high + reach) {
            let aside = apart(own, (against.low, against.high));
            if square(aside, apart(piece.across, against.across)) < best * best {
                best = best.min(distance(piece, against));
            }
        }
    }
    best
}

/// Between two straight pieces: 0 where they cross, else from one end to the other piece.
fn distance(one: &Piece, other: &Piece) -> f64 {
    if crosses(one, other) {
        return 0.0;
    }
    let ends =
        [to_piece(one.a, other), to_piece(one.b, other), to_piece(other.a, one), to_piece(other.b, one)];
    ends.into_iter().fold(f64::INFINITY, f64::min)
}

fn to_piece(point: Point, piece: &Piece) -> f64 {
    let (along_y, along_r) = (piece.b.y - piece.a.y, piece.b.r - piece.a.r);
    let (to_y, to_r) = (point.y - piece.a.y, point.r - piece.a.r);
    let square = along_y * along_y + along_r * along_r;
    let share = if square > 0.0 { ((to_y * along_y + to_r * along_r) / square).clamp(0.0, 1.0) } else { 0.0 };
    (to_y - share * along_y).hypot(to_r - share * along_r)
}

fn crosses(one: &Piece, other: &Piece) -> bool {
    let side = |a: Point, b: Point, c: Point| (b.y - a.y) * (c.r - a.r) - (b.r - a.r) * (c.y - a.y);
    let (p, q) = (side(one.a, one.b, other.a), side(one.a, one.b, other.b));
    let (s, t) = (side(other.a, other.b, one.a), side(other.a, other.b, one.b));
    ((p > 0.0 && q < 0.0) || (p < 0.0 && q > 0.0)) && ((s > 0.0 && t < 0.0) || (s < 0.0 && t > 0.0))
}

#[cfg(test)]
mod tests {
    use super::super::ProfileSource;
    use super::*;

    fn profile(points: &[(f64, f64)]) -> Profile {
        Profile::new(points.iter().copied()).unwrap()
    }

    fn wheel(barrel: &[(f64, f64)], spokes: &[(f64, f64)]) -> WheelProfile {
        WheelProfile {
            barrel: profile(barrel),
            spoke_back: profile(spokes),
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        }
    }

    /// A caliper of 60 mm by 40 under a straight barrel, before flat spokes.
    #[test]
    fn a_box_under_a_straight_barrel() {
        let caliper = profile(&[(-50.0, 150.0), (-50.0, 190.0), (10.0, 190.0), (10.0, 150.0)]);
        let plain = wheel(&[(-120.0, 200.0), (40.0, 200.0)], &[(14.0, 80.0), (14.0, 200.0)]);
        let found = gaps(&caliper, &plain, 0.0);
        assert_eq!((found.radial.unwrap().mm, found.axial.unwrap().mm), (10.0, 4.0));
        assert_eq!((found.axial.unwrap().at.0, found.shortest_mm), (10.0, 4.0));
        // Flat faces: a spacer of t moves the axial gap by t, and a straight barrel's not at all.
        let spaced = gaps(&caliper, &plain, 3.0);
        assert_eq!((spaced.radial.unwrap().mm, spaced.axial.unwrap().mm), (10.0, 7.0));
        // A wheel whose spokes lie 6 mm inside the caliper.
        let deep = wheel(&[(-120.0, 200.0), (40.0, 200.0)], &[(4.0, 80.0), (4.0, 200.0)]);
        let found = gaps(&caliper, &deep, 0.0);
        assert_eq!((found.axial.unwrap().mm, found.shortest_mm), (-6.0, 0.0));
    }

    #[test]
    fn a_tapered_barrel_comes_nearer_with_a_spacer_as_its_taper_says() {
        let caliper = profile(&[(-40.0, 185.0), (0.0, 185.0)]);
        // It rises by 1 mm in 10 going outboard: moved out by t it stands t / 10 lower.
        let tapered = wheel(&[(-100.0, 190.0), (100.0, 210.0)], &[(150.0, 80.0), (150.0, 200.0)]);
        let radial = |spacer| gaps(&caliper, &tapered, spacer).radial.unwrap().mm;
        for spacer in [0.0, 2.0, 5.0, 20.0] {
            assert!((radial(0.0) - radial(spacer) - spacer / 10.0).abs() < 1e-9, "{spacer}");
        }
    }

    #[test]
    fn what_never_stands_opposite_has_no_gap() {
        let caliper = profile(&[(-90.0, 150.0), (-80.0, 160.0)]);
        let short = wheel(&[(-20.0, 200.0), (40.0, 200.0)], &[(14.0, 170.0), (14.0, 200.0)]);
        let found = gaps(&caliper, &short, 0.0);
        assert_eq!((found.radial, found.axial), (None, None));
        assert!((found.shortest_mm - 60.0_f64.hypot(40.0)).abs() < 1e-9, "{}", found.shortest_mm);
    }
}
