-- Numbers are never given out twice, edits know what they were made from, and what happened in a day outlives what it refers to.

-- The last number given out for each kind of thing; only ever counted up, also when the thing is undone or deleted.
CREATE TABLE counter (
    thing TEXT PRIMARY KEY,
    last  INTEGER NOT NULL
) STRICT;
INSERT INTO counter (thing, last)
    SELECT 'formula', MAX((SELECT COALESCE(MAX(id), 0) FROM formula), (SELECT COALESCE(MAX(formula_id), 0) FROM touch),
                          (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'formula'));
INSERT INTO counter (thing, last)
    SELECT 'cutter', MAX((SELECT COALESCE(MAX(id), 0) FROM cutter), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'cutter'));
INSERT INTO counter (thing, last)
    SELECT 'job', MAX((SELECT COALESCE(MAX(id), 0) FROM job), (SELECT COALESCE(MAX(job_id), 0) FROM chill),
                      (SELECT COALESCE(MAX(job_id), 0) FROM touch), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'job'));
INSERT INTO counter (thing, last)
    SELECT 'bake record', MAX((SELECT COALESCE(MAX(id), 0) FROM bake_record), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'bake record'));
INSERT INTO counter (thing, last)
    SELECT 'formula version', MAX((SELECT COALESCE(MAX(id), 0) FROM formula_version), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'formula version'));
INSERT INTO counter (thing, last)
    SELECT 'pantry entry', MAX((SELECT COALESCE(MAX(id), 0) FROM pantry), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'pantry entry'));
INSERT INTO counter (thing, last)
    SELECT 'mix note', MAX((SELECT COALESCE(MAX(id), 0) FROM mix_note), (SELECT COALESCE(MAX(thing_id), 0) FROM edit_change WHERE thing = 'mix note'));
INSERT INTO counter (thing, last) SELECT 'piece in the cold', COALESCE(MAX(id), 0) FROM chill;
INSERT INTO counter (thing, last) SELECT 'reading', COALESCE(MAX(id), 0) FROM reading;
INSERT INTO counter (thing, last) SELECT 'edit', COALESCE(MAX(id), 0) FROM edit;
INSERT INTO counter (thing, last) SELECT 'touch', COALESCE(MAX(id), 0) FROM touch;
-- A version's number within its formula is a number too: records and notes name it.
INSERT INTO counter (thing, last)
    SELECT 'version of formula ' || f.id, MAX((SELECT COALESCE(MAX(number), 0) FROM formula_version WHERE formula_id = f.id),
                                              (SELECT COALESCE(MAX(formula_version), 0) FROM mix_note WHERE formula_id = f.id))
      FROM formula AS f;

-- What a thing looked like at its latest revisions, so that two who edit it at once can be told apart field by field. A thing
-- that has no row here is at revision 0. A row without JSON is a thing that was not there.
CREATE TABLE revision (
    thing    TEXT    NOT NULL,
    thing_id INTEGER NOT NULL,
    number   INTEGER NOT NULL,
    at       TEXT    NOT NULL, -- UTC, ISO 8601
    row      TEXT,
    PRIMARY KEY (thing, thing_id, number)
) STRICT;

-- Bakes are facts of the day: they stand outside the undo history, hold what they were baked with, and outlive their job. One
-- that was struck out stays, so that it can be put back.
CREATE TABLE bake_record_new (
    id               INTEGER PRIMARY KEY,
    job_id           INTEGER NOT NULL,
    recorded_at      TEXT    NOT NULL, -- local time of the kitchen, ISO 8601
    cut_width_mm     REAL    NOT NULL,
    cut_thickness_mm REAL    NOT NULL,
    widths_mm        TEXT    NOT NULL,
    thicknesses_mm   TEXT    NOT NULL,
    baked_min        REAL,
    edge_colour      TEXT    NOT NULL,
    notes            TEXT    NOT NULL,
    expected_bake_least_min      REAL NOT NULL,
    expected_bake_most_min       REAL NOT NULL,
    expected_spread_least_share  REAL NOT NULL,
    expected_spread_most_share   REAL NOT NULL,
    formula_id       INTEGER,
    formula_version  INTEGER,
    as_baked         TEXT,             -- JSON of job, formula, piece, kitchen and start; NULL of records made before it was kept
    struck_at        TEXT              -- UTC; NULL while it counts
) STRICT;
INSERT INTO bake_record_new
    SELECT r.id, r.job_id, r.recorded_at, r.cut_width_mm, r.cut_thickness_mm, r.widths_mm, r.thicknesses_mm, r.baked_min, r.edge_colour,
           r.notes, r.expected_bake_least_min, r.expected_bake_most_min, r.expected_spread_least_share, r.expected_spread_most_share,
           (SELECT formula_id FROM job WHERE job.id = r.job_id), r.formula_version, NULL, NULL
      FROM bake_record AS r;
