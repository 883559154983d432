//! What recorded bakes teach of an oven and of the formulas baked in it: its offset, common to all, and how far each formula spreads, how
//! long it takes and how fast it browns, with what is still unsure of them.
//!
//! Offset and strength of the heat trade off almost exactly in times (docs/oven.md): the strength is fitted only beside a thermometer, which
//! says most of the offset. Time and browning of a formula trade off with the offset, too: of one formula in one oven at one setting only their
//! product is known, and that is what a forecast needs; another formula or setting tells them apart.

use super::dough::OvenDough;
use super::end::BakeEnd;
use super::forecast::{BakeForecast, DoneBy, forecast};
use super::setup::{BakeFit, BakePiece, OvenSetup};
use crate::error::InputErrors;
use crate::units::{Share, Span, TemperatureDifference};
use nalgebra::{DMatrix, DVector};

/// What a time that a baker notes may be off by, of itself, and a width measured with a calliper on a few pieces, of itself. Common
/// practice, no source.
const TIME_NOISE: f64 = 0.05;
const WIDTH_NOISE: f64 = 0.006;
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
/// A record further from the others than so many of its own deviations does not fit with them.
const SET_ASIDE: f64 = 4.0;
/// Bakes that are fitted at most, the newest: so that an old bakery's book is read within seconds.
pub const MOST_FITTED: usize = 24;
/// Rounds with the slopes of the first; it ends sooner when nothing moves by more than this, of what was unsure before. Slopes are taken anew
/// half way.
const ROUNDS: usize = 8;
const NEW_SLOPES: usize = 3;
const STILL: f64 = 0.02;

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

/// What was found of some records.
#[derive(Debug, Clone, PartialEq)]
pub struct BakesFitted {
    /// Of the oven.
    pub oven: OvenKnowledge,
    /// Of each formula, as they were counted.
    pub doughs: Vec<DoughKnowledge>,
    /// Records that do not fit with the others, by their place among those given.
    pub set_aside: Vec<usize>,
}

impl BakesFitted {
    /// Of the oven and one formula.
    #[must_use]
    pub fn of(&self, formula: usize) -> BakeKnowledge {
        let dough = self.doughs.get(formula).copied().unwrap_or(DoughKnowledge::NONE);
        BakeKnowledge { oven: Some(self.oven), dough }
    }
}

/// Unknowns in units of what was unsure of them before: of all formulas, offset and heat; of each, spread, time and browning.
const OF_ALL: usize = 2;
const OF_ONE: usize = 3;
const OFFSET: usize = 0;
const HEAT: usize = 1;
const SPREAD: usize = 0;
const TIME: usize = 1;
const BROWNING: usize = 2;

struct Search<'a> {
    seen: &'a [BakeSeen],
    formulas: usize,
    offset_sd_k: f64,
    /// Whether the strength of the heat is fitted, too.
    heat: bool,
}

/// How far off time and spread of a record are, in their own deviations, and how they change with each unknown.
struct Off {
    by: [f64; 2],
    slopes: [Vec<f64>; 2],
}

struct Found {
    at: DVector<f64>,
    covariance: DMatrix<f64>,
}

