//! What is said when it goes wrong: how it stands, what can be done, and why.

use crate::figure::{apart, degrees, grams, mm};
use crate::names::{Name, does};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::cold::Target;
use ready_slab_core::job::{AdviceCaution, Because, BenchWork, Enough, Headline, Measure, PowerState, When};
use ready_slab_core::safety::COLD;
use ready_slab_core::units::{Span, Temperature};

/// `46 min`, `1 h 44 min`, `2 h`.
fn span(span: Span) -> String {
    let minutes = span.min().round().max(0.0);
    let (hours, rest) = ((minutes / 60.0).floor(), minutes % 60.0);
    match (hours, rest) {
        (0.0, m) => format!("{m} min"),
        (h, 0.0) => format!("{h} h"),
        (h, m) => format!("{h} h {m} min"),
    }
}

fn at(t: Temperature) -> crate::figure::Figure {
    degrees(t, 0)
}

fn line() -> crate::figure::Figure {
    degrees(COLD, 0)
}

fn work(work: BenchWork) -> Sentence {
    match work {
        BenchWork::Sheet(thickness) => said!["a ", mm(thickness), " sheet stays workable"],
        BenchWork::Slicing => "the log stays firm enough to slice".into(),
        BenchWork::LayingOut => "the tray stays firm enough to bake".into(),
    }
}

fn pieces(n: u32) -> String {
    if n == 1 { "1 piece".to_owned() } else { format!("{n} pieces") }
}

impl Say for When {
    fn say(&self) -> Sentence {
        match *self {
            Self::In(from_now) => said!["in ", span(from_now)],
            Self::Ago(before) => said![span(before), " ago"],
        }
    }
}

impl Say for Headline {
    fn say(&self) -> Sentence {
        match *self {
            Self::NotTooWarm { core, target, to } => said![
                at(core),
                " isn’t too warm: this dough ",
                does(target),
                " up to ",
                at(to),
                ". Still soft? Note how it felt under What we’ve learned.",
            ],
            Self::TooWarm { by, core, target, to } => said![
                apart(by, 1),
                " too warm. It’s at ",
                at(core),
                "; this dough ",
                does(target),
                " up to ",
                at(to),
                ".",
            ],
            Self::NotTooCold { dough, target, from } => said![
                at(dough),
                " isn’t too cold: this dough ",
                does(target),
                " from ",
                at(from),
                " up. Still cracks? Note how it felt under What we’ve learned.",
            ],
            Self::AsFirmAsItMay { dough } => {
                said!["Firm at ", at(dough), ", and that’s fine: bake it as it is."]
            }
            Self::TooCold { by, dough, target, from } => said![
                apart(by, 1),
                " too cold. It’s at ",
                at(dough),
                "; this dough ",
                does(target),
                " from ",
                at(from),
                " up.",
            ],
            Self::Lasts { room, work: what, just_ready, coldest } => said![
                "Room at ",
                at(room),
                ": ",
                work(what),
                " ",
                span(just_ready),
                " if just ready, ",
                span(coldest),
                " if fully chilled.",
            ],
            Self::LastsAlways { room, work: what } => {
                said!["Room at ", at(room), ": ", work(what), " as long as you need."]
            }
            Self::MustGetTo { pieces: n, mass, from, to } => {
                said!["Cool ", pieces(n), " of ", grams(mass), " from ", at(from), " to ", at(to), "."]
            }
            Self::NoColdNeeded { at: now, target } => {
                said!["No chilling needed: at ", at(now), " this dough already ", does(target), "."]
            }
            Self::PowerIsOff { place, air, dough, state } => said![
                "With the door shut, your ",
                place.name(),
                " is about ",
                at(air),
                " by now. The dough is ",
                at(dough),
                match state {
                    PowerState::Spent => ". It has been out of the cold too long".to_owned(),
                    PowerState::TooCold => ". Still too cold: let it rest first".to_owned(),
                    PowerState::Ready(target) => format!(". It {} now", does(target)),
                    PowerState::TooWarm => ". It\u{2019}s too warm to work".to_owned(),
                },
                ".",
            ],
        }
    }
}

