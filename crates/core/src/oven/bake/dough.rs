//! A dough as the oven sees it: shares that melt, bind, dissolve, brown or only lie within it.

use crate::dough::stiffness::{SATURATED, dissolves};
use crate::dough::{FatKind, Formula, Ingredient, Kind, MixMethod, powder_mass, solid_share};
use crate::error::{Checks, InputErrors};

/// Shares of the dough's mass, together 1, and what else the model needs.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenDoughParts {
    /// Water.
    pub water: f64,
    /// Fat.
    pub fat: f64,
    /// Flour, dry.
    pub flour: f64,
    /// Starch, dry.
    pub starch: f64,
    /// Sugars.
    pub sugar: f64,
    /// Egg, milk and other solids.
    pub other: f64,
    /// Pieces that neither melt into it nor bind.
    pub pieces: f64,
    /// Of all, sugars that brown.
    pub reducing: f64,
    /// Protein of the flour, per cent.
    pub protein_percent: f64,
    /// Kinds of fat with their shares of all fat.
    pub fats: Vec<(FatKind, f64)>,
    /// Air of the dough's volume after mixing.
    pub air: f64,
    /// Carbon dioxide that its leavener gives and it holds, mol/kg.
    pub carbon_dioxide_mol_kg: f64,
    /// Soda over 0.5 % of the dough.
    pub alkali: f64,
    /// Mean crystal of its sugar, m.
    pub crystal_m: f64,
    /// Of its sugar, dissolved when it goes in.
    pub dissolved: f64,
    /// Of its sugar, powdered.
    pub powdered: f64,
}

/// A dough whose parts were checked.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenDough {
    parts: OvenDoughParts,
}

/// Carbon dioxide of soda, mol/kg, of which six tenths find an acid; of baking powder; of all, what the dough holds. Handbook
/// stoichiometry; the shares are assumed and calibrated.
const SODA_MOL_KG: f64 = 11.9 * 0.6;
const POWDER_MOL_KG: f64 = 2.7;
const HELD: f64 = 0.35;
/// Of baker's ammonia (ammonium bicarbonate, 79 g/mol): its carbon dioxide, and half of its ammonia, which the wet dough takes up at
/// first. Stoichiometry by hand; the half is assumed.
const AMMONIA_MOL_KG: f64 = 1.5 * 12.65;

