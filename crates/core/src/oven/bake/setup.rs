//! What the model is run with: the piece, the tray and its liner, the oven, and what bakes have taught.

use crate::air::ATMOSPHERE_PA;
use crate::cold::TrayKind;
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// What a tray is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TrayMaterial {
    /// Aluminium of 1 mm, bright.
    Light,
    /// Steel of 0.8 mm, dark.
    Dark,
    /// Aluminium of 2 mm.
    Heavy,
    /// Two sheets with air between.
    Insulated,
}

impl TrayMaterial {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::Light, Self::Dark, Self::Heavy, Self::Insulated];

    /// Heat capacity J/m2K and conductance along it W/K, from handbook density, heat and conductivity; emissivity from memory.
    pub(super) const fn heat(self) -> (f64, f64, f64) {
        match self {
            Self::Light => (TrayKind::Aluminium.heat_j_m2k(), 0.25, 0.20),
            Self::Dark => (TrayKind::Steel.heat_j_m2k(), 0.85, 0.05),
            Self::Heavy => (4900.0, 0.25, 0.36),
            Self::Insulated => (4900.0, 0.25, 0.16),
        }
    }
}

/// What lies between tray and piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TrayLiner {
    /// Baking parchment.
    Parchment,
    /// Nothing.
    Bare,
    /// Grease.
    Greased,
    /// Aluminium foil.
    Foil,
    /// A silicone mat.
    Silicone,
    /// Grease and flour.
    Floured,
}

impl TrayLiner {
    /// All of them.
    pub const ALL: [Self; 6] = [Self::Parchment, Self::Bare, Self::Greased, Self::Foil, Self::Silicone, Self::Floured];

    /// Contact conductance W/m2K (assumed, calibrated), emissivity seen from above over that of the tray, drag (calibrated).
    fn contact(self, tray_emissivity: f64) -> (f64, f64, f64) {
        match self {
            Self::Parchment => (150.0, 0.85, 0.25),
            Self::Bare => (180.0, tray_emissivity, 0.22),
            Self::Greased => (220.0, tray_emissivity.max(0.4), 0.10),
            Self::Foil => (200.0, 0.15, 0.12),
            Self::Silicone => (75.0, 0.9, 0.20),
            Self::Floured => (140.0, tray_emissivity, 0.5),
        }
    }
}

/// Conductance of the air in an insulated tray, W/m2K. Assumed.
const INSULATED_GAP: f64 = 60.0;

/// A piece as it goes into the oven.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakePiece {
    /// Its height.
    pub thickness: Length,
    /// Radius of the disc that stands for it: twice its area over its edge.
    pub radius: Length,
    /// All of it.
    pub start: Temperature,
    /// Its fat is as far solid as once set at this: warmer than the piece itself while it is still setting.
    pub firm_as_at: Temperature,
    /// On the counter before it goes in.
    pub wait: Span,
}

/// How full a tray is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum TrayCover {
    /// So much of it lies under the pieces as they were laid, 0.05 to 0.9.
    Share(Share),
    /// Laid out for the size they have in the end, with so much between the baked pieces.
    Gap(Length),
}

/// Between baked pieces where nothing else is told. Common practice, no source.
const USUAL_GAP: Length = Length::new_mm(25.0);

/// The oven and the tray.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenSetup {
    /// Its air, as far as is known.
    pub air: Temperature,
    /// Whether its fan runs.
    pub fan: bool,
    /// The tray.
    pub tray: TrayMaterial,
    /// What lies on it.
    pub liner: TrayLiner,
    /// How full the tray is.
    pub cover: TrayCover,
    /// The tray when the pieces are laid on it.
    pub tray_start: Temperature,
    /// The room that pieces wait and cool in.
    pub room: Temperature,
    /// How far the air falls when the door is opened.
    pub door_dip: TemperatureDifference,
    /// Until all but a third of that is back.
    pub recovery: Span,
    /// The air's pressure, Pa.
    pub pressure_pa: f64,
}

impl OvenSetup {
    /// A light tray with parchment at 22 degC, laid out with 25 mm between the pieces: as the model was calibrated.
    #[must_use]
    pub const fn usual(air_c: f64, fan: bool) -> Self {
        Self {
            air: Temperature::new_c(air_c),
            fan,
            tray: TrayMaterial::Light,
            liner: TrayLiner::Parchment,
            cover: TrayCover::Gap(USUAL_GAP),
            tray_start: Temperature::new_c(22.0),
            room: Temperature::new_c(22.0),
            door_dip: TemperatureDifference::new_k(15.0),
            recovery: Span::new_s(90.0),
            pressure_pa: ATMOSPHERE_PA,
        }
    }

    pub(super) fn plate(&self) -> Plate {
        let (heat_j_m2k, emissivity, along_w_k) = self.tray.heat();
        let (contact, liner_emissivity, drag) = self.liner.contact(emissivity);
        let contact_w_m2k = match self.tray {
            TrayMaterial::Insulated => 1.0 / (1.0 / contact + 1.0 / INSULATED_GAP),
            TrayMaterial::Light | TrayMaterial::Dark | TrayMaterial::Heavy => contact,
        };
        Plate { heat_j_m2k, emissivity, along_w_k, contact_w_m2k, liner_emissivity, drag }
    }
}

/// What the tray with its liner does.
pub(super) struct Plate {
    pub heat_j_m2k: f64,
    pub emissivity: f64,
    pub along_w_k: f64,
    pub contact_w_m2k: f64,
    pub liner_emissivity: f64,
    pub drag: f64,
}

/// What bakes have taught: of the oven its offset and how strongly it heats; of the formula how far it spreads, how long it takes and
/// how fast it browns.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeFit {
    /// The oven's air over what it is taken to be.
    pub offset: TemperatureDifference,
    /// Times the heat by air and radiation.
    pub heat: f64,
    /// Times the spread.
    pub spread: f64,
    /// Times every minute of the forecast: what the model has as ten minutes takes ten times so long.
    pub time: f64,
    /// Times the browning.
    pub browning: f64,
}

impl BakeFit {
    /// Nothing learnt.
    pub const NONE: Self =
        Self { offset: TemperatureDifference::new_k(0.0), heat: 1.0, spread: 1.0, time: 1.0, browning: 1.0 };
}
