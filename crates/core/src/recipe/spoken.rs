//! Words as they are spoken, made into those that recipes are written in: numbers, halves, and words that were misheard. Each keeps the place in the
//! text it came from.

/// A text of words made plain, with where each of them stood.
pub(super) struct Spoken {
    /// The words, a blank between them.
    pub text: String,
    /// Where a word begins here, and where it began in what was said.
    starts: Vec<(usize, usize)>,
    /// Words that were taken as others: as said, and as taken.
    pub heard: Vec<(String, &'static str)>,
}

impl Spoken {
    /// Where what begins here began in what was said.
    pub fn said_at(&self, at: usize) -> usize {
        self.starts.iter().rev().find(|s| s.0 <= at).map_or(0, |s| s.1)
    }
}

/// A word with the marks round it, and where it stands.
#[derive(Clone, Copy)]
struct Word<'a> {
    /// With its marks.
    whole: &'a str,
    /// Letters, digits and what joins them.
    core: &'a str,
    /// Marks before and after.
    before: &'a str,
    after: &'a str,
    at: usize,
}

/// Words that speech recognition writes for others, where the one before them is among those named (or whatever it is, where none is). Common practice,
/// no source.
const MISHEARD: [(&str, &[&str], &str); 18] = [
    ("flower", &[], "flour"),
    ("flowers", &[], "flour"),
    ("tarter", &[], "tartar"),
    ("yoke", &[], "yolk"),
    ("yokes", &[], "yolks"),
    ("yolk's", &[], "yolks"),
    ("castor", &[], "caster"),
    ("doe", &[], "dough"),
    ("sault", &[], "salt"),
    ("suger", &[], "sugar"),
    ("shuger", &[], "sugar"),
    ("cinnamin", &[], "cinnamon"),
    ("venilla", &[], "vanilla"),
    ("abstract", &["vanilla", "almond", "lemon", "orange"], "extract"),
    ("backing", &[], "baking"),
    ("grahams", &[], "grams"),
    ("leman", &[], "lemon"),
    ("budder", &[], "butter"),
];

const UNITS: [(&str, u32); 19] = [
    ("one", 1),
    ("two", 2),
    ("three", 3),
    ("four", 4),
    ("five", 5),
    ("six", 6),
    ("seven", 7),
    ("eight", 8),
    ("nine", 9),
    ("ten", 10),
    ("eleven", 11),
    ("twelve", 12),
    ("thirteen", 13),
    ("fourteen", 14),
    ("fifteen", 15),
    ("sixteen", 16),
    ("seventeen", 17),
    ("eighteen", 18),
    ("nineteen", 19),
];
const TENS: [(&str, u32); 8] = [
    ("twenty", 20),
    ("thirty", 30),
    ("forty", 40),
    ("fifty", 50),
    ("sixty", 60),
    ("seventy", 70),
    ("eighty", 80),
    ("ninety", 90),
];
/// What may be had one and a half times.
const MEASURES: [&str; 17] = [
    "cup",
    "cups",
    "stick",
    "sticks",
    "teaspoon",
    "teaspoons",
    "tablespoon",
    "tablespoons",
    "pound",
    "pounds",
    "ounce",
    "ounces",
    "pint",
    "hour",
    "hours",
    "inch",
    "inches",
];
const PARTS: [(&str, &str); 6] =
    [("half", "1/2"), ("third", "1/3"), ("quarter", "1/4"), ("fourth", "1/4"), ("eighth", "1/8"), ("thirds", "2/3")];

/// The words of a text made plain.
pub(super) fn spoken(text: &str) -> Spoken {
    let words = words_of(text);
    let mut out = Spoken { text: String::with_capacity(text.len()), starts: vec![], heard: vec![] };
    let mut i = 0;
    while i < words.len() {
        let (said, taken) = plain(&words[i..], (i > 0).then(|| words[i - 1].core), &mut out.heard)
            .unwrap_or_else(|| (words[i].whole.to_owned(), 1));
        if !out.text.is_empty() {
            out.text.push(' ');
        }
        out.starts.push((out.text.len(), words[i].at));
        out.text.push_str(&said);
        i += taken;
    }
    out
}

fn words_of(text: &str) -> Vec<Word<'_>> {
    let mut found = vec![];
    let mut at = 0;
    for whole in text.split_whitespace() {
        let start = at + text[at..].find(whole).unwrap_or(0);
        at = start + whole.len();
        let is_core = |c: char| c.is_alphanumeric();
        let from = whole.find(is_core).unwrap_or(whole.len());
        let to = whole.rfind(is_core).map_or(from, |i| i + whole[i..].chars().next().map_or(1, char::len_utf8));
        found.push(Word { whole, core: &whole[from..to], before: &whole[..from], after: &whole[to..], at: start });
    }
    found
}

