//! Price lists and the catalogue, on the wire.

use std::collections::BTreeMap;

use exchange::field::Kind;
use exchange::{Field, Format};
use serde::{Deserialize, Serialize};
use store::catalogue::{CatalogueRow, Counts, PriceList};
use utoipa::{IntoParams, ToSchema};

use super::read::FieldErrors;
use crate::price_list::{ReadTable, Step};
use crate::problem::ApiError;

/// Whose list of what.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct NewList {
    /// `wheels` or `tires`.
    pub kind: String,
    /// Whose it is.
    pub supplier: String,
    /// The name of its file.
    #[serde(default)]
    pub file_name: String,
    /// A word by which its progress can be asked for meanwhile.
    #[serde(default)]
    pub ticket: Option<String>,
}

impl NewList {
    /// Checked: kind, supplier, file name.
    ///
    /// # Errors
    /// Every field at fault.
    pub fn read(&self) -> Result<(Kind, String, String), ApiError> {
        let mut errors = FieldErrors::default();
        let kind = Kind::from_code(&self.kind);
        let supplier = errors.text("supplier", self.supplier.trim(), 80);
        if supplier.is_empty() {
            errors.fault("supplier", "say whose list it is: its columns are remembered by that");
        }
        let file_name = errors.text("file_name", self.file_name.trim(), 200);
        let kind = errors.finish_with(kind, "kind", "is wheels or tires")?;
        Ok((kind, supplier, file_name))
    }
}

/// How a list is read, and what is done with faulty rows.
#[derive(Debug, Default, Deserialize, ToSchema)]
pub struct ListRequest {
    /// Field code to heading; the remembered or recognised one when left out.
    #[serde(default)]
    pub mapping: Option<BTreeMap<String, String>>,
    /// Take nothing when any row is at fault.
    #[serde(default)]
    pub all_or_nothing: bool,
    /// A word by which the progress can be asked for meanwhile.
    #[serde(default)]
    pub ticket: Option<String>,
}

/// How far a list under way has come.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProgressView {
    /// `waiting` (not begun, or over), `reading`, `comparing` or `writing`.
    pub what: &'static str,
    /// Rows done.
    pub done: usize,
    /// Rows in all; 0 while that is not known.
    pub of: usize,
}

impl From<Option<Step>> for ProgressView {
    fn from(step: Option<Step>) -> Self {
        let Step { what, done, of } = step.unwrap_or(Step { what: "waiting", done: 0, of: 0 });
        Self { what, done, of }
    }
}

/// A price list.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see store::catalogue::PriceList")]
pub struct ListView {
    pub id: i64,
    /// Itself and no other.
    pub uid: String,
    /// Its state, by which and its uid its `ETag` is `"<uid>.<token>"`.
    pub token: String,
    pub kind: String,
    pub supplier: String,
    pub file_name: String,
    /// `open`, `taken` or `undone`.
    pub state: String,
    pub brought_at: String,
    pub taken_at: Option<String>,
    pub changed_rows: i64,
    /// How many bytes its file has.
    pub bytes: i64,
    /// Whether its file was removed: it can no longer be read again.
    pub is_removed: bool,
}

impl From<PriceList> for ListView {
    fn from(list: PriceList) -> Self {
        let token = list.tag().token;
        let PriceList {
            id,
            uid,
            kind,
            supplier,
            file_name,
            state,
            brought_at,
            taken_at,
            changed_rows,
            bytes,
            is_removed,
        } = list;
        Self {
            id,
            uid,
            token,
            kind,
            supplier,
            file_name,
            state,
            brought_at,
            taken_at,
            changed_rows,
            bytes,
            is_removed,
        }
    }
}

/// A field that a column can mean.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "code and name")]
pub struct FieldEntry {
    pub code: &'static str,
    pub title: &'static str,
}

/// A row at fault.
#[derive(Debug, Serialize, ToSchema)]
pub struct FaultView {
    /// Its number in the file, the heading being 1.
    pub row: usize,
    /// The field's code; null for the row as a whole.
    pub field: Option<&'static str>,
    /// Why.
    pub says: String,
}

/// What taking a list would do, or did.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names say it")]
pub struct TriedList {
    pub list: ListView,
    pub header: Vec<String>,
    /// What a column can mean for this kind.
    pub fields: Vec<FieldEntry>,
    /// Field code to heading, as it was read.
    pub mapping: BTreeMap<String, String>,
    pub new: usize,
    pub changed: usize,
    pub unchanged: usize,
    pub faulty: usize,
    /// The first rows at fault.
    pub faults: Vec<FaultView>,
    /// What was noticed.
    pub notes: Vec<String>,
    /// The first rows as they were read, field code to text.
    pub sample: Vec<BTreeMap<String, String>>,
    /// The first lines as they stand in the file.
    pub top: Vec<LineOfFile>,
    /// The line that was taken for the heading; another is said as `@header_row` of the mapping.
    pub header_row: usize,
    /// Sheets of a workbook; another is said by its number as `@sheet` of the mapping.
    pub sheets: Vec<String>,
    /// The sheet that was read, counted from 1; 0 for a file without sheets.
    pub sheet: usize,
    /// What must be said before the list is taken: answers go into the mapping under their codes, and are remembered.
    pub questions: Vec<ListQuestion>,
}

