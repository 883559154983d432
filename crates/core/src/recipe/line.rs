//! One line of a recipe: what it says, what that weighs, how sure that is and why, and what it asks.

use super::ReadSettings;
use super::amount::{Amount, Amounts, Cursor, Measure, TwoWays, amounts};
use super::names::Names;
use super::words::tokens;
use crate::dough::{CupWay, EggClass, Ingredient, Kind, Pantry};
use crate::units::Mass;
use std::sync::Arc;

/// What a baker answers to a line's question.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct LineAnswer {
    /// Number of the line, from 1.
    pub line: usize,
    /// Key of the ingredient that is meant.
    pub ingredient: Option<String>,
    /// Grams that are meant.
    pub grams: Option<f64>,
    /// The line is not part of the dough.
    pub leave_out: bool,
    /// It is right as it was read.
    pub as_read: bool,
}

/// Why a line asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Doubt {
    /// No ingredient of that name is known.
    UnknownIngredient,
    /// A word of the name is strange.
    StrangeWord,
    /// Two ingredients on one line.
    TwoThings,
    /// No amount, or one that says nothing.
    NoAmount,
    /// A number that reads two ways.
    TwoNumbers,
    /// The two amounts given differ by more than a tenth.
    Disagrees,
    /// Nobody knows what that measure of it weighs.
    NoWeight,
    /// Far more or less than any dough holds.
    Unlikely,
}

/// One way to settle a question.
#[derive(Debug, Clone, PartialEq)]
pub struct Option_ {
    /// As it is offered.
    pub label: String,
    /// What choosing it means.
    pub answer: LineAnswer,
}

/// What a line asks.
#[derive(Debug, Clone, PartialEq)]
pub struct Question {
    /// Why.
    pub doubt: Doubt,
    /// In words.
    pub ask: String,
    /// Ways to settle it; typing grams or leaving the line out are always open.
    pub options: Vec<Option_>,
}

/// What a line of ingredients was read as.
#[derive(Debug, Clone, PartialEq)]
pub struct Understood {
    /// The ingredient, once it is known.
    pub ingredient: Option<Arc<Ingredient>>,
    /// What it weighs, once that is known.
    pub mass: Option<Mass>,
    /// 0 to 1.
    pub confidence: f64,
    /// How it was read, in sentences.
    pub why: Vec<String>,
    /// What is done to it first.
    pub note: String,
    /// What it asks; nothing is counted before it is settled.
    pub question: Option<Question>,
    /// Why it is not part of the dough.
    pub left_out: Option<String>,
}

/// The longest line that is read.
const LONGEST_LINE: usize = 300;
/// Two amounts of one line must agree within this. The project's own rule.
const AGREE: f64 = 0.10;

/// Words after the amount and the name that carry meaning of their own.
struct Rest {
    name: String,
    beside: String,
    dusting: bool,
    more: bool,
    to_taste: bool,
}

