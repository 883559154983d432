//! A quantity in a sentence, and how it is written in metric and in US units.

use ready_slab_core::units::{
    Length, Mass, Quantity as Measured, Share, Span, Temperature, TemperatureDifference, UNITS,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

const MINUS: char = '\u{2212}';

/// In whose units a text is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum System {
    /// mm, g, degrees Celsius.
    Metric,
    /// in, oz and lb, degrees Fahrenheit.
    Us,
}

/// What a figure of a sentence measures, and with it the unit of its values.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = FigureWord)]
pub enum Quantity {
    /// mm.
    Length,
    /// g.
    Mass,
    /// degC.
    Temperature,
    /// An oven's setting, degC.
    Setting,
    /// Between two temperatures, K.
    Difference,
    /// min.
    Span,
    /// Per cent.
    Share,
}

/// What stands between the two values of a figure.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Joint {
    /// A range.
    To,
    /// Two sides.
    By,
}

impl Quantity {
    const ALL: [Self; 7] =
        [Self::Length, Self::Mass, Self::Temperature, Self::Setting, Self::Difference, Self::Span, Self::Share];

    /// As it is written in a kept sentence.
    const fn key(self) -> &'static str {
        match self {
            Self::Length => "length",
            Self::Mass => "mass",
            Self::Temperature => "temperature",
            Self::Setting => "setting",
            Self::Difference => "difference",
            Self::Span => "span",
            Self::Share => "share",
        }
    }
}

impl Joint {
    /// As written.
    #[must_use]
    pub const fn sign(self) -> &'static str {
        match self {
            Self::To => "to",
            Self::By => "\u{d7}",
        }
    }
}

/// One value, or two of a kind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Figure {
    /// What it measures.
    pub quantity: Quantity,
    /// In the quantity's unit.
    pub value: f64,
    /// Another beside it.
    pub and: Option<(Joint, f64)>,
    /// Most decimals; lengths and masses have more by themselves where they are small.
    pub places: usize,
}

/// A number with a true minus, thousands apart and no zeros at its end.
pub(crate) fn number(value: f64, most: usize) -> String {
    let power = 10_f64.powi(i32::try_from(most).unwrap_or(0));
    let text = format!("{:.most$}", (value.abs() * power * (1.0 + 1e-12)).round() / power);
    let (whole, part) = text.split_once('.').unwrap_or((&text, ""));
    let part = part.trim_end_matches('0');
    let mut shown = String::new();
    for (i, digit) in whole.chars().enumerate() {
        if i > 0 && (whole.len() - i) % 3 == 0 {
            shown.push(',');
        }
        shown.push(digit);
    }
    if !part.is_empty() {
        shown.push('.');
        shown.push_str(part);
    }
    if value < 0.0 && shown.chars().any(|c| c.is_ascii_digit() && c != '0') { format!("{MINUS}{shown}") } else { shown }
}

/// Factor and offset of a unit of the core's table.
fn unit(measured: Measured, symbol: &str) -> (f64, f64) {
    UNITS.iter().find(|u| u.quantity == measured && u.symbol == symbol).map_or((1.0, 0.0), |u| (u.factor, u.offset))
}

/// Below this no ruler shows it: half its smallest division, in inches.
const UNDER: f64 = 1.0 / 32.0;

/// A length by the ruler: sixteenths up to half an inch, eighths above.
fn fraction(value: f64) -> String {
    let fine = if value < 0.5 { 16.0 } else { 8.0 };
    let parts = (value * fine).round();
    let whole = (parts / fine).floor();
    let (mut top, mut bottom) = (parts - fine * whole, fine);
    while top > 0.0 && top % 2.0 == 0.0 {
        top /= 2.0;
        bottom /= 2.0;
    }
    let one = match (top, bottom) {
        (0.0, _) => return format!("{whole}"),
        (1.0, 8.0) => "\u{215b}",
        (1.0, 4.0) => "\u{bc}",
        (3.0, 8.0) => "\u{215c}",
        (1.0, 2.0) => "\u{bd}",
        (5.0, 8.0) => "\u{215d}",
        (3.0, 4.0) => "\u{be}",
        (7.0, 8.0) => "\u{215e}",
        _ => "",
    };
    let before = if whole > 0.0 { whole.to_string() } else { String::new() };
    // A fraction that has no sign of its own stands apart from the whole.
    match (one, whole > 0.0) {
        ("", true) => format!("{before}\u{a0}{top}\u{2044}{bottom}"),
        ("", false) => format!("{top}\u{2044}{bottom}"),
        _ => format!("{before}{one}"),
    }
}

/// Inches as a baker reads them off a ruler.
fn inches(mm: f64) -> String {
    let value = mm / unit(Measured::Length, "in").0;
    let size = value.abs();
    if size == 0.0 {
        return "0 in".to_owned();
    }
    if size < UNDER {
        return match number(value, 2).as_str() {
            "0" => "less than 0.01 in".to_owned(),
            text => format!("{text} in"),
        };
    }
    let sign = if value < 0.0 { MINUS.to_string() } else { String::new() };
    format!("{sign}{} in", fraction(size))
}

