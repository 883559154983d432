-- What a recipe says of its method, chill and bake, as JSON: kept with it, beside our own figures.
ALTER TABLE formula ADD COLUMN says TEXT;
ALTER TABLE formula_version ADD COLUMN says TEXT;

-- A bake teaches as soon as it is recorded, unless it is left out; what it moved is kept with it: six figures, the minutes about, least and most, before and
-- after, as JSON.
ALTER TABLE bake_record ADD COLUMN left_out INTEGER NOT NULL DEFAULT 0;
ALTER TABLE bake_record ADD COLUMN moved TEXT;
-- Which records what is known rests on, newest first, as JSON; others mean that it has to be learnt anew.
ALTER TABLE oven_knowledge ADD COLUMN rests_on TEXT NOT NULL DEFAULT '[]';

-- A piece in the cold teaches as soon as it is taken out, unless it is left out; what it taught is kept, so that it can be taken away again.
ALTER TABLE chill ADD COLUMN left_out INTEGER NOT NULL DEFAULT 0;
ALTER TABLE chill ADD COLUMN taught_of TEXT;
