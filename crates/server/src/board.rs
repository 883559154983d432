//! The live board: every followed piece as its readings tell it, computed once for all who look, and the stand-in thermometers.

use crate::problem::ApiError;
use crate::whole::{Planned, WholeDate, WholeJob};
use crate::wire::{as_read, elapsed};
use chrono::{DateTime, NaiveDate, TimeDelta, Utc};
use futures_util::{StreamExt as _, TryStreamExt as _, stream};
use ready_slab_core::cold::{Live, MOST_READINGS, PlaceKnowledge, ProbeKind, Reading, Target, Tracked};
use ready_slab_core::dough::{Keeping, keeping};
use ready_slab_core::job::{Followed, LaidAt, Whereabouts, follow, judged_as};
use ready_slab_core::units::Span;
use ready_slab_store::{ChillId, JobId, Store, StoreError, StoredChill, StoredReading};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::sync::watch;
use tokio::task::JoinHandle;

/// A stand-in reads no oftener than this by our clock, however fast the piece's runs.
const SHORTEST_WAIT: Duration = Duration::from_millis(100);
/// It reads for so long by the piece's clock; no dough is of interest longer.
const PROBE_LASTS: Span = Span::new_min(2.0 * 24.0 * 60.0);
/// More computed pieces than this are not kept.
const MOST_KEPT: usize = 100;
/// More planned dates than this are not kept.
const MOST_DATES: usize = 40;

/// A piece with its readings and what they say.
pub struct LivePiece {
    /// As it is kept.
    pub stored: StoredChill,
    /// What the job it belongs to is called.
    pub job_name: String,
    /// What was read of it.
    pub readings: Vec<StoredReading>,
    /// The piece and its places.
    pub tracked: Tracked,
    /// What the readings say of both.
    pub live: Live,
    /// How long its dough keeps.
    pub keeping: Keeping,
}

struct Probe {
    kind: ProbeKind,
    task: JoinHandle<()>,
}

struct Inner {
    store: Store,
    changed: watch::Sender<u64>,
    closing: watch::Sender<bool>,
    kept: Mutex<HashMap<ChillId, Arc<LivePiece>>>,
    probes: Mutex<HashMap<ChillId, Probe>>,
    all: tokio::sync::Mutex<(u64, Vec<Arc<LivePiece>>)>,
    /// Dates as they were planned, each at a count of what was kept.
    dates: tokio::sync::Mutex<HashMap<NaiveDate, (u64, Arc<WholeDate>)>>,
}

/// The board; clones share it.
#[derive(Clone)]
pub struct Board(Arc<Inner>);

fn unpoisoned<T>(lock: &Mutex<T>) -> std::sync::MutexGuard<'_, T> {
    // A panic while it was held leaves a map that is whole all the same.
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}

async fn blocking<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    tokio::task::spawn_blocking(work).await.map_err(|_| ApiError::Broken)
}

/// So often a job may be moved while it is read. Our own choice: nobody moves it faster by hand.
const MOST_MOVES: usize = 8;
const MOVING: &str = "Someone is moving this day’s jobs. Try again.";

/// So many pieces are told side by side. Our own choice: the least cores this runs on.
const AT_A_TIME: usize = 2;

impl Board {
    /// A board of a bakery.
    pub fn new(store: Store) -> Self {
        Self(Arc::new(Inner {
            store,
            changed: watch::Sender::new(1),
            closing: watch::Sender::new(false),
            kept: Mutex::default(),
            probes: Mutex::default(),
            all: tokio::sync::Mutex::new((0, Vec::new())),
            dates: tokio::sync::Mutex::default(),
        }))
    }

    /// Something was written: whoever looks is told.
    pub fn touch(&self) {
        self.0.changed.send_modify(|n| *n += 1);
    }

    /// Tells of every change.
    pub fn changes(&self) -> watch::Receiver<u64> {
        self.0.changed.subscribe()
    }

    /// Tells when the server is about to stop.
    pub fn closing(&self) -> watch::Receiver<bool> {
        self.0.closing.subscribe()
    }

    /// Ends all streams and stand-ins.
    pub fn close(&self) {
        self.0.closing.send_replace(true);
        for (_, probe) in unpoisoned(&self.0.probes).drain() {
            probe.task.abort();
        }
    }

    /// Whether a piece can be followed as it is noted, also within a transaction that is not kept yet.
    pub async fn trackable(&self, store: &Store, chill: &StoredChill) -> Result<(), ApiError> {
        let whole = WholeJob::read(store, chill.kept.job_id).await?;
        Self::tracked(store, &whole, chill).await.map(|_| ())
    }

