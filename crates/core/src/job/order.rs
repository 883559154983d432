//! What is wanted and how it is to be made.

use super::chilling::{LONGEST_CHILL_MIN, MOST_STACKED, USUAL_CHILL_MIN};
#[cfg(feature = "wire")]
use super::chilling::{kept_dough_form, usual as chilling_usual};
use super::kept_sheet::{check_kept, on_a_sheet};
use super::{ChillFor, ColdPlace, DoughForm, KeptSheet, Making, ReadyMeans, Thaw};
use crate::dough::{MixMethod, Tint, TintInput};
use crate::error::{Checks, InputError, InputErrors};
use crate::finish::{Finish, MOST_COATS};
use crate::geometry::Placement;
use crate::oven::{BakeEnd, BakeSetting, EdgeColour, START_C, TrayLiner};
use crate::shape::{
    BenchSurface, MOST_SEARCHED, MOST_SHEETS_MEASURED, ReadingsInput, RollingRules, SHEET_MM, SheetKind, SheetReadings,
    Spacing, Turning,
};
use crate::units::{Length, Span, Temperature};
use chrono::{Days, NaiveDateTime, NaiveTime};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// Raw values of a job, units in the names; the only door to [`Job`]. Others it refers to by the numbers they are kept under. A
/// change sends only the fields that change (JSON Merge Patch, RFC 7396).
#[derive(Debug, Clone, PartialEq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), schema(as = JobBody))]
#[cfg_attr(feature = "wire", serde(deny_unknown_fields))]
pub struct JobInput {
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
    #[cfg_attr(feature = "wire", serde(with = "crate::clock::minute"), schema(value_type = String))]
    pub ready_by: NaiveDateTime,
    /// What is done by then; null: all finished and dry where something goes on after the bake, else all cool.
    #[cfg_attr(feature = "wire", serde(default))]
    pub ready_means: Option<ReadyMeans>,
    /// How the dough is mixed.
    pub method: MixMethod,
    /// Dough out of the mixer as measured, -5 to 35; computed when null.
    pub dough_c: Option<f64>,
    /// In which form the dough lies in the cold before it is cut.
    #[cfg_attr(feature = "wire", serde(alias = "chill_as_disc", deserialize_with = "kept_dough_form"))]
    pub dough_form: DoughForm,
    /// Of sheets: so many lie on each other, 1 to 6.
    #[cfg_attr(feature = "wire", serde(default = "chilling_usual::one"))]
    pub sheet_stack: u32,
    /// How long the dough chills; until ready when null, and not at all where it is portioned.
    #[cfg_attr(feature = "wire", serde(default))]
    pub dough_for: Option<ChillFor>,
    /// With `at_least` and `exactly`: so long, 1 to 4,320.
    #[cfg_attr(feature = "wire", serde(default = "chilling_usual::dough_min"))]
    pub dough_for_min: f64,
    /// Discs pressed to, 8 to 80.
    pub disc_mm: f64,
    /// Where the dough chills.
    pub chill_place: ColdPlace,
    /// Where the shaped pieces chill.
    pub tray_chill_place: ColdPlace,
    /// How long the shaped pieces chill; until ready when null, and not at all where they are slices or come from chilled dough.
    #[cfg_attr(feature = "wire", serde(default))]
    pub pieces_for: Option<ChillFor>,
    /// With `at_least` and `exactly`: so long, 1 to 4,320.
    #[cfg_attr(feature = "wire", serde(default = "chilling_usual::pieces_min"))]
    pub pieces_for_min: f64,
    /// Of a log that is sliced: how long its dough chills as a lump before it is formed.
    #[cfg_attr(feature = "wire", serde(default = "usual::not_at_all"))]
    pub bulk_for: ChillFor,
    /// With `at_least` and `exactly`: so long, 1 to 4,320.
    #[cfg_attr(feature = "wire", serde(default = "chilling_usual::dough_min"))]
    pub bulk_for_min: f64,
    /// Where its dough is ready in the freezer, how it thaws; null where it is mixed for the job. Portions that are formed first are always of
    /// fresh dough.
    #[cfg_attr(feature = "wire", serde(default))]
    pub thaws: Option<Thaw>,
    /// Whether a rolled sheet is cut on the paper of its tray and the scraps lifted away: nothing is moved, the gaps are as wide as on the tray.
    #[cfg_attr(feature = "wire", serde(default))]
    pub cut_in_place: bool,
    /// Whether the pieces are pricked with a fork before the bake.
    #[cfg_attr(feature = "wire", serde(default))]
    pub pricked: bool,
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
    /// Oven set to, 100 to 260; outside 140 to 220 common practice stands in for the forecast.
    pub oven_c: f64,
    /// Of the pieces, kept as dough in the freezer; at least one is baked.
    #[cfg_attr(feature = "wire", serde(default))]
    pub freeze_pieces: u32,
    /// Flour kept aside to be added by feel, 0 to 20.
    #[cfg_attr(feature = "wire", serde(default))]
    pub hold_back_percent: f64,
    /// Whether eggs are used whole.
    #[cfg_attr(feature = "wire", serde(default))]
    pub whole_eggs: bool,
    /// Portions that are coloured, at most 8, together at most 100 %.
    #[cfg_attr(feature = "wire", serde(default))]
    pub tints: Vec<TintInput>,
    /// How the cutter may be turned on the sheet; never over.
    #[cfg_attr(feature = "wire", serde(default = "usual::turning"))]
    pub turning: Turning,
    /// A layout of the cutter on one sheet kept from nesting, at most 400 pieces; rows are used when empty.
    #[cfg_attr(feature = "wire", serde(default))]
    pub layout: Vec<Placement>,
    /// How a hand has laid the pieces on a tray, at most 400; rows are used when empty.
    #[cfg_attr(feature = "wire", serde(default))]
    pub tray_layout: Vec<Placement>,
    /// Thickness read on its sheets, in the order of the sheets; at most 24.
    #[cfg_attr(feature = "wire", serde(default))]
    pub measured: Vec<ReadingsInput>,
    /// How its pieces are made.
    #[cfg_attr(feature = "wire", serde(default))]
    pub making: Making,
    /// What ends its bake.
    #[cfg_attr(feature = "wire", serde(default = "usual::end"))]
    pub bake_end: BakeEnd,
    /// What lies between tray and piece.
    #[cfg_attr(feature = "wire", serde(default = "usual::liner"))]
    pub liner: TrayLiner,
    /// The dough rests at least so long for its flour, 0 to 720; as long as its method usually rests when null.
    #[cfg_attr(feature = "wire", serde(default))]
    pub flour_rest_min: Option<f64>,
    /// The pieces as they go into the oven as measured, -20 to 28; as their chill leaves them when null.
    #[cfg_attr(feature = "wire", serde(default))]
    pub goes_in_c: Option<f64>,
    /// What goes onto or between the pieces, at most 4.
    #[cfg_attr(feature = "wire", serde(default))]
    pub finishes: Vec<Finish>,
    /// What form its sheets are rolled to.
    #[cfg_attr(feature = "wire", serde(default = "usual::sheet"))]
    pub sheet: SheetKind,
    /// Sheets no wider than this, 40 to 1200; the tray's width when null.
    #[cfg_attr(feature = "wire", serde(default))]
    pub sheet_width_mm: Option<f64>,
    /// Sheets no longer than this, 40 to 1200; the tray's length when null.
    #[cfg_attr(feature = "wire", serde(default))]
    pub sheet_length_mm: Option<f64>,
    /// The version of the formula it keeps; null while it follows the newest.
    #[cfg_attr(feature = "wire", serde(default))]
    pub formula_version: Option<u32>,
    /// The job whose mixes also hold this one's dough.
    #[cfg_attr(feature = "wire", serde(default))]
    pub dough_with: Option<i64>,
    /// The job of which it is a lot.
    #[cfg_attr(feature = "wire", serde(default))]
    pub lot_of: Option<i64>,
    /// Sheets from which the pieces of several lots of one dough are cut together, at most 40; empty for none. Only a job
    /// that is no lot of another keeps any.
    #[cfg_attr(feature = "wire", serde(default))]
    pub mixed: Vec<KeptSheet>,
}

