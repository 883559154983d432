//! Other ways to chill, a closer look at one, advice, and what was learnt, on the wire.

use super::PurposeWord;
use super::live::written;
use super::plan::{PieceWire, ReadyView, WindowView};
use super::{SentenceView, say, say_all};
use ready_slab_core::cold::ColdPlace;
use ready_slab_core::cold::Side;
use ready_slab_core::cold::Touch;
use ready_slab_core::cold::{Finding, Learnt, MovedLimit, PlaceKnowledge, RANGE_SDS, Section, SectionKind, Window};
use ready_slab_core::error::{Checks, InputError, InputErrors, Problem};
use ready_slab_core::job::{Advice, Kitchen, Spell, Trouble, Way, WaySizes};
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

/// A time during which a piece is of one kind.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SpellView {
    /// Which side of ready.
    pub side: Side,
    /// The trade's word.
    pub word: String,
    /// Since it went in.
    pub from_min: f64,
    /// Until then; as long as it lies there when null.
    pub to_min: Option<f64>,
}

impl From<&Spell> for SpellView {
    fn from(s: &Spell) -> Self {
        Self { side: s.side, word: s.feels.name().to_owned(), from_min: s.from.min(), to_min: s.to.map(Span::min) }
    }
}

/// One way to chill the dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WayView {
    /// Names it in other requests.
    pub key: String,
    /// What it is called.
    pub name: SentenceView,
    /// The form.
    pub piece: PieceWire,
    /// How many.
    pub count: u32,
    /// Where.
    pub place: ColdPlace,
    /// To be rolled or sliced.
    pub purpose: PurposeWord,
    /// When.
    #[serde(flatten)]
    pub ready: ReadyView,
    /// How it feels meanwhile.
    pub spells: Vec<SpellView>,
    /// After a night, on the bench until it can be worked; null when the room never gets it there.
    pub after_night_min: Option<f64>,
    /// Hands before the cold.
    pub hands_before_min: f64,
    /// Hands after it.
    pub hands_after_min: f64,
    /// What the hands do.
    pub effort: String,
    /// The way of the plan.
    pub chosen: bool,
}

impl From<&Way> for WayView {
    fn from(w: &Way) -> Self {
        Self {
            key: w.key.clone(),
            name: way_name(w).into(),
            piece: w.piece.into(),
            count: w.count,
            place: w.place,
            purpose: w.target.into(),
            ready: (&w.answer).into(),
            spells: w.spells.iter().map(Into::into).collect(),
            after_night_min: w.after_night.map(Span::min),
            hands_before_min: w.hands.0.min(),
            hands_after_min: w.hands.1.min(),
            effort: way_effort(w.kind).to_owned(),
            chosen: w.chosen,
        }
    }
}

/// What the columns of a section are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SectionWord {
    /// One column for the whole width.
    Slab,
    /// From the middle outward, alike on both sides.
    Halved,
    /// Rings from the middle outward.
    Rings,
}

/// The inside at one moment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FrameView {
    /// Since it went in.
    pub after_min: f64,
    /// Layer by layer from below, each from the middle outward.
    pub layers_c: Vec<Vec<f64>>,
}

/// The inside of a piece over time.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SectionView {
    /// Of which way.
    pub way: WayView,
    /// How to read the columns.
    pub kind: SectionWord,
    /// Whole width; null for a sheet.
    pub width_mm: Option<f64>,
    /// Whole height.
    pub height_mm: f64,
    /// Working temperatures.
    pub window: WindowView,
    /// In order of time.
    pub frames: Vec<FrameView>,
}

impl SectionView {
    /// A closer look at a way.
    pub fn new(way: &Way, section: &Section, window: Window) -> Self {
        // A hundredth of a degree is finer than any picture.
        let rounded = |t: &Temperature| (t.c() * 100.0).round() / 100.0;
        Self {
            way: way.into(),
            kind: match section.kind {
                SectionKind::Slab => SectionWord::Slab,
                SectionKind::Halved => SectionWord::Halved,
                SectionKind::Rings => SectionWord::Rings,
            },
            width_mm: section.width.map(Length::mm),
            height_mm: section.height.mm(),
            window: window.into(),
            frames: section
                .frames
                .iter()
                .map(|f| FrameView {
                    after_min: f.after.min(),
                    layers_c: f.layers.iter().map(|layer| layer.iter().map(rounded).collect()).collect(),
                })
                .collect(),
        }
    }
}

