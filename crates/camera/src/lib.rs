//! A stand-in for a camera: a photo of pieces on a sheet of paper, made up from where they lie. It ships with the program to be tried, and is what
//! the reading of photos is tested against; it shares nothing with that but the colours of the CIE.
//!
//! Each pixel is a ray from a pinhole. It meets the top of a piece, its side, the paper or the table; light falls off across the sheet, pieces throw a
//! shadow, then come the lens's blur, the colour of the light, and noise.

use image::codecs::jpeg::JpegEncoder;
use image::{ImageBuffer, Rgb, RgbImage};
use imageproc::filter::gaussian_blur_f32;
use palette::white_point::D65;
use palette::{FromColor, Lab, LinSrgb, Srgb};
use rand::{RngExt as _, SeedableRng as _};
use rand_distr::{Distribution, Normal};
use rand_pcg::Pcg64;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::geometry::{Outline, PaperSize, Placement};
use ready_slab_core::units::{Length, Share};

/// A piece as it lies.
#[derive(Debug, Clone, PartialEq)]
pub struct MadeUpPiece {
    /// Its outline on the paper, mm from the first corner.
    pub ring: Vec<(f64, f64)>,
    /// How high it stands.
    pub thickness_mm: f64,
    /// L*, a* and b* of its middle.
    pub middle: [f64; 3],
    /// And of its edge.
    pub edge: [f64; 3],
    /// Dark places: middle and radius, mm.
    pub dark: Vec<((f64, f64), f64)>,
}

/// A photo to be made up.
#[derive(Debug, Clone, PartialEq)]
pub struct MadeUpPhoto {
    /// The sheet.
    pub paper: PaperSize,
    /// Whether its longer side lies across.
    pub lies_across: bool,
    /// What lies on it; on the table where there is no paper.
    pub pieces: Vec<MadeUpPiece>,
    /// Whether there is a sheet at all.
    pub has_paper: bool,
    /// Width and height of the picture, px.
    pub size_px: (u32, u32),
    /// Focal length, of the picture's diagonal.
    pub focal: f64,
    /// How far the camera looks aside from straight down, to where that is, and how it is turned about its own axis; degrees.
    pub tilt_deg: f64,
    /// To where it stands aside.
    pub around_deg: f64,
    /// Turned about its axis.
    pub roll_deg: f64,
    /// So much of the light is gone at the far side of the sheet, 0 to 0.7.
    pub shadow: f64,
    /// How strong the light is in red, green and blue.
    pub light: [f64; 3],
    /// Blur, px.
    pub blur_px: f64,
    /// Noise, of 255.
    pub noise: f64,
    /// Of the noise.
    pub seed: u64,
}

impl MadeUpPhoto {
    /// A sheet from almost straight above in good light, with nothing on it.
    #[must_use]
    pub fn plain(paper: PaperSize) -> Self {
        Self {
            paper,
            lies_across: true,
            pieces: vec![],
            has_paper: true,
            size_px: (1600, 1200),
            focal: 0.7,
            tilt_deg: 4.0,
            around_deg: 70.0,
            roll_deg: 1.5,
            shadow: 0.1,
            light: [1.0, 0.98, 0.93],
            blur_px: 0.8,
            noise: 2.0,
            seed: 1,
        }
    }

    /// Of the sheet as it lies.
    #[must_use]
    pub fn paper_mm(&self) -> (f64, f64) {
        let (short, long) = self.paper.extent();
        if self.lies_across { (long.mm(), short.mm()) } else { (short.mm(), long.mm()) }
    }
}

/// What a bake may have brought, to be photographed.
#[derive(Debug, Clone, Copy)]
pub struct MadeUpBake<'a> {
    /// The cutter.
    pub outline: &'a Outline,
    /// Growth across, of which each piece has a little more or less.
    pub spread: Share,
    /// How thick the pieces are.
    pub thickness: Length,
    /// L*, a* and b* of their middles.
    pub middle: [f64; 3],
    /// And of their edges.
    pub edge: [f64; 3],
}