/// What a job has that does not say it.
#[cfg(feature = "wire")]
mod usual {
    use super::{BakeEnd, ChillFor, EdgeColour, SheetKind, TrayLiner, Turning};

    pub(super) const fn not_at_all() -> ChillFor {
        ChillFor::No
    }

    pub(super) const fn turning() -> Turning {
        Turning::Free
    }

    pub(super) const fn end() -> BakeEnd {
        BakeEnd::Colour(EdgeColour::JustGolden)
    }

    pub(super) const fn liner() -> TrayLiner {
        TrayLiner::Parchment
    }

    pub(super) const fn sheet() -> SheetKind {
        SheetKind::Oblong
    }
}

/// When a new job is wanted until somebody says: at noon, the day after it was begun. Our own choice.
#[must_use]
pub fn usually_wanted(now: NaiveDateTime) -> NaiveDateTime {
    (now.date() + Days::new(1)).and_time(NaiveTime::from_hms_opt(12, 0, 0).unwrap_or_default())
}

impl JobInput {
    /// A new job as most are: two dozen, 6 mm, from discs of 22 mm out of the fridge. Common practice, no source.
    #[must_use]
    pub fn usual(name: &str, formula_id: i64, cutter_id: i64, ready_by: NaiveDateTime) -> Self {
        Self {
            name: name.to_owned(),
            formula_id,
            cutter_id,
            pieces: 24,
            thickness_mm: 6.0,
            ready_by,
            ready_means: None,
            method: MixMethod::JustCombined,
            dough_c: None,
            dough_form: DoughForm::Disc,
            sheet_stack: 1,
            dough_for: None,
            dough_for_min: USUAL_CHILL_MIN.0,
            pieces_for: None,
            pieces_for_min: USUAL_CHILL_MIN.1,
            disc_mm: 22.0,
            chill_place: ColdPlace::Fridge,
            tray_chill_place: ColdPlace::Fridge,
            bulk_for: ChillFor::No,
            bulk_for_min: USUAL_CHILL_MIN.0,
            thaws: None,
            cut_in_place: false,
            pricked: false,
            web_mm: 3.0,
            edge_mm: 4.0,
            surface: BenchSurface::FlouredBoard,
            rerolls: 2,
            reserve_percent: 3.0,
            oven_c: 175.0,
            freeze_pieces: 0,
            hold_back_percent: 0.0,
            whole_eggs: false,
            tints: vec![],
            turning: Turning::Free,
            layout: vec![],
            tray_layout: vec![],
            measured: vec![],
            making: Making::Cut,
            bake_end: BakeEnd::Colour(EdgeColour::JustGolden),
            liner: TrayLiner::Parchment,
            flour_rest_min: None,
            goes_in_c: None,
            finishes: vec![],
            sheet: SheetKind::Oblong,
            sheet_width_mm: None,
            sheet_length_mm: None,
            formula_version: None,
            dough_with: None,
            lot_of: None,
            mixed: vec![],
        }
    }

