//! Amounts as recipes write them: `1 1/2 cups + 2 tbsp`, `225g/8oz`, `2 (4-ounce) sticks`, `1-2 tbsp`, `a knob`.

use super::cursor::Cursor;
use crate::dough::{CupWay, Pantry};
use crate::units::{Mass, Quantity, leading_number, unit, vulgar};
use serde::{Deserialize, Serialize};

/// In what cups and spoons a recipe measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CupSystem {
    /// US customary: a cup of 236.6 mL, a tablespoon of 14.8.
    Us,
    /// Metric: 250, 15 and 5 mL.
    Metric,
    /// Australian: 250, 20 and 5 mL.
    Australian,
}

impl CupSystem {
    /// All systems.
    pub const ALL: [Self; 3] = [Self::Us, Self::Metric, Self::Australian];

    /// What a cup of all-purpose flour weighs in these cups, filled that way.
    #[must_use]
    pub fn cup_of_flour(self, pantry: &Pantry, way: CupWay) -> Option<Mass> {
        pantry.get("flour-ap")?.household.of_volume(self.ml("cup")?, way)
    }

    fn ml(self, symbol: &str) -> Option<f64> {
        let of = |name: &str| unit(Quantity::Volume, name).map(|u| u.factor);
        match (self, symbol) {
            (Self::Us, _) => of(symbol),
            (_, "cup") => of("metric cup"),
            (Self::Metric, "tbsp") => of("metric tbsp"),
            (Self::Australian, "tbsp") => of("Australian tbsp"),
            (_, "tsp") => of("metric tsp"),
            _ => of(symbol),
        }
    }
}

/// What one of an amount is.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Measure {
    /// Grams of one, and the word.
    Mass(f64, &'static str),
    /// Millilitres of one, and the word.
    Volume(f64, &'static str),
    /// A stick of butter.
    Stick,
    /// One of the thing itself.
    Each,
    /// A packet or another container of unknown size.
    Container(String),
    /// No amount at all: a knob, a handful.
    Vague(String),
}

/// So many of a measure.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Amount {
    pub low: f64,
    pub high: f64,
    pub measure: Measure,
}

/// All that a line says of its amount.
#[derive(Debug, Clone, PartialEq, Default)]
pub(super) struct Amounts {
    /// Added up (negative: taken away).
    pub parts: Vec<(f64, Amount)>,
    /// The same amount said another way.
    pub also: Vec<Amount>,
    /// How the cup is filled, where the line says.
    pub way: Option<CupWay>,
    /// `about`, `scant`, `heaped`: words that make it less sure.
    pub unsure: Vec<&'static str>,
    /// A size word of an egg.
    pub size: Option<&'static str>,
}

/// Why a number cannot be read.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct TwoWays {
    pub text: String,
}

