//! How a piece of dough cools and warms: when it is ready, how long it stays ready, what to do if it is past it.

mod grid;
mod piece;
mod report;
mod solver;
mod thermal;
mod window;

pub use piece::{Piece, Support, TrayKind, Wrap};
pub use report::{Bench, ChillAnswer, ChillQuestion, Place, Target, chill, chill_briefly, tempering_minutes};
pub use solver::{Body, Sample};
pub use thermal::{Thermal, WaterState};
pub use window::{DoughState, Window};
