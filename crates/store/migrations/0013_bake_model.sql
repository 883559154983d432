-- What bakes taught was told against a bake model that is no longer there: its multipliers mean nothing to the new one. The records stay, and
-- teach again when asked to. Of a formula its time and its browning are learnt, too.
DELETE FROM oven_knowledge;
DROP TABLE spread_knowledge;
CREATE TABLE dough_knowledge (
    formula_id INTEGER PRIMARY KEY,
    spread     REAL    NOT NULL,
    spread_sd  REAL    NOT NULL,
    time       REAL    NOT NULL,
    browning   REAL    NOT NULL,
    time_sd    REAL    NOT NULL,
    records    INTEGER NOT NULL
) STRICT;

-- A dough rests for its flour at least so long; null is as long as its method usually rests.
ALTER TABLE job ADD COLUMN flour_rest_min REAL;
