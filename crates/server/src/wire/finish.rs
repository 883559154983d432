//! Finishes on the wire.

use super::{SentenceView, say, say_all};
use ready_slab_core::finish::{Coat, CoatPlan, FillingKind, SugarCoat};
use ready_slab_core::job::FinishPlan;
use ready_slab_core::units::Share;
use ready_slab_words::{coat, coat_stuff};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A kind of finish.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FinishWord {
    CoarseSugar,
    PowderedSugar,
    WaterGlaze,
    SpiritGlaze,
    Dip,
    Drizzle,
    Jam,
    ChocolateFilling,
    Icing,
}

/// A finish; figures that its kind does not have are left out, those it has and are left out are the usual ones.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FinishBody {
    /// What.
    pub kind: FinishWord,
    /// Of a glaze: parts of powdered sugar to one of water by weight, 3 to 12.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sugar_parts: Option<f64>,
    /// Of a glaze and a dip: as thick as it lies, 0.1 to 3.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub film_mm: Option<f64>,
    /// Of a dip: so much of each piece, 5 to 100.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part_percent: Option<f64>,
    /// Of a filling: as thick as it is spread, 0.5 to 8.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub layer_mm: Option<f64>,
}

impl FinishBody {
    /// The finish.
    pub fn coat(&self) -> Coat {
        let usual = match self.kind {
            FinishWord::CoarseSugar => Coat::Sugar(SugarCoat::Coarse),
            FinishWord::PowderedSugar => Coat::Sugar(SugarCoat::Powdered),
            FinishWord::WaterGlaze => Coat::usual_glaze(false),
            FinishWord::SpiritGlaze => Coat::usual_glaze(true),
            FinishWord::Dip => Coat::usual_dip(),
            FinishWord::Drizzle => Coat::Drizzle,
            FinishWord::Jam => Coat::usual_filling(FillingKind::Jam),
            FinishWord::ChocolateFilling => Coat::usual_filling(FillingKind::Chocolate),
            FinishWord::Icing => Coat::usual_filling(FillingKind::Icing),
        };
        // A number of JSON is finite.
        let part = self.part_percent.map(|p| Share::new(p / 100.0));
        match usual {
            Coat::Sugar(_) | Coat::Drizzle => usual,
            Coat::Glaze { sugar_parts, film_mm, spirit } => Coat::Glaze {
                sugar_parts: self.sugar_parts.unwrap_or(sugar_parts),
                film_mm: self.film_mm.unwrap_or(film_mm),
                spirit,
            },
            Coat::Dip { part: usual, film_mm } => {
                Coat::Dip { part: part.unwrap_or(usual), film_mm: self.film_mm.unwrap_or(film_mm) }
            }
            Coat::Filling { kind, layer_mm } => Coat::Filling { kind, layer_mm: self.layer_mm.unwrap_or(layer_mm) },
        }
    }
}

impl From<&Coat> for FinishBody {
    fn from(coat: &Coat) -> Self {
        let plain = |kind| Self { kind, sugar_parts: None, film_mm: None, part_percent: None, layer_mm: None };
        match *coat {
            Coat::Sugar(SugarCoat::Coarse) => plain(FinishWord::CoarseSugar),
            Coat::Sugar(SugarCoat::Powdered) => plain(FinishWord::PowderedSugar),
            Coat::Glaze { sugar_parts, film_mm, spirit } => Self {
                sugar_parts: Some(sugar_parts),
                film_mm: Some(film_mm),
                ..plain(if spirit { FinishWord::SpiritGlaze } else { FinishWord::WaterGlaze })
            },
            Coat::Dip { part, film_mm } => Self {
                part_percent: Some((1000.0 * part.value()).round() / 10.0),
                film_mm: Some(film_mm),
                ..plain(FinishWord::Dip)
            },
            Coat::Drizzle => plain(FinishWord::Drizzle),
            Coat::Filling { kind, layer_mm } => Self {
                layer_mm: Some(layer_mm),
                ..plain(match kind {
                    FillingKind::Jam => FinishWord::Jam,
                    FillingKind::Chocolate => FinishWord::ChocolateFilling,
                    FillingKind::Icing => FinishWord::Icing,
                })
            },
        }
    }
}

/// A part of what is mixed for a finish.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CoatPartView {
    /// What.
    pub name: String,
    /// In all.
    pub mass_g: f64,
}

/// What a finish takes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CoatView {
    /// What it is called.
    pub name: String,
    /// On each piece, or between two.
    pub each_g: f64,
    /// To be made.
    pub total_g: f64,
    /// Of what.
    pub parts: Vec<CoatPartView>,
    /// How many are finished: pieces, or pairs of them.
    pub count: u32,
    /// When it goes on.
    pub when: String,
    /// How the figures come about.
    pub reason: SentenceView,
    /// What to mind.
    pub cautions: Vec<SentenceView>,
}

impl From<&CoatPlan> for CoatView {
    fn from(c: &CoatPlan) -> Self {
        let (name, when) = coat(c.coat);
        Self {
            name: name.to_owned(),
            each_g: c.each.g(),
            total_g: c.total.g(),
            parts: c
                .parts
                .iter()
                .map(|p| CoatPartView { name: coat_stuff(p.stuff).to_owned(), mass_g: p.mass.g() })
                .collect(),
            count: c.count,
            when: when.to_owned(),
            reason: say(&c.reason),
            cautions: say_all(&c.cautions),
        }
    }
}

/// What is left of the dough's alcohol.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SpiritView {
    /// In a piece as it is mixed.
    pub mixed_g: f64,
    /// After the bake, at least.
    pub left_least_g: f64,
    /// After the bake, at most.
    pub left_most_g: f64,
    /// By what.
    pub reason: SentenceView,
}

/// Finish and keeping of a lot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FinishView {
    /// Top of a piece as baked.
    pub top_cm2: f64,
    /// What each finish takes, in the order of the job's.
    pub coats: Vec<CoatView>,
    /// In a tin, days, the careful end.
    pub tin_least_days: f64,
    /// In a tin, days, the usual end.
    pub tin_most_days: f64,
    /// Frozen, months, the careful end; null where it does not freeze well.
    pub freezer_least_months: Option<f64>,
    /// Frozen, months, the usual end; null where it does not freeze well.
    pub freezer_most_months: Option<f64>,
    /// Whether it has to stand in the cold.
    pub in_the_cold: bool,
    /// Why.
    pub reasons: Vec<SentenceView>,
    /// Alcohol; null of a dough without any.
    pub spirit: Option<SpiritView>,
}

impl From<&FinishPlan> for FinishView {
    fn from(f: &FinishPlan) -> Self {
        let k = &f.keeping;
        Self {
            top_cm2: f.piece.top.mm2() / 100.0,
            coats: f.coats.iter().map(CoatView::from).collect(),
            tin_least_days: k.tin_days.0,
            tin_most_days: k.tin_days.1,
            freezer_least_months: k.freezer_months.map(|m| m.0),
            freezer_most_months: k.freezer_months.map(|m| m.1),
            in_the_cold: k.in_the_cold,
            reasons: say_all(&k.reasons),
            spirit: f.spirit.as_ref().map(|s| SpiritView {
                mixed_g: s.mixed.g(),
                left_least_g: s.left.0.g(),
                left_most_g: s.left.1.g(),
                reason: say(&s.reason),
            }),
        }
    }
}