-- Bakes that went with a deleted job are still in its edit.
INSERT OR IGNORE INTO bake_record_new
    SELECT c.thing_id, json_extract(c.before, '$.Record.job_id'), json_extract(c.before, '$.Record.recorded_at'),
           json_extract(c.before, '$.Record.cut_width_mm'), json_extract(c.before, '$.Record.cut_thickness_mm'),
           json_extract(c.before, '$.Record.widths_mm'), json_extract(c.before, '$.Record.thicknesses_mm'),
           json_extract(c.before, '$.Record.baked_min'), json_extract(c.before, '$.Record.edge_colour'),
           json_extract(c.before, '$.Record.notes'), json_extract(c.before, '$.Record.expected_bake_least_min'),
           json_extract(c.before, '$.Record.expected_bake_most_min'), json_extract(c.before, '$.Record.expected_spread_least_share'),
           json_extract(c.before, '$.Record.expected_spread_most_share'), NULL, json_extract(c.before, '$.Record.formula_version'), NULL, NULL
      FROM edit_change AS c JOIN edit AS e ON e.id = c.edit_id
     WHERE c.thing = 'bake record' AND c.after IS NULL AND e.undone = 0
       AND EXISTS (SELECT 1 FROM edit_change AS j WHERE j.edit_id = c.edit_id AND j.thing = 'job' AND j.after IS NULL);
DROP TABLE bake_record;
ALTER TABLE bake_record_new RENAME TO bake_record;
CREATE INDEX bake_record_by_job ON bake_record (job_id, recorded_at);

CREATE TABLE mix_note_new (
    id              INTEGER PRIMARY KEY,
    job_id          INTEGER NOT NULL,
    formula_id      INTEGER NOT NULL,
    formula_version INTEGER NOT NULL,
    noted_at        TEXT    NOT NULL,
    mix             INTEGER NOT NULL,
    feel            TEXT    NOT NULL,
    squeeze         TEXT    NOT NULL,
    ingredient      TEXT,
    grams           REAL    NOT NULL,
    left_over_g     REAL    NOT NULL,
    flour_g         REAL    NOT NULL,
    dough_c         REAL,
    struck_at       TEXT
) STRICT;
INSERT INTO mix_note_new
    SELECT id, job_id, formula_id, formula_version, noted_at, mix, feel, squeeze, ingredient, grams, left_over_g, flour_g, dough_c, NULL
      FROM mix_note;
INSERT OR IGNORE INTO mix_note_new
    SELECT c.thing_id, json_extract(c.before, '$.MixNote.job_id'), json_extract(c.before, '$.MixNote.formula_id'),
           json_extract(c.before, '$.MixNote.formula_version'), json_extract(c.before, '$.MixNote.noted_at'),
           json_extract(c.before, '$.MixNote.mix'), json_extract(c.before, '$.MixNote.feel'), json_extract(c.before, '$.MixNote.squeeze'),
           json_extract(c.before, '$.MixNote.ingredient'), json_extract(c.before, '$.MixNote.grams'),
           json_extract(c.before, '$.MixNote.left_over_g'), json_extract(c.before, '$.MixNote.flour_g'),
           json_extract(c.before, '$.MixNote.dough_c'), NULL
      FROM edit_change AS c JOIN edit AS e ON e.id = c.edit_id
     WHERE c.thing = 'mix note' AND c.after IS NULL AND e.undone = 0
       AND EXISTS (SELECT 1 FROM edit_change AS j WHERE j.edit_id = c.edit_id AND j.thing = 'job' AND j.after IS NULL);
DROP TABLE mix_note;
ALTER TABLE mix_note_new RENAME TO mix_note;
CREATE INDEX mix_note_by_formula ON mix_note (formula_id, noted_at);
CREATE INDEX mix_note_by_job ON mix_note (job_id, noted_at);

-- Undo has nothing to do with them any longer.
DELETE FROM edit_change WHERE thing IN ('bake record', 'mix note');
DELETE FROM edit WHERE NOT EXISTS (SELECT 1 FROM edit_change WHERE edit_id = edit.id);

-- What bakes taught of a formula's spread waits for the formula to come back.
CREATE TABLE spread_knowledge_new (
    formula_id INTEGER PRIMARY KEY,
    spread     REAL    NOT NULL,
    spread_sd  REAL    NOT NULL,
    records    INTEGER NOT NULL
) STRICT;
INSERT INTO spread_knowledge_new SELECT formula_id, spread, spread_sd, records FROM spread_knowledge;
DROP TABLE spread_knowledge;
ALTER TABLE spread_knowledge_new RENAME TO spread_knowledge;

-- A reading of a stand-in must not be taken for one of the real fridge, unless the whole bakery is made up.
ALTER TABLE reading ADD COLUMN simulated INTEGER NOT NULL DEFAULT 0 CHECK (simulated IN (0, 1));
UPDATE reading SET simulated = 1 WHERE chill_id IN (SELECT chill_id FROM probe UNION SELECT id FROM chill WHERE clock_speed > 1);
CREATE TABLE bakery (
    id      INTEGER PRIMARY KEY CHECK (id = 1),
    made_up INTEGER NOT NULL CHECK (made_up IN (0, 1)) -- it was filled with the demo
) STRICT;
INSERT INTO bakery (id, made_up) VALUES (1, 0);

-- The kitchen's time zone by its IANA name; empty until the program that opens the file says where it runs.
ALTER TABLE kitchen ADD COLUMN zone TEXT NOT NULL DEFAULT '';
