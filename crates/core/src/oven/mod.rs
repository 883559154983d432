//! Bake time and spread. Until the bake model comes these are ranges of common practice, and say so.

mod practice;

pub use practice::{BakeSetting, EdgeColour, PracticeAnswer, bake_practice};
