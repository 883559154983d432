//! Words of the trade on the wire, and the core's values they stand for.

use ready_slab_core::cold::{TrayKind, Wrap};
use ready_slab_core::dough::{FatKind, MixMethod};
use ready_slab_core::geometry::BuiltinKind;
use ready_slab_core::job::ColdPlace;
use ready_slab_core::oven::EdgeColour;
use ready_slab_core::shape::BenchSurface;
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
    BuiltinWord for BuiltinKind { Round, Oval, Square, Oblong, Scalloped, Hexagon, Petal });
