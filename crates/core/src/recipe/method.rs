//! The method of a recipe, read for what a job needs of it: how it is mixed, how long chilled, how thick rolled, how hot and how long baked, how many it
//! makes. What it does not say stays unsaid.

use super::spoken::spoken;
use super::yields::pieces_of;
use crate::dough::{MixMethod, RecipeSays};
use crate::units::{leading_number, vulgar};

/// A figure of the method and the words it was read from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Heard {
    /// Which of what a recipe says: `method`, `chill_min`, `thickness_mm`, `oven_c`, `bake_min`, `pieces`.
    pub of: &'static str,
    /// As it stands there.
    pub words: String,
}

/// The method of a recipe as read.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct ReadMethod {
    /// What it says.
    pub says: RecipeSays,
    /// By what words.
    pub heard: Vec<Heard>,
}

/// Nothing behind this is read, bytes. Our own choice.
const MOST_BYTES: usize = 40_000;
/// Of the words before and behind a time, those that say what takes it.
const NEAR_BEFORE: usize = 12;
const NEAR_AFTER: usize = 7;

const BAKES: [&str; 5] = ["bake", "baked", "baking", "bakes", "oven"];
const CHILLS: [&str; 14] = [
    "chill",
    "chilled",
    "chilling",
    "chills",
    "fridge",
    "refrigerate",
    "refrigerated",
    "refrigerator",
    "freeze",
    "freezer",
    "cold",
    "icebox",
    "rest",
    "firm",
];
/// Where time is spent.
const PLACES: [&str; 5] = ["oven", "fridge", "refrigerator", "freezer", "icebox"];
/// What else takes minutes.
const ELSE: [&str; 18] = [
    "cream", "creaming", "beat", "beating", "mix", "mixing", "mixer", "pulse", "whisk", "cool", "cooling", "rack",
    "soften", "melt", "toast", "stand", "knead", "counter",
];

/// Settings of a gas oven and what they are, °C. Common practice, no source.
const GAS: [(f64, f64); 7] =
    [(1.0, 140.0), (2.0, 150.0), (3.0, 165.0), (4.0, 180.0), (5.0, 190.0), (6.0, 200.0), (7.0, 220.0)];

/// A word of a sentence in small letters, without the marks round it, and where it stands.
struct Word<'a> {
    said: &'a str,
    at: usize,
}

/// What a text says of its method.
pub(super) fn method(text: &str) -> ReadMethod {
    let end = (0..=text.len().min(MOST_BYTES)).rfind(|&i| text.is_char_boundary(i)).unwrap_or(0);
    let plain = spoken(&text[..end]).text.to_lowercase();
    let mut found = ReadMethod::default();
    let mut baked = false;
    for sentence in sentences(&plain) {
        found.read(sentence, &mut baked);
    }
    found
}

/// The sentences of a text; a point between figures ends none.
fn sentences(text: &str) -> Vec<&str> {
    let mut found = vec![];
    let mut from = 0;
    let marks: Vec<(usize, char)> = text.char_indices().collect();
    for (n, (i, c)) in marks.iter().enumerate() {
        let next = marks.get(n + 1).map(|m| m.1);
        if matches!(c, '.' | '!' | '?' | ';') && next.is_none_or(|c| c == ' ' || c == '\n') {
            found.push(text[from..*i].trim());
            from = i + 1;
        }
    }
    found.push(text[from..].trim());
    found.into_iter().filter(|s| !s.is_empty()).collect()
}

fn words_of(sentence: &str) -> Vec<Word<'_>> {
    let mut found = vec![];
    let mut at = 0;
    for whole in sentence.split(|c: char| c.is_whitespace() || matches!(c, ',' | '(' | ')' | ':')) {
        if !whole.is_empty() {
            found.push(Word { said: whole.trim_matches(|c: char| !c.is_alphanumeric()), at });
        }
        at += whole.len() + 1;
    }
    found
}

