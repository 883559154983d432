//! Recipe lines of wide variety, each with the grams it should weigh. Household weights: USDA FoodData Central, SR Legacy
//! (from memory), as listed in the pantry's own checks; units: NIST Handbook 44, Appendix C. Worked by hand.

use crate::reading::{line, line_with, read, read_with, weighs};
use proptest::prelude::*;
use ready_slab_core::dough::{CupWay, EggClass, Formula, LineInput, Pantry};
use ready_slab_core::recipe::{
    CupSystem, LineAnswer, LineDoubt, LineKind, ReadSettings, RecipeFormat, read_recipe, write_csv, write_json,
    write_json_ld, write_text,
};
use rstest::rstest;

#[rstest]
// Weights, plain.
#[case("430 g all-purpose flour", "flour-ap", 430.0)]
#[case("225g butter", "butter", 225.0)]
#[case("225 g unsalted butter, softened", "butter", 225.0)]
#[case("0.5 kg caster sugar", "sugar-caster", 500.0)]
#[case("8 oz butter", "butter", 226.8)]
#[case("1 lb flour", "flour-ap", 453.6)]
#[case("1 lb 4 oz plain flour", "flour-ap", 567.0)]
#[case("3,5 g fine salt", "salt", 3.5)]
#[case("7,5 g baking powder", "baking-powder", 7.5)]
#[case("100 grams of icing sugar", "sugar-powdered", 100.0)]
#[case("250 gr rye flour", "flour-rye", 250.0)]
#[case("\u{2022} 60 g honey", "honey", 60.0)]
#[case("- 30 g cornstarch", "cornstarch", 30.0)]
#[case("3) 200 g sugar", "sugar", 200.0)]
#[case("\u{2610} 55 g cocoa powder, sifted", "cocoa", 55.0)]
// Cups, mixed numbers, fractions.
#[case("2 cups all-purpose flour", "flour-ap", 250.0)]
#[case("2 1/4 cups flour", "flour-ap", 281.25)]
#[case("2\u{bc} cups flour", "flour-ap", 281.25)]
#[case("2-1/4 cups flour", "flour-ap", 281.25)]
#[case("\u{2153} cup honey", "honey", 113.0)]
#[case("1/3 cup cornstarch", "cornstarch", 42.7)]
#[case("3/4 cup granulated sugar", "sugar", 150.0)]
#[case("1 cup packed brown sugar", "sugar-brown", 220.0)]
#[case("1 cup brown sugar, firmly packed", "sugar-brown", 220.0)]
#[case("1/2 cup light brown sugar", "sugar-brown", 110.0)]
#[case("1 cup confectioners' sugar", "sugar-powdered", 120.0)]
#[case("1 cup sifted powdered sugar", "sugar-powdered", 110.0)]
#[case("1 c. butter", "butter", 227.0)]
#[case("half a cup of sugar", "sugar", 100.0)]
#[case("a cup of milk", "milk", 244.0)]
#[case("one and a half cups flour", "flour-ap", 187.5)]
#[case("three quarters of a cup of sugar", "sugar", 150.0)]
#[case("1.5 cups rolled oats", "oats", 121.5)]
#[case("1 cup chopped walnuts", "walnut", 117.0)]
#[case("1 cup walnuts, toasted, cooled and chopped", "walnut", 117.0)]
#[case("1/2 cup unsweetened cocoa powder", "cocoa", 43.0)]
#[case("1 cup whole milk", "milk", 244.0)]
#[case("1 cup shortening", "shortening", 205.0)]
// Sums and differences.
#[case("1 cup + 2 tbsp flour", "flour-ap", 140.625)]
#[case("1 cup plus 2 tablespoons all-purpose flour", "flour-ap", 140.625)]
#[case("1 cup and 2 tablespoons flour", "flour-ap", 140.625)]
#[case("1 cup minus 1 tbsp flour", "flour-ap", 117.2)]
#[case("1/2 cup & 1 tbsp sugar", "sugar", 112.6)]
#[case("2 & 1/4 cups AP flour", "flour-ap", 281.25)]
#[case("1 and 1/2 cups flour", "flour-ap", 187.5)]
#[case("2 x 125 g butter", "butter", 250.0)]
#[case("1 cup cake flour (not self-rising)", "flour-cake", 114.0)]
#[case("1 cup semi-sweet chocolate chips", "chocolate", 168.0)]
#[case("1/4 cup powdered milk", "milk-powder", 32.0)]
// Spoons.
#[case("1 tsp salt", "salt", 6.0)]
#[case("1/2 tsp. fine sea salt", "salt", 3.0)]
#[case("1 t baking soda", "baking-soda", 4.6)]
#[case("1 T cocoa", "cocoa", 5.4)]
#[case("2 teaspoons vanilla extract", "vanilla", 8.4)]
#[case("1 Tbsp. honey", "honey", 21.0)]
#[case("1 tablespoon lemon zest", "lemon-zest", 6.0)]
#[case("1 tsp bicarbonate of soda", "baking-soda", 4.6)]
#[case("\u{bd} tsp baking powder", "baking-powder", 2.3)]
#[case("1 tsp kosher salt", "salt-flaky", 3.0)]
#[case("a pinch of salt", "salt", 0.375)]
#[case("pinch of salt", "salt", 0.375)]
#[case("2 dashes cinnamon", "cinnamon", 0.65)]
#[case("10 drops almond extract", "almond-extract", 0.426)]
// Sticks, pieces, eggs.
#[case("1 stick butter", "butter", 113.4)]
#[case("2 sticks (8 oz) unsalted butter, at room temperature", "butter", 226.8)]
#[case("2 (4-ounce) sticks butter", "butter", 226.8)]
#[case("8 tablespoons (1 stick) cold butter, cut into cubes", "butter", 113.5)]
#[case("1 large egg, room temperature", "egg", 50.0)]
#[case("1 egg", "egg", 50.0)]
#[case("2 large eggs, lightly beaten", "egg", 100.0)]
#[case("1 medium egg", "egg", 44.0)]
#[case("1 extra-large egg", "egg", 56.0)]
#[case("1 lg egg", "egg", 50.0)]
#[case("1 x large egg", "egg", 50.0)]
#[case("2 med. eggs", "egg", 88.0)]
#[case("2 egg yolks", "yolk", 34.0)]
#[case("3 large egg whites", "white", 99.0)]
#[case("yolks of 2 eggs", "yolk", 34.0)]
#[case("1 (50 g) egg", "egg", 50.0)]
#[case("a dozen eggs", "egg", 600.0)]
// Fruit by its parts.
#[case("zest of 1 lemon", "lemon-zest", 6.0)]
#[case("finely grated zest of 2 lemons", "lemon-zest", 12.0)]
#[case("juice of half a lemon", "lemon-juice", 22.5)]
#[case("1 lemon, zested", "lemon-zest", 6.0)]
// Both ways given.
#[case("2 cups (250 g) flour", "flour-ap", 250.0)]
#[case("2 cups (8.8 oz/250 g) flour", "flour-ap", 250.0)]
#[case("8 oz (230 g) butter", "butter", 230.0)]
#[case("225g/8oz butter", "butter", 225.0)]
#[case("225 g (8 oz) butter", "butter", 225.0)]
#[case("1 cup (150 g) flour", "flour-ap", 150.0)]
#[case("1/2 cup (115 g) butter, softened", "butter", 115.0)]
#[case("60 ml (1/4 cup) milk", "milk", 61.9)]
#[case("200 g or 1 cup sugar", "sugar", 200.0)]
// Ranges and about.
#[case("2-3 tbsp milk", "milk", 38.3)]
#[case("2 to 3 tablespoons milk", "milk", 38.3)]
#[case("1 1/2 - 2 cups flour", "flour-ap", 218.75)]
#[case("about 2 cups flour", "flour-ap", 250.0)]
#[case("~100 g sugar", "sugar", 100.0)]
// Amount at the end, names turned round.
#[case("Flour: 430 g", "flour-ap", 430.0)]
#[case("Butter - 225g", "butter", 225.0)]
#[case("Eggs x 2", "egg", 100.0)]
#[case("Caster sugar 190 g, sifted", "sugar-caster", 190.0)]
#[case("butter, unsalted, 225 g", "butter", 225.0)]
#[case("2 cups flour, all-purpose", "flour-ap", 250.0)]
#[case("1 cup sugar, brown, packed", "sugar-brown", 220.0)]
// Notes that change nothing.
#[case("3 cups flour, plus more for dusting", "flour-ap", 375.0)]
#[case("200 g sugar, divided", "sugar", 200.0)]
#[case("1 tsp vanilla extract (optional)", "vanilla", 4.2)]
#[case("100 g dark chocolate (at least 60% cocoa), chopped", "chocolate", 100.0)]
fn a_line_weighs_what_it_says(#[case] text: &str, #[case] key: &str, #[case] grams: f64) {
    weighs(text, key, grams, 0.002);
}

