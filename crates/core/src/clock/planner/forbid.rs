//! Which rule forbids a day.

use super::day::{Day, DayBatch, DayPlace};
use super::{PlanBudget, laid};
use serde::{Deserialize, Serialize};

/// What a day lacks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DayRule {
    /// Hands.
    Hands,
    /// A mixer.
    Mixers,
    /// A place in the fridge.
    FridgeSlots,
    /// A place in the freezer.
    FreezerSlots,
    /// A tray.
    Trays,
    /// An oven, or a rack in it.
    Ovens,
    /// A place to cool.
    CoolingSlots,
    /// Rolling and cutting a tray takes longer than the dough can be worked.
    WorkWindow,
    /// It is to chill longer than it may.
    TrayChill,
    /// All together: no order was found in which it goes.
    Together,
}

/// A rule that forbids a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Forbidden {
    /// The rule.
    pub rule: DayRule,
    /// The batch, from 0, that it forbids; all together when none is said.
    pub batch: Option<usize>,
    /// Least that would do, in places or minutes; nothing where that is not known.
    pub needs: Option<i32>,
    /// And what there is.
    pub has: i32,
}

fn number(n: u32) -> i32 {
    i32::try_from(n).unwrap_or(i32::MAX)
}

/// What forbids a batch whatever the order.
pub(super) fn by_itself(day: &Day) -> Vec<Forbidden> {
    let k = &day.kitchen;
    let mut found = vec![];
    for (at, b) in day.batches.iter().enumerate() {
        let mut wants = |rule, wanted: bool, needs: i32, has: i32| {
            if wanted && has < needs {
                found.push(Forbidden { rule, batch: Some(at), needs: Some(needs), has });
            }
        };
        let longest_cut = b.cut_min.iter().copied().max().unwrap_or(0);
        let cuts: i32 = b.cut_min.iter().sum();
        let hands = b.mix_min + b.form_min + cuts + b.finish_min.iter().chain(&b.pack_min).sum::<i32>();
        wants(DayRule::Hands, hands > 0, 1, number(k.hands));
        wants(DayRule::Mixers, b.mix_min > 0, 1, number(k.mixers));
        let goes_back = cuts > b.window_min;
        let in_fridge = b.dough_place == DayPlace::Fridge && (b.chill_min > 0 || b.bulk_min > 0 || goes_back);
        wants(DayRule::FridgeSlots, in_fridge, 1, number(k.fridge_slots));
        let in_freezer = b.dough_place == DayPlace::Freezer && (b.chill_min > 0 || b.bulk_min > 0 || goes_back);
        wants(DayRule::FreezerSlots, in_freezer, 1, number(k.freezer_slots));
        wants(DayRule::Trays, b.trays() > 0, 1, number(k.trays));
        wants(DayRule::Ovens, b.trays() > 0, 1, number(k.ovens.min(k.racks_per_oven)));
        wants(DayRule::CoolingSlots, b.trays() > 0 && b.cool_min > 0, 1, number(k.cooling_slots));
        wants(DayRule::WorkWindow, true, longest_cut, b.window_min);
        let chills = b.trays() > 0 && b.tray_chill_min > 0;
        wants(DayRule::TrayChill, chills, b.tray_chill_min, b.tray_chill_max);
        match b.tray_place {
            Some(DayPlace::Fridge) => wants(DayRule::FridgeSlots, chills, 1, number(k.fridge_slots)),
            Some(DayPlace::Freezer) => wants(DayRule::FreezerSlots, chills, 1, number(k.freezer_slots)),
            Some(DayPlace::Counter) => {}
            None => wants(DayRule::FridgeSlots, chills, 1, number(k.fridge_slots.saturating_add(k.freezer_slots))),
        }
    }
    found
}

/// What is short when no order was found: the first one of which one more would do.
pub(super) fn by_search(day: &Day, budget: PlanBudget) -> Vec<Forbidden> {
    let k = &day.kitchen;
    type More = fn(&mut Day);
    let tries: [(DayRule, u32, More); 6] = [
        (DayRule::FridgeSlots, k.fridge_slots, |d| d.kitchen.fridge_slots += 1),
        (DayRule::FreezerSlots, k.freezer_slots, |d| d.kitchen.freezer_slots += 1),
        (DayRule::Trays, k.trays, |d| d.kitchen.trays += 1),
        (DayRule::CoolingSlots, k.cooling_slots, |d| d.kitchen.cooling_slots += 1),
        (DayRule::Hands, k.hands, |d| d.kitchen.hands += 1),
        (DayRule::WorkWindow, 0, |d: &mut Day| {
            let all = |b: &DayBatch| b.cut_min.iter().sum::<i32>();
            d.batches.iter_mut().for_each(|b| b.window_min = b.window_min.max(all(b)));
        }),
    ];
    let short = tries.into_iter().find(|(_, _, more)| {
        let mut other = day.clone();
        more(&mut other);
        laid(&other, PlanBudget { seconds: budget.seconds.min(0.1), ..budget }, 0).is_some()
    });
    vec![match short {
        Some((DayRule::WorkWindow, _, _)) | None => {
            Forbidden { rule: short.map_or(DayRule::Together, |s| s.0), batch: None, needs: None, has: 0 }
        }
        Some((rule, has, _)) => Forbidden { rule, batch: None, needs: Some(number(has) + 1), has: number(has) },
    }]
}
