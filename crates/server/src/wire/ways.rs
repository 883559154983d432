//! Other ways to chill, a closer look at one, advice, and what was learnt, on the wire.

use super::PurposeWord;
use super::live::written;
use super::plan::{ReadyView, WindowView};
use super::{SentenceView, say, say_all, view};
use ready_slab_core::cold::{
    ColdPlace, Finding, Frame, LimitsLearnt, MovedLimit, Piece, PlaceKnowledge, RANGE_SDS, Section, SectionKind, Side,
    Touch, Window,
};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::{Advice, ChillChange, Kitchen, Remedy, Spell, Trouble, Way, WaySizes};
use ready_slab_core::units::{Length, Span, Temperature};
use ready_slab_store::{StoredKnowledge, StoredTouch};
use ready_slab_words::{Name, way_effort, way_name};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Sizes of the ways; as in the plan or as is usual where absent.
#[derive(Debug, Clone, Default, Serialize, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WaysQuery {
    /// Disc, 8 to 80.
    pub disc_mm: Option<f64>,
    /// Sheets on each other, 2 to 12.
    pub stack: Option<u32>,
    /// Log across, 15 to 120.
    pub log_mm: Option<f64>,
    /// Bar, 15 to 120.
    pub bar_width_mm: Option<f64>,
    /// Bar, 15 to 120.
    pub bar_height_mm: Option<f64>,
    /// Which way is looked at more closely; the plan's when absent.
    pub way: Option<String>,
}

impl WaysQuery {
    /// The sizes.
    pub fn sizes(&self) -> Result<WaySizes, InputErrors> {
        let mm = |field: &str, v: Option<f64>| -> Result<Option<Length>, InputErrors> {
            v.map(|v| Length::from_mm(v).map_err(|_| InputError::new(field, Problem::NotFinite).into())).transpose()
        };
        let usual = WaySizes::default();
        Ok(WaySizes {
            disc: mm("disc_mm", self.disc_mm)?,
            stack: self.stack,
            log: mm("log_mm", self.log_mm)?.unwrap_or(usual.log),
            bar: (
                mm("bar_width_mm", self.bar_width_mm)?.unwrap_or(usual.bar.0),
                mm("bar_height_mm", self.bar_height_mm)?.unwrap_or(usual.bar.1),
            ),
        })
    }
}

view! {
    /// A time during which a piece is of one kind.
    pub struct SpellView(s: &Spell) {
        /// Which side of ready.
        side: Side = s.side,
        /// The trade's word.
        word: String = s.feels.name().to_owned(),
        /// Since it went in.
        from_min: f64 = s.from.min(),
        /// Until then; as long as it lies there when null.
        to_min: Option<f64> = s.to.map(Span::min),
    }
}

view! {
    /// One way to chill the dough.
    pub struct WayView(w: &Way) {
        /// Names it in other requests.
        key: String = w.key.clone(),
        /// What it is called.
        name: SentenceView = way_name(w).into(),
        /// The form.
        piece: Piece = w.piece,
        /// How many.
        count: u32 = w.count,
        /// Where.
        place: ColdPlace = w.place,
        /// To be rolled or sliced.
        purpose: PurposeWord = w.target.into(),
        /// When.
        #[serde(flatten)]
        ready: ReadyView = (&w.answer).into(),
        /// How it feels meanwhile.
        spells: Vec<SpellView> = w.spells.iter().map(Into::into).collect(),
        /// After a night, on the bench until it can be worked; null when the room never gets it there.
        after_night_min: Option<f64> = w.after_night.map(Span::min),
        /// Hands before the cold.
        hands_before_min: f64 = w.hands.0.min(),
        /// Hands after it.
        hands_after_min: f64 = w.hands.1.min(),
        /// What the hands do.
        effort: String = way_effort(w.kind).to_owned(),
        /// The way of the plan.
        chosen: bool = w.chosen,
        /// What taking it changes of the job; null where the pieces would be made another way.
        take: Option<ChillChange> = w.take,
    }
}

view! {
    /// The inside at one moment.
    pub struct FrameView(f: &Frame) {
        // A hundredth of a degree is finer than any picture.
        let rounded = |t: &Temperature| (t.c() * 100.0).round() / 100.0;

        /// Since it went in.
        after_min: f64 = f.after.min(),
        /// Layer by layer from below, each from the middle outward.
        layers_c: Vec<Vec<f64>> = f.layers.iter().map(|layer| layer.iter().map(rounded).collect()).collect(),
    }
}

view! {
    /// The inside of a piece over time.
    pub struct SectionView(way: &Way, section: &Section, window: Window) {
        /// Of which way.
        way: WayView = way.into(),
        /// How to read the columns.
        kind: SectionKind = section.kind,
        /// Whole width; null for a sheet.
        width_mm: Option<f64> = section.width.map(Length::mm),
        /// Whole height.
        height_mm: f64 = section.height.mm(),
        /// Working temperatures.
        window: WindowView = window.into(),
        /// In order of time.
        frames: Vec<FrameView> = section.frames.iter().map(Into::into).collect(),
    }
}

