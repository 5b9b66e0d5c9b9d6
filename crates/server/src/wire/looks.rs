//! Looks in figures, on the wire.

use app::JudgingContext;
use fitment::answers::flush_offsets::{Look, Offsets};
use fitment::judgement::window::widths_round;
use fitment::setup::Axle;
use serde::Serialize;
use store::jobs::JobContent;
use utoipa::ToSchema;

use super::read::FieldErrors;
use super::{Lines, PerAxle};
use crate::problem::ApiError;

/// Offsets that give a look on a rim width; an end that is null is open.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct LookOnWidthView {
    pub rim_width_in: f64,
    pub offset_min_mm: Option<f64>,
    pub offset_max_mm: Option<f64>,
    /// Whether any of them clears what was read.
    pub clears: bool,
    pub clears_min_mm: Option<f64>,
    pub clears_max_mm: Option<f64>,
    /// Whether what decides of them was not read yet.
    pub measure_first: bool,
}

/// A look.
#[derive(Debug, Serialize, ToSchema)]
pub struct LookView {
    /// `tucked`, `flush`, `poke` or `stance`.
    pub code: &'static str,
    /// What it asks for.
    pub asks: &'static str,
    /// Width by width.
    pub widths: Vec<LookOnWidthView>,
}

impl From<Look> for LookView {
    fn from(look: Look) -> Self {
        let on = |one: fitment::answers::flush_offsets::LookOnWidth| {
            let clears: Offsets = one.clears.unwrap_or_default();
            LookOnWidthView {
                rim_width_in: one.rim_width.code(),
                offset_min_mm: one.gives.0,
                offset_max_mm: one.gives.1,
                clears: one.clears.is_some(),
                clears_min_mm: clears.0,
                clears_max_mm: clears.1,
                measure_first: one.is_to_be_measured,
            }
        };
        Self { code: look.code, asks: look.asks, widths: look.widths.into_iter().map(on).collect() }
    }
}

/// The looks of a plan, axle by axle; none while the fender lip was not read.
///
/// # Errors
/// Lines that cannot be read.
pub fn looks(
    planned: &Lines,
    content: &JobContent,
    context: &JudgingContext,
) -> Result<PerAxle<Vec<LookView>>, ApiError> {
    let mut errors = FieldErrors::default();
    let planned = errors.pair("", planned);
    errors.finish(())?;
    let case = context.case(&content.fitted, &planned, content.drive);
    let on = |axle: Axle| {
        let Some((axle_case, setup)) = case.axle(axle).zip(case.planned.on(axle)) else { return Vec::new() };
        let widths = widths_round(Some(axle_case.fitted), Some(setup));
        fitment::answers::flush_offsets::looks(&axle_case, setup, &widths)
            .into_iter()
            .map(LookView::from)
            .collect()
    };
    Ok(PerAxle { front: on(Axle::Front), rear: on(Axle::Rear) })
}
