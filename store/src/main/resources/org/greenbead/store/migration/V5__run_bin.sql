-- A run that was put into the bin keeps its row and its log; only lists and counts leave it out.
ALTER TABLE run ADD COLUMN binned_at TEXT;
