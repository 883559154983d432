//! Why it came out so: causes that the trade knows, each weighed by how often it is the reason, what the bake's conditions say of it, what the model makes
//! of it, and what the baker answers; and the one cheap test that tells the first two apart.

mod facts;
mod shift;
mod table;
mod telling;

pub use facts::{Fact, Says};
pub use table::{Cause, Seen};
pub use telling::{CauseTest, Found, NOTCH, Tell, WithCause};

use super::BakeRecord;
use crate::error::{InputError, InputErrors};
use crate::oven::{BakeEnd, BakeKnowledge, BakeSeen, DoughKnowledge, WIDTH_NOISE};
use crate::units::Share;
use shift::{Asked, Out, Told};

/// So many things seen at once are weighed together. Our own choice.
pub const MOST_SEEN: usize = 4;
/// A clue that a baker sees is there so often where the cause is, and so often where it is not. Our own choice.
const CLUE: (f64, f64) = (0.8, 0.25);
/// Something that nobody thought of, as likely as what is rare in the table.
const ANOTHER: f64 = 1.0;
/// What it may make of a spread, from less to several times as far. Our own choice.
const ANOTHER_SPREADS: [f64; 5] = [0.4, 1.5, 2.5, 4.0, 7.0];
/// A cause may do more or less than any of the steps that are tried; it is as likely as the mean of them, and of doing nothing so often. Our own choice.
const DOES_NOTHING: f64 = 0.1;
/// The model is not the oven: what it makes likelier counts by the root of that, so that practice keeps its say. Our own choice.
const COUNTS: f64 = 0.5;
/// More than so much of the likelihood is told as speaking for a cause, less than its inverse against it. Our own choice.
const SPEAKS: f64 = 1.25;
/// What is unsure of a spread, of itself: at least, and before any bake taught it. Less than the fit has, since a cause is looked for where a bake was off
/// from what the same hands usually get. Our own choice.
const SPREAD_SD: (f64, f64) = (0.15, 0.30);
/// A spread that is nearer to the forecast than this needs no explaining. Our own choice: about what a width on a few pieces may be off by.
const AS_FORECAST: f64 = 0.004;
/// A forecast of no spread is taken as this, so that several times of it are something. Our own choice.
const HARDLY_SPREADS: f64 = 0.005;

/// What is asked.
#[derive(Debug, Clone, Copy)]
pub struct CauseAsked<'a> {
    /// What was seen, one to four.
    pub seen: &'a [Seen],
    /// What it was baked with; nothing where that was not kept.
    pub baked: Option<&'a BakedSo>,
    /// What was measured.
    pub record: &'a BakeRecord,
    /// What other bakes have taught.
    pub learnt: Option<&'a BakeKnowledge>,
    /// Clues that the baker was asked for: whether it was so.
    pub clues: &'a [(Cause, bool)],
}

/// What a bake was baked with, as causes are weighed by it.
#[derive(Debug, Clone, PartialEq)]
pub struct BakedSo {
    /// As the model takes it; nothing where the model does not reach it.
    pub seen: Option<BakeSeen>,
    /// Growth across the piece's longer side over that of a round of its dough.
    pub across: f64,
    /// What its conditions say.
    pub says: Vec<Says>,
}

/// Something that speaks for or against a cause.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Evidence {
    /// How often it is the reason, 1 to 5.
    Usual(u8),
    /// A condition, and whether it speaks for it.
    Fact(Fact, bool),
    /// With it the model tells this growth across the piece, as far as it fits best: nearer to what came out than without, or further from it.
    Spread(Share, bool),
    /// With it the model tells an edge nearer to the one that came out, or further from it.
    Edge(bool),
    /// The baker saw it so, or not so.
    Clue(bool),
}

/// A cause, weighed.
#[derive(Debug, Clone, PartialEq)]
pub struct Suspect {
    /// Which.
    pub cause: Cause,
    /// How likely, of all together.
    pub share: Share,
    /// How much of what came out otherwise than forecast it explains, where the model tells.
    pub explains: Option<Share>,
    /// What speaks for it and against it.
    pub evidence: Vec<Evidence>,
}

/// What is behind it.
#[derive(Debug, Clone, PartialEq)]
pub struct Causes {
    /// The likeliest first.
    pub suspects: Vec<Suspect>,
    /// How likely it is something else.
    pub another: Share,
    /// As the model has it with no cause at all; nothing where it tells nothing.
    pub forecast: Option<Share>,
    /// As it came out, across the piece as it is measured.
    pub came_out: Option<Share>,
    /// What tells the first two apart.
    pub test: Option<CauseTest>,
}

/// How much likelier what came out is with a cause: its spread, its colour, and both.
struct With {
    spread: f64,
    edge: f64,
    both: f64,
}

/// What likelihoods of some steps come to against that of no cause at all.
fn times(likely: &[f64], without: f64) -> f64 {
    let mean = likely.iter().sum::<f64>() / f64::from(u32::try_from(likely.len()).unwrap_or(1));
    (DOES_NOTHING + (1.0 - DOES_NOTHING) * mean / without.max(f64::MIN_POSITIVE)).powf(COUNTS)
}

/// A bake that the model can be asked about.
pub(super) struct Bake {
    asked: Asked,
    out: Out,
    without: Told,
    likely_without: [f64; 2],
}

