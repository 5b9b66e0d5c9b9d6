//! Fits of finished jobs, as texts by field; what makes two of them one is their key.

use jiff::Timestamp;
use rusqlite::{Connection, params};

use crate::StoreError;
use crate::catalogue::Fields;
use crate::columns::json_of;

/// A proven fit as kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ProvenRow {
    /// Its number.
    pub id: i64,
    /// The job it comes from, when it is one of ours.
    pub job: Option<i64>,
    /// The file it came in, when it was brought.
    pub import: Option<i64>,
    /// What it says; nothing when it cannot be read.
    pub record: Fields,
    /// Why it cannot be read.
    pub damaged: Option<String>,
}

/// Where a fit comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum From {
    /// A job of ours.
    Job(i64),
    /// A file that was brought.
    Import(i64),
}

/// Fits kept at most: beyond them the library would no longer be looked through while somebody waits.
pub const MOST_FITS: usize = 20_000;

/// Keeps a fit; `false` when one of the same key is there, whose words are then replaced only by its own job's.
///
/// Whoever adds asks at the end whether the library [`has_room`].
///
/// # Errors
/// What SQLite says.
pub fn add(
    connection: &Connection,
    key: &str,
    record: &Fields,
    from: From,
    now: Timestamp,
) -> Result<bool, StoreError> {
    // A map of texts always has a JSON.
    let text = json_of(record)?;
    let (job, import) = match from {
        From::Job(id) => (Some(id), None),
        From::Import(id) => (None, Some(id)),
    };
    let added = connection
        .prepare_cached(
            "INSERT INTO proven_fit (key, record, job_id, import_id, brought_at) VALUES (?1, ?2, ?3, ?4, ?5)
             ON CONFLICT (key) DO NOTHING",
        )?
        .execute(params![key, text, job, import, now.to_string()])?;

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

/// Whether all that was added finds room; asked inside the transaction, before it commits.
///
/// # Errors
/// [`StoreError::TooMany`] beyond [`MOST_FITS`].
pub fn has_room(connection: &Connection) -> Result<(), StoreError> {
    let count: i64 = connection.query_row("SELECT count(*) FROM proven_fit", [], |row| row.get(0))?;
    if usize::try_from(count).unwrap_or_default() > MOST_FITS {
        return Err(StoreError::TooMany { what: "fits", most: MOST_FITS, with: " in the library" });
    }
    Ok(())
}

/// A file of fits that was brought.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Import {
    /// Its number.
    pub id: i64,
    /// The file's name.
    pub name: String,
    /// When.
    pub brought_at: String,
    /// How many fits are here because of it.
    pub fits: usize,
}

/// Notes a file of fits; its number.
///
/// # Errors
/// What SQLite says.
pub fn begin_import(connection: &Connection, name: &str, now: Timestamp) -> Result<i64, StoreError> {
    connection.execute(
        "INSERT INTO proven_import (name, brought_at) VALUES (?1, ?2)",
        params![name, now.to_string()],
    )?;
    Ok(connection.last_insert_rowid())
}

/// The files of fits that were brought, the latest first; those that brought nothing are not told.
///
/// # Errors
/// What SQLite says.
pub fn imports(connection: &Connection) -> Result<Vec<Import>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT i.id, i.name, i.brought_at, count(*) AS fits FROM proven_import i
           JOIN proven_fit f ON f.import_id = i.id GROUP BY i.id ORDER BY i.id DESC",
    )?;
    let imports = statement
        .query_map([], |row| {
            Ok(Import {
                id: row.get("id")?,
                name: row.get("name")?,
                brought_at: row.get("brought_at")?,
                fits: usize::try_from(row.get::<_, i64>("fits")?).unwrap_or_default(),
            })
        })?
        .collect::<Result<_, _>>()?;
    Ok(imports)
}

/// Takes everything that a file brought out of the library; how many fits that were.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn remove_import(connection: &Connection, id: i64) -> Result<usize, StoreError> {
    let gone = connection.execute("DELETE FROM proven_fit WHERE import_id = ?1", [id])?;
    match connection.execute("DELETE FROM proven_import WHERE id = ?1", [id])? {
        0 => Err(StoreError::NotFound { what: "file of proven fits", id }),
        _ => Ok(gone),
    }
}

/// Every fit, the latest first; one that cannot be read says why.
///
/// # Errors
/// What SQLite says.
pub fn all(connection: &Connection) -> Result<Vec<ProvenRow>, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT id, job_id, import_id, record FROM proven_fit ORDER BY id DESC")?;
    let rows = statement.query_map([], |row| {
        let (record, damaged) = match row.get_ref("record")?.as_str().map(serde_json::from_str) {
            Ok(Ok(record)) => (record, None),
            Ok(Err(error)) => (Fields::new(), Some(error.to_string())),
            Err(error) => (Fields::new(), Some(error.to_string())),
        };
        Ok(ProvenRow {
            id: row.get("id")?,
            job: row.get("job_id")?,
            import: row.get("import_id")?,
            record,
            damaged,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}
