//! What is tried on purpose, on the wire.

use super::book_file::cell;
use super::causes::CauseTestView;
use super::sentence::SentenceView;
use ready_slab_core::error::InputErrors;
use ready_slab_core::ledger::{EvenMeasure, TrialAsked, TrialSize, TryFound, TryNoted, Trying};
use ready_slab_core::units::Length;
use ready_slab_store::StoredTry;
use ready_slab_words::{Name as _, causes as words, trial_verdict};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// What a trial is to show.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct TrialSizeQuery {
    /// 2 to 4; the first is as always.
    pub ways: usize,
    /// What is measured.
    #[param(inline)]
    pub measure: EvenMeasure,
    /// To be seen nine times in ten, 0.1 to 50.
    pub difference_mm: f64,
}

/// A trial to be planned.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewTrialBody {
    /// What it is about, at most 80 characters.
    pub name: String,
    /// What the 2 to 4 ways are called, at most 60 characters each; the first is as always.
    pub ways: Vec<String>,
    /// What is measured.
    pub measure: EvenMeasure,
    /// To be seen nine times in ten, 0.1 to 50.
    pub difference_mm: f64,
}

/// How large a trial is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrialSizeView {
    /// Pieces of each way.
    pub per_way: u32,
    /// Of each way on each tray.
    pub on_trays: Vec<u32>,
    /// How often the difference is seen.
    pub seen_percent: f64,
    /// What pieces of one tray differ by: one standard deviation.
    pub sd_mm: f64,
    /// Whether this kitchen's own trays tell that; else it is what is usual.
    pub sd_own: bool,
}

impl TrialSizeView {
    /// Of a size.
    pub fn new(size: &TrialSize, asked: &TrialAsked, own: bool) -> Self {
        Self {
            per_way: size.per_way,
            on_trays: size.on_trays.clone(),
            seen_percent: 100.0 * size.seen.value(),
            sd_mm: asked.sd.mm(),
            sd_own: own,
        }
    }
}

/// A trial as it lies.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrialView {
    /// What the ways are called.
    pub ways: Vec<String>,
    /// What is measured.
    pub measure: EvenMeasure,
    /// To be seen nine times in ten.
    pub difference_mm: f64,
    /// Pieces of one tray and one way: one standard deviation, as it was reckoned with.
    pub sd_mm: f64,
    /// Pieces of each way.
    pub per_way: usize,
    /// Across the tray, and along it.
    pub tray_mm: (f64, f64),
    /// Middles of its places, from its corner.
    pub places_mm: Vec<(f64, f64)>,
    /// By tray and place: the number of the way, from 0; null where none of it lies.
    pub trays: Vec<Vec<Option<usize>>>,
}

/// What one way came to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WayFound {
    /// What it is called.
    pub name: String,
    /// Pieces measured.
    pub pieces: u32,
    /// Their mean.
    pub mean_mm: f64,
    /// More than the first, trays allowed for; null of the first.
    pub more_mm: Option<f64>,
    /// It lies within, nineteen times of twenty.
    pub between_mm: Option<(f64, f64)>,
}

/// Something that was or is to be tried.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TryView {
    /// Its number.
    pub id: i64,
    /// The job it was planned for.
    pub job_id: i64,
    /// What it is called.
    pub name: String,
    /// How the pieces lie; null of a cause's test.
    pub trial: Option<TrialView>,
    /// The test of a cause; null of a trial.
    pub test: Option<CauseTestView>,
    /// The record whose cause is looked for.
    pub record_id: Option<i64>,
    /// What was noted; null while it is still to be made.
    pub noted: Option<TryNoted>,
    /// By way, once it was measured.
    pub ways: Vec<WayFound>,
    /// What it says, a sentence each; empty before.
    pub says: Vec<SentenceView>,
}

impl TryView {
    /// One of them; what was noted is read out anew.
    pub fn new(stored: &StoredTry) -> Result<Self, InputErrors> {
        let trying = &stored.kept.trying;
        let found = stored.noted.as_ref().map(|n| trying.found(n)).transpose()?;
        let (mut ways, mut says) = (vec![], vec![]);
        match (trying, &found) {
            (Trying::Trial(t), Some(TryFound::Trial(outcome))) => {
                let of = |l: Length| l.mm();
                ways = outcome
                    .ways
                    .iter()
                    .zip(&t.ways)
                    .map(|(w, name)| WayFound {
                        name: name.clone(),
                        pieces: w.pieces,
                        mean_mm: w.mean.mm(),
                        more_mm: w.more.map(of),
                        between_mm: w.between.map(|(a, b)| (a.mm(), b.mm())),
                    })
                    .collect();
                says = outcome.verdicts.iter().map(|v| trial_verdict(v, &t.ways, t.measure).into()).collect();
            }
            (Trying::Test(t), Some(TryFound::Test(found, _))) => says = vec![words::came_to(&t.test, *found).into()],
            _ => {}
        }
        let base = Self {
            id: stored.id.0,
            job_id: stored.kept.job_id.0,
            name: String::new(),
            trial: None,
            test: None,
            record_id: None,
            noted: stored.noted.clone(),
            ways,
            says,
        };
        Ok(match trying {
            Trying::Trial(t) => Self {
                name: t.name.clone(),
                trial: Some(TrialView {
                    ways: t.ways.clone(),
                    measure: t.measure,
                    difference_mm: t.asked.difference.mm(),
                    sd_mm: t.asked.sd.mm(),
                    per_way: t.per_way(),
                    tray_mm: t.tray_mm,
                    places_mm: t.places.clone(),
                    trays: t.trays.clone(),
                }),
                ..base
            },
            Trying::Test(t) => Self {
                name: t.seen.iter().map(|s| s.name()).collect::<Vec<_>>().join(", "),
                test: Some((&t.test).into()),
                record_id: Some(t.record),
                ..base
            },
        })
    }
}

/// What was measured in a trial, as a table (RFC 4180): a piece a line. Nothing before it was.
pub fn trial_csv(stored: &StoredTry) -> Option<Vec<u8>> {
    let (Trying::Trial(trial), Some(TryNoted::Trial { trays_mm })) = (&stored.kept.trying, &stored.noted) else {
        return None;
    };
    let mut table = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(vec![]);
    let measured = if trial.measure == EvenMeasure::Width { "width_mm" } else { "thickness_mm" };
    table.write_record(["tray", "way", "piece", measured]).expect("memory takes it");
    for (tray, ways) in trays_mm.iter().enumerate() {
        for (name, pieces) in trial.ways.iter().zip(ways) {
            for (piece, mm) in pieces.iter().enumerate() {
                let line = [(tray + 1).to_string(), cell(name), (piece + 1).to_string(), mm.to_string()];
                table.write_record(line).expect("memory takes it");
            }
        }
    }
    Some(table.into_inner().expect("memory takes it"))
}
