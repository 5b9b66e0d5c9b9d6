//! JSON as a table: an array of objects, read one after the other.

use std::fmt;

use serde::de::{DeserializeSeed, Deserializer, Error, IgnoredAny, MapAccess, SeqAccess, Visitor};
use serde_json::Number;
use serde_json::error::Category;

use super::{Lines, MOST_COLUMNS, Table, TableError};

/// Reads an array of objects. A cell may be a text, a number, yes or no, or a list of these.
pub(super) fn read(text: &str) -> Result<Table, TableError> {
    let mut rows = Rows::default();
    let mut json = serde_json::Deserializer::from_str(text);
    let read = json.deserialize_seq(&mut rows).and_then(|()| json.end());
    if let Some(error) = rows.refused {
        return Err(error);
    }
    read.map_err(|error| match error.classify() {
        Category::Data => TableError::JsonShape(error.to_string()),
        _ => TableError::Json(error.to_string()),
    })?;
    let mut lines = rows.lines;
    lines.header = (!rows.header.is_empty()).then_some(rows.header);
    lines.table()
}

#[derive(Default)]
struct Rows {
    header: Vec<String>,
    lines: Lines,
    /// Why it was refused: an error of the reader could not carry it.
    refused: Option<TableError>,
}

impl<'de> Visitor<'de> for &mut Rows {
    type Value = ();

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("an array of objects")
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut rows: A) -> Result<(), A::Error> {
        // The heading grows as names come up: a row is held against all that there may be.
        self.lines.header = Some(vec![String::new(); MOST_COLUMNS]);
        let mut number = 2;
        while let Some(row) = rows.next_element_seed(RowSeed(&mut self.header))? {
            let taken = if self.header.len() > MOST_COLUMNS {
                Err(TableError::TooManyColumns(self.header.len()))
            } else {
                self.lines.take(number, row)
            };
            if let Err(error) = taken {
                self.refused = Some(error);
                return Err(A::Error::custom("refused"));
            }
            number += 1;
        }
        Ok(())
    }
}

struct RowSeed<'h>(&'h mut Vec<String>);

impl<'de> DeserializeSeed<'de> for RowSeed<'_> {
    type Value = Vec<String>;

    fn deserialize<D: Deserializer<'de>>(self, row: D) -> Result<Vec<String>, D::Error> {
        row.deserialize_map(self)
    }
}

impl<'de> Visitor<'de> for RowSeed<'_> {
    type Value = Vec<String>;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("an object, one a row")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut fields: A) -> Result<Vec<String>, A::Error> {
        let mut row = Vec::new();
        while let Some(name) = fields.next_key::<String>()? {
            let column = self.0.iter().position(|known| *known == name);
            let column = column.unwrap_or_else(|| {
                self.0.push(name);
                self.0.len() - 1
            });
            if column >= MOST_COLUMNS {
                // Refused by whoever reads the rows; the rest of this one need not be kept.
                fields.next_value::<IgnoredAny>()?;
                while fields.next_entry::<IgnoredAny, IgnoredAny>()?.is_some() {}
                break;
            }
            if row.len() <= column {
                row.resize(column + 1, String::new());
            }
            row[column] = fields.next_value_seed(Cell { is_in_list: false })?;
        }
        Ok(row)
    }
}

#[derive(Clone, Copy)]
struct Cell {
    is_in_list: bool,
}

impl<'de> DeserializeSeed<'de> for Cell {
    type Value = String;

    fn deserialize<D: Deserializer<'de>>(self, cell: D) -> Result<String, D::Error> {
        cell.deserialize_any(self)
    }
}

impl<'de> Visitor<'de> for Cell {
    type Value = String;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(if self.is_in_list { "a text or a number" } else { "a text, a number or a list of them" })
    }

    fn visit_bool<E: Error>(self, value: bool) -> Result<String, E> {
        Ok(value.to_string())
    }

    fn visit_i64<E: Error>(self, value: i64) -> Result<String, E> {
        Ok(value.to_string())
    }

    fn visit_u64<E: Error>(self, value: u64) -> Result<String, E> {
        Ok(value.to_string())
    }

    fn visit_f64<E: Error>(self, value: f64) -> Result<String, E> {
        Ok(Number::from_f64(value).map_or_else(String::new, |number| number.to_string()))
    }

    fn visit_str<E: Error>(self, value: &str) -> Result<String, E> {
        Ok(value.trim().to_owned())
    }

    fn visit_unit<E: Error>(self) -> Result<String, E> {
        Ok(String::new())
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<String, A::Error> {
        if self.is_in_list {
            return Err(A::Error::custom("a list in a list is no cell"));
        }
        let mut all = String::new();
        while let Some(cell) = list.next_element_seed(Self { is_in_list: true })? {
            if !all.is_empty() {
                all.push_str("; ");
            }
            all.push_str(&cell);
        }
        Ok(all)
    }
}
