//! Scaling: to a mass, by a factor, to what is on hand; into mixes within the mixer; to weights that a scale can read.

use super::household::{Beside, EggClass, Spoons};
use super::ingredient::{Kind, Role};
use super::levers::Lever;
use super::reason::Reason;
use super::{Formula, Ingredient, Pantry};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Density, Mass, Share};
use std::sync::Arc;

/// The most mixes one job may take (our own choice; above it the job is refused upstream).
const MOST_MIXES: u32 = 500;
/// Share of the bowl that a stiff dough may fill, so that the paddle lifts it and flour stays in. Common practice, no source.
const BOWL_FILL: f64 = 0.5;
/// From this multiple of the written formula in one bowl the trade warns. Common practice, no source.
const TRIPLED: f64 = 2.75;
/// More dough than needed that is accepted so that eggs come out whole with nothing else changed (our own choice).
const MORE_FOR_WHOLE_EGGS: f64 = 0.08;
/// Below this mass the fine scale is used.
const FINE_BELOW_G: f64 = 10.0;

/// What limits one mix.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MixerLimits {
    /// Most stiff dough the motor takes.
    pub dough: Mass,
    /// The bowl, mL; unknown when absent.
    pub bowl_ml: Option<f64>,
}

impl MixerLimits {
    /// The most dough in one mix and whether the bowl, not the motor, sets it.
    #[must_use]
    pub fn most(&self, density: Density) -> (Mass, bool) {
        match self.bowl_ml.map(|ml| Mass::new_g(ml * BOWL_FILL * density.kg_m3() / 1000.0)) {
            Some(by_bowl) if by_bowl < self.dough => (by_bowl, true),
            _ => (self.dough, false),
        }
    }
}

/// How weights are rounded and what is kept aside.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WeighRules {
    /// Smallest step of the scale.
    pub step: Mass,
    /// Smallest step of the fine scale for leaveners, salt and spices; the same as `step` where there is none.
    pub fine_step: Mass,
    /// Share of the flour kept aside, to be added by feel.
    pub hold_back: Share,
    /// Eggs of this class are used whole; by weight when absent.
    pub whole_eggs: Option<EggClass>,
}

impl WeighRules {
    /// Steps of 0.01 to 50 g, 0 to 20 % of the flour kept aside.
    pub fn new(
        step_g: f64,
        fine_step_g: f64,
        hold_back_percent: f64,
        whole_eggs: Option<EggClass>,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("scale_step_g", step_g, 0.01, 50.0, "g");
        checks.range("fine_step_g", fine_step_g, 0.01, 50.0, "g");
        checks.range("hold_back_percent", hold_back_percent, 0.0, 20.0, "% of the flour");
        checks.finish(())?;
        Ok(Self {
            step: Mass::new_g(step_g),
            fine_step: Mass::new_g(fine_step_g.min(step_g)),
            hold_back: Share::new(hold_back_percent / 100.0),
            whole_eggs,
        })
    }

    /// To the gram, tenths below 10 g, nothing kept aside, eggs by weight.
    #[must_use]
    pub const fn plain() -> Self {
        Self { step: Mass::new_g(1.0), fine_step: Mass::new_g(0.1), hold_back: Share::new(0.0), whole_eggs: None }
    }
}

/// A weight to read off the scale.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighed {
    /// What is weighed.
    pub ingredient: Arc<Ingredient>,
    /// Rounded to what the scale reads, the part kept aside included.
    pub mass: Mass,
    /// Of it, kept aside to be added by feel.
    pub held_back: Mass,
    /// What is done to it first; often empty.
    pub note: String,
    /// Spoons that come near it.
    pub measure: Option<Spoons>,
    /// What comes near it without a scale.
    pub beside: Option<Beside>,
    /// Why the scale may not read it.
    pub warning: Option<Reason>,
}

/// The mixes of a dough.
#[derive(Debug, Clone, PartialEq)]
pub struct MixPlan {
    /// How many equal mixes.
    pub count: u32,
    /// Dough in each.
    pub each: Mass,
    /// What to weigh for one mix.
    pub weights: Vec<Weighed>,
    /// The formula as it is weighed: adjusted where whole eggs asked for it.
    pub formula: Formula,
    /// Why so many and so much.
    pub reasons: Vec<Reason>,
    /// What to mind.
    pub warnings: Vec<Reason>,
}

