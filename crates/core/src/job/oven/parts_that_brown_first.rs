//! Points and necks of a piece, which bake ahead of the rest of it.

use crate::error::InputErrors;
use crate::geometry::{NarrowPart, Outline, narrow_parts};
use crate::job::oven::bake::BakeQuestion;
use crate::job::reasons::part_ahead::PartsAhead;
use crate::oven::{BakeForecast, BakePiece, LEAST_RADIUS_MM, forecast_at};
use crate::units::{Length, Span};

/// Parts whose widths differ by less than this share are told together. Our own choice.
const ALIKE: f64 = 0.20;
/// Kinds of narrow parts told at most, the narrowest ones.
const MOST_PARTS: usize = 3;
/// Less ahead is not worth a word.
const WORTH_A_WORD: Span = Span::new_s(12.0);

/// Points and necks of a piece that bake ahead: each as a disc with twice their half width for a radius.
///
/// Fails beyond what the model knows.
pub fn parts_ahead(
    outline: &Outline,
    question: &BakeQuestion,
    whole: &BakeForecast,
) -> Result<Vec<PartsAhead>, InputErrors> {
    let mut groups: Vec<Vec<NarrowPart>> = Vec::new();
    for part in narrow_parts(outline) {
        let alike = |g: &Vec<NarrowPart>| g[0].kind == part.kind && part.width.mm() <= g[0].width.mm() * (1.0 + ALIKE);
        match groups.iter_mut().find(|g| alike(g)) {
            Some(group) => group.push(part),
            None => groups.push(vec![part]),
        }
    }
    let mut found = Vec::new();
    for group in groups.into_iter().take(MOST_PARTS) {
        let first = group[0];
        // The model knows nothing narrower than 15 mm across: what is narrower is ahead by more.
        let radius =
            Length::new_mm(first.width.mm().clamp(LEAST_RADIUS_MM, question.piece.radius.mm().max(LEAST_RADIUS_MM)));
        let there = BakeQuestion { piece: BakePiece { radius, ..question.piece }, ..question.clone() };
        let run = there.answer()?;
        let colour_of = |f: &BakeForecast| f.rim_after.unwrap_or(f.bake);
        // Without a colour for its end, as of cocoa, the dull middle tells.
        let by_colour = whole.rim_after.is_some();
        let ahead = colour_of(whole) - colour_of(&run);
        if ahead < WORTH_A_WORD {
            continue;
        }
        let colour = forecast_at(&there.dough, &there.piece, &there.oven, &there.fit, whole.bake)?.rim_colour;
        let only = group.len() == 1;
        found.push(PartsAhead {
            place: only.then(|| first.place(outline)),
            at_least: first.width.mm() < LEAST_RADIUS_MM,
            by_colour,
            kind: first.kind,
            at: group.iter().map(|p| p.at).collect(),
            width: first.width,
            ahead,
            colour,
        });
    }
    Ok(found)
}
