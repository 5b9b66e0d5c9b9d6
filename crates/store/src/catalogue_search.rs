//! Rows of the catalogue found by words.
//!
//! Each row keeps its words beside it, and an index holds them in the order in which rows are shown: a search reads that index
//! alone, and of the rows only those of the page.

use std::fmt::Write;

use memchr::memmem::Finder;
use rusqlite::{CachedStatement, Connection, Transaction, params};

use crate::StoreError;
use crate::catalogue::{CatalogueRow, Fields, RawRow};

/// Most words of a search.
const MOST_WORDS: usize = 8;

/// The index that answers by words. Made after the rows of an older file have theirs.
const INDEX: &str = "CREATE INDEX catalogue_row_by_words ON catalogue_row (kind, id, words)";

/// What a row is found by: all that it says, and whose it is.
pub(crate) fn words_of<'a>(says: impl Iterator<Item = &'a str>, supplier: &str) -> String {
    let mut words = supplier.to_lowercase();
    for text in says {
        // A string takes all that is written to it.
        let _ = write!(words, "\n{}", text.to_lowercase());
    }
    words
}

/// Step 13 of the file: every row that is there gets its words.
pub(crate) fn give_words(transaction: &Transaction<'_>) -> rusqlite::Result<()> {
    keep_words(transaction, "SELECT id, supplier, record FROM catalogue_row", [])?;
    transaction.execute_batch(INDEX)
}

/// Writes the words of some rows anew; `which` gives their number, supplier and record.
pub(crate) fn keep_words(
    connection: &Connection,
    which: &str,
    of: impl rusqlite::Params,
) -> rusqlite::Result<()> {
    let mut statement = connection.prepare(which)?;
    let mut rows = statement.query(of)?;
    let mut keep = connection.prepare_cached("UPDATE catalogue_row SET words = ?2 WHERE id = ?1")?;
    let mut words: Vec<(i64, String)> = Vec::new();
    while let Some(row) = rows.next()? {
        let raw = RawRow {
            id: row.get(0)?,
            supplier: row.get_ref(1)?.as_str()?,
            record: row.get_ref(2)?.as_str()?,
        };
        let fields = raw.fields();
        words.push((raw.id, words_of(fields.values().map(String::as_str), raw.supplier)));
    }
    words.iter().try_for_each(|(id, words)| keep.execute(params![id, words]).map(drop))
}

/// Rows of a kind in which every word occurs, in the order of their numbers, and how many there are in all.
///
/// # Errors
/// What SQLite says.
pub fn rows(
    connection: &Connection,
    kind: &str,
    find: &str,
    from: usize,
    most: usize,
) -> Result<(usize, Vec<CatalogueRow>), StoreError> {
    let words: Vec<String> = find.split_whitespace().take(MOST_WORDS).map(str::to_lowercase).collect();
    let finders: Vec<Finder<'_>> = words.iter().map(Finder::new).collect();
    let mut found: Vec<i64> = Vec::new();
    let mut statement =
        connection.prepare_cached("SELECT id, words FROM catalogue_row WHERE kind = ?1 ORDER BY id")?;
    let mut all = statement.query([kind])?;
    while let Some(row) = all.next()? {
        let text = row.get_ref(1)?.as_bytes().map_err(rusqlite::Error::from)?;
        if finders.iter().all(|finder| finder.find(text).is_some()) {
            found.push(row.get(0)?);
        }
    }
    let mut one =
        connection.prepare_cached("SELECT id, supplier, record FROM catalogue_row WHERE id = ?1")?;
    let page = found.iter().skip(from).take(most).map(|id| read(&mut one, *id));
    let page = page.collect::<Result<_, _>>()?;
    Ok((found.len(), page))
}

fn read(statement: &mut CachedStatement<'_>, id: i64) -> Result<CatalogueRow, StoreError> {
    let row = statement.query_row([id], |row| {
        let (supplier, record): (String, String) = (row.get(1)?, row.get(2)?);
        let (record, damaged) = match serde_json::from_str(&record) {
            Ok(record) => (record, None),
            Err(error) => (Fields::new(), Some(error.to_string())),
        };
        Ok(CatalogueRow { id: row.get(0)?, supplier, record, damaged })
    });
    Ok(row?)
}
