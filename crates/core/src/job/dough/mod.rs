//! What is weighed for it, batch by batch.

pub(crate) mod batches;
