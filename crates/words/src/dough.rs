//! What is said of doughs: what they are, what to mind, how they are mixed and changed.

use crate::figure::{altitude, apart, degrees, degrees_between, grams, number, percent, percent_between};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::dough::{
    BalancePart, BowlCaution, Difference, FatKind, Handling, KnownFor, MixStep, MixWork, Part, Reason, SaidBy, School,
    SiftWhy, SpreadCause, Standing,
};
use ready_slab_core::units::{Share, TemperatureDifference};

/// How the dough is right, whichever way it was mixed.
pub const RIGHT_DOUGH: &str = "It clears the sides of the bowl and gathers on the paddle. A squeezed handful holds and doesn’t crumble. A finger leaves a dent without sticking.";

fn more_or_less(by: f64) -> &'static str {
    if by < 0.0 { "less" } else { "more" }
}

fn size_of(share: Share) -> Share {
    Share::new(share.value().abs())
}

/// What a balance is known for.
#[must_use]
pub const fn known_for(known: KnownFor) -> &'static str {
    match known {
        KnownFor::Shape => "holds shape and detail",
        KnownFor::SweetAndCrisp => "sweet and crisp",
        KnownFor::SoftAndRich => "soft, piped or pressed",
        KnownFor::SweetAndRich => "sweet and rich",
        KnownFor::ShortAndTender => "short and tender",
        KnownFor::CleanSlices => "slices clean from a cold log",
        KnownFor::Figures => "firm, keeps for weeks",
    }
}

/// What comes of a basic dough, to choose by.
#[must_use]
pub const fn gives(known: KnownFor) -> &'static str {
    match known {
        KnownFor::Shape => "Holds its edges. Good for icing.",
        KnownFor::SweetAndCrisp => "Thin and crisp, browns well.",
        KnownFor::SoftAndRich => "Soft, rolled into balls.",
        KnownFor::SweetAndRich => "Chewy, spreads wide.",
        KnownFor::ShortAndTender => "Crumbly, cut thick.",
        KnownFor::CleanSlices => "Sliced cold from a log.",
        KnownFor::Figures => "Firm, keeps for weeks.",
    }
}

/// Where a balance stands among those that practitioners know.
#[must_use]
pub const fn standing(standing: Standing) -> &'static str {
    match standing {
        Standing::ShortAndTender => "short and tender: much more butter than sugar",
        Standing::Dry => "a dry dough: lots of flour",
        Standing::CutOut => "a firm cut-out: near 1 : 1 : 3 by cups",
        Standing::SoftCutOut => "a soft cut-out: sweeter or richer than 1 : 1 : 3 by cups",
        Standing::SweetAndCrisp => "sweet and crisp: near 1 : 2 : 3 by cups",
        Standing::SweetAndRich => "sweet and rich: little flour",
        Standing::Piped => "very soft: scoop or pipe it",
    }
}

/// A school's ratio as it is said, and by what.
#[must_use]
pub fn school_name(school: &School) -> String {
    let by = match school.said_by {
        SaidBy::Cups => "by cups",
        SaidBy::Weight => "by weight",
    };
    format!("{} {by}", school.name)
}

/// What a kind of fat is known for. Common practice, no source.
const fn fat_means(kind: FatKind) -> &'static str {
    match kind {
        FatKind::Butter => "butter flavor, a narrow working range",
        FatKind::Shortening => "a wide working range, no flavor of its own",
        FatKind::Margarine => "softer than butter from the fridge, workable longer",
        FatKind::Lard => "short and flaky, its own flavor",
        FatKind::Coconut => "rock hard when cold, then suddenly soft on a warm day",
        FatKind::Liquid => "never firm, so you can’t roll it cold",
    }
}

const fn handles(handling: Handling) -> &'static str {
    match handling {
        Handling::Firm => "Stiff dough. Holds any edge. Cracks if it\u{2019}s cold or dry.",
        Handling::Right => "Rolls clean and holds a cut edge.",
        Handling::Soft => "Soft dough: roll it between sheets of parchment, cut it well chilled. Easier as a log.",
        Handling::Pipeable => "Very soft: pipe, scoop or press it rather than roll.",
    }
}

