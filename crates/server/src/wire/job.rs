//! Jobs on the wire.

use super::FinishBody;
use super::even::ReadingsBody;
use super::making::MakingBody;
use super::plan::CutView;
use chrono::NaiveDateTime;
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::cold::ColdPlace;
use ready_slab_core::dough::MixMethod;
use ready_slab_core::error::{Checks, InputError, InputErrors, Problem};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::{Job, JobInput};
use ready_slab_core::oven::TrayLiner;
use ready_slab_core::oven::{BakeEnd, EdgeColour};
use ready_slab_core::shape::BenchSurface;
use ready_slab_core::shape::SheetKind;
use ready_slab_core::shape::Turning;
use ready_slab_core::shape::{MOST_MIXED_SHEETS, MOST_SEARCHED, SHEET_MM, SheetReadings};
use ready_slab_core::units::Length;
use ready_slab_store::{CutterId, FormulaId, JobId, StoredJob, StoredMixedSheet};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A job. A change sends only the fields that change (JSON Merge Patch, RFC 7396).
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobBody {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// Number of its formula.
    pub formula_id: i64,
    /// Number of its cutter.
    pub cutter_id: i64,
    /// 1 to 20,000.
    pub pieces: u32,
    /// Rolled to, 2 to 25.
    pub thickness_mm: f64,
    /// Wanted at, local time, `2026-11-28T14:00`.
    pub ready_by: String,
    /// How the dough is mixed.
    pub method: MixMethod,
    /// Dough out of the mixer as measured, -5 to 35; computed when null.
    pub dough_c: Option<f64>,
    /// Chilled as discs (true) or rolled first and chilled as sheets.
    pub chill_as_disc: bool,
    /// Discs pressed to, 8 to 80.
    pub disc_mm: f64,
    /// Where the dough chills.
    pub chill_place: ColdPlace,
    /// Where the cut pieces chill.
    pub tray_chill_place: ColdPlace,
    /// Least gap between cuts, 0.5 to 10.
    pub web_mm: f64,
    /// Rim kept free, 0 to 30.
    pub edge_mm: f64,
    /// Rolled on.
    pub surface: BenchSurface,
    /// Re-rolls allowed, 0 to 2.
    pub rerolls: u32,
    /// Dough kept back, 0 to 25.
    pub reserve_percent: f64,
    /// Oven set to, 140 to 220.
    pub oven_c: f64,
    /// Of the pieces, kept as dough in the freezer; at least one is baked.
    #[serde(default)]
    pub freeze_pieces: u32,
    /// Flour kept aside to be added by feel, 0 to 20.
    #[serde(default)]
    pub hold_back_percent: f64,
    /// Whether eggs are used whole.
    #[serde(default)]
    pub whole_eggs: bool,
    /// Portions that are coloured, at most 8, together at most 100 %.
    #[serde(default)]
    pub tints: Vec<TintBody>,
    /// How the cutter may be turned on the sheet; never over.
    #[serde(default = "turns_freely")]
    pub turning: Turning,
    /// A layout of the cutter on one sheet kept from nesting, at most 400 pieces; rows are used when empty.
    #[serde(default)]
    pub layout: Vec<CutView>,
    /// How a hand has laid the pieces on a tray, at most 400; rows are used when empty.
    #[serde(default)]
    pub tray_layout: Vec<CutView>,
    /// Thickness read on its sheets, in the order of the sheets; at most 24.
    #[serde(default)]
    pub measured: Vec<ReadingsBody>,
    /// How its pieces are made.
    #[serde(default)]
    pub making: MakingBody,
    /// What ends its bake.
    #[serde(default = "just_golden")]
    pub bake_end: BakeEnd,
    /// What lies between tray and piece.
    #[serde(default = "on_parchment")]
    pub liner: TrayLiner,
    /// The dough rests at least so long for its flour, 0 to 720; as long as its method usually rests when null.
    #[serde(default)]
    pub flour_rest_min: Option<f64>,
    /// The pieces as they go into the oven as measured, -20 to 28; as their chill leaves them when null.
    #[serde(default)]
    pub goes_in_c: Option<f64>,
    /// What goes onto or between the pieces, at most 4.
    #[serde(default)]
    pub finishes: Vec<FinishBody>,
    /// What form its sheets are rolled to.
    #[serde(default = "oblong")]
    pub sheet: SheetKind,
    /// Sheets no wider than this, 40 to 1200; the tray's width when null.
    #[serde(default)]
    pub sheet_width_mm: Option<f64>,
    /// Sheets no longer than this, 40 to 1200; the tray's length when null.
    #[serde(default)]
    pub sheet_length_mm: Option<f64>,
    /// The version of the formula it keeps; null while it follows the newest.
    #[serde(default)]
    pub formula_version: Option<u32>,
    /// The job whose mixes also hold this one's dough.
    #[serde(default)]
    pub dough_with: Option<i64>,
    /// The job of which it is a lot.
    #[serde(default)]
    pub lot_of: Option<i64>,
    /// Sheets from which the pieces of several lots of one dough are cut together, at most 40; empty for none. Only a job
    /// that is no lot of another keeps any.
    #[serde(default)]
    pub mixed: Vec<MixedSheetBody>,
}

