//! The car's module on the wire: what it holds, what it would be told, and what it was told.

use fitment::Length;
use fitment::road::recalibration::{CAUTION, ModuleReply, ModuleState};
use serde::{Deserialize, Serialize};
use store::module_log::{self, Telling};
use utoipa::ToSchema;

use super::jobs::SIGN_LENGTH;

/// Something that the module would be told, and what stands against it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct TellingView {
    pub was_mm: u32,
    pub to_mm: u32,
    pub change_pct: f64,
    pub from_factory_pct: f64,
    /// Sentences; while there is one it is not told.
    pub blocked: Vec<String>,
}

impl TellingView {
    fn new(state: &ModuleState, to_mm: u32, blocked: Vec<String>) -> Self {
        let pct = |of: u32| (f64::from(to_mm) / f64::from(of) - 1.0) * 100.0;
        Self {
            was_mm: state.stored_mm,
            to_mm,
            change_pct: pct(state.stored_mm),
            from_factory_pct: pct(state.factory_mm),
            blocked,
        }
    }
}

/// A line of the log.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ModuleLogView {
    /// When, RFC 3339.
    pub at: String,
    /// Who signed.
    pub who: String,
    /// The car the module said it sits in.
    pub vehicle: String,
    /// What it held.
    pub was_mm: u32,
    /// What it was told.
    pub told_mm: u32,
    /// Whether it was put back.
    pub is_restore: bool,
    /// `confirmed`, `unchanged`, `differs`, `beside`, `refused`, `unknown`, or `asked` when nobody noted the end.
    pub outcome: String,
    /// In a sentence.
    pub says: String,
}

impl From<module_log::Entry> for ModuleLogView {
    fn from(entry: module_log::Entry) -> Self {
        let says = if entry.outcome == module_log::ASKED && entry.says.is_empty() {
            ModuleReply::Unknown("the program ended while the module was told".to_owned())
                .says(entry.telling.told_mm)
        } else {
            entry.says
        };
        Self {
            at: entry.at.to_string(),
            who: entry.who,
            vehicle: entry.telling.vehicle,
            was_mm: entry.telling.was_mm,
            told_mm: entry.telling.told_mm,
            is_restore: entry.telling.is_restore,
            outcome: entry.outcome,
            says,
        }
    }
}

/// What a module holds.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct ModuleStateView {
    pub vehicle: String,
    pub stored_mm: u32,
    pub factory_mm: u32,
    pub axle_ratio: f64,
    pub engine_runs: bool,
    pub battery_v: f64,
    /// Overall diameter that the computer believes; null without a reference tire.
    pub believed_diameter_mm: Option<f64>,
}

/// The car's module as it stands.
#[derive(Debug, Serialize, ToSchema)]
pub struct ModuleView {
    /// Whether one is plugged in.
    pub is_there: bool,
    /// Why it could not be read; null when it was, or was not asked.
    pub why_not: Option<String>,
    /// What it holds; null while it was not read.
    pub state: Option<ModuleStateView>,
    /// What the plan asks for; null without a reference and a planned tire.
    pub proposed: Option<TellingView>,
    /// What it held before it was told last; null when that is what it holds.
    pub restore: Option<TellingView>,
    /// What came of telling it just now.
    pub told: Option<ModuleLogView>,
    /// What it was told for this job, latest first.
    pub log: Vec<ModuleLogView>,
    /// Stands beside it.
    pub caution: &'static str,
}

impl ModuleView {
    /// Not read: none is there, it was not asked, or it did not answer.
    pub fn unread(is_there: bool, why_not: Option<String>, log: Vec<module_log::Entry>) -> Self {
        Self {
            is_there,
            why_not,
            state: None,
            proposed: None,
            restore: None,
            told: None,
            log: log.into_iter().map(ModuleLogView::from).collect(),
            caution: CAUTION,
        }
    }

    /// Read; tires are the reference's and the plan's overall diameter on the axle that the dial follows.
    pub fn read(state: &ModuleState, tires: Option<(Length, Length)>, log: Vec<module_log::Entry>) -> Self {
        Self {
            state: Some(ModuleStateView {
                vehicle: state.vehicle.clone(),
                stored_mm: state.stored_mm,
                factory_mm: state.factory_mm,
                axle_ratio: state.axle_ratio,
                engine_runs: state.engine_runs,
                battery_v: state.battery_v,
                believed_diameter_mm: tires.map(|(reference, _)| state.believed(reference).as_mm()),
            }),
            proposed: tires.map(|tires| {
                let to_mm = state.told_for(tires.0, tires.1);
                TellingView::new(state, to_mm, against(state, to_mm, Some(tires.0), &log))
            }),
            restore: held_before(&log, state)
                .map(|to_mm| TellingView::new(state, to_mm, against(state, to_mm, None, &log))),
            ..Self::unread(true, None, log)
        }
    }
}

/// What stands against telling a module something. A plan is held against its reference tire, a restore is not.
pub fn against(
    state: &ModuleState,
    to_mm: u32,
    reference: Option<Length>,
    log: &[module_log::Entry],
) -> Vec<String> {
    let known = car_of(log);
    let other = reference.and_then(|reference| state.other_tire(reference));
    other.into_iter().chain(state.blocked(to_mm, known)).map(|one| one.to_string()).collect()
}

/// The car that the job told first, and whose module was not put back since.
fn car_of(log: &[module_log::Entry]) -> Option<&str> {
    // Latest first: what was refused or left as it was told nobody anything.
    let told = || log.iter().filter(|one| !["refused", "unchanged"].contains(&one.outcome.as_str()));
    let is_back = |vehicle: &str| {
        let last = told().find(|one| one.telling.vehicle == vehicle);
        last.is_some_and(|one| one.telling.is_restore && one.outcome == "confirmed")
    };
    told().map(|one| one.telling.vehicle.as_str()).rfind(|vehicle| !is_back(vehicle))
}

/// What a module held before a plan was told to it last; `None` when it holds just that, or was never told.
pub fn held_before(log: &[module_log::Entry], state: &ModuleState) -> Option<u32> {
    let mut own = log.iter().map(|entry| &entry.telling).filter(|one| one.vehicle == state.vehicle);
    own.find(|one| !one.is_restore).map(|one| one.was_mm).filter(|was| *was != state.stored_mm)
}

/// A module is to be told: what the person saw and said yes to.
#[derive(Debug, Deserialize, ToSchema)]
pub struct TellRequest {
    /// The car it was read to sit in.
    pub vehicle: String,
    /// What it was read to hold.
    pub was_mm: u32,
    /// What it is to hold.
    pub to_mm: u32,
    /// Whether it is put back to what it held before.
    #[serde(default)]
    pub restore: bool,
    /// Who signs, for the log.
    #[serde(default)]
    pub signed_by: String,
}

impl TellRequest {
    /// Who signs, cut to what the log keeps.
    pub fn who(&self) -> String {
        self.signed_by.chars().take(SIGN_LENGTH).collect()
    }

    /// As it is logged.
    pub fn telling(&self) -> Telling {
        Telling {
            vehicle: self.vehicle.clone(),
            was_mm: self.was_mm,
            told_mm: self.to_mm,
            is_restore: self.restore,
        }
    }
}
