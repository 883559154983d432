//! A whole job as a file: everything needed to read it back elsewhere. Documented in `docs/job-file.md`.

use super::RecordBody;
use ready_slab_core::dough::{Formula, FormulaInput, Ingredient, IngredientInput, Pantry};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{JobInput, KitchenInput};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use utoipa::ToSchema;

/// The only version so far.
const VERSION: u32 = 1;
const FORMAT: &str = "ready-slab-job";

/// A cutter in a file: name, origin and outline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutterInFile {
    /// Its name.
    pub name: String,
    /// `svg`, or the word of a built-in form.
    pub origin: String,
    /// The outline, y downwards.
    pub outline_mm: Vec<[f64; 2]>,
    /// Its holes.
    #[serde(default)]
    pub holes_mm: Vec<Vec<[f64; 2]>>,
}

/// A record in a file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecordInFile {
    /// Local time.
    pub recorded_at: String,
    /// As cut.
    pub cut_width_mm: f64,
    /// As cut.
    pub cut_thickness_mm: f64,
    /// What was measured.
    pub measured: RecordBody,
    /// Expected then: least and most minutes.
    pub expected_bake_min: [f64; 2],
    /// Expected then: least and most spread.
    pub expected_spread_percent: [f64; 2],
}

/// An ingredient of a bakery's own, that its formula uses.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnInFile {
    /// The key that lines of the formula name it by.
    pub key: String,
    /// The ingredient.
    pub ingredient: IngredientInput,
}

/// A whole job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobFile {
    /// `ready-slab-job`.
    pub format: String,
    /// 1.
    pub version: u32,
    #[serde(deserialize_with = "job_of_any_day")]
    /// The job; `formula_id` and `cutter_id` are those of the bakery it came from and are not looked at.
    pub job: JobInput,
    /// Its formula.
    pub formula: FormulaInput,
    /// Ingredients of the formula that are the bakery's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ingredients: Vec<OwnInFile>,
    /// Its cutter.
    pub cutter: CutterInFile,
    /// The kitchen it was planned in, for information; reading a job back does not change one's own kitchen.
    pub kitchen: KitchenInput,
    /// What came out.
    pub records: Vec<RecordInFile>,
}

/// A job as it stands in a file: before there were more than two forms of dough it was told whether it is a disc.
fn job_of_any_day<'de, D: serde::Deserializer<'de>>(deserializer: D) -> Result<JobInput, D::Error> {
    let mut job = Map::<String, Value>::deserialize(deserializer)?;
    if let Some(disc) = job.remove("chill_as_disc").and_then(|disc| disc.as_bool()) {
        job.insert("dough_form".to_owned(), if disc { "disc" } else { "sheets" }.into());
    }
    JobInput::deserialize(Value::Object(job)).map_err(serde::de::Error::custom)
}

impl JobFile {
    /// A file of these parts.
    pub fn new(
        job: JobInput,
        formula: &Formula,
        cutter: CutterInFile,
        kitchen: KitchenInput,
        records: Vec<RecordInFile>,
    ) -> Self {
        let own = |l: &ready_slab_core::dough::FormulaLine| {
            let i = l.ingredient();
            i.key.starts_with("own-").then(|| OwnInFile { key: i.key.to_string(), ingredient: i.as_ref().into() })
        };
        let mut ingredients: Vec<OwnInFile> = formula.lines().iter().filter_map(own).collect();
        ingredients.sort_by(|a, b| a.key.cmp(&b.key));
        ingredients.dedup_by(|a, b| a.key == b.key);
        let formula = formula.into();
        Self { format: FORMAT.to_owned(), version: VERSION, job, formula, ingredients, cutter, kitchen, records }
    }

    /// The file's own ingredients that the pantry lacks, checked; lines of the formula that name one the pantry has by its
    /// name are turned to it.
    pub fn settle_ingredients(&mut self, pantry: &Pantry) -> Result<Vec<Ingredient>, InputErrors> {
        let mut missing = Vec::new();
        for (i, own) in self.ingredients.clone().into_iter().enumerate() {
            let place = format!("ingredients[{i}].ingredient");
            // A key of another bakery means nothing here, and must not meet one of this bakery's.
            let made = Ingredient::own(format!("file-{i}"), own.ingredient).map_err(|e| e.within(&place))?;
            let same = |i: &Ingredient| i.name.eq_ignore_ascii_case(&made.name);
            let known = pantry.all().iter().map(AsRef::as_ref).chain(&missing).find(|i| same(i));
            let key = match known {
                Some(known) => known.key.to_string(),
                None => {
                    let key = made.key.to_string();
                    missing.push(made);
                    key
                }
            };
            for line in self.formula.lines.iter_mut().filter(|l| l.ingredient == own.key) {
                line.ingredient.clone_from(&key);
            }
        }
        Ok(missing)
    }

    /// Whether this program reads it.
    pub fn check_version(&self) -> Result<(), InputErrors> {
        if self.format != FORMAT {
            return Err(InputError::refused(
                "format",
                format!("This isn\u{2019}t a job file: its format isn\u{2019}t \u{201c}{FORMAT}\u{201d}."),
            )
            .into());
        }
        if self.version != VERSION {
            return Err(InputError::refused(
                "version",
                format!("Job file version {}. This version of Ready Slab reads version {VERSION}.", self.version),
            )
            .into());
        }
        if self.records.len() > 1000 {
            return Err(InputError::refused("records", "At most 1,000 bakes in a job file.").into());
        }
        Ok(())
    }
}
