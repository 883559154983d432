//! What is seen, and what the trade knows may be behind it. How often each is the reason in a home or small kitchen is common practice without a source.

use serde::{Deserialize, Serialize};

/// What was seen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Seen {
    /// Spread too far.
    SpreadTooFar,
    /// Did not spread at all, thick.
    NoSpread,
    /// Edges brown, middle raw.
    EdgesFirst,
    /// Pale after the full time.
    Pale,
    /// Underside dark, top pale.
    UnderDark,
    /// Underside pale, soft foot.
    UnderPale,
    /// One side darker.
    OneSide,
    /// Domed, bubbles.
    Domed,
    /// Hollow, or tunnels.
    Hollow,
    /// Tough.
    Tough,
    /// Crumbles when lifted.
    Crumbles,
    /// Cracks when rolled.
    Cracks,
    /// Sticks to pin, cutter or paper.
    Sticks,
    /// Loses its detail though its size is right.
    LosesDetail,
    /// Pulled out of shape.
    PulledOut,
    /// Smaller than the cutter.
    Shrank,
    /// Greasy, its fat weeps.
    Greasy,
    /// Hard or dry the next day.
    HardNextDay,
    /// Soft the next day though crisp when fresh.
    SoftNextDay,
    /// Icing bleeds or has spots.
    IcingBleeds,
    /// Fewer pieces than planned.
    TooFew,
}

/// What may be behind it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cause {
    /// Pieces went in warm.
    WarmPieces,
    /// Too little flour: a light cup, sifted; a large egg.
    FlourShort,
    /// The oven is cooler than its dial.
    OvenCool,
    /// Creamed light or warm: much air.
    MuchAir,
    /// Much sugar, fine, or syrup.
    MuchSugar,
    /// Much leavener, or soda without an acid.
    Leavener,
    /// Greased tray, foil or silicone.
    SlipperyTray,
    /// The sheet was thinner than thought.
    SheetThin,
    /// Soft fat: margarine, a spread.
    SoftFat,
    /// Too much flour: scooped; or dry.
    FlourHeavy,
    /// Very cold pieces into a hot oven.
    ColdPieces,
    /// The oven is hotter than its dial.
    OvenHot,
    /// Pieces of mixed thickness, or with points.
    MixedThickness,
    /// A full tray, or the door opened.
    FullTray,
    /// Little sugar and no egg: there is little that browns.
    LittleToBrown,
    /// A low rack, or a hot floor.
    LowRack,
    /// A dark or thin tray.
    DarkTray,
    /// An insulated tray, silicone, or two trays.
    InsulatedTray,
    /// A hot place of the oven.
    HotPlace,
    /// The sheet was thicker on one side.
    SheetWedge,
    /// Scraps rolled again, kneaded long.
    Rerolled,
    /// Dry flour between layers.
    DryFlour,
    /// Worked long once the flour was wet.
    Overworked,
    /// Strong flour.
    StrongFlour,
    /// Short: much fat, no egg.
    Short,
    /// Colder than its window when it was rolled.
    BelowWindow,
    /// Warmer than its window when it was rolled.
    AboveWindow,
    /// Coarse sugar, or a wet top.
    CoarseSugar,
    /// Lifted while it was soft.
    LiftedSoft,
    /// A stretched sheet that did not rest.
    Stretched,
    /// Mixed warm.
    MixedWarm,
    /// Baked too long.
    BakedLong,
    /// Left open.
    LeftOpen,
    /// Packed warm, or in a damp tin.
    PackedWarm,
    /// Honey or brown sugar draws water.
    DrawsWater,
    /// Iced warm.
    IcedWarm,
    /// Thin icing.
    ThinIcing,
    /// Dark beside wet light colours, humid air.
    WetColours,
    /// The sheet was thicker than thought.
    SheetThick,
    /// Scraps were left over.
    ScrapsLeft,
    /// A larger cutter than planned.
    LargerCutter,
}