/// What went wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TroubleWord {
    /// The dough is too warm to roll now.
    TooWarm,
    /// The dough is too hard.
    TooHard,
    /// The room is warm.
    WarmRoom,
    /// The fridge is full.
    NoSpace,
    /// The power is off.
    PowerOut,
}

/// A trouble with its figures.
#[derive(Debug, Clone, Serialize, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct AdviceQuery {
    /// Which.
    #[param(inline)]
    pub trouble: TroubleWord,
    /// The dough, -30 to 45; for `too_warm`, `too_hard` and `power_out` (when it went).
    pub dough_c: Option<f64>,
    /// The room, 5 to 40; for `warm_room`.
    pub room_c: Option<f64>,
    /// Minutes since the power went, 0 to 4320; for `power_out`.
    pub ago_min: Option<f64>,
}

impl AdviceQuery {
    /// The trouble; what is not said is as the kitchen has it.
    pub fn trouble(&self, kitchen: &Kitchen, place: ready_slab_core::job::ColdPlace) -> Result<Trouble, InputErrors> {
        let celsius = |field: &str, given: Option<f64>, otherwise: Temperature| -> Result<Temperature, InputErrors> {
            given.map_or(Ok(otherwise), |c| {
                Temperature::from_c(c).map_err(|_| InputError::new(field, Problem::NotFinite).into())
            })
        };
        let fridge = kitchen.place(place).air();
        Ok(match self.trouble {
            TroubleWord::TooWarm => Trouble::TooWarm { core: celsius("dough_c", self.dough_c, kitchen.room())? },
            TroubleWord::TooHard => Trouble::TooHard { dough: celsius("dough_c", self.dough_c, fridge)? },
            TroubleWord::WarmRoom => {
                Trouble::WarmRoom { room: celsius("room_c", self.room_c, Temperature::new_c(29.0))? }
            }
            TroubleWord::NoSpace => Trouble::NoSpace,
            TroubleWord::PowerOut => {
                let mut checks = Checks::new();
                let ago = self.ago_min.unwrap_or(60.0);
                checks.range("ago_min", ago, 0.0, 3.0 * 24.0 * 60.0, "min");
                checks.finish(())?;
                Trouble::PowerOut { ago: Span::new_min(ago), dough: celsius("dough_c", self.dough_c, fridge)? }
            }
        })
    }
}

/// One thing that can be done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RemedyView {
    /// What.
    pub what: SentenceView,
    /// How long it takes, where that is the question.
    pub takes_min: Option<f64>,
    /// Why, and what to mind.
    pub why: Vec<SentenceView>,
}

/// What to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct AdviceView {
    /// How it stands.
    pub headline: SentenceView,
    /// What can be done, the quickest first.
    pub remedies: Vec<RemedyView>,
    /// Where somebody could be hurt.
    pub caution: Option<SentenceView>,
}

impl From<Advice> for AdviceView {
    fn from(a: Advice) -> Self {
        Self {
            headline: say(&a.headline),
            remedies: a
                .remedies
                .into_iter()
                .map(|r| RemedyView { what: say(&r.what), takes_min: r.takes.map(Span::min), why: say_all(&r.why) })
                .collect(),
            caution: a.caution.as_ref().map(say),
        }
    }
}

/// A place's use changes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceUseBody {
    /// Whether it is crowded or often opened at present.
    pub busy: bool,
}

/// What is thought of a place in one of its uses.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlaceView {
    /// Which.
    pub place: ColdPlace,
    /// Crowded or often opened.
    pub busy: bool,
    /// Whether it is used so at present.
    pub present: bool,
    /// Its dial.
    pub set_c: f64,
    /// The film of its kind, radiation included.
    pub set_film_w_m2k: f64,
    /// Its air as it is thought to be.
    pub air_c: f64,
    /// Nine times in ten within so much of it.
    pub air_within_k: f64,
    /// What multiplies the film: lower end, middle, upper end.
    pub film_factor: [f64; 3],
    /// From how many pieces that was learnt; 0 when it is only what anybody knows.
    pub pieces: u32,
    /// When the last of them was accepted, UTC.
    pub taught_at: Option<String>,
}

