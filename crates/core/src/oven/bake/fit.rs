//! What recorded bakes teach of an oven and of the formulas baked in it: its offset, common to all, and how far each formula spreads, how
//! long it takes and how fast it browns, with what is still unsure of them.
//!
//! Offset and strength of the heat trade off almost exactly in times (docs/oven.md): the strength is fitted only beside a thermometer, which
//! says most of the offset. Time and browning of a formula trade off with the offset, too: of one formula in one oven at one setting only their
//! product is known, and that is what a forecast needs; another formula or setting tells them apart.

use super::dough::OvenDough;
use super::end::BakeEnd;
use super::forecast::{BakeForecast, DoneBy, brief};
use super::limits::check_bake;
use super::setup::{BakeFit, BakePiece, OvenSetup};
use crate::error::InputErrors;
use crate::units::{Share, Span, TemperatureDifference};
use nalgebra::{DMatrix, DVector};

/// What a time that a baker notes may be off by, of itself, and a width measured with a calliper on a few pieces, of itself. Common
/// practice, no source.
pub(crate) const TIME_NOISE: f64 = 0.05;
pub(crate) const WIDTH_NOISE: f64 = 0.006;
/// And what one tray spreads more than another, of its spread. Common practice, no source.
pub(crate) const SPREAD_NOISE: f64 = 0.10;
/// What is unsure before any bake: the air of an oven nobody has measured and of one that was, and the logs of what a formula's spread, time
/// and browning are over the forecast's. The latter by how far rows of practice lie from it (docs/oven.md).
const OFFSET_SD_K: (f64, f64) = (15.0, 5.0);
const SPREAD_SD: f64 = 0.50;
const TIME_SD: f64 = 0.10;
const BROWNING_SD: f64 = 0.25;
/// Of the log of how strongly the oven heats, where a thermometer was read in it.
const HEAT_SD: f64 = 0.20;
/// Slopes are taken over so much of what was unsure before.
const STEP: f64 = 0.2;
/// Of that, what all recipes of one baker share: rolled thicker or thinner, chilled longer or shorter than said. The rest is each recipe's own.
/// Our own choice.
const HAND_SPREAD_SD: f64 = 0.25;
const HAND_TIME_SD: f64 = 0.05;
/// So many of all records are odd: a power cut, a tray mixed up; they lie so many times as far off as others. Our own choice.
const ODD: f64 = 0.05;
const ODD_FURTHER: f64 = 10.0;
/// What was unsure before may be further off than thought: Student's t with so many degrees of freedom.
const TAILS_BEFORE: f64 = 8.0;
/// Records of one recipe that lie so near to each other, in time and in spread, agree: they count in full wherever they lie.
const AGREE: f64 = 2.0;
/// A record that counts for less than this of a usual one is named.
const COUNTS_LITTLE: f64 = 0.35;
/// How much trays differ is learnt, too, as if so many records had been seen before that differ as is usual.
const SEEN_BEFORE: f64 = 6.0;
/// A range is told as so many deviations either way: nine of ten bakes lie within. Of a normal distribution.
pub(crate) const NINE_OF_TEN: f64 = 1.645;
/// Bakes that are fitted at most, the newest: so that an old bakery's book is read within seconds.
pub const MOST_FITTED: usize = 24;
/// Rounds at most; it ends sooner when nothing moves by more than this, of what was unsure before.
const ROUNDS: usize = 14;
const STILL: f64 = 0.02;
/// Slopes are taken anew each so many rounds, and after one that moved further than this.
const NEW_SLOPES: usize = 4;
const FAR: f64 = 0.6;

/// A bake as it was recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeSeen {
    /// Its formula, counted from 0: bakes of one formula spread alike.
    pub formula: usize,
    /// The dough.
    pub dough: OvenDough,
    /// One piece.
    pub piece: BakePiece,
    /// Oven and tray.
    pub oven: OvenSetup,
    /// The oven's offset as a thermometer had it; nothing where none was read.
    pub measured: Option<TemperatureDifference>,
    /// What ended it.
    pub end: BakeEnd,
    /// In the oven, where noted.
    pub bake: Option<Span>,
    /// Of a round, across.
    pub spread: Share,
}

