//! Bake time, spread and colour: the bake model, and the ranges of common practice beside it.

mod alone;
mod bake;
mod colour;
mod edge;
mod hot_spots;
mod lesson;
mod practice;
mod range;
mod reason;
mod standard;
mod thermometer;

pub use alone::{BakeAlone, BakeAloneAnswer, BakeUntil};
pub use bake::{
    ACROSS_MM, BAKES_THIN, BakeBalance, BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeSample, BakeSeen,
    BakeWarning, BakesFitted, COVER, DoneBy, DoughKnowledge, HeatKnowledge, LEAST_RADIUS_MM, LookFor, MOST_FITTED,
    OVEN_C, OvenDough, OvenDoughParts, OvenKnowledge, OvenSetup, Profile, RangesHeld, SETTING_C, START_C, Shade,
    THICKNESS_MM, TIME_PER_K, TRAY_C, TrayCover, TrayLiner, TrayMaterial, browns_faster, check_bake, cools_after,
    forecast, forecast_at, learn_bakes, rim_index, shade_of, simulate, spread_until_set,
};
pub(crate) use bake::{NINE_OF_TEN, SPREAD_NOISE, TIME_NOISE, WIDTH_NOISE};
pub use colour::{SEEN_BY_ALL, index_of_look, look_apart, look_lab, screen_colour};
pub use edge::EdgeColour;
pub use hot_spots::{HotSpots, HotSpotsInput, MOST_SPOTS_A_SIDE, SpotTest};
pub use lesson::Lesson;
pub use practice::{BakeSetting, Expected, Practice, Stated, bake_practice, practice_knows_little};
pub use range::{BakeRange, OvenDoubt, spread_range};
pub(crate) use range::{TIME_MEASURED, TIME_UNMEASURED};
pub use reason::{OvenSide, Reason, Spreading};
pub use standard::{STANDARD_PIECE, StandardSpread};
pub use thermometer::{MOST_OVEN_READINGS, OvenReading, OvenStandIn, OvenTest, judge_oven};
