//! What is said of a plan: what its figures rest on, and what to mind.

use crate::day::day_forbidden;
use crate::figure::{
    altitude, apart, degrees, grams, grams_fine, minutes, minutes_between, mm, number, percent, percent_between, sides,
};
use crate::names::Name;
use crate::oven::within;
use crate::sentence::{Say, Sentence, listed, said};
use crate::shape;
use ready_slab_core::cold::{ColdPlace, Feeling, Piece, Target};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{
    DoughPart, Notch, Otherwise, PartUse, PotCaution, ReadyMeans, Reason, Setting, Thaw, Way, WayKind,
};
use ready_slab_core::oven::{DoneBy, Profile};
use ready_slab_core::units::{Share, Span};

fn counted(n: u32, word: &str) -> String {
    format!("{} {word}{}", number(f64::from(n), 0), if n == 1 { "" } else { "s" })
}

fn bakes(n: u32) -> String {
    if n == 1 { "1 bake".to_owned() } else { format!("{n} bakes") }
}

/// `20% more`, `6% less`, `as much`.
fn more_or_less(times: f64) -> Sentence {
    let by = percent(Share::new((times - 1.0).abs()), 0);
    if (times - 1.0).abs() < 0.005 {
        "as much".into()
    } else if times > 1.0 {
        said![by, " more"]
    } else {
        said![by, " less"]
    }
}

/// What a part of the dough is called.
#[must_use]
pub fn dough_part(part: &DoughPart) -> String {
    if part.part_use == PartUse::Freeze { "for the freezer".to_owned() } else { part.name.clone() }
}

impl Say for PotCaution {
    fn say(&self) -> Sentence {
        match self {
            Self::OnARack => "Set the tray on a rack or bed of salt, never on the pot’s bottom.",
            Self::ThickMetal => "Use a heavy metal pot, never glass or nonstick. Check that it’s safe to heat empty.",
            Self::LooseLid => "Rest the lid on loosely: no gasket, no weight, nothing sealed. Steam must get out.",
            Self::Attended => "Never leave it unattended. Keep anything that burns away from the flame. Air the room. Use dry oven gloves for lid and pot.",
            Self::Children => "Keep children away. It stays hot for an hour.",
        }
        .into()
    }
}

fn done_by(by: DoneBy) -> &'static str {
    match by {
        DoneBy::Rim => "the edge has its color",
        DoneBy::Dull => "the middle loses its shine. It comes last",
        DoneBy::Set => "the middle is set. It comes last",
        DoneBy::Time | DoneBy::Never => "the forecast ends, not done",
    }
}

fn tenths(range: (Span, Span)) -> crate::figure::Figure {
    minutes_between(range.0, range.1, 1)
}

