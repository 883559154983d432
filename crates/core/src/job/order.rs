//! What is wanted and how it is to be made.

use super::{ColdPlace, Making};
use crate::dough::{MixMethod, Tint};
use crate::error::{Checks, InputError, InputErrors};
use crate::finish::{Coat, MOST_COATS};
use crate::geometry::Placement;
use crate::oven::{BakeEnd, BakeSetting, START_C, TrayLiner};
use crate::shape::{
    BenchSurface, MOST_SEARCHED, MOST_SHEETS_MEASURED, RollingRules, SHEET_MM, SheetKind, SheetReadings, Spacing,
    Turning,
};
use crate::units::{Length, Span, Temperature};
use chrono::{Days, NaiveDateTime};

/// In which form the dough is chilled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ChillForm {
    /// Pressed to a disc, wrapped, rolled after the chill.
    Disc {
        /// As pressed.
        thickness: Length,
    },
    /// Rolled first between papers, the sheets chilled on trays.
    Sheets,
}

/// Raw values of a job, units in the names; the only door to [`Job`].
#[derive(Debug, Clone, PartialEq)]
pub struct JobInput {
    /// Its name.
    pub name: String,
    /// Pieces wanted.
    pub pieces: u32,
    /// Rolled to, mm.
    pub thickness_mm: f64,
    /// Wanted at, local time.
    pub ready_by: NaiveDateTime,
    /// How the dough is mixed.
    pub method: MixMethod,
    /// Dough out of the mixer as measured, degC; computed when absent.
    pub dough_c: Option<f64>,
    /// Whether it chills as discs (else as sheets).
    pub chill_as_disc: bool,
    /// Discs pressed to, mm.
    pub disc_mm: f64,
    /// Where the dough chills.
    pub chill_place: ColdPlace,
    /// Where the cut pieces chill.
    pub tray_chill_place: ColdPlace,
    /// Least gap between cuts, mm.
    pub web_mm: f64,
    /// Rim kept free, mm.
    pub edge_mm: f64,
    /// Rolled on.
    pub surface: BenchSurface,
    /// Re-rolls allowed.
    pub rerolls: u32,
    /// Dough kept back, %.
    pub reserve_percent: f64,
    /// Oven set to, degC.
    pub oven_c: f64,
    /// Of the pieces, kept as dough in the freezer.
    pub freeze_pieces: u32,
    /// Flour kept aside to be added by feel, % of it.
    pub hold_back_percent: f64,
    /// Whether eggs are used whole.
    pub whole_eggs: bool,
    /// Portions that are coloured: name and % of the dough.
    pub tints: Vec<(String, f64)>,
    /// How the cutter may be turned on the sheet.
    pub turning: Turning,
    /// A layout of the cutter on one sheet that was kept from nesting; empty when rows are used.
    pub layout: Vec<Placement>,
    /// How a hand has laid the pieces on a tray; empty when rows are used.
    pub tray_layout: Vec<Placement>,
    /// Thickness read on its sheets, in the order of the sheets.
    pub measured: Vec<SheetReadings>,
    /// How its pieces are made.
    pub making: Making,
    /// What ends its bake.
    pub bake_end: BakeEnd,
    /// What lies between tray and piece.
    pub liner: TrayLiner,
    /// The dough rests at least so long for its flour, min; as long as its method usually rests when absent.
    pub flour_rest_min: Option<f64>,
    /// The pieces as they go into the oven as measured, degC; as their chill leaves them when absent.
    pub goes_in_c: Option<f64>,
    /// What goes onto or between the pieces, at most four.
    pub finishes: Vec<Coat>,
    /// What form it is rolled to.
    pub sheet: SheetKind,
    /// A sheet no wider than this, mm: paper, the pin, or what one person rolls before it goes soft. The tray's width when
    /// absent.
    pub sheet_width_mm: Option<f64>,
    /// A sheet no longer than this, mm. The tray's length when absent.
    pub sheet_length_mm: Option<f64>,
}

/// A job whose values were checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Job {
    input: JobInput,
    spacing: Spacing,
    rolling: RollingRules,
    tints: Vec<Tint>,
}

impl Job {
    /// Whether a bake at a moment is the job's own, after which it keeps its formula: from the day before it is wanted. Earlier ones
    /// are trials. Our own choice.
    #[must_use]
    pub fn is_own_bake(&self, at: NaiveDateTime) -> bool {
        at.date() + Days::new(1) >= self.input.ready_by.date()
    }

