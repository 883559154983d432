//! What recorded bakes teach of an oven and of the formulas baked in it: its offset, common to all, and how far each spreads, with what
//! is still unsure of them.
//!
//! Offset and strength of the heat trade off almost exactly in times (docs/oven.md), so one heat parameter is fitted, the offset.

use super::dough::OvenDough;
use super::forecast::{BakeEnd, forecast};
use super::setup::{BakeFit, BakePiece, OvenSetup};
use crate::error::InputErrors;
use crate::oven::EdgeColour;
use crate::units::{Share, Span, TemperatureDifference};

/// What a time and a spread that a baker notes may be off by, of themselves and of the width. Common practice, no source.
const TIME_NOISE: f64 = 0.05;
const SPREAD_NOISE: f64 = 0.015;
/// What is unsure before any bake: the air of an oven nobody has measured and of one that was, and the log of the spread.
const OFFSET_SD_K: (f64, f64) = (15.0, 5.0);
const SPREAD_SD: f64 = 0.40;
/// A record further off than so many of its own deviations does not fit with the others.
const SET_ASIDE: f64 = 4.0;
/// Rounds of Gauss and Newton's method; it ends sooner when nothing moves.
const ROUNDS: usize = 8;

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
    /// The rim's colour when it was taken out.
    pub colour: EdgeColour,
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
    /// Records it rests on, of all formulas.
    pub records: u32,
}

/// What bakes have taught of a formula.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SpreadKnowledge {
    /// Times the flow.
    pub spread: f64,
    /// One standard deviation of its logarithm.
    pub spread_sd: f64,
    /// Records it rests on.
    pub records: u32,
}

impl SpreadKnowledge {
    /// Before any bake.
    pub const NONE: Self = Self { spread: 1.0, spread_sd: SPREAD_SD, records: 0 };
}

/// What bakes have taught of the oven and of a formula; nothing of the oven where a thermometer was read in it since.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeKnowledge {
    /// Of the oven.
    pub oven: Option<OvenKnowledge>,
    /// Of the formula.
    pub dough: SpreadKnowledge,
}

impl BakeKnowledge {
    /// As the model takes it; `measured` is the oven's offset by a thermometer.
    #[must_use]
    pub fn fit(&self, measured: TemperatureDifference) -> BakeFit {
        let offset = self.oven.map_or(measured, |o| TemperatureDifference::new_k(measured.k() + o.offset.k()));
        BakeFit { offset, heat: 1.0, spread: self.dough.spread }
    }
}

/// What was found of some records.
#[derive(Debug, Clone, PartialEq)]
pub struct BakesFitted {
    /// Of the oven.
    pub oven: OvenKnowledge,
    /// Of each formula, as they were counted.
    pub doughs: Vec<SpreadKnowledge>,
    /// Records that do not fit with the others, by their place among those given.
    pub set_aside: Vec<usize>,
}

impl BakesFitted {
    /// Of the oven and one formula.
    #[must_use]
    pub fn of(&self, formula: usize) -> BakeKnowledge {
        let dough = self.doughs.get(formula).copied().unwrap_or(SpreadKnowledge::NONE);
        BakeKnowledge { oven: Some(self.oven), dough }
    }
}

struct Search<'a> {
    seen: &'a [BakeSeen],
    offset_sd_k: f64,
}

/// The oven's offset and the log of each formula's spread, in units of what is unsure of them before; then how sure they are.
struct Found {
    offset: f64,
    spreads: Vec<f64>,
    offset_var: f64,
    spread_vars: Vec<f64>,
}