fn among_schools(nearest: &School, own: Standing, more_flour: Share, to_the_letter: bool) -> Sentence {
    let name = school_name(nearest);
    if to_the_letter {
        return said!["Exactly ", name, ". ", gives(nearest.known_for)];
    }
    let firmer = match more_flour.value() {
        d if d > 0.03 => said![" Yours has ", percent(more_flour, 0), " more flour, so it\u{2019}s firmer."],
        d if d < -0.03 => said![" Yours has ", percent(size_of(more_flour), 0), " less flour, so it\u{2019}s softer."],
        _ => Sentence::default(),
    };
    said![standing(own), ". Closest basic dough: ", name, ". ", gives(nearest.known_for), firmer].capital()
}

fn spread_cause(cause: SpreadCause) -> Sentence {
    match cause {
        SpreadCause::PowderedSugar(s) => {
            said!["Powdered sugar (", percent(s, 0), " of the sugar)"]
        }
        SpreadCause::Starch(s) => said!["Starch (", percent(s, 0), " of the flour)"],
        SpreadCause::Wet(s) => said!["Wetter than usual (", percent(s, 0), " water)"],
        SpreadCause::Dry(s) => said!["Drier than usual (", percent(s, 0), " water)"],
        SpreadCause::Powder(s) => said!["Baking powder (", percent(s, 1), " of the flour)"],
        SpreadCause::Soda(s) => said!["Baking soda (", percent(s, 1), " of the flour)"],
    }
}

/// `whole egg` beside a count of whole ones.
fn shell(egg: &str) -> &str {
    egg.strip_prefix("whole ").unwrap_or(egg)
}

fn part_name(part: Part) -> &'static str {
    match part {
        Part::Fats => "butter and other fats",
        Part::Wet => "eggs and liquids",
        Part::Dry => "flour, sugar and the rest",
    }
}

