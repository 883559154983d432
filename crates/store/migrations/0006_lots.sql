-- A job may consist of several lots: the others name the job they belong to. How a lot's pieces are made: a word and its
-- sizes, [word, [numbers]]. Sheets cut together for several lots, kept by the job: a list of [length_mm, [[job, x_mm, y_mm,
-- turn_deg]]]. The form of the sheets and how large they may be.
ALTER TABLE job ADD COLUMN lot_of INTEGER REFERENCES job (id) ON DELETE SET NULL;
ALTER TABLE job ADD COLUMN making TEXT NOT NULL DEFAULT '["cut",[]]';
ALTER TABLE job ADD COLUMN mixed_sheets TEXT NOT NULL DEFAULT '[]';
ALTER TABLE job ADD COLUMN sheet_form TEXT NOT NULL DEFAULT 'oblong';
ALTER TABLE job ADD COLUMN sheet_width_mm REAL;
ALTER TABLE job ADD COLUMN sheet_length_mm REAL;
