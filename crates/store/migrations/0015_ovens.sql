-- A small oven on the worktop bakes less evenly than the forecast takes one to.
ALTER TABLE kitchen ADD COLUMN small_oven INTEGER NOT NULL DEFAULT 0;
