-- Days as they are worked: the plan as it stood, and what happened. They are facts, not edits: kept outside the undo history, and they hold no reference
-- to their jobs, which may be changed or deleted meanwhile.
CREATE TABLE run (
    id        INTEGER PRIMARY KEY,
    name      TEXT NOT NULL,
    day       TEXT NOT NULL, -- the date it is wanted on, by the kitchen's clocks
    zero_at   TEXT NOT NULL, -- minute 0 of the plan, UTC, ISO 8601, to the millisecond, as all times here
    began_at  TEXT NOT NULL,
    began_min REAL NOT NULL, -- the minute of the run it began at
    speed     REAL NOT NULL CHECK (speed >= 1), -- 1, or more for a rehearsal
    plan      TEXT NOT NULL, -- JSON
    ended_at  TEXT
) STRICT;

-- Nothing of it is changed or removed: a mistake is taken back by another event.
CREATE TABLE run_event (
    id       INTEGER PRIMARY KEY,
    run_id   INTEGER NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    press    TEXT NOT NULL, -- whoever sends the same press again sends nothing
    at_min   REAL NOT NULL, -- minutes of the run
    noted_at TEXT NOT NULL,
    what     TEXT NOT NULL, -- JSON
    UNIQUE (run_id, press)
) STRICT;

CREATE INDEX run_event_by_run ON run_event (run_id, id);
