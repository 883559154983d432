//! The store on real files. One program: it builds and links once.

mod archive;
mod cold;
mod keeping;
mod runs;
mod shelf;
mod store;
mod tries;
mod trust;
