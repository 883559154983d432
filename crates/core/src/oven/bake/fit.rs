//! What recorded bakes teach of an oven and of the formulas baked in it: its offset, common to all, and how far each spreads, with what
//! is still unsure of them.
//!
//! Offset and strength of the heat trade off almost exactly in times (docs/oven.md): the strength is fitted only beside a thermometer, which
//! says most of the offset.

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
/// Of the log of how strongly the oven heats, where a thermometer was read in it.
const HEAT_SD: f64 = 0.20;
/// Slopes are taken over so much of what was unsure before.
const STEP: f64 = 0.2;
/// A record further off than so many of its own deviations does not fit with the others.
const SET_ASIDE: f64 = 4.0;
/// Bakes that are fitted at most, the newest: so that an old bakery's book is read within seconds.
pub const MOST_FITTED: usize = 24;
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

/// Of the time, for each degree by which the oven's air is unsure, and for the log of its heat: the model's own answers at
/// 175 degC (a case of 12 degC less and 1.15 times the heat takes as long as one of 4 degC less).
pub const TIME_PER_K: f64 = 0.012;
const TIME_PER_HEAT: f64 = 0.8;

impl OvenKnowledge {
    /// What stays unsure of a time, of itself: one standard deviation.
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
        let heat = self.oven.and_then(|o| o.heat).map_or(1.0, |h| h.heat);
        BakeFit { offset, heat, spread: self.dough.spread }
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
    /// Whether the strength of the heat is fitted, too.
    heat: bool,
}

/// What is common to all formulas, in units of what is unsure of it before: the oven's offset, the log of its heat.
type Shared = [f64; 2];

/// Shared unknowns and the log of each formula's spread; then how sure they are.
struct Found {
    shared: Shared,
    spreads: Vec<f64>,
    covariance: [[f64; 2]; 2],
    spread_vars: Vec<f64>,
}

