//! Why a finish takes so much, and how long finished pieces keep.

use crate::dough::Texture;
use crate::units::{Area, Length, Mass, Share, Span};

/// How figures of a finish come about, what to mind, and what keeping rests on.
#[derive(Debug, Clone, Copy, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Reason {
    // How much.
    SugarOnTop { mass_a_cm2: Mass, top: Area },
    SugarAllRound { mass_a_cm2: Mass, round: Area },
    GlazeFilm { film: Length, top: Area, density_g_ml: f64, sugar_parts: f64, spirit: bool },
    DipFilm { film: Length, part: Share, round: Area },
    Lines { wide: Length, high: Length, apart: Length, top: Area },
    Layer { layer: Length, over: Area, rim: Length, density_g_ml: f64 },
    LineAndFlood { line: Mass, round: Length, flood: Mass, film: Length },
    RolledOn { film: Length, top: Area, density_g_ml: f64, more: Share },
    SpreadOn { film: Length, top: Area, density_g_ml: f64 },
    InEachDent { each: Mass },
    // What to mind.
    RawWhite,
    EggOnTheLabel,
    UnusualGlaze { usual: (f64, f64) },
    DeepEnough { least: Mass },
    EnoughToMix { least: Mass, goes_on: Mass },
    JamBurns,
    SpiritStays,
    MeltedBurnsAndHoldsMilk,
    ChocolateHoldsMilk,
    OddOneLeft,
    CreamInTheCold,
    ButterIsMilk,
    // Keeping.
    Eats { texture: Texture },
    NutsGoStale,
    CoatDrawsMoisture,
    ChocolateBlooms,
    FilledGoSoft,
    CreamedGoSoft,
    IcedInLayers,
    DustedInLayers,
    JamGoesSticky,
    FreezePlain,
    // Alcohol.
    TableBeginsLater { from: Span, left: Share, bake: Span },
    LeftByTheTable { bake: Span, left: Share },
}
