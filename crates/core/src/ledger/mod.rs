//! What came out of the oven, against what was expected.

mod beside;
mod causes;
mod control;
mod evenness;
mod photo;
mod trial;
mod tries;
mod worth;

pub use beside::{Beside, Condition, Differs, beside};
pub use causes::{
    BakedSo, Cause, CauseAsked, CauseTest, Causes, Evidence, Fact, Found, MOST_SEEN, NOTCH, Says, Seen, Suspect, Tell,
    WithCause, causes,
};
pub use control::{Capability, ControlCharts, LEAST_TRAYS, MeasuredTray, Point, Signal, Varies, control_charts};
pub use evenness::{CUT_ALIKE_MM, EvenMeasure, Evenness, NoChance, evenness};
pub use photo::{
    BAKE_PHOTO_LIMIT_BYTES, DarkPlace, Grown, MOST_TILT_DEG, MeasuredPiece, PhotoAsked, PhotoCutter, PhotoMeasures,
    PhotoNote, measure_photo,
};
pub use trial::{
    MOST_OF_A_WAY, SEEN, TrialAsked, TrialGround, TrialOutcome, TrialSize, TrialVerdict, WAYS, WayOutcome, lay_trial,
    trial_outcome, usual_within,
};

pub use tries::{TestPlanned, Trial, TryFound, TryNoted, Trying};
pub use worth::{Worth, worth_measuring};

use crate::error::{Checks, InputErrors};
use crate::oven::EdgeColour;
use crate::units::{Length, Share, Span};
use serde::{Deserialize, Serialize};

/// Most pieces measured in one record.
const MOST_MEASURED: usize = 60;

/// Pieces measured after a bake.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeRecord {
    cut_width: Length,
    cut_thickness: Length,
    widths: Vec<Length>,
    thicknesses: Vec<Length>,
    baked: Option<Span>,
    edge: EdgeColour,
    notes: String,
}

/// What the measures amount to.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeFindings {
    /// Mean width after baking.
    pub mean_width: Length,
    /// Growth across, of the width as cut.
    pub spread: Share,
    /// The same of each piece.
    pub spreads: Vec<Share>,
    /// Mean thickness after baking, where measured.
    pub mean_thickness: Option<Length>,
    /// Width over thickness after baking: the cereal chemists' spread factor (AACC International 10-50), where both are known.
    pub spread_factor: Option<f64>,
    /// Largest less smallest width: how even the pieces are.
    pub width_range: Length,
}

/// What was measured, against what was expected.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AgainstExpected {
    /// Less than the least.
    Less,
    /// Within.
    Within,
    /// More than the most.
    More,
}

impl AgainstExpected {
    /// A value against the least and the most that were expected of it.
    #[must_use]
    pub fn of<T: PartialOrd>(value: T, (least, most): (T, T)) -> Self {
        match value {
            v if v < least => Self::Less,
            v if v > most => Self::More,
            _ => Self::Within,
        }
    }
}

impl BakeFindings {
    /// The spread against the least and the most that were expected.
    #[must_use]
    pub fn spread_against(&self, expected: (Share, Share)) -> AgainstExpected {
        AgainstExpected::of(self.spread, expected)
    }
}

/// What was expected of a bake when it was recorded: minutes in the oven and spread, least and most of each.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ExpectedBake {
    /// In the oven.
    pub bake: (Span, Span),
    /// Of a round.
    pub spread: (Share, Share),
}

impl ExpectedBake {
    /// From figures of a file under the names they have there, minutes 0 to 240, spread -50 to 300 %.
    pub fn new(bake_min: [(&str, f64); 2], spread_percent: [(&str, f64); 2]) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        for (field, min) in bake_min {
            checks.range(field, min, 0.0, 240.0, "min");
        }
        for (field, percent) in spread_percent {
            checks.range(field, percent, -50.0, 300.0, "%");
        }
        checks.finish(())?;
        let (span, share) = (|of: (&str, f64)| Span::new_min(of.1), |of: (&str, f64)| Share::new(of.1 / 100.0));
        let ([least, most], [low, high]) = (bake_min.map(span), spread_percent.map(share));
        Ok(Self { bake: (least, most), spread: (low, high) })
    }
}

impl BakeRecord {
    /// A record of widths (1 to 60 pieces, 5 to 600 mm), thicknesses (none or up to 60, 0.5 to 60 mm), minutes in the oven
    /// where noted (1 to 120), edge colour and notes up to 2,000 characters.
    pub fn new(
        cut_width: Length,
        cut_thickness: Length,
        widths_mm: &[f64],
        thicknesses_mm: &[f64],
        baked_min: Option<f64>,
        edge: EdgeColour,
        notes: &str,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("widths_mm", count(widths_mm), 1.0, count(&[0.0; MOST_MEASURED]), "cookies");
        checks.range("thicknesses_mm", count(thicknesses_mm), 0.0, count(&[0.0; MOST_MEASURED]), "cookies");
        for (i, w) in widths_mm.iter().enumerate() {
            checks.range(&format!("widths_mm[{i}]"), *w, 5.0, 600.0, "mm");
        }
        for (i, t) in thicknesses_mm.iter().enumerate() {
            checks.range(&format!("thicknesses_mm[{i}]"), *t, 0.5, 60.0, "mm");
        }
        if let Some(minutes) = baked_min {
            checks.range("baked_min", minutes, 1.0, 120.0, "min");
        }
        if !notes.is_empty() {
            checks.text("notes", &format!("-{notes}"), 2001, "a note");
        }
        checks.finish(())?;
        let lengths = |v: &[f64]| v.iter().map(|l| Length::new_mm(*l)).collect();
        Ok(Self {
            cut_width,
            cut_thickness,
            widths: lengths(widths_mm),
            thicknesses: lengths(thicknesses_mm),
            baked: baked_min.map(Span::new_min),
            edge,
            notes: notes.trim().to_owned(),
        })
    }

