//! Sheets from which the pieces of several lots of one dough are cut together.

use super::demand::{DemandAnswer, LOST_A_ROLL, Roll, RollingRules};
use super::layout::{Layout, least_gap};
use super::nest::{NestCutter, NestPiece, NestQuestion, measure_layout};
use super::sheet::SheetForm;
use super::spacing::Spacing;
use crate::units::{Area, Density, Length, Mass, Share};

/// More sheets than this are not laid together. Our own choice: a day's work.
pub const MOST_MIXED_SHEETS: usize = 40;

/// A sheet with the pieces of several lots.
#[derive(Debug, Clone, PartialEq)]
pub struct MixedSheet {
    /// Its length; it is as wide as all the others.
    pub length: Length,
    /// What is cut from it, in the order of cutting.
    pub pieces: Vec<NestPiece>,
}

/// What one lot has of such sheets.
#[derive(Debug, Clone, PartialEq)]
pub struct MixedShare {
    /// Its pieces, all that it wants.
    pub pieces: u32,
    /// Of all that is cut, by area.
    pub share: Share,
    /// Of every sheet.
    width: Length,
    /// Of all sheets together.
    area: Area,
    sheets: Vec<(Length, Area, Layout, u32)>,
}

/// Why sheets kept for several lots are not used.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum MixedFault {
    /// A sheet, from 1, is longer than the tray.
    LongerThanTheTray(usize),
    /// A cutter no longer fits a sheet, from 1.
    CutterTooLarge(usize),
    /// Pieces lie nearer than the web or reach into the rim.
    TooNear {
        /// From 1.
        sheet: usize,
        /// How many.
        pieces: usize,
    },
    /// They hold another count than a lot wants.
    OtherCount {
        /// There are.
        held: u32,
        /// It wants.
        wanted: u32,
    },
    /// A lot they hold is gone.
    LotGone,
    /// A lot of that name is not of the same dough and thickness any longer.
    NotAlike(String),
}

/// What the lot numbered `lot` has of sheets that hold all that is wanted of all lots.
///
/// Fails with the reason when a sheet is longer than `longest`, when pieces lie too near each other or the rim, or when
/// they are not what is wanted.
pub fn share_of_mixed(
    lots: &[NestCutter],
    (width, longest): (Length, Length),
    spacing: Spacing,
    sheets: &[MixedSheet],
    lot: usize,
) -> Result<MixedShare, MixedFault> {
    let mut counts = vec![0_u32; lots.len()];
    let mut own_sheets = Vec::new();
    let mut area = 0.0;
    for (i, sheet) in sheets.iter().enumerate() {
        let number = i + 1;
        if sheet.length.mm() > longest.mm() + 0.5 {
            return Err(MixedFault::LongerThanTheTray(number));
        }
        let form =
            SheetForm::oblong(width.mm(), sheet.length.mm(), 0.0).map_err(|_| MixedFault::CutterTooLarge(number))?;
        let on_it: Vec<NestCutter> = lots.iter().map(|l| NestCutter { wanted: Some(0), ..l.clone() }).collect();
        let question = NestQuestion::new(on_it, form, spacing).map_err(|_| MixedFault::CutterTooLarge(number))?;
        let bad = measure_layout(&question, &sheet.pieces).iter().filter(|g| !g.is_sound()).count();
        if bad > 0 {
            return Err(MixedFault::TooNear { sheet: number, pieces: bad });
        }
        for piece in &sheet.pieces {
            counts[piece.cutter] += 1;
        }
        let own: Vec<_> = sheet.pieces.iter().filter(|p| p.cutter == lot).map(|p| p.at).collect();
        let sheet_area = Area::new_mm2(width.mm() * sheet.length.mm());
        area += sheet_area.mm2();
        if !own.is_empty() {
            let layout = Layout {
                least_gap: least_gap(&lots[lot].outline, &own),
                pieces: own.clone(),
                length: sheet.length,
                nested: true,
            };
            own_sheets.push((sheet.length, sheet_area, layout, u32::try_from(own.len()).unwrap_or(u32::MAX)));
        }
    }
    if let Some(at) = (0..lots.len()).find(|&i| Some(counts[i]) != lots[i].wanted) {
        let wanted = lots[at].wanted.unwrap_or(0);
        return Err(MixedFault::OtherCount { held: counts[at], wanted });
    }
    let cut = |i: usize| f64::from(counts[i]) * lots[i].outline.area().mm2();
    let all: f64 = (0..lots.len()).map(cut).sum();
    Ok(MixedShare {
        pieces: counts[lot],
        share: Share::new(cut(lot) / all.max(1e-9)),
        width,
        area: Area::new_mm2(area),
        sheets: own_sheets,
    })
}