impl Search<'_> {
    fn fit(&self, measured: Option<TemperatureDifference>, offset: f64, spread: f64) -> BakeFit {
        BakeFit {
            offset: TemperatureDifference::new_k(measured.map_or(0.0, |m| m.k()) + offset * self.offset_sd_k),
            heat: 1.0,
            spread: (spread * SPREAD_SD).exp(),
        }
    }

    /// How far off time and spread of a record are, in their own deviations.
    fn off(&self, record: &BakeSeen, offset: f64, spread: f64) -> Result<[f64; 2], InputErrors> {
        let fit = self.fit(record.measured, offset, spread);
        let found = forecast(&record.dough, &record.piece, &record.oven, &fit, BakeEnd::Colour(record.colour))?;
        let time = record.bake.map_or(0.0, |seen| (found.bake / seen).ln() / TIME_NOISE);
        let spread = ((1.0 + found.spread.value()) / (1.0 + record.spread.value())).ln() / SPREAD_NOISE;
        Ok([time, spread])
    }

    /// Gauss and Newton with what was known before. Formulas have only the oven in common, so the normal equations are an
    /// arrow: each formula is done away with by itself, which leaves one equation for the offset.
    fn solve(&self, used: &[usize]) -> Result<Found, InputErrors> {
        let formulas = self.seen.iter().map(|s| s.formula + 1).max().unwrap_or(0);
        let mut at =
            Found { offset: 0.0, spreads: vec![0.0; formulas], offset_var: 1.0, spread_vars: vec![1.0; formulas] };
        let step = [0.15, 0.25];
        for _ in 0..ROUNDS {
            let (mut tip, mut tip_pull) = (1.0, -at.offset);
            let mut shaft = vec![1.0; formulas];
            let mut barb = vec![0.0; formulas];
            let mut pull: Vec<f64> = at.spreads.iter().map(|s| -s).collect();
            for &i in used {
                let record = &self.seen[i];
                let f = record.formula;
                let here = self.off(record, at.offset, at.spreads[f])?;
                let by_offset = self.off(record, at.offset + step[0], at.spreads[f])?;
                let by_spread = self.off(record, at.offset, at.spreads[f] + step[1])?;
                for k in 0..2 {
                    let (a, b) = ((by_offset[k] - here[k]) / step[0], (by_spread[k] - here[k]) / step[1]);
                    tip += a * a;
                    barb[f] += a * b;
                    shaft[f] += b * b;
                    tip_pull -= a * here[k];
                    pull[f] -= b * here[k];
                }
            }
            let each = |of: &dyn Fn(usize) -> f64| (0..formulas).map(of).sum::<f64>();
            at.offset_var = 1.0 / (tip - each(&|f| barb[f] * barb[f] / shaft[f]));
            let moves = at.offset_var * (tip_pull - each(&|f| barb[f] * pull[f] / shaft[f]));
            let mut most = moves.abs();
            // Three deviations each way are as far as the model is asked to go.
            at.offset = (at.offset + moves.clamp(-1.5, 1.5)).clamp(-3.0, 3.0);
            for f in 0..formulas {
                let along = (pull[f] - barb[f] * moves) / shaft[f];
                at.spreads[f] = (at.spreads[f] + along.clamp(-1.5, 1.5)).clamp(-3.0, 3.0);
                at.spread_vars[f] = 1.0 / shaft[f] + (barb[f] / shaft[f]).powi(2) * at.offset_var;
                most = most.max(along.abs());
            }
            // A twentieth of what was unsure before; the step after it would be far smaller.
            if most < 0.05 {
                break;
            }
        }
        Ok(at)
    }
}