fn too_much(by: TemperatureDifference) -> &'static str {
    if by.k() > 0.0 { "too warm: chill it longer before rolling" } else { "too cold: let it stand before rolling" }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match self {
            Self::BalanceSpreads { range, .. } => {
                said!["Usual spread for this balance: ", percent_between(range.0, range.1, 0), ".",]
            }
            Self::SpreadChanged { cause, by } => {
                said![spread_cause(*cause), ": ", percent(size_of(*by), 0), " ", more_or_less(by.value()), " spread."]
            }
            Self::Packed { handling, .. } => handles(*handling).into(),
            Self::WaterToFlour { water } => {
                said!["Water from eggs, butter and liquids: ", percent(*water, 0), " of the flour.",]
            }
            Self::FatStaysLiquid { share } => said![
                percent(*share, 0),
                " of its fat stays liquid in the fridge. It never firms up like butter dough.",
            ],
            Self::FatToFlour { fat } => {
                said!["Fat, ", percent(*fat, 0), " of the flour, coats it and keeps the cookie short."]
            }
            Self::Toughens { protein } => {
                said!["The flour has ", percent(*protein, 1), " gluten protein, which toughens when worked."]
            }
            Self::CrispBySugar { sugar } => said!["Sugar is ", percent(*sugar, 0), " of the flour: crisp once cool."],
            Self::Eats { texture } => said!["Mostly ", texture.name(), " once cool."],
            Self::Sugars { share } => said!["Sugars: ", percent(*share, 0), " of the dough."],
            Self::LateWithoutEgg => "No egg, so it browns late.".into(),
            Self::BrownsEarly { share, pace } => said![
                percent(*share, 1),
                " early-browning sugars (honey, syrup, malt, milk): it browns ",
                number(*pace, 1),
                " times as fast.",
            ],
            Self::SodaBrowns => "Baking soda makes it brown sooner.".into(),
            Self::CocoaHides => "Cocoa hides the color: go by time and touch.".into(),
            Self::FatBringsSalt { fat, added } => {
                said![fat, " brings its own salt. Leave out the added ", grams(*added), "."]
            }
            Self::Salty { salt, from } => {
                said!["Salt is ", percent(*salt, 1), " of the flour. Over ", percent(*from, 1), " it tastes salty."]
            }
            Self::LittleStrength { protein } => said![
                "Dough from weak flour (",
                percent(*protein, 1),
                " gluten protein) tears. Add an egg. Roll it thicker, between sheets of parchment.",
            ],
            Self::LiquidColour => "Liquid color softens the dough and stays faint. Use paste.".into(),
            Self::MuchPowder { powder, from } => said![
                "Baking powder is ",
                percent(*powder, 1),
                " of the flour. Over ",
                percent(*from, 0),
                ", edges dome and blur.",
            ],
            Self::MuchSoda { soda, from } => said![
                "Baking soda is ",
                percent(*soda, 1),
                " of the flour. Over ",
                percent(*from, 1),
                " it tastes soapy and browns fast.",
            ],
            Self::MoreSugarThanFlour { sugar, flour } => said![
                "More sugar (",
                grams(*sugar),
                ") than flour (",
                grams(*flour),
                "): it runs and won’t hold a cut edge.",
            ],
            Self::AmongSchools { nearest, standing, more_flour, to_the_letter } => {
                among_schools(nearest, *standing, *more_flour, *to_the_letter)
            }
            Self::Keeps { egg, fresh, nuts } => {
                let because = match (egg, fresh, nuts) {
                    (true, _, true) => "Contains raw egg; nut or seed oil goes stale.",
                    (true, _, false) => "Contains raw egg.",
                    (false, true, true) => "Contains fresh liquid or fruit; nut or seed oil goes stale.",
                    (false, true, false) => "Contains fresh liquid or fruit.",
                    (false, false, true) => "No egg; nut or seed oil goes stale in the freezer.",
                    (false, false, false) => "No egg, and little that spoils.",
                };
                said!["Wrap well and write the date on it. ", because]
            }
            Self::WouldLeaveTheBowl { butter, rest, dough, wanted } => said![
                "Butter at ",
                degrees(*butter, 0),
                ", the rest at ",
                degrees(*rest, 0),
                ": the dough comes out at ",
                degrees(*dough, 1),
                ". This method needs ",
                degrees_between(wanted.0, wanted.1),
                ".",
            ],
            Self::PartGoesIn { part, colder, at } => said![
                if *colder { "Use colder " } else { "Use warmer " },
                part_name(*part),
                ", at ",
                degrees(*at, 0),
                ".",
            ],
            Self::StillOff { by } => said!["Even so, the dough comes out ", apart(*by, 1), " ", too_much(*by), "."],
            Self::EqualMixes { by_bowl, limit, count } => said![
                if *by_bowl { "Stiff dough may fill half the bowl, " } else { "Your mixer takes " },
                grams(*limit),
                ". Mix ",
                *count,
                " equal batches.",
            ],
            Self::MuchForOneBowl { times } => said![
                number(*times, 1),
                " times the written recipe in one bowl. Doubling works; tripling may not. Scrape more often and allow more time.",
            ],
            Self::MoreForWholeEggs { more, egg, count, class } => said![
                grams(*more),
                " more dough per batch, so you use exactly ",
                *count,
                " ",
                shell(egg),
                if *count == 1 { " (" } else { "s (" },
                class.name(),
                ").",
            ],
            Self::LessThanHalfAnEgg { egg, mass } => {
                said![grams(*mass), " of ", shell(egg), " is less than half of one. Beat one and weigh it out."]
            }
            Self::EggsTaken { egg, count, class, mass, instead_of } => said![
                "Use ",
                *count,
                " ",
                shell(egg),
                if *count == 1 { " (" } else { "s (" },
                class.name(),
                "): ",
                grams(*mass),
                " instead of ",
                grams(*instead_of),
                ". Butter and flour adjust, so water, fat and firmness stay the same.",
            ],
            Self::TooLittleForTheScale { mass, step, spoons } => said![
                "Your scale can\u{2019}t weigh ",
                grams(*mass),
                " (it reads to ",
                grams(*step),
                ").",
                spoons.map(|s| said![" Use ", s.say(), "."]),
            ],
            Self::LeaveIt => "Leave it as is.".into(),
            Self::HandfulHolds => {
                "If a handful holds without crumbling or sticking, it’s right, whatever the bowl looks like.".into()
            }
            Self::AddNothingChill => "Add nothing. Press it flat, wrap it, chill it, then feel it again.".into(),
            Self::WarmFat => {
                "The fat is warm and soft; it’s not short of flour. Flour added now makes it tough once cold.".into()
            }
            Self::WarmerThanWanted { dough, at_most } => {
                said!["It’s ", degrees(*dough, 1), ". This mixing method needs ", degrees(*at_most, 0), " or below.",]
            }
            Self::NoMoreFlour => "Add no more flour. Chill it 20 min and roll it between sheets of parchment.".into(),
            Self::FlourWentIn { mass, at_most } => said![
                "You\u{2019}ve added ",
                grams(*mass),
                " already. Past ",
                percent(*at_most, 0),
                " of the flour, it\u{2019}s a different dough.",
            ],
            Self::AddFlour { mass } => said!["Add ", grams(*mass), " of flour, mix 10 seconds, and squeeze again."],
            Self::FlourAtATime { share, flour } => {
                said![percent(*share, 0), " of this batch’s ", grams(*flour), " of flour. Never more at once.",]
            }
            Self::StopAt { mass, share } => {
                said!["Stop at ", grams(*mass), " in all, ", percent(*share, 0), " of the flour."]
            }
            Self::NoMoreLiquid => "Add no more liquid. Cover it and rest it 30 min. Flour soaks it up slowly.".into(),
            Self::LiquidWentIn { mass, .. } => {
                said!["You\u{2019}ve added ", grams(*mass), " already. That\u{2019}s the limit for this dough."]
            }
            Self::AddLiquid { mass, with } => said![
                "Add ",
                grams(*mass),
                " of ",
                if *with == "egg" { "beaten egg" } else { *with },
                ", a few drops at a time. Squeeze again.",
            ],
            Self::SpoonToDough { spoon, dough } => said![
                "1 tablespoon (",
                grams(*spoon),
                ") per ",
                grams(*dough),
                " of dough if it crumbles. Half that if it only cracks.",
            ],
            Self::UsualCauseOfDry => "Usual cause: scooped flour or a small egg.".into(),
            Self::Becomes { share, from, to } => {
                said![percent(*share, 0), " of the ", from, " becomes ", to, "."]
            }
            Self::FatWaterSaltStay => "Fat, water and salt stay the same.".into(),
            Self::FatWaterStayLessSalt => {
                "Fat and water stay the same. It brings more salt than the dough had: leave the added salt out.".into()
            }
            Self::FatStaysFlourDrinks => "Fat stays the same. Flour adjusts for its water.".into(),
            Self::SameSugars => "Same sugars. Flour adjusts for the water or starch in them.".into(),
            Self::WaterFatStay => "Water and fat stay the same. Butter makes up the difference.".into(),
            Self::BindsAsMuch => "It binds as well as what it replaces. Its fat comes off the butter.".into(),
            Self::GramForGram { from, to } => said![to, " for ", from, ", same weight."],
            Self::EggInstead { mass, before } => said![grams(*mass), " of egg instead of ", grams(*before), "."],
            Self::ButterGivesWay => "Less butter for the egg’s fat. Flour adjusts for its water.".into(),
            Self::FatChanged { by } => said![
                percent(size_of(*by), 0),
                " ",
                more_or_less(by.value()),
                " fat. Nothing else changes, so expect a different dough.",
            ],
            Self::AirAt { metres, boils, .. } => {
                said!["At ", altitude(*metres), ", water boils at ", degrees(*boils, 1), ".",]
            }
            Self::TooLowToChange { metres } => said!["Nothing changes below ", altitude(*metres), "."],
            Self::HighUp => {
                "Less leavener: gas expands more. A little less sugar. More liquid and flour: it dries faster.".into()
            }
            Self::FlourHolds { humidity, more_water } => said![
                "At ",
                percent(*humidity, 0),
                " humidity, flour holds ",
                percent(size_of(*more_water), 1),
                " ",
                more_or_less(more_water.value()),
                " water than tables say.",
            ],
            Self::DampFlourWeighed => "Weights adjust so the dough stays as firm.".into(),
            Self::AsTheBowlAsked => "Includes what earlier batches needed.".into(),
        }
    }
}

