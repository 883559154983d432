//! How a piece of dough cools and warms: when it is ready, how long it stays ready, what to do if it is past it.

mod firmness;
mod fit;
mod grid;
mod live;
pub(crate) mod never;
mod piece;
mod probe;
mod report;
mod section;
mod solver;
mod thermal;
mod thin;
mod touch;
mod wanted;
mod window;

pub use fit::{Fit, LONGEST_READ, MOST_READINGS, PlaceKnowledge, Reading, Spot, fit};
pub use live::{Live, LiveStay, MOST_STAYS, Tracked};
pub use never::{ColdPlace, Lies, Never};
pub use piece::{Piece, Support, TrayKind, Wrap};
pub use probe::{ProbeInput, ProbeKind};
pub(crate) use report::{BENCH_FILM, left_for, left_through};
pub use report::{
    Bench, ChillAnswer, ChillQuestion, Place, PlaceDoubt, RANGE_SDS, ToldMinutes, chill, chill_briefly, drawn_to,
    tempering_to,
};
pub use section::{Frame, Section, SectionKind, section};
pub use solver::{Body, Sample};
pub use thermal::{Thermal, WaterState};
pub use thin::enough_to_draw;
pub use touch::{Finding, LimitsLearnt, MovedLimit, Touch, learn_limits};
pub use wanted::{InTime, disc_in_time, disc_of, in_time};
pub use window::{DoughState, Feeling, Side, Target, Window, Working};
