//! Pieces of a layer joined end to end into one line.

use super::{Contour, JOINS_WITHIN_MM, SheetError};

/// One line out of pieces in any order and direction, points in millimetres.
pub(super) fn joined(contours: Vec<Contour>) -> Result<Vec<(f64, f64)>, SheetError> {
    let mut pieces: Vec<Vec<(f64, f64)>> = contours
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
    forks(&pieces)?;
    let mut line = pieces.remove(0);
    while !pieces.is_empty() {
        let (gap, at, how) = nearest(&line, &pieces);
        if gap > JOINS_WITHIN_MM {
            let (y, r) =
                if matches!(how, How::Before | How::BeforeTurned) { line[0] } else { line[line.len() - 1] };
            let at = format!("y {y:.1}, r {r:.1}");
            return Err(SheetError::Apart { pieces: pieces.len() + 1, at, gap_mm: gap });
        }
        let mut piece = pieces.remove(at);
        match how {
            How::After => line.extend(piece.drain(1..)),
            How::AfterTurned => line.extend(piece.into_iter().rev().skip(1)),
            How::Before => {
                piece.pop();
                piece.append(&mut line);
                line = piece;
            }
            How::BeforeTurned => {
                piece.reverse();
                piece.pop();
                piece.append(&mut line);
                line = piece;
            }
        }
    }
    Ok(line)
}

/// How a piece goes onto a line.
#[derive(Clone, Copy)]
enum How {
    After,
    AfterTurned,
    Before,
    BeforeTurned,
}

fn apart(a: (f64, f64), b: (f64, f64)) -> f64 {
    (a.0 - b.0).hypot(a.1 - b.1)
}

/// The piece whose end is nearest to an end of the line.
fn nearest(line: &[(f64, f64)], pieces: &[Vec<(f64, f64)>]) -> (f64, usize, How) {
    let (first, last) = (line[0], line[line.len() - 1]);
    let mut best = (f64::INFINITY, 0, How::After);
    for (at, piece) in pieces.iter().enumerate() {
        let (start, end) = (piece[0], piece[piece.len() - 1]);
        for (gap, how) in [
            (apart(last, start), How::After),
            (apart(last, end), How::AfterTurned),
            (apart(first, end), How::Before),
            (apart(first, start), How::BeforeTurned),
        ] {
            if gap < best.0 {
                best = (gap, at, how);
            }
        }
    }
    best
}

/// Refuses a place where three ends meet. Ends are compared along a sorted line, so that many stay quick.
fn forks(pieces: &[Vec<(f64, f64)>]) -> Result<(), SheetError> {
    let mut ends: Vec<(f64, f64)> =
        pieces.iter().flat_map(|piece| [piece[0], piece[piece.len() - 1]]).collect();
    ends.sort_by(|a, b| a.0.total_cmp(&b.0));
    for (at, end) in ends.iter().enumerate() {
        let near = ends[at..].iter().take_while(|other| other.0 - end.0 <= JOINS_WITHIN_MM);
        if near.filter(|other| apart(*end, **other) <= JOINS_WITHIN_MM).count() > 2 {
            return Err(SheetError::Forks(format!("y {:.1}, r {:.1}", end.0, end.1)));
        }
    }
    Ok(())
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
