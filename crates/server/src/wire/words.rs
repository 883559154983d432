//! Words of the trade on the wire, and the core's values they stand for.

use ready_slab_core::cold::{Side, Spot, Target, Touch, TrayKind, Wrap};
use ready_slab_core::dough::{CupWay, EggClass, FatKind, Feel, Kind, MixMethod, Squeeze};
use ready_slab_core::geometry::NarrowKind;
use ready_slab_core::geometry::{BuiltinKind, DarkEdge, PaperSize};
use ready_slab_core::job::{ColdPlace, LeverGroup, Whereabouts};
use ready_slab_core::oven::{BakeEnd, DoneBy, EdgeColour, Profile, SpotTest, TrayLiner, TrayMaterial};
use ready_slab_core::recipe::CupSystem;
use ready_slab_core::shape::{BenchSurface, LogForm, PatternKind, PortionKind, SheetKind, Turning, WhichDough};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

macro_rules! word {
    ($(#[$doc:meta])* $name:ident for $core:ident { $($variant:ident),* $(,)? }) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        #[expect(missing_docs, reason = "the words are documented where the core defines them")]
        pub enum $name { $($variant),* }

        impl From<$name> for $core {
            fn from(word: $name) -> Self {
                match word { $($name::$variant => Self::$variant),* }
            }
        }

        impl From<$core> for $name {
            fn from(value: $core) -> Self {
                match value { $($core::$variant => Self::$variant),* }
            }
        }
    };
}

word!(/// What the trays are of.
    TrayWord for TrayKind { Aluminium, Steel });
word!(/// A cold place.
    PlaceWord for ColdPlace { Fridge, Freezer });
word!(/// What form a sheet is rolled to.
    SheetWord for SheetKind { Oblong, Round, Oval });
word!(/// What lies between tray and piece.
    LinerWord for TrayLiner { Parchment, Bare, Greased, Foil, Silicone, Floured });
word!(/// What a tray is of, as it bakes.
    TrayMaterialWord for TrayMaterial { Light, Dark, Heavy, Insulated });
word!(/// What was laid over the rack to find hot spots.
    SpotTestWord for SpotTest { Bread, Sugar });
word!(/// What a narrow part of a piece is.
    NarrowWord for NarrowKind { Point, Neck });
word!(/// What decided when it was done.
    DoneWord for DoneBy { Rim, Dull, Set, Time, Never });
word!(/// The look of a piece from the side.
    ProfileWord for Profile { Domed, Flat, Sunken });
word!(/// Where a lever is pulled.
    LeverGroupWord for LeverGroup { Oven, Cold, Shape, Dough });
word!(/// How a cutter may be turned on the sheet.
    TurningWord for Turning { Free, HalfTurn, Fixed });
word!(/// What the dough is rolled on.
    SurfaceWord for BenchSurface { FlouredBoard, BetweenPapers });
word!(/// How the dough is mixed.
    MethodWord for MixMethod { LightAndFluffy, JustCombined, RubbedIn });
word!(/// Colour of the edge when the bake ended.
    EdgeWord for EdgeColour { Pale, JustGolden, Golden, Brown });
word!(/// What is round a piece.
    WrapWord for Wrap { Open, Wrapped });
word!(/// A kind of fat.
    FatWord for FatKind { Butter, Shortening, Margarine, Lard, Coconut, Liquid });
word!(/// A built-in cutter.
    BuiltinWord for BuiltinKind { Round, Oval, Square, Oblong, Scalloped, Hexagon, Petal, Ring });
word!(/// Size class of eggs.
    EggWord for EggClass { UsSmall, UsMedium, UsLarge, UsExtraLarge, UsJumbo, EuSmall, EuMedium, EuLarge, EuExtraLarge });
word!(/// How a cup of something dry is filled.
    CupWayWord for CupWay { Spooned, Scooped, Sifted, Packed });
word!(/// In what cups and spoons a recipe measures.
    CupSystemWord for CupSystem { Us, Metric, Australian });
word!(/// How a dough feels at the bowl.
    FeelWord for Feel { TooSticky, DryWontGather, TooWarm });
word!(/// What a squeezed handful does.
    SqueezeWord for Squeeze { Holds, Cracks, Crumbles, Clings, Smears });
word!(/// What an ingredient is.
    KindWord for Kind { Flour, Starch, Fat, Sugar, Syrup, Egg, Liquid, Leavener, Salt, Cocoa, Meal, Chocolate, Nut, Seed, Fruit, Flavour, Spirit, Colour });
word!(/// Where a thermometer was held: in the middle, or on the face.
    SpotWord for Spot { Core, Surface });
word!(/// Which side of ready a piece is on.
    SideWord for Side { TooWarm, Ready, TooCold });
word!(/// What a hand found.
    TouchWord for Touch { Cracked, Right, Stuck, Squashed });

/// A sheet of paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaperWord {
    /// 210 by 297 mm.
    A4,
    /// 8 1/2 by 11 in.
    Letter,
}

