//! Baked pieces on a sheet of paper, measured from a photo: how large each is, how it grew, how round it is and what colour it has.
//!
//! The paper's corners tell how the camera stood; the light is taken out by the paper itself; what is not paper is a piece, and of what stands up from
//! the paper the foot is worked out. How, and how well, stands in docs/ledger.md.

mod light;
mod look;
mod matched;
mod notes;
mod paper;
mod pieces;
mod pose;
mod sheet;

use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::{
    NarrowKind, Outline, PaperSize, PlaceOnPiece, check_corners, from_above, length, narrow_parts, read_picture,
    signed_area,
};
use crate::units::{Area, Length, Share};
use image::codecs::jpeg::JpegEncoder;
use image::{Rgb, RgbImage, imageops};
use light::Light;
use matched::{Form, as_drawn, centre, extent, lie, turned};
use pieces::{Patch, Stands, foot, pointed_at, seen};
use pose::Seen;
use sheet::{PX_PER_MM, Sheet};

pub use notes::PhotoNote;

/// Larger files are refused before they are unpacked.
pub const BAKE_PHOTO_LIMIT_BYTES: usize = 25_000_000;
/// A camera may look so far aside from straight down, degrees: what stands up hides its own foot beyond that.
pub const MOST_TILT_DEG: f64 = 25.0;
/// And is refused from here on: how it stood is known to about two degrees.
const REFUSED_TILT_DEG: f64 = 28.0;
/// Most pieces of one photo, and most places pointed at.
pub const MOST_PIECES: usize = 60;
const MOST_CUTTERS: usize = 12;
/// Corners that are off by more, of the picture's diagonal, are not those of the sheet.
const OFF: f64 = 0.002;
/// A larger picture is made smaller first: its noise evens out, and A4 still has eight pixels to the millimetre.
const MOST_SIDE_PX: u32 = 2_400;
/// So much of the paper may be as white as the camera can tell, before it is said.
const BURNT_OUT: f64 = 0.3;
/// Photos are kept with at most so many pixels, and at this quality of JPEG.
const KEPT_PIXELS: u32 = 2_000_000;
const KEPT_QUALITY: u8 = 82;
/// A dark place is at a point of the cutter within this, mm.
const AT_POINT_MM: f64 = 9.0;

/// A cutter that pieces may have been cut with.
#[derive(Debug, Clone, Copy)]
pub struct PhotoCutter<'a> {
    /// As it cuts.
    pub outline: &'a Outline,
    /// Growth across that is expected; it helps to tell two sizes of one form apart.
    pub spread: Share,
}

/// What is asked of a photo.
#[derive(Debug, Clone)]
pub struct PhotoAsked<'a> {
    /// The paper.
    pub paper: PaperSize,
    /// Its corners as shares of the picture's width and height, going round; looked for where absent.
    pub corners: Option<[(f64, f64); 4]>,
    /// Cutters that may be there, up to 12; without any, pieces are measured as they lie.
    pub cutters: Vec<PhotoCutter<'a>>,
    /// How thick the pieces are, 0 to 40 mm.
    pub thickness: Length,
    /// Places on the paper, mm from its first corner, where there is a piece that was not found.
    pub pointed: Vec<(f64, f64)>,
}

/// A place on a piece that is darker than the rest.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DarkPlace {
    /// Where it lies on the paper, mm.
    pub at: (f64, f64),
    /// Where it is seen on the paper.
    pub seen_at: (f64, f64),
    /// Where on the piece, as its cutter was drawn; nothing where that is not known.
    pub place: Option<PlaceOnPiece>,
    /// Whether at a point of the cutter.
    pub at_point: bool,
    /// Whether at the edge.
    pub at_edge: bool,
}

/// How a piece has grown, of what was cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Grown {
    /// Along the cutter's longer side.
    pub along: Share,
    /// Along its shorter side.
    pub across: Share,
    /// Of its area.
    pub area: Share,
}

