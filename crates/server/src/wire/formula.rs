//! Formulas on the wire: what they hold, what they are, their versions, and levers pulled on them.

use super::{SentenceView, say, say_all};
use ready_slab_core::dough::{
    Character, Formula, Judgement, LineChange, LineInput, Pantry, Pulled, Ratio, SCHOOLS, nearest_to, packing,
};
use ready_slab_core::error::InputErrors;
use ready_slab_core::oven::{STANDARD_PIECE, StandardSpread};
use ready_slab_store::{FormulaVersion, StoredFormula};
use ready_slab_words::{Name, Say, difference, known_for, spread_beside, standing};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One line of a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LineBody {
    /// Key of an ingredient.
    pub ingredient: String,
    /// 0.01 to 200,000.
    pub grams: f64,
    /// What is done to it first, at most 80 characters.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulaBody {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// At most 60, with flour and a fat among them.
    pub lines: Vec<LineBody>,
}

impl From<&Formula> for FormulaBody {
    fn from(formula: &Formula) -> Self {
        let line = |l: &ready_slab_core::dough::FormulaLine| LineBody {
            ingredient: l.ingredient().key.to_string(),
            grams: l.mass().g(),
            note: l.note().to_owned(),
        };
        Self { name: formula.name().to_owned(), lines: formula.lines().iter().map(line).collect() }
    }
}

impl FormulaBody {
    /// The formula of ingredients in a pantry, checked.
    pub fn formula(self, pantry: &Pantry) -> Result<Formula, InputErrors> {
        let lines: Vec<LineInput> = self
            .lines
            .into_iter()
            .map(|l| LineInput { ingredient: l.ingredient, grams: l.grams, note: l.note })
            .collect();
        Formula::new(&self.name, &lines, pantry)
    }
}

/// A formula on the shelf.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FormulaView {
    /// Its number.
    pub id: i64,
    /// The formula.
    #[serde(flatten)]
    pub body: FormulaBody,
    /// Which of its versions this is, from 1.
    pub version: u32,
    /// How often it has changed; a change names the one it was made from in `If-Match`.
    pub revision: i64,
    /// All lines together.
    pub total_g: f64,
    /// Sugar over fat.
    pub ratio_sugar: f64,
    /// Flour over fat.
    pub ratio_flour: f64,
    /// The school it belongs to, in words.
    pub school: String,
}

impl From<&StoredFormula> for FormulaView {
    fn from(stored: &StoredFormula) -> Self {
        let ratio = stored.formula.ratio();
        Self {
            id: stored.id.0,
            body: (&stored.formula).into(),
            version: stored.version,
            revision: stored.revision,
            total_g: stored.formula.total().g(),
            ratio_sugar: ratio.sugar,
            ratio_flour: ratio.flour,
            school: standing(ratio.standing()).to_owned(),
        }
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

/// What a dough is made of: mass fractions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BalanceView {
    /// With the alcohol of spirits.
    pub water: f64,
    /// Of all ingredients.
    pub fat: f64,
    /// Of all ingredients.
    pub sugar: f64,
    /// Of all ingredients.
    pub starch: f64,
    /// Of all ingredients.
    pub protein: f64,
    /// Fibre and ash.
    pub rest: f64,
}

/// What a formula is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CharacterView {
    /// Its name.
    pub name: String,
    /// Number of the formula, where it stands on the shelf.
    pub formula_id: Option<i64>,
    /// Sugar over fat.
    pub ratio_sugar: f64,
    /// Flour over fat.
    pub ratio_flour: f64,
    /// Where it sits among the schools, in a sentence.
    pub school: SentenceView,
    /// What it is made of.
    pub balance: BalanceView,
    /// As rolled, with its air.
    pub density_kg_m3: f64,
    /// Share of the room between the fat that the solids fill.
    pub packing: f64,
    /// Firm to pipeable.
    pub handling: JudgementView,
    /// How far its standard piece spreads: a round of 65 mm and 6 mm, chilled to 6 degC, baked at 175 degC.
    pub spread: JudgementView,
    /// Across the round that is meant: 6 mm thick, chilled to 6 degC.
    pub spread_round_mm: f64,
    /// Growth across that piece.
    pub spread_least_percent: f64,
    /// Growth across that piece.
    pub spread_most_percent: f64,
    /// Growth all round that piece; null where the forecast knows nothing of the dough.
    pub standard_grows_mm: Option<f64>,
    /// How fast it colours.
    pub browning: JudgementView,
    /// How it bites.
    pub tenderness: JudgementView,
    /// What to mind.
    pub warnings: Vec<SentenceView>,
}

