//! What is said when it goes wrong: how it stands, what can be done, and why.

use crate::figure::{apart, degrees, grams, mm};
use crate::names::{Name, does};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::cold::Target;
use ready_slab_core::job::{AdviceCaution, Because, BenchWork, Enough, Headline, Measure, PowerState, When};
use ready_slab_core::safety::COLD;
use ready_slab_core::units::{Span, Temperature};

/// `46 min`, `1 h 44`, `2 h`.
fn span(span: Span) -> String {
    let minutes = span.min().round().max(0.0);
    let (hours, rest) = ((minutes / 60.0).floor(), minutes % 60.0);
    match (hours, rest) {
        (0.0, m) => format!("{m} min"),
        (h, 0.0) => format!("{h} h"),
        (h, m) => format!("{h} h {m:02}"),
    }
}

fn at(t: Temperature) -> crate::figure::Figure {
    degrees(t, 1)
}

fn line() -> crate::figure::Figure {
    degrees(COLD, 0)
}

fn work(work: BenchWork) -> Sentence {
    match work {
        BenchWork::Sheet(thickness) => said!["a ", mm(thickness), " sheet stays workable"],
        BenchWork::Slicing => "it stays firm enough to slice".into(),
        BenchWork::LayingOut => "it stays firm enough for the oven".into(),
    }
}

fn pieces(n: u32) -> String {
    if n == 1 { "One piece".to_owned() } else { format!("{n} pieces") }
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
                "At ",
                at(core),
                " it is not too warm: this dough ",
                does(target),
                " up to ",
                at(to),
                ". If it is soft all the same, tell it under What was learnt.",
            ],
            Self::TooWarm { by, core, target, to } => said![
                "It is ",
                apart(by, 1),
                " too warm: at ",
                at(core),
                ", and this dough ",
                does(target),
                " up to ",
                at(to),
                ".",
            ],
            Self::NotTooCold { dough, target, from } => said![
                "At ",
                at(dough),
                " it is not too cold: this dough ",
                does(target),
                " from ",
                at(from),
                ". If it cracks all the same, tell it under What was learnt.",
            ],
            Self::AsFirmAsItMay { dough } => {
                said!["At ", at(dough), " it is firm, and as firm as it may be: it goes into the oven as it is."]
            }
            Self::TooCold { by, dough, target, from } => said![
                "It is ",
                apart(by, 1),
                " too cold: at ",
                at(dough),
                ", and this dough ",
                does(target),
                " from ",
                at(from),
                ".",
            ],
            Self::Lasts { room, work: what, just_ready, coldest } => said![
                "At ",
                at(room),
                " ",
                work(what),
                " for ",
                span(just_ready),
                " when it is just ready, ",
                span(coldest),
                " when it comes as cold as it may.",
            ],
            Self::LastsAlways { room, work: what } => {
                said!["At ", at(room), " ", work(what), " as long as it lies there."]
            }
            Self::MustGetTo { pieces: n, mass, from, to } => {
                said![pieces(n), " of ", grams(mass), " must get from ", at(from), " to ", at(to), "."]
            }
            Self::NoColdNeeded { at: now, target } => {
                said!["At ", at(now), " this dough ", does(target), " already: no cold is needed."]
            }
            Self::PowerIsOff { place, air, dough, state } => said![
                "Shut, the ",
                place.name(),
                " is at about ",
                at(air),
                " by now, and the dough at ",
                at(dough),
                ": it ",
                match state {
                    PowerState::Spent => "has been out of the cold for too long".to_owned(),
                    PowerState::TooCold => "is too cold still, so it must rest first".to_owned(),
                    PowerState::Ready(target) => format!("{} now", does(target)),
                    PowerState::TooWarm => "is too warm to work".to_owned(),
                },
                ".",
            ],
        }
    }
}

impl Say for Measure {
    fn say(&self) -> Sentence {
        match *self {
            Self::AsItIs(place) => said!["As it is, into the ", place.name()],
            Self::Pressed { to } => said!["Pressed to ", mm(to), ", into the fridge"],
            Self::RolledBetweenPapers { to } => said!["Rolled between papers to ", mm(to), ", into the freezer"],
            Self::OnAFrozenTray => "The sheet on a tray from the freezer, on the bench".into(),
            Self::RestOnTheBench { room } => said!["Rest it wrapped on the bench at ", at(room)],
            Self::SplitInTwo { room } => said!["Split it flat in two and rest the halves at ", at(room)],
            Self::WarmerSpot => "A warmer spot is needed".into(),
            Self::NoOvenNoMicrowave => "Not in an oven or a microwave".into(),
            Self::LeavesTheBowl { at: dough, ready: Some(after) } => {
                said!["The dough leaves the bowl at ", at(dough), " and is ready after ", span(after)]
            }
            Self::LeavesTheBowl { at: dough, ready: None } => {
                said!["The dough leaves the bowl at ", at(dough), " and is never ready"]
            }
            Self::LeaveInTheCold { place, until: Some(past) } => {
                said!["Leave it in the ", place.name(), " for ", span(past), ", to the cold end of its window"]
            }
            Self::LeaveInTheCold { place, until: None } => {
                said!["Leave it in the ", place.name(), " until it is as cold as that"]
            }
            Self::CutOnAFrozenTray => "Cut on an upturned tray from the freezer".into(),
            Self::RollBeforeTheChill => "Roll before the chill, between papers".into(),
            Self::TakeTurns { sheets } => said!["Rolled first, one tray's place taken in turns by ", sheets],
            Self::Stacked { sheets, high } => {
                said![sheets, " sheets on each other between papers, in one tray's place, ", mm(high), " high",]
            }
            Self::FreezerInstead => "Into the freezer instead".into(),
            Self::CoolBox => "A cool box with ice packs".into(),
            Self::Cellar { at } => said!["A cellar or porch at ", degrees(at, 0)],
            Self::ThrowItOut { limit, ended } => {
                said!["Throw it out: its ", span(limit), " above ", line(), " ended ", ended.say()]
            }
            Self::BakeBy { when } => said!["Bake it ", when.say(), " at the latest"],
            Self::HasLeft { left, of } => {
                said!["It has ", span(left), " above ", line(), " left of its ", span(of)]
            }
            Self::StaysCold { at_least } => {
                said!["It stays below ", line(), " for at least ", span(at_least), " from now"]
            }
            Self::KeepTheDoorShut => "Keep the door shut".into(),
            Self::WorkUntil { from_now } => said!["It can be worked from there until ", span(from_now), " from now"],
            Self::MoveItNow => "With ice or a neighbour's fridge at hand, move it now".into(),
        }
    }
}

