-- How many readings a piece had before those were left out that are not needed to draw it again; NULL while it has all of them.
ALTER TABLE chill ADD COLUMN readings_taken INTEGER;
CREATE INDEX chill_with_all ON chill (ended_at) WHERE readings_taken IS NULL AND ended_at IS NOT NULL;
