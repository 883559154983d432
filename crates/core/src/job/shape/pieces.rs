//! What a lot's pieces are and what dough they take: their size and outline, the sheets, logs or portions they come from.

use crate::cold::Piece;
use crate::dough::{Formula, rolled_density};
use crate::error::{InputError, InputErrors};
use crate::geometry::{Outline, strand, union_of_rounds};
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::shape::{
    Bent, CRESCENT_RADIUS, Demand, DemandAnswer, KeptFault, LatticeTable, Layout, LogForm, MixedFault, MixedShare,
    OblongSheets, Portion, Portioned, Roll, RoundSheets, SheetForm, SheetKind, Sheets, bent_extent, portion_out,
};
use crate::units::{Density, Length, Mass, Share};
use std::f64::consts::{PI, TAU};

/// A ball stands for a disc of its volume that is half as high as the ball: so it looks once its rim has melted, before it
/// spreads. Common practice, no source.
const SETTLES_TO: f64 = 0.5;
/// A knot's middle line as two curves, drawn by eye.
const KNOT: [[(f64, f64); 4]; 2] =
    [[(-1.0, 0.9), (0.5, 0.4), (1.3, -0.9), (0.0, -1.0)], [(0.0, -1.0), (-1.3, -0.9), (-0.5, 0.4), (1.0, 0.9)]];
/// A part so large beside the first is a head rather than an ear, by their diameters. Our own choice.
const HEAD_OVER_BODY: f64 = 0.6;
/// A part is let into the one it is put to by so much of itself. Common practice, no source.
const LET_IN: f64 = 0.2;
/// Corners of a round outline made up here.
const ROUND_CORNERS: u32 = 96;

/// One piece as it goes into the oven.
#[derive(Debug, Clone, PartialEq)]
pub struct PieceSize {
    /// Its mass.
    pub mass: Mass,
    /// How high.
    pub thickness: Length,
}

fn portioned(portion: &Portion, density: Density) -> Result<Portioned, InputErrors> {
    // Of one piece, whatever the batch.
    portion_out(portion.clone(), Mass::new_g(1000.0), density).map_err(|e| e.within("making"))
}

/// The mass and the height of a piece of a lot.
pub fn piece_size(job: &Job, outline: &Outline, density: Density) -> Result<PieceSize, InputErrors> {
    match &job.input().shape.making {
        Making::Cut | Making::Sliced { .. } => {
            Ok(PieceSize { mass: outline.area().mass_at(job.thickness(), density), thickness: job.thickness() })
        }
        Making::Portioned(portion) => {
            let one = portioned(portion, density)?;
            let on_the_whole = one.mass.height_over(outline.area(), density);
            // A figure is done when its thickest part is; a bent rope is nowhere thinner than a straight one.
            let thickest = match portion {
                Portion::Figure { .. } => one.high * SETTLES_TO,
                Portion::Rope { across, bent: Bent::Knot | Bent::Twist, .. } => *across * (PI / 4.0),
                _ => on_the_whole,
            };
            let thickness = if thickest > on_the_whole { thickest } else { on_the_whole };
            Ok(PieceSize { mass: one.mass, thickness })
        }
    }
}

/// What a piece of a lot looks like from above as it goes into the oven: the cutter's outline, the section of the log, or
/// the disc that a ball stands for.
pub fn piece_outline(job: &Job, formula: &Formula, cutter: &Outline) -> Result<Outline, InputErrors> {
    let density = rolled_density(&formula.composition(), job.input().dough.method);
    let points = match &job.input().shape.making {
        Making::Cut => return Ok(cutter.clone()),
        Making::Sliced { form, width, .. } => section(*form, width.mm()),
        Making::Portioned(portion) => return portion_outline(portion, density),
    };
    Outline::new(&points).map_err(|e| InputErrors::from(e).within("making"))
}

