//! Every field of a job and of the kitchen has a word of its own for the label of an edit: none is told as "job" or "kitchen".

use ready_slab_core::job::{JobInput, KitchenInput};
use ready_slab_words::{job_word, kitchen_word};
use serde::Serialize;

fn fields<T: Default + Serialize>() -> Vec<String> {
    let all = serde_json::to_value(T::default()).unwrap();
    all.as_object().unwrap().keys().cloned().collect()
}

/// All fields of a thing, which has so many at least, and those that go by the word for all of it.
fn nameless<T: Default + Serialize>(
    least: usize,
    word: fn(&str) -> &'static str,
    whole: &str,
) -> (Vec<String>, Vec<String>) {
    let all = fields::<T>();
    assert!(all.len() >= least, "{all:?}");
    let nameless = all.iter().filter(|field| word(field) == whole).cloned().collect();
    (all, nameless)
}

#[test]
fn every_field_of_a_job_is_told_by_its_word() {
    let (all, nameless) = nameless::<JobInput>(40, job_word, "job");
    assert!(nameless.is_empty(), "without a word: {nameless:?}");
    let mut words: Vec<&str> = all.iter().map(|field| job_word(field)).collect();
    words.sort_unstable();
    words.dedup();
    assert_eq!(words.len(), all.len(), "two fields go by one word");
}

#[test]
fn every_field_of_the_kitchen_is_told_by_its_word() {
    let (_, nameless) = nameless::<KitchenInput>(28, kitchen_word, "kitchen");
    assert!(nameless.is_empty(), "without a word: {nameless:?}");
}