/// A piece differs from the others by so much of its width; our own choice.
const DIFFERS: f64 = 0.006;
/// And lies turned by up to so much.
const MOST_TURNED_DEG: f64 = 20.0;
/// Free paper about each piece, mm.
const FREE_MM: f64 = 9.0;
/// So many lie on the sheet at most.
const MOST: usize = 6;

impl MadeUpPhoto {
    /// Up to six pieces of a bake on a sheet, as somebody in a hurry takes them.
    ///
    /// Fails where a piece is larger than the sheet.
    pub fn of_a_bake(bake: &MadeUpBake, paper: PaperSize, seed: u64) -> Result<Self, InputErrors> {
        let mut random = Pcg64::seed_from_u64(seed);
        let mut plain = Self::plain(paper);
        let (w, h) = plain.paper_mm();
        let (pw, ph) = bake.outline.extent();
        let (sin, cos) = MOST_TURNED_DEG.to_radians().sin_cos();
        let larger = 1.0 + bake.spread.value().max(0.0) + DIFFERS;
        let side = |a: f64, b: f64| larger * (a * cos + b * sin) + FREE_MM;
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few")]
        let fit = |whole: f64, side: f64| (whole / side).floor() as usize;
        let (across, down) = (fit(w, side(pw.mm(), ph.mm())), fit(h, side(ph.mm(), pw.mm())));
        if across * down == 0 {
            return Err(InputError::refused("cutter", "Larger than the paper. Use a smaller cutter.").into());
        }
        let mut any = |most: f64| random.random_range(-most..most);
        for i in 0..(across * down).min(MOST) {
            #[expect(clippy::cast_precision_loss, reason = "a few")]
            let middle = |i: usize, n: usize, whole: f64| (i as f64 + 0.5) * whole / n as f64;
            let spread = bake.spread.value() + any(DIFFERS);
            let margin = Length::new_mm(0.5 * spread.max(0.0) * pw.mm().max(ph.mm()));
            let grown = Outline::new(&bake.outline.spread_by(margin))?;
            let at = Placement {
                x_mm: middle(i % across, across, w) + any(2.0),
                y_mm: middle(i / across % down, down, h) + any(2.0),
                turn_deg: any(MOST_TURNED_DEG),
            };
            let mut lab = |of: [f64; 3], by: f64| of.map(|v| v + any(by));
            plain.pieces.push(MadeUpPiece {
                ring: grown.placed(at),
                thickness_mm: bake.thickness.mm(),
                middle: lab(bake.middle, 1.0),
                edge: lab(bake.edge, 2.0),
                dark: vec![],
            });
        }
        let (tilt_deg, around_deg, roll_deg) = (8.0 + any(5.0), any(180.0), any(4.0));
        Ok(Self { tilt_deg, around_deg, roll_deg, shadow: 0.25 + any(0.15), noise: 3.0, seed, ..plain })
    }
}

type P3 = [f64; 3];

fn dot(a: P3, b: P3) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

