//! A cutter's outline from a photo: the cutter, or its pencil outline, lies on a sheet of paper whose four corners are
//! shown. Perspective is taken out by the paper, what is darker than the paper around it is followed, and the line smoothed.

use super::outline::Outline;
use super::paper::PaperSize;
use super::picture::{from_above, read_picture};
use super::ring::{length, offset_ring, signed_area as area, smoothed};
use crate::error::{Checks, InputError, InputErrors};
use geo::{LineString, Polygon, Simplify};
use image::codecs::jpeg::JpegEncoder;
use image::{GrayImage, Luma};
use imageproc::contours::{BorderType, Contour, find_contours};
use imageproc::contrast::adaptive_threshold;
use imageproc::distance_transform::Norm;
use imageproc::filter::gaussian_blur_f32;
use imageproc::morphology::close;
use serde::{Deserialize, Serialize};

/// Larger files are refused before they are unpacked.
pub const PHOTO_LIMIT_BYTES: usize = 6_000_000;

/// Pixels to the millimetre after the perspective is out. A phone's picture of A4 has 8 to 14.
const PX_PER_MM: f32 = 4.0;
/// What counts as near when a pixel is compared with the paper around it, mm.
const AROUND_MM: f32 = 10.0;
/// So much darker than around it, of 255. Our own choice: pencil on paper differs by 40 and more, noise after blurring by 5.
const DARKER: i32 = 18;
/// Gaps in a line up to twice this are closed, px.
const CLOSED_PX: u8 = 3;
/// What lies so near to the paper's edge is not looked at, mm.
const PAPER_EDGE_MM: f64 = 3.0;
/// How far points may be left out, mm.
const THINNED_MM: f64 = 0.06;

/// Which edge of what is dark is the cutter's.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DarkEdge {
    /// The outer edge: a solid form, a tin standing on its cutting edge.
    Outside,
    /// The middle of a line drawn along the cutter.
    Middle,
    /// The inner edge: a line drawn around the cutter.
    Inside,
}

/// What was found.
#[derive(Debug, Clone)]
pub struct PhotoReading {
    /// The outline, centred.
    pub outline: Outline,
    /// Where its centre lies on the paper, from the first corner, mm.
    pub centre_mm: (f64, f64),
    /// Of the paper as it lies, mm.
    pub paper_mm: (f64, f64),
    /// The paper without its perspective, in grey.
    pub paper: GrayImage,
}

impl PhotoReading {
    /// The paper as a JPEG file, to be shown under the outline.
    pub fn paper_as_jpeg(&self) -> Result<Vec<u8>, image::ImageError> {
        let mut file = Vec::new();
        JpegEncoder::new_with_quality(&mut file, 70).encode_image(&self.paper)?;
        Ok(file)
    }
}

/// The outline of what lies on a sheet of paper. `corners` are the paper's corners in the picture as shares of its width and
/// height, going round.
///
/// Fails when the file is no picture or too large, when the corners do not go round, and when nothing closed is found.
pub fn outline_from_photo(
    file: &[u8],
    corners: [(f64, f64); 4],
    paper: PaperSize,
    edge: DarkEdge,
) -> Result<PhotoReading, InputErrors> {
    check_corners(&corners)?;
    let picture = read_picture(file, PHOTO_LIMIT_BYTES)?.pixels.into_luma8();
    let size = (f64::from(picture.width()), f64::from(picture.height()));
    let corners_px = corners.map(|(x, y)| (x * size.0, y * size.1));
    let paper_mm = paper.lies(&corners_px);
    let rectified = from_above(&picture, corners_px, paper_mm, f64::from(PX_PER_MM), Luma([255]))?;
    let smooth = gaussian_blur_f32(&rectified, 1.0);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "40 px")]
    let radius = (AROUND_MM * PX_PER_MM) as u32;
    let mut dark = adaptive_threshold(&smooth, radius, DARKER);
    for pixel in dark.pixels_mut() {
        pixel.0[0] = 255 - pixel.0[0];
    }
    let dark = close(&dark, Norm::LInf, CLOSED_PX);
    let (ring, thick) = largest(&find_contours::<i32>(&dark), paper_mm, edge)?;
    let ring = match edge {
        DarkEdge::Outside | DarkEdge::Inside => Some(ring),
        DarkEdge::Middle => offset_ring(&ring, -thick / 2.0),
    };
    let ring = ring.map(|ring| smoothed(&ring)).ok_or_else(nothing)?;
    let thinned = Polygon::new(LineString::from(ring), vec![]).simplify(THINNED_MM);
    let points: Vec<(f64, f64)> = thinned.exterior().0.iter().map(|c| (c.x, c.y)).collect();
    let middle = |f: fn(&(f64, f64)) -> f64| {
        let (low, high) = points.iter().map(f).fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
        f64::midpoint(low, high)
    };
    let centre_mm = (middle(|p| p.0), middle(|p| p.1));
    Ok(PhotoReading { outline: Outline::new(&points)?, centre_mm, paper_mm, paper: rectified })
}

