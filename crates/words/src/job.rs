//! What is said of a plan: what its figures rest on, and what to mind.

use crate::day::day_forbidden;
use crate::figure::{
    apart, degrees, grams, grams_fine, minutes, minutes_between, mm, number, percent, percent_between, sides,
};
use crate::names::Name;
use crate::oven::{signed, within};
use crate::sentence::{Say, Sentence, listed, said};
use crate::shape;
use ready_slab_core::cold::{ColdPlace, Feeling, Piece, Target};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{
    DoughPart, Notch, Otherwise, PartUse, PotCaution, ReadyMeans, Reason, Setting, Thaw, Way, WayKind,
};
use ready_slab_core::oven::{DoneBy, Profile};
use ready_slab_core::units::Span;

fn counted(n: u32, word: &str) -> String {
    format!("{} {word}{}", number(f64::from(n), 0), if n == 1 { "" } else { "s" })
}

fn bakes(n: u32) -> String {
    if n == 1 { "one bake".to_owned() } else { format!("{n} bakes") }
}

fn times(value: f64) -> String {
    format!("{} times", number(value, 2))
}

/// What a part of the dough is called.
#[must_use]
pub fn dough_part(part: &DoughPart) -> String {
    if part.part_use == PartUse::Freeze { "for the freezer".to_owned() } else { part.name.clone() }
}

impl Say for PotCaution {
    fn say(&self) -> Sentence {
        match self {
            Self::OnARack => "The tray stands on a rack or a bed of salt, never on its base.",
            Self::ThickMetal => "A thick metal pot without coating, no glass. Its maker may forbid heating it empty: then it is not for this.",
            Self::LooseLid => "The lid lies loose. No gasket, no weight, nothing sealed: steam must find its way out.",
            Self::Attended => "Never unattended. Nothing that burns near the flame, the room aired, dry gloves for lid and pot.",
            Self::Children => "Children keep away; it stays hot for an hour.",
        }
        .into()
    }
}

fn done_by(by: DoneBy) -> &'static str {
    match by {
        DoneBy::Rim => "the edge has its colour",
        DoneBy::Dull => "the middle no longer shines, which here comes last",
        DoneBy::Set => "the middle is set, which here comes last",
        DoneBy::Time | DoneBy::Never => "the forecast ends: it is not done by then",
    }
}

fn tenths(range: (Span, Span)) -> crate::figure::Figure {
    minutes_between(range.0, range.1, 1)
}

fn turn_of(kind: Profile) -> &'static str {
    match kind {
        Profile::Domed => ", domed",
        Profile::Flat => ", flat",
        Profile::Sunken => ", its edge a little higher than its middle",
    }
}

/// A time or a range of times, as a recipe says them.
fn how_long((low, high): (Span, Span)) -> String {
    let in_hours = low.min() >= 120.0 && low.min() % 60.0 == 0.0 && high.min() % 60.0 == 0.0;
    match (low == high, in_hours) {
        (true, _) => hours_and_minutes(low),
        (false, true) => format!("{} to {}", number(low.min() / 60.0, 0), hours_and_minutes(high)),
        (false, false) if low.min() < 120.0 => format!("{} to {} min", number(low.min(), 0), number(high.min(), 0)),
        (false, false) => format!("{} to {}", hours_and_minutes(low), hours_and_minutes(high)),
    }
}

/// `45 min`, `1 h`, `1 h 46 min`.
fn hours_and_minutes(span: Span) -> String {
    let whole = span.min().round();
    let (hours, rest) = ((whole / 60.0).floor(), whole % 60.0);
    match (hours > 0.0, rest > 0.0) {
        (false, _) => format!("{} min", number(whole, 0)),
        (true, false) => format!("{} h", number(hours, 0)),
        (true, true) => format!("{} h {} min", number(hours, 0), number(rest, 0)),
    }
}

/// Why a bake takes longer or shorter than its recipe says.
fn otherwise(why: Otherwise) -> Sentence {
    match why {
        Otherwise::Thicker => "Your cookies are thicker.".into(),
        Otherwise::Thinner => "Your cookies are thinner.".into(),
        Otherwise::SetCooler(by) => said!["You set the oven ", apart(by, 0), " cooler."],
        Otherwise::SetHotter(by) => said!["You set the oven ", apart(by, 0), " hotter."],
        Otherwise::RunsCool(by) => said!["Your oven runs ", apart(by, 0), " cool."],
        Otherwise::RunsHot(by) => said!["Your oven runs ", apart(by, 0), " hot."],
    }
}

