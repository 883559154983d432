//! A finish as it travels: its kind in one word, and the figures that it has.

use super::{Coat, FillingKind, Finish, GlazeWay, SugarCoat};
use crate::dough::TintInput;
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
    CoarseSugarAfter,
    PowderedSugar,
    WaterGlaze,
    SpiritGlaze,
    GlazeDrizzle,
    GlazeDip,
    Dip,
    Drizzle,
    Royal,
    RoyalFresh,
    Fondant,
    Buttercream,
    Jam,
    ChocolateFilling,
    Icing,
    JamBaked,
}

/// A finish; figures that its kind does not have are left out, those it has and are left out are the usual ones.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = FinishBody)]
#[serde(deny_unknown_fields)]
pub struct FinishKey {
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
    /// Of jam that is baked in: so much in each, 0.3 to 20.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub each_g: Option<f64>,
    /// On so many of the pieces; on all when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pieces: Option<u32>,
    /// Portions of it that are coloured, at most 8, together at most 100 %.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub colours: Vec<TintInput>,
}

impl From<FinishKey> for Finish {
    fn from(key: FinishKey) -> Self {
        Self { coat: key.coat(), pieces: key.pieces, colours: key.colours }
    }
}

impl FinishKey {
    fn coat(&self) -> Coat {
        let key = self;
        let usual = match key.kind {
            CoatWord::CoarseSugar => Coat::Sugar(SugarCoat::Coarse),
            CoatWord::PowderedSugar => Coat::Sugar(SugarCoat::Powdered),
            CoatWord::CoarseSugarAfter => Coat::Sugar(SugarCoat::CoarseAfter),
            CoatWord::WaterGlaze => Coat::usual_glaze(GlazeWay::Spread, false),
            CoatWord::SpiritGlaze => Coat::usual_glaze(GlazeWay::Spread, true),
            CoatWord::GlazeDrizzle => Coat::usual_glaze(GlazeWay::Drizzled, false),
            CoatWord::GlazeDip => Coat::usual_glaze(GlazeWay::Dipped, false),
            CoatWord::Dip => Coat::usual_dip(),
            CoatWord::Drizzle => Coat::Drizzle,
            CoatWord::Royal => Coat::usual_royal(false),
            CoatWord::RoyalFresh => Coat::usual_royal(true),
            CoatWord::Fondant => Coat::usual_fondant(),
            CoatWord::Buttercream => Coat::usual_buttercream(),
            CoatWord::Jam => Coat::usual_filling(FillingKind::Jam),
            CoatWord::ChocolateFilling => Coat::usual_filling(FillingKind::Chocolate),
            CoatWord::Icing => Coat::usual_filling(FillingKind::Icing),
            CoatWord::JamBaked => Coat::usual_jam_baked(),
        };
        // A number of JSON is finite.
        let part = key.part_percent.map(|p| Share::new(p / 100.0));
        match usual {
            Coat::Sugar(_) | Coat::Drizzle => usual,
            Coat::JamBaked { each_g } => Coat::JamBaked { each_g: key.each_g.unwrap_or(each_g) },
            Coat::Glaze { way, sugar_parts, film_mm, spirit } => Coat::Glaze {
                way,
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

impl From<Finish> for FinishKey {
    fn from(finish: Finish) -> Self {
        Self { pieces: finish.pieces, colours: finish.colours, ..Self::of(finish.coat) }
    }
}

impl FinishKey {
    const fn of_kind(kind: CoatWord) -> Self {
        Self {
            kind,
            sugar_parts: None,
            film_mm: None,
            part_percent: None,
            layer_mm: None,
            each_g: None,
            pieces: None,
            colours: vec![],
        }
    }

    fn of(coat: Coat) -> Self {
        let of_kind = Self::of_kind;
        match coat {
            Coat::Sugar(SugarCoat::Coarse) => of_kind(CoatWord::CoarseSugar),
            Coat::Sugar(SugarCoat::CoarseAfter) => of_kind(CoatWord::CoarseSugarAfter),
            Coat::Sugar(SugarCoat::Powdered) => of_kind(CoatWord::PowderedSugar),
            Coat::Glaze { way, sugar_parts, film_mm, spirit } => Self {
                sugar_parts: Some(sugar_parts),
                film_mm: Some(film_mm),
                ..of_kind(match (way, spirit) {
                    (GlazeWay::Spread, false) => CoatWord::WaterGlaze,
                    (GlazeWay::Spread, true) => CoatWord::SpiritGlaze,
                    (GlazeWay::Drizzled, _) => CoatWord::GlazeDrizzle,
                    (GlazeWay::Dipped, _) => CoatWord::GlazeDip,
                })
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
            Coat::JamBaked { each_g } => Self { each_g: Some(each_g), ..of_kind(CoatWord::JamBaked) },
        }
    }
}

impl PartialSchema for Finish {
    fn schema() -> RefOr<Schema> {
        FinishKey::schema()
    }
}

impl ToSchema for Finish {
    fn name() -> Cow<'static, str> {
        FinishKey::name()
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        FinishKey::schemas(schemas);
    }
}
