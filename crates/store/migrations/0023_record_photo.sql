-- The photo that a record was measured by: the paper from straight above, and what was found on it as it was told when it was approved.
-- A fact of the day, as records are: it holds the number of its record without depending on it.
CREATE TABLE record_photo (
    record_id INTEGER PRIMARY KEY,
    jpeg BLOB NOT NULL,
    found TEXT NOT NULL
) STRICT;

-- Records of one dough are looked at over time.
CREATE INDEX bake_record_by_formula ON bake_record (formula_id, recorded_at, id);
