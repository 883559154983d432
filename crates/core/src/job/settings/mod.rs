//! What is decided of a job and of its kitchen: each setting once, by the station that it belongs to.

#[macro_use]
pub(crate) mod document;
pub(crate) mod chill_choice;
pub(crate) mod cold;
pub(crate) mod dough;
pub(crate) mod finish;
pub(crate) mod job;
pub(crate) mod kept_sheet;
pub(crate) mod kitchen;
pub(crate) mod making;
pub(crate) mod order;
pub(crate) mod oven;
pub(crate) mod ready_means;
pub(crate) mod shape;
