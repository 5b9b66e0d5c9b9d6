//! The house: its limits, its instruments, its people, its units.

use fitment::Length;
use fitment::car::corner::instrument::{self, Instrument};
use fitment::car::limits::{HouseLimits, LIMITS};
use rusqlite::{Connection, OptionalExtension, params};

use crate::StoreError;
use crate::identity::{Tag, new_token, shop_ids};

/// Someone who signs.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Person {
    /// As they sign.
    pub initials: String,
    /// Their name.
    pub name: String,
}

/// What the house has settled.
#[derive(Debug, Clone, PartialEq)]
pub struct HouseContent {
    /// Its limits.
    pub limits: HouseLimits,
    /// Its instruments, in order.
    pub instruments: Vec<Instrument>,
    /// Its people, in order.
    pub people: Vec<Person>,
    /// Units a new screen starts with: `metric`, `mixed` or `imperial`.
    pub units: String,
}

impl Default for HouseContent {
    fn default() -> Self {
        Self {
            limits: HouseLimits::DEFAULT,
            instruments: instrument::defaults(),
            people: Vec::new(),
            units: "metric".to_owned(),
        }
    }
}

/// The house as kept.
#[derive(Debug, Clone, PartialEq)]
pub struct House {
    /// Grows by one with every change; 0 while everything is the trade's default.
    pub revision: i64,
    /// This very state of this very file's house.
    pub tag: Tag,
    /// The rest.
    pub content: HouseContent,
    /// Rows that could not be read: for them the trade's figures stand in.
    pub damaged: Vec<String>,
}

/// The house; the trade's defaults until it was changed.
///
/// # Errors
/// Only what SQLite says.
pub fn get(connection: &Connection) -> Result<House, StoreError> {
    let row = connection
        .query_row("SELECT revision, units, token FROM house WHERE id = 1", [], |row| {
            Ok((
                row.get::<_, i64>("revision")?,
                row.get::<_, String>("units")?,
                row.get::<_, String>("token")?,
            ))
        })
        .optional()?;
    let file_id = shop_ids(connection)?.file_id;
    let Some((revision, units, token)) = row else {
        let tag = Tag { uid: file_id, token: "0".to_owned() };
        return Ok(House { revision: 0, tag, content: HouseContent::default(), damaged: Vec::new() });
    };
    let tag = Tag { uid: file_id, token };
    let mut damaged = Vec::new();
    let mut limits = HouseLimits::DEFAULT;
    let mut statement = connection.prepare_cached("SELECT code, value FROM house_limit")?;
    let rows =
        statement.query_map([], |row| Ok((row.get::<_, String>("code")?, row.get::<_, f64>("value")?)))?;
    for row in rows {
        let (code, value) = row?;
        if let Err(error) = limits.set(&code, value) {
            damaged.push(format!("limit {code}: {error}"));
        }
    }
    let mut statement =
        connection.prepare_cached("SELECT code, name, plus_minus_mm FROM instrument ORDER BY position")?;
    let rows = statement.query_map([], |row| {
        Ok((
            row.get::<_, String>("code")?,
            row.get::<_, String>("name")?,
            row.get::<_, f64>("plus_minus_mm")?,
        ))
    })?;
    let mut instruments = Vec::new();
    for row in rows {
        let (code, name, plus_minus) = row?;
        match Length::from_mm(plus_minus) {
            Some(plus_minus) => instruments.push(Instrument { code, name, plus_minus }),
            None => damaged.push(format!("instrument {code}: ± {plus_minus}")),
        }
    }
    let mut statement = connection.prepare_cached("SELECT initials, name FROM person ORDER BY position")?;
    let people = statement
        .query_map([], |row| Ok(Person { initials: row.get("initials")?, name: row.get("name")? }))?
        .collect::<Result<_, _>>()?;
    Ok(House { revision, tag, content: HouseContent { limits, instruments, people, units }, damaged })
}

/// Whether the house may be changed: one of the tags must be its own now. No tags: nobody asked.
///
/// # Errors
/// [`StoreError::OtherState`].
pub fn expect(connection: &Connection, tags: Option<&[Tag]>) -> Result<(), StoreError> {
    let Some(tags) = tags else { return Ok(()) };
    let now = get(connection)?.tag;
    if tags.contains(&now) { Ok(()) } else { Err(StoreError::OtherState { what: "house", now }) }
}

/// Replaces what the house has settled, when `based_on` is its revision.
///
/// # Errors
/// [`StoreError::StaleHouse`] when it was changed elsewhere.
pub fn change(connection: &Connection, based_on: i64, content: &HouseContent) -> Result<House, StoreError> {
    let current = get(connection)?;
    if current.revision != based_on {
        return Err(StoreError::StaleHouse { based_on, revision: current.revision });
    }
    if current.content == *content {
        return Ok(current);
    }
    connection.execute(
        "INSERT INTO house (id, revision, units, token) VALUES (1, ?1, ?2, ?3)
         ON CONFLICT (id) DO UPDATE
         SET revision = excluded.revision, units = excluded.units, token = excluded.token",
        params![current.revision + 1, content.units, new_token()],
    )?;
    connection.execute_batch("DELETE FROM house_limit; DELETE FROM instrument; DELETE FROM person;")?;
    // Only what differs from the trade's: a default that is mended later then reaches every house.
    for limit in LIMITS {
        let value = limit.of(&content.limits);
        if value != limit.of(&HouseLimits::DEFAULT) {
            connection.execute(
                "INSERT INTO house_limit (code, value) VALUES (?1, ?2)",
                params![limit.code, value],
            )?;
        }
    }
    for (position, one) in content.instruments.iter().enumerate() {
        connection.execute(
            "INSERT INTO instrument (code, position, name, plus_minus_mm) VALUES (?1, ?2, ?3, ?4)",
            params![one.code, position as i64, one.name, one.plus_minus.as_mm()],
        )?;
    }
    for (position, one) in content.people.iter().enumerate() {
        connection.execute(
            "INSERT INTO person (initials, position, name) VALUES (?1, ?2, ?3)",
            params![one.initials, position as i64, one.name],
        )?;
    }
    get(connection)
}
