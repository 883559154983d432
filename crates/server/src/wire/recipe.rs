//! Recipes on the wire: a text with its settings and answers in, its lines as understood out.

use super::FormulaBody;
use super::{SentenceView, say};
use ready_slab_core::dough::EggClass;
use ready_slab_core::dough::{CupWay, Pantry, Ratio, Role};
use ready_slab_core::error::InputErrors;
use ready_slab_core::recipe::CupSystem;
use ready_slab_core::recipe::{
    Doubt, LineAnswer, LineKind, ReadLine, ReadSettings, Reading, RecipeFormat, Understood, read_recipe,
};
use ready_slab_core::units::Mass;
use ready_slab_words::Name;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What was answered to a line.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnswerBody {
    /// Number of the line, from 1.
    pub line: usize,
    /// Key of the ingredient that is meant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ingredient: Option<String>,
    /// Grams that are meant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grams: Option<f64>,
    /// Not part of the dough.
    #[serde(default)]
    pub leave_out: bool,
    /// Right as it was read.
    #[serde(default)]
    pub as_read: bool,
}

/// A text to be read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadRequest {
    /// Free text, JSON-LD, HTML, CSV or a formula file; at most 200 kB.
    pub text: String,
    /// How a cup of flour and other powders is filled.
    pub way: CupWay,
    /// In what cups and spoons.
    pub cups: CupSystem,
    /// Which eggs.
    pub eggs: EggClass,
    /// Answers given so far.
    #[serde(default)]
    pub answers: Vec<AnswerBody>,
    /// A name for the formula; that of the recipe when absent.
    #[serde(default)]
    pub name: Option<String>,
}

/// One way to settle a question.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SettleView {
    /// As it is offered.
    pub label: SentenceView,
    /// What is sent back when it is chosen.
    pub answer: AnswerBody,
}

/// A line as understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadLineView {
    /// From 1.
    pub number: usize,
    /// As written.
    pub text: String,
    /// `sure`, `fair`, `asks`, `left_out`, `heading` or `note`.
    pub state: String,
    /// Key of the ingredient.
    pub ingredient: Option<String>,
    /// Its name.
    pub name: Option<String>,
    /// What it weighs.
    pub grams: Option<f64>,
    /// Over the flour read so far.
    pub bakers_percent: Option<f64>,
    /// 0 to 1.
    pub confidence: f64,
    /// How it was read.
    pub why: Vec<SentenceView>,
    /// What is done to it first.
    pub note: String,
    /// What it asks; empty when it asks nothing.
    pub ask: Option<SentenceView>,
    /// Why it asks: `unknown_ingredient`, `strange_word`, `two_things`, `no_amount`, `two_numbers`, `disagrees`,
    /// `no_weight` or `unlikely`; empty when it asks nothing.
    pub doubt: String,
    /// Ways to settle it.
    pub options: Vec<SettleView>,
}

/// A recipe as read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadingView {
    /// What the text turned out to be.
    pub format: String,
    /// Its name, where it has one.
    pub title: Option<String>,
    /// What it says it makes.
    pub yields: Option<String>,
    /// Its steps as written.
    pub steps: Vec<String>,
    /// All lines.
    pub lines: Vec<ReadLineView>,
    /// Faults of the text as a whole; nothing of it is lost.
    pub faults: Vec<String>,
    /// A cup of all-purpose flour in the cups meant: spooned in, scooped, sifted.
    pub cup_of_flour_g: Vec<f64>,
    /// Lines that still ask.
    pub open: usize,
    /// Known so far.
    pub known_g: f64,
    /// Sugar over fat, once there is fat.
    pub ratio_sugar: Option<f64>,
    /// Flour over fat, once there is fat.
    pub ratio_flour: Option<f64>,
    /// The formula, once nothing is open and it is a dough.
    pub formula: Option<FormulaBody>,
    /// What stands in the way of a formula.
    pub missing: Option<String>,
}

/// From this confidence a line counts as sure (our own choice).
const SURE: f64 = 0.8;

fn doubt_word(doubt: Doubt) -> &'static str {
    match doubt {
        Doubt::UnknownIngredient => "unknown_ingredient",
        Doubt::StrangeWord => "strange_word",
        Doubt::TwoThings => "two_things",
        Doubt::NoAmount => "no_amount",
        Doubt::TwoNumbers => "two_numbers",
        Doubt::Disagrees => "disagrees",
        Doubt::NoWeight => "no_weight",
        Doubt::Unlikely => "unlikely",
        Doubt::Narrated => "narrated",
    }
}

