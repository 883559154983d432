//! The mixing sheet: what is sifted, the steps in order with their times, cues and stops, what is folded in last, and the
//! portions that are tinted. Times and cues are common practice, no source.

use super::household::Beside;
use super::ingredient::{Kind, Role};
use super::method::MixMethod;
use super::mixing::{MixingTemperatures, mixing_temperatures};
use super::scale::{MixPlan, Weighed};
use crate::error::{Checks, InputErrors};
use crate::units::{Length, Mass, Share, Span, Temperature};
use serde::{Deserialize, Serialize};

/// Paste colour, of the portion's mass: pale 0.1 to 0.2 %, clear 0.3 to 0.5, red 0.8 to 1.2, black and the deepest 1.5 to 2.5; the low half of
/// each to begin with, since it is easier to add than to take away. Common practice, no source.
const SHADES: [(&[&str], f64); 3] = [
    (&["black", "navy", "deep", "dark", "charcoal"], 0.015),
    (&["red", "crimson", "scarlet"], 0.008),
    (&["pale", "light", "pastel", "pink", "cream", "ivory", "sand"], 0.0015),
];
const CLEAR_SHADE: f64 = 0.003;
const MOST_TINTS: usize = 8;
/// Butter that is rubbed in goes in as dice so large. Common practice, no source.
const DICE: Length = Length::new_mm(10.0);
/// Nuts in one layer, stirred once; until they smell, and cold before they are chopped. Common practice, no source.
const TOASTING: Temperature = Temperature::new_c(175.0);
const TOASTS_MIN: (f64, f64) = (8.0, 10.0);
const TOASTED_COOLS: Span = Span::new_min(30.0);

/// Whether a line asks for toasted nuts, seeds or flakes.
fn is_toasted(w: &Weighed) -> bool {
    matches!(w.ingredient.kind, Kind::Nut | Kind::Seed | Kind::Meal) && w.note.to_lowercase().contains("toast")
}

/// Paste to begin with for a portion of dough or icing, by what its colour is called.
pub(crate) fn paste_of(colour: &str, portion: Mass) -> Mass {
    let colour = colour.to_lowercase();
    let named = |words: &[&str]| colour.split(|c: char| !c.is_alphabetic()).any(|word| words.contains(&word));
    let share = SHADES.iter().find(|(words, _)| named(words)).map_or(CLEAR_SHADE, |(_, share)| *share);
    Mass::new_g(round_tenth(portion.g() * share).max(0.1))
}

/// A part of the dough that is coloured.
#[derive(Debug, Clone, PartialEq)]
pub struct Tint {
    name: String,
    share: Share,
}

/// A portion of dough or icing that is coloured; the only door to [`Tint`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = TintBody)]
#[serde(deny_unknown_fields)]
pub struct TintInput {
    /// The colour, 1 to 40 characters.
    pub name: String,
    /// Of all of it, 1 to 100.
    pub percent: f64,
}

impl Tint {
    /// The tints of a dough; each 1 to 100 %, together at most all of it.
    pub fn list(parts: &[TintInput]) -> Result<Vec<Self>, InputErrors> {
        Self::list_of(parts, "tints", ["% of the dough", "% of the dough in total"])
    }

    /// The tints of what is named by `field` and `units`; each 1 to 100 %, together at most all of it.
    pub(crate) fn list_of(
        parts: &[TintInput],
        field: &str,
        units: [&'static str; 2],
    ) -> Result<Vec<Self>, InputErrors> {
        let mut checks = Checks::new();
        checks.limit(field, parts.len(), MOST_TINTS, "colors");
        for (i, TintInput { name, percent }) in parts.iter().enumerate() {
            checks.text(&format!("{field}[{i}].name"), name, 40, "a color");
            checks.range(&format!("{field}[{i}].percent"), *percent, 1.0, 100.0, units[0]);
        }
        let together: f64 = parts.iter().map(|p| p.percent).filter(|p| p.is_finite()).sum();
        if together > 100.0 {
            checks.range(field, together, 0.0, 100.0, units[1]);
        }
        checks.finish(())?;
        Ok(parts
            .iter()
            .map(|p| Self { name: p.name.trim().to_owned(), share: Share::new(p.percent / 100.0) })
            .collect())
    }

    /// The colour.
    #[must_use]
    pub fn name(&self) -> &str {
        &self.name
    }

    /// Of the dough.
    #[must_use]
    pub fn share(&self) -> Share {
        self.share
    }
}

/// A portion to tint.
#[derive(Debug, Clone, PartialEq)]
pub struct TintPortion {
    /// The colour.
    pub name: String,
    /// Dough of it in one mix.
    pub dough: Mass,
    /// Paste to begin with.
    pub paste: Mass,
}

/// What is done in a step at the bowl.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum MixWork {
    /// The dry into one bowl, sifted or whisked.
    WeighDry,
    /// Fat and sugar, light or just combined.
    Cream {
        /// Whether air is wanted.
        light: bool,
        /// What the fat should be.
        fats: Temperature,
    },
    /// Fat into the flour, by hand.
    RubIn {
        /// What the fat should be.
        fats: Temperature,
        /// It is cut into dice so large.
        dice: Length,
    },
    /// Fat into the flour, in a food processor.
    Pulse {
        /// What the fat should be.
        fats: Temperature,
        /// It is cut into dice so large.
        dice: Length,
    },
    /// Nuts browned in the oven before anything else, to be cold when they go in.
    Toast {
        /// What the oven is set to.
        oven: Temperature,
        /// How long they cool.
        cools: Span,
    },
    /// Egg or liquid, with the flavouring.
    Wet {
        /// Whether it is egg.
        egg: bool,
        /// Whether it goes over crumbs.
        over_crumbs: bool,
        /// What it should be.
        at: Temperature,
    },
    /// Crumbs to a lump.
    Gather,
    /// The flour, slowly.
    Flour,
    /// What was kept aside of it, by feel.
    KeptAside,
    /// Nuts, fruit, chocolate.
    Pieces {
        /// Toasted ones have to be cold.
        nuts: bool,
        /// Sticky ones are tossed in flour.
        fruit: bool,
    },
    /// Parts of it coloured.
    Tint,
    /// Whether it is right.
    Check,
}

