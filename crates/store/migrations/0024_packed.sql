-- Readings of a piece that ended long ago, all in one row: [[number, read at, shows in degrees Celsius, spot, simulated], ...] in JSON.
CREATE TABLE packed_readings (
    chill_id INTEGER PRIMARY KEY REFERENCES chill (id) ON DELETE CASCADE,
    readings TEXT NOT NULL
) STRICT;
