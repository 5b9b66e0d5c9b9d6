//! A measured corner for scripts, and what a setup and a window look like against it.

use fitment::answers::dynamic_clearance::{Usage, window_in_motion};
use fitment::answers::measurement_plan::{MeasureItem, measure_list};
use fitment::judgement::clearance::{Clearance, Fit, Uncertainty, Verdict, style};
use std::collections::BTreeMap;

use fitment::car::Fact;
use fitment::car::corner::feature::{BlocksFrom, Carrier, Feature};
use fitment::car::corner::recorded::PLAUSIBLE_SECTION_MM;
use fitment::car::corner::{
    CarSide, Corner, Direction, Face, Measured, Moving, Reading, Resolved, Steer, Suspension,
};
use fitment::car::corner::{Trouble, TroubleKind};
use fitment::car::lever::{Lever, Levers, PairLevers};
use fitment::car::limits::HouseLimits;
use fitment::car::motion::SuspensionKind;
use fitment::car::motion::axis::loaded_radius;
use fitment::judgement::case::{AxleCase, AxleEvidence, Keeps};
use fitment::judgement::window::{TireChoice, WidthWindow, widths_round};
use fitment::setup::{Axle, Setup};
use fitment::{Length, RimWidth};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::AxleCode;
use super::ledger::{FragmentView, fragments};
use super::motion::usage::UsageRequest;
use super::read::FieldErrors;
use super::sweep::{SteeringRequest, TravelRequest, out_of_range};
use crate::problem::ApiError;

/// One gap read on the car.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct GapReading {
    /// Code of the part: `strut`, `fender_lateral`, `arch`, …; see `/registry`.
    pub feature: String,
    /// The gap, positive while there is room; from the bare hub the distance.
    pub gap_mm: f64,
    /// How far the instrument may be off, either way.
    pub plus_minus_mm: f64,
    /// `left` or `right`, when noted.
    #[serde(default)]
    pub side: Option<String>,
    /// `ground` (default) or `hanging`.
    #[serde(default)]
    pub stance: Option<String>,
    /// `straight` (default), `lock_left` or `lock_right`.
    #[serde(default)]
    pub steer: Option<String>,
    /// How far from the axle the smallest gap was, when noted.
    #[serde(default)]
    pub radius_mm: Option<f64>,
    /// From which face: `nearest`, `sidewall`, `shoulder` or `flange`; the part's usual one when left out.
    #[serde(default)]
    pub face: Option<String>,
    /// Along which way: `level` or `shortest`; the part's usual one when left out.
    #[serde(default)]
    pub direction: Option<String>,
    /// Where round the wheel, as hours of a clock seen from outboard with the front to the right: 3 ahead, 12 above, 9
    /// behind; the part's usual place when left out.
    #[serde(default)]
    pub clock: Option<f64>,
    /// Read from the bare hub instead of against the fitted wheel.
    #[serde(default)]
    pub bare_hub: bool,
}

/// A corner as measured.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct CornerRequest {
    /// What was fitted when it was measured, as a setup line.
    pub fitted: String,
    /// Camber as aligned; leave it out when nobody knows.
    #[serde(default)]
    pub camber_deg: Option<f64>,
    /// The fitted tire's measured section width, when somebody measured it.
    #[serde(default)]
    pub fitted_section_mm: Option<f64>,
    /// How far that may be off; half a millimetre when left out.
    #[serde(default)]
    pub fitted_section_plus_minus_mm: Option<f64>,
    /// Tread depth of the fitted tire: a worn one makes the arch seem higher than it is.
    #[serde(default)]
    pub tread_depth_mm: Option<f64>,
    /// How the wheel is carried: `strut`, `double_wishbone`, `multi_link`, `light_truck` or `solid_axle`.
    #[serde(default)]
    pub suspension: Option<String>,
    /// Its steering, measured with the fitted setup.
    #[serde(default)]
    pub steering: Option<SteeringRequest>,
    /// How far it travels.
    #[serde(default)]
    pub travel: Option<TravelRequest>,
    /// Whether it stands lower than built: the house's arch limit for lowered cars then counts.
    #[serde(default)]
    pub lowered: bool,
    /// The readings.
    pub readings: Vec<GapReading>,
}

