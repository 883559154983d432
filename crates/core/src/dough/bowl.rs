//! The correction at the bowl: what the hand says, what to add, and when to stop adding. Common practice, no source.

use super::ingredient::{Kind, Role};
use super::{Formula, MixMethod, Reason};
use crate::error::{Checks, InputErrors};
use crate::units::{Mass, Share, Temperature};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// What is wrong with the dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum Feel {
    /// It sticks.
    TooSticky,
    /// It is dry and will not gather.
    DryWontGather,
    /// It is warm, shiny, slack.
    TooWarm,
}

/// What a squeezed handful does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum Squeeze {
    /// It holds, nothing crumbles off, nothing sticks.
    Holds,
    /// It holds but cracks.
    Cracks,
    /// It falls apart.
    Crumbles,
    /// It leaves a film on the hand.
    Clings,
    /// It smears and shines.
    Smears,
}

/// What to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Correction {
    /// Key of what to add; nothing when adding would be wrong.
    pub add: Option<&'static str>,
    /// How much now.
    pub amount: Mass,
    /// What may be added in all to this mix, what went in before included.
    pub limit: Mass,
    /// What to do.
    pub say: Reason,
    /// Why.
    pub reasons: Vec<Reason>,
}

/// Flour at a time, of the flour.
const FLOUR_STEP: (f64, f64) = (0.01, 0.02);
/// Flour in all, of the flour: more makes another formula.
const FLOUR_LIMIT: f64 = 0.06;
/// A tablespoon of liquid to so much dough.
const SPOON: (Mass, Mass) = (Mass::new_g(15.0), Mass::new_g(600.0));
/// Spoons in all.
const SPOONS_LIMIT: f64 = 3.0;

/// What to add to a mix of `mix` grams that feels so. `added_flour` and `added_liquid` went in before; `measured` is the
/// dough's temperature, where one was taken.
///
/// Fails when what was added before is negative or more than the mix.
pub fn correct(
    formula: &Formula,
    mix: Mass,
    method: MixMethod,
    feel: Feel,
    squeeze: Squeeze,
    measured: Option<Temperature>,
    added: (Mass, Mass),
) -> Result<Correction, InputErrors> {
    let mut checks = Checks::new();
    checks.range("added_flour_g", added.0.g(), 0.0, mix.g(), "g");
    checks.range("added_liquid_g", added.1.g(), 0.0, mix.g(), "g");
    if let Some(t) = measured {
        checks.range("dough_c", t.c(), -5.0, 45.0, "\u{b0}C");
    }
    checks.finish(())?;
    let flour = formula.role_mass(Role::Flour) * (mix / formula.total());
    let high = method.dough_between().1;
    let warm = measured.filter(|t| t.c() > high.c() + 0.5);
    let nothing = |say: Reason, reasons: Vec<Reason>| Correction {
        add: None,
        amount: Mass::new_g(0.0),
        limit: Mass::new_g(0.0),
        say,
        reasons,
    };
    if squeeze == Squeeze::Holds && feel != Feel::TooWarm {
        return Ok(nothing(Reason::LeaveIt, vec![Reason::HandfulHolds]));
    }
    if feel == Feel::TooWarm || squeeze == Squeeze::Smears || (feel == Feel::TooSticky && warm.is_some()) {
        let mut reasons = vec![Reason::WarmFat];
        if let Some(t) = measured {
            reasons.push(Reason::WarmerThanWanted { dough: t, at_most: high });
        }
        return Ok(nothing(Reason::AddNothingChill, reasons));
    }
    Ok(match feel {
        Feel::TooSticky => {
            let step = if squeeze == Squeeze::Clings { FLOUR_STEP.1 } else { FLOUR_STEP.0 };
            let limit = flour * FLOUR_LIMIT;
            let room = (limit.g() - added.0.g()).max(0.0);
            let amount = Mass::new_g((flour.g() * step).min(room).round());
            if amount.g() < 1.0 {
                return Ok(nothing(
                    Reason::NoMoreFlour,
                    vec![Reason::FlourWentIn { mass: added.0, at_most: Share::new(FLOUR_LIMIT) }],
                ));
            }
            Correction {
                add: Some(main_flour_key(formula)),
                amount,
                limit,
                say: Reason::AddFlour { mass: amount },
                reasons: vec![
                    Reason::FlourAtATime { share: Share::new(step), flour },
                    Reason::StopAt { mass: limit, share: Share::new(FLOUR_LIMIT) },
                ],
            }
        }
        Feel::DryWontGather => {
            let spoon = mix.g() * (SPOON.0 / SPOON.1);
            let step = if squeeze == Squeeze::Crumbles { 1.0 } else { 0.5 };
            let limit = Mass::new_g(spoon * SPOONS_LIMIT);
            let room = (limit.g() - added.1.g()).max(0.0);
            let amount = Mass::new_g((spoon * step).min(room).round());
            if amount.g() < 1.0 {
                return Ok(nothing(
                    Reason::NoMoreLiquid,
                    vec![Reason::LiquidWentIn { mass: added.1, spoons: SPOONS_LIMIT }],
                ));
            }
            let with = liquid_key(formula);
            Correction {
                add: Some(with),
                amount,
                limit,
                say: Reason::AddLiquid { mass: amount, with },
                reasons: vec![Reason::SpoonToDough { spoon: SPOON.0, dough: SPOON.1 }, Reason::UsualCauseOfDry],
            }
        }
        Feel::TooWarm => unreachable!("answered above"),
    })
}

