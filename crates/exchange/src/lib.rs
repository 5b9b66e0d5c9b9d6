//! Open formats in and out. Bytes in, bytes out; no files, no network, no clock.
//!
//! - [`table`]: a price list as rows of text, read from CSV, XLSX or JSON and written to them row by row.
//! - [`field`]: what a column can mean, and how columns are recognised by their headings.
//! - [`record`]: a row as fields; [`wheels`] and [`tires`]: records as the core's catalogue rows, and back.
//!
//! - [`proven`]: fits of finished jobs as rows that shops exchange.
//! - [`profile`]: profiles of brakes and wheels, from and to DXF, SVG and CSV; card templates as PDF.
//!
//! What is deliberately not here: which rows are new, who the supplier is, and where anything is kept (`store`).
#![warn(missing_docs)]

pub mod field;
pub mod habits;
pub mod profile;
pub mod proven;
pub mod record;
pub mod table;
pub mod tires;
pub mod wheels;

pub use field::{Field, Kind, Mapping};
pub use record::{Record, RowError};
pub use table::{Format, Table, TableError};