/// Reads a line of ingredients. `Ok(None)` when it holds neither an amount nor a known name.
pub(super) fn read_line(
    number: usize,
    text: &str,
    names: &Names,
    pantry: &Pantry,
    settings: &ReadSettings,
    answer: Option<&LineAnswer>,
) -> Option<Understood> {
    if text.chars().count() > LONGEST_LINE {
        return Some(asks(
            number,
            Doubt::UnknownIngredient,
            format!("The line is longer than {LONGEST_LINE} characters; one ingredient to a line, please."),
            vec![],
        ));
    }
    let line = tidy(text);
    if answer.is_some_and(|a| a.leave_out) {
        let mut line = blank();
        line.left_out = Some("You left it out.".to_owned());
        return Some(line);
    }
    let (amount, rest) = match split(&line, settings) {
        Ok(found) => found,
        Err(two) => return Some(two_numbers(number, &two, answer, &line, names, pantry)),
    };
    let rest = take_apart(&rest);
    let (words, mut beside) = (tokens(&rest.name), tokens(&rest.beside));
    // `cake flour (not self-rising)` is not the one named last.
    if let Some(at) = beside.iter().position(|w| w == "not") {
        beside.truncate(at);
    }
    if words.is_empty() && beside.is_empty() && amount.is_none() {
        return None;
    }
    let chosen = answer.and_then(|a| a.ingredient.as_deref()).and_then(|key| pantry.get(key));
    let found = if words.is_empty() { names.find(&beside, &[]) } else { names.find(&words, &beside) };
    if chosen.is_none() && found.is_none() && amount.is_none() {
        return None;
    }
    let mut line = blank();
    line.note = note_of(&rest);
    let mut question = None;
    match (chosen, found) {
        (Some(chosen), _) => {
            line.ingredient = Some(Arc::clone(chosen));
            line.why.push(format!("You said it is {}.", chosen.name.to_lowercase()));
        }
        (None, Some(found)) => {
            let name = found.ingredient.name.to_lowercase();
            if found.whole {
                line.why.push(format!("Read as {name}."));
                if matches!(found.ingredient.key.as_ref(), "butter")
                    && !words.iter().chain(&beside).any(|w| w == "unsalted")
                {
                    line.confidence *= 0.9;
                    line.why.push("Taken as unsalted, since it does not say.".to_owned());
                }
            } else if let Some(other) = found.also.first() {
                question = Some(Question {
                    doubt: Doubt::TwoThings,
                    ask: format!(
                        "Two things on one line: {name} and {}. Which is it? Put the other on a line of its own.",
                        other.name.to_lowercase()
                    ),
                    options: [&found.ingredient, other].map(|i| is_it(number, i)).to_vec(),
                });
            } else {
                let mut like = vec![Arc::clone(&found.ingredient)];
                like.extend(names.like(&found.strange, 3).into_iter().filter(|i| i.key != found.ingredient.key));
                question = Some(Question {
                    doubt: Doubt::StrangeWord,
                    ask: format!(
                        "\u{201c}{}\u{201d} is not known here. Is it {name}?",
                        shown(&found.strange.join(" "))
                    ),
                    options: like.iter().map(|i| is_it(number, i)).collect(),
                });
            }
            line.ingredient = Some(found.ingredient);
        }
        (None, None) => {
            let like = names.like(&words, 4);
            question = Some(Question {
                doubt: Doubt::UnknownIngredient,
                ask: format!("\u{201c}{}\u{201d} is not in the pantry. Which ingredient is it?", shown(&rest.name)),
                options: like.iter().map(|i| is_it(number, i)).collect(),
            });
        }
    }
    if chosen.is_none()
        && let Some(second) = second_amount(&rest.name).or_else(|| second_thing(&rest.beside, names, settings))
    {
        let first = rest.name.strip_suffix(second).unwrap_or(&rest.name).trim_end_matches(['+', '&', ' ']);
        let parts = [tokens(first), tokens(second)].map(|w| names.find(&w, &[]));
        question = Some(Question {
            doubt: Doubt::TwoThings,
            ask: format!(
                "Two amounts on one line: \u{201c}{}\u{201d} comes after the first. Put it on a line of its own.",
                shown(second)
            ),
            options: parts.iter().flatten().map(|f| is_it(number, &f.ingredient)).collect(),
        });
    }
    let grams = answer.and_then(|a| a.grams).filter(|g| g.is_finite() && *g > 0.0 && *g <= 200_000.0);
    if let Some(grams) = grams {
        line.mass = Some(Mass::new_g(grams));
        line.why.push(format!("You said {} g.", plain(grams)));
    } else {
        match &amount {
            Some(amount) => weigh(number, amount, first_way(&words), &mut line, &mut question, settings, answer),
            None if rest.dusting => {
                line.left_out = Some("For dusting the board: not part of the dough.".to_owned());
                question = None;
            }
            None => {
                let name = line.ingredient.as_ref().map_or_else(|| rest.name.clone(), |i| i.name.to_lowercase());
                let ask = if rest.to_taste {
                    format!("How much {name} is to your taste?")
                } else {
                    format!("How much {name}?")
                };
                question.get_or_insert(Question { doubt: Doubt::NoAmount, ask, options: vec![] });
            }
        }
    }
    if rest.more && line.left_out.is_none() {
        line.why.push("What is for the board is not counted.".to_owned());
    }
    if line.mass.is_some_and(|m| m.g() < 0.01 || m.g() > 200_000.0) {
        line.mass = None;
        question.get_or_insert(Question {
            doubt: Doubt::Unlikely,
            ask: "That is outside 0.01 g to 200 kg. How many grams is it?".to_owned(),
            options: vec![],
        });
    }
    // A settled name with grams leaves nothing to ask.
    if chosen.is_some() && grams.is_some() {
        question = None;
    }
    if question.is_some() {
        line.confidence = 0.0;
    }
    line.question = question;
    Some(line)
}

