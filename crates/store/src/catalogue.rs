//! Price lists, and what can be ordered by them.
//!
//! A row is kept as texts by field, as its list had it; what the fields mean is not known here. Taking a list notes
//! what every row was before, so that it can be undone without touching what came later.

use std::borrow::Cow;
use std::collections::{BTreeMap, HashMap};
use std::fmt;
use std::marker::PhantomData;

use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, Row, params};
use serde::Deserialize;
use serde::de::{Deserializer, MapAccess, Visitor};

use crate::StoreError;
pub use crate::catalogue_search::rows;
use crate::catalogue_search::{keep_words, words_of};
use crate::identity::{Tag, new_uid};

/// A row as texts by field.
pub type Fields = BTreeMap<String, String>;

/// A row as one text: the JSON of its fields in the order of their codes, so that equal rows are equal texts.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RecordText(String);

impl RecordText {
    /// A row's text.
    pub fn of(fields: &BTreeMap<&str, &str>) -> Self {
        // A map of texts always has a JSON.
        Self(serde_json::to_string(fields).unwrap_or_default())
    }

    /// The row's fields; what is not a record has none.
    pub fn fields(&self) -> Fields {
        serde_json::from_str(&self.0).unwrap_or_default()
    }
}

/// A row of the catalogue as the table holds it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct RawRow<'a> {
    /// Its number.
    pub id: i64,
    /// Whose it is.
    pub supplier: &'a str,
    /// JSON of its fields.
    pub record: &'a str,
}

impl RawRow<'_> {
    /// Its fields by their codes; what is not a record has none.
    pub fn fields(&self) -> BTreeMap<Cow<'_, str>, String> {
        self.collected(|code, text| Some((code, text)))
    }

    /// What is made of each field, collected without a map between: lists have many rows. What is not a record has none.
    pub fn collected<'a, T, C: Default + Extend<T>>(
        &'a self,
        of: impl FnMut(Cow<'a, str>, String) -> Option<T>,
    ) -> C {
        let collected = EachField { of, all: PhantomData };
        let mut text = serde_json::Deserializer::from_str(self.record);
        let read = text.deserialize_map(collected).and_then(|all| text.end().map(|()| all));
        read.unwrap_or_default()
    }
}

/// Reads a map of texts entry by entry.
struct EachField<F, C> {
    of: F,
    all: PhantomData<C>,
}

impl<'de, T, C: Default + Extend<T>, F: FnMut(Cow<'de, str>, String) -> Option<T>> Visitor<'de>
    for EachField<F, C>
{
    type Value = C;

    fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.write_str("a record of texts")
    }

    fn visit_map<M: MapAccess<'de>>(mut self, mut map: M) -> Result<C, M::Error> {
        /// A key that is taken as it stands in the text where that can be.
        #[derive(Deserialize)]
        struct Code<'a>(#[serde(borrow)] Cow<'a, str>);
        let mut all = C::default();
        while let Some((Code(code), text)) = map.next_entry()? {
            all.extend((self.of)(code, text));
        }
        Ok(all)
    }
}

/// A price list without its bytes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PriceList {
    /// Its number.
    pub id: i64,
    /// Itself and no other: made nowhere twice.
    pub uid: String,
    /// `wheels` or `tires`.
    pub kind: String,
    /// Whose it is.
    pub supplier: String,
    /// The file it came in.
    pub file_name: String,
    /// `open`, `taken` or `undone`.
    pub state: String,
    /// When it was brought.
    pub brought_at: String,
    /// When it was taken.
    pub taken_at: Option<String>,
    /// How many rows it made or changed.
    pub changed_rows: i64,
    /// How many bytes its file has.
    pub bytes: i64,
    /// Whether its file was removed: it can no longer be read again.
    pub is_removed: bool,
}

/// A row that can be ordered.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct CatalogueRow {
    /// Its number.
    pub id: i64,
    /// Whose it is.
    pub supplier: String,
    /// What it says; nothing when it cannot be read.
    pub record: Fields,
    /// Why it cannot be read.
    pub damaged: Option<String>,
}

