-- From which face a reading was taken, along which way, and where round the wheel. NULL is the part's usual one, and that is what
-- every reading of an older file was taken for: it keeps its meaning.
ALTER TABLE reading ADD COLUMN face TEXT;
ALTER TABLE reading ADD COLUMN direction TEXT;
ALTER TABLE reading ADD COLUMN clock REAL;
