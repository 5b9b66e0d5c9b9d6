//! A wheel over a job's brakes: both profiles, both gaps, what spacers do and cost, and what smaller rims can be.

use app::JudgingContext;
use app::brake_sweep::SweptWheel;
use app::brakes::{self, BrakeQuestion};
use fitment::Spacer;
use fitment::car::brake::smaller_rim::{self, smaller_rims};
use fitment::car::brake::{Bound, Limits, Over, Profile, Weights};
use fitment::setup::{Axle, Setup};
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use store::workshop::KeptTemplate;
use utoipa::ToSchema;

use super::AxleCode;
use super::brakes::{CAUTION, PointView, SpacerView};
use super::corner::VerdictCode;
use super::ledger::QuantityView;
use super::profiles::template_size;
use super::read::FieldErrors;
use crate::problem::ApiError;

/// A wheel over a job's brakes.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BrakeBenchRequest {
    /// Which axle.
    pub axle: AxleCode,
    /// Against the profiles of a planned upgrade, where there are some.
    #[serde(default)]
    pub planned_brakes: bool,
    /// The wheel as a setup line; the bench's when left out, and without a plan what is fitted.
    #[serde(default)]
    pub setup: Option<String>,
    /// The line it belongs to, by which a measured inside is found.
    #[serde(default)]
    pub line: Option<String>,
    /// A spacer other than the setup's.
    #[serde(default)]
    pub spacer_mm: Option<f64>,
    /// Stick-on weights on the barrel.
    #[serde(default)]
    pub weights: Option<WeightsView>,
}

/// Stick-on weights on the barrel.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WeightsView {
    /// Where their track begins, in wheel coordinates.
    pub from_y_mm: f64,
    pub to_y_mm: f64,
    /// How high they stand: about 4 to 5 mm.
    pub height_mm: f64,
}

/// A gap and where it is smallest.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct GapView {
    /// In millimetres; negative is an overlap.
    pub mm: f64,
    /// Where on the brake: y, r.
    #[schema(value_type = Vec<f64>)]
    pub at: PointView,
}

impl From<fitment::car::brake::gap::Gap> for GapView {
    fn from(gap: fitment::car::brake::gap::Gap) -> Self {
        Self { mm: gap.mm, at: [gap.at.0, gap.at.1] }
    }
}

/// A part inside the barrel, and its gaps.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::brake::Over")]
pub struct PartView {
    pub id: String,
    pub part: &'static str,
    pub title: &'static str,
    pub name: String,
    pub source: String,
    #[schema(value_type = Vec<Vec<f64>>)]
    pub points: Vec<PointView>,
    pub radial: Option<GapView>,
    pub axial: Option<GapView>,
    pub weights: Option<GapView>,
    pub shortest_mm: f64,
    pub plus_minus_mm: f64,
    pub verdict: VerdictCode,
}

/// The wheel as it is drawn.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names say it")]
pub struct WheelInside {
    /// The setup line.
    pub line: String,
    /// The line or design it belongs to; empty while that is not known.
    pub design: String,
    /// Its size with offset, by which its inside is kept.
    pub size: String,
    /// `template`, `readings` or `estimate`.
    pub source: &'static str,
    pub plus_minus_mm: f64,
    /// In the corner's frame, the spacer under it.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub barrel: Vec<PointView>,
    #[schema(value_type = Vec<Vec<f64>>)]
    pub spoke_back: Vec<PointView>,
}

/// What a gap must lie between.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct BoundView {
    pub least_mm: f64,
    pub most_mm: f64,
}

impl From<Bound> for BoundView {
    fn from(bound: Bound) -> Self {
        Self { least_mm: bound.least_mm, most_mm: bound.most_mm }
    }
}

/// A smaller rim.
#[derive(Debug, Serialize, ToSchema)]
pub struct SmallerRimView {
    /// Its code.
    pub rim_in: f64,
    /// The gap to be expected.
    pub gap: QuantityView,
    /// Whether it is worth lifting on.
    pub is_worth_trying: bool,
}

/// The smallest spacer that clears, and what it costs.
#[derive(Debug, Serialize, ToSchema)]
pub struct SmallestSpacer {
    /// Its thickness; 0 when none is needed.
    pub spacer_mm: f64,
    /// The setup line with it.
    pub line: String,
    /// What it costs, in sentences.
    pub costs: Vec<String>,
}

/// A wheel over a job's brakes.
#[derive(Debug, Serialize, ToSchema)]
pub struct BrakeBench {
    /// The wheel; null when its size or offset is not stated.
    pub wheel: Option<WheelInside>,
    /// The parts inside the barrel.
    pub parts: Vec<PartView>,
    /// How it stands; `measure_first` while there is no profile.
    pub verdict: VerdictCode,
    /// The least radial gap by the house.
    pub radial_limit_mm: f64,
    /// The least axial gap by the house.
    pub axial_limit_mm: f64,
    /// The spacer it was tried on.
    pub spacer_mm: f64,
    /// What spacers do.
    pub spacers: Vec<SpacerView>,
    /// The smallest that clears; null when none does or nothing is known.
    pub smallest: Option<SmallestSpacer>,
    /// What the gaps read on the fitted wheel say of this one, without any template: radial and axial.
    pub radial_bound: Option<BoundView>,
    /// The axial bound.
    pub axial_bound: Option<BoundView>,
    /// The next rims down from the fitted one.
    pub smaller_rims: Vec<SmallerRimView>,
    /// The rule of the smaller rims.
    pub smaller_rim_rule: &'static str,
    /// What stands beside the smaller rims.
    pub smaller_rim_caution: &'static str,
    /// What must stand beside it all.
    pub caution: &'static str,
}

