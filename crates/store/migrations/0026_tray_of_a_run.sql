-- The run that a bake was a tray of, and which, from 1; it holds the number without depending on the run.
ALTER TABLE bake_record ADD COLUMN run_id INTEGER;
ALTER TABLE bake_record ADD COLUMN tray INTEGER;
