//! What is said, on the wire: a text in metric units, and its pieces for whoever shows it in other units.

use ready_slab_words::{Part, Quantity, Say, Sentence, System};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A quantity in a sentence.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FigureView {
    /// What it measures.
    pub quantity: Quantity,
    /// Its value.
    pub value: f64,
    /// Another beside it, of the same kind.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub and: Option<f64>,
    /// What stands between the two: `to` or `×`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub joint: Option<String>,
    /// Most decimals; lengths and masses choose their own.
    pub places: usize,
}

/// A piece of a sentence: a text, or a quantity.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum PartOfSentence {
    /// As it stands.
    Text(String),
    /// In the units that are read.
    Figure(FigureView),
}

/// What is said.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SentenceView {
    /// All of it, in metric units.
    pub text: String,
    /// Its pieces in order; left out where there is no quantity in it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<PartOfSentence>,
}

impl From<Sentence> for SentenceView {
    fn from(sentence: Sentence) -> Self {
        let parts: Vec<PartOfSentence> = sentence
            .parts()
            .iter()
            .map(|part| match part {
                Part::Text(text) => PartOfSentence::Text(text.clone()),
                Part::Figure(f) => PartOfSentence::Figure(FigureView {
                    quantity: f.quantity,
                    // A hundred-thousandth is finer than any figure is told to.
                    value: (f.value * 1e5).round() / 1e5,
                    and: f.and.map(|(_, value)| (value * 1e5).round() / 1e5),
                    joint: f.and.map(|(joint, _)| joint.sign().to_owned()),
                    places: f.places,
                }),
            })
            .collect();
        let plain = parts.iter().all(|p| matches!(p, PartOfSentence::Text(_)));
        Self { text: sentence.text(System::Metric), parts: if plain { vec![] } else { parts } }
    }
}

impl From<&str> for SentenceView {
    fn from(text: &str) -> Self {
        Self { text: text.to_owned(), parts: vec![] }
    }
}

/// The word of a core enum, as its JSON has it.
pub fn word<T: Serialize>(value: T) -> String {
    match serde_json::to_value(value) {
        Ok(serde_json::Value::String(word)) => word,
        other => unreachable!("an enum of plain variants is one word: {other:?}"),
    }
}

/// What one thing says.
pub fn say<T: Say>(thing: &T) -> SentenceView {
    thing.say().into()
}

/// What each of several says.
pub fn say_all<'a, T: Say + 'a>(things: impl IntoIterator<Item = &'a T>) -> Vec<SentenceView> {
    things.into_iter().map(say).collect()
}
