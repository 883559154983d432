//! What may be behind a bake that came out otherwise, in words: what it is called, what the baker is asked of it, how it is tried, what helps.

use crate::figure::{apart, degrees, minutes, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::cold::TrayKind;
use ready_slab_core::dough::MixMethod;
use ready_slab_core::ledger::{Cause, CauseTest, Evidence, Fact, Found, NOTCH, Seen, Tell};
use ready_slab_core::oven::TrayLiner;
use ready_slab_core::units::Share;

impl Name for Seen {
    fn name(&self) -> &'static str {
        match self {
            Self::SpreadTooFar => "spread too far",
            Self::NoSpread => "did not spread, thick",
            Self::EdgesFirst => "edges brown, middle raw",
            Self::Pale => "pale after the full time",
            Self::UnderDark => "underside dark, top pale",
            Self::UnderPale => "underside pale and soft",
            Self::OneSide => "one side darker",
            Self::Domed => "domed, with bubbles",
            Self::Hollow => "hollow, with tunnels",
            Self::Tough => "tough",
            Self::Crumbles => "crumbles when lifted",
            Self::Cracks => "cracks when rolled",
            Self::Sticks => "sticks to pin or cutter",
            Self::LosesDetail => "lost its detail",
            Self::PulledOut => "pulled out of shape",
            Self::Shrank => "smaller than the cutter",
            Self::Greasy => "greasy",
            Self::HardNextDay => "hard the next day",
            Self::SoftNextDay => "soft the next day",
            Self::IcingBleeds => "icing bleeds or spots",
            Self::TooFew => "too few pieces",
        }
    }
}

/// What is said of a cause.
struct Words {
    name: &'static str,
    /// Whether it was so; the answer speaks for it or against it.
    asks: &'static str,
    test: &'static str,
    remedy: &'static str,
}

const fn words(name: &'static str, asks: &'static str, test: &'static str, remedy: &'static str) -> Words {
    Words { name, asks, test, remedy }
}

