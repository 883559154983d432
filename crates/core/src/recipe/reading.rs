//! A whole recipe: its lines sorted into ingredients, headings and notes, weighed, doubted where it must be, and turned into
//! a formula once nothing is open.

use super::ReadSettings;
use super::line::read_line;
use super::method::{ReadMethod, method};
use super::names::Names;
use super::pages::{LineInFile, Pages, Source};
use super::question::{LineAnswer, LineDoubt, Question, SettleOption, Understood};
use super::reason::{Ask, LeftOut, ReadBy, Settle};
use super::speech::{Told, told};
use super::split::two_of;
use super::tongues;
use super::words::{heads_ingredients, heads_method, instructs, not_the_dough, tokens};
use super::yields::{pieces_of, yields_of};
use crate::dough::{Formula, Kind, LineInput, Pantry, Ratio, RecipeSays, Role};
use crate::error::{InputError, InputErrors};
use crate::units::{Mass, Share};

/// Largest text that is read, bytes.
pub const MOST_RECIPE_BYTES: usize = 200_000;
/// Lines that are read; what stands after them is told, not dropped in silence.
pub const MOST_RECIPE_LINES: usize = 200;

/// What one line of the text turned out to be.
#[derive(Debug, Clone, PartialEq)]
#[expect(clippy::large_enum_variant, reason = "a recipe has a few dozen lines, most of them ingredients")]
pub enum LineKind {
    /// An ingredient, understood or asking.
    Ingredient(Understood),
    /// The heading of a section.
    Heading,
    /// Something else: a title, a yield, a step.
    Note,
}

/// A line of the text as read.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadLine {
    /// Its number, from 1.
    pub number: usize,
    /// As written.
    pub text: String,
    /// What it is.
    pub kind: LineKind,
}

/// How surely a line was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize)]
#[serde(rename_all = "snake_case")]
pub enum LineState {
    /// Read without a doubt worth telling.
    Sure,
    /// Read, but a look is worth while.
    Fair,
    /// It asks something.
    Asks,
    /// Not of the dough.
    LeftOut,
    /// The heading of a section.
    Heading,
    /// A title, a yield, a step.
    Note,
}

impl ReadLine {
    /// How surely it was read.
    #[must_use]
    pub fn state(&self) -> LineState {
        match &self.kind {
            LineKind::Heading => LineState::Heading,
            LineKind::Note => LineState::Note,
            LineKind::Ingredient(u) if u.left_out.is_some() => LineState::LeftOut,
            LineKind::Ingredient(u) if u.question.is_some() => LineState::Asks,
            LineKind::Ingredient(u) if u.confidence >= SURE => LineState::Sure,
            LineKind::Ingredient(_) => LineState::Fair,
        }
    }

    /// What it weighs for one weight of the flour; nothing while that is not known or the line asks.
    #[must_use]
    pub fn per_flour(&self, flour: Mass) -> Option<f64> {
        let LineKind::Ingredient(u) = &self.kind else { return None };
        let counts = matches!(self.state(), LineState::Sure | LineState::Fair) && flour.g() > 0.0;
        u.mass.filter(|_| counts).map(|m| m.g() / flour.g())
    }
}

/// A recipe as read.
#[derive(Debug, Clone, PartialEq)]
pub struct Reading {
    /// Its name, where the text has one.
    pub title: Option<String>,
    /// All lines.
    pub lines: Vec<ReadLine>,
    /// What it says it makes.
    pub yields: Option<String>,
    /// Its steps, as written.
    pub steps: Vec<String>,
    /// How it says the dough is made and baked.
    pub says: ReadMethod,
    /// Faults of the text as a whole; the lines are kept.
    pub faults: Vec<InputError>,
}

// Over the flour, beyond which a line asks whether it is meant. Common practice, no source: far above what any dough holds.
const UNLIKELY: [(Kind, f64); 4] =
    [(Kind::Leavener, 0.05), (Kind::Salt, 0.06), (Kind::Flavour, 0.15), (Kind::Colour, 0.05)];
