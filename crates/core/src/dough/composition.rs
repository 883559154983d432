//! Mass fractions of what matters to heat, firmness and freezing.

use super::FatKind;
use crate::error::{Checks, InputErrors};
use crate::units::TemperatureDifference;

/// How far hands have found the working temperatures of one dough to lie from what its fat says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Felt {
    /// The cold end of rolling: colder, it cracks.
    pub rolls_from: TemperatureDifference,
    /// The warm end of rolling: warmer, it sticks.
    pub rolls_to: TemperatureDifference,
    /// The warm end of slicing: warmer, the knife squashes it.
    pub slices_to: TemperatureDifference,
}

impl Default for Felt {
    fn default() -> Self {
        let none = TemperatureDifference::new_k(0.0);
        Self { rolls_from: none, rolls_to: none, slices_to: none }
    }
}

/// Mass fractions of a dough, each from 0 to 1, together 1 within half a per cent.
#[derive(Debug, Clone, PartialEq)]
pub struct Composition {
    pub(crate) water: f64,
    pub(crate) fat: f64,
    pub(crate) protein: f64,
    pub(crate) carbohydrate: f64,
    pub(crate) ash: f64,
    pub(crate) fibre: f64,
    /// Sugars within the carbohydrate, and dry flour solids; `None` when only the proximate analysis is known.
    pub(crate) sugars_and_flour_solids: Option<(f64, f64)>,
    /// Fat kinds with their share of all fat, together 1; empty when there is no fat.
    pub(crate) fats: Vec<(FatKind, f64)>,
    /// What hands have found of it.
    pub(crate) felt: Felt,
}

impl Composition {
    /// A composition from a proximate analysis, its fat being of one kind.
    ///
    /// Fails when a fraction is outside 0 to 1 or they do not add up to 1 within 0.005.
    pub fn from_analysis(
        water: f64,
        fat: f64,
        protein: f64,
        carbohydrate: f64,
        ash: f64,
        fibre: f64,
        fat_kind: FatKind,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        for (field, value) in [
            ("water", water),
            ("fat", fat),
            ("protein", protein),
            ("carbohydrate", carbohydrate),
            ("ash", ash),
            ("fibre", fibre),
        ] {
            checks.range(field, value, 0.0, 1.0, "of the mass");
        }
        let total = water + fat + protein + carbohydrate + ash + fibre;
        checks.range("total", total, 0.995, 1.005, "of the mass");
        checks.finish(Self {
            water,
            fat,
            protein,
            carbohydrate,
            ash,
            fibre,
            sugars_and_flour_solids: None,
            fats: if fat > 0.0 { vec![(fat_kind, 1.0)] } else { vec![] },
            felt: Felt::default(),
        })
    }

    /// The same dough with its fat of several kinds: shares of all fat, each from 0 to 1, together 1 within 0.005.
    pub fn with_fats(self, fats: Vec<(FatKind, f64)>) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        for (i, (_, share)) in fats.iter().enumerate() {
            checks.range(&format!("fats[{i}].share"), *share, 0.0, 1.0, "of the fat");
        }
        if !fats.is_empty() {
            checks.range("fats", fats.iter().map(|(_, share)| share).sum(), 0.995, 1.005, "of the fat");
        }
        checks.finish(())?;
        Ok(Self { fats, ..self })
    }

    /// The same dough with its sugars and its dry flour solids told, which decide whether its water freezes.
    pub fn with_sugars(self, sugars: f64, flour_solids: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("sugars", sugars, 0.0, 1.0, "of the mass");
        checks.range("flour_solids", flour_solids, 0.0, 1.0, "of the mass");
        checks.finish(())?;
        Ok(Self { sugars_and_flour_solids: Some((sugars, flour_solids)), ..self })
    }

    /// Mass fractions of ash and fibre.
    #[must_use]
    pub fn ash_and_fibre(&self) -> (f64, f64) {
        (self.ash, self.fibre)
    }

    /// Mass fraction of dry flour solids, where known.
    #[must_use]
    pub fn flour_solids(&self) -> Option<f64> {
        self.sugars_and_flour_solids.map(|(_, flour)| flour)
    }

    /// The same dough with what hands have found of it.
    #[must_use]
    pub fn with_felt(self, felt: Felt) -> Self {
        Self { felt, ..self }
    }

    /// Mass fraction of water.
    #[must_use]
    pub fn water(&self) -> f64 {
        self.water
    }

    /// Mass fraction of fat.
    #[must_use]
    pub fn fat(&self) -> f64 {
        self.fat
    }

    /// Mass fraction of protein.
    #[must_use]
    pub fn protein(&self) -> f64 {
        self.protein
    }

    /// Mass fraction of carbohydrate without fibre.
    #[must_use]
    pub fn carbohydrate(&self) -> f64 {
        self.carbohydrate
    }

    /// Mass fraction of sugars, where known.
    #[must_use]
    pub fn sugars(&self) -> Option<f64> {
        self.sugars_and_flour_solids.map(|(sugars, _)| sugars)
    }

    /// The kinds of fat with their shares of all fat.
    #[must_use]
    pub fn fats(&self) -> &[(FatKind, f64)] {
        &self.fats
    }
}