fn turn_of(kind: Profile) -> &'static str {
    match kind {
        Profile::Domed => ", domed",
        Profile::Flat => ", flat",
        Profile::Sunken => ", a little sunken in the middle",
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
                    counted(*pieces, "cookie"),
                    " \u{d7} ",
                    grams_fine(*each),
                    " = ",
                    grams(*all),
                    ".",
                ]
            }
            Self::ScrapAdds { scrap, reserve } => said![
                "Plus ", grams(*scrap), " lost to scraps and sticking, and ", grams(*reserve), " spare dough.",
            ],
            Self::ForTheFreezer { dough, pieces } => said![
                "Plus ",
                grams(*dough),
                " for ",
                counted(*pieces, "cookie"),
                " to freeze as dough. Press it into a disc, wrap it well, write the date on it. Keeps 1 to 3 months in the freezer. Thaw overnight in the fridge.",
            ],
            Self::MixedForAnother { dough, job } => {
                said!["Plus ", grams(*dough), " for ", job, ", mixed together."]
            }
            Self::LeavesTheMixer { at, measured } => said![
                "Leaves the mixer at ",
                degrees(*at, 1),
                if *measured { " (your reading)." } else { " (forecast)." },
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
                "Rest it at least ", minutes(*at_least, 0), ": the flour takes up water evenly and cracks less.",
            ],
            Self::NotChilled { what: Setting::Dough, at, feels: Feeling::RollsClean } => {
                said!["No chill: at ", degrees(*at, 0), " it rolls clean."]
            }
            Self::NotChilled { what: Setting::Dough, at, feels } => said![
                "No chill: at ", degrees(*at, 0), " it’s ", feels.name(), ". Roll it between sheets of parchment and leave the cookies in place. They spread a little more: fine for lean doughs and plain rounds, not for detail.",
            ],
            Self::NotChilled { what: Setting::CutPiece, at, .. } => {
                said!["Cookies not chilled: they go in at ", degrees(*at, 0), " and spread a little more."]
            }
            Self::ThawsOnly { way: Thaw::Fridge, span } => said![
                "Move it from freezer to fridge the evening before, still wrapped. In the morning it needs ", minutes(*span, 0), " on the bench.",
            ],
            Self::ThawsOnly { way: Thaw::Bench, span } => said![
                "Thaw it on the bench for ", minutes(*span, 0), ", still wrapped. Moisture then settles on the wrap, not the dough.",
            ],
            Self::NeverTwice => {
                "Never thaw it in warm water: the edge melts while the middle is frozen. Don’t refreeze thawed dough.".into()
            }
            Self::BulkFirst { formed } => said![
                "Chill the lump first, shape logs at ", degrees(*formed, 0), ", then chill again. They hold their shape better than logs of soft dough.",
            ],
            Self::PiecesNotChilled { at } => said![
                "Cut cookies not chilled: they go in soft, at ", degrees(*at, 0), ". Move them on their parchment, not by hand. They spread a little more and lose fine edges.",
            ],
            Self::ChilledFor { what, span, at, feels, ready } => {
                let name = match what {
                    Setting::Dough => "You take it out after ",
                    Setting::CutPiece => "You take the cookies out after ",
                };
                let out =
                    said![name, minutes(*span, 0), ": ", degrees(*at, 0), " on average, ", feels.name(), "."];
                match ready {
                    Some(ready) if *ready > *span => {
                        out.then(said![" Forecast: ready after ", minutes(*ready, 0), "."])
                    }
                    _ => out,
                }
            }
            Self::ChilledOvernight { what: Setting::Dough } => {
                "Put it in the evening before. It spreads a little less and browns a little deeper. It comes out hard. Let it rest, or cut it into slices, which soften in about 10 min.".into()
            }
            Self::ChilledOvernight { what: Setting::CutPiece } => {
                "Cookies stay on their trays overnight. Cover them, or the edges dry out.".into()
            }
            Self::FlourNotRested { usually } => said![
                "Dough mixed this way usually rests ", minutes(*usually, 0), ". Rolled right away, it cracks more.",
            ],
            Self::StillSets { what, cold_enough, more } => said![
                match what {
                    Setting::Dough => "Cold enough after ",
                    Setting::CutPiece => "Cookies cold enough after ",
                },
                minutes(*cold_enough, 0),
                ". The butter keeps setting ",
                minutes(*more, 0),
                " more.",
            ],
            Self::RangeOfReadings { place } => {
                said!["More readings of this ", place.name(), " will narrow this range."]
            }
            Self::RangeOfTheFilm => {
                "Fridges differ in how fast they chill: that is the range.".into()
            }
            Self::RollInParts { bench, hands, back } => said![
                "A rolled sheet stays workable ",
                minutes(*bench, 0),
                "; you need ",
                minutes(*hands, 0),
                " a tray. Roll one tray\u{2019}s worth and keep the rest cold. If it goes soft, chill it again for ",
                minutes(*back, 0),
                ".",
            ],
            Self::RolledTo { mass, thickness, form } => {
                said![grams(*mass), " at ", mm(*thickness), " thick: ", shape::sheet(*form), "."]
            }
            Self::Logs { logs, mass, length, slices, slice, trim } => said![
                counted(*logs, "log"),
                ", ",
                grams(*mass),
                ", ",
                mm(*length),
                " long. ",
                counted(*slices, "slice"),
                ", ",
                mm(*slice),
                " thick. Trim ",
                mm(*trim),
                " off each end.",
            ],
            Self::Trays { trays, mass } => said![
                counted(*trays, "tray"),
                ", ",
                grams(*mass),
                if *trays == 1 { "." } else { " each." },
                " Spread it to the edges. Cut after baking.",
            ],
            Self::Portions { portions, mass } => said![counted(*portions, "portion"), ", ", grams_fine(*mass), " each."],
            Self::SmallestGap { gap } => said!["Smallest gap: ", mm(*gap), "."],
            Self::FromSecondReroll { pieces: 1 } => {
                "The last one comes from scraps rolled twice: tougher. Prick it, or keep it.".into()
            }
            Self::FromSecondReroll { pieces } => said![
                "The last ",
                *pieces,
                " come from scraps rolled twice: tougher. Prick them, or keep them.",
            ],
            Self::SheetKeptTo { sheet, tray } => said![
                "Your limit for a sheet: ", sides(sheet.0, sheet.1), ". The tray holds ", sides(tray.0, tray.1), ".",
            ],
            Self::NoRods { thickness } => {
                said!["No ", mm(*thickness), " rolling guides in your kitchen: roll by eye."]
            }
            Self::LayoutNotUsed { fault } => {
                said!["Your saved layout can’t be used: ", fault.say(), ". Find a new one."]
            }
            Self::SheetsNotUsed { fault } => said![
                "Your saved shared sheets can’t be used: ", fault.say(), ". Lay them out again.",
            ],
            Self::TrayNotUsed { fault, gap } => said![
                "Your saved tray can’t be used: ", fault.say(), ". Cookies now need ", mm(*gap), " between them. Lay it out again.",
            ],
            Self::GapOnTheTray { gap, by_growth } => said![
                mm(*gap),
                " between cookies on the tray",
                if *by_growth { ": room to spread." } else { ", your minimum gap. They need less." },
            ],
            Self::NotDoneWithin { span } => said![
                "Won’t reach that color in ", minutes(*span, 0), ": the oven is too cool. Usual ranges shown.",
            ],
            Self::BeyondTheForecast { why } => said![
                "Outside the forecast (", beyond(why), "). Usual ranges shown.",
            ],
            Self::WideBar { across } => said![
                "These bars are wider than the forecast covers. The time is for ", mm(*across), ". The middle takes longer.",
            ],
            Self::DoneAfter { span, by: DoneBy::Time | DoneBy::Never } => {
                said!["Not done after ", minutes(*span, 1), ", where the forecast ends."]
            }
            Self::DoneAfter { span, by } => said![minutes(*span, 1), " until ", done_by(*by), "."],
            Self::OvenTaught { bakes, off, sd, measured } => said![
                "From ",
                *bakes,
                if *bakes == 1 { " bake" } else { " bakes" },
                " of yours: the oven runs ",
                apart(*off, 0),
                if off.k() < 0.0 { " cool" } else { " hot" },
                if *measured { ", against its thermometer (" } else { " (" },
                within(*sd),
                ").",
            ],
            Self::OvenMeasured => "Range for an oven you checked with a thermometer.".into(),
            Self::OvenUnmeasured { doubt } => said![
                "The dial may be ",
                within(*doubt),
                " off. Put a thermometer in your oven and this range shrinks.",
            ],
            Self::HeatsTimes { times: heat } => {
                said!["Your bakes: this oven gives ", more_or_less(*heat), " heat than forecast."]
            }
            Self::DoughTaught { bakes: n, spread, time, browning } => said![
                "From ",
                bakes(*n),
                ", against the forecast alone: spreads ",
                more_or_less(*spread),
                ", takes ",
                more_or_less(*time),
                " time, browns ",
                more_or_less(*browning),
                ".",
            ],
            Self::ModelAndPractice { model, practice, told } => said![
                "About ",
                minutes(*told, 0),
                ". Forecast: ",
                minutes(*model, 0),
                ". Usual: ",
                minutes_between(practice.0, practice.1, 0),
                ". The surer one counts more. Your own bakes outweigh both.",
            ],
            Self::SpreadWidened { practice } => said![
                "Usual spread: ", percent_between(practice.0, practice.1, 1), ". The forecast differs, so the range is widened until you record bakes.",
            ],
            Self::ThermostatSwings { by } => {
                said!["The thermostat swings ", within(*by), ". Most of that evens out over a bake."]
            }
            Self::AirAt { metres, .. } => {
                said!["At ", altitude(*metres), ", water leaves sooner and gas expands more."]
            }
            Self::TrayCovered { share } => said![
                percent(*share, 0),
                " of the tray is covered. The fuller the tray, the slower the bake and the paler the bottoms.",
            ],
            Self::FlowsBetween { fat, set } => said![
                "It spreads from ",
                minutes(*fat, 1),
                " on and is set at ",
                minutes(*set, 1),
                ".",
            ],
            Self::ComesOut { cut, high, profile, .. } => {
                said![mm(*cut), " thick when cut, ", mm(*high), " baked", turn_of(*profile), "."]
            }
            Self::GrowsAtTheRim { by } => said![
                "Spread is for a round cookie. This one grows ",
                shape::growth(*by),
                " all around.",
            ],
            Self::SmallOven => {
                "Small oven: the elements are close. Keep the tray in the middle and parchment well away from them. Turn the tray halfway, look early, and bake one tray at a time. It swings more than the forecast assumes.".into()
            }
            Self::SwapShelves => "Swap the trays between racks halfway.".into(),
            Self::Pot(caution) => caution.say(),
            Self::PotIsNotForecast => "No forecast for a pot on a burner. Usual: about twice the oven time.".into(),
            Self::PotStaysPale => "Tops stay paler than in an oven. Go by set edges and the bottom. Bake one tray of a few cookies first.".into(),
            Self::PotTray { tray } => said![
                "No pot holds a ", sides(tray.0, tray.1), " tray. In Kitchen, set the tray size that fits its rack.",
            ],
            Self::PartAhead(part) => part.say(),
            Self::OneTimeWillDo { done } => said!["One timer is enough: done in ", tenths(*done), "."],
            Self::DoneApart { done, more_than } => said![
                "Done in ", tenths(*done), ", more than ", percent(*more_than, 0), " apart. Take the first ones off early.",
            ],
            Self::TurnedDone { done } => said!["Turned halfway: done in ", tenths(*done), "."],
            Self::SortByThickness { thin, of } => said![
                *thin, " of ", *of, " come from the thin part of the sheet. Bake those on their own tray, or roll once more over the rolling guides.",
            ],
            Self::ThinFirstOneTray { by } => said![
                "The thinnest cookies are done ", minutes(*by, 1), " before the thickest. One tray is fine.",
            ],
            Self::ThinFirstApart { by } => said![
                "The thinnest cookies are done ", minutes(*by, 1), " before the thickest. Give the thin ones their own tray, or roll again over the rolling guides.",
            ],
            Self::SheetOff { thicker, by } => said![
                "The sheet averages ",
                mm(*by),
                if *thicker {
                    " too thick. You\u{2019}ll get fewer cookies."
                } else {
                    " too thin. You\u{2019}ll get more cookies, but fragile ones."
                },
            ],
            Self::CountedBack => "We count back from the time it\u{2019}s due. Each step is as late as the next one allows.".into(),
            Self::DoneWhen { means } => match means {
                ReadyMeans::Out => "Ready means the last tray is out of the oven. Cooling comes after.",
                ReadyMeans::Cool => "Ready means the last cookie is cool enough to pack, ice or fill.",
                ReadyMeans::TouchDry => "Ready means finished and dry to the touch. Serve them, don’t stack them.",
                ReadyMeans::Finished => "Ready means finished and dry all through.",
                ReadyMeans::Packed => "Ready means the last cookie is packed.",
            }
            .into(),
            Self::SlowAndLongEnds => {
                "The plan allows for slow chills and long bakes.".into()
            }
            Self::TraysGoRound { trays, times } => said![*trays, " trays, each used up to ", *times, " times."],
            Self::ClocksChange { from, to } => said![
                format!("The clocks change on {}, {} to {}. ", from.format("%B %-d"), from.format("%-H:%M"), to.format("%-H:%M")),
                // Real minutes are counted back from the wanted time: an hour that was left out is missing on the wall, too.
                "Steps before that start an hour ",
                if to > from { "earlier" } else { "later" },
                " by the clock.",
            ],
            Self::AsLateAsTheNextAllows => {
                "Each step is as late as the next one allows, in the best order we found.".into()
            }
            Self::KitchenLacks { short, lot } => day_forbidden(short, |_| lot.clone().unwrap_or_else(|| "This day".to_owned()))
                .then(". Shown as if you had it."),
            Self::WithTheDate { jobs } => said!["Planned with ", listed(jobs), ", due the same day."],
            Self::HeatsSettle => "The oven gets 10 min to change temperature. Bake items at the same temperature back to back.".into(),
            Self::MayShareATray { lots, bake, within } => said![
                listed(lots),
                " can share a tray. Same dough, same temperature, ",
                tenths(*bake),
                ", within ",
                percent(*within, 0),
                " of each other.",
            ],
            Self::LastTraysTogether { lots } => {
                said!["The last trays of ", listed(lots), " are nearly empty: they go on one."]
            }
            Self::LainTooLong { place, lain, keeps } => said![
                kept(*place, *lain, None), " in the ", place.name(), ": longer than the ", kept(*place, keeps.0, Some(keeps.1)), " this dough keeps.",
            ],
        }
    }
}

