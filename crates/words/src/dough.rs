//! What is said of doughs: what they are, what to mind, how they are mixed and changed.

use crate::figure::{apart, degrees, degrees_between, grams, number, percent, percent_between};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::dough::{
    BalancePart, BowlCaution, Difference, FatKind, Handling, KnownFor, MixStep, MixWork, Part, Reason, SaidBy, School,
    SiftWhy, SpreadCause, Standing,
};
use ready_slab_core::units::{Share, TemperatureDifference};

/// How the dough is right, whichever way it was mixed.
pub const RIGHT_DOUGH: &str = "It clears the side of the bowl and gathers round the paddle. Squeezed in the fist it holds and nothing crumbles off; a finger leaves a dent without sticking.";

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
        KnownFor::Shape => "holds its shape and its detail",
        KnownFor::SweetAndCrisp => "sweet and crisp",
        KnownFor::SoftAndRich => "soft, piped or pressed",
        KnownFor::SweetAndRich => "sweet and rich",
        KnownFor::ShortAndTender => "short and tender",
        KnownFor::CleanSlices => "slices cleanly from a cold log",
        KnownFor::Figures => "firm and long keeping",
    }
}

/// What comes of a basic dough, to choose by.
#[must_use]
pub const fn gives(known: KnownFor) -> &'static str {
    match known {
        KnownFor::Shape => "Keeps its edges; good for icing.",
        KnownFor::SweetAndCrisp => "Thin and crisp, browns well.",
        KnownFor::SoftAndRich => "Soft, rolled to balls.",
        KnownFor::SweetAndRich => "Chewy, spreads wide.",
        KnownFor::ShortAndTender => "Crumbly, cut thick.",
        KnownFor::CleanSlices => "Sliced cold from a log.",
        KnownFor::Figures => "Firm; keeps for weeks.",
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
        FatKind::Butter => "its own flavour, firm only over a few degrees",
        FatKind::Shortening => "workable over many degrees, no flavour of its own",
        FatKind::Margarine => "softer than butter from the fridge, workable for longer",
        FatKind::Lard => "short and flaky, a flavour of its own",
        FatKind::Coconut => "hard as board when cold, and gone soft all at once near 24 degrees",
        FatKind::Liquid => "never firm, so that it cannot be rolled in the cold",
    }
}

const fn handles(handling: Handling) -> &'static str {
    match handling {
        Handling::Firm => "it holds any edge, and cracks at the edge when it is cold or dry",
        Handling::Right => "it rolls clean in its window and holds a cut edge",
        Handling::Soft => "it can be rolled between papers and cut when it is well chilled; as a log it is easier",
        Handling::Pipeable => "so soft that it is rather piped, scooped or pressed than rolled",
    }
}

fn among_schools(nearest: &School, own: Standing, more_flour: Share, to_the_letter: bool) -> Sentence {
    let name = school_name(nearest);
    if to_the_letter {
        return said![name, " to the letter: ", known_for(nearest.known_for), "."];
    }
    let firmer = match more_flour.value() {
        d if d > 0.03 => said![" It has ", percent(more_flour, 0), " more flour to butter and sugar."],
        d if d < -0.03 => said![" It has ", percent(size_of(more_flour), 0), " less flour to butter and sugar."],
        _ => Sentence::default(),
    };
    said![standing(own), ". Nearest classic: ", name, ", ", known_for(nearest.known_for), ".", firmer].capital()
}

fn spread_cause(cause: SpreadCause) -> Sentence {
    match cause {
        SpreadCause::PowderedSugar(s) => {
            said![percent(s, 0), " of the sugar is powdered, which dissolves at once and stiffens"]
        }
        SpreadCause::Starch(s) => said![percent(s, 0), " of the flour is starch, which binds more water"],
        SpreadCause::Wet(s) => said!["Water is ", percent(s, 0), " of the dough, wetter than usual"],
        SpreadCause::Dry(s) => said!["Water is ", percent(s, 0), " of the dough, drier than usual"],
        SpreadCause::Powder(s) => said!["Baking powder, ", percent(s, 1), " of the flour, opens it up"],
        SpreadCause::Soda(s) => said!["Baking soda, ", percent(s, 1), " of the flour, loosens it"],
    }
}

/// `whole egg` beside a count of whole ones.
fn shell(egg: &str) -> &str {
    egg.strip_prefix("whole ").unwrap_or(egg)
}

