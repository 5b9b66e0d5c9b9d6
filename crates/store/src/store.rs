//! The file and its two doors.

use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use rusqlite::{Connection, OpenFlags, Transaction, TransactionBehavior};
use tokio::sync::Semaphore;

use crate::{StoreError, migrations};

/// Readers beside the one writer.
const READERS: usize = 3;

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
    writer: Mutex<Connection>,
    readers: Mutex<Vec<Connection>>,
    reader_free: Semaphore,
}

impl Store {
    /// Opens (or makes) the file and brings it up to date.
    ///
    /// # Errors
    /// When the file cannot be made or read, is another program's, or was written by a newer version.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        if let Some(folder) = path.parent().filter(|folder| !folder.as_os_str().is_empty()) {
            std::fs::create_dir_all(folder)
                .map_err(|source| StoreError::File { path: folder.display().to_string(), source })?;
        }
        let mut writer = Connection::open(path)?;
        prepare(&writer).map_err(|error| not_a_database(error, path))?;
        migrations::bring_up_to_date(&mut writer, path)?;
        let readers = (0..READERS)
            .map(|_| {
                let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
                let reader = Connection::open_with_flags(path, flags)?;
                reader.busy_timeout(BUSY)?;
                Ok(reader)
            })
            .collect::<Result<Vec<_>, rusqlite::Error>>()?;
        let shared = Shared {
            path: path.to_owned(),
            writer: Mutex::new(writer),
            readers: Mutex::new(readers),
            reader_free: Semaphore::new(READERS),
        };
        Ok(Self { shared: Arc::new(shared) })
    }

    /// Where the file lies.
    pub fn path(&self) -> &Path {
        &self.shared.path
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
        let permit = self.shared.reader_free.acquire().await;
        let result = tokio::task::spawn_blocking(move || {
            let reader = Reader::take(&shared)?;
            query(reader.connection())
        })
        .await;
        drop(permit);
        result.unwrap_or(Err(StoreError::Panicked))
    }

    /// Runs a change in one transaction, committed when it returns `Ok`, rolled back otherwise.
    ///
    /// # Errors
    /// What the change returns; [`StoreError::Panicked`] when it panicked.
    pub async fn write<T, F>(&self, change: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(&Transaction<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        let shared = Arc::clone(&self.shared);
        tokio::task::spawn_blocking(move || {
            let mut writer = locked(&shared.writer);
            let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
            let value = change(&transaction)?;
            transaction.commit()?;
            Ok(value)
        })
        .await
        .unwrap_or(Err(StoreError::Panicked))
    }
}

/// How long to wait for another process that holds the file.
const BUSY: Duration = Duration::from_secs(5);

fn prepare(connection: &Connection) -> Result<(), rusqlite::Error> {
    connection.busy_timeout(BUSY)?;
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", "FULL")?;
    connection.pragma_update(None, "foreign_keys", true)
}

fn not_a_database(error: rusqlite::Error, path: &Path) -> StoreError {
    if error.sqlite_error_code() == Some(rusqlite::ErrorCode::NotADatabase) {
        StoreError::NotOurs { path: path.display().to_string() }
    } else {
        error.into()
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
        let connection = locked(&shared.readers).pop();
        // The semaphore counts the readers, so one is there; were it not, opening another is right.
        let connection = match connection {
            Some(connection) => connection,
            None => Connection::open_with_flags(&shared.path, OpenFlags::SQLITE_OPEN_READ_ONLY)?,
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
        if let Some(connection) = self.connection.take() {
            locked(&self.shared.readers).push(connection);
        }
    }
}
