//! The mixing sheet: what is sifted, the steps in order with their times, cues and stops, what is folded in last, and the
//! portions that are tinted. Times and cues are common practice, no source.

use super::ingredient::{Kind, Role};
use super::method::MixMethod;
use super::mixing::{MixingTemperatures, mixing_temperatures};
use super::scale::{MixPlan, Weighed};
use crate::error::{Checks, InputErrors};
use crate::units::{Mass, Share, Temperature};

/// Paste colour to begin with, of the portion's mass. Common practice, no source: easier to add than to take away.
const PASTE_TO_BEGIN: f64 = 0.003;
/// Black and the deepest shades want so many times as much. Common practice, no source.
const DEEP_SHADE: f64 = 4.0;
/// Words that name such a shade.
const DEEP: [&str; 5] = ["black", "navy", "deep", "dark", "charcoal"];
const MOST_TINTS: usize = 8;

fn paste_of(colour: &str, dough: Mass) -> Mass {
    let colour = colour.to_lowercase();
    let deep = colour.split(|c: char| !c.is_alphabetic()).any(|word| DEEP.contains(&word));
    let paste = dough.g() * PASTE_TO_BEGIN * if deep { DEEP_SHADE } else { 1.0 };
    Mass::new_g(round_tenth(paste).max(0.1))
}

/// A part of the dough that is coloured.
#[derive(Debug, Clone, PartialEq)]
pub struct Tint {
    name: String,
    share: Share,
}

