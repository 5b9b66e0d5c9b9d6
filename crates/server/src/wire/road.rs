//! Road and track for scripts: gearing, corner loads, hot and cold pressures, a class, wear.

use fitment::Setup;
use fitment::road::rolling::{Driveline, DrivelineError, Gearing};
use fitment::road::track::{CarAtLimit, Four, Position, cold_pressure_kpa, hot_pressure_kpa};
use fitment::road::tread::{Depths, Wear, wear};
use fitment::values::length::Length;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::read::FieldErrors;
use crate::problem::ApiError;

/// Notes a figure that is out of what it can be.
fn within(errors: &mut FieldErrors, pointer: &str, what: &str, value: f64, (least, most): (f64, f64)) {
    if !value.is_finite() || !(least..=most).contains(&value) {
        errors.fault(pointer, format!("{what} goes from {least} to {most}, not {value}"));
    }
}

/// A plan on the road.
#[derive(Debug, Deserialize, ToSchema)]
pub struct RoadRequest {
    /// Overall diameter that the gearing and the dial are told.
    pub reference_diameter_mm: f64,
    /// The planned setup line; its tire counts.
    pub planned: String,
    /// The driveline.
    pub gears: GearsRequest,
    /// Speed of the cruise, in top gear.
    pub cruise_kmh: f64,
}

/// A driveline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearsRequest {
    /// Gears, first to top.
    pub ratios: Vec<f64>,
    /// Final drive.
    #[serde(rename = "final")]
    pub final_drive: f64,
    /// Low range of a transfer case.
    #[serde(default)]
    pub low_range: Option<f64>,
    /// Engine speed at the limiter.
    pub limiter_rpm: f64,
}

impl GearsRequest {
    /// Checked.
    pub fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Option<Driveline> {
        let driveline = Driveline {
            ratios: self.ratios.clone(),
            final_drive: self.final_drive,
            low_range: self.low_range,
            limiter_rpm: self.limiter_rpm,
        };
        driveline
            .checked()
            .map_err(|error| {
                let at = match error {
                    DrivelineError::Order { at, .. } => format!("{pointer}/ratios/{}", at - 1),
                    _ => pointer.to_owned(),
                };
                errors.fault(&at, error.to_string());
            })
            .ok()
    }
}

/// One gear.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct GearView {
    pub ratio: f64,
    pub kmh_per_1000rpm: f64,
    pub limiter_kmh: f64,
}

/// What a plan does once it rolls.
#[derive(Debug, Serialize, ToSchema)]
pub struct RoadView {
    /// True speed over shown.
    pub true_speed_ratio: f64,
    /// Final drive that the reference tire would need for the same.
    pub effective_final: f64,
    /// Gear by gear.
    pub gears: Vec<GearView>,
    /// Engine speed at the cruise.
    pub cruise_rpm: f64,
    /// First × low range × final; null without a low range.
    pub crawl_ratio: Option<f64>,
    /// Change of the force at the road.
    pub tractive_effort_change_pct: f64,
}

impl From<Gearing> for RoadView {
    fn from(gearing: Gearing) -> Self {
        let gear = |one: &fitment::road::rolling::Gear| GearView {
            ratio: one.ratio,
            kmh_per_1000rpm: one.kmh_per_1000rpm,
            limiter_kmh: one.limiter_kmh,
        };
        Self {
            true_speed_ratio: gearing.true_speed_ratio,
            effective_final: gearing.effective_final,
            gears: gearing.gears.iter().map(gear).collect(),
            cruise_rpm: gearing.cruise_rpm,
            crawl_ratio: gearing.crawl_ratio,
            tractive_effort_change_pct: gearing.tractive_effort_change_pct,
        }
    }
}

