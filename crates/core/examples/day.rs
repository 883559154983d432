//! Prints how long days of 3, 8, 24 and 40 trays take to plan and how near the plans are to what no plan can beat. `make bench` runs it.

use rand::{RngExt, SeedableRng};
use rand_pcg::Pcg32;
use ready_slab_core::clock::{Day, DayBatch, DayKitchen, PlanBudget, broken_rules, plan_day};
use std::time::Instant;

/// A made-up day of batches of one to six trays, in the ranges of common practice.
fn made_up(trays: usize, seed: u64) -> Day {
    let mut chance = Pcg32::seed_from_u64(seed);
    let mut batches = vec![];
    let mut left = trays;
    while left > 0 {
        let n = chance.random_range(1..=6).min(left);
        left -= n;
        let chill = chance.random_range(15..=75);
        let cut = chance.random_range(5..=12);
        batches.push(DayBatch {
            mix_min: chance.random_range(8..=18),
            form_min: chance.random_range(2..=8),
            chill_min: chill,
            rests: vec![(chill + chance.random_range(30..=90), chance.random_range(5..=20))],
            window_min: chance.random_range(cut + 2..=cut + 25),
            tray_chill_min: chance.random_range(5..=20),
            tray_chill_max: chance.random_range(60..=180),
            oven_c: [165.0, 175.0, 175.0, 190.0][chance.random_range(0..4)],
            bake_min: chance.random_range(9..=18),
            cool_min: chance.random_range(3..=10),
            ..DayBatch::plain(vec![cut; n], 175.0, 12)
        });
    }
    let big = trays > 10;
    let kitchen = DayKitchen {
        hands: if big { 2 } else { 1 },
        mixers: 1,
        fridge_slots: if big { 8 } else { 4 },
        freezer_slots: if big { 6 } else { 2 },
        trays: if big { 10 } else { 4 },
        ovens: if big { 2 } else { 1 },
        racks_per_oven: chance.random_range(1..=2),
        preheat_min: 20,
        temp_change_min: 10,
        rechill_min: 15,
        cooling_slots: 6,
    };
    Day { kitchen, batches }
}

/// A run: minutes on the wall in ms, percent over the bound, whether no plan is shorter.
type Run = (f64, f64, bool);

fn main() {
    println!("trays\tfirst plan ms\t0.2 s: ms\tover bound\t1 s: ms\tover bound\tproved");
    for trays in [3, 8, 24, 40] {
        let mut rows = vec![];
        for seed in 0..6 {
            let day = made_up(trays, seed);
            let timed = |seconds: f64| {
                let start = Instant::now();
                let plan =
                    plan_day(&day, PlanBudget { seconds, seed: 1 }).expect("a day of common practice can be planned");
                let ms = start.elapsed().as_secs_f64() * 1000.0;
                assert_eq!(broken_rules(&day, &plan.tasks), vec![]);
                (ms, 100.0 * (f64::from(plan.makespan_min) / f64::from(plan.bound_min) - 1.0), plan.proved())
            };
            rows.push([timed(0.0), timed(0.2), timed(1.0)]);
        }
        let mean = |of: &dyn Fn(&[Run; 3]) -> f64| rows.iter().map(of).sum::<f64>() / 6.0;
        println!(
            "{trays}\t{:.1}\t{:.0}\t{:.1} %\t{:.0}\t{:.1} %\t{} of 6",
            mean(&|r| r[0].0),
            mean(&|r| r[1].0),
            mean(&|r| r[1].1),
            mean(&|r| r[2].0),
            mean(&|r| r[2].1),
            rows.iter().filter(|r| r[2].2).count(),
        );
    }
}
