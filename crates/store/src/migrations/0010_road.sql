-- What is typed on a job's road and track sheet.
ALTER TABLE job ADD COLUMN road TEXT;
