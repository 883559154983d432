//! The pieces on a sheet: what is not paper, each by its own edge, and of what stands up from the paper the foot.

use super::light::{lab, paper_reflects};
use super::sheet::{PX_PER_MM, Sheet};
use crate::geometry::{offset_ring, signed_area, smoothed};
use image::{GrayImage, Luma};
use imageproc::contours::{BorderType, find_contours};
use imageproc::distance_transform::{Norm, euclidean_squared_distance_transform};
use imageproc::morphology::open;
use imageproc::region_labelling::{Connectivity, connected_components};
use std::cmp::Ordering;
use std::collections::{BinaryHeap, VecDeque};

/// A place differs from paper by so much and more, in L*, a* and b* with lightness counted for a part: a shadow has no colour. Our own choice:
/// the palest dough differs by 20, a shadow that takes half the light by 8.
const DIFFERS: f64 = 10.0;
const LIGHTNESS: f64 = 0.35;
/// And by so many times as much as the paper differs from itself.
const OVER_NOISE: f64 = 5.0;
/// Pieces are as large as this and larger, mm2: a crumb is less.
const LEAST_MM2: f64 = 60.0;
/// What lies so near to the paper's edge is not looked at, mm.
const PAPER_EDGE_MM: f64 = 1.5;
/// About a piece so much is looked at beside it, mm.
const BESIDE_MM: f64 = 5.0;
/// A piece's edge has the colour that it has so far inside, mm.
const EDGE_MM: (f64, f64) = (0.6, 1.8);
/// The colour of an edge tells it from paper where half of both has red so much over blue, as a logarithm; else its darkness does.
const COLOURED: f64 = 0.10;
/// What is brighter than this could be a shadow by its darkness: there a little colour tells.
const BRIGHT: f64 = 0.35;
const A_LITTLE: f64 = 0.03;
/// What throws back less than this of what paper does is no shadow on it.
const DARK: f64 = 0.22;
/// Heights between foot and rim that are asked.
const HEIGHTS: u32 = 4;

/// Where the camera was over, and by how much what stands up seems larger from there.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stands {
    over: (f64, f64),
    rim: f64,
}

impl Stands {
    /// Pieces `up_mm` high under a camera over a place at a height.
    pub(super) fn new((over, high_mm): ((f64, f64), f64), up_mm: f64) -> Self {
        Self { over, rim: high_mm / (high_mm - up_mm).max(0.5 * high_mm) }
    }

    /// Where the rim over a place on the paper is seen on it.
    pub(super) fn rim(&self, at: (f64, f64)) -> (f64, f64) {
        self.part_up(at, self.rim)
    }

    fn part_up(&self, (x, y): (f64, f64), by: f64) -> (f64, f64) {
        (self.over.0 + by * (x - self.over.0), self.over.1 + by * (y - self.over.1))
    }
}

/// Part of the sheet, and which of its pixels belong to a piece.
#[derive(Debug, Clone)]
pub(super) struct Patch {
    /// Its first pixel on the sheet.
    left: usize,
    top: usize,
    across: usize,
    down: usize,
    inside: Vec<bool>,
}

impl Patch {
    fn new((left, top): (usize, usize), (across, down): (usize, usize)) -> Self {
        Self { left, top, across, down, inside: vec![false; across * down] }
    }

    /// The middle of a pixel, mm on the sheet.
    pub(super) fn mm(&self, at: usize) -> (f64, f64) {
        (Sheet::mm(self.left + at % self.across), Sheet::mm(self.top + at / self.across))
    }

    fn holds(&self, (x, y): (f64, f64)) -> bool {
        #[expect(clippy::cast_possible_truncation, reason = "a sheet of paper")]
        let of = |mm: f64| (mm * PX_PER_MM).floor() as isize;
        let (Some(i), Some(j)) = (of(x).checked_sub_unsigned(self.left), of(y).checked_sub_unsigned(self.top)) else {
            return false;
        };
        let (Ok(i), Ok(j)) = (usize::try_from(i), usize::try_from(j)) else { return false };
        i < self.across && j < self.down && self.inside[j * self.across + i]
    }

    fn count(&self) -> usize {
        self.inside.iter().filter(|p| **p).count()
    }

