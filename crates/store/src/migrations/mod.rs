//! Numbered, embedded, append-only. A file that is in the field is never edited.

mod identity;
mod journal_of_changes;

use std::fs;
use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags, OptionalExtension, Transaction};
use rusqlite_migration::{M, Migrations};

use crate::{StoreError, catalogue_search};

fn migrations() -> Migrations<'static> {
    Migrations::new(vec![
        M::up(include_str!("0001_jobs.sql")),
        M::up(include_str!("0002_journal.sql")),
        M::up(include_str!("0003_bay.sql")),
        M::up(include_str!("0004_catalogue.sql")),
        M::up(include_str!("0005_picked.sql")),
        M::up(include_str!("0006_workshop.sql")),
        M::up_with_hook(include_str!("0007_changes.sql"), journal_of_changes::rewrite),
        M::up(include_str!("0008_reading.sql")),
        M::up(include_str!("0009_whole_candidates.sql")),
        M::up(include_str!("0010_road.sql")),
        M::up(include_str!("0011_module_and_clubs.sql")),
        M::up_with_hook(include_str!("0012_identity.sql"), identity::give),
        M::up_with_hook(include_str!("0013_catalogue_words.sql"), |tx: &Transaction<'_>| {
            Ok(catalogue_search::give_words(tx)?)
        }),
    ])
}

/// Version of a file that this program writes.
pub const LATEST: usize = 13;

/// Since this version the journal keeps changes: a file that comes to it shrinks.
const JOURNAL_OF_CHANGES: usize = 7;

/// "DIMN": tells our files from any other SQLite file.
const APPLICATION_ID: i64 = 0x4449_4d4e;

/// What a file is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Found {
    /// Nothing is in it yet.
    Nothing,
    /// One of ours, of this version or an earlier one.
    Ours,
    /// A newer program's.
    Newer(usize),
    /// Another program's.
    AnothersFile,
    /// Ours by its number, without a table that every one of ours has.
    TablesMissing(&'static str),
}

fn version_of(connection: &Connection) -> Result<usize, rusqlite::Error> {
    let version: i64 = connection.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    Ok(usize::try_from(version).unwrap_or(usize::MAX))
}

/// Whether a file is of the version that this program writes.
pub(crate) fn is_latest(connection: &Connection) -> Result<bool, rusqlite::Error> {
    Ok(version_of(connection)? == LATEST)
}

/// Looks at a file without changing it.
pub(crate) fn look_at(connection: &Connection) -> Result<Found, rusqlite::Error> {
    let version = version_of(connection)?;
    let application: i64 = connection.query_row("PRAGMA application_id", [], |row| row.get(0))?;
    let tables: i64 = connection.query_row("SELECT count(*) FROM sqlite_schema", [], |row| row.get(0))?;
    if tables == 0 && version == 0 {
        return Ok(Found::Nothing);
    }
    if application != APPLICATION_ID {
        return Ok(Found::AnothersFile);
    }
    if version > LATEST {
        return Ok(Found::Newer(version));
    }
    for (table, since) in [("job", 1), ("candidate", 1), ("journal", 2), ("reading", 3), ("photo", 6)] {
        let is_there: Option<i64> = connection
            .query_row("SELECT 1 FROM sqlite_schema WHERE type = 'table' AND name = ?1", [table], |row| {
                row.get(0)
            })
            .optional()?;
        if version >= since && is_there.is_none() {
            return Ok(Found::TablesMissing(table));
        }
    }
    Ok(Found::Ours)
}

/// Brings a file to the latest version, after copying it aside when it holds anything to lose.
pub(crate) fn bring_up_to_date(connection: &mut Connection, path: &Path) -> Result<(), StoreError> {
    let version = version_of(connection)?;
    match look_at(connection)? {
        Found::Ours if version < LATEST => copy_aside(connection, path, version)?,
        Found::Ours | Found::Nothing => {}
        Found::Newer(found) => return Err(StoreError::NewerFile { found, known: LATEST }),
        Found::AnothersFile => return Err(StoreError::NotOurs { path: path.display().to_string() }),
        Found::TablesMissing(table) => {
            let why = format!("its table {table} is missing");
            return Err(StoreError::Damaged { path: path.display().to_string(), why });
        }
    }
    if version < LATEST {
        connection.pragma_update(None, "application_id", APPLICATION_ID)?;
    }
    migrations().to_latest(connection)?;
    if (1..JOURNAL_OF_CHANGES).contains(&version) {
        connection.execute_batch("VACUUM")?;
    }
    Ok(())
}