fn nothing() -> InputErrors {
    InputError::refused("photo", "No closed outline found. Lay the paper flat in even light. Draw a dark, closed line.")
        .into()
}

/// Whether the corners lie in the picture and go round without crossing.
pub(crate) fn check_corners(corners: &[(f64, f64); 4]) -> Result<(), InputErrors> {
    let mut checks = Checks::new();
    for (i, (x, y)) in corners.iter().enumerate() {
        checks.range(&format!("corners[{i}].x"), *x, -0.2, 1.2, "of the width");
        checks.range(&format!("corners[{i}].y"), *y, -0.2, 1.2, "of the height");
    }
    checks.finish(())?;
    let turn = |i: usize| {
        let (a, b, c) = (corners[i], corners[(i + 1) % 4], corners[(i + 2) % 4]);
        (b.0 - a.0) * (c.1 - b.1) - (b.1 - a.1) * (c.0 - b.0)
    };
    let turns: Vec<f64> = (0..4).map(turn).collect();
    if turns.iter().all(|t| *t > 1e-4) || turns.iter().all(|t| *t < -1e-4) {
        return Ok(());
    }
    Err(InputError::refused("corners", "Mark the 4 corners in order, around the paper.").into())
}

/// The outer border that encloses most (or the hole within it), in millimetres, and how thick its line is.
fn largest(
    contours: &[Contour<i32>],
    paper_mm: (f64, f64),
    edge: DarkEdge,
) -> Result<(Vec<(f64, f64)>, f64), InputErrors> {
    let px = f64::from(PX_PER_MM);
    let in_mm = |c: &Contour<i32>| -> Vec<(f64, f64)> {
        c.points.iter().map(|p| ((f64::from(p.x) + 0.5) / px, (f64::from(p.y) + 0.5) / px)).collect()
    };
    let inside = |ring: &[(f64, f64)]| {
        ring.iter().all(|(x, y)| {
            *x > PAPER_EDGE_MM
                && *y > PAPER_EDGE_MM
                && *x < paper_mm.0 - PAPER_EDGE_MM
                && *y < paper_mm.1 - PAPER_EDGE_MM
        })
    };
    let best = contours
        .iter()
        .enumerate()
        .filter(|(_, c)| c.border_type == BorderType::Outer && c.points.len() > 8)
        .map(|(i, c)| (i, in_mm(c)))
        .filter(|(_, ring)| inside(ring))
        .max_by(|a, b| area(&a.1).abs().total_cmp(&area(&b.1).abs()))
        .ok_or_else(nothing)?;
    let (index, outer) = best;
    let (low, high) = outer.iter().fold(((f64::MAX, f64::MAX), (f64::MIN, f64::MIN)), |(l, h), p| {
        ((l.0.min(p.0), l.1.min(p.1)), (h.0.max(p.0), h.1.max(p.1)))
    });
    // A line that does not close is followed along both its sides and encloses next to nothing.
    if area(&outer).abs() < 0.1 * (high.0 - low.0) * (high.1 - low.1) {
        return Err(InputError::refused(
            "photo",
            "The outline isn’t closed. Fill the gap with the pencil and retake the photo.",
        )
        .into());
    }
    let hole = contours
        .iter()
        .filter(|c| c.border_type == BorderType::Hole && c.parent == Some(index))
        .map(in_mm)
        .max_by(|a, b| area(a).abs().total_cmp(&area(b).abs()));
    // Borders run through the middles of dark pixels; the edge is half a pixel further out, or in.
    let half = 0.5 / px;
    let outer = offset_ring(&outer, half).ok_or_else(nothing)?;
    let inner = hole.filter(|h| area(h).abs() > 0.3 * area(&outer).abs()).and_then(|h| offset_ring(&h, -half));
    let thick = inner.as_ref().map_or(0.0, |inner| {
        2.0 * (area(&outer).abs() - area(inner).abs()) / (length(&outer) + length(inner)).max(1e-9)
    });
    match (edge, inner) {
        (DarkEdge::Inside, Some(inner)) => Ok((inner, thick)),
        (DarkEdge::Inside, None) => {
            Err(InputError::refused("edge", "No inner edge found: it’s solid. Choose the outer edge.").into())
        }
        (DarkEdge::Outside | DarkEdge::Middle, _) => Ok((outer, thick)),
    }
}
