//! From wanted pieces to the least dough: first roll, re-rolls, what is left, and the reserve.

use super::lattice::LatticeTable;
use super::layout::Layout;
use super::sheet::SheetForm;
use crate::dough::{mixes_of, within_mixes};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Area, Density, Length, Mass, Share};
use serde::{Deserialize, Serialize};

/// Dough lost to board and hands at each roll. Common practice, no source.
pub(super) const LOST_A_ROLL: f64 = 0.01;

/// What the dough is rolled on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BenchSurface {
    /// A lightly floured board.
    FlouredBoard,
    /// Between two papers or films.
    BetweenPapers,
}

impl BenchSurface {
    /// Flour the dough takes up at each roll, of its mass. Common practice, no source.
    #[must_use]
    pub const fn flour_taken_up(self) -> Share {
        Share::new(match self {
            Self::FlouredBoard => 0.007,
            Self::BetweenPapers => 0.002,
        })
    }
}

/// How the dough is rolled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RollingRules {
    rerolls: u32,
    surface: BenchSurface,
    reserve: Share,
}

impl RollingRules {
    /// At most `rerolls` (0 to 2) rolls of the scrap, and a reserve of 0 to 25 % of the dough.
    pub fn new(rerolls: u32, surface: BenchSurface, reserve_percent: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("rerolls", f64::from(rerolls), 0.0, 2.0, "re-rolls");
        checks.range("reserve_percent", reserve_percent, 0.0, 25.0, "%");
        checks.finish(())?;
        Ok(Self { rerolls, surface, reserve: Share::new(reserve_percent / 100.0) })
    }

    /// Dough kept back, of what is formed.
    #[must_use]
    pub fn reserve(&self) -> Share {
        self.reserve
    }
}

/// Sheets of one form in all sizes up to the largest, with the cuts on them.
pub trait Sheets {
    /// The largest.
    fn largest(&self) -> SheetForm;
    /// One of this area, or the largest.
    fn of_area(&self, area: Area) -> SheetForm;
    /// The most pieces one of these sheets holds.
    fn count(&self, form: &SheetForm) -> usize;
    /// The layout of the most pieces on one of these sheets.
    fn layout(&self, form: &SheetForm) -> Layout;
}

/// Oblong sheets of one width.
#[derive(Debug, Clone)]
pub struct OblongSheets {
    /// Layouts by length.
    pub table: LatticeTable,
    /// Of every sheet.
    pub width: Length,
    /// Of the longest.
    pub longest: Length,
}

impl Sheets for OblongSheets {
    fn largest(&self) -> SheetForm {
        SheetForm::Oblong { width: self.width, length: self.longest, corner: Length::new_mm(0.0) }
    }

    fn of_area(&self, area: Area) -> SheetForm {
        let length = Length::new_mm((area.mm2() / self.width.mm()).min(self.longest.mm()));
        SheetForm::Oblong { width: self.width, length, corner: Length::new_mm(0.0) }
    }

    fn count(&self, form: &SheetForm) -> usize {
        self.table.count(form.extent().1)
    }

    fn layout(&self, form: &SheetForm) -> Layout {
        self.table.layout(form.extent().1)
    }
}

/// What is wanted.
#[derive(Clone, Copy)]
pub struct Demand<'a> {
    /// The sheets it is cut from.
    pub sheets: &'a dyn Sheets,
    /// Mass of one piece as cut.
    pub piece: Mass,
    /// How many.
    pub pieces: u32,
    /// Rolled to.
    pub thickness: Length,
    /// Density of the dough.
    pub density: Density,
    /// Most dough in one mix.
    pub mix_limit: Mass,
    /// Re-rolls, surface, reserve.
    pub rules: RollingRules,
}

/// One time the dough goes under the pin.
#[derive(Debug, Clone, PartialEq)]
pub struct Roll {
    /// 0 the first roll, 1 and 2 re-rolls.
    pub number: u32,
    /// How many equal sheets.
    pub sheets: u32,
    /// Form and size of each.
    pub form: SheetForm,
    /// Dough in each.
    pub mass: Mass,
    /// The cuts on one sheet.
    pub layout: Layout,
    /// Pieces cut in this roll from all its sheets; the last sheet may not be used up.
    pub pieces: u32,
}