fn blank() -> Understood {
    Understood {
        ingredient: None,
        mass: None,
        confidence: 1.0,
        why: vec![],
        note: String::new(),
        question: None,
        left_out: None,
    }
}

fn asks(_number: usize, doubt: Doubt, ask: String, options: Vec<Option_>) -> Understood {
    Understood { question: Some(Question { doubt, ask, options }), confidence: 0.0, ..blank() }
}

fn is_it(line: usize, ingredient: &Arc<Ingredient>) -> Option_ {
    Option_ {
        label: ingredient.name.to_string(),
        answer: LineAnswer { line, ingredient: Some(ingredient.key.to_string()), ..LineAnswer::default() },
    }
}

fn weighs(line: usize, grams: f64, says: &str) -> Option_ {
    Option_ {
        label: format!("{} g{says}", plain(grams)),
        answer: LineAnswer { line, grams: Some((grams * 1000.0).round() / 1000.0), ..LineAnswer::default() },
    }
}

fn two_numbers(
    number: usize,
    two: &TwoWays,
    answer: Option<&LineAnswer>,
    line: &str,
    names: &Names,
    pantry: &Pantry,
) -> Understood {
    let words = tokens(&line.replace(&two.text, " ").replace(" kg ", " ").replace(" g ", " "));
    let chosen = answer.and_then(|a| a.ingredient.as_deref()).and_then(|key| pantry.get(key)).cloned();
    let ingredient = chosen.or_else(|| names.find(&words, &[]).map(|f| f.ingredient));
    let grams = answer.and_then(|a| a.grams).filter(|g| g.is_finite() && *g > 0.0);
    if let (Some(ingredient), Some(grams)) = (&ingredient, grams) {
        let mut settled = blank();
        settled.ingredient = Some(Arc::clone(ingredient));
        settled.mass = Some(Mass::new_g(grams));
        settled.why.push(format!("You said {} g.", plain(grams)));
        return settled;
    }
    let large: f64 = two.text.replace(',', "").parse().unwrap_or(0.0);
    let small: f64 = two.text.replace(',', ".").parse().unwrap_or(0.0);
    let kilograms = line.to_lowercase().contains("kg");
    let factor = if kilograms { 1000.0 } else { 1.0 };
    let mut found = asks(
        number,
        Doubt::TwoNumbers,
        format!(
            "\u{201c}{}\u{201d} is {} to one reader and {} to another. How many grams is it?",
            two.text,
            plain(large),
            plain(small)
        ),
        vec![weighs(number, large * factor, ""), weighs(number, small * factor, "")],
    );
    found.ingredient = ingredient;
    found
}

