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

const A_TENTH_MORE: &str = " A tenth more for what stays in the bowl.";
const NOT_COMPLETELY: &str = " Spirits do not bake off completely.";

/// What a finish is called, and when it goes on.
#[must_use]
pub const fn coat(coat: Coat) -> (&'static str, &'static str) {
    const COLD_FILLING: &str = "When they are cold, not long before they are eaten: a filling softens them.";
    match coat {
        Coat::Sugar(SugarCoat::Coarse) => ("Coarse sugar", "Pressed into the damp top before the bake."),
        Coat::Sugar(SugarCoat::CoarseAfter) => {
            ("Coarse sugar on icing", "Strewn on while the icing or glaze under it is still wet.")
        }
        Coat::Sugar(SugarCoat::Powdered) => (
            "Powdered sugar, two coats",
            "First while they are warm enough to hold it, again when they are cold: the first melts in.",
        ),
        Coat::Glaze { way: GlazeWay::Drizzled, .. } => (
            "Sugar glaze in lines",
            "When they are cool, close together on paper: from a spoon or a bag with a small hole.",
        ),
        Coat::Glaze { way: GlazeWay::Dipped, .. } => (
            "Dipped in sugar glaze",
            "When they are cool all through: top down, lifted, turned, and onto a rack to drip.",
        ),
        Coat::JamBaked { .. } => (
            "Jam baked in",
            "Into the dent before the bake, or half of it then and the rest while they are hot from the oven.",
        ),
        Coat::Glaze { spirit, .. } => (
            if spirit { "Spirit glaze" } else { "Sugar glaze" },
            "When they are as cool as the room all through: on warm ones it runs and stays dull.",
        ),
        Coat::Dip { .. } => ("Dipped in chocolate", "When they are cold: warm ones dull it."),
        Coat::Drizzle => ("Drizzled with chocolate", "When they are cold, on paper, close together."),
        Coat::Royal { fresh_white, .. } => (
            if fresh_white { "Royal icing, fresh white" } else { "Royal icing" },
            "When they are cool all through, on a warm one it slides: first the line round the edge, then the flood within it.",
        ),
        Coat::Fondant { .. } => (
            "Rolled fondant",
            "When they are cool: rolled out, cut with the same cutter and stuck on with a brush of thin jam or piping gel.",
        ),
        Coat::Buttercream { .. } => ("Buttercream", "When they are cool all through, on the day they are eaten."),
        Coat::Filling { kind: FillingKind::Jam, .. } => ("Filled with jam", COLD_FILLING),
        Coat::Filling { kind: FillingKind::Chocolate, .. } => ("Filled with chocolate and cream", COLD_FILLING),
        Coat::Filling { kind: FillingKind::Icing, .. } => ("Filled with butter icing", COLD_FILLING),
    }
}

/// What goes into a finish.
#[must_use]
pub const fn coat_stuff(stuff: CoatStuff) -> &'static str {
    match stuff {
        CoatStuff::CoarseSugar => "coarse sugar",
        CoatStuff::PowderedSugar => "powdered sugar",
        CoatStuff::Water => "water",
        CoatStuff::Spirit => "spirit",
        CoatStuff::Chocolate => "chocolate",
        CoatStuff::Oil => "oil",
        CoatStuff::Jam => "jam, cooked until it holds",
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
        CoatUse::Line => ("for the line", "stiff enough to stand: smooth after 15 to 20 seconds"),
        CoatUse::Flood => ("for the flood", "thinned: smooth after 8 to 12 seconds"),
    }
}

