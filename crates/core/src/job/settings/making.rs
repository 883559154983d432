//! How the pieces of a lot are made: cut from a sheet, sliced from a log or bar, or portioned.

use crate::error::{Checks, InputErrors};
use crate::shape::{LOG_TRIM, LONGEST_LOG_MM, LogForm, Portion, USUAL_LONGEST_LOG};
use crate::units::Length;

/// A log across, mm: thinner breaks when it is sliced, thicker gives slices larger than a hand. Common practice, no source.
const LOG_ACROSS_MM: (f64, f64) = (15.0, 120.0);

/// How the pieces are made.
///
/// In JSON one object, whose `kind` is `cut`, `sliced` or that of a portion.
#[derive(Debug, Clone, PartialEq, Default)]
pub enum Making {
    /// Cut from a rolled sheet with the lot's cutter.
    #[default]
    Cut,
    /// Sliced from a log or bar; the lot's thickness is the slice's.
    Sliced {
        /// Its section.
        form: LogForm,
        /// Across, 15 to 120 mm.
        width: Length,
        /// No log is made longer, ends and all: 100 to 500 mm.
        longest: Length,
        /// Whether the ends are baked as they are; otherwise 5 mm are cut off at each.
        ends_kept: bool,
    },
    /// By hand, scoop, rope, press or over the tray.
    Portioned(Portion),
}

impl Making {
    /// Sliced from logs as long as usual, whose ends are trimmed.
    #[must_use]
    pub const fn sliced(form: LogForm, width: Length) -> Self {
        Self::Sliced { form, width, longest: USUAL_LONGEST_LOG, ends_kept: false }
    }

    /// Cut off at each end of a log.
    #[must_use]
    pub const fn trim(&self) -> Length {
        match self {
            Self::Sliced { ends_kept: false, .. } => LOG_TRIM,
            _ => Length::new_mm(0.0),
        }
    }

    /// The same with its sizes checked.
    pub fn checked(self) -> Result<Self, InputErrors> {
        match self {
            Self::Cut => Ok(Self::Cut),
            Self::Sliced { form, width, longest, .. } => {
                let mut checks = Checks::new();
                let form = checks.take("making", form.checked());
                let (least, most) = LOG_ACROSS_MM;
                checks.range("making.width_mm", width.mm(), least, most, "mm");
                checks.range("making.longest_mm", longest.mm(), LONGEST_LOG_MM.0, LONGEST_LOG_MM.1, "mm");
                if let Some(form) = form {
                    checks.range("making.height_mm", form.height(width).mm(), least / 2.0, most, "mm");
                }
                checks.finish(self)
            }
            Self::Portioned(portion) => Ok(Self::Portioned(portion.checked().map_err(|e| e.within("making"))?)),
        }
    }
}

/// The same in JSON: a portion lies flat beside the other ways, under its own `kind`.
mod wire {
    use crate::job::settings::making::Making;
    use crate::shape::{LogKind, Portion, USUAL_LOG_ACROSS, USUAL_LONGEST_LOG};
    use crate::units::Length;
    use serde::de::{Deserialize, Deserializer, Error};
    use serde::ser::{Serialize, Serializer};
    use std::borrow::Cow;
    use utoipa::openapi::{OneOfBuilder, RefOr, Schema};
    use utoipa::{PartialSchema, ToSchema};

    /// The ways that are no portion.
    #[derive(serde::Serialize, serde::Deserialize, ToSchema)]
    #[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
    enum Whole {
        /// Cut with the lot's cutter.
        Cut,
        /// Sliced from a log or bar; the lot's thickness is the slice's.
        Sliced {
            /// Its section.
            form: LogKind,
            /// Height over width of an oblong or a wedge, 0.1 to 10.
            #[serde(default = "as_high_as_wide")]
            height_to_width: f64,
            /// Across, 15 to 120; the usual one when left out.
            #[serde(default = "usual_across", rename = "width_mm")]
            width: Length,
            /// No log is made longer, 100 to 500; 300 when left out.
            #[serde(default = "usual_longest", rename = "longest_mm")]
            longest: Length,
            /// Whether the ends are baked as they are; otherwise 5 mm are cut off at each.
            #[serde(default)]
            ends_kept: bool,
        },
    }

    const fn as_high_as_wide() -> f64 {
        1.0
    }

    const fn usual_across() -> Length {
        USUAL_LOG_ACROSS
    }

    const fn usual_longest() -> Length {
        USUAL_LONGEST_LOG
    }

    impl Serialize for Making {
        fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
            match self {
                Self::Cut => Whole::Cut.serialize(serializer),
                Self::Sliced { form, width, longest, ends_kept } => {
                    let height_to_width = form.height_to_width().unwrap_or_else(as_high_as_wide);
                    let (form, width, longest) = (form.kind(), *width, *longest);
                    Whole::Sliced { form, height_to_width, width, longest, ends_kept: *ends_kept }.serialize(serializer)
                }
                Self::Portioned(portion) => portion.serialize(serializer),
            }
        }
    }

    impl<'de> Deserialize<'de> for Making {
        fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
            let given = serde_json::Value::deserialize(deserializer)?;
            let read = match given.get("kind").and_then(serde_json::Value::as_str) {
                Some("cut" | "sliced") => Whole::deserialize(given).map(Self::from),
                _ => Portion::deserialize(given).map(Self::Portioned),
            };
            read.map_err(D::Error::custom)
        }
    }

    impl From<Whole> for Making {
        fn from(whole: Whole) -> Self {
            match whole {
                Whole::Cut => Self::Cut,
                Whole::Sliced { form, height_to_width, width, longest, ends_kept } => {
                    Self::Sliced { form: form.with_height(height_to_width), width, longest, ends_kept }
                }
            }
        }
    }

    impl PartialSchema for Making {
        fn schema() -> RefOr<Schema> {
            let said = "How the pieces are made: cut, sliced, or as a portion.";
            let ways = OneOfBuilder::new().item(Whole::schema()).item(Portion::schema());
            RefOr::T(Schema::OneOf(ways.description(Some(said)).build()))
        }
    }

    impl ToSchema for Making {
        fn name() -> Cow<'static, str> {
            "MakingBody".into()
        }

        fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
            Whole::schemas(schemas);
            Portion::schemas(schemas);
        }
    }
}
