//! The plan of a run, as it stood when the run began: it holds for itself, whatever becomes of its jobs.

use crate::clock::{DayKitchen, DayPlace, Lane, Step};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// Something in the cold, as the model has it from when it goes in.
#[derive(Debug, Clone, Default, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize))]
pub struct ColdRun {
    /// Minutes in the cold, and its mean then, degC; in order.
    pub mean_c: Vec<(f64, f64)>,
}

impl ColdRun {
    /// Its mean after so long; the nearest known beyond the ends. Nothing where nothing is known.
    #[must_use]
    pub fn at(&self, after_min: f64) -> Option<f64> {
        crate::geometry::straight_between(&self.mean_c, after_min)
    }

    /// By how many minutes what goes in at another temperature is ahead of the run, negative behind it: where it is colder, by when the run is as
    /// cold; where it is warmer, by how long the run takes for as much at its beginning. An approximation: the run of another start is not the same
    /// one shifted.
    #[must_use]
    pub fn ahead_by(&self, start_c: f64) -> f64 {
        let Some(&(_, first)) = self.mean_c.first() else { return 0.0 };
        if start_c > first {
            let fall = self.mean_c.iter().find(|(after, c)| *after > 0.0 && first - c > 0.5);
            return fall.map_or(0.0, |(after, c)| -(start_c - first) * after / (first - c));
        }
        let pairs = self.mean_c.windows(2).find(|w| w[1].1 <= start_c && w[0].1 > w[1].1);
        pairs.map_or(0.0, |w| w[0].0 + (w[1].0 - w[0].0) * (w[0].1 - start_c) / (w[0].1 - w[1].1))
    }
}

/// Pieces of one kind, of one dough.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize))]
pub struct RunLot {
    /// Its job when the run began.
    pub job_id: i64,
    /// Its name.
    pub name: String,
    /// When it is wanted, minutes of the run.
    pub wanted_min: f64,
    /// Whether it is wanted straight from the oven.
    pub warm: bool,
    /// The oven set to, degC.
    pub oven_c: f64,
    /// First look at a tray in the oven, minutes after it went in.
    pub look_after_min: f64,
    /// Whether the dough of a mix lies in the cold as one piece, so that what is too soft is all of it.
    pub one_piece: bool,
    /// Its dough in the cold.
    pub dough_cold: ColdRun,
    /// Its cut pieces in the cold.
    pub tray_cold: ColdRun,
    /// How long the dough can be worked when it comes out just ready, and when it comes out as cold as it may, min; nothing where it keeps.
    pub workable_min: Option<(f64, f64)>,
    /// In the cold until it is too cold to be worked at once, min, and how long it rests then.
    pub too_cold: Option<(f64, f64)>,
    /// Cut trays chill in the other cold place too: at least so long there, min.
    pub other_tray: Option<(DayPlace, f64)>,
}

/// One step of the day.
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize))]
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
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize))]
pub struct RunPlan {
    /// The kitchen it was planned for.
    pub kitchen: DayKitchen,
    /// Its lots.
    pub lots: Vec<RunLot>,
    /// Its steps by their starts; each is known by its place here.
    pub tasks: Vec<RunTask>,
}

/// What a lot is mixed and cut in, to tell which steps come before which.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct LotShape {
    pub(crate) mixes: u32,
    pub(crate) trays: u32,
    pub(crate) mixed_by: Option<usize>,
}

impl RunPlan {
    /// A plan whose steps are told what comes before them.
    #[must_use]
    pub(crate) fn new(kitchen: DayKitchen, lots: Vec<RunLot>, mut tasks: Vec<RunTask>, shapes: &[LotShape]) -> Self {
        tasks.sort_by(|a, b| a.start_min.total_cmp(&b.start_min).then(a.end_min.total_cmp(&b.end_min)));
        let all: Vec<Vec<usize>> = (0..tasks.len()).map(|at| before(&tasks, at, shapes)).collect();
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

fn before(tasks: &[RunTask], at: usize, shapes: &[LotShape]) -> Vec<usize> {
    let task = &tasks[at];
    let own = rank(task.step);
    let last = |of: &dyn Fn(&RunTask) -> bool| {
        let found = tasks.iter().enumerate().filter(|(_, t)| rank(t.step) < own && of(t));
        found.max_by_key(|(_, t)| rank(t.step)).map(|(i, _)| i)
    };
    let shape = shapes.get(task.lot).copied();
    let mut found: Vec<usize> = vec![];
    if task.step == Step::Preheat {
        return found;
    }
    let dough_of = |lot: usize, mix: u32| {
        let own = last(&|t| t.lot == lot && t.mix == Some(mix) && t.tray.is_none());
        // What another lot mixes is formed of its first mix.
        let lead = shape.and_then(|s| s.mixed_by);
        own.or_else(|| lead.and_then(|lead| last(&|t| t.lot == lead && t.step == Step::Mix && t.mix == Some(0))))
    };
    if let Some(mix) = task.mix {
        found.extend(dough_of(task.lot, mix));
    }
    if let Some(tray) = task.tray {
        let on_tray = last(&|t| t.lot == task.lot && t.tray == Some(tray));
        let mix =
            shape.map_or(0, |s| (0..s.mixes.max(1)).rev().find(|m| m * s.trays / s.mixes.max(1) <= tray).unwrap_or(0));
        found.extend(on_tray.or_else(|| dough_of(task.lot, mix)));
    }
    if task.step == Step::Bake {
        found.extend(tasks.iter().position(|t| t.step == Step::Preheat && t.oven == task.oven));
    }
    found
}