/// Blanks, dashes and bullets made plain; numbering taken off.
fn tidy(text: &str) -> String {
    let plain: String = text
        .chars()
        .map(|c| match c {
            '\u{a0}' | '\u{2007}' | '\u{2009}' | '\u{200a}' | '\u{202f}' | '\t' => ' ',
            '\u{2044}' | '\u{2215}' => '/',
            '\u{2010}'..='\u{2012}' => '-',
            c => c,
        })
        .filter(|c| !c.is_control() && !matches!(c, '\u{200b}'..='\u{200f}' | '\u{feff}' | '\u{ad}'))
        .collect();
    let mut line = plain.trim();
    loop {
        let cut = line.trim_start_matches(|c: char| {
            c.is_whitespace()
                || matches!(
                    c,
                    '*' | '\u{2022}'
                        | '\u{25aa}'
                        | '\u{25cf}'
                        | '\u{25e6}'
                        | '\u{2610}'
                        | '\u{2611}'
                        | '\u{25a2}'
                        | '\u{b7}'
                        | '\u{2013}'
                        | '\u{2014}'
                        | '\u{2713}'
                )
                || c == '-'
        });
        let cut = cut.strip_prefix("[ ]").unwrap_or(cut);
        if cut == line {
            break;
        }
        line = cut;
    }
    // `3) 200 g flour`: a bracket after a first number is its numbering.
    let digits = line.find(|c: char| !c.is_ascii_digit()).unwrap_or(0);
    if digits > 0
        && digits <= 2
        && let Some(rest) = line[digits..].strip_prefix(')')
    {
        line = rest.trim_start();
    }
    line.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// The amount and the rest of a line: in front, after `of`, or at the end.
fn split(line: &str, settings: &ReadSettings) -> Result<(Option<Amounts>, String), TwoWays> {
    let mut cursor = Cursor::new(line);
    let lower = line.to_lowercase();
    // `zest of 2 lemons`, `juice of half a lemon`, `grated zest of 1 orange`, `yolks of 2 eggs`.
    for part in ["zest", "juice", "rind", "peel", "yolk", "yolks", "white", "whites"] {
        let Some(at) = lower.find(&format!("{part} of ")) else { continue };
        if at > 24 || !line.is_char_boundary(at + part.len() + 4) || lower.len() != line.len() {
            continue;
        }
        let (before, after) = (&line[..at], &line[at + part.len() + 4..]);
        let mut c = Cursor::new(after);
        if let Some(found) = amounts(&mut c, settings.cups)?
            && before.chars().all(|c| !c.is_ascii_digit())
        {
            // Both parts of one fruit are two things: the words stay for the name to be asked about.
            return Ok((Some(found), format!("{before}{} {part}", c.rest.trim())));
        }
    }
    if let Some(found) = amounts(&mut cursor, settings.cups)? {
        return Ok((Some(found), cursor.rest.trim_start_matches(['.', ':', ' ']).to_owned()));
    }
    // `Flour: 430 g`, `Butter - 225g`, `Eggs 2`, `Sugar (190 g)`.
    let starts = line.char_indices().filter(|&(i, c)| {
        (c.is_ascii_digit() || crate::units::vulgar(c).is_some())
            && !line[..i].ends_with(|p: char| p.is_alphanumeric() || matches!(p, '.' | ',' | '/'))
    });
    for (at, _) in starts {
        let mut c = Cursor::new(&line[at..]);
        let Some(found) = amounts(&mut c, settings.cups)? else { continue };
        let tail = c.rest.trim();
        if tail.is_empty() || tail.starts_with([',', '(', ')', ';']) {
            let head = line[..at].trim_end_matches([' ', ':', '-', '\u{2013}', '\u{2014}', '(', ',', '=', '.']);
            let head = head.strip_suffix(" x").unwrap_or(head);
            return Ok((Some(found), format!("{head} {}", tail.trim_start_matches(')'))));
        }
    }
    Ok((None, line.to_owned()))
}

/// Another ingredient with an amount of its own beside the name: `1 cup butter, 2 cups flour`.
fn second_thing<'a>(beside: &'a str, names: &Names, settings: &ReadSettings) -> Option<&'a str> {
    beside.split([',', ';']).map(str::trim).find(|part| {
        let mut c = Cursor::new(part);
        matches!(amounts(&mut c, settings.cups), Ok(Some(_)))
            && names.find(&tokens(c.rest), &[]).is_some_and(|found| found.whole)
    })
}

/// The rest of a name from a second amount on: `eggs + 1 yolk`, `egg and 2 yolks`.
fn second_amount(name: &str) -> Option<&str> {
    let joints = name.char_indices().filter_map(|(i, c)| match c {
        '+' | '&' => Some(i + 1),
        ' ' => ["and ", "plus "].iter().find(|w| name[i + 1..].starts_with(**w)).map(|w| i + 1 + w.len()),
        _ => None,
    });
    joints.map(|i| name[i..].trim_start()).find(|tail| {
        tail.starts_with(|c: char| c.is_ascii_digit() || crate::units::vulgar(c).is_some())
            || ["one ", "two ", "three ", "an "].iter().any(|w| tail.starts_with(w))
    })
}

