//! Two pairs of setups compared, for scripts.

use fitment::setup::change::{axle_change, pair_change};
use fitment::setup::{Axle, SetupPair};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Lines;
use super::change::{AxleChangeView, PairChangeView};
use super::read::FieldErrors;
use crate::problem::ApiError;

/// What is fitted and what is planned.
#[derive(Debug, Deserialize, ToSchema)]
pub struct CompareRequest {
    /// On the car.
    pub fitted: Lines,
    /// Planned.
    pub planned: Lines,
}

impl CompareRequest {
    /// Into the core's types.
    ///
    /// # Errors
    /// Every line that could not be read.
    pub fn read(&self) -> Result<(SetupPair, SetupPair), ApiError> {
        let mut errors = FieldErrors::default();
        let fitted = errors.pair("/fitted", &self.fitted);
        let planned = errors.pair("/planned", &self.planned);
        for (pointer, lines) in [("/fitted", &self.fitted), ("/planned", &self.planned)] {
            if lines.is_blank() {
                errors.fault(pointer, "name at least one axle's setup");
            }
        }
        errors.finish((fitted, planned))
    }
}

/// What changes; an axle without both setups is null.
#[derive(Debug, Serialize, ToSchema)]
pub struct Comparison {
    /// Front axle.
    pub front: Option<AxleChangeView>,
    /// Rear axle.
    pub rear: Option<AxleChangeView>,
    /// Between the axles.
    pub pair: PairChangeView,
}

impl Comparison {
    /// Compares two pairs.
    pub fn new(fitted: &SetupPair, planned: &SetupPair) -> Self {
        let change = |axle| {
            let change = axle_change(fitted.on(axle)?, planned.on(axle)?);
            Some(AxleChangeView::from(&change))
        };
        Self {
            front: change(Axle::Front),
            rear: change(Axle::Rear),
            pair: PairChangeView::from(&pair_change(fitted, planned)),
        }
    }
}
