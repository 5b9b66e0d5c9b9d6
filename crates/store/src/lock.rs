//! One program on one file.
//!
//! Beside the file lies `…-lock`. The program that has the file open holds the system's lock on it, which ends with the
//! process however it ends; in it stands who that is, and by what the file is known again at the next start.

use std::fs::{File, OpenOptions};
use std::io::{Read, Seek, SeekFrom, Write};
use std::os::unix::fs::OpenOptionsExt;
use std::path::Path;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

use jiff::Timestamp;
use serde::{Deserialize, Serialize};

use crate::StoreError;
use crate::wal_guard::beside;

/// What stands in the lock's file.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(default)]
pub(crate) struct Note {
    /// Process that holds the file, or held it last.
    pub(crate) pid: u32,
    /// Since when, RFC 3339.
    pub(crate) since: String,
    /// Where it listens; empty while it does not.
    pub(crate) address: String,
    /// The file as it was last: see [`FileMark`].
    pub(crate) file: Option<FileMark>,
}

/// By what a file is known again: one that is another was put back, copied, or is another shop's.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub(crate) struct FileMark {
    /// Its own id.
    pub(crate) file_id: String,
    /// Device and inode: a copy has others.
    pub(crate) place: (u64, u64),
    /// The state that its log goes on from, or that it was closed in: a backup that was written over it has an earlier one.
    pub(crate) mark: String,
    /// How long its log was at the least after the last change; `None` while it is written back. A copy that was made in
    /// between and written over it has a shorter one.
    pub(crate) log_bytes: Option<u64>,
    /// When the file itself was last written, in nanoseconds.
    pub(crate) changed: i128,
}

/// The lock, held until it is let go of or dropped.
#[derive(Debug)]
pub(crate) struct Lock {
    file: Mutex<(File, Note)>,
    /// As an earlier program left it.
    pub(crate) earlier: Note,
}

/// Holds a file against every other program until it is dropped.
#[derive(Debug)]
pub struct Hold(#[allow(dead_code, reason = "held, and let go of by its drop")] Lock);

/// Takes the lock of a file that is not opened.
///
/// # Errors
/// [`StoreError::Held`] with who has it open; [`StoreError::File`].
pub fn hold(path: &Path) -> Result<Hold, StoreError> {
    Lock::take(&crate::opening::settled(path)?).map(Hold)
}

/// How long a start waits for a holder that is just dying.
const DYING: Duration = Duration::from_millis(1500);

impl Lock {
    /// Takes the lock of a file.
    ///
    /// # Errors
    /// [`StoreError::Held`] with who holds it; [`StoreError::File`].
    pub(crate) fn take(path: &Path) -> Result<Self, StoreError> {
        let name = beside(path, "-lock");
        let file_error = |source| StoreError::File { path: name.display().to_string(), source };
        let mut file = OpenOptions::new()
            .read(true)
            .write(true)
            .create(true)
            .truncate(false)
            .mode(0o600)
            .open(&name)
            .map_err(file_error)?;
        let begun = Instant::now();
        while let Err(error) = file.try_lock() {
            if let std::fs::TryLockError::Error(source) = error {
                return Err(file_error(source));
            }
            let holder = read(&mut file);
            // One that was killed a moment ago may not be gone altogether.
            if is_running(holder.pid) || begun.elapsed() > DYING {
                return Err(StoreError::Held {
                    path: path.display().to_string(),
                    by: holder.pid,
                    since: holder.since,
                    address: holder.address,
                });
            }
            std::thread::sleep(Duration::from_millis(10));
        }
        let earlier = read(&mut file);
        let note = Note {
            pid: std::process::id(),
            since: Timestamp::now().to_string(),
            address: String::new(),
            file: earlier.file.clone(),
        };
        let lock = Self { file: Mutex::new((file, note)), earlier };
        lock.note(|_| {});
        Ok(lock)
    }

    /// Lets go of the file: it is closed.
    pub(crate) fn let_go(&self) {
        let held = self.file.lock().unwrap_or_else(PoisonError::into_inner);
        // What cannot be let go of goes with the process.
        let _ = held.0.unlock();
    }

    /// Writes down where the holder listens.
    pub(crate) fn serves_at(&self, address: &str) {
        self.note(|note| address.clone_into(&mut note.address));
    }

    /// Writes down how the file stands.
    pub(crate) fn knows(&self, mark: FileMark) {
        self.note(|note| note.file = Some(mark));
    }

    /// Writes down how long the log is now.
    pub(crate) fn log_is(&self, bytes: Option<u64>) {
        self.note(|note| {
            if let Some(file) = &mut note.file {
                file.log_bytes = bytes;
            }
        });
    }

    fn note(&self, change: impl FnOnce(&mut Note)) {
        let mut held = self.file.lock().unwrap_or_else(PoisonError::into_inner);
        let (file, note) = &mut *held;
        change(note);
        // Without a note the next start only takes the file for another one, which harms nothing: no change is refused
        // because the disk is full here.
        let text = serde_json::to_string(note).unwrap_or_default() + "\n";
        let _ = file
            .seek(SeekFrom::Start(0))
            .and_then(|_| file.write_all(text.as_bytes()))
            .and_then(|()| file.set_len(text.len() as u64));
    }
}

fn read(file: &mut File) -> Note {
    let mut text = String::new();
    let read = file.seek(SeekFrom::Start(0)).and_then(|_| file.take(64 * 1024).read_to_string(&mut text));
    read.ok().and_then(|_| serde_json::from_str(&text).ok()).unwrap_or_default()
}

/// Whether a process is there, and is no corpse that nobody has asked after yet.
fn is_running(pid: u32) -> bool {
    let Ok(stat) = std::fs::read_to_string(format!("/proc/{pid}/stat")) else { return false };
    // The state follows the name, which stands in brackets and may hold anything.
    !stat.rsplit(')').next().is_some_and(|rest| rest.trim_start().starts_with(['Z', 'X']))
}