/// How often each is the reason, of 1 (rare) to 5 (the usual first suspect). Rows of practice that name several reasons at once are taken apart.
const ROWS: [(Seen, &[(Cause, u8)]); 21] = [
    (
        Seen::SpreadTooFar,
        &[
            (Cause::WarmPieces, 5),
            (Cause::FlourShort, 4),
            (Cause::OvenCool, 4),
            (Cause::MuchAir, 3),
            (Cause::MuchSugar, 3),
            (Cause::Leavener, 3),
            (Cause::SlipperyTray, 3),
            (Cause::SheetThin, 2),
            (Cause::SoftFat, 2),
        ],
    ),
    (Seen::NoSpread, &[(Cause::FlourHeavy, 5), (Cause::ColdPieces, 3), (Cause::OvenHot, 2)]),
    (Seen::EdgesFirst, &[(Cause::OvenHot, 5), (Cause::DarkTray, 3), (Cause::MixedThickness, 3)]),
    (Seen::Pale, &[(Cause::OvenCool, 5), (Cause::FullTray, 4), (Cause::LittleToBrown, 2)]),
    (Seen::UnderDark, &[(Cause::LowRack, 5), (Cause::DarkTray, 4)]),
    (Seen::UnderPale, &[(Cause::InsulatedTray, 3), (Cause::OvenCool, 2)]),
    (Seen::OneSide, &[(Cause::HotPlace, 5), (Cause::SheetWedge, 3)]),
    (Seen::Domed, &[(Cause::MuchAir, 4), (Cause::Rerolled, 3), (Cause::Leavener, 3), (Cause::ColdPieces, 2)]),
    (Seen::Hollow, &[(Cause::Rerolled, 3), (Cause::DryFlour, 3)]),
    (Seen::Tough, &[(Cause::Overworked, 5), (Cause::Rerolled, 3), (Cause::StrongFlour, 2)]),
    (Seen::Crumbles, &[(Cause::Short, 4), (Cause::BelowWindow, 3), (Cause::FlourHeavy, 3)]),
    (Seen::Cracks, &[(Cause::BelowWindow, 5), (Cause::FlourHeavy, 4)]),
    (Seen::Sticks, &[(Cause::AboveWindow, 5), (Cause::FlourShort, 3)]),
    (Seen::LosesDetail, &[(Cause::Leavener, 3), (Cause::CoarseSugar, 3)]),
    (Seen::PulledOut, &[(Cause::LiftedSoft, 5), (Cause::Stretched, 3)]),
    (Seen::Shrank, &[(Cause::Stretched, 3), (Cause::StrongFlour, 2)]),
    (Seen::Greasy, &[(Cause::MixedWarm, 4), (Cause::OvenCool, 2), (Cause::SoftFat, 2)]),
    (Seen::HardNextDay, &[(Cause::BakedLong, 4), (Cause::LeftOpen, 3), (Cause::SheetThin, 2)]),
    (Seen::SoftNextDay, &[(Cause::PackedWarm, 4), (Cause::DrawsWater, 3)]),
    (Seen::IcingBleeds, &[(Cause::IcedWarm, 4), (Cause::ThinIcing, 3), (Cause::WetColours, 3)]),
    (Seen::TooFew, &[(Cause::SheetThick, 5), (Cause::ScrapsLeft, 3), (Cause::LargerCutter, 2)]),
];

impl Seen {
    /// All of them.
    pub const ALL: [Self; 21] = {
        let mut all = [Self::SpreadTooFar; 21];
        let mut i = 0;
        while i < 21 {
            all[i] = ROWS[i].0;
            i += 1;
        }
        all
    };

    /// What may be behind it, and how often it is, 1 to 5.
    #[must_use]
    pub fn suspects(self) -> &'static [(Cause, u8)] {
        ROWS.iter().find(|(seen, _)| *seen == self).map_or(&[], |(_, suspects)| suspects)
    }
}

impl Cause {
    /// How often it is behind what was seen, weighed: each step of the table doubles it. Our own choice: the usual first suspect is sixteen times as likely
    /// as a rare one. What the table does not name for something seen counts as rarer than rare.
    pub(super) fn before(self, seen: Seen) -> f64 {
        let step = seen.suspects().iter().find(|(cause, _)| *cause == self).map_or(0, |(_, step)| *step);
        2_f64.powi(i32::from(step) - 1)
    }
}
