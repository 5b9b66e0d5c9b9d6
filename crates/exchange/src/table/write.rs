//! Tables as files, row by row.

use std::io::{self, Seek, Write};

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

fn failed(error: impl std::fmt::Display + Full) -> TableError {
    if error.is_full() { TableError::NoRoom } else { TableError::Write(error.to_string()) }
}

impl From<io::Error> for TableError {
    fn from(error: io::Error) -> Self {
        failed(error)
    }
}

/// Whether something was not written because the disk is full.
trait Full {
    fn is_full(&self) -> bool;
}

impl Full for io::Error {
    fn is_full(&self) -> bool {
        matches!(self.kind(), io::ErrorKind::StorageFull | io::ErrorKind::QuotaExceeded)
    }
}

impl Full for csv::Error {
    fn is_full(&self) -> bool {
        matches!(self.kind(), csv::ErrorKind::Io(error) if error.is_full())
    }
}

impl<W> Full for csv::IntoInnerError<W> {
    fn is_full(&self) -> bool {
        self.error().is_full()
    }
}

impl Full for serde_json::Error {
    fn is_full(&self) -> bool {
        self.io_error_kind().is_some_and(|kind| io::Error::from(kind).is_full())
    }
}

impl Full for XlsxError {
    fn is_full(&self) -> bool {
        match self {
            Self::IoError(error) => error.is_full(),
            Self::ZipError(zip_error) => std::error::Error::source(zip_error)
                .and_then(|error| error.downcast_ref::<io::Error>())
                .is_some_and(Full::is_full),
            _ => false,
        }
    }
}

/// Works on a workbook. Its writer keeps rows in a file among the temporary ones, and panics where that has no room.
fn in_workbook<T>(work: impl FnOnce() -> Result<T, TableError>) -> Result<T, TableError> {
    std::panic::catch_unwind(std::panic::AssertUnwindSafe(work)).unwrap_or_else(|_| {
        let room = tempfile::tempfile().and_then(|mut file| file.write_all(&[0; 256 * 1024]));
        Err(match room {
            Err(error) if error.is_full() => TableError::NoRoom,
            _ => TableError::Write("the workbook's writer gave up".to_owned()),
        })
    })
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
                let book = in_workbook(|| {
                    let mut book = Workbook::new();
                    let sheet = book.add_worksheet_with_constant_memory().map_err(failed)?;
                    for (column, cell) in header.iter().enumerate() {
                        sheet.write_string(0, column as u16, cell).map_err(failed)?;
                    }
                    Ok(book)
                })?;
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
            Kind::Xlsx(book, _) => in_workbook(|| {
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
            }),
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
                in_workbook(|| book.save_to_writer(&mut file).map_err(failed))?;
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
