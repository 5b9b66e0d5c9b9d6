-- What a row of the catalogue is found by: what its fields say and whose it is, in small letters. The index alone answers which
-- rows have a word.
ALTER TABLE catalogue_row ADD COLUMN words TEXT NOT NULL DEFAULT '';
