//! Recipes as people say them: amounts in words, vague ones, corrections, what goes onto the dough and not into it, a whole recipe in
//! one breath; and ten thousand texts of a grammar of amounts, words, scripts and rubbish.

use crate::reading::{line, read, weighs};
use proptest::prelude::*;
use proptest::test_runner::{Config, RngAlgorithm, TestRng, TestRunner};
use ready_slab_core::dough::Pantry;
use ready_slab_core::recipe::{Ask, LeftOut, LineDoubt, LineKind, LineState, ReadLine, ReadSettings, read_recipe};
use rstest::rstest;

/// Household weights: USDA FoodData Central, SR Legacy (from memory), as the pantry has them; worked by hand.
#[rstest]
#[case("one fourth cup of brown sugar", "sugar-brown", 55.0)]
#[case("three-fourths cup of brown sugar", "sugar-brown", 165.0)]
#[case("three fourths of a cup granulated sugar", "sugar", 150.0)]
#[case("two and three-quarter cups flour", "flour-ap", 343.75)]
#[case("two and three quarters cups flour", "flour-ap", 343.75)]
#[case("two and two-thirds cups flour", "flour-ap", 333.33)]
#[case("a half a cup of sugar", "sugar", 100.0)]
#[case("one half cup sugar", "sugar", 100.0)]
#[case("one third cup honey", "honey", 113.0)]
#[case("two-thirds of a cup of milk", "milk", 162.67)]
#[case("one eighth teaspoon salt", "salt", 0.75)]
#[case("roughly a cup of flour", "flour-ap", 125.0)]
#[case("heaped teaspoon of baking powder", "baking-powder", 4.6)]
#[case("a scant cup of flour", "flour-ap", 125.0)]
#[case("2 tablespoonful honey", "honey", 42.4)]
#[case("2 teaspoonfuls vanilla extract", "vanilla", 8.4)]
#[case("1 cup, 120 grams of flour", "flour-ap", 120.0)]
#[case("1/2 tsp (2 grams) baking powder", "baking-powder", 2.0)]
#[case("1/2 tsp (2 g) kosher salt", "salt-flaky", 2.0)]
#[case("1 teaspoon ground cloves", "cloves", 2.1)]
#[case("1/2 tsp ground allspice", "allspice", 0.95)]
#[case("40 g Dutch-process cocoa", "cocoa", 40.0)]
#[case("50 g candied cherries", "candied-cherry", 50.0)]
#[case("1 tsp lemon extract", "lemon-extract", 4.2)]
#[case("1 tsp orange extract", "orange-extract", 4.2)]
#[case("1 cup toffee bits", "toffee", 160.0)]
#[case("1 tsp vanilla sugar", "sugar-vanilla", 4.2)]
#[case("250 g refined flour", "flour-ap", 250.0)]
#[case("250 g maida", "flour-ap", 250.0)]
#[case("225 g European butter", "butter-rich", 225.0)]
#[case("100 g confectionery sugar", "sugar-powdered", 100.0)]
#[case("100 g granulated white sugar", "sugar", 100.0)]
#[case("1 tsp whisky", "whisky", 4.6)]
#[case("1 cup salted, I mean unsalted, butter", "butter", 227.0)]
#[case("1 cup, I mean 2 cups, of flour", "flour-ap", 250.0)]
// What a home baker looks for next, and the ways it is written.
#[case("1 cup oat flour", "flour-oat", 104.0)]
#[case("140 g gluten-free flour blend", "flour-gluten-free", 140.0)]
#[case("1/2 teaspoon xanthan gum", "xanthan", 1.35)]
#[case("225 g vegan butter, cold and cubed", "vegan-block", 225.0)]
#[case("1 stick plant butter", "vegan-block", 113.4)]
#[case("3/4 cup coconut sugar", "sugar-coconut", 116.25)]
#[case("100g pearl sugar", "sugar-pearl", 100.0)]
#[case("2 tablespoons rainbow sprinkles", "sprinkles", 24.0)]
#[case("60 ml agave nectar", "agave", 83.7)]
#[case("1/4 cup sour cream, at room temperature", "sour-cream", 57.5)]
#[case("3 tbsp soured cream", "sour-cream", 43.2)]
#[case("2 tbsp natural yoghurt", "yogurt", 30.6)]
#[case("100 g Greek yogurt", "yogurt-greek", 100.0)]
#[case("250 g ricotta, drained", "ricotta", 250.0)]
#[case("1 can (397 g) sweetened condensed milk", "milk-condensed", 397.0)]
#[case("2 tablespoons oat milk", "milk-oat", 30.0)]
#[case("1 cup butterscotch chips", "butterscotch", 170.0)]
#[case("2 tsp matcha powder, sifted", "matcha", 4.0)]
#[case("50 g cacao nibs", "cocoa-nibs", 50.0)]
#[case("1 cup cashews, roughly chopped", "cashew", 137.0)]
#[case("2/3 cup macadamia nuts", "macadamia", 89.33)]
#[case("1/2 cup roasted peanuts", "peanut", 73.0)]
#[case("40 g pine nuts, toasted", "pine-nut", 40.0)]
#[case("200g marzipan, grated", "almond-paste", 200.0)]
#[case("1/3 cup sunflower seeds", "sunflower-seed", 46.67)]
#[case("2 tbsp pepitas", "pumpkin-seed", 16.2)]
#[case("1 tablespoon ground flaxseed", "flaxseed", 6.9)]
#[case("3 tablespoons tahini", "tahini", 45.0)]
#[case("1 cup chopped dates", "date", 147.0)]
#[case("100 g dried apricots, finely diced", "apricot", 100.0)]
#[case("5 dried figs (100 g)", "fig", 100.0)]
#[case("1/4 cup raspberry jam", "jam", 80.0)]
// A weight in brackets counts, wherever it stands.
#[case("2 cups flour (240 g)", "flour-ap", 240.0)]
#[case("1 cup (2 sticks) butter, softened (226 g)", "butter", 226.0)]
#[case("3/4 cup sugar, 150 g", "sugar", 150.0)]
#[case("2 1/4 cups all-purpose flour (281 g), sifted", "flour-ap", 281.0)]
#[case("1 1/2 cups powdered sugar (6 oz)", "sugar-powdered", 170.1)]
#[case("1 packet (7 g) baking powder", "baking-powder", 7.0)]
#[case("1 jar raspberry jam (340 g)", "jam", 340.0)]
#[case("3/4 cup canned pumpkin", "pumpkin", 183.75)]
#[case("1/2 cup mashed ripe banana", "banana", 112.5)]
#[case("1/4 cup unsweetened applesauce", "apple-sauce", 61.0)]
#[case("1/2 tsp peppermint extract", "peppermint-extract", 2.1)]
#[case("1 teaspoon rose water", "rose-water", 4.9)]
#[case("2 tsp orange blossom water", "orange-blossom", 9.8)]
#[case("1 tbsp chopped fresh rosemary", "rosemary", 2.1)]
#[case("2 tsp culinary lavender", "lavender", 1.2)]
#[case("1 tsp aniseed, crushed", "anise", 2.1)]
#[case("1/4 tsp freshly ground black pepper", "pepper", 0.575)]
fn amounts_in_words_weigh_what_they_say(#[case] text: &str, #[case] key: &str, #[case] grams: f64) {
    weighs(text, key, grams, 0.02);
}

