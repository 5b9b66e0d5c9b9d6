-- What stands inside the barrel on a job's car, and what was tried on: one JSON record each.
CREATE TABLE brake_template (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    record   TEXT    NOT NULL,
    PRIMARY KEY (job_id, position)
) STRICT;
CREATE TABLE trial_fit (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    record   TEXT    NOT NULL,
    PRIMARY KEY (job_id, position)
) STRICT;

-- Pictures taken at trial fits, without what a camera notes beside them.
CREATE TABLE photo (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    media_type TEXT    NOT NULL,
    bytes      BLOB    NOT NULL,
    taken_at   TEXT    NOT NULL
) STRICT;

-- The inside of a wheel as it was measured, by its line and size.
CREATE TABLE wheel_template (
    key        TEXT PRIMARY KEY,
    record     TEXT NOT NULL,
    brought_at TEXT NOT NULL
) STRICT;

-- Fits of finished jobs, ours and other shops'.
CREATE TABLE proven_fit (
    id         INTEGER PRIMARY KEY,
    key        TEXT NOT NULL UNIQUE,
    record     TEXT NOT NULL,
    job_id     INTEGER REFERENCES job (id) ON DELETE SET NULL,
    brought_at TEXT NOT NULL
) STRICT;
