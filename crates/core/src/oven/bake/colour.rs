//! Browning: an integral of temperature and dryness at a surface.

use super::dough::OvenDough;
use super::nature::GAS;
use super::water::arrhenius;
use crate::dough::browning_pace;
use crate::oven::EdgeColour;
use crate::units::TemperatureDifference;

/// Rate of a dry surface at 130 degC, 1/s, and its activation, J/mol. Calibrated; 80 to 150 kJ/mol in the literature, from memory.
const BROWNS: (f64, f64) = (2.349e-4, 1.24e5);
/// Water activity that halves it. Calibrated.
const DAMP: f64 = 0.445_9;
/// The underside over the top. Calibrated.
const UNDER: f64 = 2.13;

/// How fast a dough's surfaces brown.
pub(super) struct Browning {
    pace: f64,
}

impl Browning {
    pub(super) fn new(dough: &OvenDough, times: f64) -> Self {
        let p = dough.parts();
        Self { pace: times * browning_pace(p.sugar, p.reducing, p.soda_percent, p.egg_protein) }
    }

    pub(super) fn top(&self, t_c: f64, activity: f64) -> f64 {
        BROWNS.0 * self.pace * arrhenius(BROWNS.1, t_c, 403.15) / (1.0 + (activity / DAMP).powi(2))
    }

    pub(super) fn under(&self, t_c: f64, activity: f64) -> f64 {
        UNDER * self.top(t_c, activity)
    }
}

/// A crust as it browns, K.
const CRUST_K: f64 = 423.15;

/// By how much hotter a surface is that browns e times as fast, K.
pub(crate) fn kelvin_an_e_fold() -> f64 {
    GAS * CRUST_K * CRUST_K / BROWNS.1
}

/// How many times as fast a surface browns that is so much hotter.
#[must_use]
pub fn browns_faster(hotter: TemperatureDifference) -> f64 {
    (hotter.k() / kelvin_an_e_fold()).exp()
}

/// Colour index of an integral, 0 raw to 100 burnt.
pub(crate) fn index(integral: f64) -> f64 {
    100.0 * (1.0 - (-integral).exp())
}

/// The integral at which a rim has a colour. Calibrated to common practice.
pub(crate) const fn integral_of(colour: EdgeColour) -> f64 {
    match colour {
        EdgeColour::Pale => 0.08,
        EdgeColour::JustGolden => 0.22,
        EdgeColour::Golden => 0.45,
        EdgeColour::Brown => 0.90,
    }
}

/// The colour index of a rim of a colour, 0 raw to 100 burnt.
#[must_use]
pub fn rim_index(colour: EdgeColour) -> f64 {
    index(integral_of(colour))
}

/// How a surface looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Shade {
    /// As it went in.
    Raw,
    /// Like an edge of that colour.
    Edge(EdgeColour),
    /// Beyond brown.
    Burnt,
}

/// How a surface of a colour index looks: like a colour from half way to the one before it.
#[must_use]
pub fn shade_of(colour_index: f64) -> Shade {
    let half_way = |a: EdgeColour, b: EdgeColour| 0.5 * (index(integral_of(a)) + index(integral_of(b)));
    let [pale, just, golden, brown] = EdgeColour::ALL;
    match colour_index {
        c if c < 0.5 * index(integral_of(pale)) => Shade::Raw,
        c if c < half_way(pale, just) => Shade::Edge(pale),
        c if c < half_way(just, golden) => Shade::Edge(just),
        c if c < half_way(golden, brown) => Shade::Edge(golden),
        c if c < 0.5 * (index(integral_of(brown)) + 100.0) => Shade::Edge(brown),
        _ => Shade::Burnt,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_end_is_named_by_its_own_colour() {
        for colour in EdgeColour::ALL {
            assert_eq!(shade_of(index(integral_of(colour))), Shade::Edge(colour));
        }
        assert_eq!((shade_of(0.0), shade_of(99.0)), (Shade::Raw, Shade::Burnt));
    }
}
