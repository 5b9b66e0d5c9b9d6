//! Pieces of a layer joined end to end into one line.
//!
//! Ends are looked up in a grid as fine as the distance they may be apart, so that many pieces stay quick.

use std::collections::HashMap;

use super::{Contour, JOINS_WITHIN_MM, SheetError};

type Point = (f64, f64);

/// One line out of pieces in any order and direction, points in millimetres.
pub(super) fn joined(contours: Vec<Contour>) -> Result<Vec<Point>, SheetError> {
    let pieces: Vec<Vec<Point>> = contours
        .into_iter()
        .map(|contour| {
            let mut points = contour.points;
            if contour.is_closed && points.first() != points.last() {
                points.extend(points.first().copied());
            }
            points
        })
        .filter(|points| points.len() > 1)
        .collect();
    if pieces.is_empty() {
        return Err(SheetError::Empty);
    }
    let ends = Ends::of(&pieces)?;
    let mut used = vec![false; pieces.len()];
    used[0] = true;
    let mut line = ends.walked(&pieces, &mut used, START);
    line.reverse();
    line.extend(&pieces[0]);
    line.extend(ends.walked(&pieces, &mut used, END));
    if used.iter().all(|used| *used) {
        return Ok(line);
    }
    let rest: Vec<Point> =
        pieces.iter().zip(&used).filter(|(_, used)| !**used).flat_map(|(piece, _)| ends_of(piece)).collect();
    let nearest = |end: Point| rest.iter().map(|other| apart(end, *other)).fold(f64::INFINITY, f64::min);
    let (first, last) = (line[0], line[line.len() - 1]);
    let (gap_mm, (y, r)) =
        if nearest(first) < nearest(last) { (nearest(first), first) } else { (nearest(last), last) };
    Err(SheetError::Apart { pieces: rest.len() / 2 + 1, at: format!("y {y:.1}, r {r:.1}"), gap_mm })
}

/// An end of a piece: twice the piece's number, and one more for where it ends.
type End = usize;
const START: End = 0;
const END: End = 1;

fn ends_of(piece: &[Point]) -> [Point; 2] {
    [piece[0], piece[piece.len() - 1]]
}

fn apart(a: Point, b: Point) -> f64 {
    (a.0 - b.0).hypot(a.1 - b.1)
}

/// For each end the one that it meets.
struct Ends(Vec<Option<End>>);

impl Ends {
    /// Refuses a place where three ends meet.
    fn of(pieces: &[Vec<Point>]) -> Result<Self, SheetError> {
        let places: Vec<Point> = pieces.iter().flat_map(|piece| ends_of(piece)).collect();
        let cell =
            |(x, y): Point| ((x / JOINS_WITHIN_MM).floor() as i64, (y / JOINS_WITHIN_MM).floor() as i64);
        let mut grid: HashMap<(i64, i64), Vec<End>> = HashMap::with_capacity(places.len());
        for (end, place) in places.iter().enumerate() {
            let here = grid.entry(cell(*place)).or_default();
            here.push(end);
            // Nine in a cell are three in one of its quarters, which are near enough to each other to meet.
            if here.len() > 8 {
                return Err(fork(*place));
            }
        }
        let mut met = Vec::with_capacity(places.len());
        for (end, place) in places.iter().enumerate() {
            let (column, row) = cell(*place);
            let mut others = (-1..=1)
                .flat_map(|right| {
                    (-1..=1).map(move |up| (column.saturating_add(right), row.saturating_add(up)))
                })
                .filter_map(|cell| grid.get(&cell))
                .flatten()
                .filter(|other| **other != end && apart(*place, places[**other]) <= JOINS_WITHIN_MM);
            met.push(others.next().copied());
            if others.next().is_some() {
                return Err(fork(*place));
            }
        }
        Ok(Self(met))
    }

    /// The points that follow on an end of the first piece, that end itself left out.
    fn walked(&self, pieces: &[Vec<Point>], used: &mut [bool], from: End) -> Vec<Point> {
        let (mut line, mut at) = (Vec::new(), from);
        while let Some(next) = self.0[at] {
            let piece = next / 2;
            if std::mem::replace(&mut used[piece], true) {
                break;
            }
            if next % 2 == START {
                line.extend(pieces[piece].iter().skip(1));
            } else {
                line.extend(pieces[piece].iter().rev().skip(1));
            }
            at = next ^ 1;
        }
        line
    }
}

fn fork((y, r): Point) -> SheetError {
    SheetError::Forks(format!("y {y:.1}, r {r:.1}"))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn piece(points: &[(f64, f64)]) -> Contour {
        Contour { points: points.to_vec(), is_closed: false }
    }

    #[test]
    fn pieces_in_any_order_and_direction_are_one_line() {
        let found = joined(vec![
            piece(&[(1.0, 5.0), (2.0, 6.0)]),
            piece(&[(3.0, 7.0), (2.0, 6.05)]),
            piece(&[(0.0, 5.0), (1.0, 5.0)]),
        ]);
        assert_eq!(found.unwrap(), [(0.0, 5.0), (1.0, 5.0), (2.0, 6.0), (3.0, 7.0)]);
    }

    #[test]
    fn tens_of_thousands_of_pieces_are_joined_without_comparing_each_with_each() {
        // Once compared each with each these took minutes; a test that waits for that is noticed.
        let step = |at: usize| (at as f64 * 0.5, 100.0 + (at % 7) as f64);
        let mut pieces: Vec<Contour> = (0..50_000).map(|at| piece(&[step(at), step(at + 1)])).collect();
        pieces.rotate_left(17_000);
        assert_eq!(joined(pieces).unwrap().len(), 50_001);
        let upright =
            (0..50_000).map(|at| piece(&[(0.0, f64::from(at)), (0.0, f64::from(at) + 0.5)])).collect();
        assert!(matches!(joined(upright), Err(SheetError::Apart { pieces: 50_000, .. })));
    }

    #[test]
    fn what_does_not_meet_or_forks_is_explained() {
        let apart = joined(vec![piece(&[(0.0, 5.0), (1.0, 5.0)]), piece(&[(1.5, 5.0), (3.0, 5.0)])]);
        assert_eq!(
            apart.unwrap_err().to_string(),
            "the layer has 2 pieces that do not meet: the ends at y 1.0, r 5.0 are 0.50 mm apart; \
             join them, or take one layer for each line"
        );
        let arm = |end| piece(&[(0.0, 5.0), end]);
        let forked = joined(vec![arm((1.0, 5.0)), arm((0.0, 9.0)), arm((-4.0, 5.0))]);
        assert!(matches!(forked, Err(SheetError::Forks(_))));
    }
}
