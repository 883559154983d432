//! What bakes have taught, in words.

use crate::figure::{apart, number, percent};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::oven::Lesson;
use ready_slab_core::units::{Share, TemperatureDifference};

/// How far, against a forecast.
fn as_far(times: f64) -> Sentence {
    match times {
        t if Lesson::as_forecast(t) => "as far as forecast".into(),
        t if (0.45..0.55).contains(&t) => "half as far as forecast".into(),
        t if (1.9..2.1).contains(&t) => "twice as far as forecast".into(),
        t => said![number(t, 2), " times as far as forecast"],
    }
}

fn more(times: f64, (more, less): (&'static str, &'static str)) -> Sentence {
    said![percent(Share::new((times - 1.0).abs()), 0), " ", if times > 1.0 { more } else { less }]
}

fn of(n: u32, what: &str) -> String {
    if n == 1 { format!("one {what}") } else { format!("{n} {what}s") }
}

impl Say for Lesson {
    fn say(&self) -> Sentence {
        match *self {
            Self::Oven { offset, sd, measured } => {
                let than = if measured { "its thermometer showed" } else { "its dial" };
                let by = TemperatureDifference::new_k(offset.k().abs());
                let off = if Self::is_true(offset) {
                    said!["Your oven is as hot as ", than]
                } else {
                    said![
                        "Your oven is ",
                        apart(by, 0),
                        if offset.k() < 0.0 { " cooler than " } else { " hotter than " },
                        than
                    ]
                };
                said![off, ", give or take ", apart(sd, 0), "."]
            }
            Self::Measured => "Its thermometer was read since, and counts.".into(),
            Self::Heats(times, sd) => said![
                "It heats ",
                more(times, ("more strongly", "less strongly")),
                " than is usual, give or take ",
                percent(sd, 0),
                "; that and its degrees trade off.",
            ],
            Self::Spreads(times, sd) => {
                said!["This dough spreads ", as_far(times), ", give or take ", percent(sd, 0), "."]
            }
            Self::Takes(times) => {
                said!["It takes ", more(times, ("longer", "less")), if times > 1.0 { "." } else { " time." }]
            }
            Self::Browns(times) => said!["It browns ", more(times, ("faster", "more slowly")), "."],
            Self::AllSpread(times) => said![
                "Of this dough nothing is recorded. The others here spread ",
                as_far(times),
                ", so this one is expected to."
            ],
            Self::NothingOfIt => "Of this dough itself nothing is recorded.".into(),
            Self::Differ(time, spread) => {
                let as_much = |times: f64| {
                    if (0.95..1.05).contains(&times) {
                        "as usual".to_owned()
                    } else {
                        format!("{} times as much", number(times, 1))
                    }
                };
                said![
                    "Trays here differ more from each other than is usual (in time ",
                    as_much(time),
                    ", in spread ",
                    as_much(spread),
                    "), so the ranges are wider."
                ]
            }
            Self::Held { times, spreads } => {
                let of_times = (times.0 > 0).then(|| format!("{} of {}", times.1, of(times.0, "time")));
                let of_spreads = format!("{} of {}", spreads.1, of(spreads.0, "spread"));
                let both = of_times.map_or_else(|| of_spreads.clone(), |t| format!("{t} and {of_spreads}"));
                said!["Told from the other bakes alone, the range held ", both, "; nine of ten are expected to."]
            }
        }
    }
}