/// Two numbers or one at the beginning of a text, and what follows: `8-10`, `8 to 10`, `1/4`.
fn numbers(text: &str) -> Option<(f64, f64, &str)> {
    let (low, rest) = number(text)?;
    let joint = rest.trim_start();
    let ahead = ["-", "\u{2013}", "\u{2014}", "to ", "or "].iter().find_map(|j| joint.strip_prefix(j));
    if let Some((high, after)) = ahead.and_then(|a| number(a.trim_start()))
        && high > low
    {
        return Some((low, high, after));
    }
    Some((low, low, rest))
}

/// A number in figures, or one of the small ones in words.
fn number(text: &str) -> Option<(f64, &str)> {
    if text.starts_with(|c: char| c.is_ascii_digit() || vulgar(c).is_some()) {
        return leading_number(text);
    }
    const WORDS: [(&str, f64); 20] = [
        ("three eighth", 0.375),
        ("an eighth", 0.125),
        ("eighth", 0.125),
        ("an ", 1.0),
        ("a quarter", 0.25),
        ("a half", 0.5),
        ("half a", 0.5),
        ("half", 0.5),
        ("quarter", 0.25),
        ("three quarter", 0.75),
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
    ];
    const MORE: [(&str, f64); 3] = [("eleven", 11.0), ("twelve", 12.0), ("a ", 1.0)];
    let word = WORDS.iter().chain(&MORE).find(|(w, _)| {
        text.strip_prefix(w)
            .is_some_and(|rest| w.ends_with(' ') || !rest.starts_with(char::is_alphabetic) || rest.starts_with('s'))
    })?;
    let rest = &text[word.0.trim_end().len()..];
    Some((word.1, rest.strip_prefix('s').unwrap_or(rest)))
}

/// The first word behind a number.
fn unit_of(rest: &str) -> &str {
    let rest = rest.trim_start_matches([' ', '-', '\u{2011}']);
    &rest[..rest.find(|c: char| !c.is_alphabetic() && c != '"').unwrap_or(rest.len())]
}

fn minutes_of(unit: &str) -> Option<f64> {
    match unit {
        "min" | "mins" | "minute" | "minutes" => Some(1.0),
        "h" | "hr" | "hrs" | "hour" | "hours" => Some(60.0),
        "day" | "days" => Some(1_440.0),
        _ => None,
    }
}

impl ReadMethod {
    fn heard(&mut self, of: &'static str, words: &str) {
        let words: String = words.trim().chars().take(80).collect();
        self.heard.push(Heard { of, words });
    }

    fn read(&mut self, sentence: &str, baked: &mut bool) {
        let words = words_of(sentence);
        if self.says.method.is_none()
            && let Some(method) = mixed(sentence, &words)
        {
            self.says.method = Some(method);
            self.heard("method", sentence);
        }
        self.times(sentence, &words, baked);
        if self.says.thickness.is_none()
            && let Some(mm) = thickness(sentence, &words)
        {
            self.says.thickness = Some(mm);
            self.heard("thickness_mm", sentence);
        }
        if self.says.oven.is_none()
            && let Some(c) = oven(sentence, &words)
        {
            self.says.oven = Some(c);
            self.heard("oven_c", sentence);
        }
        if self.says.pieces.is_none()
            && let Some(pieces) = makes(sentence, &words)
        {
            self.says.pieces = Some(pieces);
            self.heard("pieces", sentence);
        }
    }

    /// Times of the cold and of the oven; the first of each counts.
    fn times(&mut self, sentence: &str, words: &[Word], baked: &mut bool) {
        let mut last_end = 0;
        for (i, word) in words.iter().enumerate() {
            if word.at < last_end {
                continue;
            }
            let (low, high) = if word.said == "overnight" {
                (480.0, 720.0)
            } else {
                let text = &sentence[word.at..];
                let text = text.trim_start_matches(|c: char| !c.is_alphanumeric());
                let Some((low, high, rest)) = numbers(text) else { continue };
                let Some(minutes) = minutes_of(unit_of(rest)) else { continue };
                last_end = sentence.len() - rest.len();
                (low * minutes, high * minutes)
            };
            match takes(words, i) {
                Some(Takes::Baking) if self.says.bake.is_none() && (3.0..=90.0).contains(&high) => {
                    self.says.bake = Some((low, high));
                    *baked = true;
                    self.heard("bake_min", sentence);
                }
                // What is chilled after it was baked is no dough.
                Some(Takes::Chilling) if self.says.chill.is_none() && !*baked && (5.0..=10_000.0).contains(&high) => {
                    self.says.chill = Some((low, high));
                    self.heard("chill_min", sentence);
                }
                _ => {}
            }
        }
    }
}