impl RoadRequest {
    /// What it comes to.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(&self) -> Result<RoadView, ApiError> {
        let mut errors = FieldErrors::default();
        let mm = self.reference_diameter_mm;
        within(&mut errors, "/reference_diameter_mm", "an overall diameter", mm, (300.0, 1400.0));
        within(&mut errors, "/cruise_kmh", "a cruise", self.cruise_kmh, (1.0, 500.0));
        let setup = errors.setup("/planned", Some(&self.planned));
        let planned = setup.as_ref().and_then(Setup::overall_diameter);
        if setup.is_some() && planned.is_none() {
            errors.fault("/planned", "names no tire, as in 18x8.5 ET35 245/40R18");
        }
        let driveline = self.gears.read(&mut errors, "/gears");
        let reference = Length::from_mm(self.reference_diameter_mm);
        let all = reference.zip(planned).zip(driveline);
        let ((reference, planned), driveline) = errors.finish_with(all, "/planned", "names no tire")?;
        Ok(Gearing::of(&driveline, reference, planned, self.cruise_kmh).into())
    }
}

/// A car and what it does.
#[derive(Debug, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::road::track::CarAtLimit")]
pub struct LoadsRequest {
    pub mass_kg: f64,
    pub front_share: f64,
    pub cg_height_m: f64,
    pub wheelbase_m: f64,
    pub track_front_m: f64,
    pub track_rear_m: f64,
    pub roll_share_front: f64,
    /// + in a left turn: the right side is the outer one.
    #[serde(default)]
    pub lateral_g: f64,
    /// + under braking.
    #[serde(default)]
    pub longitudinal_g: f64,
    #[serde(default)]
    pub downforce_kg: f64,
    #[serde(default = "half")]
    pub downforce_front_share: f64,
}

fn half() -> f64 {
    0.5
}

/// A figure for each wheel.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "front or rear, left or right")]
pub struct FourView {
    pub fl: f64,
    pub fr: f64,
    pub rl: f64,
    pub rr: f64,
}

impl From<Four> for FourView {
    fn from([fl, fr, rl, rr]: Four) -> Self {
        Self { fl, fr, rl, rr }
    }
}

/// What each wheel carries.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadsView {
    /// At rest.
    pub static_kg: FourView,
    /// In the case.
    pub loads_kg: FourView,
    /// Wheels in the air: `fl`, `fr`, `rl`, `rr`.
    pub lifted: Vec<&'static str>,
}

impl LoadsRequest {
    /// What it comes to.
    ///
    /// # Errors
    /// Every figure that no car has.
    pub fn answer(&self) -> Result<LoadsView, ApiError> {
        let car = CarAtLimit {
            mass_kg: self.mass_kg,
            front_share: self.front_share,
            cg_height_m: self.cg_height_m,
            wheelbase_m: self.wheelbase_m,
            track_front_m: self.track_front_m,
            track_rear_m: self.track_rear_m,
            roll_share_front: self.roll_share_front,
            lateral_g: self.lateral_g,
            longitudinal_g: self.longitudinal_g,
            downforce_kg: self.downforce_kg,
            downforce_front_share: self.downforce_front_share,
        };
        let mut errors = FieldErrors::default();
        let checked = car.checked().map_err(|faults| {
            for fault in faults {
                errors.fault(&format!("/{}", fault.field), fault.to_string());
            }
        });
        let car = errors.finish_with(checked.ok(), "", "is no car")?;
        let loads = car.loads();
        Ok(LoadsView {
            static_kg: loads.static_kg.into(),
            loads_kg: loads.loads_kg.into(),
            lifted: loads.lifted.into_iter().map(Position::code).collect(),
        })
    }
}

/// A cold or a hot pressure, gauge, and both temperatures.
#[derive(Debug, Deserialize, ToSchema)]
pub struct HotPressureRequest {
    /// Set cold; the hot one is answered.
    #[serde(default)]
    pub cold_kpa: Option<f64>,
    /// Wanted hot; the cold one is answered.
    #[serde(default)]
    pub hot_kpa: Option<f64>,
    /// Temperature of the air when it is set.
    pub cold_c: f64,
    /// Temperature of the air in the tire at work.
    pub hot_c: f64,
}

/// The other pressure.
#[derive(Debug, Serialize, ToSchema)]
pub struct HotPressureView {
    /// Hot, when a cold one was given.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hot_kpa: Option<f64>,
    /// Cold, when a hot one was given.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cold_kpa: Option<f64>,
    /// What must be minded.
    pub caution: &'static str,
}

/// Stands beside every cold pressure for the track.
pub const COLD_CAUTION: &str = "A cold pressure lowered for the track is raised to the placard's before driving home: \
                                on the road it is never under it.";

