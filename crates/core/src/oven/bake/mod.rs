//! The bake model: two columns through a piece, its middle and its rim, and the tray beneath it.
//!
//! Heat enters by air and radiation from above, through the tray from below and, at the rim, from the side ([`heat`], [`tray`]); water
//! leaves by the surface, moves within and boils where its vapour pressure reaches the air's ([`water`]). Air, leavening gas and steam
//! widen the pores ([`gas`]) until the dough sets ([`setting`]); what widens pushes it apart, and its own weight presses it out against
//! its stiffness ([`flow`]). Colour is an integral of temperature and dryness at the surface ([`colour`]). Equations, every parameter
//! and what the model does not know stand in `docs/oven.md`; it was calibrated to common practice, and no measured bake stands behind it.

mod cells;
mod colour;
mod cooling;
mod dough;
mod end;
mod fit;
mod flow;
mod forecast;
mod gas;
mod heat;
mod limits;
mod make_up;
mod nature;
#[cfg(test)]
mod reference;
mod run;
mod setting;
mod setup;
mod tray;
mod water;

pub use colour::{Shade, browns_faster, rim_index, shade_of};
pub(super) use colour::{index, integral_of, kelvin_an_e_fold};
pub use dough::{OvenDough, OvenDoughParts};
pub use end::BakeEnd;
pub use fit::{
    BakeKnowledge, BakeSeen, BakesFitted, DoughKnowledge, HeatKnowledge, MOST_FITTED, OvenKnowledge, RangesHeld,
    TIME_PER_K, learn_bakes,
};
pub(crate) use fit::{NINE_OF_TEN, SPREAD_NOISE, TIME_NOISE, WIDTH_NOISE};
pub use forecast::{
    BakeForecast, BakeSample, DoneBy, LookFor, Profile, cools_after, forecast, forecast_at, spread_until_set,
};
pub use limits::{
    ACROSS_MM, BAKES_THIN, BakeWarning, COVER, LEAST_RADIUS_MM, OVEN_C, SETTING_C, START_C, THICKNESS_MM, TRAY_C,
    check_bake,
};
pub use run::{BakeBalance, simulate};
pub use setup::{BakeFit, BakePiece, OvenSetup, TrayCover, TrayLiner, TrayMaterial};