const fn of(cause: Cause) -> Words {
    match cause {
        Cause::WarmPieces => words(
            "pieces went in warm",
            "Was the first tray fine, and later ones worse?",
            "Put three pieces of the next tray into the freezer ten minutes before the others go in.",
            "Chill the cut tray until it is firm; lay pieces on a cold tray.",
        ),
        Cause::FlourShort => words(
            "too little flour",
            "Was the flour measured by a light cup, or did the dough stick though it was cold?",
            "Knead a twentieth more flour into one disc, and bake a few pieces of it beside the others.",
            "Weigh the flour; hold back some egg.",
        ),
        Cause::OvenCool => words(
            "the oven is cooler than its dial",
            "Did the colour come late, too?",
            "Read a thermometer in the oven, or bake three pieces a notch hotter.",
            "Set it by a thermometer; let it heat longer.",
        ),
        Cause::MuchAir => words(
            "creamed light or warm",
            "Did they dome first and then sink, with an open crumb?",
            "Mix the next dough only until it comes together.",
            "Combine only, with cooler butter.",
        ),
        Cause::MuchSugar => words(
            "much sugar, or fine, or syrup",
            "Are they crisp and dark with lacy edges?",
            "Bake a few pieces of a dough with a tenth less sugar.",
            "Back to one part of sugar to three of flour; some of it powdered.",
        ),
        Cause::Leavener => words(
            "too much leavener",
            "Are there small craters, or a taste of soap?",
            "Leave the leavener out of one disc.",
            "Halve the leavener.",
        ),
        Cause::SlipperyTray => words(
            "greased tray, foil or silicone",
            "Are the feet thin and greasy?",
            "Bake half of the next tray on parchment.",
            "Bake on parchment.",
        ),
        Cause::SheetThin => words(
            "the sheet was thinner than thought",
            "Was it rolled without rods?",
            "Measure five pieces before they go in.",
            "Roll between rods.",
        ),
        Cause::SoftFat => words(
            "soft fat",
            "Was it margarine or a spread, or did the dough feel greasy?",
            "Make one small dough with butter.",
            "Butter of 80 to 82 % fat.",
        ),
        Cause::FlourHeavy => words(
            "too much flour, or too dry",
            "Was the flour scooped, or did the dough crack even when soft?",
            "Knead a spoon of milk into one disc.",
            "Weigh the flour.",
        ),
        Cause::ColdPieces => words(
            "very cold pieces into a hot oven",
            "Did they come from the freezer, and dome in the middle?",
            "Let three pieces stand ten minutes on the bench first.",
            "From the fridge instead of the freezer.",
        ),
        Cause::OvenHot => words(
            "the oven is hotter than its dial",
            "Was the underside dark, too, or the fan on?",
            "Bake three pieces a notch cooler, or with a light tray over them.",
            "Lower heat, longer.",
        ),
        Cause::MixedThickness => words(
            "pieces of mixed thickness, or with points",
            "Are only some pieces so, or only their points?",
            "Bake a tray of pieces of one thickness alone.",
            "Rods; pieces of one size on a tray; round the points.",
        ),
        Cause::FullTray => words(
            "a full tray, or the door opened",
            "Was it only on full trays, or was the door opened?",
            "Bake the next tray half full, and keep the door shut.",
            "Heat ten minutes longer; half trays.",
        ),
        Cause::LittleToBrown => words(
            "little in it that browns",
            "Is the texture right, and only the colour missing?",
            "Brush three pieces with yolk.",
            "A yolk wash, or a little hotter.",
        ),
        Cause::LowRack => words(
            "a low rack, or a hot floor",
            "Was it baked on a low rack?",
            "Put a second tray under the next one.",
            "The middle rack; a doubled tray.",
        ),
        Cause::DarkTray => words(
            "a dark or thin tray",
            "Is the tray dark or thin?",
            "Bake three pieces on a light tray beside it.",
            "A light tray, or a silicone mat.",
        ),
        Cause::InsulatedTray => words(
            "an insulated tray or a mat",
            "Is the top done before the foot?",
            "Bake half of the next tray on parchment alone.",
            "Parchment on a single tray.",
        ),
        Cause::HotPlace => words(
            "a hot place in the oven",
            "Was it the same side on each tray?",
            "Turn the next tray half way.",
            "Turn half way; map the oven at Kitchen.",
        ),
        Cause::SheetWedge => words(
            "the sheet was thicker on one side",
            "Is the pale side the thicker one?",
            "Measure five pieces from each side of the sheet.",
            "Rods; turn the sheet by a quarter while rolling.",
        ),
        Cause::Rerolled => words(
            "scraps rolled again",
            "Was it only pieces of the second roll?",
            "Mark pieces of first and second roll on one tray.",
            "Press scraps together cold, rest them, and roll them once.",
        ),
        Cause::DryFlour => words(
            "dry flour between layers",
            "Was it in layers, with much flour on the bench?",
            "Roll the next disc between papers.",
            "Between papers instead of flour.",
        ),
        Cause::Overworked => words(
            "worked long once the flour was wet",
            "Did it shrink when it was cut?",
            "Mix one small dough only until it comes together.",
            "Combine only; rest it half an hour.",
        ),
        Cause::StrongFlour => words(
            "strong flour",
            "Was it bread flour?",
            "Swap a tenth of the flour for starch in one small dough.",
            "Flour of 9 to 10 % protein.",
        ),
        Cause::Short => words(
            "very short: much fat, no egg",
            "Does it still crumble after a rest?",
            "Let three pieces cool twenty minutes before they are lifted.",
            "A yolk or a spoon of milk; lift them cold.",
        ),
        Cause::BelowWindow => words(
            "colder than its window",
            "Did it roll clean after a few minutes?",
            "Let it rest five minutes, then roll.",
            "Take it out earlier.",
        ),
        Cause::AboveWindow => words(
            "warmer than its window",
            "Was it better after ten minutes in the cold?",
            "Put it back into the cold for ten minutes.",
            "Shorter turns; half the sheet at a time.",
        ),
        Cause::CoarseSugar => words(
            "coarse sugar, or a wet top",
            "Are the tops rough or crisp?",
            "Bake a few pieces with powdered sugar.",
            "Powdered sugar; wash only the icing.",
        ),
        Cause::LiftedSoft => words(
            "lifted while it was soft",
            "Are they drawn out the way they were lifted?",
            "Cut a few on the tray\u{2019}s own paper.",
            "Chill, then slide the paper.",
        ),
        Cause::Stretched => words(
            "a stretched sheet that did not rest",
            "Are they ovals along the way it was rolled?",
            "Turn the next sheet and let it rest five minutes before it is cut.",
            "Rest before cutting.",
        ),
        Cause::MixedWarm => words(
            "mixed too warm",
            "Did the dough shine, or feel oily?",
            "Mix one small dough with cooler butter.",
            "Stop when it comes together, and cooler butter.",
        ),
        Cause::BakedLong => words(
            "baked too long",
            "Were they longer in than usual, or darker?",
            "Take three pieces out a minute earlier.",
            "A minute less.",
        ),
        Cause::LeftOpen => words(
            "left open",
            "Did they stand open overnight?",
            "Keep three pieces in a tin, three outside.",
            "Into a tin as soon as they are cold.",
        ),
        Cause::PackedWarm => words(
            "packed warm, or in a damp tin",
            "Was the lid misted?",
            "Pack three pieces wholly cold.",
            "Cool through before packing; a sachet in the tin.",
        ),
        Cause::DrawsWater => words(
            "honey or brown sugar draws water",
            "Was it so in a dry room, too?",
            "Bake a few pieces with white sugar.",
            "White sugar, or a sachet in the tin.",
        ),
        Cause::IcedWarm => words(
            "iced while warm",
            "Were they iced less than an hour after baking?",
            "Ice three pieces wholly cold.",
            "Cool through before icing.",
        ),
        Cause::ThinIcing => words(
            "icing too thin",
            "Did it run, or are there butter spots?",
            "Ice three pieces with a stiffer one.",
            "Less water.",
        ),
        Cause::WetColours => words(
            "dark beside wet light colours",
            "Did it happen only where two colours meet?",
            "Let the first colour dry on three pieces.",
            "Dry between colours; a fan.",
        ),
        Cause::SheetThick => words(
            "the sheet was thicker than thought",
            "Was all of the dough used up?",
            "Measure five pieces before they go in.",
            "Rods.",
        ),
        Cause::ScrapsLeft => words(
            "scraps were left over",
            "Is dough left?",
            "Weigh what is left over.",
            "Roll scraps once more; a tighter layout.",
        ),
        Cause::LargerCutter => words(
            "a larger cutter",
            "Was another cutter used?",
            "Measure the cutter.",
            "Give the cutter its own size at Order.",
        ),
    }
}

