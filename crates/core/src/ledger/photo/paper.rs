//! The sheet of paper in a picture: the brightest thing in it that has no colour and four straight sides.

use image::{DynamicImage, GrayImage, Luma, RgbImage, imageops};
use imageproc::contours::{BorderType, find_contours};
use imageproc::contrast::otsu_level;
use imageproc::distance_transform::Norm;
use imageproc::geometry::convex_hull;
use imageproc::morphology::open;
use imageproc::point::Point;

/// It is looked for in a picture of so many pixels a side; its sides are followed in the picture itself.
const COARSE_PX: u32 = 640;
/// A difference between channels counts against paper so much, of darkness. Our own choice.
const COLOURED: f64 = 0.6;
/// Paper takes up so much of the picture at least.
const LEAST_SHARE: f64 = 0.10;
/// Points looked at along each side, and how far from its ends none is, of its length.
const ALONG: usize = 80;
const ENDS: f64 = 0.04;
/// So many of a side's points lie on one straight line, as a share.
const STRAIGHT: f64 = 0.5;

type Corner = (f64, f64);

/// How much like paper each pixel is.
fn paperness(picture: &RgbImage) -> GrayImage {
    let mut out = GrayImage::new(picture.width(), picture.height());
    for (to, from) in out.pixels_mut().zip(picture.pixels()) {
        let [r, g, b] = from.0.map(f64::from);
        let (low, high) = (r.min(g).min(b), r.max(g).max(b));
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255")]
        let value = (low - COLOURED * (high - low)).clamp(0.0, 255.0) as u8;
        *to = Luma([value]);
    }
    out
}

/// As the least colour cast leaves it: each channel by its brightest hundredth.
fn balanced(picture: &RgbImage) -> RgbImage {
    let mut counts = [[0_u32; 256]; 3];
    for pixel in picture.pixels() {
        for (count, v) in counts.iter_mut().zip(pixel.0) {
            count[usize::from(v)] += 1;
        }
    }
    let most = picture.width() * picture.height() / 50;
    let white = counts.map(|count| {
        let mut left = most;
        (1..=255_u8).rev().find(|v| {
            let here = count[usize::from(*v)];
            let found = here >= left;
            left = left.saturating_sub(here);
            found
        })
    });
    let mut out = picture.clone();
    for pixel in out.pixels_mut() {
        for (v, white) in pixel.0.iter_mut().zip(white) {
            let white = white.unwrap_or(255).max(1);
            *v = u8::try_from(u32::from(*v) * 255 / u32::from(white)).unwrap_or(255);
        }
    }
    out
}

/// The four lines that hold a convex ring most tightly: the side is left out whose neighbours, prolonged, add least.
fn four_corners(hull: &[Corner]) -> Option<[Corner; 4]> {
    let mut ring = hull.to_vec();
    while ring.len() > 4 {
        let n = ring.len();
        let added = |i: usize| {
            let (a, b, c, d) = (ring[(i + n - 1) % n], ring[i], ring[(i + 1) % n], ring[(i + 2) % n]);
            let meet = meet((a, b), (d, c))?;
            let ahead = (meet.0 - b.0) * (b.0 - a.0) + (meet.1 - b.1) * (b.1 - a.1) >= 0.0;
            let area = ((b.0 - meet.0) * (c.1 - meet.1) - (c.0 - meet.0) * (b.1 - meet.1)).abs() / 2.0;
            ahead.then_some((area, meet))
        };
        let best = (0..n).filter_map(|i| Some((i, added(i)?))).min_by(|a, b| a.1.0.total_cmp(&b.1.0));
        let (i, (_, meet)) = best?;
        ring[i] = meet;
        ring.remove((i + 1) % n);
    }
    <[Corner; 4]>::try_from(ring).ok()
}

/// Where two lines meet, each through two points.
fn meet((a, b): (Corner, Corner), (c, d): (Corner, Corner)) -> Option<Corner> {
    let (ux, uy, vx, vy) = (b.0 - a.0, b.1 - a.1, d.0 - c.0, d.1 - c.1);
    let cross = ux * vy - uy * vx;
    if cross.abs() < 1e-9 * (ux.hypot(uy) * vx.hypot(vy)).max(1e-9) {
        return None;
    }
    let t = ((c.0 - a.0) * vy - (c.1 - a.1) * vx) / cross;
    Some((a.0 + t * ux, a.1 + t * uy))
}

fn area(corners: &[Corner; 4]) -> f64 {
    (0..4).map(|i| corners[i].0 * corners[(i + 1) % 4].1 - corners[(i + 1) % 4].0 * corners[i].1).sum::<f64>() / 2.0
}

