-- A job: one car, what its owner wants, what is fitted and what is planned.
-- Setups are kept as canonical setup lines; NULL is an axle nobody spoke of.
CREATE TABLE job (
    id            INTEGER PRIMARY KEY,
    number        INTEGER NOT NULL UNIQUE,
    car_label     TEXT    NOT NULL,
    wish          TEXT    NOT NULL,
    stage         TEXT    NOT NULL,
    drive         TEXT,
    notes         TEXT    NOT NULL,
    fitted_front  TEXT,
    fitted_rear   TEXT,
    planned_front TEXT,
    planned_rear  TEXT,
    put_away      INTEGER NOT NULL DEFAULT 0 CHECK (put_away IN (0, 1)),
    revision      INTEGER NOT NULL,
    created_at    TEXT    NOT NULL,
    updated_at    TEXT    NOT NULL
) STRICT;

-- A setup kept side by side with others.
CREATE TABLE candidate (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    letter   TEXT    NOT NULL,
    position INTEGER NOT NULL,
    note     TEXT    NOT NULL,
    front    TEXT,
    rear     TEXT,
    PRIMARY KEY (job_id, letter)
) STRICT;
