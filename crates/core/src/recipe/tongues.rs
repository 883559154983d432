//! Recipe lines in German, French, Spanish, Italian and Dutch: the usual units and ingredients, turned into the reader's own words. From
//! memory, as cookbooks have them. A word that two things go by (cassonade, basterdsuiker, lievito) stands in no list: its line asks.

use super::words::tokens;
use std::sync::LazyLock;

/// What an ingredient is called elsewhere, several names apart by bars.
const NAMES: &[(&str, &str)] = &[
    (
        "all-purpose flour",
        "weizenmehl type 405|mehl type 405|mehl typ 405|weizenmehl type 550|mehl type 550|weizenmehl|mehl|farine de blé|farine t45|farine t55|farine de blé t45|farine de blé t55|farine|harina de trigo|harina 0000|harina|farina 00|farina tipo 00|farina di grano tenero|farina|tarwebloem|patentbloem|bloem",
    ),
    ("self-raising flour", "zelfrijzend bakmeel|farine à gâteaux|harina leudante"),
    (
        "whole wheat flour",
        "vollkornmehl|weizenvollkornmehl|farine complète|harina integral|farina integrale|volkorenmeel",
    ),
    ("rye flour", "roggenmehl|farine de seigle|harina de centeno|farina di segale|roggebloem|roggemeel"),
    ("spelt flour", "dinkelmehl|farine d'épeautre|harina de espelta|farina di farro|speltmeel|speltbloem"),
    (
        "rolled oats",
        "haferflocken|zarte haferflocken|flocons d'avoine|copos de avena|avena en copos|fiocchi d'avena|havermout",
    ),
    ("semolina", "grieß|griess|hartweizengrieß|semoule fine|semoule|sémola|semolino|griesmeel"),
    (
        "cornstarch",
        "speisestärke|maisstärke|stärke|maïzena|maizena|fécule de maïs|fécule|maicena|almidón de maíz|amido di mais|maïzetmeel",
    ),
    ("potato starch", "kartoffelstärke|fécule de pomme de terre|fecola di patate|almidón de patata|aardappelzetmeel"),
    (
        "unsalted butter",
        "weiche butter|beurre doux|beurre|mantequilla sin sal|mantequilla|burro|roomboter|ongezouten boter|boter",
    ),
    ("salted butter", "gesalzene butter|beurre demi-sel|beurre salé|mantequilla con sal|burro salato|gezouten boter"),
    ("margarine", "margarina"),
    ("lard", "schweineschmalz|schmalz|saindoux|manteca de cerdo|strutto|reuzel"),
    (
        "vegetable oil",
        "sonnenblumenöl|pflanzenöl|huile de tournesol|huile|aceite de girasol|aceite|olio di semi|zonnebloemolie|olie",
    ),
    ("olive oil", "olivenöl|huile d'olive|aceite de oliva|olio d'oliva|olio di oliva|olijfolie"),
    (
        "granulated sugar",
        "kristallzucker|zucker|sucre en poudre|sucre semoule|sucre|azúcar blanco|azúcar|zucchero semolato|zucchero|kristalsuiker|suiker",
    ),
    ("caster sugar", "feiner zucker|feinster zucker|fijne suiker|fijne kristalsuiker"),
    (
        "powdered sugar",
        "puderzucker|staubzucker|sucre glace|azúcar glas|azúcar glass|azúcar impalpable|zucchero a velo|poedersuiker",
    ),
    ("brown sugar", "brauner zucker|azúcar moreno|azúcar morena|bruine suiker|lichtbruine suiker"),
    ("raw cane sugar", "rohrzucker|rohrohrzucker|sucre de canne|azúcar de caña|zucchero di canna|rietsuiker"),
    (
        "vanilla sugar",
        "vanillezucker|vanillinzucker|sucre vanillé|azúcar avainillado|azúcar vainillado|zucchero vanigliato|vanillesuiker",
    ),
    ("honey", "honig|miel|miele|honing"),
    ("egg", "eier|ei|œuf|oeuf|œufs|oeufs|huevo|huevos|uovo|uova|eieren"),
    (
        "egg yolk",
        "eigelb|eidotter|jaune d'œuf|jaune d'oeuf|jaunes d'œufs|jaunes d'oeufs|yema|yemas|yema de huevo|yemas de huevo|tuorlo|tuorli|dooier|eidooier|eierdooier",
    ),
    (
        "egg white",
        "eiweiß|eiweiss|blanc d'œuf|blanc d'oeuf|blancs d'œufs|clara|claras|clara de huevo|claras de huevo|albume|albumi|eiwit",
    ),
    ("milk", "vollmilch|milch|lait entier|lait|leche entera|leche|latte intero|latte|volle melk|melk"),
    ("cream", "schlagsahne|sahne|crème liquide|crème fleurette|nata para montar|nata|panna fresca|panna|slagroom"),
    ("water", "wasser|kaltes wasser|eau froide|eau|agua fría|agua|acqua fredda|acqua|koud water"),
    (
        "baking powder",
        "backpulver|levure chimique|poudre à lever|levadura química|polvo de hornear|polvos de hornear|lievito per dolci|bakpoeder",
    ),
    (
        "baking soda",
        "natron|speisenatron|bicarbonate de soude|bicarbonate alimentaire|bicarbonato de sodio|bicarbonato|bicarbonato di sodio|natriumbicarbonaat|zuiveringszout",
    ),
    ("baker's ammonia", "hirschhornsalz|ammoniaca per dolci"),
    ("fine salt", "feines salz|salz|sel fin|sel|sal fina|sal|sale fino|sale|fijn zout|zout"),
    (
        "cocoa powder",
        "backkakao|kakaopulver|kakao|cacao en poudre|cacao amer|cacao en polvo|cacao puro|cacao amaro|cacaopoeder|cacao",
    ),
    (
        "almond meal",
        "gemahlene mandeln|amandes en poudre|poudre d'amandes|poudre d'amande|almendra molida|almendras molidas|farina di mandorle|amandelmeel|gemalen amandelen",
    ),
    (
        "hazelnut meal",
        "gemahlene haselnüsse|noisettes en poudre|poudre de noisettes|avellana molida|avellanas molidas|farina di nocciole|hazelnootmeel|gemalen hazelnoten",
    ),
    ("chopped walnuts", "walnüsse|gehackte walnüsse|cerneaux de noix|nueces|noci|walnoten"),
    (
        "dried coconut",
        "kokosraspel|kokosflocken|noix de coco râpée|coco rallado|cocco grattugiato|cocco rapé|geraspte kokos",
    ),
    ("raisins", "rosinen|raisins secs|pasas|uvetta|uva passa|rozijnen"),
    (
        "dark chocolate",
        "zartbitterschokolade|dunkle schokolade|chocolat noir|chocolate negro|chocolate amargo|cioccolato fondente|pure chocolade",
    ),
    (
        "vanilla extract",
        "vanilleextrakt|extrait de vanille|extracto de vainilla|esencia de vainilla|estratto di vaniglia|vanille-extract",
    ),
    (
        "lemon zest",
        "zitronenschale|zitronenabrieb|abrieb einer zitrone|zeste de citron|zeste d'un citron|zestes d'un citron|ralladura de limón|ralladura de un limón|piel de limón|scorza di limone|scorza di un limone|scorza grattugiata di un limone|citroenrasp|citroenschil",
    ),
    (
        "orange zest",
        "orangenschale|orangenabrieb|abrieb einer orange|zeste d'orange|zeste d'une orange|ralladura de naranja|ralladura de una naranja|scorza d'arancia|sinaasappelrasp",
    ),
    ("lemon juice", "zitronensaft|jus de citron|zumo de limón|jugo de limón|succo di limone|citroensap"),
    (
        "ground cinnamon",
        "gemahlener zimt|zimt|zimtpulver|cannelle|cannelle en poudre|canela|canela molida|cannella|kaneel",
    ),
    (
        "ground ginger",
        "ingwerpulver|gemahlener ingwer|gingembre en poudre|gingembre moulu|jengibre molido|jengibre en polvo|zenzero in polvere|gemberpoeder",
    ),
    ("ground cardamom", "kardamom|gemahlener kardamom|cardamome|cardamomo|kardemom"),
    (
        "ground cloves",
        "gemahlene nelken|nelkenpulver|clous de girofle moulus|clavo molido|chiodi di garofano in polvere|gemalen kruidnagel",
    ),
    ("ground nutmeg", "muskatnuss|muskat|noix de muscade|muscade|nuez moscada|noce moscata|nootmuskaat"),
    ("caraway seed", "kümmel|graines de carvi|carvi|alcaravea|karwijzaad"),
    ("sesame seeds", "sesam|sesamsamen|graines de sésame|semillas de sésamo|semi di sesamo|sesamzaad"),
    ("poppy seeds", "mohn|graines de pavot|semillas de amapola|semi di papavero|maanzaad"),
];

