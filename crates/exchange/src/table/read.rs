//! A file as a table: CSV here, the other formats beside.

use super::{LARGEST_FILE, Lines, MOST_COLUMNS, Place, Table, TableError, json, unguarded, xlsx};

impl Table {
    /// Reads a file, whichever of the formats it is.
    ///
    /// # Errors
    /// [`TableError`], naming the place, or the bound and how to stay within it.
    pub fn read(bytes: &[u8]) -> Result<Self, TableError> {
        Self::read_at(bytes, Place::default())
    }

    /// The same, where a person said in which sheet and line the list begins.
    ///
    /// # Errors
    /// As [`Self::read`].
    pub fn read_at(bytes: &[u8], place: Place) -> Result<Self, TableError> {
        if bytes.len() > LARGEST_FILE {
            return Err(TableError::TooLarge(bytes.len()));
        }
        if bytes.starts_with(b"PK\x03\x04") {
            return xlsx::read(bytes, place);
        }
        let (text, note) = decoded(bytes)?;
        let start = text.trim_start();
        if start.is_empty() {
            return Err(TableError::Empty);
        }
        let mut table = if start.starts_with('[') || start.starts_with('{') {
            json::read(start)?
        } else {
            read_csv(&text, place)?
        };
        table.notes.extend(note);
        Ok(table)
    }
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

/// The separator that cuts most of the first lines into columns of equal number; titles above the heading have none.
fn separator(text: &str) -> u8 {
    let lines: Vec<&str> = text.lines().filter(|line| !line.trim().is_empty()).take(20).collect();
    let worth = |separator: char| {
        let counts: Vec<usize> =
            lines.iter().map(|line| outside_quotes(line).filter(|c| *c == separator).count()).collect();
        let alike = |most: usize| counts.iter().filter(|count| **count == most).count();
        counts.iter().copied().filter(|count| *count > 0).map(|most| (alike(most), most)).max()
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

/// Cells of one line beyond which it is no line of a list: so far only the heading's columns are read.
const MOST_CELLS_OF_A_LINE: usize = 50 * MOST_COLUMNS;

fn read_csv(text: &str, place: Place) -> Result<Table, TableError> {
    let separator = separator(text);
    // Looked at before the reader makes room for a row: a line of separators alone would take ten times its length.
    for (at, line) in text.split('\n').enumerate() {
        let is_long = line.len() > MOST_CELLS_OF_A_LINE;
        if is_long && line.bytes().filter(|byte| *byte == separator).count() > MOST_CELLS_OF_A_LINE {
            return Err(TableError::RowTooLong(at + 1));
        }
    }
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(separator)
        .flexible(true)
        .has_headers(false)
        .from_reader(text.as_bytes());
    let mut lines = Lines { place, ..Lines::default() };
    for (at, record) in reader.records().enumerate() {
        let record = record.map_err(|error| TableError::Csv {
            line: error.position().map_or(at as u64 + 1, csv::Position::line),
            why: error.to_string(),
        })?;
        if record.iter().all(|cell| cell.trim().is_empty()) {
            continue;
        }
        if record.len() > MOST_CELLS_OF_A_LINE {
            return Err(TableError::RowTooLong(at + 1));
        }
        let line = record.position().map_or(at + 1, |position| position.line() as usize);
        lines.take(line, record.iter().map(|cell| unguarded(cell.trim())).collect())?;
    }
    lines.table()
}
