//! A job's plan in motion, for the page: one answer from which every pose is drawn.
//!
//! - [`usage`]: what a plan is swept over.
//! - [`stretches`]: standing, at lock, over bumps and together, for ledger and compare.
//! - [`remedies`]: what turns the verdict.
//! - [`window`]: the fit window that clears on the road.
//! - [`lift`]: the tallest tire at each lift.
//! - [`likelihood`]: how likely a part is touched.

pub mod lift;
pub mod likelihood;
pub mod remedies;
pub mod stretches;
pub mod usage;
pub mod window;

use app::JudgingContext;
use fitment::answers::dynamic_clearance::{SweptAxle, SweptPart, Usage};
use fitment::car::corner::Carrier;
use fitment::car::motion::{Envelope, Pose};
use fitment::judgement::case::AxleCase;
use fitment::setup::{Axle, Setup, SetupPair};
use serde::{Deserialize, Serialize};
use store::jobs::JobContent;
use utoipa::ToSchema;

use self::stretches::StretchView;
use self::usage::{OnTheTire, UsageRequest};
use super::corner::VerdictCode;
use super::ledger::{FragmentView, fragments};
use super::read::FieldErrors;
use super::{AxleCode, Lines};
use crate::problem::ApiError;

/// Which plan, on which axle, for which use.
#[derive(Debug, Deserialize, ToSchema)]
pub struct MotionRequest {
    /// Which axle.
    pub axle: AxleCode,
    /// What it is swept over.
    #[serde(default)]
    pub usage: UsageRequest,
    /// The plan; as the job has it when left out, and without one what is fitted.
    #[serde(default)]
    pub planned: Option<Lines>,
}

/// A part that was read, in motion.
#[derive(Debug, Serialize, ToSchema)]
pub struct MotionPart {
    /// Its code.
    pub code: &'static str,
    /// Its name.
    pub name: &'static str,
    /// Whether it stays with the body.
    pub is_of_the_body: bool,
    /// Whether its gap changes with steer and travel at all.
    pub moves: bool,
    /// Its places at rest: x forward, y outboard, z up from the hub face.
    pub points_mm: Vec<[f64; 3]>,
    /// Whether a figure its place rests on was taken as usual.
    pub is_estimated: bool,
    /// The house's least gap to it.
    pub limit_mm: f64,
    /// How much less the room likely is at most, in the pose with the least.
    pub plus_minus_mm: f64,
    /// What may be off there, the largest first.
    pub may_be_off: Vec<MayBeOffView>,
    /// Standing, at lock, over bumps and together.
    pub stretches: Vec<StretchView>,
    /// The room from which on it clears.
    pub clears_from_mm: f64,
    /// Room standing straight.
    pub at_rest_mm: f64,
    /// Least room of all poses the use reaches.
    pub least_mm: f64,
    /// Where that is.
    pub steer_deg: f64,
    /// And at which travel.
    pub travel_mm: f64,
    /// Its word.
    pub verdict: VerdictCode,
    /// In a sentence.
    pub says: Vec<FragmentView>,
    /// Room in each pose of the map.
    pub map_mm: Vec<f64>,
}

/// Something that may be off, and by how much less the room may be for it.
#[derive(Debug, Serialize, ToSchema)]
pub struct MayBeOffView {
    /// In words.
    pub what: &'static str,
    /// How much less the room may be.
    pub less_mm: f64,
}

/// What a use reaches on the map.
#[derive(Debug, Serialize, ToSchema)]
pub struct EnvelopeView {
    /// Its code.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// Round it once: steer in degrees, travel in mm.
    pub bounds: Vec<[f64; 2]>,
}

/// What a wheel turns about.
#[derive(Debug, Serialize, ToSchema)]
pub struct AxisView {
    /// A place on it.
    pub through_mm: [f64; 3],
    /// Upward along it.
    pub along: [f64; 3],
}

/// A plan in motion.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct MotionView {
    /// The planned setup's line.
    pub line: String,
    /// The outline on the hub, unleaned.
    pub outline_mm: Vec<[f64; 2]>,
    /// Where the wheel ends and the tire begins, seen from the side.
    pub flange_top_mm: f64,
    pub loaded_radius_mm: f64,
    pub camber_deg: f64,
    pub camber_gain_deg_per_mm: f64,
    /// Null for an axle that does not steer.
    pub axis: Option<AxisView>,
    pub lock_outward_deg: f64,
    pub lock_inward_deg: f64,
    pub bump_mm: f64,
    pub droop_mm: f64,
    /// Titles of what was taken as usual.
    pub assumed: Vec<&'static str>,
    /// The steer angles of the map, and its travels; rooms are row by row of travel.
    pub map_steer_deg: Vec<f64>,
    pub map_travel_mm: Vec<f64>,
    /// The uses, and which was asked for.
    pub envelopes: Vec<EnvelopeView>,
    pub envelope: &'static str,
    /// What may be on the tire meanwhile.
    pub on_the_tire: Vec<OnTheTire>,
    /// Parts, the tightest first.
    pub parts: Vec<MotionPart>,
    pub verdict: VerdictCode,
    /// Whether a part rules the plan out, so that remedies are worth asking for.
    pub is_ruled_out: bool,
    pub scrub_radius_mm: Option<f64>,
    pub fitted_scrub_radius_mm: Option<f64>,
    pub trail_mm: Option<f64>,
    pub fitted_trail_mm: Option<f64>,
    /// What must be minded of it.
    pub says: Vec<Vec<FragmentView>>,
    pub caution: &'static str,
}

