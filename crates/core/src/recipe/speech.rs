//! A recipe told in running speech: the foods it names with their amounts, in the order they are spoken of. What is said twice counts once, what is taken
//! back does not count, what goes under, onto or round the dough is set apart, and a food without an amount is asked for once.

use super::ReadSettings;
use super::amount::{Amounts, Measure, amounts};
use super::cursor::Cursor;
use super::names::Names;
use super::spoken::{Spoken, spoken};
use super::words::{describes, measures_no_food, not_the_dough, tokens};
use crate::dough::{Ingredient, Kind};
use std::ops::Range;
use std::sync::Arc;

/// A part of what was told.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Told {
    /// As it was said, up to the next food.
    pub said: String,
    /// The food of it as a line of a recipe; nothing where it names none.
    pub read: Option<String>,
    /// What it goes into instead of the dough, where that was said.
    pub aside: Option<String>,
    /// Words of it that were taken as others.
    pub heard: Vec<(String, &'static str)>,
}

/// So many foods with amounts make a recipe that is told.
const LEAST_TOLD: usize = 3;
/// Nothing behind this is read, bytes: many times the longest recipe that is told. Our own choice.
const MOST_TOLD_BYTES: usize = 20_000;
/// A number from here on without a measure, after one in grams, is in grams: nobody counts so many.
const GOES_ON_FROM: f64 = 20.0;
/// What is measured by spoon and cup besides food of a dough.
const NO_FOOD_EITHER: [&str; 16] = [
    "mixture", "dough", "batter", "mix", "scoop", "cookie", "ball", "log", "disc", "time", "coffee", "tea", "more",
    "less", "rest", "half",
];
/// Words behind an amount among which its food is named.
const NAMED_WITHIN: usize = 7;
/// A number without a measure counts things: they are named right behind it.
const COUNTED_WITHIN: usize = 2;

/// What ends the words that name a food.
const ENDS_A_NAME: [&str; 26] = [
    "and", "plus", "then", "with", "into", "in", "to", "until", "so", "for", "on", "over", "but", "because", "which",
    "that", "is", "are", "goes", "go", "if", "as", "or", "about", "at", "from",
];
/// By what somebody takes back what was said last.
const TAKES_BACK: [&str; 13] = [
    " no ",
    " no, ",
    "sorry",
    "wait",
    "actually",
    "make that",
    "scratch that",
    "i mean",
    "i meant",
    " rather",
    "my mistake",
    "correction",
    "not that",
];
/// By what less is used than was set out.
const ONLY: [&str; 9] =
    ["only", "just need", "just use", "we use", "we'll use", "actually use", "i use", "going to use", "is all"];
/// By what an amount is a part of one that was said.
const A_PART: [&str; 8] =
    ["the rest", "remaining", "the other", "of the", "of that", "of your", "at a time", "half the"];
/// By what food goes onto the pieces, under or round them.
const ONTO: [&str; 27] = [
    "for rolling",
    "for dusting",
    "dusting",
    "dust ",
    "sprinkl",
    "on top",
    "for the top",
    "over the top",
    "topping",
    "for coating",
    "coat ",
    "coated",
    "to finish",
    "for brushing",
    "brush ",
    "drizzl",
    "dip ",
    "for dipping",
    "garnish",
    "decorat",
    "on the board",
    "on my board",
    "on the counter",
    "for the board",
    "for the counter",
    "for the bench",
    "greas",
];
/// By what food is put into the dough, where its amount was not said.
const PUT_IN: [&str; 22] = [
    "spoon", "capful", "glug", "add", "put", "stir", "beat", "mix", "throw", "plus", "little", "some", "bit", "splash",
    "drop", "dash", "also", "goes", "little", "pinch", "need", "with",
];
/// Words that say nothing of what a food is.
const EMPTY: [&str; 24] = [
    "the", "one", "kind", "no", "sorry", "wait", "i", "mean", "meant", "actually", "rather", "make", "that", "it", "s",
    "is", "use", "a", "an", "of", "stuff", "sort", "here", "we",
];

