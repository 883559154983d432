//! How a piece of dough cools and warms: when it is ready, how long it stays ready, what to do if it is past it.

mod fit;
mod grid;
mod journey;
mod piece;
mod report;
mod solver;
mod thermal;
mod wanted;
mod window;

pub use fit::{Fit, PlaceKnowledge, RANGE_SDS, Reading, Spot, fit};
pub use journey::{Journey, OUT_OF_THE_COLD, Stay, journey};
pub use piece::{Piece, Support, TrayKind, Wrap};
pub use report::{Bench, ChillAnswer, ChillQuestion, Place, Target, chill, chill_briefly, tempering_minutes};
pub use solver::{Body, Sample};
pub use thermal::{Thermal, WaterState};
pub use wanted::{InTime, disc_in_time, disc_of, in_time};
pub use window::{DoughState, Window};
