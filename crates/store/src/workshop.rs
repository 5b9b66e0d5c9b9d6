//! What a job knows from the workshop: profiles of its brakes, and what was tried on.
//!
//! Kept as records of plain texts and numbers; what they mean is not known here.

use rusqlite::{Connection, OptionalExtension, params};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};

use crate::StoreError;
use crate::columns::json_of;

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
        insert.execute(params![job, position as i64, json_of(one)?])?;
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
    /// Numbers of the photos that its trials name.
    pub fn photos(&self) -> Vec<i64> {
        self.trials.iter().flat_map(|trial| trial.photos.iter().copied()).collect()
    }

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

/// Photos kept with one job at most.
pub const MOST_PHOTOS: usize = 200;

/// Keeps a photo that holds nothing but the picture; its number.
///
/// # Errors
/// [`StoreError::NotFound`] when there is no such job; [`StoreError::TooMany`] beyond [`MOST_PHOTOS`].
pub fn add_photo(
    connection: &Connection,
    job: i64,
    media_type: &str,
    bytes: &[u8],
    now: jiff::Timestamp,
) -> Result<i64, StoreError> {
    let count = |sql: &str| connection.query_row(sql, [job], |row| row.get::<_, i64>(0));
    if count("SELECT count(*) FROM job WHERE id = ?1")? == 0 {
        return Err(StoreError::NotFound { what: "job", id: job });
    }
    if count("SELECT count(*) FROM photo WHERE job_id = ?1")? >= MOST_PHOTOS as i64 {
        return Err(StoreError::TooMany { what: "photos", most: MOST_PHOTOS, with: " with one job" });
    }
    connection.execute(
        "INSERT INTO photo (job_id, media_type, bytes, taken_at, is_clean) VALUES (?1, ?2, ?3, ?4, 1)",
        params![job, media_type, bytes, now.to_string()],
    )?;
    Ok(connection.last_insert_rowid())
}

/// A kept photo.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Photo {
    /// Its media type.
    pub media_type: String,
    /// Its file.
    pub bytes: Vec<u8>,
    /// Whether it is known to hold nothing but the picture: older programs kept more.
    pub is_clean: bool,
}

/// A job's photo.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn photo(connection: &Connection, job: i64, id: i64) -> Result<Photo, StoreError> {
    connection
        .query_row(
            "SELECT media_type, bytes, is_clean FROM photo WHERE id = ?1 AND job_id = ?2",
            [id, job],
            |row| {
                Ok(Photo {
                    media_type: row.get("media_type")?,
                    bytes: row.get("bytes")?,
                    is_clean: row.get("is_clean")?,
                })
            },
        )
        .optional()?
        .ok_or(StoreError::NotFound { what: "photo", id })
}

/// Keeps a photo of an older program as it was drawn anew.
///
/// # Errors
/// What SQLite says.
pub fn clean_photo(
    connection: &Connection,
    id: i64,
    media_type: &str,
    bytes: &[u8],
) -> Result<(), StoreError> {
    connection.execute(
        "UPDATE photo SET media_type = ?2, bytes = ?3, is_clean = 1 WHERE id = ?1",
        params![id, media_type, bytes],
    )?;
    Ok(())
}

/// Removes a photo for good, when no trial of its job names it.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::StillNamed`].
pub fn remove_photo(connection: &Connection, job: i64, id: i64) -> Result<(), StoreError> {
    let trials: Vec<KeptTrial> = get_all(connection, "trial_fit", job)?;
    if trials.iter().any(|trial| trial.photos.contains(&id)) {
        return Err(StoreError::StillNamed("a trial names this photo: take it off the trial first"));
    }
    match connection.execute("DELETE FROM photo WHERE id = ?1 AND job_id = ?2", [id, job])? {
        0 => Err(StoreError::NotFound { what: "photo", id }),
        _ => Ok(()),
    }
}

/// The numbers of a job's photos.
///
/// # Errors
/// What SQLite says.
pub fn photos(connection: &Connection, job: i64) -> Result<Vec<i64>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT id FROM photo WHERE job_id = ?1 ORDER BY id")?;
    Ok(statement.query_map([job], |row| row.get(0))?.collect::<Result<_, _>>()?)
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
        params![template.key(), json_of(template)?, now.to_string()],
    )?;
    Ok(())
}

/// Every wheel's inside that was measured. Of one that can no longer be read only the name is left: it is told by it, and
/// an empty outline is no inside.
///
/// # Errors
/// What SQLite says.
pub fn wheel_templates(connection: &Connection) -> Result<Vec<WheelTemplate>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT key, record FROM wheel_template ORDER BY key")?;
    let rows = statement.query_map([], |row| Ok((row.get("key")?, row.get::<_, String>("record")?)))?;
    rows.map(|row| {
        let (key, record): (String, String) = row?;
        Ok(serde_json::from_str(&record).unwrap_or_else(|_| WheelTemplate {
            line: key,
            size: String::new(),
            source: String::new(),
            plus_minus_mm: 0.0,
            barrel: Vec::new(),
            spoke_back: Vec::new(),
        }))
    })
    .collect()
}

/// Which insides there are: count and the latest time. It changes with every one that is brought or taken out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct InsidesVersion(i64, Option<String>);

/// The insides' version.
///
/// # Errors
/// What SQLite says.
pub fn insides_version(connection: &Connection) -> Result<InsidesVersion, StoreError> {
    let mut statement = connection.prepare_cached("SELECT count(*), max(brought_at) FROM wheel_template")?;
    Ok(statement.query_row([], |row| Ok(InsidesVersion(row.get(0)?, row.get(1)?)))?)
}