impl Tint {
    /// The tints of a dough; each 1 to 100 %, together at most all of it.
    pub fn list(parts: &[(String, f64)]) -> Result<Vec<Self>, InputErrors> {
        let mut checks = Checks::new();
        checks.limit("tints", parts.len(), MOST_TINTS, "tints");
        for (i, (name, percent)) in parts.iter().enumerate() {
            checks.text(&format!("tints[{i}].name"), name, 40, "a colour");
            checks.range(&format!("tints[{i}].percent"), *percent, 1.0, 100.0, "% of the dough");
        }
        let together: f64 = parts.iter().map(|p| p.1).filter(|p| p.is_finite()).sum();
        if together > 100.0 {
            checks.range("tints", together, 0.0, 100.0, "% of the dough together");
        }
        checks.finish(())?;
        Ok(parts.iter().map(|(name, p)| Self { name: name.trim().to_owned(), share: Share::new(p / 100.0) }).collect())
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

/// One step at the bowl.
#[derive(Debug, Clone, PartialEq)]
pub struct MixStep {
    /// Its name.
    pub title: &'static str,
    /// Least and most minutes; absent where time says nothing.
    pub minutes: Option<(f64, f64)>,
    /// What goes in, in the order of the formula: name and mass.
    pub takes: Vec<(String, Mass)>,
    /// What to do.
    pub what: String,
    /// When to stop.
    pub stop: &'static str,
    /// Whether the bowl and its bottom are scraped after it.
    pub scrape: bool,
}

/// What hangs by the mixer.
#[derive(Debug, Clone, PartialEq)]
pub struct MixingSheet {
    /// What the parts should be when they go in.
    pub temperatures: MixingTemperatures,
    /// What the dough should be when it leaves the bowl.
    pub dough_between: (Temperature, Temperature),
    /// What is sifted or whisked, and why.
    pub sift: Vec<(String, &'static str)>,
    /// The steps.
    pub steps: Vec<MixStep>,
    /// Portions to tint.
    pub tints: Vec<TintPortion>,
    /// Cautions that belong at the bowl.
    pub cautions: Vec<&'static str>,
}

/// How the dough is right, whichever way it was mixed. Common practice, no source.
pub const RIGHT_DOUGH: &str = "It clears the side of the bowl and gathers round the paddle. Squeezed in the fist it holds and nothing crumbles off; a finger leaves a dent without sticking.";

fn pick(mixes: &MixPlan, which: impl Fn(&Weighed) -> bool) -> Vec<(String, Mass)> {
    mixes.weights.iter().filter(|w| which(w)).map(|w| (named(w), w.mass - w.held_back)).collect()
}

fn named(w: &Weighed) -> String {
    if w.note.is_empty() { w.ingredient.name.to_string() } else { format!("{}, {}", w.ingredient.name, w.note) }
}

fn sifted(w: &Weighed) -> Option<&'static str> {
    match (w.ingredient.kind, w.ingredient.key.as_ref()) {
        (Kind::Sugar, "sugar-powdered") => Some("powdered sugar cakes into lumps"),
        (Kind::Cocoa, _) => Some("cocoa cakes into lumps"),
        (Kind::Starch, _) => Some("starch clumps: whisk it into the flour"),
        (Kind::Meal, "malt-powder" | "milk-powder" | "custard-powder") => Some("it draws damp and clumps"),
        (Kind::Meal, "peanut-butter" | "coconut") => None,
        (Kind::Meal, _) => Some("ground nuts and seeds stick together"),
        (Kind::Leavener, _) => Some("so that it is even in the flour"),
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
    let mut steps = vec![MixStep {
        title: "Weigh, then sift or whisk the dry",
        minutes: None,
        takes: pick(mixes, |w| is_dry(w) || kind(w) == Kind::Salt),
        what: "Flour, salt and all that goes with them into one bowl; whisk until it is one colour.".to_owned(),
        stop: "No lump is left between the fingers.",
        scrape: false,
    }];
    match method {
        MixMethod::LightAndFluffy | MixMethod::JustCombined => {
            let fluffy = method == MixMethod::LightAndFluffy;
            steps.push(MixStep {
                title: if fluffy { "Cream until light" } else { "Cream just to combined" },
                minutes: Some(if fluffy { (2.0, 5.0) } else { (0.5, 1.0) }),
                takes: pick(mixes, |w| fats(w) || is_creamed_sugar(w)),
                what: format!(
                    "Butter at {:.0}\u{b0}, paddle, {}.",
                    temperatures.fats.c(),
                    if fluffy { "medium speed" } else { "slow: air is what you do not want" }
                ),
                stop: if fluffy {
                    "Paler, fluffy, and it no longer slides as one lump."
                } else {
                    "No dry sugar is seen, and it has not turned paler."
                },
                scrape: true,
            });
        }
        MixMethod::RubbedIn => steps.push(MixStep {
            title: "Rub in, or pulse",
            minutes: Some((1.0, 3.0)),
            takes: pick(mixes, |w| fats(w) || is_creamed_sugar(w)),
            what: format!(
                "Sugar into the flour; butter in 10 mm dice at {:.0}\u{b0}. Rub with cool fingertips, or pulse a second at a time.",
                temperatures.fats.c()
            ),
            stop: "Crumbs the size of peas or finer, still cold and dry.",
            scrape: false,
        }),
    }
    let wet = pick(mixes, is_wet);
    if !wet.is_empty() {
        let has_egg = mixes.weights.iter().any(|w| kind(w) == Kind::Egg);
        steps.push(MixStep {
            title: if has_egg { "Egg and flavouring" } else { "Liquid and flavouring" },
            minutes: Some((0.5, 1.0)),
            takes: wet,
            what: format!(
                "{}, at {:.0}\u{b0}; {}.",
                if has_egg { "Whisk the egg with the flavouring" } else { "Stir together" },
                temperatures.wet.c(),
                if method == MixMethod::RubbedIn {
                    "trickle it over the crumbs"
                } else {
                    "add it in two or three goes"
                }
            ),
            stop: if method == MixMethod::RubbedIn {
                "The crumbs begin to gather."
            } else {
                "It is smooth again; a little curdled does no harm."
            },
            scrape: true,
        });
    }
    let held: f64 = mixes.weights.iter().map(|w| w.held_back.g()).sum();
    if method == MixMethod::RubbedIn {
        steps.push(MixStep {
            title: "Gather",
            minutes: Some((0.5, 1.0)),
            takes: vec![],
            what: "Press together with the hand or a few more pulses; do not knead.".to_owned(),
            stop: "It is one lump and no dry flour is left.",
            scrape: false,
        });
    } else {
        steps.push(MixStep {
            title: "Flour, slowly",
            minutes: Some((1.0, 2.0)),
            takes: vec![],
            what: "In two to four parts at the slowest speed, the guard on: flour dust harms the lungs. Scrape bowl and bottom once in between.".to_owned(),
            stop: "It is uniform, no dry flour left: mixing on toughens it.",
            scrape: true,
        });
    }
    if held > 0.0 {
        steps.push(MixStep {
            title: "The flour kept aside, by feel",
            minutes: None,
            takes: vec![("Flour kept aside".to_owned(), Mass::new_g(held))],
            what: "A spoon at a time, only as much as it asks for. Note what was left over.".to_owned(),
            stop: RIGHT_DOUGH,
            scrape: false,
        });
    }
    let inclusions = pick(mixes, |w| kind(w).is_inclusion());
    if !inclusions.is_empty() {
        let fruit = mixes.weights.iter().any(|w| kind(w) == Kind::Fruit);
        let nuts = mixes.weights.iter().any(|w| kind(w) == Kind::Nut);
        let mut what = "Fold in last, at the slowest speed or by hand.".to_owned();
        if nuts {
            what.push_str(" Toasted nuts must be cold before they are chopped and go in.");
        }
        if fruit {
            what.push_str(" Toss sticky fruit in a spoon of the flour first.");
        }
        steps.push(MixStep {
            title: "Pieces last",
            minutes: Some((0.25, 0.5)),
            takes: inclusions,
            what,
            stop: "They lie evenly; nothing is crushed.",
            scrape: false,
        });
    }
    let tints: Vec<TintPortion> = tints
        .iter()
        .map(|t| {
            let dough = mixes.each * t.share.value();
            TintPortion { name: t.name.clone(), dough, paste: paste_of(&t.name, dough) }
        })
        .collect();
    if !tints.is_empty() {
        steps.push(MixStep {
            title: "Divide and tint",
            minutes: Some((1.0, 2.0)),
            takes: tints.iter().map(|t| (t.name.clone(), t.dough)).collect(),
            what: "Paste colour, not liquid; begin with little and knead it in. It is easier to add than to take away, and it deepens as it rests.".to_owned(),
            stop: "One even shade, no streak.",
            scrape: false,
        });
    }
    if steps.iter().all(|s| s.stop != RIGHT_DOUGH) {
        let before_pieces =
            steps.iter().position(|s| matches!(s.title, "Pieces last" | "Divide and tint")).unwrap_or(steps.len());
        steps.insert(
            before_pieces,
            MixStep {
                title: "Is it right?",
                minutes: None,
                takes: vec![],
                what: "Squeeze a handful before you stop the mixer for good.".to_owned(),
                stop: RIGHT_DOUGH,
                scrape: false,
            },
        );
    }
    MixingSheet {
        temperatures,
        dough_between: method.dough_between(),
        sift,
        steps,
        tints,
        cautions: vec![
            "Raw flour and raw egg are not ready to eat: no tasting.",
            "A stiff dough strains a small mixer: when it labours, finish with the hook or by hand. Switch it off before a hand or a scraper goes in.",
        ],
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

    fn sheet(method: MixMethod, hold_back: f64, tints: &[Tint]) -> MixingSheet {
        mixing_sheet(&mixes(&RICH, hold_back), method, tints, Temperature::new_c(22.0), Temperature::new_c(4.0))
    }

    #[test]
    fn everything_weighed_goes_in_once_and_pieces_go_in_last() {
        for method in MixMethod::ALL {
            let sheet = sheet(method, 10.0, &[]);
            let taken: f64 = sheet.steps.iter().flat_map(|s| &s.takes).map(|t| t.1.g()).sum();
            let total: f64 = RICH.iter().map(|l| l.1).sum();
            assert!((taken - total).abs() < 1.0, "{method:?}: {taken} {total}");
            assert_eq!(sheet.steps.last().unwrap().title, "Pieces last");
            assert!(
                sheet.steps.last().unwrap().what.contains("cold") && sheet.steps.last().unwrap().what.contains("Toss")
            );
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
        assert!(rubbed.steps.iter().any(|s| s.stop.contains("peas")));
        for sheet in [&fluffy, &plain, &rubbed] {
            assert_eq!(sheet.steps.iter().filter(|s| s.stop == RIGHT_DOUGH).count(), 1);
        }
    }

    #[test]
    fn lumpy_powders_are_sifted_and_flour_alone_is_not() {
        let names: Vec<String> = sheet(MixMethod::JustCombined, 0.0, &[]).sift.into_iter().map(|s| s.0).collect();
        assert_eq!(names, ["Unsweetened cocoa", "Powdered sugar"]);
    }

    #[test]
    fn tints_are_portions_of_the_dough() {
        let tints = Tint::list(&[("red".to_owned(), 25.0), ("blue".to_owned(), 10.0)]).unwrap();
        let sheet = sheet(MixMethod::JustCombined, 0.0, &tints);
        assert!((sheet.tints[0].dough.g() - 248.0).abs() < 0.5, "{:?}", sheet.tints);
        assert_eq!(sheet.tints[0].paste.g(), 0.7);
        // Black wants several times the paste of pink: common practice, no source.
        let [pink, black] = ["pink", "Ink black"].map(|c| paste_of(c, Mass::new_g(248.0)).g());
        assert_eq!((pink, black), (0.7, 3.0));
        assert!(
            Tint::list(&[("red".to_owned(), 60.0), ("blue".to_owned(), 60.0)]).unwrap_err().to_string().contains("120")
        );
        assert!(Tint::list(&[(String::new(), f64::NAN)]).is_err());
    }
}
