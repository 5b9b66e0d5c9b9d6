//! Who is who beyond this file.
//!
//! A running number is no identity: a backup that is put back, or another file at the same address, makes job 3 and
//! revision 7 again with other content. So the program gives each job, reading, trial and price list a uid that is made
//! nowhere twice, each revision a token drawn at random, each shop an id that stays, and each file one that is new
//! whenever the file is another than it was: put back, copied, made for a demo.

use std::collections::HashMap;

use rusqlite::{Connection, OptionalExtension, params};
use uuid::Uuid;

use crate::StoreError;
use crate::jobs::{self, JobContent};

/// A uid: a UUID of version 7 (RFC 9562).
pub(crate) fn new_uid() -> String {
    Uuid::now_v7().to_string()
}

/// A revision's token.
pub(crate) fn new_token() -> String {
    Uuid::new_v4().simple().to_string()
}

/// What a change is for: a thing and its revision, as their sender last had them.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Tag {
    /// The thing.
    pub uid: String,
    /// Its revision.
    pub token: String,
}

/// The shop and its file.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ShopIds {
    /// The shop's: it stays.
    pub shop_id: String,
    /// The file's: new whenever the file was put back, copied or made.
    pub file_id: String,
}

/// Which shop and which file this is.
///
/// # Errors
/// What SQLite says.
pub fn shop_ids(connection: &Connection) -> Result<ShopIds, StoreError> {
    let mut statement = connection.prepare_cached("SELECT shop_id, file_id FROM shop_file WHERE id = 1")?;
    Ok(statement.query_row([], |row| Ok(ShopIds { shop_id: row.get(0)?, file_id: row.get(1)? }))?)
}

/// How what somebody last had of a job stands to this file.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// It is the job as it is now.
    Present,
    /// The job was so, and has been changed since: both can be brought together.
    Earlier,
    /// This file knows no such revision of the job, or no such job.
    Foreign,
}

/// How a tag stands to the job of an id.
///
/// # Errors
/// [`StoreError::NotFound`]; what SQLite says.
pub fn standing(connection: &Connection, id: i64, tag: &Tag) -> Result<Standing, StoreError> {
    let present = tag_of(connection, id)?;
    if present.uid != tag.uid {
        return Ok(Standing::Foreign);
    }
    if present.token == tag.token {
        return Ok(Standing::Present);
    }
    let is_known = connection
        .prepare_cached("SELECT 1 FROM journal WHERE job_id = ?1 AND token = ?2 AND token <> ''")?
        .exists(params![id, tag.token])?;
    Ok(if is_known { Standing::Earlier } else { Standing::Foreign })
}

/// A job's tag now.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn tag_of(connection: &Connection, id: i64) -> Result<Tag, StoreError> {
    let mut statement = connection.prepare_cached("SELECT uid, token FROM job WHERE id = ?1")?;
    let tag = statement.query_row([id], |row| Ok(Tag { uid: row.get(0)?, token: row.get(1)? })).optional()?;
    tag.ok_or(StoreError::NotFound { what: "job", id })
}

/// The id of the job of a uid.
///
/// # Errors
/// What SQLite says.
pub fn job_of(connection: &Connection, uid: &str) -> Result<Option<i64>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT id FROM job WHERE uid = ?1")?;
    Ok(statement.query_row([uid], |row| row.get(0)).optional()?)
}

/// Whether a change may be applied to a job: one of the tags must be the job's now. No tags: nobody asked.
///
/// # Errors
/// [`StoreError::OtherRevision`] with the job as it is; [`StoreError::NotFound`].
pub fn expect(connection: &Connection, id: i64, tags: Option<&[Tag]>) -> Result<(), StoreError> {
    let Some(tags) = tags else { return Ok(()) };
    let mut best = Standing::Foreign;
    for tag in tags {
        match standing(connection, id, tag)? {
            Standing::Present => return Ok(()),
            Standing::Earlier => best = Standing::Earlier,
            Standing::Foreign => {}
        }
    }
    Err(StoreError::OtherRevision {
        now: tag_of(connection, id)?,
        // What cannot be brought together with it is no business of its sender.
        current: match best {
            Standing::Earlier => Some(Box::new(jobs::get(connection, id)?)),
            _ => None,
        },
    })
}

/// Whether something may be put to a job or taken from it, whatever its revision: one of the tags must be of this very job,
/// in a revision that it has or had. No tags: nobody asked.
///
/// # Errors
/// [`StoreError::OtherRevision`]; [`StoreError::NotFound`].
pub fn expect_job(connection: &Connection, id: i64, tags: Option<&[Tag]>) -> Result<(), StoreError> {
    match expect(connection, id, tags) {
        Err(StoreError::OtherRevision { current: Some(_), .. }) => Ok(()),
        expected => expected,
    }
}

/// Uids of what a job holds, by their senders' ids.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct PartUids {
    readings: HashMap<String, String>,
    trials: HashMap<String, String>,
}

impl PartUids {
    /// A reading's, by the id its sender drew; empty when it was not kept yet.
    pub fn of_reading(&self, id: &str) -> &str {
        self.readings.get(id).map_or("", String::as_str)
    }

    /// A trial's, by the id its sender drew; empty when it was not kept yet.
    pub fn of_trial(&self, id: &str) -> &str {
        self.trials.get(id).map_or("", String::as_str)
    }

    /// What a job's parts are called.
    pub(crate) fn get(connection: &Connection, job: i64) -> Result<Self, StoreError> {
        let mut all = Self::default();
        let mut statement =
            connection.prepare_cached("SELECT kind, id, uid FROM part_uid WHERE job_id = ?1")?;
        let mut rows = statement.query([job])?;
        while let Some(row) = rows.next()? {
            let of = match row.get_ref("kind")?.as_str() {
                Ok("trial") => &mut all.trials,
                _ => &mut all.readings,
            };
            of.insert(row.get("id")?, row.get("uid")?);
        }
        Ok(all)
    }

    /// Gives a uid to every part that has none.
    pub(crate) fn give(connection: &Connection, job: i64, content: &JobContent) -> Result<(), StoreError> {
        let known = Self::get(connection, job)?;
        let mut give = connection.prepare_cached(
            "INSERT OR IGNORE INTO part_uid (job_id, kind, id, uid) VALUES (?1, ?2, ?3, ?4)",
        )?;
        for kept in &content.measurements.readings {
            if !known.readings.contains_key(&kept.id) {
                give.execute(params![job, "reading", kept.id, new_uid()])?;
            }
        }
        for kept in &content.workshop.trials {
            if !known.trials.contains_key(&kept.id) {
                give.execute(params![job, "trial", kept.id, new_uid()])?;
            }
        }
        Ok(())
    }
}