fn whole(count: u32) -> String {
    format!("{count} whole")
}

fn part_name(part: Part) -> &'static str {
    match part {
        Part::Fats => "butter and other fats",
        Part::Wet => "eggs and liquids",
        Part::Dry => "flour, sugar and all else",
    }
}

fn too_much(by: TemperatureDifference) -> &'static str {
    if by.k() > 0.0 {
        "too warm: chill it longer before it is rolled"
    } else {
        "too cold: let it stand before it is rolled"
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match self {
            Self::BalanceSpreads { flour_to_rest, range } => said![
                format!("Flour is {flour_to_rest:.2} of butter and sugar together; by common practice doughs of that balance spread "),
                percent_between(range.0, range.1, 0),
                ".",
            ],
            Self::SpreadChanged { cause, by } => {
                said![spread_cause(*cause), ": ", percent(size_of(*by), 0), " ", more_or_less(by.value()), " of that."]
            }
            Self::Packed { handling, packing } => said![
                "Flour and the other solids fill ",
                percent(*packing, 0),
                " of the room between the fat: ",
                handles(*handling),
                ".",
            ],
            Self::WaterToFlour { water } => said![
                "Eggs, butter and liquids bring water of ",
                percent(*water, 0),
                " of the flour.",
            ],
            Self::FatStaysLiquid { share } => said![
                percent(*share, 0),
                " of its fat stays liquid in the fridge: it never gets as firm as a butter dough.",
            ],
            Self::FatToFlour { fat } => {
                said!["Fat of ", percent(*fat, 0), " of the flour coats it and keeps it short."]
            }
            Self::Toughens { protein } => {
                said!["The flour has ", percent(*protein, 1), " of the protein that toughens when it is worked."]
            }
            Self::CrispBySugar { sugar } => said!["Sugar is ", percent(*sugar, 0), " of the flour: crisp as it cools."],
            Self::Eats { texture } => said!["On the whole ", texture.name(), " once it has cooled."],
            Self::Sugars { share } => said!["Sugars are ", percent(*share, 0), " of the dough."],
            Self::LateWithoutEgg => "Without egg it browns late.".into(),
            Self::BrownsEarly { share, pace } => said![
                percent(*share, 1),
                " of the dough are sugars that brown early (honey, syrup, malt, milk): ",
                number(*pace, 1),
                " times the pace.",
            ],
            Self::SodaBrowns => "Soda makes it brown sooner.".into(),
            Self::CocoaHides => "Cocoa hides the colour: judge it by time and touch.".into(),
            Self::FatBringsSalt { fat, added } => {
                said![fat, " brings its own salt, and ", grams(*added), " is added: leave the added salt out."]
            }
            Self::Salty { salt, from } => {
                said!["Salt is ", percent(*salt, 1), " of the flour; over ", percent(*from, 1), " it tastes of salt."]
            }
            Self::LittleStrength { protein } => said![
                "The flour has little strength (",
                percent(*protein, 1),
                " of binding protein): it tears as it is rolled; roll it thicker, between papers, with an egg to bind it.",
            ],
            Self::LiquidColour => "Liquid colour softens the dough and stays faint: use paste.".into(),
            Self::MuchPowder { powder, from } => said![
                "Baking powder is ",
                percent(*powder, 1),
                " of the flour; over ",
                percent(*from, 0),
                " edges dome and blur.",
            ],
            Self::MuchSoda { soda, from } => said![
                "Baking soda is ",
                percent(*soda, 1),
                " of the flour; over ",
                percent(*from, 1),
                " it tastes of soap and browns fast.",
            ],
            Self::MoreSugarThanFlour { sugar, flour } => said![
                "There is more sugar than flour (",
                grams(*sugar),
                " against ",
                grams(*flour),
                "): it runs in the oven and will not hold a cut edge.",
            ],
            Self::AmongSchools { nearest, standing, more_flour, to_the_letter } => {
                among_schools(nearest, *standing, *more_flour, *to_the_letter)
            }
            Self::Keeps { egg, fresh, nuts } => {
                let because = match (egg, fresh, nuts) {
                    (true, _, true) => "it holds raw egg, and the oil of its nuts or seeds goes stale",
                    (true, _, false) => "it holds raw egg",
                    (false, true, true) => {
                        "it holds fresh liquid or fruit, and the oil of its nuts or seeds goes stale"
                    }
                    (false, true, false) => "it holds fresh liquid or fruit",
                    (false, false, true) => {
                        "it holds no egg; the oil of its nuts or seeds goes stale in the freezer"
                    }
                    (false, false, false) => "it holds no egg and little that spoils",
                };
                said!["Well wrapped and dated: ", because, ". Common practice; your local code decides."]
            }
            Self::WouldLeaveTheBowl { butter, rest, dough, wanted } => said![
                "Butter at ",
                degrees(*butter, 0),
                " and the rest at ",
                degrees(*rest, 0),
                " would leave the bowl at ",
                degrees(*dough, 1),
                "; the method wants ",
                degrees_between(wanted.0, wanted.1),
                ".",
            ],
            Self::PartGoesIn { part, colder, at } => said![
                "So ",
                part_name(*part),
                if *colder { " go in colder, at " } else { " go in warmer, at " },
                degrees(*at, 0),
                ".",
            ],
            Self::StillOff { by } => said!["Even so it leaves the bowl ", apart(*by, 1), " ", too_much(*by), "."],
            Self::EqualMixes { by_bowl, limit, count } => said![
                if *by_bowl { "A stiff dough may fill half the bowl, which is " } else { "The mixer takes " },
                grams(*limit),
                ", so it is ",
                *count,
                " equal mixes.",
            ],
            Self::MuchForOneBowl { times } => said![
                "One bowl holds ",
                number(*times, 1),
                " times the written recipe. Doubling goes well where tripling may not: scrape more often, and expect it to take longer.",
            ],
            Self::MoreForWholeEggs { more, egg, count, class } => said![
                grams(*more),
                " more dough a mix, so that the ",
                shell(egg),
                " comes out at ",
                whole(*count),
                " (",
                class.name(),
                ").",
            ],
            Self::LessThanHalfAnEgg { egg, mass } => {
                said![grams(*mass), " of ", shell(egg), " is less than half of one: beat one and weigh it."]
            }
            Self::EggsTaken { egg, count, class, mass, instead_of } => said![
                "The ",
                shell(egg),
                " is taken as ",
                whole(*count),
                " (",
                class.name(),
                ", ",
                grams(*mass),
                " instead of ",
                grams(*instead_of),
                "); butter and flour change with it, so that water, fat and firmness stay.",
            ],
            Self::TooLittleForTheScale { mass, step, spoons } => said![
                grams(*mass),
                " is less than the scale reads (",
                grams(*step),
                ")",
                spoons.map(|s| said![": take ", s.say()]),
            ],
            Self::LeaveIt => "Leave it as it is.".into(),
            Self::HandfulHolds => {
                "A handful that holds, with nothing crumbling off or sticking, is right whatever the bowl looks like.".into()
            }
            Self::AddNothingChill => {
                "Add nothing. Press it flat, wrap it, and let the cold do it; then feel again.".into()
            }
            Self::WarmFat => "Warm fat is soft fat: it feels like too little flour and is not. Flour added now makes it tough when it is cold.".into(),
            Self::WarmerThanWanted { dough, at_most } => said![
                "It is ",
                degrees(*dough, 1),
                "; this way of mixing wants at most ",
                degrees(*at_most, 0),
                ".",
            ],
            Self::NoMoreFlour => {
                "Add no more flour. Chill it for twenty minutes and roll it between papers.".into()
            }
            Self::FlourWentIn { mass, at_most } => said![
                grams(*mass),
                " have gone in already; more than ",
                percent(*at_most, 0),
                " of the flour makes another recipe.",
            ],
            Self::AddFlour { mass } => said!["Add ", grams(*mass), " of flour, mix ten seconds, and squeeze again."],
            Self::FlourAtATime { share, flour } => said![
                percent(*share, 0),
                " of the ",
                grams(*flour),
                " of flour in this mix, never more at a time.",
            ],
            Self::StopAt { mass, share } => {
                said!["Stop at ", grams(*mass), " in all, ", percent(*share, 0), " of the flour."]
            }
            Self::NoMoreLiquid => {
                "Add no more liquid. Cover it and let it rest half an hour; the flour drinks slowly.".into()
            }
            Self::LiquidWentIn { mass, spoons } => {
                said![grams(*mass), " have gone in already, ", number(*spoons, 0), " spoons' worth."]
            }
            Self::AddLiquid { mass, with } => said![
                "Add ",
                grams(*mass),
                " of ",
                if *with == "egg" { "beaten egg" } else { *with },
                ", drop by drop, and squeeze again.",
            ],
            Self::SpoonToDough { spoon, dough } => said![
                "A spoon (",
                grams(*spoon),
                ") to ",
                grams(*dough),
                " of dough when it crumbles, half of that when it only cracks.",
            ],
            Self::UsualCauseOfDry => "Scooped flour or a small egg is the usual cause.".into(),
            Self::Becomes { share, from, to } => {
                said![percent(*share, 0), " of the ", from, " becomes ", to, "."]
            }
            Self::FatWaterSaltStay => "Fat, water and salt stay as they were.".into(),
            Self::FatWaterStayLessSalt => {
                "Fat and water stay. It brings more salt than was in the dough: leave the added salt out.".into()
            }
            Self::FatStaysFlourDrinks => "Fat stays; the flour takes up the water it brings.".into(),
            Self::SameSugars => {
                "The same sugars; flour makes up for the water or starch that comes with them.".into()
            }
            Self::WaterFatStay => "Water and fat stay as they were; butter makes up the difference.".into(),
            Self::BindsAsMuch => {
                "It binds as much as what it stands in for, and the fat it brings is taken from the butter.".into()
            }
            Self::GramForGram { from, to } => said![to, " for ", from, ", gram for gram."],
            Self::EggInstead { mass, before } => said![grams(*mass), " of egg instead of ", grams(*before), "."],
            Self::ButterGivesWay => "Butter gives way to the fat of the egg; flour follows its water.".into(),
            Self::FatChanged { by } => said![
                percent(size_of(*by), 0),
                " ",
                more_or_less(by.value()),
                " fat; nothing else changes, so the dough does.",
            ],
            Self::AirAt { metres, kpa, boils } => said![
                format!("At {} m the air is {} kPa and water boils at ", number(*metres, 0), number(*kpa, 1)),
                degrees(*boils, 1),
                ".",
            ],
            Self::TooLowToChange { metres } => said!["Below ", number(*metres, 0), " m nothing is changed."],
            Self::HighUp => "Less leavener, since gas swells more; a little less sugar; liquid and flour for the water that dries off sooner.".into(),
            Self::FlourHolds { humidity, more_water } => said![
                "In air of ",
                percent(*humidity, 0),
                " flour holds ",
                percent(size_of(*more_water), 1),
                " ",
                more_or_less(more_water.value()),
                " water than food tables say.",
            ],
            Self::DampFlourWeighed => {
                "So much more or less of it is weighed, that dry flour and firmness stay.".into()
            }
            Self::AsTheBowlAsked => "What the bowl asked for in the mixes before is weighed from the start.".into(),
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
                BalancePart::Sugar => ("sugar", "sweeter, crisper, wider", "less sweet, less wide"),
                BalancePart::DrySolids => {
                    ("of flour and other dry solids", "holds its edges", "gives its edges sooner")
                }
            };
            let means = if by.value() > 0.0 { more } else { less };
            let word = more_or_less(by.value());
            said![
                "It has ",
                word,
                " ",
                name,
                " than ",
                neighbour,
                ", by ",
                percent(size_of(by), 1),
                " of its weight: ",
                means,
                "."
            ]
        }
        Difference::MainFat(own, other) => said![
            "Its fat is mostly ",
            own.name(),
            " here, ",
            other.name(),
            " there: ",
            fat_means(own),
            ". The Cold station shows between which temperatures it rolls.",
        ],
        Difference::Cocoa(by) if by.value() > 0.0 => said![
            "It has more cocoa than ",
            neighbour,
            ", by ",
            percent(size_of(by), 1),
            " of its weight: darker, bitterer, and colour no longer tells when it is done.",
        ],
        Difference::Cocoa(by) => said![
            "It has less cocoa than ",
            neighbour,
            ", by ",
            percent(size_of(by), 1),
            " of its weight: paler, and colour tells more of when it is done.",
        ],
        Difference::Strength(own, other) => {
            let (word, means) = if own > other {
                ("stronger, ", "it holds together better and toughens sooner")
            } else {
                ("weaker, ", "shorter, and it tears sooner as it is rolled")
            };
            let own = number(100.0 * own.value(), 1);
            said!["Its flour is ", word, own, " against ", percent(other, 1), " of binding protein: ", means, "."]
        }
        Difference::Handling(own, other) => said!["In the hand: ", own.name(), " here, ", other.name(), " there."],
        Difference::Browning(own, other) => said!["Colour: ", own.name(), " here, ", other.name(), " there."],
        Difference::Bite(own, other) => said!["Bite: ", own.name(), " here, ", other.name(), " there."],
        Difference::None => said!["As good as the same dough as ", neighbour, "."],
    }
}

