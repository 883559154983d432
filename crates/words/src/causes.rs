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
            Self::NoSpread => "didn’t spread, too thick",
            Self::EdgesFirst => "edges brown, middle raw",
            Self::Pale => "pale after the full time",
            Self::UnderDark => "bottom dark, top pale",
            Self::UnderPale => "bottom pale and soft",
            Self::OneSide => "darker on one side",
            Self::Domed => "domed, with bubbles",
            Self::Hollow => "hollow, with tunnels",
            Self::Tough => "tough",
            Self::Crumbles => "crumbles when lifted",
            Self::Cracks => "cracks when rolled",
            Self::Sticks => "sticks to pin or cutter",
            Self::LosesDetail => "lost detail",
            Self::PulledOut => "pulled out of shape",
            Self::Shrank => "smaller than the cutter",
            Self::Greasy => "greasy",
            Self::HardNextDay => "hard the next day",
            Self::SoftNextDay => "soft the next day",
            Self::IcingBleeds => "icing bleeds or spots",
            Self::TooFew => "too few cookies",
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
            "cookies went in warm",
            "Was the first tray fine and the later ones worse?",
            "Freeze 3 cookies of the next tray 10 min, then bake them with the rest.",
            "Chill the cut tray until firm. Use a cold tray.",
        ),
        Cause::FlourShort => words(
            "too little flour",
            "Did you spoon flour loosely into the cup, or was the dough sticky even cold?",
            "Knead 5% more flour into one disc. Bake a few cookies of it with the others.",
            "Weigh the flour. Hold back a little egg.",
        ),
        Cause::OvenCool => words(
            "oven cooler than its dial",
            "Did they color late, too?",
            "Put a thermometer in the oven, or bake 3 cookies one step hotter.",
            "Set it by a thermometer and preheat longer.",
        ),
        Cause::MuchAir => words(
            "creamed too much, or too warm",
            "Did they puff, then sink, with an open crumb?",
            "Mix the next dough only until it comes together.",
            "Use cooler butter and mix just until combined.",
        ),
        Cause::MuchSugar => words(
            "a lot of sugar, fine sugar or syrup",
            "Are they crisp and dark, with lacy edges?",
            "Bake a few cookies from a dough with 10% less sugar.",
            "Go back to 1 part sugar to 3 parts flour, some of it powdered.",
        ),
        Cause::Leavener => words(
            "too much leavening",
            "Are there small craters or a soapy taste?",
            "Make a small dough without the leavening.",
            "Halve the leavening.",
        ),
        Cause::SlipperyTray => words(
            "greased tray, foil or silicone",
            "Are the bottoms thin and greasy?",
            "Bake half the next tray on parchment.",
            "Bake on parchment.",
        ),
        Cause::SheetThin => words(
            "sheet thinner than planned",
            "Did you roll without rolling guides?",
            "Measure 5 cookies before they go in.",
            "Roll between rolling guides.",
        ),
        Cause::SoftFat => words(
            "soft fat",
            "Did you use margarine or a spread, or did the dough feel greasy?",
            "Make a small dough with butter.",
            "Use butter with 80 to 82% fat.",
        ),
        Cause::FlourHeavy => words(
            "too much flour, or dough too dry",
            "Did you scoop the flour, or did the dough crack even when soft?",
            "Knead a spoonful of milk into one disc.",
            "Weigh the flour.",
        ),
        Cause::ColdPieces => words(
            "very cold cookies in a hot oven",
            "Did they come from the freezer and dome in the middle?",
            "Leave 3 cookies on the bench 10 min first.",
            "Bake from the fridge, not the freezer.",
        ),
        Cause::OvenHot => words(
            "oven hotter than its dial",
            "Were the bottoms dark, too, or was the fan on?",
            "Bake 3 cookies one step cooler, or with a light-colored tray over them.",
            "Bake cooler and longer.",
        ),
        Cause::MixedThickness => words(
            "uneven thickness, or shapes with tips",
            "Is it only some cookies, or only their tips?",
            "Bake a tray of cookies all one thickness.",
            "Use rolling guides and one size per tray. Round off the tips.",
        ),
        Cause::FullTray => words(
            "full tray, or door opened",
            "Was it only full trays, or did you open the door?",
            "Bake the next tray half full, and keep the door shut.",
            "Preheat 10 min longer, or bake half trays.",
        ),
        Cause::LittleToBrown => words(
            "little in it to brown",
            "Is the texture right and only the color missing?",
            "Brush 3 cookies with egg yolk.",
            "Use a yolk wash, or bake a little hotter.",
        ),
        Cause::LowRack => words(
            "low rack, or hot oven floor",
            "Did you bake on a low rack?",
            "Put a second tray under the next one.",
            "Use the middle rack, or double the tray.",
        ),
        Cause::DarkTray => words(
            "dark or thin tray",
            "Is the tray dark or thin?",
            "Bake 3 cookies on a light-colored tray next to it.",
            "Use a light-colored tray or a silicone mat.",
        ),
        Cause::InsulatedTray => words(
            "insulated tray, or a mat",
            "Is the top done before the bottom?",
            "Bake half the next tray on parchment alone.",
            "Use parchment on a single tray.",
        ),
        Cause::HotPlace => words(
            "hot spot in the oven",
            "Was it the same side on every tray?",
            "Turn the next tray around halfway through.",
            "Turn the tray halfway through. Map your oven under Kitchen.",
        ),
        Cause::SheetWedge => words(
            "sheet thicker on one side",
            "Is the pale side the thicker one?",
            "Measure 5 cookies from each side of the sheet.",
            "Use rolling guides. Give the sheet a quarter turn as you roll.",
        ),
        Cause::Rerolled => words(
            "re-rolled scraps",
            "Was it only cookies from the re-roll?",
            "Bake first-roll and re-rolled cookies on one tray. Mark which is which.",
            "Press cold scraps together, rest them, and roll only once.",
        ),
        Cause::DryFlour => words(
            "dry flour between layers",
            "Was it in layers, with a lot of flour on the bench?",
            "Roll the next disc between parchment.",
            "Roll between parchment instead of on flour.",
        ),
        Cause::Overworked => words(
            "overworked after the flour went in",
            "Did it shrink when you cut it?",
            "Mix a small dough only until it comes together.",
            "Mix just until combined. Rest it 30 min.",
        ),
        Cause::StrongFlour => words(
            "strong flour",
            "Did you use bread flour?",
            "Swap 10% of the flour for starch in a small dough.",
            "Use flour with 9 to 10% protein.",
        ),
        Cause::Short => words(
            "very short: lots of fat, no egg",
            "Do they still crumble after resting?",
            "Let 3 cookies cool 20 min before you lift them.",
            "Add a yolk or a spoonful of milk, and lift them cold.",
        ),
        Cause::BelowWindow => words(
            "too cold to work",
            "Did it roll clean after a few minutes?",
            "Let it rest 5 min, then roll.",
            "Take it out earlier.",
        ),
        Cause::AboveWindow => words(
            "too warm to work",
            "Was it better after 10 min in the fridge?",
            "Put it back in the fridge for 10 min.",
            "Take it out for less time, half the sheet at a time.",
        ),
        Cause::CoarseSugar => words(
            "coarse sugar, or wet tops",
            "Are the tops rough or crisp?",
            "Bake a few cookies made with powdered sugar.",
            "Use powdered sugar, and don’t wet the tops before baking.",
        ),
        Cause::LiftedSoft => words(
            "moved while soft",
            "Are they stretched the way you lifted them?",
            "Cut a few right on the tray’s parchment.",
            "Chill, then slide the parchment.",
        ),
        Cause::Stretched => words(
            "stretched sheet, not rested",
            "Are they oval in the direction you rolled?",
            "Turn the next sheet and rest it 5 min before cutting.",
            "Rest the sheet before cutting.",
        ),
        Cause::MixedWarm => words(
            "mixed too warm",
            "Did the dough shine, or feel oily?",
            "Mix a small dough with cooler butter.",
            "Use cooler butter and stop when it comes together.",
        ),
        Cause::BakedLong => words(
            "baked too long",
            "Were they in longer than usual, or darker?",
            "Take 3 cookies out 1 min earlier.",
            "Bake 1 min less.",
        ),
        Cause::LeftOpen => words(
            "left uncovered",
            "Did you leave them uncovered overnight?",
            "Keep 3 cookies in a tin and 3 out.",
            "Put them in a tin as soon as they’re cold.",
        ),
        Cause::PackedWarm => words(
            "packed warm, or in a damp tin",
            "Was there moisture under the lid?",
            "Pack 3 cookies completely cold.",
            "Cool completely before packing. Put a food-safe drying packet in the tin.",
        ),
        Cause::DrawsWater => words(
            "honey or brown sugar draws moisture",
            "Did it happen in a dry room, too?",
            "Bake a few cookies made with white sugar.",
            "Use white sugar, or a food-safe drying packet in the tin.",
        ),
        Cause::IcedWarm => words(
            "iced while warm",
            "Did you ice them less than an hour after baking?",
            "Ice 3 cookies completely cold.",
            "Cool completely before icing.",
        ),
        Cause::ThinIcing => words(
            "icing too thin",
            "Did it run, or are there butter spots?",
            "Ice 3 cookies with stiffer icing.",
            "Use less water.",
        ),
        Cause::WetColours => words(
            "dark color next to wet light color",
            "Did it happen only where two colors meet?",
            "Let the first color dry on 3 cookies.",
            "Let each color dry first. A fan helps.",
        ),
        Cause::SheetThick => words(
            "sheet thicker than planned",
            "Did you use up all the dough?",
            "Measure 5 cookies before they go in.",
            "Roll between rolling guides.",
        ),
        Cause::ScrapsLeft => words(
            "scraps left over",
            "Is there dough left?",
            "Weigh what’s left.",
            "Re-roll the scraps, or use a tighter layout.",
        ),
        Cause::LargerCutter => words(
            "larger cutter",
            "Did you use a different cutter?",
            "Measure the cutter.",
            "Set the cutter’s size under Order.",
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
            Self::WentInAt(t) => said!["went in at ", degrees(t, 0)],
            Self::Liner(TrayLiner::Bare) => "baked on a bare tray".into(),
            Self::Liner(liner) => said!["baked on ", liner.name()],
            Self::SoftFat(share) => said![percent(share, 0), " of the fat is softer than butter"],
            Self::Leavener(true) => "has leavening".into(),
            Self::Leavener(false) => "has no leavening".into(),
            Self::SugarOverFlour(share) => said!["sugar is ", percent(share, 0), " of the flour"],
            Self::Mixed(MixMethod::LightAndFluffy) => "creamed until light and fluffy".into(),
            Self::Mixed(MixMethod::JustCombined) => "mixed until just combined".into(),
            Self::Mixed(MixMethod::RubbedIn) => "cold butter rubbed in".into(),
            Self::Mixed(MixMethod::Pulsed) => "pulsed in a food processor".into(),
            Self::Tray(TrayKind::Steel) => "a dark steel tray".into(),
            Self::Tray(TrayKind::Aluminium) => "a light-colored tray".into(),
            Self::Egg(true) => "has egg".into(),
            Self::Egg(false) => "has no egg".into(),
            Self::Rolls(0) => "no re-rolls".into(),
            Self::Rolls(1) => "scraps re-rolled once".into(),
            Self::Rolls(n) => said!["scraps re-rolled ", n.to_string(), " times"],
            Self::DrawsWater(true) => "has honey or syrup".into(),
            Self::DrawsWater(false) => "has no honey or syrup".into(),
            Self::Longer(span) if span.min() > 0.0 => said!["baked ", minutes(span, 1), " longer than forecast"],
            Self::Longer(_) => "baked no longer than forecast".into(),
            Self::OvenMeasured => "oven checked with a thermometer".into(),
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
            Self::Usual(2) => "not often the reason".into(),
            Self::Usual(_) => "rarely the reason".into(),
            Self::Fact(fact, _) => fact.say(),
            Self::Spread(spread, so) => said![
                "would give ",
                percent(spread, 1),
                if so { " spread: closer to yours" } else { " spread: further from yours" }
            ],
            Self::Edge(true) => "would fit your edge color better".into(),
            Self::Edge(false) => "would fit your edge color worse".into(),
            Self::Clue(true) => "matches what you saw".into(),
            Self::Clue(false) => "doesn’t match what you saw".into(),
        }
    }
}