const UNSURE: [(&str, &str); 14] = [
    ("about", "about"),
    ("roughly", "about"),
    ("nearly", "about"),
    ("almost", "about"),
    ("just", "about"),
    ("approximately", "about"),
    ("approx", "about"),
    ("around", "about"),
    ("ca", "about"),
    ("circa", "about"),
    ("scant", "scant"),
    ("heaped", "heaped"),
    ("heaping", "heaped"),
    ("generous", "generous"),
];
const NUMBER_WORDS: [(&str, f64); 18] = [
    ("a", 1.0),
    ("an", 1.0),
    ("one", 1.0),
    ("two", 2.0),
    ("three", 3.0),
    ("four", 4.0),
    ("five", 5.0),
    ("six", 6.0),
    ("seven", 7.0),
    ("eight", 8.0),
    ("nine", 9.0),
    ("ten", 10.0),
    ("eleven", 11.0),
    ("twelve", 12.0),
    ("half", 0.5),
    ("quarter", 0.25),
    ("dozen", 12.0),
    ("fifteen", 15.0),
];
/// Parts of a whole in words.
const PARTS: [(&str, f64); 13] = [
    ("half", 2.0),
    ("halves", 2.0),
    ("third", 3.0),
    ("thirds", 3.0),
    ("quarter", 4.0),
    ("quarters", 4.0),
    ("fourth", 4.0),
    ("fourths", 4.0),
    ("fifth", 5.0),
    ("sixth", 6.0),
    ("eighth", 8.0),
    ("eighths", 8.0),
    ("fifths", 5.0),
];
const VAGUE: [&str; 17] = [
    "knob",
    "handful",
    "splash",
    "glug",
    "bit",
    "sprinkle",
    "sprinkling",
    "dollop",
    "drizzle",
    "squeeze",
    "touch",
    "lump",
    "spoonful",
    "some",
    "few",
    "little",
    "couple",
];
const CONTAINERS: [&str; 15] = [
    "packet", "packets", "package", "packages", "pkg", "sachet", "sachets", "envelope", "can", "tin", "jar", "bar",
    "bars", "box", "bag",
];
const SIZES: [(&str, &str); 12] = [
    ("small", "small"),
    ("sm", "small"),
    ("medium", "medium"),
    ("med", "medium"),
    ("large", "large"),
    ("lg", "large"),
    ("lge", "large"),
    ("lrg", "large"),
    ("big", "large"),
    ("jumbo", "jumbo"),
    ("xl", "extra large"),
    ("xlarge", "extra large"),
];

/// A decimal comma before exactly three digits reads two ways.
fn two_ways(text: &str) -> Option<TwoWays> {
    let digits = text.find(|c: char| !c.is_ascii_digit())?;
    let after = text[digits..].strip_prefix(',')?;
    let places = after.find(|c: char| !c.is_ascii_digit()).unwrap_or(after.len());
    (digits > 0 && digits <= 3 && places == 3).then(|| TwoWays { text: text[..digits + 1 + places].to_owned() })
}

/// A number in digits or words.
fn number(c: &mut Cursor) -> Result<Option<f64>, TwoWays> {
    c.skip();
    if let Some(found) = two_ways(c.rest) {
        return Err(found);
    }
    let starts = c.rest.starts_with(|ch: char| ch.is_ascii_digit() || vulgar(ch).is_some())
        || c.rest.starts_with('.') && c.rest[1..].starts_with(|ch: char| ch.is_ascii_digit());
    if starts {
        let Some((value, rest)) = leading_number(c.rest) else { return Ok(None) };
        c.rest = rest;
        // `2 & 1/4`, `1 and 1/2`: a whole number and a broken one.
        let mut ahead = *c;
        if value.fract() == 0.0 && (ahead.eat("&") || ahead.eat_word(&["and"]).is_some()) {
            ahead.skip();
            if let Some((part, rest)) = leading_number(ahead.rest)
                && part > 0.0
                && part < 1.0
            {
                c.rest = rest;
                return Ok(Some(value + part));
            }
        }
        return Ok(Some(value));
    }
    Ok(in_words(c))
}

/// A blank or a hyphen, then a word: the parts of `three-quarter`.
fn joined_word<'a>(c: &Cursor<'a>) -> (&'a str, &'a str) {
    let text = c.rest.trim_start();
    let text = text.strip_prefix(['-', '\u{2010}', '\u{2011}']).unwrap_or(text);
    let end = text.find(|ch: char| !ch.is_alphabetic()).unwrap_or(text.len());
    (&text[..end], &text[end..])
}

fn part_of(word: &str) -> Option<f64> {
    PARTS.iter().find(|(w, _)| w.eq_ignore_ascii_case(word)).map(|p| 1.0 / p.1)
}