impl MixedShare {
    /// The dough for the lot's share of the sheets. The scrap is not counted on: it is left over.
    #[must_use]
    pub fn demand(
        &self,
        piece: Mass,
        thickness: Length,
        density: Density,
        rules: RollingRules,
        mix_limit: Mass,
    ) -> DemandAnswer {
        let rolled = self.area.mass_at(thickness, density) * self.share.value();
        let dough = Mass::new_g((rolled.g() * (1.0 + rules.reserve().value())).ceil());
        let lost = rolled * LOST_A_ROLL;
        let mixes = crate::dough::mixes_of(dough, mix_limit);
        let rolls = self.sheets.iter().map(|(length, area, layout, pieces)| Roll {
            number: 0,
            sheets: 1,
            form: SheetForm::Oblong { width: self.width, length: *length, corner: Length::new_mm(0.0) },
            mass: area.mass_at(thickness, density),
            layout: layout.clone(),
            pieces: *pieces,
        });
        DemandAnswer {
            dough,
            reserve: dough - rolled,
            mixes,
            rolls: rolls.collect(),
            left: rolled - piece * f64::from(self.pieces) - lost,
            lost,
            flour_taken_up: Share::new(0.0),
            from_second_reroll: 0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind, Placement};
    use crate::shape::{BenchSurface, Turning};

    fn lot(across: f64, wanted: u32) -> NestCutter {
        let outline = Builtin::new(BuiltinKind::Square, across, 0.0).unwrap().outline().unwrap();
        NestCutter { outline, turning: Turning::Fixed, wanted: Some(wanted) }
    }

    fn at(cutter: usize, x_mm: f64, y_mm: f64) -> NestPiece {
        NestPiece { cutter, at: Placement { x_mm, y_mm, turn_deg: 0.0 } }
    }

    fn mm(v: f64) -> Length {
        Length::new_mm(v)
    }

    #[test]
    fn the_dough_of_a_mixed_sheet_is_divided_by_what_is_cut() {
        let lots = [lot(60.0, 1), lot(30.0, 2)];
        let sheet =
            MixedSheet { length: mm(100.0), pieces: vec![at(0, 40.0, 40.0), at(1, 90.0, 30.0), at(1, 90.0, 70.0)] };
        let spacing = Spacing::new(3.0, 4.0).unwrap();
        let share = |lot| share_of_mixed(&lots, (mm(120.0), mm(440.0)), spacing, std::slice::from_ref(&sheet), lot);
        // By hand: 3600 mm2 against 2 x 900 mm2; 120 x 100 x 6 mm at 1.2 g/mL are 86.4 g.
        let (large, small) = (share(0).unwrap(), share(1).unwrap());
        assert!((large.share.value() - 2.0 / 3.0).abs() < 1e-9 && (small.share.value() - 1.0 / 3.0).abs() < 1e-9);
        let rules = RollingRules::new(0, BenchSurface::BetweenPapers, 0.0).unwrap();
        let dough = |s: &MixedShare, piece: f64| {
            s.demand(Mass::new_g(piece), mm(6.0), Density::new_kg_m3(1200.0), rules, Mass::new_g(1000.0))
        };
        let (a, b) = (dough(&large, 25.92), dough(&small, 6.48));
        assert_eq!((a.dough.g(), b.dough.g()), (58.0, 29.0));
        assert_eq!(b.rolls[0].pieces, 2);
        for (answer, piece, n) in [(a, 25.92, 1.0), (b, 6.48, 2.0)] {
            let all = piece * n + answer.left.g() + answer.lost.g() + answer.reserve.g();
            assert!((answer.dough.g() - all).abs() < 1e-9);
        }
    }

    #[test]
    fn sheets_that_no_longer_hold_what_is_wanted_say_why() {
        let spacing = Spacing::new(3.0, 4.0).unwrap();
        let fault = |lots: &[NestCutter], length: f64, pieces: Vec<NestPiece>| {
            let sheet = MixedSheet { length: mm(length), pieces };
            share_of_mixed(lots, (mm(120.0), mm(440.0)), spacing, &[sheet], 0).unwrap_err()
        };
        assert_eq!(
            fault(&[lot(60.0, 2)], 100.0, vec![at(0, 40.0, 40.0)]),
            MixedFault::OtherCount { held: 1, wanted: 2 }
        );
        assert_eq!(fault(&[lot(60.0, 1)], 500.0, vec![at(0, 40.0, 40.0)]), MixedFault::LongerThanTheTray(1));
        let near = vec![at(0, 40.0, 40.0), at(1, 86.0, 40.0)];
        assert!(matches!(fault(&[lot(60.0, 1), lot(30.0, 1)], 100.0, near), MixedFault::TooNear { .. }));
    }
}