impl Say for Measure {
    fn say(&self) -> Sentence {
        match *self {
            Self::AsItIs(place) => said!["Put it in the ", place.name(), " as it is"],
            Self::Pressed { to } => said!["Press it to ", mm(to), " and put it in the fridge"],
            Self::RolledBetweenPapers { to } => {
                said!["Roll it to ", mm(to), " between sheets of parchment and put it in the freezer"]
            }
            Self::OnAFrozenTray => "Set the sheet on a frozen tray, on the bench".into(),
            Self::RestOnTheBench { room } => said!["Let it rest, wrapped, on the bench (", at(room), ")"],
            Self::SplitInTwo { room } => said!["Split it horizontally and rest both halves at ", at(room)],
            Self::WarmerSpot => "Find a warmer spot".into(),
            Self::NoOvenNoMicrowave => "Don’t use the oven or microwave".into(),
            Self::LeavesTheBowl { at: dough, ready: Some(after) } => {
                said!["Mixed at ", at(dough), ", it’s ready in ", span(after)]
            }
            Self::LeavesTheBowl { at: dough, ready: None } => {
                said!["Mixed at ", at(dough), ", it won’t get firm enough"]
            }
            Self::LeaveInTheCold { place, until: Some(past) } => {
                said!["Leave it in the ", place.name(), " ", span(past), ", until fully chilled"]
            }
            Self::LeaveInTheCold { place, until: None } => {
                said!["Leave it in the ", place.name(), " until it’s that cold"]
            }
            Self::CutOnAFrozenTray => "Cut on an upside-down frozen tray".into(),
            Self::RollBeforeTheChill => "Roll between sheets of parchment, then chill".into(),
            Self::TakeTurns { sheets } => {
                said!["Roll all ", sheets, " sheets now and chill them in turn in one tray space"]
            }
            Self::Stacked { sheets, high } => {
                said!["Stack ", sheets, " sheets with parchment between: one tray space, ", mm(high), " high",]
            }
            Self::FreezerInstead => "Use the freezer instead".into(),
            Self::CoolBox => "Use a cooler with ice packs".into(),
            Self::Cellar { at } => said!["Use a basement or porch at ", degrees(at, 0)],
            Self::ThrowItOut { limit, ended } => {
                said!["Throw it out: it passed ", span(limit), " above ", line(), " ", ended.say()]
            }
            Self::BakeBy { when: When::In(left) } => said!["Bake it within ", span(left)],
            Self::BakeBy { when } => said!["It should have been baked ", when.say()],
            Self::HasLeft { left, of } => {
                said![span(left), " left of its ", span(of), " above ", line()]
            }
            Self::StaysCold { at_least } => {
                said!["Stays below ", line(), " at least ", span(at_least), " more"]
            }
            Self::KeepTheDoorShut => "Keep the door shut".into(),
            Self::WorkUntil { from_now } => said!["You can work it straight from there for ", span(from_now)],
            Self::MoveItNow => "Have ice or another fridge? Move it now".into(),
        }
    }
}

impl Say for Enough {
    fn say(&self) -> Sentence {
        match *self {
            Self::None => "not enough to roll and cut. Roll before chilling, or cut on a frozen tray".into(),
            Self::Cut(n) => {
                said!["enough to roll and cut about ", n, " cookies. Work that much at a time; keep the rest cold",]
            }
            Self::Sliced(n) => said!["enough for about ", n, " slices, then chill it again"],
            Self::LaidOut(n) => said!["enough to lay out about ", n, "; keep the rest cold"],
        }
    }
}