/// The fewest mixes of `limit` at most that give `dough`.
#[must_use]
pub(crate) fn mixes_of(dough: Mass, limit: Mass) -> u32 {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to 1 and the most mixes")]
    let count = (dough / limit - 1e-9).ceil().clamp(1.0, f64::from(MOST_MIXES)) as u32;
    count
}

/// Refuses more dough than one job may mix.
pub(crate) fn within_mixes(dough: Mass, limit: Mass) -> Result<(), InputError> {
    if dough / limit <= f64::from(MOST_MIXES) {
        return Ok(());
    }
    let said = format!(
        "Use at most {MOST_MIXES} batches of {:.0} g for one job. Order fewer or thinner cookies, or raise the mixer\u{2019}s limit.",
        limit.g()
    );
    Err(InputError::refused("pieces", said))
}

/// Divides `dough` into the fewest equal mixes within the mixer's limits and rounds to what the scale reads.
///
/// With whole eggs, a little more dough is made where that brings them out whole; else the nearest count is taken and
/// butter and flour change with it, so that water, fat and firmness stay.
#[must_use]
pub fn divide_into_mixes(
    formula: &Formula,
    dough: Mass,
    limits: MixerLimits,
    density: Density,
    rules: &WeighRules,
) -> MixPlan {
    let (limit, by_bowl) = limits.most(density);
    let count = mixes_of(dough, limit);
    let mut each = Mass::new_g(dough.g() / f64::from(count));
    let (mut reasons, mut warnings) = (Vec::new(), Vec::new());
    if count > 1 {
        reasons.push(Reason::EqualMixes { by_bowl, limit, count });
    }
    let mut weighed = formula.clone();
    if let Some(class) = rules.whole_eggs {
        (weighed, each) = with_whole_eggs(formula, each, limit, class, &mut reasons);
    }
    let times = each / formula.total();
    if times >= TRIPLED {
        warnings.push(Reason::MuchForOneBowl { times });
    }
    let scale = each / weighed.total();
    let main_flour = weighed.main_line(Role::Flour);
    let weights = weighed
        .lines()
        .iter()
        .enumerate()
        .map(|(i, l)| {
            let held = if Some(i) == main_flour { rules.hold_back.value() } else { 0.0 };
            weigh(l.ingredient(), l.mass() * scale, held, l.note(), rules)
        })
        .collect();
    MixPlan { count, each, weights, formula: weighed, reasons, warnings }
}

