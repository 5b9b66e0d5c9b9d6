//! Tables as files, row by row.

use std::io::{Seek, Write};

use rust_xlsxwriter::{Workbook, XlsxError};
use serde_json::{Map, Value};

use super::{Format, Table, TableError, guarded};

/// Writes rows under a heading into a file, one after the other: they are never all in memory at once.
pub struct Writer<W: Write + Seek + Send> {
    header: Vec<String>,
    rows: usize,
    kind: Kind<W>,
}

enum Kind<W: Write> {
    Csv(Box<csv::Writer<W>>),
    /// A workbook keeps its rows in a file of its own until the end.
    Xlsx(Box<Workbook>, W),
    Json(W),
}

impl<W: Write + Seek + Send> std::fmt::Debug for Writer<W> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Writer")
            .field("header", &self.header)
            .field("rows", &self.rows)
            .finish_non_exhaustive()
    }
}

fn failed(error: impl ToString) -> TableError {
    TableError::Write(error.to_string())
}

impl<W: Write + Seek + Send> Writer<W> {
    /// Begins a file with its heading.
    ///
    /// # Errors
    /// What the format's own writer says.
    pub fn new(mut file: W, format: Format, header: Vec<String>) -> Result<Self, TableError> {
        let kind = match format {
            Format::Csv => {
                let mut writer = csv::Writer::from_writer(file);
                writer.write_record(header.iter().map(|cell| guarded(cell))).map_err(failed)?;
                Kind::Csv(Box::new(writer))
            }
            Format::Xlsx => {
                let mut book = Workbook::new();
                let sheet = book.add_worksheet_with_constant_memory().map_err(failed)?;
                for (column, cell) in header.iter().enumerate() {
                    sheet.write_string(0, column as u16, cell).map_err(failed)?;
                }
                Kind::Xlsx(Box::new(book), file)
            }
            Format::Json => {
                file.write_all(b"[").map_err(failed)?;
                Kind::Json(file)
            }
        };
        Ok(Self { header, rows: 0, kind })
    }

    /// Writes a row.
    ///
    /// # Errors
    /// What the format's own writer says.
    pub fn row(&mut self, row: &[String]) -> Result<(), TableError> {
        self.rows += 1;
        match &mut self.kind {
            Kind::Csv(writer) => {
                let missing = self.header.len().saturating_sub(row.len());
                let cells = row.iter().map(|cell| guarded(cell));
                writer.write_record(cells.chain(std::iter::repeat_n(String::new(), missing))).map_err(failed)
            }
            Kind::Xlsx(book, _) => {
                let sheet = book.worksheet_from_index(0).map_err(failed)?;
                for (column, cell) in row.iter().enumerate() {
                    let (at, column) = (self.rows as u32, column as u16);
                    // Numbers as numbers, so that they can be summed; everything else as text, never as a formula.
                    let written: Result<_, XlsxError> = match cell.parse::<f64>() {
                        Ok(number) if is_plain_number(cell) => sheet.write_number(at, column, number),
                        _ if cell.is_empty() => continue,
                        _ => sheet.write_string(at, column, cell),
                    };
                    written.map_err(failed)?;
                }
                Ok(())
            }
            Kind::Json(file) => {
                let cells = self.header.iter().zip(row).filter(|(_, cell)| !cell.is_empty());
                let object: Map<_, _> = cells.map(|(name, cell)| (name.clone(), json_cell(cell))).collect();
                file.write_all(if self.rows > 1 { b",\n" } else { b"\n" }).map_err(failed)?;
                serde_json::to_writer(file, &Value::Object(object)).map_err(failed)
            }
        }
    }

    /// Ends the file.
    ///
    /// # Errors
    /// What the format's own writer says.
    pub fn finish(self) -> Result<W, TableError> {
        match self.kind {
            Kind::Csv(writer) => writer.into_inner().map_err(failed),
            Kind::Xlsx(mut book, mut file) => {
                book.save_to_writer(&mut file).map_err(failed)?;
                Ok(file)
            }
            Kind::Json(mut file) => {
                file.write_all(b"\n]\n").map_err(failed)?;
                file.flush().map_err(failed)?;
                Ok(file)
            }
        }
    }
}

impl Table {
    /// Writes the table.
    ///
    /// # Errors
    /// What the format's own writer says.
    pub fn write(&self, format: Format) -> Result<Vec<u8>, TableError> {
        let mut writer = Writer::new(std::io::Cursor::new(Vec::new()), format, self.header.clone())?;
        for row in &self.rows {
            writer.row(row)?;
        }
        Ok(writer.finish()?.into_inner())
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
