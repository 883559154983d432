//! What is said of finishes, of keeping what was baked, and of spirits.

use crate::figure::{grams, grams_fine, minutes, mm, number, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::dough::Texture;
use ready_slab_core::finish::{Coat, CoatStuff, CoatUse, FillingKind, GlazeWay, PiledBy, Reason, SugarCoat};
use ready_slab_core::units::{Area, Mass};

fn cm2(area: Area) -> String {
    format!("{} cm\u{b2}", number(area.mm2() / 100.0, 0))
}

fn mg(mass: Mass) -> String {
    format!("{} mg", number(1000.0 * mass.g(), 0))
}

const A_TENTH_MORE: &str = " Includes 10% extra for the bowl.";
const NOT_COMPLETELY: &str = " Alcohol doesn’t bake off completely.";

/// What a finish is called, and when it goes on.
#[must_use]
pub const fn coat(coat: Coat) -> (&'static str, &'static str) {
    const COLD_FILLING: &str = "When cold, shortly before serving. Filling softens them.";
    match coat {
        Coat::Sugar(SugarCoat::Coarse) => ("Coarse sugar", "Press it into the damp tops before baking."),
        Coat::Sugar(SugarCoat::CoarseAfter) => {
            ("Coarse sugar on icing", "Sprinkle it on while the icing or glaze is wet.")
        }
        Coat::Sugar(SugarCoat::Powdered) => {
            ("Powdered sugar, two coats", "Dust while warm enough to hold it, again when cold. The first melts in.")
        }
        Coat::Glaze { way: GlazeWay::Drizzled, .. } => {
            ("Drizzled sugar glaze", "When cool, close together on parchment. Use a spoon or a bag with a small hole.")
        }
        Coat::Glaze { way: GlazeWay::Dipped, .. } => {
            ("Dipped in sugar glaze", "When cool all through. Dip the tops, lift, turn over, drip on a rack.")
        }
        Coat::JamBaked { .. } => {
            ("Baked-in jam", "Fill the dents before baking. Or half then, the rest hot from the oven.")
        }
        Coat::Glaze { spirit, .. } => (
            if spirit { "Liquor glaze" } else { "Sugar glaze" },
            "When cool all through. On warm cookies it runs and stays dull.",
        ),
        Coat::Dip { .. } => ("Dipped in chocolate", "When cold. Warm cookies dull it."),
        Coat::Drizzle => ("Drizzled with chocolate", "When cold, close together on parchment."),
        Coat::Royal { fresh_white, .. } => (
            if fresh_white { "Royal icing, fresh egg white" } else { "Royal icing" },
            "When cool all through; on warm cookies it slides. Outline the edge, then flood inside.",
        ),
        Coat::Fondant { .. } => {
            ("Rolled fondant", "When cool. Roll out, cut with the same cutter. Stick on with thin jam or piping gel.")
        }
        Coat::Buttercream { .. } => ("Buttercream", "When cool all through, on the day you serve them."),
        Coat::Filling { kind: FillingKind::Jam, .. } => ("Filled with jam", COLD_FILLING),
        Coat::Filling { kind: FillingKind::Chocolate, .. } => ("Filled with ganache", COLD_FILLING),
        Coat::Filling { kind: FillingKind::Icing, .. } => ("Filled with buttercream", COLD_FILLING),
    }
}

/// What goes into a finish.
#[must_use]
pub const fn coat_stuff(stuff: CoatStuff) -> &'static str {
    match stuff {
        CoatStuff::CoarseSugar => "coarse sugar",
        CoatStuff::PowderedSugar => "powdered sugar",
        CoatStuff::Water => "water",
        CoatStuff::Spirit => "liquor",
        CoatStuff::Chocolate => "chocolate",
        CoatStuff::Oil => "oil",
        CoatStuff::Jam => "jam, cooked until it holds its shape",
        CoatStuff::Cream => "cream",
        CoatStuff::Butter => "butter",
        CoatStuff::Milk => "milk",
        CoatStuff::MeringuePowder => "meringue powder",
        CoatStuff::EggWhite => "fresh egg white",
        CoatStuff::Fondant => "fondant",
    }
}

