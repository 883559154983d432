//! The formats a recipe comes in, each brought to numbered lines.

use super::ReadSettings;
use super::markup::told;
use super::pages::{LineInFile, Pages, Source};
use super::question::LineAnswer;
use super::reading::{MOST_RECIPE_BYTES, Reading, understand};
use super::words::heads_ingredients;
use crate::dough::{Pantry, RecipeSays};
use crate::error::{InputError, InputErrors, Problem};
use serde::{Deserialize, Serialize};
use serde_json::Value;

/// The format of a formula's own file.
pub(super) const FORMAT: &str = "ready-slab-formula";
pub(super) const VERSION: u32 = 1;
/// How deep a JSON-LD graph is searched for its recipe.
const DEEPEST: usize = 8;

/// A formula as a file. Documented in `docs/recipe-formats.md`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct FormulaFile {
    /// `ready-slab-formula`.
    pub format: String,
    /// 1.
    pub version: u32,
    /// Its name.
    pub name: String,
    /// Its lines.
    pub lines: Vec<LineInFile>,
    /// What the recipe says of method, chill and bake.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub says: Option<RecipeSays>,
}

/// In which format a text turned out to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RecipeFormat {
    /// Free text.
    Text,
    /// schema.org Recipe in JSON-LD.
    JsonLd,
    /// JSON-LD inside an HTML page.
    Html,
    /// Comma-separated values.
    Csv,
    /// This program's own JSON.
    Json,
}

/// Reads a recipe in whichever format it is.
///
/// Fails when the text is larger than [`MOST_RECIPE_BYTES`], blank, or JSON or HTML that holds no recipe. Single lines
/// never fail; they ask.
pub fn read_recipe(
    text: &str,
    pantry: &Pantry,
    settings: &ReadSettings,
    answers: &[LineAnswer],
) -> Result<(RecipeFormat, Reading), InputErrors> {
    if text.len() > MOST_RECIPE_BYTES {
        return Err(InputError::refused(
            "text",
            format!(
                "Too long: {} kB, {} kB at most. Paste only the ingredients.",
                text.len() / 1000,
                MOST_RECIPE_BYTES / 1000
            ),
        )
        .into());
    }
    let start = text.trim_start_matches(|c: char| c.is_whitespace() || c == '\u{feff}');
    if start.is_empty() {
        return Err(InputError::new("text", Problem::Missing { wanted: "a recipe" }).into());
    }
    let (format, pages) = if start.starts_with(['{', '[']) && !start.starts_with("[ ]") {
        json(start)?
    } else if start.starts_with('<') {
        (RecipeFormat::Html, html(start)?)
    } else if let Some(pages) = csv_pages(text) {
        (RecipeFormat::Csv, pages)
    } else {
        (RecipeFormat::Text, as_text(text))
    };
    Ok((format, understand(pages, pantry, settings, answers)))
}

fn as_text(text: &str) -> Pages {
    let mut lines: Vec<(usize, Source)> = text
        .trim_start_matches('\u{feff}')
        .lines()
        .enumerate()
        .map(|(i, l)| (i + 1, l.trim()))
        .filter(|(_, l)| !l.is_empty())
        .map(|(i, l)| (i, Source::Text(l.to_owned())))
        .collect();
    // A line that stands right before the heading of the ingredients is the title, whatever it looks like.
    let title = match lines.as_slice() {
        [(_, Source::Text(first)), (_, Source::Text(second)), ..]
            if heads_ingredients(second) && !heads_ingredients(first) =>
        {
            Some(first.chars().take(80).collect())
        }
        _ => None,
    };
    if title.is_some() {
        lines.remove(0);
    }
    Pages { title, lines, ..Pages::default() }
}

fn json(text: &str) -> Result<(RecipeFormat, Pages), InputErrors> {
    let value: Value = serde_json::from_str(text)
        .map_err(|e| InputError::refused("text", format!("Looks like JSON but can’t be read: {e}")))?;
    if value.get("format").and_then(Value::as_str) == Some(FORMAT) {
        let file: FormulaFile = serde_json::from_value(value)
            .map_err(|e| InputError::refused("text", format!("Can’t read the recipe file: {e}")))?;
        if file.version != VERSION {
            return Err(InputError::refused(
                "text",
                format!("Recipe file version {}. This version of Ready Slab reads version {VERSION}.", file.version),
            )
            .into());
        }
        let lines = file.lines.into_iter().enumerate().map(|(i, l)| (i + 1, Source::Exact(l))).collect();
        let title = Some(file.name.chars().take(80).collect());
        return Ok((
            RecipeFormat::Json,
            Pages { title, lines, only_ingredients: true, says: file.says, ..Pages::default() },
        ));
    }
    recipe_in(&value, 0).map(|pages| (RecipeFormat::JsonLd, pages)).ok_or_else(|| {
        InputError::refused("text", "No recipe in this JSON. It needs a schema.org Recipe with recipeIngredient.")
            .into()
    })
}

fn html(text: &str) -> Result<Pages, InputErrors> {
    for content in told(text).json_ld {
        if let Ok(value) = serde_json::from_str::<Value>(&content)
            && let Some(pages) = recipe_in(&value, 0)
        {
            return Ok(pages);
        }
    }
    Err(InputError::refused("text", "Can’t find the recipe in this page. Copy the ingredients and paste them as text.")
        .into())
}

