//! The file and its two doors.

use std::fs::{self, File, OpenOptions};
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt, PermissionsExt};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use rusqlite::{Connection, OpenFlags, Transaction, TransactionBehavior};
use tokio::sync::Semaphore;

use crate::patience::Patience;
use crate::{StoreError, leftover, migrations};

/// Readers beside the one writer.
const READERS: usize = 3;

/// A log longer than this is written back into the file after the change that made it so.
const LONGEST_LOG: u64 = 4 * 1024 * 1024;

/// The shop's file. Cheap to clone; all clones share the connections.
///
/// SQLite in WAL mode: readers never wait for the writer. Blocking calls run on the blocking threads.
#[derive(Debug, Clone)]
pub struct Store {
    shared: Arc<Shared>,
}

#[derive(Debug)]
struct Shared {
    path: PathBuf,
    /// Device and inode of the file that was opened.
    identity: (u64, u64),
    readers: Mutex<Vec<Connection>>,
    reader_free: Arc<Semaphore>,
    is_closed: AtomicBool,
    /// `None` once it is closed.
    writer: Mutex<Option<Connection>>,
    notes: Vec<String>,
}

/// How a file is opened that something is wrong with.
#[derive(Debug, Clone, Copy, Default)]
pub struct Opening {
    /// Open it although SQLite finds it damaged.
    pub even_if_damaged: bool,
    /// Take over the log beside it although it goes on from another state of the file.
    pub with_foreign_log: bool,
}

