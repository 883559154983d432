//! Round and oval sheets: rows laid so that the most of them lie on the form, for every size up to the largest.

use super::demand::Sheets;
use super::lattice::LatticeTable;
use super::layout::{Layout, in_rows, least_gap};
use super::nest::{KeptFault, kept_layout_fault};
use super::sheet::SheetForm;
use super::spacing::{Spacing, Turning, larger_than_sheet};
use crate::error::InputError;
use crate::geometry::{Outline, Placement};
use crate::units::{Area, Length};

/// Rows are shifted under the form by eighths of a piece each way, this many to each side.
const SHIFTS: i32 = 4;

/// Pieces about the middle of a form, the innermost first, each with the share of the largest form that it needs.
type Laid = Vec<(f64, Placement)>;

/// Layouts of one cutter on sheets of one form, all sizes alike in proportion.
#[derive(Debug, Clone)]
pub struct RoundSheets {
    outline: Outline,
    largest: SheetForm,
    laid: Vec<Laid>,
    /// For each count, the least share of the largest form that holds it, and which of `laid` does.
    best: Vec<(f64, usize)>,
    /// Which of `laid` was nested and kept.
    nested: Option<usize>,
}

impl RoundSheets {
    /// Searches rows on the largest round or oval (an oblong is taken as the oval in it).
    ///
    /// Fails when not even one piece fits.
    pub fn new(outline: &Outline, largest: SheetForm, spacing: Spacing, turning: Turning) -> Result<Self, InputError> {
        let (width, length) = largest.extent();
        let rows = LatticeTable::for_turning(outline, width, length, spacing, turning)?.layout(length).pieces;
        let (w, h) = outline.extent();
        let step = ((w.mm() + spacing.web().mm()) / 8.0, (h.mm() + spacing.web().mm()) / 8.0);
        let mut found =
            Self { outline: outline.clone(), largest, laid: Vec::with_capacity(144), best: vec![], nested: None };
        let rim = Rim::new(largest, spacing);
        for i in -SHIFTS..=SHIFTS {
            for j in -SHIFTS..=SHIFTS {
                let middle = (width.mm() / 2.0 + step.0 * f64::from(i), length.mm() / 2.0 + step.1 * f64::from(j));
                found.laid.push(rim.about(outline, &rows, middle));
            }
        }
        for middle in middles(&rows, (width.mm() / 2.0, length.mm() / 2.0)) {
            found.laid.push(rim.about(outline, &rows, middle));
        }
        found.settle();
        if found.best.is_empty() {
            return Err(InputError::refused("cutter", larger_than_sheet(outline, (width, length), spacing.edge())));
        }
        Ok(found)
    }

    /// The same with a nested layout besides the rows: its innermost pieces stand for a smaller sheet.
    ///
    /// Fails with the reason when the layout does not keep the web.
    pub fn with_layout(mut self, pieces: &[Placement], spacing: Spacing, turning: Turning) -> Result<Self, KeptFault> {
        // Wherever it was nested, its middle is the middle of its box.
        let points: Vec<(f64, f64)> = pieces.iter().flat_map(|p| self.outline.placed(*p)).collect();
        let span = |f: fn(&(f64, f64)) -> f64| {
            points.iter().map(f).fold((f64::MAX, f64::MIN), |(low, high), v| (low.min(v), high.max(v)))
        };
        let ((left, right), (top, bottom)) = (span(|p| p.0), span(|p| p.1));
        let room = Length::new_mm((right - left).max(bottom - top).max(0.0) + 2.0 * spacing.edge().mm() + 1.0);
        let moved: Vec<Placement> = pieces
            .iter()
            .map(|p| Placement {
                x_mm: p.x_mm - left + spacing.edge().mm(),
                y_mm: p.y_mm - top + spacing.edge().mm(),
                ..*p
            })
            .collect();
        if let Some(fault) = kept_layout_fault(&self.outline, room, room, spacing, turning, &moved) {
            return Err(fault);
        }
        let middle = (f64::midpoint(left, right), f64::midpoint(top, bottom));
        self.nested = Some(self.laid.len());
        self.laid.push(Rim::new(self.largest, spacing).about(&self.outline, pieces, middle));
        self.settle();
        Ok(self)
    }

