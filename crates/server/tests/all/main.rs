//! The API and the command line. One program: it builds and links once.

mod access_api;
mod api;
mod bakery;
mod cold_api;
mod command_line;
mod days_api;
mod described;
mod dough_api;
mod faults_api;
mod heavy;
mod inside;
mod lots_api;
mod one_plan;
mod oven_api;
mod photos_api;
mod shape_api;
mod tries_api;
mod trust_api;
