//! The search: unknowns of all formulas and of each, by Gauss and Newton with what was known before; what each record counts for and how much trays
//! differ are found on the way.

use super::super::forecast::{BakeForecast, DoneBy, brief};
use super::super::setup::BakeFit;
use super::known::{
    BakeSeen, DoughKnowledge, NINE_OF_TEN, RangesHeld, SPREAD_NOISE, SPREAD_SD, TIME_NOISE, TIME_PER_BROWNING,
    TIME_PER_HEAT, TIME_PER_K, WIDTH_NOISE,
};
use crate::units::TemperatureDifference;
use nalgebra::{DMatrix, DVector};

/// What is unsure before any bake: the air of an oven nobody has measured and of one that was, and the logs of what a formula's spread, time
/// and browning are over the forecast's (that of the spread stands with what is known of a dough). The latter by how far rows of practice lie from it (docs/oven.md).
pub(super) const OFFSET_SD_K: (f64, f64) = (15.0, 5.0);
pub(super) const TIME_SD: f64 = 0.10;
pub(super) const BROWNING_SD: f64 = 0.25;
/// Of the log of how strongly the oven heats, where a thermometer was read in it.
pub(super) const HEAT_SD: f64 = 0.20;
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
/// How much trays differ is learnt, too, as if so many records had been seen before that differ as is usual.
const SEEN_BEFORE: f64 = 6.0;
/// Rounds at most; it ends sooner when nothing moves by more than this, of what was unsure before.
const ROUNDS: usize = 14;
const STILL: f64 = 0.02;
/// Slopes are taken anew each so many rounds, and after one that moved further than this.
const NEW_SLOPES: usize = 4;
const FAR: f64 = 0.6;

/// Unknowns in units of what was unsure of them before: of all formulas, offset, heat and what the baker does to spread and time; of each formula its
/// own spread, time and browning.
const OF_ALL: usize = 4;
const OF_ONE: usize = 3;
pub(super) const OFFSET: usize = 0;
pub(super) const HEAT: usize = 1;
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

pub(super) struct Search<'a> {
    pub seen: &'a [BakeSeen],
    /// Of each record the first that was baked as it was: what the model says of one it says of all.
    pub like: Vec<usize>,
    pub formulas: usize,
    pub offset_sd_k: f64,
    /// Whether the strength of the heat is fitted, too.
    pub heat: bool,
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

pub(super) struct Found {
    pub at: DVector<f64>,
    offs: Vec<Off>,
    /// What each record counts for, time and spread.
    pub weights: Vec<[f64; 2]>,
    /// How much trays differ, of what is usual.
    pub differ: [f64; 2],
    pub covariance: DMatrix<f64>,
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
    pub fn solve(&self) -> Found {
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
    pub fn knows(&self, found: &Found, formula: Option<usize>) -> DoughKnowledge {
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
    pub fn held(&self, found: &Found) -> RangesHeld {
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

pub(super) fn count(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}
