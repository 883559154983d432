//! Pieces that are followed, on the wire. Times are UTC, ISO 8601, since devices of any zone write them; a piece whose clock runs
//! faster tells its own minutes.

use super::PurposeWord;
use super::plan::{CurvePoint, PieceWire, WindowView, curve};
use super::{SentenceView, say, say_all};
use chrono::{DateTime, TimeDelta, Utc};
use ready_slab_core::cold::{LONGEST_READ, Live, ProbeKind, Reading, Sample, Side, Spot, Tracked};
use ready_slab_core::dough::Keeping;
use ready_slab_core::error::{Checks, InputError, InputErrors, Problem};
use ready_slab_core::job::{GoesIn, ReadSoFar, Whereabouts, kept_too_long, notes_on_readings};
use ready_slab_core::safety::Caution;
use ready_slab_core::units::{Span, Temperature, TemperatureDifference};
use ready_slab_store::{StoredChill, StoredReading};
use ready_slab_words::Name;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A device's clock may run ahead of ours by so much.
const AHEAD: TimeDelta = TimeDelta::minutes(2);
/// No dough keeps longer.
const LONGEST_IN: TimeDelta = TimeDelta::days(400);
/// Most readings in one request.
const MOST_AT_ONCE: usize = 1000;
/// Fastest clock of a piece that only stands in for one.
const FASTEST: f64 = 600.0;
/// Of the readings of one piece, the newest that are sent with it.
const READINGS_SENT: usize = 400;

/// A piece is put in. What is not said is as the plan has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PutInBody {
    /// What it is called, 1 to 40 characters.
    pub name: String,
    /// What it is for; when null, the oven for portions, slicing for logs and bars, rolling for all else.
    #[serde(default)]
    pub purpose: Option<PurposeWord>,
    /// Its form; the plan's when null.
    #[serde(default)]
    pub piece: Option<PieceWire>,
    /// Where; the plan's place when null.
    #[serde(default)]
    pub place: Option<Whereabouts>,
    /// All of it when it goes in, -5 to 35; the plan's dough temperature when null.
    #[serde(default)]
    pub start_c: Option<f64>,
    /// When, ISO 8601 with its zone, `2026-11-28T12:20:00Z`, not in the future; now when null.
    #[serde(default)]
    pub put_in_at: Option<String>,
    /// How much faster than ours its clock runs, 1 to 600: above 1 for a piece that only stands in for one.
    #[serde(default)]
    pub clock_speed: Option<f64>,
}

/// A piece is moved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MoveBody {
    /// Where to.
    pub place: Whereabouts,
}

/// A reading of any device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingBody {
    /// -40 to 45.
    pub shows_c: f64,
    /// Where.
    pub spot: Spot,
    /// When, ISO 8601 with its zone, `2026-11-28T12:40:00Z`; now when null.
    #[serde(default)]
    pub read_at: Option<String>,
    /// Whether a stand-in shows it; such readings teach nothing of a real kitchen.
    #[serde(default)]
    pub simulated: bool,
}

/// Readings were taken.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadingsTaken {
    /// How many of this request; all of it.
    pub kept: u64,
    /// How many the piece has.
    pub total: u64,
}

/// A kept reading.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KeptReading {
    /// Its number.
    pub id: i64,
    /// When, UTC.
    pub read_at: String,
    /// Minutes after it went in, by the piece's clock.
    pub after_min: f64,
    /// What it showed.
    pub shows_c: f64,
    /// Where.
    pub spot: Spot,
    /// It does not fit the others and is not counted.
    pub set_aside: bool,
    /// A stand-in showed it.
    pub simulated: bool,
}

/// The stand-in thermometer.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ProbeBody {
    /// All its chances follow from this.
    pub seed: u32,
    /// Noise of one reading, 0 to 5.
    pub noise_k: f64,
    /// Share of readings lost, 0 to 0.9.
    pub drop_out: f64,
    /// What really multiplies the film, 0.3 to 3.
    pub film_factor: f64,
    /// What the air is really off by, -8 to 8.
    pub air_off_k: f64,
    /// From one reading to the next by the piece's clock, 5 to 3600.
    pub every_s: f64,
}

impl Default for ProbeBody {
    /// A cheap probe in a fridge that is a little stronger and a little warmer than its dial says.
    fn default() -> Self {
        Self { seed: 1, noise_k: 0.3, drop_out: 0.1, film_factor: 1.15, air_off_k: 0.6, every_s: 120.0 }
    }
}

