//! A planned day.

use ready_slab_core::clock::{DayHeld, DayRule, Forbidden, Step, Wanted};
use ready_slab_core::job::{DayGain, DayHelp, Shared};
use ready_slab_words::{Sentence, day_forbidden, day_help, day_shared, day_why};

pub fn day() -> Vec<Sentence> {
    let name = |at: usize| ["gulls", "boats"][at].to_owned();
    let of = |step| Wanted { batch: 1, tray: Some(2), step };
    let held = [
        DayHeld::WantedThen,
        DayHeld::Hands(Wanted { batch: 1, tray: None, step: Step::Mix }),
        DayHeld::Hands(Wanted { batch: 0, tray: None, step: Step::Form }),
        DayHeld::Hands(of(Step::Cut)),
        DayHeld::Hands(of(Step::Finish)),
        DayHeld::Hands(of(Step::Pack)),
        DayHeld::Oven(of(Step::Bake)),
        DayHeld::AnotherHeat(of(Step::Bake)),
        DayHeld::CoolingPlace(of(Step::Cool)),
        DayHeld::Tray(of(Step::Cut)),
        DayHeld::Longer(12),
        DayHeld::WindowEnds,
        DayHeld::TooCold,
    ];
    let rules = [
        DayRule::Hands,
        DayRule::Mixers,
        DayRule::FridgeSlots,
        DayRule::FreezerSlots,
        DayRule::Trays,
        DayRule::Ovens,
        DayRule::CoolingSlots,
    ];
    let lacks = |rule| Forbidden { rule, batch: Some(0), needs: Some(1), has: 0 };
    let more = [
        Forbidden { rule: DayRule::FridgeSlots, batch: None, needs: Some(3), has: 2 },
        Forbidden { rule: DayRule::WorkWindow, batch: Some(1), needs: Some(9), has: 7 },
        Forbidden { rule: DayRule::WorkWindow, batch: None, needs: None, has: 0 },
        Forbidden { rule: DayRule::TrayChill, batch: Some(1), needs: Some(20), has: 10 },
        Forbidden { rule: DayRule::Together, batch: None, needs: None, has: 0 },
    ];
    let helps = [
        (DayHelp::Tray, 5),
        (DayHelp::Oven, 60),
        (DayHelp::Hands, 75),
        (DayHelp::FridgePlace, 12),
        (DayHelp::CoolingPlace, 9),
        (DayHelp::InTheFreezer(1), 37),
    ];
    (held.iter().map(|h| day_why(&[*h], name)))
        .chain([day_why(&[], name), day_why(&[DayHeld::WindowEnds, DayHeld::Longer(5)], name)])
        .chain(rules.into_iter().map(lacks).chain(more).map(|f| day_forbidden(&f, name)))
        .chain([Shared::Dough(vec![0, 1]), Shared::Load(vec![0, 1])].iter().map(|s| day_shared(s, name)))
        .chain(helps.into_iter().map(|(help, gain_min)| day_help(&DayGain { help, gain_min }, name)))
        .collect()
}