impl BakeSeen {
    /// Whether another was baked of the same dough, in the same way and to the same end.
    fn baked_like(&self, other: &Self) -> bool {
        (self.formula, self.piece, self.oven, self.measured, self.end)
            == (other.formula, other.piece, other.oven, other.measured, other.end)
            && self.dough == other.dough
    }
}

/// What bakes have taught of the oven.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenKnowledge {
    /// The oven's air over its setting, or over what a thermometer showed at it.
    pub offset: TemperatureDifference,
    /// One standard deviation of it.
    pub offset_sd: TemperatureDifference,
    /// How strongly it heats; nothing where no thermometer was read in it.
    pub heat: Option<HeatKnowledge>,
    /// Records it rests on, of all formulas.
    pub records: u32,
}

/// How strongly an oven heats by its air and its walls.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatKnowledge {
    /// Times what the model has.
    pub heat: f64,
    /// One standard deviation of its logarithm.
    pub heat_sd: f64,
    /// Correlation of that with the offset: they trade off, so it is near -1.
    pub with_offset: f64,
}

/// Of the time, for each degree by which the oven's air is unsure, for the log of its heat and for that of the browning: the model's own
/// answers at 175 degC.
pub const TIME_PER_K: f64 = 0.014;
const TIME_PER_HEAT: f64 = 0.8;
const TIME_PER_BROWNING: f64 = 0.25;

impl OvenKnowledge {
    /// What stays unsure of a time, of itself, as far as the oven goes: one standard deviation.
    #[must_use]
    pub fn time_sd(&self) -> f64 {
        let of_offset = TIME_PER_K * self.offset_sd.k();
        let Some(h) = self.heat else { return of_offset };
        let of_heat = TIME_PER_HEAT * h.heat_sd;
        (of_offset * of_offset + of_heat * of_heat + 2.0 * h.with_offset * of_offset * of_heat).max(0.0).sqrt()
    }
}

/// What bakes have taught of a formula.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DoughKnowledge {
    /// Times the spread.
    pub spread: f64,
    /// One standard deviation of its logarithm.
    pub spread_sd: f64,
    /// Times the time.
    pub time: f64,
    /// Times the browning.
    pub browning: f64,
    /// What stays unsure of a time of this formula in this oven, of itself: one standard deviation, the oven's among it.
    pub time_sd: f64,
    /// Records it rests on.
    pub records: u32,
}

impl DoughKnowledge {
    /// Before any bake; its time in an oven of which nothing is unsure.
    pub const NONE: Self =
        Self { spread: 1.0, spread_sd: SPREAD_SD, time: 1.0, browning: 1.0, time_sd: 0.118, records: 0 };
}

/// What bakes have taught of the oven and of a formula; nothing of the oven where a thermometer was read in it since.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeKnowledge {
    /// Of the oven.
    pub oven: Option<OvenKnowledge>,
    /// Of the formula.
    pub dough: DoughKnowledge,
}

impl BakeKnowledge {
    /// Before any bake.
    pub const NONE: Self = Self { oven: None, dough: DoughKnowledge::NONE };

    /// What still counts of what bakes taught; `None` when that is nothing. The oven was taught beside the readings of a thermometer that
    /// stood then: when others stand now, they are newer and count instead of it.
    pub fn standing<R: PartialEq>(
        oven: Option<(OvenKnowledge, &[R])>,
        readings_now: &[R],
        dough: Option<DoughKnowledge>,
    ) -> Option<Self> {
        let oven = oven.filter(|(_, beside)| *beside == readings_now).map(|(oven, _)| oven);
        if oven.is_none() && dough.is_none() {
            return None;
        }
        Some(Self { oven, dough: dough.unwrap_or(DoughKnowledge::NONE) })
    }

    /// As the model takes it; `measured` is the oven's offset by a thermometer.
    #[must_use]
    pub fn fit(&self, measured: TemperatureDifference) -> BakeFit {
        let offset = self.oven.map_or(measured, |o| TemperatureDifference::new_k(measured.k() + o.offset.k()));
        let heat = self.oven.and_then(|o| o.heat).map_or(1.0, |h| h.heat);
        BakeFit { offset, heat, spread: self.dough.spread, time: self.dough.time, browning: self.dough.browning }
    }

