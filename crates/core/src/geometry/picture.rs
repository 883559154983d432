//! Pictures as they come from a camera: refused by their head where they are too large, upright, and with the lens they were taken with.

use crate::error::{InputError, InputErrors};
use exif::{In, Tag};
use image::metadata::Orientation;
use image::{DynamicImage, ImageBuffer, ImageDecoder, ImageReader, Limits, Pixel};
use imageproc::geometric_transformations::{Border, Interpolation, Projection, warp_into};
use std::io::Cursor;

const MOST_PIXELS_A_SIDE: u32 = 12_000;
const LEAST_PIXELS_A_SIDE: u32 = 200;
/// Larger pictures and memory are refused before they are unpacked.
const MOST_PIXELS: u64 = 40_000_000;
const MOST_MEMORY_BYTES: u64 = 200_000_000;
/// The end of a JPEG is looked for in so much of its tail, bytes.
const TAIL: usize = 65_536;

/// A picture.
pub(crate) struct Picture {
    /// Upright as the camera meant it.
    pub(crate) pixels: DynamicImage,
    /// The focal length as on film of 36 by 24 mm, where the file says it.
    pub(crate) focal_35mm: Option<f64>,
}

fn refuse(why: impl Into<String>) -> InputErrors {
    InputError::refused("photo", why.into()).into()
}

/// Brands of pictures in an ISO base media file (ISO/IEC 14496-12, 23008-12): as telephones write them by themselves.
const FOLDED: [&[u8]; 8] = [b"heic", b"heix", b"hevc", b"heim", b"heis", b"mif1", b"msf1", b"avif"];

fn is_folded(file: &[u8]) -> bool {
    file.get(4..8) == Some(b"ftyp") && file.get(8..12).is_some_and(|brand| FOLDED.contains(&brand))
}

/// Reads a JPEG, PNG or WebP of at most `most_bytes`.
///
/// Fails, naming `photo`, where it is none, too large or too small, or breaks off.
pub(crate) fn read_picture(file: &[u8], most_bytes: usize) -> Result<Picture, InputErrors> {
    if file.len() > most_bytes {
        return Err(refuse(format!("The file is over {} MB. Save it smaller.", most_bytes / 1_000_000)));
    }
    if is_folded(file) {
        return Err(refuse("Can’t read HEIC or AVIF. Save or share the photo as JPEG."));
    }
    let no_picture = || refuse("Can’t read this file. Use a JPEG, PNG or WebP photo.");
    let refused = |e: image::ImageError| match e {
        image::ImageError::Limits(_) => refuse(format!(
            "The photo is over {MOST_PIXELS_A_SIDE} pixels on a side, or too big for memory. Save it smaller."
        )),
        _ => no_picture(),
    };
    let mut limits = Limits::default();
    limits.max_image_width = Some(MOST_PIXELS_A_SIDE);
    limits.max_image_height = Some(MOST_PIXELS_A_SIDE);
    limits.max_alloc = Some(MOST_MEMORY_BYTES);
    let mut reader = ImageReader::new(Cursor::new(file)).with_guessed_format().map_err(|_| no_picture())?;
    reader.limits(limits);
    // The end of a JPEG is marked; a file that broke off would be read with its lower part grey.
    if reader.format() == Some(image::ImageFormat::Jpeg) && !file.windows(2).rev().take(TAIL).any(|w| w == [0xff, 0xd9])
    {
        return Err(refuse("The photo is incomplete. Send it again."));
    }
    let mut decoder = reader.into_decoder().map_err(refused)?;
    // What a picture unpacks to stands in its head: it is refused before anything is unpacked.
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_PIXELS {
        return Err(refuse(format!(
            "The photo is {width} × {height} pixels; {} million at most. Save it smaller.",
            MOST_PIXELS / 1_000_000
        )));
    }
    if width < LEAST_PIXELS_A_SIDE || height < LEAST_PIXELS_A_SIDE {
        return Err(refuse(format!(
            "The photo is {width} × {height} pixels. Use at least {LEAST_PIXELS_A_SIDE} on each side."
        )));
    }
    let turned = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let focal_35mm = decoder.exif_metadata().ok().flatten().and_then(focal);
    let mut pixels = DynamicImage::from_decoder(decoder).map_err(refused)?;
    pixels.apply_orientation(turned);
    Ok(Picture { pixels, focal_35mm })
}

fn focal(raw: Vec<u8>) -> Option<f64> {
    let read = exif::Reader::new().read_raw(raw).ok()?;
    let says = read.get_field(Tag::FocalLengthIn35mmFilm, In::PRIMARY)?.value.get_uint(0)?;
    // Zero means unknown (CIPA DC-008).
    Some(f64::from(says)).filter(|mm| (8.0..=400.0).contains(mm))
}

/// A sheet of paper seen from straight above, with so many pixels to the millimetre; `corners_px` are those of the sheet in the picture, going round as its
/// sides `paper_mm` do.
///
/// Fails, naming `corners`, where they lie on one line.
pub(crate) fn from_above<P>(
    picture: &ImageBuffer<P, Vec<u8>>,
    corners_px: [(f64, f64); 4],
    paper_mm: (f64, f64),
    px_per_mm: f64,
    beyond: P,
) -> Result<ImageBuffer<P, Vec<u8>>, InputErrors>
where
    P: Pixel<Subpixel = u8> + Send + Sync,
{
    let (w, h) = (paper_mm.0 * px_per_mm, paper_mm.1 * px_per_mm);
    // Pixels are counted by their middles.
    #[expect(clippy::cast_possible_truncation, reason = "pixels of a picture")]
    let middle = |(x, y): (f64, f64)| ((x - 0.5) as f32, (y - 0.5) as f32);
    let to = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)];
    let projection = Projection::from_control_points(corners_px.map(middle), to.map(middle))
        .ok_or_else(|| InputError::refused("corners", "The 4 corners are in one line. Mark the paper’s corners."))?;
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a sheet of paper has some million")]
    let mut out = ImageBuffer::new(w.round() as u32, h.round() as u32);
    warp_into(picture, projection, Interpolation::Bilinear, Border::Constant(beyond), &mut out);
    Ok(out)
}
