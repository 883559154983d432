//! The light on a sheet of paper, taken out: what is left is how much of it each place throws back, and its colour in the CIE's L*, a* and b*.
//!
//! Paper is bright and without colour wherever it is seen. The logarithm of each channel is fitted over the sheet by a polynomial of the third degree, with
//! what differs from it left out step by step, and what is left of the paper around each place evens out the rest.

use super::sheet::Sheet;
use nalgebra::{DMatrix, DVector};
use palette::white_point::D65;
use palette::{FromColor, Lab, LinSrgb};

/// Lightness of white office paper, L* (brightness of about 90 to 97). From memory; colours are of the paper, so that an error of one here is one there.
const PAPER_L: f64 = 95.0;
/// Places looked at, so far apart, mm.
const APART_MM: f64 = 2.0;
/// Terms of a polynomial of the third degree in two variables.
const TERMS: usize = 10;
/// What is left in place of the polynomial is evened out over so many places each way.
const EVENED: usize = 4;
/// A place is paper where its brightness is so near to what is fitted, and its colour so near to that of paper, as logarithms; step by step.
const NEAR: [(f64, f64); 5] = [(0.50, 0.25), (0.30, 0.15), (0.18, 0.10), (0.12, 0.08), (0.10, 0.06)];
/// The brightest of so many places each way are taken to be paper at first.
const FIRST: usize = 10;
/// So much of the sheet is to be paper.
const LEAST_PAPER: f64 = 0.15;

/// Reflectance of the paper, of 1 (CIE 15: L* = 116 f(Y) - 16).
pub(super) fn paper_reflects() -> f64 {
    ((PAPER_L + 16.0) / 116.0).powi(3)
}

/// The colour of a surface that throws back so much of each of the screen's primaries.
pub(super) fn lab([r, g, b]: [f32; 3]) -> [f64; 3] {
    let Lab { l, a, b, .. } = Lab::<D65, f32>::from_color(LinSrgb::new(r, g, b));
    [l, a, b].map(f64::from)
}

fn terms((x, y): (f64, f64)) -> [f64; TERMS] {
    [1.0, x, y, x * x, x * y, y * y, x * x * x, x * x * y, x * y * y, y * y * y]
}

/// A grid of places over the sheet.
struct Places {
    across: usize,
    down: usize,
    /// Logarithm of each channel.
    of: Vec<[f64; 3]>,
}

impl Places {
    fn new(sheet: &Sheet) -> Self {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a sheet of paper")]
        let count = |mm: f64| (mm / APART_MM).floor() as usize;
        let (across, down) = (count(sheet.paper_mm.0), count(sheet.paper_mm.1));
        let mut of = Vec::with_capacity(across * down);
        for j in 0..down {
            for i in 0..across {
                let mean = sheet.mean_about(Self::mm(i), Self::mm(j));
                of.push(mean.map(|v| f64::from(v.max(1e-4)).ln()));
            }
        }
        Self { across, down, of }
    }

    #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
    fn mm(i: usize) -> f64 {
        (i as f64 + 0.5) * APART_MM
    }

    /// From -1 to 1 over the sheet.
    #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
    fn unit(&self, at: usize) -> (f64, f64) {
        let of = |i: usize, n: usize| 2.0 * (i as f64 + 0.5) / n as f64 - 1.0;
        (of(at % self.across, self.across), of(at / self.across, self.down))
    }

    fn bright(&self, at: usize) -> f64 {
        self.of[at].iter().sum::<f64>() / 3.0
    }

    /// The brightest few of each part of the sheet.
    fn first(&self) -> Vec<usize> {
        let mut found = vec![];
        for top in (0..self.down).step_by(FIRST) {
            for left in (0..self.across).step_by(FIRST) {
                let rows = top..(top + FIRST).min(self.down);
                let mut here: Vec<usize> = rows
                    .flat_map(|j| (left..(left + FIRST).min(self.across)).map(move |i| j * self.across + i))
                    .collect();
                here.sort_by(|a, b| self.bright(*b).total_cmp(&self.bright(*a)));
                here.truncate((here.len() / 6).max(1));
                found.extend(here);
            }
        }
        found
    }

    /// The polynomial of each channel through some places.
    fn fit(&self, places: &[usize]) -> Option<[Vec<f64>; 3]> {
        let rows = DMatrix::from_fn(places.len(), TERMS, |r, c| terms(self.unit(places[r]))[c]);
        let normal = rows.transpose() * &rows + DMatrix::identity(TERMS, TERMS) * 1e-6;
        let solved = normal.cholesky()?;
        let channel = |k: usize| {
            let seen = DVector::from_fn(places.len(), |r, _| self.of[places[r]][k]);
            solved.solve(&(rows.transpose() * seen)).iter().copied().collect::<Vec<f64>>()
        };
        Some([channel(0), channel(1), channel(2)])
    }

    fn fitted(&self, fit: &[Vec<f64>; 3], at: usize) -> [f64; 3] {
        let t = terms(self.unit(at));
        [0, 1, 2].map(|k| fit[k].iter().zip(t).map(|(f, t)| f * t).sum())
    }

