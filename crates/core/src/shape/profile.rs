//! Silhouettes of an outline in narrow bands, the cheap test by which a lattice is searched.
//!
//! Approximates the outline by its least and greatest extent in each band; always a little too large, never too small.
//! The proof that nothing overlaps is the exact polygon clearance of the final layout (`geometry::clearance_mm`).

/// Width of a band, mm.
const BAND_MM: f64 = 0.2;

/// Least and greatest extent per band along one axis.
#[derive(Debug, Clone)]
pub(crate) struct Profile {
    first: i64,
    low: Vec<f64>,
    high: Vec<f64>,
}

impl Profile {
    /// The profile of `points` given as (position along the bands, extent).
    pub fn new(points: &[(f64, f64)]) -> Self {
        let (least, most) = points.iter().fold((f64::MAX, f64::MIN), |(l, h), p| (l.min(p.0), h.max(p.0)));
        let first = band(least);
        let count = usize::try_from(band(most) - first + 1).unwrap_or(1);
        let mut profile = Self { first, low: vec![f64::INFINITY; count], high: vec![f64::NEG_INFINITY; count] };
        for (i, &a) in points.iter().enumerate() {
            let b = points[(i + 1) % points.len()];
            profile.add(a, b);
        }
        profile
    }

    fn add(&mut self, a: (f64, f64), b: (f64, f64)) {
        let (a, b) = if a.0 <= b.0 { (a, b) } else { (b, a) };
        for k in band(a.0)..=band(b.0) {
            let (from, to) = (edge_of(k).max(a.0), edge_of(k + 1).min(b.0));
            let at =
                |s: f64| if b.0 > a.0 { a.1 + (b.1 - a.1) * ((s - a.0) / (b.0 - a.0)).clamp(0.0, 1.0) } else { a.1 };
            let ends = if b.0 > a.0 { [at(from), at(to)] } else { [a.1, b.1] };
            let Ok(i) = usize::try_from(k - self.first) else { continue };
            for end in ends {
                self.low[i] = self.low[i].min(end);
                self.high[i] = self.high[i].max(end);
            }
        }
    }

    /// How far `other`, moved `shift` along the bands, must be moved outward to lie wholly beyond this one;
    /// negative infinity when the two share no band.
    pub fn slide(&self, other: &Self, shift: f64) -> f64 {
        let whole = band(shift);
        self.slide_whole(other, whole).max(self.slide_whole(other, whole + 1))
    }

    fn slide_whole(&self, other: &Self, shift: i64) -> f64 {
        let begin = self.first.max(other.first + shift);
        let mine = usize::try_from(begin - self.first).unwrap_or(usize::MAX);
        let theirs = usize::try_from(begin - other.first - shift).unwrap_or(usize::MAX);
        if mine >= self.high.len() || theirs >= other.low.len() {
            return f64::NEG_INFINITY;
        }
        // Eight running maxima, so that the compiler keeps them in vector registers; by index, since what joins two slices is not inlined
        // where the parts of a crate are compiled apart.
        const LANES: usize = 8;
        let (highs, lows) = (&self.high[mine..], &other.low[theirs..]);
        let count = highs.len().min(lows.len());
        let (highs, high_rest) = highs[..count].as_chunks::<LANES>();
        let (lows, low_rest) = lows[..count].as_chunks::<LANES>();
        let mut lanes = [f64::NEG_INFINITY; LANES];
        let mut at = 0;
        while at < highs.len() && at < lows.len() {
            let (high, low) = (&highs[at], &lows[at]);
            let mut lane = 0;
            while lane < LANES {
                let gap = high[lane] - low[lane];
                lanes[lane] = if gap > lanes[lane] { gap } else { lanes[lane] };
                lane += 1;
            }
            at += 1;
        }
        let mut furthest = f64::NEG_INFINITY;
        for gap in lanes {
            furthest = furthest.max(gap);
        }
        for (high, low) in high_rest.iter().zip(low_rest) {
            furthest = furthest.max(high - low);
        }
        furthest
    }
}

#[expect(clippy::cast_possible_truncation, reason = "outlines and sheets are under a few metres")]
fn band(s: f64) -> i64 {
    (s / BAND_MM).floor() as i64
}

#[expect(clippy::cast_precision_loss, reason = "a band index is small")]
fn edge_of(k: i64) -> f64 {
    k as f64 * BAND_MM
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_squares_slide_apart_by_their_side_or_not_at_all() {
        let square = Profile::new(&[(-5.0, -5.0), (5.0, -5.0), (5.0, 5.0), (-5.0, 5.0)]);
        assert!((square.slide(&square, 0.0) - 10.0).abs() < 1e-9);
        assert!((square.slide(&square, 7.3) - 10.0).abs() < 1e-9);
        assert_eq!(square.slide(&square, 12.0), f64::NEG_INFINITY);
    }

    #[test]
    fn it_is_never_too_small_for_discs() {
        let disc: Vec<_> = (0..360)
            .map(|i| {
                let a = f64::from(i).to_radians();
                (20.0 * a.cos(), 20.0 * a.sin())
            })
            .collect();
        let profile = Profile::new(&disc);
        for shift in [0.0, 5.1, 13.7, 20.0, 33.3] {
            let exact = (1600.0_f64 - shift * shift).sqrt();
            let got = profile.slide(&profile, shift);
            assert!(got >= exact - 0.01 && got <= exact + 0.6, "{shift}: {got} against {exact}");
        }
    }
}