impl PlaceView {
    /// A place of a kitchen in one of its uses.
    pub fn new(
        place: ready_slab_core::job::ColdPlace,
        busy: bool,
        present: bool,
        kitchen: &Kitchen,
        knowledge: PlaceKnowledge,
        taught: Option<&StoredKnowledge>,
    ) -> Self {
        let set = kitchen.set_place(place);
        let (low, middle, high) = knowledge.film_factor();
        Self {
            place,
            busy,
            present,
            set_c: set.air().c(),
            set_film_w_m2k: set.film().w_m2k(),
            air_c: set.air().c() + knowledge.air.0.k(),
            air_within_k: knowledge.air.1.k() * RANGE_SDS,
            film_factor: [low, middle, high],
            pieces: taught.map_or(0, |t| t.pieces),
            taught_at: taught.map(|t| written(t.taught_at)),
        }
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
        let mut checks = Checks::new();
        checks.range("dough_c", self.dough_c, -20.0, 40.0, "\u{b0}C");
        if self.purpose == PurposeWord::Oven {
            checks.push(InputError::refused("purpose", "only rolling and slicing are felt by hand"));
        }
        let fits = match self.touch {
            Touch::Squashed => self.purpose == PurposeWord::Slicing,
            Touch::Cracked | Touch::Stuck => self.purpose == PurposeWord::Rolling,
            Touch::Right => true,
        };
        if !fits {
            checks.push(InputError::refused(
                "touch",
                "rolled dough cracks or sticks, sliced dough is squashed; either is right",
            ));
        }
        checks.finish(())?;
        Ok(Finding { purpose: self.purpose.into(), touch: self.touch, dough: Temperature::new_c(self.dough_c) })
    }
}

/// A kept finding.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TouchView {
    /// Its number.
    pub id: i64,
    /// When, UTC.
    pub noted_at: String,
    /// `rolling` or `slicing`.
    pub purpose: PurposeWord,
    /// How it went.
    pub touch: Touch,
    /// The dough then.
    pub dough_c: f64,
}

/// A limit as hands have moved it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LimitView {
    /// What it limits.
    pub name: String,
    /// By the dough's fat.
    pub by_fat_c: f64,
    /// As hands have moved it.
    pub now_c: f64,
    /// Nine times in ten within so much of that.
    pub within_k: f64,
    /// From how many findings.
    pub findings: usize,
}

/// What hands have found of a formula's dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TouchesView {
    /// The limits.
    pub limits: Vec<LimitView>,
    /// The findings, the newest first.
    pub touches: Vec<TouchView>,
}

impl TouchesView {
    /// What findings moved, from the window the fat gives to the one that is used; no limits where the dough has no window.
    pub fn new(moved: Option<(&Window, &Window, &Learnt)>, touches: &[StoredTouch]) -> Self {
        let limit = |name: &str, by_fat: Temperature, now: Temperature, moved: MovedLimit| LimitView {
            name: name.to_owned(),
            by_fat_c: by_fat.c(),
            now_c: now.c(),
            within_k: moved.sd.k() * RANGE_SDS,
            findings: moved.findings,
        };
        Self {
            limits: moved.map_or_else(Vec::new, |(by_fat, now, learnt)| {
                vec![
                    limit("rolls clean from", by_fat.rolls_from, now.rolls_from, learnt.rolls_from),
                    limit("rolls clean to", by_fat.rolls_to, now.rolls_to, learnt.rolls_to),
                    limit("slices clean to", by_fat.slices_to, now.slices_to, learnt.slices_to),
                ]
            }),
            touches: touches
                .iter()
                .map(|t| TouchView {
                    id: t.id,
                    noted_at: written(t.noted_at),
                    purpose: t.finding.purpose.into(),
                    touch: t.finding.touch,
                    dough_c: t.finding.dough.c(),
                })
                .collect(),
        }
    }
}
