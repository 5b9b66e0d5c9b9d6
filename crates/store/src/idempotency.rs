//! Requests that may be sent twice: an answer was lost on its way, and the sender cannot know whether it was applied.
//!
//! The sender draws a key. What the request made is noted under it in the same transaction, so a repeated one is
//! answered by what the first one made.

use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, params};
use serde::Serialize;
use serde::de::DeserializeOwned;

use crate::StoreError;
use crate::columns::json_of;

/// Keys that are remembered: weeks of a shop's work, so that a tablet that was off over a weekend still asks in vain for a
/// second job. Counted, for a clock may be set.
const MOST_KEPT: i64 = 20_000;

/// A key with what was asked under it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Once {
    /// The sender's key.
    pub key: String,
    /// What tells the request from every other: a key drawn for one does not answer another.
    pub request: String,
}

/// Makes something once: under a key that was seen before, what was made then is given back.
///
/// # Errors
/// [`StoreError::KeyReused`] when the key was drawn for another request; what `make` says.
pub fn once<T, E>(
    connection: &Connection,
    asked: Option<&Once>,
    now: Timestamp,
    make: impl FnOnce() -> Result<T, E>,
) -> Result<T, E>
where
    T: Serialize + DeserializeOwned,
    E: From<StoreError>,
{
    let Some(asked) = asked else { return make() };
    if let Some(made) = seen(connection, asked)? {
        return Ok(made);
    }
    let made = make()?;
    remember(connection, asked, &made, now)?;
    Ok(made)
}

/// What was made under a key.
fn seen<T: DeserializeOwned>(connection: &Connection, asked: &Once) -> Result<Option<T>, StoreError> {
    let seen = connection
        .prepare_cached("SELECT request, made FROM once WHERE key = ?1")?
        .query_row([&asked.key], |row| Ok((row.get::<_, String>("request")?, row.get::<_, String>("made")?)))
        .optional()?;
    let Some((earlier, made)) = seen else { return Ok(None) };
    if earlier != asked.request {
        return Err(StoreError::KeyReused);
    }
    let corrupt =
        |error: serde_json::Error| StoreError::Corrupt { table: "once", id: 0, why: error.to_string() };
    serde_json::from_str(&made).map(Some).map_err(corrupt)
}

fn remember<T: Serialize>(
    connection: &Connection,
    asked: &Once,
    made: &T,
    now: Timestamp,
) -> Result<(), StoreError> {
    connection
        .prepare_cached("DELETE FROM once WHERE rowid <= (SELECT max(rowid) FROM once) - ?1")?
        .execute([MOST_KEPT])?;
    // What is made is a number, or a few of them.
    let text = json_of(made)?;
    connection
        .prepare_cached("INSERT INTO once (key, request, made, at) VALUES (?1, ?2, ?3, ?4)")?
        .execute(params![asked.key, asked.request, text, now.to_string()])?;
    Ok(())
}
