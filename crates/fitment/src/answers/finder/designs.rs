//! A setup's sizes in the other designs and finishes that there are.

use rustc_hash::FxHashMap;
use std::cmp::Reverse;

use super::options::{self, Alike, PairOfRows, Points, Row, pairs};
use super::side::{AxleSide, Candidate};

/// Designs told beside a setup at most.
pub(super) const MOST_DESIGNS: usize = 12;

/// The best place and rows of a design, with its points, the ratio left out.
pub(super) type DesignRows = (Points, (usize, usize), PairOfRows);

/// The same sizes with the same tires in the other designs and finishes that there are, best first: on a setup with like
/// wheels both axles at one offset, as they are there.
pub(super) fn other_designs(
    sides: &[AxleSide; 2],
    (at, own): ((usize, usize), &PairOfRows),
    one_circle: bool,
    budget: Option<u32>,
    tires: &PairOfRows,
) -> Vec<DesignRows> {
    let [front, rear] = sides;
    let (f_own, r_own) = (&front.candidates[at.0], &rear.candidates[at.1]);
    let wheel_of = |side: &AxleSide, one: &Candidate| {
        let class = &side.classes[one.class];
        (class.wheel, class.overall_width)
    };
    let is_alike = wheel_of(front, f_own) == wheel_of(rear, r_own);
    let is_rotated = is_alike && (f_own.size, f_own.listed) == (r_own.size, r_own.listed);
    let of_size = |side: &'_ AxleSide, own: &Candidate| -> Vec<usize> {
        let alike =
            |one: &Candidate| (one.shape, one.tires, &one.listed) == (own.shape, own.tires, &own.listed);
        (0..side.candidates.len()).filter(|at| alike(&side.candidates[*at])).collect()
    };
    let most_by_line = |side: &AxleSide, at: usize| -> FxHashMap<u32, Points> {
        let mut most: FxHashMap<u32, Points> = FxHashMap::default();
        for row in &side.classes[side.candidates[at].class].rows {
            let known = most.entry(row.line).or_insert(row.points);
            *known = row.points.max(*known);
        }
        most
    };
    let on = |side: &AxleSide, own: &Candidate| -> Vec<(usize, FxHashMap<u32, Points>)> {
        of_size(side, own).into_iter().map(|at| (at, most_by_line(side, at))).collect()
    };
    let (in_front, behind) = (on(front, f_own), on(rear, r_own));
    // Where each line stands best, by the best row that it has there; only there its rows are paired.
    let mut places: FxHashMap<u32, (Points, (usize, usize))> = FxHashMap::default();
    for (f_at, f_most) in &in_front {
        for (r_at, r_most) in &behind {
            let (f, r) = (&front.candidates[*f_at], &rear.candidates[*r_at]);
            if (wheel_of(front, f) == wheel_of(rear, r)) != is_alike {
                continue;
            }
            for (line, points) in f_most.iter().filter(|(line, _)| **line != own.front.line) {
                let Some(behind) = r_most.get(line) else { continue };
                let bound = f.place + r.place + points + behind;
                let better = (bound, Reverse((*f_at, *r_at)));
                if places.get(line).is_none_or(|(most, at)| better > (*most, Reverse(*at))) {
                    places.insert(*line, (bound, (*f_at, *r_at)));
                }
            }
        }
    }
    let alike = Alike { is_alike, is_rotated, one_circle };
    let of_line = |side: &AxleSide, at: usize, line: u32| -> Vec<Row> {
        let rows = side.classes[side.candidates[at].class].rows.iter();
        rows.filter(|row| row.line == line).copied().collect()
    };
    let paired = places.into_iter().filter_map(|(line, (_, (f_at, r_at)))| {
        let rows = (of_line(front, f_at, line), of_line(rear, r_at, line));
        let wheels = pairs(&rows.0, &rows.1, alike, true, budget.is_some());
        let (wheels, _) = options::best(&wheels, std::slice::from_ref(tires), budget)?;
        let place = front.candidates[f_at].place + rear.candidates[r_at].place;
        Some((place + wheels.points() + tires.points(), (f_at, r_at), wheels))
    });
    let mut designs: Vec<DesignRows> = paired.collect();
    designs.sort_by_key(|(total, _, rows)| (Reverse(*total), rows.front.id, rows.rear.id));
    designs.truncate(MOST_DESIGNS);
    designs
}
