//! The catalogue as the finder wants it, read once and kept until a list is taken or undone.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, PoisonError};

use exchange::field::Kind;
use exchange::record::{Record, RowError};
use exchange::{Field, Mapping, Table, tires, wheels};
use fitment::choose::catalogue::Catalogue;
use store::catalogue::{self, CatalogueRow, Fields};
use store::{Store, StoreError};

/// The rows of every list that was taken.
#[derive(Debug, Default)]
pub struct Loaded {
    /// Wheels and tires.
    pub catalogue: Catalogue,
    /// Where each wheel comes from, in the order of the catalogue.
    pub wheel_sources: Vec<RowSource>,
    /// Where each tire comes from.
    pub tire_sources: Vec<RowSource>,
}

/// Where a row comes from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowSource {
    /// Whose it is.
    pub supplier: Arc<str>,
    /// The supplier's own number for it.
    pub article: Option<Box<str>>,
}

/// A catalogue with the version it was loaded at.
type Kept = Option<(i64, Arc<Loaded>)>;

/// What was loaded last.
#[derive(Debug, Clone, Default)]
pub struct Shelf(Arc<Mutex<Kept>>);

impl Shelf {
    /// The catalogue as it is now.
    ///
    /// # Errors
    /// What the store says.
    pub async fn loaded(&self, store: &Store) -> Result<Arc<Loaded>, StoreError> {
        let version = store.read(catalogue::version).await?;
        let kept = self.0.lock().unwrap_or_else(PoisonError::into_inner).clone();
        if let Some((at, loaded)) = kept
            && at == version
        {
            return Ok(loaded);
        }
        let loaded = Arc::new(
            store.read(|c| Ok(load(catalogue::all(c, "wheels")?, catalogue::all(c, "tires")?))).await?,
        );
        *self.0.lock().unwrap_or_else(PoisonError::into_inner) = Some((version, Arc::clone(&loaded)));
        Ok(loaded)
    }
}

/// Rows that can no longer be read are left out: they were sound when they were taken.
fn load(wheel_rows: Vec<CatalogueRow>, tire_rows: Vec<CatalogueRow>) -> Loaded {
    let mut loaded = Loaded::default();
    let mut suppliers: BTreeMap<String, Arc<str>> = BTreeMap::new();
    let mut source = |supplier: String, record: &Record| RowSource {
        supplier: Arc::clone(suppliers.entry(supplier).or_insert_with_key(|name| Arc::from(name.as_str()))),
        article: record.text(Field::Article).map(Box::from),
    };
    for row in wheel_rows {
        let record = record_of(&row.record);
        if let Ok(wheel) = wheels::wheel(&record, row.id as u32) {
            loaded.catalogue.wheels.push(wheel);
            loaded.wheel_sources.push(source(row.supplier, &record));
        }
    }
    for row in tire_rows {
        let record = record_of(&row.record);
        if let Ok(tire) = tires::tire(&record, row.id as u32) {
            loaded.catalogue.tires.push(tire);
            loaded.tire_sources.push(source(row.supplier, &record));
        }
    }
    loaded
}

/// A kept row as a record.
pub fn record_of(fields: &Fields) -> Record {
    Record(fields.iter().filter_map(|(code, text)| Some((Field::from_code(code)?, text.clone()))).collect())
}

/// A record as it is kept.
pub fn fields_of(record: &Record) -> Fields {
    record.0.iter().map(|(field, text)| (field.code().to_owned(), text.clone())).collect()
}

/// A row of a list at fault: its number, counted from 2 under the heading, and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowFault {
    /// Which row.
    pub row: usize,
    /// Why.
    pub errors: Vec<RowError>,
}

/// A list read by a mapping.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct ReadList {
    /// Sound rows by key.
    pub rows: Vec<(String, Fields)>,
    /// Rows at fault.
    pub faults: Vec<RowFault>,
    /// Rows whose key was there before in the same list; the later one counts.
    pub doubled: usize,
}

/// Reads every row of a table, tidied: what is kept is what the core read, column by column.
pub fn read_list(table: &Table, kind: Kind, mapping: &Mapping) -> ReadList {
    let mut list = ReadList::default();
    let mut by_key: BTreeMap<String, usize> = BTreeMap::new();
    for (at, record) in Record::all(table, mapping).iter().enumerate() {
        let read = match kind {
            Kind::Wheels => wheels::wheel(record, 0).map(|row| {
                (
                    format!("{}|{}|{}|{}", row.line, row.finish, row.wheel, row.more_circles.len()),
                    wheels::record(&row),
                )
            }),
            Kind::Tires => {
                tires::tire(record, 0).map(|row| (format!("{}|{}", row.line, row.tire), tires::record(&row)))
            }
        };
        match read {
            Ok((natural, mut tidy)) => {
                let article = record.text(Field::Article);
                if let Some(article) = article {
                    tidy.0.insert(Field::Article, article.to_owned());
                }
                let key = article.map_or(natural, |article| format!("article {article}"));
                let fields = fields_of(&tidy);
                if let Some(before) = by_key.get(&key) {
                    list.doubled += 1;
                    list.rows[*before].1 = fields;
                } else {
                    by_key.insert(key.clone(), list.rows.len());
                    list.rows.push((key, fields));
                }
            }
            Err(errors) => list.faults.push(RowFault { row: at + 2, errors }),
        }
    }
    list
}
