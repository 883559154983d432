//! Units: one value in both systems, and texts of all sorts.

use num_rational::Ratio;
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

#[test]
fn factors_are_those_of_the_published_table() {
    // NIST Special Publication 811 (2008), appendix B.8, to seven figures as printed there (from memory). Inch and pound are exact.
    let one = |quantity, symbol: &str| unit(quantity, symbol).unwrap().to_base(1.0);
    for (quantity, symbol, printed) in [
        (Quantity::Length, "in", 25.4),
        (Quantity::Mass, "oz", 28.349_52),
        (Quantity::Mass, "lb", 453.592_4),
        (Quantity::Volume, "cup", 236.588_2),
        (Quantity::Volume, "tbsp", 14.786_76),
        (Quantity::Volume, "tsp", 4.928_922),
        (Quantity::Volume, "fl oz", 29.573_53),
        (Quantity::Volume, "pint", 473.176_5),
        (Quantity::Volume, "quart", 946.352_9),
        (Quantity::Volume, "L", 1000.0),
    ] {
        let (ours, printed): (f64, f64) = (one(quantity, symbol), printed);
        assert!((ours / printed - 1.0).abs() < 5e-7, "{symbol}: {ours}, printed {printed}");
    }
    // Table 8 there: t/degC = (t/degF - 32) / 1.8.
    let fahrenheit = unit(Quantity::Temperature, "F").unwrap();
    for (f, c) in [(32.0, 0.0), (212.0, 100.0), (350.0, 318.0 / 1.8), (-40.0, -40.0)] {
        assert!((fahrenheit.to_base(f) - c).abs() < 1e-9);
    }
}

proptest! {
    #[test]
    fn mixed_numbers_are_what_an_independent_library_of_fractions_makes_of_them(
        whole in 0i32..40, top in 1i32..30, bottom in 1i32..30
    ) {
        // crates.io `num-rational`.
        let exact = Ratio::new(whole * bottom + top, bottom);
        let wanted = f64::from(*exact.numer()) / f64::from(*exact.denom());
        for text in [format!("{whole} {top}/{bottom} cups"), format!("{whole}-{top}/{bottom} cups")] {
            let read = parse_quantity("x", Quantity::Volume, &text, "cup").unwrap();
            let cup = unit(Quantity::Volume, "cup").unwrap().to_base(1.0);
            prop_assert!((read / cup - wanted).abs() < 1e-9, "{text}");
        }
    }
}