const UNLIKELY_PIECE: f64 = 3.0;
// From this confidence a line counts as sure: our own choice.
const SURE: f64 = 0.8;
/// What was told in a row is worth a look.
const TOLD: f64 = 0.7;

pub(super) fn understand(pages: Pages, pantry: &Pantry, settings: &ReadSettings, answers: &[LineAnswer]) -> Reading {
    let names = Names::of(pantry);
    let mut reading = Reading {
        title: pages.title.clone(),
        lines: vec![],
        yields: pages.yields.clone(),
        steps: pages.steps.clone(),
        says: ReadMethod::default(),
        faults: vec![],
    };
    let mut lines = pages.lines;
    let texts = lines.iter().filter_map(|(_, source)| match source {
        Source::Text(text) => Some(text.as_str()),
        Source::Told(_) | Source::Exact(_) => None,
    });
    let whole = texts.chain(pages.steps.iter().map(String::as_str)).collect::<Vec<_>>().join(". ");
    reading.faults = within_bounds(&mut lines);
    reading.says = match pages.says.map(RecipeSays::checked) {
        Some(Ok(says)) => ReadMethod { says, heard: vec![] },
        Some(Err(faults)) => {
            reading.faults.extend(faults.all().iter().cloned());
            ReadMethod::default()
        }
        None => method(&whole),
    };
    let told = told_apart(lines, &names, settings);
    let mut in_method = false;
    let mut listed = pages.only_ingredients;
    let mut aside: Option<String> = None;
    for (number, source) in told.into_iter().take(MOST_RECIPE_LINES) {
        let answer = answers.iter().find(|a| a.line == number);
        let text = match source {
            Source::Text(text) => text,
            Source::Exact(line) => {
                let (text, read) = read_exact(number, line, &names, pantry, settings, answer);
                reading.lines.push(ReadLine { number, text, kind: LineKind::Ingredient(read) });
                continue;
            }
            Source::Told(part) => {
                reading.lines.push(read_told(number, part, &names, pantry, settings, answer));
                continue;
            }
        };
        let trimmed = text.trim();
        let words = tokens(trimmed);
        let head = tongues::heading(trimmed).unwrap_or(trimmed);
        let kind = if heads_method(head) && !pages.only_ingredients {
            in_method = true;
            LineKind::Heading
        } else if heads_ingredients(head) && !pages.only_ingredients {
            (in_method, listed, aside) = (false, true, None);
            LineKind::Heading
        } else if in_method {
            reading.steps.push(trimmed.to_owned());
            LineKind::Note
        } else if is_heading(trimmed) {
            aside = not_the_dough(trimmed).then(|| trimmed.trim_end_matches(':').to_lowercase());
            listed = true;
            LineKind::Heading
        } else if let Some(yields) = yields_of(trimmed) {
            reading.yields.get_or_insert(yields);
            LineKind::Note
        } else if instructs(&words) && !listed {
            LineKind::Note
        } else {
            let mut read = read_line(number, trimmed, &names, pantry, settings, answer);
            if read.as_ref().is_none_or(|found| found.question.is_some())
                && let Some(english) = tongues::in_english(trimmed)
                && let Some(found) = read_line(number, &english, &names, pantry, settings, answer)
            {
                read = Some(found);
            }
            match read {
                Some(understood) if is_title(&reading, trimmed, &understood, listed, settings) => {
                    reading.title = Some(trimmed.chars().take(80).collect());
                    LineKind::Note
                }
                Some(mut understood) => {
                    if let Some(section) = &aside {
                        understood.left_out.get_or_insert(LeftOut::Under { section: section.clone() });
                        understood.question = None;
                    }
                    LineKind::Ingredient(understood)
                }
                None if reading.title.is_none() && reading.lines.is_empty() && !listed => {
                    reading.title = Some(trimmed.chars().take(80).collect());
                    LineKind::Note
                }
                // Under a list of ingredients a line that says nothing known is asked about, not dropped.
                None if listed => LineKind::Ingredient(unknown(number, trimmed)),
                None => LineKind::Note,
            }
        };
        reading.lines.push(ReadLine { number, text, kind });
    }
    doubt_the_unlikely(&mut reading, answers);
    reading
}

