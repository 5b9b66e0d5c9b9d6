//! What a job knows from the workshop: profiles of its brakes, and what was tried on.
//!
//! Kept as records of plain texts and numbers; what they mean is not known here.

use rusqlite::{Connection, OptionalExtension, params};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};

use crate::StoreError;

/// A profile of something inside the barrel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct KeptTemplate {
    /// The page's own id for it.
    pub id: String,
    /// `front` or `rear`.
    pub axle: String,
    /// Code of the part.
    pub part: String,
    /// `fitted`, or `planned` for a later upgrade.
    pub role: String,
    /// What it is called.
    pub name: String,
    /// Code of where it comes from.
    pub source: String,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
    /// Its points: y and r.
    pub points: Vec<[f64; 2]>,
}

/// One wheel tried on one corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct KeptTrial {
    /// The tablet's own id for it.
    pub id: String,
    /// `front` or `rear`.
    pub axle: String,
    /// `left` or `right`, when noted.
    pub side: Option<String>,
    /// What was tried, as a setup line.
    pub setup: String,
    /// Code of what it met.
    pub contact: String,
    /// Gap, or as a negative the overlap; `None` when nobody measured it.
    pub gap_mm: Option<f64>,
    /// How far that may be off.
    pub plus_minus_mm: f64,
    /// Code of the instrument.
    pub instrument: String,
    /// Code of how the wheels were turned.
    pub steer: String,
    /// Whether the wheel hung free.
    pub is_hanging: bool,
    /// What was seen.
    pub note: String,
    /// What comes next.
    pub next_step: String,
    /// Numbers of its photos.
    pub photos: Vec<i64>,
    /// Who tried it.
    pub who: String,
    /// When, RFC 3339.
    pub at: String,
}

/// What a job knows from the workshop.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[serde(default)]
pub struct Workshop {
    /// Profiles of its brakes.
    pub templates: Vec<KeptTemplate>,
    /// What was tried on, in order.
    pub trials: Vec<KeptTrial>,
}

fn put_all<T: Serialize>(
    connection: &Connection,
    table: &str,
    job: i64,
    all: &[T],
) -> Result<(), StoreError> {
    connection.prepare_cached(&format!("DELETE FROM {table} WHERE job_id = ?1"))?.execute([job])?;
    let mut insert = connection
        .prepare_cached(&format!("INSERT INTO {table} (job_id, position, record) VALUES (?1, ?2, ?3)"))?;
    for (position, one) in all.iter().enumerate() {
        // Texts and finite numbers always have a JSON.
        insert.execute(params![job, position as i64, serde_json::to_string(one).unwrap_or_default()])?;
    }
    Ok(())
}

fn get_all<T: DeserializeOwned>(
    connection: &Connection,
    table: &'static str,
    job: i64,
) -> Result<Vec<T>, StoreError> {
    let mut statement = connection
        .prepare_cached(&format!("SELECT record FROM {table} WHERE job_id = ?1 ORDER BY position"))?;
    let rows = statement.query_map([job], |row| row.get::<_, String>("record"))?;
    rows.map(|row| {
        serde_json::from_str(&row?).map_err(|error| StoreError::Corrupt {
            table,
            id: job,
            why: error.to_string(),
        })
    })
    .collect()
}

impl Workshop {
    /// Replaces what the tables hold for a job.
    pub(crate) fn put(&self, connection: &Connection, job: i64) -> Result<(), StoreError> {
        put_all(connection, "brake_template", job, &self.templates)?;
        put_all(connection, "trial_fit", job, &self.trials)
    }

    /// What the tables hold for a job.
    pub(crate) fn get(connection: &Connection, job: i64) -> Result<Self, StoreError> {
        Ok(Self {
            templates: get_all(connection, "brake_template", job)?,
            trials: get_all(connection, "trial_fit", job)?,
        })
    }
}

/// Keeps a photo; its number.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such job.
pub fn add_photo(
    connection: &Connection,
    job: i64,
    media_type: &str,
    bytes: &[u8],
    now: jiff::Timestamp,
) -> Result<i64, StoreError> {
    crate::jobs::get(connection, job)?;
    connection.execute(
        "INSERT INTO photo (job_id, media_type, bytes, taken_at) VALUES (?1, ?2, ?3, ?4)",
        params![job, media_type, bytes, now.to_string()],
    )?;
    Ok(connection.last_insert_rowid())
}

/// A job's photo: its media type and bytes.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn photo(connection: &Connection, job: i64, id: i64) -> Result<(String, Vec<u8>), StoreError> {
    connection
        .query_row("SELECT media_type, bytes FROM photo WHERE id = ?1 AND job_id = ?2", [id, job], |row| {
            Ok((row.get("media_type")?, row.get("bytes")?))
        })
        .optional()?
        .ok_or(StoreError::NotFound { what: "photo", id })
}

/// The inside of a wheel as measured, by its line and size.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct WheelTemplate {
    /// Line or design.
    pub line: String,
    /// Size with offset, as in `18x8.5 ET35`.
    pub size: String,
    /// Code of where it comes from.
    pub source: String,
    /// How far it may be off, either way.
    pub plus_minus_mm: f64,
    /// Barrel inside: y and r.
    pub barrel: Vec<[f64; 2]>,
    /// Back of the spokes.
    pub spoke_back: Vec<[f64; 2]>,
}

impl WheelTemplate {
    fn key(&self) -> String {
        format!("{}|{}", self.line.trim().to_lowercase(), self.size)
    }
}

/// Keeps a wheel's inside; an earlier one of the same line and size is replaced.
///
/// # Errors
/// What SQLite says.
pub fn put_wheel_template(
    connection: &Connection,
    template: &WheelTemplate,
    now: jiff::Timestamp,
) -> Result<(), StoreError> {
    connection.execute(
        "INSERT INTO wheel_template (key, record, brought_at) VALUES (?1, ?2, ?3)
         ON CONFLICT (key) DO UPDATE SET record = excluded.record, brought_at = excluded.brought_at",
        params![template.key(), serde_json::to_string(template).unwrap_or_default(), now.to_string()],
    )?;
    Ok(())
}

/// Every wheel's inside that was measured.
///
/// # Errors
/// A row that cannot be read.
pub fn wheel_templates(connection: &Connection) -> Result<Vec<WheelTemplate>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT record FROM wheel_template ORDER BY key")?;
    let rows = statement.query_map([], |row| row.get::<_, String>("record"))?;
    rows.map(|row| {
        serde_json::from_str(&row?).map_err(|error| StoreError::Corrupt {
            table: "wheel_template",
            id: 0,
            why: error.to_string(),
        })
    })
    .collect()
}
