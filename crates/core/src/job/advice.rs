//! What to do when it goes wrong, with numbers.

use super::answers::Plan;
use super::plan::{first_chill, plain};
use super::{ColdPlace, Job, Kitchen, Making};
use crate::cold::{
    BENCH_FILM, Bench, ChillAnswer, ChillQuestion, LiveStay, OUT_OF_THE_COLD, Piece, Place, PlaceKnowledge, Side,
    Support, Target, Tracked, Wrap, chill_briefly, disc_of, left_for, tempering_to,
};
use crate::error::{Checks, InputErrors};
use crate::units::{Length, Span, Temperature};

/// A shut fridge or freezer takes on the room's temperature with about this time scale, min. Between an empty fridge (4 h)
/// and a full one (15 h); a full freezer is slower still. Common practice, no source.
const SHUT_FRIDGE_MIN: f64 = 8.0 * 60.0;
const SHUT_FREEZER_MIN: f64 = 30.0 * 60.0;
/// Length of the steps in which its warming is followed, min, and how many.
const STEP_MIN: f64 = 20.0;
const STEPS: u32 = 36;
/// A cool box with ice packs, and a cool cellar. Common practice, no source.
const COOL_BOX: (f64, f64) = (6.0, 7.0);
const CELLAR_C: f64 = 12.0;

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

    fn too_warm(&self, core: Temperature) -> Result<Advice, InputErrors> {
        let window = self.plan.cold.window;
        let headline = if core <= window.rolls_to {
            format!(
                "At {} it is not too warm: this dough rolls clean up to {}. If it sticks all the same, tell it under What was learnt.",
                degrees(core),
                degrees(window.rolls_to)
            )
        } else {
            format!(
                "It is too warm by +{:.1}\u{b0}: it is at {} and rolls clean up to {}.",
                (core - window.rolls_to).k(),
                degrees(core),
                degrees(window.rolls_to)
            )
        };
        if core <= window.rolls_to {
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
        let rolls = |s: &crate::cold::Sample| s.mean <= window.rolls_to;
        let Some(ready) = curve.iter().find(|s| rolls(s)) else {
            let lowest = curve.iter().map(|s| s.mean.c()).fold(f64::MAX, f64::min);
            return Ok(Some(Remedy {
                what: "The sheet on a tray from the freezer, on the bench".to_owned(),
                takes: None,
                why: format!("Not enough here: it brings the sheet to {} only.", degrees(Temperature::new_c(lowest))),
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
        let (window, room) = (self.plan.cold.window, self.kitchen.room());
        if dough >= window.rolls_from {
            let headline = format!(
                "At {} it is not too cold: this dough rolls clean from {}. If it cracks all the same, tell it under What was learnt.",
                degrees(dough),
                degrees(window.rolls_from)
            );
            return Advice { headline, remedies: vec![], caution: None };
        }
        let headline = format!(
            "It is too cold by +{:.1}\u{b0}: it is at {} and rolls clean from {}.",
            (window.rolls_from - dough).k(),
            degrees(dough),
            degrees(window.rolls_from)
        );
        let composition = &self.plan.dough.composition;
        let temper = |piece: Piece| tempering_to(composition, piece, dough, room, window.rolls_from);
        let mut remedies = Vec::new();
        let piece = self.plan.cold.form.piece;
        if let Some(takes) = temper(piece) {
            remedies.push(Remedy {
                what: format!("Rest it wrapped on the bench at {}", degrees(room)),
                takes: Some(takes),
                why: "Turn it once. It is ready when a thumb dents it and the rim no longer cracks.".to_owned(),
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
        let window = plan.cold.window;
        let bench = Bench::new(&plan.dough.composition, &window, self.job.thickness(), room);
        let cold_end = bench.stays_workable(window.rolls_from);
        let just = plan.cold.bench;
        let cut_s = kitchen.input().cut_s.max(0.5);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "minutes of cutting")]
        let pieces = |span: Span| ((span.s() - kitchen.input().roll_min * 60.0).max(0.0) / cut_s).floor() as u32;
        let headline = match (just, cold_end) {
            (Some(just), Some(cold)) => format!(
                "At {} a {} mm sheet stays workable for {} when it is just ready, {} when it comes as cold as it still rolls.",
                degrees(room),
                plain(self.job.thickness().mm()),
                words(just),
                words(cold)
            ),
            _ => format!("At {} the sheet stays workable as long as it lies there.", degrees(room)),
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
        if let (Some(cold), Some(past)) = (cold_end, plan.cold.answer.past_after) {
            remedies.push(Remedy {
                what: format!("Leave it in the {} for {}, to the cold end of its window", plan.cold.place.word(), words(past)),
                takes: None,
                why: format!(
                    "It then lasts {} on the bench: enough to roll it and cut about {} pieces. Work in portions of that size, the rest in the cold.",
                    words(cold),
                    pieces(cold)
                ),
            });
        }
        let sheet = Piece::Sheet { thickness: self.job.thickness() };
        let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.place(ColdPlace::Freezer).air() };
        let place = Place::new(room.c(), BENCH_FILM.w_m2k())?;
        let question = ChillQuestion::new(
            plan.dough.composition.clone(),
            sheet,
            Wrap::Open,
            tray,
            window.rolls_from.c(),
            place,
            Target::Rolling,
        )?;
        let lasts = left_for(&question, ON_THE_BENCH).iter().find(|s| s.mean > window.rolls_to).map(|s| s.after);
        remedies.push(Remedy {
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
        });
        remedies.push(Remedy {
            what: "Roll before the chill, between papers".to_owned(),
            takes: None,
            why: "A soft dough rolls easily; only the cutting is then done against the clock.".to_owned(),
        });
        Ok(Advice { headline, remedies, caution: Some(cold_words()) })
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
                "Good for reaching the window, not for keeping: not more than two hours.",
            ),
        ] {
            let question = first_chill(self.job, kitchen, &plan.dough, piece, ColdPlace::Fridge)?
                .in_place(Place::new(air, COOL_BOX.1)?);
            remedies.extend(self.cold(what, &chill_briefly(&question), why));
        }
        let headline = format!(
            "{} of {} g must get from {} to {}.",
            if sheets == 1 { "One piece".to_owned() } else { format!("{sheets} pieces") },
            super::plan::grouped(plan.cold.form.mass.g()),
            degrees(start),
            degrees(plan.cold.window.rolls_to)
        );
        Ok(Advice { headline, remedies, caution: Some(cold_words()) })
    }

    fn power_out(&self, ago: Span, dough: Temperature) -> Result<Advice, InputErrors> {
        let (kitchen, plan) = (self.kitchen, self.plan);
        let place = plan.cold.place;
        let (air, film) = (kitchen.place(place).air(), kitchen.place(place).film());
        let scale = match place {
            ColdPlace::Fridge => SHUT_FRIDGE_MIN,
            ColdPlace::Freezer => SHUT_FREEZER_MIN,
        };
        let air_at = |minutes: f64| kitchen.room().c() + (air.c() - kitchen.room().c()) * (-minutes / scale).exp();
        let stays = (0..STEPS)
            .map(|i| {
                let from = f64::from(i) * STEP_MIN;
                let stay = LiveStay {
                    from: Span::new_min(from),
                    place: Place::new(air_at(from + STEP_MIN / 2.0), film.w_m2k())?,
                    support: Support::Rack,
                    before: PlaceKnowledge::default(),
                };
                Ok(stay)
            })
            .collect::<Result<Vec<_>, InputErrors>>()?;
        let piece = plan.cold.form.piece;
        let run =
            Tracked::new(plan.dough.composition.clone(), piece, Wrap::Wrapped, dough.c(), Target::Rolling, stays)?
                .live(&[])?;
        let end = Span::new_min(f64::from(STEPS) * STEP_MIN);
        let now = run.at(if ago < end { ago } else { end });
        let first = |of: &dyn Fn(&crate::cold::Sample) -> bool| run.curve.iter().find(|s| of(s)).map(|s| s.after);
        let above = first(&|s| s.warmest.c() > 5.0);
        let too_warm = run
            .curve
            .iter()
            .skip_while(|s| s.after < ago)
            .find(|s| s.mean > plan.cold.window.rolls_to)
            .map(|s| s.after);
        let side = run.feels(ago);
        let relative = |moment: Span| {
            if moment > ago { format!("in {}", words(moment - ago)) } else { format!("{} ago", words(ago - moment)) }
        };
        let headline = format!(
            "Shut, the {} is at about {} by now, and the dough at {}: it {}.",
            place.word(),
            degrees(Temperature::new_c(air_at(ago.min()))),
            degrees(now.mean),
            match side {
                Some((Side::TooCold, _)) => "still cracks, so it must rest before it is rolled",
                Some((Side::Ready, _)) => "rolls clean now",
                Some((Side::TooWarm, _)) => "is too warm to roll",
                None => "has no window",
            }
        );
        let mut remedies = vec![Remedy {
            what: "Keep the door shut".to_owned(),
            takes: None,
            why: "Opening it once lets in what an hour shut would.".to_owned(),
        }];
        if let Some(above) = above {
            let until = above + OUT_OF_THE_COLD;
            remedies.push(Remedy {
                what: if until > ago {
                    format!("Bake it {} at the latest", relative(until))
                } else {
                    format!("Its two hours ended {}: do not keep it for later", relative(until))
                },
                takes: None,
                why: format!(
                    "It {} above 5\u{b0} {}; two hours of that is the usual limit.",
                    if above > ago { "will be" } else { "went" },
                    relative(above)
                ),
            });
        } else {
            remedies.push(Remedy {
                what: format!("It stays below 5\u{b0} for at least {}", words(end)),
                takes: None,
                why: "As long as nobody opens the door.".to_owned(),
            });
        }
        if let Some(too_warm) = too_warm
            && side.is_none_or(|(s, _)| s != Side::TooWarm)
        {
            remedies.push(Remedy {
                what: format!("It can be rolled from there until {} from now", words(too_warm - ago)),
                takes: None,
                why: "After that it is too warm even out of the shut door.".to_owned(),
            });
        }
        remedies.push(Remedy {
            what: "With ice or a neighbour's fridge at hand, move it now".to_owned(),
            takes: None,
            why: "A cool box full of ice packs stays below 5\u{b0} for most of a day.".to_owned(),
        });
        Ok(Advice {
            headline,
            remedies,
            caution: Some(
                "A shut fridge keeps food cold for about four hours, a full freezer for two days (USDA Food Safety and Inspection Service, from memory). Put a thermometer in before you trust it; when in doubt, throw it out. Your local code and inspector decide."
                    .to_owned(),
            ),
        })
    }
}

fn cold_words() -> String {
    "Not more than two hours out of the cold in all, less in a hot room. Your local code decides.".to_owned()
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