/// A piece of a photo.
#[derive(Debug, Clone, PartialEq)]
pub struct MeasuredPiece {
    /// Its outline on the paper, mm from the first corner, where it touches the paper.
    pub ring: Vec<(f64, f64)>,
    /// The same at its rim, where its top is seen on the paper from where the camera was.
    pub rim: Vec<(f64, f64)>,
    /// Its cutter, by its place among those given, and how it is turned from how that was drawn, degrees.
    pub cutter: Option<(usize, f64)>,
    /// The longer side of its cutter as it is now; its own longest where that is not known.
    pub width: Length,
    /// The other side.
    pub other: Length,
    /// What it covers.
    pub area: Area,
    /// How round it is: 4 pi times its area over the square of its edge, 1 of a circle.
    pub roundness: f64,
    /// How it has grown, where its cutter is known.
    pub grown: Option<Grown>,
    /// Colour of the middle, L*, a* and b*, by the paper; nothing of a piece too narrow for a middle.
    pub middle: Option<[f64; 3]>,
    /// Of its edge.
    pub edge: Option<[f64; 3]>,
    /// What is darker than the rest.
    pub dark: Vec<DarkPlace>,
    /// It lay against another, and was cut off from it where both are narrow.
    pub was_touching: bool,
}

/// What was found on a sheet of paper.
#[derive(Debug, Clone)]
pub struct PhotoMeasures {
    /// The paper's corners as shares of the picture, as they were given or found.
    pub corners: [(f64, f64); 4],
    /// The paper as it lies, mm.
    pub paper_mm: (f64, f64),
    /// How far the camera looked aside from straight down, degrees.
    pub tilt_deg: f64,
    /// How high over the paper it was.
    pub camera_height: Length,
    /// The pieces, from above to below and left to right.
    pub pieces: Vec<MeasuredPiece>,
    /// So many lie over the paper's edge and were left out.
    pub over_the_edge: u32,
    /// Places pointed at where there is nothing to be told from the paper.
    pub nothing_at: Vec<(f64, f64)>,
    /// The paper is as white as the camera can tell: colours are too light then.
    pub burnt_out: bool,
    /// The paper from above.
    above: RgbImage,
}

impl PhotoMeasures {
    /// The paper from straight above as a JPEG file of at most two million pixels, with nothing of the camera's in it.
    pub fn as_jpeg(&self) -> Result<Vec<u8>, image::ImageError> {
        let (w, h) = self.above.dimensions();
        let by = (f64::from(KEPT_PIXELS) / (f64::from(w) * f64::from(h))).sqrt();
        let mut file = Vec::new();
        let mut encoder = JpegEncoder::new_with_quality(&mut file, KEPT_QUALITY);
        if by >= 1.0 {
            encoder.encode_image(&self.above)?;
        } else {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "smaller than it was")]
            let side = |px: u32| (f64::from(px) * by).floor() as u32;
            encoder.encode_image(&imageops::thumbnail(&self.above, side(w), side(h)))?;
        }
        Ok(file)
    }
}

fn refused(field: &str, why: impl Into<String>) -> InputErrors {
    InputError::refused(field, why.into()).into()
}

