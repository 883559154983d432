//! Logs and patterned bars, on the wire.

use super::SentenceView;
use super::view;
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::shape::PatternKind;
use ready_slab_core::shape::WhichDough;
use ready_slab_core::shape::{
    LAST_SLICE, LOG_TRIM, Log, LogForm, LogGiven, LogKind, Pattern, PatternPart, Patterned, USUAL_BAR,
    USUAL_LONGEST_LOG,
};
use ready_slab_core::units::{Length, Mass, Span};
use ready_slab_words::{Name, pattern_steps};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// A log of which three of mass, length, width, slice and slices are known; the usual ones where none is.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct LogQuery {
    /// Its section.
    #[param(inline)]
    pub form: LogKind,
    /// Height over width of an oblong or a wedge, 0.1 to 10; 1 when absent.
    pub height_to_width: Option<f64>,
    /// 10 to 200,000.
    pub mass_g: Option<f64>,
    /// 20 to 3000.
    pub length_mm: Option<f64>,
    /// 8 to 250.
    pub width_mm: Option<f64>,
    /// 8 to 250; of an oblong or a wedge in place of its proportion.
    pub height_mm: Option<f64>,
    /// 1 to 60.
    pub slice_mm: Option<f64>,
    /// 1 to 2000.
    pub slices: Option<u32>,
    /// Whether the ends are baked as they are; otherwise 5 mm are cut off at each.
    pub ends_kept: Option<bool>,
    /// No log is made longer, 100 to 500; 300 when absent.
    pub longest_mm: Option<f64>,
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

    /// Cut off at each end.
    pub fn trim(&self) -> Length {
        if self.ends_kept == Some(true) { Length::new_mm(0.0) } else { LOG_TRIM }
    }

    /// No log is made longer.
    pub fn longest(&self) -> Result<Length, InputErrors> {
        Ok(mm("longest_mm", self.longest_mm)?.unwrap_or(USUAL_LONGEST_LOG))
    }

    /// What is known.
    pub fn given(&self) -> Result<LogGiven, InputErrors> {
        let mass = self.mass_g.map(|g| Mass::from_g(g).map_err(|_| InputError::new("mass_g", Problem::NotFinite)));
        Ok(LogGiven {
            mass: mass.transpose()?,
            length: mm("length_mm", self.length_mm)?,
            width: mm("width_mm", self.width_mm)?,
            height: mm("height_mm", self.height_mm)?,
            slice: mm("slice_mm", self.slice_mm)?,
            slices: self.slices,
        })
    }
}

view! {
    /// A log with where the knife goes, and the logs its dough is divided into.
    pub struct LogView(log: &Log, given: &LogGiven, form: LogForm, ends: (Length, Length), logs: u32, each: Mass) {
        let (trim, longest) = ends;

        /// Which three it was worked out from: those given, or the usual ones.
        given: Vec<String> = given.known().into_iter().map(str::to_owned).collect(),
        /// Ends and all.
        mass_g: f64 = log.mass.g(),
        /// Ends and all.
        length_mm: f64 = log.length.mm(),
        /// Of its section.
        width_mm: f64 = log.width.mm(),
        /// Of its section.
        height_mm: f64 = log.height.mm(),
        /// Height over width of an oblong or a wedge; null of other sections.
        height_to_width: Option<f64> = form.height_to_width(),
        /// Of one slice.
        slice_mm: f64 = log.slice.mm(),
        /// How many.
        slices: u32 = log.slices,
        /// A last slice that is thinner but counts.
        short_last_mm: Option<f64> = log.short_last.map(Length::mm),
        /// What joins the far end.
        rest_mm: f64 = log.rest.mm(),
        /// One whole slice.
        slice_mass_g: f64 = log.slice_mass.g(),
        /// Both ends and the rest.
        ends_g: f64 = log.ends.g(),
        /// Where the knife goes, from one end.
        cuts_mm: Vec<f64> = log.cuts.iter().map(|c| c.mm()).collect(),
        /// How often a soft one is turned while it gets firm; null where it lies on a flat.
        turn_every_min: Option<f64> = form.turned_every().map(Span::min),
        /// Trimmed from each end.
        trim_mm: f64 = trim.mm(),
        /// A last slice counts from so much of the others' thickness.
        counts_from_percent: f64 = 100.0 * LAST_SLICE,
        /// No log is made longer.
        longest_mm: f64 = longest.mm(),
        /// Logs no longer than that which its dough makes.
        logs: u32 = logs,
        /// Dough in each of those.
        log_g: f64 = each.g(),
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

view! {
    /// Something to be rolled or cut, as long as the bar.
    pub struct PatternPartView(p: &PatternPart) {
        /// Of which of the two doughs.
        dough: WhichDough = p.dough,
        /// `strips`, `sheet`, `core`, `wrap`, `layers`.
        what: String = p.what.name().to_owned(),
        /// How many.
        count: u32 = p.count,
        /// Of one.
        width_mm: f64 = p.width.mm(),
        /// Of one.
        thickness_mm: f64 = p.thickness.mm(),
        /// Of all of them.
        mass_g: f64 = p.mass.g(),
    }
}

view! {
    /// A patterned bar.
    pub struct PatternView(word: PatternKind, pattern: &Pattern, length: Length, p: Patterned) {
        /// Which.
        pattern: PatternKind = word,
        /// Of its section.
        width_mm: f64 = p.width.mm(),
        /// Of its section.
        height_mm: f64 = p.height.mm(),
        /// What it is built of.
        parts: Vec<PatternPartView> = p.parts.iter().map(Into::into).collect(),
        /// How, step by step.
        steps: Vec<SentenceView> = pattern_steps(&p).into_iter().map(Into::into).collect(),
        /// The sizes it was built with.
        sizes: PatternSizes = PatternSizes::new(pattern, length),
    }
}