#[rstest]
#[case("a knob of butter", LineDoubt::NoAmount, Some("butter"))]
#[case("knob of butter", LineDoubt::NoAmount, Some("butter"))]
#[case("a handful of walnuts", LineDoubt::NoAmount, Some("walnut"))]
#[case("salt, to taste", LineDoubt::NoAmount, Some("salt"))]
#[case("butter", LineDoubt::NoAmount, Some("butter"))]
#[case("2 flour", LineDoubt::NoAmount, Some("flour-ap"))]
#[case("1 packet baking powder", LineDoubt::NoWeight, Some("baking-powder"))]
#[case("1,200 g flour", LineDoubt::TwoNumbers, Some("flour-ap"))]
#[case("1 cup (400 g) flour", LineDoubt::Disagrees, Some("flour-ap"))]
#[case("225g/10oz butter", LineDoubt::Disagrees, Some("butter"))]
#[case("2 tbsp moon butter", LineDoubt::StrangeWord, Some("butter"))]
#[case("200 g moon dust", LineDoubt::UnknownIngredient, None)]
#[case("200 g buter", LineDoubt::UnknownIngredient, None)]
#[case("\u{5c0f}\u{9ea6}\u{7c89} 200 g", LineDoubt::UnknownIngredient, None)]
#[case("200 \u{433} \u{43c}\u{443}\u{43a}\u{438}", LineDoubt::UnknownIngredient, None)]
#[case("salt and pepper 3 g", LineDoubt::TwoThings, Some("salt"))]
#[case("100 g butter or margarine", LineDoubt::TwoThings, None)]
#[case("zest and juice of 1 lemon", LineDoubt::TwoThings, None)]
#[case("1 lemon", LineDoubt::StrangeWord, None)]
#[case("1 whole egg plus one white", LineDoubt::TwoThings, None)]
#[case("1 cup butter, 2 cups flour", LineDoubt::TwoThings, None)]
#[case("1 egg, 2 yolks", LineDoubt::TwoThings, None)]
#[case("1 cup light cream", LineDoubt::StrangeWord, Some("cream"))]
#[case("1 cup corn flour", LineDoubt::TwoThings, Some("cornstarch"))]
#[case("2 tsp fresh ginger", LineDoubt::StrangeWord, Some("ginger"))]
#[case("100 g raw sugar", LineDoubt::StrangeWord, Some("sugar"))]
#[case("1 tsp vanilla powder", LineDoubt::StrangeWord, Some("vanilla"))]
#[case("100 g unsweetened chocolate", LineDoubt::StrangeWord, Some("chocolate"))]
#[case("1 cup coconut milk", LineDoubt::StrangeWord, None)]
#[case("a little milk", LineDoubt::NoAmount, Some("milk"))]
#[case("0 g flour", LineDoubt::NoAmount, Some("flour-ap"))]
#[case("999999999 kg flour", LineDoubt::Unlikely, Some("flour-ap"))]
fn what_is_ambiguous_asks_and_is_never_weighed(
    #[case] text: &str,
    #[case] doubt: LineDoubt,
    #[case] key: Option<&str>,
) {
    let found = line(text);
    let question = found
        .question
        .clone()
        .unwrap_or_else(|| panic!("{text} asks nothing: {:?} {:?}", found.ingredient, found.mass));
    assert!(
        question.doubt == doubt || doubt == LineDoubt::StrangeWord && question.doubt == LineDoubt::UnknownIngredient,
        "{text}: {question:?}"
    );
    if let Some(key) = key {
        assert_eq!(found.ingredient.unwrap().key, key);
    }
    assert_eq!(found.confidence, 0.0);
    assert!(read(&format!("Ingredients\n{text}")).known().is_empty());
}

