//! From a formula to the dough that the oven sees: each ingredient by its analysis and what it is.

use super::dough::{DoughFacts, OvenDough, OvenDoughParts};
use crate::dough::stiffness::{SATURATED, dissolves};
use crate::dough::{FatKind, Formula, Ingredient, Kind, powder_mass, soda_used_up};
use crate::error::InputErrors;

/// Gas of leaveners, mol/kg. Soda (84 g/mol): six tenths of it find an acid or are hot enough; baking powder: a third of its gas is lost in the
/// bowl; baker's ammonia (79 g/mol) gives carbon dioxide and, of its ammonia, what the wet dough does not take up. Stoichiometry by
/// hand; the shares are assumed.
const SODA_MOL_KG: f64 = 11.9 * 0.6;
const POWDER_MOL_KG: f64 = 1.9;
const AMMONIA_MOL_KG: f64 = 20.0;
const KNOWN_LEAVENERS: [&str; 4] = ["baking-soda", "baking-powder", "bakers-ammonia", "cream-of-tartar"];
/// Of the fat of nuts and seeds, free: the rest stays bound in the grain. Assumed, by how ground nuts bake.
const FREE_IN_NUTS: f64 = 1.0 / 3.0;
/// A meal with more fat than this is of nuts or seeds, per cent. Our own choice: powders of milk have up to 28.
const NUTTY_FAT: f64 = 35.0;
/// Protein of flour as the model knows it, per cent of the flour.
const PROTEIN_PERCENT: (f64, f64) = (5.0, 16.0);
/// A dough without crystals, m.
const NO_CRYSTALS_M: f64 = 3e-4;
/// Of pieces, water that the dough takes, per cent of them: what is dried gives none. Assumed.
const PIECES_GIVE_WATER: f64 = 3.0;

/// Sums over the lines of a formula.
struct Sums {
    parts: OvenDoughParts,
    fats: Vec<(FatKind, f64)>,
    flour: f64,
    protein: f64,
    /// Sugar of what is weighed as sugar or syrup, of that undissolved, and crystals of the latter by their sizes.
    sweet: f64,
    crystals: f64,
    crystals_m: f64,
    soda_used_up: f64,
    facts: DoughFacts,
}

impl Sums {
    fn new(air: f64) -> Self {
        let parts = OvenDoughParts {
            water: 0.0,
            fat: 0.0,
            flour: 0.0,
            starch: 0.0,
            sugar: 0.0,
            other: 0.0,
            pieces: 0.0,
            reducing: 0.0,
            egg_protein: 0.0,
            protein_percent: 0.0,
            fats: vec![],
            air,
            gas_mol_kg: 0.0,
            soda_percent: 0.0,
            crystal_m: NO_CRYSTALS_M,
            dissolved: 1.0,
            powdered: 0.0,
        };
        Self {
            parts,
            fats: FatKind::ALL.iter().map(|kind| (*kind, 0.0)).collect(),
            flour: 0.0,
            protein: 0.0,
            sweet: 0.0,
            crystals: 0.0,
            crystals_m: 0.0,
            soda_used_up: 0.0,
            facts: DoughFacts::default(),
        }
    }

    /// An ingredient that is so much of the dough.
    fn add(&mut self, i: &Ingredient, share: f64) {
        let (a, p) = (&i.analysis, &mut self.parts);
        let of = |percent: f64| share * percent / 100.0;
        self.soda_used_up += share * soda_used_up(i);
        self.facts.add(i, share);
        if i.kind.is_inclusion() {
            let water = a.water.min(PIECES_GIVE_WATER);
            p.water += of(water);
            p.pieces += of(a.total() - water);
            return;
        }
        p.water += of(a.water + a.alcohol);
        p.reducing += of(a.reducing);
        let free = if is_nutty(i) { FREE_IN_NUTS } else { 1.0 } * a.fat;
        p.fat += of(free);
        p.pieces += of(a.fat - free);
        if let Some(fat) = self.fats.iter_mut().find(|f| f.0 == i.fat_kind) {
            fat.1 += of(free);
        }
        let solids = a.total() - a.water - a.alcohol - a.fat;
        match i.kind {
            Kind::Flour => {
                p.flour += of(solids);
                self.flour += share;
                self.protein += share * a.protein;
            }
            Kind::Cocoa => {
                p.sugar += of(a.sugars);
                p.flour += of(solids - a.sugars);
            }
            Kind::Meal if is_nutty(i) => {
                p.sugar += of(a.sugars);
                p.flour += of(solids - a.sugars);
            }
            // Powders of milk, malt and custard: their starch binds, what of their sugar is not milk's or malt's sweetens.
            Kind::Meal => {
                let sugar = a.sugars - a.reducing.min(a.sugars);
                p.sugar += of(sugar);
                p.starch += of(a.starch());
                p.other += of(solids - sugar - a.starch());
            }
            Kind::Starch | Kind::Leavener => {
                p.starch += of(a.starch());
                p.other += of(solids - a.starch());
            }
            Kind::Sugar => {
                p.starch += of(a.starch());
                p.other += of(solids - a.carbohydrate);
                self.sweeten(i, of(a.sugars));
            }
            // What a syrup has beside sugars, dextrins, is dissolved as they are and does not bind.
            Kind::Syrup => {
                p.other += of(solids - a.carbohydrate);
                self.sweeten(i, of(a.carbohydrate));
            }
            Kind::Egg => {
                p.other += of(solids);
                p.egg_protein += of(a.protein);
            }
            // Lactose and what else is in them browns, but does not crystallise.
            Kind::Fat
            | Kind::Liquid
            | Kind::Salt
            | Kind::Chocolate
            | Kind::Nut
            | Kind::Seed
            | Kind::Fruit
            | Kind::Flavour
            | Kind::Spirit
            | Kind::Colour => p.other += of(solids),
        }
    }

