//! Formulas on the wire: what they hold, what they are, their versions, and levers pulled on them.

use super::{SentenceView, say, say_all, view};
use ready_slab_core::dough::{
    Balance, Character, DRYNESS, Formula, FormulaInput, Judgement, LineChange, Pulled, SCHOOLS, School, nearest_to,
    packing,
};
use ready_slab_core::oven::{STANDARD_PIECE, StandardSpread};
use ready_slab_store::{FormulaVersion, StoredFormula};
use ready_slab_words::{Name, Say, difference, known_for, school_name, spread_beside, standing};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A formula on the shelf.
    pub struct FormulaView(stored: &StoredFormula) {
        let ratio = stored.formula.ratio();

        /// Its number.
        id: i64 = stored.id.0,
        /// The formula.
        #[serde(flatten)]
        body: FormulaInput = (&stored.formula).into(),
        /// Which of its versions this is, from 1.
        version: u32 = stored.version,
        /// How often it has changed; a change names the one it was made from in `If-Match`.
        revision: i64 = stored.revision,
        /// All lines together.
        total_g: f64 = stored.formula.total().g(),
        /// Sugar over fat.
        ratio_sugar: f64 = ratio.sugar,
        /// Flour over fat.
        ratio_flour: f64 = ratio.flour,
        /// The school it belongs to, in words.
        school: String = standing(Character::of(&stored.formula).standing).to_owned(),
    }
}

/// A judgement with its reasons.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JudgementView {
    /// The word for it.
    pub word: String,
    /// 0 to 1 on its scale.
    pub level: f64,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

impl<V: Name, R: Say> From<&Judgement<V, R>> for JudgementView {
    fn from(j: &Judgement<V, R>) -> Self {
        Self { word: j.verdict.name().to_owned(), level: j.level, reasons: say_all(&j.reasons) }
    }
}

view! {
    /// What a dough is made of: mass fractions.
    pub struct BalanceView(b: &Balance) {
        /// With the alcohol of spirits.
        water: f64 = b.water.value(),
        /// Of all ingredients.
        fat: f64 = b.fat.value(),
        /// Of all ingredients.
        sugar: f64 = b.sugar.value(),
        /// Of all ingredients.
        starch: f64 = b.starch.value(),
        /// Of all ingredients.
        protein: f64 = b.protein.value(),
        /// Fibre and ash.
        rest: f64 = b.rest.value(),
    }
}

view! {
    /// What a formula is.
    pub struct CharacterView(formula: &Formula, formula_id: Option<i64>) {
        let (c, spread) = (Character::of(formula), StandardSpread::of(formula));

        /// Its name.
        name: String = formula.name().to_owned(),
        /// Number of the formula, where it stands on the shelf.
        formula_id: Option<i64> = formula_id,
        /// Sugar over fat.
        ratio_sugar: f64 = c.ratio.sugar,
        /// Flour over fat.
        ratio_flour: f64 = c.ratio.flour,
        /// Flour, cocoa, starch and ground nuts over fat: by these it is placed among the schools.
        placed_flour: f64 = c.placed.flour,
        /// Where it sits among the schools, in a sentence.
        school: SentenceView = say(&c.school),
        /// What it is made of.
        balance: BalanceView = (&c.balance).into(),
        /// As rolled, with its air.
        density_kg_m3: f64 = c.density.kg_m3(),
        /// Share of the room between the fat that the solids fill.
        packing: f64 = packing(formula),
        /// Firm to pipeable.
        handling: JudgementView = (&c.handling).into(),
        /// How far its standard piece spreads: a round of 65 mm and 6 mm, chilled to 6 degC, baked at 175 degC.
        spread: JudgementView = (&spread.judgement).into(),
        /// Across the round that is meant: 6 mm thick, chilled to 6 degC.
        spread_round_mm: f64 = 2.0 * STANDARD_PIECE.radius.mm(),
        /// Growth across that piece.
        spread_least_percent: f64 = 100.0 * spread.range.0.value(),
        /// Growth across that piece.
        spread_most_percent: f64 = 100.0 * spread.range.1.value(),
        /// Growth all round that piece; null where the forecast knows nothing of the dough.
        standard_grows_mm: Option<f64> = spread.grows.map(|g| g.mm()),
        /// How fast it colours.
        browning: JudgementView = (&c.browning).into(),
        /// How it bites.
        tenderness: JudgementView = (&c.tenderness).into(),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(&c.warnings),
    }
}

view! {
    /// A balance that practitioners name.
    pub struct SchoolView(s: &School) {
        /// Butter : sugar : flour as it is said, and by what.
        name: String = school_name(s),
        /// Sugar over butter, by weight.
        sugar: f64 = s.sugar,
        /// Flour over butter, by weight.
        flour: f64 = s.flour,
        /// What it is known for.
        known_for: String = known_for(s.known_for).to_owned(),
    }
}

view! {
    /// Something to compare with.
    pub struct NeighbourView(key: String, name: String) {
        /// `formula:3` or `school:0`.
        key: String = key,
        /// Its name.
        name: String = name,
    }
}

/// How a formula differs from a neighbour: what it is made of, then how far it spreads.
fn differences(own: &Formula, neighbour: &Formula, name: &str) -> Vec<SentenceView> {
    let made_of = Character::of(own).beside(&Character::of(neighbour));
    let spread = StandardSpread::of(own).beside(&StandardSpread::of(neighbour));
    let said = made_of.iter().map(|d| difference(d, name)).chain(spread.map(spread_beside));
    said.map(Into::into).collect()
}