    /// What is left of each channel.
    fn left(&self, fit: &[Vec<f64>; 3], at: usize) -> [f64; 3] {
        let fitted = self.fitted(fit, at);
        [0, 1, 2].map(|k| self.of[at][k] - fitted[k])
    }
}

/// The light on the sheet: logarithm of each channel at places over it.
pub(super) struct Light {
    places: Places,
    log: Vec<[f64; 3]>,
}

/// Bright without colour, as logarithms.
fn is_paper(left: [f64; 3], (bright, colour): (f64, f64)) -> bool {
    let mean = left.iter().sum::<f64>() / 3.0;
    mean.abs() < bright && left.iter().all(|v| (v - mean).abs() < colour)
}

impl Light {
    /// Nothing where what is shown as paper does not look like it.
    pub(super) fn of(sheet: &Sheet) -> Option<Self> {
        let places = Places::new(sheet);
        let mut paper = places.first();
        let mut fit = places.fit(&paper)?;
        for near in NEAR {
            let all = 0..places.of.len();
            let next: Vec<usize> = all.filter(|at| is_paper(places.left(&fit, *at), near)).collect();
            if next.len() < 4 * TERMS {
                return None;
            }
            paper = next;
            fit = places.fit(&paper)?;
        }
        #[expect(clippy::cast_precision_loss, reason = "some ten thousand")]
        let share = paper.len() as f64 / places.of.len() as f64;
        if share < LEAST_PAPER {
            return None;
        }
        let mut left = vec![None; places.of.len()];
        for at in paper {
            left[at] = Some(places.left(&fit, at));
        }
        let log = (0..places.of.len())
            .map(|at| {
                let (more, fitted) = (evened(&left, &places, at), places.fitted(&fit, at));
                [0, 1, 2].map(|k| fitted[k] + more[k])
            })
            .collect();
        Some(Self { places, log })
    }

    /// The light at a place, of each channel.
    fn at(&self, x_mm: f64, y_mm: f64) -> [f64; 3] {
        let clamp = |mm: f64, n: usize| {
            #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
            let at = (mm / APART_MM - 0.5).clamp(0.0, n as f64 - 1.001);
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within the grid")]
            let low = at.floor() as usize;
            #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
            (low, at - low as f64)
        };
        let ((i, tx), (j, ty)) = (clamp(x_mm, self.places.across), clamp(y_mm, self.places.down));
        let of = |di: usize, dj: usize| self.log[(j + dj) * self.places.across + i + di];
        let (a, b, c, d) = (of(0, 0), of(1, 0), of(0, 1), of(1, 1));
        [0, 1, 2].map(|k| ((a[k] * (1.0 - tx) + b[k] * tx) * (1.0 - ty) + (c[k] * (1.0 - tx) + d[k] * tx) * ty).exp())
    }

    /// How much of each channel every place of the sheet throws back, paper being as bright as paper is.
    pub(super) fn taken_out(&self, sheet: &Sheet) -> Sheet {
        #[expect(clippy::cast_possible_truncation, reason = "a reflectance")]
        let paper = paper_reflects() as f32;
        let mut out = sheet.clone();
        /// The light changes so slowly that it is asked for once in so many pixels.
        const SAME_PX: usize = 4;
        for j in 0..out.down {
            let mut light = [1.0_f32; 3];
            for i in 0..out.across {
                if i % SAME_PX == 0 {
                    #[expect(clippy::cast_possible_truncation, reason = "a brightness")]
                    let here = self.at(Sheet::mm(i + SAME_PX / 2), Sheet::mm(j)).map(|v| v as f32);
                    light = here;
                }
                let pixel = &mut out.pixels[j * out.across + i];
                for (v, light) in pixel.iter_mut().zip(light) {
                    *v *= paper / light.max(1e-6);
                }
            }
        }
        out
    }
}

/// What is left of the paper about a place, the nearest most; nothing where none is near.
fn evened(left: &[Option<[f64; 3]>], places: &Places, at: usize) -> [f64; 3] {
    let (i, j) = (at % places.across, at / places.across);
    let (mut sum, mut weights) = ([0.0; 3], 0.25);
    for y in j.saturating_sub(EVENED)..(j + EVENED + 1).min(places.down) {
        for x in i.saturating_sub(EVENED)..(i + EVENED + 1).min(places.across) {
            let Some(here) = left[y * places.across + x] else { continue };
            #[expect(clippy::cast_precision_loss, reason = "a few places")]
            let (dx, dy) = (x.abs_diff(i) as f64, y.abs_diff(j) as f64);
            let weight = (-(dx * dx + dy * dy) / 8.0).exp();
            weights += weight;
            for (sum, here) in sum.iter_mut().zip(here) {
                *sum += weight * here;
            }
        }
    }
    sum.map(|s| s / weights)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn paper_is_as_light_as_it_is_said_to_be() {
        #[expect(clippy::cast_possible_truncation, reason = "a reflectance")]
        let paper = paper_reflects() as f32;
        let [l, a, b] = lab([paper; 3]);
        assert!((l - PAPER_L).abs() < 0.05 && a.abs() < 0.1 && b.abs() < 0.1, "{l} {a} {b}");
    }
}
