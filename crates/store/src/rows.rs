//! Rows of the tables and their way to core values and back. The same structs, as JSON, are the before and after of edits.

use crate::error::StoreError;
use crate::rows_making::{making_from, making_text};
use crate::rows_oven::{finishes_from, finishes_text, readings_from, readings_text, spots_from, spots_text};
use crate::things::{CutterId, JobId, StoredCutter, StoredJob};
use chrono::NaiveDateTime;
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::dough::{EggClass, TintInput};
use ready_slab_core::geometry::{Outline, Placement};
use ready_slab_core::job::{
    ChillFor, Job, JobInput, KeptPiece, KeptSheet, Kitchen, KitchenInput, Making, USUAL_CHILL_MIN, kept_dough_form,
};
use ready_slab_core::oven::{BakeEnd, EdgeColour, TrayLiner};
use ready_slab_core::shape::{ReadingsInput, SheetKind, Turning};
use ready_slab_core::units::Length;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use sqlx::FromRow;

/// The word of a core enum in the file: the one of its JSON.
pub(crate) fn word<T: Serialize>(value: T) -> String {
    match serde_json::to_value(value) {
        Ok(serde_json::Value::String(word)) => word,
        other => unreachable!("an enum of plain variants is one word: {other:?}"),
    }
}

/// The variant that a word stands for.
pub(crate) fn from_word<T: DeserializeOwned>(thing: &'static str, id: i64, word: &str) -> Result<T, StoreError> {
    serde_json::from_value(word.into()).map_err(|_| StoreError::Damaged {
        thing,
        id,
        why: format!("\u{201c}{word}\u{201d} is not a known word"),
    })
}

fn usual_step() -> f64 {
    1.0
}

fn usual_fine_step() -> f64 {
    0.1
}

fn usual_eggs() -> String {
    word(EggClass::UsLarge)
}

fn usual_currency() -> String {
    "\u{20ac}".to_owned()
}

fn no_tints() -> String {
    "[]".to_owned()
}

pub(crate) fn list<T: for<'a> Deserialize<'a>>(thing: &'static str, id: i64, text: &str) -> Result<Vec<T>, StoreError> {
    serde_json::from_str(text).map_err(|e| StoreError::Damaged { thing, id, why: e.to_string() })
}

pub(crate) fn text<T: Serialize>(values: &[T]) -> String {
    serde_json::to_string(values).expect("numbers serialise")
}

#[derive(Debug, Clone, PartialEq, FromRow, Serialize, Deserialize)]
pub(crate) struct KitchenRow {
    pub id: i64,
    pub name: String,
    pub room_c: f64,
    pub fridge_c: f64,
    pub fridge_fan: bool,
    pub freezer_c: f64,
    pub tray_width_mm: f64,
    pub tray_length_mm: f64,
    pub tray_kind: String,
    pub trays_owned: u32,
    pub least_gap_mm: f64,
    pub mixer_limit_g: f64,
    pub rods_mm: String,
    pub ovens: u32,
    pub racks_per_oven: u32,
    pub oven_fan: bool,
    pub preheat_min: f64,
    pub roll_min: f64,
    pub cut_s: f64,
    // Edits noted before these columns came are read with what the migration gave.
    #[serde(default)]
    pub bowl_ml: Option<f64>,
    #[serde(default = "usual_step")]
    pub scale_step_g: f64,
    #[serde(default = "usual_fine_step")]
    pub fine_step_g: f64,
    #[serde(default = "usual_eggs")]
    pub egg_class: String,
    #[serde(default = "usual_currency")]
    pub currency: String,
    #[serde(default = "no_tints")]
    pub oven_readings: String,
    #[serde(default = "usual_dip")]
    pub door_dip_k: f64,
    #[serde(default = "usual_recovery")]
    pub recovery_min: f64,
    #[serde(default = "no_spots")]
    pub hot_spots: String,
    #[serde(default)]
    pub cover_pot: bool,
    #[serde(default)]
    pub small_oven: bool,
    #[serde(default)]
    pub altitude_m: f64,
    #[serde(default)]
    pub zone: String,
    #[serde(default = "usual_hands")]
    pub hands: u32,
    #[serde(default = "usual_mixers")]
    pub mixers: u32,
    #[serde(default = "usual_fridge_places")]
    pub fridge_places: u32,
    #[serde(default = "usual_freezer_places")]
    pub freezer_places: u32,
    #[serde(default = "usual_cooling_places")]
    pub cooling_places: u32,
}

