//! Choosing, on the wire: pressure, stagger, fasteners.

use fitment::car::limits::HouseLimits;
use fitment::judgement::rules::front_to_rear::{self, Stagger, stagger};
use fitment::judgement::rules::mount::{
    self, FastenerKind, Hub, Mounting, ProblemKind, WheelSide, retorque_caution,
};
use fitment::judgement::rules::pressure::{self, PressureFor, Replaced, pressure_for};
use fitment::judgement::rules::rotation::{Rotation, rotations};
use fitment::setup::line;
use fitment::values::fastener::{Seat, Thread};
use fitment::{CenterBore, Length, Spacer, Tire};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use super::corner::length;
use super::ledger::StepView;
use super::read::FieldErrors;
use super::{AxleCode, DriveCode, Lines};
use crate::problem::ApiError;

pub(super) fn tire(errors: &mut FieldErrors, pointer: &str, text: &str) -> Option<Tire> {
    match text.parse() {
        Ok(tire) => Some(tire),
        Err(error) => {
            errors.fault_in_notation(pointer, &error);
            None
        }
    }
}

/// Which tire under which load.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PressureQuery {
    /// The tire with its load index.
    #[param(example = "225/45R17 94W XL")]
    pub size: String,
    /// What one tire carries.
    #[param(example = 520.0)]
    pub load_kg: f64,
    /// The car's cold pressure on that axle; the suggestion is never under it.
    #[param(example = 230.0)]
    pub placard_kpa: Option<f64>,
    /// What a commercial tire's sidewall names for its load; without it nothing is suggested for one.
    #[param(example = 475.0)]
    pub sidewall_kpa: Option<f64>,
    /// The tire that carried the load before, with its load index: its pressure then is the placard's.
    #[param(example = "205/55R16 91V")]
    pub replaces: Option<String>,
}

/// A suggested cold pressure.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct PressureView {
    pub pressure_kpa: f64,
    /// What the tire carries at its reference pressure.
    pub load_capacity_kg: f64,
    /// Pressure at which it carries that.
    pub reference_kpa: f64,
    /// What kind of tire it was reckoned as.
    pub reckoned_as: &'static str,
    /// Whether nobody stated the load version: the one that asks for more pressure was taken.
    pub version_assumed: bool,
    /// Whether it carries the load at all.
    pub enough: bool,
    /// Whether the placard, not the load, set it.
    pub by_placard: bool,
    pub working: Vec<StepView>,
    pub caution: &'static str,
}

impl PressureQuery {
    /// Suggests a pressure.
    ///
    /// # Errors
    /// Every field at fault; a tire whose load table is not known.
    pub fn answer(&self) -> Result<PressureView, ApiError> {
        let mut errors = FieldErrors::default();
        let size = tire(&mut errors, "size", &self.size);
        if !(0.0..=5000.0).contains(&self.load_kg) {
            errors.fault("load_kg", format!("a tire carries 0 to 5000 kg, not {}", self.load_kg));
        }
        for (name, kpa, most) in
            [("placard_kpa", self.placard_kpa, 800.0), ("sidewall_kpa", self.sidewall_kpa, 900.0)]
        {
            if let Some(kpa) = kpa.filter(|kpa| !(100.0..=most).contains(kpa)) {
                errors.fault(name, format!("is 100 to {most} kPa, not {kpa}"));
            }
        }
        let replaces = self.replaces.as_ref().and_then(|text| tire(&mut errors, "replaces", text));
        if replaces.is_some() && self.placard_kpa.is_none() {
            errors.fault("placard_kpa", "is needed: at which pressure the tire before carried the load");
        }
        let asked = PressureFor {
            load_kg: Some(self.load_kg),
            placard_kpa: self.placard_kpa,
            replaces: replaces.zip(self.placard_kpa).map(|(tire, kpa)| Replaced { tire, kpa }),
            sidewall_kpa: self.sidewall_kpa,
        };
        let found = match size.map(|tire| pressure_for(&tire, &asked)) {
            Some(Err(why)) => {
                errors.fault("size", why.says());
                None
            }
            found => found.and_then(Result::ok),
        };
        let found = errors.finish_with(found, "size", "name a tire, as in 225/45R17 94W XL")?;
        Ok(PressureView {
            pressure_kpa: found.kpa,
            load_capacity_kg: found.capacity_kg,
            reference_kpa: found.table.reference_kpa,
            reckoned_as: found.table.is,
            version_assumed: found.table.is_assumed,
            enough: found.is_enough,
            by_placard: found.by_placard,
            working: found.figure.working.into_iter().map(StepView::from).collect(),
            caution: pressure::CAUTION,
        })
    }
}

/// A planned pair against the factory's.
#[derive(Debug, Deserialize, ToSchema)]
pub struct StaggerRequest {
    /// What the factory fitted.
    pub factory: Lines,
    /// What is planned.
    pub planned: Lines,
    /// Driven axles; the stricter limit holds while it is not known.
    #[serde(default)]
    pub drive: Option<DriveCode>,
    /// Whether tires or wheels have a turning direction.
    #[serde(default)]
    pub directional: bool,
}

