//! Cutters on the wire.

use super::{SentenceView, say, view};
use base64::Engine as _;
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::geometry::DarkEdge;
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::geometry::{
    Builtin, BuiltinKind, Outline, PhotoReading, neck_warning, outline_from_photo, read_svg,
};
use ready_slab_core::units::Length;
use ready_slab_store::StoredCutter;
use ready_slab_words::Name;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

view! {
    /// A cutter on the shelf.
    pub struct CutterView(stored: &StoredCutter) {
        let (width, height) = stored.outline.extent();

        /// Its number.
        id: i64 = stored.id.0,
        /// Its name.
        name: String = stored.name.clone(),
        /// `svg`, or the word of a built-in form.
        origin: String = stored.origin.clone(),
        /// Box around it.
        width_mm: f64 = width.mm(),
        /// Box around it.
        height_mm: f64 = height.mm(),
        /// Inside the outline.
        area_mm2: f64 = stored.outline.area().mm2(),
        /// Length of the cutting edge.
        perimeter_mm: f64 = stored.outline.perimeter().mm(),
        /// Narrowest neck; absent when it has none.
        neck_mm: Option<f64> = stored.neck.map(|n| n.mm()),
        /// What to mind, as a sentence; absent when nothing.
        warning: Option<SentenceView> = stored.neck.and_then(neck_warning).as_ref().map(say),
        /// The outline, centred, y downwards.
        outline_mm: Vec<[f64; 2]> = ring(&stored.outline.points()),
        /// Its holes, about the same centre.
        holes_mm: Vec<Vec<[f64; 2]>> = stored.outline.holes().iter().map(|hole| ring(hole)).collect(),
    }
}

view! {
    /// A built-in form, as it looks at its usual size.
    pub struct FormView(kind: BuiltinKind, outline: &Outline) {
        let (width, height) = outline.extent();

        /// Which.
        form: BuiltinKind = kind,
        /// Its name.
        name: String = kind.name().to_owned(),
        /// Its second size, along; of a ring, its hole. Null where it has one size.
        usual_second_mm: Option<f64> = kind.usual_second_mm(),
        /// What it is usually sold as, across; a letter, high.
        usual_mm: f64 = kind.usual_mm(),
        /// Box around it.
        width_mm: f64 = width.mm(),
        /// Box around it.
        height_mm: f64 = height.mm(),
        /// The outline, centred, y downwards.
        outline_mm: Vec<[f64; 2]> = ring(&outline.points()),
        /// Its holes, about the same centre.
        holes_mm: Vec<Vec<[f64; 2]>> = outline.holes().iter().map(|hole| ring(hole)).collect(),
    }
}

/// All built-in forms, in the order in which they are offered.
pub fn forms() -> Result<Vec<FormView>, InputErrors> {
    let form = |kind: BuiltinKind| Ok(FormView::new(kind, &Builtin::usual(kind)?.outline()?));
    BuiltinKind::ALL.into_iter().map(form).collect()
}

/// A closed ring as it is sent.
pub fn ring(points: &[(f64, f64)]) -> Vec<[f64; 2]> {
    points.iter().map(|p| [p.0, p.1]).collect()
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
        form: BuiltinKind,
        /// Across, 8 to 400.
        width_mm: f64,
        /// Along, for forms with two sizes; of a ring, its hole.
        #[serde(default)]
        height_mm: Option<f64>,
        /// Which letter from A to Z or figure from 0 to 9, of that form.
        #[serde(default)]
        letter: Option<char>,
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
    /// An outline that was read from a photo and approved.
    Outline {
        /// Its name, 1 to 80 characters.
        name: String,
        /// Its corners, y downwards.
        outline_mm: Vec<[f64; 2]>,
        /// Turned over, for the other of a pair.
        #[serde(default)]
        mirrored: bool,
    },
}

