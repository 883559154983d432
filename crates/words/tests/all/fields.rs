//! Every field of a job and of the kitchen has a word of its own for the label of an edit: none is told as "job" or "kitchen".

use ready_slab_core::job::{JobInput, KitchenInput};
use ready_slab_words::{job_word, kitchen_word};
use utoipa::PartialSchema;

fn fields<T: PartialSchema>() -> Vec<String> {
    let described = serde_json::to_value(T::schema()).unwrap();
    described["properties"].as_object().unwrap().keys().cloned().collect()
}

#[test]
fn every_field_of_a_job_is_told_by_its_word() {
    let all = fields::<JobInput>();
    assert!(all.len() > 35, "{all:?}");
    let nameless: Vec<&String> = all.iter().filter(|field| job_word(field) == "job").collect();
    assert!(nameless.is_empty(), "without a word: {nameless:?}");
    let mut words: Vec<&str> = all.iter().map(|field| job_word(field)).collect();
    words.sort_unstable();
    let told = words.len();
    words.dedup();
    assert_eq!(words.len(), told, "two fields go by one word");
}

#[test]
fn every_field_of_the_kitchen_is_told_by_its_word() {
    let all = fields::<KitchenInput>();
    assert!(all.len() > 25, "{all:?}");
    let nameless: Vec<&String> = all.iter().filter(|field| kitchen_word(field) == "kitchen").collect();
    assert!(nameless.is_empty(), "without a word: {nameless:?}");
}
