//! After the bake: coats and fillings by arithmetic for the lot, how long it keeps, and what is left of spirits.

mod amount;
mod chosen;
mod coat;
mod coat_key;
mod colour;
mod keep;
mod packing;
mod reason;
mod spirit;
mod work;

pub use amount::{CoatPart, CoatPlan, CoatStuff, CoatUse, FinishedPiece, UsePart, coat_plan};
pub use chosen::Finish;
pub use coat::{Coat, FillingKind, GlazeWay, MOST_COATS, SugarCoat};
pub use coat_key::FinishKey;
pub use colour::ColourPart;
pub use keep::{BakedKeeping, baked_keeping};
pub use packing::{Packing, PiledBy, packing};
pub use reason::Reason;
pub use spirit::{SpiritLeft, spirit_left};
pub use work::CoatWork;
