//! Logs and patterned bars, on the wire.

use super::SentenceView;
use super::words::LogFormWord;
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::shape::PatternKind;
use ready_slab_core::shape::WhichDough;
use ready_slab_core::shape::{LOG_TRIM, LONGEST_LOG, Log, LogForm, LogGiven, Pattern, Patterned, USUAL_BAR};
use ready_slab_core::units::{Length, Mass, Span};
use ready_slab_words::{Name, pattern_steps};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// A log of which three of mass, length, width, slice and slices are known.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct LogQuery {
    /// Its section.
    #[param(inline)]
    pub form: LogFormWord,
    /// Height over width of an oblong or a wedge, 0.1 to 10; 1 when absent.
    pub height_to_width: Option<f64>,
    /// 10 to 200,000.
    pub mass_g: Option<f64>,
    /// 20 to 3000.
    pub length_mm: Option<f64>,
    /// 8 to 250.
    pub width_mm: Option<f64>,
    /// 1 to 60.
    pub slice_mm: Option<f64>,
    /// 1 to 2000.
    pub slices: Option<u32>,
    /// Of the printed strip; A4 when absent.
    #[param(inline)]
    pub paper: Option<PaperSize>,
}

fn mm(field: &str, value: Option<f64>) -> Result<Option<Length>, InputErrors> {
    value.map(|v| Length::from_mm(v).map_err(|_| InputError::new(field, Problem::NotFinite).into())).transpose()
}

impl LogQuery {
    /// The section.
    pub fn form(&self) -> LogForm {
        self.form.with_height(self.height_to_width.unwrap_or(1.0))
    }

    /// What is known.
    pub fn given(&self) -> Result<LogGiven, InputErrors> {
        let mass = self.mass_g.map(|g| Mass::from_g(g).map_err(|_| InputError::new("mass_g", Problem::NotFinite)));
        Ok(LogGiven {
            mass: mass.transpose()?,
            length: mm("length_mm", self.length_mm)?,
            width: mm("width_mm", self.width_mm)?,
            slice: mm("slice_mm", self.slice_mm)?,
            slices: self.slices,
        })
    }
}

/// A log with where the knife goes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LogView {
    /// Ends and all.
    pub mass_g: f64,
    /// Ends and all.
    pub length_mm: f64,
    /// Of its section.
    pub width_mm: f64,
    /// Of its section.
    pub height_mm: f64,
    /// Of one slice.
    pub slice_mm: f64,
    /// How many.
    pub slices: u32,
    /// A last slice that is thinner but counts.
    pub short_last_mm: Option<f64>,
    /// What joins the far end.
    pub rest_mm: f64,
    /// One whole slice.
    pub slice_mass_g: f64,
    /// Both ends and the rest.
    pub ends_g: f64,
    /// Where the knife goes, from one end.
    pub cuts_mm: Vec<f64>,
    /// How often a soft one is turned while it gets firm; null where it lies on a flat.
    pub turn_every_min: Option<f64>,
    /// Trimmed from each end.
    pub trim_mm: f64,
    /// No log is made longer.
    pub longest_mm: f64,
    /// Logs no longer than that which its dough makes.
    pub logs: u32,
    /// Dough in each of those.
    pub log_g: f64,
}

impl LogView {
    /// A log, and the logs its dough is divided into.
    pub fn new(log: &Log, form: LogForm, (logs, each): (u32, Mass)) -> Self {
        Self {
            mass_g: log.mass.g(),
            length_mm: log.length.mm(),
            width_mm: log.width.mm(),
            height_mm: log.height.mm(),
            slice_mm: log.slice.mm(),
            slices: log.slices,
            short_last_mm: log.short_last.map(Length::mm),
            rest_mm: log.rest.mm(),
            slice_mass_g: log.slice_mass.g(),
            ends_g: log.ends.g(),
            cuts_mm: log.cuts.iter().map(|c| c.mm()).collect(),
            turn_every_min: form.turned_every().map(Span::min),
            trim_mm: LOG_TRIM.mm(),
            longest_mm: LONGEST_LOG.mm(),
            logs,
            log_g: each.g(),
        }
    }
}

/// A patterned bar with its sizes; those of other patterns are left out.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct PatternQuery {
    /// Which.
    #[param(inline)]
    pub pattern: PatternKind,
    /// Length of the bar, 50 to 1000.
    pub length_mm: Option<f64>,
    /// Checkerboard: strips each way, 2 to 8.
    pub strips: Option<u32>,
    /// Checkerboard: side of a strip, 4 to 40.
    pub strip_mm: Option<f64>,
    /// Pinwheel: across, 20 to 150.
    pub across_mm: Option<f64>,
    /// Pinwheel: across its first turn, 0 to 30.
    pub heart_mm: Option<f64>,
    /// Pinwheel: outer sheet, 1 to 20.
    pub outer_mm: Option<f64>,
    /// Pinwheel: inner sheet, 1 to 20.
    pub inner_mm: Option<f64>,
    /// Bullseye: core, 5 to 120.
    pub core_mm: Option<f64>,
    /// Bullseye: wrap, 1 to 30.
    pub wrap_mm: Option<f64>,
    /// Stripes: layers, 2 to 20.
    pub layers: Option<u32>,
    /// Stripes: one layer, 1 to 30.
    pub layer_mm: Option<f64>,
    /// Stripes: width, 10 to 200.
    pub width_mm: Option<f64>,
}

