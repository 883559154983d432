//! What is done in a kitchen, and what it occupies.

use serde::{Deserialize, Serialize};

/// Who or what a task occupies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Lane {
    /// The one pair of hands.
    Hands,
    /// A cold place.
    Cold,
    /// An oven.
    Oven,
    /// A rack or counter to cool on.
    Cooling,
}

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Step {
    /// Weigh and mix.
    Mix,
    /// Press or roll for the cold.
    Form,
    /// Dough chill as a lump, before logs are formed of it.
    BulkChill,
    /// Dough chill.
    Chill,
    /// Dough from the freezer thaws.
    Thaw,
    /// Dough that got too cold rests on the bench.
    Rest,
    /// Roll and cut.
    Cut,
    /// Tray chill.
    TrayChill,
    /// Heat the oven.
    Preheat,
    /// Bake.
    Bake,
    /// Cool on the tray.
    Cool,
    /// Cool on the rack.
    CoolOnRack,
    /// Ice, glaze, dip, fill.
    Finish,
    /// What was put on dries.
    Dry,
    /// Pack.
    Pack,
}

impl Step {
    /// Whether it takes a pair of hands all the while.
    #[must_use]
    pub fn by_hand(self) -> bool {
        matches!(self, Self::Mix | Self::Form | Self::Cut | Self::Finish | Self::Pack)
    }

    /// Whether somebody has to be there when it begins; else it goes on by itself from the step before.
    #[must_use]
    pub fn begins_by_hand(self) -> bool {
        !matches!(self, Self::CoolOnRack | Self::Dry)
    }
}
