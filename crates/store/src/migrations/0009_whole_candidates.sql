-- A kept setup keeps what it counts as done to the car and the rows it is made of; those of older files had neither. What is sought
-- is kept with the job.
ALTER TABLE candidate ADD COLUMN levers TEXT NOT NULL DEFAULT '[]';
ALTER TABLE candidate ADD COLUMN picked TEXT NOT NULL DEFAULT '[]';
ALTER TABLE job ADD COLUMN wishes TEXT;
