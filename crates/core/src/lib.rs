//! The rules of the trade.
pub mod cold;
pub mod dough;
pub mod error;
pub mod geometry;
pub mod units;
