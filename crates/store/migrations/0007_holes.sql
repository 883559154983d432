-- Holes of a cutter: a list of rings, each a list of [x_mm, y_mm].
ALTER TABLE cutter ADD COLUMN holes_mm TEXT NOT NULL DEFAULT '[]';
