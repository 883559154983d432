//! Units: one value in both systems, and texts of all sorts.

use proptest::prelude::*;
use ready_slab_core::units::{Quantity, UNITS, parse_count, parse_quantity, unit};

proptest! {
    #[test]
    fn a_value_survives_the_way_to_any_unit_and_back(base in -1000.0f64..100_000.0) {
        for u in UNITS {
            let there_and_back = u.to_base(u.from_base(base));
            prop_assert!((there_and_back - base).abs() <= 1e-9 * base.abs().max(1.0), "{}", u.symbol);
        }
    }

    #[test]
    fn metric_and_us_say_the_same_when_typed(mm in 1.0f64..400.0) {
        // As the screens write them: millimetres, and inches in hundredths.
        let inch = unit(Quantity::Length, "in").unwrap();
        let typed = parse_quantity("x", Quantity::Length, &format!("{:.4} in", inch.from_base(mm)), "mm").unwrap();
        prop_assert!((typed - mm).abs() < 0.0015 * 25.4);
        let metric = parse_quantity("x", Quantity::Length, &format!("{mm:.3} mm"), "in").unwrap();
        prop_assert!((metric - mm).abs() < 0.001);
    }

    #[test]
    fn fahrenheit_typed_is_celsius_kept(c in -40.0f64..250.0) {
        let f = unit(Quantity::Temperature, "\u{b0}F").unwrap().from_base(c);
        let typed = parse_quantity("x", Quantity::Temperature, &format!("{f:.3}F").replace('-', "\u{2212}"), "\u{b0}C").unwrap();
        prop_assert!((typed - c).abs() < 0.001);
    }

    #[test]
    fn a_sixteenth_of_an_inch_reads_as_drawn(whole in 0u32..12, sixteenths in 1u32..16) {
        let text = if whole == 0 { format!("{sixteenths}/16 in") } else { format!("{whole} {sixteenths}/16\"") };
        let read = parse_quantity("x", Quantity::Length, &text, "mm").unwrap();
        prop_assert!((read - 25.4 * (f64::from(whole) + f64::from(sixteenths) / 16.0)).abs() < 1e-9);
    }

    #[test]
    fn no_text_makes_it_panic_or_invent_a_number(text in "\\PC{0,70}") {
        for quantity in [Quantity::Length, Quantity::Mass, Quantity::Volume, Quantity::Temperature, Quantity::Duration, Quantity::Percent] {
            if let Ok(value) = parse_quantity("x", quantity, &text, "mm") {
                prop_assert!(value.is_finite());
                prop_assert!(text.chars().any(|c| c.is_numeric()), "a number out of {text:?}");
            }
        }
        if parse_count("x", &text).is_ok() {
            prop_assert!(text.chars().any(char::is_numeric));
        }
    }
}
