-- What ends a job's bake and what lies under its pieces; the oven's air read on a thermometer at settings: [[set_c, read_c]].
ALTER TABLE job ADD COLUMN bake_end TEXT NOT NULL DEFAULT 'just_golden';
ALTER TABLE job ADD COLUMN liner TEXT NOT NULL DEFAULT 'parchment';
ALTER TABLE kitchen ADD COLUMN oven_readings TEXT NOT NULL DEFAULT '[]';
