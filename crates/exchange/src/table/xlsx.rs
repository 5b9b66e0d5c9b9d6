//! A workbook's first sheet as a table.
//!
//! The sheet is read cell by cell: two cells a million rows apart are two cells. What the archive unpacks to is counted
//! before any of it is kept.

use std::io::{Cursor, Read};

use calamine::{DataRef, DataType, Reader, Xlsx, XlsxError};

use super::{
    HEADING_WITHIN, LEAST_HEADINGS, Lines, MOST_COLUMNS, MOST_TEXTS, MOST_UNPACKED, Place, Table, TableError,
};
use crate::field::recognised;

pub(super) fn read(bytes: &[u8], place: Place) -> Result<Table, TableError> {
    unpacks_within_bounds(bytes)?;
    let failed = |error: XlsxError| TableError::Workbook(error.to_string());
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(bytes)).map_err(failed)?;
    let names = book.sheet_names();
    let (sheet, name) = chosen(&mut book, &names, place.sheet)?;
    let mut cells = book.worksheet_cells_reader(&name).map_err(failed)?;
    let mut lines = Lines { place, ..Lines::default() };
    let mut row: (u32, Vec<String>) = (0, Vec::new());
    while let Some(cell) = cells.next_cell().map_err(failed)? {
        let text = text_of(cell.get_value());
        if text.is_empty() {
            continue;
        }
        let (at, column) = cell.get_position();
        if at != row.0 {
            take(&mut lines, &mut row)?;
            row.0 = at;
        }
        let column = column as usize;
        if column >= MOST_COLUMNS {
            // In the heading that is too many; under it, it is beyond every heading that there may be.
            if lines.header.is_none() && lines.held.is_empty() {
                return Err(TableError::TooManyColumns(column + 1));
            }
            continue;
        }
        if row.1.len() <= column {
            row.1.resize(column + 1, String::new());
        }
        row.1[column] = text;
    }
    take(&mut lines, &mut row)?;
    let mut table = lines.table()?;
    if names.len() > 1 {
        table.notes.push(format!("Of {} sheets this one was read: {name}.", names.len()));
    }
    table.sheets = names;
    table.sheet = sheet;
    Ok(table)
}

/// The sheet that was said, else the first that has a line of known headings near its top, else the first.
fn chosen(
    book: &mut Xlsx<Cursor<&[u8]>>,
    names: &[String],
    said: Option<usize>,
) -> Result<(usize, String), TableError> {
    if let Some(name) = said.and_then(|sheet| names.get(sheet.checked_sub(1)?)) {
        return Ok((said.unwrap_or(1), name.clone()));
    }
    for (at, name) in names.iter().enumerate().take(SHEETS_LOOKED_AT) {
        if has_headings(book, name)? {
            return Ok((at + 1, name.clone()));
        }
    }
    names.first().map(|name| (1, name.clone())).ok_or(TableError::Empty)
}

/// Sheets that are looked at for headings at most.
const SHEETS_LOOKED_AT: usize = 12;

fn has_headings(book: &mut Xlsx<Cursor<&[u8]>>, name: &str) -> Result<bool, TableError> {
    let failed = |error: XlsxError| TableError::Workbook(error.to_string());
    let mut cells = book.worksheet_cells_reader(name).map_err(failed)?;
    let mut line: (u32, Vec<String>) = (0, Vec::new());
    while let Some(cell) = cells.next_cell().map_err(failed)? {
        let (at, _) = cell.get_position();
        if at != line.0 {
            if recognised(&line.1) >= LEAST_HEADINGS {
                return Ok(true);
            }
            line = (at, Vec::new());
        }
        if at as usize >= HEADING_WITHIN {
            return Ok(false);
        }
        if line.1.len() < MOST_COLUMNS {
            line.1.push(text_of(cell.get_value()));
        }
    }
    Ok(recognised(&line.1) >= LEAST_HEADINGS)
}

fn take(lines: &mut Lines, (at, row): &mut (u32, Vec<String>)) -> Result<(), TableError> {
    if row.is_empty() {
        return Ok(());
    }
    lines.take(*at as usize + 1, std::mem::take(row))
}

fn text_of(data: &DataRef<'_>) -> String {
    match data {
        DataRef::Empty | DataRef::Error(_) => String::new(),
        DataRef::Float(number) if number.fract() == 0.0 && number.abs() < 1e15 => format!("{number:.0}"),
        DataRef::String(text) => text.trim().to_owned(),
        DataRef::SharedString(text) => text.trim().to_owned(),
        other => other
            .as_string()
            .unwrap_or_else(|| calamine::Data::from(other.clone()).to_string())
            .trim()
            .to_owned(),
    }
}

/// Unpacks everything into nothing, and counts. What the archive says of its sizes is not believed.
fn unpacks_within_bounds(bytes: &[u8]) -> Result<(), TableError> {
    let failed = |error: String| TableError::Workbook(error);
    let mut archive = zip::ZipArchive::new(Cursor::new(bytes)).map_err(|error| failed(error.to_string()))?;
    let mut left = MOST_UNPACKED;
    for at in 0..archive.len() {
        let entry = archive.by_index(at).map_err(|error| failed(error.to_string()))?;
        let name = entry.name().map_err(|error| failed(error.to_string()))?;
        let is_texts = name.to_lowercase().ends_with("sharedstrings.xml");
        let bound = if is_texts { MOST_TEXTS.min(left) } else { left };
        if entry.size() > bound {
            return Err(TableError::Unpacks(if is_texts { MOST_TEXTS } else { MOST_UNPACKED }));
        }
        let unpacked = std::io::copy(&mut entry.take(bound + 1), &mut std::io::sink())
            .map_err(|error| failed(error.to_string()))?;
        if unpacked > bound {
            return Err(TableError::Unpacks(if is_texts { MOST_TEXTS } else { MOST_UNPACKED }));
        }
        left -= unpacked;
    }
    Ok(())
}
