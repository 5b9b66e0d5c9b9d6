//! A price list as rows of text.

use std::io::Cursor;

use calamine::{Data, Reader, Xlsx};
use rust_xlsxwriter::Workbook;
use serde_json::{Map, Value};

/// Most rows of a list.
pub const MOST_ROWS: usize = 200_000;
/// Most columns.
pub const MOST_COLUMNS: usize = 200;
/// Longest cell, in characters: a price list holds words, not books.
pub const LONGEST_CELL: usize = 2_000;
/// Largest file, in bytes.
pub const LARGEST_FILE: usize = 32 * 1024 * 1024;

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

/// A heading and rows under it, every row as long as the heading.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
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
    #[error("the file has {0} bytes; at most {LARGEST_FILE} are read")]
    TooLarge(usize),
    /// Too many rows.
    #[error("the list has more than {MOST_ROWS} rows")]
    TooManyRows,
    /// Too many columns.
    #[error("the heading has {0} columns; at most {MOST_COLUMNS} are read")]
    TooManyColumns(usize),
    /// One cell is too long.
    #[error("row {row}, column {column} has {length} characters; at most {LONGEST_CELL} are read")]
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
    #[error("the JSON is not an array of objects, one a row")]
    JsonShape,
    /// Something else altogether.
    #[error("this is neither CSV, XLSX nor JSON")]
    Binary,
    /// Cannot be written.
    #[error("the table cannot be written: {0}")]
    Write(String),
}

impl Table {
    /// Reads a file, whichever of the formats it is.
    ///
    /// # Errors
    /// [`TableError`], naming the place.
    pub fn read(bytes: &[u8]) -> Result<Self, TableError> {
        if bytes.len() > LARGEST_FILE {
            return Err(TableError::TooLarge(bytes.len()));
        }
        if bytes.starts_with(b"PK\x03\x04") {
            return read_xlsx(bytes);
        }
        let (text, note) = decoded(bytes)?;
        let start = text.trim_start();
        if start.is_empty() {
            return Err(TableError::Empty);
        }
        let mut table = if start.starts_with('[') || start.starts_with('{') {
            read_json(start)?
        } else {
            read_csv(&text)?
        };
        table.notes.extend(note);
        Ok(table)
    }

    /// Writes the table.
    ///
    /// # Errors
    /// What the format's own writer says.
    pub fn write(&self, format: Format) -> Result<Vec<u8>, TableError> {
        match format {
            Format::Csv => self.to_csv(),
            Format::Xlsx => self.to_xlsx(),
            Format::Json => self.to_json(),
        }
    }

    fn to_csv(&self) -> Result<Vec<u8>, TableError> {
        let failed = |error: csv::Error| TableError::Write(error.to_string());
        let mut writer = csv::Writer::from_writer(Vec::new());
        writer.write_record(self.header.iter().map(|cell| guarded(cell))).map_err(failed)?;
        for row in &self.rows {
            writer.write_record(row.iter().map(|cell| guarded(cell))).map_err(failed)?;
        }
        writer.into_inner().map_err(|error| TableError::Write(error.to_string()))
    }

    fn to_xlsx(&self) -> Result<Vec<u8>, TableError> {
        let failed = |error: rust_xlsxwriter::XlsxError| TableError::Write(error.to_string());
        let mut workbook = Workbook::new();
        let sheet = workbook.add_worksheet();
        for (at, row) in std::iter::once(&self.header).chain(&self.rows).enumerate() {
            for (column, cell) in row.iter().enumerate() {
                let (at, column) = (at as u32, column as u16);
                // Numbers as numbers, so that they can be summed; everything else as text, never as a formula.
                match cell.parse::<f64>() {
                    Ok(number) if is_plain_number(cell) => sheet.write_number(at, column, number),
                    _ => sheet.write_string(at, column, cell),
                }
                .map_err(failed)?;
            }
        }
        workbook.save_to_buffer().map_err(failed)
    }