impl Search<'_> {
    fn place(formula: usize, of: usize) -> usize {
        OF_ALL + OF_ONE * formula + of
    }

    fn fit(&self, measured: Option<TemperatureDifference>, formula: usize, at: &DVector<f64>) -> BakeFit {
        let own = |of: usize| at[Self::place(formula, of)];
        BakeFit {
            offset: TemperatureDifference::new_k(measured.map_or(0.0, |m| m.k()) + at[OFFSET] * self.offset_sd_k),
            heat: (at[HEAT] * HEAT_SD).exp(),
            spread: (own(SPREAD) * SPREAD_SD).exp(),
            time: (own(TIME) * TIME_SD).exp(),
            browning: (own(BROWNING) * BROWNING_SD).exp(),
        }
    }

    fn bake(&self, record: &BakeSeen, at: &DVector<f64>) -> Result<BakeForecast, InputErrors> {
        let fit = self.fit(record.measured, record.formula, at);
        forecast(&record.dough, &record.piece, &record.oven, &fit, record.end)
    }

    fn off(record: &BakeSeen, found: &BakeForecast) -> [f64; 2] {
        // What is not done in the model says only that it takes longer than that.
        let time = record.bake.map_or(0.0, |seen| (found.bake / seen).ln() / TIME_NOISE);
        let short_of_never = found.done_by == DoneBy::Never && time > 0.0;
        let spread = ((1.0 + found.spread.value()) / (1.0 + record.spread.value())).ln() / WIDTH_NOISE;
        [if short_of_never { 0.0 } else { time }, spread]
    }

    /// The same with slopes: of the offset, the heat and the browning by a step of the model, of spread and time by what they multiply.
    fn off_with_slopes(&self, record: &BakeSeen, at: &DVector<f64>) -> Result<Off, InputErrors> {
        let here = self.bake(record, at)?;
        let by = Self::off(record, &here);
        let mut slopes = [vec![0.0; at.len()], vec![0.0; at.len()]];
        let browning = Self::place(record.formula, BROWNING);
        let stepped = [OFFSET].into_iter().chain(self.heat.then_some(HEAT)).chain([browning]);
        for unknown in stepped {
            let mut moved = at.clone();
            moved[unknown] += STEP;
            let there = Self::off(record, &self.bake(record, &moved)?);
            for k in 0..2 {
                slopes[k][unknown] = (there[k] - by[k]) / STEP;
            }
        }
        if record.bake.is_some() {
            slopes[0][Self::place(record.formula, TIME)] = TIME_SD / TIME_NOISE;
        }
        slopes[1][Self::place(record.formula, SPREAD)] = SPREAD_SD * (1.0 + here.spread.value()).ln() / WIDTH_NOISE;
        Ok(Off { by, slopes })
    }

    /// Gauss and Newton with what was known before.
    fn solve(&self, used: &[usize]) -> Result<Found, InputErrors> {
        let unknowns = OF_ALL + OF_ONE * self.formulas;
        let mut at = DVector::zeros(unknowns);
        let mut slopes: Vec<[Vec<f64>; 2]> = Vec::new();
        let mut covariance = DMatrix::identity(unknowns, unknowns);
        for round in 0..ROUNDS {
            let mut offs = Vec::with_capacity(used.len());
            if round % NEW_SLOPES == 0 {
                slopes.clear();
                for &i in used {
                    let off = self.off_with_slopes(&self.seen[i], &at)?;
                    offs.push(off.by);
                    slopes.push(off.slopes);
                }
                let mut precision = DMatrix::identity(unknowns, unknowns);
                for slope in slopes.iter().flatten().map(|s| DVector::from_row_slice(s)) {
                    precision.ger(1.0, &slope, &slope, 1.0);
                }
                covariance =
                    precision.cholesky().map_or_else(|| DMatrix::identity(unknowns, unknowns), |c| c.inverse());
            } else {
                for &i in used {
                    offs.push(Self::off(&self.seen[i], &self.bake(&self.seen[i], &at)?));
                }
            }
            let mut pull = -&at;
            for (off, slopes) in offs.iter().zip(&slopes) {
                for k in 0..2 {
                    pull.axpy(-off[k], &DVector::from_row_slice(&slopes[k]), 1.0);
                }
            }
            let moves = &covariance * pull;
            // No further in one round than the slopes can be trusted for.
            let most = moves.amax();
            at += &moves * (1.5 / most).min(1.0);
            if most < STILL {
                break;
            }
        }
        Ok(Found { at, covariance })
    }

    fn knows(&self, found: &Found, formula: usize, used: &[usize]) -> DoughKnowledge {
        let fit = self.fit(None, formula, &found.at);
        let mut slope = DVector::zeros(found.at.len());
        slope[OFFSET] = -TIME_PER_K * self.offset_sd_k;
        slope[HEAT] = if self.heat { -TIME_PER_HEAT * HEAT_SD } else { 0.0 };
        slope[Self::place(formula, TIME)] = TIME_SD;
        slope[Self::place(formula, BROWNING)] = -TIME_PER_BROWNING * BROWNING_SD;
        let of_spread = Self::place(formula, SPREAD);
        DoughKnowledge {
            spread: fit.spread,
            spread_sd: found.covariance[(of_spread, of_spread)].max(0.0).sqrt() * SPREAD_SD,
            time: fit.time,
            browning: fit.browning,
            time_sd: slope.dot(&(&found.covariance * &slope)).max(0.0).sqrt(),
            records: count(used.iter().filter(|i| self.seen[**i].formula == formula).count()),
        }
    }

    /// The record furthest from the others of its formula, or from all where it has few: in its own deviations, if that is too far. Records that
    /// agree with each other lie together, however far the forecast is from them.
    fn odd_one(&self, found: &Found, used: &[usize]) -> Result<Option<usize>, InputErrors> {
        let mut offs = Vec::with_capacity(used.len());
        for &i in used {
            offs.push((i, Self::off(&self.seen[i], &self.bake(&self.seen[i], &found.at)?)));
        }
        let mut worst: Option<(usize, f64)> = None;
        for (i, off) in &offs {
            let formula = self.seen[*i].formula;
            let others =
                |same: bool| offs.iter().filter(move |o| o.0 != *i && (!same || self.seen[o.0].formula == formula));
            let same = others(true).count() >= 2;
            for (k, own) in off.iter().enumerate() {
                let mut rest: Vec<f64> = others(same).map(|o| o.1[k]).collect();
                rest.sort_by(f64::total_cmp);
                let Some(middle) = rest.get(rest.len() / 2) else { continue };
                let apart = (own - middle).abs();
                if apart > SET_ASIDE && worst.is_none_or(|w| apart > w.1) {
                    worst = Some((*i, apart));
                }
            }
        }
        Ok(worst.map(|w| w.0))
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
    let measured = seen.iter().any(|s| s.measured.is_some());
    let search = Search {
        seen,
        formulas: seen.iter().map(|s| s.formula + 1).max().unwrap_or(0),
        offset_sd_k: if measured { OFFSET_SD_K.1 } else { OFFSET_SD_K.0 },
        heat: measured,
    };
    let mut used: Vec<usize> = (0..seen.len()).collect();
    let mut set_aside = Vec::new();
    let mut found = search.solve(&used)?;
    // One after the other, never more than a third of them.
    while used.len() >= 3 && set_aside.len() < seen.len() / 3 {
        let Some(i) = search.odd_one(&found, &used)? else { break };
        used.retain(|&u| u != i);
        set_aside.push(i);
        found = search.solve(&used)?;
    }
    let sd = [OFFSET, HEAT].map(|a| found.covariance[(a, a)].max(0.0).sqrt());
    let heat = HeatKnowledge {
        heat: (found.at[HEAT] * HEAT_SD).exp(),
        heat_sd: sd[HEAT] * HEAT_SD,
        with_offset: (found.covariance[(OFFSET, HEAT)] / (sd[OFFSET] * sd[HEAT]).max(1e-12)).clamp(-1.0, 1.0),
    };
    Ok(Some(BakesFitted {
        oven: OvenKnowledge {
            offset: TemperatureDifference::new_k(found.at[OFFSET] * search.offset_sd_k),
            offset_sd: TemperatureDifference::new_k(sd[OFFSET] * search.offset_sd_k),
            heat: measured.then_some(heat),
            records: count(used.len()),
        },
        doughs: (0..search.formulas).map(|f| search.knows(&found, f, &used)).collect(),
        set_aside,
    }))
}

#[cfg(test)]
mod tests;
