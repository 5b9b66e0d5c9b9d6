//! A row of a list as fields, and what is wrong with it.

use std::collections::BTreeMap;

use crate::field::{Field, Mapping};
use crate::table::Table;

/// A row as fields; what is empty is not in it.
#[derive(Debug, Clone, PartialEq, Eq, Default, PartialOrd, Ord)]
pub struct Record(pub BTreeMap<Field, String>);

/// Why a row cannot be taken.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("{}: {why}", .field.map_or("row", Field::title))]
pub struct RowError {
    /// Which field; `None` for the row as a whole.
    pub field: Option<Field>,
    /// Why.
    pub why: String,
}

impl RowError {
    pub(crate) fn of(field: Field, why: impl Into<String>) -> Self {
        Self { field: Some(field), why: why.into() }
    }
}

impl Record {
    /// A row of a table as a record.
    pub fn of(row: &[String], mapping: &Mapping) -> Self {
        let cell = |column: &usize| row.get(*column).filter(|cell| !cell.is_empty()).cloned();
        Self(mapping.0.iter().filter_map(|(field, column)| Some((*field, cell(column)?))).collect())
    }

    /// The records of a table, one for each of its rows.
    pub fn all(table: &Table, mapping: &Mapping) -> Vec<Self> {
        table.rows.iter().map(|row| Self::of(row, mapping)).collect()
    }

    /// The record as a row under these fields.
    pub fn row(&self, fields: &[Field]) -> Vec<String> {
        fields.iter().map(|field| self.0.get(field).cloned().unwrap_or_default()).collect()
    }

    /// Records as a table, with every field that any of them has.
    pub fn table(records: &[Self]) -> Table {
        let fields: Vec<Field> = Field::ALL
            .iter()
            .copied()
            .filter(|field| records.iter().any(|record| record.0.contains_key(field)))
            .collect();
        Table {
            header: fields.iter().map(|field| field.code().to_owned()).collect(),
            rows: records.iter().map(|record| record.row(&fields)).collect(),
            ..Table::default()
        }
    }

    /// A field's text.
    pub fn text(&self, field: Field) -> Option<&str> {
        self.0.get(&field).map(String::as_str)
    }

    /// A field's number; a comma may stand for the point, and units or currency may stand beside it.
    ///
    /// # Errors
    /// A text without a number, or a number outside of what the field can be.
    pub fn number(&self, field: Field, least: f64, most: f64) -> Result<Option<f64>, RowError> {
        let Some(text) = self.text(field) else { return Ok(None) };
        let number = number_in(text).ok_or_else(|| RowError::of(field, format!("{text:?} is no number")))?;
        if (least..=most).contains(&number) {
            Ok(Some(number))
        } else {
            Err(RowError::of(field, format!("{number} is outside {least} to {most}")))
        }
    }

    /// A yes or a no.
    ///
    /// # Errors
    /// Anything else.
    pub fn flag(&self, field: Field) -> Result<bool, RowError> {
        match self.text(field).map(str::to_lowercase).as_deref() {
            None | Some("no" | "n" | "0" | "false" | "-") => Ok(false),
            Some("yes" | "y" | "1" | "true" | "x" | "directional" | "asymmetric") => Ok(true),
            Some(other) => Err(RowError::of(field, format!("{other:?} is neither yes nor no"))),
        }
    }

    /// Whether it is stated to have something; `None` for an empty cell.
    ///
    /// # Errors
    /// As [`Record::flag`].
    pub fn stated_flag(&self, field: Field) -> Result<Option<bool>, RowError> {
        self.text(field).map(|_| self.flag(field)).transpose()
    }

    /// A price in hundredths.
    ///
    /// # Errors
    /// As [`Record::number`].
    pub fn price(&self) -> Result<Option<u32>, RowError> {
        let price = self.number(Field::Price, 0.0, 1_000_000.0)?;
        Ok(price.map(|price| (price * 100.0).round() as u32))
    }

    /// How many there are; `20+` and `> 20` are twenty.
    ///
    /// # Errors
    /// As [`Record::number`].
    pub fn stock(&self) -> Result<Option<u32>, RowError> {
        Ok(self.number(Field::Stock, 0.0, 1_000_000.0)?.map(|count| count as u32))
    }

    pub(crate) fn put(&mut self, field: Field, value: Option<impl ToString>) {
        if let Some(value) = value {
            let text = value.to_string();
            if !text.is_empty() {
                self.0.insert(field, text);
            }
        }
    }
}

/// The number in a text: `1.234,50 €`, `€ 189.90`, `12,5 kg`, `−12`, `20+`.
pub(crate) fn number_in(text: &str) -> Option<f64> {
    let kept: String = text
        .replace('−', "-")
        .chars()
        .filter(|letter| letter.is_ascii_digit() || matches!(letter, '.' | ',' | '-'))
        .collect();
    let kept = kept.trim_matches(['.', ',']);
    // The last of point and comma is the decimal one; a single group of three behind a comma is thousands.
    let decimal = match (kept.rfind('.'), kept.rfind(',')) {
        (Some(point), Some(comma)) => Some(point.max(comma)),
        (Some(point), None) => (kept.matches('.').count() == 1).then_some(point),
        (None, Some(comma)) => (kept.matches(',').count() == 1).then_some(comma),
        (None, None) => None,
    };
    let plain: String = kept
        .char_indices()
        .filter_map(|(at, letter)| match letter {
            '.' | ',' if Some(at) == decimal => Some('.'),
            '.' | ',' => None,
            other => Some(other),
        })
        .collect();
    plain.parse().ok().filter(|number: &f64| number.is_finite())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_as_price_lists_write_them() {
        for (text, number) in [
            ("189.90", Some(189.9)),
            ("189,90 €", Some(189.9)),
            ("€ 1.234,50", Some(1234.5)),
            ("1,234.50", Some(1234.5)),
            ("1.234.567", Some(1_234_567.0)),
            ("12,5 kg", Some(12.5)),
            ("−12", Some(-12.0)),
            ("20+", Some(20.0)),
            ("> 20", Some(20.0)),
            ("call", None),
            ("", None),
            ("-", None),
        ] {
            assert_eq!(number_in(text), number, "{text}");
        }
    }
}
