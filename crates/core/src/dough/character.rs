//! What a formula is: where it sits among the schools, its balance, and how it will handle, spread, brown and bite.
//!
//! Thresholds are common practice, no source; the effects on spread are calibrated to common practice. Every judgement
//! comes with its reasons.

use super::browning::browning;
use super::component::rolled_density;
use super::ingredient::{Kind, Role};
use super::judgement::Judgement;
use super::stiffness::packing;
use super::strength::{gluten_percent, leavening};
use super::texture::{Texture, texture};
use super::warnings::warnings;
use super::{FatKind, Formula, LineInput, MixMethod, Pantry, Ratio};
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
    pub reasons: Vec<String>,
}

/// A balance that practitioners name.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct School {
    /// Its ratio as it is said.
    pub name: &'static str,
    /// Sugar over butter.
    pub sugar: f64,
    /// Flour over butter.
    pub flour: f64,
    /// What it is known for.
    pub known_for: &'static str,
}

/// The schools by butter : sugar : flour. Common practice, no source.
pub const SCHOOLS: [School; 4] = [
    School { name: "1 : 1 : 3", sugar: 1.0, flour: 3.0, known_for: "holds its shape and its detail" },
    School { name: "1 : 2 : 3", sugar: 2.0, flour: 3.0, known_for: "sweet and crisp" },
    School { name: "1 : 1 : 2", sugar: 1.0, flour: 2.0, known_for: "soft and rich" },
    School { name: "1 : 1\u{bd} : 1\u{bd}", sugar: 1.5, flour: 1.5, known_for: "sweet and rich" },
];

/// What a formula is.
#[derive(Debug, Clone, PartialEq)]
pub struct Character {
    /// Butter : sugar : flour.
    pub ratio: Ratio,
    /// Where it sits, in words.
    pub school: String,
    /// What it is made of.
    pub balance: Balance,
    /// As rolled, with its air.
    pub density: Density,
    /// Firm, right, soft or pipeable at working temperature.
    pub handling: Judgement,
    /// How fast it colours.
    pub browning: Judgement,
    /// How it bites.
    pub tenderness: Judgement,
    /// The kind that most of its fat is of.
    pub main_fat: Option<FatKind>,
    /// Cocoa, of the dough.
    pub cocoa: Share,
    /// Protein of wheat, rye and barley over all flour, per cent.
    pub gluten_percent: f64,
    /// What to mind.
    pub warnings: Vec<String>,
}