    fn settle(&mut self) {
        self.best.clear();
        for (at, laid) in self.laid.iter().enumerate() {
            for (n, (needed, _)) in laid.iter().enumerate() {
                if *needed > 1.0 {
                    break;
                }
                match self.best.get_mut(n) {
                    Some(best) if *needed < best.0 - 1e-9 => *best = (*needed, at),
                    Some(_) => {}
                    None => self.best.push((*needed, at)),
                }
            }
        }
    }

    /// Of the largest form, each way.
    fn share(&self, form: &SheetForm) -> f64 {
        form.extent().0 / self.largest.extent().0
    }
}

/// Middles about which few pieces lie evenly: those of one, two and three pieces near `centre`.
fn middles(pieces: &[Placement], centre: (f64, f64)) -> Vec<(f64, f64)> {
    let mut near: Vec<(f64, f64)> = pieces.iter().map(|p| (p.x_mm, p.y_mm)).collect();
    let far = |p: &(f64, f64)| (p.0 - centre.0).hypot(p.1 - centre.1);
    near.sort_by(|a, b| far(a).total_cmp(&far(b)));
    near.truncate(7);
    let mut found = near.clone();
    for (i, a) in near.iter().enumerate() {
        for (j, b) in near.iter().enumerate().skip(i + 1) {
            found.push((f64::midpoint(a.0, b.0), f64::midpoint(a.1, b.1)));
            found.extend(near[j + 1..].iter().map(|c| ((a.0 + b.0 + c.0) / 3.0, (a.1 + b.1 + c.1) / 3.0)));
        }
    }
    found
}

/// The rim of the largest form and what is kept free at it.
struct Rim {
    half: (f64, f64),
    edge: f64,
}

impl Rim {
    fn new(form: SheetForm, spacing: Spacing) -> Self {
        let (w, l) = form.extent();
        Self { half: (w.mm() / 2.0, l.mm() / 2.0), edge: spacing.edge().mm() }
    }

    /// The share of the form, about its middle, within which a piece keeps the edge. A form that is scaled by
    /// r + edge / (its lesser half) holds all that is nearer than `edge` to one that is scaled by r; of a round exactly.
    fn needed(&self, points: &[(f64, f64)]) -> f64 {
        let (a, b) = self.half;
        let farthest = points.iter().map(|p| (p.0 / a).hypot(p.1 / b)).fold(0.0, f64::max);
        farthest + self.edge / a.min(b)
    }

    fn about(&self, outline: &Outline, pieces: &[Placement], middle: (f64, f64)) -> Laid {
        let mut laid: Laid = pieces
            .iter()
            .map(|p| Placement { x_mm: p.x_mm - middle.0, y_mm: p.y_mm - middle.1, ..*p })
            .map(|p| (self.needed(&outline.placed(p)), p))
            .collect();
        laid.sort_by(|a, b| a.0.total_cmp(&b.0));
        laid
    }
}

impl Sheets for RoundSheets {
    fn largest(&self) -> SheetForm {
        self.largest
    }

    fn of_area(&self, area: Area) -> SheetForm {
        let share = (area / self.largest.area()).sqrt().min(1.0);
        let (w, l) = self.largest.extent();
        match self.largest {
            SheetForm::Round { diameter } => SheetForm::Round { diameter: diameter * share },
            SheetForm::Oblong { .. } | SheetForm::Oval { .. } => {
                SheetForm::Oval { width: w * share, length: l * share }
            }
        }
    }

