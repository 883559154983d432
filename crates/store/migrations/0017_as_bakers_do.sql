-- The dough of logs may chill as a lump first; dough may come from the freezer; sheets may be cut on their tray's paper; pieces may be pricked.
ALTER TABLE job ADD COLUMN bulk_for TEXT NOT NULL DEFAULT 'no';
ALTER TABLE job ADD COLUMN bulk_for_min REAL NOT NULL DEFAULT 60;
ALTER TABLE job ADD COLUMN thaws TEXT;
ALTER TABLE job ADD COLUMN cut_in_place INTEGER NOT NULL DEFAULT 0;
ALTER TABLE job ADD COLUMN pricked INTEGER NOT NULL DEFAULT 0;