    /// What stays unsure of a time, of itself: one standard deviation; `oven_sd` where nothing was taught of the oven.
    #[must_use]
    pub fn time_sd(&self, oven_sd: f64) -> f64 {
        match (self.oven, self.dough.records) {
            (Some(_), 1..) => self.dough.time_sd,
            (Some(oven), 0) => oven.time_sd().hypot(self.dough.time_sd),
            (None, _) => oven_sd.hypot(self.dough.time_sd.min(DoughKnowledge::NONE.time_sd)),
        }
    }
}

/// How often the ranges held: each record against the range that all others tell.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct RangesHeld {
    /// Records whose time was noted, and those within.
    pub times: (u32, u32),
    /// Records, and those whose spread was within.
    pub spreads: (u32, u32),
}

/// What was found of some records.
#[derive(Debug, Clone, PartialEq)]
pub struct BakesFitted {
    /// Of the oven.
    pub oven: OvenKnowledge,
    /// Of each formula, as they were counted.
    pub doughs: Vec<DoughKnowledge>,
    /// What all formulas of this baker share: what is known of one that was never baked.
    pub hand: DoughKnowledge,
    /// Records that lie far from the others and count for little, by their place among those given.
    pub odd: Vec<usize>,
    /// How often the ranges held.
    pub held: RangesHeld,
    /// How much trays differ from each other, of what is usual: times and spreads.
    pub differ: (f64, f64),
}

impl BakesFitted {
    /// Of the oven and one formula.
    #[must_use]
    pub fn of(&self, formula: usize) -> BakeKnowledge {
        let dough = self.doughs.get(formula).filter(|d| d.records > 0).copied().unwrap_or(self.hand);
        BakeKnowledge { oven: Some(self.oven), dough }
    }
}

/// Unknowns in units of what was unsure of them before: of all formulas, offset, heat and what the baker does to spread and time; of each formula its
/// own spread, time and browning.
const OF_ALL: usize = 4;
const OF_ONE: usize = 3;
const OFFSET: usize = 0;
const HEAT: usize = 1;
const HAND_SPREAD: usize = 2;
const HAND_TIME: usize = 3;
const SPREAD: usize = 0;
const TIME: usize = 1;
const BROWNING: usize = 2;

/// Of what was unsure of a recipe, what is its own.
fn own_sd(all: f64, shared: f64) -> f64 {
    (all * all - shared * shared).sqrt()
}

/// How likely a record is none of the odd ones that lies so far off, in its own deviations.
fn not_odd(apart: f64) -> f64 {
    let usual = (1.0 - ODD) * (-0.5 * apart * apart).exp();
    let odd = ODD / ODD_FURTHER * (-0.5 * (apart / ODD_FURTHER).powi(2)).exp();
    usual / (usual + odd).max(f64::MIN_POSITIVE)
}

struct Search<'a> {
    seen: &'a [BakeSeen],
    /// Of each record the first that was baked as it was: what the model says of one it says of all.
    like: Vec<usize>,
    formulas: usize,
    offset_sd_k: f64,
    /// Whether the strength of the heat is fitted, too.
    heat: bool,
}

/// How far off time and spread of a record are, in their own deviations, and how they change with each unknown.
#[derive(Clone)]
struct Off {
    by: [f64; 2],
    slopes: [DVector<f64>; 2],
}

/// What the model says of a record.
struct Baked {
    here: BakeForecast,
    before: BakeForecast,
    after: Vec<(usize, BakeForecast)>,
}

struct Found {
    at: DVector<f64>,
    offs: Vec<Off>,
    /// What each record counts for, time and spread.
    weights: Vec<[f64; 2]>,
    /// How much trays differ, of what is usual.
    differ: [f64; 2],
    covariance: DMatrix<f64>,
}

