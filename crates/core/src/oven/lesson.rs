//! What bakes have taught, as things to be said.

use super::bake::{BakeKnowledge, BakesFitted};
use crate::units::{Share, TemperatureDifference};

/// Something that was learnt.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Lesson {
    /// The oven's air against its setting, or against its thermometer.
    Oven {
        /// Over it.
        offset: TemperatureDifference,
        /// One standard deviation.
        sd: TemperatureDifference,
        /// Whether it is told against what a thermometer showed.
        measured: bool,
    },
    /// A thermometer was read since, and counts.
    Measured,
    /// It heats so many times as strongly as is usual, give or take a share.
    Heats(f64, Share),
    /// The dough spreads so many times as far as forecast, give or take a share.
    Spreads(f64, Share),
    /// It takes so many times as long.
    Takes(f64),
    /// It browns so many times as fast.
    Browns(f64),
    /// Of this dough nothing is recorded: all doughs of this kitchen spread so many times as far.
    AllSpread(f64),
    /// Of this dough nothing is recorded, and the others have nothing in common.
    NothingOfIt,
    /// Trays differ so many times as much from each other as is usual, in time and in spread.
    Differ(f64, f64),
    /// Of so many bakes the range that the others tell held so often: times and spreads.
    Held {
        /// Bakes with a time, and those within.
        times: (u32, u32),
        /// Bakes, and those within.
        spreads: (u32, u32),
    },
}

/// Less than this, of itself, is as forecast. Our own choice: a tenth of a spread or of a time is less than trays differ.
const AS_FORECAST: f64 = 0.08;
/// An oven so near to its setting is true. Our own choice.
const TRUE_K: f64 = 2.0;
/// Trays that differ by less than this from what is usual are not spoken of.
const DIFFER: f64 = 1.3;
/// Nor of fewer than so many: two that lie apart may each be off for a reason of their own.
const LEAST_APART: u32 = 3;

fn other(times: f64) -> bool {
    times.ln().abs() > AS_FORECAST
}

impl Lesson {
    /// Whether an oven is as it is set.
    #[must_use]
    pub fn is_true(offset: TemperatureDifference) -> bool {
        offset.k().abs() < TRUE_K
    }

    /// Whether something is as the model has it.
    #[must_use]
    pub fn as_forecast(times: f64) -> bool {
        !other(times)
    }
}

impl BakeKnowledge {
    /// What was learnt; `measured` where a thermometer was read in the oven.
    #[must_use]
    pub fn lessons(&self, measured: bool) -> Vec<Lesson> {
        let mut found = vec![match self.oven {
            Some(o) => Lesson::Oven { offset: o.offset, sd: o.offset_sd, measured },
            None => Lesson::Measured,
        }];
        let heat = self.oven.and_then(|o| o.heat).filter(|h| other(h.heat));
        found.extend(heat.map(|h| Lesson::Heats(h.heat, Share::new(h.heat_sd))));
        let d = &self.dough;
        if d.records == 0 {
            found.push(if other(d.spread) { Lesson::AllSpread(d.spread) } else { Lesson::NothingOfIt });
            return found;
        }
        found.push(Lesson::Spreads(d.spread, Share::new(d.spread_sd)));
        found.extend(other(d.time).then_some(Lesson::Takes(d.time)));
        found.extend(other(d.browning).then_some(Lesson::Browns(d.browning)));
        found
    }
}

impl BakesFitted {
    /// What is to be said of the records themselves.
    #[must_use]
    pub fn lessons(&self) -> Vec<Lesson> {
        let (time, spread) = self.differ;
        let mut found = vec![];
        let differ = self.oven.records >= LEAST_APART && (time > DIFFER || spread > DIFFER);
        found.extend(differ.then_some(Lesson::Differ(time, spread)));
        let (times, spreads) = (self.held.times, self.held.spreads);
        found.extend((spreads.0 > 1).then_some(Lesson::Held { times, spreads }));
        found
    }
}