/// Cuts lines that are too long, and tells what is not read.
fn within_bounds(lines: &mut [(usize, Source)]) -> Vec<InputError> {
    let mut faults = vec![];
    if lines.len() > MOST_RECIPE_LINES {
        faults.push(InputError::refused(
            "text",
            format!("Only the first {MOST_RECIPE_LINES} of {} lines are read. Shorten it.", lines.len()),
        ));
    }
    for (number, source) in lines {
        if let Source::Text(text) = source
            && text.len() > MOST_LINE_BYTES
        {
            let end = (0..=MOST_LINE_BYTES).rfind(|&i| text.is_char_boundary(i)).unwrap_or(0);
            text.truncate(end);
            let said =
                format!("line {number} is longer than {MOST_LINE_BYTES} bytes; what stands behind them is not read");
            faults.push(InputError::refused("text", said));
        }
    }
    faults
}

/// A part of a recipe that was told: read from its amount and its food, shown as it was said.
fn read_told(
    number: usize,
    part: Told,
    names: &Names,
    pantry: &Pantry,
    settings: &ReadSettings,
    answer: Option<&LineAnswer>,
) -> ReadLine {
    let read = part.read.and_then(|line| read_line(number, &line, names, pantry, settings, answer));
    let kind = match read {
        Some(mut understood) => {
            if let Some(section) = part.aside {
                understood.left_out.get_or_insert(LeftOut::Under { section });
                understood.question = None;
            }
            for (said, is) in part.heard {
                understood.why.push(ReadBy::HeardAs { said, is });
            }
            if understood.question.is_none() && !answer.is_some_and(settles) {
                understood.confidence = understood.confidence.min(TOLD);
            }
            LineKind::Ingredient(understood)
        }
        None => LineKind::Note,
    };
    ReadLine { number, text: part.said, kind }
}

/// A line whose name and grams came apart. A name that is not known word for word is read as text is.
fn read_exact(
    number: usize,
    line: LineInFile,
    names: &Names,
    pantry: &Pantry,
    settings: &ReadSettings,
    answer: Option<&LineAnswer>,
) -> (String, Understood) {
    let note = if line.note.is_empty() { String::new() } else { format!(", {}", line.note) };
    let text = format!("{} g {}{note}", line.grams, line.name);
    // A bakery's own keys mean nothing elsewhere: there the name decides.
    let by_key = pantry.get(&line.ingredient).filter(|i| i.name == line.name);
    let known = by_key.or_else(|| pantry.all().iter().find(|i| i.name.eq_ignore_ascii_case(line.name.trim())));
    let sound = (0.01..=200_000.0).contains(&line.grams);
    match (known, answer) {
        (Some(ingredient), None) if sound => {
            let read = Understood {
                ingredient: Some(std::sync::Arc::clone(ingredient)),
                mass: Some(Mass::new_g(line.grams)),
                confidence: 1.0,
                why: vec![ReadBy::AsTheFileHasIt],
                note: line.note.chars().take(80).collect(),
                question: None,
                left_out: None,
            };
            (text, read)
        }
        _ => {
            let words = if line.grams < 0.0 { format!("{}{note}", line.name) } else { text.clone() };
            let read = read_line(number, &words, names, pantry, settings, answer);
            (text.clone(), read.unwrap_or_else(|| unknown(number, &text)))
        }
    }
}

/// A line is read no further than this, bytes: many times the longest recipe told in one paragraph. Our own choice.
const MOST_LINE_BYTES: usize = 20_000;