/// Days or months, one or a range.
fn kept(place: ColdPlace, from: f64, to: Option<f64>) -> String {
    let unit = if place == ColdPlace::Fridge { "days" } else { "months" };
    match to {
        Some(to) => format!("{} to {} {unit}", number(from, 0), number(to, 0)),
        None => format!("{} {unit}", number(from, 0)),
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match self {
            Self::Dough(reason) => reason.say(),
            Self::Oven(reason) => reason.say(),
            Self::Piece(reason) => reason.say(),
            Self::Finish(reason) => reason.say(),
            Self::PiecesWeigh { pieces, each, all } => {
                said![
                    counted(*pieces, "piece"),
                    " of ",
                    grams_fine(*each),
                    if *pieces == 1 { " is " } else { " are " },
                    grams(*all),
                    ".",
                ]
            }
            Self::ScrapAdds { scrap, reserve } => said![
                "Scrap that no roll recovers, and what sticks to board and hands, adds ",
                grams(*scrap),
                "; the spare dough ",
                grams(*reserve),
                ".",
            ],
            Self::ForTheFreezer { dough, pieces } => said![
                grams(*dough),
                " more for the ",
                counted(*pieces, "piece"),
                " kept as dough: press it to a disc, wrap it well, write the date on it; one to three months in the freezer, a night in the fridge to thaw.",
            ],
            Self::MixedForAnother { dough, job } => {
                said![grams(*dough), " more for ", job, ", mixed together with it."]
            }
            Self::LeavesTheMixer { at, measured } => said![
                "It leaves the mixer at ",
                degrees(*at, 1),
                if *measured { ", as you measured." } else { ", from the ingredients and the mixing." },
            ],
            Self::CanBeWorked { from, middle, best: Some(best) } => said![
                "You can work it after ",
                minutes(*from, 0),
                ", at about ",
                degrees(*middle, 0),
                " in the middle. It is best after ",
                minutes(*best, 0),
                ".",
            ],
            Self::CanBeWorked { from, middle, best: None } => said![
                "You can work it after ",
                minutes(*from, 0),
                ", at about ",
                degrees(*middle, 0),
                " in the middle.",
            ],
            Self::RecipeChills { says, ready, target } => said![
                "Recipe: ",
                how_long(*says),
                if *target == Target::Slicing { ". You can slice after " } else { ". You can roll after " },
                hours_and_minutes(*ready),
                ".",
            ],
            Self::RecipeBakes { says, about, why } => {
                let mut said = said!["Recipe: ", how_long(*says), ". Yours: about ", minutes(*about, 0), "."];
                for why in why {
                    said.push(" ");
                    said.push(otherwise(*why));
                }
                said
            }
            Self::RestsForItsFlour { at_least } => said![
                "It rests ",
                minutes(*at_least, 0),
                " at least for its flour: water spreads evenly, and the sheet cracks less.",
            ],
            Self::NotChilled { what: Setting::Dough, at, feels: Feeling::RollsClean } => {
                said!["It is not chilled: at ", degrees(*at, 0), " it rolls clean as it is."]
            }
            Self::NotChilled { what: Setting::Dough, at, feels } => said![
                "It is not chilled: at ",
                degrees(*at, 0),
                " it is ",
                feels.name(),
                ". Roll it between papers and leave the pieces where they are. It spreads a little more: fine for lean doughs and plain rounds, not for detail.",
            ],
            Self::NotChilled { what: Setting::CutPiece, at, .. } => {
                said!["The pieces are not chilled: they go in at ", degrees(*at, 0), " and spread a little more."]
            }
            Self::ThawsOnly { way: Thaw::Fridge, span } => said![
                "From the freezer into the fridge the evening before, still wrapped; in the morning it can be worked after ",
                minutes(*span, 0),
                " on the bench.",
            ],
            Self::ThawsOnly { way: Thaw::Bench, span } => said![
                "From the freezer it can be worked after ",
                minutes(*span, 0),
                " on the bench, still wrapped: the damp settles on the film, not on the dough.",
            ],
            Self::NeverTwice => {
                "Never in warm water: its rim melts while its middle is frozen. What has thawed is not frozen again.".into()
            }
            Self::BulkFirst { formed } => said![
                "Firm as a lump, its logs are formed at ",
                degrees(*formed, 0),
                " and chill from there: they keep their section better than logs of soft dough.",
            ],
            Self::PiecesNotChilled { at } => said![
                "The cut pieces are not chilled: they go in at ",
                degrees(*at, 0),
                ", soft. Move them on their paper, not by hand; they spread a little more and lose fine edges.",
            ],
            Self::ChilledFor { what, span, at, feels, ready } => {
                let name = match what {
                    Setting::Dough => "It comes out after ",
                    Setting::CutPiece => "The pieces come out after ",
                };
                let out =
                    said![name, minutes(*span, 0), " as you set it: ", degrees(*at, 0), " on average, ", feels.name(), "."];
                match ready {
                    Some(ready) if *ready > *span => {
                        out.then(said![" By the forecast it is ready after ", minutes(*ready, 0), "."])
                    }
                    _ => out,
                }
            }
            Self::ChilledOvernight { what: Setting::Dough } => {
                "It goes in the evening before: that is time off for you. Its flour is wetted evenly, so it spreads a little less; it colours a little deeper. It comes out hard: let it rest, or cut it into slabs, which soften in about 10 minutes.".into()
            }
            Self::ChilledOvernight { what: Setting::CutPiece } => {
                "The pieces stay on their trays overnight: cover them, or they dry at the edge.".into()
            }
            Self::FlourNotRested { usually } => said![
                "Dough mixed like this usually rests ",
                minutes(*usually, 0),
                " for its flour; rolled at once, the sheet cracks more.",
            ],
            Self::StillSets { what, cold_enough, more } => said![
                match what {
                    Setting::Dough => "It is cold enough after ",
                    Setting::CutPiece => "The cut piece is cold enough after ",
                },
                minutes(*cold_enough, 0),
                "; its butter goes on setting for ",
                minutes(*more, 0),
                " more.",
            ],
            Self::RangeOfReadings { place } => {
                said!["The range is what readings have left open of this ", place.name(), "."]
            }
            Self::RangeOfTheFilm => {
                "The range is from an air film a fifth weaker or a quarter stronger than assumed.".into()
            }
            Self::RollInParts { bench, hands, back } => said![
                "A rolled sheet stays workable for ",
                minutes(*bench, 0),
                "; a tray takes ",
                minutes(*hands, 0),
                ". Roll what one tray needs and leave the rest in the cold. When the sheet goes soft, slide it back for ",
                minutes(*back, 0),
                ".",
            ],
            Self::RolledTo { mass, thickness, form } => {
                said![grams(*mass), " rolled to ", mm(*thickness), " covers ", shape::sheet(*form), "."]
            }
            Self::Logs { logs, mass, length, slices, slice, trim } => said![
                counted(*logs, "log"),
                " of ",
                grams(*mass),
                ", ",
                mm(*length),
                " long: ",
                counted(*slices, "slice"),
                " of ",
                mm(*slice),
                ", and ",
                mm(*trim),
                " trimmed from each end.",
            ],
            Self::Trays { trays, mass } => said![
                counted(*trays, "tray"),
                " of ",
                grams(*mass),
                ", spread over the whole tray and cut after baking.",
            ],
            Self::Portions { portions, mass } => said![counted(*portions, "portion"), " of ", grams_fine(*mass), " each."],
            Self::SmallestGap { gap } => said!["The smallest gap between two cuts is ", mm(*gap), "."],
            Self::FromSecondReroll { pieces } => said![
                counted(*pieces, "piece"),
                if *pieces == 1 {
                    " comes from the second re-roll: tougher, and it may bubble."
                } else {
                    " come from the second re-roll: tougher, and they may bubble."
                },
            ],
            Self::SheetKeptTo { sheet, tray } => said![
                "A sheet is kept to ",
                sides(sheet.0, sheet.1),
                ", as you set it; the tray would take ",
                sides(tray.0, tray.1),
                ".",
            ],
            Self::NoRods { thickness } => {
                said!["No guide rods of ", mm(*thickness), " in the kitchen: rolled by eye."]
            }
            Self::LayoutNotUsed { fault } => {
                said!["The layout you kept is not used: ", fault.say(), ". Find one again."]
            }
            Self::SheetsNotUsed { fault } => said![
                "The sheets you kept for several batches are not used: ",
                fault.say(),
                ". Lay them out again.",
            ],
            Self::TrayNotUsed { fault, gap } => said![
                "The tray you laid is not used: ",
                fault.say(),
                ", now that they need ",
                mm(*gap),
                ". Lay it again.",
            ],
            Self::GapOnTheTray { gap, by_growth } => said![
                mm(*gap),
                " is kept between pieces on the tray",
                if *by_growth {
                    ", room for what they grow."
                } else {
                    ", as the kitchen has it: more than what they grow."
                },
            ],
            Self::NotDoneWithin { span } => said![
                "Not done within ",
                minutes(*span, 0),
                " by the forecast: this oven is too cool for that colour. The ranges are those of common practice.",
            ],
            Self::BeyondTheForecast { why } => said![
                "Beyond what the forecast knows (",
                beyond(why),
                "): these are ranges of common practice.",
            ],
            Self::WideBar { across } => said![
                "A tray-wide bar is larger than the forecast knows: it is told as a slab of ",
                mm(*across),
                ", whose edge browns first and whose middle follows late.",
            ],
            Self::DoneAfter { span, by } => said![minutes(*span, 1), " until ", done_by(*by), "."],
            Self::OvenTaught { bakes, off, sd, measured } => said![
                *bakes,
                " of your bakes have taught it: the oven is off",
                if *measured { " from what its thermometer showed by " } else { " by " },
                signed(*off, 0),
                ", ",
                within(*sd),
                ".",
            ],
            Self::OvenMeasured => "The range is of an oven measured against a thermometer.".into(),
            Self::OvenUnmeasured { doubt } => said![
                "The dial may be ",
                within(*doubt),
                " off. Put a thermometer in your oven and this range shrinks.",
            ],
            Self::HeatsTimes { times: heat } => {
                said!["By them it heats ", times(*heat), " as strongly as the forecast alone has it."]
            }
            Self::DoughTaught { bakes: n, spread, time, browning } => said![
                "By ",
                bakes(*n),
                " this dough spreads ",
                times(*spread),
                " as far and takes ",
                times(*time),
                " as long as the forecast alone has it, browning ",
                times(*browning),
                " as fast.",
            ],
            Self::ModelAndPractice { model, practice, told } => said![
                "About ",
                minutes(*told, 0),
                ": the forecast says ",
                minutes(*model, 0),
                ", common practice ",
                minutes_between(practice.0, practice.1, 0),
                ". Each counts by how sure it is; your own bakes outweigh both.",
            ],
            Self::SpreadWidened { practice } => said![
                "Common practice has such doughs spread ",
                percent_between(practice.0, practice.1, 1),
                ": the range is widened to touch that until your own bakes decide.",
            ],
            Self::ThermostatSwings { by } => {
                said!["Its thermostat swings ", within(*by), "; over a bake most of that comes out even."]
            }
            Self::AirAt { metres, kpa } => said![
                "At ",
                number(*metres, 0),
                " m the air is ",
                number(*kpa, 0),
                " kPa: water leaves sooner, gas widens further.",
            ],
            Self::TrayCovered { share } => said![
                percent(*share, 0),
                " of the tray lies under dough: the fuller, the slower and the paler beneath.",
            ],
            Self::FlowsBetween { fat, set } => said![
                "It starts to spread after ",
                minutes(*fat, 1),
                ", the dough is set after ",
                minutes(*set, 1),
                ": in between it flows.",
            ],
            Self::ComesOut { cut, high, density, profile } => said![
                "Cut at ",
                mm(*cut),
                " it comes out ",
                mm(*high),
                format!(" high at {:.2} g/cm\u{b3}", density.kg_m3() / 1000.0),
                turn_of(*profile),
                ".",
            ],
            Self::GrowsAtTheRim { by } => said![
                "Spread is that of a round. Growth happens at the edge: ",
                shape::growth(*by),
                " all round this piece.",
            ],
            Self::SmallOven => {
                "A small oven’s elements are near: keep the tray in the middle and paper well away from them, turn it half way, look early, and bake one tray at a time. It swings more than the forecast takes it to.".into()
            }
            Self::SwapShelves => "Trays on several shelves swap theirs half way.".into(),
            Self::Pot(caution) => caution.say(),
            Self::PotIsNotForecast => "A pot on a burner has neither a setting nor a measured air, so nothing is forecast: about twice an oven's time is common practice.".into(),
            Self::PotStaysPale => "Its tops stay paler than in an oven: go by set edges and the underside. Bake one tray of few pieces first.".into(),
            Self::PotTray { tray } => said![
                "Its tray is planned as ",
                sides(tray.0, tray.1),
                ", which no pot holds: set the tray's size in the kitchen to what lies on its rack.",
            ],
            Self::PartAhead(part) => part.say(),
            Self::OneTimeWillDo { done } => said!["One time will do: they are done after ", tenths(*done), "."],
            Self::DoneApart { done, more_than } => said![
                "They are done after ",
                tenths(*done),
                ": more than ",
                percent(*more_than, 0),
                " apart, so take the first ones off before the last are done.",
            ],
            Self::TurnedDone { done } => said!["Turned half way they are done after ", tenths(*done), "."],
            Self::SortByThickness { thin, of } => said![
                "Sort them by thickness: ",
                *thin,
                " of ",
                *of,
                " come from the thin part of the sheet; they go on a tray of their own, or the sheet is rolled once more over the guide rods.",
            ],
            Self::ThinFirstOneTray { by } => said![
                "The thinnest pieces are done ",
                minutes(*by, 1),
                " before the thickest: one tray will do.",
            ],
            Self::ThinFirstApart { by } => said![
                "The thinnest pieces are done ",
                minutes(*by, 1),
                " before the thickest. Put those of the thin spots on a tray of their own, or roll once more over the guide rods.",
            ],
            Self::SheetOff { thicker, by } => said![
                "On the whole the sheet is ",
                mm(*by),
                if *thicker {
                    " thicker than wanted: the same dough gives fewer pieces."
                } else {
                    " thinner than wanted: the same dough gives more, but frailer, pieces."
                },
            ],
            Self::CountedBack => "Counted back from the wanted time: each step as late as the step after it, hands, cold places, trays and ovens allow, in the best order that was found.".into(),
            Self::DoneWhen { means } => match means {
                ReadyMeans::Out => "Ready is when the last tray is out of the oven; it cools after that.",
                ReadyMeans::Cool => "Ready is when the last piece has cooled enough to be packed, iced or filled.",
                ReadyMeans::TouchDry => "Ready is when the last piece is finished and what is on it is dry to the touch: to be served, not stacked.",
                ReadyMeans::Finished => "Ready is when the last piece is finished and what is on it is dry through.",
                ReadyMeans::Packed => "Ready is when the last piece is packed.",
            }
            .into(),
            Self::SlowAndLongEnds => {
                "Chills count at the slow end of their range, bakes at the long end.".into()
            }
            Self::TraysGoRound { trays, times } => said![*trays, " trays go round ", *times, " times."],
            Self::ClocksChange { from, to } => said![
                format!("The clocks go from {} to {} on {}", from.format("%-H:%M"), to.format("%-H:%M"), from.format("%-d %B")),
                // Real minutes are counted back from the wanted time: an hour that was left out is missing on the wall, too.
                ": all spans are real minutes, so what comes before starts an hour ",
                if to > from { "earlier" } else { "later" },
                " by the wall than it would on another day.",
            ],
            Self::AsLateAsTheNextAllows => {
                "Every step is put as late as the next one, hands, cold places, trays and ovens allow, in the best order that was found.".into()
            }
            Self::KitchenLacks { short, lot } => day_forbidden(short, |_| lot.clone().unwrap_or_else(|| "This day".to_owned()))
                .then(". The day is shown as it would be with that."),
            Self::WithTheDate { jobs } => said!["Planned together with ", listed(jobs), ", wanted on the same day."],
            Self::HeatsSettle => "Between two heats the oven is given ten minutes to settle: put batches of one heat next to each other.".into(),
            Self::MayShareATray { lots, bake, within } => said![
                listed(lots),
                " are of one dough and take ",
                tenths(*bake),
                " in one heat, within ",
                percent(*within, 0),
                " of each other: they may share a tray.",
            ],
            Self::LastTraysTogether { lots } => {
                said!["The last trays of ", listed(lots), " are so little filled that they go on one."]
            }
            Self::LainTooLong { place, lain, keeps } => said![
                "It has lain ",
                kept(*place, *lain, None),
                " in the ",
                place.name(),
                "; this dough keeps ",
                kept(*place, keeps.0, Some(keeps.1)),
                " there. Your local food code decides.",
            ],
        }
    }
}

