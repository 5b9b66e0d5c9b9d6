//! What was sought for a job.

use std::collections::BTreeMap;

use super::Document;
use crate::judgement::purpose::{ChainClass, Purpose};
use crate::setup::PerAxle;
use crate::setup::catalogue::Use;

/// What the finder was asked: codes as they were chosen, figures as they were typed; what nobody said is `None`.
#[derive(Debug, Clone, PartialEq, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize), serde(default))]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct SearchWish {
    /// From tire or wheel: [`crate::answers::finder::Approach`]'s code.
    pub school: Option<String>,
    /// What the car is for.
    pub uses: Vec<String>,
    pub season: Option<String>,
    /// What of the fitted set stays.
    pub keeps: Option<String>,
    /// Work that is allowed on the car; `None` where it is that of the bench.
    pub allowed: Option<PerAxle<Vec<LeverSetting>>>,
    pub arrangement: Option<String>,
    pub mixed_diameters: bool,
    pub rim_min_in: Option<f64>,
    pub rim_max_in: Option<f64>,
    pub rear_rim_min_in: Option<f64>,
    pub rear_rim_max_in: Option<f64>,
    /// Only what is legal in the class of the road sheet.
    pub in_class: bool,
    /// In the shop's own money.
    pub budget: Option<f64>,
    pub thickest_spacer_mm: f64,
    pub wheel_line: Option<String>,
    pub tire_line: Option<String>,
    /// By criterion, where they are not the school's.
    pub weights: BTreeMap<String, f64>,
    /// How many setups.
    pub count: Option<usize>,
    /// Whether the set is carried to the event.
    pub carried: bool,
    /// Snow chains: [`crate::judgement::purpose::ChainClass`]'s code.
    pub chains: Option<String>,
}

impl SearchWish {
    /// What the set is for, as far as it can be read: a use that is not known says nothing.
    pub fn purpose(&self) -> Purpose {
        Purpose {
            uses: self.uses.iter().filter_map(|code| Use::from_code(code)).collect(),
            is_carried: self.carried,
            chains: self.chains.as_deref().and_then(ChainClass::from_code),
        }
    }
}

/// A lever as far as it may be set: millimetres, or degrees for camber.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct LeverSetting {
    /// Its code.
    pub lever: String,
    /// How far.
    pub amount: f64,
}

impl Document for SearchWish {
    const NAME: &'static str = "what was sought for it";
    const VERSION: u32 = 1;
}
