-- Chips with a life of their own. A chip outlives its job, so the job is a word in it and no foreign key.
CREATE TABLE chip (
    label      TEXT NOT NULL PRIMARY KEY,
    part       TEXT NOT NULL,
    job_id     TEXT,
    body       TEXT NOT NULL,
    updated_at TEXT NOT NULL
);
CREATE INDEX chip_by_job ON chip (job_id);
