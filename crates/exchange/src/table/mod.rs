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

use crate::field::recognised;

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
    /// The first lines as they stand in the file, each with its number: where the heading is can be seen from them.
    pub top: Vec<(usize, Vec<String>)>,
    /// Number of the line that was taken for the heading.
    pub header_row: usize,
    /// Sheets of a workbook.
    pub sheets: Vec<String>,
    /// Which of them was read, counted from 1; 0 for a file without sheets.
    pub sheet: usize,
}

/// Where in a file the list is, as far as a person said it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Place {
    /// The sheet of a workbook, counted from 1.
    pub sheet: Option<usize>,
    /// The heading's line, counted from 1; the one with the most known headings when nobody said.
    pub header_row: Option<usize>,
}

/// Lines among which the heading is looked for: titles and merged cells may stand above it.
const HEADING_WITHIN: usize = 30;
/// Lines that are shown of them.
const TOP: usize = 12;
/// Headings that a line must have to be taken for the heading although it is not the first.
const LEAST_HEADINGS: usize = 2;

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
    /// The disk has no room for what is written.
    #[error("there is no room left on the disk")]
    NoRoom,
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

/// Lines as they come, made into a table: the first few are held back until it is known which of them is the heading.
#[derive(Debug, Default)]
struct Lines {
    place: Place,
    held: Vec<(usize, Vec<String>)>,
    top: Vec<(usize, Vec<String>)>,
    header_row: usize,
    header: Option<Vec<String>>,
    rows: Vec<Vec<String>>,
    cells: usize,
    longer: usize,
}

impl Lines {
    /// Takes a line, counted from 1 with the heading. What is empty at its end is left out.
    fn take(&mut self, number: usize, line: Vec<String>) -> Result<(), TableError> {
        let long = line
            .iter()
            .enumerate()
            .find(|(_, cell)| cell.len() > LONGEST_CELL && cell.chars().count() > LONGEST_CELL);
        if let Some((column, cell)) = long {
            let length = cell.chars().count();
            return Err(TableError::CellTooLong { row: number, column: column + 1, length });
        }
        if self.header.is_none() {
            self.held.push((number, line));
            return if self.held.len() >= HEADING_WITHIN { self.let_go() } else { Ok(()) };
        }
        self.row(line)
    }

    /// Chooses the heading among the lines held back: what was said, else the line with the most headings that are known,
    /// else the first. What stands above it is left aside.
    fn let_go(&mut self) -> Result<(), TableError> {
        let held = std::mem::take(&mut self.held);
        let shown =
            held.iter().take(TOP).map(|(at, line)| (*at, line.iter().take(MOST_COLUMNS).cloned().collect()));
        self.top = shown.collect();
        let known = |line: &[String]| recognised(&line[..line.len().min(MOST_COLUMNS)]);
        let said = self.place.header_row.and_then(|row| held.iter().position(|(at, _)| *at == row));
        let found = || {
            let (at, most) =
                held.iter().map(|(_, line)| known(line)).enumerate().rev().max_by_key(|(_, count)| *count)?;
            (most >= LEAST_HEADINGS).then_some(at)
        };
        let Some(heading) = said.or_else(found).or((!held.is_empty()).then_some(0)) else { return Ok(()) };
        for (number, line) in held.into_iter().skip(heading) {
            if self.header.is_some() {
                self.row(line)?;
                continue;
            }
            if line.len() > MOST_COLUMNS {
                return Err(TableError::TooManyColumns(line.len()));
            }
            self.header_row = number;
            self.header = Some(line);
        }
        Ok(())
    }

    /// A line under the heading.
    fn row(&mut self, mut line: Vec<String>) -> Result<(), TableError> {
        let Some(header) = &self.header else { return Ok(()) };
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

    fn table(mut self) -> Result<Table, TableError> {
        self.let_go()?;
        let mut notes = Vec::new();
        if self.top.first().is_some_and(|(first, _)| *first < self.header_row) {
            notes.push(format!(
                "The heading is in row {}; what stands above it was left aside.",
                self.header_row
            ));
        }
        if self.longer > 0 {
            notes.push(format!(
                "{} rows have more cells than the heading; what is beyond it was left aside.",
                self.longer
            ));
        }
        Ok(Table {
            header: self.header.ok_or(TableError::Empty)?,
            rows: self.rows,
            notes,
            top: self.top,
            header_row: self.header_row,
            ..Table::default()
        })
    }
}
