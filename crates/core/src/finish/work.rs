//! What a finish asks of the hands and of the clock. Common practice, no source, all of it.

use super::{Coat, GlazeWay, SugarCoat};
use crate::units::Span;

/// Hands and drying of a finish.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CoatWork {
    /// Hands for each piece; of a pair that is filled, half for each.
    pub hands: Span,
    /// Until it is dry to the touch, so that they can be moved and served.
    pub touch: Span,
    /// Until it is dry through, so that they may be packed.
    pub dries: Span,
    /// Until they may be packed in one layer and with a fan, where that is sooner.
    pub one_layer: Option<Span>,
    /// Whether it goes on before the bake.
    pub before_the_bake: bool,
}

impl Coat {
    /// Hands: sugar pressed on 2 s, dusted 4, a glaze brushed or dipped 6, a dip 10, lines 4, a line and its flood 60, fondant 20,
    /// buttercream 15, a filled pair 12, a dent filled 5. Dry to the touch and through: royal icing after 1 to 2 h and 8 to 12 h (4 to 6 in
    /// one layer with a fan), a glaze 1 to 2 h and overnight (8 h), in lines 30 to 60 min, dipped 2 to 4 h, fondant 2 to 4 h, chocolate 15
    /// to 30 min, fillings and buttercream an hour.
    #[must_use]
    pub fn work(&self) -> CoatWork {
        let (hands_s, touch_min, dries_min) = match self {
            Self::Sugar(SugarCoat::Coarse | SugarCoat::CoarseAfter) => (2.0, 0.0, 0.0),
            Self::Sugar(SugarCoat::Powdered) => (4.0, 0.0, 0.0),
            Self::Glaze { way: GlazeWay::Spread, .. } => (6.0, 90.0, 8.0 * 60.0),
            Self::Glaze { way: GlazeWay::Drizzled, .. } => (4.0, 45.0, 60.0),
            Self::Glaze { way: GlazeWay::Dipped, .. } => (6.0, 90.0, 4.0 * 60.0),
            Self::Dip { .. } => (10.0, 20.0, 30.0),
            Self::Drizzle => (4.0, 20.0, 30.0),
            Self::Royal { .. } => (60.0, 90.0, 10.0 * 60.0),
            Self::Fondant { .. } => (20.0, 2.0 * 60.0, 3.0 * 60.0),
            Self::Buttercream { .. } => (15.0, 60.0, 60.0),
            Self::Filling { .. } => (12.0 / 2.0, 60.0, 60.0),
            Self::JamBaked { .. } => (5.0, 0.0, 0.0),
        };
        CoatWork {
            hands: Span::new_s(hands_s),
            touch: Span::new_min(touch_min),
            dries: Span::new_min(dries_min),
            one_layer: matches!(self, Self::Royal { .. }).then(|| Span::new_min(5.0 * 60.0)),
            before_the_bake: matches!(self, Self::Sugar(SugarCoat::Coarse) | Self::JamBaked { .. }),
        }
    }
}