/// A number in words: `two`, `half a`, `three-quarters`, `one third`, `two and a half`, `two and three-quarter`, `a dozen`.
fn in_words(c: &mut Cursor) -> Option<f64> {
    let (word, rest) = c.peek_word();
    let mut value = if let Some(part) = part_of(word) {
        part
    } else {
        NUMBER_WORDS.iter().find(|(w, _)| w.eq_ignore_ascii_case(word))?.1
    };
    let part = part_of(word).is_some();
    let mut ahead = Cursor { rest };
    let (next, after) = joined_word(&ahead);
    if !part && let Some(of) = part_of(next) {
        // `a half a cup`, `one fourth cup`, `three-quarters of a cup`.
        value *= of;
        ahead.rest = after;
    } else if !rest.starts_with(char::is_whitespace) && !part {
        // What follows must be a word: `a-b` is a name.
        return None;
    } else if !part && next.eq_ignore_ascii_case("dozen") {
        value *= 12.0;
        ahead.rest = after;
    }
    *c = ahead;
    if value.fract() != 0.0 || value >= 12.0 && value % 12.0 == 0.0 {
        let mut ahead = *c;
        let of = ahead.eat_word(&["of"]).is_some();
        if ahead.eat_word(&["a", "an"]).is_some() || of {
            *c = ahead;
        }
        return Some(value);
    }
    // `two and a half`, `two and two-thirds`.
    let mut ahead = *c;
    if ahead.eat_word(&["and"]).is_some() {
        let (first, tail) = ahead.peek_word();
        let more = if let Some(of) = part_of(first) {
            Some((of, tail))
        } else {
            let times = NUMBER_WORDS.iter().find(|(w, n)| *n < 12.0 && w.eq_ignore_ascii_case(first)).map(|n| n.1);
            let (second, after) = joined_word(&Cursor { rest: tail });
            times.zip(part_of(second)).map(|(times, of)| (times * of, after))
        };
        if let Some((more, tail)) = more.filter(|m| m.0 < 1.0) {
            value += more;
            c.rest = tail;
        }
    }
    Some(value)
}

/// `1`, `1-2`, `1 to 2`, `1 or 2`.
fn range(c: &mut Cursor) -> Result<Option<(f64, f64)>, TwoWays> {
    let Some(low) = number(c)? else { return Ok(None) };
    let mut ahead = *c;
    let joined =
        ahead.eat("-") || ahead.eat("\u{2013}") || ahead.eat("\u{2014}") || ahead.eat_word(&["to", "or"]).is_some();
    if joined {
        ahead.skip();
        let digit = ahead.rest.starts_with(|ch: char| ch.is_ascii_digit() || vulgar(ch).is_some());
        if digit
            && let Some(high) = number(&mut ahead)?
            && high > low
        {
            *c = ahead;
            return Ok(Some((low, high)));
        }
    }
    Ok(Some((low, low)))
}

