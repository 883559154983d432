//! What is said of bakes.

use crate::figure::{
    altitude, apart, degrees, degrees_between, minutes, minutes_between, mm, percent, percent_between, setting,
};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::oven::{BAKES_THIN as THIN, BakeEnd, BakeWarning, EdgeColour, LookFor, OvenSide, Reason};
use ready_slab_core::units::{Share, TemperatureDifference};

/// Plus or minus so many whole degrees.
pub(crate) fn within(by: TemperatureDifference) -> Sentence {
    said!["\u{b1}\u{a0}", apart(by, 0)]
}

/// A spread against a neighbour's, where they are not near each other.
#[must_use]
pub fn spread_beside((own, other): (Share, Share)) -> Sentence {
    let word = if own > other { "more" } else { "less" };
    said!["Spreads ", word, ": ", percent(own, 1), ", the other ", percent(other, 1), " (standard cookie).",]
}

impl Say for BakeWarning {
    fn say(&self) -> Sentence {
        match self {
            Self::Slumps => "Balls, thick discs and thick rich doughs spread less than forecast, especially when warm. Go by the low end.".into(),
            Self::SoftWithSoda => "Soft dough with baking soda runs wide, so this spread range is wide.".into(),
            Self::SyrupWithSoda => {
                "Syrup or honey with baking soda: it spreads less than forecast. Go by the low end.".into()
            }
            Self::Cocoa => {
                "Cocoa hides the color. Go by touch.".into()
            }
            Self::Fat => "Unusually lean or rich dough. Bake one test tray first.".into(),
            Self::High => said!["Above ", altitude(1500.0), " the forecast is a rough guess. Bake one test tray first."],
            Self::Ammonia => "With this much baker’s ammonia, expect more lift than forecast.".into(),
            Self::Thin => said!["Under ", mm(THIN), " thick, they go from golden to brown within a minute. Stay by the oven."],
            Self::Pieces => "More than 20% mix-ins: the forecast is rough.".into(),
            Self::UnknownLeavener => "Unfamiliar leavener. Expect more lift and spread than forecast.".into(),
            Self::Cover => "With a tray this full or this empty, bottom color is a guess.".into(),
            Self::Powdered => "Books and bakers disagree about powdered sugar and spread.".into(),
        }
    }
}

fn side(side: OvenSide) -> Sentence {
    match side {
        OvenSide::Left | OvenSide::Right => said!["The ", side.name(), " side"],
        OvenSide::Door => "The front".into(),
        OvenSide::Back => "The back".into(),
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match self {
            Self::Dough(reason) => reason.say(),
            Self::PracticeTimes { minutes, thickness, at } => said![
                "Usual: ",
                minutes_between(minutes.0, minutes.1, 0),
                " for ",
                mm(*thickness),
                " thick at ",
                setting(*at),
                ", fan off.",
            ],
            Self::FanBakesLike { set, like } => {
                said!["With the fan, ", setting(*set), " bakes like ", setting(*like), " without."]
            }
            Self::TimesStretch { at, by } => {
                said!["At ", setting(*at), " it takes ", percent_between(by.0, by.1, 0), " of that time.",]
            }
            Self::WideRanges => "Thick cookies of a dough that spreads: wide ranges. Bake one test tray first.".into(),
            Self::ThinBrownsFast => "Thin cookies brown fast. Stay by the oven.".into(),
            Self::Warning(warning) => warning.say(),
            Self::StandardGrows { thickness, across, chilled, oven, by, spread } => said![
                "Standard cookie: ",
                mm(*across),
                " round, ",
                mm(*thickness),
                " thick, chilled to ",
                degrees(*chilled, 0),
                ", baked at ",
                setting(*oven),
                ". It grows ",
                mm(*by),
                " all around, ",
                percent(*spread, 1),
                " across.",
            ],
            Self::StandardUnknown => "Outside the forecast. Usual range shown.".into(),
            Self::OvenHolds { set, holds, swings } => said![
                "Set to ",
                setting(*set),
                ", it averages ",
                degrees(*holds, 0),
                ". It swings ",
                degrees_between(swings.0, swings.1),
                ".",
            ],
            Self::HeatedUp { after } => said!["Heated up in ", minutes(*after, 0), "."],
            Self::DoorFell { by, back_after } => said![
                "Opening the door dropped it ",
                apart(*by, 0),
                ". Two-thirds came back in ",
                minutes(*back_after, 1),
                ".",
            ],
            Self::SideIsHotter { side: hot, within: by } => {
                said![side(*hot), " is hotter; hot spots vary ", within(*by), ". Turn the tray around halfway.",]
            }
            Self::NoSideIsHotter { within: by } => said![
                "Hot spots vary ",
                within(*by),
                ", but no side is hotter. Turning the tray helps little. Leave the hottest spots empty.",
            ],
        }
    }
}

impl Say for LookFor {
    fn say(&self) -> Sentence {
        let Some((rim, under)) = self.seen else { return usually(self.end).into() };
        let seen = if rim == under {
            said!["edge and bottom are ", rim.name()]
        } else {
            said!["the edge is ", rim.name(), " and the bottom ", under.name()]
        };
        let after = match self.end {
            BakeEnd::Colour(EdgeColour::Brown) => ". They keep browning fast: stay by the oven.",
            BakeEnd::Colour(_) | BakeEnd::Dull => ".",
            BakeEnd::Soft(_) => ". They may still give under a finger.",
        };
        said!["Done when ", seen, ", and the middle no longer shines", after]
    }
}

/// What to look for where nothing is forecast. Common practice, no source.
const fn usually(end: BakeEnd) -> &'static str {
    match end {
        BakeEnd::Colour(EdgeColour::Pale) => {
            "Done when the middle no longer shines. The edge is still pale, the bottom just off-white."
        }
        BakeEnd::Colour(EdgeColour::JustGolden) => {
            "Done when the edge just turns golden and the bottom is light brown. The middle no longer shines."
        }
        BakeEnd::Colour(EdgeColour::Golden) => {
            "Done when the edge is golden a finger’s width in and the bottom golden brown."
        }
        BakeEnd::Colour(EdgeColour::Brown) => {
            "Done when the edge is brown. The middle follows in a minute or two: stay by the oven."
        }
        BakeEnd::Dull => {
            "Done when the middle no longer shines and holds a light touch. Go by time and touch, not color."
        }
        BakeEnd::Soft(_) => "Done when the middle no longer shines. They may still give under a finger.",
    }
}
