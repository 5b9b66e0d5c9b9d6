//! The wheel in motion, for scripts.

use fitment::Setup;
use fitment::car::Fact;
use fitment::car::motion::{
    Carried, Cloud, CloudAnswer, DistanceField, Envelope, MovingWheel, OutOfRange, Reach, Steering,
    SuspensionKind, Sweep, Travel,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::corner::{VerdictCode, choices, coded};
use super::read::FieldErrors;
use crate::problem::ApiError;

/// A steering geometry, measured with the fitted setup. What is left out is taken as usual for the kind of suspension.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct SteeringRequest {
    /// How far the axis leans inboard at its top.
    #[serde(default)]
    pub inclination_deg: Option<f64>,
    /// How far it leans rearward at its top.
    #[serde(default)]
    pub caster_deg: Option<f64>,
    /// How far inboard of the contact's centre the axis meets the ground; negative outboard.
    #[serde(default)]
    pub scrub_radius_mm: Option<f64>,
    /// How far ahead of it.
    #[serde(default)]
    pub trail_mm: Option<f64>,
    /// Full lock with this wheel's front edge outboard: the inner wheel of a turn.
    #[serde(default)]
    pub lock_outward_deg: Option<f64>,
    /// Full lock with its front edge inboard.
    #[serde(default)]
    pub lock_inward_deg: Option<f64>,
}

/// How far the wheel travels. What is left out is taken as usual for the kind of suspension.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct TravelRequest {
    /// Up to the bump stop.
    #[serde(default)]
    pub bump_mm: Option<f64>,
    /// Down to full droop, positive.
    #[serde(default)]
    pub droop_mm: Option<f64>,
    /// Change of camber for each millimetre of bump; negative leans the top inward.
    #[serde(default)]
    pub camber_gain_deg_per_mm: Option<f64>,
}

/// A part of the car as places on its surface.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct ObstacleRequest {
    /// What it is called in the answer.
    pub name: String,
    /// `body`, `steered_upright`, `unsteered_upright` or `arm`.
    pub carrier: String,
    /// x forward, y outboard, z up from where the spin axis meets the bare hub face; at static height, straight.
    pub points_mm: Vec<[f64; 3]>,
}

/// A planned wheel to be turned and moved past parts of a car.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct SweepRequest {
    /// What was fitted when the steering was measured, as a setup line with its tire.
    pub fitted: String,
    /// What is to be swept.
    pub planned: String,
    /// Camber at static height; upright when left out.
    #[serde(default)]
    pub camber_deg: f64,
    /// `strut` (default), `double_wishbone`, `multi_link`, `light_truck` or `solid_axle`: what stands in for what is left out.
    #[serde(default)]
    pub suspension: Option<String>,
    /// The steering; usual for the suspension when left out. An axle that does not steer has locks of 0.
    #[serde(default)]
    pub steering: Option<SteeringRequest>,
    /// The travel; usual for the suspension when left out.
    #[serde(default)]
    pub travel: Option<TravelRequest>,
    /// Which poses: `all` (default), `parking`, `road`, `track` or `off_road`.
    #[serde(default)]
    pub envelope: Option<String>,
    /// The parts.
    pub obstacles: Vec<ObstacleRequest>,
    /// The least room that is wanted; 5 when left out.
    #[serde(default)]
    pub least_mm: Option<f64>,
}

/// Most parts of one sweep.
const MOST_OBSTACLES: usize = 200;
/// Most places of all parts together.
const MOST_POINTS: usize = 50_000;
/// No part of a corner is further from its hub.
const FURTHEST_MM: f64 = 3000.0;
/// Least room wanted when nobody says, as the house wants it to the strut.
const LEAST_MM: f64 = 5.0;
const NAME_LENGTH: usize = 60;

/// Least room to one part.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SweptView {
    /// As it was called.
    pub name: String,
    /// Room at static height, straight; null for a part without a place.
    pub at_rest_mm: Option<f64>,
    /// Least room of all poses.
    pub least_mm: Option<f64>,
    /// Where that is; + = this wheel's front edge outboard.
    pub steer_deg: Option<f64>,
    /// And at which travel; + = bump.
    pub travel_mm: Option<f64>,
    /// The smallest steer angle at static height from which on it touches.
    pub touches_from_steer_deg: Option<f64>,
    /// The smallest travel straight ahead from which on it touches.
    pub touches_from_travel_mm: Option<f64>,
}

