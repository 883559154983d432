//! Cautions with raw dough. Local code and qualified people come first.

use crate::figure::degrees;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::safety::{COLD, Caution, HOT_ROOM};

fn cold_rule() -> Sentence {
    said![
        "Keep raw dough and fillings at ",
        degrees(COLD, 0),
        " or below. Out of the fridge: 2 hours in total, 1 hour if the room is over ",
        degrees(HOT_ROOM, 0),
        ". Local rules come first.",
    ]
}

impl Say for Caution {
    fn say(&self) -> Sentence {
        match self {
            Self::ColdRule => cold_rule(),
            Self::NoTasting { egg: true } => "Don’t taste raw dough: raw flour and raw egg can make you sick.".into(),
            Self::NoTasting { egg: false } => "Don’t taste raw dough: raw flour can make you sick.".into(),
            Self::PowerOff => said![
                "A closed fridge stays cold about 4 hours; a full freezer 48 hours (USDA). Check with a thermometer before you trust it. When in doubt, throw it out. ",
                cold_rule(),
            ],
        }
    }
}
