//! The plan of a run, as it stood when the run began: it holds for itself, whatever becomes of its jobs.

use crate::clock::{DayKitchen, DayPlace, Lane, Step};
use crate::geometry::straight_between;
use serde::{Deserialize, Serialize};

/// Something in the cold, as the model has it from when it goes in.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
pub struct ColdRun {
    /// Minutes in the cold, and its mean then, degC; in order.
    pub mean_c: Vec<(f64, f64)>,
}

impl ColdRun {
    /// Its mean after so long; the nearest known beyond the ends. Nothing where nothing is known.
    #[must_use]
    pub fn at(&self, after_min: f64) -> Option<f64> {
        straight_between(&self.mean_c, after_min)
    }

    /// When it is at a temperature; 0 of what it never was above, nothing of what it does not reach.
    #[must_use]
    pub fn when(&self, c: f64) -> Option<f64> {
        let first = self.mean_c.first()?;
        if first.1 <= c {
            return Some(first.0);
        }
        let pair = self.mean_c.windows(2).find(|w| w[0].1 > c && w[1].1 <= c)?;
        Some(pair[0].0 + (pair[1].0 - pair[0].0) * (pair[0].1 - c) / (pair[0].1 - pair[1].1))
    }

    /// What was moved from here after so many minutes and lies elsewhere since: its mean so many minutes after it first went in.
    #[must_use]
    pub fn moved(&self, after_min: f64, elsewhere: &Self, at_min: f64) -> Option<f64> {
        let c = self.at(after_min)?;
        let Some(then) = elsewhere.when(c) else { return Some(c) };
        elsewhere.at(then + (at_min - after_min).max(0.0))
    }
}

/// The dough in the cold, from a temperature that it may go in at.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
pub struct ColdFrom {
    /// It goes in at this, degC.
    pub start_c: f64,
    /// It stays at least so long, min.
    pub least_min: f64,
    /// How it cools.
    pub run: ColdRun,
}

/// What the model says of a tray that goes in at a temperature.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct BakeAt {
    /// The pieces as they go in, degC.
    pub start_c: f64,
    /// Until they are as the order has them, min.
    pub bake_min: f64,
    /// Growth across, of the width as cut.
    pub spread: f64,
}

/// The other cold place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Elsewhere {
    /// Which.
    pub place: DayPlace,
    /// What lies there from the beginning does so at least so long, min.
    pub least_min: f64,
    /// How it cools there.
    pub run: ColdRun,
}

/// Pieces of one kind, of one dough.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
pub struct RunLot {
    /// Its job when the run began.
    pub job_id: i64,
    /// Its name.
    pub name: String,
    /// The lot, from 0, whose mixes hold its dough, when that is another.
    pub mixed_by: Option<usize>,
    /// When it is wanted, minutes of the run.
    pub wanted_min: f64,
    /// Whether it is wanted straight from the oven.
    pub warm: bool,
    /// The oven set to, degC.
    pub oven_c: f64,
    /// What is to be seen on a tray that is done, in words; empty where that was not kept.
    #[serde(default)]
    pub look_for: String,
    /// The one figure of its bake, min; 0 in runs that were begun before there was one.
    #[serde(default)]
    pub about_min: f64,
    /// First look at a tray in the oven, minutes after it went in.
    pub look_after_min: f64,
    /// Whether the dough of a mix lies in the cold as one piece, so that what is too soft is all of it.
    pub one_piece: bool,
    /// Its dough in the cold.
    pub dough_cold: ColdRun,
    /// The same from other temperatures that it may go in at, the coldest first.
    #[serde(default)]
    pub dough_from: Vec<ColdFrom>,
    /// The dough stays until it is ready, and at least so long, min; nothing where it stays as long as somebody said.
    #[serde(default)]
    pub dough_waits_min: Option<f64>,
    /// The same of its cut pieces.
    #[serde(default)]
    pub tray_waits_min: Option<f64>,
    /// How long the dough keeps in there, min; nothing where that is longer than any day.
    #[serde(default)]
    pub keeps_min: Option<f64>,
    /// Its cut pieces in the cold.
    pub tray_cold: ColdRun,
    /// Its cut pieces in the other cold place, where they chill there too.
    #[serde(default)]
    pub tray_elsewhere: Option<Elsewhere>,
    /// Its dough in the other cold place, where it chills there too.
    #[serde(default)]
    pub dough_elsewhere: Option<Elsewhere>,
    /// Its cut pieces on the counter, where they do not chill.
    #[serde(default)]
    pub tray_counter: ColdRun,
    /// The pieces as they are to go into the oven, degC.
    #[serde(default)]
    pub goes_in_c: Option<f64>,
    /// Their bake from that temperature and others, the coldest first.
    #[serde(default)]
    pub bakes: Vec<BakeAt>,
    /// How long the dough can be worked when it comes out just ready, and when it comes out as cold as it may, min; nothing where it keeps.
    pub workable_min: Option<(f64, f64)>,
    /// In the cold until it is too cold to be worked at once, min, and how long it rests then.
    pub too_cold: Option<(f64, f64)>,
}

