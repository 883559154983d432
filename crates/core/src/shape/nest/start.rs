//! A question with pieces that are held, and others to start from.

use super::holes;
use super::proof::{Laid, measure_layout};
use super::question::{MOST_SEARCHED, NestPiece, NestQuestion};
use crate::error::{InputError, InputErrors};

impl NestQuestion {
    /// The same with pieces that stay where they are, and others to start from.
    ///
    /// Fails when a held piece names no cutter, reaches over the rim or lies too near another held one. What of `start`
    /// does not go with them is left out.
    pub fn starting_from(mut self, held: Vec<NestPiece>, start: Vec<NestPiece>) -> Result<Self, InputErrors> {
        if held.len() + start.len() > MOST_SEARCHED {
            return Err(InputError::refused(
                "pieces",
                format!("At most {MOST_SEARCHED} cookies for a tighter layout. You have {}.", held.len() + start.len()),
            )
            .into());
        }
        for (field, pieces) in [("held", &held), ("start", &start)] {
            for (i, p) in pieces.iter().enumerate() {
                if p.cutter >= self.cutters.len() {
                    return Err(InputError::refused(
                        format!("{field}[{i}].cutter"),
                        "No such cutter. Choose one from the list.",
                    )
                    .into());
                }
                if ![p.at.x_mm, p.at.y_mm, p.at.turn_deg].iter().all(|v| v.is_finite() && v.abs() < 1e5) {
                    return Err(
                        InputError::refused(format!("{field}[{i}]"), "This position isn’t on the sheet.").into()
                    );
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
            let why = if gaps[at].over_rim { "is in the margin" } else { "is too close to another locked cookie" };
            return Err(InputError::refused(
                format!("held[{at}]"),
                format!("Locked cookie {} {why}. Move or unlock it.", at + 1),
            )
            .into());
        }
        let mut laid = Laid::new(&self);
        for piece in &held {
            laid.try_add(&self, *piece);
        }
        self.start = start.into_iter().filter(|piece| laid.try_add(&self, *piece)).collect();
        self.held = held;
        Ok(self)
    }
}
