-- What a car's module was told, by whom, and how it came out. A row is written before the module is told.
CREATE TABLE module_log (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    at         TEXT    NOT NULL,
    who        TEXT    NOT NULL,
    vehicle    TEXT    NOT NULL,
    was_mm     INTEGER NOT NULL,
    told_mm    INTEGER NOT NULL,
    is_restore INTEGER NOT NULL,
    outcome    TEXT    NOT NULL,
    says       TEXT    NOT NULL
) STRICT;
CREATE INDEX module_log_by_job ON module_log (job_id);

-- Rule files of clubs that the house wrote or brought: a JSON record each, by club and the day its rules count from.
CREATE TABLE club_rules (
    club       TEXT NOT NULL,
    valid_from TEXT NOT NULL,
    record     TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    who        TEXT NOT NULL,
    PRIMARY KEY (club, valid_from)
) STRICT;