/// What taking or undoing a list did.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Counts {
    /// Rows that were not there before.
    pub new: usize,
    /// Rows that say something else now.
    pub changed: usize,
    /// Rows that say the same.
    pub unchanged: usize,
}

impl PriceList {
    /// This very state of this very list: it goes from open to taken to undone, and its file may be removed.
    pub fn tag(&self) -> Tag {
        let removed = if self.is_removed { "-removed" } else { "" };
        Tag { uid: self.uid.clone(), token: format!("{}{removed}", self.state) }
    }
}

fn list_of(row: &Row<'_>) -> rusqlite::Result<PriceList> {
    Ok(PriceList {
        id: row.get("id")?,
        uid: row.get("uid")?,
        kind: row.get("kind")?,
        supplier: row.get("supplier")?,
        file_name: row.get("file_name")?,
        state: row.get("state")?,
        brought_at: row.get("brought_at")?,
        taken_at: row.get("taken_at")?,
        changed_rows: row.get("changed_rows")?,
        bytes: row.get("size")?,
        is_removed: row.get("is_removed")?,
    })
}

const LIST: &str = "SELECT id, uid, kind, supplier, file_name, state, brought_at, taken_at, is_removed,
    length(bytes) AS size,
    (SELECT count(*) FROM catalogue_change WHERE list_id = price_list.id) AS changed_rows FROM price_list";

fn fields(text: &str, id: i64) -> Result<Fields, StoreError> {
    serde_json::from_str(text).map_err(|error| StoreError::Corrupt {
        table: "catalogue_row",
        id,
        why: error.to_string(),
    })
}

fn text(fields: &Fields) -> String {
    // A map of texts always has a JSON.
    serde_json::to_string(fields).unwrap_or_default()
}

/// Keeps a list as it came; nothing is taken yet.
///
/// # Errors
/// What SQLite says.
pub fn bring(
    connection: &Connection,
    kind: &str,
    supplier: &str,
    file_name: &str,
    bytes: &[u8],
    now: Timestamp,
) -> Result<PriceList, StoreError> {
    connection.execute(
        "INSERT INTO price_list (uid, kind, supplier, file_name, bytes, state, brought_at)
         VALUES (?1, ?2, ?3, ?4, ?5, 'open', ?6)",
        params![new_uid(), kind, supplier, file_name, bytes, now.to_string()],
    )?;
    list(connection, connection.last_insert_rowid())
}

/// A list.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn list(connection: &Connection, id: i64) -> Result<PriceList, StoreError> {
    connection
        .query_row(&format!("{LIST} WHERE id = ?1"), [id], list_of)
        .optional()?
        .ok_or(StoreError::NotFound { what: "price list", id })
}

/// Whether something may be done to a list: one of the tags must be the list's now. No tags: nobody asked.
///
/// # Errors
/// [`StoreError::OtherState`]; [`StoreError::NotFound`].
pub fn expect(connection: &Connection, id: i64, tags: Option<&[Tag]>) -> Result<(), StoreError> {
    let Some(tags) = tags else { return Ok(()) };
    let now = list(connection, id)?.tag();
    if tags.contains(&now) { Ok(()) } else { Err(StoreError::OtherState { what: "price list", now }) }
}

/// A list's bytes.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::NothingTo`] when its file was removed.
pub fn bytes(connection: &Connection, id: i64) -> Result<Vec<u8>, StoreError> {
    let (bytes, is_removed) = connection
        .query_row("SELECT bytes, is_removed FROM price_list WHERE id = ?1", [id], |row| {
            Ok((row.get("bytes")?, row.get::<_, bool>("is_removed")?))
        })
        .optional()?
        .ok_or(StoreError::NotFound { what: "price list", id })?;
    if is_removed { Err(StoreError::NothingTo("read: the list's file was removed")) } else { Ok(bytes) }
}