/// Flour (with cocoa, and half of meals) over butter and sugar against the least and most spread in per cent of chilled pieces of 6 mm: dropped and
/// sweet doughs, sweet and rich, a soft cut-out, 1:1:2, a firm cut-out, 1:1:3. Common practice, no source; the bands of the rows in
/// docs/oven.md.
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
    let mut reasons = vec![format!(
        "Flour is {dryness:.2} of butter and sugar together; by common practice doughs of that balance spread {low:.0} to {high:.0} %."
    )];
    let powdered = if sugar > 0.0 { formula.mass_of("sugar-powdered").g() / sugar } else { 0.0 };
    let starch = formula.kind_mass(Kind::Starch).g() / flour;
    let water = formula.composition().water();
    let (powder, soda) = leavening(formula);
    let mut exponent = 0.0;
    let mut say = |effect: f64, what: String| {
        exponent += effect;
        if effect.abs() >= 0.03 {
            let change = 100.0 * (effect.exp() - 1.0);
            let word = if change < 0.0 { "less" } else { "more" };
            reasons.push(format!("{what}: {:.0} % {word} of that.", change.abs()));
        }
    };
    say(
        POWDERED * powdered,
        format!("{:.0} % of the sugar is powdered, which dissolves at once and stiffens", 100.0 * powdered),
    );
    say(STARCH * starch, format!("{:.0} % of the flour is starch, which binds more water", 100.0 * starch));
    let liquid = if water > USUAL_WATER { "wetter than usual" } else { "drier than usual" };
    say(
        (WATER * (water - USUAL_WATER)).clamp(-0.3, 0.3),
        format!("Water is {:.0} % of the dough, {liquid}", 100.0 * water),
    );
    say(POWDER_A_PERCENT * powder.min(2.0), format!("Baking powder, {powder:.1} % of the flour, opens it up"));
    say(SODA_A_PERCENT * soda.min(0.8), format!("Baking soda, {soda:.1} % of the flour, loosens it"));
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
        Self {
            ratio: formula.ratio(),
            school: place_among_schools(formula.ratio()),
            balance,
            density: rolled_density(&composition, MixMethod::JustCombined),
            handling: handling(formula),
            browning: browning(formula),
            tenderness: tenderness(formula),
            cocoa: Share::new(formula.kind_mass(Kind::Cocoa) / formula.total()),
            gluten_percent: gluten_percent(formula),
            main_fat: composition.fats().iter().max_by(|a, b| a.1.total_cmp(&b.1)).map(|f| f.0),
            warnings: warnings(formula),
        }
    }

    /// How this dough differs from a neighbour, the largest differences first, in sentences.
    #[must_use]
    pub fn beside(&self, neighbour: &Self, name: &str) -> Vec<String> {
        let mut found: Vec<(f64, String)> = Vec::new();
        let parts: [(&str, Share, Share, &str, &str); 4] = [
            ("water", self.balance.water, neighbour.balance.water, "softer in the hand", "stiffer in the hand"),
            ("fat", self.balance.fat, neighbour.balance.fat, "shorter, and softer when warm", "firmer when warm"),
            ("sugar", self.balance.sugar, neighbour.balance.sugar, "sweeter, crisper, wider", "less sweet, less wide"),
            (
                "of flour and other dry solids",
                dry(&self.balance),
                dry(&neighbour.balance),
                "holds its edges",
                "gives its edges sooner",
            ),
        ];
        for (part, own, other, more, less) in parts {
            let points = 100.0 * (own.value() - other.value());
            if points.abs() >= 0.75 {
                let (word, means) = if points > 0.0 { ("more", more) } else { ("less", less) };
                found.push((points.abs(), format!("{:.1} points {word} {part} than {name}: {means}.", points.abs())));
            }
        }
        if let (Some(own), Some(other)) = (self.main_fat, neighbour.main_fat)
            && own != other
        {
            found.push((
                5.0,
                format!(
                    "Its fat is mostly {} here, {} there: {}. The Cold station shows between which temperatures it rolls.",
                    fat_words(own),
                    fat_words(other),
                    fat_means(own)
                ),
            ));
        }
        let cocoa = 100.0 * (self.cocoa.value() - neighbour.cocoa.value());
        if cocoa.abs() >= 0.5 {
            found.push((
                4.0,
                if cocoa > 0.0 {
                    format!("Cocoa is {cocoa:.1} points more of it than of {name}: darker, bitterer, and colour no longer tells when it is done.")
                } else {
                    format!("Cocoa is {:.1} points less of it than of {name}: paler, and colour tells more of when it is done.", -cocoa)
                },
            ));
        }
        let strength = self.gluten_percent - neighbour.gluten_percent;
        if strength.abs() >= 0.4 {
            let (word, means) = if strength > 0.0 {
                ("stronger", "it holds together better and toughens sooner")
            } else {
                ("weaker", "shorter, and it tears sooner as it is rolled")
            };
            found.push((
                0.8,
                format!(
                    "Its flour is {word}, {:.1} against {:.1} % of binding protein: {means}.",
                    self.gluten_percent, neighbour.gluten_percent
                ),
            ));
        }
        for (own, other, what) in [
            (&self.handling, &neighbour.handling, "In the hand"),
            (&self.browning, &neighbour.browning, "Colour"),
            (&self.tenderness, &neighbour.tenderness, "Bite"),
        ] {
            if own.word != other.word {
                found.push((0.7, format!("{what}: {} here, {} there.", own.word, other.word)));
            }
        }
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        if found.is_empty() {
            return vec![format!("As good as the same dough as {name}.")];
        }
        found.into_iter().map(|(_, text)| text).collect()
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

impl School {
    /// The school as a plain formula of butter, sugar and flour, to stand beside another.
    #[must_use]
    pub fn formula(&self) -> Formula {
        let lines: [LineInput; 3] =
            [("flour-ap", 100.0 * self.flour).into(), ("butter", 100.0).into(), ("sugar", 100.0 * self.sugar).into()];
        Formula::new(self.name, &lines, Pantry::built_in()).expect("the schools are sound formulas")
    }
}

/// Starch, protein, fibre and ash: what flour, cocoa and meals bring.
fn dry(balance: &Balance) -> Share {
    Share::new(balance.starch.value() + balance.protein.value() + balance.rest.value())
}

fn fat_words(kind: FatKind) -> &'static str {
    match kind {
        FatKind::Butter => "butter fat",
        FatKind::Shortening => "shortening",
        FatKind::Margarine => "margarine",
        FatKind::Lard => "lard",
        FatKind::Coconut => "coconut or cocoa fat",
        FatKind::Liquid => "oil",
    }
}