/// What a step at the bowl is called, what is done, and when to stop.
#[must_use]
pub fn mix_step(step: &MixStep) -> (&'static str, Sentence, &'static str) {
    match step.work {
        MixWork::WeighDry => (
            "Weigh, then sift or whisk the dry",
            "Flour, salt and all that goes with them into one bowl; whisk until it is one colour.".into(),
            "No lump is left between the fingers.",
        ),
        MixWork::Cream { light, fats } => (
            if light { "Cream until light" } else { "Cream just to combined" },
            said![
                "Butter at ",
                degrees(fats, 0),
                ", paddle, ",
                if light { "medium speed." } else { "slow: air is what you do not want." },
            ],
            if light {
                "Paler, fluffy, and it no longer slides as one lump."
            } else {
                "No dry sugar is seen, and it has not turned paler."
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
            "Crumbs the size of peas or finer, still cold and dry.",
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
            if egg { "Egg and flavouring" } else { "Liquid and flavouring" },
            said![
                if egg { "Whisk the egg with the flavouring, at " } else { "Stir together, at " },
                degrees(at, 0),
                if over_crumbs { "; trickle it over the crumbs." } else { "; add it in two or three goes." },
            ],
            if over_crumbs {
                "The crumbs begin to gather."
            } else {
                "It is smooth again; a little curdled does no harm."
            },
        ),
        MixWork::Gather => (
            "Gather",
            "Press together with the hand or a few more pulses; do not knead.".into(),
            "It is one lump and no dry flour is left.",
        ),
        MixWork::Flour => (
            "Flour, slowly",
            "In two to four parts at the slowest speed, the guard on: flour dust harms the lungs. Scrape bowl and bottom once in between.".into(),
            "It is uniform, no dry flour left: mixing on toughens it.",
        ),
        MixWork::KeptAside => (
            "The flour kept aside, by feel",
            "A spoon at a time, only as much as it asks for. Note what was left over.".into(),
            RIGHT_DOUGH,
        ),
        MixWork::Pieces { nuts, fruit } => (
            "Pieces last",
            said![
                "Fold in last, at the slowest speed or by hand.",
                if nuts { " Toasted nuts must be cold before they are chopped and go in." } else { "" },
                if fruit { " Toss sticky fruit in a spoon of the flour first." } else { "" },
            ],
            "They lie evenly; nothing is crushed.",
        ),
        MixWork::Tint => (
            "Divide and tint",
            "Paste colour, not liquid; begin with little and knead it in. It is easier to add than to take away, and it deepens as it rests.".into(),
            "One even shade, no streak.",
        ),
        MixWork::Check => (
            "Is it right?",
            "Squeeze a handful before you stop the mixer for good.".into(),
            RIGHT_DOUGH,
        ),
    }
}

/// What is taken in a step without a name of its own.
pub const FLOUR_KEPT_ASIDE: &str = "Flour kept aside";

/// Why something is sifted or whisked.
#[must_use]
pub const fn sift_why(why: SiftWhy) -> &'static str {
    match why {
        SiftWhy::PowderedSugar => "powdered sugar cakes into lumps",
        SiftWhy::Cocoa => "cocoa cakes into lumps",
        SiftWhy::Starch => "starch clumps: whisk it into the flour",
        SiftWhy::DrawsDamp => "it draws damp and clumps",
        SiftWhy::Ground => "ground nuts and seeds stick together",
        SiftWhy::Leavener => "so that it is even in the flour",
    }
}

/// What to mind at the bowl.
#[must_use]
pub const fn bowl_caution(caution: BowlCaution) -> &'static str {
    match caution {
        BowlCaution::NoTasting => "Raw flour and raw egg are not ready to eat: no tasting.",
        BowlCaution::StiffDough => {
            "A stiff dough strains a small mixer: when it labours, finish with the hook or by hand. Switch it off before a hand or a scraper goes in."
        }
    }
}