    /// A new job made the way this one is. What was laid out, measured or put away of this one's pieces, and what it has to do with
    /// other jobs, stays with it.
    #[must_use]
    pub fn again(&self, name: &str, ready_by: NaiveDateTime) -> Self {
        Self {
            name: name.to_owned(),
            ready_by,
            dough_c: None,
            goes_in_c: None,
            freeze_pieces: 0,
            layout: vec![],
            tray_layout: vec![],
            measured: vec![],
            formula_version: None,
            dough_with: None,
            lot_of: None,
            mixed: vec![],
            ..self.clone()
        }
    }
}

/// A job whose values were checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Job {
    input: JobInput,
    spacing: Spacing,
    rolling: RollingRules,
    tints: Vec<Tint>,
    measured: Vec<SheetReadings>,
}

impl Job {
    /// Whether a bake at a moment is the job's own, after which it keeps its formula: from the day before it is wanted. Earlier ones
    /// are trials. Our own choice.
    #[must_use]
    pub fn is_own_bake(&self, at: NaiveDateTime) -> bool {
        at.date() + Days::new(1) >= self.input.ready_by.date()
    }

    /// Checks all values and reports all faults at once.
    pub fn new(input: JobInput) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", &input.name, 80, "a name");
        checks.range("pieces", f64::from(input.pieces), 1.0, 20_000.0, "pieces");
        checks.range("thickness_mm", input.thickness_mm, 2.0, 25.0, "mm");
        checks.range("disc_mm", input.disc_mm, 8.0, 80.0, "mm");
        if let Some(dough_c) = input.dough_c {
            checks.range("dough_c", dough_c, -5.0, 35.0, "\u{b0}C");
        }
        if let Some(rest) = input.flour_rest_min {
            checks.range("flour_rest_min", rest, 0.0, 720.0, "min");
        }
        if let Some(goes_in_c) = input.goes_in_c {
            checks.range("goes_in_c", goes_in_c, *START_C.start(), *START_C.end(), "\u{b0}C");
        }
        checks.range("sheet_stack", f64::from(input.sheet_stack), 1.0, f64::from(MOST_STACKED), "sheets");
        checks.range("dough_for_min", input.dough_for_min, 1.0, LONGEST_CHILL_MIN, "min");
        checks.range("pieces_for_min", input.pieces_for_min, 1.0, LONGEST_CHILL_MIN, "min");
        checks.range("bulk_for_min", input.bulk_for_min, 1.0, LONGEST_CHILL_MIN, "min");
        checks.range("hold_back_percent", input.hold_back_percent, 0.0, 20.0, "% of the flour");
        if input.pieces > 0 {
            let most = f64::from(input.pieces - 1);
            checks.range(
                "freeze_pieces",
                f64::from(input.freeze_pieces),
                0.0,
                most,
                "pieces, since at least one is baked",
            );
        }
        let _ =
            input.making.clone().checked().map_err(|faults| faults.all().iter().cloned().for_each(|e| checks.push(e)));
        for (field, value) in [("sheet_width_mm", input.sheet_width_mm), ("sheet_length_mm", input.sheet_length_mm)] {
            if let Some(mm) = value {
                checks.range(field, mm, SHEET_MM.0, SHEET_MM.1, "mm");
            }
        }
        checks.limit("finishes", input.finishes.len(), MOST_COATS, "finishes");
        for (i, finish) in input.finishes.iter().enumerate() {
            checks.take(&format!("finishes[{i}]"), finish.checked());
        }
        checks.limit("measured", input.measured.len(), MOST_SHEETS_MEASURED, "sheets");
        checks.limit("layout", input.layout.len(), MOST_SEARCHED, "pieces");
        checks.limit("tray_layout", input.tray_layout.len(), MOST_SEARCHED, "pieces");
        for (field, pieces) in [("layout", &input.layout), ("tray_layout", &input.tray_layout)] {
            if let Some(at) = pieces.iter().position(|p| !on_a_sheet(p)) {
                checks.push(InputError::refused(format!("{field}[{at}]"), "not a place on any sheet"));
            }
        }
        check_kept(&mut checks, &input.mixed);
        let read = input.measured.iter().enumerate();
        let measured: Option<Vec<SheetReadings>> =
            read.map(|(i, read)| checks.take(&format!("measured[{i}]"), read.checked())).collect();
        let mut keep = |faults: InputErrors| faults.all().iter().cloned().for_each(|e| checks.push(e));
        let spacing = Spacing::new(input.web_mm, input.edge_mm).map_err(&mut keep).ok();
        let rolling = RollingRules::new(input.rerolls, input.surface, input.reserve_percent).map_err(&mut keep).ok();
        let tints = Tint::list(&input.tints).map_err(&mut keep).ok();
        // The fan is the kitchen's; the range of the setting is the same with or without.
        let _ = BakeSetting::new(input.oven_c, false).map_err(&mut keep);
        checks.finish(())?;
        Ok(Self {
            spacing: spacing.expect("checked"),
            rolling: rolling.expect("checked"),
            tints: tints.expect("checked"),
            measured: measured.expect("checked"),
            input,
        })
    }

    /// The values as given.
    #[must_use]
    pub fn input(&self) -> &JobInput {
        &self.input
    }

    /// Thickness read on its sheets, in the order of the sheets.
    #[must_use]
    pub fn measured(&self) -> &[SheetReadings] {
        &self.measured
    }

    /// The same, its dough mixed with that of another, or by itself.
    #[must_use]
    pub fn mixed_with(mut self, other: Option<i64>) -> Self {
        self.input.dough_with = other;
        self
    }

    /// The same with another formula and cutter.
    #[must_use]
    pub fn referring_to(mut self, formula_id: i64, cutter_id: i64) -> Self {
        (self.input.formula_id, self.input.cutter_id) = (formula_id, cutter_id);
        self
    }

    /// The same, keeping a version of its formula.
    #[must_use]
    pub fn keeping_version(mut self, version: u32) -> Self {
        self.input.formula_version = Some(version);
        self
    }

    /// The same without sheets for several lots.
    #[must_use]
    pub fn without_kept_sheets(mut self) -> Self {
        self.input.mixed.clear();
        self
    }

    /// The same with nothing to do with other jobs.
    #[must_use]
    pub fn alone(mut self) -> Self {
        self.input.lot_of = None;
        self.mixed_with(None).without_kept_sheets()
    }

    /// What is done by the wanted time.
    #[must_use]
    pub fn ready_means(&self) -> ReadyMeans {
        let after = self.input.finishes.iter().any(|f| !f.coat.work().before_the_bake);
        self.input.ready_means.unwrap_or(if after { ReadyMeans::Finished } else { ReadyMeans::Cool })
    }

    /// Pieces that are baked this time.
    #[must_use]
    pub fn baked_pieces(&self) -> u32 {
        self.input.pieces - self.input.freeze_pieces
    }

    /// Of so many pieces, as many kept in the freezer as this job has there, with at least one left to bake.
    #[must_use]
    pub fn frozen_of(&self, pieces: u32) -> u32 {
        self.input.freeze_pieces.min(pieces.saturating_sub(1))
    }

    /// Portions that are coloured.
    #[must_use]
    pub fn tints(&self) -> &[Tint] {
        &self.tints
    }

    /// The thickness of the sheet its pieces are cut from; nothing where they are sliced or portioned. Cut lots of one dough
    /// and one such thickness may share a sheet.
    #[must_use]
    pub fn sheet_thickness(&self) -> Option<Length> {
        (self.input.making == Making::Cut).then(|| self.thickness())
    }

    /// Rolled to.
    #[must_use]
    pub fn thickness(&self) -> Length {
        Length::new_mm(self.input.thickness_mm)
    }

    /// Dough out of the mixer as measured.
    #[must_use]
    pub fn measured_dough(&self) -> Option<Temperature> {
        self.input.dough_c.map(Temperature::new_c)
    }

    /// How long the dough rests at least for its flour, whatever its temperature.
    #[must_use]
    pub fn flour_rest(&self) -> Span {
        self.input.flour_rest_min.map_or_else(|| self.input.method.flour_rests(), Span::new_min)
    }

    /// The pieces as they go into the oven as measured.
    #[must_use]
    pub fn measured_pieces(&self) -> Option<Temperature> {
        self.input.goes_in_c.map(Temperature::new_c)
    }

    /// Web and rim; as on a tray where it is cut on the tray's paper.
    #[must_use]
    pub fn spacing(&self) -> Spacing {
        if self.cut_in_place() { Spacing::IN_PLACE } else { self.spacing }
    }

    /// Web and rim of what is cut on the bench.
    pub(super) fn bench_spacing(&self) -> Spacing {
        self.spacing
    }

    /// Whether its sheets are cut on the paper of their tray and nothing is moved.
    #[must_use]
    pub fn cut_in_place(&self) -> bool {
        self.input.cut_in_place && self.input.making == Making::Cut && self.input.mixed.is_empty()
    }

    /// Re-rolls, surface and reserve.
    #[must_use]
    pub fn rolling(&self) -> RollingRules {
        self.rolling
    }
}
