//! Words of a recipe: made comparable, and sorted into those that name an ingredient and those that only describe it.

/// Words of a text in lower case and singular, without accents and apostrophes.
pub(super) fn tokens(text: &str) -> Vec<String> {
    let mut found = Vec::new();
    let mut word = String::new();
    for c in text.chars().flat_map(char::to_lowercase) {
        let c = folded(c);
        if c.is_alphanumeric() {
            word.push(c);
        } else if matches!(c, '\'' | '\u{2019}' | '`') {
            // confectioners' and baker's
        } else if !word.is_empty() {
            found.push(singular(&word));
            word.clear();
        }
    }
    if !word.is_empty() {
        found.push(singular(&word));
    }
    found
}

fn folded(c: char) -> char {
    match c {
        '\u{e0}'..='\u{e5}' => 'a',
        '\u{e7}' => 'c',
        '\u{e8}'..='\u{eb}' => 'e',
        '\u{ec}'..='\u{ef}' => 'i',
        '\u{f1}' => 'n',
        '\u{f2}'..='\u{f6}' => 'o',
        '\u{f9}'..='\u{fc}' => 'u',
        other => other,
    }
}

/// A word in the singular. Right for the words of a kitchen; for others it only has to be the same each time.
fn singular(word: &str) -> String {
    let stem = |cut: usize, end: &str| format!("{}{end}", &word[..word.len() - cut]);
    let n = word.len();
    if word == "zested" {
        return "zest".to_owned();
    }
    if word == "juiced" {
        return "juice".to_owned();
    }
    if !word.is_ascii() || n < 4 {
        word.to_owned()
    } else if word.ends_with("ies") && n > 4 {
        stem(3, "y")
    } else if word.ends_with("shes") || word.ends_with("ches") || word.ends_with("xes") || word.ends_with("sses") {
        stem(2, "")
    } else if word.ends_with('s') && !word.ends_with("ss") && !word.ends_with("us") && !word.ends_with("is") {
        stem(1, "")
    } else {
        word.to_owned()
    }
}

/// Words that say how an ingredient is, not what it is (in the singular).
const DESCRIBES: &[&str] = &[
    "a",
    "about",
    "additional",
    "all",
    "an",
    "and",
    "approximately",
    "approx",
    "as",
    "at",
    "beaten",
    "best",
    "big",
    "bleached",
    "block",
    "brand",
    "ca",
    "chilled",
    "chopped",
    "chunk",
    "circa",
    "clean",
    "coarsely",
    "cold",
    "cool",
    "cooled",
    "crushed",
    "cube",
    "cubed",
    "cultured",
    "cut",
    "dice",
    "diced",
    "divided",
    "each",
    "excellent",
    "extra",
    "favorite",
    "favourite",
    "european",
    "style",
    "filtered",
    "fine",
    "finely",
    "firm",
    "firmly",
    "for",
    "fresh",
    "freshly",
    "from",
    "full",
    "generous",
    "good",
    "grade",
    "grated",
    "ground",
    "heaped",
    "heaping",
    "homemade",
    "if",
    "in",
    "inch",
    "into",
    "is",
    "large",
    "level",
    "leveled",
    "levelled",
    "lightly",
    "local",
    "lukewarm",
    "medium",
    "melted",
    "minced",
    "more",
    "natural",
    "needed",
    "neutral",
    "of",
    "one",
    "optional",
    "organic",
    "over",
    "packed",
    "pasteurized",
    "pasteurised",
    "piece",
    "plain",
    "plus",
    "preferably",
    "pure",
    "quality",
    "real",
    "refined",
    "regular",
    "room",
    "roughly",
    "rounded",
    "scant",
    "scooped",
    "separated",
    "sifted",
    "slice",
    "sliced",
    "slightly",
    "slivered",
    "small",
    "smashed",
    "soft",
    "softened",
    "spooned",
    "standard",
    "store",
    "temp",
    "temperature",
    "the",
    "then",
    "tightly",
    "to",
    "toasted",
    "total",
    "unbleached",
    "very",
    "warm",
    "weighed",
    "well",
    "whisked",
    "whole",
    "with",
    "your",
    "free",
    "range",
    "stick",
    "fridge",
    "straight",
    "kept",
    "bought",
    "freezer",
    "frozen",
    "thawed",
    "not",
    "roasted",
    "blanched",
    "peeled",
    "skinned",
    "shelled",
    "halved",
    "broken",
    "squeezed",
    "strained",
    "stirred",
];

