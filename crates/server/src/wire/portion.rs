//! Portions on the wire.

use super::{SentenceView, ring, say, view};
use ready_slab_core::cold::{ChillAnswer, Piece};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::geometry::Outline;
use ready_slab_core::shape::{Bent, Portion, PortionKind, Portioned, Spoon};
use ready_slab_core::units::{Length, Mass};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// A portion. Only the sizes of its own kind are looked at; those not given are as usual.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct PortionQuery {
    /// Which.
    #[param(inline)]
    pub kind: PortionKind,
    /// Dough to be portioned, 10 to 200,000; the job's own when absent.
    pub batch_g: Option<f64>,
    /// Ball, pressed, thumb-print: 2 to 500; piped: 2 to 200; scoop, spoon: as weighed, 2 to 500, by its volume when absent.
    pub mass_g: Option<f64>,
    /// How many of it fill a US quart, 4 to 120.
    pub scoop: Option<u32>,
    /// Spoon: which; a tablespoon when absent.
    #[param(inline)]
    pub spoon: Option<Spoon>,
    /// Spoon: heaped rather than level.
    pub heaped: Option<bool>,
    /// Rope: 4 to 60; stamped: 20 to 150.
    pub across_mm: Option<f64>,
    /// Rope: 20 to 600; tray: 100 to 900.
    pub length_mm: Option<f64>,
    /// Rope: what it is bent to; straight when absent.
    #[param(inline)]
    pub bent: Option<Bent>,
    /// Tray: 100 to 900.
    pub width_mm: Option<f64>,
    /// Pressed: 2 to 40; stamped: 4 to 20; tray: 4 to 60.
    pub thickness_mm: Option<f64>,
    /// Thumb-print: the dent across, 4 to 60.
    pub dent_mm: Option<f64>,
    /// Thumb-print: the dent deep, 1 to 30; stamped: the relief deep, 0.5 to 6.
    pub deep_mm: Option<f64>,
    /// Figure: the masses of its parts in grams, such as `20,8,2,2`.
    pub parts: Option<String>,
    /// Tray: radius of its corners, 0 to half its shorter side.
    pub corner_mm: Option<f64>,
    /// Tray: cut across into, 1 to 30.
    pub columns: Option<u32>,
    /// Tray: cut along into, 1 to 30.
    pub rows: Option<u32>,
}

impl PortionQuery {
    /// The portion; a tray that is not given is the kitchen's.
    pub fn portion(&self, tray: (Length, Length)) -> Result<Portion, InputErrors> {
        let mm = |field: &str, value: Option<f64>, usual: Length| match value {
            None => Ok(usual),
            Some(v) => Length::from_mm(v).map_err(|_| InputErrors::from(InputError::new(field, Problem::NotFinite))),
        };
        let usual = Portion::usual(self.kind, tray);
        Ok(match usual {
            Portion::Ball { mass } => Portion::Ball { mass: self.mass(mass)? },
            Portion::Piped { mass } => Portion::Piped { mass: self.mass(mass)? },
            Portion::Scoop { number, .. } => {
                Portion::Scoop { number: self.scoop.unwrap_or(number), weighs: self.weighs()? }
            }
            Portion::Spoon { spoon, heaped, .. } => Portion::Spoon {
                spoon: self.spoon.unwrap_or(spoon),
                heaped: self.heaped.unwrap_or(heaped),
                weighs: self.weighs()?,
            },
            Portion::Stamped { across, thickness, relief } => Portion::Stamped {
                across: mm("across_mm", self.across_mm, across)?,
                thickness: mm("thickness_mm", self.thickness_mm, thickness)?,
                relief: mm("deep_mm", self.deep_mm, relief)?,
            },
            Portion::Rope { across, length, bent } => Portion::Rope {
                across: mm("across_mm", self.across_mm, across)?,
                length: mm("length_mm", self.length_mm, self.bent.map_or(length, Bent::usual_length))?,
                bent: self.bent.unwrap_or(bent),
            },
            Portion::Pressed { mass, thickness } => Portion::Pressed {
                mass: self.mass(mass)?,
                thickness: mm("thickness_mm", self.thickness_mm, thickness)?,
            },
            Portion::Thumbprint { mass, dent, deep } => Portion::Thumbprint {
                mass: self.mass(mass)?,
                dent: mm("dent_mm", self.dent_mm, dent)?,
                deep: mm("deep_mm", self.deep_mm, deep)?,
            },
            Portion::Figure { parts } => Portion::Figure {
                parts: match &self.parts {
                    None => parts,
                    Some(text) => masses(text)?,
                },
            },
            Portion::TrayBar { width, length, depth, corner, columns, rows } => Portion::TrayBar {
                width: mm("width_mm", self.width_mm, width)?,
                length: mm("length_mm", self.length_mm, length)?,
                depth: mm("thickness_mm", self.thickness_mm, depth)?,
                corner: mm("corner_mm", self.corner_mm, corner)?,
                columns: self.columns.unwrap_or(columns),
                rows: self.rows.unwrap_or(rows),
            },
        })
    }

