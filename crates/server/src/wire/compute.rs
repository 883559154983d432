//! Requests and results of the compute endpoints and of `ready-slab compute`, which are the same JSON.

use super::plan::{CurvePoint, ReadyView, WindowView, curve};
use super::{NewCutter, SentenceView, say, view};
use ready_slab_core::cold::{ChillAnswer, ChillQuestion, Piece, Place, Support, Target, Wrap, chill};
use ready_slab_core::dough::{Composition, FatKind, FormulaInput, MixMethod, Pantry, rolled_density};
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::compute_sheet;
use ready_slab_core::shape::{Layout, Spacing};
use ready_slab_core::units::{Length, Mass, Temperature};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Mass fractions, together 1.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CompositionBody {
    /// 0 to 1.
    pub water: f64,
    /// 0 to 1.
    pub fat: f64,
    /// 0 to 1.
    pub protein: f64,
    /// Without fibre, 0 to 1.
    pub carbohydrate: f64,
    /// 0 to 1.
    pub ash: f64,
    /// 0 to 1.
    pub fibre: f64,
    /// Kind of fat.
    pub fat_kind: FatKind,
}

/// What the dough is: its analysis, or a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DoughBody {
    /// Mass fractions.
    Composition(CompositionBody),
    /// Ingredients by weight.
    Formula(FormulaInput),
}

impl DoughBody {
    fn composition(&self) -> Result<Composition, InputErrors> {
        match self {
            Self::Composition(c) => {
                Composition::from_analysis(c.water, c.fat, c.protein, c.carbohydrate, c.ash, c.fibre, c.fat_kind)
                    .map_err(|e| e.within("composition"))
            }
            Self::Formula(f) => Ok(f.formula(Pantry::built_in()).map_err(|e| e.within("formula"))?.composition()),
        }
    }
}

/// A place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceBody {
    /// -40 to 45.
    pub air_c: f64,
    /// Radiation included, 1 to 60.
    pub film_w_m2k: f64,
}

/// What it is wanted for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum TargetBody {
    /// To be rolled.
    Rolling,
    /// To be sliced.
    Slicing,
    /// Cut pieces for the oven.
    Oven,
    /// Its core at a temperature.
    Core {
        /// -40 to 45.
        core_c: f64,
    },
}

/// A question to the cold station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChillRequest {
    /// `composition` or `formula`.
    #[serde(flatten)]
    pub dough: DoughBody,
    /// The form.
    pub piece: Piece,
    /// What is round it.
    pub wrap: Wrap,
    /// What it lies on.
    pub support: Support,
    /// All of it when it goes in, -30 to 45.
    pub start_c: f64,
    /// Where it goes.
    pub place: PlaceBody,
    /// What it is wanted for.
    pub target: TargetBody,
}

view! {
    /// The answer.
    pub struct ChillResult(a: &ChillAnswer) {
        /// When.
        #[serde(flatten)]
        ready: ReadyView = a.into(),
        /// Working temperatures, where the dough has any.
        window: Option<WindowView> = a.window.map(Into::into),
        /// How the water was taken.
        water: SentenceView = say(&a.water),
        /// The run.
        curve: Vec<CurvePoint> = curve(&a.curve),
    }
}

fn degrees(field: &str, c: f64) -> Result<Temperature, InputErrors> {
    let mut checks = Checks::new();
    checks.range(field, c, -40.0, 45.0, "\u{b0}C");
    checks.finish(Temperature::new_c(c))
}

impl ChillRequest {
    /// Answers the question.
    pub fn answer(&self) -> Result<ChillResult, InputErrors> {
        let composition = self.dough.composition()?;
        let piece = self.piece.checked().map_err(|e| e.within("piece"))?;
        let support = self.support.checked().map_err(|e| e.within("support"))?;
        if matches!(piece, Piece::Log { .. } | Piece::Sphere { .. }) && !matches!(support, Support::Rack) {
            return Err(InputError::refused("support", "Use \"rack\": a round log hardly touches what it’s on.").into());
        }
        let place = Place::new(self.place.air_c, self.place.film_w_m2k).map_err(|e| e.within("place"))?;
        let target = match self.target {
            TargetBody::Rolling => Target::Rolling,
            TargetBody::Slicing => Target::Slicing,
            TargetBody::Oven => Target::Oven,
            TargetBody::Core { core_c } => Target::Core(degrees("target.core_c", core_c)?),
        };
        let question = ChillQuestion::new(composition, piece, self.wrap, support, self.start_c, place, target)?;
        Ok((&chill(&question)).into())
    }
}

/// How much dough goes on the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RolledDough {
    /// 1 to 200,000.
    pub mass_g: f64,
    /// 1 to 60.
    pub thickness_mm: f64,
    /// For its density.
    pub formula: FormulaInput,
}

/// A question to the shape station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    /// The cutter.
    pub cutter: NewCutter,
    /// Width of the sheet, 20 to 900.
    pub width_mm: f64,
    /// Longest sheet, 20 to 900.
    pub length_mm: f64,
    /// 0.5 to 10.
    pub web_mm: f64,
    /// 0 to 30.
    pub edge_mm: f64,
    /// The dough, which may shorten the sheet; a full sheet when absent.
    #[serde(default)]
    pub dough: Option<RolledDough>,
}

view! {
    /// The layout.
    pub struct SheetResult(layout: Layout) {
        /// How many pieces.
        pieces: usize = layout.pieces.len(),
        /// Length of sheet they need.
        needs_length_mm: f64 = layout.length.mm(),
        /// Smallest gap, measured on the final layout.
        least_gap_mm: Option<f64> = layout.least_gap.map(Length::mm),
        /// Where they lie.
        cuts: Vec<Placement> = layout.pieces,
    }
}

impl SheetRequest {
    /// Lays out the sheet.
    pub fn answer(&self) -> Result<SheetResult, InputErrors> {
        let mut checks = Checks::new();
        checks.range("width_mm", self.width_mm, 20.0, 900.0, "mm");
        checks.range("length_mm", self.length_mm, 20.0, 900.0, "mm");
        let mut area = None;
        if let Some(dough) = &self.dough {
            checks.range("dough.mass_g", dough.mass_g, 1.0, 200_000.0, "g");
            checks.range("dough.thickness_mm", dough.thickness_mm, 1.0, 60.0, "mm");
            if let Some(formula) = checks.take("dough.formula", dough.formula.formula(Pantry::built_in()))
                && dough.mass_g.is_finite()
                && dough.thickness_mm.is_finite()
            {
                let density = rolled_density(&formula.composition(), MixMethod::JustCombined);
                area = Some(Mass::new_g(dough.mass_g).rolled_to(Length::new_mm(dough.thickness_mm), density));
            }
        }
        let spacing = Spacing::new(self.web_mm, self.edge_mm);
        checks.finish(())?;
        let (_, _, outline) = self.cutter.build().map_err(|e| e.within("cutter"))?;
        let (width, longest) = (Length::new_mm(self.width_mm), Length::new_mm(self.length_mm));
        Ok(compute_sheet(&outline, width, longest, spacing?, area)?.into())
    }
}