impl CharacterView {
    /// The character of a formula.
    pub fn of(formula: &Formula, formula_id: Option<i64>) -> Self {
        let (c, spread) = (Character::of(formula), StandardSpread::of(formula));
        let b = &c.balance;
        Self {
            name: formula.name().to_owned(),
            formula_id,
            ratio_sugar: c.ratio.sugar,
            ratio_flour: c.ratio.flour,
            balance: BalanceView {
                water: b.water.value(),
                fat: b.fat.value(),
                sugar: b.sugar.value(),
                starch: b.starch.value(),
                protein: b.protein.value(),
                rest: b.rest.value(),
            },
            density_kg_m3: c.density.kg_m3(),
            packing: packing(formula),
            handling: (&c.handling).into(),
            spread: (&spread.judgement).into(),
            spread_round_mm: 2.0 * STANDARD_PIECE.radius.mm(),
            spread_least_percent: 100.0 * spread.range.0.value(),
            spread_most_percent: 100.0 * spread.range.1.value(),
            standard_grows_mm: spread.grows.map(|g| g.mm()),
            browning: (&c.browning).into(),
            tenderness: (&c.tenderness).into(),
            warnings: say_all(&c.warnings),
            school: say(&c.school),
        }
    }
}

/// A balance that practitioners name.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SchoolView {
    /// Butter : sugar : flour as it is said.
    pub name: String,
    /// Sugar over butter.
    pub sugar: f64,
    /// Flour over butter.
    pub flour: f64,
    /// What it is known for.
    pub known_for: String,
}

/// A formula beside a neighbour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BesideView {
    /// The formula.
    pub own: CharacterView,
    /// What it is compared with.
    pub neighbour: CharacterView,
    /// How they differ, the largest first.
    pub differences: Vec<SentenceView>,
    /// The schools.
    pub schools: Vec<SchoolView>,
    /// Flour to one of butter and sugar together: from here a soft cut-out, a firm one, one that holds its shape.
    pub dryness_lines: [f64; 3],
    /// All that it can be compared with: `formula:3`, `school:0`, and the name.
    pub neighbours: Vec<NeighbourView>,
}

/// Something to compare with.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NeighbourView {
    /// `formula:3` or `school:0`.
    pub key: String,
    /// Its name.
    pub name: String,
}

/// How a formula differs from a neighbour: what it is made of, then how far it spreads.
fn differences(own: &Formula, neighbour: &Formula, name: &str) -> Vec<SentenceView> {
    let made_of = Character::of(own).beside(&Character::of(neighbour));
    let spread = StandardSpread::of(own).beside(&StandardSpread::of(neighbour));
    let said = made_of.iter().map(|d| difference(d, name)).chain(spread.map(spread_beside));
    said.map(Into::into).collect()
}

