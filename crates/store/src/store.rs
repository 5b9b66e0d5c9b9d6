//! The file and its two doors.

use std::fs;
use std::os::unix::fs::MetadataExt;
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use rusqlite::config::DbConfig;
use rusqlite::{Connection, Transaction, TransactionBehavior};
use tokio::sync::Semaphore;

use crate::identity::shop_ids;
use crate::lock::Lock;
use crate::opening::{self, Opened, Opening};
use crate::patience::Patience;
use crate::seen::Seen;
use crate::{StoreError, wal_guard};

/// Readers beside the one writer.
pub(crate) const READERS: usize = 3;

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
    place: (u64, u64),
    readers: Mutex<Vec<Connection>>,
    reader_free: Arc<Semaphore>,
    is_closed: AtomicBool,
    /// Opened while the disk was full: everything goes through the writer, and nothing can be changed yet.
    is_cramped: AtomicBool,
    /// `None` once it is closed.
    writer: Mutex<Option<Writer>>,
    notes: Vec<String>,
    file_id: Mutex<String>,
    lock: Lock,
}

/// The one door for changes.
#[derive(Debug)]
pub(crate) struct Writer {
    pub(crate) connection: Connection,
    /// Let go after it.
    pub(crate) seen: Seen,
    /// What was done to the file meanwhile: from then on it takes no more changes.
    damage: Option<String>,
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
    /// When another program has the file open; when it cannot be made or read, is another program's, was written by a newer
    /// version, is damaged, is missing beside its log, or lies beside another file's log.
    pub fn open_as(path: &Path, how: Opening) -> Result<Self, StoreError> {
        let Opened { path, lock, connection, seen, is_cramped, readers, notes } = opening::open(path, how)?;
        let file_id = shop_ids(&connection)?.file_id;
        let shared = Shared {
            place: opening::place(&path)?,
            path,
            readers: Mutex::new(readers),
            reader_free: Arc::new(Semaphore::new(READERS)),
            is_closed: AtomicBool::new(false),
            is_cramped: AtomicBool::new(is_cramped),
            writer: Mutex::new(Some(Writer { connection, seen, damage: None })),
            notes,
            file_id: Mutex::new(file_id),
            lock,
        };
        Ok(Self { shared: Arc::new(shared) })
    }

    /// Tells other programs that ask for the file where this one can be reached.
    pub fn serves_at(&self, address: &str) {
        self.shared.lock.serves_at(address);
    }

    /// Where the file lies.
    pub fn path(&self) -> &Path {
        &self.shared.path
    }

