//! Recipe lines in five languages, each with the grams it should weigh. Spoons of 15 and 5 mL and what a packet holds: from memory, as
//! cookbooks have them; household weights as the pantry has them (USDA FoodData Central, SR Legacy, from memory). Worked by hand.

use crate::reading::{line, read, weighs};
use ready_slab_core::dough::Pantry;
use rstest::rstest;

#[rstest]
// German.
#[case("300 g Mehl", "flour-ap", 300.0)]
#[case("300g Weizenmehl Type 405", "flour-ap", 300.0)]
#[case("200 g weiche Butter", "butter", 200.0)]
#[case("100 g Zucker", "sugar", 100.0)]
#[case("80 g Puderzucker", "sugar-powdered", 80.0)]
#[case("1 Ei", "egg", 50.0)]
#[case("2 Eier", "egg", 100.0)]
#[case("2 Eigelb", "yolk", 34.0)]
#[case("1 Prise Salz", "salt", 0.37)]
#[case("eine Prise Salz", "salt", 0.37)]
#[case("1 Pck. Backpulver", "baking-powder", 15.0)]
#[case("1 Päckchen Vanillezucker", "sugar-vanilla", 8.0)]
#[case("2 EL Milch", "milk", 31.0)]
#[case("1 TL Zimt", "cinnamon", 2.64)]
#[case("50 g gemahlene Mandeln", "almond-meal", 50.0)]
#[case("100 g gemahlene Haselnüsse", "hazelnut-meal", 100.0)]
#[case("2 EL Honig", "honey", 42.6)]
#[case("50 g Speisestärke", "cornstarch", 50.0)]
#[case("250 g Roggenmehl", "flour-rye", 250.0)]
#[case("100 g Haferflocken", "oats", 100.0)]
#[case("40 g Backkakao", "cocoa", 40.0)]
#[case("1 TL Natron", "baking-soda", 4.67)]
#[case("3 EL Zitronensaft", "lemon-juice", 46.5)]
// French.
#[case("250 g de farine", "flour-ap", 250.0)]
#[case("250 g de farine de blé T45", "flour-ap", 250.0)]
#[case("125 g de beurre doux", "butter", 125.0)]
#[case("125 g de beurre demi-sel", "butter-salted", 125.0)]
#[case("100 g de sucre en poudre", "sugar", 100.0)]
#[case("80 g de sucre glace", "sugar-powdered", 80.0)]
#[case("1 œuf", "egg", 50.0)]
#[case("2 jaunes d'œufs", "yolk", 34.0)]
#[case("1 pincée de sel", "salt", 0.37)]
#[case("une pincée de sel", "salt", 0.37)]
#[case("2 c. à s. de lait", "milk", 31.0)]
#[case("1 cuillère à café de cannelle", "cinnamon", 2.64)]
#[case("1 sachet de sucre vanillé", "sugar-vanilla", 7.5)]
#[case("1 sachet de levure chimique", "baking-powder", 11.0)]
#[case("100 g de poudre d'amandes", "almond-meal", 100.0)]
#[case("50 g de fécule de maïs", "cornstarch", 50.0)]
#[case("3 cuillères à soupe de miel", "honey", 64.0)]
// Spanish.
#[case("300 g de harina de trigo", "flour-ap", 300.0)]
#[case("150 g de mantequilla", "butter", 150.0)]
#[case("100 g de azúcar", "sugar", 100.0)]
#[case("100 g de azúcar glas", "sugar-powdered", 100.0)]
#[case("1 huevo", "egg", 50.0)]
#[case("2 yemas de huevo", "yolk", 34.0)]
#[case("1 pizca de sal", "salt", 0.37)]
#[case("1 cdta de canela", "cinnamon", 2.64)]
#[case("2 cucharadas de leche", "milk", 31.0)]
#[case("50 g de maicena", "cornstarch", 50.0)]
#[case("100 g de almendra molida", "almond-meal", 100.0)]
#[case("150 g de manteca de cerdo", "lard", 150.0)]
// Italian.
#[case("300 g di farina 00", "flour-ap", 300.0)]
#[case("150 g di burro", "butter", 150.0)]
#[case("120 g di zucchero a velo", "sugar-powdered", 120.0)]
#[case("100 g di zucchero", "sugar", 100.0)]
#[case("2 tuorli", "yolk", 34.0)]
#[case("1 uovo", "egg", 50.0)]
#[case("un pizzico di sale", "salt", 0.37)]
#[case("1 bustina di lievito per dolci", "baking-powder", 16.0)]
#[case("1 cucchiaino di cannella", "cinnamon", 2.64)]
#[case("2 cucchiai di miele", "honey", 42.6)]
#[case("50 g di amido di mais", "cornstarch", 50.0)]
#[case("80 g di farina di mandorle", "almond-meal", 80.0)]
// Dutch.
#[case("300 g bloem", "flour-ap", 300.0)]
#[case("200 g roomboter", "butter", 200.0)]
#[case("100 g suiker", "sugar", 100.0)]
#[case("100 g poedersuiker", "sugar-powdered", 100.0)]
#[case("1 ei", "egg", 50.0)]
#[case("2 eieren", "egg", 100.0)]
#[case("1 snufje zout", "salt", 0.37)]
#[case("1 el melk", "milk", 15.5)]
#[case("1 tl kaneel", "cinnamon", 2.64)]
#[case("50 g maïzena", "cornstarch", 50.0)]
#[case("1 zakje vanillesuiker", "sugar-vanilla", 8.0)]
#[case("200 g zelfrijzend bakmeel", "flour-self-raising", 200.0)]
fn a_line_of_another_language_weighs_what_it_says(#[case] text: &str, #[case] key: &str, #[case] grams: f64) {
    weighs(text, key, grams, 0.02);
}

/// Two things go by these names, or their amount says nothing: each is asked, none is guessed.
#[rstest]
#[case("100 g de cassonade")]
#[case("100 g basterdsuiker")]
#[case("1 bustina di lievito")]
#[case("200 g Weizenmehl Type 1050")]
#[case("1 sachet de levure")]
#[case("etwas Milch")]
#[case("2 Tassen Zucker")]
fn what_reads_two_ways_asks(#[case] text: &str) {
    let found = line(text);
    assert!(found.question.is_some(), "{text}: {found:?}");
}

#[test]
fn a_whole_german_recipe_is_read_with_its_headings() {
    let text = "Zutaten\n300 g Mehl\n200 g Butter\n100 g Zucker\n1 Ei\n1 Prise Salz\nZubereitung\nAlles verkneten und kalt stellen.";
    let reading = read(text);
    assert_eq!((reading.open(), reading.steps.len()), (0, 1), "{reading:?}");
    let formula = reading.formula("Mürbeteig", Pantry::built_in()).unwrap();
    let ratio = reading.ratio(Pantry::built_in()).unwrap();
    // The 1-2-3 of shortcrust: one of sugar, two of butter, three of flour.
    assert!((ratio.sugar - 0.5).abs() < 1e-9 && (ratio.flour - 1.5).abs() < 1e-9);
    assert_eq!(formula.lines().len(), 5);
}

#[test]
fn english_lines_stay_as_they_are() {
    // Words that are something else elsewhere: lard is bacon in French.
    for (text, key) in [("100 g lard", "lard"), ("200 g butter", "butter"), ("1 large egg", "egg")] {
        assert_eq!(line(text).ingredient.unwrap().key.as_ref(), key, "{text}");
    }
}