/// Removes a list's file for good. What was taken of it stays, and can still be undone.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::NothingTo`] when it was removed before.
pub fn remove_file(connection: &Connection, id: i64) -> Result<PriceList, StoreError> {
    if list(connection, id)?.is_removed {
        return Err(StoreError::NothingTo("remove: the list's file was removed before"));
    }
    connection.execute("UPDATE price_list SET bytes = x'', is_removed = 1 WHERE id = ?1", [id])?;
    list(connection, id)
}

/// Every list, the latest first.
///
/// # Errors
/// What SQLite says.
pub fn lists(connection: &Connection) -> Result<Vec<PriceList>, StoreError> {
    let mut statement = connection.prepare_cached(&format!("{LIST} ORDER BY id DESC LIMIT 100"))?;
    let lists = statement.query_map([], list_of)?.collect::<Result<_, _>>()?;
    Ok(lists)
}

/// What is remembered of a supplier's headings: field to heading.
///
/// # Errors
/// What SQLite says.
pub fn mapping(connection: &Connection, supplier: &str, kind: &str) -> Result<Option<Fields>, StoreError> {
    let found: Option<String> = connection
        .query_row(
            "SELECT mapping FROM supplier_mapping WHERE supplier = ?1 AND kind = ?2",
            [supplier, kind],
            |row| row.get("mapping"),
        )
        .optional()?;
    found.map(|text| fields(&text, 0)).transpose()
}

/// A supplier's rows by key: their number and text.
pub type Known = HashMap<String, (i64, RecordText)>;

/// A supplier's rows by key.
///
/// # Errors
/// What SQLite says.
pub fn known(connection: &Connection, kind: &str, supplier: &str) -> Result<Known, StoreError> {
    let mut statement = connection
        .prepare_cached("SELECT id, key, record FROM catalogue_row WHERE kind = ?1 AND supplier = ?2")?;
    let rows = statement.query_map([kind, supplier], |row| {
        Ok((row.get::<_, i64>("id")?, row.get::<_, String>("key")?, row.get::<_, String>("record")?))
    })?;
    rows.map(|row| {
        let (id, key, record) = row?;
        Ok((key, (id, RecordText(record))))
    })
    .collect()
}

/// How rows compare with what is known: what taking them would do.
pub fn compared(known: &Known, rows: &[(String, RecordText)]) -> Counts {
    let mut counts = Counts::default();
    for (key, record) in rows {
        match known.get(key) {
            None => counts.new += 1,
            Some((_, was)) if was != record => counts.changed += 1,
            Some(_) => counts.unchanged += 1,
        }
    }
    counts
}

/// Takes a list's rows, and remembers the supplier's headings. `told` hears now and then how many rows are done.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::NothingTo`] when it was taken before.
pub fn take(
    connection: &Connection,
    id: i64,
    headings: &Fields,
    rows: &[(String, RecordText)],
    now: Timestamp,
    told: &dyn Fn(usize),
) -> Result<Counts, StoreError> {
    let list = list(connection, id)?;
    if list.state != "open" {
        return Err(StoreError::NothingTo("take: the list was taken before"));
    }
    let known = known(connection, &list.kind, &list.supplier)?;
    let mut insert = connection.prepare_cached(
        "INSERT INTO catalogue_row (kind, supplier, key, record, words) VALUES (?1, ?2, ?3, ?4, ?5)",
    )?;
    let mut update =
        connection.prepare_cached("UPDATE catalogue_row SET record = ?2, words = ?3 WHERE id = ?1")?;
    let mut note = connection.prepare_cached(
        "INSERT INTO catalogue_change (list_id, row_id, before, after) VALUES (?1, ?2, ?3, ?4)",
    )?;
    let words = |record: &RecordText| {
        let fields: BTreeMap<Cow<'_, str>, Cow<'_, str>> =
            serde_json::from_str(&record.0).unwrap_or_default();
        words_of(fields.values().map(|text| &**text), &list.supplier)
    };
    for (count, (key, record)) in rows.iter().enumerate() {
        if count % 1000 == 0 {
            told(count);
        }
        match known.get(key) {
            None => {
                insert.execute(params![list.kind, list.supplier, key, record.0, words(record)])?;
                note.execute(params![id, connection.last_insert_rowid(), None::<String>, record.0])?;
            }
            Some((row, was)) if was != record => {
                update.execute(params![row, record.0, words(record)])?;
                note.execute(params![id, row, was.0, record.0])?;
            }
            Some(_) => {}
        }
    }
    connection.execute(
        "INSERT INTO supplier_mapping (supplier, kind, mapping) VALUES (?1, ?2, ?3)
         ON CONFLICT (supplier, kind) DO UPDATE SET mapping = excluded.mapping",
        params![list.supplier, list.kind, text(headings)],
    )?;
    connection.execute(
        "UPDATE price_list SET state = 'taken', taken_at = ?2 WHERE id = ?1",
        params![id, now.to_string()],
    )?;
    Ok(compared(&known, rows))
}

