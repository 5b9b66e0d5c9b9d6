-- Who changed what and when, with the job before and after. Undo and redo are entries of their own.
CREATE TABLE journal (
    id       INTEGER PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    at       TEXT    NOT NULL,
    who      TEXT    NOT NULL,
    kind     TEXT    NOT NULL CHECK (kind IN ('create', 'change', 'undo', 'redo')),
    what     TEXT    NOT NULL,
    before   TEXT,
    after    TEXT    NOT NULL
) STRICT;

CREATE INDEX journal_by_job ON journal (job_id, id);
