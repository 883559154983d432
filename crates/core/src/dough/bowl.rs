//! The correction at the bowl: what the hand says, what to add, and when to stop adding. Common practice, no source.

use super::ingredient::{Kind, Role};
use super::{Formula, MixMethod, MixPlan, Pantry, Reason};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Mass, Share, Temperature};
use serde::{Deserialize, Serialize};

/// What is wrong with the dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Feel {
    /// It sticks.
    TooSticky,
    /// It is dry and will not gather.
    DryWontGather,
    /// It is warm, shiny, slack.
    TooWarm,
}

/// What a squeezed handful does.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
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

/// A dough as it feels at the bowl.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = BowlRequest)]
pub struct BowlQuestion {
    /// Which mix, from 1.
    pub mix: u32,
    /// How it feels.
    pub feel: Feel,
    /// What a squeezed handful does.
    pub squeeze: Squeeze,
    /// The dough, where it was measured, -5 to 45.
    #[serde(default)]
    pub dough_c: Option<f64>,
}

/// What to add to a mix that feels so, to which `added` went before.
///
/// Fails, naming the field, when there is no such mix, its temperature is none of a dough, or what was added before is negative or
/// more than the mix.
pub fn correct(
    mixes: &MixPlan,
    method: MixMethod,
    question: &BowlQuestion,
    added: Added,
) -> Result<Correction, InputErrors> {
    let (formula, mix) = (&mixes.formula, mixes.each);
    let BowlQuestion { feel, squeeze, .. } = *question;
    let mut checks = Checks::new();
    check_mix(&mut checks, question.mix, mixes);
    checks.range("added_flour_g", added.flour.g(), 0.0, mix.g(), "g");
    checks.range("added_liquid_g", added.liquid.g(), 0.0, mix.g(), "g");
    check_dough(&mut checks, question.dough_c);
    checks.finish(())?;
    let measured = question.dough_c.map(Temperature::new_c);
    let flour = flour_of_a_mix(mixes);
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
            let room = (limit.g() - added.flour.g()).max(0.0);
            let amount = Mass::new_g((flour.g() * step).min(room).round());
            if amount.g() < 1.0 {
                return Ok(nothing(
                    Reason::NoMoreFlour,
                    vec![Reason::FlourWentIn { mass: added.flour, at_most: Share::new(FLOUR_LIMIT) }],
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
            let room = (limit.g() - added.liquid.g()).max(0.0);
            let amount = Mass::new_g((spoon * step).min(room).round());
            if amount.g() < 1.0 {
                return Ok(nothing(
                    Reason::NoMoreLiquid,
                    vec![Reason::LiquidWentIn { mass: added.liquid, spoons: SPOONS_LIMIT }],
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
pub struct MixesLearnt {
    /// How many mixes it rests on.
    pub mixes: usize,
    /// Flour added, per cent of the flour, mean over all mixes; flour kept aside and not used counts as less.
    pub flour_percent: f64,
    /// Water of the liquid added, per cent of the flour.
    pub water_percent: f64,
}

/// What was done at the bowl.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = MixNoteBody)]
pub struct BowlNote {
    /// Which mix of the job, from 1.
    pub mix: u32,
    /// How it felt.
    pub feel: Feel,
    /// What a squeezed handful did.
    pub squeeze: Squeeze,
    /// Key of what was added.
    #[serde(default)]
    pub ingredient: Option<String>,
    /// How much of it, 0 to the mass of the mix.
    #[serde(default)]
    pub added_g: f64,
    /// Of the flour kept aside, what was left over, 0 to the mass of the mix.
    #[serde(default)]
    pub left_over_g: f64,
    /// The dough, where it was measured, -5 to 45.
    #[serde(default)]
    pub dough_c: Option<f64>,
}

impl BowlNote {
    /// Fails, naming the field, when there is no such mix, more went in than it weighs, its temperature is none of a dough, or what was
    /// added is not in the pantry.
    pub fn check(&self, mixes: &MixPlan, pantry: &Pantry) -> Result<(), InputErrors> {
        let most = mixes.each.g().max(1.0);
        let mut checks = Checks::new();
        check_mix(&mut checks, self.mix, mixes);
        checks.range("added_g", self.added_g, 0.0, most, "g");
        checks.range("left_over_g", self.left_over_g, 0.0, most, "g");
        check_dough(&mut checks, self.dough_c);
        if self.ingredient.as_deref().is_some_and(|key| pantry.get(key).is_none()) {
            checks.push(InputError::refused(
                "ingredient",
                "That isn’t in your pantry. Add it, or pick another ingredient.",
            ));
        }
        checks.finish(())
    }

    fn is_flour(&self, pantry: &Pantry) -> bool {
        self.ingredient.as_deref().is_some_and(|key| is_flour(key, pantry))
    }
}

fn is_flour(key: &str, pantry: &Pantry) -> bool {
    pantry.get(key).is_some_and(|i| i.role() == Role::Flour)
}

fn check_mix(checks: &mut Checks, mix: u32, mixes: &MixPlan) {
    checks.range("mix", f64::from(mix), 1.0, f64::from(mixes.count), "batches");
}

fn check_dough(checks: &mut Checks, dough_c: Option<f64>) {
    if let Some(c) = dough_c {
        checks.range("dough_c", c, -5.0, 45.0, "\u{b0}C");
    }
}

/// Flour of one mix, by the formula.
#[must_use]
pub fn flour_of_a_mix(mixes: &MixPlan) -> Mass {
    mixes.formula.role_mass(Role::Flour) * (mixes.each / mixes.formula.total())
}

/// What went into a mix by hand.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Added {
    /// Flour.
    pub flour: Mass,
    /// Anything else.
    pub liquid: Mass,
}

impl Added {
    /// By the notes on the mix numbered `mix`.
    #[must_use]
    pub fn to<'a>(mix: u32, notes: impl IntoIterator<Item = &'a BowlNote>, pantry: &Pantry) -> Self {
        let (mut flour_g, mut liquid_g) = (0.0, 0.0);
        for note in notes.into_iter().filter(|n| n.mix == mix) {
            if note.is_flour(pantry) { flour_g += note.added_g } else { liquid_g += note.added_g }
        }
        Self { flour: Mass::new_g(flour_g), liquid: Mass::new_g(liquid_g) }
    }

    /// Of the kind that is to be added now.
    #[must_use]
    pub fn like(&self, key: &str, pantry: &Pantry) -> Mass {
        if is_flour(key, pantry) { self.flour } else { self.liquid }
    }
}

/// Notes as mixes: several notes on one mix of a job are one mix. Each note with its job and the flour of its mix by formula.
#[must_use]
pub fn noted_mixes<'a>(notes: impl IntoIterator<Item = (i64, Mass, &'a BowlNote)>, pantry: &Pantry) -> Vec<NotedMix> {
    let mut mixes: Vec<((i64, u32), NotedMix)> = Vec::new();
    for (job, flour, note) in notes {
        let key = (job, note.mix);
        let at = mixes.iter().position(|m| m.0 == key).unwrap_or_else(|| {
            mixes.push((key, NotedMix { flour, flour_more_g: 0.0, water_more_g: 0.0 }));
            mixes.len() - 1
        });
        let mix = &mut mixes[at].1;
        mix.flour_more_g -= note.left_over_g;
        if note.is_flour(pantry) {
            mix.flour_more_g += note.added_g;
        } else if let Some(liquid) = note.ingredient.as_deref().and_then(|key| pantry.get(key)) {
            mix.water_more_g += note.added_g * liquid.analysis.water / 100.0;
        }
    }
    mixes.into_iter().map(|m| m.1).collect()
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
pub fn learn(mixes: &[NotedMix]) -> Option<MixesLearnt> {
    if mixes.is_empty() {
        return None;
    }
    #[expect(clippy::cast_precision_loss, reason = "a handful of mixes")]
    let n = mixes.len() as f64;
    let mean = |of: &dyn Fn(&NotedMix) -> f64| mixes.iter().map(|m| 100.0 * of(m) / m.flour.g()).sum::<f64>() / n;
    Some(MixesLearnt {
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

    fn mixes() -> MixPlan {
        let (weights, reasons, warnings) = (vec![], vec![], vec![]);
        MixPlan { count: 2, each: Mass::new_g(925.0), weights, formula: formula(), reasons, warnings }
    }

    fn ask(feel: Feel, squeeze: Squeeze, dough_c: Option<f64>, added: (f64, f64)) -> Correction {
        let added = Added { flour: Mass::new_g(added.0), liquid: Mass::new_g(added.1) };
        correct(&mixes(), MixMethod::JustCombined, &BowlQuestion { mix: 1, feel, squeeze, dough_c }, added).unwrap()
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
        let sure = BowlQuestion { mix: 1, feel: Feel::TooWarm, squeeze: Squeeze::Holds, dough_c: None };
        let none = Added { flour: Mass::new_g(0.0), liquid: Mass::new_g(0.0) };
        let ask = |question, added| correct(&mixes(), MixMethod::RubbedIn, &question, added);
        assert!(ask(sure, none).is_ok() && ask(sure, Added { flour: Mass::new_g(-1.0), ..none }).is_err());
        let field = |question| ask(question, none).unwrap_err().all()[0].field().to_owned();
        assert_eq!(field(BowlQuestion { mix: 3, ..sure }), "mix");
        assert_eq!(field(BowlQuestion { dough_c: Some(60.0), ..sure }), "dough_c");
    }

    fn note(mix: u32, ingredient: Option<&str>, added_g: f64, left_over_g: f64) -> BowlNote {
        let (feel, squeeze) = (Feel::TooSticky, Squeeze::Clings);
        BowlNote { mix, feel, squeeze, ingredient: ingredient.map(str::to_owned), added_g, left_over_g, dough_c: None }
    }

    #[test]
    fn a_note_names_what_cannot_be() {
        let check = |note: BowlNote| note.check(&mixes(), Pantry::built_in());
        assert!(check(note(2, Some("flour-ap"), 12.0, 3.0)).is_ok());
        let faults = check(note(3, Some("kelp"), 926.0, -1.0)).unwrap_err();
        let fields: Vec<_> = faults.all().iter().map(|f| f.field()).collect();
        assert_eq!(fields, ["mix", "added_g", "left_over_g", "ingredient"]);
    }

    #[test]
    fn notes_on_one_mix_of_a_job_are_one_mix() {
        let flour = Mass::new_g(400.0);
        let all = [
            (1, flour, &note(1, Some("flour-ap"), 8.0, 0.0)),
            (1, flour, &note(1, Some("milk"), 100.0, 2.0)),
            (1, flour, &note(2, None, 0.0, 5.0)),
            (2, flour, &note(1, Some("water"), 4.0, 0.0)),
        ];
        let pantry = Pantry::built_in();
        let mixes = noted_mixes(all, pantry);
        let found: Vec<_> = mixes.iter().map(|m| (m.flour_more_g, m.water_more_g)).collect();
        // By hand; milk is the water of its analysis.
        let milk = pantry.get("milk").unwrap().analysis.water;
        assert_eq!(found, [(6.0, milk), (-5.0, 0.0), (0.0, 4.0)]);
        let added = Added::to(1, all[..3].iter().map(|n| n.2), pantry);
        assert_eq!((added.flour.g(), added.liquid.g()), (8.0, 100.0));
        assert_eq!((added.like("flour-rye", pantry).g(), added.like("egg", pantry).g()), (8.0, 100.0));
    }

    #[test]
    fn mixes_teach_their_mean() {
        assert_eq!(learn(&[]), None);
        let mix = |more, water| NotedMix { flour: Mass::new_g(400.0), flour_more_g: more, water_more_g: water };
        let learnt = learn(&[mix(8.0, 0.0), mix(16.0, 4.0)]).unwrap();
        assert_eq!((learnt.mixes, learnt.flour_percent, learnt.water_percent), (2, 3.0, 0.5));
    }
}
