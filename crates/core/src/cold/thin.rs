//! Which of many readings are enough to draw their curve again.

/// The places of readings in time, `(minutes, degrees)`, such that straight lines between them come within `within_k` of every one that is left out: D. H.
/// Douglas and T. K. Peucker, 'Algorithms for the reduction of the number of points required to represent a digitized line', 1973, with
/// differences in degrees in the place of distances.
#[must_use]
pub fn enough_to_draw(readings: &[(f64, f64)], within_k: f64) -> Vec<usize> {
    let Some(last) = readings.len().checked_sub(1) else { return vec![] };
    let mut kept = vec![false; readings.len()];
    (kept[0], kept[last]) = (true, true);
    let mut spans = vec![(0, last)];
    while let Some((from, to)) = spans.pop() {
        let ((t0, c0), (t1, c1)) = (readings[from], readings[to]);
        let off = |i: usize| {
            let (t, c) = readings[i];
            let share = if t1 > t0 { (t - t0) / (t1 - t0) } else { 0.0 };
            (c - c0 - share * (c1 - c0)).abs()
        };
        let Some(furthest) = (from + 1..to).max_by(|&a, &b| off(a).total_cmp(&off(b))) else { continue };
        if off(furthest) > within_k {
            kept[furthest] = true;
            spans.extend([(from, furthest), (furthest, to)]);
        }
    }
    (0..readings.len()).filter(|&i| kept[i]).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn drawn(kept: &[(f64, f64)], t: f64) -> f64 {
        let after = kept.iter().position(|p| p.0 >= t).unwrap();
        let ((t1, c1), (t0, c0)) = (kept[after], kept[after.saturating_sub(1)]);
        if t1 > t0 { c0 + (t - t0) / (t1 - t0) * (c1 - c0) } else { c1 }
    }

    proptest! {
        #[test]
        fn every_reading_is_drawn_again_within_what_was_said(
            noise in prop::collection::vec(-0.4..0.4_f64, 2..300), tau in 5.0..90.0_f64, within in 0.02..0.5_f64
        ) {
            let readings: Vec<(f64, f64)> = (0_u32..).zip(&noise).map(|(i, n)| (f64::from(i), 4.0 + 17.0 * (-f64::from(i) / tau).exp() + n)).collect();
            let kept: Vec<(f64, f64)> = enough_to_draw(&readings, within).into_iter().map(|i| readings[i]).collect();
            prop_assert_eq!((kept[0], kept[kept.len() - 1]), (readings[0], readings[readings.len() - 1]));
            for (t, c) in readings {
                prop_assert!((drawn(&kept, t) - c).abs() <= within + 1e-9);
            }
        }
    }

    #[test]
    fn a_smooth_curve_needs_few_and_a_straight_line_two() {
        let smooth: Vec<(f64, f64)> =
            (0..600).map(|i| f64::from(i) / 6.0).map(|t| (t, 4.0 + 17.0 * (-t / 35.0).exp())).collect();
        assert!(enough_to_draw(&smooth, 0.1).len() < 20);
        let line: Vec<(f64, f64)> = (0..50).map(|i| (f64::from(i), 20.0 - 0.1 * f64::from(i))).collect();
        assert_eq!(enough_to_draw(&line, 0.01), [0, 49]);
        assert_eq!(enough_to_draw(&line[..1], 0.1), [0]);
        assert!(enough_to_draw(&[], 0.1).is_empty());
    }
}
