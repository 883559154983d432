//! A dough as the oven sees it: shares that melt, bind, set, dissolve, brown or only lie within it.

use crate::dough::stiffness::{FAT, FLOUR, OTHER, PIECES, STARCH, SUGAR, WATER};
use crate::dough::{COCOA_HIDES, FatKind, solid_share};
use crate::error::{Checks, InputErrors};

/// Shares of the dough's mass, together 1, and what else the model needs.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenDoughParts {
    /// Water.
    pub water: f64,
    /// Fat that is free to melt out.
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
    /// Of all, protein of egg, which sets.
    pub egg_protein: f64,
    /// Protein of the flour, per cent.
    pub protein_percent: f64,
    /// Kinds of fat with their shares of all fat.
    pub fats: Vec<(FatKind, f64)>,
    /// Air of the dough's volume after mixing.
    pub air: f64,
    /// Gas that its leaveners give, mol/kg.
    pub gas_mol_kg: f64,
    /// Soda that its acids leave over, per cent of the flour.
    pub soda_percent: f64,
    /// Mean crystal of its sugar as far as it is not dissolved, m.
    pub crystal_m: f64,
    /// Of its sugar, dissolved when it goes in.
    pub dissolved: f64,
    /// Of its sugar, powdered.
    pub powdered: f64,
}

/// What is in it that the model knows too little of. Shares of the dough, ammonia per cent of the flour.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct DoughFacts {
    pub cocoa: f64,
    pub syrup: f64,
    pub soda: bool,
    /// Whole, ground or as a paste; of these, pastes.
    pub nuts: f64,
    pub nut_paste: f64,
    pub ammonia_percent: f64,
    pub unknown_leavener: bool,
    /// Of its gas, what baking powder gives, mol/kg.
    pub powder_mol_kg: f64,
}

/// A dough whose parts were checked.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenDough {
    parts: OvenDoughParts,
    facts: DoughFacts,
    /// Solid share of its fat at each whole degree of the table.
    solid: [f64; DEGREES],
}

/// Solid fat is read from a table of whole degrees, at which its curves have their knots: from this one on, so many of them.
const COLDEST_C: f64 = -20.0;
const DEGREES: usize = 72;

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
        checks.range("gas_mol_kg", p.gas_mol_kg, 0.0, 5.0, "mol/kg");
        checks.range("soda_percent", p.soda_percent, 0.0, 100.0, "% of the flour");
        checks.range("reducing", p.reducing, 0.0, 1.0, "of the dough");
        checks.range("egg_protein", p.egg_protein, 0.0, p.other.max(0.0), "of the dough");
        checks.finish(())?;
        #[expect(clippy::cast_precision_loss, reason = "a few dozen degrees")]
        let solid = std::array::from_fn(|i| solid_share(&parts.fats, COLDEST_C + i as f64));
        Ok(Self { parts, facts: DoughFacts::default(), solid })
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
        Ok(Self { facts: self.facts, ..Self::new(parts)? })
    }

    /// The same without its baking powder; nothing where there is none.
    pub(super) fn without_powder(&self) -> Option<Self> {
        let gas = self.facts.powder_mol_kg;
        (gas > 0.0).then(|| {
            let mut plain = self.clone();
            plain.parts.gas_mol_kg = (plain.parts.gas_mol_kg - gas).max(0.0);
            plain.facts.powder_mol_kg = 0.0;
            plain
        })
    }

    /// Whether its cocoa hides its colour.
    pub(crate) fn hides_colour(&self) -> bool {
        self.facts.cocoa > COCOA_HIDES
    }

    pub(super) fn facts(&self) -> &DoughFacts {
        &self.facts
    }

    pub(super) fn with_facts(self, facts: DoughFacts) -> Self {
        Self { facts, ..self }
    }

    /// Room that its parts but water take up, m3 for each kilogram of dough; fat alone.
    pub(super) fn dry_volume(&self) -> f64 {
        let p = &self.parts;
        self.fat_volume() + p.flour / FLOUR + p.starch / STARCH + p.sugar / SUGAR + p.other / OTHER + p.pieces / PIECES
    }

    pub(super) fn fat_volume(&self) -> f64 {
        self.parts.fat / FAT
    }

    /// Without its air, kg/m3.
    pub(super) fn solid_density(&self) -> f64 {
        1.0 / (self.dry_volume() + self.parts.water / WATER)
    }

    /// Solid share of its fat.
    pub(super) fn solid_fat(&self, t_c: f64) -> f64 {
        let at = (t_c - COLDEST_C).max(0.0);
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "not below nothing, and saturating"
        )]
        let i = at as usize;
        if i >= DEGREES - 1 {
            return 0.0;
        }
        self.solid[i] + (at - at.floor()) * (self.solid[i + 1] - self.solid[i])
    }
}