/// What lies beyond what the forecast knows: `across: 210 mm is outside 15 to 200 mm`.
fn beyond(why: &InputErrors) -> Sentence {
    let mut said = Sentence::default();
    for (i, fault) in why.all().iter().enumerate() {
        let (name, unit) = fault.field().rsplit_once('_').unwrap_or((fault.field(), ""));
        let name = if ["mm", "c", "g", "min", "m", "percent"].contains(&unit) { name } else { fault.field() };
        said.push(if i > 0 { "; " } else { "" });
        said.push(name.replace('_', " "));
        said.push(": ");
        said.push(fault.problem().say());
    }
    said
}

/// What to turn or swap half way; nothing in an oven that is even, or that nobody has tried.
#[must_use]
pub fn turn(reasons: &[Reason]) -> Option<Sentence> {
    let mut all = reasons.iter().map(Say::say);
    let first = all.next()?;
    Some(all.fold(first, |said, next| said.then(" ").then(next)))
}

/// What a form in which dough is chilled is called.
#[must_use]
pub fn way_name(way: &Way) -> Sentence {
    match (way.kind, way.piece) {
        (WayKind::Disc, Piece::Disc { thickness, .. }) => said!["Disc, ", mm(thickness)],
        (WayKind::Sheets, Piece::Sheet { thickness }) => said!["Sheets, ", mm(thickness)],
        (WayKind::Stack, Piece::Stack { thickness, count }) => said![count, " sheets of ", mm(thickness), ", stacked"],
        (WayKind::Log, Piece::Log { diameter }) => said!["Log, ", mm(diameter)],
        (WayKind::Bar, Piece::Bar { width, height }) => said!["Bar, ", sides(width, height)],
        (WayKind::Ball, _) => "Lump, as it left the bowl".into(),
        (WayKind::Portions, _) => "Portions as they are".into(),
        (WayKind::Disc | WayKind::Sheets | WayKind::Stack | WayKind::Log | WayKind::Bar, _) => "As it is".into(),
    }
}

