-- What is decided of a job and of the kitchen is one document, the core's own JSON; the columns beside it are looked up by.
-- Documents are written from the columns between this step and the next (crates/store/src/older.rs).
ALTER TABLE job ADD COLUMN document TEXT NOT NULL DEFAULT '';
ALTER TABLE kitchen ADD COLUMN document TEXT NOT NULL DEFAULT '';