impl Say for Reason {
    fn say(&self) -> Sentence {
        match *self {
            Self::SugarOnTop { mass_a_cm2, top } => {
                said![mg(mass_a_cm2), " on each square centimetre of ", cm2(top), ".", A_TENTH_MORE]
            }
            Self::SugarAllRound { mass_a_cm2, round } => {
                said!["Twice ", mg(mass_a_cm2), " on each square centimetre all round, ", cm2(round), ".", A_TENTH_MORE]
            }
            Self::GlazeFilm { film, top, density_g_ml, sugar_parts, spirit } => said![
                mm(film),
                " over ",
                cm2(top),
                format!(", {density_g_ml:.2} g/mL at "),
                number(sugar_parts, 1),
                " parts of sugar to one of ",
                if spirit { "spirit" } else { "water" },
                ".",
                A_TENTH_MORE,
            ],
            Self::DipFilm { film, part, round } => said![
                mm(film),
                " on ",
                percent(part, 0),
                " of ",
                cm2(round),
                " all round.",
                A_TENTH_MORE,
            ],
            Self::InEachDent { each } => said![grams_fine(each), " in each.", A_TENTH_MORE],
            Self::DeepEnough { least } => {
                said!["Less than ", grams(least), " is not deep enough to dip into: what is left sets and keeps."]
            }
            Self::EnoughToMix { least, goes_on } => {
                said![grams_fine(goes_on), " goes on. Mix ", grams(least), ": less is hard to stir."]
            }
            Self::JamBurns => "Jam is hotter than the dough and burns skin: nobody tastes them warm.".into(),
            Self::Lines { wide, high, apart, top } => said![
                "Lines ",
                mm(wide),
                " wide and ",
                mm(high),
                " high, ",
                mm(apart),
                " apart, over ",
                cm2(top),
                ".",
                A_TENTH_MORE,
            ],
            Self::Layer { layer, over, rim, density_g_ml } => said![
                mm(layer),
                " over ",
                cm2(over),
                ", ",
                mm(rim),
                format!(" off the edge, {density_g_ml} g/mL."),
                A_TENTH_MORE,
            ],
            Self::LineAndFlood { line, round, flood, film } => said![
                "A line round ",
                mm(round),
                " of edge, ",
                grams_fine(line),
                " each; within it ",
                mm(film),
                ", ",
                grams_fine(flood),
                ".",
                A_TENTH_MORE,
            ],
            Self::RolledOn { film, top, density_g_ml, more } => said![
                mm(film),
                " over ",
                cm2(top),
                format!(", {density_g_ml:.1} g/mL, and "),
                percent(more, 0),
                " more to roll it out; what is left is kneaded and kept.",
            ],
            Self::SpreadOn { film, top, density_g_ml } => {
                said![mm(film), " over ", cm2(top), format!(", {density_g_ml:.2} g/mL."), A_TENTH_MORE]
            }
            Self::RawWhite => "Fresh white stays raw: take pasteurised white, or meringue powder, for children, pregnant women, the old and the ill. Egg is on the label.".into(),
            Self::EggOnTheLabel => "Meringue powder is egg: it is on the label.".into(),
            Self::IcedInLayers => "Iced and dry through they keep two to three weeks, in layers with paper between.".into(),
            Self::CreamedGoSoft => "Buttercream softens what it lies on: two to three days, cool.".into(),
            Self::UnusualGlaze { usual } => said![
                "Usual are ",
                number(usual.0, 0),
                " to ",
                number(usual.1, 0),
                " parts: with fewer it runs off, with more it does not level.",
            ],
            Self::SpiritStays => {
                "What goes on after the bake keeps all of its alcohol: not for children, and the label says so.".into()
            }
            Self::MeltedBurnsAndHoldsMilk => "Melted over warm water it burns skin all the same. Chocolate holds milk and soy more often than not: read its packet.".into(),
            Self::ChocolateHoldsMilk => {
                "Chocolate holds milk and soy more often than not: read its packet.".into()
            }
            Self::OddOneLeft => "An odd one is left over.".into(),
            Self::CreamInTheCold => "With cream it belongs into the cold, not more than two hours out of it; cream is milk on the label. Local rules decide.".into(),
            Self::ButterIsMilk => {
                "Butter is milk on the label. Cool, not more than two hours in a warm room.".into()
            }
            Self::Eats { texture } => said![
                "It is ",
                texture.name(),
                match texture {
                    Texture::Soft | Texture::Chewy => {
                        ": airtight it stays so for one to two weeks, then it stales; open it dries out."
                    }
                    Texture::Crisp | Texture::Short => {
                        ": airtight it stays so for weeks, in damp air it goes soft."
                    }
                },
            ],
            Self::NutsGoStale => "The oil of nuts and seeds goes stale sooner.".into(),
            Self::CoatDrawsMoisture => {
                "A glaze draws moisture: one to two weeks, between papers.".into()
            }
            Self::ChocolateBlooms => "Chocolate blooms where it is warm or damp: two to three weeks, cool.".into(),
            Self::DustedInLayers => "Dusted ones keep two to three weeks; damp air melts the powder.".into(),
            Self::JamGoesSticky => "Jam draws water out of the air: five to seven days, in one or two layers.".into(),
            Self::FilledGoSoft => "Filled ones go soft: two days. Fill on the day, freeze the halves plain.".into(),
            Self::FreezePlain => {
                "Frozen, a glaze weeps and chocolate blooms as it thaws: freeze them plain and coat them after.".into()
            }
            Self::TableBeginsLater { from, left, bake } => said![
                "The published table begins at ",
                minutes(from, 0),
                ", with ",
                percent(left, 0),
                " left; after ",
                minutes(bake, 0),
                " there is more.",
                NOT_COMPLETELY,
            ],
            Self::LeftByTheTable { bake, left } => said![
                "After ",
                minutes(bake, 0),
                " ",
                percent(left, 0),
                " is left by the published table.",
                NOT_COMPLETELY,
            ],
        }
    }
}

impl Say for PiledBy {
    fn say(&self) -> Sentence {
        match *self {
            Self::Texture(texture) => said![
                "They are ",
                texture.name(),
                match texture {
                    Texture::Soft | Texture::Chewy => ": with paper between, or they stick to each other.",
                    Texture::Crisp | Texture::Short => ": on edge or in piles, no paper needed.",
                },
            ],
            Self::Coat(by) => said![
                coat(by).0,
                match by {
                    Coat::Buttercream { .. } => ": nothing may lie on it, so in one layer.",
                    Coat::Filling { .. } => ": under weight the halves slide.",
                    _ => ": what lies on it leaves its mark.",
                },
            ],
        }
    }
}
