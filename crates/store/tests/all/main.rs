//! The store on real files. One program: it builds and links once.

mod archive;
mod keeping;
mod runs;
mod shelf;
mod store;
mod trust;
