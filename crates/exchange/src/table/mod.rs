//! A price list as rows of text.
//!
//! - [`Table::read`]: whichever of the formats a file is. Every bound is looked at before room is made for what it bounds.
//! - [`Writer`]: rows written one after the other, however many; what a spreadsheet would take for a formula is guarded.

mod guard;
mod json;
mod read;
mod write;
mod xlsx;

use serde::{Deserialize, Serialize};

pub(crate) use guard::{guarded, unguarded};
pub use write::Writer;

/// Most rows of a list.
pub const MOST_ROWS: usize = 200_000;
/// Most columns.
pub const MOST_COLUMNS: usize = 200;
/// Longest cell, in characters: a price list holds words, not books.
pub const LONGEST_CELL: usize = 2_000;
/// Largest file, in bytes.
pub const LARGEST_FILE: usize = 32 * 1024 * 1024;
/// Most cells that hold something.
pub const MOST_CELLS: usize = 6_000_000;
/// Most bytes that a workbook may come to when it is unpacked.
pub const MOST_UNPACKED: u64 = 512 * 1024 * 1024;
/// Most bytes of a workbook's list of texts: it is in memory as a whole.
pub const MOST_TEXTS: u64 = 64 * 1024 * 1024;

/// How a table is written down.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Format {
    /// Comma-separated values.
    Csv,
    /// Office Open XML workbook.
    Xlsx,
    /// An array of objects.
    Json,
}

impl Format {
    /// From a name: `csv`, `xlsx`, `json`.
    pub fn from_code(code: &str) -> Option<Self> {
        match code {
            "csv" => Some(Self::Csv),
            "xlsx" => Some(Self::Xlsx),
            "json" => Some(Self::Json),
            _ => None,
        }
    }

    /// What a server calls it.
    pub fn media_type(self) -> &'static str {
        match self {
            Self::Csv => "text/csv; charset=utf-8",
            Self::Xlsx => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            Self::Json => "application/json",
        }
    }
}

/// A heading and rows under it. A row may be shorter than the heading, never longer.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
pub struct Table {
    /// The headings.
    pub header: Vec<String>,
    /// The rows.
    pub rows: Vec<Vec<String>>,
    /// What was noticed while reading, in sentences.
    pub notes: Vec<String>,
}

/// Why a file is no table.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum TableError {
    /// Nothing in it.
    #[error("the file is empty")]
    Empty,
    /// Too large as a whole.
    #[error("the file has {0} bytes; at most {LARGEST_FILE} are read: split the list")]
    TooLarge(usize),
    /// Too many rows.
    #[error("the list has more than {MOST_ROWS} rows: split it")]
    TooManyRows,
    /// Too many columns.
    #[error("the heading has {0} columns; at most {MOST_COLUMNS} are read: take out those that nobody needs")]
    TooManyColumns(usize),
    /// A row that goes on and on.
    #[error("row {0} has more cells than any list has: look whether its line ends are missing")]
    RowTooLong(usize),
    /// Too many cells.
    #[error("the list has more than {MOST_CELLS} cells: take out columns that nobody needs, or split it")]
    TooManyCells,
    /// A workbook that unpacks to too much.
    #[error(
        "the workbook comes to more than {} MB when it is unpacked: save the one sheet alone, or as CSV",
        .0 / 1024 / 1024
    )]
    Unpacks(u64),
    /// One cell is too long.
    #[error(
        "row {row}, column {column} has {length} characters; at most {LONGEST_CELL} are read: shorten it"
    )]
    CellTooLong {
        /// Row, counted from 1 with the heading.
        row: usize,
        /// Column, counted from 1.
        column: usize,
        /// Its length.
        length: usize,
    },
    /// A workbook that cannot be opened.
    #[error("this workbook cannot be opened: {0}")]
    Workbook(String),
    /// CSV that breaks off.
    #[error("line {line} cannot be read: {why}")]
    Csv {
        /// Which line.
        line: u64,
        /// Why.
        why: String,
    },
    /// JSON that is none.
    #[error("this is not JSON: {0}")]
    Json(String),
    /// JSON of another shape.
    #[error("the JSON is not an array of objects, one a row: {0}")]
    JsonShape(String),
    /// Something else altogether.
    #[error("this is neither CSV, XLSX nor JSON")]
    Binary,
    /// Cannot be written.
    #[error("the table cannot be written: {0}")]
    Write(String),
}

/// Lines as they come, made into a table: the first is the heading.
#[derive(Debug, Default)]
struct Lines {
    header: Option<Vec<String>>,
    rows: Vec<Vec<String>>,
    cells: usize,
    longer: usize,
}

impl Lines {
    /// Takes a line, counted from 1 with the heading. What is empty at its end is left out.
    fn take(&mut self, number: usize, mut line: Vec<String>) -> Result<(), TableError> {
        let long = line
            .iter()
            .enumerate()
            .find(|(_, cell)| cell.len() > LONGEST_CELL && cell.chars().count() > LONGEST_CELL);
        if let Some((column, cell)) = long {
            let length = cell.chars().count();
            return Err(TableError::CellTooLong { row: number, column: column + 1, length });
        }
        let Some(header) = &self.header else {
            if line.len() > MOST_COLUMNS {
                return Err(TableError::TooManyColumns(line.len()));
            }
            self.header = Some(line);
            return Ok(());
        };
        if self.rows.len() >= MOST_ROWS {
            return Err(TableError::TooManyRows);
        }
        self.longer += usize::from(line.iter().skip(header.len()).any(|cell| !cell.is_empty()));
        line.truncate(header.len());
        while line.last().is_some_and(String::is_empty) {
            line.pop();
        }
        line.shrink_to_fit();
        self.cells += line.len();
        if self.cells > MOST_CELLS {
            return Err(TableError::TooManyCells);
        }
        self.rows.push(line);
        Ok(())
    }

    fn table(self) -> Result<Table, TableError> {
        let mut notes = Vec::new();
        if self.longer > 0 {
            notes.push(format!(
                "{} rows have more cells than the heading; what is beyond it was left aside.",
                self.longer
            ));
        }
        Ok(Table { header: self.header.ok_or(TableError::Empty)?, rows: self.rows, notes })
    }
}