#[derive(Clone, Copy, PartialEq)]
enum Takes {
    Baking,
    Chilling,
    Other,
}

/// What a time at a word is of: the nearest word that says so, one before it first.
fn takes(words: &[Word], at: usize) -> Option<Takes> {
    let of = |w: &Word| match w.said {
        w if BAKES.contains(&w) => Some(Takes::Baking),
        w if CHILLS.contains(&w) => Some(Takes::Chilling),
        w if ELSE.contains(&w) => Some(Takes::Other),
        _ => None,
    };
    let near = |(n, w): (usize, &Word)| of(w).map(|found| (n, found));
    let before = words[at.saturating_sub(NEAR_BEFORE)..at].iter().rev().enumerate().find_map(near);
    // Behind a time only where it is spent says so: `in the oven`; `before baking` does not.
    let place = |(_, w): &(usize, &Word)| PLACES.contains(&w.said);
    let after = words.get(at + 1..).unwrap_or_default().iter().take(NEAR_AFTER).enumerate().find(place).and_then(near);
    match (before, after) {
        (Some(before), Some(after)) if after.0 < before.0 => Some(after.1),
        (before, after) => before.or(after).map(|found| found.1),
    }
}

/// How the dough is mixed.
fn mixed(sentence: &str, words: &[Word]) -> Option<MixMethod> {
    let says = |w: &str| sentence.contains(w);
    let has = |all: &[&str]| words.iter().any(|w| all.contains(&w.said));
    let butter = has(&["butter", "fat", "shortening", "margarine", "lard"]);
    if says("food processor") || has(&["pulse", "pulsed", "pulsing"]) {
        return Some(MixMethod::Pulsed);
    }
    if butter
        && (has(&["rub", "rubbed", "rubbing", "fingertips"])
            || says("cut in ")
            || says("cut the") && says("into the flour"))
        || says("pastry blender")
        || says("pastry cutter")
    {
        return Some(MixMethod::RubbedIn);
    }
    let creams = has(&["cream", "creamed", "creaming", "beat", "beaten", "mix", "mixed"])
        && (butter || has(&["sugar", "it", "them"]));
    let airy = ["fluffy", "light and", "pale and"].iter().find_map(|w| sentence.find(w));
    if let Some(at) = airy {
        let before = words_of(&sentence[..at]);
        let near = &before[before.len().saturating_sub(5)..];
        let not = near.iter().any(|w| {
            matches!(w.said, "not" | "never" | "no") || w.said.ends_with("n't") || w.said.ends_with("n\u{2019}t")
        });
        return Some(if not { MixMethod::JustCombined } else { MixMethod::LightAndFluffy });
    }
    let just = [
        "just combined",
        "until combined",
        "just until",
        "until smooth",
        "come together",
        "comes together",
        "until blended",
    ];
    (creams && just.iter().any(|w| says(w))).then_some(MixMethod::JustCombined)
}