impl ProbeBody {
    /// The stand-in, checked.
    pub fn kind(self) -> Result<ProbeKind, InputErrors> {
        let finite = |field: &str, v: f64| -> Result<TemperatureDifference, InputErrors> {
            TemperatureDifference::from_k(v).map_err(|_| InputError::new(field, Problem::NotFinite).into())
        };
        ProbeKind {
            seed: self.seed.into(),
            noise: finite("noise_k", self.noise_k)?,
            drop_out: self.drop_out,
            film_factor: self.film_factor,
            air_off: finite("air_off_k", self.air_off_k)?,
            every: Span::from_s(self.every_s)
                .map_err(|_| InputErrors::from(InputError::new("every_s", Problem::NotFinite)))?,
        }
        .checked()
    }
}

impl From<ProbeKind> for ProbeBody {
    fn from(kind: ProbeKind) -> Self {
        Self {
            seed: u32::try_from(kind.seed).unwrap_or(u32::MAX),
            noise_k: kind.noise.k(),
            drop_out: kind.drop_out,
            film_factor: kind.film_factor,
            air_off_k: kind.air_off.k(),
            every_s: kind.every.s(),
        }
    }
}

/// A stay in one place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StayView {
    /// Where.
    pub place: Whereabouts,
    /// Whether it was crowded or often opened.
    pub busy: bool,
    /// Since when, minutes of the piece's clock.
    pub from_min: f64,
    /// The air as it is now thought to be, and nine times in ten within so much of it.
    pub air_c: f64,
    /// Half the range of the air.
    pub air_within_k: f64,
    /// What multiplies the film that was assumed: lower end, middle, upper end.
    pub film_factor: [f64; 3],
    /// How many of its readings count.
    pub readings: usize,
}

/// How a followed piece is at one moment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NowView {
    /// Whose.
    pub id: i64,
    /// The moment, UTC.
    pub now_at: String,
    /// Minutes since it was first put somewhere, by its own clock.
    pub elapsed_min: f64,
    /// The warmest point (when it warms up, the coldest).
    pub core_c: f64,
    /// The mean.
    pub mean_c: f64,
    /// Which side of ready; null where the dough has no window.
    pub side: Option<Side>,
    /// The trade's word for it.
    pub word: Option<String>,
    /// Minutes until it is ready by its clock; negative since it is.
    pub left_min: Option<f64>,
    /// Minutes out of the cold so far.
    pub out_of_cold_min: f64,
    /// What is allowed of that, in words.
    pub cold_rule: SentenceView,
    /// That it lies longer than its dough keeps; null while it does not.
    pub too_long: Option<SentenceView>,
}

/// A followed piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LiveView {
    /// Its number.
    pub id: i64,
    /// The job it belongs to.
    pub job_id: i64,
    /// That job's name.
    pub job_name: String,
    /// What it is called.
    pub name: String,
    /// Its form.
    pub piece: PieceWire,
    /// What it is for.
    pub purpose: PurposeWord,
    /// All of it when it went in.
    pub start_c: f64,
    /// How much faster than ours its clock runs.
    pub clock_speed: f64,
    /// When it went in, UTC.
    pub put_in_at: String,
    /// When it was used or put away, UTC.
    pub ended_at: Option<String>,
    /// Whether its readings were accepted for its places.
    pub taught: bool,
    /// The stand-in thermometer in it.
    pub probe: Option<ProbeBody>,
    /// Where it lay, in order; the last is where it lies.
    pub stays: Vec<StayView>,
    /// As it is.
    pub now: NowView,
    /// Since when, or when, it is ready, minutes of its clock.
    pub ready_after_min: Option<f64>,
    /// Nine times in ten not before.
    pub ready_earliest_min: Option<f64>,
    /// Nine times in ten not after.
    pub ready_latest_min: Option<f64>,
    /// When it is no longer.
    pub past_after_min: Option<f64>,
    /// Why it does not get ready where it lies.
    pub never: Option<SentenceView>,
    /// Working temperatures.
    pub window: Option<WindowView>,
    /// The run as it is now thought to be, as far ahead as matters.
    pub curve: Vec<CurvePoint>,
    /// The newest of what was read of it.
    pub readings: Vec<KeptReading>,
    /// How many there are in all.
    pub readings_total: usize,
    /// What the readings say, in sentences.
    pub said: Vec<SentenceView>,
}

/// A moment as devices write it, in any zone.
pub fn moment(field: &str, text: &str) -> Result<DateTime<Utc>, InputErrors> {
    DateTime::parse_from_rfc3339(text).map(|t| t.to_utc()).map_err(|_| {
        let text = text.chars().filter(|c| !c.is_control()).take(40).collect();
        let accepted = "an ISO 8601 time with its zone, such as 2026-11-28T12:40:00Z";
        InputError::new(field, Problem::Unreadable { text, accepted }).into()
    })
}