/// Most readings taken at once.
const MOST_READINGS: usize = 200;
/// Most rim widths asked for at once.
const MOST_WIDTHS: usize = 60;

/// A code of a plain enum; `None` notes the fault.
pub(super) fn coded<T: Copy>(
    errors: &mut FieldErrors,
    pointer: &str,
    code: &str,
    found: Option<T>,
    choices: impl FnOnce() -> String,
) -> Option<T> {
    if found.is_none() {
        errors.fault(pointer, format!("{code:?} is not one of {}", choices()));
    }
    found
}

/// The codes of a plain enum, for a message.
macro_rules! choices {
    ($type:ty) => {
        || <$type>::ALL.iter().map(|one| one.code()).collect::<Vec<_>>().join(", ")
    };
}
pub(super) use choices;

/// A length that was given as a number.
pub(super) fn length(errors: &mut FieldErrors, pointer: &str, mm: f64) -> Length {
    Length::from_mm(mm).unwrap_or_else(|| {
        errors.fault(pointer, "is not a finite number");
        Length::ZERO
    })
}

impl GapReading {
    fn read(&self, errors: &mut FieldErrors, pointer: &str, fitted: Setup) -> Option<Reading> {
        let at = |field: &str| format!("{pointer}/{field}");
        let feature = Feature::from_code(&self.feature);
        let feature = coded(errors, &at("feature"), &self.feature, feature, choices!(Feature));
        let gap = length(errors, &at("gap_mm"), self.gap_mm);
        let plus_minus = length(errors, &at("plus_minus_mm"), self.plus_minus_mm);
        let radius = self.radius_mm.map(|radius| length(errors, &at("radius_mm"), radius));
        let side = self
            .side
            .as_deref()
            .and_then(|code| coded(errors, &at("side"), code, CarSide::from_code(code), choices!(CarSide)));
        let stance = self.stance.as_deref().and_then(|code| {
            coded(errors, &at("stance"), code, Suspension::from_code(code), choices!(Suspension))
        });
        let steer = self
            .steer
            .as_deref()
            .and_then(|code| coded(errors, &at("steer"), code, Steer::from_code(code), choices!(Steer)));
        let (face, direction, clock) =
            read_from(errors, pointer, self.face.as_deref(), self.direction.as_deref(), self.clock);
        Some(Reading {
            feature: feature?,
            side,
            gap,
            plus_minus,
            on: (!self.bare_hub).then_some(fitted),
            stance: stance.unwrap_or_default(),
            steer: steer.unwrap_or_else(|| Steer::usual(feature, side)),
            radius,
            face,
            direction,
            clock,
            is_copied: false,
            tried: None,
        })
    }
}

/// From which face, along which way and where round the wheel a gap was read.
pub(super) fn read_from(
    errors: &mut FieldErrors,
    pointer: &str,
    face: Option<&str>,
    direction: Option<&str>,
    clock: Option<f64>,
) -> (Option<Face>, Option<Direction>, Option<f64>) {
    let face = face.and_then(|code| {
        coded(errors, &format!("{pointer}/face"), code, Face::from_code(code), choices!(Face))
    });
    let direction = direction.and_then(|code| {
        let found = Direction::from_code(code);
        coded(errors, &format!("{pointer}/direction"), code, found, choices!(Direction))
    });
    let clock = clock.filter(|hours| {
        let is_hour = (0.0..=12.0).contains(hours);
        if !is_hour {
            errors.fault(&format!("{pointer}/clock"), format!("a clock goes from 0 to 12, not {hours}"));
        }
        is_hour
    });
    (face, direction, clock)
}

