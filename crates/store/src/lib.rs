//! The bakery's memory: one SQLite file. Rows become core values here and nowhere else.
//!
//! Every change is one transaction that also notes what stood before and after, so that it can be undone and done
//! again in order, across restarts. The file is opened with a write-ahead log, foreign keys, and `synchronous=FULL`: what was
//! answered as saved is on the disk.

mod archive;
mod archive_cells;
mod book;
mod cold;
mod connected;
mod devices;
mod document;
mod edits;
mod error;
mod found;
mod from_row;
mod header;
mod in_pieces;
mod keeping;
mod learnt;
mod lock;
mod older;
mod packed;
mod records;
mod row;
mod rows;
mod rows_dough;
mod runs;
mod schema;
mod shelf;
mod source;
mod store;
mod tables;
mod things;
mod tries;
mod writing;

pub use archive::{CARRIED, export_file, import};
pub use book::{BookPage, BookRecord, BookWanted};
pub use devices::{DeviceId, Role, StoredDevice};
pub use edits::{EditSummary, History};
pub use error::StoreError;
pub use found::{JobPage, JobsWanted};
pub use in_pieces::InPieces;
pub use keeping::{Backup, Backups, Checked, Taken, Why, back_up_file, check_file, remove_left_over, restore};
pub use lock::Lock;
pub use store::Store;
pub use things::{
    AsBaked, ChillId, CutterId, FormulaId, FormulaVersion, JobId, MixNoteId, Moved, NewChill, NewMixNote, NewRecord,
    NewRun, NewTry, PantryId, RecordId, RecordPhoto, RunId, StoredChill, StoredCutter, StoredEntry, StoredFormula,
    StoredJob, StoredKnowledge, StoredMixNote, StoredReading, StoredRecord, StoredRun, StoredStay, StoredTouch,
    StoredTry, TryId,
};
pub use writing::Writing;