fn named(school: &School) -> String {
    format!("a plain {} dough", school_name(school))
}

/// Those of a shelf but one, each with its key.
fn others<'a>(own: &StoredFormula, shelf: &'a [StoredFormula]) -> Vec<(String, &'a StoredFormula)> {
    shelf.iter().filter(|f| f.id != own.id).map(|f| (format!("formula:{}", f.id.0), f)).collect()
}

/// All that a formula can be compared with.
fn neighbours(own: &StoredFormula, shelf: &[StoredFormula]) -> Vec<NeighbourView> {
    let formulas = others(own, shelf).into_iter().map(|(key, f)| NeighbourView::new(key, f.formula.name().to_owned()));
    let schools =
        SCHOOLS.iter().enumerate().map(|(i, school)| NeighbourView::new(format!("school:{i}"), named(school)));
    formulas.chain(schools).collect()
}

/// The neighbour of that key, or the one on the shelf that is nearest, or the first school: it, what it is called, and
/// its number where it stands on the shelf.
fn neighbour(own: &StoredFormula, shelf: &[StoredFormula], key: Option<&str>) -> (Formula, String, Option<i64>) {
    let others = others(own, shelf);
    let on_shelf = |f: &StoredFormula| (f.formula.clone(), f.formula.name().to_owned(), Some(f.id.0));
    let of_school = |school: &School| (school.formula(), named(school), None);
    let chosen = key.and_then(|key| {
        let school = key.strip_prefix("school:").and_then(|i| SCHOOLS.get(i.parse::<usize>().ok()?));
        others.iter().find(|(k, _)| k == key).map(|(_, f)| on_shelf(f)).or_else(|| school.map(of_school))
    });
    let nearest = || nearest_to(&own.formula, others.iter().map(|(_, f)| &f.formula)).map(|at| on_shelf(others[at].1));
    chosen.or_else(nearest).unwrap_or_else(|| of_school(&SCHOOLS[0]))
}

view! {
    /// A formula beside the neighbour of a key, or beside the one on the shelf that is nearest to it.
    pub struct BesideView(own: &StoredFormula, shelf: &[StoredFormula], key: Option<&str>) {
        let (other, name, id) = neighbour(own, shelf, key);

        /// How they differ, the largest first.
        differences: Vec<SentenceView> = differences(&own.formula, &other, &name),
        /// The formula.
        own: CharacterView = CharacterView::new(&own.formula, Some(own.id.0)),
        /// What it is compared with.
        neighbour: CharacterView = CharacterView { name, ..CharacterView::new(&other, id) },
        /// The schools.
        schools: Vec<SchoolView> = SCHOOLS.iter().map(Into::into).collect(),
        /// Flour to one of butter and sugar together: from here a soft cut-out, a firm one, a dry one.
        dryness_lines: [f64; 3] = DRYNESS,
        /// All that it can be compared with: `formula:3`, `school:0`, and the name.
        neighbours: Vec<NeighbourView> = neighbours(own, shelf),
    }
}

view! {
    /// A line before and after.
    pub struct LineChangeView(c: &LineChange) {
        /// Its key.
        ingredient: String = c.ingredient.key.to_string(),
        /// Its name.
        name: String = c.ingredient.name.to_string(),
        /// Zero when it is new.
        before_g: f64 = c.before.g(),
        /// Zero when it goes.
        after_g: f64 = c.after.g(),
    }
}

view! {
    /// A formula with a lever pulled, not yet kept.
    pub struct PulledView(before: &Formula, pulled: &Pulled) {
        /// The formula after; sent back to keep it.
        formula: FormulaInput = (&pulled.formula).into(),
        /// Lines that changed.
        changes: Vec<LineChangeView> = pulled.changes.iter().map(Into::into).collect(),
        /// Why they changed.
        reasons: Vec<SentenceView> = say_all(&pulled.reasons),
        /// What it was.
        before: CharacterView = CharacterView::new(before, None),
        /// What it becomes.
        after: CharacterView = CharacterView::new(&pulled.formula, None),
        /// How it differs from what it was.
        differences: Vec<SentenceView> = differences(&pulled.formula, before, "before"),
    }
}

view! {
    /// A saved edit of a formula.
    pub struct VersionView(v: &FormulaVersion, before: Option<&FormulaVersion>) {
        /// From 1.
        number: u32 = v.number,
        /// UTC.
        saved_at: String = v.saved_at.clone(),
        /// As it was.
        #[serde(flatten)]
        body: FormulaInput = (&v.formula).into(),
        /// What changed since the version before; all of it for the first.
        changes: Vec<LineChangeView> = before.map_or_else(Vec::new, |b| {
            ready_slab_core::dough::difference(&b.formula, &v.formula).iter().map(Into::into).collect()
        }),
        /// Whether the name changed.
        renamed_from: Option<String> =
            before.map(|b| b.formula.name().to_owned()).filter(|name| name != v.formula.name()),
    }
}

impl VersionView {
    /// All versions, the latest first, each with its difference to the one before.
    pub fn list(versions: &[FormulaVersion]) -> Vec<Self> {
        versions.iter().enumerate().map(|(i, v)| Self::new(v, versions.get(i + 1))).collect()
    }
}
