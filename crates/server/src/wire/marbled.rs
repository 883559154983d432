//! Scraps of two doughs, on the wire.

use super::{SentenceView, view};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::{GRAIN, Marbled};
use ready_slab_core::units::{Mass, Span};
use ready_slab_words::marbled_steps;
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::{IntoParams, ToSchema};

/// Whose scraps, and how much of each.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct MarbledQuery {
    /// The job whose scraps are pressed to this one's.
    pub with: i64,
    /// Of this job's dough, 5 to 20,000; what its cutting leaves when absent.
    pub own_g: Option<f64>,
    /// Of the other's, 5 to 20,000; what its cutting leaves when absent.
    pub other_g: Option<f64>,
}

impl MarbledQuery {
    /// Both masses, those left over where none is given.
    pub fn masses(&self, left: (Mass, Mass)) -> Result<(Mass, Mass), InputErrors> {
        let mass = |field: &str, given: Option<f64>, left: Mass| match given {
            None => Ok(left),
            Some(g) => Mass::from_g(g).map_err(|_| InputErrors::from(InputError::new(field, Problem::NotFinite))),
        };
        Ok((mass("own_g", self.own_g, left.0)?, mass("other_g", self.other_g, left.1)?))
    }
}

view! {
    /// What scraps of two doughs give.
    pub struct MarbledView(m: &Marbled, own: Mass, other: Mass, bakes: (Span, Span), allergens: &BTreeSet<String>) {
        /// Of this job's dough.
        own_g: f64 = own.g(),
        /// Of the other's.
        other_g: f64 = other.g(),
        /// Both together.
        mass_g: f64 = m.mass.g(),
        /// Of it, the other's.
        other_percent: f64 = 100.0 * m.other.value(),
        /// The sheet.
        width_mm: f64 = m.sheet.0.mm(),
        /// The sheet.
        length_mm: f64 = m.sheet.1.mm(),
        /// Where its pieces are cut.
        cuts: Vec<Placement> = m.layout.pieces.clone(),
        /// How many.
        pieces: u32 = m.pieces,
        /// Of one.
        piece_g: f64 = m.piece.g(),
        /// What is left, not rolled again.
        left_g: f64 = m.left.g(),
        /// Baked about so long: as the dough that is done first.
        bake_about_min: f64 = bakes.0.min(),
        /// Looked at first after so long.
        look_after_min: f64 = bakes.1.min(),
        /// How it is done.
        steps: Vec<SentenceView> = marbled_steps(GRAIN).into_iter().map(Into::into).collect(),
        /// Of both doughs: all of them are on the label.
        allergens: Vec<String> = allergens.iter().cloned().collect(),
    }
}
