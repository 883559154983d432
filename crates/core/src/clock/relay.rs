//! A relay: while one tray chills the next is cut and one bakes. Whole minutes, counted back from the wanted time.

use super::planner::{DayKitchen, DayPlace, Forbidden};
use super::step::{Lane, Step};

impl Relay {
    /// The steps of one lot, from 0, as if it were alone; it counts as the first.
    #[must_use]
    pub fn of_lot(&self, lot: usize) -> Self {
        self.of_lots(|task| (usize::try_from(task) == Ok(lot)).then_some(0), 0)
    }

    /// The steps of some lots as if they were alone, each under the number it gets, their times from a wanted time so many minutes before the last.
    #[must_use]
    pub fn of_lots(&self, number: impl Fn(u32) -> Option<u32>, wanted_before_min: i64) -> Self {
        let own = self.tasks.iter().filter_map(|t| Some((t, number(t.lot)?)));
        let tasks = own.map(|(t, lot)| RelayTask {
            lot,
            start_min: t.start_min + wanted_before_min,
            end_min: t.end_min + wanted_before_min,
            ..t.clone()
        });
        let lacks =
            self.lacks.iter().filter(|l| l.batch.is_none_or(|lot| u32::try_from(lot).ok().and_then(&number).is_some()));
        Self::new(tasks.collect(), lacks.copied().collect())
    }

    /// Steps in order of their starts.
    #[must_use]
    pub fn new(mut tasks: Vec<RelayTask>, lacks: Vec<Forbidden>) -> Self {
        tasks.sort_by_key(|t| (t.start_min, t.end_min));
        let start_min = tasks.first().map_or(0, |t| t.start_min);
        let hands_min = tasks.iter().filter(|t| t.lane == Lane::Hands).map(|t| t.end_min - t.start_min).sum();
        Self { tasks, start_min, hands_min, lacks }
    }
}

/// One lot: pieces of one kind, of one dough.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayLot {
    /// Mixes, in order; none when another lot's mixes hold its dough.
    pub mixes: u32,
    /// The lot whose mixes hold its dough, from 0, when that is another.
    pub mixed_by: Option<usize>,
    /// Weighing and mixing one.
    pub mix_min: i64,
    /// Pressing its discs, rolling its sheets between papers, forming its logs or portions.
    pub form_min: i64,
    /// Of logs, the dough in the cold as a lump before they are formed, with its rest on the bench; 0 where they are formed at once.
    pub bulk_min: i64,
    /// Whether the dough thaws that is in the freezer already and not mixed.
    pub thaws: bool,
    /// Where the dough chills, or thaws.
    pub dough_place: DayPlace,
    /// In the cold until it can be worked.
    pub chill_min: i64,
    /// Hands a tray: rolling and cutting, or cutting alone.
    pub cut_min: Vec<i64>,
    /// Where cut pieces wait or chill before the oven.
    pub tray_place: DayPlace,
    /// Cut pieces in the cold before the oven.
    pub tray_chill_min: i64,
    /// In the oven, the longer end of the range.
    pub bake_min: i64,
    /// The oven set to, degC.
    pub oven_c: f64,
    /// On the tray afterwards, until they can be lifted and the tray is free.
    pub cool_min: i64,
    /// On a rack after that, until they can be packed, iced or filled.
    pub rack_min: i64,
    /// Hands a tray once it is cool: icing, glazing, filling; nothing where they stay plain, or where that is no part of what is wanted.
    pub finish_min: Vec<i64>,
    /// Until what was put on is dry.
    pub dry_min: i64,
    /// Hands a tray to pack it; nothing where that is no part of what is wanted.
    pub pack_min: Vec<i64>,
    /// Wanted so long before the last of all that is planned together.
    pub wanted_before_min: i64,
    /// Whether it is wanted straight from the oven: it cools after the wanted time.
    pub warm: bool,
    /// How long the dough rests on the bench when it comes out of the cold, by how long it was in: from so many minutes on, so many
    /// minutes; in order. Nothing where it is never too cold.
    pub rests: Vec<(i64, i64)>,
    /// Why the dough is in the cold for as long as it is at least, where that is longer than until it is ready.
    pub chill_why: Option<ChillWaits>,
}

/// What the relay is planned from. All spans in whole minutes.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayInput {
    /// The lots in the order in which they are baked.
    pub lots: Vec<RelayLot>,
    /// Hands, mixers, places, trays and ovens.
    pub kitchen: DayKitchen,
}

/// One bar of the timeline.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayTask {
    /// What is done.
    pub step: Step,
    /// What it occupies.
    pub lane: Lane,
    /// The lot (from 0).
    pub lot: u32,
    /// The mix (from 0), for the steps up to the dough chill.
    pub mix: Option<u32>,
    /// The tray (from 0), from the cut on.
    pub tray: Option<u32>,
    /// The mix (from 0) whose dough it is; of dough that another lot mixes, 0.
    pub dough: u32,
    /// The oven (from 0), for preheating and baking.
    pub oven: Option<u32>,
    /// Minutes after the wanted time: negative.
    pub start_min: i64,
    /// End of the half-open interval.
    pub end_min: i64,
    /// Why it lies there, where something other than its successor holds it.
    pub why: Vec<Held>,
}

/// What makes a chill longer than the slow end of its range.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MoreChill {
    /// Its flour rests at least so long.
    Flour {
        /// In the cold in all.
        at_least_min: i64,
    },
    /// The baker wants it in there so long.
    Asked {
        /// In the cold in all.
        at_least_min: i64,
    },
    /// It stays overnight.
    Overnight,
}

/// What of a chill is what.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ChillWaits {
    /// Until it is ready.
    pub ready_min: i64,
    /// More at the slow end of its range.
    pub slow_min: i64,
    /// More beyond that, and what for.
    pub more: Option<(i64, MoreChill)>,
}

/// What holds a step where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Held {
    /// The next tray wants another heat.
    AnotherHeat,
    /// The next tray wants the oven.
    OvenWanted,
    /// Another tray takes its place to cool.
    CoolingPlaceWanted,
    /// Its tray has to be free again.
    TrayWanted,
    /// On its tray so much longer than it must: hands or oven are at something else.
    LongerOnItsTray {
        /// Longer.
        longer_min: i64,
    },
    /// The chill itself.
    Chill(ChillWaits),
    /// In the cold so much longer than it must: the hands are busy, or the next tray is not due.
    HandsBusy {
        /// Longer.
        longer_min: i64,
    },
    /// It has got too cold and rests until it can be worked.
    TooCold,
}

/// The whole relay.
#[derive(Debug, Clone, PartialEq)]
pub struct Relay {
    /// All tasks by start.
    pub tasks: Vec<RelayTask>,
    /// Start of the first, minutes after the wanted time (negative).
    pub start_min: i64,
    /// Minutes of hands.
    pub hands_min: i64,
    /// What the kitchen has too little of for it, by lots from 0; the relay is as it would be with that. Nothing of a day that goes.
    pub lacks: Vec<Forbidden>,
}