#[test]
fn a_misspelt_name_is_offered_and_not_taken() {
    let question = line("200 g buter").question.unwrap();
    assert!(question.options.iter().any(|o| o.answer.ingredient.as_deref() == Some("butter")), "{question:?}");
}

#[test]
fn how_the_cup_is_filled_moves_the_grams_visibly() {
    let cup =
        |way| line_with("2 cups flour", &ReadSettings { way, ..ReadSettings::default() }).mass.unwrap().g().round();
    assert_eq!((cup(CupWay::Sifted), cup(CupWay::Spooned), cup(CupWay::Scooped)), (230.0, 250.0, 300.0));
    // Sugar does not care.
    let sugar = |way| line_with("1 cup sugar", &ReadSettings { way, ..ReadSettings::default() }).mass;
    assert_eq!(sugar(CupWay::Sifted), sugar(CupWay::Scooped));
}

#[test]
fn cups_and_eggs_follow_the_country() {
    let metric = ReadSettings { cups: CupSystem::Metric, eggs: EggClass::EuMedium, ..ReadSettings::default() };
    // 250 mL over 236.588 mL of 125 g.
    assert!((line_with("1 cup flour", &metric).mass.unwrap().g() - 132.1).abs() < 0.05);
    assert_eq!(line_with("1 egg", &metric).mass.unwrap().g(), 51.0);
    assert_eq!(line_with("1 large egg", &metric).mass.unwrap().g(), 60.0);
    let australian = ReadSettings { cups: CupSystem::Australian, ..ReadSettings::default() };
    assert!((line_with("1 tbsp honey", &australian).mass.unwrap().g() - 28.4).abs() < 0.05);
    assert!((line_with("1 metric cup milk", &ReadSettings::default()).mass.unwrap().g() - 257.8).abs() < 0.1);
}

