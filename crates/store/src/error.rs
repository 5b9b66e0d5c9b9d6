use rusqlite::ErrorCode;

use crate::identity::Tag;
use crate::jobs::Job;

/// Why the store could not do what was asked.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// No such row.
    #[error("there is no {what} {id}")]
    NotFound {
        /// Kind of row.
        what: &'static str,
        /// Its id.
        id: i64,
    },
    /// The job has moved on since the revision the change was based on.
    #[error("job {} is at revision {}, the change was based on {based_on}", current.id, current.revision)]
    Stale {
        /// The revision the change was based on.
        based_on: i64,
        /// The job as it is now.
        current: Box<Job>,
    },
    /// The job is another one, or at another revision, than the change was for.
    #[error("{}", other_revision(current.as_deref()))]
    OtherRevision {
        /// The job's tag now.
        now: Tag,
        /// The job as it is now, when its journal knows the revision that the change was based on; `None` when the change
        /// is for another job, or a revision that this file does not have.
        current: Option<Box<Job>>,
    },
    /// Something else that was changed, or is of another file, than the change was for.
    #[error("the {what} was changed meanwhile, or is another file's: nothing was changed")]
    OtherState {
        /// What.
        what: &'static str,
        /// Its tag now, as of [`crate::identity::Tag`].
        now: Tag,
    },
    /// The house was changed since the revision the change was based on.
    #[error("the house is at revision {revision}, the change was based on {based_on}")]
    StaleHouse {
        /// The revision the change was based on.
        based_on: i64,
        /// The revision it is at.
        revision: i64,
    },
    /// Nothing left to undo or redo.
    #[error("there is nothing to {0}")]
    NothingTo(&'static str),
    /// More than is kept.
    #[error("more than {most} {what} are not kept{with}")]
    TooMany {
        /// Of what.
        what: &'static str,
        /// How many at most.
        most: usize,
        /// With what, as in ` with one job`.
        with: &'static str,
    },
    /// A key that was drawn for another request.
    #[error("this idempotency key was drawn for another request")]
    KeyReused,
    /// Something still names it.
    #[error("{0}")]
    StillNamed(&'static str),
    /// The one who asked gave up waiting before it was applied; it was rolled back.
    #[error("it was given up before it was applied; nothing was changed")]
    GaveUp,
    /// The program has the file open already.
    #[error(
        "{path} is open in another program (process {by}, since {since}{}): use that one, or stop it first",
        at(address)
    )]
    Held {
        /// The file.
        path: String,
        /// Its process.
        by: u32,
        /// Since when, RFC 3339.
        since: String,
        /// Where it listens; empty while it does not.
        address: String,
    },
    /// The file is missing or empty, and its log is not.
    #[error(
        "{path} is {is}, and its log {log} holds changes: put the file back in its place, then start again; only to begin          an empty shop, move that log away and keep it"
    )]
    LogAlone {
        /// The file.
        path: String,
        /// Its log.
        log: String,
        /// `not there` or `empty`.
        is: &'static str,
    },
    /// Somebody damaged the file or its log while the program runs.
    #[error(
        "{path} was damaged while the program runs ({why}): nothing more is kept. Stop the program, copy the file and what          lies beside it, and put a backup in its place"
    )]
    DamagedMeanwhile {
        /// The file.
        path: String,
        /// What was found.
        why: String,
    },
    /// Another program holds the file.
    #[error("another program holds the shop's file; nothing was changed, try again")]
    Busy,
    /// No room on the disk.
    #[error("there is no room left on the disk of the shop's file; nothing was changed")]
    DiskFull,
    /// The file was deleted or replaced while it was open.
    #[error(
        "{path} was deleted or replaced while the program runs: nothing more is kept until it is started again"
    )]
    FileGone {
        /// The path.
        path: String,
    },
    /// The program is stopping.
    #[error("the program is stopping; nothing was changed")]
    Closed,
    /// The file was written by a newer program.
    #[error("the file is of version {found}, this program knows up to {known}: it was left untouched")]
    NewerFile {
        /// Version in the file.
        found: usize,
        /// Newest version known here.
        known: usize,
    },
    /// The file is there and is no database of ours.
    #[error("{path} is not a file of this program")]
    NotOurs {
        /// The path.
        path: String,
    },
    /// The file is ours and damaged.
    #[error(
        "{path} is damaged ({why}): put a backup in its place, or start with --even-if-damaged to save what can be \
         read"
    )]
    Damaged {
        /// The path.
        path: String,
        /// What SQLite found.
        why: String,
    },
    /// The log beside the file goes on from another state of it.
    #[error(
        "{log} does not belong to {path} as it is: if you put a backup back, move that log away and keep it, for it would \
         undo the backup; if you did not, start with --with-foreign-log"
    )]
    ForeignLog {
        /// The file.
        path: String,
        /// Its log.
        log: String,
    },
    /// A row holds what this program never writes.
    #[error("row {id} of {table} cannot be read: {why}")]
    Corrupt {
        /// Table.
        table: &'static str,
        /// Row.
        id: i64,
        /// What is wrong.
        why: String,
    },
    /// A closure panicked; its transaction was rolled back.
    #[error("a store task panicked; nothing of it was written")]
    Panicked,
    /// SQLite itself.
    #[error(transparent)]
    Sqlite(rusqlite::Error),
    /// A migration.
    #[error(transparent)]
    Migration(#[from] rusqlite_migration::Error),
    /// The file system.
    #[error("{path}: {source}")]
    File {
        /// The path.
        path: String,
        /// What the system said.
        source: std::io::Error,
    },
}

fn other_revision(current: Option<&Job>) -> String {
    match current {
        Some(job) => format!("job {} is at revision {} now; nothing was changed", job.id, job.revision),
        None => {
            "this was for another job, or for a revision that this file does not have: nothing was changed"
                .to_owned()
        }
    }
}

fn at(address: &str) -> String {
    if address.is_empty() { String::new() } else { format!(", at http://{address}") }
}

/// "I/O error while the shared memory beside the file was made larger": a full disk, at start.
const IOERR_SHMSIZE: i32 = 4874;

/// Whether SQLite could not do something because the disk is full.
pub(crate) fn is_for_want_of_room(error: &rusqlite::Error) -> bool {
    let extended = match error {
        rusqlite::Error::SqliteFailure(failure, _) => failure.extended_code,
        _ => 0,
    };
    error.sqlite_error_code() == Some(ErrorCode::DiskFull) || extended == IOERR_SHMSIZE
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match error.sqlite_error_code() {
            Some(ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked) => Self::Busy,
            _ if is_for_want_of_room(&error) => Self::DiskFull,
            _ => Self::Sqlite(error),
        }
    }
}
