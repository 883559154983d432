//! How it is chilled, and what to do if that goes wrong.

pub(crate) mod advice;
pub(crate) mod chill_question;
pub(crate) mod chill_result;
pub(crate) mod cold_plan;
pub(crate) mod follow;
pub(crate) mod other_ways_to_chill;
pub(crate) mod portion_chill;
pub(crate) mod ready_at_a_time;