/// Measures: a spoon is 15 or 5 mL everywhere but in the United States.
const MEASURES: &[(&str, &str)] = &[
    (
        "x 15 ml",
        "el|eßl|essl|esslöffel|eßlöffel|c à s|c a s|cs|cuillère à soupe|cuillères à soupe|cuil à soupe|cda|cdas|cucharada|cucharadas|cucharada sopera|cucharadas soperas|cucchiaio|cucchiai|eetlepel|eetlepels",
    ),
    (
        "x 5 ml",
        "tl|teel|teelöffel|c à c|c a c|cc|cuillère à café|cuillères à café|cuil à café|cdta|cdtas|cdita|cditas|cucharadita|cucharaditas|cucchiaino|cucchiaini|theelepel|theelepels",
    ),
    ("pinch", "prise|prisen|pincée|pincées|pizca|pizcas|pizzico|pizzichi|snuf|snufje|snufjes"),
    ("knife tip", "messerspitze|msp|mespunt|punta de cuchillo|punta di coltello"),
    ("cup", "taza|tazas"),
];
/// What a packet holds, g: German baking powder for 500 g of flour, vanilla sugar; the others' of the same. From memory.
const PACKETS: &[(&str, &str, f64)] = &[
    ("päckchen|packung|pck|pckg|pkg|pk|p", "backpulver", 15.0),
    ("päckchen|packung|pck|pckg|pkg|pk|p", "vanillezucker|vanillinzucker", 8.0),
    ("sachet|sachets", "levure chimique", 11.0),
    ("sachet|sachets", "sucre vanillé", 7.5),
    ("sobre|sobres", "levadura química|polvo de hornear", 16.0),
    ("bustina|bustine", "lievito per dolci", 16.0),
    ("zakje|zakjes|pakje|pakjes", "bakpoeder", 16.0),
    ("zakje|zakjes|pakje|pakjes", "vanillesuiker", 8.0),
];
/// One, in words.
const ONE: &[&str] = &["ein", "eine", "einen", "un", "une", "una", "uno", "een", "1"];
/// Words that only join or describe, left out beside a name that was found.
const BESIDE: &[&str] = &[
    "de",
    "d",
    "du",
    "des",
    "di",
    "da",
    "del",
    "della",
    "dell",
    "delle",
    "van",
    "von",
    "vom",
    "per",
    "pour",
    "para",
    "zum",
    "voor",
    "weich",
    "weiche",
    "kalt",
    "kalte",
    "zimmerwarm",
    "zimmerwarme",
    "gesiebt",
    "bio",
    "groß",
    "große",
    "grosse",
    "klein",
    "kleine",
    "fein",
    "feine",
    "frisch",
    "mou",
    "pommade",
    "ramolli",
    "ramollie",
    "froid",
    "froide",
    "tamisé",
    "tamisée",
    "fin",
    "fine",
    "gros",
    "grand",
    "petit",
    "tempéré",
    "tempérée",
    "blando",
    "blanda",
    "fría",
    "frío",
    "frio",
    "grande",
    "grandes",
    "grandi",
    "pequeño",
    "tamizada",
    "tamizado",
    "ambiente",
    "morbido",
    "freddo",
    "setacciata",
    "setacciato",
    "medio",
    "medi",
    "media",
    "zachte",
    "koude",
    "koud",
    "grote",
    "gezeefd",
    "gezeefde",
    "en",
    "la",
    "le",
    "les",
    "el",
    "il",
    "lo",
    "stück",
];
const INGREDIENTS: &[&str] = &["zutaten", "ingrédients", "ingredientes", "ingredienti", "ingrediënten"];
const METHOD: &[&str] =
    &["zubereitung", "préparation", "preparación", "preparazione", "procedimento", "bereiding", "anleitung"];