/// What bakes in one oven teach of it and of the formulas baked; `None` without any record that says something.
///
/// Fails where a record lies beyond what the model knows.
pub fn learn_bakes(seen: &[BakeSeen]) -> Result<Option<BakesFitted>, InputErrors> {
    if seen.is_empty() {
        return Ok(None);
    }
    let measured = seen.iter().any(|s| s.measured.is_some());
    let search = Search { seen, offset_sd_k: if measured { OFFSET_SD_K.1 } else { OFFSET_SD_K.0 } };
    let mut used: Vec<usize> = (0..seen.len()).collect();
    let mut set_aside = Vec::new();
    let mut at = search.solve(&used)?;
    // One after the other, never more than a third of them.
    while used.len() >= 3 && set_aside.len() < seen.len() / 3 {
        let mut worst: Option<(usize, f64)> = None;
        for &i in &used {
            let off = search.off(&seen[i], at.offset, at.spreads[seen[i].formula])?;
            let most = off[0].abs().max(off[1].abs());
            if most > SET_ASIDE && worst.is_none_or(|w| most > w.1) {
                worst = Some((i, most));
            }
        }
        let Some((i, _)) = worst else { break };
        used.retain(|&u| u != i);
        set_aside.push(i);
        at = search.solve(&used)?;
    }
    let count = |n: usize| u32::try_from(n).unwrap_or(u32::MAX);
    let doughs = at.spreads.iter().zip(&at.spread_vars).enumerate().map(|(f, (spread, var))| SpreadKnowledge {
        spread: search.fit(None, 0.0, *spread).spread,
        spread_sd: var.max(0.0).sqrt() * SPREAD_SD,
        records: count(used.iter().filter(|i| seen[**i].formula == f).count()),
    });
    Ok(Some(BakesFitted {
        oven: OvenKnowledge {
            offset: search.fit(None, at.offset, 0.0).offset,
            offset_sd: TemperatureDifference::new_k(at.offset_var.max(0.0).sqrt() * search.offset_sd_k),
            records: count(used.len()),
        },
        doughs: doughs.collect(),
        set_aside,
    }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{Formula, LineInput, Pantry};
    use crate::units::{Length, Temperature};
    use rand::{RngExt as _, SeedableRng as _};
    use rand_pcg::Pcg64Mcg;

    fn dough() -> OvenDough {
        let lines = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        OvenDough::of(&Formula::new("Test", &lines, Pantry::built_in()).unwrap(), 0.06).unwrap()
    }

    /// What would be recorded of a bake in an oven that is so far off, of a dough that spreads so much more, with noise.
    fn recorded(high: f64, across: f64, oven_c: f64, truth: &BakeFit, noise: (f64, f64)) -> BakeSeen {
        let (oven, dough) = (OvenSetup::usual(oven_c, false), dough());
        let piece = BakePiece {
            thickness: Length::new_mm(high),
            radius: Length::new_mm(across / 2.0),
            start: Temperature::new_c(6.0),
            wait: Span::new_s(0.0),
        };
        let colour = EdgeColour::JustGolden;
        let found = forecast(&dough, &piece, &oven, truth, BakeEnd::Colour(colour)).unwrap();
        BakeSeen {
            formula: 0,
            dough,
            piece,
            oven,
            measured: None,
            colour,
            bake: Some(found.bake * noise.0.exp()),
            spread: Share::new(found.spread.value() + noise.1),
        }
    }

    fn four(truth: &BakeFit, noise: &mut dyn FnMut() -> (f64, f64)) -> Vec<BakeSeen> {
        [(6.0, 65.0, 175.0), (6.0, 65.0, 190.0), (4.0, 45.0, 175.0), (8.0, 65.0, 165.0)]
            .iter()
            .map(|(h, d, c)| recorded(*h, *d, *c, truth, noise()))
            .collect()
    }

    fn truth(offset_k: f64, spread: f64) -> BakeFit {
        BakeFit { offset: TemperatureDifference::new_k(offset_k), heat: 1.0, spread }
    }

    #[test]
    fn an_oven_that_runs_cool_and_a_dough_that_runs_are_found_from_clean_records() {
        let found = learn_bakes(&four(&truth(-12.0, 1.4), &mut || (0.0, 0.0))).unwrap().unwrap();
        let (oven, dough) = (found.oven, found.doughs[0]);
        assert!((oven.offset.k() + 12.0).abs() < 1.5, "{oven:?}");
        assert!((dough.spread / 1.4 - 1.0).abs() < 0.08, "{dough:?}");
        assert!(oven.offset_sd.k() < 6.0 && dough.spread_sd < 0.2, "narrower than before");
        assert_eq!((oven.records, dough.records, found.set_aside), (4, 4, vec![]));
    }

    #[test]
    fn more_records_leave_less_unsure_and_none_teach_nothing() {
        let all = four(&truth(8.0, 0.8), &mut || (0.0, 0.0));
        let sd = |n: usize| learn_bakes(&all[..n]).unwrap().unwrap();
        let (one, four) = (sd(1), sd(4));
        assert!(four.oven.offset_sd < one.oven.offset_sd && four.doughs[0].spread_sd < one.doughs[0].spread_sd);
        assert!(learn_bakes(&[]).unwrap().is_none());
    }

    #[test]
    fn two_formulas_share_their_oven_and_keep_their_own_spread() {
        let mut all = four(&truth(-10.0, 1.4), &mut || (0.0, 0.0));
        let others = four(&truth(-10.0, 0.7), &mut || (0.0, 0.0)).into_iter().take(2);
        all.extend(others.map(|b| BakeSeen { formula: 1, ..b }));
        let found = learn_bakes(&all).unwrap().unwrap();
        assert!((found.oven.offset.k() + 10.0).abs() < 1.5, "{found:?}");
        assert!(
            (found.doughs[0].spread / 1.4 - 1.0).abs() < 0.1 && (found.doughs[1].spread / 0.7 - 1.0).abs() < 0.15,
            "{found:?}"
        );
        assert_eq!((found.oven.records, found.doughs[1].records), (6, 2));
        // The second formula knows its oven better than its own two bakes alone would tell.
        let alone: Vec<BakeSeen> = all[4..].iter().map(|b| BakeSeen { formula: 0, ..b.clone() }).collect();
        assert!(found.oven.offset_sd < learn_bakes(&alone).unwrap().unwrap().oven.offset_sd);
        // One that was never baked takes the oven's and nothing of its own.
        assert_eq!(found.of(7).dough, SpreadKnowledge::NONE);
    }

    #[test]
    fn what_a_thermometer_showed_at_each_setting_is_taken_off_first() {
        let seen: Vec<BakeSeen> = four(&truth(-12.0, 1.0), &mut || (0.0, 0.0))
            .into_iter()
            .map(|b| BakeSeen { measured: Some(TemperatureDifference::new_k(-9.0)), ..b })
            .collect();
        let found = learn_bakes(&seen).unwrap().unwrap();
        assert!((found.oven.offset.k() + 3.0).abs() < 1.2, "{found:?}");
        assert!((found.of(0).fit(TemperatureDifference::new_k(-9.0)).offset.k() + 12.0).abs() < 1.2);
    }

    #[test]
    fn a_record_that_fits_with_no_other_is_set_aside_and_named() {
        let mut all = four(&truth(-6.0, 1.1), &mut || (0.0, 0.0));
        all[1].bake = all[1].bake.map(|b| b * 2.2);
        let found = learn_bakes(&all).unwrap().unwrap();
        assert_eq!(found.set_aside, vec![1]);
        assert!((found.oven.offset.k() + 6.0).abs() < 3.0, "{found:?}");
    }

    /// Whether the truth of a seeded noisy book of four bakes lies within two of the deviations told.
    fn is_read(seed: u64) -> bool {
        let known = truth(-10.0, 1.3);
        let mut rng = Pcg64Mcg::seed_from_u64(seed);
        // Twelve even numbers added up are near enough a bell of deviation 1.
        let mut bell = || -> f64 { (0..12).map(|_| rng.random::<f64>()).sum::<f64>() - 6.0 };
        let records = four(&known, &mut || (TIME_NOISE * bell(), SPREAD_NOISE * bell()));
        let k = learn_bakes(&records).unwrap().unwrap();
        let offset = (k.oven.offset - known.offset).k().abs() <= 2.0 * k.oven.offset_sd.k();
        let spread = (k.doughs[0].spread / known.spread).ln().abs() <= 2.0 * k.doughs[0].spread_sd;
        offset && spread
    }

    #[test]
    fn of_a_hundred_noisy_books_ninety_are_read_within_the_bands_told() {
        let threads = std::thread::available_parallelism().map_or(1, |n| n.get() as u64);
        let read =
            |from: u64| (from..100).step_by(usize::try_from(threads).unwrap()).filter(|&seed| is_read(seed)).count();
        let all: usize = std::thread::scope(|scope| {
            let books: Vec<_> = (0..threads).map(|from| scope.spawn(move || read(from))).collect();
            books.into_iter().map(|b| b.join().unwrap()).sum()
        });
        assert!(all >= 90, "{all}");
    }
}