/// The measure after a number; [`Measure::Each`] where no unit follows.
fn measure(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Measure {
    loop {
        let before = c.rest;
        c.rest = c.rest.trim_start_matches(|ch: char| ch.is_whitespace() || ch == '-');
        let (word, rest) = c.peek_word();
        let lower = word.to_lowercase();
        if let Some((_, how)) = UNSURE.iter().find(|(w, _)| *w == lower) {
            found.unsure.push(how);
        } else if matches!(lower.as_str(), "level" | "levelled" | "leveled" | "rounded" | "full" | "good") {
        } else if lower == "packed" {
            found.way = Some(CupWay::Packed);
        } else if lower == "sifted" {
            found.way = Some(CupWay::Sifted);
        } else if lower == "scooped" {
            found.way = Some(CupWay::Scooped);
        } else if matches!(lower.as_str(), "firmly" | "tightly" | "lightly")
            && rest.trim_start().to_lowercase().starts_with("packed")
        {
        } else if lower == "extra" && rest.trim_start_matches([' ', '-']).to_lowercase().starts_with("large") {
            found.size = Some("extra large");
            c.rest = &rest.trim_start_matches([' ', '-'])["large".len()..];
            continue;
        } else if let Some((_, size)) = SIZES.iter().find(|(word, _)| *word == lower) {
            found.size = Some(size);
        } else {
            c.rest = before;
            break;
        }
        c.rest = rest;
    }
    let mut after = *c;
    after.rest = after.rest.trim_start_matches(|ch: char| ch.is_whitespace() || ch == '-');
    let (word, rest) = after.peek_word();
    let settle = |c: &mut Cursor<'_>, rest: &str, measure: Measure| {
        // `rest` is a tail of the same text.
        c.rest = &c.rest[c.rest.len() - rest.len()..];
        c.rest = c.rest.strip_prefix('.').unwrap_or(c.rest);
        let _ = c.eat_word(&["of"]);
        measure
    };
    // Capital T is a tablespoon, small t a teaspoon; c and C are cups.
    match word {
        "T" | "Tb" => return settle(c, rest, Measure::Volume(cups.ml("tbsp").unwrap_or(15.0), "tbsp")),
        "t" => return settle(c, rest, Measure::Volume(cups.ml("tsp").unwrap_or(5.0), "tsp")),
        "c" | "C" => return settle(c, rest, Measure::Volume(cups.ml("cup").unwrap_or(250.0), "cup")),
        _ => {}
    }
    let second = {
        let text = rest.strip_prefix('.').unwrap_or(rest).trim_start();
        let end = text.find(|ch: char| !ch.is_alphabetic()).unwrap_or(text.len());
        (&text[..end], &text[end..])
    };
    let two = format!("{word} {}", second.0);
    // `2 tablespoonful` is two tablespoons.
    let spoon =
        ["fuls", "ful"].iter().find_map(|end| word.strip_suffix(end)).filter(|w| unit(Quantity::Volume, w).is_some());
    let word = spoon.unwrap_or(word);
    for (name, tail) in [(two.as_str(), second.1), (word, rest)] {
        if let Some(u) = unit(Quantity::Mass, name) {
            return settle(c, tail, Measure::Mass(u.factor, u.symbol));
        }
        if let Some(u) = unit(Quantity::Volume, name) {
            let ml =
                if two.to_lowercase().starts_with("us ") { u.factor } else { cups.ml(u.symbol).unwrap_or(u.factor) };
            return settle(c, tail, Measure::Volume(ml, u.symbol));
        }
    }
    let lower = word.to_lowercase();
    let teaspoon = cups.ml("tsp").unwrap_or(5.0);
    // What lies on the tip of a knife: about a pinch or two. Common practice, no source.
    if two.to_lowercase().starts_with("knife tip") || two.to_lowercase().starts_with("knife point") {
        return settle(c, second.1, Measure::Volume(teaspoon / 8.0, "knife tip"));
    }
    match lower.as_str() {
        "stick" | "sticks" => settle(c, rest, Measure::Stick),
        // Common practice, no source: a dash an eighth, a pinch a sixteenth, a smidgen a thirty-second of a teaspoon.
        "dash" | "dashes" => settle(c, rest, Measure::Volume(teaspoon / 8.0, "dash")),
        "pinch" | "pinches" => settle(c, rest, Measure::Volume(teaspoon / 16.0, "pinch")),
        "smidgen" => settle(c, rest, Measure::Volume(teaspoon / 32.0, "smidgen")),
        // Twenty drops to a millilitre: common practice, no source.
        "drop" | "drops" => settle(c, rest, Measure::Volume(0.05, "drop")),
        // `a little bit of`.
        _ if VAGUE.contains(&lower.as_str()) && VAGUE.contains(&second.0.to_lowercase().as_str()) => {
            settle(c, second.1, Measure::Vague(two.to_lowercase()))
        }
        _ if VAGUE.contains(&lower.as_str()) => settle(c, rest, Measure::Vague(lower.clone())),
        _ if CONTAINERS.contains(&lower.as_str()) => settle(c, rest, Measure::Container(lower.clone())),
        _ => Measure::Each,
    }
}

