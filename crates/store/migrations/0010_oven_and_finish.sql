-- The oven as a thing: its door, its hot places, a pot in its stead, its altitude; what goes onto a job's pieces, and how cold they go in.
ALTER TABLE kitchen ADD COLUMN door_dip_k REAL NOT NULL DEFAULT 15.0;
ALTER TABLE kitchen ADD COLUMN recovery_min REAL NOT NULL DEFAULT 1.5;
ALTER TABLE kitchen ADD COLUMN hot_spots TEXT NOT NULL DEFAULT 'null';
ALTER TABLE kitchen ADD COLUMN cover_pot INTEGER NOT NULL DEFAULT 0;
ALTER TABLE kitchen ADD COLUMN altitude_m REAL NOT NULL DEFAULT 0.0;
ALTER TABLE job ADD COLUMN finishes TEXT NOT NULL DEFAULT '[]';
ALTER TABLE job ADD COLUMN goes_in_c REAL;

-- What bakes taught of the oven is one for all formulas, over what its thermometer showed then: another reading ends it.
CREATE TABLE oven_knowledge (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    offset_k REAL NOT NULL,
    offset_sd_k REAL NOT NULL,
    records INTEGER NOT NULL,
    measured TEXT NOT NULL,
    taught_at TEXT NOT NULL
) STRICT;
CREATE TABLE spread_knowledge (
    formula_id INTEGER PRIMARY KEY REFERENCES formula (id) ON DELETE CASCADE,
    spread REAL NOT NULL,
    spread_sd REAL NOT NULL,
    records INTEGER NOT NULL
) STRICT;
INSERT INTO spread_knowledge (formula_id, spread, spread_sd, records)
    SELECT formula_id, spread, spread_sd, records FROM bake_knowledge;
-- An offset kept beside a formula held the thermometer's own: it goes over only where none was read.
INSERT INTO oven_knowledge (id, offset_k, offset_sd_k, records, measured, taught_at)
    SELECT 1, offset_k, offset_sd_k, records, '[]', taught_at FROM bake_knowledge
    WHERE (SELECT oven_readings FROM kitchen WHERE id = 1) = '[]'
    ORDER BY records DESC LIMIT 1;
DROP TABLE bake_knowledge;