impl PatternQuery {
    /// The pattern; what is not said is as usual.
    pub fn pattern(&self) -> Result<Pattern, InputErrors> {
        let or = |field: &str, value: Option<f64>, usual: Length| -> Result<Length, InputErrors> {
            Ok(mm(field, value)?.unwrap_or(usual))
        };
        Ok(match Pattern::usual(self.pattern) {
            Pattern::Checkerboard { strips, strip } => Pattern::Checkerboard {
                strips: self.strips.unwrap_or(strips),
                strip: or("strip_mm", self.strip_mm, strip)?,
            },
            Pattern::Pinwheel { across, heart, outer, inner } => Pattern::Pinwheel {
                across: or("across_mm", self.across_mm, across)?,
                heart: or("heart_mm", self.heart_mm, heart)?,
                outer: or("outer_mm", self.outer_mm, outer)?,
                inner: or("inner_mm", self.inner_mm, inner)?,
            },
            Pattern::Bullseye { core, wrap } => {
                Pattern::Bullseye { core: or("core_mm", self.core_mm, core)?, wrap: or("wrap_mm", self.wrap_mm, wrap)? }
            }
            Pattern::Stripes { layers, layer, width } => Pattern::Stripes {
                layers: self.layers.unwrap_or(layers),
                layer: or("layer_mm", self.layer_mm, layer)?,
                width: or("width_mm", self.width_mm, width)?,
            },
        })
    }

    /// Its length.
    pub fn length(&self) -> Result<Length, InputErrors> {
        Ok(mm("length_mm", self.length_mm)?.unwrap_or(USUAL_BAR))
    }
}

/// The sizes a bar was built with, those of its own pattern.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PatternSizes {
    /// Of the bar.
    pub length_mm: f64,
    /// Checkerboard.
    pub strips: Option<u32>,
    /// Checkerboard.
    pub strip_mm: Option<f64>,
    /// Pinwheel.
    pub across_mm: Option<f64>,
    /// Pinwheel.
    pub heart_mm: Option<f64>,
    /// Pinwheel.
    pub outer_mm: Option<f64>,
    /// Pinwheel.
    pub inner_mm: Option<f64>,
    /// Bullseye.
    pub core_mm: Option<f64>,
    /// Bullseye.
    pub wrap_mm: Option<f64>,
    /// Stripes.
    pub layers: Option<u32>,
    /// Stripes.
    pub layer_mm: Option<f64>,
    /// Stripes.
    pub width_mm: Option<f64>,
}

impl PatternSizes {
    fn new(pattern: &Pattern, length: Length) -> Self {
        let bar = Self { length_mm: length.mm(), ..Self::default() };
        let mm = |l: &Length| Some(l.mm());
        match pattern {
            Pattern::Checkerboard { strips, strip } => Self { strips: Some(*strips), strip_mm: mm(strip), ..bar },
            Pattern::Pinwheel { across, heart, outer, inner } => {
                Self { across_mm: mm(across), heart_mm: mm(heart), outer_mm: mm(outer), inner_mm: mm(inner), ..bar }
            }
            Pattern::Bullseye { core, wrap } => Self { core_mm: mm(core), wrap_mm: mm(wrap), ..bar },
            Pattern::Stripes { layers, layer, width } => {
                Self { layers: Some(*layers), layer_mm: mm(layer), width_mm: mm(width), ..bar }
            }
        }
    }
}

/// Something to be rolled or cut, as long as the bar.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PatternPartView {
    /// Of which of the two doughs.
    pub dough: WhichDough,
    /// `strips`, `sheet`, `core`, `wrap`, `layers`.
    pub what: String,
    /// How many.
    pub count: u32,
    /// Of one.
    pub width_mm: f64,
    /// Of one.
    pub thickness_mm: f64,
    /// Of all of them.
    pub mass_g: f64,
}

/// A patterned bar.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PatternView {
    /// Which.
    pub pattern: PatternKind,
    /// Of its section.
    pub width_mm: f64,
    /// Of its section.
    pub height_mm: f64,
    /// What it is built of.
    pub parts: Vec<PatternPartView>,
    /// How, step by step.
    pub steps: Vec<SentenceView>,
    /// The sizes it was built with.
    pub sizes: PatternSizes,
}

impl PatternView {
    /// As built.
    pub fn new(word: PatternKind, pattern: &Pattern, length: Length, p: Patterned) -> Self {
        Self {
            pattern: word,
            sizes: PatternSizes::new(pattern, length),
            width_mm: p.width.mm(),
            height_mm: p.height.mm(),
            steps: pattern_steps(&p).into_iter().map(Into::into).collect(),
            parts: p
                .parts
                .into_iter()
                .map(|part| PatternPartView {
                    dough: part.dough,
                    what: part.what.name().to_owned(),
                    count: part.count,
                    width_mm: part.width.mm(),
                    thickness_mm: part.thickness.mm(),
                    mass_g: part.mass.g(),
                })
                .collect(),
        }
    }
}
