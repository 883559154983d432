//! What is said of an input that is refused: the core's own sentence, its quantities as typed parts.

use crate::figure::{Figure, number};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::error::Problem;

const PLACES: usize = 3;

/// A value with its unit, a figure where the unit is one of ours.
fn with_unit(value: f64, unit: &str) -> Sentence {
    match Figure::in_unit(value, unit, PLACES) {
        Some((figure, rest)) => said![figure, rest],
        None if unit.is_empty() => number(value, PLACES).into(),
        None => said![number(value, PLACES), " ", unit],
    }
}

fn range(min: f64, max: f64, unit: &str) -> Sentence {
    match Figure::in_unit(min, unit, PLACES) {
        Some((figure, rest)) => said![figure.up_to(max), rest],
        None => said![number(min, PLACES), " to ", with_unit(max, unit)],
    }
}

/// The same of a forecast that does not reach so far: nobody typed it wrong.
pub(crate) fn uncovered(problem: &Problem) -> Sentence {
    match problem {
        Problem::OutOfRange { value, min, max, unit } => {
            said![with_unit(*value, unit), ", forecast covers ", range(*min, *max, unit)]
        }
        other => other.say(),
    }
}

impl Say for Problem {
    fn say(&self) -> Sentence {
        match self {
            Self::NeverReady(never) => never.say(),
            Self::OutOfRange { value, min, max, unit } => {
                let outside = said!["Use ", range(*min, *max, unit), ". You typed ", with_unit(*value, unit), "."];
                // What would be right in Fahrenheit most likely is meant so.
                let celsius = (value - 32.0) / 1.8;
                if *unit == "\u{b0}C" && value > max && (*min..=*max).contains(&celsius) {
                    let meant = format!(" Did you mean {}\u{b0}F?", number(*value, 0));
                    outside.then(meant)
                } else {
                    outside
                }
            }
            other => other.to_string().into(),
        }
    }
}
