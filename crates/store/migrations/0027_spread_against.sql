-- How the spread of a bake was against what was expected then, as the core tells it when a bake is kept; those from before as it told them.
ALTER TABLE bake_record ADD COLUMN spread_against TEXT NOT NULL DEFAULT 'within' CHECK (spread_against IN ('less', 'within', 'more'));
UPDATE bake_record SET spread_against = CASE
    WHEN (SELECT AVG(value) FROM json_each(widths_mm)) / cut_width_mm - 1.0 < expected_spread_least_share THEN 'less'
    WHEN (SELECT AVG(value) FROM json_each(widths_mm)) / cut_width_mm - 1.0 > expected_spread_most_share THEN 'more'
    ELSE 'within' END;