/// What a kind of fat is known for. Common practice, no source.
fn fat_means(kind: FatKind) -> &'static str {
    match kind {
        FatKind::Butter => "its own flavour, firm only over a few degrees",
        FatKind::Shortening => "workable over many degrees, no flavour of its own",
        FatKind::Margarine => "softer than butter from the fridge, workable for longer",
        FatKind::Lard => "short and flaky, a flavour of its own",
        FatKind::Coconut => "hard as board when cold, and gone soft all at once near 24 degrees",
        FatKind::Liquid => "never firm, so that it cannot be rolled in the cold",
    }
}

fn place_among_schools(ratio: Ratio) -> String {
    let away =
        |s: &School| ((s.sugar / ratio.sugar.max(0.05)).ln().powi(2) + (s.flour / ratio.flour).ln().powi(2)).sqrt();
    let nearest = SCHOOLS.iter().min_by(|a, b| away(a).total_cmp(&away(b))).expect("there are schools");
    let own = ratio.school();
    let (first, rest) = own.split_at(1);
    if away(nearest) < 0.12 {
        format!("{} to the letter: {}.", nearest.name, nearest.known_for)
    } else {
        let drier = ratio.flour_over_rest() / (nearest.flour / (1.0 + nearest.sugar)) - 1.0;
        let apart = match drier {
            d if d > 0.03 => format!("; with {:.0} % more flour to butter and sugar it is firmer than that", 100.0 * d),
            d if d < -0.03 => {
                format!("; with {:.0} % less flour to butter and sugar it is softer than that", -100.0 * d)
            }
            _ => String::new(),
        };
        let nearest_words = format!("{}, which {}", nearest.name, is_known(nearest));
        format!("{}{rest}. Nearest of the schools is {nearest_words}{apart}.", first.to_uppercase())
    }
}

fn is_known(school: &School) -> String {
    if school.known_for.starts_with("holds") { school.known_for.to_owned() } else { format!("is {}", school.known_for) }
}

fn handling(formula: &Formula) -> Judgement {
    let packed = packing(formula);
    let (word, says) = match packed {
        p if p >= 0.83 => ("firm", "it holds any edge, and cracks at the rim when it is cold or dry"),
        p if p >= 0.72 => ("right for rolling", "it rolls clean in its window and holds a cut edge"),
        p if p >= 0.63 => {
            ("soft", "it can be rolled between papers and cut when it is well chilled; as a log it is easier")
        }
        _ => ("pipeable", "so soft that it is rather piped, scooped or pressed than rolled"),
    };
    let mut reasons =
        vec![format!("Flour and the other solids fill {:.0} % of the room between the fat: {says}.", 100.0 * packed)];
    let water = 100.0 * formula.grams_of(|i| if i.role() == Role::Flour { 0.0 } else { i.analysis.water })
        / formula.role_mass(Role::Flour).g();
    reasons.push(format!("Eggs, butter and liquids bring {water:.0} g of water to 100 g of flour."));
    let liquid: f64 = formula.composition().fats().iter().filter(|f| f.0 == FatKind::Liquid).map(|f| f.1).sum();
    if liquid > 0.25 {
        reasons.push(format!(
            "{:.0} % of its fat stays liquid in the fridge: it never gets as firm as a butter dough.",
            100.0 * liquid
        ));
    }
    Judgement { word, level: ((0.92 - packed) / 0.40).clamp(0.0, 1.0), reasons }
}

