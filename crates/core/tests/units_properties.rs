//! Units: one value in both systems, and texts of all sorts.

use num_rational::Ratio;
use proptest::prelude::*;
use ready_slab_core::units::{Quantity, UNITS, parse_count, parse_quantity, unit};
use uom::si::f64::{Length, Mass, ThermodynamicTemperature, Volume};
use uom::si::{length, mass, thermodynamic_temperature, volume};

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
fn an_independent_library_has_the_same_factors() {
    // crates.io `uom`: SI factors of its own tables, to seven figures.
    let one = |quantity, symbol: &str| unit(quantity, symbol).unwrap().to_base(1.0);
    let near = |a: f64, b: f64| assert!((a / b - 1.0).abs() < 1e-6, "{a} {b}");
    near(one(Quantity::Length, "in"), Length::new::<length::inch>(1.0).get::<length::millimeter>());
    near(one(Quantity::Mass, "oz"), Mass::new::<mass::ounce>(1.0).get::<mass::gram>());
    near(one(Quantity::Mass, "lb"), Mass::new::<mass::pound>(1.0).get::<mass::gram>());
    for (symbol, other) in [
        ("cup", Volume::new::<volume::cup>(1.0)),
        ("tbsp", Volume::new::<volume::tablespoon>(1.0)),
        ("tsp", Volume::new::<volume::teaspoon>(1.0)),
        ("fl oz", Volume::new::<volume::fluid_ounce>(1.0)),
        ("pint", Volume::new::<volume::pint_liquid>(1.0)),
        ("quart", Volume::new::<volume::quart_liquid>(1.0)),
        ("L", Volume::new::<volume::liter>(1.0)),
    ] {
        near(one(Quantity::Volume, symbol), other.get::<volume::milliliter>());
    }
    let oven = ThermodynamicTemperature::new::<thermodynamic_temperature::degree_fahrenheit>(350.0);
    near(
        unit(Quantity::Temperature, "F").unwrap().to_base(350.0),
        oven.get::<thermodynamic_temperature::degree_celsius>(),
    );
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