const fn just_golden() -> BakeEnd {
    BakeEnd::Colour(EdgeColour::JustGolden)
}

const fn on_parchment() -> TrayLiner {
    TrayLiner::Parchment
}

const fn oblong() -> SheetKind {
    SheetKind::Oblong
}

/// A sheet with the pieces of several lots.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MixedSheetBody {
    /// Its length; it is as wide as the lots' largest sheet.
    pub length_mm: f64,
    /// In the order of cutting.
    pub pieces: Vec<MixedPieceBody>,
}

/// Whose piece lies where.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MixedPieceBody {
    /// The lot.
    pub job_id: i64,
    /// Centre along the width.
    pub x_mm: f64,
    /// Centre along the length.
    pub y_mm: f64,
    /// Turn.
    pub turn_deg: f64,
}

impl From<&StoredMixedSheet> for MixedSheetBody {
    fn from(sheet: &StoredMixedSheet) -> Self {
        let piece = |(job, p): &(JobId, Placement)| MixedPieceBody {
            job_id: job.0,
            x_mm: p.x_mm,
            y_mm: p.y_mm,
            turn_deg: p.turn_deg,
        };
        Self { length_mm: sheet.length.mm(), pieces: sheet.pieces.iter().map(piece).collect() }
    }
}

fn mixed(sheets: &[MixedSheetBody]) -> Result<Vec<StoredMixedSheet>, InputErrors> {
    let mut checks = Checks::new();
    checks.limit("mixed", sheets.len(), MOST_MIXED_SHEETS, "sheets");
    for (i, sheet) in sheets.iter().enumerate() {
        checks.range(&format!("mixed[{i}].length_mm"), sheet.length_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.limit(&format!("mixed[{i}].pieces"), sheet.pieces.len(), MOST_SEARCHED, "pieces");
        let lies = |p: &MixedPieceBody| {
            [p.x_mm, p.y_mm].iter().all(|v| (0.0..=SHEET_MM.1).contains(v)) && (-720.0..=720.0).contains(&p.turn_deg)
        };
        if let Some(at) = sheet.pieces.iter().position(|p| !lies(p)) {
            checks.push(InputError::refused(format!("mixed[{i}].pieces[{at}]"), "not a place on any sheet"));
        }
    }
    checks.finish(())?;
    let place = |p: &MixedPieceBody| (JobId(p.job_id), Placement { x_mm: p.x_mm, y_mm: p.y_mm, turn_deg: p.turn_deg });
    Ok(sheets
        .iter()
        .map(|s| StoredMixedSheet { length: Length::new_mm(s.length_mm), pieces: s.pieces.iter().map(place).collect() })
        .collect())
}

/// Another lot of a job: what differs from the job itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotBody {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// Number of its formula; the job's own when null.
    #[serde(default)]
    pub formula_id: Option<i64>,
    /// Number of its cutter; the job's own when null.
    #[serde(default)]
    pub cutter_id: Option<i64>,
    /// 1 to 20,000.
    pub pieces: u32,
    /// Thickness of sheet or slice, 2 to 25; the job's own when null.
    #[serde(default)]
    pub thickness_mm: Option<f64>,
    /// How its pieces are made.
    #[serde(default)]
    pub making: MakingBody,
}

