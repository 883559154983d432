//! Nesting: any cutters on one sheet, lying as close as web and edge allow.
//!
//! The first layout comes from lattices (blocks of rows, one below the other) and is at hand at once; the search then puts
//! in one piece more than fits and pushes the pieces apart until nothing overlaps, or, once all that is wanted lies on the
//! sheet, makes the sheet shorter. Every layout handed out has been measured by [`measure_layout`].

mod engine;
mod first;
mod ground;
mod holes;
mod proof;
mod search;

pub use proof::{PieceGaps, measure_layout};
pub use search::Nester;

use super::layout::{Layout, least_gap};
use super::sheet::SheetForm;
use super::spacing::{Spacing, Turning, larger_than_sheet};
use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::{Outline, Placement};
use crate::units::{Area, Length};
use proof::Laid;

/// More pieces than this on one sheet are laid out in rows and not searched further: each round moves every piece.
pub const MOST_SEARCHED: usize = 400;
/// More kinds of cutter than this do not go on one sheet. Our own choice: more than anybody keeps apart.
pub const MOST_CUTTERS: usize = 12;

/// A cutter and how many pieces of it are wanted.
#[derive(Debug, Clone)]
pub struct NestCutter {
    /// Its edge.
    pub outline: Outline,
    /// How it may be turned.
    pub turning: Turning,
    /// How many; `None` for as many as fit.
    pub wanted: Option<u32>,
}

/// A piece on the sheet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NestPiece {
    /// Which cutter.
    pub cutter: usize,
    /// Where.
    pub at: Placement,
}

/// What is to be laid out.
#[derive(Debug, Clone)]
pub struct NestQuestion {
    cutters: Vec<NestCutter>,
    sheet: SheetForm,
    spacing: Spacing,
    held: Vec<NestPiece>,
    start: Vec<NestPiece>,
    holes: bool,
}

impl NestQuestion {
    /// As many as fit of one cutter, or the wanted pieces of several.
    ///
    /// Fails when there is no cutter or too many, when one is larger than the sheet, or when several are given and one of
    /// them has no count.
    pub fn new(cutters: Vec<NestCutter>, sheet: SheetForm, spacing: Spacing) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        if cutters.is_empty() || cutters.len() > MOST_CUTTERS {
            checks.push(InputError::refused(
                "cutters",
                format!("one to {MOST_CUTTERS} cutters go on one sheet; these are {}", cutters.len()),
            ));
        }
        if cutters.len() > 1 && cutters.iter().any(|c| c.wanted.is_none()) {
            checks.push(InputError::refused("pieces", "with several cutters, say how many pieces of each"));
        }
        for (i, cutter) in cutters.iter().enumerate() {
            if let Some(wanted) = cutter.wanted {
                checks.range(&format!("cutters[{i}].pieces"), f64::from(wanted), 0.0, 20_000.0, "pieces");
            }
        }
        checks.finish(())?;
        let question = Self { cutters, sheet, spacing, held: vec![], start: vec![], holes: false };
        for (i, cutter) in question.cutters.iter().enumerate() {
            if !first::fits(&question, cutter) {
                let why = larger_than_sheet(&cutter.outline, sheet.extent(), spacing.edge());
                return Err(InputError::refused(format!("cutters[{i}]"), why).into());
            }
        }
        Ok(question)
    }

    /// The same with the holes of large pieces open to small ones of which a number is wanted.
    #[must_use]
    pub fn using_holes(mut self) -> Self {
        self.holes = true;
        self
    }

    /// The same with pieces that stay where they are, and others to start from.
    ///
    /// Fails when a held piece names no cutter, reaches over the rim or lies too near another held one. What of `start`
    /// does not go with them is left out.
    pub fn starting_from(mut self, held: Vec<NestPiece>, start: Vec<NestPiece>) -> Result<Self, InputErrors> {
        if held.len() + start.len() > MOST_SEARCHED {
            return Err(InputError::refused(
                "pieces",
                format!("{} pieces; at most {MOST_SEARCHED} are moved about", held.len() + start.len()),
            )
            .into());
        }
        for (field, pieces) in [("held", &held), ("start", &start)] {
            for (i, p) in pieces.iter().enumerate() {
                if p.cutter >= self.cutters.len() {
                    return Err(InputError::refused(format!("{field}[{i}].cutter"), "no such cutter").into());
                }
                if ![p.at.x_mm, p.at.y_mm, p.at.turn_deg].iter().all(|v| v.is_finite() && v.abs() < 1e5) {
                    return Err(InputError::refused(format!("{field}[{i}]"), "not a place on any sheet").into());
                }
            }
        }
        let (held, start) = if self.holes {
            // What lies in a hole goes along with its ring.
            let all: Vec<NestPiece> = held.iter().chain(&start).copied().collect();
            let outside = |p: &NestPiece| !holes::lies_in_a_hole(&self, p, &all);
            (held.into_iter().filter(outside).collect(), start.into_iter().filter(outside).collect())
        } else {
            (held, start)
        };
        let gaps = measure_layout(&self, &held);
        if let Some(at) = gaps.iter().position(|g| !g.is_sound()) {
            let why = if gaps[at].over_rim { "reaches into the rim" } else { "lies too near another held piece" };
            return Err(InputError::refused(format!("held[{at}]"), format!("the held piece {} {why}", at + 1)).into());
        }
        let mut laid = Laid::new(&self);
        for piece in &held {
            laid.try_add(&self, *piece);
        }
        self.start = start.into_iter().filter(|piece| laid.try_add(&self, *piece)).collect();
        self.held = held;
        Ok(self)
    }

    /// The cutters.
    #[must_use]
    pub fn cutters(&self) -> &[NestCutter] {
        &self.cutters
    }

    /// The sheet.
    #[must_use]
    pub fn sheet(&self) -> SheetForm {
        self.sheet
    }

    /// Web and edge.
    #[must_use]
    pub fn spacing(&self) -> Spacing {
        self.spacing
    }

    /// No layout can hold more than this: the ground over what each piece takes with half a web around it.
    #[must_use]
    pub fn area_bound(&self) -> usize {
        let half_web = Length::new_mm(self.spacing.web().mm() / 2.0);
        let ground = self.sheet.ground(self.spacing.edge(), half_web).map_or(0.0, |g| ring_area(&g));
        let least = self
            .cutters
            .iter()
            .map(|c| ring_area(&c.outline.grown(Length::new_mm((half_web.mm() - 0.02).max(0.0)))))
            .fold(f64::INFINITY, f64::min);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a count of pieces on a sheet")]
        let bound = (ground / least).max(0.0) as usize;
        bound
    }
}

