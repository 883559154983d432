//! The cold station asked the other way round, on the wire.

use super::MINUTE_FORMAT;
use super::{SentenceView, say, view};
use chrono::NaiveDateTime;
use ready_slab_core::clock::Zone;
use ready_slab_core::cold::{ColdPlace, Piece};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::{ChillChange, WantedWay};
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

view! {
    /// One way to have it ready.
    pub struct WantedWayView(w: &WantedWay, ready_at: NaiveDateTime, zone: Zone) {
        let needs = w.needs.as_ref().ok();

        /// The form.
        piece: Piece = w.piece,
        /// Where.
        place: ColdPlace = w.place,
        /// How long it takes at the slow end of its range; null when it never gets ready.
        needs_min: Option<f64> = needs.map(|n| n.min()),
        /// The last moment it can be put in, local time.
        in_by: Option<String> =
            needs.map(|n| zone.after(ready_at, -n.min_up()).format(MINUTE_FORMAT).to_string()),
        /// Whether that is not before it can be put in.
        makes_it: bool = w.makes_it,
        /// For a disc: the thickest that is ready in time; null where even the thinnest is not.
        thickest_mm: Option<f64> = w.thickest.map(|t| t.mm()),
        /// Why it never gets ready.
        never: Option<SentenceView> = w.needs.as_ref().err().map(say),
        /// What taking it changes of the job; a disc that does not make it, pressed to the thickest that does.
        take: Option<ChillChange> = w.take,
    }
}

view! {
    /// All ways, those that make it first.
    pub struct WantedView(ways: &[WantedWay], within: Span, ready_at: NaiveDateTime, zone: Zone) {
        /// Time there is.
        within_min: f64 = within.min(),
        /// The ways.
        ways: Vec<WantedWayView> = ways.iter().map(|w| WantedWayView::new(w, ready_at, zone)).collect(),
    }
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
        let minutes = i32::try_from(minutes)
            .map_err(|_| InputError::refused("ready_at", "That’s years away. Choose an earlier time."))?;
        if minutes < 1 {
            return Err(InputError::refused("ready_at", "Ready-by is before it goes in. Choose a later time.").into());
        }
        Ok((Span::new_min(f64::from(minutes)), to))
    }
}