fn usual_hands() -> u32 {
    KitchenInput::usual().hands
}

fn usual_mixers() -> u32 {
    KitchenInput::usual().mixers
}

fn usual_fridge_places() -> u32 {
    KitchenInput::usual().fridge_places
}

fn usual_freezer_places() -> u32 {
    KitchenInput::usual().freezer_places
}

fn usual_cooling_places() -> u32 {
    KitchenInput::usual().cooling_places
}

fn usual_dip() -> f64 {
    USUAL_CHILL_MIN.1
}

fn usual_recovery() -> f64 {
    1.5
}

fn no_spots() -> String {
    "null".to_owned()
}

impl KitchenRow {
    pub fn of(kitchen: &Kitchen) -> Self {
        let k = kitchen.input().clone();
        Self {
            id: 1,
            name: k.name,
            room_c: k.room_c,
            fridge_c: k.fridge_c,
            fridge_fan: k.fridge_fan,
            freezer_c: k.freezer_c,
            tray_width_mm: k.tray_width_mm,
            tray_length_mm: k.tray_length_mm,
            tray_kind: word(k.tray_kind),
            trays_owned: k.trays_owned,
            least_gap_mm: k.least_gap_mm,
            mixer_limit_g: k.mixer_limit_g,
            rods_mm: text(&k.rods_mm),
            ovens: k.ovens,
            racks_per_oven: k.racks_per_oven,
            oven_fan: k.oven_fan,
            oven_readings: readings_text(&k.oven_readings),
            door_dip_k: k.door_dip_k,
            recovery_min: k.recovery_min,
            hot_spots: spots_text(k.hot_spots.as_ref()),
            cover_pot: k.cover_pot,
            small_oven: k.small_oven,
            altitude_m: k.altitude_m,
            zone: k.zone,
            preheat_min: k.preheat_min,
            hands: k.hands,
            mixers: k.mixers,
            fridge_places: k.fridge_places,
            freezer_places: k.freezer_places,
            cooling_places: k.cooling_places,
            roll_min: k.roll_min,
            cut_s: k.cut_s,
            bowl_ml: k.bowl_ml,
            scale_step_g: k.scale_step_g,
            fine_step_g: k.fine_step_g,
            egg_class: word(k.egg_class),
            currency: k.currency,
        }
    }

    pub fn into_core(self) -> Result<Kitchen, StoreError> {
        Kitchen::new(KitchenInput {
            name: self.name,
            room_c: self.room_c,
            fridge_c: self.fridge_c,
            fridge_fan: self.fridge_fan,
            freezer_c: self.freezer_c,
            tray_width_mm: self.tray_width_mm,
            tray_length_mm: self.tray_length_mm,
            tray_kind: from_word("kitchen", self.id, &self.tray_kind)?,
            trays_owned: self.trays_owned,
            least_gap_mm: self.least_gap_mm,
            mixer_limit_g: self.mixer_limit_g,
            rods_mm: list("kitchen", self.id, &self.rods_mm)?,
            ovens: self.ovens,
            racks_per_oven: self.racks_per_oven,
            oven_fan: self.oven_fan,
            oven_readings: readings_from(self.id, &self.oven_readings)?,
            door_dip_k: self.door_dip_k,
            recovery_min: self.recovery_min,
            hot_spots: spots_from(self.id, &self.hot_spots)?,
            cover_pot: self.cover_pot,
            small_oven: self.small_oven,
            altitude_m: self.altitude_m,
            zone: self.zone,
            preheat_min: self.preheat_min,
            hands: self.hands,
            mixers: self.mixers,
            fridge_places: self.fridge_places,
            freezer_places: self.freezer_places,
            cooling_places: self.cooling_places,
            roll_min: self.roll_min,
            cut_s: self.cut_s,
            bowl_ml: self.bowl_ml,
            scale_step_g: self.scale_step_g,
            fine_step_g: self.fine_step_g,
            egg_class: from_word("kitchen", self.id, &self.egg_class)?,
            currency: self.currency,
        })
        .map_err(|e| StoreError::damaged("kitchen", self.id, &e))
    }
}

#[derive(Debug, Clone, PartialEq, FromRow, Serialize, Deserialize)]
pub(crate) struct CutterRow {
    pub id: i64,
    pub name: String,
    pub origin: String,
    pub points_mm: String,
    #[serde(default = "no_tints")]
    pub holes_mm: String,
    pub neck_mm: Option<f64>,
}

