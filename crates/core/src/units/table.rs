//! The one table of units: symbols, factors and sources. The browser is sent this table and holds none of its own.

/// What is measured. Each has one base unit in which values travel and are kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = QuantityWord)]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    /// Base unit mm.
    Length,
    /// Base unit g.
    Mass,
    /// Base unit mL.
    Volume,
    /// Base unit degC.
    Temperature,
    /// Base unit min.
    Duration,
    /// Base unit %.
    Percent,
    /// Pieces; whole, without a unit.
    Count,
}

impl Quantity {
    /// The symbol of its base unit.
    #[must_use]
    pub const fn base(self) -> &'static str {
        match self {
            Self::Length => "mm",
            Self::Mass => "g",
            Self::Volume => "mL",
            Self::Temperature => "\u{b0}C",
            Self::Duration => "min",
            Self::Percent => "%",
            Self::Count => "",
        }
    }
}

/// One unit: `base = value * factor + offset`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unit {
    /// The symbol shown, and accepted.
    pub symbol: &'static str,
    /// Other spellings accepted, in lower case.
    pub spellings: &'static [&'static str],
    /// What it measures.
    pub quantity: Quantity,
    /// Multiplies a value into the base unit.
    pub factor: f64,
    /// Added after multiplying; only temperatures have one.
    pub offset: f64,
    /// Where the factor comes from.
    pub source: &'static str,
}

const SI: &str = "NIST SP 811, SI prefixes";
const HB44: &str = "NIST Handbook 44, Appendix C";
const METRIC_KITCHEN: &str = "metric kitchen measures, common practice";

const fn u(
    quantity: Quantity,
    symbol: &'static str,
    spellings: &'static [&'static str],
    factor: f64,
    source: &'static str,
) -> Unit {
    Unit { symbol, spellings, quantity, factor, offset: 0.0, source }
}

/// All units that are read and shown.
pub const UNITS: &[Unit] = &[
    u(Quantity::Length, "mm", &["millimetre", "millimetres", "millimeter", "millimeters"], 1.0, SI),
    u(Quantity::Length, "cm", &["centimetre", "centimetres", "centimeter", "centimeters"], 10.0, SI),
    u(Quantity::Length, "in", &["inch", "inches", "\"", "\u{201d}", "\u{2033}"], 25.4, HB44),
    u(Quantity::Mass, "g", &["gram", "grams", "gramme", "grammes", "gr", "gms", "gm"], 1.0, SI),
    u(Quantity::Mass, "kg", &["kilo", "kilos", "kilogram", "kilograms", "kgs"], 1000.0, SI),
    u(Quantity::Mass, "oz", &["ounce", "ounces", "ozs"], 28.349_523_125, HB44),
    u(Quantity::Mass, "lb", &["lbs", "pound", "pounds"], 453.592_37, HB44),
    u(Quantity::Volume, "mL", &["ml", "mls", "millilitre", "millilitres", "milliliter", "milliliters"], 1.0, SI),
    u(Quantity::Volume, "L", &["l", "litre", "litres", "liter", "liters"], 1000.0, SI),
    u(Quantity::Volume, "dL", &["dl", "decilitre", "decilitres", "deciliter"], 100.0, SI),
    u(Quantity::Volume, "cL", &["cl", "centilitre", "centilitres", "centiliter"], 10.0, SI),
    u(Quantity::Volume, "cup", &["cups", "us cup"], 236.588_236_5, HB44),
    u(
        Quantity::Volume,
        "tbsp",
        &["tablespoon", "tablespoons", "tbsps", "tbs", "tbl", "tblsp", "tbspn"],
        14.786_764_781_25,
        HB44,
    ),
    u(Quantity::Volume, "tsp", &["teaspoon", "teaspoons", "tsps", "tspn"], 4.928_921_593_75, HB44),
    u(Quantity::Volume, "fl oz", &["fluid ounce", "fluid ounces", "fl ounce", "fl. oz"], 29.573_529_562_5, HB44),
    u(Quantity::Volume, "pint", &["pints", "pt"], 473.176_473, HB44),
    u(Quantity::Volume, "quart", &["quarts", "qt"], 946.352_946, HB44),
    u(Quantity::Volume, "metric cup", &["metric cups"], 250.0, METRIC_KITCHEN),
    u(Quantity::Volume, "metric tbsp", &["metric tablespoon", "metric tablespoons"], 15.0, METRIC_KITCHEN),
    u(Quantity::Volume, "metric tsp", &["metric teaspoon", "metric teaspoons"], 5.0, METRIC_KITCHEN),
    u(Quantity::Volume, "Australian tbsp", &["australian tablespoon", "australian tablespoons"], 20.0, METRIC_KITCHEN),
    u(Quantity::Temperature, "\u{b0}C", &["c", "degc", "celsius", "\u{b0}", "deg c"], 1.0, SI),
    Unit {
        symbol: "\u{b0}F",
        spellings: &["f", "degf", "fahrenheit", "deg f"],
        quantity: Quantity::Temperature,
        factor: 5.0 / 9.0,
        offset: -160.0 / 9.0,
        source: "NIST SP 811: F = 1.8 C + 32",
    },
    u(Quantity::Duration, "min", &["minute", "minutes", "m"], 1.0, SI),
    u(Quantity::Duration, "h", &["hour", "hours", "hr", "hrs"], 60.0, SI),
    u(Quantity::Duration, "s", &["second", "seconds", "sec"], 1.0 / 60.0, SI),
    u(Quantity::Percent, "%", &["percent", "per cent"], 1.0, "definition"),
    u(Quantity::Duration, "d", &["day", "days"], 1440.0, SI),
];

