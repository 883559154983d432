//! How dough becomes cookies.

pub(crate) mod marbled;
pub(crate) mod other_sheets;
pub(crate) mod pan;
pub(crate) mod pieces;
pub(crate) mod pricked;