/// Undoes a taken list: rows that were new go, rows that were changed say again what they said. What another list
/// changed since is left as it is. Gives how many rows went back and how many were left.
///
/// # Errors
/// [`StoreError::NotFound`]; [`StoreError::NothingTo`] when it is not taken.
pub fn undo(connection: &Connection, id: i64) -> Result<(usize, usize), StoreError> {
    if list(connection, id)?.state != "taken" {
        return Err(StoreError::NothingTo("undo: the list is not taken"));
    }
    let count = |sql: &str| connection.execute(sql, [id]);
    let gone = count(
        "DELETE FROM catalogue_row WHERE id IN (SELECT c.row_id FROM catalogue_change c
           JOIN catalogue_row r ON r.id = c.row_id
           WHERE c.list_id = ?1 AND c.before IS NULL AND r.record = c.after)",
    )?;
    let back = count(
        "UPDATE catalogue_row SET record = c.before FROM catalogue_change c
         WHERE c.list_id = ?1 AND c.row_id = catalogue_row.id AND c.before IS NOT NULL
           AND catalogue_row.record = c.after",
    )?;
    keep_words(
        connection,
        "SELECT r.id, r.supplier, r.record FROM catalogue_row r
           JOIN catalogue_change c ON c.row_id = r.id WHERE c.list_id = ?1",
        [id],
    )?;
    let all: i64 =
        connection
            .query_row("SELECT count(*) FROM catalogue_change WHERE list_id = ?1", [id], |row| row.get(0))?;
    connection.execute("UPDATE price_list SET state = 'undone' WHERE id = ?1", [id])?;
    let done = gone + back;
    Ok((done, usize::try_from(all).unwrap_or(done).saturating_sub(done)))
}

/// Every row of a kind in the order of their numbers, one after the other: they are never all in memory at once.
///
/// # Errors
/// What SQLite says, or the first error of `see`.
pub fn each(
    connection: &Connection,
    kind: &str,
    see: &mut dyn FnMut(RawRow<'_>) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    let mut statement = connection
        .prepare_cached("SELECT id, supplier, record FROM catalogue_row WHERE kind = ?1 ORDER BY id")?;
    let mut rows = statement.query([kind])?;
    while let Some(row) = rows.next()? {
        let text = |column| row.get_ref(column)?.as_str().map_err(rusqlite::Error::from);
        see(RawRow { id: row.get("id")?, supplier: text("supplier")?, record: text("record")? })?;
    }
    Ok(())
}

/// A number that grows with every list taken or undone.
///
/// # Errors
/// What SQLite says.
pub fn version(connection: &Connection) -> Result<i64, StoreError> {
    Ok(connection.query_row(
        "SELECT coalesce(sum(CASE state WHEN 'taken' THEN 1 WHEN 'undone' THEN 2 ELSE 0 END), 0) FROM price_list",
        [],
        |row| row.get(0),
    )?)
}