    fn weighs(&self) -> Result<Option<Mass>, InputErrors> {
        self.mass_g.map(|_| self.mass(Mass::new_g(0.0))).transpose()
    }

    fn mass(&self, usual: Mass) -> Result<Mass, InputErrors> {
        mass_of("mass_g", self.mass_g, usual)
    }

    /// The dough to be portioned.
    pub fn batch(&self, usual: Mass) -> Result<Mass, InputErrors> {
        mass_of("batch_g", self.batch_g, usual)
    }
}

fn mass_of(field: &str, value: Option<f64>, usual: Mass) -> Result<Mass, InputErrors> {
    match value {
        None => Ok(usual),
        Some(g) => Mass::from_g(g).map_err(|_| InputError::new(field, Problem::NotFinite).into()),
    }
}

fn masses(text: &str) -> Result<Vec<Mass>, InputErrors> {
    text.chars()
        .take(200)
        .collect::<String>()
        .split([',', ' ', '+'])
        .filter(|part| !part.trim().is_empty())
        .map(|part| {
            let read = part.trim().parse::<f64>().ok().and_then(|g| Mass::from_g(g).ok());
            read.ok_or_else(|| {
                InputError::refused(
                    "parts",
                    format!("Can\u{2019}t read \u{201c}{part}\u{201d}. Use grams, such as 20, 8, 2."),
                )
                .into()
            })
        })
        .collect()
}

view! {
    /// Firm for the oven in a cold place.
    pub struct FirmView(place: &str, answer: &ChillAnswer) {
        /// `fridge` or `freezer`.
        place: String = place.to_owned(),
        /// At the earliest; absent when it never is.
        least_min: Option<f64> = answer.ready_between.map(|b| b.0.min()),
        /// At the latest.
        most_min: Option<f64> = answer.ready_between.map(|b| b.1.min()),
        /// Why it never is, as a sentence.
        never: Option<SentenceView> = answer.never.as_ref().map(say),
    }
}

