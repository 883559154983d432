//! Rows of formulas, their versions, the pantry and the notes on mixes.

use crate::error::StoreError;
use crate::from_row::row;
use crate::rows::{from_word, list, text, word};
use crate::things::{
    FormulaId, FormulaVersion, JobId, MixNoteId, NewMixNote, PantryId, StoredEntry, StoredFormula, StoredMixNote,
};
use ready_slab_core::dough::{
    Analysis, BowlNote, Formula, Household, Ingredient, IngredientInput, LineInput, Pantry, RecipeSays,
};
use ready_slab_core::units::Mass;
use serde::{Deserialize, Serialize};

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    pub(crate) struct LineRow {
        pub ingredient: String,
        pub grams: f64,
        #[serde(default)]
        pub note: String,
    }
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) struct FormulaRow {
    pub id: i64,
    pub name: String,
    pub lines: Vec<LineRow>,
    /// What its recipe says of method, chill and bake, as JSON.
    #[serde(default)]
    pub says: Option<String>,
}

fn says_text(formula: &Formula) -> Option<String> {
    formula.says().map(|s| serde_json::to_string(s).expect("plain figures serialise"))
}

fn line_rows(formula: &Formula) -> Vec<LineRow> {
    let line = |l: &ready_slab_core::dough::FormulaLine| LineRow {
        ingredient: l.ingredient().key.to_string(),
        grams: l.mass().g(),
        note: l.note().to_owned(),
    };
    formula.lines().iter().map(line).collect()
}

fn formula_of(
    id: i64,
    name: &str,
    lines: Vec<LineRow>,
    says: Option<&str>,
    pantry: &Pantry,
) -> Result<Formula, StoreError> {
    let lines: Vec<LineInput> =
        lines.into_iter().map(|l| LineInput { ingredient: l.ingredient, grams: l.grams, note: l.note }).collect();
    let damaged = |why: String| StoreError::Damaged { thing: "formula", id, why };
    let says = match says {
        Some(says) => {
            let says: RecipeSays = serde_json::from_str(says).map_err(|e| damaged(e.to_string()))?;
            Some(says.checked().map_err(|e| damaged(e.to_string()))?)
        }
        None => None,
    };
    let formula = Formula::new(name, &lines, pantry).map_err(|e| StoreError::damaged("formula", id, &e))?;
    Ok(formula.with_says(says))
}

impl FormulaRow {
    pub fn of(id: i64, formula: &Formula) -> Self {
        Self { id, name: formula.name().to_owned(), lines: line_rows(formula), says: says_text(formula) }
    }

    pub fn into_core(self, version: u32, revision: i64, pantry: &Pantry) -> Result<StoredFormula, StoreError> {
        let formula = formula_of(self.id, &self.name, self.lines, self.says.as_deref(), pantry)?;
        Ok(StoredFormula { id: FormulaId(self.id), formula, version, revision })
    }
}

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    pub(crate) struct VersionRow {
        pub id: i64,
        pub formula_id: i64,
        pub number: u32,
        pub saved_at: String,
        pub name: String,
        pub lines: String,
        #[serde(default)]
        pub says: Option<String>,
    }
}

impl VersionRow {
    pub fn of(id: i64, formula_id: i64, number: u32, saved_at: &str, formula: &Formula) -> Self {
        let lines = text(&line_rows(formula));
        let says = says_text(formula);
        Self { id, formula_id, number, saved_at: saved_at.to_owned(), name: formula.name().to_owned(), lines, says }
    }

    pub fn into_core(self, pantry: &Pantry) -> Result<FormulaVersion, StoreError> {
        let lines = list::<LineRow>("recipe version", self.id, &self.lines)?;
        let formula = formula_of(self.formula_id, &self.name, lines, self.says.as_deref(), pantry)?;
        Ok(FormulaVersion { number: self.number, saved_at: self.saved_at, formula })
    }
}

/// An own ingredient as JSON in its row.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct EntryJson {
    name: String,
    kind: String,
    /// Grams in 100 g, in the order of the core's analysis.
    parts_g: [f64; 10],
    fat_kind: String,
    /// Cup, scooped, sifted, packed, teaspoon, each, stick.
    household_g: [Option<f64>; 7],
    allergens: Vec<String>,
    aliases: Vec<String>,
    source: String,
}

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    pub(crate) struct PantryRow {
        pub id: i64,
        pub key: String,
        pub entry: Option<String>,
        pub price_per_kg: Option<f64>,
    }
}

