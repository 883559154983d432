-- What is looked for among thousands.
CREATE INDEX job_by_time ON job (ready_by, id);
CREATE INDEX job_by_lead ON job (lot_of) WHERE lot_of IS NOT NULL;
CREATE INDEX job_by_dough ON job (dough_with) WHERE dough_with IS NOT NULL;
CREATE INDEX job_by_formula ON job (formula_id);
CREATE INDEX job_by_cutter ON job (cutter_id);
CREATE INDEX bake_record_by_time ON bake_record (recorded_at, id);
CREATE INDEX run_by_end ON run (ended_at);
