//! Coats and fillings as they are chosen, each with its figures and their ranges.

use crate::error::{Checks, InputErrors};
use crate::units::Share;

/// Finishes of one job at most.
pub const MOST_COATS: usize = 4;

/// A coat of sugar.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SugarCoat {
    /// Coarse, pressed on before the bake: the top.
    Coarse,
    /// Coarse, strewn after the bake onto a glaze or icing that is still wet: the top.
    CoarseAfter,
    /// Powdered, all round: once while they are warm, once when they are cold.
    Powdered,
}

/// How a sugar glaze goes on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GlazeWay {
    /// Spread or brushed over the top.
    Spread,
    /// In lines over the top.
    Drizzled,
    /// The top is dipped into it.
    Dipped,
}

/// What a sandwich is filled with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FillingKind {
    /// Jam, cooked until it holds.
    Jam,
    /// Chocolate and cream.
    Chocolate,
    /// Butter and powdered sugar.
    Icing,
}

/// A finish.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Coat {
    /// Sugar.
    Sugar(SugarCoat),
    /// Powdered sugar and water.
    Glaze {
        /// Brushed, in lines, or dipped into.
        way: GlazeWay,
        /// Parts of powdered sugar to one of water, by weight.
        sugar_parts: f64,
        /// As high as it lies, mm.
        film_mm: f64,
        /// Whether a spirit takes the water's place.
        spirit: bool,
    },
    /// Melted chocolate, a part of each piece in it.
    Dip {
        /// So much of each.
        part: Share,
        /// As thick as it clings, mm.
        film_mm: f64,
    },
    /// Lines of melted chocolate over the top.
    Drizzle,
    /// Piped round the edge and flooded within.
    Royal {
        /// As high as it lies, mm.
        film_mm: f64,
        /// Whether fresh egg white takes the place of meringue powder.
        fresh_white: bool,
    },
    /// Rolled out and cut with the same cutter.
    Fondant {
        /// As thick as it is rolled, mm.
        film_mm: f64,
    },
    /// Piped or spread on the top.
    Buttercream {
        /// As high as it lies, mm.
        film_mm: f64,
    },
    /// Two pieces with a filling between.
    Filling {
        /// What.
        kind: FillingKind,
        /// As thick as it is spread, mm.
        layer_mm: f64,
    },
    /// Jam in a dent, filled before the bake.
    JamBaked {
        /// So much in each, g.
        each_g: f64,
    },
}

impl Coat {
    /// A glaze of seven parts half a millimetre high where it is spread; thinner in lines and where the top is dipped, of which a whole
    /// millimetre clings. Common practice, no source: water 12 to 16 of 100 spread, 18 to 25 in lines, 20 to 25 to dip.
    #[must_use]
    pub const fn usual_glaze(way: GlazeWay, spirit: bool) -> Self {
        let (sugar_parts, film_mm) = match way {
            GlazeWay::Spread => (7.0, 0.5),
            GlazeWay::Drizzled => (4.7, 0.8),
            GlazeWay::Dipped => (4.5, 1.0),
        };
        Self::Glaze { way, sugar_parts, film_mm, spirit }
    }

    /// Two grams in each: a dent 12 to 20 mm across and 5 to 7 deep holds 1 to 3. Common practice, no source.
    #[must_use]
    pub const fn usual_jam_baked() -> Self {
        Self::JamBaked { each_g: 2.0 }
    }

    /// Whether portions of it are coloured: icing, glaze, fondant and buttercream are.
    #[must_use]
    pub const fn takes_colour(&self) -> bool {
        matches!(
            self,
            Self::Glaze { .. }
                | Self::Royal { .. }
                | Self::Fondant { .. }
                | Self::Buttercream { .. }
                | Self::Filling { kind: FillingKind::Icing, .. }
        )
    }

    /// One and three quarters of a millimetre high, of meringue powder. Common practice, no source.
    #[must_use]
    pub const fn usual_royal(fresh_white: bool) -> Self {
        Self::Royal { film_mm: 1.75, fresh_white }
    }

    /// Rolled to 2.5 mm. Common practice, no source.
    #[must_use]
    pub const fn usual_fondant() -> Self {
        Self::Fondant { film_mm: 2.5 }
    }

    /// Four millimetres high. Common practice, no source.
    #[must_use]
    pub const fn usual_buttercream() -> Self {
        Self::Buttercream { film_mm: 4.0 }
    }

    /// Half of each piece, a millimetre thick. Common practice, no source.
    #[must_use]
    pub const fn usual_dip() -> Self {
        Self::Dip { part: Share::new(0.5), film_mm: 1.0 }
    }

    /// Two millimetres. Common practice, no source.
    #[must_use]
    pub const fn usual_filling(kind: FillingKind) -> Self {
        Self::Filling { kind, layer_mm: 2.0 }
    }

    /// Checks its figures: a glaze of 3 to 12 parts of sugar and 0.1 to 2 mm, a dip of 5 to 100 % and 0.3 to 3 mm, a filling of 0.5 to 8 mm,
    /// jam of 0.3 to 20 g.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        match self {
            Self::Sugar(_) | Self::Drizzle => {}
            Self::Glaze { sugar_parts, film_mm, .. } => {
                checks.range("sugar_parts", sugar_parts, 3.0, 12.0, "parts sugar to 1 part water");
                checks.range("film_mm", film_mm, 0.1, 2.0, "mm");
            }
            Self::Dip { part, film_mm } => {
                checks.range("part_percent", 100.0 * part.value(), 5.0, 100.0, "%");
                checks.range("film_mm", film_mm, 0.3, 3.0, "mm");
            }
            Self::Royal { film_mm, .. } => checks.range("film_mm", film_mm, 0.5, 4.0, "mm"),
            Self::Fondant { film_mm } => checks.range("film_mm", film_mm, 1.0, 6.0, "mm"),
            Self::Buttercream { film_mm } => checks.range("film_mm", film_mm, 1.0, 15.0, "mm"),
            Self::Filling { layer_mm, .. } => {
                checks.range("layer_mm", layer_mm, 0.5, 8.0, "mm");
            }
            Self::JamBaked { each_g } => checks.range("each_g", each_g, 0.3, 20.0, "g"),
        }
        checks.finish(self)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn figures_beyond_their_range_are_named() {
        let said = |coat: Coat| coat.checked().unwrap_err().all()[0].field().to_owned();
        assert_eq!(
            said(Coat::Glaze { way: GlazeWay::Spread, sugar_parts: 1.0, film_mm: 0.5, spirit: false }),
            "sugar_parts"
        );
        assert_eq!(said(Coat::Dip { part: Share::new(0.0), film_mm: 1.0 }), "part_percent");
        assert_eq!(said(Coat::Filling { kind: FillingKind::Icing, layer_mm: f64::NAN }), "layer_mm");
        assert!(Coat::Drizzle.checked().is_ok());
    }
}
