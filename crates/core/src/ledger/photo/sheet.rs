//! The sheet of paper seen from straight above, in linear light.

use image::RgbImage;
use imageproc::filter::gaussian_blur_f32;
use palette::Srgb;

/// Pixels to the millimetre. A telephone's picture of A4 has 8 to 14.
pub(super) const PX_PER_MM: f64 = 5.0;
/// Noise is evened out over so much, px.
const BLUR_PX: f32 = 1.0;

/// A sheet: how bright each place is, by channel, in linear light.
#[derive(Debug, Clone)]
pub(super) struct Sheet {
    pub(super) across: usize,
    pub(super) down: usize,
    pub(super) paper_mm: (f64, f64),
    pub(super) pixels: Vec<[f32; 3]>,
}

impl Sheet {
    pub(super) fn new(above: &RgbImage, paper_mm: (f64, f64)) -> Self {
        let smooth = gaussian_blur_f32(above, BLUR_PX);
        let linear = |p: &image::Rgb<u8>| {
            let [r, g, b] = p.0;
            let of = Srgb::new(r, g, b).into_linear::<f32>();
            [of.red, of.green, of.blue]
        };
        let size = |n: u32| usize::try_from(n).unwrap_or(0);
        Self {
            across: size(above.width()),
            down: size(above.height()),
            paper_mm,
            pixels: smooth.pixels().map(linear).collect(),
        }
    }

    /// The middle of a pixel.
    #[expect(clippy::cast_precision_loss, reason = "some thousand")]
    pub(super) fn mm(i: usize) -> f64 {
        (i as f64 + 0.5) / PX_PER_MM
    }

    /// The pixel at a place; the nearest there is.
    pub(super) fn px(mm: f64, count: usize) -> usize {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within the sheet")]
        let at = (mm * PX_PER_MM).max(0.0) as usize;
        at.min(count - 1)
    }

    /// At a place.
    pub(super) fn at(&self, x_mm: f64, y_mm: f64) -> [f32; 3] {
        self.pixels[Self::px(y_mm, self.down) * self.across + Self::px(x_mm, self.across)]
    }

    /// The mean of five by five pixels about a place.
    pub(super) fn mean_about(&self, x_mm: f64, y_mm: f64) -> [f32; 3] {
        let (i, j) = (Self::px(x_mm, self.across), Self::px(y_mm, self.down));
        let (mut sum, mut count) = ([0.0_f32; 3], 0.0_f32);
        for y in j.saturating_sub(2)..(j + 3).min(self.down) {
            for x in i.saturating_sub(2)..(i + 3).min(self.across) {
                count += 1.0;
                for (sum, v) in sum.iter_mut().zip(self.pixels[y * self.across + x]) {
                    *sum += v;
                }
            }
        }
        sum.map(|s| s / count)
    }
}