/// What lies beyond what the forecast knows: `across 210 mm, forecast covers 15 to 200 mm`.
fn beyond(why: &InputErrors) -> Sentence {
    let mut said = Sentence::default();
    for (i, fault) in why.all().iter().enumerate() {
        let (name, unit) = fault.field().rsplit_once('_').unwrap_or((fault.field(), ""));
        let name = if ["mm", "c", "g", "min", "m", "percent"].contains(&unit) { name } else { fault.field() };
        said.push(if i > 0 { "; " } else { "" });
        said.push(name.replace('_', " "));
        said.push(" ");
        said.push(crate::fault::uncovered(fault.problem()));
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
        (WayKind::Stack, Piece::Stack { thickness, count }) => said![count, " sheets, ", mm(thickness), ", stacked"],
        (WayKind::Log, Piece::Log { diameter }) => said!["Log, ", mm(diameter)],
        (WayKind::Bar, Piece::Bar { width, height }) => said!["Square log, ", sides(width, height)],
        (WayKind::Ball, _) => "Lump, straight from the bowl".into(),
        (WayKind::Portions, _) => "Portions".into(),
        (WayKind::Disc | WayKind::Sheets | WayKind::Stack | WayKind::Log | WayKind::Bar, _) => "As is".into(),
    }
}