impl CutterRow {
    pub fn of(id: i64, name: &str, origin: &str, outline: &Outline) -> Self {
        Self::with_neck(id, name, origin, outline, outline.narrowest_neck().map(|l| l.mm()))
    }

    fn with_neck(id: i64, name: &str, origin: &str, outline: &Outline, neck_mm: Option<f64>) -> Self {
        // A thousandth of a millimetre is finer than any tin.
        let exact = |v: f64| (v * 1000.0).round() / 1000.0;
        let ring =
            |points: Vec<(f64, f64)>| -> Vec<[f64; 2]> { points.iter().map(|p| [exact(p.0), exact(p.1)]).collect() };
        Self {
            id,
            name: name.trim().to_owned(),
            origin: origin.to_owned(),
            points_mm: text(&ring(outline.points())),
            holes_mm: text(&outline.holes().into_iter().map(ring).collect::<Vec<_>>()),
            neck_mm,
        }
    }

    /// Whether it is the same tin, whatever its number.
    pub fn alike(&self, other: &Self) -> bool {
        (&self.name, &self.origin, &self.points_mm, &self.holes_mm)
            == (&other.name, &other.origin, &other.points_mm, &other.holes_mm)
    }

    /// An outline that is kept beside a bake: nobody asks for its neck.
    pub fn beside(name: &str, origin: &str, outline: &Outline) -> Self {
        Self::with_neck(0, name, origin, outline, None)
    }

    pub fn into_core(self) -> Result<StoredCutter, StoreError> {
        let points: Vec<(f64, f64)> = list("cutter", self.id, &self.points_mm)?;
        let holes: Vec<Vec<(f64, f64)>> = list("cutter", self.id, &self.holes_mm)?;
        let outline =
            Outline::with_holes(&points, &holes).map_err(|e| StoreError::damaged("cutter", self.id, &e.into()))?;
        Ok(StoredCutter {
            id: CutterId(self.id),
            name: self.name,
            origin: self.origin,
            outline,
            neck: self.neck_mm.and_then(|v| Length::from_mm(v).ok()),
        })
    }
}

#[derive(Debug, Clone, PartialEq, FromRow, Serialize, Deserialize)]
pub(crate) struct JobRow {
    pub id: i64,
    pub name: String,
    pub formula_id: i64,
    pub cutter_id: i64,
    pub pieces: u32,
    pub thickness_mm: f64,
    pub ready_by: String,
    #[serde(default)]
    pub ready_means: Option<String>,
    pub method: String,
    pub dough_c: Option<f64>,
    #[serde(alias = "chill_as_disc", deserialize_with = "form_text")]
    pub dough_form: String,
    #[serde(default = "one")]
    pub sheet_stack: u32,
    #[serde(default)]
    pub dough_for: Option<String>,
    #[serde(default = "an_hour")]
    pub dough_for_min: f64,
    #[serde(default)]
    pub pieces_for: Option<String>,
    #[serde(default = "a_quarter")]
    pub pieces_for_min: f64,
    pub disc_mm: f64,
    pub chill_place: String,
    pub tray_chill_place: String,
    #[serde(default = "not_at_all")]
    pub bulk_for: String,
    #[serde(default = "an_hour")]
    pub bulk_for_min: f64,
    #[serde(default)]
    pub thaws: Option<String>,
    #[serde(default)]
    pub cut_in_place: bool,
    #[serde(default)]
    pub pricked: bool,
    pub web_mm: f64,
    pub edge_mm: f64,
    pub surface: String,
    pub rerolls: u32,
    pub reserve_percent: f64,
    pub oven_c: f64,
    #[serde(default)]
    pub freeze_pieces: u32,
    #[serde(default)]
    pub hold_back_percent: f64,
    #[serde(default)]
    pub whole_eggs: bool,
    #[serde(default = "no_tints")]
    pub tints: String,
    #[serde(default)]
    pub formula_version: Option<u32>,
    #[serde(default)]
    pub dough_with: Option<i64>,
    #[serde(default = "turns_freely")]
    pub turning: String,
    #[serde(default = "no_tints")]
    pub layout: String,
    #[serde(default = "no_tints")]
    pub thickness_read: String,
    #[serde(default = "no_tints")]
    pub tray_layout: String,
    #[serde(default)]
    pub lot_of: Option<i64>,
    #[serde(default = "cut_pieces")]
    pub making: String,
    #[serde(default = "no_tints")]
    pub mixed_sheets: String,
    #[serde(default = "oblong_sheets")]
    pub sheet_form: String,
    #[serde(default)]
    pub sheet_width_mm: Option<f64>,
    #[serde(default)]
    pub sheet_length_mm: Option<f64>,
    #[serde(default = "just_golden")]
    pub bake_end: String,
    #[serde(default = "on_parchment")]
    pub liner: String,
    #[serde(default = "no_tints")]
    pub finishes: String,
    #[serde(default)]
    pub goes_in_c: Option<f64>,
    #[serde(default)]
    pub flour_rest_min: Option<f64>,
    /// How often it has changed; read along, never written.
    #[serde(skip)]
    #[sqlx(default)]
    pub revision: i64,
}

