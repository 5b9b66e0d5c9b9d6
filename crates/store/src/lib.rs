//! What the shop keeps.
//!
//! - [`Store`]: the file, its migrations, and the two doors to it, `read` and `write`.
//! - [`Patience`]: how long the one who asks for a change waits. [`Once`]: requests that may be sent twice.
//! - [`jobs`]: plain functions over a connection, which compose inside one transaction.
//! - [`measurements`]: what a job knows of its car: record, readings, levers, wanted style.
//! - [`catalogue`]: price lists and the rows that came of them.
//! - [`picked`]: what a job has picked of them, and what was gone through with the owner.
//! - [`workshop`]: profiles of a job's brakes, what was tried on, photos; insides of wheels. [`proven`]: fits of finished jobs.
//! - [`module_log`]: what cars' modules were told.
//! - [`clubs`]: rule files of clubs.
//! - [`house`]: the house's limits, instruments and people.
//! - [`identity`]: who is who beyond this file: uids, tokens, and whether a change is for this very job.
//! - [`journal`]: who changed what and when; undo and redo are read off it, and a damaged job is put back from it.
//! - [`storage`]: what nothing names any more, and its removal.
//!
//! What holds: every change to a job names the revision it was based on, and a stale one is refused with the
//! current job. Nothing is deleted but what nothing names: a job is put away and can be taken out again. No connection
//! is held across an `.await`. A row that cannot be read costs that row, and is told.
//!
//! What is deliberately not here: HTTP, wire formats, and any rule of the trade.

pub mod catalogue;
mod catalogue_search;
pub mod clubs;
mod columns;
pub mod documents;
mod error;
pub mod house;
mod idempotency;
pub mod identity;
pub mod jobs;
pub mod journal;
mod lock;
pub mod measurements;
mod migrations;
pub mod module_log;
mod opening;
mod patience;
pub mod picked;
pub mod proven;
mod seen;
mod snapshot;
pub mod storage;
mod store;
mod wal_guard;
mod words;
pub mod workshop;

pub use error::StoreError;
pub use idempotency::{Once, once};
pub use lock::{Hold, hold};
pub use migrations::LATEST;
pub use opening::Opening;
pub use patience::Patience;
pub use rusqlite::Connection;
pub use store::Store;