impl MotionRequest {
    /// Asks something of the axle with the plan on it.
    ///
    /// # Errors
    /// Lines that cannot be read; a use that cannot be; an axle of which wheel, offset or tire is not stated, where the
    /// question has no answer then.
    pub(super) fn ask<T>(
        &self,
        content: &JobContent,
        context: &JudgingContext,
        ask: impl FnOnce(&AxleCase<'_>, &Setup, &Usage) -> Option<T>,
    ) -> Result<T, ApiError> {
        let mut errors = FieldErrors::default();
        let usage = self.usage.read(&mut errors, "/usage");
        let planned: SetupPair = match &self.planned {
            Some(lines) => errors.pair("/planned", lines),
            None => content.planned,
        };
        let axle = Axle::from(self.axle);
        let case = context.case(&content.fitted, &planned, content.drive);
        let setup = case.planned.on(axle).or(content.fitted.on(axle)).copied();
        let on_axle = case.axle(axle);
        let answer = on_axle.as_ref().zip(setup).and_then(|(on_axle, setup)| ask(on_axle, &setup, &usage));
        errors.finish_with(answer, "/planned", NOT_STATED)
    }

    /// Sweeps a job's plan.
    ///
    /// # Errors
    /// As [`MotionRequest::ask`].
    pub fn answer(&self, content: &JobContent, context: &JudgingContext) -> Result<MotionView, ApiError> {
        self.ask(content, context, |case, setup, usage| {
            let swept = case.sweep(setup, usage)?;
            Some(MotionView::new(setup.to_string(), swept, usage.envelope))
        })
    }
}

/// What is said where a sweep has nothing to go by.
const NOT_STATED: &str = "name wheel, offset and tire of what is fitted and planned on this axle";

impl MotionView {
    fn new(line: String, swept: SweptAxle, envelope: Envelope) -> Self {
        let rounded = |value: f64| (value * 100.0).round() / 100.0;
        let mut map_steer_deg: Vec<f64> = Vec::new();
        let mut map_travel_mm: Vec<f64> = Vec::new();
        for Pose { steer_deg, travel_mm } in &swept.poses {
            if map_travel_mm.last() != Some(travel_mm) {
                map_travel_mm.push(*travel_mm);
            }
            if map_travel_mm.len() == 1 {
                map_steer_deg.push(*steer_deg);
            }
        }
        let envelopes = [Envelope::Parking, Envelope::Road, Envelope::Track, Envelope::All];
        let kinematics = swept.wheel.kinematics;
        Self {
            line,
            outline_mm: swept.wheel.outline_on_the_hub().map(|(y, r)| [rounded(y), rounded(r)]).collect(),
            flange_top_mm: swept.wheel.flange_top_r,
            loaded_radius_mm: swept.wheel.loaded_radius_mm,
            camber_deg: kinematics.camber_deg,
            camber_gain_deg_per_mm: kinematics.camber_gain_deg_per_mm,
            axis: kinematics.axis.map(|axis| AxisView { through_mm: axis.through, along: axis.along }),
            lock_outward_deg: swept.reach.outward_deg,
            lock_inward_deg: swept.reach.inward_deg,
            bump_mm: swept.reach.bump_mm,
            droop_mm: swept.reach.droop_mm,
            assumed: swept.assumed.clone(),
            map_steer_deg,
            map_travel_mm,
            envelopes: envelopes
                .into_iter()
                .map(|one| EnvelopeView {
                    code: one.code(),
                    name: one.words(),
                    bounds: swept.bounds(one).iter().map(|pose| [pose.steer_deg, pose.travel_mm]).collect(),
                })
                .collect(),
            envelope: envelope.code(),
            on_the_tire: OnTheTire::all(),
            verdict: swept.verdict.into(),
            is_ruled_out: swept.parts.iter().any(SweptPart::rules_out),
            scrub_radius_mm: swept.on_the_ground.map(|both| both[1].0),
            fitted_scrub_radius_mm: swept.on_the_ground.map(|both| both[0].0),
            trail_mm: swept.on_the_ground.map(|both| both[1].1),
            fitted_trail_mm: swept.on_the_ground.map(|both| both[0].1),
            says: swept.says.into_iter().map(fragments).collect(),
            parts: swept.parts.into_iter().map(MotionPart::from).collect(),
            caution: super::corner::CAUTION,
        }
    }
}

impl From<SweptPart> for MotionPart {
    fn from(swept: SweptPart) -> Self {
        let rounded = |value: f64| (value * 10.0).round() / 10.0;
        let together = swept.over(fitment::answers::dynamic_clearance::Stretch::Together);
        let contributions = together.map(|one| one.contributions.clone()).unwrap_or_default();
        Self {
            code: swept.part.feature.code(),
            name: swept.name(),
            is_of_the_body: swept.part.feature.carrier() == Carrier::Body,
            moves: swept.part.cloud.carried != fitment::car::motion::Carried::SteeredUpright,
            points_mm: swept.part.cloud.points.iter().map(|place| place.map(rounded)).collect(),
            is_estimated: swept.part.is_estimated,
            limit_mm: swept.part.least_mm,
            plus_minus_mm: swept.plus_minus_mm(),
            may_be_off: contributions
                .iter()
                .map(|one| MayBeOffView { what: one.what(), less_mm: one.down.as_mm() })
                .collect(),
            stretches: swept.stretches.iter().map(StretchView::from).collect(),
            clears_from_mm: swept.clears_from(),
            at_rest_mm: swept.found.at_rest_mm,
            least_mm: swept.found.least_mm,
            steer_deg: swept.found.at.steer_deg,
            travel_mm: swept.found.at.travel_mm,
            verdict: swept.verdict.into(),
            says: fragments(swept.says),
            map_mm: swept.map.into_iter().map(rounded).collect(),
        }
    }
}