impl PantryRow {
    pub fn of(id: i64, key: &str, own: Option<&Ingredient>, price_per_kg: Option<f64>) -> Self {
        let entry = own.map(|i| {
            let (a, h) = (&i.analysis, &i.household);
            let json = EntryJson {
                name: i.name.to_string(),
                kind: word(i.kind),
                parts_g: [
                    a.water,
                    a.alcohol,
                    a.fat,
                    a.protein,
                    a.carbohydrate,
                    a.sugars,
                    a.reducing,
                    a.fibre,
                    a.ash,
                    a.salt,
                ],
                fat_kind: word(i.fat_kind),
                household_g: [h.cup, h.cup_scooped, h.cup_sifted, h.cup_packed, h.tsp, h.each, h.stick],
                allergens: i.allergens.iter().map(ToString::to_string).collect(),
                aliases: i.aliases.iter().map(ToString::to_string).collect(),
                source: i.source.to_string(),
            };
            serde_json::to_string(&json).expect("an entry serialises")
        });
        Self { id, key: key.to_owned(), entry, price_per_kg }
    }

    pub fn into_core(self) -> Result<StoredEntry, StoreError> {
        let id = self.id;
        let damaged = |why: String| StoreError::Damaged { thing: "pantry entry", id, why };
        let own = match &self.entry {
            None => None,
            Some(entry) => {
                let e: EntryJson = serde_json::from_str(entry).map_err(|e| damaged(e.to_string()))?;
                let [water, alcohol, fat, protein, carbohydrate, sugars, reducing, fibre, ash, salt] = e.parts_g;
                let [cup, cup_scooped, cup_sifted, cup_packed, tsp, each, stick] = e.household_g;
                let input = IngredientInput {
                    name: e.name,
                    kind: from_word("pantry", self.id, &e.kind)?,
                    analysis: Analysis {
                        water,
                        alcohol,
                        fat,
                        protein,
                        carbohydrate,
                        sugars,
                        reducing,
                        fibre,
                        ash,
                        salt,
                    },
                    fat_kind: from_word("pantry", self.id, &e.fat_kind)?,
                    household: Household { cup, cup_scooped, cup_sifted, cup_packed, tsp, each, stick },
                    allergens: e.allergens,
                    aliases: e.aliases,
                    source: e.source,
                };
                let found = Ingredient::own(self.key.clone(), input);
                Some(found.map_err(|e| StoreError::damaged("pantry entry", id, &e))?)
            }
        };
        Ok(StoredEntry { id: PantryId(id), key: self.key, own, price_per_kg: self.price_per_kg })
    }
}

row! {
    pub(crate) struct MixNoteRow {
        pub id: i64,
        pub job_id: i64,
        pub formula_id: i64,
        pub formula_version: u32,
        pub noted_at: String,
        pub mix: u32,
        pub feel: String,
        pub squeeze: String,
        pub ingredient: Option<String>,
        pub grams: f64,
        pub left_over_g: f64,
        pub flour_g: f64,
        pub dough_c: Option<f64>,
    }
}

impl MixNoteRow {
    pub fn of(id: i64, n: &NewMixNote) -> Self {
        Self {
            id,
            job_id: n.job_id.0,
            formula_id: n.formula_id.0,
            formula_version: n.formula_version,
            noted_at: n.noted_at.clone(),
            mix: n.note.mix,
            feel: word(n.note.feel),
            squeeze: word(n.note.squeeze),
            ingredient: n.note.ingredient.clone(),
            grams: n.note.added_g,
            left_over_g: n.note.left_over_g,
            flour_g: n.flour.g(),
            dough_c: n.note.dough_c,
        }
    }

    pub fn into_core(self) -> Result<StoredMixNote, StoreError> {
        let id = self.id;
        let damaged = |why: String| StoreError::Damaged { thing: "mix note", id, why };
        Ok(StoredMixNote {
            id: MixNoteId(id),
            kept: NewMixNote {
                job_id: JobId(self.job_id),
                formula_id: FormulaId(self.formula_id),
                formula_version: self.formula_version,
                noted_at: self.noted_at,
                note: BowlNote {
                    mix: self.mix,
                    feel: from_word("mix note", id, &self.feel)?,
                    squeeze: from_word("mix note", id, &self.squeeze)?,
                    ingredient: self.ingredient,
                    added_g: self.grams,
                    left_over_g: self.left_over_g,
                    dough_c: self.dough_c,
                },
                flour: Mass::from_g(self.flour_g).map_err(|e| damaged(e.to_string()))?,
            },
        })
    }
}
