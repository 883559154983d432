//! What to do when it goes wrong, with numbers.

mod power;

use super::answers::Plan;
use super::bench::SLICE_S;
use super::chill::first_chill;
use super::figures::plain;
use super::{ColdPlace, Job, Kitchen, Making};
use crate::cold::{
    BENCH_FILM, ChillAnswer, ChillQuestion, Piece, Place, Support, Target, Working, Wrap, chill_briefly, disc_of,
    left_for, tempering_to,
};
use crate::error::{Checks, InputErrors};
use crate::safety::COLD_RULE;
use crate::units::{Length, Span, Temperature};

/// A cool box with ice packs, and a cool cellar. Common practice, no source.
const COOL_BOX: (f64, f64) = (6.0, 7.0);
const CELLAR_C: f64 = 12.0;

/// To take a chilled portion from its box and lay it on the tray, s. Common practice, no source.
const SPREAD_OUT_S: f64 = 2.0;
/// Nobody cuts longer at one sheet.
const ON_THE_BENCH: Span = Span::new_min(180.0);

/// What went wrong.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Trouble {
    /// The dough is too warm to roll now.
    TooWarm {
        /// Its core.
        core: Temperature,
    },
    /// The dough is too hard.
    TooHard {
        /// All through.
        dough: Temperature,
    },
    /// The room is warm.
    WarmRoom {
        /// Its air and bench.
        room: Temperature,
    },
    /// The fridge is full.
    NoSpace,
    /// The power is off.
    PowerOut {
        /// For how long by now.
        ago: Span,
        /// The dough when it went.
        dough: Temperature,
    },
}

/// One thing that can be done.
#[derive(Debug, Clone, PartialEq)]
pub struct Remedy {
    /// What.
    pub what: String,
    /// How long it takes, where that is the question.
    pub takes: Option<Span>,
    /// Why, and what to mind.
    pub why: String,
}

/// What to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Advice {
    /// How it stands.
    pub headline: String,
    /// What can be done, the quickest first.
    pub remedies: Vec<Remedy>,
    /// Where somebody could be hurt.
    pub caution: Option<String>,
}

/// Advice for a trouble of a job; `replan` plans the job in another kitchen.
///
/// Fails, naming the value, for a dough outside -30 to 45 degC, a room outside 5 to 40 degC, and an outage of more than
/// three days.
pub fn advise(
    job: &Job,
    kitchen: &Kitchen,
    plan: &Plan,
    trouble: Trouble,
    replan: &dyn Fn(&Kitchen) -> Result<Plan, InputErrors>,
) -> Result<Advice, InputErrors> {
    let mut checks = Checks::new();
    match trouble {
        Trouble::TooWarm { core: dough } | Trouble::TooHard { dough } => {
            checks.range("dough_c", dough.c(), -30.0, 45.0, "\u{b0}C");
        }
        Trouble::WarmRoom { room } => checks.range("room_c", room.c(), 5.0, 40.0, "\u{b0}C"),
        Trouble::NoSpace => {}
        Trouble::PowerOut { ago, dough } => {
            checks.range("ago_min", ago.min(), 0.0, 3.0 * 24.0 * 60.0, "min");
            checks.range("dough_c", dough.c(), -30.0, 45.0, "\u{b0}C");
        }
    }
    checks.finish(())?;
    let at = At { job, kitchen, plan };
    let mut advice = match trouble {
        Trouble::TooWarm { core } => at.too_warm(core)?,
        Trouble::TooHard { dough } => at.too_hard(dough),
        Trouble::WarmRoom { room } => at.warm_room(room, replan)?,
        Trouble::NoSpace => at.no_space()?,
        Trouble::PowerOut { ago, dough } => at.power_out(ago, dough)?,
    };
    advice.remedies.sort_by(|a, b| {
        let time = |r: &Remedy| r.takes.map_or(f64::MAX, Span::s);
        time(a).total_cmp(&time(b))
    });
    Ok(advice)
}

