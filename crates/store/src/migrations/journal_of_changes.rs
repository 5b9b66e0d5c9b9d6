//! Step 7: a journal of two snapshots an entry becomes one of changes.

use std::collections::HashSet;

use rusqlite::{Transaction, params};
use rusqlite_migration::HookResult;

use crate::snapshot;

/// Writes every entry anew, with its change in both directions.
pub(super) fn rewrite(transaction: &Transaction<'_>) -> HookResult {
    let mut seen: HashSet<i64> = HashSet::new();
    let mut entries = transaction.prepare(
        "SELECT id, job_id, revision, at, who, kind, what, before, after FROM journal_of_snapshots ORDER BY id",
    )?;
    let mut insert = transaction.prepare(
        "INSERT INTO journal (id, job_id, revision, at, who, kind, what, base, forward, back)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10)",
    )?;
    let mut rows = entries.query([])?;
    while let Some(row) = rows.next()? {
        let (job, kind): (i64, String) = (row.get("job_id")?, row.get("kind")?);
        let (before, after): (Option<String>, String) = (row.get("before")?, row.get("after")?);
        // A content in an older form is brought to the form of today first, so that changes go on from it.
        let today = |json: &str| snapshot::value_of(json).ok();
        let (before, after) = (before.as_deref().and_then(today), today(&after));
        let change =
            before.as_ref().zip(after.as_ref()).map(|(before, after)| snapshot::changes(before, after));
        let is_first = seen.insert(job);
        let base = is_first.then(|| before.as_ref().or(after.as_ref()).map(ToString::to_string)).flatten();
        let (forward, back) = match change {
            Some((forward, back)) => (Some(forward), Some(back)),
            None if kind == "create" => (Some("[]".to_owned()), Some("[]".to_owned())),
            None => (None, None),
        };
        insert.execute(params![
            row.get::<_, i64>("id")?,
            job,
            row.get::<_, i64>("revision")?,
            row.get::<_, String>("at")?,
            row.get::<_, String>("who")?,
            kind,
            row.get::<_, String>("what")?,
            base,
            forward,
            back,
        ])?;
    }
    drop(rows);
    transaction.execute_batch("DROP TABLE journal_of_snapshots")?;
    Ok(())
}