impl Bake {
    /// Nothing where the model does not reach it.
    fn of(asked: &CauseAsked<'_>, seen: BakeSeen, across: f64) -> Option<Self> {
        let fit = asked.learnt.copied().unwrap_or(BakeKnowledge::NONE).fit(seen.measured.unwrap_or_default());
        let dough = asked.learnt.map_or(DoughKnowledge::NONE, |k| k.dough);
        let edge = asked.record.edge();
        let colour = matches!(seen.end, BakeEnd::Colour(_) | BakeEnd::Soft(_)) && !seen.dough.hides_colour();
        let out = Out {
            spread: seen.spread,
            rim: (colour && seen.bake.is_some()).then_some(edge),
            width_sd: WIDTH_NOISE / across,
            spread_sd: dough.spread_sd.clamp(SPREAD_SD.0, SPREAD_SD.1),
        };
        let asked = Asked { seen, fit };
        let without = asked.told().ok()?;
        Some(Self { likely_without: out.likely(&without), asked, out, without })
    }

    /// How much likelier what came out is with a cause, and what the model tells with it as far as it fits best.
    fn with(&self, cause: Cause) -> Option<(With, Told)> {
        let steps: Vec<([f64; 2], Told)> = cause
            .shifts()
            .iter()
            .filter_map(|shift| self.asked.with(*shift).and_then(|a| a.told()).ok())
            .map(|told| (self.out.likely(&told), told))
            .collect();
        let both = |l: [f64; 2]| l[0] * l[1];
        let best = steps.iter().copied().max_by(|a, b| both(a.0).total_cmp(&both(b.0)))?;
        let of = |one: &dyn Fn([f64; 2]) -> f64| {
            times(&steps.iter().map(|s| one(s.0)).collect::<Vec<_>>(), one(self.likely_without))
        };
        Some((With { spread: of(&|l| l[0]), edge: of(&|l| l[1]), both: of(&both) }, best.1))
    }

    /// How much likelier what came out is if something does that nobody thought of: it may spread less, or several times as far.
    fn with_another(&self) -> f64 {
        let likely = ANOTHER_SPREADS
            .map(|times| Told { spread: self.without.spread.max(HARDLY_SPREADS) * times, ..self.without })
            .map(|told| self.out.likely(&told)[0]);
        times(&likely, self.likely_without[0])
    }

    fn explains(&self, told: &Told) -> Option<Share> {
        let (all, some) = (self.out.spread.value() - self.without.spread, told.spread - self.without.spread);
        (all.abs() > AS_FORECAST).then(|| Share::new((some / all).clamp(0.0, 1.0)))
    }
}

/// Weighs what may be behind it.
///
/// Fails where nothing was seen, or too much at once.
pub fn causes(asked: &CauseAsked<'_>) -> Result<Causes, InputErrors> {
    if asked.seen.is_empty() || asked.seen.len() > MOST_SEEN {
        return Err(InputError::refused("seen", format!("Choose 1 to {MOST_SEEN} things you saw.")).into());
    }
    let seen = asked.baked.and_then(|b| b.seen.clone());
    let says = asked.baked.map_or(&[][..], |b| &b.says);
    let came_out = seen.as_ref().map(|s| s.spread);
    let across = asked.baked.map_or(1.0, |b| b.across);
    let told = |spread: f64| Share::new(spread * across);
    let bake = seen.and_then(|s| Bake::of(asked, s, across));
    let mut all: Vec<Cause> = asked.seen.iter().flat_map(|s| s.suspects().iter().map(|(c, _)| *c)).collect();
    all.sort_unstable();
    all.dedup();
    let mut weighed: Vec<(f64, Suspect)> = all
        .into_iter()
        .map(|cause| {
            // Each thing seen is evidence of its own.
            let mut weight: f64 = asked.seen.iter().map(|s| cause.before(*s)).product();
            let step = asked.seen.iter().flat_map(|s| s.suspects()).filter(|(c, _)| *c == cause).map(|(_, n)| *n).max();
            let mut evidence = vec![Evidence::Usual(step.unwrap_or(1))];
            for say in says.iter().filter(|s| s.cause == cause) {
                weight *= say.times;
                evidence.push(Evidence::Fact(say.fact, say.times > 1.0));
            }
            let mut explains = None;
            if let Some((bake, (times, found))) = bake.as_ref().and_then(|b| Some((b, b.with(cause)?))) {
                weight *= times.both;
                explains = bake.explains(&found);
                let speaks = |times: f64| !(1.0 / SPEAKS..=SPEAKS).contains(&times);
                if speaks(times.spread) {
                    evidence.push(Evidence::Spread(Share::new(found.spread * across), times.spread > 1.0));
                }
                if speaks(times.edge) {
                    evidence.push(Evidence::Edge(times.edge > 1.0));
                }
            }
            for (_, so) in asked.clues.iter().filter(|(c, _)| *c == cause) {
                let (there, elsewhere) = CLUE;
                weight *= if *so { there / elsewhere } else { (1.0 - there) / (1.0 - elsewhere) };
                evidence.push(Evidence::Clue(*so));
            }
            (weight, Suspect { cause, share: Share::new(0.0), explains, evidence })
        })
        .collect();
    let another =
        ANOTHER.powi(i32::try_from(asked.seen.len()).unwrap_or(1)) * bake.as_ref().map_or(1.0, Bake::with_another);
    let whole = another + weighed.iter().map(|(w, _)| w).sum::<f64>();
    weighed.sort_by(|a, b| b.0.total_cmp(&a.0));
    let suspects: Vec<Suspect> =
        weighed.into_iter().map(|(w, s)| Suspect { share: Share::new(w / whole), ..s }).collect();
    let test = telling::test(&suspects, bake.as_ref(), asked.record.cut_width());
    Ok(Causes {
        suspects,
        another: Share::new(another / whole),
        forecast: bake.as_ref().map(|b| told(b.without.spread)),
        came_out: came_out.map(|s| told(s.value())),
        test,
    })
}

#[cfg(test)]
mod tests;
