//! What the stations answer for one job.

use crate::clock::{Relay, RelayLot, Step, Zone};
use crate::cold::ColdPlace;
use crate::cold::{ChillAnswer, ChillQuestion, Feeling, Piece, Sample, Target, Window};
use crate::dough;
use crate::dough::{BakersLine, Composition, Keeping, MixPlan, Ratio, Standing};
use crate::finish::{BakedKeeping, CoatPlan, FinishedPiece, Packing, SpiritLeft};
use crate::job::oven::bake::BakeQuestion;
use crate::job::oven::bake::Cooling;
use crate::job::reasons::reason::Reason;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::chill_choice::Thaw;
use crate::job::settings::job::Job;
use crate::oven::{BakeForecast, Expected, LookFor};
use crate::safety::Caution;
use crate::shape::{DemandAnswer, TrayAnswer};
use crate::units::{Density, Length, Mass, Share, Span, Temperature};
use chrono::NaiveDateTime;

/// What a part of the dough is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PartUse {
    /// This job's pieces, baked now.
    Bake,
    /// This job's pieces, kept as dough in the freezer.
    Freeze,
    /// Another job that is mixed with this one.
    OtherJob,
}

/// A part of the dough that is mixed.
#[derive(Debug, Clone, PartialEq)]
pub struct DoughPart {
    /// What it is for.
    pub part_use: PartUse,
    /// Name of the job; empty for the freezer.
    pub name: String,
    /// Pieces.
    pub pieces: u32,
    /// Dough, reserve included.
    pub dough: Mass,
}

/// The dough station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct DoughPlan {
    /// Dough to mix in all: reserve, freezer and other jobs included.
    pub dough: Mass,
    /// What of it is for what.
    pub parts: Vec<DoughPart>,
    /// Of one piece as cut.
    pub piece: Mass,
    /// With its air.
    pub density: Density,
    /// The mixes.
    pub mixes: MixPlan,
    /// Over the flour.
    pub bakers: Vec<BakersLine>,
    /// Butter : sugar : flour.
    pub ratio: Ratio,
    /// Where it stands among the doughs that practitioners know.
    pub standing: Standing,
    /// What it is made of.
    pub composition: Composition,
    /// Out of the mixer.
    pub temperature: Temperature,
    /// Whether that was measured rather than computed.
    pub temperature_measured: bool,
    /// Names of allergens.
    pub allergens: Vec<String>,
    /// Dough that could be made when more is on hand than this job needs: what the mixer takes at once.
    pub mix_limit: Mass,
    /// What to mind.
    pub warnings: Vec<dough::Reason>,
    /// Why these figures.
    pub reasons: Vec<Reason>,
}

/// What goes into the cold.
#[derive(Debug, Clone, PartialEq)]
pub struct FormSize {
    /// The piece.
    pub piece: Piece,
    /// How many.
    pub count: u32,
    /// Dough in each.
    pub mass: Mass,
}

/// The cut pieces' chill before the oven.
#[derive(Debug, Clone)]
pub struct TrayChill {
    /// Where.
    pub place: ColdPlace,
    /// Taken to be as warm as this when it goes in.
    pub start: Temperature,
    /// How long it stays.
    pub stays: ChillFor,
    /// At least so long, min; overnight as long as the clock makes it.
    pub least_min: i64,
    /// As it comes out.
    pub out: Sample,
    /// Ready, with the band.
    pub answer: ChillAnswer,
    /// What it was asked.
    pub question: ChillQuestion,
}

