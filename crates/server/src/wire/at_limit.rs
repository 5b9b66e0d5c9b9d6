//! The car at the limit on the wire: what is typed of it, corner loads against the parts, cold pressures for hot ones.

use fitment::judgement::case::Case;
use fitment::road::track::{CarAtLimit, Utilisation};
use fitment::road::track::{TrackCase, WheelAtLimit, track_cases};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ledger::{StandingCode, StepView};
use super::road::FourView;

/// The car at the limit, as far as somebody typed it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "see fitment::road::track::CarAtLimit")]
pub struct CarSheet {
    pub mass_kg: f64,
    pub front_share: f64,
    pub cg_height_m: f64,
    pub wheelbase_m: f64,
    pub track_front_m: f64,
    pub track_rear_m: f64,
    pub roll_share_front: f64,
    pub lateral_g: f64,
    pub braking_g: f64,
    #[serde(default)]
    pub downforce_kg: f64,
    #[serde(default = "half")]
    pub downforce_front_share: f64,
    /// Speed of the corner: a fast tire carries less near the end of its symbol. Null: not reckoned with.
    #[serde(default)]
    pub speed_kmh: Option<f64>,
}

fn half() -> f64 {
    0.5
}

/// Hot pressures that are wanted, and the day's air.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct HotSheet {
    pub front_hot_kpa: f64,
    pub rear_hot_kpa: f64,
    pub cold_c: f64,
    pub hot_c: f64,
}

impl CarSheet {
    /// The cases at the limit on a set.
    pub fn cases(&self, set: &Case<'_>) -> Vec<TrackCase> {
        track_cases(&self.at_limit(), self.braking_g, self.speed_kmh, set)
    }

    pub(super) fn at_limit(&self) -> CarAtLimit {
        CarAtLimit {
            mass_kg: self.mass_kg,
            front_share: self.front_share,
            cg_height_m: self.cg_height_m,
            wheelbase_m: self.wheelbase_m,
            track_front_m: self.track_front_m,
            track_rear_m: self.track_rear_m,
            roll_share_front: self.roll_share_front,
            lateral_g: self.lateral_g,
            longitudinal_g: 0.0,
            downforce_kg: self.downforce_kg,
            downforce_front_share: self.downforce_front_share,
        }
    }
}

/// A wheel in a case against its parts.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct WheelAtLimitView {
    pub position: &'static str,
    pub load_kg: f64,
    /// The wheel's rating; null while the row that was picked does not say it.
    pub rating_kg: Option<f64>,
    pub tire_kg: Option<f64>,
    /// Whether it carries more than the tire's index or the wheel's rating says for the road.
    pub is_over: bool,
    /// Share of the moment of the wheel's own fatigue test.
    pub tested_share: Option<f64>,
    /// `good`, `watch` or `not_for_this`.
    pub stands: Option<&'static str>,
    /// The same as a standing; null while it is not known.
    pub standing: Option<StandingCode>,
    /// The same in words.
    pub word: Option<&'static str>,
}

/// A case at the track.
#[derive(Debug, Serialize, ToSchema)]
pub struct TrackCaseView {
    /// Its code.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// At rest.
    pub static_kg: FourView,
    /// In the case.
    pub loads_kg: FourView,
    /// How the loads come about.
    pub working: Vec<StepView>,
    /// Wheels in the air.
    pub lifted: Vec<&'static str>,
    /// Each against its parts.
    pub wheels: Vec<WheelAtLimitView>,
}

impl From<WheelAtLimit> for WheelAtLimitView {
    fn from(one: WheelAtLimit) -> Self {
        let stands = |one: Utilisation| match one {
            Utilisation::Good => "good",
            Utilisation::Watch => "watch",
            Utilisation::NotForThis => "not_for_this",
        };
        Self {
            position: one.position.code(),
            load_kg: one.load_kg,
            rating_kg: one.rating_kg,
            tire_kg: one.tire_kg,
            is_over: one.is_over,
            tested_share: one.tested_share,
            stands: one.utilisation.map(stands),
            standing: one.utilisation.map(|one| one.severity().into()),
            word: one.utilisation.map(Utilisation::words),
        }
    }
}

impl From<TrackCase> for TrackCaseView {
    fn from(case: TrackCase) -> Self {
        Self {
            code: case.code,
            name: case.name,
            static_kg: case.loads.static_kg.into(),
            loads_kg: case.loads.loads_kg.into(),
            working: case.working.into_iter().map(StepView::from).collect(),
            lifted: case.loads.lifted.iter().map(|wheel| wheel.code()).collect(),
            wheels: case.wheels.into_iter().map(WheelAtLimitView::from).collect(),
        }
    }
}

/// Cold pressures to set.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ColdView {
    pub front_cold_kpa: f64,
    pub rear_cold_kpa: f64,
    /// What the placard's pressures come to hot; null while they are not known.
    pub front_placard_hot_kpa: Option<f64>,
    pub rear_placard_hot_kpa: Option<f64>,
    pub caution: &'static str,
}

/// What the car at the limit starts from: its record, and estimates by its body.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct CarStartView {
    pub mass_kg: Option<f64>,
    pub front_share: Option<f64>,
    /// Estimate.
    pub cg_height_m: f64,
    /// Estimate.
    pub roll_share_front: f64,
}

/// Stands beside every figure of the track.
pub(super) const TRACK_CAUTION: &str = "A wheel's rating is a static load for road use: on the track every wheel is a wear part. Look \
    for cracks at the spoke roots, the barrel and the seats before each event; the rating and a licensed inspection decide, \
    not the construction.";