/// What a portion looks like from above as it goes into the oven.
pub fn portion_outline(portion: &Portion, density: Density) -> Result<Outline, InputErrors> {
    let one = portioned(portion, density)?;
    let points = match portion {
        Portion::Pressed { .. } | Portion::Stamped { .. } => circle(one.across.mm()),
        Portion::Rope { across, length, bent } => return bent_rope(*bent, *across, *length),
        Portion::TrayBar { width, length, columns, rows, .. } => {
            oblong(width.mm() / f64::from(*columns), length.mm() / f64::from(*rows))
        }
        Portion::Figure { .. } => joined(&one.parts),
        // pi/4 D^2 s d = pi/6 d^3.
        Portion::Ball { .. }
        | Portion::Scoop { .. }
        | Portion::Spoon { .. }
        | Portion::Thumbprint { .. }
        | Portion::Piped { .. } => circle(one.across.mm() * (2.0 / 3.0 / SETTLES_TO).sqrt()),
    };
    Outline::new(&points).map_err(|e| InputErrors::from(e).within("making"))
}

fn circle(across: f64) -> Vec<(f64, f64)> {
    // A regular polygon of the circle's own area.
    let n = f64::from(ROUND_CORNERS);
    let radius = across / 2.0 * (TAU / n / (TAU / n).sin()).sqrt();
    (0..ROUND_CORNERS).map(|i| TAU * f64::from(i) / n).map(|turn| (radius * turn.cos(), radius * turn.sin())).collect()
}

/// A rope as it lies bent.
fn bent_rope(bent: Bent, across: Length, length: Length) -> Result<Outline, InputErrors> {
    let made = |outline: Result<Outline, InputError>| outline.map_err(|e| InputErrors::from(e).within("making"));
    let (d, l) = (across.mm(), length.mm());
    let (wide, high) = bent_extent(bent, across, length);
    match bent {
        Bent::Straight => made(Outline::new(&stadium(l, d))),
        Bent::Twist => made(Outline::new(&stadium(wide.mm(), high.mm()))),
        Bent::Crescent => {
            let (radius, half) = (l / CRESCENT_RADIUS, CRESCENT_RADIUS / 2.0);
            // Full in the middle, tapered to a third at its ends.
            let side = |out: f64| {
                (0..=ROUND_CORNERS / 2).map(move |i| {
                    let along = f64::from(i) / f64::from(ROUND_CORNERS / 2) * 2.0 - 1.0;
                    let width = d * (1.0 - 2.0 / 3.0 * along.powi(4));
                    let (r, turn) = (radius + out * width / 2.0, half * along);
                    (r * turn.sin(), -r * turn.cos())
                })
            };
            let inner: Vec<_> = side(-1.0).collect();
            made(Outline::new(&side(1.0).chain(inner.into_iter().rev()).collect::<Vec<_>>()))
        }
        Bent::Ring => made(Outline::with_holes(&circle(l / PI + d), &[circle(l / PI - d)])),
        Bent::Knot => {
            // Its middle line, drawn by eye: up, over itself and down again; laid to the size of its footprint.
            let line: Vec<(f64, f64)> = KNOT.iter().flat_map(|curve| (0..=24).map(move |i| bezier(curve, i))).collect();
            let (half_w, half_h) =
                line.iter().fold((0.0_f64, 0.0_f64), |m, p| (m.0.max(p.0.abs()), m.1.max(p.1.abs())));
            let (to_w, to_h) = ((wide.mm() - d) / 2.0 / half_w, (high.mm() - d) / 2.0 / half_h);
            let laid: Vec<_> = line.into_iter().map(|(x, y)| (x * to_w, y * to_h)).collect();
            let knot = strand(&laid, d);
            made(Outline::with_holes(&knot.outer, &knot.open))
        }
    }
}

