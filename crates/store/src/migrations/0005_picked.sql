-- Rows of price lists that a job has picked, as they were then: a later list does not change them.
CREATE TABLE picked_part (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    kind     TEXT    NOT NULL CHECK (kind IN ('wheels', 'tires')),
    row_id   INTEGER NOT NULL,
    supplier TEXT    NOT NULL,
    record   TEXT    NOT NULL,
    PRIMARY KEY (job_id, position)
) STRICT;

-- Questions that were gone through with the owner.
CREATE TABLE answered (
    job_id   INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    question TEXT    NOT NULL,
    PRIMARY KEY (job_id, question)
) STRICT;