struct Mention {
    /// Where it is said: its amount and its name.
    span: Range<usize>,
    /// Its amount as said; nothing where none was.
    amount: Option<String>,
    /// The measure of that, to go on with a number that is said alone.
    measure: Option<&'static str>,
    /// Its name, without words that say nothing of it.
    name: String,
    /// The food; nothing where it is not in the pantry.
    of: Option<Arc<Ingredient>>,
    /// How much of that amount is used, where less is than was set out.
    times: Option<f64>,
    aside: Option<Aside>,
}

impl Mention {
    fn is(&self, of: &Ingredient) -> bool {
        self.of.as_ref().is_some_and(|own| own.key == of.key)
    }
}

enum Aside {
    Board,
    Onto,
    Section(String),
}

/// What a text tells part by part; nothing where it is no recipe that is told.
pub(super) fn told(text: &str, names: &Names, settings: &ReadSettings) -> Option<Vec<Told>> {
    let end = (0..=text.len().min(MOST_TOLD_BYTES)).rfind(|&i| text.is_char_boundary(i))?;
    let plain = spoken(&text[..end]);
    let mut telling = Telling { text: &plain.text, names, settings, mentions: vec![], denied: vec![] };
    telling.amounts();
    if telling.mentions.len() < LEAST_TOLD || telling.is_a_list(text) {
        return None;
    }
    telling.qualify();
    telling.set_apart();
    telling.without_amounts();
    telling.once_each();
    Some(telling.parts(text, &plain))
}

struct Telling<'a> {
    text: &'a str,
    names: &'a Names,
    settings: &'a ReadSettings,
    mentions: Vec<Mention>,
    /// Keys of foods that were said not to be in it.
    denied: Vec<String>,
}

/// The measure by which a number goes on: `two cups, no, three`.
fn measure_of(found: &Amounts) -> Option<&'static str> {
    match &found.parts.last()?.1.measure {
        Measure::Mass(_, word) | Measure::Volume(_, word) => Some(word),
        Measure::Stick => Some("stick"),
        Measure::Each | Measure::Container(_) | Measure::Vague(_) => None,
    }
}

/// Words and where each begins and ends.
fn words_at(text: &str, within: Range<usize>) -> Vec<(Range<usize>, String)> {
    let mut found = vec![];
    let mut at = within.start;
    for whole in text[within].split_whitespace() {
        let start = at + text[at..].find(whole).unwrap_or(0);
        at = start + whole.len();
        if let Some(word) = tokens(whole).into_iter().next() {
            found.push((start..at, word));
        }
    }
    found
}

