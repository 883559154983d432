//! What a formula is: where it sits among the schools, its balance, and how it will handle, spread, brown and bite.
//!
//! Thresholds are common practice, no source; the effects on spread are calibrated to common practice. Every judgement
//! comes with its reasons.

use super::browning::browning;
use super::component::rolled_density;
use super::ingredient::{Kind, Role};
use super::judgement::Judgement;
use super::reason::{BalancePart, Bite, Browning, Difference, Handling, Reason, SpreadCause};
use super::school::{SCHOOLS, School, Standing};
use super::standing::standing_of;
use super::stiffness::packing;
use super::strength::{gluten_percent, leavening};
use super::texture::{Texture, texture};
use super::warnings::warnings;
use super::{FatKind, Formula, MixMethod, Ratio};
use crate::units::{Density, Share};

/// Shares of the dough's mass.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Balance {
    /// Water, with the alcohol of spirits.
    pub water: Share,
    /// Fat of all ingredients.
    pub fat: Share,
    /// Sugars of all ingredients.
    pub sugar: Share,
    /// Starch of all ingredients.
    pub starch: Share,
    /// Protein of all ingredients.
    pub protein: Share,
    /// Fibre and ash.
    pub rest: Share,
}

/// How far a formula spreads by common practice, before size, oven and chill have their say.
#[derive(Debug, Clone, PartialEq)]
pub struct SpreadTendency {
    /// Least and most growth across, of the width as cut.
    pub range: (Share, Share),
    /// Why.
    pub reasons: Vec<Reason>,
}

/// What a formula is.
#[derive(Debug, Clone, PartialEq)]
pub struct Character {
    /// Butter : sugar : flour.
    pub ratio: Ratio,
    /// The same with cocoa, starch and ground nuts as flour, by which it is placed among the schools.
    pub placed: Ratio,
    /// Where it stands.
    pub standing: Standing,
    /// Where it sits among the schools.
    pub school: Reason,
    /// What it is made of.
    pub balance: Balance,
    /// As rolled, with its air.
    pub density: Density,
    /// Firm, right, soft or pipeable at working temperature.
    pub handling: Judgement<Handling>,
    /// How fast it colours.
    pub browning: Judgement<Browning>,
    /// How it bites.
    pub tenderness: Judgement<Bite>,
    /// The kind that most of its fat is of.
    pub main_fat: Option<FatKind>,
    /// Cocoa, of the dough.
    pub cocoa: Share,
    /// Protein of wheat, rye and barley over all flour, per cent.
    pub gluten_percent: f64,
    /// What to mind.
    pub warnings: Vec<Reason>,
}

/// Flour (with cocoa, and half of meals) over butter and sugar against the least and most spread in per cent of chilled pieces of 6 mm: dropped and
/// sweet doughs, sweet and rich, the usual cut-out, a drier one, dry ones. Common practice, no source; the bands of the rows in docs/oven.md.
const SPREAD_BY_DRYNESS: [(f64, f64, f64); 6] =
    [(0.5, 25.0, 70.0), (0.68, 6.0, 24.0), (0.9, 2.0, 8.0), (1.0, 1.5, 7.0), (1.25, 0.8, 5.0), (1.5, 0.3, 4.0)];
// Effects on spread as exponents. Calibrated to common practice for a soft cut-out that spreads 3.6 %: all its sugar powdered makes it 2.6, a
// tenth of its flour starch 3.0, 5 g more water 4.1, 0.76 % baking powder 5.8, 0.5 % soda 9.7.
const POWDERED: f64 = -0.33;
const STARCH: f64 = -2.0;
const WATER: f64 = 9.6;
const USUAL_WATER: f64 = 0.14;
const POWDER_A_PERCENT: f64 = 0.63;
const SODA_A_PERCENT: f64 = 2.0;
/// Fat of butter, of its mass (USDA FoodData Central, SR Legacy, from memory).
const BUTTER_FAT: f64 = 0.811;

