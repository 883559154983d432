//! Recipes on the wire: a text with its settings and answers in, its lines as understood out.

use super::{SentenceView, say, view, word};
use ready_slab_core::dough::{CupWay, EggClass, FormulaInput, Pantry, RecipeSays, Role};
use ready_slab_core::error::InputErrors;
use ready_slab_core::finish::Finish;
use ready_slab_core::recipe::{
    CupSystem, Heard, LineAnswer, LineKind, ReadLine, ReadSettings, Reading, RecipeFormat, SettleOption, read_recipe,
};
use ready_slab_core::units::Mass;
use ready_slab_words::{Name, coat};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
    pub answers: Vec<LineAnswer>,
    /// A name for the formula; that of the recipe when absent.
    #[serde(default)]
    pub name: Option<String>,
}

view! {
    /// One way to settle a question.
    pub struct SettleView(o: &SettleOption) {
        /// As it is offered.
        label: SentenceView = say(&o.label),
        /// What is sent back when it is chosen.
        answer: LineAnswer = o.answer.clone(),
    }
}

view! {
    /// A line as understood, beside the flour read so far.
    pub struct ReadLineView(line: &ReadLine, flour: Mass) {
        let understood = match &line.kind {
            LineKind::Ingredient(u) => Some(u),
            LineKind::Heading | LineKind::Note => None,
        };
        let ingredient = understood.and_then(|u| u.ingredient.as_ref());
        let question = understood.and_then(|u| u.question.as_ref());
        let grams = understood.and_then(|u| u.mass).map(Mass::g);
        let left_out = understood.and_then(|u| u.left_out.as_ref());

        /// From 1.
        number: usize = line.number,
        /// As written.
        text: String = line.text.clone(),
        /// `sure`, `fair`, `asks`, `left_out`, `heading` or `note`.
        state: String = word(line.state()),
        /// Key of the ingredient.
        ingredient: Option<String> = ingredient.map(|i| i.key.to_string()),
        /// Its name.
        name: Option<String> = ingredient.map(|i| i.name.to_string()),
        /// What it weighs.
        grams: Option<f64> = grams,
        /// Over the flour read so far.
        bakers_percent: Option<f64> = line.per_flour(flour).map(|share| 100.0 * share),
        /// 0 to 1.
        confidence: f64 = understood.map_or(1.0, |u| u.confidence),
        /// How it was read.
        why: Vec<SentenceView> =
            understood.iter().flat_map(|u| &u.why).map(say).chain(left_out.map(say)).collect(),
        /// What is done to it first.
        note: String = understood.map(|u| u.note.clone()).unwrap_or_default(),
        /// What it asks; empty when it asks nothing.
        ask: Option<SentenceView> = question.map(|q| say(&q.ask)),
        /// Why it asks: `unknown_ingredient`, `strange_word`, `two_things`, `no_amount`, `two_numbers`, `disagrees`,
        /// `no_weight` or `unlikely`; empty when it asks nothing.
        doubt: String = question.map(|q| word(q.doubt)).unwrap_or_default(),
        /// Ways to settle it.
        options: Vec<SettleView> = question.iter().flat_map(|q| &q.options).map(Into::into).collect(),
    }
}

view! {
    /// Something that a recipe says, and its words.
    pub struct HeardView(h: &Heard) {
        /// `method`, `chill_min`, `thickness_mm`, `oven_c`, `bake_min` or `pieces`.
        of: String = h.of.to_owned(),
        /// As it stands there.
        words: String = h.words.clone(),
    }
}

view! {
    /// A recipe as read.
    pub struct ReadingView(format: RecipeFormat, reading: &Reading, name: &str, cups: CupSystem, pantry: &Pantry) {
        let flour = reading.known_of(Role::Flour, pantry);
        let formula = reading.formula(name, pantry);
        let ratio = reading.ratio(pantry);
        let ways = [CupWay::Spooned, CupWay::Scooped, CupWay::Sifted];

        /// What the text turned out to be.
        format: String = format.name().to_owned(),
        /// Its name, where it has one.
        title: Option<String> = reading.title.clone(),
        /// What it says it makes.
        yields: Option<String> = reading.yields.clone(),
        /// How many pieces that is, where it says so.
        pieces: Option<u32> = reading.pieces(),
        /// What it says of method, chill and bake, each with the words it was read from.
        heard: Vec<HeardView> = reading.says.heard.iter().map(Into::into).collect(),
        /// The same as figures.
        says: RecipeSays = reading.says.says,
        /// What goes onto or between them by its left-out lines.
        finishes: Vec<Finish> = reading.finishes(),
        /// What those are called.
        finish_names: Vec<String> = reading.finishes().iter().map(|f| coat(f.coat).0.to_owned()).collect(),
        /// Its steps as written.
        steps: Vec<String> = reading.steps.clone(),
        /// All lines.
        lines: Vec<ReadLineView> = reading.lines.iter().map(|l| ReadLineView::new(l, flour)).collect(),
        /// Faults of the text as a whole; nothing of it is lost.
        faults: Vec<String> = reading.faults.iter().map(|f| f.problem().to_string()).collect(),
        /// A cup of all-purpose flour in the cups meant: spooned in, scooped, sifted.
        cup_of_flour_g: Vec<f64> =
            ways.into_iter().filter_map(|way| cups.cup_of_flour(pantry, way)).map(Mass::g).collect(),
        /// Lines that still ask.
        open: usize = reading.open(),
        /// Known so far.
        known_g: f64 = reading.known_mass().g(),
        /// Sugar over fat, once there is fat.
        ratio_sugar: Option<f64> = ratio.map(|r| r.sugar),
        /// Flour over fat, once there is fat.
        ratio_flour: Option<f64> = ratio.map(|r| r.flour),
        /// What stands in the way of a formula.
        missing: Option<String> = formula.as_ref().err().map(|e| e.all()[0].problem().to_string()),
        /// The formula, once nothing is open and it is a dough.
        formula: Option<FormulaInput> = formula.ok().map(|f| (&f).into()),
    }
}

impl ReadRequest {
    /// Reads the text.
    pub fn read(self, pantry: &Pantry) -> Result<ReadingView, InputErrors> {
        let settings = ReadSettings { way: self.way, cups: self.cups, eggs: self.eggs };
        let (format, reading) = read_recipe(&self.text, pantry, &settings, &self.answers)?;
        let own = self.name.as_deref().map(str::trim).filter(|n| !n.is_empty());
        let name = own.or(reading.title.as_deref()).unwrap_or("New recipe");
        Ok(ReadingView::new(format, &reading, name, self.cups, pantry))
    }
}
