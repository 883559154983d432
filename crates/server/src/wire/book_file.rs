//! Bakes as a table or a list, out and in; and what a calliper wrote.

use super::book::{BookRecordView, MOST_IN_FILE, refused};
use super::record::RecordBody;
use chrono::NaiveDateTime;
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::Conditions;
use ready_slab_core::ledger::ExpectedBake;
use ready_slab_core::oven::EdgeColour;
use ready_slab_core::units::{Quantity, parse_quantity};
use ready_slab_store::BookPage;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::{IntoParams, ToSchema};

/// Columns of a table of bakes; of those that are read, `widths_mm` and `edge_colour` must be there. Lists have a semicolon between their figures.
const COLUMNS: [&str; 21] = [
    "recorded_at",
    "job",
    "formula",
    "formula_version",
    "cut_width_mm",
    "cut_thickness_mm",
    "widths_mm",
    "thicknesses_mm",
    "baked_min",
    "edge_colour",
    "oven_c",
    "oven_fan",
    "tray_kind",
    "liner",
    "bake_end",
    "start_c",
    "expected_bake_least_min",
    "expected_bake_most_min",
    "expected_spread_least_percent",
    "expected_spread_most_percent",
    "notes",
];

fn word<T: Serialize>(value: &T) -> String {
    match serde_json::to_value(value) {
        Ok(serde_json::Value::String(word)) => word,
        Ok(serde_json::Value::Null) | Err(_) => String::new(),
        Ok(other) => other.to_string(),
    }
}

/// A cell of text: what a spreadsheet would compute stands behind an apostrophe (OWASP, CSV injection).
pub(super) fn cell(value: &str) -> String {
    if value.starts_with(['=', '+', '-', '@', '\t', '\r']) { format!("'{value}") } else { value.to_owned() }
}

/// The records as a table (RFC 4180).
pub fn book_csv(page: &BookPage) -> Vec<u8> {
    let mut table = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(vec![]);
    table.write_record(COLUMNS).expect("memory takes it");
    let list = |v: &[f64]| v.iter().map(f64::to_string).collect::<Vec<_>>().join(";");
    for record in &page.records {
        let BookRecordView { job, formula, record: r, .. } = record.into();
        let c = &r.body.conditions;
        let cells = [
            r.recorded_at.clone(),
            cell(&job.unwrap_or_default()),
            cell(&formula.unwrap_or_default()),
            word(&r.formula_version),
            word(&r.cut_width_mm),
            word(&r.cut_thickness_mm),
            list(&r.body.widths_mm),
            list(&r.body.thicknesses_mm),
            word(&r.body.baked_min),
            word(&r.body.edge_colour),
            word(&c.oven_c),
            word(&c.oven_fan),
            word(&c.tray_kind),
            word(&c.liner),
            word(&c.bake_end),
            word(&c.start_c),
            word(&r.expected_bake_least_min),
            word(&r.expected_bake_most_min),
            word(&r.expected_spread_least_percent),
            word(&r.expected_spread_most_percent),
            cell(&r.body.notes),
        ];
        table.write_record(cells).expect("memory takes it");
    }
    table.into_inner().expect("memory takes it")
}

/// A bake of a file.
pub struct RecordRead {
    /// Local time, as `2026-12-05T14:10`; now where absent.
    pub recorded_at: Option<String>,
    /// What was measured, and what it was baked with.
    pub body: RecordBody,
    /// What was expected then; as the plan has it now where that is absent.
    pub expected: ExpectedThen,
}

/// What of an object is a record's own; all else in it (means, names, numbers of another bakery) is left out.
const OWN: [&str; 6] = ["widths_mm", "thicknesses_mm", "baked_min", "edge_colour", "notes", "conditions"];

impl RecordRead {
    fn of(object: serde_json::Map<String, Value>) -> Result<Self, serde_json::Error> {
        let recorded_at = object.get("recorded_at").cloned().unwrap_or_default();
        let expected = serde_json::from_value(Value::Object(object.clone()))?;
        let own = object.into_iter().filter(|(name, _)| OWN.contains(&name.as_str())).collect();
        let body = serde_json::from_value(Value::Object(own))?;
        Ok(Self { recorded_at: serde_json::from_value(recorded_at)?, body, expected })
    }
}

/// What was expected of a bake when it was made; all of it or nothing.
#[derive(Debug, Clone, Copy, PartialEq, Default, Deserialize, Serialize, ToSchema)]
pub struct ExpectedThen {
    expected_bake_least_min: Option<f64>,
    expected_bake_most_min: Option<f64>,
    expected_spread_least_percent: Option<f64>,
    expected_spread_most_percent: Option<f64>,
}