/// How far the formula spreads by common practice.
#[must_use]
pub fn spread_tendency(formula: &Formula) -> SpreadTendency {
    let flour = formula.role_mass(Role::Flour).g();
    let dry = flour + formula.kind_mass(Kind::Cocoa).g() + 0.5 * formula.kind_mass(Kind::Meal).g();
    let sugar = formula.role_mass(Role::Sugar).g();
    // Fats count by the fat they hold, as butter that holds as much: shortening is not less of it for want of water.
    let as_butter = formula.grams_of(|i| if i.role() == Role::Fat { i.analysis.fat } else { 0.0 }) / BUTTER_FAT;
    let dryness = dry / (as_butter + sugar);
    let (low, high) = between(&SPREAD_BY_DRYNESS, dryness);
    let mut reasons = vec![Reason::BalanceSpreads {
        flour_to_rest: dryness,
        range: (Share::new(low / 100.0), Share::new(high / 100.0)),
    }];
    let powdered = if sugar > 0.0 { formula.mass_of("sugar-powdered").g() / sugar } else { 0.0 };
    let starch = formula.kind_mass(Kind::Starch).g() / flour;
    let water = formula.composition().water();
    let (powder, soda) = leavening(formula);
    let mut exponent = 0.0;
    let mut changes = |effect: f64, cause: SpreadCause| {
        exponent += effect;
        if effect.abs() >= 0.03 {
            reasons.push(Reason::SpreadChanged { cause, by: Share::new(effect.exp() - 1.0) });
        }
    };
    changes(POWDERED * powdered, SpreadCause::PowderedSugar(Share::new(powdered)));
    changes(STARCH * starch, SpreadCause::Starch(Share::new(starch)));
    let moisture = Share::new(water);
    let liquid = if water > USUAL_WATER { SpreadCause::Wet(moisture) } else { SpreadCause::Dry(moisture) };
    changes((WATER * (water - USUAL_WATER)).clamp(-0.3, 0.3), liquid);
    changes(POWDER_A_PERCENT * powder.min(2.0), SpreadCause::Powder(Share::new(powder / 100.0)));
    changes(SODA_A_PERCENT * soda.min(0.8), SpreadCause::Soda(Share::new(soda / 100.0)));
    let factor = exponent.clamp(-0.9, 1.1).exp();
    SpreadTendency { range: (Share::new(low * factor / 100.0), Share::new(high * factor / 100.0)), reasons }
}

impl Character {
    /// What the formula is.
    #[must_use]
    pub fn of(formula: &Formula) -> Self {
        let composition = formula.composition();
        let sugar = composition.sugars().unwrap_or(0.0);
        let balance = Balance {
            water: Share::new(composition.water()),
            fat: Share::new(composition.fat()),
            sugar: Share::new(sugar),
            starch: Share::new(composition.carbohydrate() - sugar),
            protein: Share::new(composition.protein()),
            rest: Share::new(
                1.0 - composition.water() - composition.fat() - composition.carbohydrate() - composition.protein(),
            ),
        };
        let handling = handling(formula);
        let standing = standing_of(formula.ratio_with_dry(), handling.verdict);
        Self {
            ratio: formula.ratio(),
            placed: formula.ratio_with_dry(),
            standing,
            school: place_among_schools(formula, standing),
            balance,
            density: rolled_density(&composition, MixMethod::JustCombined),
            handling,
            browning: browning(formula),
            tenderness: tenderness(formula),
            cocoa: Share::new(formula.kind_mass(Kind::Cocoa) / formula.total()),
            gluten_percent: gluten_percent(formula),
            main_fat: composition.fats().iter().max_by(|a, b| a.1.total_cmp(&b.1)).map(|f| f.0),
            warnings: warnings(formula),
        }
    }

