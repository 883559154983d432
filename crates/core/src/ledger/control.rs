//! Evenness over time: control charts of mean and range by tray, what varies (within a tray, between trays, between days), and how that does against a
//! tolerance.

use crate::units::{Length, Share};

/// Of the range of so many values of a normal distribution: its mean and its deviation, in deviations of the values. From 2 on.
/// ASTM E2587, table 6 (d2, d3); ISO 7870-2, table 2: from memory, checked against their integrals in the tests.
const RANGES: [(f64, f64); 24] = [
    (1.128, 0.853),
    (1.693, 0.888),
    (2.059, 0.880),
    (2.326, 0.864),
    (2.534, 0.848),
    (2.704, 0.833),
    (2.847, 0.820),
    (2.970, 0.808),
    (3.078, 0.797),
    (3.173, 0.787),
    (3.258, 0.778),
    (3.336, 0.770),
    (3.407, 0.763),
    (3.472, 0.756),
    (3.532, 0.750),
    (3.588, 0.744),
    (3.640, 0.739),
    (3.689, 0.733),
    (3.735, 0.729),
    (3.778, 0.724),
    (3.819, 0.720),
    (3.858, 0.716),
    (3.895, 0.712),
    (3.931, 0.708),
];

/// Trays that a chart needs at least, and pieces of each; more pieces of one tray than the tables have are taken evenly out of it.
pub const LEAST_TRAYS: usize = 3;
const LEAST_PIECES: usize = 2;
const MOST_PIECES: usize = RANGES.len() + 1;
/// So many in a row on one side of the middle are no chance, nor so many in a row that rise or fall; nor two of three beyond two deviations. The usual
/// run rules (ISO 7870-2, 8; ASTM E2587): from memory.
const ON_ONE_SIDE: usize = 9;
const IN_A_ROW: usize = 6;

/// A tray that was measured.
#[derive(Debug, Clone, PartialEq)]
pub struct MeasuredTray {
    /// Its day; trays of a day are next to each other.
    pub day: i64,
    /// What was measured of its pieces.
    pub pieces: Vec<Length>,
}

/// Why a point is no chance.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Signal {
    /// Beyond its limits, above.
    Above,
    /// Beyond its limits, below.
    Below,
    /// The last of nine on one side.
    OneSide,
    /// The last of six that rise.
    Rises,
    /// The last of six that fall.
    Falls,
    /// The second of three beyond two thirds of the way to a limit.
    TwoOfThree,
}

/// A point of a chart.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Point {
    /// The value.
    pub value: Length,
    /// Chance keeps it over this.
    pub low: Length,
    /// And under this.
    pub high: Length,
    /// What is no chance about it.
    pub signal: Option<Signal>,
}

/// How much of the variation is where: variances, of which those of all three are the whole.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Varies {
    /// Of one piece against others of its tray, of all.
    pub within: Share,
    /// Of a tray against others of its day.
    pub trays: Share,
    /// Of a day against others.
    pub days: Share,
    /// One deviation of a piece, all together.
    pub sd: Length,
}

/// Against a tolerance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Capability {
    /// Tolerance over six deviations within a tray: what could be done if trays were alike (Cp).
    pub could: f64,
    /// The nearer limit from the mean, over three deviations of all (Ppk).
    pub does: f64,
    /// Pieces beyond it, of all, of a normal distribution.
    pub beyond: Share,
}

/// The charts of some trays.
#[derive(Debug, Clone, PartialEq)]
pub struct ControlCharts {
    /// Mean of all trays.
    pub mean: Length,
    /// One deviation of a piece within a tray, by the ranges.
    pub sd_within: Length,
    /// Mean of each tray.
    pub means: Vec<Point>,
    /// Widest less narrowest of each.
    pub ranges: Vec<Point>,
    /// Where it varies.
    pub varies: Varies,
}

fn count(n: usize) -> f64 {
    f64::from(u32::try_from(n).unwrap_or(u32::MAX))
}

