-- What is known of a job's car: one row a fact, as typed; what is not known has no row.
CREATE TABLE car_fact (
    job_id INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    fact   TEXT    NOT NULL,
    axle   TEXT    CHECK (axle IN ('front', 'rear')),
    value  TEXT    NOT NULL
) STRICT;
CREATE INDEX car_fact_by_job ON car_fact (job_id);
CREATE INDEX car_fact_by_model ON car_fact (fact, value);

-- Other wheels and tires the factory offered.
CREATE TABLE car_alternative (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    name     TEXT    NOT NULL,
    front    TEXT,
    rear     TEXT,
    PRIMARY KEY (job_id, position)
) STRICT;

-- Readings as taken: the value in the unit it was read in, what was fitted at the time (NULL: the bare hub).
-- The id is the tablet's, so that a reading sent twice is kept once.
CREATE TABLE reading (
    job_id        INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    id            TEXT    NOT NULL,
    position      INTEGER NOT NULL,
    axle          TEXT    NOT NULL CHECK (axle IN ('front', 'rear')),
    side          TEXT    CHECK (side IN ('left', 'right')),
    what          TEXT    NOT NULL,
    value         REAL    NOT NULL,
    unit          TEXT    NOT NULL,
    instrument    TEXT    NOT NULL,
    plus_minus_mm REAL    NOT NULL,
    fitted        TEXT,
    stance        TEXT    NOT NULL,
    steer         TEXT    NOT NULL,
    radius_mm     REAL,
    is_copied     INTEGER NOT NULL CHECK (is_copied IN (0, 1)),
    who           TEXT    NOT NULL,
    at            TEXT    NOT NULL,
    PRIMARY KEY (job_id, id)
) STRICT;

-- What is done to the car for the plan.
CREATE TABLE lever (
    job_id INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    axle   TEXT    NOT NULL CHECK (axle IN ('front', 'rear')),
    lever  TEXT    NOT NULL,
    amount REAL    NOT NULL,
    PRIMARY KEY (job_id, axle, lever)
) STRICT;

-- How the owner wants it to stand.
CREATE TABLE wanted_style (
    job_id    INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    axle      TEXT    NOT NULL CHECK (axle IN ('front', 'rear')),
    style     TEXT    NOT NULL,
    within_mm REAL,
    is_show   INTEGER NOT NULL CHECK (is_show IN (0, 1)),
    PRIMARY KEY (job_id, axle)
) STRICT;

-- The house: its limits where they differ from the trade's, its instruments and its people.
CREATE TABLE house (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    revision INTEGER NOT NULL,
    units    TEXT    NOT NULL
) STRICT;
CREATE TABLE house_limit (
    code  TEXT PRIMARY KEY,
    value REAL NOT NULL
) STRICT;
CREATE TABLE instrument (
    code          TEXT    PRIMARY KEY,
    position      INTEGER NOT NULL,
    name          TEXT    NOT NULL,
    plus_minus_mm REAL    NOT NULL
) STRICT;
CREATE TABLE person (
    initials TEXT    PRIMARY KEY,
    position INTEGER NOT NULL,
    name     TEXT    NOT NULL
) STRICT;