/// What hands do for it.
#[must_use]
pub const fn way_effort(kind: WayKind) -> &'static str {
    match kind {
        WayKind::Ball => "wrap; roll it cold",
        WayKind::Disc => "press flat, wrap; roll it cold",
        WayKind::Sheets => "roll between sheets of parchment while soft; cut cold",
        WayKind::Stack => "roll between sheets of parchment, stack: one shelf",
        WayKind::Log => "shape, wrap, turn now and then; slice",
        WayKind::Bar => "shape in a frame, wrap; slice",
        WayKind::Portions => "shape while soft, set on a tray",
    }
}

/// What a lever does to a bake.
#[must_use]
pub fn notch(notch: Notch) -> Sentence {
    match notch {
        Notch::Colder(by, takes) => said![
            "Cookies ",
            apart(by, 0),
            " colder",
            takes.map(|(span, place)| said![": +", minutes(span.whole_up(), 0), " in the ", place.name()]),
        ],
        Notch::Warmer(by) => said!["Cookies ", apart(by, 0), " warmer"],
        Notch::OnTheCounter(span) => said![minutes(span, 0), " on the bench first"],
        Notch::Hotter(by) => said!["Oven ", apart(by, 0), " hotter"],
        Notch::Cooler(by) => said!["Oven ", apart(by, 0), " cooler"],
        Notch::Fan(true) => "Fan on".into(),
        Notch::Fan(false) => "Fan off".into(),
        Notch::Tray(tray) => tray.name().into(),
        Notch::Liner(liner) => liner.name().into(),
        Notch::WarmTray(at) => said!["Warm tray, ", degrees(at, 0)],
        Notch::Altitude(metres) => said!["At ", altitude(metres)],
        Notch::AtTheSea => "At sea level".into(),
        Notch::HalfAsFull => "Trays half as full".into(),
        Notch::Thinner(by) => said![mm(by), " thinner"],
        Notch::Thicker(by) => said![mm(by), " thicker"],
        Notch::Smaller => "25% smaller".into(),
        Notch::Larger => "25% larger".into(),
        Notch::MoreFlour => "10% more flour".into(),
        Notch::LessFlour => "10% less flour".into(),
        Notch::MoreSugar => "20% more sugar".into(),
        Notch::LessSugar => "20% less sugar".into(),
        Notch::MoreButter => "20% more butter".into(),
        Notch::HalfPowdered => "Half powdered sugar".into(),
        Notch::HalfBrown => "Half brown sugar".into(),
        Notch::SomeStarch => "10% of the flour as cornstarch".into(),
        Notch::BakingPowder => "Baking powder, 1% of the flour".into(),
        Notch::Soda => "Baking soda, 0.5% of the flour".into(),
        Notch::JustCreamed => "Creamed just to combine".into(),
        Notch::CreamedLight => "Creamed light and fluffy".into(),
    }
}
