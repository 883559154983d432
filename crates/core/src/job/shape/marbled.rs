//! Scraps of two doughs pressed together and rolled once: marbled pieces of what would be left over.

use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::Outline;
use crate::job::plan::compute_sheet;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::shape::pieces::largest_sheet;
use crate::shape::Layout;
use crate::units::{Area, Density, Length, Mass, Share};

/// Both doughs are torn to pieces so large before they are pressed together: smaller turns grey, larger shows no marbling. Common practice, no
/// source.
pub const GRAIN: (Length, Length) = (Length::new_mm(10.0), Length::new_mm(20.0));

/// A sheet of two doughs.
#[derive(Debug, Clone, PartialEq)]
pub struct Marbled {
    /// Both together.
    pub mass: Mass,
    /// Of it, the other dough.
    pub other: Share,
    /// Wide and long it is rolled to.
    pub sheet: (Length, Length),
    /// Where its pieces are cut.
    pub layout: Layout,
    /// How many.
    pub pieces: u32,
    /// Of one.
    pub piece: Mass,
    /// What is left: it is not rolled again, or the marbling is lost.
    pub left: Mass,
}

/// What so much of a job's dough and so much of another, each with its density, give with the job's cutter and thickness.
///
/// Fails, naming the field, for masses outside 5 g to 20 kg, and where the job is not cut from a sheet.
pub fn marbled(
    job: &Job,
    outline: &Outline,
    kitchen: &Kitchen,
    (own, own_density): (Mass, Density),
    (other, other_density): (Mass, Density),
) -> Result<Marbled, InputErrors> {
    if job.input().shape.making != Making::Cut {
        return Err(InputError::refused("making", "You can marble scraps only from cookies cut from a sheet.").into());
    }
    let mut checks = Checks::new();
    checks.range("own_g", own.g(), 5.0, 20_000.0, "g");
    checks.range("other_g", other.g(), 5.0, 20_000.0, "g");
    checks.finish(())?;
    let (width, longest) = largest_sheet(job, kitchen).extent();
    let (a, b) = (own.rolled_to(job.thickness(), own_density), other.rolled_to(job.thickness(), other_density));
    let all = Area::new_mm2(a.mm2() + b.mm2());
    // A small heap is rolled about as wide as long.
    let side = all.mm2().sqrt();
    let width =
        Length::new_mm(width.mm().min(side.max(outline.extent().0.mm() + 2.0 * job.bench_spacing().edge().mm())));
    let length = Length::new_mm((all.mm2() / width.mm()).min(longest.mm()));
    let layout =
        compute_sheet(outline, width, longest, job.bench_spacing(), Some(Area::new_mm2(width.mm() * length.mm())));
    // Too little for one piece is none, not a fault.
    let layout = layout.unwrap_or(Layout { pieces: vec![], length, least_gap: None, nested: false });
    let pieces = u32::try_from(layout.pieces.len()).unwrap_or(u32::MAX);
    let mass = own + other;
    let piece = mass * (outline.area().mm2() / all.mm2());
    Ok(Marbled {
        mass,
        other: Share::new(other / mass),
        sheet: (width, length),
        pieces,
        piece,
        left: mass - piece * f64::from(pieces),
        layout,
    })
}