/// A line as it stands in a file.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "names say it")]
pub struct LineOfFile {
    pub row: usize,
    pub cells: Vec<String>,
}

/// What only a person can say of a supplier's lists.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "see exchange::habits::Question")]
pub struct ListQuestion {
    pub code: &'static str,
    pub asks: String,
    pub choices: Vec<FieldChoice>,
}

/// An answer.
#[derive(Debug, Serialize, ToSchema)]
#[allow(missing_docs, reason = "code and words")]
pub struct FieldChoice {
    pub code: &'static str,
    pub name: String,
}

/// Most faults told one by one.
const MOST_FAULTS: usize = 200;
const SAMPLE: usize = 5;

impl TriedList {
    /// What a list came to.
    pub fn new(list: PriceList, kind: Kind, table: &ReadTable, counts: Counts) -> Self {
        let read = &table.list;
        let faults = read.faults.iter().flat_map(|fault| {
            fault.errors.iter().map(|error| FaultView {
                row: fault.row,
                field: error.field.map(Field::code),
                says: error.to_string(),
            })
        });
        let mut notes = table.notes.clone();
        notes.extend(read.silent.says());
        if read.doubled > 0 {
            notes.push(format!("{} rows stand twice in the list: the later one counts.", read.doubled));
        }
        Self {
            list: list.into(),
            header: table.header.clone(),
            fields: field_entries(kind),
            mapping: table.mapping.clone(),
            new: counts.new,
            changed: counts.changed,
            unchanged: counts.unchanged,
            faulty: read.faults.len(),
            faults: faults.take(MOST_FAULTS).collect(),
            notes,
            sample: read.rows.iter().take(SAMPLE).map(|(_, text)| text.fields()).collect(),
            top: table
                .top
                .iter()
                .map(|(row, cells)| LineOfFile { row: *row, cells: cells.clone() })
                .collect(),
            header_row: table.header_row,
            sheets: table.sheets.0.clone(),
            sheet: table.sheets.1,
            questions: table
                .questions
                .iter()
                .map(|question| ListQuestion {
                    code: question.code,
                    asks: question.asks.clone(),
                    choices: question
                        .choices
                        .iter()
                        .map(|(code, name)| FieldChoice { code, name: name.clone() })
                        .collect(),
                })
                .collect(),
        }
    }
}

/// How a list was undone.
#[derive(Debug, Serialize, ToSchema)]
pub struct UndoneList {
    /// The list.
    pub list: ListView,
    /// Rows that went back to what they were.
    pub back: usize,
    /// Rows that another list changed since, left as they are.
    pub left: usize,
}

/// Which rows.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct RowsQuery {
    /// `wheels` or `tires`.
    pub kind: String,
    /// Words that must all occur.
    #[serde(default)]
    pub find: String,
    /// How many to leave out first.
    #[serde(default)]
    pub from: usize,
    /// `csv`, `xlsx` or `json`, for an export.
    #[serde(default)]
    pub format: Option<String>,
}

impl RowsQuery {
    /// The kind.
    ///
    /// # Errors
    /// Neither wheels nor tires.
    pub fn kind(&self) -> Result<Kind, ApiError> {
        FieldErrors::default().finish_with(Kind::from_code(&self.kind), "kind", "is wheels or tires")
    }

    /// The format of an export.
    ///
    /// # Errors
    /// None of them.
    pub fn format(&self) -> Result<Format, ApiError> {
        let format = Format::from_code(self.format.as_deref().unwrap_or("csv"));
        FieldErrors::default().finish_with(format, "format", "is csv, xlsx or json")
    }
}

/// A row of the catalogue.
#[derive(Debug, Serialize, ToSchema)]
pub struct RowView {
    /// Its number.
    pub id: i64,
    /// Whose it is.
    pub supplier: String,
    /// Field code to text; nothing when it cannot be read.
    pub fields: BTreeMap<String, String>,
    /// Why it cannot be read: the finder passes it over until its list is taken again.
    pub damaged: Option<String>,
}

impl From<CatalogueRow> for RowView {
    fn from(row: CatalogueRow) -> Self {
        Self { id: row.id, supplier: row.supplier, fields: row.record, damaged: row.damaged }
    }
}

/// A page of the catalogue.
#[derive(Debug, Serialize, ToSchema)]
pub struct RowsView {
    /// How many there are in all.
    pub total: usize,
    /// Those of this page.
    pub rows: Vec<RowView>,
    /// What the fields are called.
    pub fields: Vec<FieldEntry>,
}

/// What the fields of a kind are called.
pub fn field_entries(kind: Kind) -> Vec<FieldEntry> {
    let fields = Field::ALL.iter().filter(|field| field.is_of(kind));
    fields.map(|field| FieldEntry { code: field.code(), title: field.title() }).collect()
}
