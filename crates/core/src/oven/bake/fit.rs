//! What recorded bakes teach of an oven and of a formula: its offset and how far it spreads, each with what is still unsure.
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

/// What bakes have taught.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeKnowledge {
    /// The oven's air over its setting.
    pub offset: TemperatureDifference,
    /// One standard deviation of it.
    pub offset_sd: TemperatureDifference,
    /// Times the flow.
    pub spread: f64,
    /// One standard deviation of its logarithm.
    pub spread_sd: f64,
    /// Records it rests on.
    pub records: u32,
}

impl BakeKnowledge {
    /// As the model takes it.
    #[must_use]
    pub fn fit(&self) -> BakeFit {
        BakeFit { offset: self.offset, heat: 1.0, spread: self.spread }
    }
}

/// What was found of some records.
#[derive(Debug, Clone, PartialEq)]
pub struct BakesFitted {
    /// What they teach.
    pub knowledge: BakeKnowledge,
    /// Records that do not fit with the others, by their place among those given.
    pub set_aside: Vec<usize>,
}

/// Unknowns in units of what is unsure of them before: offset, log of spread.
type Unknowns = [f64; 2];

struct Search<'a> {
    seen: &'a [BakeSeen],
    base_k: f64,
    offset_sd_k: f64,
}

impl Search<'_> {
    fn fit(&self, at: Unknowns) -> BakeFit {
        BakeFit {
            offset: TemperatureDifference::new_k(self.base_k + at[0] * self.offset_sd_k),
            heat: 1.0,
            spread: (at[1] * SPREAD_SD).exp(),
        }
    }

    /// How far off time and spread of a record are, in their own deviations.
    fn off(&self, record: &BakeSeen, at: Unknowns) -> Result<[f64; 2], InputErrors> {
        let found =
            forecast(&record.dough, &record.piece, &record.oven, &self.fit(at), BakeEnd::Colour(record.colour))?;
        let time = record.bake.map_or(0.0, |seen| (found.bake / seen).ln() / TIME_NOISE);
        let spread = ((1.0 + found.spread.value()) / (1.0 + record.spread.value())).ln() / SPREAD_NOISE;
        Ok([time, spread])
    }

    /// Gauss and Newton with what was known before; the unknowns and their covariance.
    fn solve(&self, used: &[usize]) -> Result<(Unknowns, [[f64; 2]; 2]), InputErrors> {
        let mut at = [0.0; 2];
        let mut covariance = [[1.0, 0.0], [0.0, 1.0]];
        let step = [0.15, 0.25];
        for _ in 0..ROUNDS {
            let (mut normal, mut pull) = ([[1.0, 0.0], [0.0, 1.0]], [-at[0], -at[1]]);
            for &i in used {
                let record = &self.seen[i];
                let here = self.off(record, at)?;
                let by_offset = self.off(record, [at[0] + step[0], at[1]])?;
                let by_spread = self.off(record, [at[0], at[1] + step[1]])?;
                for k in 0..2 {
                    let slope = [(by_offset[k] - here[k]) / step[0], (by_spread[k] - here[k]) / step[1]];
                    for a in 0..2 {
                        pull[a] -= slope[a] * here[k];
                        for b in 0..2 {
                            normal[a][b] += slope[a] * slope[b];
                        }
                    }
                }
            }
            let whole = normal[0][0] * normal[1][1] - normal[0][1] * normal[1][0];
            covariance = [[normal[1][1] / whole, -normal[0][1] / whole], [-normal[1][0] / whole, normal[0][0] / whole]];
            let moves: Unknowns = std::array::from_fn(|a| covariance[a][0] * pull[0] + covariance[a][1] * pull[1]);
            for a in 0..2 {
                // Three deviations each way are as far as the model is asked to go.
                at[a] = (at[a] + moves[a].clamp(-1.5, 1.5)).clamp(-3.0, 3.0);
            }
            if moves.iter().all(|m| m.abs() < 0.02) {
                break;
            }
        }
        Ok((at, covariance))
    }
}