    /// Width as cut.
    #[must_use]
    pub fn cut_width(&self) -> Length {
        self.cut_width
    }

    /// Thickness as cut.
    #[must_use]
    pub fn cut_thickness(&self) -> Length {
        self.cut_thickness
    }

    /// Widths after baking.
    #[must_use]
    pub fn widths(&self) -> &[Length] {
        &self.widths
    }

    /// Thicknesses after baking.
    #[must_use]
    pub fn thicknesses(&self) -> &[Length] {
        &self.thicknesses
    }

    /// Time in the oven, where noted.
    #[must_use]
    pub fn baked(&self) -> Option<Span> {
        self.baked
    }

    /// Colour of the edge.
    #[must_use]
    pub fn edge(&self) -> EdgeColour {
        self.edge
    }

    /// Notes.
    #[must_use]
    pub fn notes(&self) -> &str {
        &self.notes
    }

    fn grown(&self, width_mm: f64) -> Share {
        Share::new(width_mm / self.cut_width.mm() - 1.0)
    }

    /// What the measures amount to.
    #[must_use]
    pub fn findings(&self) -> BakeFindings {
        let mean =
            |l: &[Length]| l.iter().map(|l| l.mm()).sum::<f64>() / f64::from(u32::try_from(l.len()).unwrap_or(1));
        let width = mean(&self.widths);
        let thickness = (!self.thicknesses.is_empty()).then(|| mean(&self.thicknesses));
        let (low, high) = self.widths.iter().fold((f64::MAX, f64::MIN), |(l, h), w| (l.min(w.mm()), h.max(w.mm())));
        BakeFindings {
            mean_width: Length::new_mm(width),
            spread: self.grown(width),
            spreads: self.widths.iter().map(|w| self.grown(w.mm())).collect(),
            mean_thickness: thickness.map(Length::new_mm),
            spread_factor: thickness.map(|t| width / t),
            width_range: Length::new_mm(high - low),
        }
    }
}

fn count(v: &[f64]) -> f64 {
    f64::from(u32::try_from(v.len()).unwrap_or(u32::MAX))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn record(widths: &[f64], thicknesses: &[f64]) -> Result<BakeRecord, InputErrors> {
        BakeRecord::new(
            Length::new_mm(65.0),
            Length::new_mm(6.0),
            widths,
            thicknesses,
            Some(10.0),
            EdgeColour::JustGolden,
            "left tray first",
        )
    }

    #[test]
    fn a_spread_at_the_edge_of_its_range_is_as_expected() {
        let found = record(&[68.25], &[]).unwrap().findings();
        let against = |least, most| found.spread_against((Share::new(least), Share::new(most)));
        assert!((found.spread.value() - 0.05).abs() < 1e-12);
        let spread = found.spread.value();
        assert_eq!(against(spread, 0.08), AgainstExpected::Within);
        assert_eq!(against(0.01, spread), AgainstExpected::Within);
        assert_eq!((against(0.06, 0.08), against(0.0, 0.04)), (AgainstExpected::Less, AgainstExpected::More));
    }

    #[test]
    fn the_spread_factor_is_width_over_thickness_of_six_pieces() {
        // AACC International 10-50: W and T are means over six pieces (from memory), the factor is W/T.
        let widths = [70.0, 71.0, 69.0, 70.5, 70.0, 69.5];
        let found = record(&widths, &[6.5, 6.4, 6.6, 6.5, 6.5, 6.5]).unwrap().findings();
        assert!((found.mean_width.mm() - 70.0).abs() < 1e-9);
        assert!((found.spread_factor.unwrap() - 70.0 / 6.5).abs() < 1e-9);
        assert!((found.spread.value() - 5.0 / 65.0).abs() < 1e-9);
        assert_eq!(found.width_range.mm(), 2.0);
    }

    #[test]
    fn a_record_without_a_width_or_with_an_absurd_one_is_refused_by_place() {
        assert_eq!(record(&[], &[]).unwrap_err().all()[0].field(), "widths_mm");
        assert_eq!(record(&[70.0, f64::NAN], &[]).unwrap_err().all()[0].field(), "widths_mm[1]");
        assert!(record(&[70.0], &[]).unwrap().findings().spread_factor.is_none());
    }
}
