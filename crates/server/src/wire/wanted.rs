//! The cold station asked the other way round, on the wire.

use super::MINUTE_FORMAT;
use super::plan::PieceWire;
use super::{SentenceView, say};
use chrono::NaiveDateTime;
use ready_slab_core::clock::Zone;
use ready_slab_core::cold::ColdPlace;
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::WantedWay;
use ready_slab_core::units::Span;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// When it can go in and when it is wanted.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WantedQuery {
    /// When it can be put into the cold, local time, `2026-11-28T12:20`.
    pub in_at: String,
    /// When it should be ready to roll, local time.
    pub ready_at: String,
}

/// One way to have it ready.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WantedWayView {
    /// The form.
    pub piece: PieceWire,
    /// Where.
    pub place: ColdPlace,
    /// How long it takes at the slow end of its range; null when it never gets ready.
    pub needs_min: Option<f64>,
    /// The last moment it can be put in, local time.
    pub in_by: Option<String>,
    /// Whether that is not before it can be put in.
    pub makes_it: bool,
    /// For a disc: the thickest that is ready in time; null where even the thinnest is not.
    pub thickest_mm: Option<f64>,
    /// Why it never gets ready.
    pub never: Option<SentenceView>,
}

/// All ways, those that make it first.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WantedView {
    /// Time there is.
    pub within_min: f64,
    /// The ways.
    pub ways: Vec<WantedWayView>,
}

impl WantedQuery {
    fn time(field: &'static str, text: &str) -> Result<NaiveDateTime, InputErrors> {
        NaiveDateTime::parse_from_str(text, MINUTE_FORMAT).map_err(|_| {
            let text = text.chars().filter(|c| !c.is_control()).take(40).collect();
            InputError::new(field, Problem::Unreadable { text, accepted: "a time such as 2026-11-28T14:05" }).into()
        })
    }

    /// The time there is, and the moment wanted.
    pub fn within(&self, zone: Zone) -> Result<(Span, NaiveDateTime), InputErrors> {
        let (from, to) = (Self::time("in_at", &self.in_at)?, Self::time("ready_at", &self.ready_at)?);
        // Real minutes, whatever the clocks do in between.
        let real = |field, shown| zone.moment(field, shown);
        let minutes = real("ready_at", to)?.signed_duration_since(real("in_at", from)?).num_minutes();
        let minutes = i32::try_from(minutes).map_err(|_| InputError::refused("ready_at", "that is years away"))?;
        if minutes < 1 {
            return Err(InputError::refused(
                "ready_at",
                "it is wanted before it can be put in; a later time is needed",
            )
            .into());
        }
        Ok((Span::new_min(f64::from(minutes)), to))
    }
}

impl WantedView {
    /// The ways as sent.
    pub fn new(ways: &[WantedWay], within: Span, ready_at: NaiveDateTime, zone: Zone) -> Self {
        let way = |w: &WantedWay| {
            let needs_min = w.needs.as_ref().ok().map(|n| n.min());
            #[expect(clippy::cast_possible_truncation, reason = "a day or two at most")]
            let in_by = needs_min.map(|m| zone.after(ready_at, -(m.ceil() as i64)));
            WantedWayView {
                piece: w.piece.into(),
                place: w.place,
                needs_min,
                in_by: in_by.map(|t| t.format(MINUTE_FORMAT).to_string()),
                makes_it: w.makes_it,
                thickest_mm: w.thickest.map(|t| t.mm()),
                never: w.needs.as_ref().err().map(say),
            }
        };
        Self { within_min: within.min(), ways: ways.iter().map(way).collect() }
    }
}
