//! What takes room in the file, and what of it nothing names any more.

use std::collections::HashSet;

use rusqlite::Connection;

use crate::StoreError;
use crate::workshop::KeptTrial;

/// How many of something, and how many bytes they take.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Amount {
    /// How many.
    pub count: usize,
    /// Bytes.
    pub bytes: u64,
}

/// What takes room.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Storage {
    /// The whole file.
    pub file_bytes: u64,
    /// All photos.
    pub photos: Amount,
    /// Photos that no trial names.
    pub unnamed_photos: Amount,
    /// Files of price lists that are taken or undone: their rows are kept apart from them.
    pub list_files: Amount,
    /// What undone lists noted of rows: they are never undone again.
    pub undone_changes: Amount,
}

/// What of it is removed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Remove {
    /// Photos that no trial names.
    pub unnamed_photos: bool,
    /// Files of price lists that are taken or undone, and what undone lists noted.
    pub list_files: bool,
}

/// What takes room now.
///
/// # Errors
/// What SQLite says.
pub fn of(connection: &Connection) -> Result<Storage, StoreError> {
    let amount = |sql: &str| {
        connection.query_row(sql, [], |row| {
            let (count, bytes): (i64, i64) = (row.get(0)?, row.get(1)?);
            Ok(Amount {
                count: usize::try_from(count).unwrap_or_default(),
                bytes: u64::try_from(bytes).unwrap_or_default(),
            })
        })
    };
    let file_bytes: i64 = connection.query_row(
        "SELECT page_count * page_size FROM pragma_page_count(), pragma_page_size()",
        [],
        |row| row.get(0),
    )?;
    let mut unnamed_photos = Amount::default();
    for (_, bytes) in unnamed(connection)? {
        unnamed_photos.count += 1;
        unnamed_photos.bytes += bytes;
    }
    Ok(Storage {
        file_bytes: u64::try_from(file_bytes).unwrap_or_default(),
        photos: amount("SELECT count(*), coalesce(sum(length(bytes)), 0) FROM photo")?,
        unnamed_photos,
        list_files: amount(
            "SELECT count(*), coalesce(sum(length(bytes)), 0) FROM price_list
             WHERE state IN ('taken', 'undone') AND is_removed = 0",
        )?,
        undone_changes: amount(
            "SELECT count(*), coalesce(sum(length(after) + coalesce(length(before), 0)), 0) FROM catalogue_change
             WHERE list_id IN (SELECT id FROM price_list WHERE state = 'undone')",
        )?,
    })
}

/// Photos that no trial names, with their bytes. A trial that cannot be read may name any photo of its job: all of
/// them then count as named.
fn unnamed(connection: &Connection) -> Result<Vec<(i64, u64)>, StoreError> {
    let (mut named, mut unsure) = (HashSet::new(), HashSet::new());
    let mut statement = connection.prepare_cached("SELECT job_id, record FROM trial_fit")?;
    let mut rows = statement.query([])?;
    while let Some(row) = rows.next()? {
        let job: i64 = row.get("job_id")?;
        match row.get_ref("record")?.as_str().map(serde_json::from_str::<KeptTrial>) {
            Ok(Ok(trial)) => named.extend(trial.photos.into_iter().map(|photo| (job, photo))),
            _ => {
                unsure.insert(job);
            }
        }
    }
    let mut statement = connection.prepare_cached("SELECT id, job_id, length(bytes) FROM photo")?;
    let photos = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?, row.get::<_, i64>(2)?)))?;
    let mut unnamed = Vec::new();
    for photo in photos {
        let (id, job, bytes): (i64, i64, _) = photo?;
        if !named.contains(&(job, id)) && !unsure.contains(&job) {
            unnamed.push((id, u64::try_from(bytes).unwrap_or_default()));
        }
    }
    Ok(unnamed)
}

/// Removes for good what nothing names.
///
/// # Errors
/// What SQLite says.
pub fn remove(connection: &Connection, what: Remove) -> Result<(), StoreError> {
    if what.unnamed_photos {
        for (id, _) in unnamed(connection)? {
            connection.prepare_cached("DELETE FROM photo WHERE id = ?1")?.execute([id])?;
        }
    }
    if what.list_files {
        connection.execute(
            "UPDATE price_list SET bytes = x'', is_removed = 1 WHERE state IN ('taken', 'undone') AND is_removed = 0",
            [],
        )?;
        connection.execute(
            "DELETE FROM catalogue_change WHERE list_id IN (SELECT id FROM price_list WHERE state = 'undone')",
            [],
        )?;
    }
    Ok(())
}
