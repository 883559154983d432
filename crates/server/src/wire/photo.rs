//! Photos of baked pieces on the wire.

use super::sentence::{SentenceView, say};
use super::view;
use base64::Engine as _;
use ready_slab_camera::{MadeUpBake, MadeUpPhoto, made_up_photo};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::geometry::{Outline, PaperSize};
use ready_slab_core::job::OnPhoto;
use ready_slab_core::ledger::{Grown, MeasuredPiece, PhotoAsked, PhotoCutter, PhotoMeasures, measure_photo};
use ready_slab_core::oven::EdgeColour;
use ready_slab_core::units::Length;
use ready_slab_words::photo_found;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// How a photo of baked pieces is to be measured.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BakePhotoQuery {
    /// Of the paper they lie on.
    #[param(inline)]
    pub paper: PaperSize,
    /// The paper's corners going round, as shares of the picture's width and height: eight numbers with commas between. Looked for when absent.
    pub corners: Option<String>,
    /// How thick the pieces are, 0 to 40 mm; as forecast when absent.
    pub thickness_mm: Option<f64>,
    /// Places on the paper, mm from its first corner, where there is a piece that was not found: x and y in turn with commas between.
    pub pointed_mm: Option<String>,
}

fn numbers(field: &str, text: &str) -> Result<Vec<f64>, InputErrors> {
    let read = |n: &str| n.trim().parse::<f64>().ok().filter(|v| v.is_finite());
    let all: Option<Vec<f64>> = text.split(',').map(read).collect();
    all.ok_or_else(|| InputError::refused(field, "Use numbers separated by commas.").into())
}

impl BakePhotoQuery {
    /// Measures the photo.
    pub fn measure(
        &self,
        file: &[u8],
        cutters: Vec<PhotoCutter>,
        forecast: Length,
    ) -> Result<PhotoMeasures, InputErrors> {
        let eight =
            || InputErrors::from(InputError::refused("corners", "Use 8 numbers from 0 to 1, separated by commas."));
        let corners = match &self.corners {
            None => None,
            Some(text) => {
                let n = <[f64; 8]>::try_from(numbers("corners", text)?).map_err(|_| eight())?;
                Some([(n[0], n[1]), (n[2], n[3]), (n[4], n[5]), (n[6], n[7])])
            }
        };
        let flat = self.pointed_mm.as_deref().map_or(Ok(vec![]), |text| numbers("pointed_mm", text))?;
        if flat.len() % 2 == 1 {
            return Err(InputError::refused("pointed_mm", "Give pairs of x and y.").into());
        }
        let thickness = match self.thickness_mm {
            Some(mm) if !mm.is_finite() => {
                return Err(InputError::refused("thickness_mm", "Use 0 to 40 mm.").into());
            }
            Some(mm) => Length::new_mm(mm),
            None => forecast,
        };
        let pointed = flat.chunks_exact(2).map(|p| (p[0], p[1])).collect();
        measure_photo(file, &PhotoAsked { paper: self.paper, corners, cutters, thickness, pointed })
    }
}

/// A colour, CIE 1976 for the illuminant D65, by the paper.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LabView {
    /// Lightness, 0 to 100.
    pub l: f64,
    /// Green to red.
    pub a: f64,
    /// Blue to yellow.
    pub b: f64,
}

impl From<[f64; 3]> for LabView {
    fn from([l, a, b]: [f64; 3]) -> Self {
        Self { l, a, b }
    }
}

fn pairs(points: &[(f64, f64)]) -> Vec<[f64; 2]> {
    points.iter().map(|p| [p.0, p.1]).collect()
}