struct At<'a> {
    job: &'a Job,
    kitchen: &'a Kitchen,
    plan: &'a Plan,
}

impl At<'_> {
    fn ask(&self, piece: Piece, place: ColdPlace, start: Temperature) -> Result<ChillAnswer, InputErrors> {
        let question = first_chill(self.job, self.kitchen, &self.plan.dough, piece, place)?;
        Ok(chill_briefly(&question.starting(start)))
    }

    /// A remedy from a run, unless it never gets there.
    fn cold(&self, what: String, answer: &ChillAnswer, why: &str) -> Option<Remedy> {
        let ready = answer.ready_after?;
        let leave = match answer.past_after {
            Some(past) => format!(" It is too cold from {} on.", words(past)),
            None => String::new(),
        };
        Some(Remedy { what, takes: Some(ready), why: format!("{why}{leave}").trim().to_owned() })
    }

    /// Between which temperatures the job's dough is right for what it is chilled for.
    fn working(&self) -> Working {
        self.plan.cold.window.working(self.plan.cold.target)
    }

    fn too_warm(&self, core: Temperature) -> Result<Advice, InputErrors> {
        let (window, working) = (self.plan.cold.window, self.working());
        let headline = if core <= working.to {
            format!(
                "At {} it is not too warm: this dough {} up to {}. If it is soft all the same, tell it under What was learnt.",
                degrees(core),
                working.does,
                degrees(working.to)
            )
        } else {
            format!(
                "It is {} too warm: at {}, and this dough {} up to {}.",
                by(core, working.to),
                degrees(core),
                working.does,
                degrees(working.to)
            )
        };
        if core <= working.to {
            return Ok(Advice { headline, remedies: vec![], caution: None });
        }
        let piece = self.plan.cold.form.piece;
        let sheet = Piece::Sheet { thickness: self.job.thickness() };
        let mut remedies = Vec::new();
        let fridge = self.ask(piece, ColdPlace::Fridge, core)?;
        remedies.extend(self.cold("As it is, into the fridge".to_owned(), &fridge, "Nothing to do meanwhile."));
        let freezer = self.ask(piece, ColdPlace::Freezer, core)?;
        remedies.extend(self.cold(
            "As it is, into the freezer".to_owned(),
            &freezer,
            "Quick, and quickly too much: set a clock.",
        ));
        if let Piece::Disc { thickness, .. } = piece {
            let flat = Length::new_mm((thickness.mm() / 2.0).max(8.0));
            let answer =
                self.ask(disc_of(self.plan.cold.form.mass, flat, self.plan.dough.density), ColdPlace::Fridge, core)?;
            let what = format!("Pressed to {} mm, into the fridge", plain(flat.mm()));
            remedies.extend(self.cold(what, &answer, "Half as thick cools more than twice as fast."));
        }
        if self.job.input().making == Making::Cut && !matches!(piece, Piece::Sheet { .. }) {
            let answer = self.ask(sheet, ColdPlace::Freezer, core)?;
            let what = format!("Rolled between papers to {} mm, into the freezer", plain(self.job.thickness().mm()));
            remedies.extend(self.cold(
                what,
                &answer,
                "A soft dough rolls easily between papers; it is cut when it comes out.",
            ));
        }
        if self.job.input().making == Making::Cut {
            remedies.extend(self.on_a_frozen_tray(sheet, core)?);
        }
        let caution = (core > window.tacky_to).then(|| {
            format!(
                "Above {} the fat has run: it may come out shorter and greasier. Chill it firm all through before it is worked again.",
                degrees(window.tacky_to)
            )
        });
        Ok(Advice { headline, remedies, caution })
    }

    /// A rolled sheet slid onto a tray from the freezer, on the bench.
    fn on_a_frozen_tray(&self, sheet: Piece, core: Temperature) -> Result<Option<Remedy>, InputErrors> {
        let (kitchen, window) = (self.kitchen, self.plan.cold.window);
        let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.place(ColdPlace::Freezer).air() };
        let room = Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?;
        let question = ChillQuestion::new(
            self.plan.dough.composition.clone(),
            sheet,
            Wrap::Open,
            tray,
            core.c(),
            room,
            Target::Rolling,
        )?;
        let curve = left_for(&question, ON_THE_BENCH);
        let rolls = |s: &crate::cold::Sample| s.felt <= window.rolls_to;
        let Some(ready) = curve.iter().find(|s| rolls(s)) else {
            let firmest = curve.iter().map(|s| s.felt.c()).fold(f64::MAX, f64::min);
            return Ok(Some(Remedy {
                what: "The sheet on a tray from the freezer, on the bench".to_owned(),
                takes: None,
                why: format!(
                    "Not enough here: its fat has no time to set, and it gets no firmer than at {}.",
                    degrees(Temperature::new_c(firmest))
                ),
            }));
        };
        let until = curve.iter().skip_while(|s| s.after <= ready.after).find(|s| !rolls(s)).map(|s| s.after);
        Ok(Some(Remedy {
            what: "The sheet on a tray from the freezer, on the bench".to_owned(),
            takes: Some(ready.after),
            why: match until {
                Some(until) => format!("It can be cut there until {} after.", words(until)),
                None => "It can be cut there.".to_owned(),
            },
        }))
    }

    fn too_hard(&self, dough: Temperature) -> Advice {
        let room = self.kitchen.room();
        let working = self.working();
        let Some(from) = working.from.filter(|from| dough < *from) else {
            let headline = match working.from {
                Some(from) => format!(
                    "At {} it is not too cold: this dough {} from {}. If it cracks all the same, tell it under What was learnt.",
                    degrees(dough),
                    working.does,
                    degrees(from)
                ),
                None => format!(
                    "At {} it is firm, and as firm as it may be: it goes into the oven as it is.",
                    degrees(dough)
                ),
            };
            return Advice { headline, remedies: vec![], caution: None };
        };
        let headline = format!(
            "It is {} too cold: at {}, and this dough {} from {}.",
            by(from, dough),
            degrees(dough),
            working.does,
            degrees(from)
        );
        let composition = &self.plan.dough.composition;
        let temper = |piece: Piece| tempering_to(composition, piece, dough, room, from);
        let mut remedies = Vec::new();
        let piece = self.plan.cold.form.piece;
        if let Some(takes) = temper(piece) {
            remedies.push(Remedy {
                what: format!("Rest it wrapped on the bench at {}", degrees(room)),
                takes: Some(takes),
                why: match self.plan.cold.target {
                    Target::Slicing => "Turn it once. It is ready when the knife goes through without a splinter.",
                    Target::Rolling | Target::Oven | Target::Core(_) => {
                        "Turn it once. It is ready when a thumb dents it and the rim no longer cracks."
                    }
                }
                .to_owned(),
            });
        }
        if let Piece::Disc { thickness, .. } = piece {
            let slab = Piece::Sheet { thickness: Length::new_mm((thickness.mm() / 2.0).max(6.0)) };
            if let Some(takes) = temper(slab) {
                remedies.push(Remedy {
                    what: format!("Split it flat in two and rest the halves at {}", degrees(room)),
                    takes: Some(takes),
                    why: "Each half is half as thick. Roll them one after the other, the second from the cold."
                        .to_owned(),
                });
            }
        }
        if remedies.is_empty() {
            remedies.push(Remedy {
                what: "A warmer spot is needed".to_owned(),
                takes: None,
                why: format!("The room is at {}, colder than the dough must be.", degrees(room)),
            });
        }
        remedies.push(Remedy {
            what: "Not in an oven or a microwave".to_owned(),
            takes: None,
            why: "The rim melts while the middle is still hard, and melted fat does not come back as it was."
                .to_owned(),
        });
        Advice { headline, remedies, caution: None }
    }

    fn warm_room(
        &self,
        room: Temperature,
        replan: &dyn Fn(&Kitchen) -> Result<Plan, InputErrors>,
    ) -> Result<Advice, InputErrors> {
        let kitchen = self.kitchen.at_room(room)?;
        let plan = replan(&kitchen)?;
        let working = plan.cold.window.working(plan.cold.target);
        let cut = self.job.input().making == Making::Cut;
        let (just, cold_end) = (plan.cold.bench, plan.cold.bench_longest);
        // What hands get done in a time: a sheet is rolled first, a log is sliced as it is, portions are laid out.
        let (before_s, each_s) = match self.job.input().making {
            Making::Cut => (kitchen.input().roll_min * 60.0, kitchen.input().cut_s.max(0.5)),
            Making::Sliced { .. } => (0.0, SLICE_S),
            Making::Portioned(_) => (0.0, SPREAD_OUT_S),
        };
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "minutes of work")]
        let pieces = |span: Span| ((span.s() - before_s).max(0.0) / each_s).floor() as u32;
        let what = match self.job.input().making {
            Making::Cut => format!("a {} mm sheet stays workable", plain(self.job.thickness().mm())),
            Making::Sliced { .. } => "it stays firm enough to slice".to_owned(),
            Making::Portioned(_) => "it stays firm enough for the oven".to_owned(),
        };
        let headline = match (just, cold_end) {
            (Some(just), Some(cold)) => format!(
                "At {} {what} for {} when it is just ready, {} when it comes as cold as it may.",
                degrees(room),
                words(just),
                words(cold)
            ),
            _ => format!("At {} {what} as long as it lies there.", degrees(room)),
        };
        let mut remedies = vec![Remedy {
            what: format!(
                "The dough leaves the bowl at {} and is ready after {}",
                degrees(plan.dough.temperature),
                plan.cold.answer.ready_after.map_or_else(|| "never".to_owned(), words)
            ),
            takes: None,
            why: format!(
                "In this kitchen as set it is {} and {}. Butter and eggs straight from the fridge bring it down.",
                degrees(self.plan.dough.temperature),
                self.plan.cold.answer.ready_after.map_or_else(|| "never".to_owned(), words)
            ),
        }];
        if let Some(cold) = cold_end {
            let done = pieces(cold);
            let enough = match (done, &self.job.input().making) {
                (0, _) => "not enough to roll a sheet and cut it. Roll it before the chill, or cut on a frozen tray"
                    .to_owned(),
                (n, Making::Cut) => format!(
                    "enough to roll it and cut about {n} pieces. Work in portions of that size, the rest in the cold"
                ),
                (n, Making::Sliced { .. }) => format!("enough for about {n} slices; then it goes back into the cold"),
                (n, Making::Portioned(_)) => format!("enough to lay out about {n}; the rest stays in the cold"),
            };
            let what = match plan.cold.answer.past_after.filter(|_| cut) {
                Some(past) => format!(
                    "Leave it in the {} for {}, to the cold end of its window",
                    plan.cold.place.word(),
                    words(past)
                ),
                None => format!("Leave it in the {} until it is as cold as that", plan.cold.place.word()),
            };
            remedies.push(Remedy {
                what,
                takes: None,
                why: format!("It then lasts {} on the bench: {enough}.", words(cold)),
            });
        }
        if cut {
            remedies.extend(self.against_the_clock(&kitchen, &plan, working, cold_end)?);
        }
        Ok(Advice { headline, remedies, caution: Some(COLD_RULE.to_owned()) })
    }

    /// A bench kept cold, and work done before the chill.
    fn against_the_clock(
        &self,
        kitchen: &Kitchen,
        plan: &Plan,
        working: Working,
        cold_end: Option<Span>,
    ) -> Result<[Remedy; 2], InputErrors> {
        let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.place(ColdPlace::Freezer).air() };
        let question = ChillQuestion::new(
            plan.dough.composition.clone(),
            Piece::Sheet { thickness: self.job.thickness() },
            Wrap::Open,
            tray,
            working.from.unwrap_or(working.to).c(),
            Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?,
            Target::Rolling,
        )?;
        let lasts = left_for(&question, ON_THE_BENCH).iter().find(|s| s.felt > working.to).map(|s| s.after);
        let frozen = Remedy {
            what: "Cut on an upturned tray from the freezer".to_owned(),
            takes: None,
            why: match lasts {
                Some(lasts) => format!(
                    "The same sheet then lasts {}, not {}. Two trays taking turns keep a bench cold.",
                    words(lasts),
                    cold_end.map_or_else(|| "as long".to_owned(), words)
                ),
                None => "The sheet then lasts as long as you need.".to_owned(),
            },
        };
        let first = Remedy {
            what: "Roll before the chill, between papers".to_owned(),
            takes: None,
            why: "A soft dough rolls easily; only the cutting is then done against the clock.".to_owned(),
        };
        Ok([frozen, first])
    }

    fn no_space(&self) -> Result<Advice, InputErrors> {
        let (kitchen, plan) = (self.kitchen, self.plan);
        let start = plan.dough.temperature;
        let thickness = self.job.thickness();
        let piece = plan.cold.form.piece;
        let sheets = plan.cold.form.count;
        let mut remedies = Vec::new();
        if self.job.input().making == Making::Cut {
            let one = self.ask(Piece::Sheet { thickness }, ColdPlace::Fridge, start)?;
            if let Some(ready) = one.ready_after {
                remedies.push(Remedy {
                    what: format!("Rolled first, one tray's place taken in turns by {sheets}"),
                    takes: Some(ready * f64::from(sheets)),
                    why: format!("Each sheet needs {} only; the others wait, rolled, on the bench.", words(ready)),
                });
            }
            let stacked = sheets.clamp(2, 12);
            let stack = self.ask(Piece::Stack { thickness, count: stacked }, ColdPlace::Fridge, start)?;
            let what = format!(
                "{stacked} sheets on each other between papers, in one tray's place, {} mm high",
                plain(thickness.mm() * f64::from(stacked))
            );
            remedies.extend(self.cold(what, &stack, "One flat place does for all; the inner ones are last."));
        }
        let freezer = self.ask(piece, ColdPlace::Freezer, start)?;
        remedies.extend(self.cold("Into the freezer instead".to_owned(), &freezer, "Set a clock."));
        for (what, air, why) in [
            ("A cool box with ice packs".to_owned(), COOL_BOX.0, "Taken to be at 6\u{b0}: put a thermometer in."),
            (
                format!("A cellar or porch at {CELLAR_C:.0}\u{b0}"),
                CELLAR_C,
                "Good for getting it firm, not for keeping: it is no cold place.",
            ),
        ] {
            let question = first_chill(self.job, kitchen, &plan.dough, piece, ColdPlace::Fridge)?
                .in_place(Place::new(air, COOL_BOX.1)?);
            remedies.extend(self.cold(what, &chill_briefly(&question), why));
        }
        let working = self.working();
        let what = format!(
            "{} of {} g",
            if sheets == 1 { "One piece".to_owned() } else { format!("{sheets} pieces") },
            super::figures::grouped(plan.cold.form.mass.g())
        );
        let headline = if start > working.to {
            format!("{what} must get from {} to {}.", degrees(start), degrees(working.to))
        } else {
            format!("{what} at {} {} already: no cold is needed.", degrees(start), working.does)
        };
        Ok(Advice { headline, remedies, caution: Some(COLD_RULE.to_owned()) })
    }
}

/// How much warmer one is than another.
fn by(warmer: Temperature, colder: Temperature) -> String {
    format!("{:.1}\u{b0}", (warmer - colder).k())
}

fn degrees(t: Temperature) -> String {
    format!("{:.1}\u{b0}", t.c()).replace('-', "\u{2212}")
}

/// `46 min`, `1 h 44`, `2 h`.
fn words(span: Span) -> String {
    #[expect(clippy::cast_possible_truncation, reason = "days at most")]
    let whole = span.min().round().max(0.0) as i64;
    match (whole / 60, whole % 60) {
        (0, m) => format!("{m} min"),
        (h, 0) => format!("{h} h"),
        (h, m) => format!("{h} h {m:02}"),
    }
}