/// The value between pixels.
fn value(picture: &GrayImage, (x, y): Corner) -> Option<f64> {
    let (fx, fy) = ((x - 0.5).floor(), (y - 0.5).floor());
    if fx < 0.0 || fy < 0.0 || fx + 1.0 >= f64::from(picture.width()) || fy + 1.0 >= f64::from(picture.height()) {
        return None;
    }
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within the picture")]
    let at = |dx: u32, dy: u32| f64::from(picture.get_pixel(fx as u32 + dx, fy as u32 + dy).0[0]);
    let (tx, ty) = (x - 0.5 - fx, y - 0.5 - fy);
    Some((at(0, 0) * (1.0 - tx) + at(1, 0) * tx) * (1.0 - ty) + (at(0, 1) * (1.0 - tx) + at(1, 1) * tx) * ty)
}

/// The straight line along which brightness falls, near to a side; nothing where there is none. `reach` px on either side.
fn side(picture: &GrayImage, (a, b): (Corner, Corner), reach: f64) -> Option<(Corner, Corner)> {
    let (dx, dy) = (b.0 - a.0, b.1 - a.1);
    let long = dx.hypot(dy);
    // Corners go round so that the paper is on the right.
    let (nx, ny) = (dy / long, -dx / long);
    let mut points = vec![];
    #[expect(clippy::cast_precision_loss, reason = "eighty points")]
    for i in 0..ALONG {
        let t = ENDS + (1.0 - 2.0 * ENDS) * i as f64 / (ALONG - 1) as f64;
        let (x, y) = (a.0 + t * dx, a.1 + t * dy);
        #[expect(clippy::cast_possible_truncation, reason = "a few pixels")]
        let steps = reach.ceil() as i32;
        let falls = |k: f64| {
            let mut sum = 0.0;
            for d in [0.8, 1.6, 2.4] {
                let inner = value(picture, (x + (k - d) * nx, y + (k - d) * ny))?;
                let outer = value(picture, (x + (k + d) * nx, y + (k + d) * ny))?;
                sum += inner - outer;
            }
            Some(sum)
        };
        let all: Vec<(f64, f64)> =
            (-steps..=steps).filter_map(|k| Some((f64::from(k), falls(f64::from(k))?))).collect();
        let Some(best) = (0..all.len()).max_by(|p, q| all[*p].1.total_cmp(&all[*q].1)) else { continue };
        if all[best].1 < 30.0 || best == 0 || best + 1 == all.len() {
            continue;
        }
        let (before, here, after) = (all[best - 1].1, all[best].1, all[best + 1].1);
        let bend = before - 2.0 * here + after;
        let off = if bend < 0.0 { 0.5 * (before - after) / bend } else { 0.0 };
        let k = all[best].0 + off.clamp(-1.0, 1.0);
        points.push((x + k * nx, y + k * ny));
    }
    straight(&points)
}

/// The line that most of the points lie on: tried through pairs of them, then through the mean of those near it.
fn straight(points: &[Corner]) -> Option<(Corner, Corner)> {
    let n = points.len();
    let needed = ALONG / 2;
    if n < needed {
        return None;
    }
    let distance = |(p, q): (Corner, Corner), r: Corner| {
        let (dx, dy) = (q.0 - p.0, q.1 - p.1);
        ((r.0 - p.0) * dy - (r.1 - p.1) * dx).abs() / dx.hypot(dy).max(1e-9)
    };
    let near = |line: (Corner, Corner), within: f64| -> Vec<Corner> {
        points.iter().copied().filter(|r| distance(line, *r) < within).collect()
    };
    let mut best: Option<((Corner, Corner), usize)> = None;
    for i in 0..n / 3 {
        for j in (n - n / 3)..n {
            let line = (points[i], points[j]);
            let count = near(line, 1.5).len();
            if best.is_none_or(|b| count > b.1) {
                best = Some((line, count));
            }
        }
    }
    let (mut line, _) = best?;
    for within in [2.0, 1.5, 1.2] {
        let on_it = near(line, within);
        #[expect(clippy::cast_precision_loss, reason = "eighty points")]
        let count = on_it.len() as f64;
        #[expect(clippy::cast_precision_loss, reason = "eighty points")]
        if count < STRAIGHT * ALONG as f64 {
            return None;
        }
        let mean = on_it.iter().fold((0.0, 0.0), |m, p| (m.0 + p.0 / count, m.1 + p.1 / count));
        let spread = on_it.iter().fold((0.0, 0.0, 0.0), |s, p| {
            let (x, y) = (p.0 - mean.0, p.1 - mean.1);
            (s.0 + x * x, s.1 + x * y, s.2 + y * y)
        });
        let angle = 0.5 * (2.0 * spread.1).atan2(spread.0 - spread.2);
        line = (mean, (mean.0 + angle.cos(), mean.1 + angle.sin()));
    }
    Some(line)
}

