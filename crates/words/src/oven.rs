//! What is said of bakes.

use crate::figure::{apart, degrees, degrees_between, minutes, minutes_between, mm, percent, percent_between, setting};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::oven::{BAKES_THIN as THIN, BakeEnd, BakeWarning, EdgeColour, LookFor, OvenSide, Reason};
use ready_slab_core::units::{Share, TemperatureDifference};

/// Plus or minus so many whole degrees.
pub(crate) fn within(by: TemperatureDifference) -> Sentence {
    said!["\u{b1}\u{a0}", apart(by, 0)]
}

/// With its sign.
pub(crate) fn signed(by: TemperatureDifference, places: usize) -> Sentence {
    said![if by.k() < 0.0 { "\u{2212}" } else { "+" }, apart(by, places)]
}

/// A spread against a neighbour's, where they are not near each other.
#[must_use]
pub fn spread_beside((own, other): (Share, Share)) -> Sentence {
    let word = if own > other { "more" } else { "less" };
    said![
        "It spreads ",
        word,
        ": ",
        crate::figure::number(100.0 * own.value(), 1),
        " against ",
        percent(other, 1),
        " across the standard piece.",
    ]
}

impl Say for BakeWarning {
    fn say(&self) -> Sentence {
        match self {
            Self::Slumps => "Balls, thick discs and thick rich doughs slump further in the forecast than on the tray, the warmer the more: take the lower end of the spread.".into(),
            Self::SoftWithSoda => "Soft doughs with soda run wide by nature: the range of the spread is wide.".into(),
            Self::SyrupWithSoda => {
                "Of syrup or honey with soda the forecast spreads too far: take the lower end.".into()
            }
            Self::Cocoa => {
                "Cocoa hides the colour, and when its middle turns dull is weakly founded: go by touch.".into()
            }
            Self::Fat => "Its fat lies outside the 18 to 30 % of the dough that the forecast was fitted to: bake one tray first.".into(),
            Self::High => "Above 1500 m little is known of how cookies bake: bake one tray first.".into(),
            Self::Ammonia => "So much baker\u{2019}s ammonia lifts more than the forecast knows.".into(),
            Self::Thin => said!["Under ", mm(THIN), " it goes from golden to brown within a minute: stand by it."],
            Self::Pieces => "More than a fifth of it are pieces, which the forecast knows little of.".into(),
            Self::UnknownLeavener => "It holds a leavener of which the forecast knows nothing: it lifts and spreads more than told.".into(),
            Self::Cover => "On so full or so empty a tray the colour of the underside is a guess.".into(),
            Self::Powdered => "Books and bakers disagree on how powdered sugar spreads.".into(),
        }
    }
}

fn side(side: OvenSide) -> Sentence {
    match side {
        OvenSide::Left | OvenSide::Right | OvenSide::Door => said!["The ", side.name(), " side"],
        OvenSide::Back => "The back".into(),
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match self {
            Self::Dough(reason) => reason.say(),
            Self::PracticeTimes { minutes, thickness, at } => said![
                minutes_between(minutes.0, minutes.1, 0),
                " is common practice for ",
                mm(*thickness),
                " in a still oven at ",
                setting(*at),
                ".",
            ],
            Self::FanBakesLike { set, like } => {
                said!["The fan makes ", setting(*set), " bake like ", setting(*like), "."]
            }
            Self::TimesStretch { at, by } => {
                said!["At ", setting(*at), " the times become ", percent_between(by.0, by.1, 0), " of that.",]
            }
            Self::WideRanges => {
                "Thick pieces of a dough that spreads: the ranges are wide here, bake one tray first.".into()
            }
            Self::ThinBrownsFast => "Thin pieces brown within a minute: stay by the oven.".into(),
            Self::Warning(warning) => warning.say(),
            Self::StandardGrows { thickness, across, chilled, oven, by, spread } => said![
                "A round of ",
                mm(*across),
                " and ",
                mm(*thickness),
                ", chilled to ",
                degrees(*chilled, 0),
                " and baked at ",
                setting(*oven),
                ", grows ",
                mm(*by),
                " all round: ",
                percent(*spread, 1),
                " across.",
            ],
            Self::StandardUnknown => "Beyond what the forecast knows: the range is that of common practice.".into(),
            Self::OvenHolds { set, holds, swings } => said![
                "Set to ",
                setting(*set),
                " it holds ",
                degrees(*holds, 0),
                " on the whole, off by ",
                signed(*holds - *set, 0),
                "; it swings from ",
                degrees_between(swings.0, swings.1),
                ".",
            ],
            Self::HeatedUp { after } => said!["It had heated up after ", minutes(*after, 0), "."],
            Self::DoorFell { by, back_after } => said![
                "With the door it fell by ",
                apart(*by, 0),
                "; two thirds of that were back after ",
                minutes(*back_after, 1),
                ".",
            ],
            Self::SideIsHotter { side: hot, within: by } => said![
                side(*hot),
                " is hotter; its places lie within ",
                within(*by),
                ". Turn the tray end for end half way through.",
            ],
            Self::NoSideIsHotter { within: by } => said![
                "Its places lie within ",
                within(*by),
                ", but no side is hotter than the other: turning the tray helps little. Keep the hottest cells free.",
            ],
        }
    }
}

impl Say for LookFor {
    fn say(&self) -> Sentence {
        let Some((rim, under)) = self.seen else { return usually(self.end).into() };
        let seen = if rim == under {
            said!["edge and underside are ", rim.name()]
        } else {
            said!["the edge is ", rim.name(), " and the underside ", under.name()]
        };
        let after = match self.end {
            BakeEnd::Colour(EdgeColour::Brown) => ". It goes on browning fast, so stand by it.",
            BakeEnd::Colour(_) | BakeEnd::Dull => ".",
            BakeEnd::Soft(_) => "; it may still give under a finger.",
        };
        said!["Done when the middle no longer shines, ", seen, after]
    }
}

/// What to look for where nothing is forecast. Common practice, no source.
const fn usually(end: BakeEnd) -> &'static str {
    match end {
        BakeEnd::Colour(EdgeColour::Pale) => {
            "Done when the middle no longer shines and the edge is still pale, the underside just off white."
        }
        BakeEnd::Colour(EdgeColour::JustGolden) => {
            "Done when the middle no longer shines, the edge just turns golden and the underside is light brown."
        }
        BakeEnd::Colour(EdgeColour::Golden) => {
            "Done when the edge is golden a finger\u{2019}s breadth in and the underside is golden brown."
        }
        BakeEnd::Colour(EdgeColour::Brown) => {
            "Done when the edge is brown; the middle follows within a minute or two, so stand by it."
        }
        BakeEnd::Dull => {
            "Done when the middle no longer shines and holds a light touch: go by time and touch, not by colour."
        }
        BakeEnd::Soft(_) => "Done when the middle no longer shines; it may still give under a finger.",
    }
}
