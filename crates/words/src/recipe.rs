//! What is said and asked of the lines of a recipe.

use crate::figure::{grams_fine, number, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, listed, said};
use ready_slab_core::recipe::{Ask, LeftOut, ReadBy, Settle};
use ready_slab_core::units::Share;

fn quoted(text: &str) -> String {
    format!("\u{201c}{text}\u{201d}")
}

impl Say for ReadBy {
    fn say(&self) -> Sentence {
        match self {
            Self::YouSaidItIs { name } => said!["You said it’s ", name, "."],
            Self::YouSaidGrams { mass } => said!["You said ", grams_fine(*mass), "."],
            Self::YouSaidAsRead => "You said this is right.".into(),
            Self::ReadAs { name } => said!["Read as ", name, "."],
            Self::TakenAsUnsalted => "Counted as unsalted: it doesn’t say.".into(),
            Self::BoardNotCounted => "Flour for the board isn’t counted.".into(),
            Self::MiddleTaken { of } => said!["Counted as the middle of ", of, "."],
            Self::LevelTaken { word } => said!["It says ", *word, ". Counted as level."],
            Self::WeightOfACup { way } => said!["Weight of a ", way.name(), " cup."],
            Self::WeightCounts { said, other } => said![said, " and ", other, " agree. The weight is used."],
            Self::SaysTheSame { other } => said![other, " says the same."],
            // What is written in ounces is told in grams to everybody: that is what is asked of it.
            Self::Weighs { said, mass } => {
                said![said, " is ", number(mass.g(), usize::from(mass.g() < 100.0)), "\u{a0}g."]
            }
            Self::PinchTakenAs { word, name, mass } => {
                said!["A ", *word, " of ", name, " counts as ", grams_fine(*mass), "."]
            }
            Self::MeasureWeighs { word, name, way: Some(way), mass } => {
                said!["A ", *word, " of ", name, ", ", way.name(), ", is ", grams_fine(*mass), "."]
            }
            Self::MeasureWeighs { word, name, way: None, mass } => {
                said!["1 ", *word, " ", name, ": ", grams_fine(*mass), "."]
            }
            Self::StickWeighs { name, mass } => said!["A stick of ", name, " is ", grams_fine(*mass), "."],
            Self::EggWeighs { name, class, mass } => {
                said!["1 ", name, " (", class.name(), ") is ", grams_fine(*mass), "."]
            }
            Self::OneTakenAs { mass } => said!["Counted as ", grams_fine(*mass), " each."],
            Self::AsTheFileHasIt => "As in the file.".into(),
            Self::HeardAs { said, is } => said![quoted(said), " is taken as ", *is, "."],
        }
    }
}

impl Say for Ask {
    fn say(&self) -> Sentence {
        match self {
            Self::LineTooLong { most } => {
                said!["Keep lines under ", *most, " characters, one ingredient each."]
            }
            Self::CornFlour => "Corn flour can mean cornstarch or ground corn. Which is it?".into(),
            Self::TwoThings { first, other } => said![
                "Two ingredients on one line: ",
                first,
                " and ",
                other,
                ". Which is it? Put the other on its own line.",
            ],
            Self::NotKnown { word, name } => said![quoted(word), ": did you mean ", name, "?"],
            Self::NotInThePantry { name } => {
                said![quoted(name), " isn\u{2019}t in the pantry. Which ingredient is it?"]
            }
            Self::TwoAmounts { second } => said!["Two amounts on one line. Put ", quoted(second), " on its own line.",],
            Self::Several { names } => said![
                listed(names),
                " on one line. Which is it? Put ",
                if names.len() > 2 { "each of the others" } else { "the other" },
                " on its own line.",
            ],
            Self::HowMuch { name, to_taste: true } => said!["How much ", name, ", to taste?"],
            Self::HowMuch { name, to_taste: false } => said!["How much ", name, "?"],
            Self::OutsideAnyDough => "That’s far too little or too much for any dough. What does it weigh?".into(),
            Self::MinusBefore => "Minus before the number. Is it a dash, or do you subtract?".into(),
            Self::TwoNumbers { text, large, small } => {
                said![quoted(text), " could be ", number(*large, 3), " or ", number(*small, 3), ". What does it weigh?",]
            }
            Self::GramsOfThat { name } => said!["How much does the ", name, " weigh?"],
            Self::GramsOfAMeasure { word, name } => said!["How much does a ", word, " of ", name, " weigh?"],
            Self::GramsInAContainer { word, name } => said!["How much does the ", name, " in a ", word, " weigh?"],
            Self::GramsEach { said, name } => said!["How much does ", said, " ", name, " weigh?"],
            Self::GramsOfAStick { name } => said!["How much does a stick of ", name, " weigh?"],
            Self::GramsOf { said, name } => said!["How much does ", said, " of ", name, " weigh?"],
            Self::Disagrees { said, name, mass, other, apart } => said![
                said,
                " of ",
                name,
                " is ",
                grams_fine(*mass),
                ", but the line says ",
                other,
                " (",
                if *apart > 0.0 { "+" } else { "" },
                percent(Share::new(*apart), 0),
                "). Which is right?",
            ],
            Self::NothingLeft { name } => said!["That leaves no ", name, ". How much does it weigh?"],
            Self::NotUnderstood { text } => {
                said!["Can\u{2019}t read ", quoted(text), ". Which ingredient is it, and how much?"]
            }
            Self::Unlikely { name, mass, flour, most } => said![
                grams_fine(*mass),
                " of ",
                name,
                " is ",
                percent(Share::new(*mass / *flour), 0),
                " of the flour. No dough has over ",
                percent(*most, 0),
                ". Is it right?",
            ],
            Self::NoFlour { name, mass } => said![grams_fine(*mass), " of ", name, " and no flour. Is that right?"],
        }
    }
}

impl Say for LeftOut {
    fn say(&self) -> Sentence {
        match self {
            Self::ByYou => "You left it out.".into(),
            Self::NoIngredient => "A size, a temperature or a time, not an ingredient.".into(),
            Self::ForTheFinish => {
                "For rolling, dusting or finishing, not in the dough. Plan what goes on top under Finish.".into()
            }
            Self::ForTheBoard => "For dusting the board, not in the dough.".into(),
            Self::Under { section } => said!["Under ", quoted(section), ": not in the dough."],
        }
    }
}

impl Say for Settle {
    fn say(&self) -> Sentence {
        match self {
            Self::Is { name } => name.into(),
            Self::Weighs { mass, by: None } => grams_fine(*mass).into(),
            Self::Weighs { mass, by: Some(by) } => said![grams_fine(*mass), " (", by, ")"],
            Self::ADash => "It’s a dash: the amount is right".into(),
            Self::ItIsRight => "That’s right".into(),
            Self::NoIngredient => "Not an ingredient".into(),
        }
    }
}