/// The largest sheet at a level of paperness, in shares of the picture; going round with the paper on the right.
fn sheet_at(coarse: &GrayImage, level: u8) -> Option<[Corner; 4]> {
    let mut bright = coarse.clone();
    bright.pixels_mut().for_each(|p| p.0[0] = if p.0[0] > level { 255 } else { 0 });
    let bright = open(&bright, Norm::LInf, 3);
    let contours = find_contours::<i32>(&bright);
    let outer = contours.iter().filter(|c| c.border_type == BorderType::Outer && c.points.len() > 40);
    let hull = |points: &[Point<i32>]| -> Vec<Corner> {
        convex_hull(points.to_vec()).iter().map(|p| (f64::from(p.x) + 0.5, f64::from(p.y) + 0.5)).collect()
    };
    let of = |c: &imageproc::contours::Contour<i32>| four_corners(&hull(&c.points));
    let largest = outer.filter_map(of).max_by(|a, b| area(a).abs().total_cmp(&area(b).abs()))?;
    let (w, h) = (f64::from(coarse.width()), f64::from(coarse.height()));
    if area(&largest).abs() < LEAST_SHARE * w * h {
        return None;
    }
    let mut found = largest.map(|(x, y)| (x / w, y / h));
    if area(&found) < 0.0 {
        found.reverse();
    }
    // The first is the one nearest to the picture's own first corner.
    let first = (0..4).min_by(|a, b| (found[*a].0 + found[*a].1).total_cmp(&(found[*b].0 + found[*b].1)))?;
    found.rotate_left(first);
    Some(found)
}

/// The paper's four corners, as shares of the picture's width and height; nothing where no sheet with four straight sides is seen.
pub(super) fn find(picture: &DynamicImage) -> Option<[Corner; 4]> {
    let fine = balanced(&picture.to_rgb8());
    let scale = f64::from(COARSE_PX) / f64::from(fine.width().max(fine.height()));
    let coarse = if scale < 1.0 {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "pixels")]
        let side = |px: u32| (f64::from(px) * scale).round().max(1.0) as u32;
        imageops::thumbnail(&fine, side(fine.width()), side(fine.height()))
    } else {
        fine.clone()
    };
    let coarse = paperness(&coarse);
    let level = otsu_level(&coarse);
    let edges = paperness(&fine);
    let (w, h) = (f64::from(fine.width()), f64::from(fine.height()));
    let tried =
        [0_i16, 20, -20, 40, -40].map(|by| u8::try_from((i16::from(level) + by).clamp(5, 250)).unwrap_or(level));
    tried.into_iter().filter_map(|level| sheet_at(&coarse, level)).find_map(|corners| {
        let mut at = corners.map(|(x, y)| (x * w, y * h));
        for reach in [0.02, 0.005] {
            let sides: Vec<(Corner, Corner)> =
                (0..4).filter_map(|i| side(&edges, (at[i], at[(i + 1) % 4]), reach * w.hypot(h))).collect();
            let [top, right, bottom, left] = sides.try_into().ok()?;
            at = [meet(left, top)?, meet(top, right)?, meet(right, bottom)?, meet(bottom, left)?];
        }
        let inside = at.iter().all(|(x, y)| (-0.05 * w..1.05 * w).contains(x) && (-0.05 * h..1.05 * h).contains(y));
        (inside && area(&at) > LEAST_SHARE * w * h).then(|| at.map(|(x, y)| (x / w, y / h)))
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_ring_of_many_corners_is_held_by_four_lines() {
        // A square with its corners cut off.
        let cut = [(1.0, 0.0), (9.0, 0.0), (10.0, 1.0), (10.0, 9.0), (9.0, 10.0), (1.0, 10.0), (0.0, 9.0), (0.0, 1.0)];
        let found = four_corners(&cut).unwrap();
        assert!((area(&found).abs() - 100.0).abs() < 1e-9, "{found:?}");
    }

    #[test]
    fn of_points_that_are_mostly_on_a_line_the_line_is_found() {
        let points: Vec<Corner> =
            (0..80_u32).map(|i| (f64::from(i), if i % 4 == 0 { 20.0 } else { 0.5 * f64::from(i) + 3.0 })).collect();
        let (p, q) = straight(&points).unwrap();
        assert!(((q.1 - p.1) / (q.0 - p.0) - 0.5).abs() < 0.01);
        assert!(straight(&points[..20]).is_none());
    }
}