impl CornerRequest {
    fn read(&self, errors: &mut FieldErrors) -> Option<(Corner, Setup)> {
        let fitted = placed(errors, "/corner/fitted", &self.fitted);
        if self.readings.len() > MOST_READINGS {
            errors.fault("/corner/readings", format!("more than {MOST_READINGS} readings are not taken"));
            return None;
        }
        if let Some(Err(error)) = self.camber_deg.map(|camber| Fact::Camber.checked(camber)) {
            errors.fault("/corner/camber_deg", error.to_string());
        }
        let on = fitted.unwrap_or_default();
        let readings = self
            .readings
            .iter()
            .enumerate()
            .filter_map(|(at, one)| one.read(errors, &format!("/corner/readings/{at}"), on))
            .collect();
        let plus_minus = self.fitted_section_plus_minus_mm.unwrap_or(0.5);
        if let Some(section) = self.fitted_section_mm.filter(|mm| !PLAUSIBLE_SECTION_MM.contains(mm)) {
            let (least, most) = (PLAUSIBLE_SECTION_MM.start(), PLAUSIBLE_SECTION_MM.end());
            let fault = format!("a tire's section measures {least} to {most} mm, not {section}");
            errors.fault("/corner/fitted_section_mm", fault);
        }
        let fitted_section = self.fitted_section_mm.map(|value| Measured {
            value: length(errors, "/corner/fitted_section_mm", value),
            plus_minus: length(errors, "/corner/fitted_section_plus_minus_mm", plus_minus),
        });
        if let Some(depth) = self.tread_depth_mm.filter(|depth| !(0.0..=20.0).contains(depth)) {
            errors.fault("/corner/tread_depth_mm", format!("a tread is 0 to 20 mm deep, not {depth}"));
        }
        let moving = self.moving(errors, fitted.as_ref());
        let corner = Corner {
            readings,
            camber_deg: self.camber_deg,
            fitted_section,
            is_lowered: self.lowered,
            tread_depth_mm: self.tread_depth_mm,
            moving,
        };
        Some((corner, fitted?))
    }
}

impl CornerRequest {
    /// How it moves; `None` when nothing is said of it.
    fn moving(&self, errors: &mut FieldErrors, fitted: Option<&Setup>) -> Option<Moving> {
        let kind = self.suspension.as_deref().and_then(|code| {
            let found = SuspensionKind::from_code(code);
            coded(errors, "/corner/suspension", code, found, choices!(SuspensionKind))
        });
        if kind.is_none() && self.steering.is_none() && self.travel.is_none() {
            return None;
        }
        let kind = kind.unwrap_or_default();
        let mut assumed = Vec::new();
        let loaded = fitted.and_then(|setup| setup.overall_diameter()).map_or(0.0, loaded_radius);
        let steering = self.steering.clone().unwrap_or_default().over(&kind.steering(loaded), &mut assumed);
        let travel = self.travel.clone().unwrap_or_default().over(&kind.travel(), &mut assumed);
        out_of_range(errors, "/corner/steering", steering.faults());
        out_of_range(errors, "/corner/travel", travel.faults());
        let titles = assumed.into_iter().filter_map(Fact::from_code).map(|fact| fact.facts().title);
        let assumed = titles.collect();
        Some(Moving { kind, steering: Some(steering), travel, camber_by: None, assumed })
    }
}

/// A setup that can be placed: with a wheel and its offset.
fn placed(errors: &mut FieldErrors, pointer: &str, line: &str) -> Option<Setup> {
    let Some(setup) = errors.setup(pointer, Some(line)) else {
        if line.trim().is_empty() {
            errors.fault(pointer, "name a wheel with its offset, as in 18x8.5 ET35 245/40R18");
        }
        return None;
    };
    if setup.effective_offset().is_none() {
        errors.fault(
            pointer,
            "name the wheel and its offset, as in 18x8.5 ET35: without it nothing can be placed",
        );
        return None;
    }
    Some(setup)
}

/// A lever pulled on the car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LeverAmount {
    /// Its code, see `/registry`.
    pub lever: String,
    /// How far: millimetres, or degrees for camber.
    pub amount: f64,
}

/// The levers of one axle, as set.
pub fn lever_amounts(levers: &Levers) -> Vec<LeverAmount> {
    levers
        .that_are_set()
        .map(|(lever, amount)| LeverAmount { lever: lever.code().to_owned(), amount })
        .collect()
}

/// Work on the car that a setup needs.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::car::lever::Facts")]
pub struct WorkView {
    pub axle: AxleCode,
    pub lever: &'static str,
    pub title: &'static str,
    pub amount: f64,
    pub in_degrees: bool,
    pub costs: &'static str,
    pub caution: &'static str,
}

