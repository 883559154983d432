//! Coloured portions of a finish.

use crate::units::Mass;

/// A coloured portion of a finish.
#[derive(Debug, Clone, PartialEq)]
pub struct ColourPart {
    /// The colour.
    pub name: String,
    /// Of the finish.
    pub mass: Mass,
    /// Paste to begin with.
    pub paste: Mass,
}