    /// Its area.
    #[expect(clippy::cast_precision_loss, reason = "a few ten thousand")]
    pub(super) fn mm2(&self) -> f64 {
        self.count() as f64 / (PX_PER_MM * PX_PER_MM)
    }

    /// Its pixels.
    pub(super) fn pixels(&self) -> impl Iterator<Item = usize> {
        (0..self.inside.len()).filter(|at| self.inside[*at])
    }

    /// Some of its pixels, by what hangs together.
    pub(super) fn only(&self, inside: Vec<bool>) -> Vec<Self> {
        Self { inside, ..self.clone() }.parts()
    }

    /// Whether a place belongs to both.
    pub(super) fn shares_with(&self, other: &Self) -> bool {
        self.pixels().any(|at| other.holds(self.mm(at)))
    }

    fn picture(&self, inside: u8) -> GrayImage {
        let px = |n: usize| u32::try_from(n).unwrap_or(0);
        // A frame about it, so that its edge is an edge.
        let mut out = GrayImage::from_pixel(px(self.across + 2), px(self.down + 2), Luma([255 - inside]));
        for (at, _) in self.inside.iter().enumerate().filter(|(_, p)| **p) {
            out.put_pixel(px(at % self.across + 1), px(at / self.across + 1), Luma([inside]));
        }
        out
    }

    /// How far inside each pixel lies, mm; nothing outside.
    pub(super) fn depths(&self) -> Vec<f64> {
        let squared = euclidean_squared_distance_transform(&self.picture(0));
        let px = |n: usize| u32::try_from(n).unwrap_or(0);
        let of = |at: usize| squared.get_pixel(px(at % self.across + 1), px(at / self.across + 1)).0[0];
        // To the edge between two pixels, not to the middle of the one beyond it.
        (0..self.inside.len()).map(|at| ((of(at).sqrt() - 0.5) / PX_PER_MM).max(0.0)).collect()
    }

    fn neighbours(&self, at: usize) -> impl Iterator<Item = usize> {
        let (i, j, across, down) = (at % self.across, at / self.across, self.across, self.down);
        let all = [(i > 0, at.wrapping_sub(1)), (i + 1 < across, at + 1)];
        let more = [(j > 0, at.wrapping_sub(across)), (j + 1 < down, at + across)];
        all.into_iter().chain(more).filter(|(there, _)| *there).map(|(_, at)| at)
    }

    /// The parts that hang together, the largest first.
    fn parts(&self) -> Vec<Self> {
        let mut seen = vec![false; self.inside.len()];
        let mut found: Vec<Self> = vec![];
        for start in 0..self.inside.len() {
            if !self.inside[start] || seen[start] {
                continue;
            }
            let mut part = Self { inside: vec![false; self.inside.len()], ..self.clone() };
            let mut ahead = VecDeque::from([start]);
            seen[start] = true;
            while let Some(at) = ahead.pop_front() {
                part.inside[at] = true;
                for next in self.neighbours(at) {
                    if self.inside[next] && !seen[next] {
                        seen[next] = true;
                        ahead.push_back(next);
                    }
                }
            }
            found.push(part);
        }
        found.sort_by_key(|p| std::cmp::Reverse(p.count()));
        found
    }

    /// What lies within it and cannot be reached from beside it belongs to it, too: a glossy place, a hole that a cutter left.
    fn filled(mut self) -> Self {
        let mut outside = vec![false; self.inside.len()];
        let rim = (0..self.inside.len()).filter(|at| {
            let (i, j) = (at % self.across, at / self.across);
            i == 0 || j == 0 || i + 1 == self.across || j + 1 == self.down
        });
        let mut ahead: VecDeque<usize> = rim.filter(|at| !self.inside[*at]).collect();
        ahead.iter().for_each(|at| outside[*at] = true);
        while let Some(at) = ahead.pop_front() {
            for next in self.neighbours(at) {
                if !self.inside[next] && !outside[next] {
                    outside[next] = true;
                    ahead.push_back(next);
                }
            }
        }
        self.inside = outside.into_iter().map(|out| !out).collect();
        self
    }

