//! Fits of finished jobs, as texts by field; what makes two of them one is their key.

use jiff::Timestamp;
use rusqlite::{Connection, params};

use crate::StoreError;
use crate::catalogue::Fields;

/// A proven fit as kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ProvenRow {
    /// Its number.
    pub id: i64,
    /// The job it comes from, when it is one of ours.
    pub job: Option<i64>,
    /// What it says.
    pub record: Fields,
}

/// Keeps a fit; `false` when one of the same key is there, whose words are then replaced only by its own job's.
///
/// # Errors
/// What SQLite says.
pub fn add(
    connection: &Connection,
    key: &str,
    record: &Fields,
    job: Option<i64>,
    now: Timestamp,
) -> Result<bool, StoreError> {
    // A map of texts always has a JSON.
    let text = serde_json::to_string(record).unwrap_or_default();
    let added = connection.execute(
        "INSERT INTO proven_fit (key, record, job_id, brought_at) VALUES (?1, ?2, ?3, ?4)
         ON CONFLICT (key) DO NOTHING",
        params![key, text, job, now.to_string()],
    )?;
    if added == 0 && job.is_some() {
        connection.execute(
            "UPDATE proven_fit SET record = ?2 WHERE key = ?1 AND job_id = ?3",
            params![key, text, job],
        )?;
    }
    Ok(added == 1)
}

/// Takes a fit out of the library.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn remove(connection: &Connection, id: i64) -> Result<(), StoreError> {
    match connection.execute("DELETE FROM proven_fit WHERE id = ?1", [id])? {
        0 => Err(StoreError::NotFound { what: "proven fit", id }),
        _ => Ok(()),
    }
}

/// Every fit, the latest first.
///
/// # Errors
/// A row that cannot be read.
pub fn all(connection: &Connection) -> Result<Vec<ProvenRow>, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT id, job_id, record FROM proven_fit ORDER BY id DESC")?;
    let rows = statement
        .query_map([], |row| Ok((row.get("id")?, row.get("job_id")?, row.get::<_, String>("record")?)))?;
    rows.map(|row| {
        let (id, job, record): (i64, _, _) = row?;
        let record = serde_json::from_str(&record).map_err(|error| StoreError::Corrupt {
            table: "proven_fit",
            id,
            why: error.to_string(),
        })?;
        Ok(ProvenRow { id, job, record })
    })
    .collect()
}