    async fn tracked(store: &Store, whole: &WholeJob, chill: &StoredChill) -> Result<Tracked, ApiError> {
        let mut puts = Vec::with_capacity(chill.stays.len());
        for stay in &chill.stays {
            let before = match stay.place {
                // Knowledge that already holds these readings must not count them twice.
                Whereabouts::Cold(_) if chill.taught => PlaceKnowledge::before_any(stay.busy),
                Whereabouts::Cold(place) => store.knowledge(place, stay.busy).await?,
                Whereabouts::Bench => PlaceKnowledge::default(),
            };
            puts.push(LaidAt { place: stay.place, from: elapsed(chill, stay.from), before });
        }
        let making = &whole.stored.job.input().shape.making;
        let followed = Followed {
            composition: whole.formula.formula.composition(),
            piece: chill.kept.piece,
            target: judged_as(making, chill.kept.piece, chill.kept.purpose),
            start: chill.kept.start,
            flour_rests: if chill.kept.purpose == Target::Oven {
                Span::new_s(0.0)
            } else {
                whole.stored.job.flour_rest()
            },
            puts,
        };
        Ok(follow(&whole.kitchen, &followed)?)
    }

    /// A piece as its readings tell it; computed only where anything about it has changed.
    pub async fn piece(&self, stored: StoredChill) -> Result<Arc<LivePiece>, ApiError> {
        let whole = WholeJob::read(&self.0.store, stored.kept.job_id).await?;
        let tracked = Self::tracked(&self.0.store, &whole, &stored).await?;
        let readings = self.0.store.readings(stored.id).await?;
        let job_name = whole.stored.job.input().order.name.clone();
        let before = unpoisoned(&self.0.kept).get(&stored.id).cloned();
        let live = match before {
            Some(same) if same.tracked == tracked && same.readings == readings => {
                if same.stored == stored && same.job_name == job_name {
                    return Ok(same);
                }
                same.live.clone()
            }
            _ => {
                let (piece, read) = (tracked.clone(), as_read(&stored, &readings));
                blocking(move || piece.live(&read)).await??
            }
        };
        let found =
            Arc::new(LivePiece { stored, job_name, readings, tracked, live, keeping: keeping(&whole.formula.formula) });
        let mut kept = unpoisoned(&self.0.kept);
        if kept.len() >= MOST_KEPT {
            kept.clear();
        }
        kept.insert(found.stored.id, found.clone());
        Ok(found)
    }

    /// One piece by its number.
    pub async fn by_id(&self, id: ChillId) -> Result<Arc<LivePiece>, ApiError> {
        self.piece(self.0.store.chill(id).await?).await
    }

    /// Pieces of a job, those no longer followed too.
    pub async fn of_job(&self, job: JobId) -> Result<Vec<Arc<LivePiece>>, ApiError> {
        self.0.store.job(job).await?;
        // Those that have to be computed anew are so side by side.
        let chills = stream::iter(self.0.store.chills(job).await?);
        chills.map(|chill| self.piece(chill)).buffered(AT_A_TIME).try_collect().await
    }

    /// All pieces that are followed; read anew only after a change.
    pub async fn all(&self) -> Result<Vec<Arc<LivePiece>>, ApiError> {
        let mut all = self.0.all.lock().await;
        let now = *self.0.changed.borrow();
        if all.0 != now {
            let mut found = Vec::new();
            for chill in self.0.store.followed().await? {
                let id = chill.id;
                match self.piece(chill).await {
                    Ok(piece) => found.push(piece),
                    // Its job is on the way out; it comes back with it.
                    Err(ApiError::Store(StoreError::NotFound { .. })) => {}
                    // One piece that cannot be told must not take all others from the bench.
                    Err(error) => tracing::warn!(chill = id.0, %error, "can’t forecast a dough in the cold"),
                }
            }
            *all = (now, found);
        }
        Ok(all.1.clone())
    }

    /// A date with all that is wanted on it; planned anew only after a change.
    pub async fn date(&self, date: NaiveDate) -> Result<Arc<WholeDate>, ApiError> {
        let mut dates = self.0.dates.lock().await;
        for _ in 0..MOST_MOVES {
            let now = self.0.store.commits();
            let before = match dates.get(&date) {
                Some((at, planned)) if *at == now => return Ok(planned.clone()),
                older => older.map(|(_, planned)| planned.clone()),
            };
            let planned = match WholeDate::plan(&self.0.store, date, None, before).await {
                // Another job of that date was deleted while it was read.
                Err(ApiError::Store(StoreError::NotFound { .. })) if self.0.store.commits() != now => continue,
                planned => Arc::new(planned?),
            };
            if dates.len() >= MOST_DATES {
                dates.clear();
            }
            dates.insert(date, (now, planned.clone()));
            return Ok(planned);
        }
        Err(ApiError::Busy(MOVING))
    }