/// Less than this of a difference is not told: what bakers see most often comes first even where the forecast gives it little. Our own choice.
const TOLD_FROM: f64 = 0.10;

/// How much of the difference a cause explains; nothing where that is little.
#[must_use]
pub fn explains(of: Share) -> Option<Sentence> {
    (of.value() >= TOLD_FROM).then(|| said!["explains ", percent(of, 0), " of it"])
}

/// Whether something speaks for a cause; how often it is the reason speaks for none.
#[must_use]
pub fn speaks_for(evidence: &Evidence) -> Option<bool> {
    match *evidence {
        Evidence::Usual(_) => None,
        Evidence::Fact(_, so) | Evidence::Clue(so) | Evidence::Spread(_, so) | Evidence::Edge(so) => Some(so),
    }
}

impl Say for CauseTest {
    fn say(&self) -> Sentence {
        if self.tell == Tell::ByHand {
            return of(self.of).test.into();
        }
        let notch = apart(NOTCH, 0);
        let n = self.pieces.to_string();
        let how = match self.of {
            Cause::WarmPieces => {
                said!["Freeze ", n.clone(), " cookies of the next tray for 10 min before it goes in"]
            }
            Cause::ColdPieces => {
                said!["Leave ", n.clone(), " cookies of the next tray on the bench 10 min first"]
            }
            Cause::FlourShort => {
                said!["Knead 5% more flour into some of the dough. Bake ", n.clone(), " cookies of it on the next tray"]
            }
            Cause::FlourHeavy => said![
                "Knead a spoonful of milk into some of the dough. Bake ",
                n.clone(),
                " cookies of it on the next tray"
            ],
            Cause::OvenHot | Cause::OvenCool => {
                let way = if self.of == Cause::OvenHot { " cooler" } else { " hotter" };
                return said![
                    "Bake the next tray ",
                    notch,
                    way,
                    ". Measure ",
                    n.clone(),
                    " of its cookies and ",
                    n,
                    " from a tray baked as before."
                ];
            }
            _ => return of(self.of).test.into(),
        };
        how.then(said![". Measure them and ", n, " others."])
    }
}

/// What a test came to.
#[must_use]
pub fn came_to(test: &CauseTest, found: Found) -> Sentence {
    let after = test.after(found);
    let Some((cause, share)) = after.first().copied() else { return "This doesn’t settle anything.".into() };
    said!["Most likely now: ", cause.name(), ", ", percent(share, 0)].then(". ").then(remedy(cause))
}
