//! What a bake was baked with, kept beside what came out: it teaches whatever has become of job, formula and kitchen since.

use crate::cold::TrayKind;
use crate::dough::Formula;
use crate::error::{Checks, InputErrors};
use crate::geometry::Outline;
use crate::job::oven::bake::bake_seen;
use crate::job::oven::oven_plan::question_as_baked;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::ledger::BakeRecord;
use crate::oven::{BakeEnd, BakeSeen, TrayLiner};
use crate::units::Temperature;
use serde::{Deserialize, Serialize};

/// What a bake was baked with, as it was on the day: setting, liner and end in the job, oven and tray in the kitchen.
#[derive(Debug, Clone, PartialEq)]
pub struct AsBaked {
    /// The job.
    pub job: Job,
    /// The dough.
    pub formula: Formula,
    /// A piece from above.
    pub outline: Outline,
    /// The kitchen, before anything was learnt of it.
    pub kitchen: Kitchen,
    /// The pieces as they went in.
    pub start: Temperature,
}

impl AsBaked {
    /// What came out, as the fit takes it; `None` where it was baked with what the forecast does not reach.
    #[must_use]
    pub fn seen(&self, formula: usize, record: &BakeRecord) -> Option<BakeSeen> {
        let Self { job, formula: dough, outline, kitchen, start } = self;
        let question = question_as_baked(job, dough, outline, record.cut_thickness(), kitchen, *start).ok()?;
        bake_seen(formula, kitchen, outline, &question, record)
    }
}

impl AsBaked {
    /// The growth across the piece's longer side over that of a round of its dough: it happens at the rim.
    #[must_use]
    pub fn of_a_round(&self, record: &BakeRecord) -> f64 {
        self.outline.rim_radius() * 2.0 / record.cut_width()
    }
}

/// What a bake was baked with, where that was not as planned. Null is as the plan has it; of a record made before this was kept, it is
/// not known.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = ConditionsBody)]
#[serde(deny_unknown_fields, default)]
pub struct Conditions {
    /// Oven set to, 100 to 260.
    pub oven_c: Option<f64>,
    /// With a fan.
    pub oven_fan: Option<bool>,
    /// The tray.
    pub tray_kind: Option<TrayKind>,
    /// What lay under the pieces.
    pub liner: Option<TrayLiner>,
    /// What ended it.
    pub bake_end: Option<BakeEnd>,
    /// The pieces as they went in, -25 to 35.
    pub start_c: Option<f64>,
}

impl Conditions {
    /// What a bake was baked with: as planned, but for what is said here.
    pub fn as_baked(
        &self,
        job: &Job,
        formula: &Formula,
        outline: &Outline,
        kitchen: &Kitchen,
        planned: Temperature,
    ) -> Result<AsBaked, InputErrors> {
        let (j, k) = (job.input(), kitchen.input());
        let mut checks = Checks::new();
        if let Some(c) = self.start_c {
            checks.range("start_c", c, -25.0, 35.0, "\u{b0}C");
        }
        checks.finish(()).map_err(|e| e.within("conditions"))?;
        let job = Job::new(j.clone().with(|j| {
            j.oven.oven_c = self.oven_c.unwrap_or(j.oven.oven_c);
            j.oven.liner = self.liner.unwrap_or(j.oven.liner);
            j.oven.bake_end = self.bake_end.unwrap_or(j.oven.bake_end);
        }));
        let kitchen = Kitchen::new(k.clone().with(|k| {
            k.oven.oven_fan = self.oven_fan.unwrap_or(k.oven.oven_fan);
            k.trays.tray_kind = self.tray_kind.unwrap_or(k.trays.tray_kind);
        }))?;
        Ok(AsBaked {
            job: job.map_err(|e| e.within("conditions"))?,
            formula: formula.clone(),
            outline: outline.clone(),
            kitchen,
            start: self.start_c.map_or(planned, Temperature::new_c),
        })
    }

    /// All that a bake was baked with.
    #[must_use]
    pub fn of(baked: &AsBaked) -> Self {
        let (j, k) = (baked.job.input(), baked.kitchen.input());
        Self {
            oven_c: Some(j.oven.oven_c),
            oven_fan: Some(k.oven.oven_fan),
            tray_kind: Some(k.trays.tray_kind),
            liner: Some(j.oven.liner),
            bake_end: Some(j.oven.bake_end),
            start_c: Some(baked.start.c()),
        }
    }
}
