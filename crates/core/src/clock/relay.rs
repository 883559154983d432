//! A simple relay: while one tray chills the next is cut and one bakes. Whole minutes, counted back from the wanted time.
//!
//! Every step is put as late as its successor and the one pair of hands allow, so the plan starts as late as this greedy
//! order can; it does not search for a better order (a later planner may).

/// What the relay is planned from. All spans in whole minutes.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayInput {
    /// Mixes, in order.
    pub mixes: u32,
    /// Weighing and mixing one.
    pub mix_min: i64,
    /// Pressing its discs, or rolling its sheets between papers.
    pub form_min: i64,
    /// In the cold until it can be worked.
    pub chill_min: i64,
    /// Hands a tray: rolling and cutting, or cutting alone.
    pub cut_min: Vec<i64>,
    /// Cut pieces in the cold before the oven.
    pub tray_chill_min: i64,
    /// In the oven, the longer end of the range.
    pub bake_min: i64,
    /// On the tray afterwards.
    pub cool_min: i64,
    /// Trays owned.
    pub trays_owned: u32,
    /// Trays that go into an oven together.
    pub racks: u32,
    /// Ovens.
    pub ovens: u32,
    /// Heating the oven.
    pub preheat_min: i64,
}

/// Who or what a task occupies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Lane {
    /// The one pair of hands.
    Hands,
    /// A cold place.
    Cold,
    /// An oven.
    Oven,
    /// A rack or counter to cool on.
    Cooling,
}

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Step {
    /// Weigh and mix.
    Mix,
    /// Press or roll for the cold.
    Form,
    /// Dough chill.
    Chill,
    /// Roll and cut.
    Cut,
    /// Tray chill.
    TrayChill,
    /// Heat the oven.
    Preheat,
    /// Bake.
    Bake,
    /// Cool on the tray.
    Cool,
}

/// One bar of the timeline.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayTask {
    /// What is done.
    pub step: Step,
    /// What it occupies.
    pub lane: Lane,
    /// The mix (from 0), for the steps up to the dough chill.
    pub mix: Option<u32>,
    /// The tray (from 0), from the cut on.
    pub tray: Option<u32>,
    /// The oven (from 0), for preheating and baking.
    pub oven: Option<u32>,
    /// Minutes after the wanted time: negative.
    pub start_min: i64,
    /// End of the half-open interval.
    pub end_min: i64,
    /// Why it lies there, where something other than its successor holds it; empty otherwise.
    pub why: String,
}

/// The whole relay.
#[derive(Debug, Clone, PartialEq)]
pub struct Relay {
    /// All tasks by start.
    pub tasks: Vec<RelayTask>,
    /// Start of the first, minutes after the wanted time (negative).
    pub start_min: i64,
    /// Minutes of hands.
    pub hands_min: i64,
}

