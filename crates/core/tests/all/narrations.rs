//! Thirty recipes as somebody tells them in our harbor's kitchen, made up: their foods in order with their weights, what does not go into the dough, what
//! was not said, and what they say of the method. Household weights: USDA FoodData Central, SR Legacy (from memory), as the pantry has them.

use crate::reading::read;
use ready_slab_core::dough::MixMethod;
use ready_slab_core::recipe::{LineDoubt, LineKind, LineState, Reading};
use serde_json::Value;

fn all() -> Vec<Value> {
    serde_json::from_str(include_str!("../data/narrations.json")).unwrap()
}

/// What a narration was read otherwise than it was meant.
fn faults(told: &Value) -> Vec<String> {
    let reading = read(told["said"].as_str().unwrap());
    let mut found = vec![];
    let ingredients = || {
        reading.lines.iter().filter_map(|l| match &l.kind {
            LineKind::Ingredient(u) => Some((l, u)),
            LineKind::Heading | LineKind::Note => None,
        })
    };
    let counted: Vec<(String, f64)> = ingredients()
        .filter(|(l, _)| matches!(l.state(), LineState::Sure | LineState::Fair))
        .map(|(_, u)| (u.ingredient.as_ref().unwrap().key.to_string(), u.mass.unwrap().g()))
        .collect();
    let wanted: Vec<(String, f64)> =
        told["foods"].as_object().unwrap().iter().map(|(k, g)| (k.clone(), g.as_f64().unwrap())).collect();
    for (key, grams) in &wanted {
        match counted.iter().find(|c| c.0 == *key) {
            None => found.push(format!("{key} is missing")),
            Some((_, read)) if (read - grams).abs() > 0.03 * grams + 0.2 => {
                found.push(format!("{key}: {read}, not {grams}"))
            }
            Some(_) => {}
        }
    }
    for (key, grams) in &counted {
        if !wanted.iter().any(|w| w.0 == *key) {
            found.push(format!("{grams} of {key} was not said"));
        }
    }
    let asks: Vec<String> = ingredients()
        .filter(|(l, _)| l.state() == LineState::Asks)
        .map(|(_, u)| match (&u.ingredient, &u.question) {
            (Some(i), Some(q)) if q.doubt == LineDoubt::NoAmount => i.key.to_string(),
            (i, q) => format!("{:?} {q:?}", i.as_ref().map(|i| i.key.to_string())),
        })
        .collect();
    let may: Vec<&str> = told["asks"].as_array().into_iter().flatten().map(|a| a.as_str().unwrap()).collect();
    if asks != may {
        found.push(format!("asks {asks:?}, not {may:?}"));
    }
    let aside: Vec<String> = ingredients()
        .filter(|(_, u)| u.left_out.is_some())
        .filter_map(|(_, u)| u.ingredient.as_ref().map(|i| i.key.to_string()))
        .collect();
    for key in told["aside"].as_array().into_iter().flatten() {
        if !aside.iter().any(|a| a.starts_with(key.as_str().unwrap())) {
            found.push(format!("{key} goes onto them: {aside:?}"));
        }
    }
    found.extend(of_method(&reading, &told["says"]));
    found
}

fn of_method(reading: &Reading, wanted: &Value) -> Vec<String> {
    let says = reading.says.says;
    let method = says.method.map(|m| match m {
        MixMethod::LightAndFluffy => "light_and_fluffy",
        MixMethod::JustCombined => "just_combined",
        MixMethod::RubbedIn => "rubbed_in",
        MixMethod::Pulsed => "pulsed",
    });
    let range = |r: Option<(f64, f64)>| r.map(|(low, high)| vec![low, high]);
    let one = |v: Option<f64>| v.map(|v| vec![v]);
    let read = [
        ("chill_min", range(says.chill)),
        ("thickness_mm", one(says.thickness)),
        ("oven_c", one(says.oven)),
        ("bake_min", range(says.bake)),
        ("pieces", one(reading.pieces().map(f64::from))),
    ];
    let mut wrong = vec![];
    if !wanted["method"].is_null() && wanted["method"].as_str() != method {
        wrong.push(format!("method: {method:?}, not {}", wanted["method"]));
    }
    for (key, read) in read {
        let figures = |v: &Value| match v {
            Value::Array(all) => all.iter().filter_map(Value::as_f64).collect::<Vec<_>>(),
            one => one.as_f64().into_iter().collect(),
        };
        if !wanted[key].is_null() && read.as_ref() != Some(&figures(&wanted[key])) {
            wrong.push(format!("{key}: {read:?}, not {}", wanted[key]));
        }
    }
    wrong
}

#[test]
fn thirty_narrations_are_read_as_they_are_meant() {
    let all = all();
    assert_eq!(all.len(), 32);
    let wrong: Vec<String> = all
        .iter()
        .enumerate()
        .filter_map(|(i, told)| {
            let faults = faults(told);
            (!faults.is_empty()).then(|| format!("{}: {}", i + 1, faults.join("; ")))
        })
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

/// What is not in the pantry is asked about, not passed over.
#[test]
fn a_food_that_nobody_knows_is_asked_about_where_it_was_said() {
    let reading = read(
        "Take a pound of flour, half a pound of butter, half a pound of sugar and a teaspoon of galangal. Beat a tablespoon of the mixture into two eggs.",
    );
    let asks: Vec<&str> =
        reading.lines.iter().filter(|l| l.state() == LineState::Asks).map(|l| l.text.as_str()).collect();
    assert_eq!(asks.len(), 1, "{:#?}", reading.lines);
    assert!(asks[0].starts_with("a teaspoon of galangal"), "{asks:?}");
}

/// A thousand words among which a recipe is told: its ingredients in order, nothing else.
#[test]
fn a_thousand_words_give_the_recipe_that_is_among_them() {
    let talk = "We walk down to the harbor every morning before the boats go out, and the smell of the ovens is in the street already. ";
    let parts = [
        "Now take two sticks of butter and a cup of sugar. ",
        "One egg. ",
        "Then three cups of flower go in, slowly. ",
        "Half a teaspoon of salt. ",
        "I bake them ten minutes at three fifty. ",
    ];
    let text: String = parts.iter().map(|p| format!("{}{p}", talk.repeat(8))).collect();
    assert!(text.split_whitespace().count() > 900);
    let reading = read(&text);
    let keys: Vec<String> = reading.known().into_iter().map(|l| l.ingredient).collect();
    assert_eq!(keys, ["butter", "sugar", "egg", "flour-ap", "salt"]);
    assert_eq!((reading.open(), reading.says.says.bake, reading.says.says.oven), (0, Some((10.0, 10.0)), Some(177.0)));
}
