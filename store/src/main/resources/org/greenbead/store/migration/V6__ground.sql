-- What jobs at their end were worked with, kept when such a board, bench or recipe is first changed after that.
CREATE TABLE ground (
    job_id  TEXT NOT NULL,
    kind    TEXT NOT NULL,
    id      TEXT NOT NULL,
    body    TEXT NOT NULL,
    kept_at TEXT NOT NULL,
    PRIMARY KEY (job_id, kind, id)
);