fn is(word: Option<&Word>, said: &str) -> bool {
    word.is_some_and(|w| w.core.eq_ignore_ascii_case(said))
}

/// Whether nothing parts a word from the next.
fn runs_on(word: &Word) -> bool {
    word.after.is_empty()
}

/// What the words begin with made plain, and how many of them that took; nothing where they are plain.
fn plain(words: &[Word], last: Option<&str>, heard: &mut Vec<(String, &'static str)>) -> Option<(String, usize)> {
    let first = words.first()?;
    let (second, third) = (words.get(1), words.get(2));
    let with_marks =
        |said: &str, taken: usize| Some((format!("{}{said}{}", first.before, words[taken - 1].after), taken));
    if first.core.is_empty() {
        return None;
    }
    if is(Some(first), "half") && is(second, "a") && is(third, "dozen") {
        return with_marks("6", 3);
    }
    if is(Some(first), "half") && is(second, "dozen") {
        return with_marks("6", 2);
    }
    // `a couple of eggs`, `a couple tablespoons`.
    let couple = usize::from(is(Some(first), "a"));
    if is(words.get(couple), "couple") && words[..couple].iter().all(runs_on) {
        let of = usize::from(is(words.get(couple + 1), "of") && runs_on(&words[couple]));
        return with_marks("2", couple + 1 + of);
    }
    if let Some(found) = hours(words) {
        return with_marks(&found.0, found.1);
    }
    if let Some((said, taken)) = and_a_half(words) {
        return with_marks(&said, taken);
    }
    for (unit, whole) in [("table", "tablespoon"), ("tea", "teaspoon")] {
        if is(Some(first), unit) && runs_on(first) && (is(second, "spoon") || is(second, "spoons")) {
            return with_marks(whole, 2);
        }
    }
    let misheard = MISHEARD.iter().find(|m| {
        first.core.eq_ignore_ascii_case(m.0)
            && (m.1.is_empty() || last.is_some_and(|l| m.1.iter().any(|w| w.eq_ignore_ascii_case(l))))
    });
    if let Some((_, _, is)) = misheard {
        if !heard.iter().any(|h| h.1 == *is) {
            heard.push((first.core.to_lowercase(), is));
        }
        return with_marks(is, 1);
    }
    let (value, taken) = whole_number(words)?;
    (value >= 13 || taken > 1).then(|| with_marks(&value.to_string(), taken))?
}

/// `half an hour`, `a quarter of an hour`, `an hour`.
fn hours(words: &[Word]) -> Option<(String, usize)> {
    const SAID: [(&[&str], &str); 7] = [
        (&["half", "an", "hour"], "30 minutes"),
        (&["a", "half", "an", "hour"], "30 minutes"),
        (&["a", "half", "hour"], "30 minutes"),
        (&["half", "hour"], "30 minutes"),
        (&["a", "quarter", "of", "an", "hour"], "15 minutes"),
        (&["three", "quarters", "of", "an", "hour"], "45 minutes"),
        (&["an", "hour", "and", "a", "half"], "90 minutes"),
    ];
    let found = SAID.iter().find(|(said, _)| {
        said.len() <= words.len()
            && said.iter().zip(words).all(|(s, w)| w.core.eq_ignore_ascii_case(s))
            && words[..said.len() - 1].iter().all(runs_on)
    })?;
    Some((found.1.to_owned(), found.0.len()))
}

/// `a cup and a half`, `two cups and three quarters`: the measure behind the number.
fn and_a_half(words: &[Word]) -> Option<(String, usize)> {
    let number = words.first()?;
    let of = words.get(1).filter(|m| MEASURES.iter().any(|w| m.core.eq_ignore_ascii_case(w)))?;
    let count = match number.core.to_lowercase().as_str() {
        "a" | "an" => 1,
        digits if digits.bytes().all(|b| b.is_ascii_digit()) => digits.parse().ok()?,
        word => UNITS.iter().find(|u| u.0 == word)?.1,
    };
    if !runs_on(number) || !runs_on(of) || !is(words.get(2), "and") {
        return None;
    }
    let (times, at) = match words.get(3)?.core.to_lowercase().as_str() {
        "a" | "one" => (1, 4),
        "two" => (2, 4),
        "three" => (3, 4),
        _ => (1, 3),
    };
    let part = words.get(at).and_then(|w| {
        let word = w.core.to_lowercase();
        let word = word.strip_suffix('s').unwrap_or(&word);
        PARTS.iter().find(|p| p.0 == word).map(|p| p.1)
    })?;
    // What follows the part is no measure of its own: `a cup and a half cup` is another thing.
    if words.get(at + 1).is_some_and(|w| MEASURES.iter().any(|m| w.core.eq_ignore_ascii_case(m))) {
        return None;
    }
    let part = part.replacen('1', &times.to_string(), 1);
    Some((format!("{count} {part} {}", of.core), at + 1))
}

/// A whole number in words: `twenty-five`, `two hundred and twenty five`, `three fifty`.
fn whole_number(words: &[Word]) -> Option<(u32, usize)> {
    let small = |word: &str| {
        let word = word.to_lowercase();
        let (tens, unit) = word.split_once('-').unwrap_or((&word, ""));
        let of = |w: &str| UNITS.iter().find(|u| u.0 == w).map(|u| u.1);
        match (TENS.iter().find(|t| t.0 == tens).map(|t| t.1), of(unit)) {
            (Some(t), Some(u)) if u < 10 => Some(t + u),
            (Some(t), None) if unit.is_empty() => Some(t),
            (None, None) if unit.is_empty() => of(tens),
            _ => None,
        }
    };
    // Below a hundred from a place on, and how many words that takes.
    let below_hundred = |at: usize| -> Option<(u32, usize)> {
        let word = words.get(at)?;
        let value = small(word.core)?;
        let next = words.get(at + 1).filter(|_| runs_on(word) && value >= 20 && value % 10 == 0);
        match next.and_then(|n| small(n.core)).filter(|u| *u < 10) {
            Some(unit) => Some((value + unit, 2)),
            None => Some((value, 1)),
        }
    };
    let (mut value, mut taken) =
        if is(words.first(), "a") && is(words.get(1), "hundred") { (1, 1) } else { below_hundred(0)? };
    if value < 10 && taken == 1 && runs_on(&words[0]) {
        if is(words.get(1), "hundred") {
            (value, taken) = (value * 100, 2);
            let and = usize::from(is(words.get(2), "and"));
            if words[1..2 + and].iter().all(runs_on)
                && let Some((rest, more)) = below_hundred(2 + and)
                // `a hundred and two cups`: no, that is another number only where it is of tens or joined by `and`.
                && (and == 1 && rest >= 10 || and == 0)
            {
                (value, taken) = (value + rest, 2 + and + more);
            }
        } else if let Some((rest, more)) = below_hundred(1)
            && rest >= 20
        {
            // `three fifty`, `one seventy-five`.
            (value, taken) = (value * 100 + rest, 1 + more);
        }
    }
    Some((value, taken))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("a couple of eggs", "2 eggs")]
    #[case("half a dozen yolks, please", "6 yolks, please")]
    #[case("two hundred and twenty-five grams", "225 grams")]
    #[case("two hundred twenty five grams", "225 grams")]
    #[case("a hundred grams of sugar", "100 grams of sugar")]
    #[case("at three fifty for eight minutes", "at 350 for eight minutes")]
    #[case("three seventy-five.", "375.")]
    #[case("a cup and a half of flower", "1 1/2 cup of flour")]
    #[case("two cups and three quarters", "2 3/4 cups")]
    #[case("half an hour, then an hour and a half", "30 minutes, then 90 minutes")]
    #[case("one table spoon of vanilla abstract", "one tablespoon of vanilla extract")]
    #[case("an abstract thought", "an abstract thought")]
    #[case("two eggs and three yokes", "two eggs and three yolks")]
    #[case("twenty four gulls", "24 gulls")]
    #[case("2 1/4 cups flour", "2 1/4 cups flour")]
    fn speech_becomes_what_recipes_are_written_in(#[case] said: &str, #[case] plain: &str) {
        assert_eq!(spoken(said).text, plain);
    }

    #[test]
    fn each_word_knows_where_it_was_said() {
        let said = "So, two hundred and fifty grams flower";
        let plain = spoken(said);
        assert_eq!(plain.text, "So, 250 grams flour");
        let at = |word: &str| &said[plain.said_at(plain.text.find(word).unwrap())..];
        assert!(at("250").starts_with("two hundred") && at("grams").starts_with("grams") && at("flour") == "flower");
        assert_eq!(plain.heard, [("flower".to_owned(), "flour")]);
    }
}