impl Search<'_> {
    fn place(formula: usize, of: usize) -> usize {
        OF_ALL + OF_ONE * formula + of
    }

    fn fit(&self, measured: Option<TemperatureDifference>, formula: Option<usize>, at: &DVector<f64>) -> BakeFit {
        let own = |of: usize| formula.map_or(0.0, |f| at[Self::place(f, of)]);
        let spread = own_sd(SPREAD_SD, HAND_SPREAD_SD) * own(SPREAD) + HAND_SPREAD_SD * at[HAND_SPREAD];
        let time = own_sd(TIME_SD, HAND_TIME_SD) * own(TIME) + HAND_TIME_SD * at[HAND_TIME];
        BakeFit {
            offset: TemperatureDifference::new_k(measured.map_or(0.0, |m| m.k()) + at[OFFSET] * self.offset_sd_k),
            heat: (at[HEAT] * HEAT_SD).exp(),
            spread: spread.exp(),
            time: time.exp(),
            browning: (own(BROWNING) * BROWNING_SD).exp(),
        }
    }

    fn bake(&self, record: &BakeSeen, at: &DVector<f64>) -> BakeForecast {
        let fit = self.fit(record.measured, Some(record.formula), at);
        brief::<10>(&record.dough, &record.piece, &record.oven, &fit, record.end)
    }

    /// The same in coarser cells: good enough for how it changes.
    fn roughly(&self, record: &BakeSeen, at: &DVector<f64>) -> BakeForecast {
        let fit = self.fit(record.measured, Some(record.formula), at);
        brief::<6>(&record.dough, &record.piece, &record.oven, &fit, record.end)
    }

    /// What a width may be off by, of itself, of a piece that spread so far.
    fn width_noise(spread: f64) -> f64 {
        WIDTH_NOISE.hypot(SPREAD_NOISE * spread / (1.0 + spread))
    }

    fn off(record: &BakeSeen, found: &BakeForecast) -> [f64; 2] {
        // What is not done in the model says only that it takes longer than that: where the bake itself took longer still, it may be right.
        let time = record.bake.map_or(0.0, |seen| (found.bake / seen).ln() / TIME_NOISE);
        let short_of_never = found.done_by == DoneBy::Never && time < 0.0;
        let noise = Self::width_noise(record.spread.value().max(0.0));
        let spread = ((1.0 + found.spread.value()) / (1.0 + record.spread.value())).ln() / noise;
        [if short_of_never { 0.0 } else { time }, spread]
    }

    /// What slopes are taken over by a step of the model; those of spread and time are what they multiply.
    fn stepped(&self, record: &BakeSeen) -> impl Iterator<Item = usize> {
        let browning = Self::place(record.formula, BROWNING);
        [OFFSET].into_iter().chain(self.heat.then_some(HEAT)).chain([browning])
    }

    /// What the model says of one record as it stands, and how that changes: before and after a step of each.
    fn with_steps(&self, record: &BakeSeen, at: &DVector<f64>) -> Baked {
        let before = self.roughly(record, at);
        let step = |unknown: usize| {
            let mut moved = at.clone();
            moved[unknown] += STEP;
            (unknown, self.roughly(record, &moved))
        };
        Baked { here: self.bake(record, at), before, after: self.stepped(record).map(step).collect() }
    }

    /// How far off a record is, with slopes.
    fn off_with_slopes(&self, record: &BakeSeen, baked: &Baked, unknowns: usize) -> Off {
        let by = Self::off(record, &baked.here);
        let mut slopes = [DVector::zeros(unknowns), DVector::zeros(unknowns)];
        let before = Self::off(record, &baked.before);
        for (unknown, after) in &baked.after {
            let after = Self::off(record, after);
            for k in 0..2 {
                slopes[k][*unknown] = (after[k] - before[k]) / STEP;
            }
        }
        if record.bake.is_some() {
            slopes[0][Self::place(record.formula, TIME)] = own_sd(TIME_SD, HAND_TIME_SD) / TIME_NOISE;
            slopes[0][HAND_TIME] = HAND_TIME_SD / TIME_NOISE;
        }
        let of_spread = (1.0 + baked.here.spread.value()).ln() / Self::width_noise(record.spread.value().max(0.0));
        slopes[1][Self::place(record.formula, SPREAD)] = own_sd(SPREAD_SD, HAND_SPREAD_SD) * of_spread;
        slopes[1][HAND_SPREAD] = HAND_SPREAD_SD * of_spread;
        Off { by, slopes }
    }

    /// Something of every record: the model is run once for all that were baked alike, on two threads.
    fn each<T: Send, U>(&self, run: impl Fn(&BakeSeen) -> T + Sync, of: impl Fn(&BakeSeen, &T) -> U) -> Vec<U> {
        let firsts: Vec<usize> = (0..self.seen.len()).filter(|i| self.like[*i] == *i).collect();
        let (first, second) = firsts.split_at(firsts.len() / 2);
        let some = |of: &[usize]| of.iter().map(|i| run(&self.seen[*i])).collect::<Vec<T>>();
        let all = std::thread::scope(|scope| {
            let other = scope.spawn(|| some(first));
            let second = some(second);
            let mut all = other.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic));
            all.extend(second);
            all
        });
        let found = |i: usize| &all[firsts.partition_point(|f| *f < self.like[i])];
        self.seen.iter().enumerate().map(|(i, record)| of(record, found(i))).collect()
    }

    /// What each record counts for. Records of one recipe that agree with each other count in full, wherever they lie; of the others by how far each is
    /// from the middle of the rest of its recipe, or of all where it has few.
    fn weights(&self, offs: &[Off], differ: [f64; 2]) -> Vec<[f64; 2]> {
        let same = |i: usize, j: usize| i != j && self.seen[i].formula == self.seen[j].formula;
        let by = |i: usize, k: usize| offs[i].by[k] / differ[k];
        let agree = |i: usize, j: usize| (0..2).all(|k| (by(i, k) - by(j, k)).abs() < AGREE);
        let n = offs.len();
        (0..n)
            .map(|i| {
                if (0..n).any(|j| same(i, j) && agree(i, j)) {
                    return [1.0; 2];
                }
                let few = (0..n).filter(|j| same(i, *j)).count() < 2;
                [0, 1].map(|k| {
                    let mut rest: Vec<f64> =
                        (0..n).filter(|j| *j != i && (few || same(i, *j))).map(|j| by(j, k)).collect();
                    rest.sort_by(f64::total_cmp);
                    let middle = if rest.len() < 2 { 0.0 } else { rest[rest.len() / 2] };
                    not_odd(by(i, k) - middle)
                })
            })
            .collect()
    }

    /// How much trays differ, of what is usual: by what is left of the records, beside what was seen before.
    fn differ(&self, found: &Found) -> [f64; 2] {
        [0, 1].map(|k| {
            let (mut sum, mut free) = (SEEN_BEFORE, SEEN_BEFORE);
            for (i, off) in found.offs.iter().enumerate() {
                if k == 0 && self.seen[i].bake.is_none() {
                    continue;
                }
                let weight = found.weights[i][k];
                let held = weight * off.slopes[k].dot(&(&found.covariance * &off.slopes[k])) / found.differ[k].powi(2);
                sum += weight * off.by[k] * off.by[k];
                free += weight * (1.0 - held.min(1.0));
            }
            (sum / free).sqrt()
        })
    }

    /// What was thought before, by how far it turned out to be off.
    fn before(at: &DVector<f64>) -> DVector<f64> {
        at.map(|x| ((TAILS_BEFORE + 1.0) / (TAILS_BEFORE + x * x)).min(1.0))
    }

    fn precision(at: &DVector<f64>, offs: &[Off], weights: &[[f64; 2]], differ: [f64; 2]) -> DMatrix<f64> {
        let mut precision = DMatrix::from_diagonal(&Self::before(at));
        for (off, weight) in offs.iter().zip(weights) {
            for k in 0..2 {
                precision.ger(weight[k] / (differ[k] * differ[k]), &off.slopes[k], &off.slopes[k], 1.0);
            }
        }
        precision
    }

    fn inverse(precision: DMatrix<f64>) -> DMatrix<f64> {
        let n = precision.nrows();
        precision.cholesky().map_or_else(|| DMatrix::identity(n, n), |c| c.inverse())
    }

    /// How badly a place fits, with what each record counts for.
    fn misfit(found: &Found, offs: &[Off], at: &DVector<f64>) -> f64 {
        let of_records = offs
            .iter()
            .zip(&found.weights)
            .flat_map(|(off, weight)| (0..2).map(move |k| weight[k] * (off.by[k] / found.differ[k]).powi(2)));
        // Student's t of what was thought before.
        let before = at.iter().map(|x| (TAILS_BEFORE + 1.0) * (x * x / TAILS_BEFORE).ln_1p());
        of_records.sum::<f64>() + before.sum::<f64>()
    }

    /// Gauss and Newton with what was known before; what each record counts for and how much trays differ are found on the way.
    fn solve(&self) -> Found {
        let unknowns = OF_ALL + OF_ONE * self.formulas;
        let mut found = Found {
            at: DVector::zeros(unknowns),
            offs: vec![],
            weights: vec![[1.0; 2]; self.seen.len()],
            differ: [1.0; 2],
            covariance: DMatrix::identity(unknowns, unknowns),
        };
        let (mut far, mut step) = (true, DVector::zeros(unknowns));
        for round in 0..ROUNDS {
            if far || round % NEW_SLOPES == 0 {
                let offs = self.each(
                    |record| self.with_steps(record, &found.at),
                    |record, baked| self.off_with_slopes(record, baked, unknowns),
                );
                // What was thought to be a way down leads up: half of it, with the slopes from before.
                if round > 0
                    && Self::misfit(&found, &offs, &found.at) > Self::misfit(&found, &found.offs, &(&found.at - &step))
                {
                    step *= 0.5;
                    found.at -= &step;
                    continue;
                }
                found.offs = offs;
            } else {
                let offs = self.each(|record| self.bake(record, &found.at), Self::off);
                for (off, by) in found.offs.iter_mut().zip(offs) {
                    off.by = by;
                }
            }
            // At first all count in full: what lies far off may only be far from what was thought.
            if round > 1 {
                found.weights = self.weights(&found.offs, found.differ);
            }
            found.covariance = Self::inverse(Self::precision(&found.at, &found.offs, &found.weights, found.differ));
            if round > 0 {
                found.differ = self.differ(&found);
            }
            let mut pull = -Self::before(&found.at).component_mul(&found.at);
            for (off, weight) in found.offs.iter().zip(&found.weights) {
                for (k, weight) in weight.iter().enumerate() {
                    pull.axpy(-weight * off.by[k] / found.differ[k].powi(2), &off.slopes[k], 1.0);
                }
            }
            let moves = &found.covariance * pull;
            // No further in one round than the slopes can be trusted for.
            let most = moves.amax();
            step = &moves * (1.0 / most).min(1.0);
            far = most > FAR;
            found.at += &step;
            if most < STILL && round > 1 {
                break;
            }
        }
        found.covariance = Self::inverse(Self::precision(&found.at, &found.offs, &found.weights, found.differ));
        found
    }

    /// What is known of a formula, or of one that was never baked.
    fn knows(&self, found: &Found, formula: Option<usize>) -> DoughKnowledge {
        let fit = self.fit(None, formula, &found.at);
        let unknowns = found.at.len();
        let (mut time, mut spread) = (DVector::zeros(unknowns), DVector::zeros(unknowns));
        time[OFFSET] = -TIME_PER_K * self.offset_sd_k;
        time[HEAT] = if self.heat { -TIME_PER_HEAT * HEAT_SD } else { 0.0 };
        time[HAND_TIME] = HAND_TIME_SD;
        spread[HAND_SPREAD] = HAND_SPREAD_SD;
        let (own_time, own_spread) = (own_sd(TIME_SD, HAND_TIME_SD), own_sd(SPREAD_SD, HAND_SPREAD_SD));
        let own_browning = TIME_PER_BROWNING * BROWNING_SD;
        if let Some(f) = formula {
            time[Self::place(f, TIME)] = own_time;
            time[Self::place(f, BROWNING)] = -own_browning;
            spread[Self::place(f, SPREAD)] = own_spread;
        }
        let of = |slope: &DVector<f64>| slope.dot(&(&found.covariance * slope)).max(0.0);
        let (mut time, mut spread) = (of(&time), of(&spread));
        let records = formula.map_or(0, |f| self.seen.iter().filter(|r| r.formula == f).count());
        if formula.is_none() {
            time += own_time * own_time + own_browning * own_browning;
            spread += own_spread * own_spread;
        }
        // By how much trays differ more, or less, than is usual, of a width that spreads as it was seen to.
        let mean = self.seen.iter().filter(|r| formula.is_none_or(|f| r.formula == f));
        let (sum, n) = mean.fold((0.0, 0.0), |(s, n), r| (s + r.spread.value().max(0.0), n + 1.0));
        let seen = if n > 0.0 { sum / n } else { 0.0 };
        let of_itself = if seen > 0.005 { Self::width_noise(seen) * (1.0 + seen) / seen } else { 0.0 };
        let more = |k: usize, noise: f64| (found.differ[k].powi(2) - 1.0) * noise * noise;
        DoughKnowledge {
            spread: fit.spread,
            spread_sd: (spread + more(1, of_itself)).max(0.0).sqrt(),
            time: fit.time,
            browning: fit.browning,
            time_sd: (time + more(0, TIME_NOISE)).max(0.0).sqrt(),
            records: count(records),
        }
    }

    /// Each record against what all others tell, by the slopes: nothing is run anew.
    fn held(&self, found: &Found) -> RangesHeld {
        let mut held = RangesHeld::default();
        if self.seen.len() < 2 {
            return held;
        }
        for (i, off) in found.offs.iter().enumerate() {
            let mut weights = found.weights.clone();
            weights[i] = [0.0; 2];
            let without = Self::inverse(Self::precision(&found.at, &found.offs, &weights, found.differ));
            let mut pull = DVector::zeros(found.at.len());
            for k in 0..2 {
                pull.axpy(found.weights[i][k] * off.by[k] / found.differ[k].powi(2), &off.slopes[k], 1.0);
            }
            let moved = &without * pull;
            let within = [0, 1].map(|k| {
                let by = off.by[k] + off.slopes[k].dot(&moved);
                let sd = (off.slopes[k].dot(&(&without * &off.slopes[k])) + found.differ[k].powi(2)).sqrt();
                u32::from(by.abs() <= NINE_OF_TEN * sd)
            });
            if self.seen[i].bake.is_some() {
                held.times = (held.times.0 + 1, held.times.1 + within[0]);
            }
            held.spreads = (held.spreads.0 + 1, held.spreads.1 + within[1]);
        }
        held
    }
}