impl From<PaperWord> for PaperSize {
    fn from(word: PaperWord) -> Self {
        match word {
            PaperWord::A4 => Self::A4,
            PaperWord::Letter => Self::Letter,
        }
    }
}

/// Which edge of what is dark in a photo is the cutter's.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DarkEdgeWord {
    /// The outer edge: a solid form, a tin standing on its cutting edge.
    Outside,
    /// The middle of a line drawn along the cutter.
    Middle,
    /// The inner edge: a line drawn around the cutter.
    Inside,
}

impl From<DarkEdgeWord> for DarkEdge {
    fn from(word: DarkEdgeWord) -> Self {
        match word {
            DarkEdgeWord::Outside => Self::Outside,
            DarkEdgeWord::Middle => Self::Middle,
            DarkEdgeWord::Inside => Self::Inside,
        }
    }
}

/// How a portion is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PortionWord {
    /// Rolled to a ball.
    Ball,
    /// Levelled in a scoop.
    Scoop,
    /// Rolled to a rope.
    Rope,
    /// A ball pressed or stamped flat.
    Pressed,
    /// A ball with a dent.
    Thumbprint,
    /// Put together of balls.
    Figure,
    /// Piped.
    Piped,
    /// Spread over a tray and cut.
    TrayBar,
}

impl From<PortionWord> for PortionKind {
    fn from(word: PortionWord) -> Self {
        match word {
            PortionWord::Ball => Self::Ball,
            PortionWord::Scoop => Self::Scoop,
            PortionWord::Rope => Self::Rope,
            PortionWord::Pressed => Self::Pressed,
            PortionWord::Thumbprint => Self::Thumbprint,
            PortionWord::Figure => Self::Figure,
            PortionWord::Piped => Self::Piped,
            PortionWord::TrayBar => Self::TrayBar,
        }
    }
}

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WhereWord {
    /// In the fridge.
    Fridge,
    /// In the freezer.
    Freezer,
    /// Out, on the bench.
    Bench,
}

impl From<WhereWord> for Whereabouts {
    fn from(word: WhereWord) -> Self {
        match word {
            WhereWord::Fridge => Self::Cold(ColdPlace::Fridge),
            WhereWord::Freezer => Self::Cold(ColdPlace::Freezer),
            WhereWord::Bench => Self::Bench,
        }
    }
}

impl From<Whereabouts> for WhereWord {
    fn from(place: Whereabouts) -> Self {
        match place {
            Whereabouts::Cold(ColdPlace::Fridge) => Self::Fridge,
            Whereabouts::Cold(ColdPlace::Freezer) => Self::Freezer,
            Whereabouts::Bench => Self::Bench,
        }
    }
}

word!(/// Which of two doughs.
    WhichDoughWord for WhichDough { First, Second });

/// The outline of a log's section.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LogFormWord {
    /// A circle.
    Round,
    /// A square.
    Square,
    /// A rectangle.
    Oblong,
    /// Half a circle on its flat.
    HalfRound,
    /// A triangle on its base.
    Wedge,
}