    fn to_json(&self) -> Result<Vec<u8>, TableError> {
        let rows: Vec<Value> = self
            .rows
            .iter()
            .map(|row| {
                let cells = self.header.iter().zip(row).filter(|(_, cell)| !cell.is_empty());
                Value::Object(
                    cells.map(|(name, cell)| (name.clone(), json_cell(cell))).collect::<Map<_, _>>(),
                )
            })
            .collect();
        serde_json::to_vec_pretty(&rows).map_err(|error| TableError::Write(error.to_string()))
    }
}

/// A number that reads back as it was written.
fn is_plain_number(cell: &str) -> bool {
    cell.parse::<f64>().is_ok_and(|number| number.is_finite() && number.to_string() == cell)
}

fn json_cell(cell: &str) -> Value {
    let number = cell.parse::<f64>().ok().filter(|_| is_plain_number(cell));
    match number.and_then(serde_json::Number::from_f64) {
        Some(_) if !cell.contains('.') => cell.parse::<i64>().map_or_else(|_| Value::from(cell), Value::from),
        Some(number) => Value::Number(number),
        None => Value::from(cell),
    }
}

/// A text that a spreadsheet would take for a formula is written with an apostrophe before it; reading takes it off.
fn guarded(cell: &str) -> String {
    if needs_guard(cell) { format!("'{cell}") } else { cell.to_owned() }
}

/// What begins like a formula, and what would be taken for a guarded one.
fn needs_guard(cell: &str) -> bool {
    cell.starts_with(['=', '@', '+', '\t', '\r'])
        || (cell.starts_with('-') && cell.parse::<f64>().is_err())
        || cell.strip_prefix('\'').is_some_and(needs_guard)
}

fn unguarded(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| needs_guard(rest)).unwrap_or(cell)
}

/// Text out of bytes: UTF-8 and UTF-16 by their marks, UTF-8 by trying, else Windows-1252 with a note.
fn decoded(bytes: &[u8]) -> Result<(String, Option<String>), TableError> {
    if let Some((encoding, mark)) = encoding_rs::Encoding::for_bom(bytes) {
        let (text, had_faults) = encoding.decode_without_bom_handling(bytes.get(mark..).unwrap_or_default());
        let note = had_faults.then(|| format!("Some letters could not be read as {}.", encoding.name()));
        return Ok((text.into_owned(), note));
    }
    if let Ok(text) = std::str::from_utf8(bytes) {
        return if text.contains('\0') { Err(TableError::Binary) } else { Ok((text.to_owned(), None)) };
    }
    if bytes.contains(&0) {
        return Err(TableError::Binary);
    }
    let (text, _, _) = encoding_rs::WINDOWS_1252.decode(bytes);
    Ok((text.into_owned(), Some("Read as Windows-1252: look whether accents are right.".to_owned())))
}

/// The separator that cuts the first lines into the most columns of equal number.
fn separator(text: &str) -> u8 {
    let lines: Vec<&str> = text.lines().filter(|line| !line.trim().is_empty()).take(20).collect();
    let worth = |separator: char| {
        let counts: Vec<usize> =
            lines.iter().map(|line| outside_quotes(line).filter(|c| *c == separator).count()).collect();
        let most = counts.first().copied().unwrap_or(0);
        let alike = counts.iter().filter(|count| **count == most).count();
        (most > 0, alike, most)
    };
    [',', ';', '\t', '|'].into_iter().rev().max_by_key(|one| worth(*one)).unwrap_or(',') as u8
}

fn outside_quotes(line: &str) -> impl Iterator<Item = char> {
    let mut quoted = false;
    line.chars().filter(move |letter| {
        quoted ^= *letter == '"';
        !quoted
    })
}

