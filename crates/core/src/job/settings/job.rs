//! What is wanted and how it is to be made.

use crate::dough::Tint;
use crate::error::{Checks, InputErrors};
use crate::job::settings::cold::ColdInput;
use crate::job::settings::dough::DoughInput;
use crate::job::settings::finish::FinishInput;
use crate::job::settings::making::Making;
use crate::job::settings::order::OrderInput;
use crate::job::settings::oven::OvenInput;
use crate::job::settings::ready_means::ReadyMeans;
use crate::job::settings::shape::ShapeInput;
use crate::shape::{RollingRules, SheetReadings, Spacing};
use crate::units::{Length, Span, Temperature};
use chrono::{Days, NaiveDateTime, NaiveTime};

document! {
    /// Raw values of a job, units in the names, by the station that decides them; the only door to [`Job`]. Others it refers to by the numbers they are
    /// kept under. On the wire and in files all its fields lie beside each other; what is left out is as it is usual. A change sends only the fields that
    /// change (JSON Merge Patch, RFC 7396).
    pub struct JobInput as JobBody, "a job" {
        /// What is asked for, and what it has to do with other jobs.
        pub order: OrderInput,
        /// How its dough is weighed and mixed.
        pub dough: DoughInput,
        /// How dough and cookies chill.
        pub cold: ColdInput,
        /// How dough becomes cookies.
        pub shape: ShapeInput,
        /// How they bake.
        pub oven: OvenInput,
        /// What goes onto or between them.
        pub finish: FinishInput,
    }
    needs ["name", "formula_id", "cutter_id", "ready_by"]
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
        let order = OrderInput { name: name.to_owned(), formula_id, cutter_id, ready_by, ..OrderInput::default() };
        Self { order, ..Self::default() }
    }

    /// The same, changed.
    #[must_use]
    pub fn with(mut self, change: impl FnOnce(&mut Self)) -> Self {
        change(&mut self);
        self
    }

    /// A new job made the way this one is. What was laid out, measured or put away of this one's pieces, and what it has to do with
    /// other jobs, stays with it.
    #[must_use]
    pub fn again(&self, name: &str, ready_by: NaiveDateTime) -> Self {
        self.clone().with(|j| {
            (j.order.name, j.order.ready_by) = (name.to_owned(), ready_by);
            (j.dough.dough_c, j.oven.goes_in_c) = (None, None);
            (j.order.freeze_pieces, j.order.formula_version) = (0, None);
            (j.order.dough_with, j.order.lot_of) = (None, None);
            (j.shape.layout, j.shape.tray_layout, j.shape.measured) = (vec![], vec![], vec![]);
            j.shape.mixed = vec![];
        })
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
        at.date() + Days::new(1) >= self.input.order.ready_by.date()
    }

    /// Checks all values and reports all faults at once.
    pub fn new(input: JobInput) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        input.order.check(&mut checks);
        let tints = input.dough.checked(&mut checks);
        input.cold.check(&mut checks);
        let shape = input.shape.checked(&mut checks);
        input.oven.check(&mut checks);
        input.finish.check(&mut checks);
        checks.finish(())?;
        let (spacing, rolling, measured) = shape.expect("checked");
        Ok(Self { spacing, rolling, measured, tints: tints.expect("checked"), input })
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
        self.input.order.dough_with = other;
        self
    }

    /// The same with another formula and cutter.
    #[must_use]
    pub fn referring_to(mut self, formula_id: i64, cutter_id: i64) -> Self {
        (self.input.order.formula_id, self.input.order.cutter_id) = (formula_id, cutter_id);
        self
    }

    /// The same, keeping a version of its formula.
    #[must_use]
    pub fn keeping_version(mut self, version: u32) -> Self {
        self.input.order.formula_version = Some(version);
        self
    }

    /// The same without sheets for several lots.
    #[must_use]
    pub fn without_kept_sheets(mut self) -> Self {
        self.input.shape.mixed.clear();
        self
    }

    /// The same with nothing to do with other jobs.
    #[must_use]
    pub fn alone(mut self) -> Self {
        self.input.order.lot_of = None;
        self.mixed_with(None).without_kept_sheets()
    }

    /// What is done by the wanted time.
    #[must_use]
    pub fn ready_means(&self) -> ReadyMeans {
        let after = self.input.finish.finishes.iter().any(|f| !f.coat.work().before_the_bake);
        self.input.order.ready_means.unwrap_or(if after { ReadyMeans::Finished } else { ReadyMeans::Cool })
    }

    /// Pieces that are baked this time.
    #[must_use]
    pub fn baked_pieces(&self) -> u32 {
        self.input.order.pieces - self.input.order.freeze_pieces
    }

    /// Of so many pieces, as many kept in the freezer as this job has there, with at least one left to bake.
    #[must_use]
    pub fn frozen_of(&self, pieces: u32) -> u32 {
        self.input.order.freeze_pieces.min(pieces.saturating_sub(1))
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
        (self.input.shape.making == Making::Cut).then(|| self.thickness())
    }

    /// Rolled to.
    #[must_use]
    pub fn thickness(&self) -> Length {
        Length::new_mm(self.input.shape.thickness_mm)
    }

    /// Dough out of the mixer as measured.
    #[must_use]
    pub fn measured_dough(&self) -> Option<Temperature> {
        self.input.dough.dough_c.map(Temperature::new_c)
    }

    /// How long the dough rests at least for its flour, whatever its temperature.
    #[must_use]
    pub fn flour_rest(&self) -> Span {
        self.input.cold.flour_rest_min.map_or_else(|| self.input.dough.method.flour_rests(), Span::new_min)
    }

    /// The pieces as they go into the oven as measured.
    #[must_use]
    pub fn measured_pieces(&self) -> Option<Temperature> {
        self.input.oven.goes_in_c.map(Temperature::new_c)
    }

    /// Web and rim; as on a tray where it is cut on the tray's paper.
    #[must_use]
    pub fn spacing(&self) -> Spacing {
        if self.cut_in_place() { Spacing::IN_PLACE } else { self.spacing }
    }

    /// Web and rim of what is cut on the bench.
    pub(crate) fn bench_spacing(&self) -> Spacing {
        self.spacing
    }

    /// Whether its sheets are cut on the paper of their tray and nothing is moved.
    #[must_use]
    pub fn cut_in_place(&self) -> bool {
        self.input.shape.cut_in_place && self.input.shape.making == Making::Cut && self.input.shape.mixed.is_empty()
    }

    /// Re-rolls, surface and reserve.
    #[must_use]
    pub fn rolling(&self) -> RollingRules {
        self.rolling
    }
}
