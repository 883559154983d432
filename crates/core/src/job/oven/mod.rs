//! How they bake, and what was learned of it.

pub(crate) mod as_baked;
pub(crate) mod bake;
pub(crate) mod causes;
pub(crate) mod levers;
pub(crate) mod oven_plan;
pub(crate) mod parts_that_brown_first;
pub(crate) mod photo;
pub(crate) mod recipe_said;
pub(crate) mod tray_times;
pub(crate) mod trial;
pub(crate) mod uneven_sheet;