const MESSY: &str = "Grandmother's harbour biscuits
Makes about 4 dozen

INGREDIENTS
2 1/4 cups (280 g) all-purpose flour, plus more for dusting
1 cup unsalted butter, softened
\u{be} cup granulated sugar
1 large egg, room temperature
a knob of butter
1,200 g cornstarch
\u{bd} tsp salt

For the icing:
2 cups powdered sugar
2 tbsp milk

Method
1. Cream the butter and sugar.
2. Bake 10 minutes at 350F.";

#[test]
fn a_messy_recipe_is_sorted_and_settled() {
    let reading = read(MESSY);
    assert_eq!(reading.title.as_deref(), Some("Grandmother's harbour biscuits"));
    assert_eq!(reading.yields.as_deref(), Some("Makes about 4 dozen"));
    assert_eq!((reading.open(), reading.known().len(), reading.steps.len()), (2, 5, 2));
    assert!(reading.formula("Harbour", Pantry::built_in()).unwrap_err().to_string().contains("still has a question"));
    let left =
        reading.lines.iter().filter(|l| matches!(&l.kind, LineKind::Ingredient(u) if u.left_out.is_some())).count();
    assert_eq!(left, 2);
    let settled = [
        LineAnswer { line: 9, leave_out: true, ..LineAnswer::default() },
        LineAnswer { line: 10, grams: Some(12.0), ..LineAnswer::default() },
    ];
    let reading = read_with(MESSY, &ReadSettings::default(), &settled);
    assert_eq!(reading.open(), 0);
    let formula = reading.formula("Harbour", Pantry::built_in()).unwrap();
    assert_eq!((formula.mass_of("flour-ap").g(), formula.mass_of("cornstarch").g()), (280.0, 12.0));
    assert_eq!(formula.lines()[0].note(), "");
}