/// The cold station's answer.
#[derive(Debug, Clone)]
pub struct ColdPlan {
    /// What goes in.
    pub form: FormSize,
    /// Where.
    pub place: ColdPlace,
    /// Its air.
    pub air: Temperature,
    /// How long it stays.
    pub stays: ChillFor,
    /// As it comes out: as it left the bowl where it is not chilled.
    pub out: Sample,
    /// How it feels then, for its purpose.
    pub feels: Feeling,
    /// The run.
    pub answer: ChillAnswer,
    /// Working temperatures of this dough.
    pub window: Window,
    /// What it is chilled for first.
    pub target: Target,
    /// What the run was asked.
    pub question: ChillQuestion,
    /// On the bench after a night in the cold, until it can be worked; `None` where the room never gets it there.
    pub tempering_after_night: Option<Span>,
    /// The sheet, the log or a portion on the bench, from just ready until too warm for its purpose.
    pub bench: Option<Span>,
    /// The same when it comes as cold as it may: the longest it can be.
    pub bench_longest: Option<Span>,
    /// Cut pieces on their tray; nothing where pieces are sliced or portioned and go into the oven as they are.
    pub tray_chill: Option<TrayChill>,
    /// It rests at least so long for its flour.
    pub flour_rest: Span,
    /// How long the raw dough keeps.
    pub keeping: Keeping,
    /// The dough of logs as a lump, before that; nothing where they are formed at once.
    pub bulk: Option<BulkChill>,
    /// How the dough thaws; nothing where it is fresh.
    pub thaw: Option<Thawing>,
    /// What the recipe says of its chill, beside it.
    pub recipe: Option<Reason>,
    /// What it means that the dough, and that the pieces, stay as long as they do.
    pub means: (Vec<Reason>, Vec<Reason>),
    /// Why.
    pub reasons: Vec<Reason>,
}

/// The shape station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapePlan {
    /// Rolls, scrap, reserve.
    pub demand: DemandAnswer,
    /// Whether rods of that height are owned (else 'by eye').
    pub rods_owned: bool,
    /// The pieces on trays.
    pub trays: TrayAnswer,
    /// Why.
    pub reasons: Vec<Reason>,
}

/// The oven station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenPlan {
    /// Set to.
    pub oven: Temperature,
    /// Times and spread with their bands: the forecast's, or those of common practice where there is none.
    pub expected: Expected,
    /// What they rest on.
    pub reasons: Vec<Reason>,
    /// What to mind.
    pub warnings: Vec<Reason>,
    /// What the forecast was asked.
    pub question: BakeQuestion,
    /// The forecast; none beyond what the model knows.
    pub forecast: Option<BakeForecast>,
    /// The piece's longer side as cut.
    pub width: Length,
    /// Its height as it goes in.
    pub thickness: Length,
    /// Outward growth at the rim, least and most.
    pub growth: (Length, Length),
    /// The outline after the most growth.
    pub baked_outline: Vec<(f64, f64)>,
    /// What is left of its holes then.
    pub baked_holes: Vec<Vec<(f64, f64)>>,
    /// What to look for at its end; of a cocoa dough the dull middle, whatever colour was asked.
    pub look_for: LookFor,
    /// Whether cocoa hides what colour would tell.
    pub hides_colour: bool,
    /// How a piece cools once it is out.
    pub cooling: Cooling,
    /// What to turn or swap half way; nothing in an oven that is even, or that nobody has tried.
    pub turn: Vec<Reason>,
    /// Until all but a seventh of what the door cost is back: twice the time constant.
    pub comes_back: Span,
    /// Whether a covered pot stands in for the oven.
    pub cover_pot: bool,
    /// What the recipe says of its bake, beside the one figure.
    pub recipe: Option<Reason>,
}

impl OvenPlan {
    /// The longer side after baking with the least and the most spread.
    #[must_use]
    pub fn baked_width(&self) -> (Length, Length) {
        (self.width + self.growth.0 * 2.0, self.width + self.growth.1 * 2.0)
    }

    /// Growth across the longer side, of its width as cut: what a calliper would find.
    #[must_use]
    pub fn spread_across(&self) -> (Share, Share) {
        let of = |grown: Length| Share::new(grown * 2.0 / self.width);
        (of(self.growth.0), of(self.growth.1))
    }

    /// The growth across this piece's longer side over that of a round of its dough: it happens at the rim.
    #[must_use]
    pub fn of_a_round(&self) -> f64 {
        self.question.piece.radius * 2.0 / self.width
    }
}

/// A lot's finish.
#[derive(Debug, Clone, PartialEq)]
pub struct FinishPlan {
    /// A piece as it is finished.
    pub piece: FinishedPiece,
    /// What each finish takes.
    pub coats: Vec<CoatPlan>,
    /// How long they keep.
    pub keeping: BakedKeeping,
    /// How they are stacked and packed.
    pub packing: Packing,
    /// What is left of the dough's alcohol in a piece; nothing of a dough without any.
    pub spirit: Option<SpiritLeft>,
}

