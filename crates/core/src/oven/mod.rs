//! Bake time, spread and colour: the bake model, and the ranges of common practice beside it.

mod bake;
mod practice;

pub use bake::{
    BakeBalance, BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeSample, BakeSeen, BakeWarning,
    BakesFitted, DoneBy, OvenDough, OvenDoughParts, OvenSetup, Profile, TrayLiner, TrayMaterial, air_of, check_bake,
    colour_word, cools_after, forecast, forecast_at, learn_bakes, simulate,
};
pub use practice::{BakeSetting, EdgeColour, Expected, bake_practice};