/// What a sweep found.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SweepView {
    /// The closed outline of the planned rim and tire, unleaned: y from the hub face, outboard +, and r from the spin axis.
    pub outline_mm: Vec<[f64; 2]>,
    /// Hub to ground with the planned tire.
    pub loaded_radius_mm: f64,
    /// Scrub radius with it.
    pub scrub_radius_mm: f64,
    /// Trail with it.
    pub trail_mm: f64,
    /// Part by part.
    pub obstacles: Vec<SweptView>,
    /// The worst of them; `measure_first` without a place.
    pub verdict: VerdictCode,
    /// Degrees of lock to give up each way for the least room; null where none need be, or that alone does not do.
    pub steering_limiter_deg: Option<f64>,
    /// Bump travel to give up for it; null likewise.
    pub bump_stop_mm: Option<f64>,
    /// What was taken as usual because it was not given.
    pub assumed: Vec<&'static str>,
    /// What must be minded.
    pub caution: &'static str,
}

/// A sweep read into the core's types.
#[derive(Debug)]
pub struct ReadSweep {
    wheel: MovingWheel,
    reach: Reach,
    envelope: Envelope,
    names: Vec<String>,
    clouds: Vec<Cloud>,
    least_mm: f64,
    assumed: Vec<&'static str>,
}

impl SweepRequest {
    /// Reads it.
    ///
    /// # Errors
    /// Every field at fault: lines that cannot be read, axes and travels no car has, too many parts or places.
    pub fn read(&self) -> Result<ReadSweep, ApiError> {
        let mut errors = FieldErrors::default();
        let fitted = whole(&mut errors, "/fitted", &self.fitted);
        let planned = whole(&mut errors, "/planned", &self.planned);
        let suspension = self
            .suspension
            .as_deref()
            .and_then(|code| {
                let found = SuspensionKind::from_code(code);
                coded(&mut errors, "/suspension", code, found, choices!(SuspensionKind))
            })
            .unwrap_or_default();
        let envelope = self
            .envelope
            .as_deref()
            .and_then(|code| {
                coded(&mut errors, "/envelope", code, Envelope::from_code(code), choices!(Envelope))
            })
            .unwrap_or_default();
        if let Err(error) = Fact::Camber.checked(self.camber_deg) {
            errors.fault("/camber_deg", error.to_string());
        }
        let least_mm = self.least_mm.unwrap_or(LEAST_MM);
        if !(0.0..=100.0).contains(&least_mm) {
            errors.fault("/least_mm", format!("must be 0 to 100, not {least_mm}"));
        }
        let mut assumed = Vec::new();
        let usual = suspension.steering(
            fitted
                .and_then(|setup| setup.overall_diameter())
                .map_or(0.0, fitment::car::motion::axis::loaded_radius),
        );
        let steering = self.steering.clone().unwrap_or_default().over(&usual, &mut assumed);
        let travel = self.travel.clone().unwrap_or_default().over(&suspension.travel(), &mut assumed);
        out_of_range(&mut errors, "/steering", steering.faults());
        out_of_range(&mut errors, "/travel", travel.faults());
        let (names, clouds) = self.clouds(&mut errors);
        let wheel = fitted.zip(planned).and_then(|(fitted, planned)| {
            MovingWheel::of(&fitted, &planned, Some(&steering), self.camber_deg, &travel)
        });
        let wheel = errors.finish_with(wheel, "/planned", "name wheel, offset and tire of both")?;
        let reach = Reach {
            outward_deg: steering.lock_outward_deg,
            inward_deg: steering.lock_inward_deg,
            bump_mm: travel.bump_mm,
            droop_mm: travel.droop_mm,
        };
        Ok(ReadSweep { wheel, reach, envelope, names, clouds, least_mm, assumed })
    }

    fn clouds(&self, errors: &mut FieldErrors) -> (Vec<String>, Vec<Cloud>) {
        let places: usize = self.obstacles.iter().map(|one| one.points_mm.len()).sum();
        if self.obstacles.len() > MOST_OBSTACLES {
            errors.fault("/obstacles", format!("more than {MOST_OBSTACLES} parts are not swept at once"));
        }
        if places > MOST_POINTS {
            errors.fault(
                "/obstacles",
                format!("more than {MOST_POINTS} places are not swept at once, there are {places}"),
            );
        }
        let (mut names, mut clouds) = (Vec::new(), Vec::new());
        for (at, one) in self.obstacles.iter().enumerate().take(MOST_OBSTACLES) {
            let pointer = format!("/obstacles/{at}");
            let found = Carried::from_code(&one.carrier);
            let carried =
                coded(errors, &format!("{pointer}/carrier"), &one.carrier, found, choices!(Carried));
            let is_near = |place: &[f64; 3]| place.iter().all(|part| part.abs() <= FURTHEST_MM);
            if let Some(far) = one.points_mm.iter().position(|place| !is_near(place)) {
                errors.fault(
                    &format!("{pointer}/points_mm/{far}"),
                    format!("lies further than {FURTHEST_MM} mm from the hub"),
                );
            }
            names.push(errors.text(&format!("{pointer}/name"), &one.name, NAME_LENGTH));
            let points = one.points_mm.clone();
            clouds.extend(carried.map(|carried| Cloud::new(carried, points)));
        }
        (names, clouds)
    }
}

