-- The journal keeps changes, as JSON patches (RFC 6902) in both directions; a job's first entry keeps its content whole
-- as `base`. NULL patches: an entry of an older file that could not be read.
ALTER TABLE journal RENAME TO journal_of_snapshots;
DROP INDEX journal_by_job;
CREATE TABLE journal (
    id       INTEGER PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    at       TEXT    NOT NULL,
    who      TEXT    NOT NULL,
    kind     TEXT    NOT NULL CHECK (kind IN ('create', 'change', 'undo', 'redo', 'mend')),
    what     TEXT    NOT NULL,
    base     TEXT,
    forward  TEXT,
    back     TEXT
) STRICT;
CREATE INDEX journal_by_job ON journal (job_id, id, kind);

-- The counter's order.
CREATE INDEX job_by_change ON job (put_away, updated_at DESC, id DESC);

-- Requests that may be sent twice, by their sender's key, with what they made.
CREATE TABLE once (
    key     TEXT PRIMARY KEY,
    request TEXT NOT NULL,
    made    TEXT NOT NULL,
    at      TEXT NOT NULL
) STRICT;
CREATE INDEX once_by_time ON once (at);

-- Which state of the file its log goes on from: see leftover.rs.
CREATE TABLE shop_file (
    id      INTEGER PRIMARY KEY CHECK (id = 1),
    mark    TEXT NOT NULL,
    earlier TEXT NOT NULL
) STRICT;
INSERT INTO shop_file VALUES (1, '', '');

-- Photos taken by older programs may hold more than the picture: they are drawn anew when they are next asked for.
ALTER TABLE photo ADD COLUMN is_clean INTEGER NOT NULL DEFAULT 0;
CREATE INDEX photo_by_job ON photo (job_id);

-- A file of proven fits that was brought: what it brought can be taken out again as one.
CREATE TABLE proven_import (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL,
    brought_at TEXT NOT NULL
) STRICT;
ALTER TABLE proven_fit ADD COLUMN import_id INTEGER REFERENCES proven_import (id) ON DELETE SET NULL;
CREATE INDEX proven_fit_by_import ON proven_fit (import_id);

-- A price list's file may be removed when its rows are taken.
ALTER TABLE price_list ADD COLUMN is_removed INTEGER NOT NULL DEFAULT 0;
