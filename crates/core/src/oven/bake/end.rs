//! What ends a bake, and the one word for it in files and on the wire.

use crate::oven::EdgeColour;
use serde::{Deserialize, Serialize};

/// What ends a bake.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(from = "EndKey", into = "EndKey")]
pub enum BakeEnd {
    /// The rim has a colour, the middle is dull and set.
    Colour(EdgeColour),
    /// The middle no longer shines, and is set, whatever the colour: for cocoa doughs.
    Dull,
    /// The rim has a colour and the middle is dull; the middle may stay soft.
    Soft(EdgeColour),
}

impl BakeEnd {
    /// The same as a dough shows it: of one that stays pale the face is never golden before its rim is dry, so that golden means just golden.
    #[must_use]
    pub const fn as_it_shows(self, stays_pale: bool) -> Self {
        match self {
            Self::Colour(EdgeColour::Golden) if stays_pale => Self::Colour(EdgeColour::JustGolden),
            Self::Soft(EdgeColour::Golden) if stays_pale => Self::Soft(EdgeColour::JustGolden),
            other => other,
        }
    }

    /// The same end at another colour of the rim.
    #[must_use]
    pub const fn to(self, colour: EdgeColour) -> Self {
        match self {
            Self::Colour(_) => Self::Colour(colour),
            Self::Soft(_) => Self::Soft(colour),
            Self::Dull => Self::Dull,
        }
    }
}

/// The same in one word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = BakeEnd)]
#[serde(rename_all = "snake_case")]
pub enum EndKey {
    /// Pale and set.
    Pale,
    /// The rim just turns golden.
    JustGolden,
    /// A golden rim.
    Golden,
    /// A brown rim.
    Brown,
    /// The middle no longer shines and is set, whatever the colour.
    Dull,
    /// Pale, the middle may stay soft.
    SoftPale,
    /// Just golden, the middle may stay soft.
    SoftJustGolden,
    /// Golden, the middle may stay soft.
    SoftGolden,
    /// Brown, the middle may stay soft.
    SoftBrown,
}

impl EndKey {
    const ALL: [Self; 9] = [
        Self::Pale,
        Self::JustGolden,
        Self::Golden,
        Self::Brown,
        Self::Dull,
        Self::SoftPale,
        Self::SoftJustGolden,
        Self::SoftGolden,
        Self::SoftBrown,
    ];
}

impl From<EndKey> for BakeEnd {
    fn from(key: EndKey) -> Self {
        match key {
            EndKey::Pale => Self::Colour(EdgeColour::Pale),
            EndKey::JustGolden => Self::Colour(EdgeColour::JustGolden),
            EndKey::Golden => Self::Colour(EdgeColour::Golden),
            EndKey::Brown => Self::Colour(EdgeColour::Brown),
            EndKey::Dull => Self::Dull,
            EndKey::SoftPale => Self::Soft(EdgeColour::Pale),
            EndKey::SoftJustGolden => Self::Soft(EdgeColour::JustGolden),
            EndKey::SoftGolden => Self::Soft(EdgeColour::Golden),
            EndKey::SoftBrown => Self::Soft(EdgeColour::Brown),
        }
    }
}

impl From<BakeEnd> for EndKey {
    fn from(end: BakeEnd) -> Self {
        Self::ALL.into_iter().find(|key| BakeEnd::from(*key) == end).unwrap_or(Self::Dull)
    }
}

impl utoipa::PartialSchema for BakeEnd {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        EndKey::schema()
    }
}

impl utoipa::ToSchema for BakeEnd {
    fn name() -> std::borrow::Cow<'static, str> {
        EndKey::name()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_end_has_a_key_of_its_own() {
        for key in EndKey::ALL {
            assert_eq!(EndKey::from(BakeEnd::from(key)), key);
        }
        assert_eq!(serde_json::to_string(&BakeEnd::Soft(EdgeColour::JustGolden)).unwrap(), "\"soft_just_golden\"");
    }
}