impl MixWork {
    /// Whether it ends with a dough that is right.
    #[must_use]
    pub const fn ends_right(self) -> bool {
        matches!(self, Self::KeptAside | Self::Check)
    }
}

/// Something that goes into a step.
#[derive(Debug, Clone, PartialEq)]
pub struct Take {
    /// Its name, with what is done to it first; nothing for the flour kept aside.
    pub name: Option<String>,
    /// How much.
    pub mass: Mass,
    /// The household measure that comes near it.
    pub beside: Option<Beside>,
}

impl Take {
    const fn of(name: Option<String>, mass: Mass) -> Self {
        Self { name, mass, beside: None }
    }
}

/// One step at the bowl.
#[derive(Debug, Clone, PartialEq)]
pub struct MixStep {
    /// What is done.
    pub work: MixWork,
    /// Least and most minutes; absent where time says nothing.
    pub minutes: Option<(f64, f64)>,
    /// What goes in, in the order of the formula.
    pub takes: Vec<Take>,
    /// Whether the bowl and its bottom are scraped after it.
    pub scrape: bool,
}

/// Why something is sifted or whisked.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SiftWhy {
    /// Powdered sugar cakes.
    PowderedSugar,
    /// Cocoa cakes.
    Cocoa,
    /// Starch clumps.
    Starch,
    /// It draws damp.
    DrawsDamp,
    /// Ground nuts and seeds stick together.
    Ground,
    /// To be even in the flour.
    Leavener,
}

/// What to mind at the bowl.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BowlCaution {
    /// Raw flour and egg.
    NoTasting,
    /// A stiff dough and a small mixer.
    StiffDough,
}

/// What hangs by the mixer.
#[derive(Debug, Clone, PartialEq)]
pub struct MixingSheet {
    /// What the parts should be when they go in.
    pub temperatures: MixingTemperatures,
    /// What the dough should be when it leaves the bowl.
    pub dough_between: (Temperature, Temperature),
    /// What is sifted or whisked, and why.
    pub sift: Vec<(String, SiftWhy)>,
    /// The steps.
    pub steps: Vec<MixStep>,
    /// Portions to tint.
    pub tints: Vec<TintPortion>,
    /// Cautions that belong at the bowl.
    pub cautions: Vec<BowlCaution>,
}

fn pick(mixes: &MixPlan, which: impl Fn(&Weighed) -> bool) -> Vec<Take> {
    let take = |w: &Weighed| {
        let mass = w.mass - w.held_back;
        Take { name: Some(named(w)), mass, beside: w.ingredient.household.beside(mass) }
    };
    mixes.weights.iter().filter(|w| which(w)).map(take).collect()
}

fn named(w: &Weighed) -> String {
    if w.note.is_empty() { w.ingredient.name.to_string() } else { format!("{}, {}", w.ingredient.name, w.note) }
}

fn sifted(w: &Weighed) -> Option<SiftWhy> {
    match (w.ingredient.kind, w.ingredient.key.as_ref()) {
        (Kind::Sugar, "sugar-powdered") => Some(SiftWhy::PowderedSugar),
        (Kind::Cocoa, _) => Some(SiftWhy::Cocoa),
        (Kind::Starch, _) => Some(SiftWhy::Starch),
        (Kind::Meal, "malt-powder" | "milk-powder" | "custard-powder") => Some(SiftWhy::DrawsDamp),
        (Kind::Meal, "peanut-butter" | "coconut") => None,
        (Kind::Meal, _) => Some(SiftWhy::Ground),
        (Kind::Leavener, _) => Some(SiftWhy::Leavener),
        _ => None,
    }
}