    fn sweeten(&mut self, i: &Ingredient, g: f64) {
        self.parts.sugar += g;
        self.sweet += g;
        let undissolved = g * (1.0 - dissolves(i));
        self.crystals += undissolved;
        self.crystals_m += undissolved * crystal_m(i);
        if i.key == "sugar-powdered" {
            self.parts.powdered += g;
        }
    }

    fn finish(mut self, formula: &Formula) -> Result<OvenDough, InputErrors> {
        let total = formula.total().g();
        let of = |key: &str| formula.mass_of(key).g() / total;
        let soda = of("baking-soda");
        let p = &mut self.parts;
        self.facts.powder_mol_kg = powder_mass(formula).g() / total * POWDER_MOL_KG;
        p.gas_mol_kg = soda * SODA_MOL_KG + self.facts.powder_mol_kg + of("bakers-ammonia") * AMMONIA_MOL_KG;
        // Without flour its starches and meals stand for it.
        let flour = if self.flour > 0.0 { self.flour } else { p.flour + p.starch };
        if flour > 0.0 {
            p.soda_percent = (100.0 * (soda - self.soda_used_up).max(0.0) / flour).min(100.0);
        }
        if self.flour > 0.0 {
            p.protein_percent = (self.protein / self.flour).clamp(PROTEIN_PERCENT.0, PROTEIN_PERCENT.1);
        }
        if self.crystals > 0.0 {
            p.crystal_m = self.crystals_m / self.crystals;
        }
        if self.sweet > 0.0 {
            p.powdered /= self.sweet;
            let dissolved = 1.0 - self.crystals / self.sweet;
            p.dissolved = dissolved.min(SATURATED * p.water / p.sugar.max(1e-6)).clamp(0.0, 1.0);
        }
        let fat = p.fat;
        if fat > 0.0 {
            p.fats = self.fats.into_iter().filter(|f| f.1 > 0.0).map(|(kind, g)| (kind, g / fat)).collect();
        }
        self.facts.soda = soda > 0.0;
        if flour > 0.0 {
            self.facts.ammonia_percent = 100.0 * of("bakers-ammonia") / flour;
        }
        Ok(OvenDough::new(self.parts)?.with_facts(self.facts))
    }
}

impl DoughFacts {
    fn add(&mut self, i: &Ingredient, share: f64) {
        match i.kind {
            Kind::Cocoa => self.cocoa += share,
            Kind::Syrup => self.syrup += share,
            Kind::Nut => self.nuts += share,
            Kind::Meal if is_nutty(i) => {
                self.nuts += share;
                if i.key == "peanut-butter" {
                    self.nut_paste += share;
                }
            }
            Kind::Leavener => self.unknown_leavener |= !KNOWN_LEAVENERS.contains(&i.key.as_ref()),
            _ => {}
        }
    }
}

impl OvenDough {
    /// A formula's dough with so much air in it.
    pub fn of(formula: &Formula, air: f64) -> Result<Self, InputErrors> {
        let mut sums = Sums::new(air);
        let total = formula.total();
        for line in formula.lines() {
            sums.add(line.ingredient(), line.mass() / total);
        }
        sums.finish(formula)
    }
}

/// Ground nuts and seeds, and pastes of them.
fn is_nutty(i: &Ingredient) -> bool {
    i.kind == Kind::Meal && i.analysis.fat > NUTTY_FAT
}

/// Mean crystal, m. Sieve sizes of the trade, from memory.
fn crystal_m(ingredient: &Ingredient) -> f64 {
    match (ingredient.kind, ingredient.key.as_ref()) {
        (Kind::Syrup, _) | (_, "sugar-powdered" | "dextrose") => 0.000_03,
        (_, "sugar-caster") => 0.000_25,
        (_, "sugar-brown" | "sugar-dark") => 0.000_35,
        (_, "sugar-raw") => 0.001,
        _ => 0.000_45,
    }
}