impl Say for Because {
    fn say(&self) -> Sentence {
        match *self {
            Self::TooColdFrom(past) => said!["After ", span(past), " it’s too cold."],
            Self::NothingMeanwhile => "Nothing to do in the meantime.".into(),
            Self::QuicklyTooMuch => "Fast, and easy to overdo: set a timer.".into(),
            Self::HalfAsThick => "Half the thickness chills more than twice as fast.".into(),
            Self::SoftRollsBetweenPapers => {
                "Soft dough rolls easily between parchment. Cut it once it’s chilled.".into()
            }
            Self::NotFirmEnough { firmest } => {
                said!["Not enough here: the fat can’t set in time. It gets no firmer than dough at ", at(firmest), ".",]
            }
            Self::CutThereUntil(until) => said!["Cut it there within ", span(until), "."],
            Self::CutThere => "You can cut it there.".into(),
            Self::TurnItOnce(Target::Slicing) => {
                "Turn it once. Ready when a knife goes through without chipping it.".into()
            }
            Self::TurnItOnce(Target::Rolling | Target::RolledLater | Target::Oven | Target::Core(_)) => {
                "Turn it once. Ready when your thumb dents it and the edge doesn’t crack.".into()
            }
            Self::HalvesInTurn => {
                "Each half is half as thick. Roll one at a time, the second straight from the cold.".into()
            }
            Self::RoomIsColder { room } => said!["Your room is ", at(room), ", colder than the dough needs to be."],
            Self::RimMelts => {
                "The edge melts while the middle is still hard. Melted fat won’t set the way it was.".into()
            }
            Self::AsTheKitchenIsSet { dough, ready } => said![
                "With your kitchen settings: mixed at ",
                at(dough),
                ", ready in ",
                ready.map_or_else(|| "never ready".to_owned(), span),
                ". Butter and eggs straight from the fridge bring both down.",
            ],
            Self::LastsOnTheBench { span: lasts, enough } => {
                said!["You get ", span(lasts), " on the bench: ", enough.say(), "."]
            }
            Self::SheetLasts { span: lasts, else_only } => said![
                "The sheet then lasts ",
                span(lasts),
                " instead of ",
                else_only.map_or_else(|| "as long".to_owned(), span),
                ". Swap two frozen trays to keep the bench cold.",
            ],
            Self::LastsAsLongAsNeeded => "Then the sheet lasts as long as you need.".into(),
            Self::OnlyCuttingHurries => "Soft dough rolls easily. Only the cutting is against the clock.".into(),
            Self::EachSheetNeeds(needs) => {
                said!["Each sheet needs only ", span(needs), ". The others wait, rolled, on the bench."]
            }
            Self::InnerOnesLast => "One flat spot holds them all. The inner sheets chill last.".into(),
            Self::SetAClock => "Set a timer.".into(),
            Self::BoxAt { at } => said!["Counted as ", degrees(at, 0), ". Put a thermometer in to check."],
            Self::NoColdPlace => "Fine for firming dough up, not cold enough to keep it.".into(),
            Self::AboveTheLine { will_be, when, limit } => said![
                if will_be { "Goes above " } else { "Went above " },
                line(),
                " ",
                when.say(),
                ". Usual limit: ",
                span(limit),
                " in total.",
            ],
            Self::AboveSince { when: When::Ago(since) } => {
                said!["Above ", line(), " for ", span(since), ", if the door stayed shut.",]
            }
            Self::AboveSince { when: When::In(from_now) } => {
                said!["Goes above ", line(), " in ", span(from_now), ", if the door stays shut.",]
            }
            Self::NobodyOpens => "If nobody opens the door.".into(),
            Self::OpeningCosts => "Opening it once costs an hour of cold.".into(),
            Self::TooWarmAfterThat => "After that it’s too warm to work, even if the door stays shut.".into(),
            Self::BoxLastsADay => {
                said!["A cooler full of ice packs stays below ", line(), " most of a day."]
            }
        }
    }
}

impl Say for AdviceCaution {
    fn say(&self) -> Sentence {
        match *self {
            Self::FatHasRun(above) => said![
                "Above ",
                at(above),
                " the fat has melted: cookies may be crumbly and greasy. Chill it firm all the way through before working it again.",
            ],
            Self::Raw(caution) => caution.say(),
        }
    }
}