/// Lays the relay out so that the last tray has cooled at minute 0.
#[must_use]
pub fn plan_relay(input: &RelayInput) -> Relay {
    let trays = input.cut_min.len();
    let racks = as_usize(input.racks.min(input.trays_owned).max(1));
    let owned = as_usize(input.trays_owned);
    let mut tasks = Vec::new();
    let mut hands = Busy::default();
    // For each oven, the start of the load that follows.
    let mut oven_free = vec![i64::MAX; as_usize(input.ovens).max(1)];
    let mut cut_start = vec![0_i64; trays];
    let loads: Vec<Vec<usize>> = (0..trays).collect::<Vec<_>>().chunks(racks).map(<[usize]>::to_vec).collect();
    for load in loads.iter().rev() {
        let oven = (0..oven_free.len()).max_by_key(|&o| (oven_free[o], std::cmp::Reverse(o))).unwrap_or(0);
        // A tray must have cooled before the tray that takes it over is cut.
        let reuse = load.iter().filter(|&&t| t + owned < trays).map(|&t| cut_start[t + owned]).min();
        let cooled = reuse.unwrap_or(0).min(0);
        let bake_end = (cooled - input.cool_min).min(oven_free[oven]);
        let bake_start = bake_end - input.bake_min;
        let why = if oven_free[oven] < cooled - input.cool_min {
            "early, for the next tray wants the oven"
        } else if reuse.is_some_and(|r| r < 0) {
            "early, so that its tray is free again"
        } else {
            ""
        };
        oven_free[oven] = bake_start;
        for &tray in load.iter().rev() {
            let number = as_u32(tray);
            let task = |step, lane, start: i64, end: i64, why: &str| RelayTask {
                step,
                lane,
                mix: None,
                tray: Some(number),
                oven: matches!(lane, Lane::Oven).then_some(as_u32(oven)),
                start_min: start,
                end_min: end,
                why: why.to_owned(),
            };
            let cut_end = hands.latest(bake_start - input.tray_chill_min, input.cut_min[tray]);
            let held = bake_start - input.tray_chill_min - cut_end;
            cut_start[tray] = cut_end - input.cut_min[tray];
            tasks.push(task(Step::Cut, Lane::Hands, cut_start[tray], cut_end, ""));
            let waits = if held > 0 {
                format!("{held} min longer than it must: the hands are at the next tray")
            } else {
                String::new()
            };
            tasks.push(task(Step::TrayChill, Lane::Cold, cut_end, bake_start, &waits));
            tasks.push(task(Step::Bake, Lane::Oven, bake_start, bake_end, why));
            tasks.push(task(Step::Cool, Lane::Cooling, bake_end, bake_end + input.cool_min, ""));
        }
    }
    for (oven, first_bake) in oven_free.iter().enumerate().filter(|(_, start)| **start < i64::MAX) {
        tasks.push(RelayTask {
            step: Step::Preheat,
            lane: Lane::Oven,
            mix: None,
            tray: None,
            oven: Some(as_u32(oven)),
            start_min: first_bake - input.preheat_min,
            end_min: *first_bake,
            why: String::new(),
        });
    }
    // A mix is wanted when the first tray that uses it is cut; a tray may use the end of one and the start of the next.
    let mixes = as_usize(input.mixes).max(1);
    for mix in (0..mixes).rev() {
        let first_tray = (mix * trays / mixes).min(trays.saturating_sub(1));
        let wanted = cut_start.get(first_tray).copied().unwrap_or(0);
        let formed = hands.latest(wanted - input.chill_min, input.mix_min + input.form_min);
        let waits = wanted - input.chill_min - formed;
        let number = Some(as_u32(mix));
        let task = |step, lane, start: i64, end: i64, why: String| RelayTask {
            step,
            lane,
            mix: number,
            tray: None,
            oven: None,
            start_min: start,
            end_min: end,
            why,
        };
        let form_start = formed - input.form_min;
        tasks.push(task(Step::Mix, Lane::Hands, form_start - input.mix_min, form_start, String::new()));
        tasks.push(task(Step::Form, Lane::Hands, form_start, formed, String::new()));
        let why =
            if waits > 0 { format!("{waits} min longer than it must: the hands are busy") } else { String::new() };
        tasks.push(task(Step::Chill, Lane::Cold, formed, wanted, why));
    }
    tasks.sort_by_key(|t| (t.start_min, t.end_min));
    let start_min = tasks.first().map_or(0, |t| t.start_min);
    let hands_min = tasks.iter().filter(|t| t.lane == Lane::Hands).map(|t| t.end_min - t.start_min).sum();
    Relay { tasks, start_min, hands_min }
}

/// Busy half-open intervals, sorted by start, not overlapping.
#[derive(Default)]
struct Busy(Vec<(i64, i64)>);

impl Busy {
    /// Books the latest free interval of `length` that ends by `by` and returns its end.
    fn latest(&mut self, by: i64, length: i64) -> i64 {
        let mut end = by;
        for &(start, stop) in self.0.iter().rev() {
            if stop <= end - length {
                break;
            }
            if start < end {
                end = end.min(start);
            }
        }
        let at = self.0.partition_point(|b| b.0 < end - length);
        if length > 0 {
            self.0.insert(at, (end - length, end));
        }
        end
    }
}

