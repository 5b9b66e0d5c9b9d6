//! The catalogue as the finder wants it, read once and kept until a list is taken or undone.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, PoisonError};

use exchange::field::Kind;
use exchange::{Field, Record, tires, wheels};
use fitment::setup::catalogue::Catalogue;
use rusqlite::Connection;
use store::catalogue;
use store::catalogue::RawRow;
use store::{Store, StoreError};

/// The rows of every list that was taken.
#[derive(Debug, Default)]
pub struct Loaded {
    /// The version of the lists that it was loaded at.
    pub version: i64,
    /// Wheels and tires.
    pub catalogue: Catalogue,
    /// Where each wheel comes from, in the order of the catalogue.
    pub wheel_sources: Vec<RowSource>,
    /// Where each tire comes from.
    pub tire_sources: Vec<RowSource>,
    /// How many rows of each supplier's lists can no longer be read. They were sound when they were taken.
    pub unreadable: BTreeMap<String, usize>,
}

impl Loaded {
    /// What could not be read, for whoever searches: what is left out is said.
    pub fn unreadable_in_words(&self) -> Vec<String> {
        self.unreadable
            .iter()
            .map(|(supplier, rows)| {
                let rows = if *rows == 1 { "1 row".to_owned() } else { format!("{rows} rows") };
                format!("{rows} of {supplier} can no longer be read and stay out: take that list again")
            })
            .collect()
    }
}

/// Where a row comes from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowSource {
    /// Whose it is.
    pub supplier: Arc<str>,
    /// The supplier's own number for it.
    pub article: Option<Box<str>>,
}

/// What was loaded last.
#[derive(Debug, Clone, Default)]
pub struct CatalogueCache(Arc<Mutex<Option<Arc<Loaded>>>>);

impl CatalogueCache {
    /// The catalogue as it is now.
    ///
    /// # Errors
    /// What the store says.
    pub async fn loaded(&self, store: &Store) -> Result<Arc<Loaded>, StoreError> {
        let version = store.read(catalogue::version).await?;
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner).clone();
        if let Some(loaded) = kept
            && loaded.version == version
        {
            return Ok(loaded);
        }
        let loaded = Arc::new(store.read(load).await?);
        *self.0.lock().unwrap_or_else(PoisonError::into_inner) = Some(Arc::clone(&loaded));
        Ok(loaded)
    }
}

/// Rows that can no longer be read are left out and counted.
fn load(connection: &Connection) -> Result<Loaded, StoreError> {
    // One snapshot: version and rows are read in the same transaction.
    let snapshot = connection.unchecked_transaction()?;
    let connection: &Connection = &snapshot;
    let mut loaded = Loaded { version: catalogue::version(connection)?, ..Loaded::default() };
    let mut suppliers: BTreeMap<String, Arc<str>> = BTreeMap::new();
    let mut source = |supplier: &str, record: &Record| {
        let supplier = match suppliers.get(supplier) {
            Some(known) => Arc::clone(known),
            None => {
                let new: Arc<str> = Arc::from(supplier);
                suppliers.insert(supplier.to_owned(), Arc::clone(&new));
                new
            }
        };
        RowSource { supplier, article: record.text(Field::Article).map(Box::from) }
    };
    catalogue::each(connection, Kind::Wheels.code(), &mut |row| {
        let record = record_of(&row);
        match wheels::wheel(&record, row.id as u32) {
            Ok(wheel) => {
                loaded.catalogue.wheels.push(wheel);
                loaded.wheel_sources.push(source(row.supplier, &record));
            }
            Err(_) => *loaded.unreadable.entry(row.supplier.to_owned()).or_default() += 1,
        }
        Ok(())
    })?;
    catalogue::each(connection, Kind::Tires.code(), &mut |row| {
        let record = record_of(&row);
        match tires::tire(&record, row.id as u32) {
            Ok(tire) => {
                loaded.catalogue.tires.push(tire);
                loaded.tire_sources.push(source(row.supplier, &record));
            }
            Err(_) => *loaded.unreadable.entry(row.supplier.to_owned()).or_default() += 1,
        }
        Ok(())
    })?;
    loaded.catalogue.wheels.shrink_to_fit();
    loaded.catalogue.tires.shrink_to_fit();
    loaded.wheel_sources.shrink_to_fit();
    loaded.tire_sources.shrink_to_fit();
    Ok(loaded)
}

/// A kept row as a record; what is not one has no fields.
pub fn record_of(row: &RawRow<'_>) -> Record {
    let fields = row.fields().into_iter();
    Record(fields.filter_map(|(code, text)| Some((Field::from_code(&code)?, text))).collect())
}