/// The name and what stands beside it, with the words that are no part of either taken out.
fn take_apart(text: &str) -> Rest {
    let mut text = text.to_owned();
    let lower = text.to_lowercase();
    let dusting = ["for dusting", "for the board", "for rolling", "for flouring", "for sprinkling", "for greasing"]
        .iter()
        .any(|w| lower.contains(w));
    let more =
        ["plus more", "plus extra", "and more", "plus some", "more for", "extra for"].iter().any(|w| lower.contains(w));
    if lower.len() == text.len() {
        for cut in [
            ", plus more",
            " plus more",
            ", plus extra",
            " plus extra",
            ", and more",
            ", plus some",
            " plus some",
            " (plus more",
            " (plus extra",
            ", more for",
            ", extra for",
            ", for dusting",
            " for dusting",
            ", for the board",
            " for the board",
            ", for rolling",
            " for rolling",
            ", for sprinkling",
            " for sprinkling",
            ", for greasing",
            " for greasing",
            ", to taste",
            " to taste",
            " such as ",
            ", such as",
            " (such as",
            ", like ",
            " e.g.",
            " (e.g.",
            ", as needed",
            " as needed",
        ] {
            if let Some(at) = text.to_lowercase().find(cut)
                && text.is_char_boundary(at)
            {
                text.truncate(at);
            }
        }
    }
    let mut name = String::new();
    let mut beside = String::new();
    let mut depth = 0_usize;
    let mut after = false;
    for c in text.chars() {
        match c {
            '(' | '[' => {
                depth += 1;
                beside.push(' ');
            }
            ')' | ']' => depth = depth.saturating_sub(1),
            ',' | ';' if depth == 0 => {
                after = true;
                beside.push_str(if beside.trim().is_empty() { "" } else { ", " });
            }
            c if depth > 0 || after => beside.push(c),
            c => name.push(c),
        }
    }
    // A dash with blanks round it begins a remark.
    if let Some(at) = name.find(" - ").or_else(|| name.find(" \u{2013} ")) {
        let remark = name[at..].trim_start_matches([' ', '-', '\u{2013}']).to_owned();
        name.truncate(at);
        beside = format!("{remark} {beside}");
    }
    if name.trim().is_empty() {
        (name, beside) = (beside, String::new());
    }
    Rest {
        name: name.trim().to_owned(),
        beside: beside.trim().to_owned(),
        dusting,
        more,
        to_taste: lower.contains("to taste"),
    }
}

fn note_of(rest: &Rest) -> String {
    let note: String = rest.beside.split_whitespace().collect::<Vec<_>>().join(" ");
    note.trim_matches([',', ';', ' ', '.']).chars().take(80).collect()
}

