//! A date of the bakery on the wire: all its jobs on the kitchen's lanes.

use super::plan::TaskView;
use super::{SentenceView, say, view};
use crate::whole::WholeDate;
use chrono::{NaiveDate, NaiveDateTime};
use ready_slab_core::clock::{Lane, MINUTE_FORMAT, RelayTask, Zone};
use ready_slab_core::job::{DayClash, DayGain, day_clashes, day_shares};
use ready_slab_store::JobId;
use ready_slab_words::{day_forbidden, day_help, day_shared};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

view! {
    /// A date on which something is wanted.
    pub struct DateView(date: NaiveDate, jobs: Vec<String>) {
        /// The date, `2026-12-05`.
        date: String = date.to_string(),
        /// The jobs, the soonest first.
        jobs: Vec<String> = jobs,
    }
}

/// A job of a date.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayJobView {
    /// Its number.
    pub job_id: i64,
    /// Its name.
    pub name: String,
    /// When it is wanted, local time.
    pub ready_by: String,
    /// When its first step begins, local time.
    pub start_at: String,
    /// Pieces that are baked.
    pub pieces: u32,
    /// Its lots, from 0, among those of the date.
    pub lots: Vec<usize>,
}

/// A job that cannot be planned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NotPlanned {
    /// Its number.
    pub job_id: i64,
    /// Its name.
    pub name: String,
    /// Why.
    pub why: Vec<SentenceView>,
}

/// What would let the day start later.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayHelpView {
    /// What, and by how much.
    pub says: SentenceView,
    /// By so much.
    pub gain_min: i64,
}

/// Another date wants the same hands or ovens at the same time: each date is planned by itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayClashView {
    /// The other date.
    pub date: String,
    /// Hands or oven.
    pub lane: Lane,
    /// Local time.
    pub from_at: String,
    /// Local time.
    pub to_at: String,
}

/// A date of the bakery.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayView {
    /// The date.
    pub date: String,
    /// The first step begins, local time; null where nothing is planned.
    pub start_at: Option<String>,
    /// The last is wanted, local time.
    pub ready_by: Option<String>,
    /// Of hands.
    pub hands_min: i64,
    /// Later than wanted by so much were it begun now; 0 while there is time.
    pub late_min: i64,
    /// Its jobs, the soonest wanted first.
    pub jobs: Vec<DayJobView>,
    /// What its lots are called.
    pub lots: Vec<String>,
    /// All steps by start; minutes are counted from the last wanted time.
    pub tasks: Vec<TaskView>,
    /// What the kitchen has too little of; the day is shown as it would be with that.
    pub lacks: Vec<SentenceView>,
    /// What its jobs share.
    pub shared: Vec<SentenceView>,
    /// What would let it start later, the most first.
    pub helps: Vec<DayHelpView>,
    /// Jobs that cannot be planned; the rest is planned without them.
    pub not_planned: Vec<NotPlanned>,
    /// Where the day before or after wants the same hands or ovens.
    pub clashes: Vec<DayClashView>,
    /// The run of it that goes on.
    pub run_id: Option<i64>,
}

impl DayView {
    /// A planned date, looked at at a local time.
    pub fn new(
        date: NaiveDate,
        day: &WholeDate,
        beside: &[(NaiveDate, Arc<WholeDate>)],
        gains: &[DayGain],
        now: NaiveDateTime,
        run_id: Option<i64>,
    ) -> Self {
        let name =
            |lot: usize| day.lots.get(lot).map_or_else(String::new, |l| l.whole.stored.job.input().order.name.clone());
        let zone = day.lots.first().map_or(Zone::UTC, |l| l.whole.kitchen.zone());
        // Minutes are counted from the last wanted time, which is that of a lot.
        let last = day.before_min.iter().position(|b| *b == 0).and_then(|at| day.lots.get(at));
        let shown = |minutes: i64| {
            last.map(|l| {
                zone.after(l.whole.stored.job.input().order.ready_by, minutes).format(MINUTE_FORMAT).to_string()
            })
        };
        let lead = |i: usize| day.lots[i].whole.stored.lot_of().unwrap_or(day.lots[i].whole.stored.id);
        let mut leads: Vec<JobId> = (0..day.lots.len()).map(lead).collect();
        leads.dedup();
        let mut jobs: Vec<DayJobView> = leads
            .into_iter()
            .filter_map(|id| {
                let own: Vec<usize> = (0..day.lots.len()).filter(|i| lead(*i) == id).collect();
                let first = &day.lots.get(*own.first()?)?.whole;
                let is_own = |t: &&RelayTask| usize::try_from(t.lot).is_ok_and(|lot| own.contains(&lot));
                let start = day.relay.tasks.iter().filter(is_own).map(|t| t.start_min).min()?;
                Some(DayJobView {
                    job_id: id.0,
                    name: first.stored.job.input().order.name.clone(),
                    ready_by: first.stored.job.input().order.ready_by.format(MINUTE_FORMAT).to_string(),
                    start_at: shown(start).unwrap_or_default(),
                    pieces: own.iter().map(|i| day.lots[*i].whole.stored.job.baked_pieces()).sum(),
                    lots: own,
                })
            })
            .collect();
        jobs.sort_by(|a, b| a.ready_by.cmp(&b.ready_by).then(a.job_id.cmp(&b.job_id)));
        let task = |t: &RelayTask| {
            let from = &last?.whole;
            Some(TaskView::new(t, &from.stored.job, zone, day.does(t)))
        };
        let clash = |other: &(NaiveDate, Arc<WholeDate>)| -> Vec<DayClashView> {
            let (Some(last), Some(ends), Some(others)) = (last, day.ends_at(), other.1.ends_at()) else {
                return vec![];
            };
            let later = (others - ends).num_minutes();
            let found = day_clashes(&last.whole.kitchen, &day.relay, &other.1.relay, later).into_iter();
            let view = |c: DayClash| DayClashView {
                date: other.0.to_string(),
                lane: c.lane,
                from_at: shown(c.from_min).unwrap_or_default(),
                to_at: shown(c.to_min).unwrap_or_default(),
            };
            found.map(view).collect()
        };
        let begins = last.map(|l| zone.after(l.whole.stored.job.input().order.ready_by, day.relay.start_min));
        Self {
            date: date.to_string(),
            start_at: last.and_then(|_| shown(day.relay.start_min)),
            ready_by: last.and_then(|_| shown(0)),
            hands_min: day.relay.hands_min,
            late_min: begins.map_or(0, |begins| (now - begins).num_minutes().max(0)),
            jobs,
            lots: (0..day.lots.len()).map(name).collect(),
            tasks: day.relay.tasks.iter().filter_map(task).collect(),
            lacks: day.relay.lacks.iter().map(|l| day_forbidden(l, name).into()).collect(),
            shared: day_shares(&day.plans(), &day.relay).iter().map(|s| day_shared(s, name).into()).collect(),
            helps: gains.iter().map(|g| DayHelpView { says: day_help(g, name).into(), gain_min: g.gain_min }).collect(),
            not_planned: day
                .unplanned
                .iter()
                .map(|(job, why)| NotPlanned {
                    job_id: job.id.0,
                    name: job.job.input().order.name.clone(),
                    why: why.all().iter().map(|e| say(e.problem())).collect(),
                })
                .collect(),
            clashes: beside.iter().flat_map(clash).collect(),
            run_id,
        }
    }
}
