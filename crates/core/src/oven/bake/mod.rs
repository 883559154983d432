//! The bake model: two columns through a piece, its middle and its rim, and the tray beneath it.
//!
//! Heat enters by air and radiation from above, through the tray from below and, at the rim, from the side; water leaves by the
//! surface, moves within by diffusion and boils where its vapour pressure reaches the air's. The dough spreads as a disc that
//! its own weight presses out against its stiffness until it sets. Colour is an integral of temperature and dryness at the
//! surface. Equations, every parameter and what the model does not know stand in `docs/oven.md`; it was calibrated to common
//! practice, and no measured bake stands behind it.

mod dough;
mod fit;
mod forecast;
mod limits;
mod model;
mod physics;
mod setup;

pub use dough::{OvenDough, OvenDoughParts, air_of};
pub use fit::{
    BakeKnowledge, BakeSeen, BakesFitted, HeatKnowledge, MOST_FITTED, OvenKnowledge, SpreadKnowledge, TIME_PER_K,
    learn_bakes,
};
pub use forecast::{
    BakeEnd, BakeForecast, BakeSample, DoneBy, Profile, colour_word, cools_after, forecast, forecast_at,
};
pub use limits::{BakeWarning, LEAST_RADIUS_MM, check_bake};
pub use model::{BakeBalance, simulate};
pub use setup::{BakeFit, BakePiece, OvenSetup, TrayLiner, TrayMaterial};