view! {
    /// One thing that can be done.
    pub struct RemedyView(r: &Remedy) {
        /// What.
        what: SentenceView = say(&r.what),
        /// How long it takes, where that is the question.
        takes_min: Option<f64> = r.takes.map(Span::min),
        /// Why, and what to mind.
        why: Vec<SentenceView> = say_all(&r.why),
    }
}

view! {
    /// What to do.
    pub struct AdviceView(a: &Advice, trouble: Trouble) {
        let (dough, room, ago) = trouble.figures();

        /// The dough it was worked out for; null where the trouble has none.
        dough_c: Option<f64> = dough.map(|t| t.c()),
        /// The room it was worked out for.
        room_c: Option<f64> = room.map(|t| t.c()),
        /// The power went so long ago.
        ago_min: Option<f64> = ago.map(Span::min),
        /// How it stands.
        headline: SentenceView = say(&a.headline),
        /// What can be done, the quickest first.
        remedies: Vec<RemedyView> = a.remedies.iter().map(Into::into).collect(),
        /// Where somebody could be hurt.
        caution: Option<SentenceView> = a.caution.as_ref().map(say),
    }
}

/// A place's use changes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceUseBody {
    /// Whether it is crowded or often opened at present.
    pub busy: bool,
}

view! {
    /// What is thought of a place in one of its uses.
    pub struct PlaceView(
        place: ColdPlace,
        busy: bool,
        present: bool,
        kitchen: &Kitchen,
        knowledge: PlaceKnowledge,
        taught: Option<&StoredKnowledge>,
    ) {
        let set = kitchen.set_place(place);
        let (low, middle, high) = knowledge.film_factor();

        /// Which.
        place: ColdPlace = place,
        /// Crowded or often opened.
        busy: bool = busy,
        /// Whether it is used so at present.
        present: bool = present,
        /// Its dial.
        set_c: f64 = set.air().c(),
        /// The film of its kind, radiation included.
        set_film_w_m2k: f64 = set.film().w_m2k(),
        /// Its air as it is thought to be.
        air_c: f64 = set.air().c() + knowledge.air.0.k(),
        /// Nine times in ten within so much of it.
        air_within_k: f64 = knowledge.air.1.k() * RANGE_SDS,
        /// What multiplies the film: lower end, middle, upper end.
        film_factor: [f64; 3] = [low, middle, high],
        /// From how many pieces that was learnt; 0 when it is only what anybody knows.
        pieces: u32 = taught.map_or(0, |t| t.pieces),
        /// When the last of them was accepted, UTC.
        taught_at: Option<String> = taught.map(|t| written(t.taught_at)),
    }
}

/// What a hand found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TouchBody {
    /// `rolling` or `slicing`.
    pub purpose: PurposeWord,
    /// How it went.
    pub touch: Touch,
    /// The dough then, -20 to 40.
    pub dough_c: f64,
}

impl TouchBody {
    /// The finding, checked.
    pub fn finding(&self) -> Result<Finding, InputErrors> {
        Finding::new(self.purpose.into(), self.touch, self.dough_c)
    }
}

view! {
    /// A kept finding.
    pub struct TouchView(t: &StoredTouch) {
        /// Its number.
        id: i64 = t.id,
        /// When, UTC.
        noted_at: String = written(t.noted_at),
        /// `rolling` or `slicing`.
        purpose: PurposeWord = t.finding.purpose.into(),
        /// How it went.
        touch: Touch = t.finding.touch,
        /// The dough then.
        dough_c: f64 = t.finding.dough.c(),
    }
}

view! {
    /// A limit as hands have moved it.
    pub struct LimitView(name: &str, by_fat: Temperature, now: Temperature, moved: MovedLimit) {
        /// What it limits.
        name: String = name.to_owned(),
        /// By the dough's fat.
        by_fat_c: f64 = by_fat.c(),
        /// As hands have moved it.
        now_c: f64 = now.c(),
        /// Nine times in ten within so much of that.
        within_k: f64 = moved.sd.k() * RANGE_SDS,
        /// From how many findings.
        findings: usize = moved.findings,
    }
}

view! {
    /// What hands have found of a formula's dough.
    pub struct TouchesView(moved: Option<(&Window, &Window, &LimitsLearnt)>, touches: &[StoredTouch]) {
        /// The limits.
        limits: Vec<LimitView> = moved.map_or_else(Vec::new, |(by_fat, now, learnt)| {
            vec![
                LimitView::new("rolls clean from", by_fat.rolls_from, now.rolls_from, learnt.rolls_from),
                LimitView::new("rolls clean to", by_fat.rolls_to, now.rolls_to, learnt.rolls_to),
                LimitView::new("slices clean to", by_fat.slices_to, now.slices_to, learnt.slices_to),
            ]
        }),
        /// The findings, the newest first.
        touches: Vec<TouchView> = touches.iter().map(Into::into).collect(),
    }
}