/// As [`moment`] writes it.
pub fn written(at: DateTime<Utc>) -> String {
    at.format("%Y-%m-%dT%H:%M:%S%.3fZ").to_string()
}

/// Time by a piece's clock from when it went in to a moment; zero before.
pub fn elapsed(chill: &StoredChill, to: DateTime<Utc>) -> Span {
    #[expect(clippy::cast_precision_loss, reason = "days at most")]
    let ms = to.signed_duration_since(chill.kept.put_in_at).num_milliseconds().max(0) as f64;
    Span::new_s(ms / 1000.0 * chill.kept.clock_speed)
}

impl PutInBody {
    /// What is said of it.
    pub fn goes_in(&self) -> Result<GoesIn, InputErrors> {
        Ok(GoesIn {
            purpose: self.purpose.map(Into::into),
            piece: self.piece.map(|p| p.piece().map_err(|e| e.within("piece"))).transpose()?,
            place: self.place,
            start: self.start_c.map(Temperature::new_c),
        })
    }

    /// When it went in and how fast its clock runs, all checked.
    pub fn checked(&self, now: DateTime<Utc>) -> Result<(DateTime<Utc>, f64), InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", &self.name, 40, "a name");
        if let Some(c) = self.start_c {
            checks.range("start_c", c, -5.0, 35.0, "\u{b0}C");
        }
        let speed = self.clock_speed.unwrap_or(1.0);
        checks.range("clock_speed", speed, 1.0, FASTEST, "times");
        let at = match &self.put_in_at {
            None => now,
            Some(text) => moment("put_in_at", text)?,
        };
        if at > now + AHEAD {
            checks.push(InputError::refused("put_in_at", "that is in the future"));
        }
        if now - at > LONGEST_IN {
            checks.push(InputError::refused("put_in_at", "that is more than 400 days ago; no dough keeps so long"));
        }
        checks.finish((at, speed))
    }
}

impl ReadingBody {
    /// Readings of a piece, checked: not before it went in, not in the future, within 400 days of its clock, in Celsius.
    pub fn list(
        bodies: &[Self],
        chill: &StoredChill,
        now: DateTime<Utc>,
    ) -> Result<Vec<(DateTime<Utc>, Temperature, Spot)>, InputErrors> {
        // Our own clock may have been set back since: what is read now is after all that was noted, whatever it shows.
        let latest = chill.latest();
        let set_back = now < latest;
        let now = now.max(latest);
        let mut checks = Checks::new();
        checks.limit("readings", bodies.len(), MOST_AT_ONCE, "readings at once");
        let mut found = Vec::with_capacity(bodies.len());
        for (i, r) in bodies.iter().take(MOST_AT_ONCE).enumerate() {
            let shows = format!("readings[{i}].shows_c");
            if (45.0..=113.0).contains(&r.shows_c) && r.shows_c > 45.0 {
                // What would be a kitchen's temperature in Fahrenheit most likely is one.
                checks.push(InputError::refused(
                    shows,
                    format!(
                        "{:.1} \u{b0}C is outside -40 to 45 \u{b0}C; if the thermometer shows Fahrenheit, that is {:.1} \u{b0}C",
                        r.shows_c,
                        (r.shows_c - 32.0) / 1.8
                    ),
                ));
            } else {
                checks.range(&shows, r.shows_c, -40.0, 45.0, "\u{b0}C");
            }
            let field = format!("readings[{i}].read_at");
            let at = match r.read_at.as_deref().map(|t| moment(&field, t)) {
                None => now,
                Some(Ok(at)) if set_back => at.max(latest),
                Some(Ok(at)) => at,
                Some(Err(errors)) => {
                    errors.all().iter().cloned().for_each(|e| checks.push(e));
                    continue;
                }
            };
            if at > now + AHEAD {
                checks.push(InputError::refused(field, "that is in the future"));
            } else if at < chill.kept.put_in_at {
                checks.push(InputError::refused(field, "that is before the piece went in"));
            } else if elapsed(chill, at) > LONGEST_READ {
                checks.push(InputError::refused(field, "by its own clock the piece is in for more than 400 days"));
            } else if let Ok(shows) = Temperature::from_c(r.shows_c) {
                found.push((at, shows, r.spot));
            }
        }
        checks.finish(found)
    }
}

/// Kept readings as the core takes them.
pub fn as_read(chill: &StoredChill, readings: &[StoredReading]) -> Vec<Reading> {
    readings.iter().map(|r| Reading { after: elapsed(chill, r.read_at), shows: r.shows, spot: r.spot }).collect()
}