/// How thick it is rolled or sliced, mm.
fn thickness(sentence: &str, words: &[Word]) -> Option<f64> {
    let rolls = words.iter().any(|w| {
        matches!(
            w.said,
            "roll" | "rolled" | "rolling" | "slice" | "sliced" | "slices" | "slicing" | "thick" | "thickness" | "pat"
        )
    });
    if !rolls {
        return None;
    }
    for word in words {
        let text = sentence[word.at..].trim_start_matches(|c: char| !c.is_alphanumeric());
        let Some((low, high, rest)) = numbers(text) else { continue };
        let unit = unit_of(rest);
        let mm = match unit {
            "inch" | "inches" | "in" | "\"" => 25.4,
            "mm" | "millimeter" | "millimeters" | "millimetre" | "millimetres" => 1.0,
            "cm" | "centimeter" | "centimeters" | "centimetre" | "centimetres" => 10.0,
            // `a quarter of an inch`.
            "of" if rest.trim_start().starts_with("of an inch") => 25.4,
            "of" if rest.trim_start().starts_with("of a centimet") => 10.0,
            _ => continue,
        };
        let tail: Vec<&str> = rest.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).take(5).collect();
        let other =
            ["across", "wide", "long", "apart", "diameter", "square", "cutter", "round", "log", "logs", "around"];
        let thick = tail.contains(&"thick") || tail.contains(&"thickness");
        if !thick && tail.iter().any(|w| other.contains(w)) {
            continue;
        }
        let found = (f64::midpoint(low, high) * mm * 10.0).round() / 10.0;
        if (2.0..=25.0).contains(&found) {
            return Some(found);
        }
    }
    None
}

/// What the oven is set to, °C.
fn oven(sentence: &str, words: &[Word]) -> Option<f64> {
    let speaks = words.iter().any(|w| {
        BAKES.contains(&w.said)
            || matches!(w.said, "preheat" | "preheated" | "heat" | "degrees" | "fahrenheit" | "celsius" | "gas")
    });
    if !speaks {
        return None;
    }
    if let Some(at) = sentence.find("gas mark ")
        && !sentence.contains('\u{b0}')
        && let Some((mark, _)) = number(&sentence[at + 9..])
    {
        return GAS.iter().find(|g| g.0 == mark).map(|g| g.1);
    }
    for word in words {
        let text = sentence[word.at..].trim_start_matches(|c: char| !c.is_alphanumeric());
        let Some((value, _, rest)) = numbers(text).filter(|_| text.starts_with(|c: char| c.is_ascii_digit())) else {
            continue;
        };
        let rest = rest.trim_start();
        let degrees = rest.starts_with('\u{b0}') || rest.starts_with('\u{ba}') || rest.starts_with("degree");
        let tail = rest.trim_start_matches(['\u{b0}', '\u{ba}', ' ']);
        let tail = tail.strip_prefix("degrees").or_else(|| tail.strip_prefix("degree")).unwrap_or(tail).trim_start();
        let unit = unit_of(tail);
        let before = word.at.checked_sub(1).map_or("", |end| sentence[..end].trim_end());
        let at = ["at", "to", "oven", "about"].iter().any(|w| before.ends_with(w));
        let celsius = match unit {
            "f" | "fahrenheit" => (value - 32.0) / 1.8,
            "c" | "celsius" | "centigrade" => value,
            _ if minutes_of(unit).is_some() || matches!(unit, "g" | "grams" | "gram" | "ml") => continue,
            _ if (degrees || at) && value >= 250.0 => (value - 32.0) / 1.8,
            _ if degrees || at => value,
            _ => continue,
        };
        if (100.0..=260.0).contains(&celsius) {
            return Some(celsius.round());
        }
    }
    None
}

