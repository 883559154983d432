//! What is asked for, of whom, and what it has to do with other jobs.

pub(crate) mod family;
pub(crate) mod new_job;