impl Name for Cause {
    fn name(&self) -> &'static str {
        of(*self).name
    }
}

/// What the baker is asked of a cause; yes speaks for it.
#[must_use]
pub fn asks(cause: Cause) -> Sentence {
    of(cause).asks.into()
}

/// What helps, if it is that.
#[must_use]
pub fn remedy(cause: Cause) -> Sentence {
    of(cause).remedy.into()
}

impl Say for Fact {
    fn say(&self) -> Sentence {
        match *self {
            Self::WentInAt(t) => said!["they went in at ", degrees(t, 0)],
            Self::Liner(TrayLiner::Bare) => "nothing lay under them".into(),
            Self::Liner(liner) => said![liner.name(), " under them"],
            Self::SoftFat(share) => said![percent(share, 0), " of the fat is softer than butter"],
            Self::Leavener(true) => "there is leavener in it".into(),
            Self::Leavener(false) => "there is no leavener in it".into(),
            Self::SugarOverFlour(share) => said!["sugar is ", percent(share, 0), " of the flour"],
            Self::Mixed(MixMethod::LightAndFluffy) => "creamed light and fluffy".into(),
            Self::Mixed(MixMethod::JustCombined) => "mixed just to combined".into(),
            Self::Mixed(MixMethod::RubbedIn) => "butter rubbed in cold".into(),
            Self::Mixed(MixMethod::Pulsed) => "pulsed in a food processor".into(),
            Self::Tray(TrayKind::Steel) => "a dark steel tray".into(),
            Self::Tray(TrayKind::Aluminium) => "a light tray".into(),
            Self::Egg(true) => "there is egg in it".into(),
            Self::Egg(false) => "there is no egg in it".into(),
            Self::Rolls(0) => "scraps are not rolled again".into(),
            Self::Rolls(1) => "scraps are rolled once more".into(),
            Self::Rolls(n) => said!["scraps are rolled ", n.to_string(), " times more"],
            Self::DrawsWater(true) => "there is honey or syrup in it".into(),
            Self::DrawsWater(false) => "there is no honey or syrup in it".into(),
            Self::Longer(span) if span.min() > 0.0 => said![minutes(span, 1), " longer in than expected"],
            Self::Longer(_) => "no longer in than expected".into(),
            Self::OvenMeasured => "a thermometer was read in the oven".into(),
            Self::FatOverFlour(share) => said!["fat is ", percent(share, 0), " of the flour"],
        }
    }
}

