//! What a plan is swept over.

use fitment::answers::dynamic_clearance::Usage;
use fitment::car::motion::Envelope;
use fitment::car::section::Added;
use fitment::car::section::added::{CHAINS_SOURCE, GROWTH_SOURCE};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::wire::corner::{choices, coded};
use crate::wire::read::FieldErrors;

/// A use of the car, and what is on the tire meanwhile.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct UsageRequest {
    /// `all` (default), `parking`, `road`, `track` or `off_road`.
    #[serde(default)]
    pub envelope: Option<String>,
    /// The speed that is driven: a tire grows with it.
    #[serde(default)]
    pub speed_kmh: f64,
    /// What chains take on tread and inner sidewall, as their maker says; 0 for none.
    #[serde(default)]
    pub chains_mm: f64,
    /// Stones and mud on tread and sidewalls.
    #[serde(default)]
    pub mud_mm: f64,
}

impl UsageRequest {
    /// Into the core's type; what is at fault is noted.
    pub fn read(&self, errors: &mut FieldErrors, pointer: &str) -> Usage {
        let envelope = self.envelope.as_deref().and_then(|code| {
            let pointer = format!("{pointer}/envelope");
            coded(errors, &pointer, code, Envelope::from_code(code), choices!(Envelope))
        });
        let &Self { speed_kmh, chains_mm, mud_mm, .. } = self;
        let added = Added { speed_kmh, chains_mm, mud_mm };
        if let Some(fault) = added.fault() {
            errors.fault(pointer, fault);
        }
        Usage { envelope: envelope.unwrap_or_default(), added }
    }
}

/// Something that may be on the tire, with what can be chosen of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct OnTheTire {
    /// Its field in a use.
    pub code: &'static str,
    /// In words.
    pub name: &'static str,
    /// Of the amounts.
    pub unit: &'static str,
    /// Amounts; 0 is none.
    pub choices: Vec<f64>,
    /// Where it comes from.
    pub note: &'static str,
}

impl OnTheTire {
    /// All of it.
    pub fn all() -> Vec<Self> {
        let one = |code, name, unit, choices: &[f64], note| Self {
            code,
            name,
            unit,
            choices: choices.to_vec(),
            note,
        };
        vec![
            one("speed_kmh", "growth at", "km/h", &[0.0, 130.0, 200.0, 250.0, 300.0], GROWTH_SOURCE.cite),
            one("chains_mm", "chains", "mm", &[0.0, 12.0, 16.0, 20.0], CHAINS_SOURCE.cite),
            one(
                "mud_mm",
                "mud",
                "mm",
                &[0.0, 5.0, 10.0, 20.0],
                "stones and mud off the road: a house figure",
            ),
        ]
    }
}
