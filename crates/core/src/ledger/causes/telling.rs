//! The one cheap test that tells the first two apart, and what it says once it was made.

use super::shift::Shift;
use super::table::Cause;
use super::{Bake, Suspect};
use crate::ledger::{EvenMeasure, usual_within};
use crate::oven::SPREAD_NOISE;
use crate::units::{Length, Share, TemperatureDifference};
use std::ops::RangeInclusive;

/// What a test is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tell {
    /// A few pieces of the next tray are baked otherwise and measured beside the others.
    Beside,
    /// Something is tried by hand, and it helps or it does not.
    ByHand,
}

/// Pieces of a test, and as many beside them: as few as tell. Our own choice.
const PIECES: RangeInclusive<u32> = 3..=12;
/// What the model tells of a change may be off by so much of it.
const MODEL_SD: f64 = 0.3;
/// A hand test helps so often where its cause is there, and where another is. Our own choice.
const HELPS: (f64, f64) = (0.85, 0.2);
/// Less than so many deviations between what the first two would do tells nothing: then it is tried by hand. Our own choice.
const TELLS: f64 = 1.0;

/// An oven's test is so much hotter or cooler: a notch of its dial. Common practice, no source.
pub const NOTCH: TemperatureDifference = TemperatureDifference::new_k(15.0);

/// How much wider the pieces of a test come out than those beside them, if a cause is behind it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WithCause {
    /// Which.
    pub cause: Cause,
    /// How likely it was before, of all.
    pub share: Share,
    /// Wider, or less wide; nothing of a test by hand.
    pub wider: Option<Length>,
}

/// A test.
#[derive(Debug, Clone, PartialEq)]
pub struct CauseTest {
    /// Whose test it is.
    pub of: Cause,
    /// What it is told apart from; nothing where there is only one suspect.
    pub from: Option<Cause>,
    /// How it is made.
    pub tell: Tell,
    /// What each suspect would make of it.
    pub expects: Vec<WithCause>,
    /// So many pieces, and as many beside them.
    pub pieces: u32,
    /// Of the difference that is measured, one standard deviation.
    pub sd: Length,
}

/// What a test came to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Found {
    /// Its pieces are so much wider than those beside them.
    Wider(Length),
    /// It helped, or it did not.
    Helped(bool),
}

impl Cause {
    /// Whether its test is a tray of its own: one oven has one heat.
    fn takes_a_tray(self) -> bool {
        matches!(self, Self::OvenCool | Self::OvenHot)
    }

    /// How the test of a cause changes the bake, where the model can tell what comes of it.
    fn tried(self) -> Option<Shift> {
        match self {
            // Ten minutes in the freezer, and on the bench. Common practice, no source.
            Self::WarmPieces => Some(Shift::Warmer(-8.0)),
            Self::ColdPieces => Some(Shift::Warmer(8.0)),
            // A twentieth of it, kneaded in; a spoon of milk softens a disc about as much as a twentieth less would. Common practice, no source.
            Self::FlourShort => Some(Shift::Flour(1.05)),
            Self::FlourHeavy => Some(Shift::Flour(0.95)),
            Self::OvenCool => Some(Shift::Oven(NOTCH.k())),
            Self::OvenHot => Some(Shift::Oven(-NOTCH.k())),
            _ => None,
        }
    }
}

impl Bake {
    /// How much wider, in mm, pieces with a change come out than those without, where a cause is behind it: over what it may do, by how well that fits.
    fn wider(&self, cause: Cause, change: Shift) -> Option<f64> {
        // The rim grows as that of a round of its dough, whatever the form.
        let across = self.asked.seen.piece.radius.mm() * 2.0;
        let mut sum = (0.0, 0.0);
        for shift in cause.shifts() {
            let Ok(asked) = self.asked.with(*shift) else { continue };
            let Ok((told, changed)) = asked.told().and_then(|t| Ok((t, asked.with(change)?.told()?))) else { continue };
            let [spread, edge] = self.out.likely(&told);
            let weight = spread * edge;
            sum = (sum.0 + weight * (changed.spread - told.spread) * across, sum.1 + weight);
        }
        if sum.1 > 0.0 {
            return Some(sum.0 / sum.1);
        }
        // A cause that the model has no word for leaves what the change does as it is.
        let changed = self.asked.with(change).and_then(|a| a.told()).ok()?;
        Some((changed.spread - self.without.spread) * across)
    }
}

