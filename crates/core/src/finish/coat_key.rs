//! A finish as it travels: its kind in one word, and the figures that it has.

use super::{Coat, FillingKind, SugarCoat};
use crate::units::Share;
use std::borrow::Cow;
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

/// A kind of finish.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = FinishWord)]
#[serde(rename_all = "snake_case")]
pub enum CoatWord {
    CoarseSugar,
    PowderedSugar,
    WaterGlaze,
    SpiritGlaze,
    Dip,
    Drizzle,
    Royal,
    RoyalFresh,
    Fondant,
    Buttercream,
    Jam,
    ChocolateFilling,
    Icing,
}

/// A finish; figures that its kind does not have are left out, those it has and are left out are the usual ones.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = FinishBody)]
#[serde(deny_unknown_fields)]
pub struct CoatKey {
    /// What.
    pub kind: CoatWord,
    /// Of a glaze: parts of powdered sugar to one of water by weight, 3 to 12.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sugar_parts: Option<f64>,
    /// Of a glaze, a dip, royal icing, fondant and buttercream: as thick as it lies.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub film_mm: Option<f64>,
    /// Of a dip: so much of each piece, 5 to 100.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part_percent: Option<f64>,
    /// Of a filling: as thick as it is spread, 0.5 to 8.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub layer_mm: Option<f64>,
}

impl From<CoatKey> for Coat {
    fn from(key: CoatKey) -> Self {
        let usual = match key.kind {
            CoatWord::CoarseSugar => Coat::Sugar(SugarCoat::Coarse),
            CoatWord::PowderedSugar => Coat::Sugar(SugarCoat::Powdered),
            CoatWord::WaterGlaze => Coat::usual_glaze(false),
            CoatWord::SpiritGlaze => Coat::usual_glaze(true),
            CoatWord::Dip => Coat::usual_dip(),
            CoatWord::Drizzle => Coat::Drizzle,
            CoatWord::Royal => Coat::usual_royal(false),
            CoatWord::RoyalFresh => Coat::usual_royal(true),
            CoatWord::Fondant => Coat::usual_fondant(),
            CoatWord::Buttercream => Coat::usual_buttercream(),
            CoatWord::Jam => Coat::usual_filling(FillingKind::Jam),
            CoatWord::ChocolateFilling => Coat::usual_filling(FillingKind::Chocolate),
            CoatWord::Icing => Coat::usual_filling(FillingKind::Icing),
        };
        // A number of JSON is finite.
        let part = key.part_percent.map(|p| Share::new(p / 100.0));
        match usual {
            Coat::Sugar(_) | Coat::Drizzle => usual,
            Coat::Glaze { sugar_parts, film_mm, spirit } => Coat::Glaze {
                sugar_parts: key.sugar_parts.unwrap_or(sugar_parts),
                film_mm: key.film_mm.unwrap_or(film_mm),
                spirit,
            },
            Coat::Dip { part: usual, film_mm } => {
                Coat::Dip { part: part.unwrap_or(usual), film_mm: key.film_mm.unwrap_or(film_mm) }
            }
            Coat::Royal { film_mm, fresh_white } => {
                Coat::Royal { film_mm: key.film_mm.unwrap_or(film_mm), fresh_white }
            }
            Coat::Fondant { film_mm } => Coat::Fondant { film_mm: key.film_mm.unwrap_or(film_mm) },
            Coat::Buttercream { film_mm } => Coat::Buttercream { film_mm: key.film_mm.unwrap_or(film_mm) },
            Coat::Filling { kind, layer_mm } => Coat::Filling { kind, layer_mm: key.layer_mm.unwrap_or(layer_mm) },
        }
    }
}

impl From<Coat> for CoatKey {
    fn from(coat: Coat) -> Self {
        let of_kind = |kind| Self { kind, sugar_parts: None, film_mm: None, part_percent: None, layer_mm: None };
        match coat {
            Coat::Sugar(SugarCoat::Coarse) => of_kind(CoatWord::CoarseSugar),
            Coat::Sugar(SugarCoat::Powdered) => of_kind(CoatWord::PowderedSugar),
            Coat::Glaze { sugar_parts, film_mm, spirit } => Self {
                sugar_parts: Some(sugar_parts),
                film_mm: Some(film_mm),
                ..of_kind(if spirit { CoatWord::SpiritGlaze } else { CoatWord::WaterGlaze })
            },
            Coat::Dip { part, film_mm } => Self {
                part_percent: Some((1000.0 * part.value()).round() / 10.0),
                film_mm: Some(film_mm),
                ..of_kind(CoatWord::Dip)
            },
            Coat::Drizzle => of_kind(CoatWord::Drizzle),
            Coat::Royal { film_mm, fresh_white } => Self {
                film_mm: Some(film_mm),
                ..of_kind(if fresh_white { CoatWord::RoyalFresh } else { CoatWord::Royal })
            },
            Coat::Fondant { film_mm } => Self { film_mm: Some(film_mm), ..of_kind(CoatWord::Fondant) },
            Coat::Buttercream { film_mm } => Self { film_mm: Some(film_mm), ..of_kind(CoatWord::Buttercream) },
            Coat::Filling { kind, layer_mm } => Self {
                layer_mm: Some(layer_mm),
                ..of_kind(match kind {
                    FillingKind::Jam => CoatWord::Jam,
                    FillingKind::Chocolate => CoatWord::ChocolateFilling,
                    FillingKind::Icing => CoatWord::Icing,
                })
            },
        }
    }
}

impl PartialSchema for Coat {
    fn schema() -> RefOr<Schema> {
        CoatKey::schema()
    }
}

impl ToSchema for Coat {
    fn name() -> Cow<'static, str> {
        CoatKey::name()
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        CoatKey::schemas(schemas);
    }
}
