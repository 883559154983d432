//! What the core's answers say. The core gives reasons: plain values that hold quantities. Here each becomes a sentence whose quantities
//! stay typed parts, so that whoever shows it writes them in the units that are read there. All English of the answers stands in this
//! crate, by station.

mod advice;
pub mod bench;
pub mod causes;
mod clock;
mod cold;
mod day;
mod dough;
mod edits;
mod evenness;
mod fault;
mod figure;
mod finish;
mod job;
mod lesson;
mod measures;
mod names;
mod oven;
mod photo;
mod pieces;
mod recipe;
mod safety;
mod sentence;
mod shape;
mod steps;
mod trial;
mod worth;

pub use clock::{when_late, why};
pub use day::{day_forbidden, day_help, day_shared, day_why};
pub use dough::{
    FLOUR_KEPT_ASIDE, RIGHT_DOUGH, bowl_caution, difference, gives, known_for, mix_step, school_name, sift_why,
    standing,
};
pub use edits::{job_word, kitchen_word};
pub use figure::{Figure, Joint, Quantity, System};
pub use finish::{coat, coat_stuff, coat_use};
pub use job::{dough_part, notch, turn, way_effort, way_name};
pub use names::{Name, does, piece_name, spot_shades};
pub use oven::spread_beside;
pub use photo::photo_found;
pub use sentence::{Part, Say, Sentence, all};
pub use shape::{marbled_steps, pattern_steps};
pub use steps::step;
pub use trial::trial_verdict;