/// A line that names wheel, offset and tire.
fn whole(errors: &mut FieldErrors, pointer: &str, line: &str) -> Option<Setup> {
    let setup = errors.setup(pointer, Some(line))?;
    if setup.effective_offset().is_none() || setup.overall_diameter().is_none() {
        errors.fault(pointer, "name wheel, offset and tire, as in 18x8.5 ET35 245/40R18");
        return None;
    }
    Some(setup)
}

pub(super) fn out_of_range(errors: &mut FieldErrors, pointer: &str, faults: Vec<OutOfRange>) {
    for fault in faults {
        errors.fault(&format!("{pointer}/{}", fault.field), fault.to_string());
    }
}

impl SteeringRequest {
    pub(super) fn over(&self, usual: &Steering, assumed: &mut Vec<&'static str>) -> Steering {
        let mut or = |given: Option<f64>, name, usual| {
            given.unwrap_or_else(|| {
                assumed.push(name);
                usual
            })
        };
        Steering {
            inclination_deg: or(self.inclination_deg, "inclination_deg", usual.inclination_deg),
            caster_deg: or(self.caster_deg, "caster_deg", usual.caster_deg),
            scrub_radius_mm: or(self.scrub_radius_mm, "scrub_radius_mm", usual.scrub_radius_mm),
            trail_mm: or(self.trail_mm, "trail_mm", usual.trail_mm),
            lock_outward_deg: or(self.lock_outward_deg, "lock_outward_deg", usual.lock_outward_deg),
            lock_inward_deg: or(self.lock_inward_deg, "lock_inward_deg", usual.lock_inward_deg),
        }
    }
}

impl TravelRequest {
    pub(super) fn over(&self, usual: &Travel, assumed: &mut Vec<&'static str>) -> Travel {
        let mut or = |given: Option<f64>, name, usual| {
            given.unwrap_or_else(|| {
                assumed.push(name);
                usual
            })
        };
        Travel {
            bump_mm: or(self.bump_mm, "bump_mm", usual.bump_mm),
            droop_mm: or(self.droop_mm, "droop_mm", usual.droop_mm),
            camber_gain_deg_per_mm: or(
                self.camber_gain_deg_per_mm,
                "camber_gain_deg_per_mm",
                usual.camber_gain_deg_per_mm,
            ),
        }
    }
}

impl ReadSweep {
    /// Sweeps.
    pub fn answer(self) -> SweepView {
        let Self { wheel, reach, envelope, names, clouds, least_mm, assumed } = self;
        let field = DistanceField::of(&wheel.outline);
        let sweep = Sweep {
            field: &field,
            center_y: wheel.center_y,
            kinematics: wheel.kinematics,
            reach,
            envelope,
            least_mm,
        };
        let found = sweep.over(&clouds);
        SweepView {
            outline_mm: wheel.outline_on_the_hub().map(|(y, r)| [y, r]).collect(),
            loaded_radius_mm: wheel.loaded_radius_mm,
            scrub_radius_mm: wheel.scrub_radius_mm.unwrap_or_default(),
            trail_mm: wheel.trail_mm.unwrap_or_default(),
            obstacles: names.into_iter().zip(found.parts).map(SweptView::from).collect(),
            verdict: found.verdict.into(),
            steering_limiter_deg: found.steering_limiter_deg,
            bump_stop_mm: found.bump_stop_mm,
            assumed,
            caution: super::corner::CAUTION,
        }
    }
}

impl From<(String, Option<CloudAnswer>)> for SweptView {
    fn from((name, found): (String, Option<CloudAnswer>)) -> Self {
        Self {
            name,
            at_rest_mm: found.map(|found| found.at_rest_mm),
            least_mm: found.map(|found| found.least_mm),
            steer_deg: found.map(|found| found.at.steer_deg),
            travel_mm: found.map(|found| found.at.travel_mm),
            touches_from_steer_deg: found.and_then(|found| found.touches_from_steer_deg),
            touches_from_travel_mm: found.and_then(|found| found.touches_from_travel_mm),
        }
    }
}
