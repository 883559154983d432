//! Names of things, as they stand in a sentence or alone.

use ready_slab_core::cold::{ColdPlace, Feeling, Lies, Target};
use ready_slab_core::dough::{Bite, Browning, CupWay, EggClass, FatKind, Handling, Texture};
use ready_slab_core::geometry::{BuiltinKind, NarrowKind, PlaceOnPiece};
use ready_slab_core::job::{Making, Whereabouts};
use ready_slab_core::oven::{EdgeColour, OvenSide, Shade, SpotTest, Spreading, TrayLiner, TrayMaterial};
use ready_slab_core::recipe::RecipeFormat;
use ready_slab_core::shape::{Bent, LogForm, PatternPiece, Portion};

/// What has a name.
pub trait Name {
    /// The trade's word for it.
    fn name(&self) -> &'static str;
}

macro_rules! names {
    ($($type:ident { $($variant:ident => $name:literal),* $(,)? })*) => {$(
        impl Name for $type {
            fn name(&self) -> &'static str {
                match self { $(Self::$variant => $name),* }
            }
        }
    )*};
}

names! {
    ColdPlace { Fridge => "fridge", Freezer => "freezer" }
    Handling { Firm => "firm", Right => "right to roll", Soft => "soft", Pipeable => "soft enough to pipe" }
    Browning {
        StaysPale => "stays pale", Golden => "turns golden on time", Early => "browns early", Fast => "browns fast",
    }
    Bite { Firm => "firm", Snaps => "snaps", Tender => "tender", VeryShort => "very crumbly, breaks while warm" }
    Texture { Crisp => "crisp", Short => "short", Soft => "soft", Chewy => "chewy" }
    Spreading {
        Hardly => "barely spreads", ALittle => "spreads a little", Spreads => "spreads", Far => "spreads far",
    }
    CupWay { Spooned => "spooned and leveled", Scooped => "scooped", Sifted => "sifted", Packed => "packed" }
    EggClass {
        UsSmall => "US small", UsMedium => "US medium", UsLarge => "US large", UsExtraLarge => "US extra-large",
        UsJumbo => "US jumbo", EuSmall => "EU S", EuMedium => "EU M", EuLarge => "EU L", EuExtraLarge => "EU XL",
    }
    FatKind {
        Butter => "butter", Shortening => "shortening", Margarine => "margarine", Lard => "lard",
        Coconut => "coconut oil or cocoa butter", Liquid => "oil",
    }
    Feeling {
        Slack => "too soft", Tacky => "tacky", RollsClean => "rolls clean", Cracks => "cracks", Squashes => "squashes when sliced",
        SlicesClean => "slices clean", Shatters => "shatters when sliced", Soft => "soft", Firm => "firm",
        StillSetting => "still setting", NotThere => "not cold enough yet", There => "cold enough",
    }
    EdgeColour { Pale => "pale", JustGolden => "just golden", Golden => "golden", Brown => "brown" }
    OvenSide { Left => "left", Right => "right", Back => "back", Door => "front" }
    SpotTest { Bread => "bread", Sugar => "sugar" }
    TrayMaterial {
        Light => "light-colored tray", Dark => "dark tray", Heavy => "heavy tray", Insulated => "insulated tray",
    }
    TrayLiner {
        Parchment => "parchment", Bare => "bare tray", Greased => "greased tray", Foil => "foil",
        Silicone => "silicone mat", Floured => "floured tray",
    }
    NarrowKind { Point => "tip", Neck => "narrow part" }
    PlaceOnPiece {
        UpperLeft => "upper left", LowerLeft => "lower left", Left => "left", UpperRight => "upper right",
        LowerRight => "lower right", Right => "right", Top => "top", Bottom => "bottom", Middle => "middle",
    }
    BuiltinKind {
        Round => "round", Oval => "oval", Square => "square", Oblong => "oblong", Scalloped => "scalloped",
        Hexagon => "hexagon", Petal => "petal", Ring => "ring", Heart => "heart", Star => "star", Tree => "tree", Figure => "gingerbread figure",
        Crescent => "crescent", Mitten => "mitten", Leaf => "leaf", Letter => "letter",
    }
    RecipeFormat {
        Text => "text", JsonLd => "recipe data (JSON-LD)", Html => "recipe web page", Csv => "spreadsheet (CSV)",
        Json => "recipe file",
    }
    PatternPiece { Strips => "strips", Sheet => "sheet", Core => "core", Wrap => "wrap", Layers => "layers" }
}

impl Name for Lies {
    fn name(&self) -> &'static str {
        match self {
            Self::In(place) => place.name(),
            Self::OnTheBench => "bench",
            Self::Somewhere => "place",
        }
    }
}

impl Name for Whereabouts {
    fn name(&self) -> &'static str {
        match self {
            Self::Cold(place) => place.name(),
            Self::Bench => "bench",
        }
    }
}

impl Name for Shade {
    fn name(&self) -> &'static str {
        match self {
            Self::Raw => "raw",
            Self::Edge(colour) => colour.name(),
            Self::Burnt => "burnt",
        }
    }
}

/// What dough does when it is right for what it is wanted for.
#[must_use]
pub fn does(target: Target) -> &'static str {
    match target {
        Target::Rolling | Target::RolledLater => "rolls clean",
        Target::Slicing => "slices clean",
        Target::Oven => "is firm enough to bake",
        Target::Core(_) => "is cold enough",
    }
}

/// What the five shades of a test for hot places are called, the palest first.
#[must_use]
pub const fn spot_shades(test: SpotTest) -> [&'static str; 5] {
    match test {
        SpotTest::Bread => ["white", "light tan", "golden", "brown", "dark"],
        SpotTest::Sugar => ["dry", "melting", "clear", "amber", "dark"],
    }
}

/// What pieces are called, of pieces cut with a cutter of that name.
#[must_use]
pub fn piece_name(making: &Making, cutter: &str) -> String {
    match making {
        Making::Cut => cutter.to_owned(),
        Making::Sliced { form, .. } => match form {
            LogForm::Round => "round slice",
            LogForm::Square => "square slice",
            LogForm::Oblong { .. } => "oblong slice",
            LogForm::HalfRound => "half-round slice",
            LogForm::Wedge { .. } => "wedge slice",
        }
        .to_owned(),
        Making::Portioned(portion) => match portion {
            Portion::Ball { .. } => "ball",
            Portion::Scoop { .. } => "scoop",
            Portion::Spoon { .. } => "drop cookie",
            Portion::Stamped { .. } => "stamped cookie",
            Portion::Rope { bent, .. } => match bent {
                Bent::Straight => "rope",
                Bent::Crescent => "crescent",
                Bent::Ring => "ring",
                Bent::Knot => "knot",
                Bent::Twist => "twist",
            },
            Portion::Pressed { .. } => "pressed disc",
            Portion::Thumbprint { .. } => "thumbprint",
            Portion::Figure { .. } => "gingerbread figure",
            Portion::Piped { .. } => "piped cookie",
            Portion::TrayBar { .. } => "bar",
        }
        .to_owned(),
    }
}