impl Search<'_> {
    fn fit(&self, measured: Option<TemperatureDifference>, shared: Shared, spread: f64) -> BakeFit {
        BakeFit {
            offset: TemperatureDifference::new_k(measured.map_or(0.0, |m| m.k()) + shared[0] * self.offset_sd_k),
            heat: (shared[1] * HEAT_SD).exp(),
            spread: (spread * SPREAD_SD).exp(),
        }
    }

    /// How far off time and spread of a record are, in their own deviations.
    fn off(&self, record: &BakeSeen, shared: Shared, spread: f64) -> Result<[f64; 2], InputErrors> {
        let fit = self.fit(record.measured, shared, spread);
        let found = forecast(&record.dough, &record.piece, &record.oven, &fit, BakeEnd::Colour(record.colour))?;
        let time = record.bake.map_or(0.0, |seen| (found.bake / seen).ln() / TIME_NOISE);
        let spread = ((1.0 + found.spread.value()) / (1.0 + record.spread.value())).ln() / SPREAD_NOISE;
        Ok([time, spread])
    }

    /// Gauss and Newton with what was known before. Formulas have only the oven in common, so the normal equations are an
    /// arrow: each formula is done away with by itself, which leaves two equations for the oven.
    fn solve(&self, used: &[usize]) -> Result<Found, InputErrors> {
        let formulas = self.seen.iter().map(|s| s.formula + 1).max().unwrap_or(0);
        let mut at = Found {
            shared: [0.0; 2],
            spreads: vec![0.0; formulas],
            covariance: [[1.0, 0.0], [0.0, 1.0]],
            spread_vars: vec![1.0; formulas],
        };
        for _ in 0..ROUNDS {
            let (mut tip, mut tip_pull) = ([[1.0, 0.0], [0.0, 1.0]], at.shared.map(|s| -s));
            let mut barb = vec![[0.0; 2]; formulas];
            let mut shaft = vec![1.0; formulas];
            let mut pull: Vec<f64> = at.spreads.iter().map(|s| -s).collect();
            for &i in used {
                let record = &self.seen[i];
                let f = record.formula;
                let here = self.off(record, at.shared, at.spreads[f])?;
                let by_offset = self.off(record, [at.shared[0] + STEP, at.shared[1]], at.spreads[f])?;
                let by_heat = if self.heat {
                    self.off(record, [at.shared[0], at.shared[1] + STEP], at.spreads[f])?
                } else {
                    here
                };
                let by_spread = self.off(record, at.shared, at.spreads[f] + STEP)?;
                for k in 0..2 {
                    let slope = |moved: [f64; 2]| (moved[k] - here[k]) / STEP;
                    let (shared, own) = ([slope(by_offset), slope(by_heat)], slope(by_spread));
                    for a in 0..2 {
                        tip_pull[a] -= shared[a] * here[k];
                        barb[f][a] += shared[a] * own;
                        for b in 0..2 {
                            tip[a][b] += shared[a] * shared[b];
                        }
                    }
                    shaft[f] += own * own;
                    pull[f] -= own * here[k];
                }
            }
            for f in 0..formulas {
                for a in 0..2 {
                    tip_pull[a] -= barb[f][a] * pull[f] / shaft[f];
                    for b in 0..2 {
                        tip[a][b] -= barb[f][a] * barb[f][b] / shaft[f];
                    }
                }
            }
            let whole = tip[0][0] * tip[1][1] - tip[0][1] * tip[1][0];
            at.covariance = [[tip[1][1] / whole, -tip[0][1] / whole], [-tip[1][0] / whole, tip[0][0] / whole]];
            let c = at.covariance;
            let moves: Shared = [0, 1].map(|a: usize| c[a][0] * tip_pull[0] + c[a][1] * tip_pull[1]);
            let mut most = moves[0].abs().max(moves[1].abs());
            // Three deviations each way are as far as the model is asked to go.
            let go = |from: f64, by: f64| (from + by.clamp(-1.5, 1.5)).clamp(-3.0, 3.0);
            at.shared = [go(at.shared[0], moves[0]), go(at.shared[1], moves[1])];
            for f in 0..formulas {
                let across = barb[f];
                let along = (pull[f] - across[0] * moves[0] - across[1] * moves[1]) / shaft[f];
                at.spreads[f] = go(at.spreads[f], along);
                let shared = across[0] * (c[0][0] * across[0] + c[0][1] * across[1])
                    + across[1] * (c[1][0] * across[0] + c[1][1] * across[1]);
                at.spread_vars[f] = 1.0 / shaft[f] + shared / (shaft[f] * shaft[f]);
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

/// What bakes in one oven teach of it and of the formulas baked; `None` without any record that says something. How strongly it heats is
/// fitted only where a thermometer was read in it.
///
/// Fails where a record lies beyond what the model knows.
pub fn learn_bakes(seen: &[BakeSeen]) -> Result<Option<BakesFitted>, InputErrors> {
    if seen.is_empty() {
        return Ok(None);
    }
    let measured = seen.iter().any(|s| s.measured.is_some());
    let search = Search { seen, offset_sd_k: if measured { OFFSET_SD_K.1 } else { OFFSET_SD_K.0 }, heat: measured };
    let mut used: Vec<usize> = (0..seen.len()).collect();
    let mut set_aside = Vec::new();
    let mut at = search.solve(&used)?;
    // One after the other, never more than a third of them.
    while used.len() >= 3 && set_aside.len() < seen.len() / 3 {
        let mut worst: Option<(usize, f64)> = None;
        for &i in &used {
            let off = search.off(&seen[i], at.shared, at.spreads[seen[i].formula])?;
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
        spread: search.fit(None, [0.0; 2], *spread).spread,
        spread_sd: var.max(0.0).sqrt() * SPREAD_SD,
        records: count(used.iter().filter(|i| seen[**i].formula == f).count()),
    });
    let fit = search.fit(None, at.shared, 0.0);
    let sd = [0, 1].map(|a: usize| at.covariance[a][a].max(0.0).sqrt());
    Ok(Some(BakesFitted {
        oven: OvenKnowledge {
            offset: fit.offset,
            offset_sd: TemperatureDifference::new_k(sd[0] * search.offset_sd_k),
            heat: if measured {
                Some(HeatKnowledge {
                    heat: fit.heat,
                    heat_sd: sd[1] * HEAT_SD,
                    with_offset: (at.covariance[0][1] / (sd[0] * sd[1]).max(1e-12)).clamp(-1.0, 1.0),
                })
            } else {
                None
            },
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

    /// Bakes beside a thermometer that showed the oven as far off as it is.
    fn beside_a_thermometer(truth: &BakeFit, showed_k: f64) -> BakesFitted {
        let seen: Vec<BakeSeen> = four(truth, &mut || (0.0, 0.0))
            .into_iter()
            .map(|b| BakeSeen { measured: Some(TemperatureDifference::new_k(showed_k)), ..b })
            .collect();
        learn_bakes(&seen).unwrap().unwrap()
    }

    #[test]
    fn what_a_thermometer_showed_at_each_setting_is_taken_off_first() {
        let found = beside_a_thermometer(&truth(-9.0, 1.0), -9.0);
        assert!(found.oven.offset.k().abs() < 0.8, "{found:?}");
        assert!((found.of(0).fit(TemperatureDifference::new_k(-9.0)).offset.k() + 9.0).abs() < 0.8);
        assert!((found.oven.heat.unwrap().heat - 1.0).abs() < 0.03, "{found:?}");
    }

    #[test]
    fn how_strongly_an_oven_heats_is_told_only_beside_a_thermometer() {
        let known = BakeFit { heat: 1.2, ..truth(-9.0, 1.0) };
        let found = beside_a_thermometer(&known, -9.0);
        let heat = found.oven.heat.unwrap();
        // The prior of 20 % draws it a little toward 1; offset and heat trade off, so time is known far better than either.
        assert!((heat.heat / 1.2 - 1.0).abs() < 0.08 && heat.with_offset < -0.5, "{found:?}");
        assert!(found.oven.time_sd() < 0.05 && found.oven.time_sd() < 0.8 * heat.heat_sd, "{found:?}");
        let fit = found.of(0).fit(TemperatureDifference::new_k(-9.0));
        let again = |fit: &BakeFit| recorded(6.0, 65.0, 175.0, fit, (0.0, 0.0)).bake.unwrap();
        assert!((again(&fit) / again(&known) - 1.0).abs() < 0.015);
        // Without one all of it is taken for offset.
        let alone = learn_bakes(&four(&known, &mut || (0.0, 0.0))).unwrap().unwrap();
        assert!(alone.oven.heat.is_none() && alone.oven.offset.k() > -9.0, "{alone:?}");
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
