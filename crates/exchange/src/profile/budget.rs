//! How much of a drawing is still read.

use super::{FURTHEST, MOST_POINTS, SheetError};

/// Points that may still be made.
#[derive(Debug)]
pub(super) struct Budget {
    left: usize,
}

impl Budget {
    pub(super) fn new() -> Self {
        Self { left: MOST_POINTS }
    }

    /// Asked before points are made.
    pub(super) fn take(&mut self, points: usize) -> Result<(), SheetError> {
        self.left = self.left.checked_sub(points).ok_or(SheetError::TooManyPoints)?;
        Ok(())
    }

    /// Points that may still be made.
    pub(super) fn left(&self) -> usize {
        self.left
    }
}

/// Figures that can be coordinates or radii.
pub(super) fn near(figures: &[f64]) -> Result<(), SheetError> {
    // What is no number is in no range.
    match figures.iter().find(|figure| !(-FURTHEST..=FURTHEST).contains(*figure)) {
        Some(figure) => Err(SheetError::TooFar(*figure)),
        None => Ok(()),
    }
}
