-- Pieces that lie in the cold, where they lay, what a thermometer showed of them, and what was learnt. They are facts of the
-- day, not edits: they are kept outside the undo history, and a job that is deleted and brought back finds them again, so they
-- hold no reference to it.

CREATE TABLE chill (
    id          INTEGER PRIMARY KEY,
    job_id      INTEGER NOT NULL,
    name        TEXT    NOT NULL,
    piece       TEXT    NOT NULL, -- JSON: kind and sizes in mm
    purpose     TEXT    NOT NULL, -- rolling, slicing, oven
    start_c     REAL    NOT NULL,
    -- How much faster than ours the piece's clock runs: 1, or more for a piece that only stands in for one.
    clock_speed REAL    NOT NULL CHECK (clock_speed >= 1),
    put_in_at   TEXT    NOT NULL, -- UTC, ISO 8601, to the millisecond, as all times here
    ended_at    TEXT,             -- NULL while it is followed
    taught      INTEGER NOT NULL DEFAULT 0 CHECK (taught IN (0, 1)) -- its readings were accepted for their places
) STRICT;

CREATE INDEX chill_by_job ON chill (job_id, put_in_at);
CREATE INDEX chill_by_end ON chill (ended_at, put_in_at);

CREATE TABLE stay (
    chill_id INTEGER NOT NULL REFERENCES chill (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    place    TEXT    NOT NULL, -- fridge, freezer, bench
    busy     INTEGER NOT NULL CHECK (busy IN (0, 1)), -- crowded or opened often then
    from_at  TEXT    NOT NULL,
    PRIMARY KEY (chill_id, position)
) STRICT;

CREATE TABLE reading (
    id       INTEGER PRIMARY KEY,
    chill_id INTEGER NOT NULL REFERENCES chill (id) ON DELETE CASCADE,
    read_at  TEXT    NOT NULL,
    shows_c  REAL    NOT NULL,
    spot     TEXT    NOT NULL
) STRICT;

CREATE INDEX reading_by_chill ON reading (chill_id, read_at);

-- The stand-in for a thermometer that is left in a piece; it goes on after a restart.
CREATE TABLE probe (
    chill_id    INTEGER PRIMARY KEY REFERENCES chill (id) ON DELETE CASCADE,
    seed        INTEGER NOT NULL,
    noise_k     REAL    NOT NULL,
    drop_out    REAL    NOT NULL,
    film_factor REAL    NOT NULL,
    air_off_k   REAL    NOT NULL,
    every_s     REAL    NOT NULL
) STRICT;

-- What accepted readings have taught of a place, in its usual use and when it is crowded or often opened.
CREATE TABLE place_knowledge (
    place       TEXT    NOT NULL,
    busy        INTEGER NOT NULL CHECK (busy IN (0, 1)),
    ln_film     REAL    NOT NULL,
    ln_film_sd  REAL    NOT NULL,
    air_k       REAL    NOT NULL,
    air_sd_k    REAL    NOT NULL,
    correlation REAL    NOT NULL,
    air_taught  INTEGER NOT NULL CHECK (air_taught IN (0, 1)),
    pieces      INTEGER NOT NULL,
    taught_at   TEXT    NOT NULL,
    PRIMARY KEY (place, busy)
) STRICT;

-- How each place is used at present.
CREATE TABLE place_use (
    place TEXT PRIMARY KEY,
    busy  INTEGER NOT NULL CHECK (busy IN (0, 1))
) STRICT;

-- What hands found of a formula's dough.
CREATE TABLE touch (
    id         INTEGER PRIMARY KEY,
    formula_id INTEGER NOT NULL,
    job_id     INTEGER NOT NULL,
    noted_at   TEXT    NOT NULL,
    purpose    TEXT    NOT NULL, -- rolling, slicing
    touch      TEXT    NOT NULL, -- cracked, right, stuck, squashed
    dough_c    REAL    NOT NULL
) STRICT;

CREATE INDEX touch_by_formula ON touch (formula_id, noted_at);