/// The weight of the amounts, with what it rests on.
fn weigh(
    number: usize,
    amounts: &Amounts,
    first_way: Option<CupWay>,
    line: &mut Understood,
    question: &mut Option<Question>,
    settings: &ReadSettings,
    answer: Option<&LineAnswer>,
) {
    let Some(ingredient) = line.ingredient.clone() else {
        // Weights are known without knowing what they are of.
        if let Some(grams) = by_weight(amounts) {
            line.mass = Some(Mass::new_g(grams));
        }
        return;
    };
    let name = ingredient.name.to_lowercase();
    let way = amounts.way.or(first_way).or_else(|| stated_way(&line.note)).unwrap_or(settings.way);
    let mut grams = 0.0;
    for (sign, amount) in &amounts.parts {
        let middle = f64::midpoint(amount.low, amount.high);
        match one_weighs(amount, &ingredient, way, amounts.size, settings, &mut line.why) {
            Ok((each, sure)) => {
                grams += sign * middle * each;
                line.confidence *= sure;
            }
            Err(doubt) => {
                let ask = match &amount.measure {
                    Measure::Vague(word) => format!("How many grams is a {word} of {name}?"),
                    Measure::Container(word) => format!("How many grams of {name} are in a {word}?"),
                    Measure::Each => format!("How many grams is {} {name}?", amount.said()),
                    Measure::Stick => format!("How many grams is a stick of {name}?"),
                    Measure::Mass(..) | Measure::Volume(..) => {
                        format!("How many grams is {} of {name}?", amount.said())
                    }
                };
                question.get_or_insert(Question { doubt, ask, options: vec![] });
                return;
            }
        }
        if amount.high > amount.low {
            line.confidence *= 0.85;
            line.why.push(format!("Of {} the middle is taken.", amount.said()));
        }
    }
    for word in &amounts.unsure {
        line.confidence *= if *word == "heaped" { 0.6 } else { 0.85 };
        line.why.push(format!("It says {word}; a level measure is taken."));
    }
    let mut weighed_first = amounts.parts.iter().all(|(_, a)| matches!(a.measure, Measure::Mass(..)));
    let mut said_first = amounts.parts.iter().map(|(_, a)| a.said()).collect::<Vec<_>>().join(" and ");
    let mut ounces = amounts.parts.iter().any(|(_, a)| matches!(a.measure, Measure::Mass(_, "oz" | "lb")));
    // The same amount said another way must agree; a weight is then what counts, grams before ounces.
    for other in &amounts.also {
        let mut ways: Vec<CupWay> = vec![way];
        ways.extend(CupWay::ALL);
        let mut quiet = Vec::new();
        let Ok((each, _)) = one_weighs(other, &ingredient, way, amounts.size, settings, &mut quiet) else { continue };
        let second = f64::midpoint(other.low, other.high) * each;
        let weighed = |m: &Measure| matches!(m, Measure::Mass(..));
        // A cup filled another way may agree where this one does not.
        let agreeing = ways.iter().find_map(|&w| {
            let first = total(amounts, &ingredient, w, settings)?;
            let second = f64::midpoint(other.low, other.high)
                * one_weighs(other, &ingredient, w, amounts.size, settings, &mut Vec::new()).ok()?.0;
            ((first - second).abs() <= AGREE * first.max(second)).then_some(w)
        });
        match agreeing {
            Some(w) => {
                if w != way && ingredient.household.depends_on_way() {
                    line.why.push(format!("Its weight is that of a cup {}.", w.word()));
                }
                if weighed(&other.measure)
                    && (!weighed_first || matches!(other.measure, Measure::Mass(_, "g" | "kg")) && ounces)
                {
                    (weighed_first, ounces) = (true, matches!(other.measure, Measure::Mass(_, "oz" | "lb")));
                    line.why.push(format!("{said_first} and {} agree; the weight counts.", other.said()));
                    grams = second;
                    line.confidence = line.confidence.max(0.97);
                    said_first = other.said();
                } else {
                    line.why.push(format!("{} says the same.", other.said()));
                    line.confidence = line.confidence.max(0.95);
                }
            }
            None if answer.is_some_and(|a| a.as_read) => {
                line.why.push("You said it is right as it was read.".to_owned())
            }
            None => {
                let apart = 100.0 * (second / grams - 1.0);
                question.get_or_insert(Question {
                    doubt: Doubt::Disagrees,
                    ask: format!(
                        "{said_first} of {name} is {} g, but the line also says {} ({apart:+.0} %). Which is right?",
                        plain(grams),
                        other.said()
                    )
                    .replace('-', "\u{2212}"),
                    options: vec![
                        weighs(number, grams, &format!(" ({said_first})")),
                        weighs(number, second, &format!(" ({})", other.said())),
                    ],
                });
                return;
            }
        }
    }
    if grams <= 0.0 {
        question.get_or_insert(Question {
            doubt: Doubt::NoAmount,
            ask: format!("That leaves nothing of the {name}. How many grams is it?"),
            options: vec![],
        });
        return;
    }
    line.mass = Some(Mass::new_g(grams));
}

fn total(amounts: &Amounts, ingredient: &Ingredient, way: CupWay, settings: &ReadSettings) -> Option<f64> {
    let mut sum = 0.0;
    for (sign, a) in &amounts.parts {
        sum += sign
            * f64::midpoint(a.low, a.high)
            * one_weighs(a, ingredient, way, amounts.size, settings, &mut Vec::new()).ok()?.0;
    }
    Some(sum)
}

fn by_weight(amounts: &Amounts) -> Option<f64> {
    let mut sum = 0.0;
    for (sign, a) in &amounts.parts {
        let Measure::Mass(g, _) = a.measure else { return None };
        sum += sign * f64::midpoint(a.low, a.high) * g;
    }
    (sum > 0.0).then_some(sum)
}

/// `1 cup sifted flour` is sifted into the cup; `1 cup flour, sifted` is not.
fn first_way(words: &[String]) -> Option<CupWay> {
    match words.first().map(String::as_str) {
        Some("sifted") => Some(CupWay::Sifted),
        Some("scooped") => Some(CupWay::Scooped),
        Some("spooned") => Some(CupWay::Spooned),
        _ => None,
    }
}