view! {
    /// A piece of a photo.
    pub struct MeasuredPieceView(p: &MeasuredPiece) {
        let grown = |of: fn(&Grown) -> f64| p.grown.as_ref().map(|g| 100.0 * of(g));

        /// Its outline on the paper where it touches it, mm from the paper's first corner.
        on_paper_mm: Vec<[f64; 2]> = pairs(&p.ring),
        /// The same where its top is seen on the paper.
        seen_mm: Vec<[f64; 2]> = pairs(&p.rim),
        /// Its cutter, from 0, of those that were given; absent where it fits none.
        cutter: Option<usize> = p.cutter.map(|c| c.0),
        /// How it is turned from how its cutter was drawn.
        turn_degrees: Option<f64> = p.cutter.map(|c| c.1),
        /// The longer side of its cutter as it is now; its own longest way where that is not known.
        width_mm: f64 = p.width.mm(),
        /// The other side.
        other_mm: f64 = p.other.mm(),
        /// What it covers.
        area_mm2: f64 = p.area.mm2(),
        /// How round it is: 4 pi times its area over the square of its edge, 1 of a circle.
        roundness: f64 = p.roundness,
        /// Growth along the cutter's longer side.
        spread_percent: Option<f64> = grown(|g| g.along.value()),
        /// Along its shorter side.
        spread_across_percent: Option<f64> = grown(|g| g.across.value()),
        /// Of its area.
        area_grown_percent: Option<f64> = grown(|g| g.area.value()),
        /// Colour of the middle.
        middle: Option<LabView> = p.middle.map(Into::into),
        /// Of the edge.
        edge: Option<LabView> = p.edge.map(Into::into),
        /// Middles of places that are darker than the rest, where they are seen on the paper.
        dark_mm: Vec<[f64; 2]> = p.dark.iter().map(|d| [d.seen_at.0, d.seen_at.1]).collect(),
        /// It lay against another and was cut off from it.
        was_touching: bool = p.was_touching,
    }
}

view! {
    /// What was found on a sheet of paper.
    pub struct PhotoFoundView(m: &PhotoMeasures) {
        let (width, height) = m.paper_mm;

        /// The paper's corners as shares of the picture's width and height, as given or found.
        corners: Vec<[f64; 2]> = pairs(&m.corners),
        /// Of the paper as it lies.
        paper_width_mm: f64 = width,
        /// Of the paper as it lies.
        paper_height_mm: f64 = height,
        /// How far the camera looked aside from straight down.
        tilt_degrees: f64 = m.tilt_deg,
        /// How high over the paper it was.
        camera_height_mm: f64 = m.camera_height.mm(),
        /// The pieces, as one reads.
        pieces: Vec<MeasuredPieceView> = m.pieces.iter().map(Into::into).collect(),
        /// What was found, in a line.
        headline: SentenceView = photo_found(m).into(),
        /// What is to be minded.
        notes: Vec<SentenceView> = m.notes().iter().map(say).collect(),
        /// The edges as bakers name them, by their mean colour; of a cocoa dough it tells nothing.
        edge_colour: Option<EdgeColour> = m.edge_colour(),
    }
}

/// What was found on a photo, to be approved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakePhotoView {
    /// What was found.
    #[serde(flatten)]
    pub found: PhotoFoundView,
    /// Names of the cutters, in the order in which pieces name them.
    pub cutters: Vec<String>,
    /// The paper from straight above, as a data address of a JPEG.
    pub picture: String,
}

/// The paper from above as a file to be kept.
pub fn photo_file(found: &PhotoMeasures) -> Result<Vec<u8>, InputErrors> {
    found.as_jpeg().map_err(|_| {
        InputError::refused("photo", "Can\u{2019}t straighten this photo. Mark the corners of the paper again.").into()
    })
}

impl BakePhotoView {
    /// With the picture in it.
    pub fn new(found: &PhotoMeasures, cutters: Vec<String>) -> Result<Self, InputErrors> {
        let jpeg = base64::engine::general_purpose::STANDARD.encode(photo_file(found)?);
        Ok(Self { found: found.into(), cutters, picture: format!("data:image/jpeg;base64,{jpeg}") })
    }
}

/// What photo is to be made up.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct MadeUpPhotoQuery {
    /// Of the paper.
    #[param(inline)]
    pub paper: PaperSize,
    /// All chances follow from it.
    #[serde(default)]
    pub seed: u32,
}

impl MadeUpPhotoQuery {
    /// Makes it of pieces as they are expected.
    pub fn photo(&self, expected: &OnPhoto, outline: &Outline) -> Result<Vec<u8>, InputErrors> {
        let OnPhoto { spread, thickness, middle, edge } = *expected;
        let bake = MadeUpBake { outline, spread, thickness, middle, edge };
        let photo = MadeUpPhoto::of_a_bake(&bake, self.paper, self.seed.into())?;
        let unwritten =
            |_| InputErrors::from(InputError::refused("photo", "Couldn’t make the picture. Try another photo."));
        Ok(made_up_photo(&photo).map_err(unwritten)?.file)
    }
}
