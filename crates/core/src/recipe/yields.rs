//! What a recipe says it makes, in the words of several languages, and how many pieces that is.

use super::words::tokens;

/// Words that begin such a line; those of other languages count only beside a word for pieces.
const SAYS: [&str; 5] = ["make", "yield", "serve", "serving", "quantity"];
const SAYS_ELSEWHERE: [&str; 22] = [
    "about",
    "ca",
    "circa",
    "ergibt",
    "für",
    "fuer",
    "reicht",
    "menge",
    "pour",
    "donne",
    "environ",
    "para",
    "rinde",
    "salen",
    "sale",
    "per",
    "dosi",
    "voor",
    "goed",
    "aantal",
    "portionen",
    "quantité",
];
const PIECES: [&str; 35] = [
    "piece",
    "pieces",
    "cookie",
    "cookies",
    "biscuit",
    "biscuits",
    "stück",
    "stueck",
    "plätzchen",
    "plaetzchen",
    "kekse",
    "sablés",
    "sables",
    "pièces",
    "gâteaux",
    "galletas",
    "galleta",
    "piezas",
    "unidades",
    "biscotti",
    "pezzi",
    "frollini",
    "koekjes",
    "koekje",
    "stuks",
    "stars",
    "rounds",
    "hearts",
    "shortbreads",
    "shortcakes",
    "slices",
    "bars",
    "fingers",
    "squares",
    "wafers",
];
const DOZENS: [&str; 10] =
    ["dozen", "dozens", "doz", "dutzend", "douzaine", "douzaines", "docena", "docenas", "dozzine", "dozijn"];
/// Words by which a yield is told by weight.
const OF_WEIGHT: [&str; 12] =
    ["g", "gram", "grams", "kg", "kilo", "kilos", "ounce", "ounces", "oz", "lb", "pound", "pounds"];
/// A recipe of more is a mistake.
const MOST: f64 = 5_000.0;

/// The line, where it says what the recipe makes.
pub(super) fn yields_of(line: &str) -> Option<String> {
    let words = tokens(line);
    let raw = plain_words(line);
    let first = raw.first()?.as_str();
    let short = words.len() <= 10;
    let says = words.first().is_some_and(|w| SAYS.contains(&w.as_str()));
    let named = raw.iter().any(|w| PIECES.contains(&w.as_str()) || DOZENS.contains(&w.as_str()));
    let begins = SAYS_ELSEWHERE.contains(&first) || first.starts_with(|c: char| c.is_ascii_digit());
    let counts = line.chars().any(|c| c.is_ascii_digit()) || raw.iter().any(|w| DOZENS.contains(&w.as_str()));
    // `40 biscuits` under a list is an ingredient as well as a yield: only a line that says so counts.
    let elsewhere = named && begins && !first.starts_with(|c: char| c.is_ascii_digit());
    (short && counts && (says || elsewhere)).then(|| line.trim().chars().take(120).collect())
}

/// How many pieces that is: of `3 to 4 dozen` the fewer; nothing where no number stands there.
pub(super) fn pieces_of(yields: &str) -> Option<u32> {
    let words = plain_words(yields);
    // `450 g of dough` counts none.
    if words.iter().any(|w| OF_WEIGHT.contains(&w.as_str())) {
        return None;
    }
    let number = words.iter().find_map(|w| w.parse::<f64>().ok());
    let dozen = words.iter().any(|w| DOZENS.contains(&w.as_str()));
    let pieces = number.or(dozen.then_some(1.0))? * if dozen { 12.0 } else { 1.0 };
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "between 1 and the most")]
    (1.0..=MOST).contains(&pieces).then(|| pieces.round() as u32)
}

/// Words and numbers in small letters; a word keeps its accents.
fn plain_words(text: &str) -> Vec<String> {
    text.to_lowercase()
        .split(|c: char| !c.is_alphanumeric() && c != '.')
        .map(|w| w.trim_matches('.').to_owned())
        .filter(|w| !w.is_empty())
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Makes about 3 dozen", Some(36))]
    #[case("Yield: 3 to 4 dozen cookies", Some(36))]
    #[case("Makes 24", Some(24))]
    #[case("About 40 biscuits", Some(40))]
    #[case("Ergibt ca. 40 Stück", Some(40))]
    #[case("Für 60 Plätzchen", Some(60))]
    #[case("Pour 36 sablés", Some(36))]
    #[case("Para 30 galletas", Some(30))]
    #[case("Dosi per 48 biscotti", Some(48))]
    #[case("Voor 30 koekjes", Some(30))]
    #[case("Pour deux douzaines", Some(12))]
    #[case("Makes a dozen", Some(12))]
    fn a_yield_is_read_in_six_languages(#[case] line: &str, #[case] pieces: Option<u32>) {
        let said = yields_of(line).unwrap_or_else(|| panic!("{line} is a yield"));
        assert_eq!(pieces_of(&said), pieces, "{line}");
    }

    #[test]
    fn a_yield_by_weight_counts_no_pieces() {
        assert_eq!((pieces_of("Makes 450 g of dough"), pieces_of("Makes 2 pounds")), (None, None));
    }

    #[rstest]
    #[case("Für 500 g Mehl")]
    #[case("225 g butter")]
    #[case("per 200 g di burro")]
    #[case("12 digestive biscuits, crushed")]
    #[case("Makes your kitchen smell of butter")]
    fn an_ingredient_is_none(#[case] line: &str) {
        assert_eq!(yields_of(line), None, "{line}");
    }
}
