//! A job's content as the journal keeps it: JSON with a version, setups as canonical lines; and changes of it.
//!
//! Later forms only add to earlier ones, so that a change noted in one form still applies to a content in another.

use fitment::notation::NotationError;
use fitment::{Setup, SetupPair};
use json_patch::Patch;
use serde::{Deserialize, Serialize};
use serde_json::Value;

use crate::jobs::{Candidate, JobContent};
use crate::measurements::Rows;
use crate::picked::Picked;
use crate::workshop::Workshop;

/// Version of the form below. A later one reads earlier ones.
const VERSION: u32 = 4;

#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct Snapshot {
    version: u32,
    car_label: String,
    wish: String,
    stage: String,
    drive: Option<String>,
    notes: String,
    fitted: Lines,
    planned: Lines,
    candidates: Vec<KeptLines>,
    put_away: bool,
    /// Since form 2.
    #[serde(default)]
    measurements: Rows,
    /// Since form 3.
    #[serde(default)]
    picked: Picked,
    /// Since form 4.
    #[serde(default)]
    workshop: Workshop,
}

/// A pair of setups as lines.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
pub(crate) struct Lines {
    pub(crate) front: Option<String>,
    pub(crate) rear: Option<String>,
}

#[derive(Debug, Serialize, Deserialize)]
struct KeptLines {
    letter: char,
    note: String,
    #[serde(flatten)]
    lines: Lines,
}

impl Lines {
    pub(crate) fn of(pair: &SetupPair) -> Self {
        let line = |setup: Option<Setup>| setup.map(|setup| setup.to_string());
        Self { front: line(pair.front), rear: line(pair.rear) }
    }

    pub(crate) fn pair(&self) -> Result<SetupPair, String> {
        // Read strictly: what is kept is canonical, so a word left aside is damage, not chatter.
        let setup = |line: &Option<String>| -> Result<Option<Setup>, String> {
            line.as_ref()
                .map(|text| text.parse().map_err(|error: NotationError| error.to_string()))
                .transpose()
        };
        Ok(SetupPair { front: setup(&self.front)?, rear: setup(&self.rear)? })
    }
}

pub(crate) fn to_value(content: &JobContent) -> Value {
    let candidates = content.candidates.iter();
    let snapshot = Snapshot {
        version: VERSION,
        car_label: content.car_label.clone(),
        wish: content.wish.clone(),
        stage: content.stage.code().to_owned(),
        drive: content.drive.map(|drive| crate::jobs::drive_code(drive).to_owned()),
        notes: content.notes.clone(),
        fitted: Lines::of(&content.fitted),
        planned: Lines::of(&content.planned),
        candidates: candidates
            .map(|kept| KeptLines {
                letter: kept.letter,
                note: kept.note.clone(),
                lines: Lines::of(&kept.setups),
            })
            .collect(),
        put_away: content.put_away,
        measurements: Rows::of(&content.measurements),
        picked: content.picked.clone(),
        workshop: content.workshop.clone(),
    };
    // A struct of strings and flags always serializes.
    serde_json::to_value(&snapshot).unwrap_or_default()
}

/// A kept content of any form in the form of today.
pub(crate) fn value_of(json: &str) -> Result<Value, String> {
    let value = serde_json::from_str(json).map_err(|error| error.to_string())?;
    Ok(to_value(&from_value(value)?))
}

/// What leads from one content to another, and back, as JSON patches (RFC 6902).
pub(crate) fn changes(before: &Value, after: &Value) -> (String, String) {
    // A list of operations always serializes.
    let text = |patch: &Patch| serde_json::to_string(patch).unwrap_or_default();
    (text(&json_patch::diff(before, after)), text(&json_patch::diff(after, before)))
}

/// Applies a change to the content it was noted for.
pub(crate) fn apply(content: &mut Value, change: &str) -> Result<(), String> {
    let patch: Patch = serde_json::from_str(change).map_err(|error| error.to_string())?;
    json_patch::patch(content, &patch).map_err(|error| error.to_string())
}

pub(crate) fn from_value(value: Value) -> Result<JobContent, String> {
    let snapshot: Snapshot = serde_json::from_value(value).map_err(|error| error.to_string())?;
    if snapshot.version > VERSION {
        return Err(format!("written in form {}, known up to {VERSION}", snapshot.version));
    }
    let candidates = snapshot.candidates.into_iter();
    Ok(JobContent {
        car_label: snapshot.car_label,
        wish: snapshot.wish,
        stage: crate::jobs::stage_from(&snapshot.stage)?,
        drive: snapshot.drive.as_deref().map(crate::jobs::drive_from).transpose()?,
        notes: snapshot.notes,
        fitted: snapshot.fitted.pair()?,
        planned: snapshot.planned.pair()?,
        candidates: candidates
            .map(|kept| Ok(Candidate { letter: kept.letter, note: kept.note, setups: kept.lines.pair()? }))
            .collect::<Result<_, String>>()?,
        put_away: snapshot.put_away,
        measurements: snapshot.measurements.measurements()?,
        picked: snapshot.picked,
        workshop: snapshot.workshop,
    })
}