fn points(profile: &Profile, moved_mm: f64) -> Vec<PointView> {
    profile.points().iter().map(|point| [point.y + moved_mm, point.r]).collect()
}

impl BrakeBenchRequest {
    /// Reads the question.
    ///
    /// # Errors
    /// Every field at fault.
    fn read(&self, content: &JobContent) -> Result<BrakeQuestion, ApiError> {
        let mut errors = FieldErrors::default();
        let axle = Axle::from(self.axle);
        let setup = match &self.setup {
            Some(line) => errors.setup("/setup", Some(line)),
            None => content.planned.on(axle).or(content.fitted.on(axle)).copied(),
        };
        if self.spacer_mm.is_some_and(|mm| !(0.0..=60.0).contains(&mm)) {
            errors.fault("/spacer_mm", "a spacer goes from 0 to 60 mm");
        }
        let weights = self.weights.map(|on| {
            if !(0.0..=30.0).contains(&on.height_mm) || !on.from_y_mm.is_finite() || !on.to_y_mm.is_finite() {
                errors.fault("/weights", "weights stand up to 30 mm high, on a track with two ends");
            }
            Weights { from_y: on.from_y_mm, to_y: on.to_y_mm, height_mm: on.height_mm }
        });
        let setup = setup.map(|setup| match self.spacer_mm {
            Some(mm) => Setup { spacer: Spacer::from_mm(mm).filter(|_| mm > 0.0), ..setup },
            None => setup,
        });
        let planned_brakes = self.planned_brakes;
        errors.finish(BrakeQuestion { axle, planned_brakes, setup, line: self.line.clone(), weights })
    }

    /// Judges the wheel over the job's brakes.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn judge(&self, content: &JobContent, context: &JudgingContext) -> Result<BrakeBench, ApiError> {
        let question = self.read(content)?;
        let limits = Limits::from(&context.limits);
        let answer = brakes::answer(&question, content, context);
        let spacer_mm = question.setup.and_then(|setup| setup.spacer).map_or(0.0, |spacer| spacer.as_mm());
        let fitted_rim = content.fitted.on(question.axle).and_then(|fitted| Some(fitted.wheel?.diameter));
        Ok(BrakeBench {
            wheel: answer.inside.as_ref().zip(question.setup).map(|(inside, setup)| WheelInside {
                line: setup.to_string(),
                design: answer.line.clone(),
                size: setup.wheel.as_ref().map(template_size).unwrap_or_default(),
                source: inside.source.code(),
                plus_minus_mm: inside.plus_minus_mm,
                barrel: points(&inside.barrel, spacer_mm),
                spoke_back: points(&inside.spoke_back, spacer_mm),
            }),
            parts: answer.parts.iter().map(|part| part_view(&part.over, part.kept)).collect(),
            verdict: answer.verdict.into(),
            radial_limit_mm: limits.radial_mm,
            axial_limit_mm: limits.axial_mm,
            spacer_mm,
            spacers: answer.spacers.iter().map(SpacerView::from).collect(),
            smallest: answer.smallest.map(|one| SmallestSpacer {
                spacer_mm: one.spacer_mm,
                line: one.setup.to_string(),
                costs: one.costs,
            }),
            radial_bound: answer.bounds.0.map(BoundView::from),
            axial_bound: answer.bounds.1.map(BoundView::from),
            smaller_rims: fitted_rim
                .zip(answer.gap_read)
                .map(|(rim, gap)| smaller_rims(rim, gap, 2))
                .unwrap_or_default()
                .into_iter()
                .map(|one| SmallerRimView {
                    rim_in: one.rim.code(),
                    gap: one.gap.quantity.into(),
                    is_worth_trying: one.is_worth_trying,
                })
                .collect(),
            smaller_rim_rule: smaller_rim::SOURCE.cite,
            smaller_rim_caution: smaller_rim::CAUTION,
            caution: CAUTION,
        })
    }
}

fn part_view(over: &Over, kept: &KeptTemplate) -> PartView {
    PartView {
        id: kept.id.clone(),
        part: over.part.code(),
        title: over.part.title(),
        name: kept.name.clone(),
        source: kept.source.clone(),
        points: kept.points.clone(),
        radial: over.gaps.radial.map(GapView::from),
        axial: over.gaps.axial.map(GapView::from),
        weights: over.weights.map(GapView::from),
        shortest_mm: over.gaps.shortest_mm,
        plus_minus_mm: over.plus_minus_mm,
        verdict: over.verdict.into(),
    }
}

/// A wheel of the catalogue over a job's brakes.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CatalogueWheel {
    pub row: u32,
    pub line: String,
    /// As a setup line.
    pub setup: String,
    pub source: &'static str,
    pub radial_gap_mm: Option<f64>,
    pub axial_gap_mm: Option<f64>,
    pub verdict: VerdictCode,
}

impl From<&SweptWheel> for CatalogueWheel {
    fn from(wheel: &SweptWheel) -> Self {
        Self {
            row: wheel.row,
            line: wheel.line.clone(),
            setup: wheel.setup.clone(),
            source: wheel.source.code(),
            radial_gap_mm: wheel.found.radial_mm,
            axial_gap_mm: wheel.found.axial_mm,
            verdict: wheel.found.verdict.into(),
        }
    }
}

/// The catalogue's wheels over a job's brakes.
#[derive(Debug, Serialize, ToSchema)]
pub struct CatalogueWheels {
    /// The wheels that go on the hub, smallest rim first; each line's size once.
    pub wheels: Vec<CatalogueWheel>,
    /// How many there are in all.
    pub total: usize,
}
