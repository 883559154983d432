//! Sheets and cutters, logs and patterned bars: how the pieces lie, what a mass of dough yields, and how they fill the trays.

mod demand;
mod evenness;
mod lattice;
mod layout;
mod log;
mod mixed;
mod nest;
mod pattern;
mod portion;
mod profile;
mod round_sheets;
mod rows;
mod sheet;
mod spacing;
mod template;
mod tray;

pub use demand::{BenchSurface, Demand, DemandAnswer, OblongSheets, Roll, RollingRules, Sheets, demand_to_dough};
pub use evenness::{
    Evenness, MOST_READINGS_A_SIDE, MOST_SHEETS_MEASURED, ReadingsInput, SheetReadings, SpotIs, judge_evenness,
};
pub use lattice::LatticeTable;
pub use layout::Layout;
pub use log::{
    LAST_SLICE, LOG_TRIM, LONGEST_LOG_MM, Log, LogForm, LogGiven, LogKind, USUAL_LOG_ACROSS, USUAL_LONGEST_LOG,
    divide_batch, solve_log,
};
pub use mixed::{MOST_MIXED_SHEETS, MixedFault, MixedShare, MixedSheet, share_of_mixed};
pub use nest::{
    KeptFault, MOST_CUTTERS, MOST_SEARCHED, NestCutter, NestPiece, NestQuestion, Nested, Nester, PieceGaps,
    measure_layout,
};
pub use pattern::{Pattern, PatternKind, PatternPart, PatternPiece, Patterned, USUAL_BAR, WhichDough, build_pattern};
pub(crate) use portion::CRESCENT_RADIUS;
pub use portion::{Bent, Portion, PortionKind, Portioned, Spoon, bent_extent, pan_area, portion_out};
pub use round_sheets::RoundSheets;
pub use sheet::{SHEET_MM, SheetForm, SheetKind};
pub use spacing::{Spacing, Turning, WEB_STEPS_MM};
pub use template::{CHECK_LINE, PAGE_FOOT, PAGE_OVERLAP, PRINT_MARGIN, Tile, tiles};
pub use tray::{ONE_CLASS, TrayAnswer, TrayRules, fill_trays, tray_sources, trays_in_place, trays_of_squares};
