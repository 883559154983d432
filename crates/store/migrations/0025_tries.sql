-- What is tried on purpose: a trial of ways, or the test of a cause; planned, then read out. Facts of the day, as records are: they hold the number of their
-- job and of its formula without depending on them.
CREATE TABLE try (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL,
    formula_id INTEGER NOT NULL,
    planned_at TEXT NOT NULL,
    -- As JSON: what is tried, and what was noted of it.
    trying     TEXT NOT NULL,
    noted      TEXT,
    noted_at   TEXT
) STRICT;
CREATE INDEX try_by_formula ON try (formula_id, id);