impl HotPressureRequest {
    /// What it comes to.
    ///
    /// # Errors
    /// Every figure at fault; both pressures or none.
    pub fn answer(&self) -> Result<HotPressureView, ApiError> {
        let mut errors = FieldErrors::default();
        within(&mut errors, "/cold_c", "the air's temperature", self.cold_c, (-60.0, 70.0));
        within(&mut errors, "/hot_c", "the tire's temperature", self.hot_c, (-60.0, 200.0));
        for (pointer, given) in [("/cold_kpa", self.cold_kpa), ("/hot_kpa", self.hot_kpa)] {
            if let Some(kpa) = given {
                within(&mut errors, pointer, "a pressure", kpa, TIRE_KPA);
            }
        }
        let (hot_kpa, cold_kpa) = match (self.cold_kpa, self.hot_kpa) {
            (Some(cold), None) => (Some(hot_pressure_kpa(cold, self.cold_c, self.hot_c)), None),
            (None, Some(hot)) => (None, Some(cold_pressure_kpa(hot, self.cold_c, self.hot_c))),
            (Some(_), Some(_)) => {
                errors.fault("/hot_kpa", "give the cold or the hot pressure, not both");
                (None, None)
            }
            (None, None) => {
                errors.fault("/cold_kpa", "give a cold or a hot pressure");
                (None, None)
            }
        };
        errors.finish(HotPressureView { hot_kpa, cold_kpa, caution: COLD_CAUTION })
    }
}

/// Depths that a tread can have, in millimetres.
pub const DEPTH_MM: (f64, f64) = (0.0, 25.0);
/// Temperatures that a tread can have, in °C.
pub const TREAD_C: (f64, f64) = (-60.0, 250.0);
/// Pressures that a tire can have, in kPa.
pub const TIRE_KPA: (f64, f64) = (30.0, 1200.0);

/// Depths of a tire at one time.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct DepthsRequest {
    /// The day, as in 2026-05-02.
    #[serde(default)]
    pub at: String,
    /// Driven since it was mounted.
    #[serde(default)]
    pub distance_km: Option<f64>,
    /// Runs since it was mounted.
    #[serde(default)]
    pub runs: Option<f64>,
    pub inner_mm: f64,
    pub middle_mm: f64,
    pub outer_mm: f64,
    /// Where the tire stood then: `fl`, `fr`, `rl`, `rr`; null when nobody noted it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stood_at: Option<String>,
    /// Whether the tire was turned over on its rim by then: what was its inner shoulder then stands outside.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub turned_over: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cold_kpa: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hot_kpa: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inner_c: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub middle_c: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outer_c: Option<f64>,
}

impl DepthsRequest {
    /// Depths of the tire's own shoulders, as it was first mounted: a tire that was turned over has them the other way
    /// round on the car.
    pub fn shoulders_mm(&self) -> [f64; 3] {
        let [inner, outer] =
            if self.turned_over { [self.outer_mm, self.inner_mm] } else { [self.inner_mm, self.outer_mm] };
        [inner, self.middle_mm, outer]
    }

    /// Its three temperatures, when all of them were read.
    pub fn celsius(&self) -> Option<[f64; 3]> {
        Some([self.inner_c?, self.middle_c?, self.outer_c?])
    }

    /// Faults of what was read beside the depths.
    fn check_beside(&self, errors: &mut FieldErrors, pointer: &str) {
        let is_place = |place: &String| Position::ALL.iter().any(|one| one.code() == place);
        if self.stood_at.as_ref().is_some_and(|place| !is_place(place)) {
            errors.fault(&format!("{pointer}/stood_at"), "is fl, fr, rl or rr");
        }
        for (name, kpa) in [("cold_kpa", self.cold_kpa), ("hot_kpa", self.hot_kpa)] {
            if let Some(kpa) = kpa {
                within(errors, &format!("{pointer}/{name}"), "a pressure", kpa, TIRE_KPA);
            }
        }
        for (name, celsius) in
            [("inner_c", self.inner_c), ("middle_c", self.middle_c), ("outer_c", self.outer_c)]
        {
            if let Some(celsius) = celsius {
                within(
                    errors,
                    &format!("{pointer}/{name}"),
                    "a tread's temperature",
                    celsius,
                    (-60.0, 250.0),
                );
            }
        }
    }