/// The least dough and what becomes of it.
#[derive(Debug, Clone, PartialEq)]
pub struct DemandAnswer {
    /// Dough to mix, the reserve included.
    pub dough: Mass,
    /// Of it, kept back unrolled.
    pub reserve: Mass,
    /// How many mixes it takes.
    pub mixes: u32,
    /// First roll and re-rolls.
    pub rolls: Vec<Roll>,
    /// Scrap after the last roll, to hand-shape or set aside.
    pub left: Mass,
    /// Lost to board and hands.
    pub lost: Mass,
    /// Bench flour taken up by the dough that was re-rolled last, over its mass.
    pub flour_taken_up: Share,
    /// Pieces cut from the second re-roll: tougher, and they may bubble.
    pub from_second_reroll: u32,
}

/// The masses on which yields are looked up. One fixed list for all demands, so that more pieces never need less dough.
fn next_mass_g(mass: f64) -> f64 {
    let step = match mass {
        m if m < 3_000.0 => 1.0,
        m if m < 30_000.0 => 10.0,
        m if m < 300_000.0 => 100.0,
        _ => 1000.0,
    };
    ((mass / step).floor() + 1.0) * step
}

struct Yield {
    mixes: u32,
    /// Sheets, form of each, mass of each, pieces on each.
    rolls: Vec<(u32, SheetForm, Mass, u32)>,
    left: f64,
    lost: f64,
}

impl Demand<'_> {
    fn sheets(&self, mass: f64, batches: u32) -> (u32, SheetForm, Mass, u32) {
        let area = Mass::new_g(mass / f64::from(batches)).rolled_to(self.thickness, self.density);
        let per_batch = whole((area / self.sheets.largest().area() - 1e-9).ceil().max(1.0));
        let sheets = batches.saturating_mul(per_batch);
        let form = self.sheets.of_area(area * (1.0 / f64::from(per_batch)));
        let count = u32::try_from(self.sheets.count(&form)).unwrap_or(u32::MAX);
        (sheets, form, Mass::new_g(mass / f64::from(sheets)), count)
    }

    /// What `dough` grams with the reserve in it yield.
    fn yields(&self, dough: f64) -> Yield {
        let mixes = mixes_of(Mass::new_g(dough), self.mix_limit);
        let mut mass = dough / (1.0 + self.rules.reserve.value());
        let mut found = Yield { mixes, rolls: Vec::with_capacity(3), left: mass, lost: 0.0 };
        let mut wanted = self.pieces;
        for number in 0..=self.rules.rerolls {
            if wanted == 0 {
                break;
            }
            let (sheets, form, each, count) = self.sheets(mass, if number == 0 { mixes } else { 1 });
            if count == 0 {
                break;
            }
            found.rolls.push((sheets, form, each, count));
            let cut = wanted.min(sheets.saturating_mul(count));
            wanted -= cut;
            let lost = mass * LOST_A_ROLL;
            found.lost += lost;
            found.left = (mass - f64::from(cut) * self.piece.g() - lost).max(0.0);
            mass = found.left * (1.0 + self.rules.surface.flour_taken_up().value());
        }
        found
    }

    fn enough(&self, found: &Yield) -> bool {
        found.rolls.iter().map(|(sheets, _, _, count)| u64::from(*sheets) * u64::from(*count)).sum::<u64>()
            >= u64::from(self.pieces)
    }
}

