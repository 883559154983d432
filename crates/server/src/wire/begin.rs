//! A new job as it is asked for, and the basic doughs it may begin from.

use super::{NewCutter, SentenceView, view};
use ready_slab_core::clock::Minute;
use ready_slab_core::dough::{Formula, Kind, RecipeSays, Starter, Suits};
use ready_slab_core::finish::Finish;
use ready_slab_core::geometry::BuiltinKind;
use ready_slab_core::job::Making;
use ready_slab_core::shape::{LogForm, Portion, USUAL_LOG_ACROSS};
use ready_slab_core::units::{Length, Mass};
use ready_slab_words::{Name, gives};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A basic dough to begin from.
    pub struct StarterView(starter: &Starter, formula: &Formula) {
        let ratio = formula.ratio();
        let total = formula.total().g();
        let share = |kind: Kind| {
            formula.lines().iter().filter(|l| l.ingredient().kind == kind).map(|l| 100.0 * l.mass().g() / total).sum::<f64>()
        };

        /// The word it is asked for by.
        starter: String = starter.key.to_owned(),
        /// Its name.
        name: String = starter.name.to_owned(),
        /// What comes of it, to choose by.
        gives: SentenceView = gives(starter.known_for).into(),
        /// Sugar over butter, by weight.
        ratio_sugar: f64 = ratio.sugar,
        /// Flour over butter, by weight.
        ratio_flour: f64 = ratio.flour,
        /// Of its weight.
        fat_percent: f64 = share(Kind::Fat),
        /// Of its weight.
        sugar_percent: f64 = share(Kind::Sugar),
        /// Of its weight.
        flour_percent: f64 = share(Kind::Flour),
        /// How its pieces are usually made.
        suits: Suits = starter.suits,
        /// How thick they usually are.
        thickness_mm: f64 = starter.thickness_mm,
    }
}

/// What a new job's dough is.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum DoughWanted {
    /// A basic dough, which is put on the shelf unless it is there.
    Starter {
        /// Its word.
        starter: String,
    },
    /// One from the shelf.
    Recipe {
        /// Its number.
        formula_id: i64,
    },
}

/// What a new job's pieces are.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum ShapeWanted {
    /// Cut with a cutter from the shelf.
    Cutter {
        /// Its number.
        cutter_id: i64,
    },
    /// Cut with a built-in form, which is put on the shelf unless it is there.
    Builtin {
        /// Which.
        form: BuiltinKind,
        /// Across, 8 to 400.
        width_mm: f64,
        /// Along, for forms with two sizes; of a ring, its hole.
        #[serde(default)]
        height_mm: Option<f64>,
        /// Which letter or figure, of that form.
        #[serde(default)]
        letter: Option<char>,
    },
    /// Sliced from a round log.
    Log {
        /// Across, 15 to 120; the usual one when left out.
        #[serde(default)]
        across_mm: Option<f64>,
    },
    /// Rolled to balls.
    Balls {
        /// Each, 2 to 500; the usual one when left out.
        #[serde(default)]
        mass_g: Option<f64>,
    },
}

impl ShapeWanted {
    /// How the pieces are made.
    pub fn making(&self) -> Making {
        match self {
            Self::Cutter { .. } | Self::Builtin { .. } => Making::Cut,
            Self::Log { across_mm } => {
                Making::sliced(LogForm::Round, across_mm.map_or(USUAL_LOG_ACROSS, Length::new_mm))
            }
            Self::Balls { mass_g } => {
                Making::Portioned(Portion::Ball { mass: mass_g.map_or(Portion::USUAL_BALL, Mass::new_g) })
            }
        }
    }

    /// The cutter to be put on the shelf, where it is a built-in form.
    pub fn new_cutter(&self) -> Option<NewCutter> {
        let Self::Builtin { form, width_mm, height_mm, letter } = *self else { return None };
        let name = letter.map_or_else(|| capital(form.name()), |l| format!("Letter {}", l.to_uppercase()));
        Some(NewCutter::Builtin { name, form, width_mm, height_mm, letter })
    }
}

/// A word as it stands alone.
pub fn capital(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().collect::<String>() + letters.as_str())
}

/// Something that a recipe says and that a new job takes over.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SaysWord {
    /// How it is mixed.
    Method,
    /// How thick it is.
    ThicknessMm,
    /// What the oven is set to.
    OvenC,
    /// How many it makes.
    Pieces,
}

impl SaysWord {
    /// What a recipe says without it.
    pub fn out_of(self, says: &mut RecipeSays) {
        match self {
            Self::Method => says.method = None,
            Self::ThicknessMm => says.thickness = None,
            Self::OvenC => says.oven = None,
            Self::Pieces => says.pieces = None,
        }
    }
}

/// A new job; what is left out is as most do it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewJobBody {
    /// Its name, 1 to 80 characters; what its pieces are when left out.
    #[serde(default)]
    pub name: Option<String>,
    /// Its dough.
    pub dough: DoughWanted,
    /// Its pieces.
    pub shape: ShapeWanted,
    /// How many, 1 to 20,000.
    #[serde(default)]
    pub pieces: Option<u32>,
    /// How thick, 2 to 25.
    #[serde(default)]
    pub thickness_mm: Option<f64>,
    /// For when, local time, `2026-11-28T14:00`; noon tomorrow when left out.
    #[serde(default)]
    #[schema(value_type = Option<String>)]
    pub ready_by: Option<Minute>,
    /// What goes onto or between its pieces, at most 4; nothing when left out.
    #[serde(default)]
    pub finishes: Vec<Finish>,
    /// What its recipe says and is not to become the job's.
    #[serde(default)]
    pub refuse: Vec<SaysWord>,
    /// Number of the job whose settings it takes; the usual ones when left out.
    #[serde(default)]
    pub like: Option<i64>,
}
