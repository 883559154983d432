//! One line of a recipe: what it says, what that weighs, how sure that is and why, and what it asks.

use super::ReadSettings;
use super::amount::{Amount, Measure, TwoWays};
use super::names::{Found, Names};
use super::question::{LineAnswer, LineDoubt, Question, SettleOption, Understood, weighs};
use super::reason::{Ask, LeftOut, ReadBy, Settle};
use super::split::{Rest, note_of, second_amount, second_thing, split, take_apart, tidy};
use super::spoken::spoken;
use super::weigh::{first_way, weigh};
use super::words::{measures_no_food, tokens};
use crate::dough::{Ingredient, Pantry};
use crate::units::Mass;
use std::sync::Arc;

/// The longest line that is read.
const LONGEST_LINE: usize = 300;
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
        return Some(asks(LineDoubt::UnknownIngredient, Ask::LineTooLong { most: LONGEST_LINE }, vec![]));
    }
    let line = corrected(&spoken(&tidy(text)).text, settings);
    if answer.is_some_and(|a| a.leave_out) {
        let mut line = blank();
        line.left_out = Some(LeftOut::ByYou);
        return Some(line);
    }
    let (mut amount, rest) = match split(&line, settings) {
        Ok(found) => found,
        Err(two) => return Some(two_numbers(number, &two, answer, &line, names, pantry)),
    };
    let rest = take_apart(&rest);
    if let Some(amount) = &mut amount {
        amount.also.extend(weights_beside(&rest.beside, settings));
    }
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
    if chosen.is_none() && ["corn", "flour"].iter().all(|w| words.iter().any(|x| x == w)) {
        return Some(corn_flour(number, &rest, pantry));
    }
    if chosen.is_none() && found.is_none() && amount.is_none() {
        return None;
    }
    if amount.is_some() && chosen.is_none() && found.is_none() && measures_no_food(&words) {
        let mut line = blank();
        line.left_out = Some(LeftOut::NoIngredient);
        return Some(line);
    }
    let mut line = blank();
    line.note = note_of(&rest);
    let mut question = match (chosen, found) {
        (Some(chosen), _) => {
            line.ingredient = Some(Arc::clone(chosen));
            line.why.push(ReadBy::YouSaidItIs { name: chosen.name.to_lowercase() });
            None
        }
        (None, Some(found)) => {
            let plain = words.iter().chain(&beside).any(|w| w == "unsalted");
            known_as(number, found, plain, names, &mut line)
        }
        (None, None) => {
            let like = names.like(&words, 4);
            Some(Question {
                doubt: LineDoubt::UnknownIngredient,
                ask: Ask::NotInThePantry { name: shown(&rest.name) },
                options: like.iter().map(|i| is_it(number, i)).collect(),
            })
        }
    };
    if chosen.is_none() {
        question = several_foods(number, &rest, &words, &beside, names, settings).or(question);
    }
    let grams = answer.and_then(|a| a.grams).filter(|g| g.is_finite() && *g > 0.0 && *g <= 200_000.0);
    if let Some(grams) = grams {
        line.mass = Some(Mass::new_g(grams));
        line.why.push(ReadBy::YouSaidGrams { mass: Mass::new_g(grams) });
    } else {
        match &amount {
            Some(amount) if !rest.dusting || rest.more => {
                weigh(number, amount, first_way(&words), &mut line, &mut question, settings, answer);
            }
            None if !rest.dusting => {
                let name = line.ingredient.as_ref().map_or_else(|| rest.name.clone(), |i| i.name.to_lowercase());
                let ask = Ask::HowMuch { name, to_taste: rest.to_taste };
                question.get_or_insert(Question { doubt: LineDoubt::NoAmount, ask, options: vec![] });
            }
            dusts => {
                line.left_out = Some(if dusts.is_some() { LeftOut::ForTheFinish } else { LeftOut::ForTheBoard });
                question = None;
            }
        }
    }
    if rest.more && line.left_out.is_none() {
        line.why.push(ReadBy::BoardNotCounted);
    }
    if line.mass.is_some_and(|m| m.g() < 0.01 || m.g() > 200_000.0) {
        line.mass = None;
        question.get_or_insert(Question { doubt: LineDoubt::Unlikely, ask: Ask::OutsideAnyDough, options: vec![] });
    }
    if minus_before(text) && line.left_out.is_none() && grams.is_none() && !answer.is_some_and(|a| a.as_read) {
        question.get_or_insert(Question {
            doubt: LineDoubt::TwoNumbers,
            ask: Ask::MinusBefore,
            options: vec![SettleOption {
                label: Settle::ADash,
                answer: LineAnswer { line: number, as_read: true, ..LineAnswer::default() },
            }],
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

/// Whether a line begins with a minus, or a dash that stands like one.
fn minus_before(text: &str) -> bool {
    text.trim_start()
        .strip_prefix(['-', '\u{2212}'])
        .is_some_and(|rest| rest.starts_with(|c: char| c.is_ascii_digit() || crate::units::vulgar(c).is_some()))
}

/// In some kitchens it is the starch, in others the ground grain.
fn corn_flour(number: usize, rest: &Rest, pantry: &Pantry) -> Understood {
    let keys = ["cornstarch", "flour-maize"];
    let options: Vec<_> = keys.iter().filter_map(|k| pantry.get(k)).map(|i| is_it(number, i)).collect();
    let mut line = asks(LineDoubt::TwoThings, Ask::CornFlour, options);
    line.ingredient = pantry.get(keys[0]).cloned();
    line.note = note_of(rest);
    line
}

/// Takes a name of the pantry for the line, and asks where it was not the whole of what the line says.
fn known_as(number: usize, found: Found, unsalted: bool, names: &Names, line: &mut Understood) -> Option<Question> {
    let name = found.ingredient.name.to_lowercase();
    let question = if found.whole {
        line.why.push(ReadBy::ReadAs { name });
        if matches!(found.ingredient.key.as_ref(), "butter") && !unsalted {
            line.confidence *= 0.9;
            line.why.push(ReadBy::TakenAsUnsalted);
        }
        None
    } else if let Some(other) = found.also.first() {
        Some(Question {
            doubt: LineDoubt::TwoThings,
            ask: Ask::TwoThings { first: name, other: other.name.to_lowercase() },
            options: [&found.ingredient, other].map(|i| is_it(number, i)).to_vec(),
        })
    } else {
        let mut like = vec![Arc::clone(&found.ingredient)];
        like.extend(names.like(&found.strange, 3).into_iter().filter(|i| i.key != found.ingredient.key));
        Some(Question {
            doubt: LineDoubt::StrangeWord,
            ask: Ask::NotKnown { word: shown(&found.strange.join(" ")), name },
            options: like.iter().map(|i| is_it(number, i)).collect(),
        })
    };
    line.ingredient = Some(found.ingredient);
    question
}

/// Asks where one line names several foods: by a choice, a list, or a second amount.
fn several_foods(
    number: usize,
    rest: &Rest,
    words: &[String],
    beside: &[String],
    names: &Names,
    settings: &ReadSettings,
) -> Option<Question> {
    if let Some(all) = either(words, beside, names).or_else(|| listed(words, &rest.beside, names)) {
        return Some(Question {
            doubt: LineDoubt::TwoThings,
            ask: Ask::Several { names: all.iter().map(|i| i.name.to_string()).collect() },
            options: all.iter().map(|i| is_it(number, i)).collect(),
        });
    }
    let second = second_amount(&rest.name).or_else(|| second_thing(&rest.beside, names, settings))?;
    let first = rest.name.strip_suffix(second).unwrap_or(&rest.name).trim_end_matches(['+', '&', ' ']);
    let parts = [tokens(first), tokens(second)].map(|w| names.find(&w, &[]));
    Some(Question {
        doubt: LineDoubt::TwoThings,
        ask: Ask::TwoAmounts { second: shown(second) },
        options: parts.iter().flatten().map(|f| is_it(number, &f.ingredient)).collect(),
    })
}

/// Phrases by which somebody takes back what they have just said.
const CORRECTS: [&str; 8] =
    [", i mean ", " i mean ", ", i meant ", ", sorry, ", ", make that ", ", no, ", ", or rather ", " or rather "];

/// A line without what its writer takes back: the amount and the food that are named last count, since the line says so.
fn corrected(line: &str, settings: &ReadSettings) -> String {
    let lower = line.to_lowercase();
    let found = CORRECTS.iter().filter_map(|p| lower.find(p).map(|at| (at, at + p.len()))).min();
    let Some((at, end)) = found.filter(|_| lower.len() == line.len()) else { return line.to_owned() };
    let (before, after) = (&line[..at], line[end..].trim_start_matches([',', ' ']));
    let Ok((Some(_), name)) = split(before, settings) else { return line.to_owned() };
    match split(after, settings) {
        // `1 cup, I mean 2 cups, of flour`: another amount, and the name where the later one has none.
        Ok((Some(_), own)) if own.trim().is_empty() => format!("{after} {name}"),
        Ok((Some(_), _)) => after.to_owned(),
        // `1 cup salted, I mean unsalted, butter`: another food of the same amount.
        _ => {
            let amount = before.strip_suffix(name.trim()).unwrap_or(before);
            format!("{amount} {}", after.replacen(", ", " ", 1))
        }
    }
}

/// Two foods between which a line leaves the choice: `butter or margarine`, `salted, or unsalted, butter`.
fn either(words: &[String], beside: &[String], names: &Names) -> Option<Vec<Arc<Ingredient>>> {
    let all: Vec<String> = words.iter().chain(beside).cloned().collect();
    let at = all.iter().position(|w| w == "or")?;
    if at == 0 || at + 1 >= all.len() {
        return None;
    }
    let without = |left_out: usize| -> Option<Arc<Ingredient>> {
        let kept: Vec<String> =
            all.iter().enumerate().filter(|(i, _)| *i != at && *i != left_out).map(|(_, w)| w.clone()).collect();
        names.find(&kept, &[]).filter(|f| f.whole).map(|f| f.ingredient)
    };
    let (first, second) = (without(at + 1)?, without(at - 1)?);
    (first.key != second.key).then(|| vec![first, second])
}

/// Several foods in a row on one line: `eggs, vanilla, baking powder`.
fn listed(words: &[String], beside: &str, names: &Names) -> Option<Vec<Arc<Ingredient>>> {
    let mut all = vec![names.find(words, &[]).filter(|f| f.whole)?.ingredient];
    for part in beside.split([',', ';']).map(tokens).filter(|p| !p.is_empty()) {
        if let Some(other) = names.find(&part, &[]).filter(|f| f.whole)
            && all.iter().all(|i| i.key != other.ingredient.key)
        {
            all.push(other.ingredient);
        }
    }
    (all.len() > 1).then_some(all)
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

fn asks(doubt: LineDoubt, ask: Ask, options: Vec<SettleOption>) -> Understood {
    Understood { question: Some(Question { doubt, ask, options }), confidence: 0.0, ..blank() }
}

fn is_it(line: usize, ingredient: &Arc<Ingredient>) -> SettleOption {
    SettleOption {
        label: Settle::Is { name: ingredient.name.to_string() },
        answer: LineAnswer { line, ingredient: Some(ingredient.key.to_string()), ..LineAnswer::default() },
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
        settled.why.push(ReadBy::YouSaidGrams { mass: Mass::new_g(grams) });
        return settled;
    }
    let large: f64 = two.text.replace(',', "").parse().unwrap_or(0.0);
    let small: f64 = two.text.replace(',', ".").parse().unwrap_or(0.0);
    let kilograms = line.to_lowercase().contains("kg");
    let factor = if kilograms { 1000.0 } else { 1.0 };
    let mut found = asks(
        LineDoubt::TwoNumbers,
        Ask::TwoNumbers { text: two.text.clone(), large, small },
        vec![weighs(number, large * factor, None), weighs(number, small * factor, None)],
    );
    found.ingredient = ingredient;
    found
}

fn shown(text: &str) -> String {
    text.chars().filter(|c| !c.is_control()).take(40).collect()
}

/// Weights that stand after the name, in brackets or behind a comma: `2 cups flour (240 g)`.
fn weights_beside(beside: &str, settings: &ReadSettings) -> Vec<Amount> {
    let weight = |part: &str| match split(part.trim(), settings) {
        Ok((Some(amounts), rest)) if rest.trim().is_empty() => match amounts.parts.as_slice() {
            [(_, one)] if matches!(one.measure, Measure::Mass(..)) => Some(one.clone()),
            _ => None,
        },
        _ => None,
    };
    beside.split([',', ';', '/', '(', ')']).filter_map(weight).collect()
}
