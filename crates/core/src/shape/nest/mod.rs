//! Nesting: any cutters on one sheet, lying as close as web and edge allow.
//!
//! The first layout comes from lattices (blocks of rows, one below the other) and is at hand at once; the search then puts
//! in one piece more than fits and pushes the pieces apart until nothing overlaps, or, once all that is wanted lies on the
//! sheet, makes the sheet shorter. Every layout handed out has been measured by [`measure_layout`].

mod engine;
mod first;
mod ground;
mod holes;
mod kept;
mod nested;
mod proof;
mod question;
mod search;
mod start;

pub use kept::KeptFault;
pub(super) use kept::{kept_layout_fault, kept_on_tray};
pub use nested::Nested;
pub use proof::{PieceGaps, measure_layout};
pub use question::{MOST_CUTTERS, MOST_SEARCHED, NestCutter, NestPiece, NestQuestion};
pub use search::Nester;
