//! Cutters on the wire.

use super::BuiltinWord;
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, read_svg};
use ready_slab_core::units::Length;
use ready_slab_store::StoredCutter;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cutter on the shelf.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CutterView {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// `svg`, or the word of a built-in form.
    pub origin: String,
    /// Box around it.
    pub width_mm: f64,
    /// Box around it.
    pub height_mm: f64,
    /// Inside the outline.
    pub area_mm2: f64,
    /// Length of the cutting edge.
    pub perimeter_mm: f64,
    /// Narrowest neck; absent when it has none.
    pub neck_mm: Option<f64>,
    /// What to mind, as a sentence; absent when nothing.
    pub warning: Option<String>,
    /// The outline, centred, y downwards.
    pub outline_mm: Vec<[f64; 2]>,
}

impl From<&StoredCutter> for CutterView {
    fn from(stored: &StoredCutter) -> Self {
        let (width, height) = stored.outline.extent();
        Self {
            id: stored.id.0,
            name: stored.name.clone(),
            origin: stored.origin.clone(),
            width_mm: width.mm(),
            height_mm: height.mm(),
            area_mm2: stored.outline.area().mm2(),
            perimeter_mm: stored.outline.perimeter().mm(),
            neck_mm: stored.neck.map(|n| n.mm()),
            warning: stored.neck.and_then(ready_slab_core::geometry::neck_warning),
            outline_mm: stored.outline.points().iter().map(|p| [p.0, p.1]).collect(),
        }
    }
}

/// A cutter to be added: a built-in form of a size, or an SVG file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum NewCutter {
    /// A built-in form.
    Builtin {
        /// Its name, 1 to 80 characters.
        name: String,
        /// Which.
        form: BuiltinWord,
        /// Across, 8 to 400.
        width_mm: f64,
        /// Along, for forms with two sizes.
        #[serde(default)]
        height_mm: Option<f64>,
    },
    /// A file.
    Svg {
        /// Its name, 1 to 80 characters.
        name: String,
        /// The file's text, at most 1 MB.
        svg: String,
        /// To be scaled to this width; true size when absent.
        #[serde(default)]
        width_mm: Option<f64>,
    },
}

impl NewCutter {
    /// Name, origin and outline; fails naming the field at fault.
    pub fn build(&self) -> Result<(String, String, Outline), InputErrors> {
        let mut checks = Checks::new();
        match self {
            Self::Builtin { name, form, width_mm, height_mm } => {
                checks.text("name", name, 80, "a name");
                checks.finish(())?;
                let kind = BuiltinKind::from(*form);
                let outline = Builtin::new(kind, *width_mm, height_mm.unwrap_or(*width_mm))?.outline()?;
                Ok((name.trim().to_owned(), kind.word().to_owned(), outline))
            }
            Self::Svg { name, svg, width_mm } => {
                checks.text("name", name, 80, "a name");
                if let Some(width) = width_mm {
                    checks.range("width_mm", *width, 8.0, 400.0, "mm");
                }
                checks.finish(())?;
                let outline = read_svg(svg, width_mm.map(Length::new_mm))?;
                Ok((name.trim().to_owned(), "svg".to_owned(), outline))
            }
        }
    }
}