/// Measures what lies on a sheet of paper.
///
/// Fails, naming what, where the file is no picture, the paper is not seen, the camera looked too far aside, or nothing lies there.
pub fn measure_photo(file: &[u8], asked: &PhotoAsked) -> Result<PhotoMeasures, InputErrors> {
    let mut checks = Checks::new();
    checks.range("thickness_mm", asked.thickness.mm(), 0.0, 40.0, "mm");
    checks.limit("cutters", asked.cutters.len(), MOST_CUTTERS, "cutters");
    checks.limit("pointed", asked.pointed.len(), MOST_PIECES, "spots");
    checks.finish(())?;
    if let Some(corners) = &asked.corners {
        check_corners(corners)?;
    }
    let mut picture = read_picture(file, BAKE_PHOTO_LIMIT_BYTES)?;
    if picture.pixels.width().max(picture.pixels.height()) > MOST_SIDE_PX {
        picture.pixels = picture.pixels.thumbnail(MOST_SIDE_PX, MOST_SIDE_PX);
    }
    let corners = match asked.corners {
        Some(corners) => corners,
        None => paper::find(&picture.pixels).ok_or_else(|| {
            refused(
                "corners",
                "Can’t find the paper. Lay white paper on something darker, all of it in view, or mark its corners.",
            )
        })?,
    };
    let size = (f64::from(picture.pixels.width()), f64::from(picture.pixels.height()));
    let corners_px = corners.map(|(x, y)| (x * size.0, y * size.1));
    let paper_mm = asked.paper.lies(&corners_px);
    let seen_by = Seen { picture_px: size, corners_px, paper_mm, focal_35mm: picture.focal_35mm };
    let pose =
        seen_by.pose().ok_or_else(|| refused("corners", "The 4 corners are in one line. Mark the paper’s corners."))?;
    let other = Seen { paper_mm: asked.paper.other().lies(&corners_px), ..seen_by };
    let by_other = other.pose().map_or(f64::MAX, |p| p.off_px);
    if pose.off_px > OFF * size.0.hypot(size.1) && by_other < 0.3 * pose.off_px {
        return Err(refused("paper", "These corners fit the other paper size. Choose A4 or Letter to match."));
    }
    let tilt_deg = pose.tilt_deg();
    if tilt_deg > REFUSED_TILT_DEG {
        return Err(refused(
            "photo",
            format!("Camera tilted {tilt_deg:.0}° (limit {MOST_TILT_DEG:.0}°). Hold it straight above the paper."),
        ));
    }
    let above = from_above(&picture.pixels.into_rgb8(), corners_px, paper_mm, PX_PER_MM, Rgb([255; 3]))?;
    let bright = above.pixels().filter(|p| p.0.iter().all(|v| *v >= 254)).count();
    #[expect(clippy::cast_precision_loss, reason = "some million")]
    let burnt_out = bright as f64 > BURNT_OUT * above.pixels().len() as f64;
    let raw = Sheet::new(&above, paper_mm);
    let light = Light::of(&raw).ok_or_else(|| {
        refused("photo", "That doesn’t look like white paper. Leave some of the sheet free, with no sharp shadows.")
    })?;
    let sheet = light.taken_out(&raw);
    let stands = Stands::new(pose.over(), asked.thickness.mm());
    let forms: Vec<Form> = asked.cutters.iter().map(|c| Form::new(c.outline, c.spread.value())).collect();
    let (mut patches, over_the_edge) = seen(&sheet);
    let mut nothing_at = vec![];
    for at in &asked.pointed {
        match pointed_at(&sheet, *at) {
            Some(patch) if !patches.iter().any(|p| p.shares_with(&patch)) => patches.push(patch),
            Some(_) => {}
            None => nothing_at.push(*at),
        }
    }
    let feet = patches.iter().filter_map(|p| foot(p, &stands)).flat_map(|f| alone(f, &forms));
    let mut pieces: Vec<MeasuredPiece> =
        feet.filter_map(|(foot, touching)| measured(&sheet, &foot, &stands, &forms, touching)).collect();
    if pieces.is_empty() {
        return Err(refused("photo", "No cookies found. Lay them on the paper with space around each."));
    }
    if pieces.len() > MOST_PIECES {
        return Err(refused("photo", format!("{} cookies found; {MOST_PIECES} at most. Take some off.", pieces.len())));
    }
    // As one reads: rows of half a piece.
    #[expect(clippy::cast_precision_loss, reason = "up to sixty")]
    let row = pieces.iter().map(|p| p.area.mm2().sqrt()).sum::<f64>() / pieces.len() as f64;
    pieces.sort_by(|a, b| {
        let (a, b) = (centre(&a.ring), centre(&b.ring));
        (a.1 / row).round().total_cmp(&(b.1 / row).round()).then(a.0.total_cmp(&b.0))
    });
    let camera_height = Length::new_mm(pose.over().1);
    Ok(PhotoMeasures {
        corners,
        paper_mm,
        tilt_deg,
        camera_height,
        pieces,
        over_the_edge,
        nothing_at,
        burnt_out,
        above,
    })
}