fn as_usize(n: u32) -> usize {
    usize::try_from(n).unwrap_or(usize::MAX)
}

fn as_u32(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn input(trays: usize, owned: u32) -> RelayInput {
        RelayInput {
            mixes: 2,
            mix_min: 12,
            form_min: 4,
            chill_min: 30,
            cut_min: vec![6; trays],
            tray_chill_min: 12,
            bake_min: 14,
            cool_min: 8,
            trays_owned: owned,
            racks: 1,
            ovens: 1,
            preheat_min: 20,
        }
    }

    fn overlap(a: &RelayTask, b: &RelayTask) -> bool {
        a.start_min < b.end_min && b.start_min < a.end_min
    }

    fn assert_sound(input: &RelayInput, relay: &Relay) {
        for (i, a) in relay.tasks.iter().enumerate() {
            for b in &relay.tasks[i + 1..] {
                if a.lane == Lane::Hands && b.lane == Lane::Hands {
                    assert!(!overlap(a, b), "one pair of hands: {a:?} {b:?}");
                }
                if a.lane == Lane::Oven && b.lane == Lane::Oven && a.oven == b.oven && overlap(a, b) {
                    assert_eq!((a.start_min, a.end_min), (b.start_min, b.end_min), "the door opens only between loads");
                }
            }
        }
        for tray in 0..input.cut_min.len() {
            let of = |step| {
                relay.tasks.iter().find(|t| t.step == step && t.tray == Some(u32::try_from(tray).unwrap())).unwrap()
            };
            let (cut, chill, bake, cool) = (of(Step::Cut), of(Step::TrayChill), of(Step::Bake), of(Step::Cool));
            assert!(
                cut.end_min == chill.start_min && chill.end_min == bake.start_min && bake.end_min == cool.start_min
            );
            assert!(chill.end_min - chill.start_min >= input.tray_chill_min);
            assert_eq!(bake.end_min - bake.start_min, input.bake_min);
            assert!(cool.end_min <= 0);
            // Trays on the go at any moment never exceed those owned.
            let busy = (0..input.cut_min.len())
                .filter(|other| {
                    let at = |step| {
                        relay
                            .tasks
                            .iter()
                            .find(|t| t.step == step && t.tray == Some(u32::try_from(*other).unwrap()))
                            .unwrap()
                    };
                    at(Step::Cut).start_min <= cut.start_min && at(Step::Cool).end_min > cut.start_min
                })
                .count();
            assert!(busy <= usize::try_from(input.trays_owned).unwrap(), "{busy} trays at once");
        }
        for chill in relay.tasks.iter().filter(|t| t.step == Step::Chill) {
            assert!(chill.end_min - chill.start_min >= input.chill_min);
        }
    }

    #[test]
    fn a_relay_ends_at_the_wanted_time_and_keeps_one_pair_of_hands() {
        let i = input(4, 4);
        let relay = plan_relay(&i);
        assert_sound(&i, &relay);
        assert_eq!(relay.tasks.iter().map(|t| t.end_min).max(), Some(0));
        // By hand: four bakes of 14 back to back end at -8, so the first goes in at -64; cut before it -76 to -82.
        let first = relay.tasks.iter().find(|t| t.step == Step::Bake).unwrap();
        assert_eq!((first.start_min, first.end_min), (-64, -50));
    }

    #[test]
    fn fewer_trays_start_earlier() {
        let (two, four) = (plan_relay(&input(6, 2)), plan_relay(&input(6, 4)));
        assert!(two.start_min < four.start_min);
        assert!(two.tasks.iter().any(|t| t.why.contains("tray is free")));
    }

    proptest! {
        #[test]
        fn every_relay_is_sound(trays in 1usize..14, owned in 1u32..8, racks in 1u32..4, ovens in 1u32..3, mixes in 1u32..4, bake in 5i64..30, cut in 1i64..20, chill in 0i64..90) {
            let i = RelayInput { mixes, racks, ovens, bake_min: bake, cut_min: vec![cut; trays], chill_min: chill, ..input(trays, owned) };
            assert_sound(&i, &plan_relay(&i));
        }
    }
}
