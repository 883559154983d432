//! After the bake: coats and fillings by arithmetic for the lot, how long it keeps, and what is left of spirits.

mod coat;
#[cfg(feature = "wire")]
mod coat_key;
mod keep;
mod reason;
mod spirit;
mod work;

pub use coat::{Coat, CoatPart, CoatPlan, CoatStuff, FillingKind, FinishedPiece, MOST_COATS, SugarCoat, coat_plan};
pub use keep::{BakedKeeping, baked_keeping};
pub use reason::Reason;
pub use spirit::{SpiritLeft, spirit_left};
pub use work::CoatWork;
