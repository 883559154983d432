//! What happens while a day is worked.

use crate::clock::DayPlace;
use serde::{Deserialize, Serialize};
use std::ops::RangeInclusive;

/// One thing that happened. Tasks are told by their places in the plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Happened {
    /// A step was begun.
    Started {
        /// Which.
        task: usize,
    },
    /// It was done; what goes on by itself begins.
    Done {
        /// Which.
        task: usize,
    },
    /// It takes longer: pale in the oven, slow by hand.
    MoreTime {
        /// Which.
        task: usize,
        /// By so many minutes, 0.5 to 120.
        min: f64,
    },
    /// The dough got too soft to be worked: it goes back into the cold.
    TooSoft {
        /// The step that has to wait.
        task: usize,
        /// For so many minutes, 1 to 240.
        min: f64,
    },
    /// It chills in the other cold place.
    Elsewhere {
        /// Which.
        task: usize,
        /// Where.
        place: DayPlace,
    },
    /// A tray was dropped, or is not to be used: nothing more is done with it.
    Dropped {
        /// Any step of it.
        task: usize,
    },
    /// The oven was off for so long, 1 to 600 min: what is in it takes so much longer.
    PowerWent {
        /// Minutes.
        min: f64,
    },
    /// The dough was so warm when it went into the cold, -5 to 35 degC.
    Measured {
        /// Its stay in the cold.
        task: usize,
        /// Its temperature, degC.
        c: f64,
    },
    /// So many pieces came of a cut, 0 to 10,000.
    Counted {
        /// The cut.
        task: usize,
        /// Pieces.
        pieces: u32,
    },
    /// An earlier press was a mistake.
    TakenBack {
        /// The number of what happened.
        event: i64,
    },
    /// It happened at another time than it was pressed.
    Moved {
        /// The number of what happened.
        event: i64,
        /// When, minutes of the run.
        at_min: f64,
    },
}

impl Happened {
    /// Whether it is of the same kind as another.
    pub(super) fn alike(&self, other: &Self) -> bool {
        std::mem::discriminant(self) == std::mem::discriminant(other)
    }

    /// The task that it is about.
    #[must_use]
    pub fn task(&self) -> Option<usize> {
        match *self {
            Self::Started { task }
            | Self::Done { task }
            | Self::MoreTime { task, .. }
            | Self::TooSoft { task, .. }
            | Self::Elsewhere { task, .. }
            | Self::Dropped { task }
            | Self::Measured { task, .. }
            | Self::Counted { task, .. } => Some(task),
            Self::PowerWent { .. } | Self::TakenBack { .. } | Self::Moved { .. } => None,
        }
    }
}

/// Something that happened, and when.
#[derive(Debug, Clone, PartialEq)]
pub struct RunEvent {
    /// Its number; later ones are greater.
    pub id: i64,
    /// When, minutes of the run.
    pub at_min: f64,
    /// What.
    pub what: Happened,
}

/// A press may be told to have been so long before its day was begun, min: a day. Our own choice.
const BEFORE_IT_BEGAN_MIN: f64 = 1440.0;
/// A press that lies ahead was noted before the clock was set back, by a day at most; what lies further ahead is none. Min, our own choice.
const AHEAD_AT_MOST_MIN: f64 = 1500.0;
/// A clock that is set back may stand so far behind what was noted last, min: what lies further ahead was noted by a clock that was wrong. Our own choice.
const SET_BACK_AT_MOST_MIN: f64 = 120.0;

/// When a press may be told to have been, minutes of the run: from a day before it was begun until now, and a day ahead, which is taken as now.
#[must_use]
pub fn may_be_noted(began_min: f64, now_min: f64) -> RangeInclusive<f64> {
    began_min - BEFORE_IT_BEGAN_MIN..=now_min + AHEAD_AT_MOST_MIN
}

/// The minute of a run by its clock, which does not go back behind what was noted: a machine's clock that is set back by an hour does not undo the
/// hour's work.
#[must_use]
pub fn not_before_noted(clock_min: f64, events: &[RunEvent]) -> f64 {
    let near = |at: &f64| *at <= clock_min + SET_BACK_AT_MOST_MIN;
    events.iter().map(|e| e.at_min).filter(near).fold(clock_min, f64::max)
}

/// What was noted, as it stands at a minute: what was noted by a clock that was far ahead then has happened, too, if nobody knows when.
#[must_use]
pub fn none_ahead(events: &[RunEvent], now_min: f64) -> Vec<RunEvent> {
    let noted = |e: &RunEvent| RunEvent { at_min: e.at_min.min(now_min), ..e.clone() };
    events.iter().map(noted).collect()
}

/// What holds of all that was noted: without what was taken back, at the times it was moved to, in order of time.
#[must_use]
pub fn effective(events: &[RunEvent]) -> Vec<RunEvent> {
    let mut noted: Vec<&RunEvent> = events.iter().collect();
    noted.sort_by_key(|e| e.id);
    let mut kept: Vec<RunEvent> = vec![];
    // A correction may itself be taken back: the newest is looked at first.
    let mut gone: Vec<i64> = vec![];
    let mut moved: Vec<(i64, f64)> = vec![];
    for e in noted.into_iter().rev() {
        if gone.contains(&e.id) {
            continue;
        }
        match e.what {
            Happened::TakenBack { event } if event < e.id => gone.push(event),
            Happened::Moved { event, at_min } if event < e.id => {
                if !moved.iter().any(|(of, _)| *of == event) {
                    moved.push((event, at_min));
                }
            }
            Happened::TakenBack { .. } | Happened::Moved { .. } => {}
            _ => {
                let at_min = moved.iter().find(|(of, _)| *of == e.id).map_or(e.at_min, |(_, at)| *at);
                kept.push(RunEvent { at_min, ..e.clone() });
            }
        }
    }
    kept.sort_by(|a, b| a.at_min.total_cmp(&b.at_min).then(a.id.cmp(&b.id)));
    kept
}