impl ExpectedThen {
    /// Minutes and spread; nothing where not all of it is told.
    pub fn told(self) -> Result<Option<ExpectedBake>, InputErrors> {
        let all = (
            self.expected_bake_least_min,
            self.expected_bake_most_min,
            self.expected_spread_least_percent,
            self.expected_spread_most_percent,
        );
        let (Some(least), Some(most), Some(low), Some(high)) = all else { return Ok(None) };
        let bake = [("expected_bake_least_min", least), ("expected_bake_most_min", most)];
        let spread = [("expected_spread_least_percent", low), ("expected_spread_most_percent", high)];
        ExpectedBake::new(bake, spread).map(Some)
    }
}

/// How many were read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadBackView {
    /// Bakes that were added.
    pub added: usize,
}

/// A file of bakes is one of these.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BookFormat {
    /// A table with a line of names.
    Csv,
    /// A list of objects.
    Json,
}

/// In which format a file of bakes is.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BookFormatQuery {
    /// Of the file.
    #[param(inline)]
    pub format: BookFormat,
}

/// Figures with a semicolon or a space between them; a comma is a decimal point.
fn figures(place: &str, cell: &str) -> Result<Vec<f64>, InputErrors> {
    let cells = cell.split([';', ' ']).map(str::trim).filter(|c| !c.is_empty());
    cells
        .map(|c| {
            c.replace(',', ".")
                .parse()
                .map_err(|_| refused(place, format!("Can\u{2019}t read \u{201c}{c}\u{201d}. Use a number.")))
        })
        .collect()
}

impl BookFormat {
    /// Reads a file of bakes; what is wrong with it is told by line and column.
    pub fn read(self, file: &[u8]) -> Result<Vec<RecordRead>, InputErrors> {
        let found = match self {
            Self::Json => {
                let all: Vec<serde_json::Map<String, Value>> =
                    serde_json::from_slice(file).map_err(|e| refused("file", e))?;
                let read = |(i, object)| RecordRead::of(object).map_err(|e| refused(format!("[{i}]"), e));
                all.into_iter().enumerate().map(read).collect::<Result<_, _>>()?
            }
            Self::Csv => table(file)?,
        };
        if found.is_empty() || found.len() > MOST_IN_FILE {
            return Err(refused("file", format!("Use 1 to {MOST_IN_FILE} bakes in a file.")));
        }
        for (i, read) in found.iter().enumerate() {
            if let Some(at) = &read.recorded_at {
                NaiveDateTime::parse_from_str(at, MINUTE_FORMAT)
                    .map_err(|_| refused(format!("[{i}].recorded_at"), "Use a time such as 2026-12-05T14:10."))?;
            }
        }
        Ok(found)
    }
}

fn table(file: &[u8]) -> Result<Vec<RecordRead>, InputErrors> {
    let file = file.strip_prefix(b"\xef\xbb\xbf").unwrap_or(file);
    let first = file.split(|b| *b == b'\n').next().unwrap_or(file);
    let semicolons = first.iter().filter(|b| **b == b';').count();
    // Where a comma is the decimal point, a semicolon stands between the columns.
    let between = if semicolons > first.iter().filter(|b| **b == b',').count() { b';' } else { b',' };
    let mut table = csv::ReaderBuilder::new().delimiter(between).trim(csv::Trim::All).from_reader(file);
    let names = table.headers().map_err(|e| refused("file", e))?.clone();
    let at = |name: &str| names.iter().position(|n| n.eq_ignore_ascii_case(name));
    for name in ["widths_mm", "edge_colour"] {
        if at(name).is_none() {
            return Err(refused(
                "file",
                format!("No column {name}. The first line must name the columns, as in an exported file."),
            ));
        }
    }
    let mut found = vec![];
    for (i, row) in table.records().enumerate() {
        let line = i + 2;
        let row = row.map_err(|e| refused(format!("line {line}"), e))?;
        let cell = |name: &str| at(name).and_then(|k| row.get(k)).unwrap_or_default();
        let place = |name: &str| format!("line {line}, {name}");
        let one = |name: &str| -> Result<Option<f64>, InputErrors> {
            Ok(figures(&place(name), cell(name))?.first().copied())
        };
        fn chosen<T: serde::de::DeserializeOwned>(place: String, cell: &str) -> Result<Option<T>, InputErrors> {
            if cell.is_empty() {
                return Ok(None);
            }
            let shown: String = cell.chars().take(40).collect();
            let read = serde_json::from_value(cell.to_lowercase().replace(' ', "_").into());
            read.map(Some).map_err(|_| refused(place, format!("Don\u{2019}t know \u{201c}{shown}\u{201d}.")))
        }
        let fan = match cell("oven_fan").to_ascii_lowercase().as_str() {
            "" => None,
            "true" | "yes" | "1" => Some(true),
            "false" | "no" | "0" => Some(false),
            _ => return Err(refused(place("oven_fan"), "Use true or false.")),
        };
        let edge: Option<EdgeColour> = chosen(place("edge_colour"), cell("edge_colour"))?;
        let expected = ExpectedThen {
            expected_bake_least_min: one("expected_bake_least_min")?,
            expected_bake_most_min: one("expected_bake_most_min")?,
            expected_spread_least_percent: one("expected_spread_least_percent")?,
            expected_spread_most_percent: one("expected_spread_most_percent")?,
        };
        let notes = cell("notes");
        found.push(RecordRead {
            recorded_at: Some(cell("recorded_at").to_owned()).filter(|t| !t.is_empty()),
            expected,
            body: RecordBody {
                widths_mm: figures(&place("widths_mm"), cell("widths_mm"))?,
                thicknesses_mm: figures(&place("thicknesses_mm"), cell("thicknesses_mm"))?,
                baked_min: one("baked_min")?,
                edge_colour: edge
                    .ok_or_else(|| refused(place("edge_colour"), "Use pale, just_golden, golden or brown."))?,
                notes: notes.strip_prefix('\'').filter(|n| self::cell(n) != *n).unwrap_or(notes).to_owned(),
                conditions: Conditions {
                    oven_c: one("oven_c")?,
                    oven_fan: fan,
                    tray_kind: chosen(place("tray_kind"), cell("tray_kind"))?,
                    liner: chosen(place("liner"), cell("liner"))?,
                    bake_end: chosen(place("bake_end"), cell("bake_end"))?,
                    start_c: one("start_c")?,
                },
                of_tray: None,
            },
        });
    }
    Ok(found)
}

