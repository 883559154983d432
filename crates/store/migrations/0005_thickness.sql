-- Thickness read on the job's sheets: a list of [columns, rows, [mm or null, row by row]].
-- How a hand has laid the pieces on a tray: as the layout of the sheet.
ALTER TABLE job ADD COLUMN tray_layout TEXT NOT NULL DEFAULT '[]';
ALTER TABLE job ADD COLUMN thickness_read TEXT NOT NULL DEFAULT '[]';
