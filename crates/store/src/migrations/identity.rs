//! Step 12: what an older file holds gets its uids, its jobs their tokens and the piles of their journals.

use rusqlite::{Transaction, params};
use rusqlite_migration::HookResult;

use crate::identity::{new_token, new_uid};
use crate::journal::Kind;

/// Gives ids once.
pub(super) fn give(transaction: &Transaction<'_>) -> HookResult {
    transaction.execute("UPDATE shop_file SET shop_id = ?1, file_id = ?2", [new_uid(), new_uid()])?;
    transaction.execute("UPDATE house SET token = ?1", [new_token()])?;
    for (table, ids) in [("job", ids(transaction, "job")?), ("price_list", ids(transaction, "price_list")?)] {
        let mut give = transaction.prepare(&format!("UPDATE {table} SET uid = ?2 WHERE id = ?1"))?;
        for id in ids {
            give.execute(params![id, new_uid()])?;
        }
    }
    transaction.execute_batch(
        "CREATE UNIQUE INDEX job_by_uid ON job (uid);
         CREATE UNIQUE INDEX price_list_by_uid ON price_list (uid);
         CREATE INDEX journal_by_token ON journal (token) WHERE token <> '';",
    )?;
    for job in ids(transaction, "job")? {
        let token = new_token();
        transaction.execute("UPDATE job SET token = ?2 WHERE id = ?1", params![job, token])?;
        transaction.execute(
            "UPDATE journal SET token = ?2 WHERE id = (SELECT max(id) FROM journal WHERE job_id = ?1)",
            params![job, token],
        )?;
        pile_up(transaction, job)?;
    }
    parts(transaction)
}

fn ids(transaction: &Transaction<'_>, table: &str) -> Result<Vec<i64>, rusqlite::Error> {
    let mut statement = transaction.prepare(&format!("SELECT id FROM {table}"))?;
    statement.query_map([], |row| row.get(0))?.collect()
}

/// Walks a job's journal: a change goes on the pile, an undo takes it off, a redo puts it back, and a new change
/// forgets what was undone.
fn pile_up(transaction: &Transaction<'_>, job: i64) -> Result<(), rusqlite::Error> {
    let mut entries = transaction.prepare("SELECT id, kind FROM journal WHERE job_id = ?1 ORDER BY id")?;
    let mut rows = entries.query([job])?;
    let (mut done, mut undone): (Vec<i64>, Vec<i64>) = (Vec::new(), Vec::new());
    while let Some(row) = rows.next()? {
        let id: i64 = row.get(0)?;
        match Kind::from_code(&row.get::<_, String>(1)?) {
            Some(Kind::Change) => {
                done.push(id);
                undone.clear();
            }
            Some(Kind::Undo) => undone.extend(done.pop()),
            Some(Kind::Redo) => done.extend(undone.pop()),
            // What came before a mend may be what cannot be read: undo begins anew.
            Some(Kind::Mend) => (done, undone) = (Vec::new(), Vec::new()),
            Some(Kind::Create) | None => {}
        }
    }
    for (pile, column) in [(&done, "beneath_done"), (&undone, "beneath_undone")] {
        let mut put = transaction.prepare(&format!("UPDATE journal SET {column} = ?2 WHERE id = ?1"))?;
        for two in pile.windows(2) {
            put.execute(params![two[1], two[0]])?;
        }
    }
    transaction.execute(
        "UPDATE job SET undoes = ?2, redoes = ?3 WHERE id = ?1",
        params![job, done.last(), undone.last()],
    )?;
    Ok(())
}

/// Readings and trials that are there.
fn parts(transaction: &Transaction<'_>) -> HookResult {
    for (kind, of) in [
        ("reading", "SELECT job_id, id FROM reading"),
        // A record that is no JSON any more is damage, and told where it is read.
        (
            "trial",
            "SELECT job_id, json_extract(record, '$.id') FROM trial_fit
             WHERE json_valid(record) AND json_extract(record, '$.id') IS NOT NULL",
        ),
    ] {
        let mut give = transaction
            .prepare("INSERT OR IGNORE INTO part_uid (job_id, kind, id, uid) VALUES (?1, ?2, ?3, ?4)")?;
        let mut parts = transaction.prepare(of)?;
        let mut rows = parts.query([])?;
        while let Some(row) = rows.next()? {
            give.execute(params![row.get::<_, i64>(0)?, kind, row.get::<_, String>(1)?, new_uid()])?;
        }
    }
    Ok(())
}