impl RunLot {
    /// By how many minutes dough that goes in at another temperature is sooner ready than planned, negative where it takes longer.
    #[must_use]
    pub fn ahead_by(&self, start_c: f64) -> f64 {
        let least: Vec<(f64, f64)> = self.dough_from.iter().map(|f| (f.start_c, f.least_min)).collect();
        let planned = self.dough_cold.at(0.0).and_then(|c| straight_between(&least, c));
        match (planned, straight_between(&least, start_c)) {
            (Some(planned), Some(now)) => planned - now,
            _ => 0.0,
        }
    }

    /// A bake from a temperature: between those that were asked, the nearest of them beyond. Nothing where nothing is forecast.
    #[must_use]
    pub fn bake_at(&self, start_c: f64) -> Option<BakeAt> {
        let of = |value: fn(&BakeAt) -> f64| {
            let known: Vec<(f64, f64)> = self.bakes.iter().map(|b| (b.start_c, value(b))).collect();
            straight_between(&known, start_c)
        };
        Some(BakeAt { start_c, bake_min: of(|b| b.bake_min)?, spread: of(|b| b.spread)? })
    }

    /// The other place for a step in the cold.
    #[must_use]
    pub fn elsewhere(&self, step: Step) -> Option<&Elsewhere> {
        match step {
            Step::TrayChill => self.tray_elsewhere.as_ref(),
            Step::Chill => self.dough_elsewhere.as_ref(),
            _ => None,
        }
    }

    /// The mean of the dough after so long in the cold: as planned, or from a temperature that was measured.
    #[must_use]
    pub fn dough_at(&self, start_c: Option<f64>, after_min: f64) -> Option<f64> {
        let Some(c) = start_c.filter(|_| !self.dough_from.is_empty()) else { return self.dough_cold.at(after_min) };
        let then: Vec<(f64, f64)> =
            self.dough_from.iter().filter_map(|f| Some((f.start_c, f.run.at(after_min)?))).collect();
        straight_between(&then, c)
    }
}

/// One step of the day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct RunTask {
    /// What.
    pub step: Step,
    /// What it occupies.
    pub lane: Lane,
    /// Whose, from 0.
    pub lot: usize,
    /// The mix, from 0, up to the dough chill.
    pub mix: Option<u32>,
    /// The tray, from 0, from the cut on.
    pub tray: Option<u32>,
    /// The mix, from 0, whose dough it is; only asked when the plan is made.
    #[serde(default)]
    pub dough: u32,
    /// The oven, from 0.
    pub oven: Option<u32>,
    /// Where it chills.
    pub place: Option<DayPlace>,
    /// As planned, minutes of the run.
    pub start_min: f64,
    /// As planned.
    pub end_min: f64,
    /// Takes at least so long.
    pub least_min: f64,
    /// Pieces on its tray.
    pub pieces: Option<u32>,
    /// What is done, in words.
    pub does: String,
    /// The tasks, by their places in the plan, that come before it.
    pub after: Vec<usize>,
}

impl RunTask {
    /// Lies there until somebody comes for it.
    #[must_use]
    pub fn waits(&self) -> bool {
        matches!(self.step, Step::Chill | Step::TrayChill | Step::BulkChill | Step::Thaw)
    }

