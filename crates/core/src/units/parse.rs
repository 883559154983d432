//! Quantities as people type them: `1/4 in`, `6mm`, `2 1/4 cups`, `350F`, `1 h 20`, `4 dozen`.

use super::{Quantity, unit};
use crate::error::{InputError, Problem};

const LONGEST_TEXT: usize = 60;

/// Reads `text` as `quantity` and returns it in the base unit (mm, g, mL, degC, min).
///
/// A bare number is taken in the unit that `default_symbol` names. Several parts add up (`1 h 20 min`, `2 lb 3 oz`);
/// a bare number after hours is minutes. Fails, naming `field`, when the text does not read whole.
pub fn parse_quantity(field: &str, quantity: Quantity, text: &str, default_symbol: &str) -> Result<f64, InputError> {
    if quantity == Quantity::Count {
        return parse_count(field, text).map(f64::from);
    }
    let unreadable =
        || InputError::new(field, Problem::Unreadable { text: shortened(text), accepted: example(quantity) });
    if text.chars().count() > LONGEST_TEXT {
        return Err(unreadable());
    }
    let cleaned = text.trim().replace('\u{2212}', "-").to_lowercase();
    let mut rest = cleaned.as_str();
    let mut total: Option<f64> = None;
    let mut last_symbol = "";
    while !rest.is_empty() {
        let (value, after) = leading_number(rest).ok_or_else(unreadable)?;
        let after = after.trim_start();
        let word_end = after.find(|c: char| c.is_ascii_digit() || is_vulgar(c) || c == '-').unwrap_or(after.len());
        let word = after[..word_end].trim();
        let found = match word {
            "" if last_symbol == "h" => unit(quantity, "min"),
            "" if total.is_none() => unit(quantity, default_symbol),
            "" => None,
            _ => unit(quantity, word),
        }
        .ok_or_else(unreadable)?;
        if total.is_some() && (quantity == Quantity::Temperature || value < 0.0) {
            return Err(unreadable());
        }
        last_symbol = found.symbol;
        total = Some(total.unwrap_or(0.0) + found.to_base(value));
        rest = after[word_end..].trim_start();
    }
    match total {
        Some(value) if value.is_finite() => Ok(value),
        _ => Err(unreadable()),
    }
}

/// Reads a count of pieces: `48`, `4 dozen`, `2 doz`.
pub fn parse_count(field: &str, text: &str) -> Result<u32, InputError> {
    let unreadable = || {
        InputError::new(
            field,
            Problem::Unreadable { text: shortened(text), accepted: "a whole number such as 48, or 4 dozen" },
        )
    };
    if text.chars().count() > LONGEST_TEXT {
        return Err(unreadable());
    }
    let cleaned = text.trim().to_lowercase();
    let (value, rest) = leading_number(&cleaned).ok_or_else(unreadable)?;
    let each = match rest.trim() {
        "" | "pieces" | "piece" | "pcs" => 1.0,
        "dozen" | "doz" | "doz." => 12.0,
        _ => return Err(unreadable()),
    };
    let count = value * each;
    if count.fract().abs() > 1e-9 || !(0.0..=1e9).contains(&count) {
        return Err(unreadable());
    }
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "checked to be whole and within range")]
    Ok(count.round() as u32)
}

fn example(quantity: Quantity) -> &'static str {
    match quantity {
        Quantity::Length => "a length such as 6 mm or 1/4 in",
        Quantity::Mass => "a weight such as 450 g or 1 lb 2 oz",
        Quantity::Volume => "an amount such as 2 1/4 cups or 2 tbsp",
        Quantity::Temperature => "a temperature such as 350°F or 175 °C",
        Quantity::Duration => "a time such as 45 min or 1 h 20 min",
        Quantity::Percent => "a percentage such as 3 or 2.5%",
        Quantity::Count => "a whole number such as 48",
    }
}

fn shortened(text: &str) -> String {
    text.chars().filter(|c| !c.is_control()).take(40).collect()
}

fn is_vulgar(c: char) -> bool {
    vulgar(c).is_some()
}

pub(crate) fn vulgar(c: char) -> Option<f64> {
    Some(match c {
        '\u{2150}' => 1.0 / 7.0,
        '\u{2151}' => 1.0 / 9.0,
        '\u{2152}' => 0.1,
        '\u{2155}' => 0.2,
        '\u{2156}' => 0.4,
        '\u{2157}' => 0.6,
        '\u{2158}' => 0.8,
        '\u{2159}' => 1.0 / 6.0,
        '\u{215a}' => 5.0 / 6.0,
        '\u{bd}' => 0.5,
        '\u{bc}' => 0.25,
        '\u{be}' => 0.75,
        '\u{2153}' => 1.0 / 3.0,
        '\u{2154}' => 2.0 / 3.0,
        '\u{215b}' => 0.125,
        '\u{215c}' => 0.375,
        '\u{215d}' => 0.625,
        '\u{215e}' => 0.875,
        _ => return None,
    })
}