/// The dough of logs in the cold as a lump, before they are formed.
#[derive(Debug, Clone)]
pub struct BulkChill {
    /// The lump.
    pub piece: Piece,
    /// Where.
    pub place: ColdPlace,
    /// How long.
    pub stays: ChillFor,
    /// At least so long, min.
    pub least_min: i64,
    /// On the bench after that, until it can be formed, min.
    pub rest_min: i64,
    /// As it comes out.
    pub out: Sample,
    /// As the logs are when they are formed.
    pub formed: Temperature,
    /// The forecast.
    pub answer: ChillAnswer,
}

/// Dough out of the freezer.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Thawing {
    /// How.
    pub way: Thaw,
    /// As warm as it is worked.
    pub at: Temperature,
    /// On the bench until then: from the freezer, or after its night in the fridge.
    pub span: Span,
}

/// What can still be done when the start has passed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WhenLate {
    /// Thaw the dough on the bench instead of overnight.
    ThawOnTheBench,
    /// Want it later.
    Later,
    /// Chill the dough in the freezer.
    InTheFreezer,
    /// Roll it first and chill it as sheets.
    AsSheets,
    /// Take a finish that dries sooner: sugar, chocolate, a thin glaze that is not packed yet.
    QuickerFinish,
}

/// The clock station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct ClockPlan {
    /// The relay, minutes relative to the wanted time.
    pub relay: Relay,
    /// Minutes the first mix waits in the cold, at least.
    pub chill_min: i64,
    /// What the relay was planned from.
    pub lot: RelayLot,
    /// Where its clocks are.
    pub zone: Zone,
    /// What is left to be done when the start has passed.
    pub when_late: Vec<WhenLate>,
    /// Why.
    pub reasons: Vec<Reason>,
}

/// All stations' answers.
#[derive(Debug, Clone)]
pub struct Plan {
    /// Dough.
    pub dough: DoughPlan,
    /// Cold.
    pub cold: ColdPlan,
    /// Shape.
    pub shape: ShapePlan,
    /// Oven.
    pub oven: OvenPlan,
    /// Finish and keeping.
    pub finish: FinishPlan,
    /// Clock.
    pub clock: ClockPlan,
    /// What to mind with raw dough, each once.
    pub cautions: Vec<Caution>,
}

impl Plan {
    /// What the kitchen's clock shows so many real minutes after the wanted time (before it when negative).
    #[must_use]
    pub fn at(&self, job: &Job, minutes_after: i64) -> NaiveDateTime {
        self.clock.zone.after(job.input().order.ready_by, minutes_after)
    }

    /// When the first mix can be worked, minutes after the wanted time.
    #[must_use]
    pub fn works_min(&self) -> i64 {
        let rest = self.clock.relay.tasks.iter().find(|t| t.step == Step::Rest && t.mix == Some(0));
        rest.map_or_else(|| self.chill_end_min(), |t| t.end_min)
    }

    /// The longest that dough rests on the bench in this timeline after it had to wait in the cold; zero when none does.
    #[must_use]
    pub fn longest_rest(&self) -> Span {
        let rests = self.clock.relay.tasks.iter().filter(|t| t.step == Step::Rest).map(|t| t.end_min - t.start_min);
        Span::new_min(f64::from(i32::try_from(rests.max().unwrap_or(0)).unwrap_or(i32::MAX)))
    }

    /// When the first mix goes into the cold, minutes after the wanted time.
    #[must_use]
    pub fn chill_start_min(&self) -> i64 {
        let tasks = &self.clock.relay.tasks;
        let first = tasks.iter().find(|t| matches!(t.step, Step::Chill | Step::Thaw));
        // What is not chilled would go in once it is mixed and formed.
        let formed = || tasks.iter().filter(|t| t.mix == Some(0) && matches!(t.step, Step::Mix | Step::Form));
        first.map_or_else(|| formed().map(|t| t.end_min).max().unwrap_or(0), |t| t.start_min)
    }

    /// When it comes out, minutes after the wanted time.
    #[must_use]
    pub fn chill_end_min(&self) -> i64 {
        let first = self.clock.relay.tasks.iter().find(|t| matches!(t.step, Step::Chill | Step::Thaw));
        first.map_or(self.chill_start_min(), |t| t.end_min)
    }
}