fn main_flour_key(formula: &Formula) -> &'static str {
    let main = formula.main_line(Role::Flour).map(|i| formula.lines()[i].ingredient());
    // What is added by hand is one of the flours a kitchen has open; a starch is never added so.
    match main.map(|i| i.key.as_ref()) {
        Some("flour-pastry") => "flour-pastry",
        Some("flour-cake") => "flour-cake",
        Some("flour-rice") => "flour-rice",
        Some("flour-wholewheat") => "flour-wholewheat",
        Some("flour-rye") => "flour-rye",
        _ => "flour-ap",
    }
}

fn liquid_key(formula: &Formula) -> &'static str {
    if formula.kind_mass(Kind::Egg).g() > 0.0 {
        "egg"
    } else if formula
        .lines()
        .iter()
        .any(|l| l.ingredient().kind == Kind::Liquid && l.ingredient().key.starts_with("milk"))
    {
        "milk"
    } else {
        "water"
    }
}

/// What was added to mixes before, as shares of their flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Learnt {
    /// How many mixes it rests on.
    pub mixes: usize,
    /// Flour added, per cent of the flour, mean over all mixes; flour kept aside and not used counts as less.
    pub flour_percent: f64,
    /// Water of the liquid added, per cent of the flour.
    pub water_percent: f64,
}

/// One mix that was noted: its flour, the flour added or left over (negative), and the water of the liquid added.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NotedMix {
    /// Flour of the mix by formula.
    pub flour: Mass,
    /// Flour more or less, g.
    pub flour_more_g: f64,
    /// Water more, g.
    pub water_more_g: f64,
}

/// The mean of noted mixes; `None` when there are none.
#[must_use]
pub fn learn(mixes: &[NotedMix]) -> Option<Learnt> {
    if mixes.is_empty() {
        return None;
    }
    #[expect(clippy::cast_precision_loss, reason = "a handful of mixes")]
    let n = mixes.len() as f64;
    let mean = |of: &dyn Fn(&NotedMix) -> f64| mixes.iter().map(|m| 100.0 * of(m) / m.flour.g()).sum::<f64>() / n;
    Some(Learnt {
        mixes: mixes.len(),
        flour_percent: mean(&|m| m.flour_more_g),
        water_percent: mean(&|m| m.water_more_g),
    })
}

#[cfg(test)]
mod tests {
    use super::super::Pantry;
    use super::*;
    use rstest::rstest;

    fn formula() -> Formula {
        let lines = [("flour-ap", 460.0), ("butter", 225.0), ("sugar", 190.0), ("egg", 50.0)];
        Formula::new("Test", &lines.map(Into::into), Pantry::built_in()).unwrap()
    }

    fn ask(feel: Feel, squeeze: Squeeze, dough_c: Option<f64>, added: (f64, f64)) -> Correction {
        let added = (Mass::new_g(added.0), Mass::new_g(added.1));
        let measured = dough_c.map(Temperature::new_c);
        correct(&formula(), Mass::new_g(925.0), MixMethod::JustCombined, feel, squeeze, measured, added).unwrap()
    }

    // Common practice, no source: flour 1-2 % at a time; a spoon of liquid (15 g) to 600 g of dough.
    #[rstest]
    #[case(Feel::TooSticky, Squeeze::Clings, Some("flour-ap"), 9.0)]
    #[case(Feel::TooSticky, Squeeze::Cracks, Some("flour-ap"), 5.0)]
    #[case(Feel::DryWontGather, Squeeze::Crumbles, Some("egg"), 23.0)]
    #[case(Feel::DryWontGather, Squeeze::Cracks, Some("egg"), 12.0)]
    #[case(Feel::DryWontGather, Squeeze::Holds, None, 0.0)]
    #[case(Feel::TooWarm, Squeeze::Clings, None, 0.0)]
    #[case(Feel::TooSticky, Squeeze::Smears, None, 0.0)]
    fn the_hand_decides(#[case] feel: Feel, #[case] squeeze: Squeeze, #[case] add: Option<&str>, #[case] grams: f64) {
        let c = ask(feel, squeeze, None, (0.0, 0.0));
        assert_eq!((c.add, c.amount.g()), (add, grams), "{c:?}");
        assert!(!c.reasons.is_empty());
    }

    #[test]
    fn warm_dough_is_never_given_flour() {
        let c = ask(Feel::TooSticky, Squeeze::Clings, Some(24.5), (0.0, 0.0));
        assert!(c.add.is_none() && c.say == Reason::AddNothingChill, "{c:?}");
        assert!(ask(Feel::TooSticky, Squeeze::Clings, Some(21.0), (0.0, 0.0)).add.is_some());
    }

    #[test]
    fn there_is_a_limit_and_what_went_in_counts() {
        assert_eq!(ask(Feel::TooSticky, Squeeze::Clings, None, (23.0, 0.0)).amount.g(), 5.0);
        assert!(ask(Feel::TooSticky, Squeeze::Clings, None, (28.0, 0.0)).add.is_none());
        assert_eq!(ask(Feel::DryWontGather, Squeeze::Crumbles, None, (0.0, 70.0)).say, Reason::NoMoreLiquid);
        let bad = (Mass::new_g(-1.0), Mass::new_g(0.0));
        let mix = Mass::new_g(925.0);
        assert!(correct(&formula(), mix, MixMethod::RubbedIn, Feel::TooWarm, Squeeze::Holds, None, bad).is_err());
    }

    #[test]
    fn mixes_teach_their_mean() {
        assert_eq!(learn(&[]), None);
        let mix = |more, water| NotedMix { flour: Mass::new_g(400.0), flour_more_g: more, water_more_g: water };
        let learnt = learn(&[mix(8.0, 0.0), mix(16.0, 4.0)]).unwrap();
        assert_eq!((learnt.mixes, learnt.flour_percent, learnt.water_percent), (2, 3.0, 0.5));
    }
}