    /// How this dough differs from a neighbour, the largest differences first.
    #[must_use]
    pub fn beside(&self, neighbour: &Self) -> Vec<Difference> {
        let mut found: Vec<(f64, Difference)> = Vec::new();
        for (part, own, other) in [
            (BalancePart::Water, self.balance.water, neighbour.balance.water),
            (BalancePart::Fat, self.balance.fat, neighbour.balance.fat),
            (BalancePart::Sugar, self.balance.sugar, neighbour.balance.sugar),
            (BalancePart::DrySolids, dry(&self.balance), dry(&neighbour.balance)),
        ] {
            let points = 100.0 * (own.value() - other.value());
            if points.abs() >= 0.75 {
                found.push((points.abs(), Difference::Part(part, Share::new(points / 100.0))));
            }
        }
        if let (Some(own), Some(other)) = (self.main_fat, neighbour.main_fat)
            && own != other
        {
            found.push((5.0, Difference::MainFat(own, other)));
        }
        let cocoa = self.cocoa.value() - neighbour.cocoa.value();
        if cocoa.abs() >= 0.005 {
            found.push((4.0, Difference::Cocoa(Share::new(cocoa))));
        }
        if (self.gluten_percent - neighbour.gluten_percent).abs() >= 0.4 {
            let share = |c: &Self| Share::new(c.gluten_percent / 100.0);
            found.push((0.8, Difference::Strength(share(self), share(neighbour))));
        }
        let judged = [
            (self.handling.verdict != neighbour.handling.verdict)
                .then_some(Difference::Handling(self.handling.verdict, neighbour.handling.verdict)),
            (self.browning.verdict != neighbour.browning.verdict)
                .then_some(Difference::Browning(self.browning.verdict, neighbour.browning.verdict)),
            (self.tenderness.verdict != neighbour.tenderness.verdict)
                .then_some(Difference::Bite(self.tenderness.verdict, neighbour.tenderness.verdict)),
        ];
        found.extend(judged.into_iter().flatten().map(|d| (0.7, d)));
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        if found.is_empty() {
            return vec![Difference::None];
        }
        found.into_iter().map(|(_, difference)| difference).collect()
    }

    /// How far apart two doughs are: the root of the squared differences of their shares, in points of the dough's mass.
    #[must_use]
    pub fn distance(&self, other: &Self) -> f64 {
        let (a, b) = (&self.balance, &other.balance);
        [(a.water, b.water), (a.fat, b.fat), (a.sugar, b.sugar), (a.starch, b.starch), (a.protein, b.protein)]
            .iter()
            .map(|(x, y)| (100.0 * (x.value() - y.value())).powi(2))
            .sum::<f64>()
            .sqrt()
    }
}

/// Which of the others is nearest to a formula by what they are made of; `None` when there are none.
pub fn nearest_to<'a>(own: &Formula, others: impl Iterator<Item = &'a Formula>) -> Option<usize> {
    let own = Character::of(own);
    let away = others.map(|other| own.distance(&Character::of(other)));
    away.enumerate().min_by(|a, b| a.1.total_cmp(&b.1)).map(|(i, _)| i)
}

/// Starch, protein, fibre and ash: what flour, cocoa and meals bring.
fn dry(balance: &Balance) -> Share {
    Share::new(balance.starch.value() + balance.protein.value() + balance.rest.value())
}

fn place_among_schools(formula: &Formula, standing: Standing) -> Reason {
    let ratio = formula.ratio_with_dry();
    let away =
        |s: &School| ((s.sugar / ratio.sugar.max(0.05)).ln().powi(2) + (s.flour / ratio.flour).ln().powi(2)).sqrt();
    let nearest = SCHOOLS.iter().min_by(|a, b| away(a).total_cmp(&away(b))).expect("there are schools");
    Reason::AmongSchools {
        nearest: *nearest,
        standing,
        more_flour: Share::new(ratio.flour_over_rest() / nearest.ratio().flour_over_rest() - 1.0),
        to_the_letter: away(nearest) < 0.12,
    }
}

// Packing from which a dough is firm, right for rolling, soft: what is rolled and cut every day is never called too soft for it. Common practice, no
// source; the doughs of tests/data/practice_rows.json.
const FIRM: f64 = 0.83;
const RIGHT: f64 = 0.69;
const SOFT: f64 = 0.60;

fn handling(formula: &Formula) -> Judgement<Handling> {
    let packed = packing(formula);
    let verdict = match packed {
        p if p >= FIRM => Handling::Firm,
        p if p >= RIGHT => Handling::Right,
        p if p >= SOFT => Handling::Soft,
        _ => Handling::Pipeable,
    };
    let mut reasons = vec![Reason::Packed { handling: verdict, packing: Share::new(packed) }];
    let water = formula.grams_of(|i| if i.role() == Role::Flour { 0.0 } else { i.analysis.water })
        / formula.role_mass(Role::Flour).g();
    reasons.push(Reason::WaterToFlour { water: Share::new(water) });
    let liquid: f64 = formula.composition().fats().iter().filter(|f| f.0 == FatKind::Liquid).map(|f| f.1).sum();
    if liquid > 0.25 {
        reasons.push(Reason::FatStaysLiquid { share: Share::new(liquid) });
    }
    Judgement { verdict, level: ((0.92 - packed) / 0.40).clamp(0.0, 1.0), reasons }
}

