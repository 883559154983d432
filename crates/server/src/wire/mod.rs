//! What travels: JSON with units in the names. Each file turns core values into it and back; nothing is computed here.

mod access;
mod backup;
mod bake;
mod bakes_even;
mod begin;
mod book;
mod book_file;
mod calendar;
mod causes;
mod compute;
mod compute_bake;
mod compute_schedule;
mod cutter;
mod day;
mod even;
mod file;
mod finish;
mod formula;
mod health;
mod job;
mod kitchen;
mod live;
mod log;
mod marbled;
mod mixing;
mod nest;
mod oven;
mod pantry;
mod photo;
mod physics;
mod plan;
mod portion;
mod recipe;
mod record;
mod run;
mod sentence;
mod together;
mod tries;
mod unit;
mod view;
mod wanted;
mod ways;
mod words;

pub use access::{
    AccessView, CodeBody, CodeView, DeviceName, DeviceView, PairBody, RoleWord, TokenView, device_name, grouped,
    in_letters,
};
pub use backup::{BackupsView, backup_name};
pub use bake::{
    BakeView, BakesTeachView, BandView, CoolingView, LeftOutBody, LeverView, LeversDone, MovedView, PartsAheadView,
    RestsOnView, TaughtView, TrayTimesView,
};
pub use bakes_even::{BakesEvenQuery, BakesEvenView, measured_trays};
pub use begin::{DoughWanted, NewJobBody, ShapeWanted, StarterView, capital};
pub use book::{BesideBakesView, BesideQuery, BookQuery, BookRecordView, BookView};
pub use book_file::{BookFormatQuery, CallipersView, ReadBackView, book_csv};
pub use calendar::DayFile;
pub use causes::{CausesQuery, CausesView, SeenView};
pub use compute::{ChillRequest, ChillResult, SheetRequest, SheetResult};
pub use compute_bake::{BakeRequest, BakeResult};
pub use compute_schedule::ScheduleResult;
pub use cutter::{CutterView, FormView, NewCutter, PhotoQuery, PhotoView, forms as cutter_forms, ring};
pub use day::{DateView, DayView};
pub use even::{EvenQuery, EvenView};
pub use file::{CutterInFile, JobFile, OwnInFile, RecordInFile};
pub use finish::FinishView;
pub use formula::{BesideView, FormulaView, PulledView, VersionView};
pub use health::HealthView;
pub use job::{DamagedView, JobView, JobsView};
pub use kitchen::{EquipBody, KitchenView};
pub use live::{
    KeptReading, LiveView, MoveBody, NowView, PutInBody, ReadingBody, ReadingsTaken, as_read, elapsed, written,
};
pub use log::{LogQuery, LogView, PatternQuery, PatternView};
pub use marbled::{MarbledQuery, MarbledView};
pub use mixing::{CorrectionView, LabelView, MixNoteView, MixingView, PartView, SizedView};
pub use nest::{
    GapsView, LotWanted, MeasureBody, NestBeat, NestBody, NestDone, NestView, OnSheet, SheetChoiceView, TemplateQuery,
};
pub use oven::{HotSpotsView, OvenTestBody, OvenTestView, ThermometerQuery};
pub use pantry::{IngredientView, PriceBody};
pub use photo::{BakePhotoQuery, BakePhotoView, MadeUpPhotoQuery, PhotoFoundView, photo_file};
pub use physics::PhysicsView;
pub use plan::PlanView;
pub use portion::{FirmView, PortionQuery, PortionView};
pub use ready_slab_core::clock::MINUTE_FORMAT;
pub use recipe::{ReadRequest, ReadingView};
pub use record::{RecordBody, RecordView};
pub use run::{EventBody, NewRunBody, RunClock, RunView, When};
pub use sentence::{FigureView, PartOfSentence, SentenceView, say, say_all, word};
pub use together::{LotView, TogetherView};
pub use tries::{NewTrialBody, TrialSizeQuery, TrialSizeView, TryView, trial_csv};
pub use unit::{ParseRequest, ParseResult, UnitView};
use view::view;
pub use wanted::{WantedQuery, WantedView};
pub use ways::{AdviceView, PlaceUseBody, PlaceView, SectionView, TouchBody, TouchesView, WayView, WaysQuery};
pub use words::{PurposeWord, UseWord};
