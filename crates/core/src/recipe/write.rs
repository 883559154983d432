//! A formula written back: plain text, schema.org JSON-LD, CSV (RFC 4180) and this program's own JSON.

use super::formats::{FORMAT, FormulaFile, VERSION};
use super::pages::LineInFile;
use crate::dough::Formula;
use serde_json::json;

fn line_text(line: &crate::dough::FormulaLine) -> String {
    let note = if line.note().is_empty() { String::new() } else { format!(", {}", line.note()) };
    format!("{} g {}{note}", line.mass().g(), line.ingredient().name)
}

/// As plain text, with its steps where there are any.
#[must_use]
pub fn write_text(formula: &Formula, steps: &[String]) -> String {
    let mut text = format!("{}\n\nIngredients\n", formula.name());
    for line in formula.lines() {
        text.push_str(&line_text(line));
        text.push('\n');
    }
    if !steps.is_empty() {
        text.push_str("\nMethod\n");
        for (i, step) in steps.iter().enumerate() {
            text.push_str(&format!("{}. {step}\n", i + 1));
        }
    }
    text
}

/// As a schema.org Recipe in JSON-LD.
#[must_use]
pub fn write_json_ld(formula: &Formula, steps: &[String]) -> String {
    let value = json!({
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": formula.name(),
        "recipeYield": format!("{:.0} g of dough", formula.total().g()),
        "recipeIngredient": formula.lines().iter().map(line_text).collect::<Vec<_>>(),
        "recipeInstructions": steps.iter().map(|s| json!({ "@type": "HowToStep", "text": s })).collect::<Vec<_>>(),
    });
    format!("{value:#}\n")
}

/// As a table: ingredient, grams, baker's percentage, note.
#[must_use]
pub fn write_csv(formula: &Formula) -> String {
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    let put = |writer: &mut csv::Writer<Vec<u8>>, cells: [&str; 4]| {
        writer.write_record(cells).expect("writing to memory does not fail");
    };
    put(&mut writer, ["ingredient", "grams", "bakers_percent", "note"]);
    for (line, bakers) in formula.lines().iter().zip(formula.bakers_percentages()) {
        let (grams, percent) = (line.mass().g().to_string(), format!("{:.2}", bakers.percent.percent()));
        put(&mut writer, [&line.ingredient().name, &grams, &percent, line.note()]);
    }
    String::from_utf8(writer.into_inner().expect("flushed")).expect("written as UTF-8")
}

/// As this program's own JSON.
#[must_use]
pub fn write_json(formula: &Formula) -> String {
    let file = FormulaFile {
        format: FORMAT.to_owned(),
        version: VERSION,
        name: formula.name().to_owned(),
        lines: formula
            .lines()
            .iter()
            .map(|l| LineInFile {
                ingredient: l.ingredient().key.to_string(),
                name: l.ingredient().name.to_string(),
                grams: l.mass().g(),
                note: l.note().to_owned(),
            })
            .collect(),
        says: formula.says().copied(),
    };
    serde_json::to_string_pretty(&file).expect("a formula serialises") + "\n"
}
