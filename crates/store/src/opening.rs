//! A start: the lock, the looks at what an earlier run left, and the steps after which the two doors are open.
//!
//! A start may be killed at any of its writes, or find the disk full: the next one goes on from there, and nothing that was
//! acknowledged is lost by what it advises.

use std::fs::{self, OpenOptions};
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt, PermissionsExt};
use std::path::{Path, PathBuf};
use std::time::Duration;

use rusqlite::{Connection, OpenFlags};

use crate::error::is_for_want_of_room;
use crate::identity::{new_uid, shop_ids};
use crate::lock::{FileMark, Lock, Note};
use crate::seen::Seen;
use crate::store::READERS;
use crate::{StoreError, migrations, wal_guard};

/// How a file is opened that something is wrong with.
#[derive(Debug, Clone, Copy, Default)]
pub struct Opening {
    /// Open it although SQLite finds it damaged.
    pub even_if_damaged: bool,
    /// Take over the log beside it although it goes on from another state of the file.
    pub with_foreign_log: bool,
}

/// What a start comes to.
pub(crate) struct Opened {
    /// Without links and detours: the lock and the log lie beside it.
    pub(crate) path: PathBuf,
    pub(crate) lock: Lock,
    pub(crate) connection: Connection,
    pub(crate) seen: Seen,
    /// The disk is full: everything goes through the one connection, and nothing can be changed.
    pub(crate) is_cramped: bool,
    pub(crate) readers: Vec<Connection>,
    /// What was noticed, in sentences.
    pub(crate) notes: Vec<String>,
}

/// How long to wait for another process that holds the file.
pub(crate) const BUSY: Duration = Duration::from_secs(5);

/// Opens a file for this program alone.
pub(crate) fn open(path: &Path, how: Opening) -> Result<Opened, StoreError> {
    let path = settled(path)?;
    let file_error = |source| StoreError::File { path: path.display().to_string(), source };
    let lock = Lock::take(&path)?;
    not_without_its_file(&path)?;
    let is_new = prepare_file(&path).map_err(file_error)?;
    let mut seen = Seen::of(&path).map_err(file_error)?;
    let mut notes = Vec::new();
    if !is_new {
        is_ours(&path)?;
        match wal_guard::look_at(&path) {
            Err(StoreError::ForeignLog { log, .. }) if how.with_foreign_log => {
                notes
                    .push(format!("{log} was taken over although it goes on from another state of the file"));
            }
            looked => notes.extend(looked?),
        }
        notes.extend(checked(&path, how)?);
    }
    let (connection, readers, is_cramped) = match doors(&path, &lock) {
        Ok((connection, readers)) => (connection, readers, false),
        Err(StoreError::DiskFull) if !is_new => {
            notes.push(format!(
                "there is no room left on the disk of {}: what is kept can be read, and nothing can be changed until \
                 there is",
                path.display()
            ));
            (cramped(&path)?, Vec::new(), true)
        }
        Err(error) => return Err(error),
    };
    seen.look(&path);
    Ok(Opened { path, lock, connection, seen, is_cramped, readers, notes })
}

/// Where a file lies without links and detours; its folder is made when it is not there.
pub(crate) fn settled(path: &Path) -> Result<PathBuf, StoreError> {
    let file_error = |source| StoreError::File { path: path.display().to_string(), source };
    let folder = match path.parent() {
        Some(folder) if !folder.as_os_str().is_empty() => folder,
        _ => Path::new("."),
    };
    if !folder.exists() {
        fs::DirBuilder::new().recursive(true).mode(0o700).create(folder).map_err(file_error)?;
    }
    if path.exists() {
        return fs::canonicalize(path).map_err(file_error);
    }
    let folder = fs::canonicalize(folder).map_err(file_error)?;
    Ok(path.file_name().map_or_else(|| folder.clone(), |name| folder.join(name)))
}

