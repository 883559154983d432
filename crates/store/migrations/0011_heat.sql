-- Beside a thermometer bakes also teach how strongly the oven heats; no row is one without.
ALTER TABLE oven_knowledge ADD COLUMN heat REAL;
ALTER TABLE oven_knowledge ADD COLUMN heat_sd REAL;
ALTER TABLE oven_knowledge ADD COLUMN heat_with_offset REAL;