/// What hands do for it.
#[must_use]
pub const fn way_effort(kind: WayKind) -> &'static str {
    match kind {
        WayKind::Ball => "wrap it; roll it out of the cold",
        WayKind::Disc => "press flat and wrap; roll it out of the cold",
        WayKind::Sheets => "roll between papers while soft; cut straight away",
        WayKind::Stack => "roll between papers, lay on each other: one shelf",
        WayKind::Log => "form, wrap, turn now and then; slice",
        WayKind::Bar => "form in a frame, wrap; slice",
        WayKind::Portions => "shape while soft, lay on a tray",
    }
}

/// What a lever does to a bake.
#[must_use]
pub fn notch(notch: Notch) -> Sentence {
    match notch {
        Notch::Colder(by, takes) => said![
            "pieces ",
            apart(by, 0),
            " colder",
            takes.map(|(span, place)| said![": ", minutes(span.whole_up(), 0), " more in the ", place.name()]),
        ],
        Notch::Warmer(by) => said!["pieces ", apart(by, 0), " warmer"],
        Notch::OnTheCounter(span) => said![minutes(span, 0), " on the counter"],
        Notch::Hotter(by) => said!["oven ", apart(by, 0), " hotter"],
        Notch::Cooler(by) => said!["oven ", apart(by, 0), " cooler"],
        Notch::Fan(true) => "with the fan".into(),
        Notch::Fan(false) => "without the fan".into(),
        Notch::Tray(tray) => tray.name().into(),
        Notch::Liner(liner) => liner.name().into(),
        Notch::WarmTray(at) => said!["a warm tray of ", degrees(at, 0)],
        Notch::Altitude(metres) => said!["at ", number(metres, 0), " m above the sea"],
        Notch::AtTheSea => "at the sea".into(),
        Notch::HalfAsFull => "trays half as full".into(),
        Notch::Thinner(by) => said![mm(by), " thinner"],
        Notch::Thicker(by) => said![mm(by), " thicker"],
        Notch::Smaller => "a quarter smaller".into(),
        Notch::Larger => "a quarter larger".into(),
        Notch::MoreFlour => "a tenth more flour".into(),
        Notch::LessFlour => "a tenth less flour".into(),
        Notch::MoreSugar => "a fifth more sugar".into(),
        Notch::LessSugar => "a fifth less sugar".into(),
        Notch::MoreButter => "a fifth more butter".into(),
        Notch::HalfPowdered => "half the sugar powdered".into(),
        Notch::HalfBrown => "half the sugar brown".into(),
        Notch::SomeStarch => "a tenth of the flour as starch".into(),
        Notch::BakingPowder => "baking powder, 1 % of the flour".into(),
        Notch::Soda => "soda, half a per cent of the flour".into(),
        Notch::JustCreamed => "creamed only just".into(),
        Notch::CreamedLight => "creamed light and fluffy".into(),
    }
}