/// A piece by itself, or those that it falls into where it fits no cutter and they do.
fn alone(patch: Patch, forms: &[Form]) -> Vec<(Patch, bool)> {
    let off = |p: &Patch| p.ring().and_then(|r| lie(&r, forms)).map(|l| l.off);
    let whole = off(&patch);
    let tried = forms.iter().filter_map(|f| patch.apart(f.expected_mm2()));
    let fits = |parts: &Vec<Patch>| -> Option<f64> {
        parts.iter().map(off).try_fold(0.0_f64, |most, off| Some(most.max(off?)))
    };
    let best = tried.filter_map(|parts| Some((fits(&parts)?, parts))).min_by(|a, b| a.0.total_cmp(&b.0));
    match best {
        Some((apart, parts)) if whole.is_none_or(|whole| apart < whole) => {
            parts.into_iter().map(|p| (p, true)).collect()
        }
        _ => vec![(patch, false)],
    }
}

fn measured(sheet: &Sheet, foot: &Patch, stands: &Stands, forms: &[Form], was_touching: bool) -> Option<MeasuredPiece> {
    let ring = foot.ring()?;
    let (area, edge) = (signed_area(&ring).abs(), length(&ring));
    let lies = lie(&ring, forms);
    let form = lies.map(|l| (&forms[l.form], l));
    // Along the sides of the cutter; without one along its own longest way.
    let (width, other) = match form {
        Some((form, lie)) => {
            let (x, y) = extent(&as_drawn(&ring, form, lie.turn_deg));
            let (w, h) = form.outline.extent();
            if w >= h { (x, y) } else { (y, x) }
        }
        None => longest(&ring),
    };
    let grown = form.map(|(form, _)| {
        let (w, h) = form.outline.extent();
        let (long, short) = (w.mm().max(h.mm()), w.mm().min(h.mm()));
        let plain = signed_area(&form.outline.points()).abs();
        let by = |now: f64, cut: f64| Share::new(now / cut - 1.0);
        Grown { along: by(width, long), across: by(other, short), area: by(area, plain) }
    });
    let look = look::look(sheet, foot, stands);
    let dark = look.iter().flat_map(|l| &l.dark).map(|(at, at_edge)| {
        let drawn = form.map(|(form, lie)| {
            let c = centre(&ring);
            let (x, y) = turned((at.0 - c.0, at.1 - c.1), -lie.turn_deg);
            let middle = centre(&form.outline.points());
            (form.outline, (x + middle.0, y + middle.1))
        });
        let near = |outline: &Outline, (x, y): (f64, f64)| {
            let points = narrow_parts(outline).into_iter().filter(|p| p.kind == NarrowKind::Point);
            points.into_iter().any(|p| (p.at.0 - x).hypot(p.at.1 - y) < AT_POINT_MM)
        };
        DarkPlace {
            at: *at,
            seen_at: stands.rim(*at),
            place: drawn.map(|(outline, at)| PlaceOnPiece::of(at, outline)),
            at_point: drawn.is_some_and(|(outline, at)| near(outline, at)),
            at_edge: *at_edge,
        }
    });
    Some(MeasuredPiece {
        cutter: lies.map(|l| (l.form, l.turn_deg)),
        width: Length::new_mm(width),
        other: Length::new_mm(other),
        area: Area::new_mm2(area),
        roundness: 4.0 * std::f64::consts::PI * area / (edge * edge),
        grown,
        middle: look.as_ref().map(|l| l.middle),
        edge: look.as_ref().map(|l| l.edge),
        dark: dark.collect(),
        was_touching,
        rim: ring.iter().map(|p| stands.rim(*p)).collect(),
        ring,
    })
}

/// Its longest way from edge to edge between two parallel lines, and the way across that.
fn longest(ring: &[(f64, f64)]) -> (f64, f64) {
    let of = |deg: i32| {
        let turned: Vec<(f64, f64)> = ring.iter().map(|p| turned(*p, f64::from(deg))).collect();
        extent(&turned)
    };
    (0..180).step_by(2).map(of).max_by(|a, b| a.0.total_cmp(&b.0)).unwrap_or((0.0, 0.0))
}
