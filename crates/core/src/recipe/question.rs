//! What a line was read as, what it asks, and what a baker answers.

use super::reason::{Ask, LeftOut, ReadBy, Settle};
use crate::dough::Ingredient;
use crate::units::Mass;
use std::sync::Arc;

/// What a baker answers to a line's question.
#[derive(Debug, Clone, PartialEq, Default, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = AnswerBody)]
#[serde(deny_unknown_fields)]
pub struct LineAnswer {
    /// Number of the line, from 1.
    pub line: usize,
    /// Key of the ingredient that is meant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ingredient: Option<String>,
    /// Grams that are meant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grams: Option<f64>,
    /// The line is not part of the dough.
    #[serde(default)]
    pub leave_out: bool,
    /// It is right as it was read.
    #[serde(default)]
    pub as_read: bool,
}

/// Why a line asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize)]
#[serde(rename_all = "snake_case")]
pub enum LineDoubt {
    /// No ingredient of that name is known.
    UnknownIngredient,
    /// A word of the name is strange.
    StrangeWord,
    /// Two ingredients on one line.
    TwoThings,
    /// No amount, or one that says nothing.
    NoAmount,
    /// A number that reads two ways.
    TwoNumbers,
    /// The two amounts given differ by more than a tenth.
    Disagrees,
    /// Nobody knows what that measure of it weighs.
    NoWeight,
    /// Far more or less than any dough holds.
    Unlikely,
}

/// One way to settle a question.
#[derive(Debug, Clone, PartialEq)]
pub struct SettleOption {
    /// As it is offered.
    pub label: Settle,
    /// What choosing it means.
    pub answer: LineAnswer,
}

/// What a line asks.
#[derive(Debug, Clone, PartialEq)]
pub struct Question {
    /// Why.
    pub doubt: LineDoubt,
    /// What.
    pub ask: Ask,
    /// Ways to settle it; typing grams or leaving the line out are always open.
    pub options: Vec<SettleOption>,
}

/// What a line of ingredients was read as.
#[derive(Debug, Clone, PartialEq)]
pub struct Understood {
    /// The ingredient, once it is known.
    pub ingredient: Option<Arc<Ingredient>>,
    /// What it weighs, once that is known.
    pub mass: Option<Mass>,
    /// 0 to 1.
    pub confidence: f64,
    /// How it was read.
    pub why: Vec<ReadBy>,
    /// What is done to it first.
    pub note: String,
    /// What it asks; nothing is counted before it is settled.
    pub question: Option<Question>,
    /// Why it is not part of the dough.
    pub left_out: Option<LeftOut>,
}

pub(super) fn weighs(line: usize, grams: f64, by: Option<String>) -> SettleOption {
    SettleOption {
        label: Settle::Weighs { mass: Mass::new_g(grams), by },
        answer: LineAnswer { line, grams: Some((grams * 1000.0).round() / 1000.0), ..LineAnswer::default() },
    }
}