/// d2 and d3 of so many pieces.
fn of_range(pieces: usize) -> (f64, f64) {
    RANGES[pieces.clamp(LEAST_PIECES, MOST_PIECES) - LEAST_PIECES]
}

/// What a tray is judged by: all its pieces, or as many as the tables have, evenly out of all.
fn judged(tray: &MeasuredTray) -> Vec<f64> {
    let all: Vec<f64> = tray.pieces.iter().map(|l| l.mm()).collect();
    if all.len() <= MOST_PIECES {
        return all;
    }
    (0..MOST_PIECES).map(|i| all[i * all.len() / MOST_PIECES]).collect()
}

fn mean(values: &[f64]) -> f64 {
    values.iter().sum::<f64>() / count(values.len())
}

/// Marks what is no chance: `z` is how far each is from the middle, in thirds of the way to its limit.
fn signals(z: &[f64]) -> Vec<Option<Signal>> {
    let runs = |i: usize, n: usize, of: &dyn Fn(usize) -> bool| i + 1 >= n && (i + 1 - n..=i).all(of);
    (0..z.len())
        .map(|i| {
            if z[i] > 3.0 {
                return Some(Signal::Above);
            }
            if z[i] < -3.0 {
                return Some(Signal::Below);
            }
            if runs(i, ON_ONE_SIDE, &|k| z[k] > 0.0) || runs(i, ON_ONE_SIDE, &|k| z[k] < 0.0) {
                return Some(Signal::OneSide);
            }
            // Six points have five steps.
            if i + 1 >= IN_A_ROW && runs(i, IN_A_ROW - 1, &|k| z[k] > z[k - 1]) {
                return Some(Signal::Rises);
            }
            if i + 1 >= IN_A_ROW && runs(i, IN_A_ROW - 1, &|k| z[k] < z[k - 1]) {
                return Some(Signal::Falls);
            }
            let side = z[i].signum();
            let far = (i.saturating_sub(2)..=i).filter(|k| side * z[*k] > 2.0).count();
            (side * z[i] > 2.0 && far >= 2).then_some(Signal::TwoOfThree)
        })
        .collect()
}

/// Charts of trays in the order in which they were baked; those of one piece tell nothing of evenness and are left out. Nothing of fewer than three, or
/// where all pieces are alike to the last digit.
#[must_use]
pub fn control_charts(trays: &[MeasuredTray]) -> Option<ControlCharts> {
    let trays: Vec<(i64, Vec<f64>)> =
        trays.iter().filter(|t| t.pieces.len() >= LEAST_PIECES).map(|t| (t.day, judged(t))).collect();
    if trays.len() < LEAST_TRAYS {
        return None;
    }
    let range = |v: &[f64]| {
        let (low, high) = v.iter().fold((f64::MAX, f64::MIN), |(l, h), x| (l.min(*x), h.max(*x)));
        high - low
    };
    // Each range tells the deviation; those of more pieces more surely.
    let (sum, weights) = trays.iter().fold((0.0, 0.0), |(s, w), (_, v)| {
        let (d2, d3) = of_range(v.len());
        let weight = (d2 / d3).powi(2);
        (s + weight * range(v) / d2, w + weight)
    });
    let sd = sum / weights;
    if sd <= 1e-9 {
        return None;
    }
    let all: Vec<f64> = trays.iter().flat_map(|(_, v)| v.iter().copied()).collect();
    let middle = mean(&all);
    let point = |value: f64, centre: f64, third: f64, floor: f64| {
        let (low, high) = ((centre - 3.0 * third).max(floor), centre + 3.0 * third);
        let point = Point { value: mm(value), low: mm(low), high: mm(high), signal: None };
        (point, (value - centre) / third)
    };
    let chart = |points: Vec<(Point, f64)>| -> Vec<Point> {
        let z: Vec<f64> = points.iter().map(|p| p.1).collect();
        points.into_iter().zip(signals(&z)).map(|((p, _), signal)| Point { signal, ..p }).collect()
    };
    let means = trays.iter().map(|(_, v)| point(mean(v), middle, sd / count(v.len()).sqrt(), f64::MIN));
    let ranges = trays.iter().map(|(_, v)| {
        let (d2, d3) = of_range(v.len());
        point(range(v), d2 * sd, d3 * sd, 0.0)
    });
    Some(ControlCharts {
        mean: mm(middle),
        sd_within: mm(sd),
        means: chart(means.collect()),
        ranges: chart(ranges.collect()),
        varies: varies(&trays),
    })
}