fn not_at_all() -> String {
    word(ChillFor::No)
}

fn form_text<'de, D: serde::Deserializer<'de>>(deserializer: D) -> Result<String, D::Error> {
    kept_dough_form(deserializer).map(word)
}

const fn one() -> u32 {
    1
}

const fn an_hour() -> f64 {
    USUAL_CHILL_MIN.0
}

const fn a_quarter() -> f64 {
    USUAL_CHILL_MIN.1
}

fn just_golden() -> String {
    word(BakeEnd::Colour(EdgeColour::JustGolden))
}

fn on_parchment() -> String {
    word(TrayLiner::Parchment)
}

fn cut_pieces() -> String {
    making_text(&Making::Cut)
}

fn oblong_sheets() -> String {
    word(SheetKind::Oblong)
}

/// Length and, for each piece, the lot's number, x, y and turn.
type MixedInFile = (f64, Vec<(i64, f64, f64, f64)>);

fn mixed_of(sheet: &KeptSheet) -> MixedInFile {
    (sheet.length_mm, sheet.pieces.iter().map(|p| (p.job_id, p.x_mm, p.y_mm, p.turn_deg)).collect())
}

fn mixed_from((length_mm, pieces): MixedInFile) -> KeptSheet {
    let piece = |(job_id, x_mm, y_mm, turn_deg)| KeptPiece { job_id, x_mm, y_mm, turn_deg };
    KeptSheet { length_mm, pieces: pieces.into_iter().map(piece).collect() }
}

fn places_text(pieces: &[Placement]) -> String {
    text(&pieces.iter().map(|p| [p.x_mm, p.y_mm, p.turn_deg]).collect::<Vec<_>>())
}

fn places(thing: &'static str, id: i64, text: &str) -> Result<Vec<Placement>, StoreError> {
    let all = list::<[f64; 3]>(thing, id, text)?;
    Ok(all.into_iter().map(|[x_mm, y_mm, turn_deg]| Placement { x_mm, y_mm, turn_deg }).collect())
}

/// Columns, rows and the readings in millimetres, row by row.
type ReadInFile = (u32, u32, Vec<Option<f64>>);

fn read_of(read: &ReadingsInput) -> ReadInFile {
    (read.columns, read.rows, read.read_mm.clone())
}

fn turns_freely() -> String {
    word(Turning::Free)
}

impl JobRow {
    pub fn of(id: i64, job: &Job) -> Self {
        let j = job.input().clone();
        Self {
            id,
            name: j.name,
            formula_id: j.formula_id,
            cutter_id: j.cutter_id,
            pieces: j.pieces,
            thickness_mm: j.thickness_mm,
            ready_by: j.ready_by.format(MINUTE_FORMAT).to_string(),
            ready_means: j.ready_means.map(word),
            method: word(j.method),
            dough_c: j.dough_c,
            dough_form: word(j.dough_form),
            sheet_stack: j.sheet_stack,
            dough_for: j.dough_for.map(word),
            dough_for_min: j.dough_for_min,
            pieces_for: j.pieces_for.map(word),
            pieces_for_min: j.pieces_for_min,
            disc_mm: j.disc_mm,
            chill_place: word(j.chill_place),
            tray_chill_place: word(j.tray_chill_place),
            bulk_for: word(j.bulk_for),
            bulk_for_min: j.bulk_for_min,
            thaws: j.thaws.map(word),
            cut_in_place: j.cut_in_place,
            pricked: j.pricked,
            web_mm: j.web_mm,
            edge_mm: j.edge_mm,
            surface: word(j.surface),
            rerolls: j.rerolls,
            reserve_percent: j.reserve_percent,
            oven_c: j.oven_c,
            freeze_pieces: j.freeze_pieces,
            hold_back_percent: j.hold_back_percent,
            whole_eggs: j.whole_eggs,
            tints: text(&j.tints.iter().map(|t| (&t.name, t.percent)).collect::<Vec<_>>()),
            formula_version: j.formula_version,
            dough_with: j.dough_with,
            thickness_read: text(&j.measured.iter().map(read_of).collect::<Vec<_>>()),
            turning: word(j.turning),
            layout: places_text(&j.layout),
            tray_layout: places_text(&j.tray_layout),
            lot_of: j.lot_of,
            making: making_text(&j.making),
            mixed_sheets: text(&j.mixed.iter().map(mixed_of).collect::<Vec<_>>()),
            sheet_form: word(j.sheet),
            sheet_width_mm: j.sheet_width_mm,
            sheet_length_mm: j.sheet_length_mm,
            bake_end: word(j.bake_end),
            liner: word(j.liner),
            finishes: finishes_text(&j.finishes),
            goes_in_c: j.goes_in_c,
            flour_rest_min: j.flour_rest_min,
            revision: 0,
        }
    }