/// A number at the start: plain, decimal (point or comma), fraction, mixed, or with a vulgar fraction sign.
pub(crate) fn leading_number(text: &str) -> Option<(f64, &str)> {
    let (sign, text) = match text.strip_prefix('-') {
        Some(rest) => (-1.0, rest.trim_start()),
        None => (1.0, text.strip_prefix('+').unwrap_or(text)),
    };
    if let Some((value, rest)) = simple_fraction(text) {
        return Some((sign * value, rest));
    }
    let (whole, rest) = decimal(text)?;
    // A mixed number: the fraction follows a whole number, after a blank, a hyphen or nothing for a fraction sign.
    if whole.fract() == 0.0 {
        let tail = rest.trim_start().trim_start_matches(['-', '\u{2044}']).trim_start();
        let glued = tail.len() == rest.len();
        if let Some((part, after)) = simple_fraction(tail)
            && (!glued || tail.starts_with(is_vulgar))
        {
            return Some((sign * (whole + part), after));
        }
    }
    Some((sign * whole, rest))
}

fn simple_fraction(text: &str) -> Option<(f64, &str)> {
    let first = text.chars().next()?;
    if let Some(value) = vulgar(first) {
        return Some((value, &text[first.len_utf8()..]));
    }
    let (top, rest) = digits(text)?;
    let rest = rest.trim_start();
    let rest = rest.strip_prefix('/').or_else(|| rest.strip_prefix('\u{2044}'))?;
    let (bottom, rest) = digits(rest.trim_start())?;
    (bottom != 0.0).then(|| (top / bottom, rest))
}

fn digits(text: &str) -> Option<(f64, &str)> {
    let end = text.find(|c: char| !c.is_ascii_digit()).unwrap_or(text.len());
    (end > 0 && end <= 12).then(|| text[..end].parse().ok().map(|n| (n, &text[end..])))?
}

fn decimal(text: &str) -> Option<(f64, &str)> {
    let (whole, rest) = match digits(text) {
        Some(found) => found,
        None if text.starts_with(['.', ',']) => (0.0, text),
        None => return None,
    };
    if let Some(after) = rest.strip_prefix(['.', ','])
        && let Some((_, tail)) = digits(after)
    {
        let places = after.len() - tail.len();
        if rest.starts_with(',') && places == 3 {
            // 1,200 is twelve hundred to one reader and one and a fifth to another: nothing is guessed.
            return None;
        }
        let fraction: f64 = format!("0.{}", &after[..places]).parse().ok()?;
        return Some((whole + fraction, tail));
    }
    Some((whole, rest))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(Quantity::Length, "6", "mm", 6.0)]
    #[case(Quantity::Length, "6mm", "mm", 6.0)]
    #[case(Quantity::Length, "1/4 in", "mm", 6.35)]
    #[case(Quantity::Length, "1/4\"", "mm", 6.35)]
    #[case(Quantity::Length, "\u{bc}", "in", 6.35)]
    #[case(Quantity::Length, "2 1/2 inches", "mm", 63.5)]
    #[case(Quantity::Length, "2-1/2 in", "mm", 63.5)]
    #[case(Quantity::Length, "2\u{bd} in", "mm", 63.5)]
    #[case(Quantity::Length, "0,6 cm", "mm", 6.0)]
    #[case(Quantity::Mass, "1.2 kg", "g", 1200.0)]
    #[case(Quantity::Mass, "2 lb 3 oz", "g", 992.233)]
    #[case(Quantity::Volume, "2 1/4 cups", "mL", 532.324)]
    #[case(Quantity::Temperature, "350F", "\u{b0}C", 176.667)]
    #[case(Quantity::Temperature, "\u{2212}18", "\u{b0}C", -18.0)]
    #[case(Quantity::Temperature, "0 \u{b0}F", "\u{b0}C", -17.778)]
    #[case(Quantity::Duration, "1 h 20", "min", 80.0)]
    #[case(Quantity::Duration, "1h 20min", "min", 80.0)]
    #[case(Quantity::Duration, "90 s", "min", 1.5)]
    #[case(Quantity::Percent, "2,5 %", "%", 2.5)]
    fn reads_what_people_type(
        #[case] quantity: Quantity,
        #[case] text: &str,
        #[case] default: &str,
        #[case] base: f64,
    ) {
        let read = parse_quantity("x", quantity, text, default).unwrap();
        assert!((read - base).abs() < 1e-3, "{text} -> {read}");
    }

    #[rstest]
    #[case(Quantity::Length, "six")]
    #[case(Quantity::Length, "6 g")]
    #[case(Quantity::Length, "")]
    #[case(Quantity::Length, "1/0 in")]
    #[case(Quantity::Length, "NaN")]
    #[case(Quantity::Length, "1e999")]
    #[case(Quantity::Length, "6 6")]
    #[case(Quantity::Mass, "1,200 g")]
    #[case(Quantity::Temperature, "350F 2")]
    #[case(Quantity::Mass, "99999999999999999999999999")]
    fn what_does_not_read_whole_is_refused_with_an_example(#[case] quantity: Quantity, #[case] text: &str) {
        let default = if quantity == Quantity::Mass { "g" } else { "mm" };
        let error = parse_quantity("size", quantity, text, default).unwrap_err();
        assert_eq!(error.field(), "size");
        assert!(!error.problem().accepted().is_empty());
    }

    #[rstest]
    #[case("48", 48)]
    #[case("4 dozen", 48)]
    #[case("1/2 dozen", 6)]
    fn counts_read(#[case] text: &str, #[case] count: u32) {
        assert_eq!(parse_count("pieces", text).unwrap(), count);
    }

    #[rstest]
    #[case("4.5")]
    #[case("-3")]
    #[case("many")]
    #[case("99999999999999")]
    fn a_count_is_a_whole_number(#[case] text: &str) {
        assert!(parse_count("pieces", text).is_err());
    }
}
