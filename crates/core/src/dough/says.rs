//! What a recipe says of how its dough is made and baked: kept with it, beside our own figures.

use super::MixMethod;
use crate::error::{Checks, InputErrors};
use crate::units::{Length, Span, Temperature};
use serde::{Deserialize, Serialize};

/// What a recipe says; what it does not say is nothing.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = RecipeSaysBody)]
#[serde(deny_unknown_fields, default)]
pub struct RecipeSays {
    /// How it is mixed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub method: Option<MixMethod>,
    /// How long the dough is chilled, least and most; 1 to 10,000 min.
    #[serde(rename = "chill_min", skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub chill: Option<(f64, f64)>,
    /// How thick it is rolled or sliced, 2 to 25 mm.
    #[serde(rename = "thickness_mm", skip_serializing_if = "Option::is_none")]
    pub thickness: Option<f64>,
    /// What the oven is set to, 100 to 260 °C.
    #[serde(rename = "oven_c", skip_serializing_if = "Option::is_none")]
    pub oven: Option<f64>,
    /// How long it bakes, least and most; 1 to 120 min.
    #[serde(rename = "bake_min", skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<f64>>)]
    pub bake: Option<(f64, f64)>,
    /// How many it makes, 1 to 5,000.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pieces: Option<u32>,
}

impl RecipeSays {
    /// Whether it says nothing.
    #[must_use]
    pub fn is_silent(&self) -> bool {
        *self == Self::default()
    }

    /// The same, once every figure of it is one that a recipe can say.
    ///
    /// Fails, naming what and the range, for one that is not.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let both = |checks: &mut Checks, field: &str, found: Option<(f64, f64)>, most: f64| {
            if let Some((low, high)) = found {
                checks.range(field, low, 1.0, most, "min");
                checks.range(field, high, low.max(1.0), most, "min");
            }
        };
        both(&mut checks, "says.chill_min", self.chill, 10_000.0);
        both(&mut checks, "says.bake_min", self.bake, 120.0);
        if let Some(mm) = self.thickness {
            checks.range("says.thickness_mm", mm, 2.0, 25.0, "mm");
        }
        if let Some(c) = self.oven {
            checks.range("says.oven_c", c, 100.0, 260.0, "\u{b0}C");
        }
        if let Some(pieces) = self.pieces {
            checks.range("says.pieces", f64::from(pieces), 1.0, 5_000.0, "cookies");
        }
        checks.finish(self)
    }

    /// How long it bakes.
    #[must_use]
    pub fn bakes(&self) -> Option<(Span, Span)> {
        self.bake.map(|(low, high)| (Span::new_min(low), Span::new_min(high)))
    }

    /// How long its dough is chilled.
    #[must_use]
    pub fn chills(&self) -> Option<(Span, Span)> {
        self.chill.map(|(low, high)| (Span::new_min(low), Span::new_min(high)))
    }

    /// How thick it is.
    #[must_use]
    pub fn thick(&self) -> Option<Length> {
        self.thickness.map(Length::new_mm)
    }

    /// What the oven is set to.
    #[must_use]
    pub fn set_to(&self) -> Option<Temperature> {
        self.oven.map(Temperature::new_c)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_no_recipe_can_say_is_named() {
        let says =
            RecipeSays { chill: Some((60.0, 30.0)), oven: Some(900.0), thickness: Some(6.4), ..RecipeSays::default() };
        let faults = says.checked().unwrap_err();
        let fields: Vec<_> = faults.all().iter().map(|f| f.field().to_owned()).collect();
        assert_eq!(fields, ["says.chill_min", "says.oven_c"]);
        assert!(RecipeSays::default().checked().unwrap().is_silent());
    }
}