/// The unit that `text` names for `quantity`, by symbol or spelling, ignoring case.
pub fn unit(quantity: Quantity, text: &str) -> Option<&'static Unit> {
    let wanted = text.trim().trim_end_matches('.').to_lowercase();
    UNITS.iter().find(|u| {
        u.quantity == quantity && (u.symbol.to_lowercase() == wanted || u.spellings.contains(&wanted.as_str()))
    })
}

impl Unit {
    /// `value` of this unit in the base unit.
    #[must_use]
    pub fn to_base(&self, value: f64) -> f64 {
        value * self.factor + self.offset
    }

    /// `base` in this unit.
    #[must_use]
    pub fn from_base(&self, base: f64) -> f64 {
        (base - self.offset) / self.factor
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    // NIST Handbook 44, Appendix C, and NIST SP 811 (values as rounded there).
    #[rstest]
    #[case(Quantity::Length, "in", 25.4, 0.0)]
    #[case(Quantity::Mass, "oz", 28.3495, 5e-5)]
    #[case(Quantity::Mass, "lb", 453.592, 5e-4)]
    #[case(Quantity::Volume, "cup", 236.588, 5e-4)]
    #[case(Quantity::Volume, "tbsp", 14.787, 5e-4)]
    #[case(Quantity::Volume, "tsp", 4.929, 5e-4)]
    #[case(Quantity::Volume, "fl oz", 29.574, 5e-4)]
    #[case(Quantity::Volume, "quart", 946.353, 5e-4)]
    #[case(Quantity::Volume, "metric cup", 250.0, 0.0)]
    #[case(Quantity::Volume, "metric tbsp", 15.0, 0.0)]
    #[case(Quantity::Volume, "Australian tbsp", 20.0, 0.0)]
    fn one_of_it_is_the_handbook_value(
        #[case] quantity: Quantity,
        #[case] symbol: &str,
        #[case] base: f64,
        #[case] tolerance: f64,
    ) {
        let one = unit(quantity, symbol).unwrap().to_base(1.0);
        assert!((one - base).abs() <= tolerance, "{one}");
    }

    #[rstest]
    #[case(32.0, 0.0)]
    #[case(212.0, 100.0)]
    #[case(350.0, 176.667)]
    #[case(-40.0, -40.0)]
    fn fahrenheit_meets_celsius(#[case] f: f64, #[case] c: f64) {
        let unit = unit(Quantity::Temperature, "F").unwrap();
        assert!((unit.to_base(f) - c).abs() < 5e-4);
        assert!((unit.from_base(unit.to_base(f)) - f).abs() < 1e-9);
    }
}