#[rstest]
#[case("salted, or unsalted, butter 200 g", LineDoubt::TwoThings)]
#[case("200 g butter or margarine", LineDoubt::TwoThings)]
#[case("2 eggs, vanilla, baking powder", LineDoubt::TwoThings)]
#[case("2 tbsp corn flour", LineDoubt::TwoThings)]
#[case("-2 cups flour", LineDoubt::TwoNumbers)]
#[case("a little bit of honey", LineDoubt::NoAmount)]
#[case("a few almonds", LineDoubt::NoAmount)]
#[case("a some of vanilla", LineDoubt::NoAmount)]
#[case("0 cups flour", LineDoubt::NoAmount)]
fn what_reads_two_ways_asks(#[case] text: &str, #[case] doubt: LineDoubt) {
    let asked = line(text).question.unwrap_or_else(|| panic!("{text} asks nothing"));
    assert_eq!(asked.doubt, doubt, "{text}: {:?}", asked.ask);
    // Nobody asks how much a some or a few is.
    let vague = matches!(&asked.ask, Ask::GramsOfAMeasure { word, .. } if ["some", "few"].contains(&word.as_str()));
    assert!(!vague, "{:?}", asked.ask);
}

#[test]
fn corn_flour_offers_the_starch_first() {
    let options = line("2 tbsp corn flour").question.unwrap().options;
    assert_eq!(
        options.iter().filter_map(|o| o.answer.ingredient.as_deref()).collect::<Vec<_>>(),
        ["cornstarch", "flour-maize"]
    );
}

#[test]
fn an_unknown_food_is_offered_what_is_used_like_it() {
    let offered = |text: &str| -> Vec<String> {
        line(text).question.unwrap().options.iter().filter_map(|o| o.answer.ingredient.clone()).collect()
    };
    let cherries = offered("100 g cherries");
    assert!(cherries.contains(&"candied-cherry".to_owned()) && !cherries.contains(&"yolk".to_owned()), "{cherries:?}");
    assert!(offered("100 g brazil nuts").contains(&"hazelnut".to_owned()));
    // A slip of the pen still finds what was meant.
    assert_eq!(offered("100 g buttr")[0], "butter");
}