impl LotBody {
    /// The lot as it is added to a job.
    pub fn of(&self, job: &StoredJob) -> Result<StoredJob, InputErrors> {
        let body = JobBody {
            name: self.name.clone(),
            formula_id: self.formula_id.unwrap_or(job.formula_id.0),
            cutter_id: self.cutter_id.unwrap_or(job.cutter_id.0),
            pieces: self.pieces,
            thickness_mm: self.thickness_mm.unwrap_or(job.job.input().thickness_mm),
            making: self.making.clone(),
            freeze_pieces: 0,
            dough_c: None,
            tints: vec![],
            layout: vec![],
            tray_layout: vec![],
            measured: vec![],
            formula_version: None,
            dough_with: None,
            lot_of: Some(job.id.0),
            mixed: vec![],
            // What was measured of the other's pieces says nothing of these.
            goes_in_c: None,
            ..JobBody::of(job)
        };
        body.stored(JobId(0))
    }
}

const fn turns_freely() -> Turning {
    Turning::Free
}

/// A portion that is coloured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TintBody {
    /// The colour, 1 to 40 characters.
    pub name: String,
    /// Of the dough, 1 to 100.
    pub percent: f64,
}

/// A job with its number.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JobView {
    /// Its number.
    pub id: i64,
    /// How often it has changed; a change names the one it was made from in `If-Match`.
    pub revision: i64,
    /// Cut lots of one key may share a sheet; null where its pieces are sliced or portioned.
    pub sheet_key: Option<String>,
    /// The job.
    #[serde(flatten)]
    pub body: JobBody,
}

fn readings(bodies: &[ReadingsBody]) -> Result<Vec<SheetReadings>, InputErrors> {
    bodies.iter().enumerate().map(|(i, b)| b.readings().map_err(|e| e.within(&format!("measured[{i}]")))).collect()
}

impl From<&StoredJob> for JobView {
    fn from(stored: &StoredJob) -> Self {
        Self { id: stored.id.0, revision: stored.revision, sheet_key: stored.sheet_key(), body: JobBody::of(stored) }
    }
}

impl JobBody {
    /// The body of a job with the numbers of what it refers to.
    pub fn of(stored: &StoredJob) -> Self {
        let j = stored.job.input().clone();
        Self {
            name: j.name,
            formula_id: stored.formula_id.0,
            cutter_id: stored.cutter_id.0,
            pieces: j.pieces,
            thickness_mm: j.thickness_mm,
            ready_by: j.ready_by.format(MINUTE_FORMAT).to_string(),
            method: j.method,
            dough_c: j.dough_c,
            chill_as_disc: j.chill_as_disc,
            disc_mm: j.disc_mm,
            chill_place: j.chill_place,
            tray_chill_place: j.tray_chill_place,
            web_mm: j.web_mm,
            edge_mm: j.edge_mm,
            surface: j.surface,
            rerolls: j.rerolls,
            reserve_percent: j.reserve_percent,
            oven_c: j.oven_c,
            freeze_pieces: j.freeze_pieces,
            hold_back_percent: j.hold_back_percent,
            whole_eggs: j.whole_eggs,
            tints: j.tints.into_iter().map(|(name, percent)| TintBody { name, percent }).collect(),
            turning: j.turning,
            layout: j.layout.iter().map(CutView::from).collect(),
            tray_layout: j.tray_layout.iter().map(CutView::from).collect(),
            measured: j.measured.iter().map(ReadingsBody::from).collect(),
            making: (&j.making).into(),
            bake_end: j.bake_end,
            liner: j.liner,
            goes_in_c: j.goes_in_c,
            flour_rest_min: j.flour_rest_min,
            finishes: j.finishes.iter().map(FinishBody::from).collect(),
            sheet: j.sheet,
            sheet_width_mm: j.sheet_width_mm,
            sheet_length_mm: j.sheet_length_mm,
            lot_of: stored.lot_of.map(|j| j.0),
            mixed: stored.mixed.iter().map(MixedSheetBody::from).collect(),
            formula_version: stored.formula_version,
            dough_with: stored.dough_with.map(|j| j.0),
        }
    }

