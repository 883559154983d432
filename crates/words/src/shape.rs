//! What is said of sheets, trays and patterned bars.

use crate::figure::{lengths, mm, sides};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::geometry::ThinNeck;
use ready_slab_core::shape::{KeptFault, MixedFault, Pattern, Patterned, SheetForm};
use ready_slab_core::units::Length;

impl Say for KeptFault {
    fn say(&self) -> Sentence {
        match *self {
            Self::Turned { pieces, as_drawn } => said![
                pieces,
                if pieces == 1 { " of its pieces is turned" } else { " of its pieces are turned" },
                ", and the cutter is to lie ",
                if as_drawn { "as drawn" } else { "as drawn or half round" },
            ],
            Self::LargerThanSheet => "its cutter is larger than the sheet".into(),
            Self::IntoTheRim(pieces) => {
                said![pieces, " of its pieces ", if pieces == 1 { "reaches" } else { "reach" }, " into the margin"]
            }
            Self::TooNear(pieces) => {
                said![pieces, " of its pieces ", if pieces == 1 { "lies" } else { "lie" }, " nearer than the web"]
            }
        }
    }
}

impl Say for MixedFault {
    fn say(&self) -> Sentence {
        match self {
            Self::LongerThanTheTray(sheet) => said!["sheet ", *sheet, " is longer than the tray"],
            Self::CutterTooLarge(sheet) => said!["a cutter no longer fits sheet ", *sheet],
            Self::TooNear { sheet, pieces } => {
                said![*pieces, " pieces of sheet ", *sheet, " lie nearer than the gap or reach into the margin"]
            }
            Self::OtherCount { held, wanted } => said!["they hold ", *held, " pieces where a batch wants ", *wanted],
            Self::LotGone => "they hold pieces of a job that is gone".into(),
            Self::NotAlike(lot) => said![lot, " is not of the same dough and thickness any longer"],
        }
    }
}

impl Say for ThinNeck {
    fn say(&self) -> Sentence {
        said!["Its narrowest neck is ", mm(self.neck), ": under ", mm(self.under), " it bakes dark and breaks."]
    }
}

/// How large a sheet is, the longer side first.
pub(crate) fn sheet(form: SheetForm) -> Sentence {
    let (width, length) = form.extent();
    match form {
        SheetForm::Oblong { .. } => sides(length, width).into(),
        SheetForm::Round { .. } => said!["a round of ", mm(width)],
        SheetForm::Oval { .. } => said!["an oval of ", sides(length, width)],
    }
}

/// How scraps of two doughs are marbled, and how what comes of them bakes. Common practice, no source.
#[must_use]
pub fn marbled_steps(grain: (Length, Length)) -> Vec<Sentence> {
    vec![
        said!["Tear both to pieces of ", mm(grain.0), " to ", mm(grain.1), ", as cold as they are rolled."],
        "Strew them mixed, press them together and roll them once, turning the sheet and not the dough.".into(),
        "Cut at once. What is left is not rolled again, or it turns grey.".into(),
        "They bake as the dough that browns first: look a minute sooner.".into(),
    ]
}

/// How a patterned bar is built. Chills between the steps are common practice: soft dough smears, cold dough cracks round a bend.
#[must_use]
pub fn pattern_steps(built: &Patterned) -> Vec<Sentence> {
    let long = mm(built.length);
    let width = |at: usize| built.parts.get(at).map_or(Length::new_mm(0.0), |p| p.width);
    match built.pattern {
        Pattern::Checkerboard { strips, strip } => vec![
            said!["Roll both doughs ", mm(strip), " thick and ", long, " long, and chill them until they cut clean."],
            said!["Cut strips ", mm(strip), " wide along a ruler: square strips make straight lines."],
            said![
                "Lay ",
                strips,
                " strips side by side in turns, brushed with a little water, milk or egg white; press them together.",
            ],
            said!["Lay the next ", strips, " on them, the other dough first; go on to ", strips, " rows."],
            "Wrap, press true with a ruler, and chill until it slices clean.".into(),
        ],
        Pattern::Pinwheel { outer, inner, .. } => vec![
            said![
                "Roll the outer dough ",
                mm(outer),
                " and the inner ",
                mm(inner),
                " thick, both ",
                sides(width(0), built.length),
                ", between papers.",
            ],
            "Chill them until they can be lifted but still bend, then lay the inner on the outer; brush a little water or milk between.".into(),
            "Let them rest on the bench if they crack when bent.".into(),
            said!["Roll up from the long side of ", long, ", the first turn tight; press the seam."],
            "Wrap, roll true, and chill until it slices clean; turn it now and then so that it stays round.".into(),
        ],
        Pattern::Bullseye { core, wrap } => vec![
            said!["Roll the core to a log ", mm(core), " across and ", long, " long, and chill it hard."],
            said![
                "Roll the wrap ",
                mm(wrap),
                " thick, ",
                sides(width(1), built.length),
                "; let it be just soft enough to bend.",
            ],
            "Brush the core with a little water or milk, wrap it, press the seam and roll it true.".into(),
            "Chill until it slices clean; turn it now and then so that it stays round.".into(),
        ],
        Pattern::Stripes { layers, layer, width } => vec![
            said!["Roll both doughs ", mm(layer), " thick; cut layers of ", sides(width, built.length), "."],
            said![
                "Stack the ",
                layers,
                " layers, one dough then the other. Brush a little water or milk between. Press them with a board.",
            ],
            "Chill, trim the sides true, and slice when it slices clean.".into(),
        ],
    }
}

/// From the least to the most growth all round.
pub(crate) fn growth(by: (Length, Length)) -> Sentence {
    lengths(by.0, by.1).into()
}
