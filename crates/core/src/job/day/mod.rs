//! When, beside what else, and what really happened.

pub(crate) mod bench;
pub(crate) mod clock_plan;
pub(crate) mod date;
pub(crate) mod forecast_as_it_went;
pub(crate) mod run_plan;
pub(crate) mod together;
