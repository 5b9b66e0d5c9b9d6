//! Who changed what and when. Undo and redo are read off it, so they outlive the page and the program.
//!
//! An entry keeps its change in both directions; a job's first entry keeps the content it began with. So the content
//! after every entry can be had again, and a damaged job put back.

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
    /// A damaged job was put back as the journal knows it.
    Mend,
}

impl Kind {
    /// As it is kept.
    pub fn code(self) -> &'static str {
        match self {
            Self::Create => "create",
            Self::Change => "change",
            Self::Undo => "undo",
            Self::Redo => "redo",
            Self::Mend => "mend",
        }
    }

    pub(crate) fn from_code(code: &str) -> Option<Self> {
        [Self::Create, Self::Change, Self::Undo, Self::Redo, Self::Mend]
            .into_iter()
            .find(|kind| kind.code() == code)
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

/// An entry to be written.
#[derive(Debug, Clone, Copy)]
pub(crate) struct NewEntry<'a> {
    pub(crate) job: i64,
    pub(crate) revision: i64,
    pub(crate) token: &'a str,
    pub(crate) at: Timestamp,
    pub(crate) who: &'a str,
    pub(crate) kind: Kind,
    pub(crate) what: &'a str,
}

/// Writes an entry with the change from one content to another; without a content before it, the one after it whole. Its id.
pub(crate) fn record(
    connection: &Connection,
    entry: NewEntry<'_>,
    before: Option<&JobContent>,
    after: &JobContent,
) -> Result<i64, StoreError> {
    let (base, (forward, back)) = match before {
        Some(before) => (None, snapshot::changes_between(before, after)),
        None => (Some(snapshot::to_value(after).to_string()), ("[]".to_owned(), "[]".to_owned())),
    };
    connection
        .prepare_cached(
            "INSERT INTO journal (job_id, revision, at, who, kind, what, base, forward, back, token)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10)",
        )?
        .execute(params![
            entry.job,
            entry.revision,
            entry.at.to_string(),
            entry.who,
            entry.kind.code(),
            entry.what,
            base,
            forward,
            back,
            entry.token,
        ])?;
    Ok(connection.last_insert_rowid())
}

/// What undo takes back and what redo does again: the tops of a job's two piles of entries.
///
/// A change goes on the pile of what is done; an undo moves its top to the pile of what was undone, a redo moves it back, and
/// a new change forgets what was undone. What lies beneath an entry stands with it, so no step walks the journal.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(crate) struct Steps {
    pub(crate) to_undo: Option<i64>,
    pub(crate) to_redo: Option<i64>,
}

/// A job's steps.
pub(crate) fn steps(connection: &Connection, job: i64) -> Result<Steps, StoreError> {
    let mut statement = connection.prepare_cached("SELECT undoes, redoes FROM job WHERE id = ?1")?;
    Ok(statement.query_row([job], |row| Ok(Steps { to_undo: row.get(0)?, to_redo: row.get(1)? }))?)
}

/// Moves the piles on by an entry that was just written; where they then are.
pub(crate) fn step_on(
    connection: &Connection,
    job: i64,
    entry: i64,
    kind: Kind,
) -> Result<Steps, StoreError> {
    let now = steps(connection, job)?;
    let beneath = |column: &str, entry: i64| -> Result<Option<i64>, StoreError> {
        let sql = format!("SELECT {column} FROM journal WHERE id = ?1");
        Ok(connection.prepare_cached(&sql)?.query_row([entry], |row| row.get(0))?)
    };
    let put_on = |column: &str, entry: i64, top: Option<i64>| -> Result<(), StoreError> {
        let sql = format!("UPDATE journal SET {column} = ?2 WHERE id = ?1");
        connection.prepare_cached(&sql)?.execute(params![entry, top])?;
        Ok(())
    };
    let next = match kind {
        Kind::Change => {
            put_on("beneath_done", entry, now.to_undo)?;
            Steps { to_undo: Some(entry), to_redo: None }
        }
        Kind::Undo => match now.to_undo {
            Some(undone) => {
                put_on("beneath_undone", undone, now.to_redo)?;
                Steps { to_undo: beneath("beneath_done", undone)?, to_redo: Some(undone) }
            }
            None => now,
        },
        Kind::Redo => match now.to_redo {
            // Beneath it lies what lay there when it was undone.
            Some(done) => Steps { to_undo: Some(done), to_redo: beneath("beneath_undone", done)? },
            None => now,
        },
        // What came before a mend may be what cannot be read: undo begins anew.
        Kind::Mend => Steps::default(),
        Kind::Create => now,
    };
    connection.prepare_cached("UPDATE job SET undoes = ?2, redoes = ?3 WHERE id = ?1")?.execute(params![
        job,
        next.to_undo,
        next.to_redo
    ])?;
    Ok(next)
}

/// What an entry changed, in words.
pub(crate) fn words_of(connection: &Connection, entry: i64) -> Result<String, StoreError> {
    let mut statement = connection.prepare_cached("SELECT what FROM journal WHERE id = ?1")?;
    Ok(statement.query_row([entry], |row| row.get(0))?)
}

/// What an entry changed, and the content now with that change taken back (to undo) or made again (to redo).
pub(crate) fn content_of(
    connection: &Connection,
    entry: i64,
    kind: Kind,
    now: &JobContent,
) -> Result<(String, JobContent), StoreError> {
    let mut statement = connection.prepare_cached("SELECT what, forward, back FROM journal WHERE id = ?1")?;
    let (what, forward, back) = statement.query_row([entry], |row| {
        Ok((row.get(0)?, row.get::<_, Option<String>>(1)?, row.get::<_, Option<String>>(2)?))
    })?;
    let corrupt = |why| StoreError::Corrupt { table: "journal", id: entry, why };
    let change = if kind == Kind::Redo { forward } else { back };
    let change = change.ok_or_else(|| corrupt("what it changed is not known".to_owned()))?;
    let mut content = snapshot::to_value(now);
    snapshot::apply(&mut content, &change).map_err(corrupt)?;
    Ok((what, snapshot::from_value(content).map_err(corrupt)?))
}

/// A job's content as its journal knows it, and the revision it is of: the latest up to which every entry can be read.
pub(crate) fn rebuilt(connection: &Connection, job: i64) -> Result<(i64, JobContent), StoreError> {
    let mut statement = connection
        .prepare_cached("SELECT revision, base, forward FROM journal WHERE job_id = ?1 ORDER BY id")?;
    let mut rows = statement.query([job])?;
    let (mut content, mut sound): (Option<serde_json::Value>, _) = (None, None);
    while let Some(row) = rows.next()? {
        if let Some(base) = row.get::<_, Option<String>>("base")? {
            content = serde_json::from_str(&base).ok();
        }
        let forward = row.get::<_, Option<String>>("forward")?;
        let applied = content
            .as_mut()
            .zip(forward)
            .is_some_and(|(content, change)| snapshot::apply(content, &change).is_ok());
        if !applied {
            content = None;
        }
        if let Some(Ok(read)) = content.clone().map(snapshot::from_value) {
            sound = Some((row.get("revision")?, read));
        }
    }
    sound.ok_or(StoreError::Corrupt {
        table: "journal",
        id: job,
        why: "no entry of it can be read".to_owned(),
    })
}
