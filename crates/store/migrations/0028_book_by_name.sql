-- The whole book is looked through by name without reading its rows: what is asked of a record stands in one index.
CREATE INDEX bake_record_in_book ON bake_record (recorded_at, id, job_id, formula_id, edge_colour, spread_against, notes, struck_at) WHERE struck_at IS NULL;
