//! Narrow parts of a piece that bake ahead of the rest.

use crate::geometry::{NarrowKind, PlaceOnPiece};
use crate::units::{Length, Span};

/// Narrow parts of a piece that bake ahead of the rest, those alike taken together.
#[derive(Debug, Clone, PartialEq)]
pub struct PartsAhead {
    /// Points or necks.
    pub kind: NarrowKind,
    /// Where each is, from the middle of the outline's box, y down the page.
    pub at: Vec<(f64, f64)>,
    /// How wide they are on the whole.
    pub width: Length,
    /// They have the colour so long before the rest.
    pub ahead: Span,
    /// Colour index they have when the rest is done.
    pub colour: f64,
    /// Where it is, of a single one.
    pub place: Option<PlaceOnPiece>,
    /// Whether they are narrower than the model knows, and so ahead by more.
    pub at_least: bool,
    /// Whether colour tells when they are done; else the dull middle.
    pub by_colour: bool,
}