    /// The least of its three depths.
    pub fn least_mm(&self) -> f64 {
        self.inner_mm.min(self.middle_mm).min(self.outer_mm)
    }
}

/// A season of one tire.
#[derive(Debug, Deserialize, ToSchema)]
pub struct WearRequest {
    /// Readings in the order they were taken.
    pub readings: Vec<DepthsRequest>,
    /// Depth at which it is done.
    pub limit_mm: f64,
}

/// How it wears.
#[derive(Debug, Serialize, ToSchema)]
pub struct WearView {
    /// Where the tread is used up first, by distance.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub rate_mm_per_1000_km: Option<f64>,
    /// The same by runs.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub rate_mm_per_run: Option<f64>,
    /// Standard error of the rate; null with fewer than three readings.
    pub plus_minus: Option<f64>,
    /// Distance left.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left_km: Option<f64>,
    /// Runs left.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left_runs: Option<f64>,
    /// The pattern in words; null without a reading.
    pub pattern: Option<&'static str>,
    /// Readings that grew, by their place: kept, and left out of the rate.
    pub left_out: Vec<usize>,
}

const MOST_READINGS: usize = 5000;

impl WearRequest {
    /// What it comes to.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn answer(&self) -> Result<WearView, ApiError> {
        Ok(self.view(&self.wear()?))
    }

    /// Whether runs count, and not kilometres.
    fn is_by_runs(&self) -> bool {
        self.readings.iter().any(|reading| reading.runs.is_some())
    }

    /// The season itself, in runs or thousands of kilometres.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn wear(&self) -> Result<Wear, ApiError> {
        let mut errors = FieldErrors::default();
        within(&mut errors, "/limit_mm", "a limit", self.limit_mm, (0.0, 15.0));
        if self.readings.len() > MOST_READINGS {
            errors.fault("/readings", format!("more than {MOST_READINGS} readings are not weighed at once"));
        }
        let by_runs = self.is_by_runs();
        let mut before = 0.0;
        let mut depths = Vec::with_capacity(self.readings.len().min(MOST_READINGS));
        for (at, reading) in self.readings.iter().take(MOST_READINGS).enumerate() {
            let pointer = format!("/readings/{at}");
            let (name, driven) =
                if by_runs { ("runs", reading.runs) } else { ("distance_km", reading.distance_km) };
            let Some(driven) = driven else {
                let says =
                    if by_runs { "say the runs of every reading" } else { "say the distance or the runs" };
                errors.fault(&format!("{pointer}/{name}"), says);
                continue;
            };
            within(&mut errors, &format!("{pointer}/{name}"), "what was driven", driven, (0.0, 1_000_000.0));
            if driven < before {
                errors
                    .fault(&format!("{pointer}/{name}"), format!("{driven} is less than {before} before it"));
            }
            before = driven;
            let read = [reading.inner_mm, reading.middle_mm, reading.outer_mm];
            for (name, depth) in ["inner_mm", "middle_mm", "outer_mm"].into_iter().zip(read) {
                within(&mut errors, &format!("{pointer}/{name}"), "a depth", depth, DEPTH_MM);
            }
            reading.check_beside(&mut errors, &pointer);
            let mm = reading.shoulders_mm();
            depths.push(Depths { at: if by_runs { driven } else { driven / 1000.0 }, mm });
        }
        errors.finish(())?;
        Ok(wear(&depths, self.limit_mm))
    }

    /// In words and units.
    pub fn view(&self, wear: &Wear) -> WearView {
        let by_runs = self.is_by_runs();
        let (km, runs) =
            if by_runs { (None, wear.left) } else { (wear.left.map(|left| left * 1000.0), None) };
        WearView {
            rate_mm_per_1000_km: wear.rate.filter(|_| !by_runs),
            rate_mm_per_run: wear.rate.filter(|_| by_runs),
            plus_minus: wear.plus_minus,
            left_km: km,
            left_runs: runs,
            pattern: wear.pattern.map(fitment::road::tread::Pattern::words),
            left_out: wear.left_out.clone(),
        }
    }
}
