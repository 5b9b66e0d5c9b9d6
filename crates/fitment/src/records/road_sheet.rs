//! A job's road and track sheet: what was typed on it. What nobody typed is `None`, or an empty list.

use super::Document;
use crate::setup::PerAxle;

/// The sheet.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct RoadSheet {
    pub gears: Option<Gears>,
    /// Cruise in top gear.
    pub cruise_kmh: Option<f64>,
    /// Overall diameter that the car's computer believes.
    pub believed_diameter_mm: Option<f64>,
    /// Most torque of the engine.
    pub torque_nm: Option<f64>,
    /// The fitted set on the scale.
    pub fitted_kg: Option<Weighed>,
    /// Lips beside the top of the arch.
    pub wing: PerAxle<Wing>,
    pub car: Option<CarAtTheLimit>,
    pub hot: Option<HotPressures>,
    /// Its class, as it was taken.
    pub class: Option<ClassRules>,
    /// Of which rule file.
    pub class_of: Option<TakenFrom>,
    /// Behind the class's leaders.
    pub gap_s: Option<f64>,
    /// Still to come this season.
    pub season_runs: Option<f64>,
    /// What was looked at of its wheels.
    pub inspections: Vec<Inspected>,
    pub tires: Vec<LoggedTire>,
    /// Depth at which a tire is done.
    pub limit_mm: Option<f64>,
}

/// A driveline.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct Gears {
    /// First to top.
    pub ratios: Vec<f64>,
    #[cfg_attr(feature = "serde", serde(rename = "final"))]
    pub final_drive: f64,
    /// Of a transfer case.
    #[cfg_attr(feature = "serde", serde(default))]
    pub low_range: Option<f64>,
    pub limiter_rpm: f64,
}

/// A wheel and a tire, each alone.
#[derive(Debug, Clone, Copy, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct Weighed {
    pub wheel_kg: f64,
    pub tire_kg: f64,
}

/// How far the lip stands outside the fitted wheel beside the top of the arch; below zero the wheel stands beyond.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct Wing {
    /// 30° ahead of the wheel's center.
    pub ahead_mm: Option<f64>,
    /// 50° behind it.
    pub behind_mm: Option<f64>,
}

/// The car in a corner.
#[derive(Debug, Clone, Copy, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CarAtTheLimit {
    pub mass_kg: f64,
    pub front_share: f64,
    pub cg_height_m: f64,
    pub wheelbase_m: f64,
    pub track_front_m: f64,
    pub track_rear_m: f64,
    pub roll_share_front: f64,
    pub lateral_g: f64,
    pub braking_g: f64,
    #[cfg_attr(feature = "serde", serde(default))]
    pub downforce_kg: f64,
    #[cfg_attr(feature = "serde", serde(default = "half"))]
    pub downforce_front_share: f64,
    #[cfg_attr(feature = "serde", serde(default))]
    pub speed_kmh: Option<f64>,
}

#[cfg(feature = "serde")]
fn half() -> f64 {
    0.5
}

/// Hot pressures that are wanted, and the day's air.
#[derive(Debug, Clone, Copy, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct HotPressures {
    pub front_hot_kpa: f64,
    pub rear_hot_kpa: f64,
    pub cold_c: f64,
    pub hot_c: f64,
}

/// A class as its rule file says it, with clauses that nobody judges.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "by their names")]
pub struct ClassRules {
    pub name: String,
    pub clauses: Vec<ClauseText>,
}

/// A clause by its name, with its figure or its list.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "by their names")]
pub struct ClauseText {
    pub clause: String,
    pub most: Option<f64>,
    pub least: Option<f64>,
    pub any_of: Vec<String>,
}

/// Of which rule file a class was taken.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
pub struct TakenFrom {
    /// The club.
    pub club: String,
    /// From when on its rules hold.
    pub from: String,
}

/// Something that was looked at.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
pub struct Inspected {
    /// What, by its code.
    pub code: String,
    /// The day, as in 2026-05-02.
    pub at: String,
    /// Runs of the tires on the car then.
    pub runs: Option<f64>,
    /// What was found.
    pub found: String,
}

/// A tire with what was read of it.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "by their names")]
pub struct LoggedTire {
    pub id: String,
    /// Its line, or a mark in chalk.
    pub name: String,
    /// `fl`, `fr`, `rl`, `rr`, or `off`.
    pub position: String,
    pub date_code: String,
    pub is_directional: bool,
    pub is_asymmetric: bool,
    /// Turned over on its rim since it was first mounted.
    pub turned_over: bool,
    pub price: Option<f64>,
    /// In the order they were taken.
    pub readings: Vec<TreadReading>,
}

/// Depths of a tread, and what was read beside them.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct TreadReading {
    /// The day.
    pub at: String,
    /// Since it was mounted.
    pub distance_km: Option<f64>,
    pub runs: Option<f64>,
    pub inner_mm: f64,
    pub middle_mm: f64,
    pub outer_mm: f64,
    /// `fl`, `fr`, `rl`, `rr`.
    pub stood_at: Option<String>,
    pub turned_over: bool,
    pub cold_kpa: Option<f64>,
    pub hot_kpa: Option<f64>,
    pub inner_c: Option<f64>,
    pub middle_c: Option<f64>,
    pub outer_c: Option<f64>,
}

impl Document for RoadSheet {
    const NAME: &'static str = "its road and track sheet";
    const VERSION: u32 = 1;
}