fn tenderness(formula: &Formula) -> Judgement<Bite> {
    let flour = formula.role_mass(Role::Flour).g();
    let fat = 100.0 * formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { i.analysis.fat }) / flour;
    let gluten = gluten_percent(formula);
    let short = fat / (gluten / 10.0).clamp(0.4, 2.0);
    let verdict = match short {
        s if s < 26.0 => Bite::Firm,
        s if s < 42.0 => Bite::Snaps,
        s if s < 58.0 => Bite::Tender,
        _ => Bite::VeryShort,
    };
    let sugar = 100.0 * formula.role_mass(Role::Sugar).g() / flour;
    let reasons = vec![
        Reason::FatToFlour { fat: Share::new(fat / 100.0) },
        Reason::Toughens { protein: Share::new(gluten / 100.0) },
        match texture(formula) {
            Texture::Crisp if sugar > 45.0 => Reason::CrispBySugar { sugar: Share::new(sugar / 100.0) },
            texture => Reason::Eats { texture },
        },
    ];
    Judgement { verdict, level: (short / 80.0).clamp(0.0, 1.0), reasons }
}

/// Linear in a table of (x, y, z), its ends held beyond it.
pub(crate) fn between(table: &[(f64, f64, f64)], x: f64) -> (f64, f64) {
    let (first, last) = (table[0], table[table.len() - 1]);
    if x <= first.0 {
        return (first.1, first.2);
    }
    for pair in table.windows(2) {
        if x <= pair[1].0 {
            let along = (x - pair[0].0) / (pair[1].0 - pair[0].0);
            return (pair[0].1 + along * (pair[1].1 - pair[0].1), pair[0].2 + along * (pair[1].2 - pair[0].2));
        }
    }
    (last.1, last.2)
}

#[cfg(test)]
mod tests {
    use super::super::{LineInput, Pantry};
    use super::*;
    use rstest::rstest;

