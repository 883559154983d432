//! Quantities with their unit in the type, and how people write them.
//!
//! A temperature and a temperature difference are two types, and so are a share and a baker's percentage:
//!
//! ```compile_fail
//! use ready_slab_core::units::{Temperature, TemperatureDifference};
//! let dough = Temperature::new_c(21.0);
//! let friction = TemperatureDifference::new_k(2.0);
//! let _wrong: Temperature = friction;          // a difference is not a temperature
//! let _also_wrong = dough + dough;             // and two temperatures do not add
//! ```
//!
//! ```compile_fail
//! use ready_slab_core::units::{BakersPercent, Share};
//! let butter: BakersPercent = Share::new(0.29);  // of the dough, not of the flour
//! ```

mod parse;
mod table;
mod wire;

pub(crate) use parse::{leading_number, vulgar};
pub use parse::{parse_count, parse_quantity};
pub use table::{Quantity, UNITS, Unit, unit};

use std::fmt;
use std::ops::{Add, Div, Mul, Sub};

/// A number that was NaN or infinite.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("Type a number.")]
pub struct NotFinite;

/// What arithmetic made of quantities: never infinite (the largest number stands for it), never a negative zero.
///
/// # Panics
/// On what is no number, which is a bug of the caller.
const fn finite(value: f64) -> f64 {
    assert!(!value.is_nan(), "a quantity must be a number");
    value.clamp(f64::MIN, f64::MAX) + 0.0
}

macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $new:ident, $from:ident, $get:ident, $unit:literal) => {
        $(#[$doc])*
        #[derive(Clone, Copy, PartialEq, PartialOrd, Default)]
        pub struct $name(f64);

        impl $name {
            #[doc = concat!("A value in ", $unit, " written or computed in code.\n\n# Panics\nWhen it is not finite, which is a bug of the caller; input goes through the fallible constructor.")]
            #[must_use]
            pub const fn $new(value: f64) -> Self {
                assert!(value.is_finite(), "a quantity must be finite");
                // A sum of nothing is a negative zero, which nobody wants to read.
                Self(value + 0.0)
            }

            #[doc = concat!("A value in ", $unit, " from outside.")]
            pub const fn $from(value: f64) -> Result<Self, NotFinite> {
                if value.is_finite() { Ok(Self(value + 0.0)) } else { Err(NotFinite) }
            }

            #[doc = concat!("The value in ", $unit, ".")]
            #[must_use]
            pub const fn $get(self) -> f64 {
                self.0
            }
        }

        impl fmt::Debug for $name {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                write!(f, "{:.2} {}", self.0, $unit)
            }
        }
    };
}

macro_rules! additive {
    ($name:ident) => {
        impl Add for $name {
            type Output = Self;
            fn add(self, other: Self) -> Self {
                Self(finite(self.0 + other.0))
            }
        }
        impl Sub for $name {
            type Output = Self;
            fn sub(self, other: Self) -> Self {
                Self(finite(self.0 - other.0))
            }
        }
        impl Mul<f64> for $name {
            type Output = Self;
            fn mul(self, factor: f64) -> Self {
                Self(finite(self.0 * factor))
            }
        }
        impl Div for $name {
            type Output = f64;
            fn div(self, other: Self) -> f64 {
                self.0 / other.0
            }
        }
    };
}

quantity!(/// A length.
    Length, new_mm, from_mm, mm, "mm");
quantity!(/// A mass.
    Mass, new_g, from_g, g, "g");
quantity!(/// An area.
    Area, new_mm2, from_mm2, mm2, "mm\u{b2}");
quantity!(/// A density.
    Density, new_kg_m3, from_kg_m3, kg_m3, "kg/m\u{b3}");
quantity!(/// A span of time.
    Span, new_s, from_s, s, "s");
quantity!(/// A temperature on the Celsius scale.
    Temperature, new_c, from_c, c, "\u{b0}C");
quantity!(/// A difference between two temperatures.
    TemperatureDifference, new_k, from_k, k, "K");
quantity!(/// A share of a whole, 1 being all of it.
    Share, new, from_value, value, "of the whole");
quantity!(/// Baker's percentage: the mass over the flour's mass, in per cent.
    BakersPercent, new_percent, from_percent, percent, "% of flour");
quantity!(/// A heat-transfer coefficient.
    Film, new_w_m2k, from_w_m2k, w_m2k, "W/m\u{b2}K");

additive!(Length);
additive!(Mass);
additive!(Area);
additive!(Span);
additive!(TemperatureDifference);