/// A log whose file is missing or empty is somebody's latest work: nothing new is made over it.
fn not_without_its_file(path: &Path) -> Result<(), StoreError> {
    let length = |path: &Path| fs::metadata(path).map_or(0, |file| file.len());
    let log = wal_guard::log_of(path);
    if length(path) > 0 || length(&log) == 0 {
        return Ok(());
    }
    Err(StoreError::LogAlone {
        path: path.display().to_string(),
        log: log.display().to_string(),
        is: if path.exists() { "empty" } else { "not there" },
    })
}

/// Device and inode.
pub(crate) fn place(path: &Path) -> Result<(u64, u64), StoreError> {
    let file =
        fs::metadata(path).map_err(|source| StoreError::File { path: path.display().to_string(), source })?;
    Ok((file.dev(), file.ino()))
}

/// The writer and the readers of a file that was looked at, the file brought up to date and known again.
pub(crate) fn doors(path: &Path, lock: &Lock) -> Result<(Connection, Vec<Connection>), StoreError> {
    let log_bytes = fs::metadata(wal_guard::log_of(path)).map_or(0, |log| log.len());
    let left = changed(path)?;
    let mut writer = Connection::open(path)?;
    prepare(&writer).map_err(|error| not_a_database(error, path))?;
    let is_known = is_known(&lock.earlier, &writer, path, log_bytes, left)?;
    // What was left is taken over, and the file is then in no state that a backup can have: the next log goes on from one
    // that was never copied.
    if write_back(&writer)? && wal_guard::marks_of(&writer).is_some() {
        wal_guard::begin_log(&writer)?;
    }
    migrations::bring_up_to_date(&mut writer, path)?;
    if !is_known {
        writer.execute("UPDATE shop_file SET file_id = ?1", [new_uid()])?;
    }
    if wal_guard::marks_of(&writer).is_some_and(|(mark, _)| mark.is_empty()) {
        wal_guard::begin_log(&writer)?;
    }
    write_back(&writer)?;
    let readers = (0..READERS).map(|_| open_reader(path)).collect::<Result<Vec<_>, _>>()?;
    lock.knows(file_mark(&writer, path)?);
    Ok((writer, readers))
}

/// By what the file is known again at the next start.
pub(crate) fn file_mark(writer: &Connection, path: &Path) -> Result<FileMark, StoreError> {
    let log_bytes = fs::metadata(wal_guard::log_of(path)).map_or(0, |log| log.len());
    Ok(FileMark {
        file_id: shop_ids(writer)?.file_id,
        place: place(path)?,
        mark: wal_guard::marks_of(writer).map(|(mark, _)| mark).unwrap_or_default(),
        log_bytes: Some(log_bytes),
        changed: changed(path)?,
    })
}

/// When the file itself was last written, in nanoseconds. Changes go into its log.
fn changed(path: &Path) -> Result<i128, StoreError> {
    let file =
        fs::metadata(path).map_err(|source| StoreError::File { path: path.display().to_string(), source })?;
    Ok(i128::from(file.mtime()) * 1_000_000_000 + i128::from(file.mtime_nsec()))
}

/// Whether it is the very file that the last program left: not a copy, and no backup put in its place.
fn is_known(
    earlier: &Note,
    connection: &Connection,
    path: &Path,
    log_bytes: u64,
    left: i128,
) -> Result<bool, StoreError> {
    let Some(noted) = &earlier.file else { return Ok(false) };
    // A file of an older program has no id yet.
    let Ok(ids) = shop_ids(connection) else { return Ok(false) };
    let Some((mark, before)) = wal_guard::marks_of(connection) else { return Ok(false) };
    let is_as_left = match noted.log_bytes {
        Some(bytes) => log_bytes >= bytes && left == noted.changed,
        // The last program was killed while it wrote its log back.
        None => true,
    };
    let is_its_state = noted.mark == mark || noted.mark == before;
    Ok(ids.file_id == noted.file_id && place(path)? == noted.place && is_its_state && is_as_left)
}

/// A file on a full disk, to be read: its log is looked through in memory, since even the index beside it has no room.
pub(crate) fn cramped(path: &Path) -> Result<Connection, StoreError> {
    let connection = alone(path)?;
    match migrations::look_at(&connection)? {
        migrations::Found::Ours if migrations::is_latest(&connection)? => Ok(connection),
        // An older form cannot be read as it is, and to bring it up to date takes room.
        _ => Err(StoreError::DiskFull),
    }
}

