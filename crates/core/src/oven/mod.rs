//! Bake time, spread and colour: the bake model, and the ranges of common practice beside it.

mod bake;
mod colour;
mod hot_spots;
mod practice;
mod thermometer;

pub use bake::{
    BakeBalance, BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeSample, BakeSeen, BakeWarning,
    BakesFitted, DoneBy, HeatKnowledge, LEAST_RADIUS_MM, MOST_FITTED, OvenDough, OvenDoughParts, OvenKnowledge,
    OvenSetup, Profile, SpreadKnowledge, TIME_PER_K, TrayLiner, TrayMaterial, air_of, check_bake, colour_word,
    cools_after, forecast, forecast_at, learn_bakes, simulate,
};
pub use colour::{SEEN_BY_ALL, look_apart, screen_colour};
pub use hot_spots::{HotSpots, MOST_SPOTS_A_SIDE, SpotTest};
pub use practice::{BakeSetting, EdgeColour, Expected, bake_practice};
pub use thermometer::{MOST_OVEN_READINGS, OvenReading, OvenStandIn, OvenTest, judge_oven};