/// The sheet for one mix.
#[must_use]
pub fn mixing_sheet(
    mixes: &MixPlan,
    method: MixMethod,
    tints: &[Tint],
    room: Temperature,
    fridge: Temperature,
) -> MixingSheet {
    let temperatures = mixing_temperatures(&mixes.formula, method, room, fridge);
    let kind = |w: &Weighed| w.ingredient.kind;
    let is_creamed_sugar = |w: &Weighed| w.ingredient.role() == Role::Sugar;
    let is_dry = |w: &Weighed| kind(w).goes_with_flour() && w.ingredient.key != "peanut-butter";
    let is_paste = |w: &Weighed| w.ingredient.key == "peanut-butter" || w.ingredient.key == "cream-cheese";
    let is_wet = |w: &Weighed| {
        !is_paste(w) && matches!(kind(w), Kind::Egg | Kind::Liquid | Kind::Flavour | Kind::Spirit | Kind::Colour)
    };
    let fats = |w: &Weighed| w.ingredient.role() == Role::Fat || is_paste(w);
    let sift = mixes.weights.iter().filter_map(|w| sifted(w).map(|why| (w.ingredient.name.to_string(), why))).collect();
    let step = |work: MixWork, minutes: Option<(f64, f64)>, takes: Vec<Take>, scrape: bool| MixStep {
        work,
        minutes,
        takes,
        scrape,
    };
    let toasted = pick(mixes, is_toasted);
    let mut steps = vec![];
    if !toasted.is_empty() {
        steps.push(step(MixWork::Toast { oven: TOASTING, cools: TOASTED_COOLS }, Some(TOASTS_MIN), toasted, false));
    }
    steps.push(step(MixWork::WeighDry, None, pick(mixes, |w| is_dry(w) || kind(w) == Kind::Salt), false));
    let fat_and_sugar = pick(mixes, |w| fats(w) || is_creamed_sugar(w));
    let at = temperatures.fats;
    steps.push(match method {
        MixMethod::LightAndFluffy => {
            step(MixWork::Cream { light: true, fats: at }, Some((2.0, 5.0)), fat_and_sugar, true)
        }
        MixMethod::JustCombined => {
            step(MixWork::Cream { light: false, fats: at }, Some((0.5, 1.0)), fat_and_sugar, true)
        }
        MixMethod::RubbedIn => step(MixWork::RubIn { fats: at, dice: DICE }, Some((1.0, 3.0)), fat_and_sugar, false),
        // 10 to 20 s in pulses of one: common practice, no source.
        MixMethod::Pulsed => step(MixWork::Pulse { fats: at, dice: DICE }, Some((0.2, 0.4)), fat_and_sugar, false),
    });
    let over_crumbs = method.is_cold();
    let wet = pick(mixes, is_wet);
    if !wet.is_empty() {
        let egg = mixes.weights.iter().any(|w| kind(w) == Kind::Egg);
        steps.push(step(MixWork::Wet { egg, over_crumbs, at: temperatures.wet }, Some((0.5, 1.0)), wet, true));
    }
    steps.push(if over_crumbs {
        step(MixWork::Gather, Some((0.5, 1.0)), vec![], false)
    } else {
        step(MixWork::Flour, Some((1.0, 2.0)), vec![], true)
    });
    let held: f64 = mixes.weights.iter().map(|w| w.held_back.g()).sum();
    if held > 0.0 {
        steps.push(step(MixWork::KeptAside, None, vec![Take::of(None, Mass::new_g(held))], false));
    } else {
        steps.push(step(MixWork::Check, None, vec![], false));
    }
    let inclusions = pick(mixes, |w| kind(w).is_inclusion());
    if !inclusions.is_empty() {
        let fruit = mixes.weights.iter().any(|w| kind(w) == Kind::Fruit);
        let nuts = mixes.weights.iter().any(|w| kind(w) == Kind::Nut);
        steps.push(step(MixWork::Pieces { nuts, fruit }, Some((0.25, 0.5)), inclusions, false));
    }
    let tints: Vec<TintPortion> = tints
        .iter()
        .map(|t| {
            let dough = mixes.each * t.share.value();
            TintPortion { name: t.name.clone(), dough, paste: paste_of(&t.name, dough) }
        })
        .collect();
    if !tints.is_empty() {
        let portions = tints.iter().map(|t| Take::of(Some(t.name.clone()), t.dough)).collect();
        steps.push(step(MixWork::Tint, Some((1.0, 2.0)), portions, false));
    }
    MixingSheet {
        temperatures,
        dough_between: method.dough_between(),
        sift,
        steps,
        tints,
        cautions: vec![BowlCaution::NoTasting, BowlCaution::StiffDough],
    }
}