    /// Its outline, mm on the sheet.
    pub(super) fn ring(&self) -> Option<Vec<(f64, f64)>> {
        let contours = find_contours::<i32>(&self.picture(255));
        let mm = |at: i32, first: usize| {
            #[expect(clippy::cast_precision_loss, reason = "some thousand")]
            let first = first as f64;
            (first + f64::from(at) - 0.5) / PX_PER_MM
        };
        let rings = contours.iter().filter(|c| c.border_type == BorderType::Outer && c.points.len() > 8);
        let ring = rings
            .map(|c| c.points.iter().map(|p| (mm(p.x, self.left), mm(p.y, self.top))).collect::<Vec<(f64, f64)>>())
            .max_by(|a, b| signed_area(a).abs().total_cmp(&signed_area(b).abs()))?;
        // Borders run through the middles of pixels; the edge is half a pixel further out.
        Some(smoothed(&offset_ring(&ring, 0.5 / PX_PER_MM)?))
    }

    /// Cut in two or more where it is narrow, so that each part is about `one_mm2`; nothing where it does not fall into such parts.
    pub(super) fn apart(&self, one_mm2: f64) -> Option<Vec<Self>> {
        let wanted = (self.mm2() / one_mm2).round();
        if !(2.0..=8.0).contains(&wanted) {
            return None;
        }
        let depths = self.depths();
        let most = depths.iter().copied().fold(0.0, f64::max);
        let core_of = |depth: f64| -> Vec<Self> {
            let inside = self.inside.iter().zip(&depths).map(|(p, d)| *p && *d > depth).collect();
            let parts = Self { inside, ..self.clone() }.parts();
            parts.into_iter().filter(|p| p.mm2() > 0.01 * one_mm2).collect()
        };
        /// Steps of the depth at which it is looked whether it has fallen apart.
        const STEPS: u32 = 40;
        #[expect(clippy::cast_precision_loss, reason = "up to eight")]
        let cores = (1..STEPS)
            .map(|k| core_of(most * f64::from(k) / f64::from(STEPS)))
            .find(|cores| (cores.len() as f64 - wanted).abs() < 0.5)?;
        let parts = self.grown_from(&cores, &depths);
        let near = |p: &Self| (0.6..1.6).contains(&(p.mm2() / one_mm2));
        parts.iter().all(near).then_some(parts)
    }

    /// Each pixel to the core from which it is reached over the deepest way.
    fn grown_from(&self, cores: &[Self], depths: &[f64]) -> Vec<Self> {
        #[derive(PartialEq)]
        struct Next(f64, usize, usize);
        impl Eq for Next {}
        impl PartialOrd for Next {
            fn partial_cmp(&self, other: &Self) -> Option<Ordering> {
                Some(self.cmp(other))
            }
        }
        impl Ord for Next {
            fn cmp(&self, other: &Self) -> Ordering {
                self.0.total_cmp(&other.0).then(other.1.cmp(&self.1))
            }
        }
        let mut whose = vec![None; self.inside.len()];
        let mut ahead = BinaryHeap::new();
        for (core, patch) in cores.iter().enumerate() {
            for at in (0..patch.inside.len()).filter(|at| patch.inside[*at]) {
                whose[at] = Some(core);
                ahead.push(Next(depths[at], at, core));
            }
        }
        while let Some(Next(_, at, core)) = ahead.pop() {
            for next in self.neighbours(at) {
                if self.inside[next] && whose[next].is_none() {
                    whose[next] = Some(core);
                    ahead.push(Next(depths[next], next, core));
                }
            }
        }
        let of = |core| Self { inside: whose.iter().map(|w| *w == Some(core)).collect(), ..self.clone() };
        (0..cores.len()).map(of).collect()
    }
}

fn brightness([r, g, b]: [f32; 3]) -> f64 {
    (0.2126 * f64::from(r) + 0.7152 * f64::from(g) + 0.0722 * f64::from(b)).max(1e-6)
}

/// Red over blue, as a logarithm: neither a shadow nor the shaded side of a piece changes it.
fn warmth([r, _, b]: [f32; 3]) -> f64 {
    (f64::from(r.max(1e-4)) / f64::from(b.max(1e-4))).ln()
}

/// What tells a piece from the paper at its edge: half of the one and half of the other.
enum Edge {
    Warmer(f64),
    Darker(f64),
}

