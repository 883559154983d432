//! The files of the front end, inside the program.

use rust_embed::RustEmbed;

/// As they were built.
#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
pub struct FrontEnd;

/// Whether a path is of one of them.
pub fn is_file(path: &str) -> bool {
    path.strip_prefix('/').is_some_and(|path| !path.is_empty() && FrontEnd::get(path).is_some())
}