/// A point of a cubic curve, in twenty-fourths of it.
fn bezier(curve: &[(f64, f64); 4], i: u32) -> (f64, f64) {
    let t = f64::from(i) / 24.0;
    let by = [(1.0 - t).powi(3), 3.0 * t * (1.0 - t).powi(2), 3.0 * t * t * (1.0 - t), t.powi(3)];
    curve.iter().zip(by).fold((0.0, 0.0), |sum, (p, w)| (sum.0 + w * p.0, sum.1 + w * p.1))
}

/// Balls put together: a head on the first where the second is large enough for one, the others at the upper edge of the topmost, each let in by
/// a fifth of itself. Common practice, no source.
fn joined(parts: &[Length]) -> Vec<(f64, f64)> {
    let flat = (2.0 / 3.0 / SETTLES_TO).sqrt() / 2.0;
    let radius = |part: &Length| part.mm() * flat;
    let Some((first, rest)) = parts.split_first() else { return vec![] };
    let mut placed = vec![(0.0, 0.0, radius(first))];
    let (mut top, mut others) = ((0.0, 0.0, radius(first)), rest);
    if let Some((second, ears)) = rest.split_first()
        && !ears.is_empty()
        && second.mm() > HEAD_OVER_BODY * first.mm()
    {
        let r = radius(second);
        top = (0.0, -(top.2 + r - LET_IN * 2.0 * r), r);
        placed.push(top);
        others = ears;
    }
    let count = f64::from(u32::try_from(others.len()).unwrap_or(u32::MAX));
    for (i, part) in (0_u32..).zip(others) {
        let turn = if others.len() == 1 { PI / 2.0 } else { PI / 4.0 + PI / 2.0 * f64::from(i) / (count - 1.0) };
        let r = radius(part);
        let away = top.2 + r - LET_IN * 2.0 * r;
        placed.push((top.0 + away * turn.cos(), top.1 - away * turn.sin(), r));
    }
    union_of_rounds(&placed)
}

/// An oblong whose ends are half round.
fn stadium(length: f64, width: f64) -> Vec<(f64, f64)> {
    let (r, reach) = (width / 2.0, (length - width).max(0.0) / 2.0);
    let half = ROUND_CORNERS / 2;
    let end = |side: f64| {
        (0..=half).map(move |i| {
            let turn = PI * f64::from(i) / f64::from(half) - PI / 2.0;
            (side * (reach + r * turn.cos()), side * r * turn.sin())
        })
    };
    end(1.0).chain(end(-1.0)).collect()
}

fn oblong(width: f64, height: f64) -> Vec<(f64, f64)> {
    vec![(0.0, 0.0), (width, 0.0), (width, height), (0.0, height)]
}

fn section(form: LogForm, width: f64) -> Vec<(f64, f64)> {
    let height = form.height(Length::new_mm(width)).mm();
    match form {
        LogForm::Round => circle(width),
        LogForm::Square | LogForm::Oblong { .. } => oblong(width, height),
        LogForm::HalfRound => (0..=ROUND_CORNERS / 2)
            .map(|i| PI * f64::from(i) / f64::from(ROUND_CORNERS / 2))
            .map(|turn| (width / 2.0 * turn.cos(), -height * turn.sin()))
            .collect(),
        LogForm::Wedge { .. } => vec![(0.0, 0.0), (width, 0.0), (width / 2.0, -height)],
    }
}

/// What a lot puts into the cold before it is worked further: the log or bar, or the portions themselves; `None` for cut
/// pieces, whose dough is pressed to discs or rolled first.
pub(crate) fn chilled_form(making: &Making, density: Density) -> Result<Option<Piece>, InputErrors> {
    Ok(match making {
        Making::Cut => None,
        Making::Sliced { form, width, .. } => Some(match form {
            LogForm::Round => Piece::Log { diameter: *width },
            _ => Piece::Bar { width: *width, height: form.height(*width) },
        }),
        Making::Portioned(portion) => Some(portioned(portion, density)?.chills_as),
    })
}

