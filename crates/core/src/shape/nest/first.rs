//! The first layout: blocks of lattice rows, one cutter below the other.

use super::ground::{Ground, SearchShape};
use super::question::{NestCutter, NestPiece, NestQuestion};
use crate::geometry::Placement;
use crate::shape::lattice::LatticeTable;
use crate::shape::sheet::SheetForm;
use crate::units::Length;

/// Beyond the web, by which pieces are searched apart, so that 32-bit numbers never take from it.
pub(super) const APART_MM: f64 = 0.01;

pub(super) fn ground_of(question: &NestQuestion, sheet: SheetForm) -> Option<Ground> {
    let half_web = Length::new_mm(question.spacing.web().mm() / 2.0 + APART_MM);
    Some(Ground::new(&sheet.ground(question.spacing.edge(), half_web)?))
}

/// `grown` already adds [`APART_MM`].
pub(super) fn shape_of(question: &NestQuestion, cutter: &NestCutter) -> Option<SearchShape> {
    SearchShape::new(&cutter.outline.grown(Length::new_mm(question.spacing.web().mm() / 2.0)), cutter.turning)
}

/// Rows of lattices, as many pieces as lie wholly on the sheet.
pub(super) fn rows(question: &NestQuestion) -> Vec<NestPiece> {
    let (width, length) = question.sheet.extent();
    let (edge, web) = (question.spacing.edge(), question.spacing.web());
    let ground = question.sheet.ground(edge, Length::new_mm(0.0)).map(|g| Ground::new(&g));
    let square = matches!(question.sheet, SheetForm::Oblong { corner, .. } if corner <= edge);
    let on_sheet = |cutter: &NestCutter, at: Placement| {
        square || ground.as_ref().is_some_and(|g| g.holds(&cutter.outline.placed(at)))
    };
    let mut order: Vec<usize> = (0..question.cutters.len()).collect();
    order.sort_by(|a, b| {
        question.cutters[*b].outline.area().mm2().total_cmp(&question.cutters[*a].outline.area().mm2())
    });
    let mut pieces = Vec::new();
    let mut from = 0.0;
    for index in order {
        let cutter = &question.cutters[index];
        let left = length.mm() - from;
        let wanted = cutter.wanted.map_or(usize::MAX, |n| n as usize);
        if wanted == 0 || left <= 2.0 * edge.mm() {
            continue;
        }
        let Ok(table) =
            LatticeTable::for_turning(&cutter.outline, width, Length::new_mm(left), question.spacing, cutter.turning)
        else {
            continue;
        };
        // Rows shifted within the room the block leaves, so that a round or rounded sheet keeps the most of them.
        let best = if square {
            let count = wanted.min(table.count(Length::new_mm(left)));
            let needed = table.shortest_for(count).unwrap_or(Length::new_mm(left));
            table.layout(needed).pieces
        } else {
            let all = table.layout(Length::new_mm(left)).pieces;
            let (w, h) = cutter.outline.extent();
            let (w, h) = (w.mm() + web.mm(), h.mm() + web.mm());
            let mut best: Vec<Placement> = vec![];
            for i in -4..=4 {
                for j in -4..=4 {
                    let (dx, dy) = (w * f64::from(i) / 8.0, h * f64::from(j) / 8.0);
                    let kept: Vec<Placement> = all
                        .iter()
                        .map(|p| Placement { x_mm: p.x_mm + dx, y_mm: p.y_mm + dy, ..*p })
                        .filter(|p| on_sheet(cutter, Placement { y_mm: p.y_mm + from, ..*p }))
                        .collect();
                    if kept.len() > best.len() {
                        best = kept;
                    }
                }
            }
            best
        };
        let mut lowest = from;
        for at in best.into_iter().take(wanted) {
            let at = Placement { y_mm: at.y_mm + from, ..at };
            lowest = cutter.outline.placed(at).iter().map(|p| p.1).fold(lowest, f64::max);
            pieces.push(NestPiece { cutter: index, at });
        }
        // The next block keeps a web to this one; its own layout keeps the edge above it.
        if lowest > from {
            from = lowest + web.mm() - edge.mm();
        }
    }
    pieces
}
