//! The catalogue as the finder wants it, read once and kept until a list is taken or undone.

use std::collections::BTreeMap;
use std::sync::Arc;

use exchange::field::Kind;
use exchange::{Field, Record, tires, wheels};
use fitment::setup::catalogue::Catalogue;
use rayon::prelude::*;
use rusqlite::Connection;
use store::catalogue;
use store::catalogue::RawRow;
use store::{Store, StoreError};
use tokio::sync::Mutex;

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

/// What was loaded last. Whoever asks while it is being loaded waits for that, and does not load it again.
#[derive(Debug, Clone, Default)]
pub struct CatalogueCache(Arc<Mutex<Option<Arc<Loaded>>>>);

impl CatalogueCache {
    /// The catalogue as it is now.
    ///
    /// # Errors
    /// What the store says.
    pub async fn loaded(&self, store: &Store) -> Result<Arc<Loaded>, StoreError> {
        let mut kept = self.0.lock().await;
        let version = store.read(catalogue::version).await?;
        if let Some(loaded) = kept.as_ref().filter(|loaded| loaded.version == version) {
            return Ok(Arc::clone(loaded));
        }
        let loaded = Arc::new(store.read(load).await?);
        *kept = Some(Arc::clone(&loaded));
        Ok(loaded)
    }
}

/// Rows that are read before they are looked at together.
const CHUNK: usize = 8192;

/// A row taken out of the table, to be looked at on another thread.
struct TakenRow {
    id: i64,
    supplier: Arc<str>,
    record: String,
}

/// Rows that can no longer be read are left out and counted.
fn load(connection: &Connection) -> Result<Loaded, StoreError> {
    // One snapshot: version and rows are read in the same transaction.
    let snapshot = connection.unchecked_transaction()?;
    let connection: &Connection = &snapshot;
    let mut loaded = Loaded { version: catalogue::version(connection)?, ..Loaded::default() };
    let Loaded { catalogue, wheel_sources, tire_sources, unreadable, .. } = &mut loaded;
    let read = |record: &Record, id| wheels::wheel(record, id).ok();
    each_read(connection, Kind::Wheels, unreadable, read, &mut |wheel, source| {
        catalogue.wheels.push(wheel);
        wheel_sources.push(source);
    })?;
    let read = |record: &Record, id| tires::tire(record, id).ok();
    each_read(connection, Kind::Tires, unreadable, read, &mut |tire, source| {
        catalogue.tires.push(tire);
        tire_sources.push(source);
    })?;
    catalogue.wheels.shrink_to_fit();
    catalogue.tires.shrink_to_fit();
    wheel_sources.shrink_to_fit();
    tire_sources.shrink_to_fit();
    Ok(loaded)
}

/// Every row of a kind in its order: rows come from the table one after the other, and are read some thousand at a time on as
/// many threads as there are.
fn each_read<T: Send>(
    connection: &Connection,
    kind: Kind,
    unreadable: &mut BTreeMap<String, usize>,
    read: impl Fn(&Record, u32) -> Option<T> + Sync,
    keep: &mut dyn FnMut(T, RowSource),
) -> Result<(), StoreError> {
    let mut suppliers: BTreeMap<String, Arc<str>> = BTreeMap::new();
    let mut chunk: Vec<TakenRow> = Vec::new();
    let mut read_all = |chunk: &mut Vec<TakenRow>| {
        let all: Vec<_> = chunk
            .par_iter()
            .map(|row| {
                let record = record_of(&RawRow { id: row.id, supplier: &row.supplier, record: &row.record });
                let article = record.text(Field::Article).map(Box::from);
                (read(&record, row.id as u32), article)
            })
            .collect();
        for (row, (read, article)) in chunk.drain(..).zip(all) {
            match read {
                Some(one) => keep(one, RowSource { supplier: row.supplier, article }),
                None => *unreadable.entry(row.supplier.to_string()).or_default() += 1,
            }
        }
    };
    catalogue::each(connection, kind.code(), &mut |row| {
        let supplier = match suppliers.get(row.supplier) {
            Some(known) => Arc::clone(known),
            None => {
                let new: Arc<str> = Arc::from(row.supplier);
                suppliers.insert(row.supplier.to_owned(), Arc::clone(&new));
                new
            }
        };
        chunk.push(TakenRow { id: row.id, supplier, record: row.record.to_owned() });
        if chunk.len() == CHUNK {
            read_all(&mut chunk);
        }
        Ok(())
    })?;
    read_all(&mut chunk);
    Ok(())
}

/// A kept row as a record; what is not one has no fields.
pub fn record_of(row: &RawRow<'_>) -> Record {
    Record(row.collected(|code, text| Some((Field::from_code(&code)?, text))))
}