impl From<&LineAnswer> for AnswerBody {
    fn from(a: &LineAnswer) -> Self {
        Self {
            line: a.line,
            ingredient: a.ingredient.clone(),
            grams: a.grams,
            leave_out: a.leave_out,
            as_read: a.as_read,
        }
    }
}

impl From<AnswerBody> for LineAnswer {
    fn from(a: AnswerBody) -> Self {
        Self { line: a.line, ingredient: a.ingredient, grams: a.grams, leave_out: a.leave_out, as_read: a.as_read }
    }
}

fn line_view(line: &ReadLine, flour_g: f64) -> ReadLineView {
    let blank = |state: &str| ReadLineView {
        number: line.number,
        text: line.text.clone(),
        state: state.to_owned(),
        ingredient: None,
        name: None,
        grams: None,
        bakers_percent: None,
        confidence: 1.0,
        why: vec![],
        note: String::new(),
        ask: None,
        doubt: String::new(),
        options: vec![],
    };
    match &line.kind {
        LineKind::Heading => blank("heading"),
        LineKind::Note => blank("note"),
        LineKind::Ingredient(u) => {
            let state = match u {
                Understood { left_out: Some(_), .. } => "left_out",
                Understood { question: Some(_), .. } => "asks",
                Understood { confidence, .. } if *confidence >= SURE => "sure",
                Understood { .. } => "fair",
            };
            let counts = matches!(state, "sure" | "fair");
            let grams = u.mass.map(|m| m.g());
            ReadLineView {
                ingredient: u.ingredient.as_ref().map(|i| i.key.to_string()),
                name: u.ingredient.as_ref().map(|i| i.name.to_string()),
                grams,
                bakers_percent: grams.filter(|_| counts && flour_g > 0.0).map(|g| 100.0 * g / flour_g),
                confidence: u.confidence,
                why: u.why.iter().map(say).chain(u.left_out.as_ref().map(say)).collect(),
                note: u.note.clone(),
                ask: u.question.as_ref().map(|q| say(&q.ask)),
                doubt: u.question.as_ref().map(|q| doubt_word(q.doubt).to_owned()).unwrap_or_default(),
                options: u
                    .question
                    .iter()
                    .flat_map(|q| &q.options)
                    .map(|o| SettleView { label: say(&o.label), answer: (&o.answer).into() })
                    .collect(),
                ..blank(state)
            }
        }
    }
}

fn role_g(reading: &Reading, role: Role, pantry: &Pantry) -> f64 {
    let of_role = |key: &str| pantry.get(key).is_some_and(|i| i.role() == role);
    reading.known().iter().filter(|l| of_role(&l.ingredient)).map(|l| l.grams).sum()
}

impl ReadRequest {
    /// Reads the text.
    pub fn read(self, pantry: &Pantry) -> Result<ReadingView, InputErrors> {
        let settings = ReadSettings { way: self.way, cups: self.cups, eggs: self.eggs };
        let answers: Vec<LineAnswer> = self.answers.into_iter().map(Into::into).collect();
        let (format, reading) = read_recipe(&self.text, pantry, &settings, &answers)?;
        let cups = [CupWay::Spooned, CupWay::Scooped, CupWay::Sifted];
        let cup_of_flour_g =
            cups.into_iter().filter_map(|way| settings.cups.cup_of_flour(pantry, way)).map(Mass::g).collect();
        Ok(ReadingView { cup_of_flour_g, ..view(format, &reading, self.name.as_deref(), pantry) })
    }
}

fn view(format: RecipeFormat, reading: &Reading, name: Option<&str>, pantry: &Pantry) -> ReadingView {
    let [flour, fat, sugar] = [Role::Flour, Role::Fat, Role::Sugar].map(|r| role_g(reading, r, pantry));
    let name = name.map(str::trim).filter(|n| !n.is_empty()).or(reading.title.as_deref()).unwrap_or("New formula");
    let formula = reading.formula(name, pantry);
    let ratio = (fat > 0.0).then_some(Ratio { sugar: sugar / fat, flour: flour / fat });
    ReadingView {
        format: format.name().to_owned(),
        title: reading.title.clone(),
        yields: reading.yields.clone(),
        steps: reading.steps.clone(),
        lines: reading.lines.iter().map(|l| line_view(l, flour)).collect(),
        faults: reading.faults.iter().map(|f| f.problem().to_string()).collect(),
        cup_of_flour_g: vec![],
        open: reading.open(),
        known_g: reading.known_mass().g(),
        ratio_sugar: ratio.map(|r| r.sugar),
        ratio_flour: ratio.map(|r| r.flour),
        missing: formula.as_ref().err().map(|e| e.all()[0].problem().to_string()),
        formula: formula.ok().map(|f| (&f).into()),
    }
}
