-- Two decisions, free of each other: how the dough chills, and how the shaped pieces do.
ALTER TABLE job ADD COLUMN dough_form TEXT NOT NULL DEFAULT 'disc';
UPDATE job SET dough_form = CASE chill_as_disc WHEN 0 THEN 'sheets' ELSE 'disc' END;
ALTER TABLE job DROP COLUMN chill_as_disc;
ALTER TABLE job ADD COLUMN sheet_stack INTEGER NOT NULL DEFAULT 1;
ALTER TABLE job ADD COLUMN dough_for TEXT;
ALTER TABLE job ADD COLUMN dough_for_min REAL NOT NULL DEFAULT 60;
ALTER TABLE job ADD COLUMN pieces_for TEXT;
ALTER TABLE job ADD COLUMN pieces_for_min REAL NOT NULL DEFAULT 15;
-- Portions were the only pieces that chilled where the dough does.
UPDATE job SET tray_chill_place = chill_place WHERE making NOT LIKE '%"cut"%' AND making NOT LIKE '%log"%';
