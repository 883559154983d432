//! How the pieces of a trial lie on a tray.

use rand::SeedableRng as _;
use rand::seq::SliceRandom as _;
use rand_pcg::Pcg64Mcg;

/// They are laid by chance so often, two are exchanged while that makes it evener, and the evenest is taken (after rerandomisation; Morgan and Rubin,
/// Annals of Statistics 40, 2012, from memory).
const LAID: usize = 12;

fn real(n: usize) -> f64 {
    f64::from(u32::try_from(n).unwrap_or(u32::MAX))
}

fn mean<const N: usize>(of: impl Iterator<Item = [f64; N]>) -> [f64; N] {
    let (sum, n) = of.fold(([0.0; N], 0_usize), |(sum, n), v| (std::array::from_fn(|k| sum[k] + v[k]), n + 1));
    sum.map(|s| s / real(n.max(1)))
}

/// Which way each place of a tray gets, `of_each` places for each of so many ways; nothing for those that are no part of it. The ways lie about the same
/// middle and reach as far along and across, so that neither a hot side nor a hot rim decides. The same seed lays the same.
#[must_use]
pub fn lay_trial(places: &[(f64, f64)], ways: usize, of_each: usize, seed: u64) -> Vec<Option<usize>> {
    // Those nearest to the middle: a rim bakes unlike the rest.
    let [x, y] = mean(places.iter().map(|p| [p.0, p.1]));
    let far = |i: usize| (places[i].0 - x).hypot(places[i].1 - y);
    let mut near: Vec<usize> = (0..places.len()).collect();
    near.sort_by(|a, b| far(*a).total_cmp(&far(*b)).then(a.cmp(b)));
    let of_each = of_each.min(places.len() / ways.max(1));
    near.truncate(ways * of_each);
    near.sort_unstable();
    let reach = near.iter().map(|i| far(*i)).fold(1e-9, f64::max);
    // What is to be alike: where they lie, and how far out.
    let alike: Vec<[f64; 5]> = near
        .iter()
        .map(|i| {
            let (u, v) = ((places[*i].0 - x) / reach, (places[*i].1 - y) / reach);
            [u, v, u * u, v * v, u * v]
        })
        .collect();
    let mut ways_of: Vec<usize> = (0..near.len()).map(|k| k % ways.max(1)).collect();
    let uneven = |ways_of: &[usize]| -> f64 {
        let of = |way: usize| mean(ways_of.iter().zip(&alike).filter(|(w, _)| **w == way).map(|(_, a)| *a));
        let first = of(0);
        (1..ways).map(|way| of(way).iter().zip(first).map(|(a, b)| (a - b).powi(2)).sum::<f64>()).sum()
    };
    let mut dice = Pcg64Mcg::seed_from_u64(seed);
    let mut best = (f64::INFINITY, ways_of.clone());
    for _ in 0..LAID {
        ways_of.shuffle(&mut dice);
        let mut now = uneven(&ways_of);
        loop {
            let before = now;
            for (a, b) in (0..near.len()).flat_map(|a| (0..a).map(move |b| (a, b))) {
                if ways_of[a] != ways_of[b] {
                    ways_of.swap(a, b);
                    let then = uneven(&ways_of);
                    if then < now {
                        now = then;
                    } else {
                        ways_of.swap(a, b);
                    }
                }
            }
            if now >= before {
                break;
            }
        }
        if now < best.0 {
            best = (now, ways_of.clone());
        }
    }
    let mut laid = vec![None; places.len()];
    for (place, way) in near.into_iter().zip(best.1) {
        laid[place] = Some(way);
    }
    laid
}
