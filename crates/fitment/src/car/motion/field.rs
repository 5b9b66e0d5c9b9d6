//! The outline's distance as a field: how near a place can be at the least, without asking every edge.
//!
//! A distance changes by no more than one goes. So the distance at the middle of a cell of a grid, less the way from it, is a
//! lower bound anywhere in the cell; only what the bound lets through is asked exactly, and only of the few edges that can be
//! the nearest to some place of the cell. The answer stays exact. Cells are worked out when they are first asked of.

use std::cell::RefCell;

use crate::car::section::{Edge, Outline};

/// Width of a cell, in millimetres.
const STEP: f64 = 3.0;
/// From its middle to its furthest place.
const REACH: f64 = STEP * std::f64::consts::FRAC_1_SQRT_2;
/// What a distance may be off for being kept in fewer figures: a hair.
const ROUNDED: f64 = 2e-4;
/// How far beyond the outline the grid goes.
const MARGIN: f64 = 130.0;

/// The edges that can be nearest to some place of a cell, and whether all of it is inside, or outside, if it is wholly either.
#[derive(Debug, Clone, Copy)]
struct Cell {
    first: u32,
    count: u32,
    is_inside: Option<bool>,
}

#[derive(Debug)]
struct Known {
    cells: Vec<Option<Cell>>,
    /// Those of a cell one after another.
    edges: Vec<Edge>,
}

/// An outline with the distances round it.
#[derive(Debug)]
pub struct DistanceField<'a> {
    outline: &'a Outline,
    y: (f64, f64),
    r: (f64, f64),
    from: (f64, f64),
    columns: u32,
    rows: u32,
    /// The least that a signed distance can be anywhere in a cell; not a number until it is asked of.
    least: Vec<std::cell::Cell<f32>>,
    known: RefCell<Known>,
}

impl<'a> DistanceField<'a> {
    /// Of an outline; nothing is worked out yet.
    pub fn of(outline: &'a Outline) -> Self {
        let (y, r) = outline.bounds();
        let from = (y.0 - MARGIN, (r.0 - MARGIN).max(0.0));
        let count = |least: f64, most: f64| ((most - least) / STEP).ceil().max(0.0) as u32 + 1;
        let (columns, rows) = (count(from.0, y.1 + MARGIN), count(from.1, r.1 + MARGIN));
        let cells = (columns * rows) as usize;
        let least = vec![std::cell::Cell::new(f32::NAN); cells];
        let known = RefCell::new(Known { cells: vec![None; cells], edges: Vec::new() });
        Self { outline, y, r, from, columns, rows, least, known }
    }

    /// The outline it is of.
    pub fn outline(&self) -> &'a Outline {
        self.outline
    }

    /// The cell of a place; `None` beyond the grid.
    #[inline]
    fn cell(&self, y: f64, r: f64) -> Option<u32> {
        let (across, up) = ((y - self.from.0) * (1.0 / STEP), (r - self.from.1) * (1.0 / STEP));
        let (column, row) = (across as i32 as u32, up as i32 as u32);
        let is_in = across >= 0.0 && up >= 0.0 && column < self.columns && row < self.rows;
        is_in.then(|| row * self.columns + column)
    }

    /// The least that the signed distance of a place can be.
    #[inline]
    pub(super) fn at_least(&self, y: f64, r: f64) -> f64 {
        match self.cell(y, r) {
            Some(at) => {
                let least = self.least[at as usize].get();
                if least.is_nan() { self.ask(at) } else { f64::from(least) }
            }
            // Beyond the grid nothing is nearer than the box round the outline.
            None => {
                let beyond = |value: f64, (low, high): (f64, f64)| (low - value).max(value - high).max(0.0);
                let (y, r) = (beyond(y, self.y), beyond(r, self.r));
                (y * y + r * r).sqrt()
            }
        }
    }

    /// The signed distance of a place, in the outline's frame; `None` where it cannot be under `limit`.
    #[inline]
    pub fn nearer_than(&self, y: f64, r: f64, limit: f64) -> Option<f64> {
        if self.at_least(y, r) >= limit {
            return None;
        }
        let exact = self.exactly(y, r);
        (exact < limit).then_some(exact)
    }

    fn exactly(&self, y: f64, r: f64) -> f64 {
        let Some(at) = self.cell(y, r) else { return self.outline.signed_distance(y, r) };
        let mut known = self.known.borrow_mut();
        let cell = match known.cells[at as usize] {
            Some(cell) => cell,
            None => self.look_at(&mut known, at),
        };
        let edges = &known.edges[cell.first as usize..(cell.first + cell.count) as usize];
        let square = edges.iter().map(|edge| edge.square_to(y, r)).fold(f64::INFINITY, f64::min);
        let distance = square.sqrt();
        let is_inside = cell.is_inside.unwrap_or_else(|| self.outline.is_inside(y, r));
        if is_inside { -distance } else { distance }
    }

    fn middle(&self, at: u32) -> (f64, f64) {
        let (column, row) = (at % self.columns, at / self.columns);
        (self.from.0 + STEP * (f64::from(column) + 0.5), self.from.1 + STEP * (f64::from(row) + 0.5))
    }

    /// Works out the least of a cell.
    #[cold]
    fn ask(&self, at: u32) -> f64 {
        let (y, r) = self.middle(at);
        let least = self.outline.signed_distance(y, r) - REACH - ROUNDED / 2.0;
        self.least[at as usize].set(least as f32);
        f64::from(least as f32)
    }

    /// Works out the edges of a cell. One that is nearest to some place of it is no further from its middle than the nearest
    /// one there and the way to that place and back.
    #[cold]
    fn look_at(&self, known: &mut Known, at: u32) -> Cell {
        let (y, r) = self.middle(at);
        // What was asked of the cell before is its distance, but for the rounding.
        let distance = f64::from(self.least[at as usize].get()) + REACH;
        let reach = distance.abs() + 2.0 * REACH + ROUNDED;
        let first = known.edges.len();
        known.edges.extend(self.outline.edges_near(y, r, reach));
        let count = known.edges.len() - first;
        // A cell that no edge passes is wholly inside or outside.
        let is_inside = (distance.abs() > REACH + ROUNDED).then_some(distance < 0.0);
        let cell = Cell { first: first as u32, count: count as u32, is_inside };
        known.cells[at as usize] = Some(cell);
        cell
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_it_leaves_out_is_never_nearer() {
        let outline = Outline::of(&"18x8.5 ET35 245/40R18".parse().unwrap()).unwrap();
        let field = DistanceField::of(&outline);
        let mut asked = 0;
        for at in 0..20_000u32 {
            // Spread evenly over the well, and beyond the grid.
            let y = -330.0 + 660.0 * (f64::from(at) * 0.618_034).fract();
            let r = 520.0 * (f64::from(at) * 0.754_877).fract();
            let exact = outline.signed_distance(y, r);
            for limit in [-5.0, 0.0, 4.0, 60.0] {
                let found = field.nearer_than(y, r, limit);
                assert_eq!(found, (exact < limit).then_some(exact), "({y}, {r}) under {limit}");
                asked += usize::from(found.is_some());
            }
        }
        assert!(asked > 1000);
    }
}