/// Front against rear.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct StaggerView {
    pub ratio_change_pct: f64,
    pub limit_pct: f64,
    /// `keeps_ratio` or `drifts`.
    pub verdict: &'static str,
    /// The axle that stands taller; null when both are equal.
    pub taller_axle: Option<AxleCode>,
    pub height_difference_mm: f64,
    /// `front_to_rear`, `side_to_side`, `cross`: what can be rotated without remounting.
    pub rotation: Vec<&'static str>,
    pub working: Vec<StepView>,
    pub caution: &'static str,
}

impl StaggerRequest {
    /// Judges the pair.
    ///
    /// # Errors
    /// Every line at fault; a pair without all its tires.
    pub fn answer(&self, limits: &HouseLimits) -> Result<StaggerView, ApiError> {
        let mut errors = FieldErrors::default();
        let factory = errors.pair("/factory", &self.factory);
        let planned = errors.pair("/planned", &self.planned);
        let found = stagger(&factory, &planned, self.drive.map(Into::into), limits);
        let missing = "name all four tires, front and rear, of both pairs";
        Ok(StaggerView::new(errors.finish_with(found, "/planned", missing)?, self.directional))
    }
}

impl StaggerView {
    fn new(found: Stagger, is_directional: bool) -> Self {
        let rotation = rotations(found.arrangement, is_directional);
        Self {
            ratio_change_pct: found.ratio_change.value(),
            limit_pct: found.limit_pct,
            verdict: if found.keeps_ratio { "keeps_ratio" } else { "drifts" },
            taller_axle: found.taller.map(AxleCode::from),
            height_difference_mm: found.height_difference.as_mm(),
            rotation: rotation.iter().copied().map(Rotation::code).collect(),
            working: found.ratio_change.working.into_iter().map(StepView::from).collect(),
            caution: front_to_rear::CAUTION,
        }
    }
}

/// The car's side of a mounting. What is left out is not known.
#[derive(Debug, Default, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct HubRequest {
    #[serde(default)]
    pub bore_mm: Option<f64>,
    /// How far the hub's lip stands out.
    #[serde(default)]
    pub lip_mm: Option<f64>,
    /// As in `5x112`.
    #[serde(default)]
    pub bolt_circle: Option<String>,
    /// As in `M14x1.5` or `1/2-20`.
    #[serde(default)]
    pub thread: Option<String>,
    /// Seat of the fasteners at hand, as in `ball R13` or `cone 60°`.
    #[serde(default)]
    pub seat: Option<String>,
    /// `bolts` or `studs`: a slip-on spacer asks for longer bolts, and eats a stud's length.
    #[serde(default)]
    pub fasteners: Option<String>,
}

/// The wheel's side.
#[derive(Debug, Default, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WheelSideRequest {
    #[serde(default)]
    pub bore_mm: Option<f64>,
    /// As in `5x112`; several with commas between.
    #[serde(default)]
    pub bolt_circle: Option<String>,
    /// Seat of its holes.
    #[serde(default)]
    pub seat: Option<String>,
    /// From its mounting pad to the seat of its holes, measured on it.
    #[serde(default)]
    pub pad_to_seat_mm: Option<f64>,
    /// Whether it is the very wheel that the fitted fasteners hold now.
    #[serde(default)]
    pub is_fitted_one: bool,
    /// Held by one nut in the middle.
    #[serde(default)]
    pub center_lock: bool,
}

/// A wheel on a hub.
#[derive(Debug, Deserialize, ToSchema)]
pub struct FastenersRequest {
    /// The car's side.
    pub hub: HubRequest,
    /// The wheel's side.
    pub wheel: WheelSideRequest,
    /// A spacer between, 0 for none.
    #[serde(default)]
    pub spacer_mm: f64,
    /// The fasteners' length now.
    #[serde(default)]
    pub fitted_length_mm: Option<f64>,
}

/// A hub-centric ring.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct RingView {
    pub outer_mm: f64,
    pub inner_mm: f64,
}

/// What stands against a mounting, or must go with it.
#[derive(Debug, Serialize, ToSchema)]
pub struct MountingProblem {
    /// `stop`, `mind` or `unknown`.
    pub kind: &'static str,
    /// `bolt_circle`, `bore`, `seat`, `lip`, `thread`, `length` or `center_lock`.
    pub code: &'static str,
    /// In a sentence.
    pub says: String,
}

/// Whether a wheel goes on a hub, and what must be ordered with it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct FastenersView {
    /// `fits`, `fits_with_parts`, `not_known` or `does_not_fit`.
    pub verdict: &'static str,
    pub ring: Option<RingView>,
    /// How long bolts must be at least; null for studs, and while what decides was not measured.
    pub length_mm: Option<f64>,
    /// Least turns of thread that must engage; null while the thread is not known.
    pub engagement_turns: Option<f64>,
    /// Worst first.
    pub problems: Vec<MountingProblem>,
    pub caution: String,
}

