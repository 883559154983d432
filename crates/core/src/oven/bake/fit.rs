//! What recorded bakes teach of an oven and of the formulas baked in it: its offset, common to all, and how far each formula spreads, how
//! long it takes and how fast it browns, with what is still unsure of them.
//!
//! Offset and strength of the heat trade off almost exactly in times (docs/oven.md): the strength is fitted only beside a thermometer, which
//! says most of the offset. Time and browning of a formula trade off with the offset, too: of one formula in one oven at one setting only their
//! product is known, and that is what a forecast needs; another formula or setting tells them apart.

mod known;
mod search;

pub use known::{
    BakeKnowledge, BakeSeen, BakesFitted, DoughKnowledge, HeatKnowledge, OvenKnowledge, RangesHeld, TIME_PER_K,
};
pub(crate) use known::{NINE_OF_TEN, SPREAD_NOISE, TIME_NOISE, WIDTH_NOISE};

use super::limits::check_bake;
use crate::error::InputErrors;
use crate::units::TemperatureDifference;
use search::{HEAT, HEAT_SD, OFFSET, OFFSET_SD_K, Search, count};

/// A record that counts for less than this of a usual one is named.
const COUNTS_LITTLE: f64 = 0.35;
/// Bakes that are fitted at most, the newest: so that an old bakery's book is read within seconds.
pub const MOST_FITTED: usize = 24;

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
