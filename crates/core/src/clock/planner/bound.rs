//! No plan of a day is shorter than this: each batch by itself, and each resource by the work it has.

use super::day::{Day, DayBatch, DayPlace};

/// Work on a resource: minutes of the day that go before it, that it takes, and that follow it, at least.
#[derive(Debug, Clone, Copy)]
struct Work {
    before: i32,
    takes: i32,
    after: i32,
}

impl Work {
    fn alone(self) -> i32 {
        self.before + self.takes + self.after
    }
}

/// Least length of the day, min. Of some work on a resource, the least that goes before any of it, all that it takes and the least that follows
/// add up; for one place that is as sharp as a plan that may be interrupted (J. R. Jackson 1955).
pub(super) fn bound(day: &Day) -> i32 {
    let k = &day.kitchen;
    let (mut hands, mut mixers, mut trays, mut cold, mut cooling, mut bakes) =
        (vec![], vec![], vec![], vec![], vec![], vec![]);
    let mut fridge = vec![];
    let mut alone = 0;
    for (at, batch) in day.batches.iter().enumerate() {
        let lead = &day.batches[batch.mixed_by.unwrap_or(at)];
        let dough =
            lead.mix_min + batch.bulk_min + batch.form_min + batch.chill_min + batch.rest_after(batch.chill_min);
        // Each outing holds as many cuts as fit its window; between outings it goes back into the cold.
        let mut cuts = vec![];
        let (mut passed, mut outing) = (0, 0);
        for &cut in &batch.cut_min {
            if outing + cut > batch.window_min && outing > 0 {
                passed += k.rechill_min;
                outing = 0;
            }
            cuts.push((passed, cut));
            passed += cut;
            outing += cut;
        }
        for (tray, &(passed, cut)) in cuts.iter().enumerate() {
            let tail = batch.wanted_before_min
                + if batch.warm {
                    -batch.cool_min
                } else {
                    DayBatch::of(&batch.pack_min, tray)
                        + batch.dry_min
                        + DayBatch::of(&batch.finish_min, tray)
                        + batch.rack_min
                };
            let (chill, bake, cool) = (batch.tray_chill_min, batch.bake_min, batch.cool_min);
            let before_cut = dough + passed;
            let before_bake = before_cut + cut + chill;
            hands.push(Work { before: before_cut, takes: cut, after: chill + bake + cool + tail });
            trays.push(Work { before: before_cut, takes: cut + chill + bake + cool, after: tail });
            cold.push(Work { before: before_cut + cut, takes: chill, after: bake + cool + tail });
            cooling.push(Work { before: before_bake + bake, takes: cool, after: tail });
            let work = Work { before: before_bake.max(k.preheat_min), takes: bake, after: cool + tail };
            alone = alone.max(work.alone());
            bakes.push((work, batch.oven_c));
        }
        let last = cuts.last().map_or(0, |c| c.0 + c.1);
        let after = batch.tray_chill_min
            + batch.bake_min
            + batch.wanted_before_min
            + if batch.warm { 0 } else { batch.cool_min };
        let after_dough = last + after;
        let formed = dough - batch.chill_min - batch.rest_after(batch.chill_min);
        let chilled = Work { before: formed, takes: batch.chill_min, after: after_dough };
        match batch.dough_place {
            DayPlace::Fridge => {
                cold.push(chilled);
                fridge.push(chilled);
            }
            DayPlace::Freezer => cold.push(chilled),
            DayPlace::Counter => {}
        }
        let to_cut = batch.chill_min + after_dough;
        hands.push(Work { before: lead.mix_min + batch.bulk_min, takes: batch.form_min, after: to_cut });
        if batch.mixed_by.is_none() {
            let mix = Work { before: 0, takes: batch.mix_min, after: batch.bulk_min + batch.form_min + to_cut };
            hands.push(mix);
            mixers.push(mix);
        }
    }
    let found = [
        by_place(&hands, k.hands),
        by_place(&mixers, k.mixers),
        by_place(&trays, k.trays),
        by_place(&cold, k.fridge_slots + k.freezer_slots),
        by_place(&fridge, k.fridge_slots),
        by_place(&cooling, k.cooling_slots),
        in_ovens(day, &bakes),
    ];
    found.into_iter().fold(alone, i32::max)
}

/// Every set of work that is told by what goes before it and what follows it, at least.
fn sets(work: &[Work]) -> impl Iterator<Item = (i32, i32)> {
    let mut before: Vec<i32> = work.iter().map(|w| w.before).collect();
    let mut after: Vec<i32> = work.iter().map(|w| w.after).collect();
    for values in [&mut before, &mut after] {
        values.sort_unstable();
        values.dedup();
    }
    before.into_iter().flat_map(move |b| after.clone().into_iter().map(move |a| (b, a)))
}

fn by_place(work: &[Work], places: u32) -> i32 {
    let Ok(places @ 1..) = i32::try_from(places) else { return 0 };
    let work: Vec<Work> = work.iter().copied().filter(|w| w.takes > 0).collect();
    let of = |(before, after)| {
        let inside = work.iter().filter(|w| w.before >= before && w.after >= after);
        let takes: i32 = inside.map(|w| w.takes).sum();
        if takes == 0 { 0 } else { before + (takes + places - 1) / places + after }
    };
    sets(&work).map(of).max().unwrap_or(0)
}

fn in_ovens(day: &Day, bakes: &[(Work, f64)]) -> i32 {
    let k = &day.kitchen;
    let (Ok(ovens @ 1..), Ok(racks @ 1..)) = (i32::try_from(k.ovens), i32::try_from(k.racks_per_oven)) else {
        return 0;
    };
    let work: Vec<Work> = bakes.iter().map(|b| b.0).collect();
    let of = |(before, after)| {
        let mut kinds: Vec<(f64, i32, i32)> = vec![];
        for (work, heat) in bakes.iter().filter(|(w, _)| w.before >= before && w.after >= after) {
            match kinds.iter_mut().find(|k| k.0.total_cmp(heat).is_eq() && k.1 == work.takes) {
                Some(kind) => kind.2 += 1,
                None => kinds.push((*heat, work.takes, 1)),
            }
        }
        if kinds.is_empty() {
            return 0;
        }
        let loads: i32 = kinds.iter().map(|(_, bake, trays)| (trays + racks - 1) / racks * bake).sum();
        let mut heats: Vec<u64> = kinds.iter().map(|k| k.0.to_bits()).collect();
        heats.sort_unstable();
        heats.dedup();
        // Each heat after an oven's first is settled to.
        let changes = (i32::try_from(heats.len()).unwrap_or(0) - ovens).max(0) * k.temp_change_min;
        before + (loads + changes + ovens - 1) / ovens + after
    };
    sets(&work).map(of).max().unwrap_or(0)
}