/// Why a kept layout cannot be used on a sheet any longer; `None` when it can.
pub(super) fn kept_layout_fault(
    outline: &Outline,
    width: Length,
    longest: Length,
    spacing: Spacing,
    turning: Turning,
    pieces: &[Placement],
) -> Option<String> {
    if let Some(turned) = pieces.iter().filter(|p| !turning.allows(p.turn_deg)).count().checked_sub(1) {
        let how = if turning == Turning::Fixed { "as drawn" } else { "as drawn or half round" };
        return Some(format!("{} of its pieces are turned, and the cutter is to lie {how}", turned + 1));
    }
    let sheet = SheetForm::Oblong { width, length: longest, corner: Length::new_mm(0.0) };
    let cutter = NestCutter { outline: outline.clone(), turning: Turning::Free, wanted: None };
    let Ok(question) = NestQuestion::new(vec![cutter], sheet, spacing) else {
        return Some("its cutter is larger than the sheet".to_owned());
    };
    let pieces: Vec<NestPiece> = pieces.iter().map(|at| NestPiece { cutter: 0, at: *at }).collect();
    let gaps = measure_layout(&question, &pieces);
    let near = gaps.iter().filter(|g| !g.too_near.is_empty()).count();
    let over = gaps.iter().filter(|g| g.over_rim).count();
    match (near, over) {
        (0, 0) => None,
        (0, over) => Some(format!("{over} of its pieces reach into the rim")),
        (near, _) => Some(format!("{near} of its pieces lie nearer than the web")),
    }
}

/// A layout laid by hand on a tray, as long as it holds; why it does not, otherwise.
pub(super) fn kept_on_tray(
    outline: &Outline,
    width: Length,
    length: Length,
    spacing: Spacing,
    pieces: &[Placement],
) -> Result<Layout, String> {
    // On a tray a piece may lie as it likes: it is the sheet's floured or textured face that is not to be turned.
    if let Some(fault) = kept_layout_fault(outline, width, length, spacing, Turning::Free, pieces) {
        return Err(fault);
    }
    Ok(Layout { pieces: pieces.to_vec(), length, least_gap: least_gap(outline, pieces), nested: true })
}

