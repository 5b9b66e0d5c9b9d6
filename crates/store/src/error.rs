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
    Sqlite(#[from] rusqlite::Error),
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