/// How a dough differs from a neighbour of that name.
#[must_use]
pub fn difference(difference: &Difference, neighbour: &str) -> Sentence {
    match *difference {
        Difference::Part(part, by) => {
            let (name, more, less) = match part {
                BalancePart::Water => ("water", "softer in the hand", "stiffer in the hand"),
                BalancePart::Fat => ("fat", "shorter, and softer when warm", "firmer when warm"),
                BalancePart::Sugar => ("sugar", "sweeter, crisper, spreads more", "less sweet, spreads less"),
                BalancePart::DrySolids => ("flour and dry ingredients", "holds its edges", "edges soften sooner"),
            };
            let means = if by.value() > 0.0 { more } else { less };
            let word = more_or_less(by.value());
            said![percent(size_of(by), 1), " ", word, " ", name, " than ", neighbour, ": ", means, "."]
        }
        Difference::MainFat(own, other) => {
            said!["Mostly ", own.name(), " (", neighbour, ": ", other.name(), "): ", fat_means(own), ".",]
        }
        Difference::Cocoa(by) if by.value() > 0.0 => said![
            percent(size_of(by), 1),
            " more cocoa than ",
            neighbour,
            ": darker, more bitter. Don’t judge doneness by color.",
        ],
        Difference::Cocoa(by) => {
            said![percent(size_of(by), 1), " less cocoa than ", neighbour, ": paler, and color shows doneness better.",]
        }
        Difference::Strength(own, other) => {
            let (word, means) = if own > other {
                ("Stronger", "holds together better, toughens sooner")
            } else {
                ("Weaker", "shorter, tears sooner when rolled")
            };
            let own = number(100.0 * own.value(), 1);
            said![word, " flour (", own, "%, ", neighbour, " ", percent(other, 1), " gluten protein): ", means, "."]
        }
        Difference::Handling(own, other) => said!["Feel: ", own.name(), "; ", neighbour, ": ", other.name(), "."],
        Difference::Browning(own, other) => said!["Browning: ", own.name(), "; ", neighbour, ": ", other.name(), "."],
        Difference::Bite(own, other) => said!["Bite: ", own.name(), "; ", neighbour, ": ", other.name(), "."],
        Difference::None => said!["Nearly the same dough as ", neighbour, "."],
    }
}

