//! What a finish asks of the hands and of the clock. Common practice, no source, all of it.

use super::{Coat, SugarCoat};
use crate::units::Span;

/// Hands and drying of a finish.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CoatWork {
    /// Hands for each piece; of a pair that is filled, half for each.
    pub hands: Span,
    /// Until it is dry through, so that they may be packed.
    pub dries: Span,
    /// Whether it goes on before the bake.
    pub before_the_bake: bool,
}

impl Coat {
    /// Hands: sugar pressed on 2 s, dusted 4, a glaze brushed 6, a dip 10, a drizzle 4, a line and its flood 60, fondant 20, buttercream 15,
    /// a filled pair 12. Dry: royal icing overnight (8 to 12 h), a glaze overnight (8 h), fondant 3 h, chocolate half an hour, fillings and
    /// buttercream an hour.
    #[must_use]
    pub fn work(&self) -> CoatWork {
        let (hands_s, dries_min) = match self {
            Self::Sugar(SugarCoat::Coarse) => (2.0, 0.0),
            Self::Sugar(SugarCoat::Powdered) => (4.0, 0.0),
            Self::Glaze { .. } => (6.0, 8.0 * 60.0),
            Self::Dip { .. } => (10.0, 30.0),
            Self::Drizzle => (4.0, 30.0),
            Self::Royal { .. } => (60.0, 10.0 * 60.0),
            Self::Fondant { .. } => (20.0, 3.0 * 60.0),
            Self::Buttercream { .. } => (15.0, 60.0),
            Self::Filling { .. } => (12.0 / 2.0, 60.0),
        };
        CoatWork {
            hands: Span::new_s(hands_s),
            dries: Span::new_min(dries_min),
            before_the_bake: matches!(self, Self::Sugar(SugarCoat::Coarse)),
        }
    }
}