fn cross(a: P3, b: P3) -> P3 {
    [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
}

fn unit(a: P3) -> P3 {
    let n = dot(a, a).sqrt();
    a.map(|v| v / n)
}

/// Where it stands and where its right, its down and its ahead are; z goes up from the paper.
struct Eye {
    place: P3,
    right: P3,
    down: P3,
    ahead: P3,
    focal_px: f64,
    middle: (f64, f64),
}

impl Eye {
    fn of(photo: &MadeUpPhoto) -> Self {
        let (w, h) = (f64::from(photo.size_px.0), f64::from(photo.size_px.1));
        let (pw, ph) = photo.paper_mm();
        let focal_px = photo.focal * w.hypot(h);
        let (tilt, around, roll) =
            (photo.tilt_deg.to_radians(), photo.around_deg.to_radians(), photo.roll_deg.to_radians());
        let back = [tilt.sin() * around.cos(), tilt.sin() * around.sin(), tilt.cos()];
        let ahead = back.map(|v| -v);
        // The paper's y goes down the picture: right, down and up make a left-handed frame, as on a page.
        let side = unit(cross([0.0, 1.0, 0.0], back));
        let low = cross(back, side);
        let mix = |a: P3, b: P3, s: f64, t: f64| [0, 1, 2].map(|k| a[k] * s + b[k] * t);
        let right = mix(side, low, roll.cos(), roll.sin());
        let down = mix(low, side, roll.cos(), -roll.sin());
        let mut eye = Self { place: [0.0; 3], right, down, ahead, focal_px, middle: (w / 2.0, h / 2.0) };
        // As near as the whole sheet fits with a little beside it.
        let fits = |distance: f64| {
            let place = [0, 1, 2].map(|k| [pw / 2.0, ph / 2.0, 0.0][k] + back[k] * distance);
            let near = Self { place, ..eye };
            [(0.0, 0.0), (pw, 0.0), (pw, ph), (0.0, ph)].into_iter().all(|(x, y)| {
                let (u, v) = near.sees([x, y, 0.0]);
                (0.02 * w..0.98 * w).contains(&u) && (0.02 * h..0.98 * h).contains(&v)
            })
        };
        let mut distance = 150.0;
        while !fits(distance) && distance < 3_000.0 {
            distance *= 1.01;
        }
        eye.place = [0, 1, 2].map(|k| [pw / 2.0, ph / 2.0, 0.0][k] + back[k] * distance);
        eye
    }

    /// Where it sees a point, px.
    fn sees(&self, p: P3) -> (f64, f64) {
        let d = [0, 1, 2].map(|k| p[k] - self.place[k]);
        let z = dot(d, self.ahead);
        (self.middle.0 + self.focal_px * dot(d, self.right) / z, self.middle.1 + self.focal_px * dot(d, self.down) / z)
    }

    /// The way in which it looks through a pixel.
    fn ray(&self, u: f64, v: f64) -> P3 {
        let (x, y) = ((u - self.middle.0) / self.focal_px, (v - self.middle.1) / self.focal_px);
        [0, 1, 2].map(|k| self.ahead[k] + x * self.right[k] + y * self.down[k])
    }
}

/// How far inside its outline each place of a piece is, mm, less than nothing outside; looked up between cells.
struct Field {
    low: (f64, f64),
    across: usize,
    down: usize,
    cells: Vec<f64>,
}

const CELL_MM: f64 = 0.5;
const AROUND_MM: f64 = 14.0;

impl Field {
    fn of(ring: &[(f64, f64)]) -> Self {
        let far = (f64::INFINITY, f64::NEG_INFINITY);
        let (low, high) = ring.iter().fold(((far.0, far.0), (far.1, far.1)), |(low, high), &(x, y)| {
            ((low.0.min(x), low.1.min(y)), (high.0.max(x), high.1.max(y)))
        });
        let low = (low.0 - AROUND_MM, low.1 - AROUND_MM);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a piece")]
        let count = |from: f64, to: f64| ((to + AROUND_MM - from) / CELL_MM).ceil() as usize + 1;
        let (across, down) = (count(low.0, high.0), count(low.1, high.1));
        #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
        let at = |i: usize, j: usize| (low.0 + i as f64 * CELL_MM, low.1 + j as f64 * CELL_MM);
        let cells = (0..across * down)
            .map(|c| {
                let p = at(c % across, c / across);
                depth_in(ring, p)
            })
            .collect();
        Self { low, across, down, cells }
    }

    fn depth(&self, (x, y): (f64, f64)) -> f64 {
        let (fx, fy) = ((x - self.low.0) / CELL_MM, (y - self.low.1) / CELL_MM);
        #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
        if fx < 0.0 || fy < 0.0 || fx >= (self.across - 1) as f64 || fy >= (self.down - 1) as f64 {
            return -AROUND_MM;
        }
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within the field")]
        let (i, j) = (fx as usize, fy as usize);
        let (tx, ty) = (fx.fract(), fy.fract());
        let c = |di: usize, dj: usize| self.cells[(j + dj) * self.across + i + di];
        (c(0, 0) * (1.0 - tx) + c(1, 0) * tx) * (1.0 - ty) + (c(0, 1) * (1.0 - tx) + c(1, 1) * tx) * ty
    }
}

/// How far a place is inside a ring, less than nothing outside.
fn depth_in(ring: &[(f64, f64)], (x, y): (f64, f64)) -> f64 {
    let (mut nearest, mut inside) = (f64::INFINITY, false);
    for (&(ax, ay), &(bx, by)) in ring.iter().zip(ring.iter().cycle().skip(1)) {
        let (dx, dy) = (bx - ax, by - ay);
        let along = (((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy).max(1e-12)).clamp(0.0, 1.0);
        nearest = nearest.min((x - ax - along * dx).hypot(y - ay - along * dy));
        // A ray to the right crosses the line.
        if (ay > y) != (by > y) && x < ax + (y - ay) / (by - ay) * dx {
            inside = !inside;
        }
    }
    if inside { nearest } else { -nearest }
}

fn linear(lab: [f64; 3]) -> P3 {
    #[expect(clippy::cast_possible_truncation, reason = "a colour")]
    let [l, a, b] = lab.map(|v| v as f32);
    let of = LinSrgb::from_color(Lab::<D65, f32>::new(l, a, b));
    [of.red, of.green, of.blue].map(|v| f64::from(v).max(0.0))
}

/// The sheet, L*; the table, L*, a* and b*.
const PAPER: [f64; 3] = [95.0, 0.0, 0.0];
const TABLE: [f64; 3] = [38.0, 8.0, 18.0];
/// The side of a piece throws back so much of what its top does, and the outermost of the top, mm, so much.
const SIDE: f64 = 0.62;
const RIM: (f64, f64) = (0.5, 0.85);
/// A piece takes so much of the light from the paper beside it, on the side away from the light, and how far, mm.
const BESIDE: (f64, f64) = (0.35, 5.0);
/// From its edge to its middle a top changes its colour over so much, mm.
const TURNS_MM: (f64, f64) = (3.0, 8.0);
const DARK: [f64; 3] = [38.0, 12.0, 20.0];

fn smooth(t: f64) -> f64 {
    let t = t.clamp(0.0, 1.0);
    t * t * (3.0 - 2.0 * t)
}

/// The colour of a top so far inside.
fn top(piece: &MadeUpPiece, (x, y): (f64, f64), depth: f64) -> P3 {
    if piece.dark.iter().any(|((dx, dy), r)| (dx - x).hypot(dy - y) < *r) {
        return linear(DARK);
    }
    let t = smooth((depth - TURNS_MM.0) / (TURNS_MM.1 - TURNS_MM.0));
    let mixed = [0, 1, 2].map(|k| piece.edge[k] + t * (piece.middle[k] - piece.edge[k]));
    let rim = if depth < RIM.0 { RIM.1 } else { 1.0 };
    linear(mixed).map(|v| v * rim)
}

/// A photo that was made up.
#[derive(Debug, Clone)]
pub struct MadeUp {
    /// A JPEG file.
    pub file: Vec<u8>,
    /// The paper's corners in it, as shares of its width and height.
    pub corners: [(f64, f64); 4],
}

/// Makes it.
///
/// Fails only where the file cannot be written.
pub fn made_up_photo(photo: &MadeUpPhoto) -> Result<MadeUp, image::ImageError> {
    let eye = Eye::of(photo);
    let fields: Vec<Field> = photo.pieces.iter().map(|p| Field::of(&p.ring)).collect();
    let (pw, ph) = photo.paper_mm();
    let (paper, table) = (linear(PAPER), linear(TABLE));
    let colour = |u: f64, v: f64| -> P3 {
        let ray = eye.ray(u, v);
        let at_height = |z: f64| {
            let t = (z - eye.place[2]) / ray[2];
            (eye.place[0] + t * ray[0], eye.place[1] + t * ray[1])
        };
        let ground = at_height(0.0);
        let mut found = None;
        for (piece, field) in photo.pieces.iter().zip(&fields) {
            let over = at_height(piece.thickness_mm);
            let depth = field.depth(over);
            if depth > 0.0 {
                found = Some(top(piece, over, depth));
                break;
            }
            /// Heights of a side that are asked.
            const HEIGHTS: i32 = 8;
            let side = (0..HEIGHTS).map(|k| piece.thickness_mm * f64::from(k) / f64::from(HEIGHTS));
            if depth > -AROUND_MM && side.into_iter().any(|z| field.depth(at_height(z)) > 0.0) {
                found = Some(linear(piece.edge).map(|v| v * SIDE));
                break;
            }
        }
        let (x, y) = ground;
        let on_paper = photo.has_paper && x >= 0.0 && y >= 0.0 && x <= pw && y <= ph;
        let lit = 1.0 - photo.shadow * smooth(((x / pw) * 0.6 + (y / ph) * 0.4).clamp(0.0, 1.0));
        let plain = found.unwrap_or_else(|| {
            let near = fields.iter().map(|f| f.depth((x - 1.5, y - 1.0))).fold(-AROUND_MM, f64::max);
            let dim = 1.0 - BESIDE.0 * smooth(1.0 + near / BESIDE.1);
            (if on_paper { paper } else { table }).map(|v| v * dim)
        });
        [0, 1, 2].map(|k| plain[k] * lit * photo.light[k])
    };
    let mut picture: ImageBuffer<Rgb<f32>, Vec<f32>> = ImageBuffer::new(photo.size_px.0, photo.size_px.1);
    for (x, y, pixel) in picture.enumerate_pixels_mut() {
        // Four rays a pixel.
        let mut sum = [0.0; 3];
        for (du, dv) in [(0.25, 0.25), (0.75, 0.25), (0.25, 0.75), (0.75, 0.75)] {
            for (sum, v) in sum.iter_mut().zip(colour(f64::from(x) + du, f64::from(y) + dv)) {
                *sum += v / 4.0;
            }
        }
        #[expect(clippy::cast_possible_truncation, reason = "a colour")]
        let of = sum.map(|v| v as f32);
        *pixel = Rgb(of);
    }
    #[expect(clippy::cast_possible_truncation, reason = "a blur")]
    let blurred = if photo.blur_px > 0.05 { gaussian_blur_f32(&picture, photo.blur_px as f32) } else { picture };
    let mut random = Pcg64::seed_from_u64(photo.seed);
    let noise = Normal::new(0.0_f64, photo.noise.max(0.0)).ok();
    let mut out = RgbImage::new(photo.size_px.0, photo.size_px.1);
    for (to, from) in out.pixels_mut().zip(blurred.pixels()) {
        let [r, g, b] = from.0;
        let seen: Srgb<f32> = LinSrgb::new(r, g, b).into_encoding();
        for (to, v) in to.0.iter_mut().zip([seen.red, seen.green, seen.blue]) {
            let more = noise.map_or(0.0, |n| n.sample(&mut random));
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
            let value = (f64::from(v) * 255.0 + more).round().clamp(0.0, 255.0) as u8;
            *to = value;
        }
    }
    let mut file = Vec::new();
    JpegEncoder::new_with_quality(&mut file, 92).encode_image(&out)?;
    let (w, h) = (f64::from(photo.size_px.0), f64::from(photo.size_px.1));
    let corners = [(0.0, 0.0), (pw, 0.0), (pw, ph), (0.0, ph)].map(|(x, y)| {
        let (u, v) = eye.sees([x, y, 0.0]);
        (u / w, v / h)
    });
    Ok(MadeUp { file, corners })
}
