-- A job that was put into the bin keeps all it has; only lists leave it out.
ALTER TABLE job ADD COLUMN binned_at TEXT;
