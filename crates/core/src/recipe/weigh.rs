//! What the amounts of a line weigh, with what that rests on, and whether two of them agree.

use super::ReadSettings;
use super::amount::{Amount, Amounts, Measure};
use super::question::{LineAnswer, LineDoubt, Question, Understood, weighs};
use super::reason::{Ask, ReadBy};
use super::words::tokens;
use crate::dough::{CupWay, EggClass, Ingredient, Kind};
use crate::units::Mass;

/// Two amounts of one line must agree within this. The project's own rule.
const AGREE: f64 = 0.10;

/// Under so many grams a kitchen scale's rounding to whole ones, and half a gram of the spoon, pass. Our own choice.
const FEW_G: f64 = 5.0;
const ROUNDS_G: f64 = 1.0;

/// The weight of the amounts, with what it rests on.
pub(super) fn weigh(
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
            // What is counted or comes in a container is weighed in brackets beside it: `1 can (397 g)`, `5 dried figs (100 g)`. Of
            // several containers nobody can tell whether each or all of them weigh so.
            Err(_)
                if amounts.parts.len() == 1
                    && (amount.high <= 1.0 || matches!(amount.measure, Measure::Each))
                    && beside_grams(amounts).is_some() =>
            {
                line.mass = beside_grams(amounts).map(Mass::new_g);
                if let Some(other) = amounts.also.iter().find(|a| matches!(a.measure, Measure::Mass(..))) {
                    line.why.push(ReadBy::WeightCounts { said: amount.said(), other: other.said() });
                }
                line.confidence *= 0.95;
                return;
            }
            Err(doubt) => {
                question.get_or_insert(Question { doubt, ask: grams_of(amount, name), options: vec![] });
                return;
            }
        }
        if amount.high > amount.low {
            line.confidence *= 0.85;
            line.why.push(ReadBy::MiddleTaken { of: amount.said() });
        }
    }
    for word in &amounts.unsure {
        line.confidence *= if *word == "heaped" { 0.6 } else { 0.85 };
        line.why.push(ReadBy::LevelTaken { word });
    }
    match said_again(number, amounts, &ingredient, way, grams, line, settings, answer) {
        Ok(counts) => grams = counts,
        Err(doubt) => {
            question.get_or_insert(doubt);
            return;
        }
    }
    if grams <= 0.0 {
        question.get_or_insert(Question {
            doubt: LineDoubt::NoAmount,
            ask: Ask::NothingLeft { name },
            options: vec![],
        });
        return;
    }
    line.mass = Some(Mass::new_g(grams));
}

/// What is asked of an amount that says nothing of a weight.
fn grams_of(amount: &Amount, name: String) -> Ask {
    match &amount.measure {
        Measure::Vague(word)
            if matches!(word.as_str(), "some" | "few" | "little" | "couple" | "bit" | "little bit") =>
        {
            Ask::GramsOfThat { name }
        }
        Measure::Vague(word) => Ask::GramsOfAMeasure { word: word.clone(), name },
        Measure::Container(word) => Ask::GramsInAContainer { word: word.clone(), name },
        Measure::Each => Ask::GramsEach { said: amount.said(), name },
        Measure::Stick => Ask::GramsOfAStick { name },
        Measure::Mass(..) | Measure::Volume(..) => Ask::GramsOf { said: amount.said(), name },
    }
}

/// The way of filling a cup by which `other` says the same as the amounts, the line's own way first.
fn agreeing_way(
    amounts: &Amounts,
    other: &Amount,
    ingredient: &Ingredient,
    way: CupWay,
    settings: &ReadSettings,
) -> Option<CupWay> {
    std::iter::once(way).chain(CupWay::ALL).find(|&w| {
        let first = total(amounts, ingredient, w, settings);
        let second = one_weighs(other, ingredient, w, amounts.size, settings, &mut Vec::new());
        first.zip(second.ok()).is_some_and(|(first, (each, _))| {
            let second = f64::midpoint(other.low, other.high) * each;
            let rounding = if first.max(second) < FEW_G { ROUNDS_G } else { 0.0 };
            (first - second).abs() <= (AGREE * first.max(second)).max(rounding)
        })
    })
}

