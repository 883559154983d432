//! Why a piece is handled as it is, by the way it is made: thick and thin places, reliefs, pans, pricks, sheets cut on the tray's paper.

use crate::units::{Length, Share};

/// What there is to mind of a piece by the way it is made.
#[derive(Debug, Clone, Copy, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum PieceReason {
    CrossingsBakeLast,
    ThinEndsAhead,
    SmallPartsAhead,
    ReliefHolds { spread: Share, most: Share },
    ReliefFades { spread: Share, most: Share },
    PowderLiftsTheRelief,
    FillsItsPan,
    PanEdgesAhead,
    CutWarm,
    CutCold,
    CutInPlace { gap: Length },
    InPlaceTooNear { gap: Length, needed: Length },
    PrickedSoOften { times: u32 },
    ThickNotPricked,
}
