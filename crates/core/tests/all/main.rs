//! The rules of the trade as its users meet them, and against the outside world. One program: it builds and links once.

mod as_sent;
mod bake_photos;
mod bakehouse;
mod basic_doughs;
mod cold_record;
mod cold_reference;
mod cold_station;
mod days;
mod dough_rules;
mod hostile_files;
mod lots;
mod mishaps;
mod more_ways;
mod nesting;
mod oven_reference;
mod oven_station;
mod photo_outlines;
mod practice_rows;
mod reading;
mod recipe_lines;
mod recipe_tongues;
mod recipe_words;
mod told_minutes;
mod units_properties;
mod ways_of_working;
mod whole_job;