/// What bakes of one formula in one oven teach; `None` without any record that says something.
///
/// Fails where a record lies beyond what the model knows.
pub fn learn_bakes(seen: &[BakeSeen]) -> Result<Option<BakesFitted>, InputErrors> {
    let Some(first) = seen.first() else { return Ok(None) };
    let search = Search {
        seen,
        base_k: first.measured.map_or(0.0, |m| m.k()),
        offset_sd_k: if first.measured.is_some() { OFFSET_SD_K.1 } else { OFFSET_SD_K.0 },
    };
    let mut used: Vec<usize> = (0..seen.len()).collect();
    let mut set_aside = Vec::new();
    let (mut at, mut covariance) = search.solve(&used)?;
    // One after the other, never more than a third of them.
    while used.len() >= 3 && set_aside.len() < seen.len() / 3 {
        let mut worst: Option<(usize, f64)> = None;
        for &i in &used {
            let off = search.off(&seen[i], at)?;
            let most = off[0].abs().max(off[1].abs());
            if most > SET_ASIDE && worst.is_none_or(|w| most > w.1) {
                worst = Some((i, most));
            }
        }
        let Some((i, _)) = worst else { break };
        used.retain(|&u| u != i);
        set_aside.push(i);
        (at, covariance) = search.solve(&used)?;
    }
    let fit = search.fit(at);
    Ok(Some(BakesFitted {
        knowledge: BakeKnowledge {
            offset: fit.offset,
            offset_sd: TemperatureDifference::new_k(covariance[0][0].max(0.0).sqrt() * search.offset_sd_k),
            spread: fit.spread,
            spread_sd: covariance[1][1].max(0.0).sqrt() * SPREAD_SD,
            records: u32::try_from(used.len()).unwrap_or(u32::MAX),
        },
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
        let k = found.knowledge;
        assert!((k.offset.k() + 12.0).abs() < 1.5, "{k:?}");
        assert!((k.spread / 1.4 - 1.0).abs() < 0.08, "{k:?}");
        assert!(k.offset_sd.k() < 6.0 && k.spread_sd < 0.2, "narrower than before");
        assert_eq!((k.records, found.set_aside), (4, vec![]));
    }

    #[test]
    fn more_records_leave_less_unsure_and_none_teach_nothing() {
        let all = four(&truth(8.0, 0.8), &mut || (0.0, 0.0));
        let sd = |n: usize| learn_bakes(&all[..n]).unwrap().unwrap().knowledge;
        assert!(sd(4).offset_sd < sd(1).offset_sd && sd(4).spread_sd < sd(1).spread_sd);
        assert!(learn_bakes(&[]).unwrap().is_none());
    }

    #[test]
    fn a_record_that_fits_with_no_other_is_set_aside_and_named() {
        let mut all = four(&truth(-6.0, 1.1), &mut || (0.0, 0.0));
        all[1].bake = all[1].bake.map(|b| b * 2.2);
        let found = learn_bakes(&all).unwrap().unwrap();
        assert_eq!(found.set_aside, vec![1]);
        assert!((found.knowledge.offset.k() + 6.0).abs() < 3.0, "{found:?}");
    }

    /// Whether the truth of a seeded noisy book of four bakes lies within two of the deviations told.
    fn is_read(seed: u64) -> bool {
        let known = truth(-10.0, 1.3);
        let mut rng = Pcg64Mcg::seed_from_u64(seed);
        // Twelve even numbers added up are near enough a bell of deviation 1.
        let mut bell = || -> f64 { (0..12).map(|_| rng.random::<f64>()).sum::<f64>() - 6.0 };
        let records = four(&known, &mut || (TIME_NOISE * bell(), SPREAD_NOISE * bell()));
        let k = learn_bakes(&records).unwrap().unwrap().knowledge;
        let offset = (k.offset - known.offset).k().abs() <= 2.0 * k.offset_sd.k();
        let spread = (k.spread / known.spread).ln().abs() <= 2.0 * k.spread_sd;
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
