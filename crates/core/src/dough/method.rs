//! How a dough is mixed: its temperatures, its time, its air, its rest.

use crate::units::{Span, Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// How the dough is mixed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MixMethod {
    /// Creamed to light and fluffy.
    LightAndFluffy,
    /// Creamed just to combined; the school for cut-outs.
    JustCombined,
    /// Rubbed in by hand, butter cold.
    RubbedIn,
    /// Pulsed in a food processor, butter cold.
    Pulsed,
}

/// Flour that was rubbed in or pulsed takes up its water in this time, and gluten slackens: the dough then cracks less as it is rolled. It is cold from the
/// start, so that its temperature says nothing. Common practice, no source.
const FLOUR_RESTS: Span = Span::new_min(30.0);

impl MixMethod {
    /// Air that mixing leaves, of the dough's volume. Common practice, no source: butter creamed light and fluffy holds most.
    #[must_use]
    pub const fn air(self) -> f64 {
        match self {
            Self::LightAndFluffy => 0.08,
            Self::JustCombined => 0.05,
            Self::RubbedIn | Self::Pulsed => 0.04,
        }
    }

    /// How long the dough usually rests at least for its flour.
    #[must_use]
    pub const fn flour_rests(self) -> Span {
        match self {
            Self::LightAndFluffy | Self::JustCombined => Span::new_min(0.0),
            Self::RubbedIn | Self::Pulsed => FLOUR_RESTS,
        }
    }

    /// All methods.
    pub const ALL: [Self; 4] = [Self::LightAndFluffy, Self::JustCombined, Self::RubbedIn, Self::Pulsed];

    /// Whether cold fat goes into the flour, rather than being creamed.
    #[must_use]
    pub const fn is_cold(self) -> bool {
        matches!(self, Self::RubbedIn | Self::Pulsed)
    }

    /// What mixing warms the dough by. Common practice, no source.
    #[must_use]
    pub const fn friction(self) -> TemperatureDifference {
        TemperatureDifference::new_k(match self {
            // A blade warms in 10 to 20 s what a paddle warms in minutes.
            Self::LightAndFluffy | Self::Pulsed => 2.0,
            Self::JustCombined | Self::RubbedIn => 1.0,
        })
    }

    /// What the butter should be when it goes in. Common practice: 18-20 degC creamed, 4-8 degC rubbed in.
    #[must_use]
    pub const fn butter(self) -> Temperature {
        Temperature::new_c(match self {
            Self::LightAndFluffy => 19.0,
            Self::JustCombined => 18.0,
            Self::RubbedIn | Self::Pulsed => 6.0,
        })
    }

    /// Between what the butter may be. Common practice, no source.
    #[must_use]
    pub const fn butter_between(self) -> (Temperature, Temperature) {
        match self {
            Self::LightAndFluffy => (Temperature::new_c(18.0), Temperature::new_c(20.0)),
            Self::JustCombined => (Temperature::new_c(16.0), Temperature::new_c(20.0)),
            Self::RubbedIn | Self::Pulsed => (Temperature::new_c(4.0), Temperature::new_c(8.0)),
        }
    }

    /// Between what the dough should leave the bowl: cold enough not to turn greasy, warm enough to have come together.
    /// Common practice, no source.
    #[must_use]
    pub const fn dough_between(self) -> (Temperature, Temperature) {
        match self {
            Self::LightAndFluffy => (Temperature::new_c(19.0), Temperature::new_c(24.0)),
            Self::JustCombined => (Temperature::new_c(18.0), Temperature::new_c(23.0)),
            Self::RubbedIn | Self::Pulsed => (Temperature::new_c(12.0), Temperature::new_c(18.0)),
        }
    }

    /// Minutes at the mixer for one mix, weighing not included. Common practice, no source.
    #[must_use]
    pub const fn minutes(self) -> f64 {
        match self {
            Self::LightAndFluffy => 12.0,
            Self::JustCombined => 8.0,
            Self::RubbedIn => 10.0,
            Self::Pulsed => 5.0,
        }
    }
}