struct Phrase {
    words: Vec<String>,
    english: &'static str,
}

fn phrases(of: &'static [(&'static str, &'static str)]) -> Vec<Phrase> {
    let mut all: Vec<Phrase> = of
        .iter()
        .flat_map(|(english, names)| names.split('|').map(|name| Phrase { words: tokens(name), english }))
        .collect();
    all.sort_by_key(|p| std::cmp::Reverse(p.words.len()));
    all
}

static NAMED: LazyLock<Vec<Phrase>> = LazyLock::new(|| phrases(NAMES));
static MEASURED: LazyLock<Vec<Phrase>> = LazyLock::new(|| phrases(MEASURES));

fn same_words(list: &[&str], word: &str) -> bool {
    list.iter().any(|l| tokens(l).iter().eq([word]))
}

/// The heading of a list of ingredients, or of the method, in another language, as the reader knows it.
pub(super) fn heading(line: &str) -> Option<&'static str> {
    match &tokens(line)[..] {
        [word] if same_words(INGREDIENTS, word) => Some("Ingredients"),
        [word] if same_words(METHOD, word) => Some("Method"),
        _ => None,
    }
}

/// A line of another language in the reader's own words; nothing where it holds none of what is known here.
pub(super) fn in_english(line: &str) -> Option<String> {
    let pieces = split(line);
    let words: Vec<String> = pieces.iter().map(|p| tokens(p).join(" ")).collect();
    let at = |from: usize, phrase: &[String]| -> bool { phrase.iter().eq(words[from..].iter().take(phrase.len())) };
    let name = (0..pieces.len()).find_map(|from| NAMED.iter().find(|p| at(from, &p.words)).map(|p| (from, p)));
    let mut known = name.is_some();
    let mut said: Vec<String> = Vec::new();
    let mut i = 0;
    while i < pieces.len() {
        let number = pieces[i].starts_with(|c: char| c.is_ascii_digit());
        let before_number = i > 0
            && (pieces[i - 1].ends_with(|c: char| c.is_ascii_digit() || "½¼¾⅓⅔".contains(c))
                || ONE.contains(&words[i - 1].as_str()));
        if let Some((_, phrase)) = name.filter(|(at, _)| *at == i) {
            said.push(phrase.english.to_owned());
            i += phrase.words.len();
        } else if let Some(grams) = packet(&words, i, before_number) {
            said.push(format!("x {grams} g"));
            // Nobody said what is in it.
            said.insert(0, "about".to_owned());
            i += 1;
        } else if let Some(measure) = MEASURED.iter().find(|p| before_number && at(i, &p.words)) {
            said.push(measure.english.to_owned());
            known = true;
            i += measure.words.len();
        } else if !number && ONE.contains(&words[i].as_str()) && name.is_some_and(|(at, _)| i < at) {
            said.push("1".to_owned());
            i += 1;
        } else if same_words(BESIDE, &words[i]) {
            i += 1;
        } else {
            said.push(pieces[i].clone());
            i += 1;
        }
    }
    known.then(|| said.join(" "))
}