fn mm(value: f64) -> Length {
    Length::new_mm(value)
}

/// Variance of pieces within trays, trays within days and days, by the mean squares of a nested design that need not be balanced (Henderson's first
/// method; Searle, Casella and McCulloch, Variance Components, 1992, from memory). A component that comes out below nothing is nothing.
fn varies(trays: &[(i64, Vec<f64>)]) -> Varies {
    let mut days: Vec<(i64, Vec<&Vec<f64>>)> = vec![];
    for (day, pieces) in trays {
        match days.last_mut() {
            Some((d, of_day)) if d == day => of_day.push(pieces),
            _ => days.push((*day, vec![pieces])),
        }
    }
    let n = |of: &[&Vec<f64>]| of.iter().map(|v| count(v.len())).sum::<f64>();
    let total = days.iter().map(|(_, of)| n(of)).sum::<f64>();
    let (a, b) = (count(days.len()), count(trays.len()));
    let grand = trays.iter().flat_map(|(_, v)| v).sum::<f64>() / total;
    let (mut within, mut between, mut over_days) = (0.0, 0.0, 0.0);
    // How often each component counts in the mean squares above it.
    let (mut k_trays, mut k_trays_days, mut k_days) = (total, 0.0, total);
    for (_, of) in &days {
        let here = n(of);
        let day_mean = of.iter().flat_map(|v| v.iter()).sum::<f64>() / here;
        over_days += here * (day_mean - grand).powi(2);
        k_days -= here * here / total;
        for v in of {
            let tray_mean = mean(v);
            between += count(v.len()) * (tray_mean - day_mean).powi(2);
            within += v.iter().map(|x| (x - tray_mean).powi(2)).sum::<f64>();
            k_trays -= count(v.len()).powi(2) / here;
            k_trays_days += count(v.len()).powi(2) * (1.0 / here - 1.0 / total);
        }
    }
    let of_within = within / (total - b).max(1.0);
    let of_trays = if b > a && k_trays > 0.0 { ((between - (b - a) * of_within) / k_trays).max(0.0) } else { 0.0 };
    let of_days = if a > 1.0 && k_days > 0.0 {
        ((over_days - (a - 1.0) * of_within - k_trays_days * of_trays) / k_days).max(0.0)
    } else {
        0.0
    };
    let all = (of_within + of_trays + of_days).max(f64::MIN_POSITIVE);
    Varies {
        within: Share::new(of_within / all),
        trays: Share::new(of_trays / all),
        days: Share::new(of_days / all),
        sd: mm(all.sqrt()),
    }
}

/// The share of a normal distribution below a value.
pub(super) fn below(z: f64) -> f64 {
    0.5 * libm::erfc(-z / std::f64::consts::SQRT_2)
}

impl ControlCharts {
    /// How what is baked does against a tolerance to either side of what is wanted.
    #[must_use]
    pub fn capability(&self, wanted: Length, tolerance: Length) -> Capability {
        let (t, sd, off) = (tolerance.mm(), self.varies.sd.mm(), self.mean.mm() - wanted.mm());
        let beyond = below((-t - off) / sd) + 1.0 - below((t - off) / sd);
        Capability {
            could: t / (3.0 * self.sd_within.mm()),
            does: (t - off.abs()) / (3.0 * sd),
            beyond: Share::new(beyond.clamp(0.0, 1.0)),
        }
    }
}

#[cfg(test)]
mod tests;