#[test]
fn ten_kilograms_of_baking_soda_ask_at_their_line_and_the_rest_is_kept() {
    let text = "Ingredients\n300 g flour\n150 g butter\n10 kg baking soda\n100 g sugar";
    let reading = read(text);
    assert_eq!((reading.open(), reading.known().len()), (1, 3));
    let asks: Vec<usize> = reading
        .lines
        .iter()
        .filter(|l| matches!(&l.kind, LineKind::Ingredient(u) if u.question.is_some()))
        .map(|l| l.number)
        .collect();
    assert_eq!(asks, [4]);
    let sure = [LineAnswer { line: 4, as_read: true, ..LineAnswer::default() }];
    assert_eq!(read_with(text, &ReadSettings::default(), &sure).open(), 0);
}

#[test]
fn four_hundred_lines_are_read_as_far_as_the_limit_and_it_is_said() {
    let text = format!("Ingredients\n{}", "1 g salt\n".repeat(400));
    let reading = read(&text);
    assert_eq!(reading.lines.len(), 200);
    assert!(reading.faults[0].to_string().contains("of 401 lines"), "{:?}", reading.faults);
}

#[test]
fn what_is_no_recipe_is_refused_with_what_would_be_read() {
    let refused =
        |text: &str| read_recipe(text, Pantry::built_in(), &ReadSettings::default(), &[]).unwrap_err().to_string();
    assert!(refused("   \n ").contains("Add a recipe"));
    assert!(refused(&"x".repeat(5_000_000)).contains("200 kB at most"));
    assert!(refused("{\"a\": ").contains("can’t be read"));
    assert!(refused("{\"a\": 1}").contains("recipeIngredient"));
    assert!(refused("<html><body>No recipe</body></html>").contains("paste them as text"));
    assert!(
        refused("{\"format\": \"ready-slab-formula\", \"version\": 7, \"name\": \"x\", \"lines\": []}")
            .contains("version 7")
    );
}

#[test]
fn a_page_gives_its_recipe_and_none_of_its_scripts() {
    let page = r#"<!doctype html><html><head><script>alert("1 kg salt")</script>
<script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":"WebPage"},
{"@type":["Recipe","Thing"],"name":"Gulls &amp; buoys","recipeYield":["24","24 pieces"],
"recipeIngredient":["2 cups flour","1 cup <b>butter</b>","&frac12; cup sugar<script>steal()<\/script>"],
"recipeInstructions":[{"@type":"HowToSection","itemListElement":[{"@type":"HowToStep","text":"Mix."}]}]}]}</script>
</head><body><p>5 kg flour</p></body></html>"#;
    let (format, reading) = read_recipe(page, Pantry::built_in(), &ReadSettings::default(), &[]).unwrap();
    assert_eq!(format, RecipeFormat::Html);
    assert_eq!(reading.title.as_deref(), Some("Gulls & buoys"));
    assert_eq!(reading.steps, ["Mix."]);
    let formula = reading.formula("Gulls", Pantry::built_in()).unwrap();
    assert_eq!((formula.total().g(), formula.mass_of("sugar").g()), (577.0, 100.0));
}

#[test]
fn tables_are_read_by_their_columns_with_comma_semicolon_or_tab() {
    for text in [
        "ingredient,amount,unit,note\nflour,2,cups,\n\"butter, unsalted\",225,g,soft\nsugar,100,g,",
        "Name;Amount;Unit\nFlour;2;cups\nUnsalted butter;225;g\nSugar;100;g",
        "item\tqty\tunit\nflour\t2\tcups\nbutter\t225\tg\nsugar\t100\tg",
    ] {
        let (format, reading) = read_recipe(text, Pantry::built_in(), &ReadSettings::default(), &[]).unwrap();
        assert_eq!((format, reading.open()), (RecipeFormat::Csv, 0), "{reading:?}");
        assert_eq!(reading.formula("Spreadsheet (CSV)", Pantry::built_in()).unwrap().total().g(), 575.0);
    }
}

