//! Numbered, embedded, append-only. A file that is in the field is never edited.

use std::path::{Path, PathBuf};

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

use crate::StoreError;

const STEPS: &[M<'static>] = &[
    M::up(include_str!("0001_jobs.sql")),
    M::up(include_str!("0002_journal.sql")),
    M::up(include_str!("0003_bay.sql")),
    M::up(include_str!("0004_catalogue.sql")),
    M::up(include_str!("0005_picked.sql")),
    M::up(include_str!("0006_workshop.sql")),
];

const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

/// Version of a file that this program writes.
pub const LATEST: usize = STEPS.len();

/// "DIMN": tells our files from any other SQLite file.
const APPLICATION_ID: i64 = 0x4449_4d4e;

/// Brings a file to the latest version, after copying it aside when it holds anything to lose.
pub(crate) fn bring_up_to_date(connection: &mut Connection, path: &Path) -> Result<(), StoreError> {
    let version: i64 = connection.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    let application: i64 = connection.query_row("PRAGMA application_id", [], |row| row.get(0))?;
    let tables: i64 = connection.query_row("SELECT count(*) FROM sqlite_schema", [], |row| row.get(0))?;
    let version = usize::try_from(version).unwrap_or(usize::MAX);
    let is_new = tables == 0 && version == 0;
    if !is_new && application != APPLICATION_ID {
        return Err(StoreError::NotOurs { path: path.display().to_string() });
    }
    if version > LATEST {
        return Err(StoreError::NewerFile { found: version, known: LATEST });
    }
    if !is_new && version < LATEST {
        let copy = backup_path(path, version);
        if !copy.exists() {
            connection.execute("VACUUM INTO ?1", [copy.to_string_lossy()])?;
        }
    }
    connection.pragma_update(None, "application_id", APPLICATION_ID)?;
    MIGRATIONS.to_latest(connection)?;
    Ok(())
}

/// Where the copy of an older file is kept: `jobs.sqlite` of version 1 becomes `jobs.before-2.sqlite`.
pub(crate) fn backup_path(path: &Path, version: usize) -> PathBuf {
    path.with_extension(format!("before-{}.sqlite", version + 1))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_migrations_hold_together() {
        MIGRATIONS.validate().unwrap();
    }

    /// A file as version 1 of the program left it.
    fn version_one(path: &Path) {
        let connection = Connection::open(path).unwrap();
        connection.execute_batch(include_str!("0001_jobs.sql")).unwrap();
        connection.pragma_update(None, "application_id", APPLICATION_ID).unwrap();
        connection.pragma_update(None, "user_version", 1).unwrap();
        connection
            .execute_batch(
                "INSERT INTO job VALUES (7, 41, 'Skerry hatch', 'quiet', 'bench', NULL, '',
                     '15x6 ET40 · 195/65R15', '15x6 ET40 · 195/65R15', NULL, NULL, 0, 3, '2026-01-05T10:00:00Z',
                     '2026-01-06T10:00:00Z');
                 INSERT INTO candidate VALUES (7, 'A', 0, '', '17x7 ET40 · 215/50R17', NULL);",
            )
            .unwrap();
    }

    #[test]
    fn an_old_file_is_copied_aside_and_keeps_its_rows() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("jobs.sqlite");
        version_one(&path);
        let mut connection = Connection::open(&path).unwrap();
        bring_up_to_date(&mut connection, &path).unwrap();
        let job = crate::jobs::get(&connection, 7).unwrap();
        assert_eq!((job.number, job.revision, job.content.candidates.len()), (41, 3, 1));
        assert_eq!(job.content.fitted.to_string(), "15x6 ET40 · 195/65R15");
        assert!(!job.can_undo, "the journal begins with the new version");
        let copy = Connection::open(backup_path(&path, 1)).unwrap();
        let version: i64 = copy.query_row("PRAGMA user_version", [], |row| row.get(0)).unwrap();
        assert_eq!(version, 1, "the copy is the file as it was");
    }

    #[test]
    fn a_newer_file_is_refused_untouched() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("jobs.sqlite");
        version_one(&path);
        Connection::open(&path).unwrap().pragma_update(None, "user_version", 99).unwrap();
        let before = std::fs::read(&path).unwrap();
        let refused = bring_up_to_date(&mut Connection::open(&path).unwrap(), &path);
        assert!(matches!(refused, Err(StoreError::NewerFile { found: 99, .. })));
        assert_eq!(std::fs::read(&path).unwrap(), before);
    }

    #[test]
    fn another_programs_file_is_refused() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("photos.sqlite");
        Connection::open(&path).unwrap().execute_batch("CREATE TABLE photo (id INTEGER)").unwrap();
        let refused = bring_up_to_date(&mut Connection::open(&path).unwrap(), &path);
        assert!(matches!(refused, Err(StoreError::NotOurs { .. })));
    }
}
