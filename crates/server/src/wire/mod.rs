//! What travels: JSON with units in the names. Each file turns core values into it and back; nothing is computed here.

mod bake;
mod compute;
mod compute_bake;
mod cutter;
mod even;
mod file;
mod finish;
mod formula;
mod job;
mod kitchen;
mod live;
mod log;
mod making;
mod mixing;
mod nest;
mod oven;
mod pantry;
mod physics;
mod plan;
mod portion;
mod recipe;
mod record;
mod sentence;
mod together;
mod unit;
mod wanted;
mod ways;
mod words;

pub use bake::{
    BakeView, BakesTeachView, BandView, CoolingView, LeverView, LeversDone, PartsAheadView, TaughtView, TrayTimesView,
};
pub use compute::{ChillRequest, ChillResult, SheetRequest, SheetResult};
pub use compute_bake::{BakeRequest, BakeResult};
pub use cutter::{CutterView, NewCutter, PhotoQuery, PhotoView, ring};
pub use even::{EvenQuery, EvenView};
pub use file::{CutterInFile, JobFile, OwnInFile, RecordInFile};
pub use finish::{FinishBody, FinishView};
pub use formula::{BesideView, FormulaBody, FormulaView, LineBody, PulledView, VersionView};
pub use job::{JobBody, JobView, LotBody, MixedSheetBody, job_word};
pub use kitchen::{KitchenView, kitchen_word};
pub use live::{
    KeptReading, LiveView, MoveBody, NowView, ProbeBody, PutInBody, ReadingBody, ReadingsTaken, as_read, elapsed,
    written,
};
pub use log::{LogQuery, LogView, PatternQuery, PatternView};
pub use mixing::{CorrectionView, LabelView, MixNoteView, MixingView, PartView, SizeRequest, SizedView};
pub use nest::{
    GapsView, LotWanted, MeasureBody, NestBeat, NestBody, NestDone, NestView, OnSheet, SheetChoiceView, TemplateQuery,
};
pub use oven::{HotSpotsView, OvenReadBody, OvenTestBody, OvenTestView, ThermometerQuery};
pub use pantry::{IngredientBody, IngredientView, PriceBody};
pub use physics::PhysicsView;
pub use plan::PlanView;
pub use portion::{FirmView, PortionQuery, PortionView};
pub use ready_slab_core::clock::MINUTE_FORMAT;
pub use recipe::{ReadRequest, ReadingView};
pub use record::{ConditionsBody, RecordBody, RecordView};
pub use sentence::{FigureView, PartOfSentence, SentenceView, say, say_all};
pub use together::{LotView, TogetherView};
pub use unit::{ParseRequest, ParseResult, UnitView};
pub use wanted::{WantedQuery, WantedView};
pub use ways::{
    AdviceQuery, AdviceView, PlaceUseBody, PlaceView, SectionView, TouchBody, TouchesView, WayView, WaysQuery,
};
pub use words::{PurposeWord, UseWord};
