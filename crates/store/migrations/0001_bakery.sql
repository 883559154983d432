-- The bakery as it stands. Units are in the column names. Every table is STRICT, so that no text hides in a number.

CREATE TABLE kitchen (
    -- One kitchen; the check keeps it one.
    id              INTEGER PRIMARY KEY CHECK (id = 1),
    name            TEXT    NOT NULL,
    room_c          REAL    NOT NULL,
    fridge_c        REAL    NOT NULL,
    fridge_fan      INTEGER NOT NULL CHECK (fridge_fan IN (0, 1)),
    freezer_c       REAL    NOT NULL,
    tray_width_mm   REAL    NOT NULL,
    tray_length_mm  REAL    NOT NULL,
    tray_kind       TEXT    NOT NULL,
    trays_owned     INTEGER NOT NULL,
    least_gap_mm    REAL    NOT NULL,
    mixer_limit_g   REAL    NOT NULL,
    rods_mm         TEXT    NOT NULL, -- JSON array: rods are only ever read and written together
    ovens           INTEGER NOT NULL,
    racks_per_oven  INTEGER NOT NULL,
    oven_fan        INTEGER NOT NULL CHECK (oven_fan IN (0, 1)),
    preheat_min     REAL    NOT NULL,
    roll_min        REAL    NOT NULL,
    cut_s           REAL    NOT NULL
) STRICT;

CREATE TABLE formula (
    id   INTEGER PRIMARY KEY,
    name TEXT NOT NULL
) STRICT;

CREATE TABLE formula_line (
    formula_id INTEGER NOT NULL REFERENCES formula (id) ON DELETE CASCADE,
    position   INTEGER NOT NULL,
    ingredient TEXT    NOT NULL,
    grams      REAL    NOT NULL,
    PRIMARY KEY (formula_id, position)
) STRICT;

CREATE TABLE cutter (
    id        INTEGER PRIMARY KEY,
    name      TEXT NOT NULL,
    origin    TEXT NOT NULL,
    points_mm TEXT NOT NULL, -- JSON array of [x, y]: an outline is only ever read whole
    neck_mm   REAL           -- narrowest neck, worked out once when the cutter is added; NULL when it has none
) STRICT;

CREATE TABLE job (
    id               INTEGER PRIMARY KEY,
    name             TEXT    NOT NULL,
    -- A formula or cutter that a job uses cannot be deleted: the job would lose its meaning.
    formula_id       INTEGER NOT NULL REFERENCES formula (id) ON DELETE RESTRICT,
    cutter_id        INTEGER NOT NULL REFERENCES cutter (id) ON DELETE RESTRICT,
    pieces           INTEGER NOT NULL,
    thickness_mm     REAL    NOT NULL,
    ready_by         TEXT    NOT NULL, -- local time, ISO 8601, to the minute
    method           TEXT    NOT NULL,
    dough_c          REAL,             -- as measured; NULL when computed
    chill_as_disc    INTEGER NOT NULL CHECK (chill_as_disc IN (0, 1)),
    disc_mm          REAL    NOT NULL,
    chill_place      TEXT    NOT NULL,
    tray_chill_place TEXT    NOT NULL,
    web_mm           REAL    NOT NULL,
    edge_mm          REAL    NOT NULL,
    surface          TEXT    NOT NULL,
    rerolls          INTEGER NOT NULL,
    reserve_percent  REAL    NOT NULL,
    oven_c           REAL    NOT NULL
) STRICT;

CREATE TABLE bake_record (
    id               INTEGER PRIMARY KEY,
    job_id           INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    recorded_at      TEXT    NOT NULL,
    cut_width_mm     REAL    NOT NULL,
    cut_thickness_mm REAL    NOT NULL,
    widths_mm        TEXT    NOT NULL,
    thicknesses_mm   TEXT    NOT NULL,
    baked_min        REAL,
    edge_colour      TEXT    NOT NULL,
    notes            TEXT    NOT NULL,
    -- What was expected when it was recorded: kept, since formula and kitchen change later.
    expected_bake_least_min      REAL NOT NULL,
    expected_bake_most_min       REAL NOT NULL,
    expected_spread_least_share  REAL NOT NULL,
    expected_spread_most_share   REAL NOT NULL
) STRICT;

CREATE INDEX bake_record_by_job ON bake_record (job_id, recorded_at);

-- Every edit with what stood before and after, so that each can be undone and done again, also after a restart.
CREATE TABLE edit (
    id     INTEGER PRIMARY KEY,
    at     TEXT    NOT NULL,
    label  TEXT    NOT NULL,
    undone INTEGER NOT NULL DEFAULT 0 CHECK (undone IN (0, 1))
) STRICT;

CREATE TABLE edit_change (
    edit_id   INTEGER NOT NULL REFERENCES edit (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    thing     TEXT    NOT NULL,
    thing_id  INTEGER NOT NULL,
    before    TEXT,
    after     TEXT,
    PRIMARY KEY (edit_id, position)
) STRICT;
