//! Recipes read with what is usual, as the tests of the reader need them.

use ready_slab_core::dough::Pantry;
use ready_slab_core::recipe::{LineAnswer, LineKind, ReadSettings, Reading, Understood, read_recipe};

pub fn read_with(text: &str, settings: &ReadSettings, answers: &[LineAnswer]) -> Reading {
    read_recipe(text, Pantry::built_in(), settings, answers).unwrap().1
}

pub fn read(text: &str) -> Reading {
    read_with(text, &ReadSettings::default(), &[])
}

pub fn line_with(text: &str, settings: &ReadSettings) -> Understood {
    match &read_with(&format!("Ingredients\n{text}"), settings, &[]).lines[1].kind {
        LineKind::Ingredient(found) => found.clone(),
        other => panic!("{text}: {other:?}"),
    }
}

/// A single line, under a heading so that it is not taken for a title.
pub fn line(text: &str) -> Understood {
    line_with(text, &ReadSettings::default())
}

/// What a line must weigh, of what, to so much of it, without asking and with its reasons.
pub fn weighs(text: &str, key: &str, grams: f64, within: f64) {
    let found = line(text);
    assert_eq!(found.question, None, "{text}");
    assert_eq!(found.ingredient.as_ref().map(|i| i.key.as_ref()), Some(key), "{text}: {:?}", found.why);
    let read = found.mass.unwrap().g();
    assert!((read - grams).abs() <= within * grams + 0.02, "{text}: {read}, not {grams}: {:?}", found.why);
    assert!(!found.why.is_empty() && found.confidence > 0.3, "{text}");
}