    /// The file's own id, as of [`crate::identity::ShopIds`].
    pub fn file_id(&self) -> String {
        locked(&self.shared.file_id).clone()
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
            let found = if shared.is_cramped.load(Ordering::Acquire) {
                let writer = locked(&shared.writer);
                query(&writer.as_ref().ok_or(StoreError::Closed)?.connection)
            } else {
                query(Reader::take(&shared)?.connection())
            };
            match found {
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
            shared.may_be_changed(writer)?;
            let applied =
                in_transaction(&mut writer.connection, writer.seen.log_bytes() == 0, &patience, change);
            // Also of a change that was rolled back: a large one may have been written in part.
            writer.seen.look_at_log(&shared.path);
            shared.lock.log_is(Some(writer.seen.log_bytes()));
            if applied.is_ok() && writer.seen.log_bytes() > LONGEST_LOG {
                // The change is kept whether or not the log can be written back now.
                let _ = shared.write_back(writer);
            }
            let (value, is_begun) = applied?;
            if is_begun {
                // Kept it is, whether or not the file is known again by the note.
                let _ = shared.know(writer);
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
            let mut writer = locked(&shared.writer);
            let writer = writer.as_mut().ok_or(StoreError::Closed)?;
            shared.may_be_changed(writer)?;
            if writer.seen.log_bytes() == 0 {
                wal_guard::begin_log(&writer.connection)?;
            }
            let written = writer.connection.execute_batch("VACUUM");
            let back = shared.write_back(writer);
            written?;
            back
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

/// A change in one transaction; whether it began a log.
fn in_transaction<T, E: From<StoreError>>(
    connection: &mut Connection,
    is_log_empty: bool,
    patience: &Patience,
    change: impl FnOnce(&Transaction<'_>) -> Result<T, E>,
) -> Result<(T, bool), E> {
    let transaction =
        connection.transaction_with_behavior(TransactionBehavior::Immediate).map_err(StoreError::from)?;
    if is_log_empty {
        wal_guard::begin_log(&transaction).map_err(StoreError::from)?;
    }
    let value = change(&transaction)?;
    if !patience.settle() {
        return Err(StoreError::GaveUp.into());
    }
    transaction.commit().map_err(StoreError::from)?;
    Ok((value, is_log_empty))
}

impl Shared {
    fn close(&self) -> Result<(), StoreError> {
        self.is_closed.store(true, Ordering::Release);
        // The readers first: only a connection that may write can write the log back when it is the last.
        locked(&self.readers).clear();
        let Some(mut writer) = locked(&self.writer).take() else { return Ok(()) };
        let is_sound = writer.damage.is_none() && self.may_be_changed(&mut writer).is_ok();
        let mut emptied = Ok(());
        if is_sound {
            // Closed in a state of its own, so that a copy made earlier is told from it.
            if writer.seen.log_bytes() > 0 {
                emptied = wal_guard::begin_log(&writer.connection).map(|_| ()).map_err(StoreError::from);
            }
            let written = self.write_back(&mut writer);
            emptied = emptied.and(written);
        } else {
            // A log beside a file that is damaged, or another, is left as it is: it holds what was acknowledged.
            let _ = writer.connection.set_db_config(DbConfig::SQLITE_DBCONFIG_NO_CKPT_ON_CLOSE, true);
        }
        let Writer { connection, seen, .. } = writer;
        let closed = connection.close().map_err(|(_, error)| StoreError::from(error));
        drop(seen);
        self.lock.let_go();
        closed.and(emptied)
    }

    /// Whether a change can be made now: the file is there, as it was left, and has room.
    fn may_be_changed(&self, writer: &mut Writer) -> Result<(), StoreError> {
        self.is_still_there()?;
        if writer.damage.is_none() {
            writer.damage = writer.seen.damage(&self.path);
        }
        if let Some(why) = &writer.damage {
            let (path, why) = (self.path.display().to_string(), why.clone());
            return Err(StoreError::DamagedMeanwhile { path, why });
        }
        if self.is_cramped.load(Ordering::Acquire) { self.make_room(writer) } else { Ok(()) }
    }

    /// Tries again what the full disk did not let the start do.
    fn make_room(&self, writer: &mut Writer) -> Result<(), StoreError> {
        // Nobody else gets at the file while this connection has it for itself.
        writer.connection = Connection::open_in_memory()?;
        match opening::doors(&self.path, &self.lock) {
            Ok((connection, readers)) => {
                *locked(&self.file_id) = shop_ids(&connection)?.file_id;
                writer.connection = connection;
                writer.seen.look(&self.path);
                *locked(&self.readers) = readers;
                self.is_cramped.store(false, Ordering::Release);
                Ok(())
            }
            Err(error) => {
                writer.connection = opening::cramped(&self.path)?;
                writer.seen.look(&self.path);
                Err(error)
            }
        }
    }

    /// Writes the log back into the file.
    fn write_back(&self, writer: &mut Writer) -> Result<(), StoreError> {
        self.lock.log_is(None);
        let emptied = opening::write_back(&writer.connection);
        writer.seen.look(&self.path);
        self.know(writer)?;
        emptied?;
        Ok(())
    }

    /// Notes by what the file is known again.
    fn know(&self, writer: &Writer) -> Result<(), StoreError> {
        self.lock.knows(opening::file_mark(&writer.connection, &self.path)?);
        Ok(())
    }

    fn is_still_there(&self) -> Result<(), StoreError> {
        match fs::metadata(&self.path).map(|file| (file.dev(), file.ino())) {
            Ok(now) if now == self.place => Ok(()),
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
            None => opening::open_reader(&shared.path)?,
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