view! {
    /// What a batch gives in portions.
    pub struct PortionView(portion: &Portion, batch: Mass, found: &Portioned, outline: &Outline, firm: Vec<FirmView>) {
        let (width, height) = outline.extent();

        /// The dough portioned.
        batch_g: f64 = batch.g(),
        /// Of one.
        mass_g: f64 = found.mass.g(),
        /// How many.
        pieces: u32 = found.pieces,
        /// Left of the batch.
        rest_g: f64 = found.rest.g(),
        /// Across as it goes into the oven (the longer side where it has two).
        across_mm: f64 = found.across.mm(),
        /// Its footprint on the tray.
        width_mm: f64 = width.mm(),
        /// Its footprint on the tray.
        height_mm: f64 = height.mm(),
        /// From above as it lies on the tray, centred, y downwards.
        outline_mm: Vec<[f64; 2]> = ring(&outline.points()),
        /// Its holes, about the same centre.
        holes_mm: Vec<Vec<[f64; 2]>> = outline.holes().iter().map(|hole| ring(hole)).collect(),
        /// High as it goes into the oven.
        high_mm: f64 = found.high.mm(),
        /// Of a bar over a tray, the dough that fills the whole tray.
        tray_g: Option<f64> = found.tray.map(|m| m.g()),
        /// Filling in its dent.
        filling_g: Option<f64> = found.filling.map(|m| m.g()),
        /// The sizes it was reckoned with.
        sizes: PortionSizes = PortionSizes::new(portion, found),
        /// The form in which it chills: its thickest part.
        chills_as: Piece = found.chills_as,
        /// Until it is firm for the oven.
        firm: Vec<FirmView> = firm,
    }
}

/// The sizes of a portion, those of its own kind.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PortionSizes {
    /// Ball, pressed, thumb-print, piped.
    pub mass_g: Option<f64>,
    /// Scoop.
    pub scoop: Option<u32>,
    /// Spoon.
    pub spoon: Option<Spoon>,
    /// Spoon.
    pub heaped: Option<bool>,
    /// Rope.
    pub across_mm: Option<f64>,
    /// Rope, tray.
    pub length_mm: Option<f64>,
    /// Rope.
    pub bent: Option<Bent>,
    /// Tray.
    pub width_mm: Option<f64>,
    /// Pressed, tray.
    pub thickness_mm: Option<f64>,
    /// Thumb-print.
    pub dent_mm: Option<f64>,
    /// Thumb-print.
    pub deep_mm: Option<f64>,
    /// Figure.
    pub parts_g: Option<Vec<f64>>,
    /// Figure: across of each part as a ball.
    pub parts_mm: Option<Vec<f64>>,
    /// Tray.
    pub corner_mm: Option<f64>,
    /// Tray.
    pub columns: Option<u32>,
    /// Tray.
    pub rows: Option<u32>,
}

impl PortionSizes {
    fn new(portion: &Portion, found: &Portioned) -> Self {
        let none = Self::default();
        let g = |m: &Mass| Some(m.g());
        let mm = |l: &Length| Some(l.mm());
        match portion {
            Portion::Ball { mass } | Portion::Piped { mass } => Self { mass_g: g(mass), ..none },
            Portion::Scoop { number, weighs } => Self { scoop: Some(*number), mass_g: weighs.map(|m| m.g()), ..none },
            Portion::Spoon { spoon, heaped, weighs } => {
                Self { spoon: Some(*spoon), heaped: Some(*heaped), mass_g: weighs.map(|m| m.g()), ..none }
            }
            Portion::Stamped { across, thickness, relief } => {
                Self { across_mm: mm(across), thickness_mm: mm(thickness), deep_mm: mm(relief), ..none }
            }
            Portion::Rope { across, length, bent } => {
                Self { across_mm: mm(across), length_mm: mm(length), bent: Some(*bent), ..none }
            }
            Portion::Pressed { mass, thickness } => Self { mass_g: g(mass), thickness_mm: mm(thickness), ..none },
            Portion::Thumbprint { mass, dent, deep } => {
                Self { mass_g: g(mass), dent_mm: mm(dent), deep_mm: mm(deep), ..none }
            }
            Portion::Figure { parts } => Self {
                parts_g: Some(parts.iter().map(|m| m.g()).collect()),
                parts_mm: Some(found.parts.iter().map(|l| l.mm()).collect()),
                ..none
            },
            Portion::TrayBar { width, length, depth, corner, columns, rows } => Self {
                width_mm: mm(width),
                length_mm: mm(length),
                thickness_mm: mm(depth),
                corner_mm: mm(corner),
                columns: Some(*columns),
                rows: Some(*rows),
                ..none
            },
        }
    }
}