/// What a step at the bowl is called, what is done, and when to stop.
#[must_use]
pub fn mix_step(step: &MixStep) -> (&'static str, Sentence, &'static str) {
    match step.work {
        MixWork::WeighDry => (
            "Weigh, then sift or whisk the dry ingredients",
            "Put the flour, salt and other dry ingredients in one bowl. Whisk to one color.".into(),
            "No lumps left between your fingers.",
        ),
        MixWork::Cream { light, fats } => (
            if light { "Cream until light" } else { "Cream just to combine" },
            said![
                "Butter at ",
                degrees(fats, 0),
                ", paddle, ",
                if light { "medium speed." } else { "slow. You don\u{2019}t want air in it." },
            ],
            if light {
                "Paler, fluffy, and no longer sliding as one lump."
            } else {
                "No dry sugar left, and no paler than before."
            },
        ),
        MixWork::RubIn { fats, dice } => (
            "Rub in",
            said![
                "Stir the sugar into the flour. Add butter in ",
                crate::figure::mm(dice),
                " cubes at ",
                degrees(fats, 0),
                ". Rub with cool fingertips.",
            ],
            "Pea-size crumbs or finer, still cold and dry.",
        ),
        MixWork::Pulse { fats, dice } => (
            "Pulse",
            said![
                "Flour and sugar into the food processor. Add butter in ",
                crate::figure::mm(dice),
                " cubes at ",
                degrees(fats, 0),
                ". Pulse 10 to 15 times, a second each.",
            ],
            "Crumbs like coarse meal, still cold. Any longer melts the butter.",
        ),
        MixWork::Toast { oven, cools } => (
            "Toast the nuts",
            said![
                "Spread them in one layer. Bake at ",
                crate::figure::setting(oven),
                " and stir once. Cool ",
                crate::figure::minutes(cools, 0),
                " before you chop them.",
            ],
            "They smell nutty and are a shade darker.",
        ),
        MixWork::Wet { egg, over_crumbs, at } => (
            if egg { "Egg and flavoring" } else { "Liquid and flavoring" },
            said![
                if egg { "Whisk the egg with the flavouring, at " } else { "Stir together, at " },
                degrees(at, 0),
                if over_crumbs { " Drizzle it over the crumbs." } else { " Add it in 2 or 3 parts." },
            ],
            if over_crumbs {
                "The crumbs start to clump."
            } else {
                "Smooth again. A little curdling is fine."
            },
        ),
        MixWork::Gather => (
            "Gather",
            "Press together by hand, or pulse a few more times. Don’t knead.".into(),
            "One lump, no dry flour left.",
        ),
        MixWork::Flour => (
            "Flour, slowly",
            "Add it in 2 to 4 parts at the lowest speed, guard on. Flour dust harms your lungs. Scrape the bowl and its bottom once in between.".into(),
            "Even, no dry flour left. More mixing toughens it.",
        ),
        MixWork::KeptAside => (
            "Held-back flour, by feel",
            "A spoonful at a time, only as much as it needs. Note what’s left.".into(),
            RIGHT_DOUGH,
        ),
        MixWork::Pieces { nuts, fruit } => (
            "Mix-ins last",
            said![
                "Fold in last, at the lowest speed or by hand.",
                if nuts { " Toasted nuts must be cold before you chop and add them." } else { "" },
                if fruit { " Toss sticky fruit with a little of the flour first." } else { "" },
            ],
            "Evenly mixed, nothing crushed.",
        ),
        MixWork::Tint => (
            "Divide and color",
            "Use paste color, not liquid. Start with a little and knead it in. You can add more later. It deepens as it rests.".into(),
            "One even shade, no streaks.",
        ),
        MixWork::Check => (
            "Is it right?",
            "Squeeze a handful before you turn the mixer off for good.".into(),
            RIGHT_DOUGH,
        ),
    }
}

/// What is taken in a step without a name of its own.
pub const FLOUR_KEPT_ASIDE: &str = "Held-back flour";

/// Why something is sifted or whisked.
#[must_use]
pub const fn sift_why(why: SiftWhy) -> &'static str {
    match why {
        SiftWhy::PowderedSugar => "powdered sugar cakes into lumps",
        SiftWhy::Cocoa => "cocoa cakes into lumps",
        SiftWhy::Starch => "starch clumps: whisk it into the flour",
        SiftWhy::DrawsDamp => "it draws moisture and clumps",
        SiftWhy::Ground => "ground nuts and seeds stick together",
        SiftWhy::Leavener => "so it’s even in the flour",
    }
}

/// What to mind at the bowl.
#[must_use]
pub const fn bowl_caution(caution: BowlCaution) -> &'static str {
    match caution {
        BowlCaution::NoTasting => "Don’t taste it: raw flour and raw egg can make you sick.",
        BowlCaution::StiffDough => {
            "Stiff dough strains a small mixer. When it labors, finish with the hook or by hand. Switch it off before a hand or scraper goes in."
        }
    }
}
