//! What travels: JSON with units in the names. Each file turns core values into it and back; nothing is computed here.

mod compute;
mod cutter;
mod file;
mod formula;
mod job;
mod kitchen;
mod plan;
mod record;
mod unit;
mod words;

pub use compute::{ChillRequest, ChillResult, SheetRequest, SheetResult};
pub use cutter::{CutterView, NewCutter};
pub use file::{CutterInFile, JobFile, RecordInFile};
pub use formula::{FormulaBody, FormulaView, IngredientView, LineBody};
pub use job::{JobBody, JobView, job_word};
pub use kitchen::{KitchenBody, kitchen_word};
pub use plan::PlanView;
pub use record::{RecordBody, RecordView};
pub use unit::{ParseRequest, ParseResult, UnitView};
pub use words::{BuiltinWord, EdgeWord, FatWord, MethodWord, PlaceWord, SurfaceWord, TrayWord, WrapWord};
