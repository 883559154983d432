//! How a lot's pieces are made, on the wire.

use super::words::LogFormWord;
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::Making;
use ready_slab_core::shape::{LogForm, Portion, USUAL_LOG_ACROSS};
use ready_slab_core::units::{Length, Mass};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How the pieces are made.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum MakingBody {
    /// Cut with the lot's cutter.
    #[default]
    Cut,
    /// Sliced from a log or bar; the lot's thickness is the slice's.
    Sliced {
        /// Its section.
        form: LogFormWord,
        /// Height over width of an oblong or a wedge, 0.1 to 10.
        #[serde(default = "as_high_as_wide")]
        height_to_width: f64,
        /// Across, 15 to 120; the usual one when left out.
        #[serde(default = "usual_across")]
        width_mm: f64,
    },
    /// Rolled to balls.
    Ball {
        /// 2 to 500; the usual one when left out.
        #[serde(default = "usual_ball")]
        mass_g: f64,
    },
    /// Scooped.
    Scoop {
        /// How many of it fill a US quart, 4 to 120.
        scoop: u32,
    },
    /// Rolled to ropes.
    Rope {
        /// 4 to 60.
        across_mm: f64,
        /// 20 to 600.
        length_mm: f64,
    },
    /// Balls pressed or stamped.
    Pressed {
        /// 2 to 500.
        mass_g: f64,
        /// 2 to 40.
        thickness_mm: f64,
    },
    /// Balls with a dent.
    Thumbprint {
        /// 2 to 500.
        mass_g: f64,
        /// 4 to 60.
        dent_mm: f64,
        /// 1 to 30.
        deep_mm: f64,
    },
    /// Put together of parts.
    Figure {
        /// 2 to 12 parts of 0.5 to 300.
        parts_g: Vec<f64>,
    },
    /// Piped.
    Piped {
        /// 2 to 200.
        mass_g: f64,
    },
    /// Over a whole tray, cut after baking.
    TrayBar {
        /// 100 to 900.
        width_mm: f64,
        /// 100 to 900.
        length_mm: f64,
        /// 4 to 60.
        thickness_mm: f64,
        /// 1 to 30.
        columns: u32,
        /// 1 to 30.
        rows: u32,
    },
}

const fn usual_across() -> f64 {
    USUAL_LOG_ACROSS.mm()
}

fn usual_ball() -> f64 {
    Portion::USUAL_BALL.g()
}

fn as_high_as_wide() -> f64 {
    1.0
}

impl From<&Making> for MakingBody {
    fn from(making: &Making) -> Self {
        let mm = |l: &Length| l.mm();
        match making {
            Making::Cut => Self::Cut,
            Making::Sliced { form, width } => {
                let (form, height_to_width) = match *form {
                    LogForm::Round => (LogFormWord::Round, 1.0),
                    LogForm::Square => (LogFormWord::Square, 1.0),
                    LogForm::Oblong { height_to_width } => (LogFormWord::Oblong, height_to_width),
                    LogForm::HalfRound => (LogFormWord::HalfRound, 1.0),
                    LogForm::Wedge { height_to_width } => (LogFormWord::Wedge, height_to_width),
                };
                Self::Sliced { form, height_to_width, width_mm: width.mm() }
            }
            Making::Portioned(portion) => match portion {
                Portion::Ball { mass } => Self::Ball { mass_g: mass.g() },
                Portion::Scoop { number } => Self::Scoop { scoop: *number },
                Portion::Rope { across, length } => Self::Rope { across_mm: mm(across), length_mm: mm(length) },
                Portion::Pressed { mass, thickness } => Self::Pressed { mass_g: mass.g(), thickness_mm: mm(thickness) },
                Portion::Thumbprint { mass, dent, deep } => {
                    Self::Thumbprint { mass_g: mass.g(), dent_mm: mm(dent), deep_mm: mm(deep) }
                }
                Portion::Figure { parts } => Self::Figure { parts_g: parts.iter().map(|p| p.g()).collect() },
                Portion::Piped { mass } => Self::Piped { mass_g: mass.g() },
                Portion::TrayBar { width, length, depth, columns, rows } => Self::TrayBar {
                    width_mm: mm(width),
                    length_mm: mm(length),
                    thickness_mm: mm(depth),
                    columns: *columns,
                    rows: *rows,
                },
            },
        }
    }
}

impl MakingBody {
    /// The core's value; its ranges are checked with the job.
    pub fn making(&self) -> Result<Making, InputErrors> {
        let mm = |field: &str, v: f64| {
            Length::from_mm(v).map_err(|_| InputErrors::from(InputError::new(field, Problem::NotFinite)))
        };
        let g = |field: &str, v: f64| {
            Mass::from_g(v).map_err(|_| InputErrors::from(InputError::new(field, Problem::NotFinite)))
        };
        let portion = match self {
            Self::Cut => return Ok(Making::Cut),
            Self::Sliced { form, height_to_width, width_mm } => {
                let form = form.with_height(*height_to_width);
                return Ok(Making::Sliced { form, width: mm("width_mm", *width_mm)? });
            }
            Self::Ball { mass_g } => Portion::Ball { mass: g("mass_g", *mass_g)? },
            Self::Scoop { scoop } => Portion::Scoop { number: *scoop },
            Self::Rope { across_mm, length_mm } => {
                Portion::Rope { across: mm("across_mm", *across_mm)?, length: mm("length_mm", *length_mm)? }
            }
            Self::Pressed { mass_g, thickness_mm } => {
                Portion::Pressed { mass: g("mass_g", *mass_g)?, thickness: mm("thickness_mm", *thickness_mm)? }
            }
            Self::Thumbprint { mass_g, dent_mm, deep_mm } => Portion::Thumbprint {
                mass: g("mass_g", *mass_g)?,
                dent: mm("dent_mm", *dent_mm)?,
                deep: mm("deep_mm", *deep_mm)?,
            },
            Self::Figure { parts_g } => {
                Portion::Figure { parts: parts_g.iter().map(|p| g("parts_g", *p)).collect::<Result<_, _>>()? }
            }
            Self::Piped { mass_g } => Portion::Piped { mass: g("mass_g", *mass_g)? },
            Self::TrayBar { width_mm, length_mm, thickness_mm, columns, rows } => Portion::TrayBar {
                width: mm("width_mm", *width_mm)?,
                length: mm("length_mm", *length_mm)?,
                depth: mm("thickness_mm", *thickness_mm)?,
                columns: *columns,
                rows: *rows,
            },
        };
        Ok(Making::Portioned(portion))
    }
}
