//! Who changed what and when. Undo and redo are read off it, so they outlive the page and the program.

use jiff::Timestamp;
use rusqlite::{Connection, params};

use crate::StoreError;
use crate::jobs::JobContent;
use crate::snapshot;

/// What sort of step an entry is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// The job was opened.
    Create,
    /// A person changed it.
    Change,
    /// A change was taken back.
    Undo,
    /// An undone change was done again.
    Redo,
}

impl Kind {
    /// As it is kept.
    pub fn code(self) -> &'static str {
        match self {
            Self::Create => "create",
            Self::Change => "change",
            Self::Undo => "undo",
            Self::Redo => "redo",
        }
    }

    fn from_code(code: &str) -> Option<Self> {
        [Self::Create, Self::Change, Self::Undo, Self::Redo].into_iter().find(|kind| kind.code() == code)
    }
}

/// One line of the journal.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Entry {
    /// The revision it made.
    pub revision: i64,
    /// When.
    pub at: Timestamp,
    /// Who, as they signed the sheet.
    pub who: String,
    /// What sort of step.
    pub kind: Kind,
    /// What changed.
    pub what: String,
}

/// A job's journal, latest first, at most `most` entries.
///
/// # Errors
/// Only what SQLite says, or an entry that cannot be read.
pub fn list(connection: &Connection, job: i64, most: usize) -> Result<Vec<Entry>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT revision, at, who, kind, what FROM journal WHERE job_id = ?1 ORDER BY id DESC LIMIT ?2",
    )?;
    let rows = statement.query_map(params![job, most as i64], |row| {
        Ok((
            row.get::<_, i64>("revision")?,
            row.get::<_, String>("at")?,
            row.get::<_, String>("who")?,
            row.get::<_, String>("kind")?,
            row.get::<_, String>("what")?,
        ))
    })?;
    let mut entries = Vec::new();
    for row in rows {
        let (revision, at, who, kind, what) = row?;
        let corrupt = |why: String| StoreError::Corrupt { table: "journal", id: job, why };
        let at = at.parse().map_err(|error: jiff::Error| corrupt(error.to_string()))?;
        let kind = Kind::from_code(&kind).ok_or_else(|| corrupt(format!("kind {kind:?}")))?;
        entries.push(Entry { revision, at, who, kind, what });
    }
    Ok(entries)
}

#[allow(clippy::too_many_arguments, reason = "one argument a column")]
pub(crate) fn record(
    connection: &Connection,
    job: i64,
    revision: i64,
    at: Timestamp,
    who: &str,
    kind: Kind,
    what: &str,
    before: Option<&JobContent>,
    after: &JobContent,
) -> Result<(), StoreError> {
    connection
        .prepare_cached(
            "INSERT INTO journal (job_id, revision, at, who, kind, what, before, after)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
        )?
        .execute(params![
            job,
            revision,
            at.to_string(),
            who,
            kind.code(),
            what,
            before.map(snapshot::to_json),
            snapshot::to_json(after),
        ])?;
    Ok(())
}

/// Changes that stand and changes that were taken back, by entry id.
#[derive(Debug, Default)]
pub(crate) struct Steps {
    done: Vec<i64>,
    undone: Vec<i64>,
}

impl Steps {
    pub(crate) fn to_undo(&self) -> Option<i64> {
        self.done.last().copied()
    }

    pub(crate) fn to_redo(&self) -> Option<i64> {
        self.undone.last().copied()
    }
}

/// Walks a job's journal: a change goes on the pile, an undo takes it off, a redo puts it back, and a new
/// change forgets what was undone.
pub(crate) fn steps(connection: &Connection, job: i64) -> Result<Steps, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT id, kind FROM journal WHERE job_id = ?1 ORDER BY id")?;
    let mut rows = statement.query([job])?;
    let mut steps = Steps::default();
    while let Some(row) = rows.next()? {
        let id: i64 = row.get("id")?;
        match Kind::from_code(&row.get::<_, String>("kind")?) {
            Some(Kind::Change) => {
                steps.done.push(id);
                steps.undone.clear();
            }
            Some(Kind::Undo) => steps.undone.extend(steps.done.pop()),
            Some(Kind::Redo) => steps.done.extend(steps.undone.pop()),
            Some(Kind::Create) | None => {}
        }
    }
    Ok(steps)
}

/// What an entry changed, and the content before it (to undo) or after it (to redo).
pub(crate) fn content_of(
    connection: &Connection,
    entry: i64,
    kind: Kind,
) -> Result<(String, JobContent), StoreError> {
    let mut statement = connection.prepare_cached("SELECT what, before, after FROM journal WHERE id = ?1")?;
    let (what, before, after) = statement.query_row([entry], |row| {
        Ok((row.get(0)?, row.get::<_, Option<String>>(1)?, row.get::<_, String>(2)?))
    })?;
    let json = if kind == Kind::Redo { after } else { before.unwrap_or_default() };
    let corrupt = |why| StoreError::Corrupt { table: "journal", id: entry, why };
    Ok((what, snapshot::from_json(&json).map_err(corrupt)?))
}
