//! What is said of sheets, trays and patterned bars.

use crate::figure::{lengths, mm, sides};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::geometry::ThinNeck;
use ready_slab_core::shape::{KeptFault, MixedFault, Pattern, Patterned, SheetForm};
use ready_slab_core::units::Length;

fn cookies(n: usize) -> String {
    if n == 1 { "1 cookie".to_owned() } else { format!("{n} cookies") }
}

impl Say for KeptFault {
    fn say(&self) -> Sentence {
        match *self {
            Self::Turned { pieces, as_drawn } => said![
                cookies(pieces),
                if pieces == 1 { " is" } else { " are" },
                " turned, but the cutter may only lie ",
                if as_drawn { "as drawn" } else { "as drawn or half-turned" },
            ],
            Self::LargerThanSheet => "the cutter is bigger than the sheet".into(),
            Self::IntoTheRim(pieces) => {
                said![cookies(pieces), if pieces == 1 { " reaches" } else { " reach" }, " into the margin"]
            }
            Self::TooNear(pieces) => {
                said![cookies(pieces), if pieces == 1 { " is" } else { " are" }, " closer than the gap"]
            }
        }
    }
}

impl Say for MixedFault {
    fn say(&self) -> Sentence {
        match self {
            Self::LongerThanTheTray(sheet) => said!["sheet ", *sheet, " is longer than the tray"],
            Self::CutterTooLarge(sheet) => said!["a cutter no longer fits on sheet ", *sheet],
            Self::TooNear { sheet, pieces } => {
                said![
                    cookies(*pieces),
                    " on sheet ",
                    *sheet,
                    if *pieces == 1 { " is" } else { " are" },
                    " too close or in the margin"
                ]
            }
            Self::OtherCount { held, wanted } => said!["they hold ", *held, " cookies; an item needs ", *wanted],
            Self::LotGone => "they hold cookies of an item you deleted".into(),
            Self::NotAlike(lot) => said![lot, " no longer has the same dough and thickness"],
        }
    }
}

impl Say for ThinNeck {
    fn say(&self) -> Sentence {
        said!["Narrowest neck: ", mm(self.neck), ". Under ", mm(self.under), " it bakes dark and breaks."]
    }
}

/// How large a sheet is, the longer side first.
pub(crate) fn sheet(form: SheetForm) -> Sentence {
    let (width, length) = form.extent();
    match form {
        SheetForm::Oblong { .. } => sides(length, width).into(),
        SheetForm::Round { .. } => said!["a ", mm(width), " round"],
        SheetForm::Oval { .. } => said!["a ", sides(length, width), " oval"],
    }
}

/// How scraps of two doughs are marbled, and how what comes of them bakes. Common practice, no source.
#[must_use]
pub fn marbled_steps(grain: (Length, Length)) -> Vec<Sentence> {
    vec![
        said!["Tear both doughs into ", mm(grain.0), " to ", mm(grain.1), " bits, as cold as for rolling."],
        "Scatter the bits mixed, press together, roll once. Turn the whole sheet; don’t fold the dough.".into(),
        "Cut right away. Don’t re-roll the scraps: they turn gray.".into(),
        "Go by the dough that browns first: look a minute early.".into(),
    ]
}

/// How a patterned bar is built. Chills between the steps are common practice: soft dough smears, cold dough cracks round a bend.
#[must_use]
pub fn pattern_steps(built: &Patterned) -> Vec<Sentence> {
    let long = mm(built.length);
    let width = |at: usize| built.parts.get(at).map_or(Length::new_mm(0.0), |p| p.width);
    match built.pattern {
        Pattern::Checkerboard { strips, strip } => vec![
            said!["Roll both doughs ", mm(strip), " thick and ", long, " long. Chill until they cut clean."],
            said!["Cut strips ", mm(strip), " wide along a ruler. Square strips make straight lines."],
            said![
                "Lay ",
                strips,
                " strips side by side, alternating. Brush with a little water; press together.",
            ],
            said!["Lay the next ", strips, " on top, starting with the other dough. Make ", strips, " rows."],
            "Wrap, press square with a ruler, and chill until it slices clean.".into(),
        ],
        Pattern::Pinwheel { outer, inner, .. } => vec![
            said![
                "Roll the outer dough ", mm(outer), " thick, the inner ", mm(inner), ", both ", sides(width(0), built.length), ". Use sheets of parchment.",
            ],
            "Chill until firm enough to lift but still bendy. Brush with a little water. Lay the inner dough on the outer.".into(),
            "If they crack when bent, rest them on the bench.".into(),
            said!["Roll up from the ", long, " side, the first turn tight. Press the seam."],
            "Wrap, roll it even, and chill until it slices clean. Turn it now and then so it stays round.".into(),
        ],
        Pattern::Bullseye { core, wrap } => vec![
            said!["Roll the core into a log ", mm(core), " across, ", long, " long. Chill until hard."],
            said![
                "Roll the wrap ", mm(wrap), " thick, ", sides(width(1), built.length), ". Keep it just soft enough to bend.",
            ],
            "Brush the core with a little water, wrap it, press the seam, roll it even.".into(),
            "Chill until it slices clean. Turn it now and then so it stays round.".into(),
        ],
        Pattern::Stripes { layers, layer, width } => vec![
            said!["Roll both doughs ", mm(layer), " thick. Cut layers ", sides(width, built.length), "."],
            said![
                "Stack the ",
                layers,
                " layers, alternating, with a little water between. Press them flat.",
            ],
            "Chill, trim the sides straight, and slice once it cuts clean.".into(),
        ],
    }
}

/// From the least to the most growth all round.
pub(crate) fn growth(by: (Length, Length)) -> Sentence {
    lengths(by.0, by.1).into()
}