/// A formula of any ingredients with any weights.
fn any_formula() -> impl Strategy<Value = Formula> {
    let count = Pantry::built_in().all().len();
    let line =
        (0..count, 1u32..200_000, prop_oneof![Just(""), Just("toasted, cooled"), Just("softened"), Just("sifted")]);
    (prop::collection::vec(line, 0..12), "[A-Z][a-z]{2,9}( [a-z]{2,9}){0,2}").prop_map(|(lines, name)| {
        let mut all: Vec<LineInput> = vec![("flour-ap", 300.0).into(), ("butter", 150.0).into()];
        for (i, hundredths, note) in lines {
            let key = Pantry::built_in().all()[i].key.to_string();
            all.push(LineInput { ingredient: key, grams: f64::from(hundredths) / 100.0, note: note.to_owned() });
        }
        Formula::new(&name, &all, Pantry::built_in()).unwrap()
    })
}

fn as_read(text: &str) -> Formula {
    let reading = read(text);
    // What was written by us may hold unlikely weights; it is right as it is read.
    let sure: Vec<LineAnswer> =
        reading.lines.iter().map(|l| LineAnswer { line: l.number, as_read: true, ..LineAnswer::default() }).collect();
    let reading = read_with(text, &ReadSettings::default(), &sure);
    let name = reading.title.clone().unwrap_or_else(|| "Nameless".to_owned());
    reading.formula(&name, Pantry::built_in()).unwrap_or_else(|e| panic!("{e}\n{text}"))
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    #[test]
    fn what_is_written_reads_back_the_same(formula in any_formula()) {
        let steps = vec!["Mix it.".to_owned(), "Chill it.".to_owned()];
        for text in [write_text(&formula, &steps), write_json_ld(&formula, &steps), write_json(&formula)] {
            prop_assert_eq!(&as_read(&text), &formula, "{}", text);
        }
        // A table has no name; its lines are the same.
        let table = as_read(&write_csv(&formula));
        prop_assert_eq!(table.lines(), formula.lines());
    }

    #[test]
    fn any_text_is_read_without_a_panic_and_nothing_is_invented(text in "(?s).{0,300}") {
        if let Ok((_, reading)) = read_recipe(&text, Pantry::built_in(), &ReadSettings::default(), &[]) {
            for line in reading.known() {
                prop_assert!(line.grams > 0.0 && line.grams <= 200_000.0);
            }
        }
    }

    #[test]
    fn kitchen_like_text_never_yields_grams_that_no_number_of_it_allows(
        words in prop::collection::vec(prop_oneof![
            Just("1"), Just("2 1/2"), Just("\u{bd}"), Just("3-4"), Just("1,5"), Just("1,200"), Just("cup"), Just("cups"), Just("tbsp"),
            Just("g"), Just("kg"), Just("oz"), Just("flour"), Just("butter"), Just("egg yolk"), Just("("), Just(")"), Just("+"),
            Just("/"), Just(","), Just("of"), Just("plus"), Just("minus"), Just("or"), Just("a"), Just("knob"), Just("zest"), Just("lemon"),
        ], 0..12)
    ) {
        let text = format!("Ingredients\n{}", words.join(" "));
        let reading = read(&text);
        let has_number = words.iter().any(|w| w.chars().any(|c| c.is_ascii_digit() || c == '\u{bd}') || *w == "a")
            // `cup of flour` is one cup.
            || words.windows(2).any(|w| matches!(w[0], "cup" | "cups" | "tbsp") && w[1] == "of");
        for line in reading.known() {
            prop_assert!(has_number, "{text}: {line:?}");
            prop_assert!(line.grams > 0.0);
        }
    }

    #[test]
    fn the_two_systems_of_units_agree(grams in 5.0f64..2000.0) {
        // NIST Handbook 44: an ounce is 28.349523125 g.
        let metric = line(&format!("{grams:.3} g flour")).mass.unwrap().g();
        let us = line(&format!("{:.6} oz flour", grams / 28.349_523_125)).mass.unwrap().g();
        prop_assert!((metric - us).abs() < 0.01, "{metric} {us}");
    }
}
