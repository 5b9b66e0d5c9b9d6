//! The file and its log as this program left them, to notice at the next change what somebody else did to them meanwhile:
//! a disk that lost half of the file, a copy written over it. What is damaged takes no more changes, for they would be
//! acknowledged and lost.

use std::fs::{self, File, Metadata};
use std::os::unix::fs::{FileExt, MetadataExt};
use std::path::Path;

use rusqlite::{Connection, OpenFlags};

use crate::error::is_for_want_of_room;
use crate::wal_guard::{Frames, log_of, whole_frames};

/// SQLite's head of a file, and of a log with its first salt.
const FILE_HEAD: usize = 100;
const LOG_HEAD: usize = 32;

/// Length, time of the last change, and the first bytes.
#[derive(Debug, Clone, PartialEq, Eq)]
struct Looks {
    length: u64,
    changed: (i64, i64),
    head: Vec<u8>,
}

impl Looks {
    /// Nothing, of a file that cannot be read.
    fn of(file: &File, head: usize) -> Option<Self> {
        let metadata = file.metadata().ok()?;
        let mut bytes = vec![0; head];
        let read = file.read_at(&mut bytes, 0).ok()?;
        bytes.truncate(read);
        Some(Self { length: metadata.len(), changed: changed(&metadata), head: bytes })
    }

    fn is_still(&self, metadata: &Metadata) -> bool {
        self.length == metadata.len() && self.changed == changed(metadata)
    }
}

fn changed(metadata: &Metadata) -> (i64, i64) {
    (metadata.mtime(), metadata.mtime_nsec())
}

/// How file and log were left.
#[derive(Debug)]
pub(crate) struct Seen {
    /// Open for as long as SQLite has it open, and closed after it: closing any handle of a file gives up all locks that
    /// the process has on it (POSIX), and another program could then take the log away.
    handle: File,
    file: Option<Looks>,
    log: Option<Looks>,
}

impl Seen {
    /// Of a file that SQLite does not have open yet.
    pub(crate) fn of(path: &Path) -> std::io::Result<Self> {
        Ok(Self { handle: File::open(path)?, file: None, log: None })
    }

    /// Both as they are now: asked when this program itself has just changed them.
    pub(crate) fn look(&mut self, path: &Path) {
        self.file = Looks::of(&self.handle, FILE_HEAD);
        self.look_at_log(path);
    }

    /// The log as it is now: a change that was committed is in it, and nowhere else.
    pub(crate) fn look_at_log(&mut self, path: &Path) {
        self.log = File::open(log_of(path)).ok().and_then(|log| Looks::of(&log, LOG_HEAD));
    }

    /// How long the log was left.
    pub(crate) fn log_bytes(&self) -> u64 {
        self.log.as_ref().map_or(0, |log| log.length)
    }

    /// Why no change may be made now: what somebody else did to file or log, when that left them damaged. A look at
    /// lengths and times, unless something was done.
    pub(crate) fn damage(&mut self, path: &Path) -> Option<String> {
        let log = log_of(path);
        let is_as_left = |looks: &Option<Looks>, path: &Path| match (looks, fs::metadata(path)) {
            (Some(looks), Ok(metadata)) => looks.is_still(&metadata),
            (None, Err(_)) => true,
            // An empty log and none are the same.
            (None, Ok(metadata)) => metadata.len() == 0,
            (Some(looks), Err(_)) => looks.length == 0,
        };
        if is_as_left(&self.file, path) && is_as_left(&self.log, &log) {
            return None;
        }
        let found = self.damage_of_log(&log).or_else(|| self.damage_of_file(path));
        if found.is_none() {
            // Another program that knows the format made a change of its own, or wrote the log back: it is sound.
            self.look(path);
        }
        found
    }

    fn damage_of_log(&self, log: &Path) -> Option<String> {
        let left = self.log.as_ref().filter(|log| log.length > 0)?;
        let bytes = fs::read(log).unwrap_or_default();
        let name = log.display();
        if (bytes.len() as u64) < left.length {
            return Some(format!("{name} was {} bytes long and is {} now", left.length, bytes.len()));
        }
        if !bytes.starts_with(&left.head) {
            return Some(format!("the head of {name} is another one now"));
        }
        match whole_frames(&bytes) {
            // All of it was written, and most of it acknowledged.
            Some(Frames { sound_bytes, .. }) if sound_bytes as u64 >= left.length => None,
            _ => Some(format!("{name} was changed and is damaged")),
        }
    }

    fn damage_of_file(&self, path: &Path) -> Option<String> {
        let left = self.file.as_ref()?;
        let now = Looks::of(&self.handle, FILE_HEAD)?;
        if now.length < left.length {
            return Some(format!(
                "{} was {} bytes long and is {} now",
                path.display(),
                left.length,
                now.length
            ));
        }
        // What marks the format and the size of a page never changes; counters may.
        if now.head.get(..24) != left.head.get(..24) {
            return Some(format!("the head of {} is another one now", path.display()));
        }
        quick_check(path)
    }
}

/// SQLite's own quick check, by eyes that have read nothing of the file before.
pub(crate) fn quick_check(path: &Path) -> Option<String> {
    let flags = OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let found = Connection::open_with_flags(path, flags)
        .and_then(|fresh| fresh.query_row("PRAGMA quick_check(1)", [], |row| row.get::<_, String>(0)))
        // Where even the index of the log has no room nothing can be looked at, and nothing is changed either.
        .unwrap_or_else(
            |error| if is_for_want_of_room(&error) { "ok".to_owned() } else { error.to_string() },
        );
    (found != "ok").then(|| found.replace("*** in database main ***\n", ""))
}
