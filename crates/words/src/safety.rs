//! Cautions with raw dough. Local code and qualified people come first.

use crate::figure::degrees;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::safety::{COLD, Caution, HOT_ROOM};

fn cold_rule() -> Sentence {
    said![
        "Raw dough and fillings wait at ",
        degrees(COLD, 0),
        " or colder, and are out of that for no more than two hours in all, one hour in a room over ",
        degrees(HOT_ROOM, 0),
        ". Your local food code comes first.",
    ]
}

impl Say for Caution {
    fn say(&self) -> Sentence {
        match self {
            Self::ColdRule => cold_rule(),
            Self::NoTasting { egg: true } => {
                "Raw flour and raw egg are not ready to eat: no tasting of the dough.".into()
            }
            Self::NoTasting { egg: false } => "Raw flour is not ready to eat: no tasting of the dough.".into(),
            Self::PowerOff => said![
                "A shut fridge keeps food cold for about four hours, a full freezer for two days (USDA Food Safety and Inspection Service, from memory). Put a thermometer in before you trust it; when in doubt, throw it out. ",
                cold_rule(),
            ],
        }
    }
}
