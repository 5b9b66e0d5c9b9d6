//! A wheel over a brake, for scripts: profiles in, gaps out.

use fitment::car::brake::{
    BrakeFit, BrakePart, Limits, Package, Profile, ProfileSource, SpacerStep, Template, WheelProfile, judge,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::corner::VerdictCode;
use super::read::FieldErrors;
use crate::problem::ApiError;

/// A point of a profile: y outboard, and r from the spin axis, millimetres.
pub type PointView = [f64; 2];

/// A wheel and a caliper.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BrakesRequest {
    /// The caliper's profile in the corner's frame: y = 0 at the hub face, outboard positive.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub caliper: Vec<PointView>,
    /// The wheel's.
    pub wheel: WheelProfileRequest,
    /// A spacer between.
    #[serde(default)]
    pub spacer_mm: f64,
    /// The least gaps; the house's when left out.
    #[serde(default)]
    pub limits: Option<GapLimits>,
}

/// The inside of a wheel in its own coordinates: y = 0 at the mounting pad, outboard positive.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct WheelProfileRequest {
    /// Barrel inside.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub barrel: Vec<PointView>,
    /// Back of the spokes.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub spoke_back: Vec<PointView>,
}

/// The least gaps.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct GapLimits {
    pub radial_mm: f64,
    pub axial_mm: f64,
}

/// What a spacer does.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct SpacerView {
    pub spacer_mm: f64,
    pub radial_gap_mm: Option<f64>,
    pub axial_gap_mm: Option<f64>,
    pub verdict: VerdictCode,
}

/// The gaps. Negative is an overlap; null where the two never stand opposite each other.
#[derive(Debug, Serialize, ToSchema)]
pub struct BrakesView {
    /// Least difference in r at equal y, caliper to barrel.
    pub radial_gap_mm: Option<f64>,
    /// Least difference in y at equal r, caliper to spokes.
    pub axial_gap_mm: Option<f64>,
    /// Where on the caliper the radial gap is least: y, r.
    #[schema(value_type = Option<Vec<f64>>)]
    pub radial_at: Option<PointView>,
    /// Where the axial one is.
    #[schema(value_type = Option<Vec<f64>>)]
    pub axial_at: Option<PointView>,
    /// In any direction; 0 where they overlap.
    pub shortest_distance_mm: f64,
    /// How it stands.
    pub verdict: VerdictCode,
    /// The smallest whole-millimetre spacer with which it clears; 0 when none is needed, null when none up to 30 does.
    pub smallest_spacer_mm: Option<f64>,
    /// What spacers do.
    pub spacers: Vec<SpacerView>,
    /// What must stand beside it.
    pub caution: &'static str,
}

/// What stands beside every caliper clearance.
pub const CAUTION: &str = "Turn the wheel by hand through a whole turn before it is driven, listen, and check again hot: pads wear, \
                           discs grow, and weights stand up to 5 mm high. Local codes and a licensed inspector have the last word.";

/// Points as a profile.
pub(super) fn profile(errors: &mut FieldErrors, pointer: &str, points: &[PointView]) -> Option<Profile> {
    match Profile::new(points.iter().map(|[y, r]| (*y, *r))) {
        Ok(profile) => Some(profile),
        Err(error) => {
            errors.fault(pointer, error.to_string());
            None
        }
    }
}

impl WheelProfileRequest {
    fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Option<WheelProfile> {
        let barrel = profile(errors, &format!("{pointer}/barrel"), &self.barrel);
        let spoke_back = profile(errors, &format!("{pointer}/spoke_back"), &self.spoke_back);
        Some(WheelProfile {
            barrel: barrel?,
            spoke_back: spoke_back?,
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        })
    }
}

impl BrakesRequest {
    /// Works the gaps out; `house` are the limits when none are given.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(&self, house: Limits) -> Result<BrakesView, ApiError> {
        let mut errors = FieldErrors::default();
        let caliper = profile(&mut errors, "/caliper", &self.caliper);
        let wheel = self.wheel.read(&mut errors, "/wheel");
        if !(0.0..=100.0).contains(&self.spacer_mm) {
            errors.fault("/spacer_mm", "a spacer goes from 0 to 100 mm");
        }
        let limits = self
            .limits
            .map_or(house, |given| Limits { radial_mm: given.radial_mm, axial_mm: given.axial_mm });
        for (field, value) in [("radial_mm", limits.radial_mm), ("axial_mm", limits.axial_mm)] {
            if !(0.0..=50.0).contains(&value) {
                errors.fault(&format!("/limits/{field}"), "a least gap goes from 0 to 50 mm");
            }
        }
        let both = caliper.zip(wheel);
        let (profile, wheel) = errors.finish_with(both, "/caliper", "is no profile")?;
        let template = Template {
            part: BrakePart::Caliper,
            profile,
            source: ProfileSource::Template,
            plus_minus_mm: 0.0,
        };
        let package = Package { templates: vec![template] };
        Ok(BrakesView::from(judge(&package, &wheel, self.spacer_mm, None, limits)))
    }
}

impl From<&SpacerStep> for SpacerView {
    fn from(step: &SpacerStep) -> Self {
        Self {
            spacer_mm: step.spacer_mm,
            radial_gap_mm: step.radial_mm,
            axial_gap_mm: step.axial_mm,
            verdict: step.verdict.into(),
        }
    }
}

impl From<BrakeFit> for BrakesView {
    fn from(fit: BrakeFit) -> Self {
        let gaps = fit.parts.first().map(|part| part.gaps);
        let (radial, axial) = (gaps.and_then(|gaps| gaps.radial), gaps.and_then(|gaps| gaps.axial));
        Self {
            radial_gap_mm: radial.map(|gap| gap.mm),
            axial_gap_mm: axial.map(|gap| gap.mm),
            radial_at: radial.map(|gap| [gap.at.0, gap.at.1]),
            axial_at: axial.map(|gap| [gap.at.0, gap.at.1]),
            shortest_distance_mm: gaps.map_or(0.0, |gaps| gaps.shortest_mm),
            verdict: fit.verdict.into(),
            smallest_spacer_mm: fit.smallest_spacer_mm,
            spacers: fit.spacers.iter().map(SpacerView::from).collect(),
            caution: CAUTION,
        }
    }
}
