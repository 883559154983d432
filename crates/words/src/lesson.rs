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
        t => said![more(t, ("further than forecast", "less than forecast"))],
    }
}

fn more(times: f64, (more, less): (&'static str, &'static str)) -> Sentence {
    said![percent(Share::new((times - 1.0).abs()), 0), " ", if times > 1.0 { more } else { less }]
}

fn of(n: u32, what: &str) -> String {
    if n == 1 { format!("1 {what}") } else { format!("{n} {what}s") }
}

impl Say for Lesson {
    fn say(&self) -> Sentence {
        match *self {
            Self::Oven { offset, sd, measured } => {
                let than = if measured { "its thermometer showed" } else { "its dial" };
                let by = TemperatureDifference::new_k(offset.k().abs());
                let off = if Self::is_true(offset) {
                    said!["Your oven matches ", than]
                } else {
                    said![
                        "Your oven is ",
                        apart(by, 0),
                        if offset.k() < 0.0 { " cooler than " } else { " hotter than " },
                        than
                    ]
                };
                said![off, " (\u{b1} ", apart(sd, 0), ")."]
            }
            Self::Measured => "You’ve checked it with a thermometer since; that counts instead.".into(),
            Self::Heats(times, sd) => {
                said!["It gives ", more(times, ("more", "less")), " heat than usual (\u{b1} ", percent(sd, 0), ").",]
            }
            Self::Spreads(times, sd) => {
                said!["This dough spreads ", as_far(times), " (\u{b1} ", percent(sd, 0), ")."]
            }
            Self::Takes(times) => {
                said!["It bakes ", more(times, ("slower", "faster")), "."]
            }
            Self::Browns(times) => said!["It browns ", more(times, ("faster", "slower")), "."],
            Self::AllSpread(times) => said![
                "You haven\u{2019}t baked this dough yet. Your others spread ",
                as_far(times),
                ". This forecast allows for that."
            ],
            Self::NothingOfIt => "No bakes of this dough yet.".into(),
            Self::Differ(time, spread) => {
                let as_much = |times: f64| {
                    if (0.95..1.05).contains(&times) {
                        "as usual".to_owned()
                    } else {
                        format!(
                            "{}% {}",
                            number((100.0 * (times - 1.0)).abs(), 0),
                            if times > 1.0 { "more" } else { "less" }
                        )
                    }
                };
                said![
                    "Your trays vary more than usual (time ",
                    as_much(time),
                    ", spread ",
                    as_much(spread),
                    "), so ranges are wider."
                ]
            }
            Self::Held { times, spreads } => {
                let of_times = (times.0 > 0).then(|| format!("{} of {}", times.1, of(times.0, "time")));
                let of_spreads = format!("{} of {}", spreads.1, of(spreads.0, "spread"));
                let both = of_times.map_or_else(|| of_spreads.clone(), |t| format!("{t} and {of_spreads}"));
                said!["Checked on your other bakes: ", both, " in range (aim: 9 in 10)."]
            }
        }
    }
}
