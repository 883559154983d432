-- Order and Dough: a pantry of one's own, versions of formulas, what was corrected at the bowl, and how a dough is weighed.

ALTER TABLE kitchen ADD COLUMN bowl_ml REAL;                               -- NULL while unknown: then only the motor limits a mix
ALTER TABLE kitchen ADD COLUMN scale_step_g REAL NOT NULL DEFAULT 1;
ALTER TABLE kitchen ADD COLUMN fine_step_g REAL NOT NULL DEFAULT 0.1;
ALTER TABLE kitchen ADD COLUMN egg_class TEXT NOT NULL DEFAULT 'us_large';
ALTER TABLE kitchen ADD COLUMN currency TEXT NOT NULL DEFAULT '€';

ALTER TABLE formula_line ADD COLUMN note TEXT NOT NULL DEFAULT '';

ALTER TABLE job ADD COLUMN freeze_pieces INTEGER NOT NULL DEFAULT 0;
ALTER TABLE job ADD COLUMN hold_back_percent REAL NOT NULL DEFAULT 0;
ALTER TABLE job ADD COLUMN whole_eggs INTEGER NOT NULL DEFAULT 0 CHECK (whole_eggs IN (0, 1));
ALTER TABLE job ADD COLUMN tints TEXT NOT NULL DEFAULT '[]';               -- JSON array of [name, percent]
-- The version a job was baked with; NULL while it follows the newest.
ALTER TABLE job ADD COLUMN formula_version INTEGER;
-- The job whose mixes also hold this one's dough.
ALTER TABLE job ADD COLUMN dough_with INTEGER REFERENCES job (id) ON DELETE SET NULL;

ALTER TABLE bake_record ADD COLUMN formula_version INTEGER;

-- A bakery's own ingredients, and prices of any.
CREATE TABLE pantry (
    id           INTEGER PRIMARY KEY,
    key          TEXT NOT NULL UNIQUE,
    entry        TEXT,                 -- JSON of an own ingredient; NULL where only the price is the bakery's
    price_per_kg REAL
) STRICT;

-- Each saved edit of a formula. Lines are JSON: a version is only ever read whole and never changed.
CREATE TABLE formula_version (
    id         INTEGER PRIMARY KEY,
    formula_id INTEGER NOT NULL REFERENCES formula (id) ON DELETE CASCADE,
    number     INTEGER NOT NULL,
    saved_at   TEXT    NOT NULL,       -- UTC, ISO 8601
    name       TEXT    NOT NULL,
    lines      TEXT    NOT NULL,
    UNIQUE (formula_id, number)
) STRICT;

INSERT INTO formula_version (formula_id, number, saved_at, name, lines)
SELECT f.id, 1, strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), f.name,
       (SELECT json_group_array(json_object('ingredient', l.ingredient, 'grams', l.grams, 'note', ''))
          FROM (SELECT * FROM formula_line WHERE formula_id = f.id ORDER BY position) AS l)
  FROM formula AS f;

-- What a mix asked for at the bowl and was given.
CREATE TABLE mix_note (
    id              INTEGER PRIMARY KEY,
    job_id          INTEGER NOT NULL REFERENCES job (id) ON DELETE CASCADE,
    formula_id      INTEGER NOT NULL REFERENCES formula (id) ON DELETE CASCADE,
    formula_version INTEGER NOT NULL,
    noted_at        TEXT    NOT NULL,  -- local time, ISO 8601
    mix             INTEGER NOT NULL,  -- which mix of the job, from 1
    feel            TEXT    NOT NULL,
    squeeze         TEXT    NOT NULL,
    ingredient      TEXT,              -- what was added; NULL when nothing was
    grams           REAL    NOT NULL,
    left_over_g     REAL    NOT NULL,  -- of the flour kept aside
    flour_g         REAL    NOT NULL,  -- of the mix by formula
    dough_c         REAL
) STRICT;

CREATE INDEX mix_note_by_formula ON mix_note (formula_id, noted_at);