impl OvenDough {
    /// Checks the parts: together 1 within 0.01, none below nothing.
    pub fn new(parts: OvenDoughParts) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let p = &parts;
        for (field, value) in [
            ("water", p.water),
            ("fat", p.fat),
            ("flour", p.flour),
            ("starch", p.starch),
            ("sugar", p.sugar),
            ("other", p.other),
            ("pieces", p.pieces),
        ] {
            checks.range(field, value, 0.0, 1.0, "of the dough");
        }
        let all = p.water + p.fat + p.flour + p.starch + p.sugar + p.other + p.pieces;
        checks.range("parts", all, 0.99, 1.01, "together");
        checks.range("air", p.air, 0.0, 0.4, "of the volume");
        checks.range("protein_percent", p.protein_percent, 0.0, 20.0, "%");
        checks.range("crystal_m", p.crystal_m, 1e-6, 0.005, "m");
        checks.range("dissolved", p.dissolved, 0.0, 1.0, "of the sugar");
        checks.range("powdered", p.powdered, 0.0, 1.0, "of the sugar");
        checks.range("carbon_dioxide_mol_kg", p.carbon_dioxide_mol_kg, 0.0, 5.0, "mol/kg");
        checks.range("alkali", p.alkali, 0.0, 20.0, "times 0.5 % of soda");
        checks.range("reducing", p.reducing, 0.0, 1.0, "of the dough");
        checks.finish(Self { parts })
    }

    /// A formula's dough with so much air in it.
    pub fn of(formula: &Formula, air: f64) -> Result<Self, InputErrors> {
        let total = formula.total().g();
        let mut parts = OvenDoughParts {
            water: 0.0,
            fat: 0.0,
            flour: 0.0,
            starch: 0.0,
            sugar: 0.0,
            other: 0.0,
            pieces: 0.0,
            reducing: 0.0,
            protein_percent: 0.0,
            fats: vec![],
            air,
            carbon_dioxide_mol_kg: 0.0,
            alkali: 0.0,
            crystal_m: 0.0,
            dissolved: 0.0,
            powdered: 0.0,
        };
        let (mut flour_g, mut protein_g, mut crystals_g) = (0.0, 0.0, 0.0);
        let mut fats: Vec<(FatKind, f64)> = FatKind::ALL.iter().map(|kind| (*kind, 0.0)).collect();
        for line in formula.lines() {
            let (i, share) = (line.ingredient(), line.mass().g() / total);
            let add = |part: &mut f64, g: f64| *part += share * g / 100.0;
            let a = &i.analysis;
            add(&mut parts.reducing, if i.kind.is_inclusion() { 0.0 } else { a.reducing });
            if i.kind.is_inclusion() {
                add(&mut parts.water, a.water.min(3.0));
                add(&mut parts.pieces, a.total() - a.water.min(3.0));
                continue;
            }
            add(&mut parts.water, a.water + a.alcohol);
            add(&mut parts.fat, a.fat);
            for fat in &mut fats {
                if fat.0 == i.fat_kind {
                    fat.1 += share * a.fat / 100.0;
                }
            }
            let solids = a.total() - a.water - a.alcohol - a.fat;
            match i.kind {
                Kind::Flour => {
                    add(&mut parts.flour, solids);
                    flour_g += share;
                    protein_g += share * a.protein;
                }
                Kind::Cocoa | Kind::Meal => {
                    add(&mut parts.sugar, a.sugars);
                    add(&mut parts.flour, solids - a.sugars);
                }
                Kind::Starch | Kind::Leavener => {
                    add(&mut parts.starch, a.starch());
                    add(&mut parts.other, solids - a.starch());
                }
                Kind::Sugar | Kind::Syrup => {
                    add(&mut parts.sugar, a.sugars);
                    add(&mut parts.starch, a.starch());
                    add(&mut parts.other, solids - a.sugars - a.starch());
                    let g = share * a.sugars / 100.0;
                    crystals_g += g;
                    parts.crystal_m += g * crystal_m(i);
                    parts.dissolved += g * dissolves(i);
                    if i.key == "sugar-powdered" {
                        parts.powdered += g;
                    }
                }
                // Lactose and what else is in them browns, but does not crystallise.
                Kind::Fat
                | Kind::Egg
                | Kind::Liquid
                | Kind::Salt
                | Kind::Chocolate
                | Kind::Nut
                | Kind::Seed
                | Kind::Fruit
                | Kind::Flavour
                | Kind::Spirit
                | Kind::Colour => add(&mut parts.other, solids),
            }
        }
        let soda = formula.mass_of("baking-soda").g() / total;
        let powder = powder_mass(formula).g() / total;
        let ammonia = formula.mass_of("bakers-ammonia").g() / total;
        parts.carbon_dioxide_mol_kg = (soda * SODA_MOL_KG + powder * POWDER_MOL_KG + ammonia * AMMONIA_MOL_KG) * HELD;
        parts.alkali = 100.0 * soda / 0.5;
        parts.protein_percent = if flour_g > 0.0 { (protein_g / flour_g).clamp(5.0, 16.0) } else { 0.0 };
        if crystals_g > 0.0 {
            parts.crystal_m /= crystals_g;
            parts.powdered /= crystals_g;
            parts.dissolved = (parts.dissolved / crystals_g).min(SATURATED * parts.water / parts.sugar.max(1e-6));
        } else {
            (parts.crystal_m, parts.dissolved) = (3e-4, 1.0);
        }
        parts.dissolved = parts.dissolved.clamp(0.0, 1.0);
        if parts.fat > 0.0 {
            parts.fats = fats.into_iter().filter(|f| f.1 > 0.0).map(|(kind, g)| (kind, g / parts.fat)).collect();
        }
        Self::new(parts)
    }

    /// The parts.
    #[must_use]
    pub fn parts(&self) -> &OvenDoughParts {
        &self.parts
    }

    /// The same with other shares changed.
    pub fn with(&self, change: impl FnOnce(&mut OvenDoughParts)) -> Result<Self, InputErrors> {
        let mut parts = self.parts.clone();
        change(&mut parts);
        Self::new(parts)
    }

    /// Solid share of its fat.
    pub(super) fn solid_fat(&self, t_c: f64) -> f64 {
        solid_share(&self.parts.fats, t_c)
    }
}

/// Air that mixing leaves, of the dough's volume. Common practice, no source: creamed doughs hold about twice as much.
#[must_use]
pub const fn air_of(method: MixMethod) -> f64 {
    match method {
        MixMethod::LightAndFluffy => 0.10,
        MixMethod::JustCombined => 0.06,
        MixMethod::RubbedIn => 0.04,
    }
}

/// Mean crystal, m. Sieve sizes of the trade, from memory.
fn crystal_m(ingredient: &Ingredient) -> f64 {
    match (ingredient.kind, ingredient.key.as_ref()) {
        (Kind::Syrup, _) | (_, "sugar-powdered") => 0.000_03,
        (_, "sugar-caster") => 0.000_25,
        (_, "sugar-brown" | "sugar-dark") => 0.000_35,
        (_, "sugar-raw") => 0.001,
        _ => 0.000_45,
    }
}
