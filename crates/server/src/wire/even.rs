//! The evenness of a sheet on the wire.

use super::{SentenceView, say_all, view};
use ready_slab_core::job::EvenBake;
use ready_slab_core::shape::{Evenness, SpotIs};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Which sheet.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct EvenQuery {
    /// Counted from 0, in the order of cutting.
    #[serde(default)]
    pub sheet: usize,
}

view! {
    /// How even a sheet is.
    pub struct EvenView(even: &Evenness, bake: EvenBake) {
        /// Of all readings.
        mean_mm: f64 = even.mean.mm(),
        /// The thinnest.
        least_mm: f64 = even.least.mm(),
        /// The thickest.
        most_mm: f64 = even.most.mm(),
        /// What each reading is, row by row; null where nothing was read.
        spots: Vec<Option<SpotIs>> = even.spots.iter().map(|s| s.map(Into::into)).collect(),
        /// The map between them, row by row, as many cells each way as `map_cells`.
        map_mm: Vec<f64> = even.map.iter().map(|m| m.mm()).collect(),
        /// Each way.
        map_cells: u32 = even.map_cells,
        /// Middle of the bake time of the thinnest pieces.
        thin_min: f64 = bake.thin.min(),
        /// Middle of the bake time of the thickest pieces.
        thick_min: f64 = bake.thick.min(),
        /// Whether they may lie on one tray.
        one_tray: bool = bake.one_tray,
        /// What to do, as sentences.
        advice: Vec<SentenceView> = say_all(&bake.advice),
    }
}
