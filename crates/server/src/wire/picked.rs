//! Rows of price lists that a job has picked, and the questions gone through with the owner.

use std::collections::BTreeMap;

use exchange::field::Kind;
use exchange::{Field, tires, wheels};
use fitment::setup::catalogue::{STICKY_QUESTIONS, TireRow, WheelRow};
use serde::{Deserialize, Serialize};
use store::picked::{Picked, PickedRow};
use utoipa::ToSchema;

use super::read::FieldErrors;
use app::picked::record_of;

/// A row of a price list as it was when it was picked.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct PickedView {
    /// `wheels` or `tires`.
    pub kind: String,
    /// Its number in the catalogue.
    pub row: i64,
    /// Whose it is.
    #[serde(default)]
    pub supplier: String,
    /// What it says, by field.
    pub record: BTreeMap<String, String>,
}

impl From<&PickedRow> for PickedView {
    fn from(row: &PickedRow) -> Self {
        Self {
            kind: row.kind.clone(),
            row: row.row,
            supplier: row.supplier.clone(),
            record: row.record.clone(),
        }
    }
}

/// A wheel or a tire of a setup, as its list has it.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names carry quantity and unit")]
pub struct PartView {
    /// Its number in the catalogue; null for the owner's own.
    pub row: Option<u32>,
    pub supplier: String,
    pub line: String,
    /// Size as printed.
    pub name: String,
    /// Finish, or kind of tire.
    pub detail: String,
    pub price: Option<f64>,
    pub stock: Option<u32>,
    pub mass_kg: Option<f64>,
}

impl PartView {
    /// A wheel of a list.
    pub fn of_wheel(row: &WheelRow, supplier: &str) -> Self {
        Self {
            row: Some(row.id),
            supplier: supplier.to_owned(),
            line: row.line.to_string(),
            name: row.wheel.to_string(),
            detail: row.finish.to_string(),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    }

    /// A tire of a list.
    pub fn of_tire(row: &TireRow, supplier: &str) -> Self {
        Self {
            row: Some(row.id),
            supplier: supplier.to_owned(),
            line: row.line.to_string(),
            name: row.tire.to_string(),
            detail: row.kind.map_or(String::new(), |kind| kind.words().to_owned()),
            price: row.price.map(|price| f64::from(price) / 100.0),
            stock: row.stock,
            mass_kg: row.mass_kg,
        }
    }
}

/// Most rows that a job keeps: two axles of wheels and tires for each of a few candidates.
pub(super) const MOST_ROWS: usize = 120;
const TEXT_LENGTH: usize = 400;

/// What of a job's picked rows and answers changes.
#[derive(Debug)]
pub struct PickedChange {
    rows: Option<Vec<PickedRow>>,
    answered: Option<Vec<String>>,
}

impl PickedChange {
    /// Reads what was given: every row must be one that the catalogue could hold, every question one that is asked.
    pub(super) fn read(
        errors: &mut FieldErrors,
        rows: Option<&[PickedView]>,
        answered: Option<&[String]>,
    ) -> Self {
        let rows = rows.map(|rows| read_rows(errors, "/picked", rows));
        for (at, question) in answered.unwrap_or_default().iter().enumerate() {
            if STICKY_QUESTIONS.iter().all(|(code, _)| code != question) {
                errors.fault(&format!("/answered/{at}"), format!("{question:?} is not asked"));
            }
        }
        Self { rows, answered: answered.map(<[String]>::to_vec) }
    }

    /// What was given, over what is there.
    pub fn over(self, now: Picked) -> Picked {
        Picked {
            rows: self.rows.unwrap_or(now.rows),
            answered: self.answered.map_or(now.answered, |codes| codes.into_iter().collect()),
        }
    }
}

/// Reads rows; faults are noted.
pub(super) fn read_rows(errors: &mut FieldErrors, pointer: &str, rows: &[PickedView]) -> Vec<PickedRow> {
    if rows.len() > MOST_ROWS {
        errors.fault(pointer, format!("more than {MOST_ROWS} rows are not kept with a job"));
    }
    let rows = rows.iter().take(MOST_ROWS).enumerate();
    rows.map(|(at, row)| read_row(errors, &format!("{pointer}/{at}"), row)).collect()
}

fn read_row(errors: &mut FieldErrors, pointer: &str, row: &PickedView) -> PickedRow {
    let record = record_of(&row.record);
    let faults = match Kind::from_code(&row.kind) {
        Some(Kind::Wheels) => wheels::wheel(&record, 0).err(),
        Some(Kind::Tires) => tires::tire(&record, 0).err(),
        None => {
            errors.fault(&format!("{pointer}/kind"), format!("{:?} is not wheels or tires", row.kind));
            None
        }
    };
    for fault in faults.into_iter().flatten() {
        let field = fault.field.map_or(String::new(), |field| format!("/{}", field.code()));
        errors.fault(&format!("{pointer}/record{field}"), fault.why.to_string());
    }
    for key in row.record.keys().filter(|key| Field::from_code(key).is_none()) {
        let key: String = key.chars().take(40).collect();
        errors.fault(&format!("{pointer}/record"), format!("{key:?} is no field of a price list"));
    }
    for text in row.record.values().chain([&row.supplier]) {
        errors.text(&format!("{pointer}/record"), text, TEXT_LENGTH);
    }
    PickedRow {
        kind: row.kind.clone(),
        row: row.row,
        supplier: row.supplier.clone(),
        record: row.record.clone(),
    }
}