impl Say for Enough {
    fn say(&self) -> Sentence {
        match *self {
            Self::None => {
                "not enough to roll a sheet and cut it. Roll it before the chill, or cut on a frozen tray".into()
            }
            Self::Cut(n) => said![
                "enough to roll it and cut about ",
                n,
                " pieces. Work in portions of that size, the rest in the cold",
            ],
            Self::Sliced(n) => said!["enough for about ", n, " slices; then it goes back into the cold"],
            Self::LaidOut(n) => said!["enough to lay out about ", n, "; the rest stays in the cold"],
        }
    }
}

impl Say for Because {
    fn say(&self) -> Sentence {
        match *self {
            Self::TooColdFrom(past) => said!["It is too cold from ", span(past), " on."],
            Self::NothingMeanwhile => "Nothing to do meanwhile.".into(),
            Self::QuicklyTooMuch => "Quick, and quickly too much: set a clock.".into(),
            Self::HalfAsThick => "Half as thick cools more than twice as fast.".into(),
            Self::SoftRollsBetweenPapers => {
                "A soft dough rolls easily between papers; it is cut when it comes out.".into()
            }
            Self::NotFirmEnough { firmest } => {
                said!["Not enough here: its fat has no time to set, and it gets no firmer than at ", at(firmest), ".",]
            }
            Self::CutThereUntil(until) => said!["It can be cut there until ", span(until), " after."],
            Self::CutThere => "It can be cut there.".into(),
            Self::TurnItOnce(Target::Slicing) => {
                "Turn it once. It is ready when the knife goes through without a splinter.".into()
            }
            Self::TurnItOnce(Target::Rolling | Target::RolledLater | Target::Oven | Target::Core(_)) => {
                "Turn it once. It is ready when a thumb dents it and the edge no longer cracks.".into()
            }
            Self::HalvesInTurn => {
                "Each half is half as thick. Roll them one after the other, the second from the cold.".into()
            }
            Self::RoomIsColder { room } => said!["The room is at ", at(room), ", colder than the dough must be."],
            Self::RimMelts => {
                "The edge melts while the middle is still hard, and melted fat does not come back as it was.".into()
            }
            Self::AsTheKitchenIsSet { dough, ready } => said![
                "In this kitchen as set it is ",
                at(dough),
                " and ",
                ready.map_or_else(|| "never ready".to_owned(), span),
                ". Butter and eggs straight from the fridge bring it down.",
            ],
            Self::LastsOnTheBench { span: lasts, enough } => {
                said!["It then lasts ", span(lasts), " on the bench: ", enough.say(), "."]
            }
            Self::SheetLasts { span: lasts, else_only } => said![
                "The same sheet then lasts ",
                span(lasts),
                ", not ",
                else_only.map_or_else(|| "as long".to_owned(), span),
                ". Two trays taking turns keep a bench cold.",
            ],
            Self::LastsAsLongAsNeeded => "The sheet then lasts as long as you need.".into(),
            Self::OnlyCuttingHurries => {
                "A soft dough rolls easily; only the cutting is then done against the clock.".into()
            }
            Self::EachSheetNeeds(needs) => {
                said!["Each sheet needs ", span(needs), " only; the others wait, rolled, on the bench."]
            }
            Self::InnerOnesLast => "One flat place does for all; the inner ones are last.".into(),
            Self::SetAClock => "Set a clock.".into(),
            Self::BoxAt { at } => said!["Taken to be at ", degrees(at, 0), ": put a thermometer in."],
            Self::NoColdPlace => "Good for getting it firm, not for keeping: it is no cold place.".into(),
            Self::AboveTheLine { will_be, when, limit } => said![
                if will_be { "It will be above " } else { "It went above " },
                line(),
                " ",
                when.say(),
                "; ",
                span(limit),
                " of that in all is the usual limit.",
            ],
            Self::AboveSince { when: When::Ago(since) } => {
                said!["It has been above ", line(), " for ", span(since), ", as long as the door stayed shut.",]
            }
            Self::AboveSince { when: When::In(from_now) } => {
                said!["It gets above ", line(), " in ", span(from_now), ", as long as the door stays shut.",]
            }
            Self::NobodyOpens => "As long as nobody opens the door.".into(),
            Self::OpeningCosts => "Opening it once lets in what an hour shut would.".into(),
            Self::TooWarmAfterThat => "After that it is too warm even out of the shut door.".into(),
            Self::BoxLastsADay => {
                said!["A cool box full of ice packs stays below ", line(), " for most of a day."]
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
                " the fat has run: it may come out shorter and greasier. Chill it firm all through before it is worked again.",
            ],
            Self::Raw(caution) => caution.say(),
        }
    }
}
