//! What is to be laid out: cutters, how many of each, the sheet, what is kept free.

use super::ground;
use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::{Outline, Placement};
use crate::shape::sheet::SheetForm;
use crate::shape::spacing::{Spacing, Turning, larger_than_sheet};
use crate::units::Length;

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
    pub(super) cutters: Vec<NestCutter>,
    pub(super) sheet: SheetForm,
    pub(super) spacing: Spacing,
    pub(super) held: Vec<NestPiece>,
    pub(super) start: Vec<NestPiece>,
    pub(super) holes: bool,
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
                format!("Use 1 to {MOST_CUTTERS} cutters on a sheet. You have {}.", cutters.len()),
            ));
        }
        if cutters.len() > 1 && cutters.iter().any(|c| c.wanted.is_none()) {
            checks.push(InputError::refused("pieces", "With several cutters, give the number of cookies for each."));
        }
        for (i, cutter) in cutters.iter().enumerate() {
            if let Some(wanted) = cutter.wanted {
                checks.range(&format!("cutters[{i}].pieces"), f64::from(wanted), 0.0, 20_000.0, "cookies");
            }
        }
        checks.finish(())?;
        let question = Self { cutters, sheet, spacing, held: vec![], start: vec![], holes: false };
        for (i, cutter) in question.cutters.iter().enumerate() {
            if !ground::fits(&cutter.outline, cutter.turning, sheet, spacing.edge()) {
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

pub(in crate::shape) fn ring_area(points: &[(f64, f64)]) -> f64 {
    let n = points.len();
    (0..n).map(|i| points[i].0 * points[(i + 1) % n].1 - points[(i + 1) % n].0 * points[i].1).sum::<f64>().abs() / 2.0
}
