//! Clubs' rule files that the house wrote or brought, by club and the day from which they count.

use jiff::Timestamp;
use rusqlite::{Connection, params};

use crate::StoreError;
use crate::identity::{Tag, new_token};

/// A rule file.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ClubRules {
    /// The club.
    pub club: String,
    /// From which day it counts, as in 2026-03-01.
    pub valid_from: String,
    /// The file: JSON, in the words of the API.
    pub record: String,
    /// When it was last changed.
    pub changed_at: String,
    /// Who changed it.
    pub who: String,
}

/// Rule files that are kept at most.
pub const MOST_RULE_FILES: usize = 500;

/// All of them, by club and day.
///
/// # Errors
/// What SQLite says.
pub fn list(connection: &Connection) -> Result<Vec<ClubRules>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM club_rules ORDER BY club, valid_from")?;
    let rows = statement.query_map([], |row| {
        Ok(ClubRules {
            club: row.get("club")?,
            valid_from: row.get("valid_from")?,
            record: row.get("record")?,
            changed_at: row.get("changed_at")?,
            who: row.get("who")?,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// This very state of this very file's rule files.
///
/// # Errors
/// What SQLite says.
pub fn tag(connection: &Connection) -> Result<Tag, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT file_id, clubs_token FROM shop_file WHERE id = 1")?;
    Ok(statement.query_row([], |row| Ok(Tag { uid: row.get(0)?, token: row.get(1)? }))?)
}

/// Whether the rule files may be changed: one of the tags must be theirs now. No tags: nobody asked.
///
/// # Errors
/// [`StoreError::OtherState`].
pub fn expect(connection: &Connection, tags: Option<&[Tag]>) -> Result<(), StoreError> {
    let Some(tags) = tags else { return Ok(()) };
    let now = tag(connection)?;
    if tags.contains(&now) { Ok(()) } else { Err(StoreError::OtherState { what: "rule files", now }) }
}

/// Every change of them makes another state.
fn move_on(connection: &Connection) -> Result<(), StoreError> {
    connection.execute("UPDATE shop_file SET clubs_token = ?1", [new_token()])?;
    Ok(())
}

/// Keeps one, in place of the same club's of the same day.
///
/// # Errors
/// [`StoreError::TooMany`], or what SQLite says.
pub fn put(
    connection: &Connection,
    club: &str,
    valid_from: &str,
    record: &str,
    who: &str,
    now: Timestamp,
) -> Result<(), StoreError> {
    connection.execute(
        "INSERT INTO club_rules (club, valid_from, record, changed_at, who) VALUES (?1, ?2, ?3, ?4, ?5)
         ON CONFLICT (club, valid_from) DO UPDATE
         SET record = excluded.record, changed_at = excluded.changed_at, who = excluded.who",
        params![club, valid_from, record, now.to_string(), who],
    )?;
    move_on(connection)?;
    let count: i64 = connection.query_row("SELECT count(*) FROM club_rules", [], |row| row.get(0))?;
    if count as usize > MOST_RULE_FILES {
        return Err(StoreError::TooMany { what: "rule files", most: MOST_RULE_FILES, with: "" });
    }
    Ok(())
}

/// Takes one out.
///
/// # Errors
/// What SQLite says.
pub fn remove(connection: &Connection, club: &str, valid_from: &str) -> Result<bool, StoreError> {
    let gone = connection
        .execute("DELETE FROM club_rules WHERE club = ?1 AND valid_from = ?2", params![club, valid_from])?;
    move_on(connection)?;
    Ok(gone > 0)
}
