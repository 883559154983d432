//! What is tried on purpose: a trial of ways, or the test of a cause; planned, baked, and read out.

use super::causes::{Cause, CauseTest, Found, Seen, Tell};
use super::evenness::EvenMeasure;
use super::trial::{TrialAsked, TrialGround, TrialOutcome, lay_trial, trial_outcome};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Length, Share};
use serde::{Deserialize, Serialize};

/// A trial of ways, laid out.
#[derive(Debug, Clone, PartialEq)]
pub struct Trial {
    /// What it is about, 1 to 80 characters.
    pub name: String,
    /// What the ways are called, 1 to 60 characters each; the first is as always.
    pub ways: Vec<String>,
    /// What is measured.
    pub measure: EvenMeasure,
    /// What it was sized by.
    pub asked: TrialAsked,
    /// Places of a tray from its corner, mm.
    pub places: Vec<(f64, f64)>,
    /// The tray, mm.
    pub tray_mm: (f64, f64),
    /// By tray and place: which way lies there; nothing where none of the trial does.
    pub trays: Vec<Vec<Option<usize>>>,
}

impl Trial {
    /// Sizes and lays one out. Its seed makes no two trials lie alike.
    pub fn new(
        name: &str,
        ways: &[String],
        (measure, difference): (EvenMeasure, Length),
        ground: TrialGround,
        seed: u64,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", name, 80, "a name");
        for (i, way) in ways.iter().enumerate() {
            checks.text(&format!("ways[{i}]"), way, 60, "a name");
        }
        checks.finish(())?;
        let asked = ground.asked(ways.len(), difference);
        let size = asked.size()?;
        let TrialGround { places, tray_mm, .. } = ground;
        let trays = size.on_trays.iter().zip(seed..);
        let trays = trays
            .map(|(n, seed)| lay_trial(&places, ways.len(), usize::try_from(*n).unwrap_or(usize::MAX), seed))
            .collect();
        let ways = ways.iter().map(|w| w.trim().to_owned()).collect();
        Ok(Self { name: name.trim().to_owned(), ways, measure, asked, places, tray_mm, trays })
    }

    /// Pieces of each way.
    #[must_use]
    pub fn per_way(&self) -> usize {
        self.trays.iter().flatten().filter(|way| **way == Some(0)).count()
    }
}

/// The test of a cause, put into the next run.
#[derive(Debug, Clone, PartialEq)]
pub struct TestPlanned {
    /// The record whose cause is looked for.
    pub record: i64,
    /// What was seen.
    pub seen: Vec<Seen>,
    /// What it is and what each suspect would make of it.
    pub test: CauseTest,
}

/// What is tried.
#[derive(Debug, Clone, PartialEq)]
pub enum Trying {
    /// Ways beside each other.
    Trial(Trial),
    /// A cause.
    Test(TestPlanned),
}

/// What was found, as it was noted.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields, tag = "kind")]
pub enum TryNoted {
    /// What was measured by tray, way and piece.
    Trial {
        /// Millimetres; 0.5 to 600.
        trays_mm: Vec<Vec<Vec<f64>>>,
    },
    /// Widths of the pieces that were baked otherwise, and of those beside them.
    Beside {
        /// 1 to 60 pieces.
        changed_mm: Vec<f64>,
        /// 1 to 60 pieces.
        beside_mm: Vec<f64>,
    },
    /// Tried by hand: whether it helped.
    Helped {
        /// It did.
        helped: bool,
    },
}

/// What that says.
#[derive(Debug, Clone, PartialEq)]
pub enum TryFound {
    /// Of a trial.
    Trial(TrialOutcome),
    /// Of a test, as the likelihood of each suspect after it.
    Test(Found, Vec<(Cause, Share)>),
}

const MOST_PIECES: f64 = 60.0;

impl Trying {
    /// Reads out what was noted.
    pub fn found(&self, noted: &TryNoted) -> Result<TryFound, InputErrors> {
        let refused = |why: &str| Err(InputErrors::from(InputError::refused("kind", why.to_owned())));
        match (self, noted) {
            (Self::Trial(trial), TryNoted::Trial { trays_mm }) => {
                Ok(TryFound::Trial(trial_outcome(&trial.asked, trays_mm)?))
            }
            (Self::Test(TestPlanned { test, .. }), TryNoted::Beside { changed_mm, beside_mm }) => {
                if test.tell != Tell::Beside {
                    return refused("Say whether this test helped.");
                }
                let mut checks = Checks::new();
                for (field, widths) in [("changed_mm", changed_mm), ("beside_mm", beside_mm)] {
                    checks.range(
                        field,
                        f64::from(u32::try_from(widths.len()).unwrap_or(u32::MAX)),
                        1.0,
                        MOST_PIECES,
                        "pieces",
                    );
                    for (i, mm) in widths.iter().enumerate() {
                        checks.range(&format!("{field}[{i}]"), *mm, 5.0, 600.0, "mm");
                    }
                }
                checks.finish(())?;
                let mean = |of: &[f64]| of.iter().sum::<f64>() / f64::from(u32::try_from(of.len()).unwrap_or(1));
                let found = Found::Wider(Length::new_mm(mean(changed_mm) - mean(beside_mm)));
                Ok(TryFound::Test(found, test.after(found)))
            }
            (Self::Test(TestPlanned { test, .. }), TryNoted::Helped { helped }) => {
                let found = Found::Helped(*helped);
                Ok(TryFound::Test(found, test.after(found)))
            }
            (Self::Trial(_), _) => refused("Enter the measurements of this test."),
            (Self::Test(_), TryNoted::Trial { .. }) => refused("Say whether this test helped."),
        }
    }
}
