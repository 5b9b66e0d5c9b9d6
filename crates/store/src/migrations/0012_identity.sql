-- Who is who beyond this file: a running number is made again by another file, a uid never is (UUIDv7). Every revision
-- has a token of its own, drawn at random; `job.token` is the present one, the journal keeps those before.
ALTER TABLE job ADD COLUMN uid TEXT NOT NULL DEFAULT '';
ALTER TABLE job ADD COLUMN token TEXT NOT NULL DEFAULT '';
ALTER TABLE journal ADD COLUMN token TEXT NOT NULL DEFAULT '';
ALTER TABLE house ADD COLUMN token TEXT NOT NULL DEFAULT '';
ALTER TABLE price_list ADD COLUMN uid TEXT NOT NULL DEFAULT '';
ALTER TABLE shop_file ADD COLUMN shop_id TEXT NOT NULL DEFAULT '';
ALTER TABLE shop_file ADD COLUMN file_id TEXT NOT NULL DEFAULT '';
ALTER TABLE shop_file ADD COLUMN clubs_token TEXT NOT NULL DEFAULT '0';

-- Uids of what a job holds, by the id that its sender drew, which is its own within its job alone. A row stays when the
-- thing is taken away: undo brings back the same one.
CREATE TABLE part_uid (
    job_id INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    kind   TEXT    NOT NULL CHECK (kind IN ('reading', 'trial')),
    id     TEXT    NOT NULL,
    uid    TEXT    NOT NULL,
    PRIMARY KEY (job_id, kind, id)
) STRICT, WITHOUT ROWID;

-- What undo takes back and what redo does again, so that a change need not walk its job's journal: two piles of entries,
-- their tops with the job, what lies beneath an entry with the entry.
ALTER TABLE job ADD COLUMN undoes INTEGER;
ALTER TABLE job ADD COLUMN redoes INTEGER;
ALTER TABLE journal ADD COLUMN beneath_done INTEGER;
ALTER TABLE journal ADD COLUMN beneath_undone INTEGER;