    /// The job, checked.
    pub fn job(&self) -> Result<Job, InputErrors> {
        let ready_by = NaiveDateTime::parse_from_str(&self.ready_by, MINUTE_FORMAT).map_err(|_| {
            InputError::new(
                "ready_by",
                Problem::Unreadable {
                    text: self.ready_by.chars().filter(|c| !c.is_control()).take(40).collect(),
                    accepted: "a date and time such as 2026-11-28T14:00",
                },
            )
        })?;
        Job::new(JobInput {
            name: self.name.clone(),
            pieces: self.pieces,
            thickness_mm: self.thickness_mm,
            ready_by,
            method: self.method,
            dough_c: self.dough_c,
            chill_as_disc: self.chill_as_disc,
            disc_mm: self.disc_mm,
            chill_place: self.chill_place,
            tray_chill_place: self.tray_chill_place,
            web_mm: self.web_mm,
            edge_mm: self.edge_mm,
            surface: self.surface,
            rerolls: self.rerolls,
            reserve_percent: self.reserve_percent,
            oven_c: self.oven_c,
            freeze_pieces: self.freeze_pieces,
            hold_back_percent: self.hold_back_percent,
            whole_eggs: self.whole_eggs,
            tints: self.tints.iter().map(|t| (t.name.clone(), t.percent)).collect(),
            turning: self.turning,
            layout: self.layout.iter().map(CutView::placement).collect(),
            tray_layout: self.tray_layout.iter().map(CutView::placement).collect(),
            measured: readings(&self.measured)?,
            making: self.making.making().map_err(|e| e.within("making"))?,
            bake_end: self.bake_end,
            liner: self.liner,
            goes_in_c: self.goes_in_c,
            flour_rest_min: self.flour_rest_min,
            finishes: self.finishes.iter().map(FinishBody::coat).collect(),
            sheet: self.sheet,
            sheet_width_mm: self.sheet_width_mm,
            sheet_length_mm: self.sheet_length_mm,
        })
    }

    /// The job under a number, checked.
    pub fn stored(&self, id: JobId) -> Result<StoredJob, InputErrors> {
        let (formula_id, cutter_id) = (FormulaId(self.formula_id), CutterId(self.cutter_id));
        Ok(StoredJob {
            id,
            job: self.job()?,
            formula_id,
            cutter_id,
            formula_version: self.formula_version,
            dough_with: self.dough_with.map(JobId),
            lot_of: self.lot_of.map(JobId),
            mixed: mixed(&self.mixed)?,
            revision: 0,
        })
    }
}

/// A field in words, for the label of an edit.
pub fn job_word(field: &str) -> &'static str {
    match field {
        "name" => "name",
        "formula_id" => "formula",
        "cutter_id" => "cutter",
        "pieces" => "pieces",
        "thickness_mm" => "thickness",
        "ready_by" => "wanted time",
        "method" => "mixing method",
        "dough_c" => "dough temperature",
        "chill_as_disc" => "form for the cold",
        "disc_mm" => "disc thickness",
        "chill_place" => "place to chill",
        "tray_chill_place" => "place for the tray chill",
        "web_mm" => "web",
        "edge_mm" => "rim",
        "surface" => "board or papers",
        "rerolls" => "re-rolls",
        "reserve_percent" => "reserve",
        "oven_c" => "oven",
        "freeze_pieces" => "pieces for the freezer",
        "hold_back_percent" => "flour kept aside",
        "whole_eggs" => "whole eggs",
        "tints" => "tints",
        "turning" => "turning of the cutter",
        "layout" => "layout of the sheet",
        "tray_layout" => "layout of the tray",
        "measured" => "thickness read on a sheet",
        "formula_version" => "version of the formula",
        "dough_with" => "shared dough",
        "making" => "way of making",
        "bake_end" => "end of the bake",
        "liner" => "what lies on the tray",
        "finishes" => "finish",
        "goes_in_c" => "temperature of the pieces",
        "flour_rest_min" => "rest of the flour",
        "sheet" => "form of the sheet",
        "sheet_width_mm" => "widest sheet",
        "sheet_length_mm" => "longest sheet",
        "lot_of" => "job it is a lot of",
        "mixed" => "sheets for several lots",
        _ => "job",
    }
}