    /// Ends by itself.
    #[must_use]
    pub fn ends_by_itself(&self) -> bool {
        matches!(self.step, Step::Cool | Step::CoolOnRack | Step::Dry | Step::Rest | Step::Preheat)
    }

    /// Begins by itself when what comes before it has ended.
    #[must_use]
    pub fn begins_by_itself(&self) -> bool {
        !self.step.by_hand() && !matches!(self.step, Step::Bake | Step::Preheat) && !self.after.is_empty()
    }
}

/// The plan of a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct RunPlan {
    /// The kitchen it was planned for.
    pub kitchen: DayKitchen,
    /// Its lots.
    pub lots: Vec<RunLot>,
    /// Its steps by their starts; each is known by its place here.
    pub tasks: Vec<RunTask>,
}

impl RunPlan {
    /// A plan whose steps are told what comes before them.
    #[must_use]
    pub(crate) fn new(kitchen: DayKitchen, lots: Vec<RunLot>, mut tasks: Vec<RunTask>) -> Self {
        tasks.sort_by(|a, b| a.start_min.total_cmp(&b.start_min).then(a.end_min.total_cmp(&b.end_min)));
        let all: Vec<Vec<usize>> = (0..tasks.len()).map(|at| before(&tasks, &lots, at)).collect();
        tasks.iter_mut().zip(all).for_each(|(task, after)| task.after = after);
        Self { kitchen, lots, tasks }
    }

    /// Whether it names only what it holds: a file may have been made elsewhere.
    #[must_use]
    pub fn holds_together(&self) -> bool {
        let sound = |t: &RunTask| {
            let numbers = [t.start_min, t.end_min, t.least_min];
            t.lot < self.lots.len()
                && t.after.iter().all(|b| *b < self.tasks.len())
                && numbers.iter().all(|n| n.is_finite())
        };
        self.tasks.iter().all(sound)
    }

    /// The trays that go into the oven with a load, itself too.
    #[must_use]
    pub fn load_of(&self, task: usize) -> Vec<usize> {
        let t = &self.tasks[task];
        if t.step != Step::Bake {
            return vec![task];
        }
        let same = |o: &RunTask| o.step == Step::Bake && o.oven == t.oven && (o.start_min - t.start_min).abs() < 0.01;
        self.tasks.iter().enumerate().filter(|(_, o)| same(o)).map(|(i, _)| i).collect()
    }
}

/// Where a step stands in the making of a mix or a tray.
fn rank(step: Step) -> u8 {
    match step {
        Step::Mix => 0,
        Step::BulkChill => 1,
        Step::Form => 2,
        Step::Chill | Step::Thaw => 3,
        Step::Rest => 4,
        Step::Cut => 5,
        Step::TrayChill => 6,
        Step::Preheat => 7,
        Step::Bake => 8,
        Step::Cool => 9,
        Step::CoolOnRack => 10,
        Step::Finish => 11,
        Step::Dry => 12,
        Step::Pack => 13,
    }
}

fn before(tasks: &[RunTask], lots: &[RunLot], at: usize) -> Vec<usize> {
    let task = &tasks[at];
    let own = rank(task.step);
    let last = |of: &dyn Fn(&RunTask) -> bool| {
        let found = tasks.iter().enumerate().filter(|(_, t)| rank(t.step) < own && of(t));
        found.max_by_key(|(_, t)| rank(t.step)).map(|(i, _)| i)
    };
    if task.step == Step::Preheat {
        return vec![];
    }
    let on_its_tray = last(&|t| task.tray.is_some() && t.lot == task.lot && t.tray == task.tray);
    let of_its_dough = || last(&|t| t.lot == task.lot && t.tray.is_none() && t.mix == Some(task.dough));
    // What another lot mixes is formed of its first mix.
    let mixed = || last(&|t| Some(t.lot) == lots[task.lot].mixed_by && t.step == Step::Mix && t.mix == Some(0));
    let mut found: Vec<usize> = on_its_tray.or_else(of_its_dough).or_else(mixed).into_iter().collect();
    if task.step == Step::Bake {
        found.extend(tasks.iter().position(|t| t.step == Step::Preheat && t.oven == task.oven));
    }
    found
}