/// The least dough that yields all wanted pieces with the re-rolls allowed, plus the reserve.
///
/// Fails when it would take more mixes than a job may have.
pub fn demand_to_dough(demand: &Demand) -> Result<DemandAnswer, InputError> {
    let least = f64::from(demand.pieces) * demand.piece.g() * (1.0 + demand.rules.reserve.value());
    let mut dough = (least - 1.0).max(0.0);
    let found = loop {
        dough = next_mass_g(dough);
        within_mixes(Mass::new_g(dough), demand.mix_limit)?;
        let found = demand.yields(dough);
        if demand.enough(&found) {
            break found;
        }
    };
    let mut wanted = demand.pieces;
    let mut rolls = Vec::new();
    for (number, (sheets, form, mass, count)) in (0u32..).zip(&found.rolls) {
        let pieces = wanted.min(sheets.saturating_mul(*count));
        wanted -= pieces;
        rolls.push(Roll {
            number,
            sheets: *sheets,
            form: *form,
            mass: *mass,
            layout: demand.sheets.layout(form),
            pieces,
        });
    }
    let rolled = dough / (1.0 + demand.rules.reserve.value());
    let taken = demand.rules.surface.flour_taken_up().value();
    let rerolled = i32::try_from(rolls.len().saturating_sub(1)).unwrap_or(0);
    Ok(DemandAnswer {
        dough: Mass::new_g(dough),
        reserve: Mass::new_g(dough - rolled),
        mixes: found.mixes,
        left: Mass::new_g(found.left),
        lost: Mass::new_g(found.lost),
        flour_taken_up: Share::new((1.0 + taken).powi(rerolled) - 1.0),
        from_second_reroll: rolls.get(2).map_or(0, |r: &Roll| r.pieces),
        rolls,
    })
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the range of counts")]
fn whole(value: f64) -> u32 {
    value.clamp(0.0, 1e6) as u32
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind};
    use crate::shape::Spacing;
    use proptest::prelude::*;

    fn table(diameter: f64) -> OblongSheets {
        let outline = Builtin::new(BuiltinKind::Round, diameter, 0.0).unwrap().outline().unwrap();
        let spacing = Spacing::new(3.0, 4.0).unwrap();
        let (width, longest) = (Length::new_mm(310.0), Length::new_mm(440.0));
        OblongSheets { table: LatticeTable::for_sheet(&outline, width, longest, spacing).unwrap(), width, longest }
    }

    fn demand(sheets: &OblongSheets, diameter: f64, pieces: u32, rerolls: u32) -> Demand<'_> {
        let area = std::f64::consts::PI * diameter * diameter / 4.0;
        Demand {
            sheets,
            piece: Mass::new_g(area * 6.0 * 1.21e-3),
            pieces,
            thickness: Length::new_mm(6.0),
            density: Density::new_kg_m3(1210.0),
            mix_limit: Mass::new_g(1200.0),
            rules: RollingRules::new(rerolls, BenchSurface::FlouredBoard, 3.0).unwrap(),
        }
    }

    #[test]
    fn no_gram_is_lost_from_the_books() {
        let t = table(65.0);
        let d = demand(&t, 65.0, 48, 2);
        let a = demand_to_dough(&d).unwrap();
        let flour: f64 = 0.007;
        // Rolled dough + flour taken up = pieces + lost + left; flour enters with each scrap that is rolled again.
        let cut: f64 = a.rolls.iter().map(|r| f64::from(r.pieces) * d.piece.g()).sum();
        let rolled = a.dough.g() - a.reserve.g();
        let mut scrap = 0.0;
        let mut entered = 0.0;
        for (i, r) in a.rolls.iter().enumerate() {
            let mass = f64::from(r.sheets) * r.mass.g();
            if i > 0 {
                entered += mass - mass / (1.0 + flour);
            }
            scrap = mass;
        }
        assert!(scrap > 0.0);
        assert!((rolled + entered - cut - a.lost.g() - a.left.g()).abs() < 1e-6, "{a:?}");
        assert_eq!(a.rolls.iter().map(|r| r.pieces).sum::<u32>(), 48);
    }

    #[test]
    fn re_rolls_save_dough() {
        let t = table(65.0);
        let with = demand_to_dough(&demand(&t, 65.0, 48, 2)).unwrap();
        let without = demand_to_dough(&demand(&t, 65.0, 48, 0)).unwrap();
        assert!(with.dough.g() < without.dough.g());
        assert!(with.dough.g() >= 48.0 * demand(&t, 65.0, 48, 2).piece.g());
    }

    #[test]
    fn more_pieces_than_any_mixer_makes_are_refused() {
        let t = table(65.0);
        let error = demand_to_dough(&demand(&t, 65.0, 100_000, 2)).unwrap_err();
        assert!(error.to_string().contains("batches"), "{error}");
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(60))]
        #[test]
        fn more_pieces_never_need_less_dough(a in 1u32..900, b in 1u32..900, rerolls in 0u32..3) {
            let t = table(52.0);
            let dough = |n| demand_to_dough(&demand(&t, 52.0, n, rerolls)).unwrap().dough.g();
            prop_assert!(dough(a.min(b)) <= dough(a.max(b)));
        }
    }
}