impl Span {
    /// A span of whole or broken minutes.
    #[must_use]
    pub const fn new_min(minutes: f64) -> Self {
        Self::new_s(minutes * 60.0)
    }

    /// The span in minutes.
    #[must_use]
    pub const fn min(self) -> f64 {
        self.0 / 60.0
    }

    /// In whole minutes, no fewer than it lasts: for what has to be over.
    #[must_use]
    #[expect(clippy::cast_possible_truncation, reason = "spans are under a few days")]
    pub fn min_up(self) -> i64 {
        (self.min() - 1e-6).ceil().max(0.0) as i64
    }

    /// Its whole minutes, no fewer, as a span.
    #[must_use]
    pub fn whole_up(self) -> Self {
        Self::whole(self.min_up())
    }

    /// Its whole minutes, no more, as a span.
    #[must_use]
    pub fn whole_down(self) -> Self {
        Self::whole(self.min_down())
    }

    fn whole(minutes: i64) -> Self {
        Self::new_min(f64::from(i32::try_from(minutes).unwrap_or(i32::MAX)))
    }

    /// In whole minutes, no more than it lasts.
    #[must_use]
    #[expect(clippy::cast_possible_truncation, reason = "spans are under a few days")]
    pub fn min_down(self) -> i64 {
        (self.min() + 1e-6).floor().max(0.0) as i64
    }
}

impl Add<TemperatureDifference> for Temperature {
    type Output = Self;
    fn add(self, difference: TemperatureDifference) -> Self {
        Self(finite(self.0 + difference.0))
    }
}

impl Sub for Temperature {
    type Output = TemperatureDifference;
    fn sub(self, other: Self) -> TemperatureDifference {
        TemperatureDifference(finite(self.0 - other.0))
    }
}

impl Mass {
    /// The area of dough of this mass rolled to `thickness`.
    #[must_use]
    pub fn rolled_to(self, thickness: Length, density: Density) -> Area {
        // g / (kg/m3) = 1e-3 m3/1e3... : 1 g at 1000 kg/m3 is 1000 mm3.
        Area(finite(self.0 * 1e6 / density.0 / thickness.0))
    }

    /// How high dough of this mass stands over an area.
    #[must_use]
    pub fn height_over(self, area: Area, density: Density) -> Length {
        Length(finite(self.0 * 1e6 / density.0 / area.0))
    }
}

impl Area {
    /// The mass of this area of dough at `thickness`.
    #[must_use]
    pub fn mass_at(self, thickness: Length, density: Density) -> Mass {
        Mass(finite(self.0 * thickness.0 * density.0 / 1e6))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_door_lets_a_non_finite_number_in() {
        assert_eq!(Length::from_mm(f64::NAN), Err(NotFinite));
        assert_eq!(Temperature::from_c(f64::INFINITY), Err(NotFinite));
    }

    #[test]
    fn arithmetic_keeps_a_quantity_finite_and_a_zero_plain() {
        let most = Length::new_mm(f64::MAX);
        assert!((most + most).mm().is_finite() && (most * -2.0).mm().is_finite());
        assert!(Mass::new_g(5.0).rolled_to(Length::new_mm(0.0), Density::new_kg_m3(1200.0)).mm2().is_finite());
        let nothing = Mass::new_g(Vec::<f64>::new().iter().sum());
        assert!(nothing.g().is_sign_positive() && (nothing * -1.0).g().is_sign_positive());
    }

    #[test]
    #[should_panic(expected = "must be a number")]
    fn what_is_no_number_stops_at_once() {
        let _ = Mass::new_g(0.0) * f64::NAN;
    }

    #[test]
    fn a_kilogram_at_six_millimetres_is_the_worked_example() {
        // Worked example of the trade: 1,000 g at 1.21 g/cm3 and 6 mm is 1,377 cm2, as a round 419 mm across.
        let area = Mass::new_g(1000.0).rolled_to(Length::new_mm(6.0), Density::new_kg_m3(1210.0));
        assert!((area.mm2() / 100.0 - 1377.4).abs() < 0.1, "{area:?}");
        let across = (area.mm2() * 4.0 / std::f64::consts::PI).sqrt();
        assert!((across - 418.8).abs() < 0.3, "{across}");
        let back = area.mass_at(Length::new_mm(6.0), Density::new_kg_m3(1210.0));
        assert!((back.g() - 1000.0).abs() < 1e-9);
    }

    #[test]
    fn temperatures_differ_by_a_difference() {
        let rise = Temperature::new_c(21.0) - Temperature::new_c(4.0);
        assert_eq!(rise.k(), 17.0);
        assert_eq!((Temperature::new_c(4.0) + rise).c(), 21.0);
    }
}