fn one(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Result<Option<Amount>, TwoWays> {
    loop {
        let (word, rest) = c.peek_word();
        match UNSURE.iter().find(|(w, _)| w.eq_ignore_ascii_case(word)) {
            Some((_, how)) => {
                found.unsure.push(how);
                c.rest = rest.strip_prefix('.').unwrap_or(rest);
            }
            None => break,
        }
    }
    if c.eat("~") {
        found.unsure.push("about");
    }
    let Some((low, high)) = range(c)? else {
        // `heaped teaspoon of`, `teaspoon of`: one of it.
        let mut ahead = *c;
        let mut inner = Amounts::default();
        let spoon = measure(&mut ahead, cups, &mut inner);
        let says_of =
            ahead.rest.len() < c.rest.len() && c.rest[..c.rest.len() - ahead.rest.len()].trim_end().ends_with("of");
        if matches!(spoon, Measure::Volume(..) | Measure::Stick) && (says_of || !found.unsure.is_empty()) {
            *c = ahead;
            return Ok(Some(Amount { low: 1.0, high: 1.0, measure: spoon }));
        }
        return Ok(None);
    };
    // `2 x 125 g`: so many times that; `1 x large egg`: the sign says nothing.
    let mut ahead = *c;
    if ahead.eat("\u{d7}") || ahead.eat_word(&["x"]).is_some() {
        *c = ahead;
        if let Some(each) = number(&mut ahead)? {
            let measure = measure(&mut ahead, cups, found);
            if matches!(measure, Measure::Mass(..) | Measure::Volume(..)) {
                *c = ahead;
                return Ok(Some(Amount { low: low * each, high: high * each, measure }));
            }
        }
    }
    let mut ahead = *c;
    // `2 (4-ounce) sticks`, `1 (50 g) egg`: so many of that size.
    if ahead.eat("(") {
        let mut inner = Amounts::default();
        if let Some(size) = one(&mut ahead, cups, &mut inner)?
            && matches!(size.measure, Measure::Mass(..) | Measure::Volume(..))
        {
            let _ = ahead.eat_word(&["each"]);
            if ahead.eat(")") {
                *c = ahead;
                let mut rest = *c;
                let container = matches!(measure(&mut rest, cups, found), Measure::Container(_) | Measure::Stick);
                if container {
                    *c = rest;
                }
                return Ok(Some(Amount { low: low * size.low, high: high * size.high, measure: size.measure }));
            }
        }
    }
    let measure = measure(c, cups, found);
    Ok(Some(Amount { low, high, measure }))
}

/// All amounts at the cursor. `Ok(None)` when there is none; the cursor then has not moved.
pub(super) fn amounts(c: &mut Cursor, cups: CupSystem) -> Result<Option<Amounts>, TwoWays> {
    let start = *c;
    let mut found = Amounts::default();
    let Some(first) = one(c, cups, &mut found)? else {
        // `knob of butter`, `handful of oats`: an amount without number or measure.
        let word = start.peek_word();
        let lower = word.0.to_lowercase();
        if matches!(lower.as_str(), "pinch" | "dash" | "smidgen") || VAGUE.contains(&lower.as_str()) && lower != "touch"
        {
            *c = start;
            let measure = measure(c, cups, &mut found);
            found.parts.push((1.0, Amount { low: 1.0, high: 1.0, measure }));
            return Ok(Some(found));
        }
        *c = start;
        return Ok(None);
    };
    found.parts.push((1.0, first));
    while on_top(c, cups, &mut found)?
        || smaller_unit(c, cups, &mut found)?
        || after_comma(c, cups, &mut found)?
        || another_way(c, cups, &mut found)?
    {}
    let _ = c.eat_word(&["of"]);
    Ok(Some(found))
}

fn measured(amount: &Amount) -> bool {
    matches!(amount.measure, Measure::Mass(..) | Measure::Volume(..) | Measure::Stick)
}

/// `+ 2 tbsp`, `minus 1 tsp`: what comes on top or goes off.
fn on_top(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Result<bool, TwoWays> {
    let mut ahead = *c;
    ahead.skip();
    let sign = if ahead.eat("+") || ahead.eat("&") || ahead.eat_word(&["plus", "and"]).is_some() {
        1.0
    } else if ahead.eat_word(&["minus", "less"]).is_some() {
        -1.0
    } else {
        return Ok(false);
    };
    let Some(next) = one(&mut ahead, cups, found)?.filter(measured) else { return Ok(false) };
    found.parts.push((sign, next));
    *c = ahead;
    Ok(true)
}

/// `1 lb 4 oz`: a smaller unit of the same kind follows at once.
fn smaller_unit(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Result<bool, TwoWays> {
    let Some((_, Amount { measure: Measure::Mass(big, _), .. })) = found.parts.last() else { return Ok(false) };
    let big = *big;
    let mut ahead = *c;
    ahead.skip();
    if ahead.rest.starts_with(|ch: char| ch.is_ascii_digit())
        && let Some(next) = one(&mut ahead, cups, found)?
        && matches!(next.measure, Measure::Mass(small, _) if small < big)
    {
        found.parts.push((1.0, next));
        *c = ahead;
        return Ok(true);
    }
    Ok(false)
}

/// `1 cup, 120 grams of flour`: a weight beside a measure says the same; a smaller measure comes on top.
fn after_comma(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Result<bool, TwoWays> {
    let mut ahead = *c;
    if !ahead.eat(",") {
        return Ok(false);
    }
    ahead.skip();
    let digit = ahead.rest.starts_with(|ch: char| ch.is_ascii_digit() || vulgar(ch).is_some());
    let is_weight = |a: &Amount| matches!(a.measure, Measure::Mass(..));
    if digit
        && let Some(next) = one(&mut ahead, cups, &mut Amounts::default())?.filter(measured)
        && let Some((_, last)) = found.parts.last()
    {
        if is_weight(last) == is_weight(&next) {
            found.parts.push((1.0, next));
        } else {
            found.also.push(next);
        }
        *c = ahead;
        return Ok(true);
    }
    Ok(false)
}

/// `(120 g)`, `/ 4 oz`, `or 1 stick`: the same amount another way.
fn another_way(c: &mut Cursor, cups: CupSystem, found: &mut Amounts) -> Result<bool, TwoWays> {
    let mut ahead = *c;
    let bracket = ahead.eat("(") || ahead.eat("[");
    let other = bracket
        || ahead.eat("/")
        || ahead.eat("|")
        || ahead.eat("=")
        || ahead.eat(", or ")
        || ahead.eat_word(&["or"]).is_some();
    if !other {
        return Ok(false);
    }
    let _ = ahead.eat_word(&["or"]);
    let mut same = Amounts::default();
    let Some(next) = one(&mut ahead, cups, &mut same)?.filter(measured) else { return Ok(false) };
    let mut all = vec![next];
    while ahead.eat("/") || ahead.eat(",") || ahead.eat(";") || ahead.eat_word(&["or"]).is_some() {
        match one(&mut ahead, cups, &mut same)? {
            Some(next) if measured(&next) => all.push(next),
            _ => break,
        }
    }
    let _ = ahead.eat_word(&["each", "total"]);
    if !bracket || ahead.eat(")") || ahead.eat("]") {
        found.also.extend(all);
        *c = ahead;
        return Ok(true);
    }
    Ok(false)
}

impl Amount {
    /// As it is said back.
    pub fn said(&self) -> String {
        let n = |v: f64| {
            let text = format!("{v:.3}");
            text.trim_end_matches('0').trim_end_matches('.').to_owned()
        };
        let count = if self.high > self.low { format!("{} to {}", n(self.low), n(self.high)) } else { n(self.low) };
        match &self.measure {
            Measure::Mass(_, word) | Measure::Volume(_, word) => format!("{count} {word}"),
            Measure::Stick => format!("{count} stick"),
            Measure::Each => count,
            Measure::Container(word) | Measure::Vague(word) => format!("{count} {word}"),
        }
    }
}