/// A text that tells its recipe is told apart, each food a part of its own; all other texts keep their lines, but two foods with an amount each are two.
fn told_apart(lines: Vec<(usize, Source)>, names: &Names, settings: &ReadSettings) -> Vec<(usize, Source)> {
    let texts: Option<Vec<&str>> = lines
        .iter()
        .map(|(_, source)| match source {
            Source::Text(text) => Some(text.as_str()),
            Source::Told(_) | Source::Exact(_) => None,
        })
        .collect();
    match texts.and_then(|texts| told(&texts.join("\n"), names, settings)) {
        Some(parts) => parts.into_iter().enumerate().map(|(i, part)| (i + 1, Source::Told(part))).collect(),
        None => lines.into_iter().flat_map(|(number, source)| in_two(number, source, names, settings)).collect(),
    }
}

/// The second of two foods on one line is numbered so much further on, so that all others keep their numbers.
const SECOND_PART: usize = 1_000;

/// `1 egg plus 1 yolk` is two lines.
fn in_two(number: usize, source: Source, names: &Names, settings: &ReadSettings) -> Vec<(usize, Source)> {
    let two = match &source {
        Source::Text(text) => two_of(text, names, settings),
        Source::Told(_) | Source::Exact(_) => None,
    };
    match two {
        Some((first, second)) => {
            vec![(number, Source::Text(first)), (number + SECOND_PART, Source::Text(second))]
        }
        None => vec![(number, source)],
    }
}

fn settles(answer: &LineAnswer) -> bool {
    answer.as_read || answer.grams.is_some() || answer.ingredient.is_some() || answer.leave_out
}

/// A first line without an amount that names an ingredient only in passing is the title.
fn is_title(reading: &Reading, text: &str, understood: &Understood, listed: bool, settings: &ReadSettings) -> bool {
    // A line with an amount, in words or vague, and a food is never a title.
    let amount =
        super::split::amount_at(&super::split::tidy(text), settings).is_some() && understood.ingredient.is_some();
    let without_amount = !amount
        && understood.mass.is_none()
        && understood
            .question
            .as_ref()
            .is_none_or(|q| q.doubt != LineDoubt::Disagrees && q.doubt != LineDoubt::TwoNumbers);
    reading.title.is_none()
        && reading.lines.is_empty()
        && !listed
        && without_amount
        && understood.left_out.is_none()
        && !text.starts_with(|c: char| c.is_ascii_digit())
        && !text.contains(',')
}

fn unknown(number: usize, text: &str) -> Understood {
    let shown: String = text.chars().filter(|c| !c.is_control()).take(40).collect();
    Understood {
        ingredient: None,
        mass: None,
        confidence: 0.0,
        why: vec![],
        note: String::new(),
        question: Some(Question {
            doubt: LineDoubt::UnknownIngredient,
            ask: Ask::NotUnderstood { text: shown },
            options: vec![SettleOption {
                label: Settle::NoIngredient,
                answer: LineAnswer { line: number, leave_out: true, ..LineAnswer::default() },
            }],
        }),
        left_out: None,
    }
}

fn is_heading(line: &str) -> bool {
    let no_digits = !line.chars().any(|c| c.is_ascii_digit() || crate::units::vulgar(c).is_some());
    let words = tokens(line);
    no_digits
        && (line.ends_with(':') || words.len() <= 5 && words.first().is_some_and(|w| w == "for") && words.len() > 1)
}

