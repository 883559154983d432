//! What the conditions of a bake say for and against causes.

use super::table::Cause;
use crate::cold::TrayKind;
use crate::dough::MixMethod;
use crate::oven::TrayLiner;
use crate::units::{Share, Span, Temperature};

/// Something the record holds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Fact {
    /// The pieces went in at this.
    WentInAt(Temperature),
    /// What lay under the pieces.
    Liner(TrayLiner),
    /// Of the fat, what is softer than butter.
    SoftFat(Share),
    /// Leavener in it, or none.
    Leavener(bool),
    /// Sugar over flour.
    SugarOverFlour(Share),
    /// How it was mixed.
    Mixed(MixMethod),
    /// The tray.
    Tray(TrayKind),
    /// Egg in it, or none.
    Egg(bool),
    /// So often scraps are rolled again.
    Rolls(u32),
    /// Honey, syrup or brown sugar in it, or none.
    DrawsWater(bool),
    /// In the oven so much longer than the most that was expected, or less than that.
    Longer(Span),
    /// A thermometer was read in the oven.
    OvenMeasured,
    /// Fat over flour.
    FatOverFlour(Share),
}

/// What a fact says of a cause: so many times as likely.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Says {
    /// Of which cause.
    pub cause: Cause,
    /// Which condition.
    pub fact: Fact,
    /// Less than 1 against it.
    pub times: f64,
}