/// A way of filling the cup that the words beside the name state.
fn stated_way(note: &str) -> Option<CupWay> {
    let words = tokens(note);
    let says = |w: &str| words.iter().any(|x| x == w);
    if says("spooned") {
        Some(CupWay::Spooned)
    } else if says("packed") {
        Some(CupWay::Packed)
    } else if says("scooped") {
        Some(CupWay::Scooped)
    } else {
        None
    }
}

/// Grams of one of a measure, and how sure that is.
fn one_weighs(
    amount: &Amount,
    ingredient: &Ingredient,
    way: CupWay,
    size: Option<&'static str>,
    settings: &ReadSettings,
    why: &mut Vec<String>,
) -> Result<(f64, f64), Doubt> {
    let name = ingredient.name.to_lowercase();
    match &amount.measure {
        Measure::Mass(g, word) => {
            if *word != "g" && *word != "kg" {
                why.push(format!("{} is {} g.", amount.said(), plain(g * f64::midpoint(amount.low, amount.high))));
            }
            Ok((*g, 1.0))
        }
        Measure::Volume(ml, word) => {
            let of_it = amount.high * ml;
            let brown = ingredient.kind == Kind::Sugar && ingredient.household.cup_packed.is_some();
            // Brown sugar is packed unless somebody says otherwise: that is how recipes mean it.
            let way = if brown { CupWay::Packed } else { way };
            let Some(weight) = ingredient.household.of_volume(of_it, way) else { return Err(Doubt::NoWeight) };
            let each = weight.g() / amount.high;
            let cups = matches!(*word, "cup" | "pint" | "quart" | "metric cup" | "dL" | "L" | "mL" | "cL" | "fl oz");
            if matches!(*word, "pinch" | "dash" | "smidgen" | "drop") {
                why.push(format!("A {word} of {name} is taken as {:.2} g.", each));
                return Ok((each, 0.75));
            }
            let by_way = ingredient.household.depends_on_way() && of_it > 45.0;
            why.push(if by_way || brown {
                format!("A {word} of {name}, {}, is {} g.", way.word(), plain(each))
            } else {
                format!("A {word} of {name} is {} g.", plain(each))
            });
            Ok((
                each,
                if by_way {
                    0.75
                } else if cups {
                    0.9
                } else {
                    0.92
                },
            ))
        }
        Measure::Stick => match ingredient.household.stick {
            Some(g) => {
                why.push(format!("A stick of {name} is {} g.", plain(g)));
                Ok((g, 0.97))
            }
            None => Err(Doubt::NoWeight),
        },
        Measure::Each => {
            let class = settings.eggs.sized(size);
            if let Some(part) = class.part(&ingredient.key) {
                why.push(format!(
                    "One {} of size {} is {} g.",
                    name.replace("whole ", ""),
                    class.word(),
                    plain(part.g())
                ));
                return Ok((part.g(), 0.95));
            }
            match ingredient.household.each {
                Some(g) => {
                    why.push(format!("That of one is taken as {} g.", plain(g)));
                    Ok((g, 0.7))
                }
                None => Err(Doubt::NoAmount),
            }
        }
        Measure::Container(_) => Err(Doubt::NoWeight),
        Measure::Vague(_) => Err(Doubt::NoAmount),
    }
}

impl EggClass {
    /// The class that a size word means where eggs are sold by this one's classes.
    fn sized(self, word: Option<&str>) -> Self {
        let eu = matches!(self, Self::EuSmall | Self::EuMedium | Self::EuLarge | Self::EuExtraLarge);
        match (word, eu) {
            (Some("small"), true) => Self::EuSmall,
            (Some("medium"), true) => Self::EuMedium,
            (Some("large" | "big"), true) => Self::EuLarge,
            (Some("extra large" | "xl" | "jumbo"), true) => Self::EuExtraLarge,
            (Some("small"), false) => Self::UsSmall,
            (Some("medium"), false) => Self::UsMedium,
            (Some("large" | "big"), false) => Self::UsLarge,
            (Some("extra large" | "xl"), false) => Self::UsExtraLarge,
            (Some("jumbo"), false) => Self::UsJumbo,
            _ => self,
        }
    }
}

fn shown(text: &str) -> String {
    text.chars().filter(|c| !c.is_control()).take(40).collect()
}

pub(super) fn plain(v: f64) -> String {
    let text = if v >= 100.0 { format!("{v:.0}") } else { format!("{v:.1}") };
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}