/// Copies a file under another name, looks whether the copy is whole, and only then gives it its name: a copy that
/// broke off (the disk was full) is never taken for one.
fn copy_aside(connection: &Connection, path: &Path, version: usize) -> Result<(), StoreError> {
    let copy = backup_path(path, version);
    if is_whole(&copy, version) {
        return Ok(());
    }
    let file_error = |source| StoreError::File { path: copy.display().to_string(), source };
    let making = copy.with_extension("making");
    if making.exists() {
        fs::remove_file(&making).map_err(file_error)?;
    }
    let made = connection.execute("VACUUM INTO ?1", [making.to_string_lossy()]).map_err(StoreError::from);
    let made = made.and_then(|_| {
        if is_whole(&making, version) {
            Ok(())
        } else {
            let path = making.display().to_string();
            Err(StoreError::Damaged { path, why: "the copy before an update is not whole".to_owned() })
        }
    });
    if let Err(error) = made {
        // What is left of it helps nobody; the file itself was not touched.
        let _ = fs::remove_file(&making);
        return Err(error);
    }
    fs::File::open(&making).and_then(|file| file.sync_all()).map_err(file_error)?;
    fs::rename(&making, &copy).map_err(file_error)
}

fn is_whole(copy: &Path, version: usize) -> bool {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let check = || {
        let connection = Connection::open_with_flags(copy, flags)?;
        let found: String = connection.query_row("PRAGMA quick_check(1)", [], |row| row.get(0))?;
        Ok::<_, rusqlite::Error>(found == "ok" && version_of(&connection)? == version)
    };
    copy.exists() && check().unwrap_or(false)
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
        migrations().validate().unwrap();
        let mut connection = Connection::open_in_memory().unwrap();
        migrations().to_latest(&mut connection).unwrap();
        assert_eq!(version_of(&connection).unwrap(), LATEST);
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
        assert!(job.undoes.is_none(), "the journal begins with the new version");
        let copy = Connection::open(backup_path(&path, 1)).unwrap();
        let version: i64 = copy.query_row("PRAGMA user_version", [], |row| row.get(0)).unwrap();
        assert_eq!(version, 1, "the copy is the file as it was");
    }

    #[test]
    fn a_copy_that_broke_off_is_made_again() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("jobs.sqlite");
        version_one(&path);
        // What a full disk left of an earlier start.
        std::fs::write(backup_path(&path, 1), b"").unwrap();
        bring_up_to_date(&mut Connection::open(&path).unwrap(), &path).unwrap();
        assert!(is_whole(&backup_path(&path, 1), 1));
        assert!(!backup_path(&path, 1).with_extension("making").exists());
    }

    #[test]
    fn snapshots_of_older_journals_become_changes_that_undo_and_redo() {
        let folder = tempfile::tempdir().unwrap();
        let path = folder.path().join("jobs.sqlite");
        version_one(&path);
        let content = |wish: &str, version: u32| {
            format!(
                r#"{{"version":{version},"car_label":"Skerry hatch","wish":"{wish}","stage":"bench","drive":null,
                    "notes":"","fitted":{{"front":"15x6 ET40 · 195/65R15","rear":"15x6 ET40 · 195/65R15"}},
                    "planned":{{"front":null,"rear":null}},"candidates":[],"put_away":false}}"#
            )
        };
        {
            let mut connection = Connection::open(&path).unwrap();
            connection.execute_batch(include_str!("0002_journal.sql")).unwrap();
            connection.pragma_update(None, "user_version", 2).unwrap();
            // Two steps as the second version of the program noted them, and one that nobody can read.
            let transaction = connection.transaction().unwrap();
            for (revision, before, after) in [
                (2, content("loud", 1), content("fast", 1)),
                (3, content("fast", 1), "{}".to_owned()),
                (4, content("fast", 1), content("quiet", 2)),
            ] {
                transaction
                    .execute(
                        "INSERT INTO journal (job_id, revision, at, who, kind, what, before, after)
                         VALUES (7, ?1, '2026-01-06T10:00:00Z', 'mk', 'change', 'wish', ?2, ?3)",
                        rusqlite::params![revision, before, after],
                    )
                    .unwrap();
            }
            transaction.commit().unwrap();
        }
        let mut connection = Connection::open(&path).unwrap();
        bring_up_to_date(&mut connection, &path).unwrap();
        let now = "2026-01-07T10:00:00Z".parse().unwrap();
        let back = crate::jobs::undo(&connection, 7, 3, "mk", now).unwrap();
        assert_eq!((back.content.wish.as_str(), back.redoes.is_some()), ("fast", true));
        let unreadable = crate::jobs::undo(&connection, 7, 4, "mk", now);
        assert!(matches!(unreadable, Err(StoreError::Corrupt { table: "journal", .. })));
        let again = crate::jobs::redo(&connection, 7, 4, "mk", now).unwrap();
        assert_eq!(again.content.wish, "quiet");
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