/// What is counted as done to the car, from mild to hard.
pub fn work_of(levers: &PairLevers) -> Vec<WorkView> {
    let on = |axle: Axle| {
        levers.on(axle).that_are_set().map(move |(lever, amount)| {
            let facts = lever.facts();
            WorkView {
                axle: axle.into(),
                lever: facts.code,
                title: facts.title,
                amount,
                in_degrees: facts.in_degrees,
                costs: facts.costs,
                caution: facts.caution,
            }
        })
    };
    Axle::BOTH.into_iter().flat_map(on).collect()
}

/// Reads levers; faults are noted.
pub(super) fn read_levers(errors: &mut FieldErrors, pointer: &str, given: &[LeverAmount]) -> Levers {
    let mut levers = Levers::default();
    for (at, one) in given.iter().enumerate() {
        let pointer = format!("{pointer}/{at}");
        let lever = Lever::from_code(&one.lever);
        let lever = coded(errors, &format!("{pointer}/lever"), &one.lever, lever, choices!(Lever));
        let Some(lever) = lever else { continue };
        if given[..at].iter().any(|before| before.lever == one.lever) {
            let title = lever.facts().title;
            errors.fault(
                &format!("{pointer}/lever"),
                format!("{title} stands here twice: give it once, with all of it"),
            );
        } else if let Err(error) = levers.set(lever, one.amount) {
            errors.fault(&format!("{pointer}/amount"), error.to_string());
        }
    }
    levers
}

/// What of the fitted set stays on the car; where nothing is said, equal lines are the same parts. What stays is not counted
/// as new: its own tolerance is in the reading already.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
pub struct KeepsRequest {
    /// The very wheel.
    #[serde(default)]
    pub wheel: Option<bool>,
    /// The very tire.
    #[serde(default)]
    pub tire: Option<bool>,
}

impl From<KeepsRequest> for Keeps {
    fn from(given: KeepsRequest) -> Self {
        Self { wheel: given.wheel, tire: given.tire }
    }
}

/// A setup to be tried against a measured corner.
#[derive(Debug, Deserialize, ToSchema)]
pub struct FitRequest {
    /// The corner.
    pub corner: CornerRequest,
    /// The planned setup line.
    pub planned: String,
    /// Limits other than the house's, by code: `{"strut_mm": 6}`.
    #[serde(default)]
    pub limits: BTreeMap<String, f64>,
    /// What else is done to the car.
    #[serde(default)]
    pub levers: Vec<LeverAmount>,
    /// What of the fitted set stays.
    #[serde(default)]
    pub keeps: Option<KeepsRequest>,
}

/// A window to be worked out for a measured corner.
#[derive(Debug, Deserialize, ToSchema)]
pub struct WindowRequest {
    /// The corner.
    pub corner: CornerRequest,
    /// The setup whose tire, rim diameter and spacer are meant; what is fitted when left out.
    #[serde(default)]
    pub planned: Option<String>,
    /// Rim widths; when left out the half inches round what is fitted and planned.
    #[serde(default)]
    pub rim_widths_in: Option<Vec<f64>>,
    /// `same` (default): the same tire on every width; `nearest_square`: the size that stands squarest on it.
    #[serde(default)]
    pub tire_choice: Option<TireChoiceCode>,
    /// Limits other than the house's, by code.
    #[serde(default)]
    pub limits: BTreeMap<String, f64>,
    /// What else is done to the car.
    #[serde(default)]
    pub levers: Vec<LeverAmount>,
    /// What of the fitted set stays.
    #[serde(default)]
    pub keeps: Option<KeepsRequest>,
    /// How the car is used: then the window that clears on the road as well is answered beside the one that stands.
    #[serde(default)]
    pub usage: Option<UsageRequest>,
}

/// What a window is asked of: the corner, the widths, and the use when it is to clear in motion too.
pub type ReadWindow = (ReadCorner, Vec<RimWidth>, Option<Usage>);

/// Which tire goes on each rim width.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TireChoiceCode {
    /// The same tire on every width.
    #[default]
    Same,
    /// The size that stands squarest on the width.
    NearestSquare,
}

