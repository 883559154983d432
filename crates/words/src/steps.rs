//! What each step of a run sheet is called.

use crate::finish::coat;
use crate::names::Name;
use ready_slab_core::clock::{RelayTask, Step};
use ready_slab_core::cold::Piece;
use ready_slab_core::job::{ChillFor, Job, Making, Plan, Thaw};
use ready_slab_core::shape::Portion;

/// What is done in a step of a job.
#[must_use]
pub fn step(task: &RelayTask, job: &Job, plan: &Plan) -> String {
    let cold = &plan.cold;
    let making = &job.input().shape.making;
    let (cut, sliced) = (*making == Making::Cut, matches!(making, Making::Sliced { .. }));
    let pan = matches!(making, Making::Portioned(Portion::TrayBar { .. }));
    let first = job.portions_first();
    let several = cold.form.count != 1;
    let one_or = |one: &'static str, more: &'static str| if several { more } else { one };
    let number = task.mix.map_or(1, |mix| mix + 1);
    let mix = (number > 1 || plan.dough.mixes.count > 1).then(|| format!("batch {number}"));
    let named = mix.as_ref().map_or_else(String::new, |mix| format!(" {mix}"));
    let the_dough = || mix.clone().unwrap_or_else(|| "the dough".to_owned());
    let sheets = matches!(cold.form.piece, Piece::Sheet { .. } | Piece::Stack { .. }) && cold.stays != ChillFor::No;
    let tray = task.tray.map_or(1, |tray| tray + 1);
    let on_tray = plan.shape.trays.fill.get(usize::try_from(tray - 1).unwrap_or(0)).copied().unwrap_or(0);
    let coats = |before: bool| {
        let of = plan.finish.coats.iter().filter(move |c| c.coat.work().before_the_bake == before);
        of.map(|c| coat(c.coat).0)
    };
    match task.step {
        Step::Mix => format!("Weigh and mix {}", the_dough()),
        Step::Form if sliced => format!("Shape{named} into {} and wrap", one_or("a log", "logs")),
        Step::Form if pan && first => {
            format!("Spread{named} in the {}", one_or("pan", "pans"))
        }
        Step::Form if !cut && first => format!("Portion {}", the_dough()),
        Step::Form if !cut || matches!(cold.form.piece, Piece::Ball { .. }) => {
            format!("Scrape {} together and cover", the_dough())
        }
        Step::Form if sheets => format!("Roll{named} between parchment"),
        Step::Form => format!("Press{named} into {} and wrap", one_or("a disc", "discs")),
        Step::BulkChill => {
            let place = cold.bulk.as_ref().map_or(cold.place, |b| b.place).name();
            format!("Put {} in the {place}, in one lump", the_dough())
        }
        Step::Thaw => {
            let what = match cold.form.piece {
                _ if sliced => one_or("log", "logs"),
                Piece::Disc { .. } => one_or("disc", "discs"),
                _ => "dough",
            };
            match cold.thaw.map(|t| t.way) {
                Some(Thaw::Bench) => format!("Move the {what} from freezer to bench, still wrapped"),
                _ => format!("Move the {what} from freezer to fridge"),
            }
        }
        Step::Chill => {
            let what = if sliced {
                one_or("log", "logs")
            } else if cut || !first {
                "dough"
            } else if pan {
                "pans"
            } else {
                "portions"
            };
            format!("Put {} in the {}", mix.clone().unwrap_or_else(|| format!("the {what}")), cold.place.name())
        }
        Step::Cut => {
            let prick = job.input().shape.pricked.then(|| "prick".to_owned());
            let more: String =
                prick.into_iter().chain(coats(true).map(str::to_lowercase)).map(|more| format!(", {more}")).collect();
            let what = if sliced {
                format!("Slice tray {tray}: {on_tray} cookies")
            } else if pan {
                format!("Press the dough into pan {tray}")
            } else if !cut && !first {
                format!("Portion tray {tray}: {on_tray} cookies")
            } else if !cut {
                format!("Fill tray {tray}: {on_tray} cookies")
            } else {
                let cuts = if sheets { "Cut" } else { "Roll and cut" };
                let paper = if job.cut_in_place() { " on its parchment" } else { "" };
                format!("{cuts} tray {tray}{paper}: {on_tray} cookies")
            };
            format!("{what}{more}")
        }
        Step::TrayChill => {
            let place = cold.tray_chill.as_ref().map_or(cold.place, |t| t.place).name();
            format!("Put tray {tray} in the {place}")
        }
        Step::Rest => format!("Rest {} on the bench to soften", the_dough()),
        Step::Preheat => "Preheat the oven".to_owned(),
        Step::Bake => format!("Put tray {tray} in the oven"),
        Step::Cool => format!("Take tray {tray} out; leave the cookies on it"),
        Step::CoolOnRack => format!("Move tray {tray}’s cookies to the rack"),
        Step::Finish => {
            format!("{}: tray {tray}, {on_tray} cookies", coats(false).collect::<Vec<_>>().join(", "))
        }
        Step::Dry => format!("Let tray {tray} dry, in one layer"),
        Step::Pack => format!("Pack tray {tray}"),
    }
}