    pub fn into_core(self) -> Result<StoredJob, StoreError> {
        let id = self.id;
        let ready_by = NaiveDateTime::parse_from_str(&self.ready_by, MINUTE_FORMAT)
            .map_err(|e| StoreError::Damaged { thing: "job", id, why: format!("ready_by: {e}") })?;
        let job = Job::new(JobInput {
            name: self.name,
            formula_id: self.formula_id,
            cutter_id: self.cutter_id,
            pieces: self.pieces,
            thickness_mm: self.thickness_mm,
            ready_by,
            ready_means: self.ready_means.map(|w| from_word("job", id, &w)).transpose()?,
            method: from_word("job", id, &self.method)?,
            dough_c: self.dough_c,
            dough_form: from_word("job", id, &self.dough_form)?,
            sheet_stack: self.sheet_stack,
            dough_for: self.dough_for.map(|w| from_word("job", id, &w)).transpose()?,
            dough_for_min: self.dough_for_min,
            pieces_for: self.pieces_for.map(|w| from_word("job", id, &w)).transpose()?,
            pieces_for_min: self.pieces_for_min,
            disc_mm: self.disc_mm,
            chill_place: from_word("job", id, &self.chill_place)?,
            tray_chill_place: from_word("job", id, &self.tray_chill_place)?,
            bulk_for: from_word("job", id, &self.bulk_for)?,
            bulk_for_min: self.bulk_for_min,
            thaws: self.thaws.map(|w| from_word("job", id, &w)).transpose()?,
            cut_in_place: self.cut_in_place,
            pricked: self.pricked,
            web_mm: self.web_mm,
            edge_mm: self.edge_mm,
            surface: from_word("job", id, &self.surface)?,
            rerolls: self.rerolls,
            reserve_percent: self.reserve_percent,
            oven_c: self.oven_c,
            freeze_pieces: self.freeze_pieces,
            hold_back_percent: self.hold_back_percent,
            whole_eggs: self.whole_eggs,
            tints: list::<(String, f64)>("job", id, &self.tints)?
                .into_iter()
                .map(|(name, percent)| TintInput { name, percent })
                .collect(),
            turning: from_word("job", id, &self.turning)?,
            layout: places("job", id, &self.layout)?,
            tray_layout: places("job", id, &self.tray_layout)?,
            measured: list::<ReadInFile>("job", id, &self.thickness_read)?
                .into_iter()
                .map(|(columns, rows, read_mm)| ReadingsInput { columns, rows, read_mm })
                .collect(),
            making: making_from(id, &self.making)?,
            sheet: from_word("job", id, &self.sheet_form)?,
            sheet_width_mm: self.sheet_width_mm,
            sheet_length_mm: self.sheet_length_mm,
            bake_end: from_word("job", id, &self.bake_end)?,
            liner: from_word("job", id, &self.liner)?,
            finishes: finishes_from(id, &self.finishes)?,
            goes_in_c: self.goes_in_c,
            flour_rest_min: self.flour_rest_min,
            formula_version: self.formula_version,
            dough_with: self.dough_with,
            lot_of: self.lot_of,
            mixed: list::<MixedInFile>("job", id, &self.mixed_sheets)?.into_iter().map(mixed_from).collect(),
        })
        .map_err(|e| StoreError::damaged("job", id, &e))?;
        Ok(StoredJob { revision: self.revision, ..StoredJob::new(JobId(id), job) })
    }
}
