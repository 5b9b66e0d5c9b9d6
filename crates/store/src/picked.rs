//! What a job has picked from the price lists, and what was gone through with the owner.

use std::collections::BTreeSet;

use rusqlite::{Connection, params};
use serde::{Deserialize, Serialize};

use crate::StoreError;
use crate::catalogue::Fields;
use crate::columns::json_of;

/// A row of a price list as it was when a job picked it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct PickedRow {
    /// `wheels` or `tires`.
    pub kind: String,
    /// Its number in the catalogue.
    pub row: i64,
    /// Whose it is.
    pub supplier: String,
    /// What it said.
    pub record: Fields,
}

/// What a job has picked.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(default)]
pub struct Picked {
    /// Rows of price lists.
    pub rows: Vec<PickedRow>,
    /// Codes of the questions that were gone through with the owner.
    pub answered: BTreeSet<String>,
}

impl Picked {
    /// Replaces what the tables hold for a job.
    pub(crate) fn put(&self, connection: &Connection, job: i64) -> Result<(), StoreError> {
        for table in ["picked_part", "answered"] {
            connection.prepare_cached(&format!("DELETE FROM {table} WHERE job_id = ?1"))?.execute([job])?;
        }
        let mut insert = connection.prepare_cached(
            "INSERT INTO picked_part (job_id, position, kind, row_id, supplier, record)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
        )?;
        for (position, row) in self.rows.iter().enumerate() {
            let record = json_of(&row.record)?;
            insert.execute(params![job, position as i64, row.kind, row.row, row.supplier, record])?;
        }
        let mut insert =
            connection.prepare_cached("INSERT INTO answered (job_id, question) VALUES (?1, ?2)")?;
        for question in &self.answered {
            insert.execute(params![job, question])?;
        }
        Ok(())
    }

    /// What the tables hold for a job.
    pub(crate) fn get(connection: &Connection, job: i64) -> Result<Self, StoreError> {
        let mut statement = connection.prepare_cached(
            "SELECT kind, row_id, supplier, record FROM picked_part WHERE job_id = ?1 ORDER BY position",
        )?;
        let rows = statement.query_map([job], |row| {
            Ok((row.get("kind")?, row.get("row_id")?, row.get("supplier")?, row.get::<_, String>("record")?))
        })?;
        let corrupt = |why: String| StoreError::Corrupt { table: "picked_part", id: job, why };
        let rows = rows
            .map(|row| {
                let (kind, row, supplier, record) = row?;
                let record = serde_json::from_str(&record).map_err(|error| corrupt(error.to_string()))?;
                Ok(PickedRow { kind, row, supplier, record })
            })
            .collect::<Result<_, StoreError>>()?;
        let answered = connection
            .prepare_cached("SELECT question FROM answered WHERE job_id = ?1")?
            .query_map([job], |row| row.get("question"))?
            .collect::<Result<_, _>>()?;
        Ok(Self { rows, answered })
    }
}