fn tenderness(formula: &Formula) -> Judgement {
    let flour = formula.role_mass(Role::Flour).g();
    let fat = 100.0 * formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { i.analysis.fat }) / flour;
    let gluten = gluten_percent(formula);
    let short = fat / (gluten / 10.0).clamp(0.4, 2.0);
    let word = match short {
        s if s < 26.0 => "firm to the bite",
        s if s < 42.0 => "snaps",
        s if s < 58.0 => "tender",
        _ => "very short, breaks warm",
    };
    let mut reasons = vec![
        format!("{fat:.0} g of fat to 100 g of flour coats it and keeps it short."),
        format!("The flour has {gluten:.1} % of the protein that toughens when it is worked."),
    ];
    let texture = texture(formula);
    let sugar = 100.0 * formula.role_mass(Role::Sugar).g() / flour;
    reasons.push(match texture {
        Texture::Crisp if sugar > 45.0 => format!("Sugar is {sugar:.0} % of the flour: crisp as it cools."),
        other => format!("On the whole {} once it has cooled.", other.word()),
    });
    Judgement { word, level: (short / 80.0).clamp(0.0, 1.0), reasons }
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
    #[case("1 : 1 : 3", "firm")]
    #[case("1 : 2 : 3", "right for rolling")]
    #[case("1 : 1 : 2", "right for rolling")]
    fn schools_handle_as_they_are_known(#[case] name: &str, #[case] word: &str) {
        let school = SCHOOLS.iter().find(|s| s.name == name).unwrap();
        let character = Character::of(&school.formula());
        assert_eq!(character.handling.word, word);
        assert!(character.school.starts_with(name), "{}", character.school);
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
        assert_eq!(honey.browning.word, "browns fast");
        let lean = of(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 40.0)]);
        assert_eq!(lean.browning.word, "stays pale");
        assert!(honey.browning.level > lean.browning.level);
    }

    #[rstest]
    #[case(&[("flour-ap", 300.0), ("butter-salted", 150.0), ("sugar", 100.0), ("salt", 3.0)], "brings its own salt")]
    #[case(&[("cornstarch", 200.0), ("flour-rice", 100.0), ("butter", 150.0), ("sugar", 100.0)], "little strength")]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("colour-liquid", 5.0)], "use paste")]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("baking-powder", 12.0)], "4.0 % of the flour")]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("baking-soda", 8.0)], "soap")]
    #[case(&[("flour-ap", 200.0), ("butter", 150.0), ("sugar", 260.0)], "more sugar than flour")]
    #[case(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 100.0), ("salt", 12.0)], "tastes of salt")]
    fn what_will_go_wrong_is_said(#[case] lines: &[(&str, f64)], #[case] says: &str) {
        let found = of(lines).warnings;
        assert!(found.iter().any(|w| w.contains(says)), "{found:?}");
        assert!(of(&SOFT).warnings.is_empty());
    }

    #[test]
    fn a_neighbour_is_compared_by_what_differs_most() {
        let own = of(&SOFT);
        let dry = of(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0)]);
        let said = own.beside(&dry, "the other");
        assert!(said[0].contains("less of flour and other dry solids than the other"), "{said:?}");
        assert!(own.distance(&dry) > 5.0 && own.distance(&own) == 0.0);
        assert!(own.beside(&own, "itself")[0].contains("same dough"));
        let dark = of(&[("flour-ap", 150.0), ("cocoa", 20.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0)]);
        let said = dark.beside(&own, "before");
        assert!(said.iter().any(|s| s.contains("Cocoa is 5.2 points more")), "{said:?}");
        let weak = of(&[("flour-ap", 120.0), ("cornstarch", 50.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0)]);
        assert!(weak.beside(&own, "before").iter().any(|s| s.contains("flour is weaker")));
    }
}