/// What an oven's dial can be set to: every 25 degrees Fahrenheit, and by fives between.
fn on_dial(f: f64) -> f64 {
    let mark = (f / 25.0).round() * 25.0;
    if (f - mark).abs() <= 4.0 { mark } else { (f / 5.0).round() * 5.0 }
}

/// Pounds and ounces; small weights to the hundredth of an ounce.
fn ounces(g: f64) -> String {
    let (pound, ounce) = (unit(Measured::Mass, "lb").0, unit(Measured::Mass, "oz").0);
    if g < pound {
        return format!("{} oz", number(g / ounce, if g < ounce { 2 } else { 1 }));
    }
    let whole = (g / pound).floor();
    let rest = ((g - whole * pound) / ounce * 10.0).round() / 10.0;
    if rest == 0.0 {
        format!("{} lb", number(whole, 0))
    } else if rest * ounce >= pound {
        format!("{} lb", number(whole + 1.0, 0))
    } else {
        format!("{} lb {} oz", number(whole, 0), number(rest, 1))
    }
}

/// From here on lengths are told in centimetres.
const IN_CM_FROM_MM: f64 = 100.0;

fn length_places(mm: f64) -> usize {
    usize::from(mm.abs() < 20.0)
}

fn mass_places(g: f64) -> usize {
    match g.abs() {
        g if g < 1.0 => 2,
        g if g < 10.0 => 1,
        _ => 0,
    }
}

impl Figure {
    const fn one(quantity: Quantity, value: f64, places: usize) -> Self {
        Self { quantity, value, and: None, places }
    }

    const fn two(quantity: Quantity, from: f64, joint: Joint, to: f64, places: usize) -> Self {
        Self { quantity, value: from, and: Some((joint, to)), places }
    }

    /// As it is kept: `{length 6}`.
    pub(crate) fn written(&self) -> String {
        format!("{{{} {}}}", self.quantity.key(), self.value)
    }

    /// One that was kept; nothing for any other text.
    pub(crate) fn read(text: &str) -> Option<Self> {
        let (key, value) = text.split_once(' ')?;
        let quantity = Quantity::ALL.into_iter().find(|q| q.key() == key)?;
        Some(Self::one(quantity, value.parse().ok().filter(|v: &f64| v.is_finite())?, 2))
    }

    /// As written.
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let us = system == System::Us;
        match (self.quantity, us) {
            (Quantity::Length, true) => self.each(inches, ""),
            (Quantity::Length, false) if self.most().abs() >= IN_CM_FROM_MM => {
                self.each(|mm| number(mm / unit(Measured::Length, "cm").0, 1), " cm")
            }
            (Quantity::Length, false) => self.each(|mm| number(mm, length_places(self.value).max(self.places)), " mm"),
            (Quantity::Mass, true) => self.each(ounces, ""),
            (Quantity::Mass, false) => self.each(|g| number(g, mass_places(g).max(self.places)), " g"),
            (Quantity::Temperature, _) => {
                let (factor, offset) = if us { unit(Measured::Temperature, "\u{b0}F") } else { (1.0, 0.0) };
                self.each(|c| number((c - offset) / factor, self.places), if us { "\u{b0}F" } else { " \u{b0}C" })
            }
            (Quantity::Setting, false) => self.each(|c| number(c, 0), " \u{b0}C"),
            (Quantity::Setting, true) => {
                let (factor, offset) = unit(Measured::Temperature, "\u{b0}F");
                self.each(|c| number(on_dial((c - offset) / factor), 0), "\u{b0}F")
            }
            (Quantity::Difference, _) => {
                let factor = if us { unit(Measured::Temperature, "\u{b0}F").0 } else { 1.0 };
                self.each(|k| number(k / factor, self.places), "\u{b0}")
            }
            (Quantity::Span, _) => self.each(|min| number(min, self.places), " min"),
            (Quantity::Share, _) => self.each(|percent| number(percent, self.places), "%"),
        }
    }

    /// A figure by the unit it is given in: `mm`, `g`, `°C`, `K`, `min`, or `%` and what follows it; nothing for any other.
    pub(crate) fn in_unit(value: f64, unit: &str, places: usize) -> Option<(Self, &str)> {
        let (quantity, rest) = match unit {
            "mm" => (Quantity::Length, ""),
            "g" => (Quantity::Mass, ""),
            "\u{b0}C" => (Quantity::Temperature, ""),
            "K" => (Quantity::Difference, ""),
            "min" => (Quantity::Span, ""),
            of => (Quantity::Share, of.strip_prefix('%')?),
        };
        Some((Self::one(quantity, value, places), rest))
    }

    /// The same up to another value.
    pub(crate) const fn up_to(self, value: f64) -> Self {
        Self { and: Some((Joint::To, value)), ..self }
    }

    /// The larger of its two values, or its one.
    fn most(&self) -> f64 {
        self.and.map_or(self.value, |(_, other)| self.value.max(other))
    }

    fn each(&self, write: impl Fn(f64) -> String, unit: &str) -> String {
        let first = write(self.value);
        match self.and {
            None => format!("{first}{unit}"),
            Some((joint, other)) => {
                let other = write(other);
                // A range that is one value as shown is told as that.
                if joint == Joint::To && other == first {
                    format!("{first}{unit}")
                } else {
                    format!("{first} {} {other}{unit}", joint.sign())
                }
            }
        }
    }
}