/// The largest sheet a lot is rolled to: no larger than the tray, nor than the lot allows.
#[must_use]
pub fn largest_sheet(job: &Job, kitchen: &Kitchen) -> SheetForm {
    let input = job.input();
    if job.cut_in_place() {
        // It is the paper of the tray.
        let (width, length) = (kitchen.trays().width(), kitchen.trays().length());
        return SheetForm::Oblong { width, length, corner: Length::new_mm(0.0) };
    }
    let within = |own: Length, most: Option<f64>| most.map_or(own, |mm| Length::new_mm(own.mm().min(mm)));
    let width = within(kitchen.trays().width(), input.shape.sheet_width_mm);
    let length = within(kitchen.trays().length(), input.shape.sheet_length_mm);
    match input.shape.sheet {
        SheetKind::Oblong => SheetForm::Oblong { width, length, corner: Length::new_mm(0.0) },
        SheetKind::Round => SheetForm::Round { diameter: if length < width { length } else { width } },
        SheetKind::Oval => SheetForm::Oval { width, length },
    }
}

/// Rows on sheets of a lot's form.
#[derive(Clone)]
enum Rows {
    Oblong(OblongSheets),
    Round(RoundSheets),
}

impl Rows {
    fn new(outline: &Outline, largest: SheetForm, job: &Job) -> Result<Self, InputErrors> {
        let (spacing, turning) = (job.spacing(), job.input().shape.turning);
        let (width, longest) = largest.extent();
        Ok(match largest {
            SheetForm::Oblong { .. } if job.cut_in_place() => Self::Oblong(OblongSheets {
                table: LatticeTable::with_gap(outline, width, longest, spacing.edge(), spacing.web())?,
                width,
                longest,
            }),
            SheetForm::Oblong { .. } => Self::Oblong(OblongSheets {
                table: LatticeTable::for_turning(outline, width, longest, spacing, turning)?,
                width,
                longest,
            }),
            SheetForm::Round { .. } | SheetForm::Oval { .. } => {
                Self::Round(RoundSheets::new(outline, largest, spacing, turning)?)
            }
        })
    }

    fn with_layout(self, job: &Job) -> Result<Self, KeptFault> {
        let (layout, spacing, turning) = (&job.input().shape.layout, job.spacing(), job.input().shape.turning);
        Ok(match self {
            Self::Oblong(o) => {
                Self::Oblong(OblongSheets { table: o.table.with_layout(layout, spacing, turning)?, ..o })
            }
            Self::Round(r) => Self::Round(r.with_layout(layout, spacing, turning)?),
        })
    }

    fn sheets(self) -> Box<dyn Sheets> {
        match self {
            Self::Oblong(o) => Box::new(o),
            Self::Round(r) => Box::new(r),
        }
    }
}

/// The dough that so many pieces take.
pub(crate) enum Source {
    /// Sheets, with why a kept layout is not used, and the lot's share of sheets that are cut together with other lots.
    Sheets(Box<dyn Sheets>, Option<Reason>, Option<MixedShare>),
    /// Logs or bars.
    Logs {
        /// Of a millimetre of log.
        g_per_mm: f64,
        /// Slices of a full log.
        most: u32,
    },
    /// Portions, so many at once: one, or all squares of a tray.
    Portions {
        /// Made at once.
        together: u32,
        /// Length of what is made at once.
        length: Length,
    },
}