fn count(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}

/// What bakes in one oven teach of it and of the formulas baked; `None` without any record that says something. How strongly it heats is
/// fitted only where a thermometer was read in it.
///
/// Fails where a record lies beyond what the model knows.
pub fn learn_bakes(seen: &[BakeSeen]) -> Result<Option<BakesFitted>, InputErrors> {
    if seen.is_empty() {
        return Ok(None);
    }
    for record in seen {
        check_bake(&record.dough, &record.piece, &record.oven)?;
    }
    let measured = seen.iter().any(|s| s.measured.is_some());
    let search = Search {
        seen,
        like: (0..seen.len()).map(|i| (0..i).find(|j| seen[*j].baked_like(&seen[i])).unwrap_or(i)).collect(),
        formulas: seen.iter().map(|s| s.formula + 1).max().unwrap_or(0),
        offset_sd_k: if measured { OFFSET_SD_K.1 } else { OFFSET_SD_K.0 },
        heat: measured,
    };
    let found = search.solve();
    let sd = [OFFSET, HEAT].map(|a| found.covariance[(a, a)].max(0.0).sqrt());
    let heat = HeatKnowledge {
        heat: (found.at[HEAT] * HEAT_SD).exp(),
        heat_sd: sd[HEAT] * HEAT_SD,
        with_offset: (found.covariance[(OFFSET, HEAT)] / (sd[OFFSET] * sd[HEAT]).max(1e-12)).clamp(-1.0, 1.0),
    };
    let little = |i: &usize| found.weights[*i].iter().any(|w| *w < COUNTS_LITTLE);
    Ok(Some(BakesFitted {
        oven: OvenKnowledge {
            offset: TemperatureDifference::new_k(found.at[OFFSET] * search.offset_sd_k),
            offset_sd: TemperatureDifference::new_k(sd[OFFSET] * search.offset_sd_k),
            heat: measured.then_some(heat),
            records: count(seen.len()),
        },
        doughs: (0..search.formulas).map(|f| search.knows(&found, Some(f))).collect(),
        hand: search.knows(&found, None),
        odd: (0..seen.len()).filter(little).collect(),
        held: search.held(&found),
        differ: (found.differ[0], found.differ[1]),
    }))
}

#[cfg(test)]
mod tests;
