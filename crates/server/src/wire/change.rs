//! What changes, as plain numbers.

use fitment::setup::change::{AxleChange, PairChange};
use fitment::values::working::Figure;
use serde::Serialize;
use utoipa::ToSchema;

/// What changes on one axle. Outer + is further out, inner + further in; null where a setup does not state
/// what it takes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment::change")]
pub struct AxleChangeView {
    pub effective_offset_mm: Option<f64>,
    pub outer_rim_change_mm: Option<f64>,
    pub inner_rim_change_mm: Option<f64>,
    pub outer_tire_change_mm: Option<f64>,
    pub inner_tire_change_mm: Option<f64>,
    /// Whichever of rim flange and tire reaches further, fitted against planned.
    pub outer_change_mm: Option<f64>,
    pub inner_change_mm: Option<f64>,
    pub overall_diameter_change_mm: Option<f64>,
    pub overall_diameter_change_pct: Option<f64>,
    pub ride_height_change_mm: Option<f64>,
    pub arch_gap_change_mm: Option<f64>,
    pub track_change_mm: Option<f64>,
    pub true_speed_ratio: Option<f64>,
}

fn value(figure: &Option<Figure>) -> Option<f64> {
    figure.as_ref().map(Figure::value)
}

impl From<&AxleChange> for AxleChangeView {
    fn from(change: &AxleChange) -> Self {
        Self {
            effective_offset_mm: value(&change.effective_offset),
            outer_rim_change_mm: value(&change.outer_rim),
            inner_rim_change_mm: value(&change.inner_rim),
            outer_tire_change_mm: value(&change.outer_tire),
            inner_tire_change_mm: value(&change.inner_tire),
            outer_change_mm: value(&change.outer),
            inner_change_mm: value(&change.inner),
            overall_diameter_change_mm: value(&change.overall_diameter),
            overall_diameter_change_pct: value(&change.overall_diameter_pct),
            ride_height_change_mm: value(&change.ride_height),
            arch_gap_change_mm: value(&change.arch_gap),
            track_change_mm: value(&change.track),
            true_speed_ratio: value(&change.true_speed_ratio),
        }
    }
}

/// What changes between the axles.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment::change")]
pub struct PairChangeView {
    pub front_overall_diameter_mm: Option<f64>,
    pub rear_overall_diameter_mm: Option<f64>,
    pub front_to_rear_ratio_change_pct: Option<f64>,
}

impl From<&PairChange> for PairChangeView {
    fn from(pair: &PairChange) -> Self {
        Self {
            front_overall_diameter_mm: value(&pair.front_overall_diameter),
            rear_overall_diameter_mm: value(&pair.rear_overall_diameter),
            front_to_rear_ratio_change_pct: value(&pair.front_to_rear_ratio_pct),
        }
    }
}
