//! What a baked surface looks like by its colour index, as a colour of the CIE, and how far apart two of them look.

use palette::color_difference::Ciede2000;
use palette::{FromColor, Lab, Srgb};

/// Colour index against a* and b*, straight between. Assumed: straw yellow, golden, brown, and dull when burnt.
const LOOKS: [(f32, f32, f32); 6] = [
    (0.0, 2.0, 22.0),
    (12.0, 5.0, 30.0),
    (24.0, 10.0, 39.0),
    (40.0, 14.0, 38.0),
    (62.0, 15.0, 28.0),
    (100.0, 7.0, 10.0),
];
/// L* of raw dough, and what a point of the index takes off. Assumed with the bake model (docs/oven.md).
const RAW_LIGHTNESS: f32 = 80.0;
const DARKENS: f32 = 0.45;

/// A colour difference that is seen side by side by anybody, CIEDE2000. About 1 is the least a trained eye sees, over 3 anybody
/// does; common practice, no source.
pub const SEEN_BY_ALL: f64 = 3.0;

/// How a surface of a colour index, 0 raw to 100 burnt, looks.
fn look(colour_index: f64) -> Lab {
    #[expect(clippy::cast_possible_truncation, reason = "an index needs no more")]
    let at = colour_index.clamp(0.0, 100.0) as f32;
    let next = LOOKS.iter().position(|l| l.0 >= at).unwrap_or(LOOKS.len() - 1).max(1);
    let (from, to) = (LOOKS[next - 1], LOOKS[next]);
    let along = ((at - from.0) / (to.0 - from.0)).clamp(0.0, 1.0);
    Lab::new(RAW_LIGHTNESS - DARKENS * at, from.1 + (to.1 - from.1) * along, from.2 + (to.2 - from.2) * along)
}

/// Of a cocoa dough: L*, a* and b* as it goes in, and what a point of the index takes off its lightness. Assumed: a baked cocoa dough
/// is about as dark as it was raw.
const COCOA: (f32, f32, f32) = (34.0, 11.0, 14.0);
const COCOA_DARKENS: f32 = 0.10;

fn look_of(colour_index: f64, cocoa: bool) -> Lab {
    #[expect(clippy::cast_possible_truncation, reason = "an index needs no more")]
    let at = colour_index.clamp(0.0, 100.0) as f32;
    if cocoa { Lab::new(COCOA.0 - COCOA_DARKENS * at, COCOA.1, COCOA.2) } else { look(colour_index) }
}

/// That look in the CIE's L*, a* and b*.
#[must_use]
pub fn look_lab(colour_index: f64, cocoa: bool) -> [f64; 3] {
    let Lab { l, a, b, .. } = look_of(colour_index, cocoa);
    [l, a, b].map(f64::from)
}

/// That look as a screen shows it, `#rrggbb`; of a dough whose cocoa hides what browning does, as dark as it is.
#[must_use]
pub fn screen_colour(colour_index: f64, cocoa: bool) -> String {
    let (r, g, b) = Srgb::from_color(look_of(colour_index, cocoa)).into_format::<u8>().into_components();
    format!("#{r:02x}{g:02x}{b:02x}")
}

/// The colour index, 0 to 100, whose look is nearest to a colour that was measured, L*, a* and b*.
#[must_use]
pub fn index_of_look(lab: [f64; 3]) -> f64 {
    #[expect(clippy::cast_possible_truncation, reason = "a color")]
    let [l, a, b] = lab.map(|v| v as f32);
    let seen = Lab::new(l, a, b);
    let all = (0..=200).map(|i| f64::from(i) / 2.0);
    let off = |index: f64| look(index).difference(seen);
    all.min_by(|a, b| off(*a).total_cmp(&off(*b))).unwrap_or(0.0)
}

/// How far apart two surfaces look: CIEDE2000 between them.
#[must_use]
pub fn look_apart(one: f64, other: f64) -> f64 {
    f64::from(look(one).difference(look(other)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// Pairs 1, 7, 13, 17, 24, 25 and 34 of Sharma, Wu and Dalal (2005), "The CIEDE2000 color-difference formula", table 1: from
    /// memory.
    #[rstest]
    #[case([50.0, 2.6772, -79.7751], [50.0, 0.0, -82.7485], 2.0425)]
    #[case([50.0, 0.0, 0.0], [50.0, -1.0, 2.0], 2.3669)]
    #[case([50.0, -0.0010, 2.4900], [50.0, 0.0011, -2.4900], 4.7461)]
    #[case([50.0, 2.5, 0.0], [73.0, 25.0, -18.0], 27.1492)]
    #[case([50.0, 2.5, 0.0], [50.0, 3.2592, 0.3350], 1.0)]
    #[case([60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644)]
    #[case([2.0776, 0.0795, -1.1350], [0.9033, -0.0636, -0.5514], 0.9082)]
    fn the_published_pairs_are_as_far_apart_as_published(#[case] a: [f32; 3], #[case] b: [f32; 3], #[case] apart: f32) {
        let of = |c: [f32; 3]| -> Lab { Lab::new(c[0], c[1], c[2]) };
        assert!((of(a).difference(of(b)) - apart).abs() < 2e-4, "{}", of(a).difference(of(b)));
    }

    /// CIE and sRGB: white is L* 100, the primary red 53.24, 80.09, 67.20 (from memory).
    #[test]
    fn the_library_s_colours_are_those_of_the_cie() {
        let white = Lab::from_color(Srgb::new(1.0_f32, 1.0, 1.0));
        assert!((white.l - 100.0).abs() < 0.01 && white.a.abs() < 0.02 && white.b.abs() < 0.02);
        let red: Lab = Lab::from_color(Srgb::new(1.0_f32, 0.0, 0.0));
        assert!((red.l - 53.24).abs() < 0.05 && (red.a - 80.09).abs() < 0.1 && (red.b - 67.20).abs() < 0.1);
    }

    #[test]
    fn a_look_that_is_measured_is_told_as_the_index_it_has() {
        for index in [0.0, 12.0, 36.0, 60.0, 95.0] {
            assert!((index_of_look(look_lab(index, false)) - index).abs() < 1.0, "{index}");
        }
    }

    #[test]
    fn a_bake_goes_from_straw_through_golden_to_burnt() {
        let [raw, golden, brown, burnt] =
            [0.0, 36.0, 60.0, 100.0].map(|i| Srgb::from_color(look(i)).into_format::<u8>().into_components());
        assert!(raw.0 > golden.0 && golden.0 > brown.0 && brown.0 > burnt.0);
        // Each is warmer in red than in blue, and none is clipped.
        for (r, g, b) in [raw, golden, brown, burnt] {
            assert!(r >= g && g > b && r < 255, "{r} {g} {b}");
        }
        assert!(screen_colour(36.0, false).starts_with('#') && screen_colour(36.0, false).len() == 7);
    }

    proptest! {
        #[test]
        fn what_is_baked_longer_looks_further_from_raw(a in 0.0..99.0_f64, more in 0.5..30.0_f64) {
            prop_assert!(look_apart(0.0, (a + more).min(100.0)) > look_apart(0.0, a) - 0.2);
            prop_assert!(look_apart(a, a) < 1e-4);
            prop_assert!((look_apart(a, a + more) - look_apart(a + more, a)).abs() < 1e-3);
        }
    }
}
