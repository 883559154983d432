-- How a cutter may be turned on the sheet, and the layout kept from nesting: a list of [x mm, y mm, turn in degrees].
ALTER TABLE job ADD COLUMN turning TEXT NOT NULL DEFAULT 'free' CHECK (turning IN ('free', 'half_turn', 'fixed'));
ALTER TABLE job ADD COLUMN layout TEXT NOT NULL DEFAULT '[]';