/// A length.
pub(crate) fn mm(length: Length) -> Figure {
    Figure::one(Quantity::Length, length.mm(), 0)
}

/// Two sides.
pub(crate) fn sides(a: Length, b: Length) -> Figure {
    Figure::two(Quantity::Length, a.mm(), Joint::By, b.mm(), 0)
}

/// From one length to another.
pub(crate) fn lengths(a: Length, b: Length) -> Figure {
    Figure::two(Quantity::Length, a.mm(), Joint::To, b.mm(), 0)
}

/// A mass.
pub(crate) fn grams(mass: Mass) -> Figure {
    Figure::one(Quantity::Mass, mass.g(), 0)
}

/// A mass under 100 g to the tenth, as recipes have it.
pub(crate) fn grams_fine(mass: Mass) -> Figure {
    Figure::one(Quantity::Mass, mass.g(), usize::from(mass.g() < 100.0))
}

/// A temperature.
pub(crate) fn degrees(t: Temperature, places: usize) -> Figure {
    Figure::one(Quantity::Temperature, t.c(), places)
}

/// What an oven is set to.
pub(crate) fn setting(t: Temperature) -> Figure {
    Figure::one(Quantity::Setting, t.c(), 0)
}

/// From one temperature to another, in whole degrees.
pub(crate) fn degrees_between(a: Temperature, b: Temperature) -> Figure {
    Figure::two(Quantity::Temperature, a.c(), Joint::To, b.c(), 0)
}

/// So many degrees warmer or colder, without a sign.
pub(crate) fn apart(d: TemperatureDifference, places: usize) -> Figure {
    Figure::one(Quantity::Difference, d.k().abs(), places)
}

/// How high a kitchen stands, in both units: too rare for a quantity of its own.
pub(crate) fn altitude(metres: f64) -> String {
    let feet = metres * 1000.0 / unit(Measured::Length, "in").0 / 12.0;
    format!("{} m ({} ft)", number(metres, 0), number((feet / 50.0).round() * 50.0, 0))
}

/// Minutes.
pub(crate) fn minutes(span: Span, places: usize) -> Figure {
    Figure::one(Quantity::Span, span.min(), places)
}

/// From so many minutes to so many.
pub(crate) fn minutes_between(a: Span, b: Span, places: usize) -> Figure {
    Figure::two(Quantity::Span, a.min(), Joint::To, b.min(), places)
}

/// A share, in per cent.
pub(crate) fn percent(share: Share, places: usize) -> Figure {
    Figure::one(Quantity::Share, 100.0 * share.value(), places)
}

/// From one share to another, in per cent.
pub(crate) fn percent_between(a: Share, b: Share, places: usize) -> Figure {
    Figure::two(Quantity::Share, 100.0 * a.value(), Joint::To, 100.0 * b.value(), places)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_are_written_as_people_read_them() {
        assert_eq!(number(1155.04, 1), "1,155");
        assert_eq!(number(-0.25, 1), "\u{2212}0.3");
        assert_eq!(number(-0.01, 1), "0");
        assert_eq!(number(1_234_567.5, 1), "1,234,567.5");
    }

    #[test]
    fn a_quarter_inch_and_a_pound_read_as_such() {
        let us = |figure: Figure| figure.text(System::Us);
        // 6.35 mm and 453.59237 g (NIST Handbook 44, Appendix C).
        assert_eq!(us(mm(Length::new_mm(6.35))), "\u{bc} in");
        assert_eq!(us(mm(Length::new_mm(7.9375))), "5\u{2044}16 in");
        assert_eq!(us(mm(Length::new_mm(33.3375))), "1\u{215c} in");
        assert_eq!(us(grams(Mass::new_g(453.592_37))), "1 lb");
        assert_eq!(us(grams(Mass::new_g(1155.0))), "2 lb 8.7 oz");
        assert_eq!(us(degrees(Temperature::new_c(175.0), 0)), "347\u{b0}F");
        assert_eq!(us(apart(TemperatureDifference::new_k(-10.0), 1)), "18\u{b0}");
    }
}