#[rstest]
#[case("one fourth cup of brown sugar\n2 cups flour\n225 g butter")]
#[case("a knob of butter\n300 g flour\n100 g sugar")]
#[case("half a cup sugar\n1 cup butter\n2 cups flour")]
fn a_first_line_with_an_amount_and_a_food_is_no_title(#[case] text: &str) {
    let reading = read(text);
    assert_eq!(reading.title, None, "{text}");
    assert!(matches!(reading.lines[0].kind, LineKind::Ingredient(_)), "{:?}", reading.lines[0]);
    assert_eq!(reading.lines.len(), 3);
}

/// Two foods with an amount each are two lines, in order, and the lines behind keep their numbers.
#[rstest]
#[case("1 egg plus 1 yolk", [("egg", 50.0), ("yolk", 17.0)])]
#[case("2 eggs + 1 yolk", [("egg", 100.0), ("yolk", 17.0)])]
#[case("1 egg and 1 egg yolk", [("egg", 50.0), ("yolk", 17.0)])]
#[case("100 g flour & 50 g oats", [("flour-ap", 100.0), ("oats", 50.0)])]
fn two_foods_on_a_line_are_two(#[case] text: &str, #[case] foods: [(&str, f64); 2]) {
    let reading = read(&format!("225 g butter\n{text}\n30 g milk"));
    let known: Vec<(String, f64)> = reading.known().into_iter().map(|l| (l.ingredient, l.grams)).collect();
    let [first, second] = foods.map(|(key, g)| (key.to_owned(), g));
    assert_eq!(known, [("butter".to_owned(), 225.0), first, second, ("milk".to_owned(), 30.0)], "{text}");
    assert_eq!(reading.lines.last().unwrap().number, 3);
}

#[test]
fn a_title_is_still_a_title() {
    for title in ["Butter gulls", "A dozen lighthouses", "Lemon-thyme shortbread"] {
        let reading = read(&format!("{title}\n225 g butter\n300 g flour"));
        assert_eq!(reading.title.as_deref(), Some(title));
    }
}

#[rstest]
#[case("100 g coarse sugar, for rolling")]
#[case("50 g granulated sugar for coating")]
#[case("2 tbsp flour for dusting")]
#[case("30 g sugar for the topping")]
#[case("20 g powdered sugar, to finish")]
#[case("1/2 cup chopped walnuts (for garnish)")]
fn what_goes_onto_the_dough_is_not_counted_into_it(#[case] text: &str) {
    let found = line(text);
    assert!(matches!(found.left_out, Some(LeftOut::ForTheFinish | LeftOut::ForTheBoard)), "{text}: {found:?}");
    assert!(found.question.is_none());
}

#[test]
fn what_is_left_for_the_board_does_not_take_the_dough_along() {
    let found = line("2 cups flour, plus more for dusting");
    assert!(found.left_out.is_none() && (found.mass.unwrap().g() - 250.0).abs() < 1e-9);
}

#[rstest]
#[case("roll to a quarter inch")]
#[case("350 degrees")]
#[case("12 minutes")]
fn a_size_a_heat_or_a_time_is_no_ingredient(#[case] text: &str) {
    let reading = read(&format!("225 g butter\n300 g flour\n{text}"));
    let asks = matches!(&reading.lines[2].kind, LineKind::Ingredient(u) if u.left_out.is_none());
    assert!(!asks, "{:?}", reading.lines[2]);
}

#[test]
fn a_recipe_told_in_one_breath_is_told_apart_and_worth_a_look() {
    let told = "So I take 225 grams of butter and half a cup of sugar, cream them, then one egg, a teaspoon of vanilla extract and 300 g flour with a pinch of salt.";
    let reading = read(told);
    let foods: Vec<(String, f64)> = reading
        .lines
        .iter()
        .filter_map(|l| match &l.kind {
            LineKind::Ingredient(u) if u.ingredient.is_some() => {
                Some((u.ingredient.as_ref()?.key.to_string(), u.mass?.g()))
            }
            _ => None,
        })
        .collect();
    let keys: Vec<&str> = foods.iter().map(|f| f.0.as_str()).collect();
    assert_eq!(keys, ["butter", "sugar", "egg", "vanilla", "flour-ap", "salt"], "{:#?}", reading.lines);
    assert!(
        (foods[0].1 - 225.0).abs() < 1e-9 && (foods[1].1 - 100.0).abs() < 1e-9 && (foods[4].1 - 300.0).abs() < 1e-9
    );
    assert_eq!(reading.open(), 0);
    let states = reading.lines.iter().filter(|l| matches!(l.kind, LineKind::Ingredient(_))).map(ReadLine::state);
    assert!(states.clone().all(|s| s == LineState::Fair), "{:?}", states.collect::<Vec<_>>());
    // Nothing that was said is lost.
    let kept: String = reading.lines.iter().map(|l| l.text.clone()).collect::<Vec<_>>().join(" ");
    for word in ["So I take", "cream them", "vanilla extract", "pinch of salt"] {
        assert!(kept.contains(word), "{word}: {kept}");
    }
}