/// What a part of an icing is for, and how it is known to be right.
#[must_use]
pub const fn coat_use(what: CoatUse) -> (&'static str, &'static str) {
    match what {
        CoatUse::Line => ("for the outline", "15-to-20-second icing, stiff enough to stand"),
        CoatUse::Flood => ("for the flood", "8-to-12-second icing, thinned"),
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match *self {
            Self::SugarOnTop { mass_a_cm2, top } => {
                said![mg(mass_a_cm2), " on each cm\u{b2} of ", cm2(top), ".", A_TENTH_MORE]
            }
            Self::SugarAllRound { mass_a_cm2, round } => {
                said!["Twice ", mg(mass_a_cm2), " on each cm\u{b2} all around, ", cm2(round), ".", A_TENTH_MORE]
            }
            Self::GlazeFilm { sugar_parts, spirit, .. } => said![
                number(sugar_parts, 1),
                " parts powdered sugar to 1 part ",
                if spirit { "liquor" } else { "water" },
                ".",
                A_TENTH_MORE,
            ],
            Self::DipFilm { film, part, round } => said![
                mm(film),
                " on ",
                percent(part, 0),
                " of ",
                cm2(round),
                " all around.",
                A_TENTH_MORE,
            ],
            Self::InEachDent { each } => said![grams_fine(each), " in each dent.", A_TENTH_MORE],
            Self::DeepEnough { least } => {
                said!["Less than ", grams(least), " is too shallow to dip. What’s left sets and keeps."]
            }
            Self::EnoughToMix { least, goes_on } => {
                said![grams_fine(goes_on), " goes on. Mix ", grams(least), ": less is hard to stir."]
            }
            Self::JamBurns => "Jam gets hotter than the dough and burns. Nobody tastes them warm.".into(),
            Self::Lines { wide, apart, .. } => said![
                "Lines ",
                mm(wide),
                " wide, ",
                mm(apart),
                " apart.",
                A_TENTH_MORE,
            ],
            Self::Layer { layer, rim, .. } => said![
                "Spread it ",
                mm(layer),
                " thick, ",
                mm(rim),
                " in from the edge.",
                A_TENTH_MORE,
            ],
            Self::LineAndFlood { line, flood, .. } => said![
                "Outline ",
                grams_fine(line),
                " each, flood ",
                grams_fine(flood),
                " each.",
                A_TENTH_MORE,
            ],
            Self::RolledOn { film, more, .. } => said![
                "Roll it ",
                mm(film),
                " thick. Includes ",
                percent(more, 0),
                " extra for rolling. Knead the scraps together and save them.",
            ],
            Self::SpreadOn { film, .. } => said!["Spread it ", mm(film), " thick.", A_TENTH_MORE],
            Self::RawWhite => "Fresh egg white stays raw. For children, pregnant women, older people or anyone ill, use pasteurized white or meringue powder. Label: EGG.".into(),
            Self::EggOnTheLabel => "Meringue powder is egg. Label: EGG.".into(),
            Self::IcedInLayers => "Iced and fully dry, they keep 2 to 3 weeks, layered with parchment.".into(),
            Self::CreamedGoSoft => "Buttercream softens the cookie. Keeps 2 to 3 days, cool.".into(),
            Self::UnusualGlaze { usual } => said![
                "Usual: ", number(usual.0, 0), " to ", number(usual.1, 0), " parts. With fewer it runs off; with more it won’t level.",
            ],
            Self::SpiritStays => {
                "Liquor added after baking keeps all its alcohol. Not for children. Say so on the label.".into()
            }
            Self::MeltedBurnsAndHoldsMilk => "Melted chocolate burns skin, even over warm water. Most chocolate contains milk and soy: check the package.".into(),
            Self::ChocolateHoldsMilk => {
                "Most chocolate contains milk and soy: check the package.".into()
            }
            Self::OddOneLeft => "One odd cookie is left over.".into(),
            Self::CreamInTheCold => "Cream filling: keep it in the fridge, no more than 2 hours out. Label: MILK.".into(),
            Self::ButterIsMilk => {
                "Label: MILK (butter). Keep cool, no more than 2 hours in a warm room.".into()
            }
            Self::Eats { texture } => match texture {
                Texture::Soft | Texture::Chewy => {
                    "Airtight, they stay soft 1 to 2 weeks, then go stale. Uncovered, they dry out."
                }
                Texture::Crisp | Texture::Short => "Airtight, they stay crisp for weeks. Damp air softens them.",
            }
            .into(),
            Self::NutsGoStale => "Nuts and seeds go stale sooner.".into(),
            Self::CoatDrawsMoisture => {
                "Glaze draws moisture. Keeps 1 to 2 weeks, layered with parchment.".into()
            }
            Self::ChocolateBlooms => "Chocolate blooms when warm or damp. Keeps 2 to 3 weeks, cool.".into(),
            Self::DustedInLayers => "Dusted cookies keep 2 to 3 weeks. Damp air melts the sugar.".into(),
            Self::JamGoesSticky => "Jam draws moisture from the air. Keeps 5 to 7 days, in 1 or 2 layers.".into(),
            Self::FilledGoSoft => "Filled cookies go soft: keep them 2 days. Fill on the day; freeze the halves plain.".into(),
            Self::FreezePlain => {
                "Freeze them plain and coat after thawing. Frozen glaze weeps; chocolate blooms.".into()
            }
            Self::TableBeginsLater { from, left, bake } => said![
                "After ",
                minutes(bake, 0),
                " in the oven, more than ",
                percent(left, 0),
                " of the alcohol is left (tables begin at ",
                minutes(from, 0),
                ").",
                NOT_COMPLETELY,
            ],
            Self::LeftByTheTable { bake, left } => said![
                "After ", minutes(bake, 0), ", ", percent(left, 0), " of the alcohol is left.",
                NOT_COMPLETELY,
            ],
        }
    }
}

impl Say for PiledBy {
    fn say(&self) -> Sentence {
        match *self {
            Self::Texture(texture) => said![
                texture.name(),
                match texture {
                    Texture::Soft | Texture::Chewy => ": put parchment between, or they stick together.",
                    Texture::Crisp | Texture::Short => ": stand on edge or stack. No parchment needed.",
                },
            ]
            .capital(),
            Self::Coat(by) => said![
                coat(by).0,
                match by {
                    Coat::Buttercream { .. } => ": one layer, nothing on top.",
                    Coat::Filling { .. } => ": the halves slide under weight.",
                    _ => ": anything on top leaves a mark.",
                },
            ],
        }
    }
}