impl Edge {
    #[expect(clippy::cast_possible_truncation, reason = "a reflectance")]
    fn of(piece: [f32; 3]) -> Self {
        let half = piece.map(|v| f32::midpoint(v, paper_reflects() as f32));
        let told = if brightness(piece) > BRIGHT { A_LITTLE } else { COLOURED };
        if warmth(half) > told { Self::Warmer(warmth(half)) } else { Self::Darker(brightness(half)) }
    }

    fn is_piece(&self, here: [f32; 3]) -> bool {
        match self {
            Self::Warmer(half) => warmth(here) > *half || brightness(here) < DARK * paper_reflects(),
            Self::Darker(half) => brightness(here) < *half,
        }
    }
}

fn median(values: &mut [f32]) -> f32 {
    let middle = values.len() / 2;
    if values.is_empty() { 0.0 } else { *values.select_nth_unstable_by(middle, f32::total_cmp).1 }
}

/// The middle of some colours, channel by channel.
pub(super) fn median_colour(colours: &[[f32; 3]]) -> [f32; 3] {
    [0, 1, 2].map(|k| median(&mut colours.iter().map(|c| c[k]).collect::<Vec<f32>>()))
}

/// How much a place differs from paper.
#[expect(clippy::cast_possible_truncation, reason = "a difference")]
fn difference(here: [f32; 3], paper: [f64; 3]) -> f32 {
    let [l, a, b] = lab(here);
    (LIGHTNESS * (l - paper[0])).hypot((a - paper[1]).hypot(b - paper[2])) as f32
}

/// How much each place differs from paper: nothing where each channel is near to it, which is most of a sheet. And by how much most of it does.
fn differences(sheet: &Sheet) -> (Vec<f32>, f64) {
    /// A channel this near, of 1, makes less of a difference than is looked for.
    const NEAR: f32 = 0.03;
    /// One place of so many tells how much paper differs from itself.
    const ONE_OF: usize = 11;
    #[expect(clippy::cast_possible_truncation, reason = "a reflectance")]
    let of_paper = paper_reflects() as f32;
    let paper = lab([of_paper; 3]);
    let of = |p: &[f32; 3]| {
        if p.iter().all(|v| (v - of_paper).abs() < NEAR) { 0.0 } else { difference(*p, paper) }
    };
    let mut some: Vec<f32> = sheet.pixels.iter().step_by(ONE_OF).map(|p| difference(*p, paper)).collect();
    let noise = f64::from(median(&mut some));
    (sheet.pixels.iter().map(of).collect(), noise)
}

/// The pieces of a sheet whose light is taken out, each as it is seen; and how many lie over the paper's edge and are left out.
pub(super) fn seen(sheet: &Sheet) -> (Vec<Patch>, u32) {
    let (differs, noise) = differences(sheet);
    let over = DIFFERS.max(OVER_NOISE * noise);
    let px = |n: usize| u32::try_from(n).unwrap_or(0);
    let mut mask = GrayImage::new(px(sheet.across), px(sheet.down));
    for (to, differs) in mask.pixels_mut().zip(&differs) {
        to.0[0] = if f64::from(*differs) > over { 255 } else { 0 };
    }
    let mask = open(&mask, Norm::L2, 2);
    let labels = connected_components(&mask, Connectivity::Four, Luma([0]));
    let mut boxes: Vec<(usize, usize, usize, usize, usize)> = vec![];
    for (x, y, label) in labels.enumerate_pixels() {
        let label = usize::try_from(label.0[0]).unwrap_or(0);
        let (x, y) = (usize::try_from(x).unwrap_or(0), usize::try_from(y).unwrap_or(0));
        if label == 0 {
            continue;
        }
        if boxes.len() < label {
            boxes.resize(label, (usize::MAX, usize::MAX, 0, 0, 0));
        }
        let b = &mut boxes[label - 1];
        *b = (b.0.min(x), b.1.min(y), b.2.max(x), b.3.max(y), b.4 + 1);
    }
    let (mut found, mut over_the_edge) = (vec![], 0);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few pixels")]
    let (margin, beside) = ((PAPER_EDGE_MM * PX_PER_MM) as usize, (BESIDE_MM * PX_PER_MM) as usize);
    for (label, (x0, y0, x1, y1, count)) in boxes.into_iter().enumerate() {
        #[expect(clippy::cast_precision_loss, reason = "a few ten thousand")]
        let mm2 = count as f64 / (PX_PER_MM * PX_PER_MM);
        if mm2 < LEAST_MM2 {
            continue;
        }
        if x0 < margin || y0 < margin || x1 + margin >= sheet.across || y1 + margin >= sheet.down {
            // A dark line along the edge of the paper is no piece.
            let thin = (x1 - x0).min(y1 - y0) < 4 * margin;
            over_the_edge += u32::from(!thin);
            continue;
        }
        let (left, top) = (x0.saturating_sub(beside), y0.saturating_sub(beside));
        let size = ((x1 + beside).min(sheet.across - 1) + 1 - left, (y1 + beside).min(sheet.down - 1) + 1 - top);
        let mut patch = Patch::new((left, top), size);
        for at in 0..patch.inside.len() {
            let (i, j) = (left + at % size.0, top + at / size.0);
            patch.inside[at] = usize::try_from(labels.get_pixel(px(i), px(j)).0[0]) == Ok(label + 1);
        }
        found.extend(by_its_edge(sheet, &patch));
    }
    (found, over_the_edge)
}