fn round_tenth(v: f64) -> f64 {
    (v * 10.0).round() / 10.0
}

#[cfg(test)]
mod tests {
    use super::super::scale::{MixerLimits, WeighRules, divide_into_mixes};
    use super::super::{Formula, LineInput, Pantry};
    use super::*;
    use crate::units::Density;

    fn mixes(lines: &[(&str, f64)], hold_back: f64) -> MixPlan {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        let formula = Formula::new("Test", &lines, Pantry::built_in()).unwrap();
        let limits = MixerLimits { dough: Mass::new_g(5000.0), bowl_ml: None };
        let rules = WeighRules::new(1.0, 0.1, hold_back, None).unwrap();
        divide_into_mixes(&formula, formula.total(), limits, Density::new_kg_m3(1210.0), &rules)
    }

    const RICH: [(&str, f64); 9] = [
        ("flour-ap", 340.0),
        ("cocoa", 55.0),
        ("butter", 220.0),
        ("sugar-powdered", 180.0),
        ("egg", 50.0),
        ("vanilla", 4.0),
        ("salt", 3.0),
        ("walnut", 80.0),
        ("raisin", 60.0),
    ];

    fn part(name: &str, percent: f64) -> TintInput {
        TintInput { name: name.to_owned(), percent }
    }

    fn sheet(method: MixMethod, hold_back: f64, tints: &[Tint]) -> MixingSheet {
        mixing_sheet(&mixes(&RICH, hold_back), method, tints, Temperature::new_c(22.0), Temperature::new_c(4.0))
    }

    #[test]
    fn everything_weighed_goes_in_once_and_pieces_go_in_last() {
        for method in MixMethod::ALL {
            let sheet = sheet(method, 10.0, &[]);
            let taken: f64 = sheet.steps.iter().flat_map(|s| &s.takes).map(|t| t.mass.g()).sum();
            let total: f64 = RICH.iter().map(|l| l.1).sum();
            assert!((taken - total).abs() < 1.0, "{method:?}: {taken} {total}");
            assert_eq!(sheet.steps.last().unwrap().work, MixWork::Pieces { nuts: true, fruit: true });
        }
    }

    #[test]
    fn methods_differ_where_the_trade_says() {
        let fluffy = sheet(MixMethod::LightAndFluffy, 0.0, &[]);
        let plain = sheet(MixMethod::JustCombined, 0.0, &[]);
        let rubbed = sheet(MixMethod::RubbedIn, 0.0, &[]);
        // Common practice, no source: creamed 2-5 min, just combined 30-60 s, rubbed in with butter of 4-8 degC.
        assert_eq!(fluffy.steps[1].minutes, Some((2.0, 5.0)));
        assert_eq!(plain.steps[1].minutes, Some((0.5, 1.0)));
        assert!((4.0..=8.0).contains(&rubbed.temperatures.fats.c()));
        assert!(matches!(rubbed.steps[1].work, MixWork::RubIn { .. }));
        for sheet in [&fluffy, &plain, &rubbed] {
            assert_eq!(sheet.steps.iter().filter(|s| s.work.ends_right()).count(), 1);
        }
    }

    #[test]
    fn lumpy_powders_are_sifted_and_flour_alone_is_not() {
        let names: Vec<String> = sheet(MixMethod::JustCombined, 0.0, &[]).sift.into_iter().map(|s| s.0).collect();
        assert_eq!(names, ["Unsweetened cocoa", "Powdered sugar"]);
    }

    #[test]
    fn tints_are_portions_of_the_dough() {
        let tints = Tint::list(&[part("red", 25.0), part("blue", 10.0)]).unwrap();
        let sheet = sheet(MixMethod::JustCombined, 0.0, &tints);
        assert!((sheet.tints[0].dough.g() - 248.0).abs() < 0.5, "{:?}", sheet.tints);
        // Of the portion pale 0.1 to 0.2 %, clear 0.3 to 0.5, red 0.8 to 1.2, black 1.5 to 2.5: common practice, no source.
        let shares = ["Pale blue", "blue", "red", "Ink black"].map(|c| paste_of(c, Mass::new_g(1000.0)).g() / 10.0);
        for (share, practice) in shares.into_iter().zip([0.1..=0.2, 0.3..=0.5, 0.8..=1.2, 1.5..=2.5]) {
            assert!(practice.contains(&share), "{share} against {practice:?}");
        }
        assert_eq!(sheet.tints[0].paste, paste_of("red", sheet.tints[0].dough));
        assert!(Tint::list(&[part("red", 60.0), part("blue", 60.0)]).unwrap_err().to_string().contains("120"));
        assert!(Tint::list(&[part("", f64::NAN)]).is_err());
    }
}
