//! The outline's distance as a field: how near a place can be at the least, without asking every edge.
//!
//! A distance changes by no more than one goes. So the distance at a node of a grid, less the way from it, is a lower bound
//! anywhere near; only what the bound lets through is asked exactly. The answer stays exact.

use crate::section::Outline;

/// Spacing of the nodes, in millimetres.
const STEP: f64 = 2.5;
/// How far beyond the outline the grid goes.
const MARGIN: f64 = 45.0;

/// An outline with the distances round it.
#[derive(Debug)]
pub struct DistanceField<'a> {
    outline: &'a Outline,
    y: (f64, f64),
    r: (f64, f64),
    from: (f64, f64),
    columns: usize,
    rows: usize,
    nodes: Vec<f32>,
}

impl<'a> DistanceField<'a> {
    /// Works the distances out; what the field is asked for after that is quick.
    pub fn of(outline: &'a Outline) -> Self {
        let (y, r) = outline.bounds();
        let from = (y.0 - MARGIN, (r.0 - MARGIN).max(0.0));
        let count = |least: f64, most: f64| ((most - least) / STEP).ceil().max(0.0) as usize + 1;
        let (columns, rows) = (count(from.0, y.1 + MARGIN), count(from.1, r.1 + MARGIN));
        let mut nodes = Vec::with_capacity(columns * rows);
        for row in 0..rows {
            for column in 0..columns {
                let at = (from.0 + STEP * column as f64, from.1 + STEP * row as f64);
                nodes.push(outline.signed_distance(at.0, at.1) as f32);
            }
        }
        Self { outline, y, r, from, columns, rows, nodes }
    }

    /// The outline it is of.
    pub fn outline(&self) -> &'a Outline {
        self.outline
    }

    /// The signed distance of a place, in the outline's frame; `None` where it cannot be under `limit`.
    #[inline]
    pub(super) fn nearer_than(&self, y: f64, r: f64, limit: f64) -> Option<f64> {
        if self.at_least(y, r) >= limit {
            return None;
        }
        let exact = self.outline.signed_distance(y, r);
        (exact < limit).then_some(exact)
    }

    #[inline]
    fn at_least(&self, y: f64, r: f64) -> f64 {
        let (column, row) = ((y - self.from.0) / STEP + 0.5, (r - self.from.1) / STEP + 0.5);
        if column >= 0.0 && row >= 0.0 && (column as usize) < self.columns && (row as usize) < self.rows {
            let (column, row) = (column as usize, row as usize);
            let (off_y, off_r) =
                (y - self.from.0 - STEP * column as f64, r - self.from.1 - STEP * row as f64);
            let node = f64::from(self.nodes[row * self.columns + column]);
            // The node was rounded to fewer figures.
            return node - (off_y * off_y + off_r * off_r).sqrt() - 1e-4;
        }
        // Beyond the grid: not nearer than the box round the outline.
        let beyond = |value: f64, (least, most): (f64, f64)| (least - value).max(value - most).max(0.0);
        beyond(y, self.y).hypot(beyond(r, self.r))
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
