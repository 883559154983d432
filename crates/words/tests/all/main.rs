//! What is said. One program: it builds and links once.

mod fields;
mod figures;
mod ledger;
mod retired;
mod said;
mod sentences;