/// Whether a word only describes.
pub(super) fn describes(word: &str) -> bool {
    DESCRIBES.contains(&word) || word.chars().all(|c| c.is_ascii_digit())
}

/// First words of sentences that tell what to do, not what to take.
const DOES: &[&str] = &[
    "add",
    "arrange",
    "bake",
    "beat",
    "blend",
    "bring",
    "chill",
    "combine",
    "cool",
    "cover",
    "cream",
    "cut",
    "divide",
    "dust",
    "fold",
    "form",
    "gather",
    "heat",
    "knead",
    "leave",
    "let",
    "line",
    "make",
    "mix",
    "place",
    "position",
    "pour",
    "preheat",
    "press",
    "pulse",
    "put",
    "reduce",
    "refrigerate",
    "remove",
    "repeat",
    "rest",
    "roll",
    "rub",
    "scrape",
    "set",
    "shape",
    "sift",
    "slice",
    "spread",
    "sprinkle",
    "stir",
    "store",
    "transfer",
    "turn",
    "use",
    "whisk",
    "wrap",
    "once",
    "when",
    "while",
    "after",
    "meanwhile",
    "using",
    "in",
];

/// Whether a line begins as an instruction.
pub(super) fn instructs(words: &[String]) -> bool {
    let number = words.get(1).is_some_and(|w| w.starts_with(|c: char| c.is_ascii_digit()));
    words.len() >= 3 && !number && words.first().is_some_and(|w| DOES.contains(&w.as_str()))
}

/// What a number can measure besides food: a size, a heat, a time.
const NO_FOOD: [&str; 21] = [
    "inch",
    "cm",
    "mm",
    "degree",
    "fahrenheit",
    "celsius",
    "c",
    "f",
    "minute",
    "min",
    "hour",
    "hr",
    "day",
    "week",
    "sheet",
    "tray",
    "batch",
    "cookie",
    "biscuit",
    "piece",
    "portion",
];

/// Whether a line without a known food tells a size, a heat or a time.
pub(super) fn measures_no_food(words: &[String]) -> bool {
    words.iter().any(|w| NO_FOOD.contains(&w.as_str()))
}

/// Lines that end the list of ingredients.
pub(super) fn heads_method(line: &str) -> bool {
    let words = tokens(line.trim_end_matches([':', '.']));
    words.len() <= 3
        && words.first().is_some_and(|w| {
            matches!(
                w.as_str(),
                "method"
                    | "direction"
                    | "instruction"
                    | "preparation"
                    | "step"
                    | "procedure"
                    | "note"
                    | "tip"
                    | "nutrition"
            )
        })
}

/// Lines that begin the list of ingredients.
pub(super) fn heads_ingredients(line: &str) -> bool {
    let words = tokens(line.trim_end_matches([':', '.']));
    words.len() <= 2 && words.first().is_some_and(|w| matches!(w.as_str(), "ingredient" | "you" | "what"))
}

/// Whether a section's heading says that it is not the dough.
pub(super) fn not_the_dough(heading: &str) -> bool {
    tokens(heading).iter().any(|w| {
        matches!(
            w.as_str(),
            "icing"
                | "glaze"
                | "frosting"
                | "filling"
                | "topping"
                | "decoration"
                | "decorate"
                | "decorating"
                | "coating"
                | "garnish"
                | "finish"
                | "finishing"
                | "dusting"
                | "wash"
                | "drizzle"
                | "sandwich"
                | "ganache"
        )
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_become_comparable() {
        assert_eq!(tokens("Confectioners\u{2019} sugar"), ["confectioner", "sugar"]);
        assert_eq!(tokens("cr\u{e8}me fra\u{ee}che, cherries & molasses"), ["creme", "fraiche", "cherry", "molass"]);
        assert_eq!(tokens("all-purpose flour"), ["all", "purpose", "flour"]);
        assert_eq!(tokens("\u{5c0f}\u{9ea6}\u{7c89}"), ["\u{5c0f}\u{9ea6}\u{7c89}"]);
    }

    #[test]
    fn headings_and_instructions_are_told_apart() {
        assert!(heads_method("Method:") && heads_method("DIRECTIONS") && !heads_method("2 cups flour"));
        assert!(heads_ingredients("Ingredients") && !heads_ingredients("225 g butter"));
        assert!(not_the_dough("For the royal icing") && !not_the_dough("For the dough"));
        assert!(instructs(&tokens("Cream the butter and sugar")) && !instructs(&tokens("cream 30 ml")));
    }
}
