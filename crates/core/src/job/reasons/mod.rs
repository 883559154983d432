//! Why a plan is as it is.

pub(crate) mod part_ahead;
pub(crate) mod piece_reason;
pub(crate) mod reason;