/// The formula and the mass of one mix with its eggs whole.
fn with_whole_eggs(
    formula: &Formula,
    each: Mass,
    limit: Mass,
    class: EggClass,
    reasons: &mut Vec<Reason>,
) -> (Formula, Mass) {
    let Some(line) = formula.lines().iter().find(|l| class.part(&l.ingredient().key).is_some()) else {
        return (formula.clone(), each);
    };
    let one = class.part(&line.ingredient().key).expect("found by it").g();
    let grams = line.mass().g() * (each / formula.total());
    let egg = line.ingredient().name.to_lowercase();
    let up = (grams / one - 1e-9).ceil().max(1.0);
    let more = up * one / grams;
    if more <= 1.0 + MORE_FOR_WHOLE_EGGS && each.g() * more <= limit.g() {
        if more > 1.002 {
            reasons.push(Reason::MoreForWholeEggs { more: each * (more - 1.0), egg, count: count(up), class });
        }
        return (formula.clone(), each * more);
    }
    let nearest = (grams / one).round();
    if nearest < 1.0 {
        reasons.push(Reason::LessThanHalfAnEgg { egg, mass: Mass::new_g(grams) });
        return (formula.clone(), each);
    }
    // The rest changes with the egg and with it the whole, so the target is met by a few repetitions.
    let mut target = nearest * one / (each / formula.total());
    let mut pulled = None;
    for _ in 0..12 {
        let lever = Lever::Eggs { grams: target };
        let Ok(found) = lever.pull(formula, Pantry::built_in()) else { return (formula.clone(), each) };
        let weighed = found.formula.mass_of(&line.ingredient().key).g() * (each / found.formula.total());
        target *= nearest * one / weighed;
        pulled = Some(found.formula);
    }
    reasons.push(Reason::EggsTaken {
        egg,
        count: count(nearest),
        class,
        mass: Mass::new_g(nearest * one),
        instead_of: Mass::new_g(grams),
    });
    (pulled.unwrap_or_else(|| formula.clone()), each)
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a whole number of eggs in a bowl")]
fn count(n: f64) -> u32 {
    n.max(0.0) as u32
}

fn weigh(ingredient: &Arc<Ingredient>, mass: Mass, hold_back: f64, note: &str, rules: &WeighRules) -> Weighed {
    let fine = mass.g() < FINE_BELOW_G
        || matches!(ingredient.kind, Kind::Leavener | Kind::Salt | Kind::Flavour | Kind::Colour);
    let step = if fine { rules.fine_step } else { rules.step };
    let rounded = |g: f64, step: Mass| Mass::new_g(((g / step.g()).round() * step.g() * 1e6).round() / 1e6);
    let read = rounded(mass.g(), step);
    // Whole sticks and eggs are not needed by a scale.
    let measure = match ingredient.kind {
        Kind::Egg | Kind::Fat => None,
        _ => ingredient.household.spoons(mass),
    };
    let warning = (mass.g() < step.g()).then_some(Reason::TooLittleForTheScale { mass, step, spoons: measure });
    let mass = if warning.is_some() { Mass::new_g((mass.g() * 100.0).round() / 100.0) } else { read };
    Weighed {
        ingredient: Arc::clone(ingredient),
        mass,
        held_back: rounded(mass.g() * hold_back, rules.step),
        note: note.to_owned(),
        measure,
        beside: ingredient.household.beside(mass),
        warning,
    }
}

/// By what a dough is to be sized.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = SizeRequest)]
#[serde(tag = "by", rename_all = "snake_case", deny_unknown_fields)]
pub enum SizeBy {
    /// Grams of dough, 20 to 200,000.
    Dough {
        /// Dough.
        #[serde(rename = "dough_g")]
        dough: Mass,
    },
    /// The written formula times this, 0.01 to 1,000.
    Factor {
        /// Times.
        factor: f64,
    },
    /// What is there; the scarcest sets the size.
    OnHand {
        /// Things of the formula.
        on_hand: Vec<OnHand>,
    },
}

/// Something on hand.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = OnHandBody)]
#[serde(deny_unknown_fields)]
pub struct OnHand {
    /// Key.
    pub ingredient: String,
    /// How much there is.
    #[serde(rename = "grams")]
    pub mass: Mass,
}

/// A size with what set it.
#[derive(Debug, Clone, PartialEq)]
pub struct Sized {
    /// Dough in all.
    pub dough: Mass,
    /// The written formula times this.
    pub factor: f64,
    /// What runs out first.
    pub scarce: Option<Arc<Ingredient>>,
    /// What stays over, of what was said to be on hand.
    pub over: Vec<(Arc<Ingredient>, Mass)>,
}

/// The size of a dough.
///
/// Fails, naming the field, for a dough outside 20 g to 200 kg, a factor that is not above zero, or something on hand
/// that the formula does not hold.
pub fn size_dough(formula: &Formula, by: &SizeBy) -> Result<Sized, InputErrors> {
    let total = formula.total();
    let mut checks = Checks::new();
    let (factor, scarce) = match by {
        SizeBy::Dough { dough: mass } => {
            checks.range("dough_g", mass.g(), 20.0, 200_000.0, "g");
            (*mass / total, None)
        }
        SizeBy::Factor { factor } => {
            checks.range("factor", *factor, 0.01, 1000.0, "times");
            (*factor, None)
        }
        SizeBy::OnHand { on_hand: things } => {
            let mut least: Option<(f64, Arc<Ingredient>)> = None;
            if things.is_empty() {
                checks.push(InputError::refused("on_hand", "say what is on hand, such as 340 g of butter"));
            }
            for (i, OnHand { ingredient: key, mass }) in things.iter().enumerate() {
                checks.range(&format!("on_hand[{i}].grams"), mass.g(), 0.1, 200_000.0, "g");
                let needs = formula.mass_of(key);
                let Some(line) = formula.lines().iter().find(|l| l.ingredient().key == *key) else {
                    checks.push(InputError::refused(
                        format!("on_hand[{i}].ingredient"),
                        format!(
                            "The recipe has no \u{201c}{}\u{201d}. Pick an ingredient that\u{2019}s in it.",
                            key.chars().take(40).collect::<String>()
                        ),
                    ));
                    continue;
                };
                let factor = *mass / needs;
                if least.as_ref().is_none_or(|l| factor < l.0) {
                    least = Some((factor, Arc::clone(line.ingredient())));
                }
            }
            least.map_or((0.0, None), |(factor, which)| (factor, Some(which)))
        }
    };
    checks.finish(())?;
    let over = match by {
        SizeBy::OnHand { on_hand: things } => things
            .iter()
            .filter_map(|OnHand { ingredient: key, mass }| {
                let line = formula.lines().iter().find(|l| l.ingredient().key == *key)?;
                let left = mass.g() - formula.mass_of(key).g() * factor;
                (left > 0.05).then(|| (Arc::clone(line.ingredient()), Mass::new_g(left)))
            })
            .collect(),
        SizeBy::Dough { .. } | SizeBy::Factor { .. } => vec![],
    };
    Ok(Sized { dough: total * factor, factor, scarce, over })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const DENSITY: Density = Density::new_kg_m3(1210.0);

    fn on_hand(key: &str, g: f64) -> OnHand {
        OnHand { ingredient: key.to_owned(), mass: Mass::new_g(g) }
    }

    fn formula() -> Formula {
        let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0), ("salt", 1.0)];
        Formula::new("Test", &lines.map(Into::into), Pantry::built_in()).unwrap()
    }

    fn limits(g: f64) -> MixerLimits {
        MixerLimits { dough: Mass::new_g(g), bowl_ml: None }
    }

    fn mixes(dough: f64, rules: &WeighRules) -> MixPlan {
        divide_into_mixes(&formula(), Mass::new_g(dough), limits(1200.0), DENSITY, rules)
    }

    fn grams(plan: &MixPlan, key: &str) -> f64 {
        plan.weights.iter().find(|w| w.ingredient.key == key).unwrap().mass.g()
    }

    #[test]
    fn mixes_are_equal_within_the_limit_and_the_fewest() {
        let plan = mixes(2310.0, &WeighRules::plain());
        assert_eq!((plan.count, plan.each.g()), (2, 1155.0));
        let weighed: f64 = plan.weights.iter().map(|w| w.mass.g()).sum();
        assert!((weighed - 1155.0).abs() < 3.0, "{weighed}");
        assert_eq!(grams(&plan, "salt"), 2.2);
        assert_eq!(mixes(2400.0, &WeighRules::plain()).count, 2);
    }

    #[test]
    fn a_small_bowl_limits_before_the_motor_does() {
        // 2,000 mL half full of a dough of 1.21 g/mL is 1,210 g.
        let limits = MixerLimits { dough: Mass::new_g(1500.0), bowl_ml: Some(2000.0) };
        let plan = divide_into_mixes(&formula(), Mass::new_g(1400.0), limits, DENSITY, &WeighRules::plain());
        assert_eq!(plan.count, 2);
        assert_eq!(plan.reasons[0], Reason::EqualMixes { by_bowl: true, limit: Mass::new_g(1210.0), count: 2 });
    }

    #[test]
    fn tripling_in_one_bowl_is_warned_of_and_doubling_is_not() {
        assert!(mixes(1052.0, &WeighRules::plain()).warnings.is_empty());
        let big = divide_into_mixes(&formula(), Mass::new_g(1600.0), limits(5000.0), DENSITY, &WeighRules::plain());
        assert!(
            matches!(big.warnings[0], Reason::MuchForOneBowl { times } if (times - 3.04).abs() < 0.01),
            "{:?}",
            big.warnings
        );
    }

    #[test]
    fn flour_is_kept_aside_and_small_weights_have_their_spoon() {
        let rules = WeighRules::new(1.0, 0.1, 12.0, None).unwrap();
        let plan = mixes(526.0, &rules);
        let flour = &plan.weights[0];
        assert_eq!((flour.mass.g(), flour.held_back.g()), (300.0, 36.0));
        // 1 g of salt at 6 g a teaspoon is a sixth of one: an eighth is nearest.
        assert_eq!(plan.weights[4].measure, Some(Spoons::TeaspoonEighths(1)));
        assert_eq!(plan.weights[4].warning, None);
        let coarse = WeighRules::new(5.0, 5.0, 0.0, None).unwrap();
        let plan = mixes(526.0, &coarse);
        let warning = plan.weights[4].warning.as_ref().unwrap();
        let Reason::TooLittleForTheScale { step, spoons, .. } = warning else { panic!("{warning:?}") };
        assert_eq!((step.g(), *spoons), (5.0, Some(Spoons::TeaspoonEighths(1))));
        assert_eq!(plan.weights[0].mass.g(), 300.0);
    }

    #[test]
    fn eggs_come_out_whole_with_a_little_more_dough() {
        let rules = WeighRules::new(1.0, 0.1, 0.0, Some(EggClass::UsLarge)).unwrap();
        // 1,000 g of dough hold 47.5 g of egg: one large egg is 50, 5 % more dough.
        let plan = mixes(1000.0, &rules);
        assert_eq!(grams(&plan, "egg"), 50.0);
        assert!((plan.each.g() - 1052.0).abs() < 0.5, "{:?}", plan.each);
        let Reason::MoreForWholeEggs { more, count: 1, .. } = &plan.reasons[0] else { panic!("{:?}", plan.reasons) };
        assert!((more.g() - 52.0).abs() < 0.1, "{more:?}");
    }

    #[test]
    fn where_that_is_too_much_the_rest_changes_with_the_egg() {
        let rules = WeighRules::new(1.0, 0.1, 0.0, Some(EggClass::UsLarge)).unwrap();
        // 800 g hold 38 g: one egg would be a third more dough; so the egg is 50 g, and water and fat stay.
        let plan = mixes(800.0, &rules);
        let (old, new) = (formula(), &plan.formula);
        assert_eq!(plan.each.g(), 800.0);
        assert_eq!(grams(&plan, "egg"), 50.0);
        let fat = |f: &Formula| f.grams_of(|i| i.analysis.fat) / f.total().g();
        assert!((fat(&old) - fat(new)).abs() < 0.01, "{} {}", fat(&old), fat(new));
        assert!(new.mass_of("butter") < old.mass_of("butter"));
        // 300 g hold 14 g: less than half of one.
        assert!(matches!(mixes(300.0, &rules).reasons[0], Reason::LessThanHalfAnEgg { .. }));
    }

    #[test]
    fn the_scarce_ingredient_sets_the_size() {
        let hand =
            |butter: f64, egg: f64| SizeBy::OnHand { on_hand: vec![on_hand("butter", butter), on_hand("egg", egg)] };
        // 340 g of butter would make 3.4 formulas, three large eggs six: butter is scarce and 65 g of egg stay over.
        let sized = size_dough(&formula(), &hand(340.0, 150.0)).unwrap();
        assert_eq!(sized.scarce.unwrap().key, "butter");
        assert!((sized.dough.g() - 3.4 * 526.0).abs() < 1e-9);
        assert_eq!(sized.over.len(), 1);
        assert!((sized.over[0].1.g() - 65.0).abs() < 1e-9);
        let other = size_dough(&formula(), &hand(340.0, 50.0)).unwrap();
        assert_eq!(other.scarce.unwrap().key, "egg");
    }

    #[test]
    fn what_cannot_be_scaled_to_is_named() {
        let unknown = SizeBy::OnHand { on_hand: vec![on_hand("honey", 10.0)] };
        assert!(size_dough(&formula(), &unknown).unwrap_err().to_string().contains("has no"));
        assert!(size_dough(&formula(), &SizeBy::OnHand { on_hand: vec![] }).is_err());
        assert!(
            size_dough(&formula(), &SizeBy::Factor { factor: 0.0 }).unwrap_err().to_string().contains("0.01 to 1000")
        );
        assert!(size_dough(&formula(), &SizeBy::Dough { dough: Mass::new_g(1e9) }).is_err());
    }

    proptest! {
        #[test]
        fn scaling_is_linear_and_weights_add_up(dough in 200.0f64..1190.0, times in 1.0f64..5.0) {
            let fine = WeighRules::new(0.01, 0.01, 0.0, None).unwrap();
            let wide = limits(10_000.0);
            let one = divide_into_mixes(&formula(), Mass::new_g(dough), wide, DENSITY, &fine);
            let more = divide_into_mixes(&formula(), Mass::new_g(dough * times), wide, DENSITY, &fine);
            for (a, b) in one.weights.iter().zip(&more.weights) {
                prop_assert!((a.mass.g() * times - b.mass.g()).abs() < 0.05);
            }
            let sum: f64 = one.weights.iter().map(|w| w.mass.g()).sum();
            prop_assert!((sum - dough).abs() < 0.05);
            let percents: f64 = formula().bakers_percentages().iter().map(|p| p.percent.percent()).sum();
            let total = formula().total().g();
            prop_assert!((percents - 100.0 * total / 300.0).abs() < 1e-9);
        }
    }
}
