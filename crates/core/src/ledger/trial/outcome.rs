//! What came out of a trial: the ways against the first, tray by tray.

use super::{SEEN, TrialAsked, WAYS, seen_with, t_point};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::Length;
use nalgebra::{DMatrix, DVector};

/// What one way came to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WayOutcome {
    /// Pieces that were measured.
    pub pieces: u32,
    /// Their mean.
    pub mean: Length,
    /// More than the first way, trays allowed for; nothing of the first itself.
    pub more: Option<Length>,
    /// That lies within, nineteen times of twenty for all ways together.
    pub between: Option<(Length, Length)>,
}

/// What is said of a way.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum TrialVerdict {
    /// It came out larger or smaller than the first: by so much, which lies within.
    Differs {
        /// Counted from 0.
        way: usize,
        /// More than the first, or less.
        by: Length,
        /// It lies within.
        between: (Length, Length),
    },
    /// No difference is seen; one larger than this would have been.
    Alike {
        /// Counted from 0.
        way: usize,
        /// The far end of what it lies within.
        at_most: Length,
    },
    /// Pieces differed so much more than was reckoned with that so many of each way would be needed.
    TooFew(u32),
}

/// What came out.
#[derive(Debug, Clone, PartialEq)]
pub struct TrialOutcome {
    /// By way.
    pub ways: Vec<WayOutcome>,
    /// Pieces of one tray and one way: one standard deviation.
    pub sd: Length,
    /// In the order of the ways.
    pub verdicts: Vec<TrialVerdict>,
}

fn real(n: usize) -> f64 {
    f64::from(u32::try_from(n).unwrap_or(u32::MAX))
}

/// What measures say, by tray and way, in millimetres: trays are blocks, ways are compared within them (two-way analysis of variance without
/// interaction, by least squares). Each way needs a piece on a tray that has one of another way, and pieces must be left over to tell how much they differ.
pub fn trial_outcome(asked: &TrialAsked, measured: &[Vec<Vec<f64>>]) -> Result<TrialOutcome, InputErrors> {
    let ways = asked.ways.clamp(*WAYS.start(), *WAYS.end());
    let mut checks = Checks::new();
    for (t, tray) in measured.iter().enumerate() {
        if tray.len() != ways {
            checks.push(InputError::refused(format!("trays[{t}]"), format!("This tray needs {ways} versions.")));
        }
        for (w, pieces) in tray.iter().enumerate() {
            for (i, mm) in pieces.iter().enumerate() {
                checks.range(&format!("trays[{t}][{w}][{i}]"), *mm, 0.5, 600.0, "mm");
            }
        }
    }
    checks.finish(())?;
    let measured: Vec<&Vec<Vec<f64>>> = measured.iter().filter(|t| t.iter().any(|w| !w.is_empty())).collect();
    let rows: Vec<(usize, usize, f64)> = measured
        .iter()
        .enumerate()
        .flat_map(|(t, tray)| tray.iter().enumerate().flat_map(move |(w, of)| of.iter().map(move |mm| (t, w, *mm))))
        .collect();
    let trays = measured.len();
    let unknowns = trays + ways - 1;
    let few = || {
        InputError::refused(
            "trays",
            "Measure at least 2 cookies of each version. Trays must hold more than one version.",
        )
    };
    if rows.len() <= unknowns {
        return Err(few().into());
    }
    let design = DMatrix::from_fn(rows.len(), unknowns, |i, k| {
        let (t, w, _) = rows[i];
        f64::from(u8::from(if k < trays { t == k } else { w == k - trays + 1 }))
    });
    let seen = DVector::from_iterator(rows.len(), rows.iter().map(|r| r.2));
    let normal = design.tr_mul(&design);
    // Ways that lie on no tray together leave it singular, but for rounding.
    let inverse = normal.cholesky().map(|c| c.inverse()).filter(|i| i.amax() < 1e6);
    let Some(inverse) = inverse else { return Err(few().into()) };
    let at = &inverse * design.tr_mul(&seen);
    let left = seen - &design * &at;
    let free = real(rows.len() - unknowns);
    let sd = (left.norm_squared() / free).sqrt();
    let point = t_point(free, ways - 1);
    let mut found = vec![];
    let mut verdicts = vec![];
    for way in 0..ways {
        let own: Vec<f64> = rows.iter().filter(|r| r.1 == way).map(|r| r.2).collect();
        let mean = Length::new_mm(own.iter().sum::<f64>() / real(own.len().max(1)));
        let pieces = u32::try_from(own.len()).unwrap_or(u32::MAX);
        if way == 0 {
            found.push(WayOutcome { pieces, mean, more: None, between: None });
            continue;
        }
        let k = trays + way - 1;
        let (by, half) = (at[k], point * sd * inverse[(k, k)].sqrt());
        let between = (Length::new_mm(by - half), Length::new_mm(by + half));
        found.push(WayOutcome { pieces, mean, more: Some(Length::new_mm(by)), between: Some(between) });
        verdicts.push(if by.abs() > half {
            TrialVerdict::Differs { way, by: Length::new_mm(by), between }
        } else {
            TrialVerdict::Alike { way, at_most: Length::new_mm(by.abs() + half) }
        });
    }
    // Where nothing is seen, it is said whether it could have been.
    let as_found = TrialAsked { sd: Length::new_mm(sd.max(0.01)), ..*asked };
    let each = found.iter().map(|w| w.pieces).min().unwrap_or(0);
    let unseen = verdicts.iter().any(|v| matches!(v, TrialVerdict::Alike { .. }));
    if unseen && seen_with(&as_found, each.max(2), u32::try_from(trays).unwrap_or(1)) < SEEN * 0.9 {
        let needed = as_found.size().map_or(super::MOST_OF_A_WAY, |s| s.per_way);
        if needed > each {
            verdicts.push(TrialVerdict::TooFew(needed));
        }
    }
    Ok(TrialOutcome { ways: found, sd: Length::new_mm(sd), verdicts })
}
