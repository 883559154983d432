//! What is said of pieces by the way they are made.

use crate::figure::{minutes, mm, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::geometry::NarrowKind;
use ready_slab_core::job::{PartsAhead, PieceReason};
use ready_slab_core::oven::{Shade, shade_of};

fn in_words(n: usize) -> String {
    match n {
        2 => "two".to_owned(),
        3 => "three".to_owned(),
        4 => "four".to_owned(),
        5 => "five".to_owned(),
        6 => "six".to_owned(),
        more => more.to_string(),
    }
}

impl Say for PartsAhead {
    fn say(&self) -> Sentence {
        let one = self.place.is_some();
        let kind = match self.kind {
            NarrowKind::Point => "point",
            NarrowKind::Neck => "neck",
        };
        let which = match self.place {
            Some(place) => format!("The {kind} at the {}", place.name()),
            None => format!("The {} {kind}s", in_words(self.at.len())),
        };
        let done = match (self.by_colour, one) {
            (true, true) => "has the colour",
            (true, false) => "have the colour",
            (false, true) => "is done",
            (false, false) => "are done",
        };
        let shade: Shade = shade_of(self.colour);
        let then =
            self.by_colour.then(|| said![if one { " and is " } else { " and are " }, shade.name(), " when it is done"]);
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
                "Where its strands cross it is twice as thick: judge by the crossings, they bake last.".into()
            }
            Self::ThinEndsAhead => "Its tapered ends brown ahead of the middle: judge by the middle.".into(),
            Self::SmallPartsAhead => {
                "Done when its largest part is; small parts brown ahead, and may be covered with a strip of foil."
                    .into()
            }
            Self::ReliefHolds { spread, most } => said![
                "It spreads by ",
                percent(spread, 0),
                " at most: under ",
                percent(most, 0),
                " the relief shows. Dip the stamp in sugar, flour or starch.",
            ],
            Self::ReliefFades { spread, most } => said![
                "It spreads by up to ",
                percent(spread, 0),
                ": over ",
                percent(most, 0),
                " a relief runs together. Colder pieces, less sugar or a hotter oven hold it.",
            ],
            Self::PowderLiftsTheRelief => "Its leavening lifts the relief: leave it out of stamped dough.".into(),
            Self::FillsItsPan => "It fills its pan, whose walls hold it: it rises and does not spread sideways.".into(),
            Self::PanEdgesAhead => {
                "Its edges are done two to four minutes before its middle: judge by the middle, or trim the edges."
                    .into()
            }
            Self::CutWarm => "Cut it in its pan while it is warm: cold, it breaks beside the knife.".into(),
            Self::CutCold => "Cut it when it is cold all through: warm, it smears and sticks to the knife.".into(),
            Self::CutInPlace { gap } => said![
                "Rolled on the paper of its tray and cut there, ",
                mm(gap),
                " apart; the scraps are lifted away and nothing is moved.",
            ],
            Self::InPlaceTooNear { gap, needed } => said![
                "They lie ",
                mm(gap),
                " apart and need ",
                mm(needed),
                " to grow: they may touch. Cut them on the bench and move them further apart.",
            ],
            Self::PrickedSoOften { times } => said![
                "Prick each ",
                if times == 1 { "once".to_owned() } else { format!("{times} times") },
                " to the bottom, a fork\u{2019}s width apart: steam gets out and it stays flat.",
            ],
            Self::ThickNotPricked => {
                "Thick and not pricked, steam may lift it: a fork to the bottom, its own width apart, keeps it flat."
                    .into()
            }
        }
    }
}