impl LogFormWord {
    /// The section, so many times as high as wide where it can be.
    pub const fn with_height(self, height_to_width: f64) -> LogForm {
        match self {
            Self::Round => LogForm::Round,
            Self::Square => LogForm::Square,
            Self::Oblong => LogForm::Oblong { height_to_width },
            Self::HalfRound => LogForm::HalfRound,
            Self::Wedge => LogForm::Wedge { height_to_width },
        }
    }
}

/// A pattern of two doughs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PatternWord {
    /// Square strips in turns.
    Checkerboard,
    /// Two sheets rolled up.
    Pinwheel,
    /// A core in a wrap.
    Bullseye,
    /// Layers in turns.
    Stripes,
}

impl From<PatternWord> for PatternKind {
    fn from(word: PatternWord) -> Self {
        match word {
            PatternWord::Checkerboard => Self::Checkerboard,
            PatternWord::Pinwheel => Self::Pinwheel,
            PatternWord::Bullseye => Self::Bullseye,
            PatternWord::Stripes => Self::Stripes,
        }
    }
}

/// How a place is used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UseWord {
    /// As usual.
    Usual,
    /// Crowded, or often opened.
    Busy,
}

/// What a piece is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PurposeWord {
    /// To be rolled.
    Rolling,
    /// To be sliced.
    Slicing,
    /// Cut pieces, for the oven.
    Oven,
}

impl From<PurposeWord> for Target {
    fn from(word: PurposeWord) -> Self {
        match word {
            PurposeWord::Rolling => Self::Rolling,
            PurposeWord::Slicing => Self::Slicing,
            PurposeWord::Oven => Self::Oven,
        }
    }
}

impl From<Target> for PurposeWord {
    fn from(target: Target) -> Self {
        match target {
            Target::Slicing => Self::Slicing,
            Target::Oven => Self::Oven,
            Target::Rolling | Target::Core(_) => Self::Rolling,
        }
    }
}

/// What ends a bake.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BakeEndWord {
    /// Pale and set.
    Pale,
    /// The rim just turns golden.
    JustGolden,
    /// A golden rim.
    Golden,
    /// A brown rim.
    Brown,
    /// The middle no longer shines and is set, whatever the colour.
    Dull,
    /// Pale, the middle may stay soft.
    SoftPale,
    /// Just golden, the middle may stay soft.
    SoftJustGolden,
    /// Golden, the middle may stay soft.
    SoftGolden,
    /// Brown, the middle may stay soft.
    SoftBrown,
}

impl From<BakeEnd> for BakeEndWord {
    fn from(end: BakeEnd) -> Self {
        match end {
            BakeEnd::Colour(EdgeColour::Pale) => Self::Pale,
            BakeEnd::Colour(EdgeColour::JustGolden) => Self::JustGolden,
            BakeEnd::Colour(EdgeColour::Golden) => Self::Golden,
            BakeEnd::Colour(EdgeColour::Brown) => Self::Brown,
            BakeEnd::Dull => Self::Dull,
            BakeEnd::Soft(EdgeColour::Pale) => Self::SoftPale,
            BakeEnd::Soft(EdgeColour::JustGolden) => Self::SoftJustGolden,
            BakeEnd::Soft(EdgeColour::Golden) => Self::SoftGolden,
            BakeEnd::Soft(EdgeColour::Brown) => Self::SoftBrown,
        }
    }
}

impl From<BakeEndWord> for BakeEnd {
    fn from(word: BakeEndWord) -> Self {
        match word {
            BakeEndWord::Pale => Self::Colour(EdgeColour::Pale),
            BakeEndWord::JustGolden => Self::Colour(EdgeColour::JustGolden),
            BakeEndWord::Golden => Self::Colour(EdgeColour::Golden),
            BakeEndWord::Brown => Self::Colour(EdgeColour::Brown),
            BakeEndWord::Dull => Self::Dull,
            BakeEndWord::SoftPale => Self::Soft(EdgeColour::Pale),
            BakeEndWord::SoftJustGolden => Self::Soft(EdgeColour::JustGolden),
            BakeEndWord::SoftGolden => Self::Soft(EdgeColour::Golden),
            BakeEndWord::SoftBrown => Self::Soft(EdgeColour::Brown),
        }
    }
}
