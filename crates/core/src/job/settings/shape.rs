//! The shape, as it is decided.

use crate::error::{Checks, InputError};
use crate::geometry::Placement;
use crate::job::settings::kept_sheet::{KeptSheet, check_kept, on_a_sheet};
use crate::job::settings::making::Making;
use crate::shape::{
    BenchSurface, MOST_SEARCHED, MOST_SHEETS_MEASURED, ReadingsInput, RollingRules, SHEET_MM, SheetKind, SheetReadings,
    Spacing, Turning,
};

room! {
    /// How dough becomes cookies.
    pub struct ShapeInput as JobShape {
        /// How its pieces are made.
        pub making: Making = Making::Cut,
        /// Rolled to, 2 to 25.
        #[schema(required)]
        pub thickness_mm: f64 = 6.0,
        /// What form its sheets are rolled to.
        pub sheet: SheetKind = SheetKind::Oblong,
        /// Sheets no wider than this, 40 to 1200; the tray's width when null.
        pub sheet_width_mm: Option<f64> = None,
        /// Sheets no longer than this, 40 to 1200; the tray's length when null.
        pub sheet_length_mm: Option<f64> = None,
        /// Least gap between cuts, 0.5 to 10.
        #[schema(required)]
        pub web_mm: f64 = 3.0,
        /// Rim kept free, 0 to 30.
        #[schema(required)]
        pub edge_mm: f64 = 4.0,
        /// How the cutter may be turned on the sheet; never over.
        pub turning: Turning = Turning::Free,
        /// Rolled on.
        #[schema(required)]
        pub surface: BenchSurface = BenchSurface::FlouredBoard,
        /// Re-rolls allowed, 0 to 2.
        #[schema(required)]
        pub rerolls: u32 = 2,
        /// Dough kept back, 0 to 25.
        #[schema(required)]
        pub reserve_percent: f64 = 3.0,
        /// Whether a rolled sheet is cut on the paper of its tray and the scraps lifted away: nothing is moved, the gaps are as wide as on the tray.
        pub cut_in_place: bool = false,
        /// Whether the pieces are pricked with a fork before the bake.
        pub pricked: bool = false,
        /// A layout of the cutter on one sheet kept from nesting, at most 400 pieces; rows are used when empty.
        pub layout: Vec<Placement> = vec![],
        /// How a hand has laid the pieces on a tray, at most 400; rows are used when empty.
        pub tray_layout: Vec<Placement> = vec![],
        /// Thickness read on its sheets, in the order of the sheets; at most 24.
        pub measured: Vec<ReadingsInput> = vec![],
        /// Sheets from which the pieces of several lots of one dough are cut together, at most 40; empty for none. Only a job
        /// that is no lot of another keeps any.
        pub mixed: Vec<KeptSheet> = vec![],
    }
}

impl ShapeInput {
    pub(crate) fn checked(&self, checks: &mut Checks) -> Option<(Spacing, RollingRules, Vec<SheetReadings>)> {
        checks.keep(self.making.clone().checked());
        checks.range("thickness_mm", self.thickness_mm, 2.0, 25.0, "mm");
        for (field, value) in [("sheet_width_mm", self.sheet_width_mm), ("sheet_length_mm", self.sheet_length_mm)] {
            if let Some(mm) = value {
                checks.range(field, mm, SHEET_MM.0, SHEET_MM.1, "mm");
            }
        }
        for (field, pieces) in [("layout", &self.layout), ("tray_layout", &self.tray_layout)] {
            checks.limit(field, pieces.len(), MOST_SEARCHED, "cookies");
            if let Some(at) = pieces.iter().position(|p| !on_a_sheet(p)) {
                checks.push(InputError::refused(format!("{field}[{at}]"), "not a place on any sheet"));
            }
        }
        check_kept(checks, &self.mixed);
        checks.limit("measured", self.measured.len(), MOST_SHEETS_MEASURED, "sheets");
        let read = self.measured.iter().enumerate();
        let measured: Option<Vec<SheetReadings>> =
            read.map(|(i, read)| checks.take(&format!("measured[{i}]"), read.checked())).collect();
        let spacing = checks.keep(Spacing::new(self.web_mm, self.edge_mm));
        let rolling = checks.keep(RollingRules::new(self.rerolls, self.surface, self.reserve_percent));
        Some((spacing?, rolling?, measured?))
    }
}