/// How many it makes.
fn makes(sentence: &str, words: &[Word]) -> Option<u32> {
    let at =
        words.iter().position(|w| matches!(w.said, "makes" | "make" | "yields" | "yield" | "get" | "gives" | "got"))?;
    let counted = [
        "dozen",
        "cookies",
        "cookie",
        "pieces",
        "biscuits",
        "gulls",
        "stars",
        "fish",
        "anchors",
        "boats",
        "sailboats",
        "buoys",
        "rounds",
        "slices",
        "hearts",
    ];
    let rest = &words[at + 1..];
    let of = rest.iter().take(8).position(|w| counted.contains(&w.said))?;
    let from = rest[0].at;
    let said = &sentence[from..(rest[of].at + rest[of].said.len()).min(sentence.len())];
    let said = said.replace("a dozen", "1 dozen").replace("one dozen", "1 dozen");
    let figures = words_of(&said)
        .iter()
        .map(|w| number(w.said).map_or_else(|| w.said.to_owned(), |n| n.0.to_string()))
        .collect::<Vec<_>>();
    pieces_of(&figures.join(" "))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Cream the butter and sugar until light and fluffy.", Some(MixMethod::LightAndFluffy))]
    #[case("Beat the butter and sugar just until combined.", Some(MixMethod::JustCombined))]
    #[case("You don't want it fluffy, just mix it together.", Some(MixMethod::JustCombined))]
    #[case("Rub the butter into the flour with your fingertips.", Some(MixMethod::RubbedIn))]
    #[case("Pulse the flour and cold butter in a food processor.", Some(MixMethod::Pulsed))]
    #[case("Stir in the nuts.", None)]
    fn mixing_is_read(#[case] text: &str, #[case] way: Option<MixMethod>) {
        assert_eq!(method(text).says.method, way, "{text}");
    }

    #[rstest]
    #[case("Chill 1 hour.", Some((60.0, 60.0)), None)]
    #[case("Wrap it and put it in the fridge for half an hour.", Some((30.0, 30.0)), None)]
    #[case("Refrigerate for at least 2 hours or overnight.", Some((120.0, 120.0)), None)]
    #[case("Leave it in the refrigerator overnight.", Some((480.0, 720.0)), None)]
    #[case("Bake at 350 for 8-10 minutes.", None, Some((8.0, 10.0)))]
    #[case("Bake 10 to 12 minutes. Cool on the tray for 5 minutes.", None, Some((10.0, 12.0)))]
    #[case("Beat for 3 minutes, then chill for 45 minutes.", Some((45.0, 45.0)), None)]
    #[case("They need twelve minutes in the oven.", None, Some((12.0, 12.0)))]
    #[case("Freeze the tray 10 minutes, then bake about 9 min.", Some((10.0, 10.0)), Some((9.0, 9.0)))]
    fn times_are_read(#[case] text: &str, #[case] chill: Option<(f64, f64)>, #[case] bake: Option<(f64, f64)>) {
        let says = method(text).says;
        assert_eq!((says.chill, says.bake), (chill, bake), "{text}");
    }

    #[rstest]
    #[case("Roll 1/4 inch thick.", Some(6.4))]
    #[case("Roll it out to a quarter inch, cut with a 2-inch cutter.", Some(6.4))]
    #[case("Roll to \u{bc}-inch thickness", Some(6.4))]
    #[case("Slice 7 mm thick", Some(7.0))]
    #[case("roll half a centimeter thick", Some(5.0))]
    #[case("Roll into a log 2 inches across", None)]
    #[case("Place 1 inch apart", None)]
    fn thickness_is_read(#[case] text: &str, #[case] mm: Option<f64>) {
        assert_eq!(method(text).says.thickness, mm, "{text}");
    }

    #[rstest]
    #[case("Preheat the oven to 350\u{b0}F (177\u{b0}C).", Some(177.0))]
    #[case("Heat the oven to 180C/160C fan/gas mark 4.", Some(180.0))]
    #[case("bake at three seventy-five for eight minutes", Some(191.0))]
    #[case("Bake at 325 degrees", Some(163.0))]
    #[case("Heat oven to gas mark 4", Some(180.0))]
    #[case("Add 250 g flour", None)]
    fn the_oven_is_read(#[case] text: &str, #[case] c: Option<f64>) {
        assert_eq!(method(text).says.oven, c, "{text}");
    }

    #[rstest]
    #[case("This makes about 3 dozen.", Some(36))]
    #[case("I get about two dozen gulls out of it.", Some(24))]
    #[case("It makes 30 cookies", Some(30))]
    #[case("That makes it tender.", None)]
    fn how_many_is_read(#[case] text: &str, #[case] pieces: Option<u32>) {
        assert_eq!(method(text).says.pieces, pieces, "{text}");
    }
}