impl Say for Evidence {
    fn say(&self) -> Sentence {
        match *self {
            Self::Usual(5) => "the usual first suspect".into(),
            Self::Usual(4) => "often the reason".into(),
            Self::Usual(3) => "sometimes the reason".into(),
            Self::Usual(2) => "seldom the reason".into(),
            Self::Usual(_) => "rarely the reason".into(),
            Self::Fact(fact, _) => fact.say(),
            Self::Spread(spread, so) => said![
                "with it the forecast is ",
                percent(spread, 1),
                if so { " of spread, nearer to what came out" } else { " of spread, further from what came out" }
            ],
            Self::Edge(true) => "with it the edge would be nearer to what came out".into(),
            Self::Edge(false) => "with it the edge would be further from what came out".into(),
            Self::Clue(true) => "you saw it so".into(),
            Self::Clue(false) => "you did not see it so".into(),
        }
    }
}

/// Less than this of a difference is not told: what bakers see most often comes first even where the forecast gives it little. Our own choice.
const TOLD_FROM: f64 = 0.10;

/// How much of the difference a cause explains; nothing where that is little.
#[must_use]
pub fn explains(of: Share) -> Option<Sentence> {
    (of.value() >= TOLD_FROM).then(|| said!["by the forecast it explains ", percent(of, 0), " of the difference"])
}

/// Whether something speaks for a cause; how often it is the reason speaks for none.
#[must_use]
pub fn speaks_for(evidence: &Evidence) -> Option<bool> {
    match *evidence {
        Evidence::Usual(_) => None,
        Evidence::Fact(_, so) | Evidence::Clue(so) | Evidence::Spread(_, so) | Evidence::Edge(so) => Some(so),
    }
}

/// A count as it is spoken.
fn counted(n: u32) -> String {
    match n {
        3 => "three".to_owned(),
        4 => "four".to_owned(),
        5 => "five".to_owned(),
        6 => "six".to_owned(),
        n => n.to_string(),
    }
}

impl Say for CauseTest {
    fn say(&self) -> Sentence {
        if self.tell == Tell::ByHand {
            return of(self.of).test.into();
        }
        let notch = apart(NOTCH, 0);
        let n = counted(self.pieces);
        let how = match self.of {
            Cause::WarmPieces => {
                said!["Put ", n.clone(), " pieces of the next tray into the freezer ten minutes before it goes in"]
            }
            Cause::ColdPieces => {
                said!["Let ", n.clone(), " pieces of the next tray stand ten minutes on the bench before it goes in"]
            }
            Cause::FlourShort => said![
                "Knead a twentieth more flour into some of the dough, and bake ",
                n.clone(),
                " pieces of it on the next tray"
            ],
            Cause::FlourHeavy => said![
                "Knead a spoon of milk into some of the dough, and bake ",
                n.clone(),
                " pieces of it on the next tray"
            ],
            Cause::OvenHot | Cause::OvenCool => {
                let way = if self.of == Cause::OvenHot { " cooler" } else { " hotter" };
                return said![
                    "Bake the next tray ",
                    notch,
                    way,
                    ", and measure ",
                    n.clone(),
                    " of its pieces beside ",
                    n,
                    " of one baked as before."
                ];
            }
            _ => return of(self.of).test.into(),
        };
        how.then(said![", and measure them beside ", n, " others."])
    }
}

/// What a test came to.
#[must_use]
pub fn came_to(test: &CauseTest, found: Found) -> Sentence {
    let after = test.after(found);
    let Some((cause, share)) = after.first().copied() else { return "It tells nothing.".into() };
    let before = test.expects.iter().find(|e| e.cause == cause).map_or(0.0, |e| e.share.value());
    let moved = if share.value() > before + 0.02 {
        said![", up from ", percent(Share::new(before), 0)]
    } else if share.value() < before - 0.02 {
        said![", down from ", percent(Share::new(before), 0)]
    } else {
        ", as before".into()
    };
    said!["Now first: ", cause.name(), ", ", percent(share, 0)].then(moved).then(". ").then(remedy(cause))
}