impl Telling<'_> {
    /// Where the sentence ends that a place is in.
    fn sentence_end(&self, at: usize) -> usize {
        let ends = |i: usize| self.text[i..].starts_with(['.', '!', '?']) && self.text[i + 1..].starts_with([' ', '"']);
        (at..self.text.len()).find(|&i| self.text.is_char_boundary(i) && ends(i)).unwrap_or(self.text.len())
    }

    fn sentence_start(&self, at: usize) -> usize {
        let ends = |i: &usize| [". ", "! ", "? "].iter().any(|end| self.text[*i..].starts_with(end));
        (0..at).rev().filter(|&i| self.text.is_char_boundary(i)).find(ends).map_or(0, |i| i + 2)
    }

    /// Where the clause ends whose words may name a food.
    fn clause_end(&self, from: usize) -> usize {
        let stops = |i: usize| self.text[i..].starts_with([',', ';', ':', '(', ')', '.', '!', '?']);
        (from..self.text.len()).find(|&i| self.text.is_char_boundary(i) && stops(i)).unwrap_or(self.text.len())
    }

    /// The words behind a place that may name a food.
    fn naming(&self, from: usize) -> Vec<(Range<usize>, String)> {
        let words = words_at(self.text, from..self.clause_end(from));
        let ends = |i: usize, w: &str| i > 0 && ENDS_A_NAME.contains(&w);
        let half_and_half = words.first().is_some_and(|w| w.1 == "half");
        let end = words.iter().enumerate().position(|(i, w)| !half_and_half && ends(i, &w.1)).unwrap_or(words.len());
        words.into_iter().take(end.min(NAMED_WITHIN)).collect()
    }

    /// A food among words: it, where its name ends, and the name without words that say nothing of it.
    fn food(&self, words: &[(Range<usize>, String)], within: usize) -> Option<(Arc<Ingredient>, Range<usize>, String)> {
        let own: Vec<String> = words.iter().map(|w| w.1.clone()).collect();
        let found = self.names.find(&own, &[])?;
        let names = |w: &str| !found.strange.iter().any(|s| s == w) && !describes(w);
        let first = words.iter().position(|w| names(&w.1))?;
        let last = words.iter().rposition(|w| names(&w.1))?;
        if first > within {
            return None;
        }
        let kept = words[..=last].iter().filter(|w| !found.strange.contains(&w.1));
        let name: Vec<&str> =
            kept.map(|w| self.text[w.0.clone()].trim_matches(|c: char| !c.is_alphanumeric())).collect();
        Some((found.ingredient, words[first].0.start..words[last].0.end, name.join(" ")))
    }

    /// All foods with an amount.
    fn amounts(&mut self) {
        let starts: Vec<usize> = words_at(self.text, 0..self.text.len()).into_iter().map(|w| w.0.start).collect();
        let mut done = 0;
        for at in starts {
            if at < done {
                continue;
            }
            let rest = &self.text[at..];
            let lead = rest.len() - rest.trim_start_matches(['(', '"', '\u{201c}']).len();
            let mut c = Cursor::new(&rest[lead..]);
            let Ok(Some(found)) = amounts(&mut c, self.settings.cups) else { continue };
            let end = self.text.len() - c.rest.len();
            let amount = self.text[at + lead..end].trim().trim_end_matches(" of").to_owned();
            let measure = measure_of(&found);
            let vague = found.parts.iter().any(|p| matches!(p.1.measure, Measure::Vague(_)));
            // The point behind a measure may be that of its sentence.
            let ended = self.text[at..end].ends_with('.')
                && self.text[end..].trim_start().chars().next().is_none_or(char::is_uppercase);
            let words = if ended { vec![] } else { self.naming(end) };
            if words.first().is_some_and(|w| measures_no_food(std::slice::from_ref(&w.1))) {
                done = end;
                continue;
            }
            let counted = measure.is_none() && found.parts.iter().all(|p| matches!(p.1.measure, Measure::Each));
            // `half of it`, `a third of that`: of what was set out last.
            let pronoun = words.first().is_some_and(|w| matches!(w.1.as_str(), "it" | "that" | "them" | "those"));
            if counted && pronoun && found.parts[0].1.low < 1.0 {
                let low = found.parts[0].1.low;
                let since = self.mentions.last().map_or(0, |m| m.span.end);
                if says(&self.text[since..at].to_lowercase(), &ONLY)
                    && let Some(last) = self.mentions.last_mut()
                {
                    last.times = Some(low);
                }
                done = end;
                continue;
            }
            // `250 grams flour, 125 butter`: the measure goes on.
            let goes_on = counted
                && found.parts.iter().all(|p| p.1.low >= GOES_ON_FROM)
                && self.mentions.last().is_some_and(|m| m.measure == Some("g"));
            let (amount, measure, counted) =
                if goes_on { (format!("{amount} g"), Some("g"), false) } else { (amount, measure, counted) };
            let within = if counted { COUNTED_WITHIN } else { NAMED_WITHIN };
            let can_be_counted = |i: &Ingredient| i.household.each.is_some() || i.kind == Kind::Egg;
            let food = self.food(&words, within).filter(|f| !counted || can_be_counted(&f.0));
            if let Some((of, named, name)) = food {
                // `half a cup of the flour`: a part of what was said.
                let part = words.first().is_some_and(|w| matches!(w.1.as_str(), "the" | "that" | "your" | "this"))
                    && self.mentions.iter().any(|m| m.is(&of));
                done = named.end.max(end);
                if !part {
                    let amount = (!vague).then_some(amount);
                    let of = Some(of);
                    self.mentions.push(Mention { span: at..done, amount, measure, name, of, times: None, aside: None });
                }
            } else {
                let taken = self.alone(at..end, &amount, measure, counted && words.is_empty())
                    || self.unknown(at..end, &amount, measure, &words);
                if taken {
                    done = self.mentions.last().map_or(end, |m| m.span.end.max(end));
                } else if !counted {
                    done = end;
                }
            }
        }
    }

    /// An amount behind which no food is named: it corrects the last one, or its food stands before it. Whether it did.
    fn alone(&mut self, said: Range<usize>, amount: &str, measure: Option<&'static str>, bare: bool) -> bool {
        let Range { start: at, end } = said;
        let since = self.mentions.last().map_or(0, |m| m.span.end);
        let gap = format!(" {} ", self.text[since..at].to_lowercase());
        if let Some(last) = self.mentions.last_mut()
            && gap.len() < 60
            && says(&gap, &TAKES_BACK)
            && (measure.is_some() || bare)
        {
            let of = if measure.is_none() { last.measure } else { None };
            last.amount = Some(of.map_or_else(|| amount.to_owned(), |unit| format!("{amount} {unit}")));
            last.span.end = end;
            return true;
        }
        if measure.is_none() {
            return false;
        }
        // `the flour, that's two cups`.
        let from = since.max(self.sentence_start(at));
        let words = words_at(self.text, from..at);
        let near = words.len().saturating_sub(6);
        let words: Vec<_> = words[near..].iter().filter(|w| !EMPTY.contains(&w.1.as_str())).cloned().collect();
        let taken = |of: &Ingredient| self.mentions.iter().any(|m| m.is(of) && m.amount.is_some());
        if let Some((of, named, name)) = self.food(&words, NAMED_WITHIN).filter(|f| !taken(&f.0)) {
            let (amount, of) = (Some(amount.to_owned()), Some(of));
            self.mentions.push(Mention { span: named.start..end, amount, measure, name, of, times: None, aside: None });
            return true;
        }
        false
    }

    /// An amount of something that is not in the pantry: it is asked about, not passed over.
    fn unknown(
        &mut self,
        said: Range<usize>,
        amount: &str,
        measure: Option<&'static str>,
        words: &[(Range<usize>, String)],
    ) -> bool {
        let Some(measure) = measure else { return false };
        let word = words.iter().find(|w| !describes(&w.1) && !EMPTY.contains(&w.1.as_str()));
        let Some((span, _)) = word.filter(|w| words.len() <= 3 && !NO_FOOD_EITHER.contains(&w.1.as_str())) else {
            return false;
        };
        let name = self.text[span.clone()].trim_matches(|c: char| !c.is_alphanumeric()).to_owned();
        let amount = Some(amount.to_owned());
        let span = said.start..span.end;
        self.mentions.push(Mention { span, amount, measure: Some(measure), name, of: None, times: None, aside: None });
        true
    }

    /// Whether most foods stand at the beginning of a line: then it is a list, not told.
    fn is_a_list(&self, text: &str) -> bool {
        let lines = text.lines().filter(|line| {
            let plain = spoken(&super::split::tidy(line)).text;
            let mut c = Cursor::new(&plain);
            matches!(amounts(&mut c, self.settings.cups), Ok(Some(_)) | Err(_))
                && self.names.find(&tokens(c.rest).into_iter().take(NAMED_WITHIN).collect::<Vec<_>>(), &[]).is_some()
        });
        2 * lines.count() > self.mentions.len()
    }

    /// What is said of a food behind it: `butter, the salted one, no, the unsalted`.
    fn qualify(&mut self) {
        // `Eight ounces of cream cheese? No.`
        let text = self.text;
        let denied = |m: &Mention| text[m.span.end..].get(..4).is_some_and(|t| t.eq_ignore_ascii_case("? no"));
        self.denied =
            self.mentions.iter().filter(|m| denied(m)).filter_map(|m| Some(m.of.as_ref()?.key.to_string())).collect();
        self.mentions.retain(|m| !denied(m));
        for i in 0..self.mentions.len() {
            let m = &self.mentions[i];
            let next = self.mentions.get(i + 1).map_or(self.text.len(), |n| n.span.start);
            let end = self.sentence_end(m.span.end).min(next).max(m.span.end);
            let (Some(noun), Some(of)) = (tokens(&m.name).pop(), &m.of) else { continue };
            let mut chosen = None;
            for clause in self.text[m.span.end..end].split([',', ';']).skip(1).take(4) {
                let words = tokens(clause);
                if words.first().is_some_and(|w| w == "not") {
                    continue;
                }
                let mut words: Vec<String> = words.into_iter().filter(|w| !EMPTY.contains(&w.as_str())).collect();
                if words.is_empty() || words.len() > 2 {
                    continue;
                }
                if !words.contains(&noun) {
                    words.push(noun.clone());
                }
                if let Some(found) = self.names.find(&words, &[]).filter(|f| f.whole && f.ingredient.kind == of.kind) {
                    chosen = Some((found.ingredient, words.join(" ")));
                }
            }
            if let Some((of, name)) = chosen {
                (self.mentions[i].of, self.mentions[i].name) = (Some(of), name);
            }
        }
    }

    /// What does not go into the dough.
    fn set_apart(&mut self) {
        for i in 0..self.mentions.len() {
            let span = self.mentions[i].span.clone();
            let (from, to) = (self.sentence_start(span.start), self.sentence_end(span.end));
            let last = if i > 0 { self.mentions[i - 1].span.end } else { 0 };
            let next = self.mentions.get(i + 1).map_or(self.text.len(), |n| n.span.start);
            let sentence = &self.text[from..span.start];
            let own = self.clause_of(from.max(last).min(span.start)..span.start, span.end..to.min(next).max(span.end));
            self.mentions[i].aside = if let Some(section) = section_of(sentence) {
                Some(Aside::Section(section))
            } else if says(&own, &ONTO) && !own.contains("over the flour") || rolled_in(&own) {
                let board = ["board", "counter", "bench", "greas"].iter().any(|w| own.contains(w));
                let flour =
                    self.mentions[i].of.as_ref().is_some_and(|of| matches!(of.kind, Kind::Flour | Kind::Starch));
                Some(if board || flour { Aside::Board } else { Aside::Onto })
            } else {
                // `And a tablespoon of milk` goes on with the icing of the sentence before.
                let before = i.checked_sub(1).and_then(|b| match &self.mentions[b].aside {
                    Some(Aside::Section(section)) => Some(section.clone()),
                    _ => None,
                });
                let goes_on = self.text[from..].trim_start().to_lowercase().starts_with("and ");
                before.filter(|_| goes_on).map(Aside::Section)
            };
        }
    }

    /// What is said of a food right before it and right behind it, without what belongs to its neighbours and what is taken for the board on top of it.
    fn clause_of(&self, before: Range<usize>, behind: Range<usize>) -> String {
        let before = self.text[before].to_lowercase();
        let before = before.rsplit([',', ';']).next().unwrap_or_default().to_owned();
        let behind = self.text[behind].to_lowercase();
        let mut clauses = behind.split([',', ';']);
        let mut own = clauses.next().unwrap_or_default().to_owned();
        if let Some(purpose) = clauses.next().filter(|c| c.starts_with(" for ") || c.starts_with(" to ")) {
            own.push_str(purpose);
        }
        if let Some(more) = ["plus extra", "plus more", "and more", "and extra", "extra for", "more for"]
            .iter()
            .find_map(|w| own.find(w))
        {
            own.truncate(more);
        }
        format!("{before} {own}")
    }

    /// Foods that are put in without an amount, each once.
    fn without_amounts(&mut self) {
        let words = words_at(self.text, 0..self.text.len());
        let mut i = 0;
        while i < words.len() {
            let at = words[i].0.start;
            let inside = self.mentions.iter().any(|m| m.span.contains(&at));
            let found = (1..=4).rev().filter(|n| i + n <= words.len()).find_map(|n| {
                let name: Vec<String> = words[i..i + n].iter().map(|w| w.1.clone()).collect();
                self.names.exactly(&name).map(|of| (of, n))
            });
            let Some((of, n)) = found.filter(|_| !inside) else {
                i += 1;
                continue;
            };
            let span = at..words[i + n - 1].0.end;
            i += n;
            let known = self.mentions.iter().any(|m| {
                let kind = m.of.as_ref().is_some_and(|own| own.kind == of.kind);
                m.is(&of) || kind && tokens(&m.name).contains(&words[i - 1].1)
            });
            let from = self.sentence_start(at);
            let before = words_at(self.text, from..at);
            let near = &before[before.len().saturating_sub(5)..];
            let put = near.iter().any(|w| PUT_IN.contains(&w.1.as_str()));
            let clause = self.text[from..self.clause_end(span.end)].to_lowercase();
            if known
                || !put
                || self.denied.iter().any(|key| **key == *of.key)
                || says(&clause, &ONTO)
                || rolled_in(&clause)
                || section_of(&clause).is_some()
            {
                continue;
            }
            let name = self.text[span.clone()].trim_matches(|c: char| !c.is_alphanumeric()).to_owned();
            let place = self.mentions.partition_point(|m| m.span.start < span.start);
            let bare = Mention { span, amount: None, measure: None, name, of: Some(of), times: None, aside: None };
            self.mentions.insert(place, bare);
        }
    }

    /// What is said again counts once; what is used counts, not what was set out.
    fn once_each(&mut self) {
        let mut kept: Vec<Mention> = vec![];
        for m in std::mem::take(&mut self.mentions) {
            let before = kept.iter().position(|k| m.of.as_ref().is_some_and(|of| k.is(of)) && k.aside.is_none());
            let (Some(at), None) = (before, &m.aside) else {
                kept.push(m);
                continue;
            };
            let earlier = &kept[at];
            let since = kept.iter().map(|k| k.span.end).max().unwrap_or(0).min(m.span.start);
            let between = format!(" {} ", self.text[since..m.span.start].to_lowercase());
            let same = earlier.amount.as_deref().map(str::to_lowercase) == m.amount.as_deref().map(str::to_lowercase);
            if m.amount.is_none() || same {
            } else if earlier.amount.is_none() || says(&between, &TAKES_BACK) || says(&between, &ONLY) {
                kept.remove(at);
                kept.push(m);
            } else if !says(&between, &A_PART) {
                kept.push(m);
            }
        }
        self.mentions = kept;
    }

    fn parts(&self, said: &str, plain: &Spoken) -> Vec<Told> {
        let mut starts: Vec<usize> = self.mentions.iter().map(|m| plain.said_at(m.span.start)).collect();
        starts.push(said.len());
        let piece = |from: usize, to: usize| said[from..to.max(from)].split_whitespace().collect::<Vec<_>>().join(" ");
        let mut found = vec![];
        let lead = piece(0, starts[0]);
        if !lead.is_empty() {
            found.push(Told { said: lead, read: None, aside: None, heard: vec![] });
        }
        for (i, m) in self.mentions.iter().enumerate() {
            let times = m.times.map(|t| format!("{t} x ")).unwrap_or_default();
            let amount = m.amount.as_ref().map(|a| format!("{times}{a} ")).unwrap_or_default();
            let (tail, aside) = match &m.aside {
                None => ("", None),
                Some(Aside::Board) => (", for the board", None),
                Some(Aside::Onto) => (", for the topping", None),
                Some(Aside::Section(section)) => ("", Some(section.clone())),
            };
            let said = piece(starts[i], starts[i + 1]);
            let own = tokens(&said);
            let heard = plain.heard.iter().filter(|h| own.iter().any(|w| tokens(&h.0).contains(w))).cloned().collect();
            found.push(Told { said, read: Some(format!("{amount}{}{tail}", m.name)), aside, heard });
        }
        found
    }
}

fn says(text: &str, words: &[&str]) -> bool {
    words.iter().any(|w| text.contains(w))
}

/// `roll them in`, `rolled the log in`.
fn rolled_in(text: &str) -> bool {
    let words = tokens(text);
    words.iter().enumerate().any(|(i, w)| {
        matches!(w.as_str(), "roll" | "rolled" | "rolling" | "toss" | "press")
            && words[i + 1..].iter().take(4).any(|w| w == "in")
    })
}

/// What of the pieces a sentence begins to speak of, where that is not their dough.
fn section_of(text: &str) -> Option<String> {
    let lower = text.to_lowercase();
    let at = lower.rfind("for the ").or_else(|| lower.rfind("for my ")).or_else(|| lower.rfind("the icing"))?;
    let words = tokens(&lower[at..]);
    let section = words.iter().take(4).find(|w| not_the_dough(w))?;
    Some(section.clone())
}
