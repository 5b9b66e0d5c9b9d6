//! What goes over the wire: loose, unit-suffixed, plain JSON numbers at full precision.
//!
//! The way in is [`read`]: it turns texts into the core's types and collects every field's problem.

pub mod at_limit;
pub mod bench;
pub mod brake_bench;
pub mod brakes;
pub mod brief;
mod carried;
pub mod catalogue;
pub mod change;
pub mod choose;
pub mod club;
pub mod compare;
pub mod corner;
pub mod describe;
pub mod drawing;
pub mod finder;
pub mod house;
pub mod inspections;
pub mod jobs;
pub mod ladder;
pub mod ledger;
pub mod looks;
pub mod measured;
pub mod motion;
pub mod picked;
pub mod plan_on_road;
pub mod profiles;
pub mod proven;
pub mod read;
pub mod recalibration;
pub mod registry;
pub mod road;
pub mod road_sheet;
pub mod seasons;
pub mod sets;
pub mod storage;
pub mod supply;
pub mod sweep;
pub mod tread_log;
pub mod trials;
pub mod workshop;

use fitment::car::limits::Drive;
use fitment::setup;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Front and rear setup lines of a car; an axle left out is one nobody spoke of.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Lines {
    /// Front axle, as in `18x8.5 ET35 · 245/40R18`.
    #[serde(default)]
    pub front: Option<String>,
    /// Rear axle.
    #[serde(default)]
    pub rear: Option<String>,
}

impl Lines {
    /// Whether neither axle has anything written.
    pub fn is_blank(&self) -> bool {
        [&self.front, &self.rear].iter().all(|line| line.as_ref().is_none_or(|text| text.trim().is_empty()))
    }
}

impl From<&fitment::SetupPair> for Lines {
    fn from(pair: &fitment::SetupPair) -> Self {
        let line = |setup: Option<fitment::Setup>| setup.map(|setup| setup.to_string());
        Self { front: line(pair.front), rear: line(pair.rear) }
    }
}

/// One thing for each axle.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, ToSchema)]
pub struct PerAxle<T> {
    /// Front axle.
    pub front: T,
    /// Rear axle.
    pub rear: T,
}

/// Driven axles.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum DriveCode {
    /// Front.
    Fwd,
    /// Rear.
    Rwd,
    /// Both.
    Awd,
}

impl From<DriveCode> for Drive {
    fn from(code: DriveCode) -> Self {
        match code {
            DriveCode::Fwd => Self::Front,
            DriveCode::Rwd => Self::Rear,
            DriveCode::Awd => Self::All,
        }
    }
}

impl From<Drive> for DriveCode {
    fn from(drive: Drive) -> Self {
        match drive {
            Drive::Front => Self::Fwd,
            Drive::Rear => Self::Rwd,
            Drive::All => Self::Awd,
        }
    }
}

/// Front or rear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum AxleCode {
    /// Front axle.
    Front,
    /// Rear axle.
    Rear,
}

impl From<AxleCode> for setup::Axle {
    fn from(code: AxleCode) -> Self {
        match code {
            AxleCode::Front => Self::Front,
            AxleCode::Rear => Self::Rear,
        }
    }
}

impl From<setup::Axle> for AxleCode {
    fn from(axle: setup::Axle) -> Self {
        match axle {
            setup::Axle::Front => Self::Front,
            setup::Axle::Rear => Self::Rear,
        }
    }
}

/// Square or staggered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum ArrangementCode {
    /// The same all round.
    Square,
    /// Any difference front to rear.
    Staggered,
}

impl From<setup::Arrangement> for ArrangementCode {
    fn from(arrangement: setup::Arrangement) -> Self {
        match arrangement {
            setup::Arrangement::Square => Self::Square,
            setup::Arrangement::Staggered => Self::Staggered,
        }
    }
}