    /// The date a job is wanted on, with the job on it. A job that is moved to another date while it is read is read again.
    pub async fn date_of(&self, id: JobId) -> Result<Arc<WholeDate>, ApiError> {
        for _ in 0..MOST_MOVES {
            let stored = self.0.store.job(id).await?;
            let date = self.date(stored.job.input().order.ready_by.date()).await?;
            if date.lead_of(id).is_some() {
                return Ok(date);
            }
        }
        Err(ApiError::Busy(MOVING))
    }

    /// A job with its plan, as all who ask are told it: where its day has room for it.
    pub async fn planned(&self, id: JobId) -> Result<Arc<Planned>, ApiError> {
        let date = self.date_of(id).await?;
        Ok(date.of(id).ok_or(StoreError::NotFound { thing: "job", id: id.0 })??)
    }

    /// Starts the stand-in of a piece that has one, in place of any other.
    pub fn start_probe(&self, id: ChillId, kind: ProbeKind) {
        let task = tokio::spawn(self.clone().read_on(id, kind));
        if let Some(other) = unpoisoned(&self.0.probes).insert(id, Probe { kind, task }) {
            other.task.abort();
        }
    }

    /// Stops the stand-in of a piece.
    pub fn stop_probe(&self, id: ChillId) {
        if let Some(probe) = unpoisoned(&self.0.probes).remove(&id) {
            probe.task.abort();
        }
    }

    /// After a start or a change: every followed piece with a stand-in has it running, no other has.
    pub async fn tend_probes(&self) -> Result<(), ApiError> {
        let wanted: HashMap<ChillId, ProbeKind> =
            self.0.store.followed().await?.iter().filter_map(|c| Some((c.id, c.probe?))).collect();
        let running: Vec<ChillId> = unpoisoned(&self.0.probes).keys().copied().collect();
        running.into_iter().filter(|id| !wanted.contains_key(id)).for_each(|id| self.stop_probe(id));
        for (id, kind) in wanted {
            let same = unpoisoned(&self.0.probes).get(&id).is_some_and(|p| p.kind == kind && !p.task.is_finished());
            if !same {
                self.start_probe(id, kind);
            }
        }
        Ok(())
    }

    async fn read_on(self, id: ChillId, kind: ProbeKind) {
        loop {
            match self.next_reading(id, kind).await {
                Ok(true) => {}
                Ok(false) => return,
                Err(error) => {
                    tracing::warn!(chill = id.0, %error, "simulated thermometer stopped");
                    return;
                }
            }
        }
    }

    /// Waits for the next moment, reads and keeps; `false` when there is no more to read.
    async fn next_reading(&self, id: ChillId, kind: ProbeKind) -> Result<bool, ApiError> {
        let chill = self.0.store.chill(id).await?;
        if chill.ended_at.is_some() || chill.probe != Some(kind) {
            return Ok(false);
        }
        let Some((after, at)) = next_moment(&chill, kind, Utc::now()) else { return Ok(false) };
        let wait = at.signed_duration_since(Utc::now()).to_std().unwrap_or_default().max(SHORTEST_WAIT);
        tokio::time::sleep(wait).await;
        // Meanwhile it may have been moved.
        let chill = self.0.store.chill(id).await?;
        let whole = WholeJob::read(&self.0.store, chill.kept.job_id).await?;
        let tracked = Self::tracked(&self.0.store, &whole, &chill).await?;
        let reading: Option<Reading> = blocking(move || kind.shows(&tracked, after)).await??;
        if let Some(r) = reading {
            if self.0.store.count_readings(id).await? >= MOST_READINGS as u64 {
                return Ok(false);
            }
            self.0.store.add_readings(id, &[(at, r.shows, r.spot)], true).await?;
            self.touch();
        }
        Ok(true)
    }
}

/// The stand-in's next moment by the piece's clock and by ours; `None` when it has read long enough.
fn next_moment(chill: &StoredChill, kind: ProbeKind, now: DateTime<Utc>) -> Option<(Span, DateTime<Utc>)> {
    let speed = chill.kept.clock_speed;
    let after = next_step(elapsed(chill, now), speed, kind)?;
    #[expect(clippy::cast_possible_truncation, reason = "two days at most")]
    let ms = (after.s() / speed * 1000.0).round() as i64;
    Some((after, chill.kept.put_in_at + TimeDelta::milliseconds(ms)))
}

/// The stand-in's next moment by the piece's clock, which runs so many times as fast as ours; `None` when it has read long
/// enough. At a fast clock it leaves moments out rather than read oftener than the shortest wait.
pub(crate) fn next_step(elapsed: Span, clock_speed: f64, kind: ProbeKind) -> Option<Span> {
    let soonest = elapsed.s() + SHORTEST_WAIT.as_secs_f64() * clock_speed;
    let after = Span::new_s(((soonest / kind.every.s()).floor() + 1.0) * kind.every.s());
    (after <= PROBE_LASTS).then_some(after)
}