impl NewCutter {
    /// Name, origin and outline; fails naming the field at fault.
    pub fn build(&self) -> Result<(String, String, Outline), InputErrors> {
        let mut checks = Checks::new();
        match self {
            Self::Builtin { name, form, width_mm, height_mm, letter } => {
                checks.text("name", name, 80, "a name");
                checks.finish(())?;
                let kind = *form;
                let form = Builtin::new(kind, *width_mm, height_mm.unwrap_or(*width_mm))?;
                let outline = letter.map_or(form, |letter| form.of_letter(letter)).outline()?;
                Ok((name.trim().to_owned(), kind.name().to_owned(), outline))
            }
            Self::Outline { name, outline_mm, mirrored } => {
                checks.text("name", name, 80, "a name");
                checks.finish(())?;
                let points: Vec<(f64, f64)> = outline_mm.iter().map(|p| (p[0], p[1])).collect();
                let outline = Outline::new(&points)?;
                let outline = if *mirrored { outline.mirrored()? } else { outline };
                Ok((name.trim().to_owned(), "outline".to_owned(), outline))
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

/// How a photo is to be read.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct PhotoQuery {
    /// Of the paper it lies on.
    #[param(inline)]
    pub paper: PaperSize,
    /// Which edge of what is dark.
    #[param(inline)]
    pub edge: DarkEdge,
    /// The paper's corners going round, as shares of the picture's width and height: eight numbers with commas between.
    pub corners: String,
}

/// What was read from a photo, to be approved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PhotoView {
    /// The outline as it lies on the paper.
    pub on_paper_mm: Vec<[f64; 2]>,
    /// Of the paper as it lies.
    pub paper_width_mm: f64,
    /// Of the paper as it lies.
    pub paper_height_mm: f64,
    /// Box around the outline.
    pub width_mm: f64,
    /// Box around the outline.
    pub height_mm: f64,
    /// Inside the outline.
    pub area_mm2: f64,
    /// Narrowest neck; absent when it has none.
    pub neck_mm: Option<f64>,
    /// What to mind, as a sentence; absent when nothing.
    pub warning: Option<SentenceView>,
    /// The paper without its perspective, as a data address of a JPEG.
    pub picture: String,
}

impl PhotoQuery {
    /// Reads the photo.
    pub fn answer(&self, file: &[u8]) -> Result<PhotoView, InputErrors> {
        let numbers: Vec<f64> = self.corners.split(',').filter_map(|n| n.trim().parse().ok()).collect();
        let Ok(n) = <[f64; 8]>::try_from(numbers) else {
            return Err(InputError::refused("corners", "Mark all 4 corners: 8 numbers, separated by commas.").into());
        };
        let corners = [(n[0], n[1]), (n[2], n[3]), (n[4], n[5]), (n[6], n[7])];
        PhotoView::new(&outline_from_photo(file, corners, self.paper, self.edge)?)
    }
}

impl PhotoView {
    fn new(read: &PhotoReading) -> Result<Self, InputErrors> {
        let unwritten =
            |_| InputErrors::from(InputError::refused("photo", "Couldn’t straighten the photo. Try another one."));
        let jpeg = read.paper_as_jpeg().map_err(unwritten)?;
        let (width, height) = read.outline.extent();
        let neck = read.outline.narrowest_neck();
        let (x, y) = read.centre_mm;
        Ok(Self {
            on_paper_mm: read.outline.points().iter().map(|p| [p.0 + x, p.1 + y]).collect(),
            paper_width_mm: read.paper_mm.0,
            paper_height_mm: read.paper_mm.1,
            width_mm: width.mm(),
            height_mm: height.mm(),
            area_mm2: read.outline.area().mm2(),
            neck_mm: neck.map(|n| n.mm()),
            warning: neck.and_then(neck_warning).as_ref().map(say),
            picture: format!("data:image/jpeg;base64,{}", base64::engine::general_purpose::STANDARD.encode(jpeg)),
        })
    }
}