/// The first recipe in a JSON-LD value, in its lists and graphs.
fn recipe_in(value: &Value, depth: usize) -> Option<Pages> {
    if depth > DEEPEST {
        return None;
    }
    match value {
        Value::Array(items) => items.iter().find_map(|v| recipe_in(v, depth + 1)),
        Value::Object(fields) => {
            let is_recipe = match fields.get("@type") {
                Some(Value::String(t)) => t.ends_with("Recipe"),
                Some(Value::Array(types)) => types.iter().any(|t| t.as_str().is_some_and(|t| t.ends_with("Recipe"))),
                _ => false,
            };
            let ingredients = fields.get("recipeIngredient").or_else(|| fields.get("ingredients"));
            if is_recipe && let Some(ingredients) = ingredients {
                let texts = texts_of(ingredients);
                let lines = texts.into_iter().enumerate().map(|(i, t)| (i + 1, Source::Text(t))).collect();
                return Some(Pages {
                    title: fields.get("name").and_then(Value::as_str).map(|n| bare(n).chars().take(80).collect()),
                    lines,
                    only_ingredients: true,
                    yields: fields.get("recipeYield").map(|y| texts_of(y).join(", ")).filter(|y| !y.is_empty()),
                    steps: fields.get("recipeInstructions").map(texts_of).unwrap_or_default(),
                    says: None,
                });
            }
            fields.values().filter(|v| v.is_array() || v.is_object()).find_map(|v| recipe_in(v, depth + 1))
        }
        Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => None,
    }
}

/// Texts of a list, a string with lines, or steps and sections of steps.
fn texts_of(value: &Value) -> Vec<String> {
    match value {
        Value::String(text) => bare(text).lines().map(str::trim).filter(|l| !l.is_empty()).map(str::to_owned).collect(),
        Value::Number(n) => vec![n.to_string()],
        Value::Array(items) => items.iter().flat_map(texts_of).collect(),
        Value::Object(fields) => {
            ["text", "itemListElement", "name"].iter().find_map(|f| fields.get(*f)).map(texts_of).unwrap_or_default()
        }
        Value::Null | Value::Bool(_) => vec![],
    }
}

/// A text without markup: entities read, tags gone, scripts with all they hold.
fn bare(text: &str) -> String {
    if !text.contains(['&', '<']) {
        return text.to_owned();
    }
    told(text).text.trim().to_owned()
}

/// Which column holds what.
#[derive(Default)]
struct Columns {
    name: Option<usize>,
    amount: Option<usize>,
    grams: Option<usize>,
    unit: Option<usize>,
    note: Option<usize>,
}

fn columns(header: &csv::StringRecord) -> Columns {
    let mut found = Columns::default();
    for (i, cell) in header.iter().enumerate() {
        let slot = match cell.trim().trim_start_matches('\u{feff}').to_lowercase().as_str() {
            "ingredient" | "ingredients" | "name" | "item" => &mut found.name,
            "grams" | "g" | "mass_g" | "weight_g" | "weight (g)" | "grams (g)" => &mut found.grams,
            "amount" | "quantity" | "qty" | "weight" | "mass" => &mut found.amount,
            "unit" | "units" | "measure" => &mut found.unit,
            "note" | "notes" | "preparation" | "comment" => &mut found.note,
            _ => continue,
        };
        slot.get_or_insert(i);
    }
    found
}

/// The text as a table, where its first line names an ingredient column and an amount.
fn csv_pages(text: &str) -> Option<Pages> {
    let first = text.lines().find(|l| !l.trim().is_empty())?;
    let delimiter = [b';', b'\t', b','].into_iter().find(|d| first.as_bytes().contains(d))?;
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter)
        .has_headers(false)
        .flexible(true)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let mut records = reader.records();
    let header = records.next()?.ok()?;
    let columns = columns(&header);
    let name = columns.name?;
    columns.grams.or(columns.amount)?;
    let mut pages = Pages { only_ingredients: true, ..Pages::default() };
    for record in records {
        // A record that breaks the quoting is shown as it stands and asks.
        let Ok(record) = record else { continue };
        let number = record.position().map_or(0, |p| usize::try_from(p.line()).unwrap_or(usize::MAX));
        let cell = |i: Option<usize>| i.and_then(|i| record.get(i)).unwrap_or("").trim().to_owned();
        let (name, grams, amount) = (cell(Some(name)), cell(columns.grams), cell(columns.amount));
        if name.is_empty() && grams.is_empty() && amount.is_empty() {
            continue;
        }
        let note = cell(columns.note);
        if let Ok(grams) = grams.parse::<f64>()
            && grams.is_finite()
        {
            pages.lines.push((number, Source::Exact(LineInFile { ingredient: String::new(), name, grams, note })));
            continue;
        }
        let amount = if grams.is_empty() { format!("{amount} {}", cell(columns.unit)) } else { format!("{grams} g") };
        let tail = if note.is_empty() { String::new() } else { format!(", {note}") };
        pages.lines.push((number, Source::Text(format!("{} {name}{tail}", amount.trim()))));
    }
    Some(pages)
}
