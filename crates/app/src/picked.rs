//! The rows that a job picked from the price lists.

use exchange::field::{Field, Kind};
use exchange::{Record, tires, wheels};
use fitment::catalogue::PickedParts;
use store::catalogue::Fields;
use store::picked::{Picked, PickedRow};

/// A kept row as a record.
pub fn record_of(fields: &Fields) -> Record {
    Record(fields.iter().filter_map(|(code, text)| Some((Field::from_code(code)?, text.clone()))).collect())
}

/// A record as it is kept.
pub fn fields_of(record: &Record) -> Fields {
    record.0.iter().map(|(field, text)| (field.code().to_owned(), text.clone())).collect()
}

/// The picked rows as the core wants them, and a name for each that can no longer be read.
pub fn parts_of(picked: &Picked) -> (PickedParts, Vec<String>) {
    let mut parts = PickedParts::default();
    let mut unreadable = Vec::new();
    for row in &picked.rows {
        let record = record_of(&row.record);
        let is_read = match Kind::from_code(&row.kind) {
            Some(Kind::Wheels) => {
                wheels::wheel(&record, row.row as u32).map(|wheel| parts.wheels.push(wheel)).is_ok()
            }
            Some(Kind::Tires) => {
                tires::tire(&record, row.row as u32).map(|tire| parts.tires.push(tire)).is_ok()
            }
            _ => false,
        };
        if !is_read {
            unreadable.push(name_of(row));
        }
    }
    (parts, unreadable)
}

fn name_of(row: &PickedRow) -> String {
    let says: Vec<&str> = row.record.values().take(3).map(String::as_str).collect();
    format!("the picked row {} ({})", row.row, says.join(" "))
}