pub(super) fn ring_area(points: &[(f64, f64)]) -> f64 {
    let n = points.len();
    (0..n).map(|i| points[i].0 * points[(i + 1) % n].1 - points[(i + 1) % n].0 * points[i].1).sum::<f64>().abs() / 2.0
}

/// Pieces on a sheet, measured.
#[derive(Debug, Clone, PartialEq)]
pub struct Nested {
    /// Every piece, in the order of cutting: by rows from the top, each from the left.
    pub pieces: Vec<NestPiece>,
    /// Where the rows begin in `pieces`.
    pub rows: Vec<usize>,
    /// How many of each cutter.
    pub counts: Vec<u32>,
    /// How many of each that are wanted do not lie on it.
    pub missing: Vec<u32>,
    /// The area cut out.
    pub cut: Area,
    /// How much of the sheet's length is used, the edge included.
    pub used: Length,
    /// The smallest gap between two pieces, where two are near each other.
    pub least_gap: Option<Length>,
    /// The smallest gap to the rim.
    pub least_rim: Length,
}

impl Nested {
    /// Measured; `None` when web or edge is not kept.
    pub(super) fn proved(question: &NestQuestion, mut pieces: Vec<NestPiece>) -> Option<Self> {
        let rows = in_cutting_order(&mut pieces, |p| (p.at, &question.cutters[p.cutter].outline));
        let gaps = measure_layout(question, &pieces);
        if !gaps.iter().all(PieceGaps::is_sound) {
            return None;
        }
        let mut counts = vec![0u32; question.cutters.len()];
        for piece in &pieces {
            counts[piece.cutter] += 1;
        }
        let missing =
            question.cutters.iter().zip(&counts).map(|(c, n)| c.wanted.unwrap_or(0).saturating_sub(*n)).collect();
        let cut = question.cutters.iter().zip(&counts).map(|(c, n)| c.outline.area().mm2() * f64::from(*n)).sum();
        let lowest = pieces
            .iter()
            .flat_map(|p| question.cutters[p.cutter].outline.placed(p.at))
            .map(|p| p.1)
            .fold(0.0, f64::max);
        Some(Self {
            least_gap: gaps
                .iter()
                .filter_map(|g| g.nearest.map(|(gap, _)| gap))
                .min_by(|a, b| a.mm().total_cmp(&b.mm())),
            least_rim: gaps.iter().map(|g| g.rim).fold(question.sheet.extent().0, |a, b| if b < a { b } else { a }),
            used: Length::new_mm(if pieces.is_empty() { 0.0 } else { lowest + question.spacing.edge().mm() }),
            cut: Area::new_mm2(cut),
            pieces,
            rows,
            counts,
            missing,
        })
    }

    /// Better: more area cut, or, with the same pieces, less of the sheet's length used.
    #[must_use]
    pub fn beats(&self, other: &Self) -> bool {
        if (self.cut.mm2() - other.cut.mm2()).abs() > 1e-6 {
            return self.cut > other.cut;
        }
        self.used.mm() < other.used.mm() - 0.01
    }
}

/// Sorts pieces as they are cut and tells where the rows begin. A row is the topmost piece left and all whose middle lies
/// at most a third of its lesser side below.
pub(super) fn in_cutting_order<'a, P>(pieces: &mut [P], lies: impl Fn(&P) -> (Placement, &'a Outline)) -> Vec<usize> {
    let mut rows = Vec::new();
    let at = |p: &P| lies(p).0;
    pieces.sort_by(|a, b| at(a).y_mm.total_cmp(&at(b).y_mm).then(at(a).x_mm.total_cmp(&at(b).x_mm)));
    let mut from = 0;
    while from < pieces.len() {
        let (first, outline) = lies(&pieces[from]);
        let (w, h) = outline.extent();
        let below = first.y_mm + w.mm().min(h.mm()) / 3.0;
        let to = from + pieces[from..].partition_point(|p| at(p).y_mm <= below);
        pieces[from..to].sort_by(|a, b| at(a).x_mm.total_cmp(&at(b).x_mm));
        rows.push(from);
        from = to;
    }
    rows
}