/// Of the tests of the first two suspects the one that tells them apart with the fewest pieces; by hand where the model tells none.
pub(super) fn test(suspects: &[Suspect], bake: Option<&Bake>, width: Length) -> Option<CauseTest> {
    let first = suspects.first()?;
    let second = suspects.get(1);
    let of_a_piece = usual_within(EvenMeasure::Width, width, Length::new_mm(0.0)).mm();
    let grown = bake.map_or(0.0, |b| b.out.spread.value().max(0.0) * b.asked.seen.piece.radius.mm() * 2.0);
    let sd = |of: Cause, pieces: u32| {
        let trays = if of.takes_a_tray() { SPREAD_NOISE * grown * 2_f64.sqrt() } else { 0.0 };
        (of_a_piece * (2.0 / f64::from(pieces)).sqrt()).hypot(trays)
    };
    let beside = |of: Cause| -> Option<CauseTest> {
        let (bake, change) = (bake?, of.tried()?);
        let expects: Vec<WithCause> = suspects
            .iter()
            .map(|s| WithCause {
                cause: s.cause,
                share: s.share,
                wider: bake.wider(s.cause, change).map(Length::new_mm),
            })
            .collect();
        let wider = |cause: Cause| expects.iter().find(|e| e.cause == cause).and_then(|e| e.wider).map(|l| l.mm());
        let (one, other) = (wider(first.cause)?, wider(second?.cause)?);
        let tells = |n: &u32| (one - other).abs() / sd(of, *n).hypot(MODEL_SD * one.abs().max(other.abs())) > TELLS;
        let pieces = PIECES.clone().find(tells)?;
        let from = if of == first.cause { second?.cause } else { first.cause };
        Some(CauseTest {
            of,
            from: Some(from),
            tell: Tell::Beside,
            expects,
            pieces,
            sd: Length::new_mm(sd(of, pieces)),
        })
    };
    let named = [Some(first.cause), second.map(|s| s.cause)];
    if let Some(test) = named.into_iter().flatten().filter_map(beside).min_by_key(|t| t.pieces) {
        return Some(test);
    }
    let expects = suspects.iter().map(|s| WithCause { cause: s.cause, share: s.share, wider: None }).collect();
    let (from, pieces) = (second.map(|s| s.cause), *PIECES.start());
    Some(CauseTest {
        of: first.cause,
        from,
        tell: Tell::ByHand,
        expects,
        pieces,
        sd: Length::new_mm(sd(first.cause, pieces)),
    })
}

impl CauseTest {
    /// How likely each suspect is once the test was made, the likeliest first; what is left of 1 is something else.
    #[must_use]
    pub fn after(&self, found: Found) -> Vec<(Cause, Share)> {
        let likely = |e: &WithCause| match (found, e.wider) {
            (Found::Wider(seen), Some(told)) => {
                let sd = self.sd.mm().hypot(MODEL_SD * told.mm()).max(1e-6);
                (-0.5 * ((seen.mm() - told.mm()) / sd).powi(2)).exp() / sd
            }
            (Found::Helped(so), _) => {
                let helps = if e.cause == self.of { HELPS.0 } else { HELPS.1 };
                if so { helps } else { 1.0 - helps }
            }
            (Found::Wider(_), None) => 1.0,
        };
        let mut all: Vec<(Cause, f64)> = self.expects.iter().map(|e| (e.cause, e.share.value() * likely(e))).collect();
        // Something else is as likely as the mean of them says.
        let named: f64 = self.expects.iter().map(|e| e.share.value()).sum();
        let sum: f64 = all.iter().map(|(_, w)| w).sum();
        let whole = sum + (1.0 - named).max(0.0) * if named > 0.0 { sum / named } else { 1.0 };
        all.sort_by(|a, b| b.1.total_cmp(&a.1));
        all.into_iter().map(|(cause, w)| (cause, Share::new(w / whole.max(f64::MIN_POSITIVE)))).collect()
    }
}
