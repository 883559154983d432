-- What 'ready by' means: out of the oven, cool, finished and dry, or packed; until somebody says so it follows from the finishes.
ALTER TABLE job ADD COLUMN ready_means TEXT;