/// The grams that count where the same amount is said another way, too: those must agree, and a weight counts, grams before ounces.
#[expect(clippy::too_many_arguments, reason = "what a line holds, and what it is read by")]
fn said_again(
    number: usize,
    amounts: &Amounts,
    ingredient: &Ingredient,
    way: CupWay,
    mut grams: f64,
    line: &mut Understood,
    settings: &ReadSettings,
    answer: Option<&LineAnswer>,
) -> Result<f64, Question> {
    let is_weight = |m: &Measure| matches!(m, Measure::Mass(..));
    let mut weighed = amounts.parts.iter().all(|(_, a)| is_weight(&a.measure));
    let mut said = amounts.parts.iter().map(|(_, a)| a.said()).collect::<Vec<_>>().join(" and ");
    let mut ounces = amounts.parts.iter().any(|(_, a)| matches!(a.measure, Measure::Mass(_, "oz" | "lb")));
    for other in &amounts.also {
        let Ok((each, _)) = one_weighs(other, ingredient, way, amounts.size, settings, &mut Vec::new()) else {
            continue;
        };
        let second = f64::midpoint(other.low, other.high) * each;
        let Some(agreeing) = agreeing_way(amounts, other, ingredient, way, settings) else {
            if answer.is_some_and(|a| a.as_read) {
                line.why.push(ReadBy::YouSaidAsRead);
                continue;
            }
            let (mass, apart) = (Mass::new_g(grams), second / grams - 1.0);
            let name = ingredient.name.to_lowercase();
            let ask = Ask::Disagrees { said: said.clone(), name, mass, other: other.said(), apart };
            let options = vec![weighs(number, grams, Some(said)), weighs(number, second, Some(other.said()))];
            return Err(Question { doubt: LineDoubt::Disagrees, ask, options });
        };
        if agreeing != way && ingredient.household.depends_on_way() {
            line.why.push(ReadBy::WeightOfACup { way: agreeing });
        }
        let in_grams = matches!(other.measure, Measure::Mass(_, "g" | "kg"));
        if is_weight(&other.measure) && (!weighed || in_grams && ounces) {
            (weighed, ounces) = (true, matches!(other.measure, Measure::Mass(_, "oz" | "lb")));
            line.why.push(ReadBy::WeightCounts { said, other: other.said() });
            grams = second;
            line.confidence = line.confidence.max(0.97);
            said = other.said();
        } else {
            line.why.push(ReadBy::SaysTheSame { other: other.said() });
            line.confidence = line.confidence.max(0.95);
        }
    }
    Ok(grams)
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

/// The weight that is said beside an amount, g; grams before ounces.
fn beside_grams(amounts: &Amounts) -> Option<f64> {
    let grams = |a: &Amount| match a.measure {
        Measure::Mass(each, unit) => Some((matches!(unit, "g" | "kg"), f64::midpoint(a.low, a.high) * each)),
        _ => None,
    };
    amounts.also.iter().filter_map(grams).max_by_key(|(metric, _)| *metric).map(|(_, g)| g)
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
pub(super) fn first_way(words: &[String]) -> Option<CupWay> {
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
    why: &mut Vec<ReadBy>,
) -> Result<(f64, f64), LineDoubt> {
    let name = ingredient.name.to_lowercase();
    match &amount.measure {
        Measure::Mass(g, word) => {
            if *word != "g" && *word != "kg" {
                let mass = Mass::new_g(g * f64::midpoint(amount.low, amount.high));
                why.push(ReadBy::Weighs { said: amount.said(), mass });
            }
            Ok((*g, 1.0))
        }
        Measure::Volume(ml, word) => {
            if amount.high <= 0.0 {
                return Ok((0.0, 1.0));
            }
            let of_it = amount.high * ml;
            let brown = ingredient.kind == Kind::Sugar && ingredient.household.cup_packed.is_some();
            // Brown sugar is packed unless somebody says otherwise: that is how recipes mean it.
            let way = if brown { CupWay::Packed } else { way };
            let Some(weight) = ingredient.household.of_volume(of_it, way) else { return Err(LineDoubt::NoWeight) };
            let each = weight.g() / amount.high;
            let cups = matches!(*word, "cup" | "pint" | "quart" | "metric cup" | "dL" | "L" | "mL" | "cL" | "fl oz");
            if matches!(*word, "pinch" | "dash" | "smidgen" | "drop" | "knife tip") {
                why.push(ReadBy::PinchTakenAs { word, name, mass: Mass::new_g(each) });
                return Ok((each, 0.75));
            }
            let by_way = ingredient.household.depends_on_way() && of_it > 45.0;
            let told = (by_way || brown).then_some(way);
            why.push(ReadBy::MeasureWeighs { word, name, way: told, mass: Mass::new_g(each) });
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
                why.push(ReadBy::StickWeighs { name, mass: Mass::new_g(g) });
                Ok((g, 0.97))
            }
            None => Err(LineDoubt::NoWeight),
        },
        Measure::Each => {
            let class = settings.eggs.sized(size);
            if let Some(part) = class.part(&ingredient.key) {
                why.push(ReadBy::EggWeighs { name: name.replace("whole ", ""), class, mass: part });
                return Ok((part.g(), 0.95));
            }
            match ingredient.household.each {
                Some(g) => {
                    why.push(ReadBy::OneTakenAs { mass: Mass::new_g(g) });
                    Ok((g, 0.7))
                }
                None => Err(LineDoubt::NoAmount),
            }
        }
        Measure::Container(_) => Err(LineDoubt::NoWeight),
        Measure::Vague(_) => Err(LineDoubt::NoAmount),
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
