//! What cars' modules were told.
//!
//! A row stands before the module is told, so that a program that dies in between leaves behind that nobody knows.

use jiff::Timestamp;
use rusqlite::{Connection, params};

use crate::StoreError;

/// How a telling came out, as long as nobody said.
pub const ASKED: &str = "asked";

/// A module that is told something.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Telling {
    /// The car it says it sits in.
    pub vehicle: String,
    /// What it held.
    pub was_mm: u32,
    /// What it was told.
    pub told_mm: u32,
    /// Whether it was put back to what it held before.
    pub is_restore: bool,
}

/// One line of the log.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Entry {
    /// Row id.
    pub id: i64,
    /// What was told.
    pub telling: Telling,
    /// When.
    pub at: Timestamp,
    /// Who, as they signed.
    pub who: String,
    /// Its code: `asked` until it is known.
    pub outcome: String,
    /// In a sentence; empty until it is known.
    pub says: String,
}

/// A job's log, latest first.
///
/// # Errors
/// What SQLite says, or a row that cannot be read.
pub fn list(connection: &Connection, job: i64) -> Result<Vec<Entry>, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT * FROM module_log WHERE job_id = ?1 ORDER BY id DESC")?;
    let rows = statement.query_map([job], |row| {
        let telling = Telling {
            vehicle: row.get("vehicle")?,
            was_mm: row.get("was_mm")?,
            told_mm: row.get("told_mm")?,
            is_restore: row.get("is_restore")?,
        };
        let at: String = row.get("at")?;
        Ok((row.get("id")?, telling, at, row.get("who")?, row.get("outcome")?, row.get("says")?))
    })?;
    let mut entries = Vec::new();
    for row in rows {
        let (id, telling, at, who, outcome, says) = row?;
        let at = at.parse().map_err(|error: jiff::Error| StoreError::Corrupt {
            table: "module_log",
            id: job,
            why: error.to_string(),
        })?;
        entries.push(Entry { id, telling, at, who, outcome, says });
    }
    Ok(entries)
}

/// Notes that a module is about to be told; the row's id.
///
/// # Errors
/// What SQLite says.
pub fn begin(
    connection: &Connection,
    job: i64,
    telling: &Telling,
    who: &str,
    now: Timestamp,
) -> Result<i64, StoreError> {
    connection.execute(
        "INSERT INTO module_log (job_id, at, who, vehicle, was_mm, told_mm, is_restore, outcome, says)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, '')",
        params![
            job,
            now.to_string(),
            who,
            telling.vehicle,
            telling.was_mm,
            telling.told_mm,
            telling.is_restore,
            ASKED
        ],
    )?;
    Ok(connection.last_insert_rowid())
}

/// Notes how it came out.
///
/// # Errors
/// What SQLite says.
pub fn finish(connection: &Connection, id: i64, outcome: &str, says: &str) -> Result<(), StoreError> {
    connection
        .execute("UPDATE module_log SET outcome = ?2, says = ?3 WHERE id = ?1", params![id, outcome, says])?;
    Ok(())
}