fn read_csv(text: &str) -> Result<Table, TableError> {
    let separator = separator(text);
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(separator)
        .flexible(true)
        .has_headers(false)
        .from_reader(text.as_bytes());
    let mut lines = Vec::new();
    for (at, record) in reader.records().enumerate() {
        let record = record.map_err(|error| TableError::Csv {
            line: error.position().map_or(at as u64 + 1, csv::Position::line),
            why: error.to_string(),
        })?;
        if record.iter().all(|cell| cell.trim().is_empty()) {
            continue;
        }
        if lines.len() > MOST_ROWS {
            return Err(TableError::TooManyRows);
        }
        lines.push(record.iter().map(|cell| unguarded(cell.trim()).to_owned()).collect());
    }
    from_lines(lines)
}

fn read_xlsx(bytes: &[u8]) -> Result<Table, TableError> {
    let failed = |error: calamine::XlsxError| TableError::Workbook(error.to_string());
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(bytes)).map_err(failed)?;
    let names = book.sheet_names();
    let name = names.first().cloned().ok_or(TableError::Empty)?;
    let range = book.worksheet_range(&name).map_err(failed)?;
    if range.height() > MOST_ROWS + 1 {
        return Err(TableError::TooManyRows);
    }
    let lines = range
        .rows()
        .map(|row| row.iter().map(cell).collect::<Vec<String>>())
        .filter(|row| row.iter().any(|cell| !cell.is_empty()))
        .collect();
    let mut table = from_lines(lines)?;
    if names.len() > 1 {
        table.notes.push(format!("Only the first of {} sheets was read: {name}.", names.len()));
    }
    Ok(table)
}

fn cell(data: &Data) -> String {
    match data {
        Data::Empty | Data::Error(_) => String::new(),
        Data::Float(number) if number.fract() == 0.0 && number.abs() < 1e15 => format!("{number:.0}"),
        other => other.to_string().trim().to_owned(),
    }
}

fn read_json(text: &str) -> Result<Table, TableError> {
    let value: Value = serde_json::from_str(text).map_err(|error| TableError::Json(error.to_string()))?;
    let Value::Array(rows) = value else { return Err(TableError::JsonShape) };
    if rows.len() > MOST_ROWS {
        return Err(TableError::TooManyRows);
    }
    let mut header: Vec<String> = Vec::new();
    let mut objects = Vec::with_capacity(rows.len());
    for row in rows {
        let Value::Object(row) = row else { return Err(TableError::JsonShape) };
        for name in row.keys() {
            if !header.contains(name) {
                header.push(name.clone());
                if header.len() > MOST_COLUMNS {
                    return Err(TableError::TooManyColumns(header.len()));
                }
            }
        }
        objects.push(row);
    }
    let text = |value: Option<&Value>| match value {
        None | Some(Value::Null) => String::new(),
        Some(Value::String(text)) => text.trim().to_owned(),
        Some(other) => other.to_string(),
    };
    let rows = objects.iter().map(|row| header.iter().map(|name| text(row.get(name))).collect());
    from_lines(std::iter::once(header.clone()).chain(rows).collect())
}

/// The first line is the heading; rows are made as long as it is.
fn from_lines(lines: Vec<Vec<String>>) -> Result<Table, TableError> {
    let mut lines = lines.into_iter();
    let header = lines.next().ok_or(TableError::Empty)?;
    if header.len() > MOST_COLUMNS {
        return Err(TableError::TooManyColumns(header.len()));
    }
    let width = header.len();
    let mut notes = Vec::new();
    let mut rows = Vec::with_capacity(lines.len());
    let mut longer = 0_usize;
    for (at, mut row) in lines.enumerate() {
        if let Some((column, long)) = row
            .iter()
            .enumerate()
            .find(|(_, cell)| cell.len() > LONGEST_CELL && cell.chars().count() > LONGEST_CELL)
        {
            let length = long.chars().count();
            return Err(TableError::CellTooLong { row: at + 2, column: column + 1, length });
        }
        longer += usize::from(row.iter().skip(width).any(|cell| !cell.is_empty()));
        row.resize(width, String::new());
        rows.push(row);
    }
    if longer > 0 {
        notes.push(format!(
            "{longer} rows have more cells than the heading; what is beyond it was left aside."
        ));
    }
    Ok(Table { header, rows, notes })
}