impl NowView {
    /// A piece at a moment.
    pub fn new(chill: &StoredChill, live: &Live, keeping: &Keeping, at: DateTime<Utc>) -> Self {
        let spent = elapsed(chill, at);
        let stays: Vec<_> = chill.stays.iter().map(|s| (s.place, elapsed(chill, s.from))).collect();
        let feels = live.feels(spent);
        Self {
            id: chill.id.0,
            now_at: written(at),
            elapsed_min: spent.min(),
            core_c: live.shows(spent, Spot::Core).c(),
            mean_c: live.at(spent).mean.c(),
            side: feels.map(|(side, _)| side),
            word: feels.map(|(_, feeling)| feeling.name().to_owned()),
            left_min: live.ready_after.map(|r| (r - spent).min()),
            out_of_cold_min: live.out_of_the_cold(spent).min(),
            cold_rule: say(&Caution::ColdRule),
            too_long: kept_too_long(keeping, &stays, spent).as_ref().map(say),
        }
    }
}

impl LiveView {
    /// A piece as it is at a moment, or was when it ended.
    pub fn new(
        stored: &StoredChill,
        job_name: &str,
        readings: &[StoredReading],
        live: &Live,
        keeping: &Keeping,
        tracked: &Tracked,
        now: DateTime<Utc>,
    ) -> Self {
        let at = stored.ended_at.unwrap_or(now);
        let state = NowView::new(stored, live, keeping, at);
        let kept = &stored.kept;
        let ahead = live.past_after.or(live.ready_after.map(|r| r * 2.0)).map_or(60.0, Span::min);
        let shown = Span::new_min(ahead.max(state.elapsed_min) * 1.2 + 5.0);
        let samples: Vec<Sample> = live.curve.iter().take_while(|s| s.after <= shown).copied().collect();
        let stays: Vec<StayView> = stored
            .stays
            .iter()
            .zip(&live.fits)
            .zip(tracked.stays())
            .enumerate()
            .map(|(i, ((stay, fit), set))| {
                let (low, middle, high) = fit.place.film_factor();
                let next = stored.stays.get(i + 1).map(|s| elapsed(stored, s.from));
                let mine = |r: &StoredReading| {
                    let after = elapsed(stored, r.read_at);
                    after >= set.from && next.is_none_or(|n| after < n)
                };
                StayView {
                    place: stay.place,
                    busy: stay.busy,
                    from_min: set.from.min(),
                    air_c: set.place.air().c() + fit.place.air.0.k(),
                    air_within_k: fit.place.air.1.k() * ready_slab_core::cold::RANGE_SDS,
                    film_factor: [low, middle, high],
                    readings: readings.iter().filter(|r| mine(r)).count() - fit.set_aside.len(),
                }
            })
            .collect();
        let here = stays.last().map(|here| ReadSoFar {
            place: here.place,
            readings: here.readings,
            takes_heat: here.film_factor[1],
            air: Temperature::new_c(here.air_c),
        });
        let aside: Vec<Temperature> = live.set_aside.iter().map(|&i| readings[i].shows).collect();
        let said = say_all(&notes_on_readings(here, &aside));
        let skip = readings.len().saturating_sub(READINGS_SENT);
        Self {
            id: stored.id.0,
            job_id: kept.job_id.0,
            job_name: job_name.to_owned(),
            name: kept.name.clone(),
            piece: kept.piece.into(),
            purpose: kept.purpose.into(),
            start_c: kept.start.c(),
            clock_speed: kept.clock_speed,
            put_in_at: written(kept.put_in_at),
            ended_at: stored.ended_at.map(written),
            taught: stored.taught,
            probe: stored.probe.map(Into::into),
            stays,
            now: state,
            ready_after_min: live.ready_after.map(Span::min),
            ready_earliest_min: live.ready_between.map(|(early, _)| early.min()),
            ready_latest_min: live.ready_between.map(|(_, late)| late.min()),
            past_after_min: live.past_after.map(Span::min),
            never: live.never.as_ref().map(say),
            window: live.window.map(Into::into),
            curve: curve(&samples),
            readings: readings
                .iter()
                .enumerate()
                .skip(skip)
                .map(|(i, r)| KeptReading {
                    id: r.id,
                    read_at: written(r.read_at),
                    after_min: elapsed(stored, r.read_at).min(),
                    shows_c: r.shows.c(),
                    spot: r.spot,
                    set_aside: live.set_aside.binary_search(&i).is_ok(),
                    simulated: r.simulated,
                })
                .collect(),
            readings_total: readings.len(),
            said,
        }
    }
}