    fn formula(lines: &[(&str, f64)]) -> Formula {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in()).unwrap()
    }

    fn of(lines: &[(&str, f64)]) -> Character {
        Character::of(&formula(lines))
    }

    const SOFT: [(&str, f64); 4] = [("flour-ap", 170.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0)];

    #[test]
    fn the_nearest_is_the_one_made_of_most_alike() {
        let shelf = [&[("flour-ap", 300.0), ("butter", 100.0)][..], &SOFT, &[("flour-ap", 90.0), ("butter", 200.0)]];
        let shelf = shelf.map(formula);
        let own = formula(&[("flour-ap", 172.0), ("butter", 101.0), ("sugar", 90.0), ("egg", 20.0)]);
        assert_eq!(nearest_to(&own, shelf.iter()), Some(1));
        assert_eq!(nearest_to(&own, std::iter::empty()), None);
    }

    fn with(more: &[(&str, f64)]) -> f64 {
        let mut lines = SOFT.to_vec();
        for (key, g) in more {
            match lines.iter_mut().find(|l| l.0 == *key) {
                Some(line) => line.1 += g,
                None => lines.push((*key, *g)),
            }
        }
        let range = spread_tendency(&formula(&lines)).range;
        f64::midpoint(range.0.value(), range.1.value())
    }

    // Facts of the trade: common practice, no source.
    #[rstest]
    #[case(&[("flour-ap", 25.0)], false)]
    #[case(&[("sugar", 18.0)], true)]
    #[case(&[("butter", 20.0)], true)]
    #[case(&[("water", 5.0)], true)]
    #[case(&[("egg", 22.0)], true)]
    #[case(&[("sugar", -45.0), ("sugar-powdered", 45.0)], false)]
    #[case(&[("flour-ap", -17.0), ("cornstarch", 17.0)], false)]
    #[case(&[("baking-powder", 2.0)], true)]
    #[case(&[("baking-soda", 1.0)], true)]
    fn spread_answers_as_the_trade_says(#[case] more: &[(&str, f64)], #[case] up: bool) {
        let (before, after) = (with(&[]), with(more));
        assert!((after > before) == up && (after - before).abs() > 1e-4, "{before} -> {after}");
    }

    #[rstest]
    #[case("1 : 1 : 3", Handling::Right)]
    #[case("1 : 2 : 3", Handling::Right)]
    #[case("1 : 1 : 2", Handling::Right)]
    #[case("1 : \u{bd} : 1\u{bd}", Handling::Right)]
    #[case("1 : 1.3 : 1.5", Handling::Right)]
    fn schools_handle_as_they_are_known(#[case] name: &str, #[case] handling: Handling) {
        let school = SCHOOLS.iter().find(|s| s.name == name).unwrap();
        let character = Character::of(&school.formula());
        assert_eq!(character.handling.verdict, handling);
        let Reason::AmongSchools { nearest, to_the_letter, .. } = character.school else { panic!("{character:?}") };
        assert!(nearest.name == name && to_the_letter);
    }

    #[test]
    fn the_balance_is_a_whole() {
        let b = of(&SOFT).balance;
        let whole: f64 = [b.water, b.fat, b.sugar, b.starch, b.protein, b.rest].iter().map(|s| s.value()).sum();
        assert!((whole - 1.0).abs() < 1e-9);
    }

    #[test]
    fn honey_browns_fast_and_a_lean_dough_stays_pale() {
        let honey = of(&[("flour-ap", 280.0), ("butter", 200.0), ("sugar", 60.0), ("honey", 90.0), ("egg", 40.0)]);
        assert_eq!(honey.browning.verdict, Browning::Fast);
        let lean = of(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 40.0)]);
        assert_eq!(lean.browning.verdict, Browning::StaysPale);
        assert!(honey.browning.level > lean.browning.level);
    }

    #[rstest]
    #[case(&[("flour-ap", 300.0), ("butter-salted", 150.0), ("sugar", 100.0), ("salt", 3.0)], |w: &Reason| matches!(w, Reason::FatBringsSalt { added, .. } if added.g() == 3.0))]
    #[case(&[("cornstarch", 200.0), ("flour-rice", 100.0), ("butter", 150.0), ("sugar", 100.0)], |w: &Reason| matches!(w, Reason::LittleStrength { .. }))]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("colour-liquid", 5.0)], |w: &Reason| *w == Reason::LiquidColour)]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("baking-powder", 12.0)], |w: &Reason| matches!(w, Reason::MuchPowder { powder, .. } if (powder.value() - 0.04).abs() < 1e-9))]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("baking-soda", 8.0)], |w: &Reason| matches!(w, Reason::MuchSoda { .. }))]
    #[case(&[("flour-ap", 200.0), ("butter", 150.0), ("sugar", 260.0)], |w: &Reason| matches!(w, Reason::MoreSugarThanFlour { .. }))]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("salt", 12.0)], |w: &Reason| matches!(w, Reason::Salty { .. }))]
    fn what_will_go_wrong_is_said(#[case] lines: &[(&str, f64)], #[case] says: fn(&Reason) -> bool) {
        let found = of(lines).warnings;
        assert!(found.iter().any(says), "{found:?}");
        assert!(of(&SOFT).warnings.is_empty());
    }

    #[test]
    fn a_neighbour_is_compared_by_what_differs_most() {
        let own = of(&SOFT);
        let dry = of(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0)]);
        let found = own.beside(&dry);
        assert!(matches!(found[0], Difference::Part(BalancePart::DrySolids, less) if less.value() < 0.0), "{found:?}");
        assert!(own.distance(&dry) > 5.0 && own.distance(&own) == 0.0);
        assert_eq!(own.beside(&own), [Difference::None]);
        let dark = of(&[("flour-ap", 150.0), ("cocoa", 20.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0)]);
        let found = dark.beside(&own);
        // 20 g of 382 g.
        assert!(
            found.iter().any(|d| matches!(d, Difference::Cocoa(c) if (c.value() - 0.0524).abs() < 1e-4)),
            "{found:?}"
        );
        let weak = of(&[("flour-ap", 120.0), ("cornstarch", 50.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0)]);
        assert!(weak.beside(&own).iter().any(|d| matches!(d, Difference::Strength(weak, own) if weak < own)));
    }
}