impl BesideView {
    /// The formula beside the neighbour of that key, or beside the one on the shelf that is nearest to it.
    pub fn new(own: &StoredFormula, shelf: &[StoredFormula], key: Option<&str>) -> Self {
        let others: Vec<(String, &StoredFormula)> =
            shelf.iter().filter(|f| f.id != own.id).map(|f| (format!("formula:{}", f.id.0), f)).collect();
        let mut neighbours: Vec<NeighbourView> = others
            .iter()
            .map(|(key, f)| NeighbourView { key: key.clone(), name: f.formula.name().to_owned() })
            .collect();
        for (i, school) in SCHOOLS.iter().enumerate() {
            neighbours.push(NeighbourView { key: format!("school:{i}"), name: format!("the {} school", school.name) });
        }
        let chosen = key.and_then(|key| {
            let on_shelf = others.iter().find(|(k, _)| k == key).map(|(_, f)| (f.formula.clone(), Some(f.id.0)));
            let school = key.strip_prefix("school:").and_then(|i| i.parse::<usize>().ok()).and_then(|i| SCHOOLS.get(i));
            on_shelf.or_else(|| school.map(|s| (s.formula(), None)))
        });
        let (neighbour, id) = chosen
            .or_else(|| {
                let nearest = nearest_to(&own.formula, others.iter().map(|(_, f)| &f.formula))?;
                let (_, near) = others[nearest];
                Some((near.formula.clone(), Some(near.id.0)))
            })
            .unwrap_or_else(|| (SCHOOLS[0].formula(), None));
        let name = if id.is_some() { neighbour.name().to_owned() } else { format!("the {} school", neighbour.name()) };
        Self {
            differences: differences(&own.formula, &neighbour, &name),
            own: CharacterView::of(&own.formula, Some(own.id.0)),
            neighbour: CharacterView { name, ..CharacterView::of(&neighbour, id) },
            dryness_lines: Ratio::DRYNESS,
            schools: SCHOOLS
                .iter()
                .map(|s| SchoolView {
                    name: s.name.to_owned(),
                    sugar: s.sugar,
                    flour: s.flour,
                    known_for: known_for(s.known_for).to_owned(),
                })
                .collect(),
            neighbours,
        }
    }
}

/// A line before and after.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LineChangeView {
    /// Its key.
    pub ingredient: String,
    /// Its name.
    pub name: String,
    /// Zero when it is new.
    pub before_g: f64,
    /// Zero when it goes.
    pub after_g: f64,
}

impl From<&LineChange> for LineChangeView {
    fn from(c: &LineChange) -> Self {
        Self {
            ingredient: c.ingredient.key.to_string(),
            name: c.ingredient.name.to_string(),
            before_g: c.before.g(),
            after_g: c.after.g(),
        }
    }
}

/// A formula with a lever pulled, not yet kept.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PulledView {
    /// The formula after; sent back to keep it.
    pub formula: FormulaBody,
    /// Lines that changed.
    pub changes: Vec<LineChangeView>,
    /// Why they changed.
    pub reasons: Vec<SentenceView>,
    /// What it was.
    pub before: CharacterView,
    /// What it becomes.
    pub after: CharacterView,
    /// How it differs from what it was.
    pub differences: Vec<SentenceView>,
}

impl PulledView {
    /// A pulled lever as sent.
    pub fn new(before: &Formula, pulled: &Pulled) -> Self {
        Self {
            formula: (&pulled.formula).into(),
            changes: pulled.changes.iter().map(Into::into).collect(),
            reasons: say_all(&pulled.reasons),
            before: CharacterView::of(before, None),
            after: CharacterView::of(&pulled.formula, None),
            differences: differences(&pulled.formula, before, "before"),
        }
    }
}

/// A saved edit of a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct VersionView {
    /// From 1.
    pub number: u32,
    /// UTC.
    pub saved_at: String,
    /// As it was.
    #[serde(flatten)]
    pub body: FormulaBody,
    /// What changed since the version before; all of it for the first.
    pub changes: Vec<LineChangeView>,
    /// Whether the name changed.
    pub renamed_from: Option<String>,
}

impl VersionView {
    /// All versions, the latest first, each with its difference to the one before.
    pub fn list(versions: &[FormulaVersion]) -> Vec<Self> {
        versions
            .iter()
            .enumerate()
            .map(|(i, v)| {
                let before = versions.get(i + 1);
                Self {
                    number: v.number,
                    saved_at: v.saved_at.clone(),
                    body: (&v.formula).into(),
                    changes: before.map_or_else(Vec::new, |b| {
                        ready_slab_core::dough::difference(&b.formula, &v.formula).iter().map(Into::into).collect()
                    }),
                    renamed_from: before.map(|b| b.formula.name().to_owned()).filter(|name| name != v.formula.name()),
                }
            })
            .collect()
    }
}