impl From<TireChoiceCode> for TireChoice {
    fn from(code: TireChoiceCode) -> Self {
        match code {
            TireChoiceCode::Same => Self::Same,
            TireChoiceCode::NearestSquare => Self::NearestSquare,
        }
    }
}

fn read_limits(errors: &mut FieldErrors, house: &HouseLimits, given: &BTreeMap<String, f64>) -> HouseLimits {
    let mut limits = *house;
    for (code, value) in given {
        if let Err(error) = limits.set(code, *value) {
            errors.fault(&format!("/limits/{code}"), error.to_string());
        }
    }
    limits
}

/// A request read into the core's types.
#[derive(Debug)]
pub struct ReadCorner {
    corner: Corner,
    fitted: Setup,
    planned: Setup,
    limits: HouseLimits,
    levers: Levers,
    evidence: AxleEvidence,
}

/// Evidence of nothing but what stays.
fn kept(keeps: Option<KeepsRequest>) -> AxleEvidence {
    AxleEvidence { keeps: keeps.unwrap_or_default().into(), ..AxleEvidence::default() }
}

impl ReadCorner {
    fn with_trial<T>(&self, ask: impl FnOnce(&AxleCase<'_>, &Resolved) -> T) -> T {
        let resolved = self.corner.resolve();
        let case =
            AxleCase::new(Axle::Front, &self.corner, &resolved, &self.fitted, &self.limits, &self.levers);
        ask(&AxleCase { evidence: &self.evidence, ..case }, &resolved)
    }
}

impl FitRequest {
    /// Into the core's types.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self, house: &HouseLimits) -> Result<ReadCorner, ApiError> {
        let mut errors = FieldErrors::default();
        let corner = self.corner.read(&mut errors);
        let planned = placed(&mut errors, "/planned", &self.planned);
        let limits = read_limits(&mut errors, house, &self.limits);
        let levers = read_levers(&mut errors, "/levers", &self.levers);
        let (corner, fitted) = corner.unwrap_or_default();
        let planned = planned.unwrap_or_default();
        let evidence = kept(self.keeps);
        errors.finish(ReadCorner { corner, fitted, planned, limits, levers, evidence })
    }
}

impl WindowRequest {
    /// Into the core's types.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self, house: &HouseLimits) -> Result<ReadWindow, ApiError> {
        let mut errors = FieldErrors::default();
        let usage = self.usage.as_ref().map(|usage| usage.read(&mut errors, "/usage"));
        let corner = self.corner.read(&mut errors);
        let planned = self.planned.as_deref().map(|line| placed(&mut errors, "/planned", line));
        let limits = read_limits(&mut errors, house, &self.limits);
        let levers = read_levers(&mut errors, "/levers", &self.levers);
        let (corner, fitted) = corner.unwrap_or_default();
        let planned = planned.map_or(fitted, Option::unwrap_or_default);
        let widths = match &self.rim_widths_in {
            None => widths_round(Some(&fitted), Some(&planned)),
            Some(given) if given.len() > MOST_WIDTHS => {
                errors.fault("/rim_widths_in", format!("more than {MOST_WIDTHS} widths are not worked out"));
                Vec::new()
            }
            Some(given) => given
                .iter()
                .enumerate()
                .filter_map(|(at, width)| {
                    let code = RimWidth::from_code(*width);
                    if code.is_none() {
                        errors
                            .fault(&format!("/rim_widths_in/{at}"), format!("{width} in is not a rim width"));
                    }
                    code
                })
                .collect(),
        };
        let evidence = kept(self.keeps);
        errors.finish((ReadCorner { corner, fitted, planned, limits, levers, evidence }, widths, usage))
    }
}

/// How a line or a setup stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs, reason = "see fitment::judgement::clearance::Verdict")]
pub enum VerdictCode {
    Clears,
    Tight,
    MeasureFirst,
    Touches,
}

impl From<Verdict> for VerdictCode {
    fn from(verdict: Verdict) -> Self {
        match verdict {
            Verdict::Clears => Self::Clears,
            Verdict::Tight => Self::Tight,
            Verdict::MeasureFirst => Self::MeasureFirst,
            Verdict::Touches => Self::Touches,
        }
    }
}