/// What a packet of what follows holds, where this word is a packet's.
fn packet(words: &[String], at: usize, after_number: bool) -> Option<f64> {
    let holds = |list: &str, from: usize| -> bool {
        list.split('|').map(tokens).any(|phrase| phrase.iter().eq(words[from..].iter().take(phrase.len())))
    };
    let found = PACKETS.iter().find(|(packet, of, _)| {
        after_number && holds(packet, at) && (at + 1..words.len().min(at + 4)).any(|from| holds(of, from))
    })?;
    Some(found.2)
}

/// Words and numbers, punctuation left with the word before it but for full stops of shortened words; a unit stuck to its number stands alone.
fn split(line: &str) -> Vec<String> {
    let mut all = Vec::new();
    for part in line.split_whitespace() {
        let part = part.trim_end_matches('.');
        let digits = part.find(|c: char| !(c.is_ascii_digit() || ".,/".contains(c))).unwrap_or(part.len());
        let (number, unit) = part.split_at(digits);
        if !number.is_empty() && unit.chars().all(char::is_alphabetic) && !unit.is_empty() {
            all.extend([number.to_owned(), unit.to_owned()]);
        } else if part.contains('.') && part.chars().all(|c| c.is_alphabetic() || c == '.') {
            all.extend(part.split('.').filter(|p| !p.is_empty()).map(str::to_owned));
        } else if part.contains('-') && part.chars().all(|c| c.is_alphabetic() || c == '-') {
            all.extend(part.split('-').filter(|p| !p.is_empty()).map(str::to_owned));
        } else if !part.is_empty() {
            all.push(part.to_owned());
        }
    }
    all
}