/// After this distance fasteners are tightened again. Common practice: 50 to 100 km.
pub const RETORQUE_KM: f64 = 80.0;

impl FastenersRequest {
    /// Tries the wheel.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(&self) -> Result<FastenersView, ApiError> {
        let mut errors = FieldErrors::default();
        let bore = |errors: &mut FieldErrors, pointer: &str, mm: Option<f64>| {
            let mm = mm?;
            let bore = CenterBore::from_mm(mm);
            if bore.is_none() {
                errors.fault(pointer, format!("{mm} mm is not a bore: from 40 to 200"));
            }
            bore
        };
        let seat = |errors: &mut FieldErrors, pointer: &str, text: Option<&String>| {
            let text = text?;
            let seat = Seat::read(text);
            if seat.is_none() {
                errors
                    .fault(pointer, format!("{text:?} is not a seat: cone 60°, ball R12, R13 or R14, flat"));
            }
            seat
        };
        let circles = |errors: &mut FieldErrors, pointer: &str, text: Option<&String>| {
            let mut found = Vec::new();
            for piece in text.into_iter().flat_map(|text| text.split([',', ';']).take(8)) {
                match line::read_bolt_circles(piece.trim()) {
                    Ok(circles) => found.extend(circles),
                    Err(_) => errors.fault(pointer, format!("{piece:?} is not a bolt circle, as in 5x112")),
                }
            }
            found
        };
        let thread = self.hub.thread.as_ref().and_then(|text| match text.parse::<Thread>() {
            Ok(thread) => Some(thread),
            Err(error) => {
                errors.fault("/hub/thread", error.to_string());
                None
            }
        });
        let lip = self.hub.lip_mm.map(|mm| length(&mut errors, "/hub/lip_mm", mm));
        let hub = Hub {
            bore: bore(&mut errors, "/hub/bore_mm", self.hub.bore_mm),
            lip,
            bolt_circle: circles(&mut errors, "/hub/bolt_circle", self.hub.bolt_circle.as_ref())
                .first()
                .copied(),
            thread,
            seat: seat(&mut errors, "/hub/seat", self.hub.seat.as_ref()),
            fasteners: self.hub.fasteners.as_deref().and_then(|kind| match kind {
                "bolts" => Some(FastenerKind::Bolts),
                "studs" | "studs and nuts" => Some(FastenerKind::Studs),
                other => {
                    errors.fault("/hub/fasteners", format!("{other:?} is neither bolts nor studs"));
                    None
                }
            }),
            ..Hub::default()
        };
        let wheel = WheelSide {
            bore: bore(&mut errors, "/wheel/bore_mm", self.wheel.bore_mm),
            bolt_circles: circles(&mut errors, "/wheel/bolt_circle", self.wheel.bolt_circle.as_ref()),
            seat: seat(&mut errors, "/wheel/seat", self.wheel.seat.as_ref()),
            pad_to_seat: self.wheel.pad_to_seat_mm.map(|mm| length(&mut errors, "/wheel/pad_to_seat_mm", mm)),
            is_the_fitted_one: self.wheel.is_fitted_one,
            center_lock: self.wheel.center_lock,
        };
        if wheel.pad_to_seat.is_some_and(|depth| !(0.0..=60.0).contains(&depth.as_mm())) {
            errors.fault("/wheel/pad_to_seat_mm", "is 0 to 60 mm");
        }
        let spacer = Spacer::from_mm(self.spacer_mm);
        if spacer.is_none() && self.spacer_mm != 0.0 {
            errors.fault("/spacer_mm", format!("{} mm is not a spacer: 0, or up to 100", self.spacer_mm));
        }
        let fitted = self.fitted_length_mm.map(|mm| length(&mut errors, "/fitted_length_mm", mm));
        if fitted.is_some_and(|fitted| !(5.0..=150.0).contains(&fitted.as_mm())) {
            errors.fault("/fitted_length_mm", "a wheel fastener is 5 to 150 mm long");
        }
        errors.finish(())?;
        Ok(mount::mount(&hub, &wheel, spacer, fitted).into())
    }
}

impl From<Mounting> for FastenersView {
    fn from(mounting: Mounting) -> Self {
        Self {
            verdict: mounting.verdict(),
            ring: mounting
                .ring
                .map(|ring| RingView { outer_mm: ring.outer.as_mm(), inner_mm: ring.inner.as_mm() }),
            length_mm: mounting.length.map(Length::as_mm),
            engagement_turns: mounting.least_turns,
            problems: mounting
                .problems
                .into_iter()
                .map(|problem| MountingProblem {
                    kind: match problem.kind {
                        ProblemKind::Stop => "stop",
                        ProblemKind::Mind => "mind",
                        ProblemKind::Unknown => "unknown",
                    },
                    code: problem.code.code(),
                    says: problem.says,
                })
                .collect(),
            caution: retorque_caution(RETORQUE_KM),
        }
    }
}