/// Where a part of the car begins, to be drawn. Corner frame: y outboard from the hub face, height above the
/// axle.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct PlaceView {
    /// Sideways; null for what is above the tire.
    pub y_mm: Option<f64>,
    /// Above the axle; null for what was read without noting the height.
    pub height_mm: Option<f64>,
}

/// A part of the car and the room to it. Figures are null while it was not read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct ClearanceView {
    pub feature: &'static str,
    /// Its name in a sentence.
    pub name: &'static str,
    /// `left` or `right`, when noted.
    pub side: Option<&'static str>,
    /// The nearest way.
    pub nominal_mm: Option<f64>,
    /// The same the way it was read; null where that is the nearest way.
    pub as_read: Option<AsReadView>,
    /// Half of the likely band.
    pub plus_minus_mm: Option<f64>,
    pub likely_low_mm: Option<f64>,
    pub likely_high_mm: Option<f64>,
    pub worst_low_mm: Option<f64>,
    pub worst_high_mm: Option<f64>,
    pub limit_mm: f64,
    pub verdict: VerdictCode,
    /// The gap that must be found with the fitted wheel, where it was not read.
    pub must_find_mm: Option<f64>,
    /// Where it begins; null for what is known only by its gap.
    pub place: Option<PlaceView>,
    /// Whether it is fixed to the body, and stands still while the wheel leans.
    pub is_of_the_body: bool,
    /// Whether it bounds the wheel from inboard.
    pub is_inboard: bool,
    /// What may be off, largest first.
    pub contributions: Vec<ContributionView>,
}

/// A room the way it was read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AsReadView {
    /// So much, negative is an overlap.
    pub value_mm: f64,
    /// Along which way: `level` or `shortest`.
    pub direction: &'static str,
}

impl From<(Length, Direction)> for AsReadView {
    fn from((room, way): (Length, Direction)) -> Self {
        Self { value_mm: room.as_mm(), direction: way.code() }
    }
}

/// Something that may be off.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ContributionView {
    pub what: &'static str,
    pub plus_minus_mm: f64,
    /// Where that comes from.
    pub source: &'static str,
}

impl ClearanceView {
    /// A line, its part drawn where it stands with what is done to the car.
    pub fn new(line: &Clearance) -> Self {
        let band = line.band.as_ref();
        let mm = |of: fn(&Uncertainty) -> Length| band.map(|band| of(band).as_mm());
        let place = line.drawn_at.map(|(y_mm, height_mm)| PlaceView { y_mm, height_mm });
        Self {
            feature: line.feature.code(),
            name: line.feature.facts().name,
            side: line.obstacle.and_then(|obstacle| obstacle.side).map(CarSide::code),
            nominal_mm: mm(|band| band.nominal),
            as_read: line.as_read.map(AsReadView::from),
            plus_minus_mm: mm(Uncertainty::likely),
            likely_low_mm: mm(Uncertainty::likely_low),
            likely_high_mm: mm(Uncertainty::likely_high),
            worst_low_mm: mm(Uncertainty::worst_low),
            worst_high_mm: mm(Uncertainty::worst_high),
            limit_mm: line.limit.as_mm(),
            verdict: line.verdict.into(),
            must_find_mm: line.must_find.map(Length::as_mm),
            place,
            is_of_the_body: line.feature.carrier() == Carrier::Body,
            is_inboard: line.feature.blocks_from() == BlocksFrom::Inboard,
            contributions: band
                .map_or(&[][..], |band| &band.contributions)
                .iter()
                .map(|one| ContributionView {
                    what: one.what(),
                    plus_minus_mm: one.plus_minus().as_mm(),
                    source: one.source.cite,
                })
                .collect(),
        }
    }
}

/// One row of the measure list.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasureView {
    /// On which axle.
    pub axle: AxleCode,
    /// Code of what is to be read.
    pub feature: &'static str,
    /// Its title.
    pub title: &'static str,
    /// Where to put the gauge.
    pub how: &'static str,
    /// The gap that must be found with the fitted wheel for the plan to clear; null where there is no figure.
    pub must_find_mm: Option<f64>,
    /// Why it is asked for.
    pub why: Vec<FragmentView>,
    /// How likely it is to decide the plan, 0 to 1.
    pub power: f64,
    /// Whether it decides more often than not.
    pub decides: bool,
    /// Whether it must be read at full lock, each way.
    pub at_lock: bool,
}

