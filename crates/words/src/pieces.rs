//! What is said of pieces by the way they are made.

use crate::figure::{minutes, mm, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::geometry::NarrowKind;
use ready_slab_core::job::{PartsAhead, PieceReason};
use ready_slab_core::oven::{Shade, shade_of};

impl Say for PartsAhead {
    fn say(&self) -> Sentence {
        let one = self.place.is_some();
        let kind = match self.kind {
            NarrowKind::Point => "tip",
            NarrowKind::Neck => "narrow part",
        };
        let which = match self.place {
            Some(place) => format!("The {} {kind}", place.name()),
            None => format!("The {} {kind}s", self.at.len()),
        };
        let done = match (self.by_colour, one) {
            (true, true) => "colors",
            (true, false) => "color",
            (false, true) => "is done",
            (false, false) => "are done",
        };
        let shade: Shade = shade_of(self.colour);
        let then = self.by_colour.then(|| said![if one { " and ends up " } else { " and end up " }, shade.name()]);
        said![
            which,
            ", about ",
            mm(self.width),
            " wide, ",
            done,
            if self.at_least { " at least " } else { " " },
            minutes(self.ahead, 1),
            " before the rest",
            then,
            ".",
        ]
    }
}

impl Say for PieceReason {
    fn say(&self) -> Sentence {
        match *self {
            Self::CrossingsBakeLast => {
                "Strands are twice as thick where they cross. Judge by the crossings: they bake last.".into()
            }
            Self::ThinEndsAhead => "The tapered ends brown first. Judge by the middle.".into(),
            Self::SmallPartsAhead => {
                "Done when the largest part is. Small parts brown first: cover them with foil if needed.".into()
            }
            Self::ReliefHolds { spread, most } => said![
                "Spreads ",
                percent(spread, 0),
                " at most; under ",
                percent(most, 0),
                " the pattern shows. Dip the stamp in sugar, flour or starch.",
            ],
            Self::ReliefFades { spread, most } => said![
                "Spreads up to ",
                percent(spread, 0),
                "; over ",
                percent(most, 0),
                " the pattern blurs. Use colder cookies, less sugar or a hotter oven.",
            ],
            Self::PowderLiftsTheRelief => "Leavening lifts the pattern. Leave it out of stamped dough.".into(),
            Self::FillsItsPan => "It fills the pan: it rises but doesn’t spread.".into(),
            Self::PanEdgesAhead => {
                "Edges are done 2 to 4 min before the middle. Judge by the middle, or trim the edges.".into()
            }
            Self::CutWarm => "Cut it in the pan while warm. Cold, it breaks beside the knife.".into(),
            Self::CutCold => "Cut it completely cold. Warm, it smears and sticks to the knife.".into(),
            Self::CutInPlace { gap } => said![
                "Roll on the tray’s parchment and cut there, ",
                mm(gap),
                " apart. Lift away the scraps; move nothing.",
            ],
            Self::InPlaceTooNear { gap, needed } => said![
                "They’re ",
                mm(gap),
                " apart and need ",
                mm(needed),
                ": they may touch. Cut on the bench and set them farther apart.",
            ],
            Self::PrickedSoOften { times } => said![
                "Prick each ",
                if times == 1 { "once".to_owned() } else { format!("{times} times") },
                " to the bottom, a fork\u{2019}s width apart. They stay flat.",
            ],
            Self::ThickNotPricked => {
                "Thick and not pricked: steam may lift them. Prick to the bottom, a fork’s width apart.".into()
            }
        }
    }
}