/// A connection that has the file for itself and needs no index of the log beside it.
fn alone(path: &Path) -> Result<Connection, rusqlite::Error> {
    let connection = Connection::open(path)?;
    connection.busy_timeout(BUSY)?;
    connection.pragma_update(None, "locking_mode", "EXCLUSIVE")?;
    connection.pragma_update(None, "wal_autocheckpoint", 0)?;
    Ok(connection)
}

/// Makes the file when it is not there, for nobody else to read; whether it is new.
fn prepare_file(path: &Path) -> std::io::Result<bool> {
    match OpenOptions::new().write(true).create_new(true).mode(0o600).open(path) {
        Ok(_) => Ok(true),
        Err(error) if error.kind() == std::io::ErrorKind::AlreadyExists => {
            let file = fs::metadata(path)?;
            if file.permissions().mode() & 0o077 != 0 {
                // Customers' data. A file of somebody else cannot be changed, and is opened as it is.
                let _ = fs::set_permissions(path, fs::Permissions::from_mode(0o600));
            }
            Ok(file.len() == 0)
        }
        Err(error) => Err(error),
    }
}

/// Refuses another program's file before a byte of it is changed.
fn is_ours(path: &Path) -> Result<(), StoreError> {
    let not_ours = || StoreError::NotOurs { path: path.display().to_string() };
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let mut looked = Connection::open_with_flags(path, flags).and_then(|file| migrations::look_at(&file));
    if let Err(error) = &looked
        && is_for_want_of_room(error)
    {
        looked = alone(path).and_then(|file| migrations::look_at(&file));
    }
    match looked.map_err(|error| not_a_database(error, path))? {
        migrations::Found::Ours | migrations::Found::Nothing => Ok(()),
        migrations::Found::AnothersFile => Err(not_ours()),
        migrations::Found::Newer(found) => Err(StoreError::NewerFile { found, known: migrations::LATEST }),
        migrations::Found::TablesMissing(table) => Err(StoreError::Damaged {
            path: path.display().to_string(),
            why: format!("its table {table} is missing"),
        }),
    }
}

/// SQLite's own quick check.
fn checked(path: &Path, how: Opening) -> Result<Option<String>, StoreError> {
    let Some(why) = crate::seen::quick_check(path) else { return Ok(None) };
    if how.even_if_damaged {
        Ok(Some(format!("{} is damaged ({why}) and was opened all the same", path.display())))
    } else {
        Err(StoreError::Damaged { path: path.display().to_string(), why })
    }
}

fn prepare(connection: &Connection) -> Result<(), rusqlite::Error> {
    connection.busy_timeout(BUSY)?;
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", "FULL")?;
    // The log is written back by `write_back`: the change after it marks where the next one goes on.
    connection.pragma_update(None, "wal_autocheckpoint", 0)?;
    connection.pragma_update(None, "foreign_keys", true)
}

pub(crate) fn open_reader(path: &Path) -> Result<Connection, rusqlite::Error> {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let reader = Connection::open_with_flags(path, flags)?;
    reader.busy_timeout(BUSY)?;
    Ok(reader)
}

/// Writes the log back into the file, as much of it as can be while somebody reads; whether it is empty now.
pub(crate) fn write_back(writer: &Connection) -> Result<bool, rusqlite::Error> {
    writer.busy_timeout(Duration::ZERO)?;
    let is_held = writer.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |row| row.get::<_, i64>(0));
    writer.busy_timeout(BUSY)?;
    Ok(is_held? == 0)
}

fn not_a_database(error: rusqlite::Error, path: &Path) -> StoreError {
    match error.sqlite_error_code() {
        Some(rusqlite::ErrorCode::NotADatabase) => StoreError::NotOurs { path: path.display().to_string() },
        Some(rusqlite::ErrorCode::DatabaseCorrupt) => {
            StoreError::Damaged { path: path.display().to_string(), why: error.to_string() }
        }
        _ => error.into(),
    }
}