/// What one reading answers.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasureGroupView {
    /// On which axle.
    pub axle: AxleCode,
    /// What is said of all of them; null for a part by itself.
    pub says: Option<Vec<FragmentView>>,
    /// The rows, the most decisive first.
    pub items: Vec<MeasureView>,
    /// Whether it is told before the rest.
    pub told_first: bool,
}

/// The rows of both axles by what one reading answers, the most decisive first.
pub fn measure_groups(items: Vec<MeasureItem>) -> Vec<MeasureGroupView> {
    let groups = fitment::answers::measurement_plan::grouped(items).into_iter().enumerate();
    groups
        .map(|(at, group)| MeasureGroupView {
            axle: group.axle.into(),
            says: group.says.map(fragments),
            items: group.items.into_iter().map(MeasureView::from).collect(),
            told_first: at < fitment::answers::measurement_plan::TOLD_FIRST,
        })
        .collect()
}

impl From<MeasureItem> for MeasureView {
    fn from(item: MeasureItem) -> Self {
        let at_lock = matches!(item.to_read, fitment::car::corner::ToRead::Gap(part) if part.facts().at_lock);
        Self {
            axle: item.axle.into(),
            feature: item.to_read.code(),
            title: item.to_read.title(),
            how: item.to_read.how(),
            must_find_mm: item.must_find.map(Length::as_mm),
            why: fragments(item.why),
            power: item.power,
            decides: item.power > fitment::judgement::clearance::DECIDES_FROM,
            at_lock,
        }
    }
}

/// A reading that is kept, marked and explained.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TroubleView {
    /// Which of the readings, counted from 0.
    pub reading: usize,
    /// `impossible`, `contradicts` or `not_usable`.
    pub kind: &'static str,
    /// The reading it contradicts.
    pub other: Option<usize>,
    /// Why.
    pub says: Vec<FragmentView>,
}

impl TroubleView {
    /// A trouble, its readings counted as the caller does.
    pub fn new(trouble: &Trouble, count: impl Fn(usize) -> usize) -> Self {
        Self {
            reading: count(trouble.reading),
            kind: match trouble.kind {
                TroubleKind::Impossible => "impossible",
                TroubleKind::Contradicts => "contradicts",
                TroubleKind::NotUsable => "not_usable",
            },
            other: trouble.other.map(count),
            says: fragments(trouble.says.clone()),
        }
    }
}

/// A setup tried against a measured corner.
#[derive(Debug, Serialize, ToSchema)]
pub struct FitView {
    /// The worst line.
    pub verdict: VerdictCode,
    /// A line for each part.
    pub clearances: Vec<ClearanceView>,
    /// `tucked`, `flush` or `poke`; null while the fender lip was not read.
    pub style: Option<&'static str>,
    /// What must still be read, the most decisive first.
    pub measure_list: Vec<MeasureView>,
    /// Readings with something wrong.
    pub troubles: Vec<TroubleView>,
    /// What must be minded.
    pub caution: &'static str,
}

/// What stands beside every verdict.
pub const CAUTION: &str = "A plan does not replace a trial fit: turn lock to lock and load the suspension before the first \
     drive. Local codes and a licensed inspector decide.";

impl ReadCorner {
    /// Tries the setup.
    pub fn fit(&self) -> FitView {
        self.with_trial(|trial, resolved| {
            let fit = trial.fit(&self.planned).unwrap_or(Fit {
                verdict: Verdict::MeasureFirst,
                clearances: Vec::new(),
                unread: Vec::new(),
            });
            let measure_list = measure_list(trial, &fit);
            FitView {
                verdict: fit.verdict.into(),
                clearances: fit.clearances.iter().map(ClearanceView::new).collect(),
                style: style(trial, &self.planned).map(|style| style.style.word()),
                measure_list: measure_list.into_iter().map(MeasureView::from).collect(),
                troubles: resolved.troubles.iter().map(|one| TroubleView::new(one, |at| at)).collect(),
                caution: CAUTION,
            }
        })
    }