/// The same piece up to where its own edge turns into paper.
fn by_its_edge(sheet: &Sheet, rough: &Patch) -> Option<Patch> {
    let depths = rough.depths();
    let there = |at: &usize| rough.inside[*at] && (EDGE_MM.0..EDGE_MM.1).contains(&depths[*at]);
    let here = |at: usize| {
        let (x, y) = rough.mm(at);
        sheet.at(x, y)
    };
    let colours: Vec<[f32; 3]> = (0..rough.inside.len()).filter(there).map(here).collect();
    if colours.is_empty() {
        return None;
    }
    let edge = Edge::of(median_colour(&colours));
    let inside = (0..rough.inside.len()).map(|at| edge.is_piece(here(at))).collect();
    let by_edge = Patch { inside, ..rough.clone() }.filled();
    let shared = |p: &Patch| p.inside.iter().zip(&rough.inside).filter(|(a, b)| **a && **b).count();
    by_edge.parts().into_iter().max_by_key(shared).filter(|p| shared(p) > 0)
}

/// What is not paper about a place that somebody points at; nothing where there is nothing.
pub(super) fn pointed_at(sheet: &Sheet, at: (f64, f64)) -> Option<Patch> {
    /// So far from the place, mm; and all that is taken for one piece has to end within.
    const REACH_MM: f64 = 90.0;
    let (i, j) = (Sheet::px(at.0, sheet.across), Sheet::px(at.1, sheet.down));
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few hundred")]
    let reach = (REACH_MM * PX_PER_MM) as usize;
    let (left, top) = (i.saturating_sub(reach), j.saturating_sub(reach));
    let size = ((i + reach).min(sheet.across - 1) + 1 - left, (j + reach).min(sheet.down - 1) + 1 - top);
    let edge = Edge::of(sheet.mean_about(at.0, at.1));
    let mut all = Patch::new((left, top), size);
    all.inside = (0..all.inside.len())
        .map(|at| {
            let (x, y) = all.mm(at);
            edge.is_piece(sheet.at(x, y))
        })
        .collect();
    let part = all.filled().parts().into_iter().find(|p| p.holds(at))?;
    let touches_edge = (0..part.inside.len()).filter(|at| part.inside[*at]).any(|at| {
        let (x, y) = (at % size.0, at / size.0);
        x == 0 || y == 0 || x + 1 == size.0 || y + 1 == size.1
    });
    (part.mm2() >= LEAST_MM2 && !touches_edge).then_some(part)
}

/// The foot of what stands up: a place is under it where it is seen at every height over it.
pub(super) fn foot(seen: &Patch, stands: &Stands) -> Option<Patch> {
    let heights: Vec<f64> =
        (1..=HEIGHTS).map(|k| 1.0 + (stands.rim - 1.0) * f64::from(k) / f64::from(HEIGHTS)).collect();
    let inside = (0..seen.inside.len())
        .map(|at| seen.inside[at] && heights.iter().all(|by| seen.holds(stands.part_up(seen.mm(at), *by))))
        .collect();
    Patch { inside, ..seen.clone() }.parts().into_iter().next()
}
