-- The common subset of SQLite and PostgreSQL: text ids, ISO-8601 times as text, JSON as text.
CREATE TABLE document (
    kind       TEXT NOT NULL,
    id         TEXT NOT NULL,
    body       TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    PRIMARY KEY (kind, id)
);
CREATE TABLE job (
    id         TEXT NOT NULL PRIMARY KEY,
    body       TEXT NOT NULL,
    updated_at TEXT NOT NULL
);
CREATE TABLE job_event (
    id     TEXT NOT NULL PRIMARY KEY,
    job_id TEXT NOT NULL REFERENCES job (id),
    seq    BIGINT NOT NULL,
    at     TEXT NOT NULL,
    kind   TEXT NOT NULL,
    detail TEXT NOT NULL
);
CREATE INDEX job_event_by_job ON job_event (job_id, seq);
CREATE TABLE run (
    id           TEXT NOT NULL PRIMARY KEY,
    job_id       TEXT NOT NULL REFERENCES job (id),
    bead         TEXT NOT NULL,
    chip         TEXT NOT NULL,
    recipe       TEXT NOT NULL,
    started_at   TEXT NOT NULL,
    simulated    BOOLEAN NOT NULL,
    log_file     TEXT NOT NULL,
    ended_at     TEXT,
    outcome      TEXT,
    length_s     DOUBLE PRECISION,
    peak_joint_c DOUBLE PRECISION,
    above_s      DOUBLE PRECISION,
    peak_top_c   DOUBLE PRECISION
);
CREATE INDEX run_by_job ON run (job_id, started_at);
CREATE TABLE setting (
    name  TEXT NOT NULL PRIMARY KEY,
    value TEXT NOT NULL
);