    /// Works out the window; with a use of the car the one that clears on the road as well.
    pub fn window(&self, widths: &[RimWidth], choice: TireChoiceCode, usage: Option<&Usage>) -> WindowView {
        let views = |windows: Vec<WidthWindow>| windows.into_iter().map(WidthView::from).collect();
        self.with_trial(|trial, resolved| {
            let standing = trial.window(&self.planned, choice.into(), widths, None);
            let moving = usage.and_then(|usage| window_in_motion(trial, &self.planned, &standing, usage));
            WindowView {
                widths: views(standing),
                on_the_road: moving.map(views),
                troubles: resolved.troubles.iter().map(|one| TroubleView::new(one, |at| at)).collect(),
                caution: CAUTION,
            }
        })
    }
}

/// One rim width of a window. A bound is null where it is open.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit; the rules stand in fitment")]
pub struct WidthView {
    pub rim_width_in: f64,
    pub offset_min_mm: Option<f64>,
    pub offset_max_mm: Option<f64>,
    /// Code of the part that sets the least offset.
    pub min_bound_by: Option<&'static str>,
    /// Code of the part that sets the most offset.
    pub max_bound_by: Option<&'static str>,
    /// Their names.
    pub min_bound_name: Option<&'static str>,
    pub max_bound_name: Option<&'static str>,
    /// Where it is wanted outside of the fender's lip, so that the lip sets no least offset: the word of a wheel that stands there.
    pub past_the_lip: Option<VerdictCode>,
    /// Whether any offset clears.
    pub clears: bool,
    /// How much room is missing between the two edges; null where there is some.
    pub short_by_mm: Option<f64>,
    /// Parts that no offset clears.
    pub blocked_by: Vec<&'static str>,
    /// The tire it was worked out with.
    pub tire: Option<String>,
    /// Whether that tire may be put on this width.
    pub tire_permitted: bool,
    /// Offsets of the wanted style.
    pub wanted_min_mm: Option<f64>,
    pub wanted_max_mm: Option<f64>,
}

impl WidthView {
    /// To a hundredth of a millimetre, as it is drawn.
    #[must_use]
    pub fn rounded(self) -> Self {
        let to = |mm: Option<f64>| mm.map(|mm| (mm * 100.0).round() / 100.0);
        Self {
            offset_min_mm: to(self.offset_min_mm),
            offset_max_mm: to(self.offset_max_mm),
            short_by_mm: to(self.short_by_mm),
            wanted_min_mm: to(self.wanted_min_mm),
            wanted_max_mm: to(self.wanted_max_mm),
            ..self
        }
    }
}

impl From<WidthWindow> for WidthView {
    fn from(window: WidthWindow) -> Self {
        let clears = window.is_open();
        let name = |feature: Feature| feature.facts().name;
        Self {
            rim_width_in: window.rim_width.code(),
            offset_min_mm: window.least.map(|edge| edge.offset_mm),
            offset_max_mm: window.most.map(|edge| edge.offset_mm),
            min_bound_by: window.least.map(|edge| edge.bound_by.code()),
            max_bound_by: window.most.map(|edge| edge.bound_by.code()),
            min_bound_name: window.least.map(|edge| name(edge.bound_by)),
            max_bound_name: window.most.map(|edge| name(edge.bound_by)),
            past_the_lip: window.past_the_lip.map(VerdictCode::from),
            clears,
            short_by_mm: window.short_by().map(Length::as_mm),
            blocked_by: window.blocked_by.iter().map(|part| part.code()).collect(),
            tire: window.tire.map(|tire| tire.to_string()),
            tire_permitted: window.is_permitted,
            wanted_min_mm: window.wanted.and_then(|wanted| wanted.0),
            wanted_max_mm: window.wanted.and_then(|wanted| wanted.1),
        }
    }
}

/// A fit window.
#[derive(Debug, Serialize, ToSchema)]
pub struct WindowView {
    /// Each rim width, narrowest first.
    pub widths: Vec<WidthView>,
    /// The same widths as far as they clear over all that the asked use reaches; null where no use was asked, or nothing that
    /// moves was read.
    pub on_the_road: Option<Vec<WidthView>>,
    /// Readings with something wrong.
    pub troubles: Vec<TroubleView>,
    /// What must be minded.
    pub caution: &'static str,
}