fn doubt_the_unlikely(reading: &mut Reading, answers: &[LineAnswer]) {
    let flour: f64 = reading
        .counted()
        .filter(|u| u.ingredient.as_ref().is_some_and(|i| i.role() == Role::Flour))
        .filter_map(|u| u.mass)
        .map(|m| m.g())
        .sum();
    for line in &mut reading.lines {
        let LineKind::Ingredient(understood) = &mut line.kind else { continue };
        let (Some(ingredient), Some(mass), None, None) =
            (&understood.ingredient, understood.mass, &understood.question, &understood.left_out)
        else {
            continue;
        };
        let settled = answers.iter().any(|a| a.line == line.number && (a.as_read || a.grams.is_some()));
        let limit = UNLIKELY.iter().find(|u| u.0 == ingredient.kind).map_or(UNLIKELY_PIECE, |u| u.1);
        let share = if flour > 0.0 { mass.g() / flour } else { 0.0 };
        let alone_too_much = flour <= 0.0 && ingredient.kind == Kind::Leavener && mass.g() > 100.0;
        if !settled && (share > limit || alone_too_much) {
            let name = ingredient.name.to_lowercase();
            let ask = if flour > 0.0 {
                Ask::Unlikely { name, mass, flour: Mass::new_g(flour), most: Share::new(limit) }
            } else {
                Ask::NoFlour { name, mass }
            };
            understood.confidence = 0.0;
            understood.question = Some(Question {
                doubt: LineDoubt::Unlikely,
                ask,
                options: vec![SettleOption {
                    label: Settle::ItIsRight,
                    answer: LineAnswer { line: line.number, as_read: true, ..LineAnswer::default() },
                }],
            });
        }
    }
}

impl Reading {
    /// Lines that are ingredients of the dough, settled or not.
    fn counted(&self) -> impl Iterator<Item = &Understood> {
        self.lines.iter().filter_map(|l| match &l.kind {
            LineKind::Ingredient(u) if u.left_out.is_none() => Some(u),
            _ => None,
        })
    }

    /// How many pieces it says it makes.
    #[must_use]
    pub fn pieces(&self) -> Option<u32> {
        self.yields.as_deref().and_then(pieces_of).or(self.says.says.pieces)
    }

    /// Lines that still ask.
    #[must_use]
    pub fn open(&self) -> usize {
        self.counted().filter(|u| u.question.is_some()).count()
    }

    /// What is known so far, asking lines left aside.
    #[must_use]
    pub fn known(&self) -> Vec<LineInput> {
        self.counted()
            .filter(|u| u.question.is_none())
            .filter_map(|u| {
                let (ingredient, mass) = (u.ingredient.as_ref()?, u.mass?);
                Some(LineInput { ingredient: ingredient.key.to_string(), grams: mass.g(), note: u.note.clone() })
            })
            .collect()
    }

    /// What is known of one role.
    #[must_use]
    pub fn known_of(&self, role: Role, pantry: &Pantry) -> Mass {
        let of_role = |l: &&LineInput| pantry.get(&l.ingredient).is_some_and(|i| i.role() == role);
        Mass::new_g(self.known().iter().filter(of_role).map(|l| l.grams).sum())
    }

    /// Sugar and flour over the fat, once there is fat.
    #[must_use]
    pub fn ratio(&self, pantry: &Pantry) -> Option<Ratio> {
        let [flour, fat, sugar] = [Role::Flour, Role::Fat, Role::Sugar].map(|r| self.known_of(r, pantry).g());
        (fat > 0.0).then_some(Ratio { sugar: sugar / fat, flour: flour / fat })
    }

    /// All known lines together.
    #[must_use]
    pub fn known_mass(&self) -> Mass {
        Mass::new_g(self.known().iter().map(|l| l.grams).sum())
    }

    /// The formula, to the hundredth of a gram.
    ///
    /// Fails while a line asks, naming the first, and when what was read is no dough.
    pub fn formula(&self, name: &str, pantry: &Pantry) -> Result<Formula, InputErrors> {
        if let Some(line) = self
            .lines
            .iter()
            .find(|l| matches!(&l.kind, LineKind::Ingredient(u) if u.left_out.is_none() && u.question.is_some()))
        {
            let why = "This line still has a question. Answer it, or leave the line out.";
            return Err(InputError::refused(format!("lines[{}]", line.number), why).into());
        }
        let mut lines = self.known();
        for line in &mut lines {
            line.grams = (line.grams * 100.0).round() / 100.0;
        }
        let says = self.says.says;
        let says = RecipeSays { pieces: self.pieces(), ..says };
        Ok(Formula::new(name, &lines, pantry)?.with_says((!says.is_silent()).then_some(says)))
    }
}