    /// Checks all values and reports all faults at once.
    pub fn new(input: JobInput) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", &input.name, 80, "a name");
        checks.range("pieces", f64::from(input.pieces), 1.0, 20_000.0, "pieces");
        checks.range("thickness_mm", input.thickness_mm, 2.0, 25.0, "mm");
        checks.range("disc_mm", input.disc_mm, 8.0, 80.0, "mm");
        if let Some(dough_c) = input.dough_c {
            checks.range("dough_c", dough_c, -5.0, 35.0, "\u{b0}C");
        }
        if let Some(rest) = input.flour_rest_min {
            checks.range("flour_rest_min", rest, 0.0, 720.0, "min");
        }
        if let Some(goes_in_c) = input.goes_in_c {
            checks.range("goes_in_c", goes_in_c, *START_C.start(), *START_C.end(), "\u{b0}C");
        }
        checks.range("hold_back_percent", input.hold_back_percent, 0.0, 20.0, "% of the flour");
        if input.pieces > 0 {
            let most = f64::from(input.pieces - 1);
            checks.range(
                "freeze_pieces",
                f64::from(input.freeze_pieces),
                0.0,
                most,
                "pieces, since at least one is baked",
            );
        }
        let _ =
            input.making.clone().checked().map_err(|faults| faults.all().iter().cloned().for_each(|e| checks.push(e)));
        for (field, value) in [("sheet_width_mm", input.sheet_width_mm), ("sheet_length_mm", input.sheet_length_mm)] {
            if let Some(mm) = value {
                checks.range(field, mm, SHEET_MM.0, SHEET_MM.1, "mm");
            }
        }
        checks.limit("finishes", input.finishes.len(), MOST_COATS, "finishes");
        for (i, coat) in input.finishes.iter().enumerate() {
            checks.take(&format!("finishes[{i}]"), coat.checked());
        }
        checks.limit("measured", input.measured.len(), MOST_SHEETS_MEASURED, "sheets");
        checks.limit("layout", input.layout.len(), MOST_SEARCHED, "pieces");
        let on_sheet = |p: &Placement| {
            [p.x_mm, p.y_mm].iter().all(|v| (0.0..=SHEET_MM.1).contains(v)) && (-720.0..=720.0).contains(&p.turn_deg)
        };
        checks.limit("tray_layout", input.tray_layout.len(), MOST_SEARCHED, "pieces");
        for (field, pieces) in [("layout", &input.layout), ("tray_layout", &input.tray_layout)] {
            if let Some(at) = pieces.iter().position(|p| !on_sheet(p)) {
                checks.push(InputError::refused(format!("{field}[{at}]"), "not a place on any sheet"));
            }
        }
        let mut keep = |faults: InputErrors| faults.all().iter().cloned().for_each(|e| checks.push(e));
        let spacing = Spacing::new(input.web_mm, input.edge_mm).map_err(&mut keep).ok();
        let rolling = RollingRules::new(input.rerolls, input.surface, input.reserve_percent).map_err(&mut keep).ok();
        let tints = Tint::list(&input.tints).map_err(&mut keep).ok();
        // The fan is the kitchen's; the range of the setting is the same with or without.
        let _ = BakeSetting::new(input.oven_c, false).map_err(&mut keep);
        checks.finish(())?;
        Ok(Self {
            spacing: spacing.expect("checked"),
            rolling: rolling.expect("checked"),
            tints: tints.expect("checked"),
            input,
        })
    }

    /// The values as given.
    #[must_use]
    pub fn input(&self) -> &JobInput {
        &self.input
    }

    /// Pieces that are baked this time.
    #[must_use]
    pub fn baked_pieces(&self) -> u32 {
        self.input.pieces - self.input.freeze_pieces
    }

    /// Portions that are coloured.
    #[must_use]
    pub fn tints(&self) -> &[Tint] {
        &self.tints
    }

    /// The thickness of the sheet its pieces are cut from; nothing where they are sliced or portioned. Cut lots of one dough
    /// and one such thickness may share a sheet.
    #[must_use]
    pub fn sheet_thickness(&self) -> Option<Length> {
        (self.input.making == Making::Cut).then(|| self.thickness())
    }

    /// Rolled to.
    #[must_use]
    pub fn thickness(&self) -> Length {
        Length::new_mm(self.input.thickness_mm)
    }

    /// How the dough chills.
    #[must_use]
    pub fn chill_form(&self) -> ChillForm {
        if self.input.chill_as_disc {
            ChillForm::Disc { thickness: Length::new_mm(self.input.disc_mm) }
        } else {
            ChillForm::Sheets
        }
    }

    /// Dough out of the mixer as measured.
    #[must_use]
    pub fn measured_dough(&self) -> Option<Temperature> {
        self.input.dough_c.map(Temperature::new_c)
    }

    /// How long the dough rests at least for its flour, whatever its temperature.
    #[must_use]
    pub fn flour_rest(&self) -> Span {
        self.input.flour_rest_min.map_or_else(|| self.input.method.flour_rests(), Span::new_min)
    }

    /// The pieces as they go into the oven as measured.
    #[must_use]
    pub fn measured_pieces(&self) -> Option<Temperature> {
        self.input.goes_in_c.map(Temperature::new_c)
    }

    /// Web and rim.
    #[must_use]
    pub fn spacing(&self) -> Spacing {
        self.spacing
    }

    /// Re-rolls, surface and reserve.
    #[must_use]
    pub fn rolling(&self) -> RollingRules {
        self.rolling
    }
}
