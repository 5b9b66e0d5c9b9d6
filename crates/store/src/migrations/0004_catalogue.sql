-- Price lists as they came, with which column means what; the file is kept so that it can be read again.
CREATE TABLE price_list (
    id         INTEGER PRIMARY KEY,
    kind       TEXT NOT NULL CHECK (kind IN ('wheels', 'tires')),
    supplier   TEXT NOT NULL,
    file_name  TEXT NOT NULL,
    bytes      BLOB NOT NULL,
    state      TEXT NOT NULL CHECK (state IN ('open', 'taken', 'undone')),
    brought_at TEXT NOT NULL,
    taken_at   TEXT
) STRICT;

-- What can be ordered: a row of fields as JSON texts, by the supplier's own key for it.
CREATE TABLE catalogue_row (
    id       INTEGER PRIMARY KEY,
    kind     TEXT NOT NULL CHECK (kind IN ('wheels', 'tires')),
    supplier TEXT NOT NULL,
    key      TEXT NOT NULL,
    record   TEXT NOT NULL,
    UNIQUE (kind, supplier, key)
) STRICT;

-- What a list changed, so that taking it can be undone. before is NULL for a row that was new.
CREATE TABLE catalogue_change (
    list_id INTEGER NOT NULL REFERENCES price_list (id) ON DELETE CASCADE,
    row_id  INTEGER NOT NULL,
    before  TEXT,
    after   TEXT NOT NULL,
    PRIMARY KEY (list_id, row_id)
) STRICT;

-- Which heading means which field, remembered for each supplier.
CREATE TABLE supplier_mapping (
    supplier TEXT NOT NULL,
    kind     TEXT NOT NULL CHECK (kind IN ('wheels', 'tires')),
    mapping  TEXT NOT NULL,
    PRIMARY KEY (supplier, kind)
) STRICT;
