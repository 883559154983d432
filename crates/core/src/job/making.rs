//! How the pieces of a lot are made: cut from a sheet, sliced from a log or bar, or portioned.

use crate::error::{Checks, InputErrors};
use crate::shape::{LogForm, Portion};
use crate::units::Length;

/// A log across, mm: thinner breaks when it is sliced, thicker gives slices larger than a hand. Common practice, no source.
const LOG_ACROSS_MM: (f64, f64) = (15.0, 120.0);
/// How the pieces are made.
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
    },
    /// By hand, scoop, rope, press or over the tray.
    Portioned(Portion),
}

impl Making {
    /// The same with its sizes checked.
    pub fn checked(self) -> Result<Self, InputErrors> {
        match self {
            Self::Cut => Ok(Self::Cut),
            Self::Sliced { form, width } => {
                let mut checks = Checks::new();
                let form = checks.take("making", form.checked());
                let (least, most) = LOG_ACROSS_MM;
                checks.range("making.width_mm", width.mm(), least, most, "mm");
                if let Some(form) = form {
                    checks.range("making.height_mm", form.height(width).mm(), least / 2.0, most, "mm");
                }
                checks.finish(self)
            }
            Self::Portioned(portion) => Ok(Self::Portioned(portion.checked().map_err(|e| e.within("making"))?)),
        }
    }
}