const NUMBERS: [&str; 22] = [
    "1",
    "2",
    "0",
    "1/2",
    "\u{bd}",
    "1 1/2",
    "2\u{bc}",
    "0/0",
    "1/0",
    "-3",
    "1e309",
    "NaN",
    "inf",
    "three-fourths",
    "a half a",
    "two and two-thirds",
    "999999999999999999999",
    "1,200",
    "3,5",
    ".5",
    "\u{664}\u{665}",
    "\u{221e}",
];
const UNITS: [&str; 20] = [
    "cups",
    "g",
    "grams of",
    "kg",
    "tbsp",
    "tablespoonful",
    "tsp",
    "oz",
    "lb",
    "stick",
    "sticks of",
    "knob of",
    "pinch of",
    "bit of",
    "little bit of",
    "knife tip",
    "(4-ounce) sticks",
    "quarter inch",
    "degrees",
    "",
];
const FOODS: [&str; 18] = [
    "flour",
    "butter",
    "brown sugar",
    "eggs",
    "vanilla",
    "baking powder",
    "corn flour",
    "cherries",
    "salted, or unsalted, butter",
    "butter for rolling",
    "\u{5c0f}\u{9ea6}\u{7c89}",
    "\u{43c}\u{443}\u{43a}\u{430}",
    "\u{62f}\u{642}\u{64a}\u{642}",
    "cr\u{e8}me",
    "\u{1f9c8}",
    "salt to taste",
    "",
    "eggs, vanilla, baking powder",
];
const RUBBISH: [&str; 14] =
    ["I mean", ",", "(((", "\u{202e}", "\u{0}", "--", "+", "plus", "or", "and a", "=", "x", "\u{feff}", "%%%"];

fn line_of_rubbish() -> impl Strategy<Value = String> {
    let word = prop_oneof![
        4 => prop::sample::select(&NUMBERS[..]).prop_map(str::to_owned),
        4 => prop::sample::select(&UNITS[..]).prop_map(str::to_owned),
        4 => prop::sample::select(&FOODS[..]).prop_map(str::to_owned),
        2 => prop::sample::select(&RUBBISH[..]).prop_map(str::to_owned),
        1 => "\\PC{0,12}",
    ];
    prop::collection::vec(word, 0..9).prop_map(|words| words.join(" "))
}

#[test]
fn ten_thousand_texts_never_panic_never_lose_a_line_and_never_invent_grams() {
    // Always the same texts; `make explore` reads others through the properties of the lines.
    let rng = TestRng::from_seed(RngAlgorithm::ChaCha, &[27; 32]);
    let mut runner = TestRunner::new_with_rng(Config { cases: 10_000, ..Config::default() }, rng);
    let texts = prop::collection::vec(line_of_rubbish(), 1..5);
    runner
        .run(&texts, |lines| {
            let text = format!("Ingredients\n{}", lines.join("\n"));
            let (_, reading) = read_recipe(&text, Pantry::built_in(), &ReadSettings::default(), &[])
                .map_err(|e| TestCaseError::fail(e.to_string()))?;
            // Every line that says something is there, in order.
            // Between two foods told in a row a joint such as `and` goes.
            let joint = |w: &&str| !["and", "then", "with", "plus", "add", "some"].contains(w);
            let said = |t: &str| {
                t.split_whitespace()
                    .filter(joint)
                    .flat_map(str::chars)
                    .filter(|c| c.is_alphanumeric())
                    .collect::<String>()
            };
            let there: String = reading.lines.iter().map(|l| said(&l.text)).collect();
            let given: String = text.lines().map(said).collect();
            prop_assert_eq!(there, given);
            for line in &reading.lines {
                let LineKind::Ingredient(u) = &line.kind else { continue };
                if let Some(mass) = u.mass {
                    prop_assert!(mass.g().is_finite() && mass.g() >= 0.0, "{line:?}");
                    // Grams come only of an amount that stands in the line.
                    let amount = line.text.chars().any(char::is_numeric)
                        || [
                            "three", "half", "quarter", "third", "fourth", "two", "knob", "bit", "pinch", "knife",
                            "a ", "stick", "cup", "tbsp", "tsp", "spoon",
                        ]
                        .iter()
                        .any(|w| line.text.to_lowercase().contains(w));
                    prop_assert!(amount, "{line:?}");
                }
                if u.question.is_none() && u.left_out.is_none() {
                    prop_assert!(u.mass.is_some_and(|m| m.g() > 0.0) && u.ingredient.is_some(), "{line:?}");
                }
            }
            Ok(())
        })
        .unwrap();
}