impl Source {
    /// Where a job's pieces come from.
    ///
    /// Fails when the cutter is larger than the sheet.
    pub fn of(
        job: &Job,
        outline: &Outline,
        kitchen: &Kitchen,
        density: Density,
        mixed: Option<&Result<MixedShare, MixedFault>>,
    ) -> Result<Self, InputErrors> {
        let input = job.input();
        match &input.shape.making {
            Making::Cut => {
                let largest = largest_sheet(job, kitchen);
                let rows = Rows::new(outline, largest, job)?;
                let (mixed, mixed_fault) = match mixed {
                    Some(Ok(share)) => (Some(share.clone()), None),
                    Some(Err(fault)) => (None, Some(Reason::SheetsNotUsed { fault: fault.clone() })),
                    None => (None, None),
                };
                if input.shape.layout.is_empty() || mixed.is_some() {
                    return Ok(Self::Sheets(rows.sheets(), mixed_fault, mixed));
                }
                Ok(match rows.clone().with_layout(job) {
                    Ok(table) => Self::Sheets(table.sheets(), mixed_fault, None),
                    Err(fault) => Self::Sheets(rows.sheets(), Some(Reason::LayoutNotUsed { fault }), None),
                })
            }
            Making::Sliced { form, width, longest, .. } => {
                let usable = longest.mm() - 2.0 * input.shape.making.trim().mm();
                #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a log of 500 mm at most")]
                let most = (usable / job.thickness().mm() + 1e-9).floor().max(1.0) as u32;
                Ok(Self::Logs { g_per_mm: form.area(*width).mass_at(Length::new_mm(1.0), density).g(), most })
            }
            Making::Portioned(portion) => Ok(match portion {
                Portion::TrayBar { length, columns, rows, .. } => {
                    Self::Portions { together: columns * rows, length: *length }
                }
                _ => Self::Portions { together: 1, length: portioned(portion, density)?.across },
            }),
        }
    }

    /// Why a kept layout is not used.
    pub fn fault(&self) -> Option<&Reason> {
        match self {
            Self::Sheets(_, fault, _) => fault.as_ref(),
            Self::Logs { .. } | Self::Portions { .. } => None,
        }
    }

    /// The least dough for so many pieces, with what becomes of it. A log or a portion counts as the sheet of a first roll
    /// that holds no layout.
    pub fn demand(
        &self,
        job: &Job,
        kitchen: &Kitchen,
        piece: Mass,
        density: Density,
        pieces: u32,
    ) -> Result<DemandAnswer, InputErrors> {
        let mix_limit = kitchen.mixer().most(density).0;
        let (count, each, length) = match self {
            Self::Sheets(_, _, Some(share)) if share.pieces == pieces => {
                return Ok(share.demand(piece, job.thickness(), density, job.rolling(), mix_limit));
            }
            Self::Sheets(sheets, ..) => {
                return Ok(crate::shape::demand_to_dough(&Demand {
                    sheets: sheets.as_ref(),
                    piece,
                    pieces,
                    thickness: job.thickness(),
                    density,
                    mix_limit,
                    rules: job.rolling(),
                })?);
            }
            Self::Logs { g_per_mm, most } => {
                let logs = pieces.div_ceil(*most);
                let slices = pieces.div_ceil(logs.max(1));
                let length = job.thickness() * f64::from(slices) + job.input().shape.making.trim() * 2.0;
                (logs, Mass::new_g(g_per_mm * length.mm()), length)
            }
            Self::Portions { together, length } => (pieces.div_ceil(*together), piece * f64::from(*together), *length),
        };
        let formed = each * f64::from(count);
        let dough = formed * (1.0 + job.rolling().reserve().value());
        crate::dough::within_mixes(dough, mix_limit)?;
        let mixes = crate::dough::mixes_of(dough, mix_limit);
        Ok(DemandAnswer {
            dough,
            reserve: dough - formed,
            mixes,
            rolls: vec![Roll {
                number: 0,
                sheets: count,
                form: SheetForm::Oblong { width: length, length, corner: Length::new_mm(0.0) },
                mass: each,
                layout: Layout { pieces: vec![], length, least_gap: None, nested: false },
                pieces,
            }],
            left: formed - piece * f64::from(pieces),
            lost: Mass::new_g(0.0),
            flour_taken_up: Share::new(0.0),
            from_second_reroll: 0,
        })
    }
}