impl Store {
    /// Opens (or makes) the file and brings it up to date.
    ///
    /// # Errors
    /// As [`Self::open_as`].
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        Self::open_as(path, Opening::default())
    }

    /// The same, with a say in what is wrong with it.
    ///
    /// # Errors
    /// When the file cannot be made or read, is another program's, was written by a newer version, is damaged, or lies
    /// beside another file's log.
    pub fn open_as(path: &Path, how: Opening) -> Result<Self, StoreError> {
        let file_error = |source| StoreError::File { path: path.display().to_string(), source };
        let folder = match path.parent() {
            Some(folder) if !folder.as_os_str().is_empty() => folder,
            _ => Path::new("."),
        };
        if !folder.exists() {
            fs::DirBuilder::new().recursive(true).mode(0o700).create(folder).map_err(file_error)?;
        }
        // Two programs that start at once on a new file come one after the other; let go when this returns.
        let at_the_door = File::open(folder).map_err(file_error)?;
        at_the_door.lock().map_err(file_error)?;
        let is_new = prepare_file(path).map_err(file_error)?;
        let mut notes = Vec::new();
        if !is_new {
            is_ours(path)?;
            match leftover::look_at(path) {
                Err(StoreError::ForeignLog { log, .. }) if how.with_foreign_log => {
                    notes.push(format!(
                        "{log} was taken over although it goes on from another state of the file"
                    ));
                }
                looked => notes.extend(looked?),
            }
        }
        let mut writer = Connection::open(path)?;
        prepare(&writer).map_err(|error| not_a_database(error, path))?;
        if !is_new {
            notes.extend(checked(&writer, path, how)?);
        }
        migrations::bring_up_to_date(&mut writer, path)?;
        // Into the file itself, so that it is in no state that a backup can have.
        leftover::begin_log(&writer)?;
        write_back(&writer)?;
        let readers = (0..READERS).map(|_| open_reader(path)).collect::<Result<Vec<_>, _>>()?;
        let shared = Shared {
            path: path.to_owned(),
            identity: identity(path).map_err(file_error)?,
            readers: Mutex::new(readers),
            reader_free: Arc::new(Semaphore::new(READERS)),
            is_closed: AtomicBool::new(false),
            writer: Mutex::new(Some(writer)),
            notes,
        };
        Ok(Self { shared: Arc::new(shared) })
    }

    /// Where the file lies.
    pub fn path(&self) -> &Path {
        &self.shared.path
    }

    /// What was noticed when it was opened, in sentences.
    pub fn notes(&self) -> &[String] {
        &self.shared.notes
    }

    /// Runs a query on a reader.
    ///
    /// # Errors
    /// What the query returns; [`StoreError::Panicked`] when it panicked.
    pub async fn read<T, F>(&self, query: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(&Connection) -> Result<T, StoreError> + Send + 'static,
    {
        let shared = Arc::clone(&self.shared);
        let permit = Arc::clone(&self.shared.reader_free).acquire_owned().await;
        let result = tokio::task::spawn_blocking(move || {
            // Dropped in the other order: the reader is back before another is let in, even when nobody waits any
            // more for what this one found.
            let _permit = permit;
            let reader = Reader::take(&shared)?;
            match query(reader.connection()) {
                // Without its file a connection says many things; this is the one that helps.
                Err(StoreError::Sqlite(error)) => shared.is_still_there().and(Err(error.into())),
                found => found,
            }
        })
        .await;
        result.unwrap_or(Err(StoreError::Panicked))
    }

    /// Runs a change in one transaction, committed when it returns `Ok`, rolled back otherwise, and when the one who
    /// asked has given up waiting ([`Patience`]).
    ///
    /// # Errors
    /// What the change returns; [`StoreError::Panicked`] when it panicked; [`StoreError::FileGone`] when the file was
    /// deleted or replaced; [`StoreError::Busy`] when another program holds it.
    pub async fn write<T, F>(&self, change: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(&Transaction<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        self.write_or_refuse(change).await
    }

    /// The same for a change that may also refuse, by an error of its caller's own, what it finds inside the
    /// transaction.
    ///
    /// # Errors
    /// As [`Self::write`], and what the change refuses.
    pub async fn write_or_refuse<T, E, F>(&self, change: F) -> Result<T, E>
    where
        T: Send + 'static,
        E: From<StoreError> + Send + 'static,
        F: FnOnce(&Transaction<'_>) -> Result<T, E> + Send + 'static,
    {
        let shared = Arc::clone(&self.shared);
        let patience = Patience::here();
        tokio::task::spawn_blocking(move || {
            let mut writer = locked(&shared.writer);
            let writer = writer.as_mut().ok_or(StoreError::Closed)?;
            if patience.is_over() {
                return Err(StoreError::GaveUp.into());
            }
            shared.is_still_there()?;
            let transaction =
                writer.transaction_with_behavior(TransactionBehavior::Immediate).map_err(StoreError::from)?;
            let value = change(&transaction)?;
            if !patience.settle() {
                return Err(StoreError::GaveUp.into());
            }
            transaction.commit().map_err(StoreError::from)?;
            let log = fs::metadata(leftover::log_of(&shared.path)).map_or(0, |log| log.len());
            if log > LONGEST_LOG {
                // The change is kept whether or not the log can be written back now.
                let _ = write_back(writer);
            }
            Ok(value)
        })
        .await
        .unwrap_or_else(|_| Err(StoreError::Panicked.into()))
    }

    /// Gives back the room of what was removed: the file is written anew.
    ///
    /// # Errors
    /// What SQLite says; [`StoreError::FileGone`], [`StoreError::Closed`].
    pub async fn compact(&self) -> Result<(), StoreError> {
        let shared = Arc::clone(&self.shared);
        tokio::task::spawn_blocking(move || {
            let writer = locked(&shared.writer);
            let writer = writer.as_ref().ok_or(StoreError::Closed)?;
            shared.is_still_there()?;
            writer.execute_batch("VACUUM")?;
            Ok(write_back(writer)?)
        })
        .await
        .unwrap_or(Err(StoreError::Panicked))
    }

    /// Writes the log back into the file and closes it: the file alone is then whole. Later reads and writes are
    /// refused. Happens by itself when the last clone is dropped.
    ///
    /// # Errors
    /// What SQLite says; the changes are then still in the log.
    pub fn close(&self) -> Result<(), StoreError> {
        self.shared.close()
    }
}

impl Shared {
    fn close(&self) -> Result<(), StoreError> {
        self.is_closed.store(true, Ordering::Release);
        // The readers first: only a connection that may write can write the log back when it is the last.
        locked(&self.readers).clear();
        let Some(writer) = locked(&self.writer).take() else { return Ok(()) };
        let emptied = empty_log(&writer);
        writer.close().map_err(|(_, error)| error)?;
        emptied?;
        Ok(())
    }

    fn is_still_there(&self) -> Result<(), StoreError> {
        match identity(&self.path) {
            Ok(now) if now == self.identity => Ok(()),
            _ => Err(StoreError::FileGone { path: self.path.display().to_string() }),
        }
    }
}

impl Drop for Shared {
    fn drop(&mut self) {
        // Nobody is left who could be told; what is in the log is taken over by the next start.
        let _ = self.close();
    }
}

/// How long to wait for another process that holds the file.
const BUSY: Duration = Duration::from_secs(5);

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

fn identity(path: &Path) -> std::io::Result<(u64, u64)> {
    fs::metadata(path).map(|file| (file.dev(), file.ino()))
}

/// Refuses another program's file before a byte of it is changed.
fn is_ours(path: &Path) -> Result<(), StoreError> {
    let not_ours = || StoreError::NotOurs { path: path.display().to_string() };
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let looked = Connection::open_with_flags(path, flags)
        .and_then(|connection| migrations::look_at(&connection))
        .map_err(|error| not_a_database(error, path))?;
    match looked {
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
fn checked(writer: &Connection, path: &Path, how: Opening) -> Result<Option<String>, StoreError> {
    let found: String = writer
        .query_row("PRAGMA quick_check(1)", [], |row| row.get(0))
        .unwrap_or_else(|error: rusqlite::Error| error.to_string());
    if found == "ok" {
        return Ok(None);
    }
    let why = found.replace("*** in database main ***\n", "");
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
    // The log is written back by `write_back`, which marks where the next one goes on.
    connection.pragma_update(None, "wal_autocheckpoint", 0)?;
    connection.pragma_update(None, "foreign_keys", true)
}

fn open_reader(path: &Path) -> Result<Connection, rusqlite::Error> {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let reader = Connection::open_with_flags(path, flags)?;
    reader.busy_timeout(BUSY)?;
    Ok(reader)
}

/// Writes the log back and begins a new one. While somebody reads, as much of it as can be.
fn write_back(writer: &Connection) -> Result<(), rusqlite::Error> {
    writer.busy_timeout(Duration::ZERO)?;
    let emptied = empty_log(writer);
    writer.busy_timeout(BUSY)?;
    if emptied? { leftover::begin_log(writer) } else { Ok(()) }
}

/// Whether the log is empty now.
fn empty_log(writer: &Connection) -> Result<bool, rusqlite::Error> {
    let is_held: i64 = writer.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |row| row.get(0))?;
    Ok(is_held == 0)
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

/// A lock whatever happened to the last holder: a transaction that panicked was rolled back when it dropped.
fn locked<T>(mutex: &Mutex<T>) -> MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

/// A reader on loan; goes back even when the query panics.
struct Reader<'s> {
    shared: &'s Shared,
    connection: Option<Connection>,
}

impl<'s> Reader<'s> {
    fn take(shared: &'s Shared) -> Result<Self, StoreError> {
        if shared.is_closed.load(Ordering::Acquire) {
            return Err(StoreError::Closed);
        }
        let connection = locked(&shared.readers).pop();
        // The semaphore counts the readers, so one is there; were it not, opening another is right.
        let connection = match connection {
            Some(connection) => connection,
            None => open_reader(&shared.path)?,
        };
        Ok(Self { shared, connection: Some(connection) })
    }

    fn connection(&self) -> &Connection {
        match &self.connection {
            Some(connection) => connection,
            None => unreachable!("a reader on loan holds its connection until it drops"),
        }
    }
}

impl Drop for Reader<'_> {
    fn drop(&mut self) {
        if let Some(connection) = self.connection.take()
            && !self.shared.is_closed.load(Ordering::Acquire)
        {
            locked(&self.shared.readers).push(connection);
        }
    }
}