    fn count(&self, form: &SheetForm) -> usize {
        let share = self.share(form);
        // `best` grows with the count but for what a shift more has found; the last that fits counts.
        self.best.iter().rposition(|(needed, _)| *needed <= share + 1e-9).map_or(0, |n| n + 1)
    }

    fn layout(&self, form: &SheetForm) -> Layout {
        let count = self.count(form);
        let (width, length) = form.extent();
        let mut pieces: Vec<Placement> = match count.checked_sub(1).and_then(|n| self.best.get(n)) {
            None => vec![],
            Some((_, at)) => self.laid[*at][..count]
                .iter()
                .map(|(_, p)| Placement {
                    x_mm: p.x_mm + width.mm() / 2.0,
                    y_mm: p.y_mm + length.mm() / 2.0,
                    turn_deg: p.turn_deg,
                })
                .collect(),
        };
        in_rows(&mut pieces);
        let nested = count.checked_sub(1).is_some_and(|n| self.nested == Some(self.best[n].1));
        Layout { least_gap: least_gap(&self.outline, &pieces), pieces, length, nested }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind};
    use crate::shape::nest::{NestCutter, NestPiece, NestQuestion, measure_layout};
    use proptest::prelude::*;

    fn round(across: f64) -> Outline {
        Builtin::new(BuiltinKind::Round, across, 0.0).unwrap().outline().unwrap()
    }

    fn disc(across: f64) -> SheetForm {
        SheetForm::round(across).unwrap()
    }

    /// Packings of equal circles in a circle: seven fit three diameters across, nineteen need 4.863 (Graham and others 1998,
    /// quoted from memory); rows reach both, the second within a few per cent.
    #[test]
    fn seven_rounds_lie_about_each_other() {
        let spacing = Spacing::new(2.0, 0.0).unwrap();
        let sheets = RoundSheets::new(&round(58.0), disc(320.0), spacing, Turning::Free).unwrap();
        // A round of 58 with a web of 2 stands for one of 60 on a sheet that is 2 larger.
        assert!(sheets.best[6].0 * 320.0 < 3.0 * 60.0 - 2.0 + 4.0, "{}", sheets.best[6].0 * 320.0);
        assert!(sheets.best[18].0 * 320.0 < 4.863 * 60.0 * 1.06);
    }

    #[test]
    fn a_cutter_larger_than_the_round_is_refused() {
        let spacing = Spacing::new(3.0, 4.0).unwrap();
        let error = RoundSheets::new(&round(90.0), disc(95.0), spacing, Turning::Free).unwrap_err();
        assert!(error.to_string().contains("fit the sheet"), "{error}");
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]
        #[test]
        fn every_layout_keeps_web_and_rim(across in 30f64..80.0, w in 200f64..320.0, l in 200f64..440.0, share in 0.3f64..1.0, oval in prop::bool::ANY) {
            let spacing = Spacing::new(3.0, 4.0).unwrap();
            let largest = if oval { SheetForm::oval(w, l).unwrap() } else { disc(w) };
            let sheets = RoundSheets::new(&round(across), largest, spacing, Turning::Free).unwrap();
            let form = sheets.of_area(largest.area() * share);
            let layout = sheets.layout(&form);
            prop_assert!(layout.pieces.len() <= sheets.count(&largest));
            if layout.pieces.is_empty() { return Ok(()); }
            let cutter = NestCutter { outline: round(across), turning: Turning::Free, wanted: None };
            let question = NestQuestion::new(vec![cutter], form, spacing).unwrap();
            let pieces: Vec<NestPiece> = layout.pieces.iter().map(|at| NestPiece { cutter: 0, at: *at }).collect();
            // The rim of the proof has corners within 0.02 mm inside the true rim.
            let gaps = measure_layout(&question, &pieces);
            prop_assert!(gaps.iter().all(|g| g.too_near.is_empty() && g.rim.mm() > 4.0 - 0.05), "{gaps:?}");
        }
    }
}