/// What a calliper measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CallipersView {
    /// Of each piece.
    pub widths_mm: Vec<f64>,
    /// Of each piece, where there is a second column.
    pub thicknesses_mm: Vec<f64>,
}

/// Pieces of one file of a calliper.
const MOST_LINES: usize = 60;

impl CallipersView {
    /// Reads what a calliper wrote: one piece a line, its width and, where there is one, its thickness. A first line of names may say `width`, `thickness` and
    /// `in`; a figure may have its unit behind it.
    pub fn read(file: &[u8]) -> Result<Self, InputErrors> {
        let text = std::str::from_utf8(file)
            .map_err(|_| refused("file", "This isn’t a text file. Use a CSV or text file."))?;
        let lines: Vec<&str> = text.trim_start_matches('\u{feff}').lines().filter(|l| !l.trim().is_empty()).collect();
        let between = if lines.iter().any(|l| l.contains(';')) {
            ';'
        } else if lines.iter().any(|l| l.contains('\t')) {
            '\t'
        } else {
            ','
        };
        let cells =
            |line: &str| line.split(between).map(|c| c.trim().trim_matches('"').to_lowercase()).collect::<Vec<_>>();
        let named = lines.first().is_some_and(|l| !l.contains(|c: char| c.is_ascii_digit()));
        let names = if named { cells(lines[0]) } else { vec![] };
        let column = |word: &str| names.iter().position(|n| n.contains(word));
        let (width, thickness) = if named { (column("width").unwrap_or(0), column("thick")) } else { (0, Some(1)) };
        let inches =
            |k: usize| names.get(k).is_some_and(|n| n.contains("inch") || n.ends_with("_in") || n.ends_with("(in)"));
        let mut found = Self { widths_mm: vec![], thicknesses_mm: vec![] };
        for (i, line) in lines.iter().enumerate().skip(usize::from(named)) {
            let row = cells(line);
            let at = |k: usize| -> Result<Option<f64>, InputErrors> {
                let Some(cell) = row.get(k).filter(|c| !c.is_empty()) else { return Ok(None) };
                // A comma is a decimal point; a figure's own unit stands before that of its column.
                let shown = if inches(k) { "in" } else { "mm" };
                let value = parse_quantity("file", Quantity::Length, &cell.replace(',', "."), shown);
                Ok(Some(value.map_err(|_| {
                    refused(
                        format!("line {}", i + 1),
                        format!("Can\u{2019}t read \u{201c}{cell}\u{201d}. Use a length such as 6 mm or 1/4 in."),
                    )
                })?))
            };
            found.widths_mm.extend(at(width)?);
            if let Some(k) = thickness {
                found.thicknesses_mm.extend(at(k)?);
            }
        }
        if found.widths_mm.is_empty() || found.widths_mm.len() > MOST_LINES {
            return Err(refused("file", format!("Use 1 to {MOST_LINES} cookies, one per line.")));
        }
        Ok(found)
    }
}
