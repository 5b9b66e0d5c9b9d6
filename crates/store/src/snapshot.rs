//! A job's content as the journal keeps it: JSON with a version, setups as canonical lines; and changes of it.
//!
//! Later forms only add to earlier ones, so that a change noted in one form still applies to a content in another.

use json_patch::Patch;
use serde_json::Value;

use crate::jobs::JobContent;
use crate::measurements::Measurements;

/// Version of the form below. A later one reads earlier ones: 2 added what is known of the car, 3 what was picked, 4 the
/// workshop's records, 5 what is sought, and what a kept setup is made of,
/// 6 the road and track sheet.
const VERSION: u64 = 6;

pub(crate) fn to_value(content: &JobContent) -> Value {
    // Texts, flags and finite numbers always have a JSON.
    let mut value = serde_json::to_value(content).unwrap_or_default();
    if let Some(fields) = value.as_object_mut() {
        fields.insert("version".to_owned(), VERSION.into());
    }
    value
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

/// The same of two contents as they are. Readings that are the same in both, often thousands, need not be looked at.
pub(crate) fn changes_between(before: &JobContent, after: &JobContent) -> (String, String) {
    if before.measurements.readings == after.measurements.readings {
        let (before, after) = (without_readings(before), without_readings(after));
        return changes(&to_value(&before), &to_value(&after));
    }
    changes(&to_value(before), &to_value(after))
}

fn without_readings(content: &JobContent) -> JobContent {
    let Measurements { car, levers, wanted, readings: _ } = &content.measurements;
    let measurements =
        Measurements { car: car.clone(), levers: *levers, wanted: *wanted, readings: Vec::new() };
    let JobContent { candidates, picked, workshop, wishes, road, .. } = content;
    JobContent {
        measurements,
        car_label: content.car_label.clone(),
        wish: content.wish.clone(),
        notes: content.notes.clone(),
        candidates: candidates.clone(),
        picked: picked.clone(),
        workshop: workshop.clone(),
        wishes: wishes.clone(),
        road: road.clone(),
        ..*content
    }
}

/// Applies a change to the content it was noted for.
pub(crate) fn apply(content: &mut Value, change: &str) -> Result<(), String> {
    let patch: Patch = serde_json::from_str(change).map_err(|error| error.to_string())?;
    json_patch::patch(content, &patch).map_err(|error| error.to_string())
}

pub(crate) fn from_value(value: Value) -> Result<JobContent, String> {
    let version = value.get("version").and_then(Value::as_u64).ok_or("the form's version is missing")?;
    if version > VERSION {
        return Err(format!("written in form {version}, known up to {VERSION}"));
    }
    serde_json::from_value(value).map_err(|error| error.to_string())
}
