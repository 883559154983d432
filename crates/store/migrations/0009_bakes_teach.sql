-- What accepted bakes have taught, of the oven and of a formula: outside the history of edits, with a way back of its own.
CREATE TABLE bake_knowledge (
    formula_id INTEGER PRIMARY KEY REFERENCES formula (id) ON DELETE CASCADE,
    offset_k REAL NOT NULL,
    offset_sd_k REAL NOT NULL,
    spread REAL NOT NULL,
    spread_sd REAL NOT NULL,
    records INTEGER NOT NULL,
    taught_at TEXT NOT NULL
) STRICT;
