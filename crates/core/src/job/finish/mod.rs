//! What goes onto or between them.

pub(crate) mod finish_plan;
