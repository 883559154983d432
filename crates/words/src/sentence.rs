//! A sentence, and how one is put together.

use crate::figure::{Figure, System};

/// A piece of a sentence.
#[derive(Debug, Clone, PartialEq)]
pub enum Part {
    /// As it stands, in every system of units.
    Text(String),
    /// Written in the units that are read.
    Figure(Figure),
}

/// What is said, piece by piece.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Sentence {
    parts: Vec<Part>,
}

/// What can be said.
pub trait Say {
    /// In a sentence or two.
    fn say(&self) -> Sentence;
}

/// Each of several, said.
#[must_use]
pub fn all<T: Say>(things: &[T]) -> Vec<Sentence> {
    things.iter().map(Say::say).collect()
}

impl Sentence {
    /// Its pieces; no two texts stand side by side.
    #[must_use]
    pub fn parts(&self) -> &[Part] {
        &self.parts
    }

    /// The whole, in one system of units.
    #[must_use]
    pub fn text(&self, system: System) -> String {
        self.parts
            .iter()
            .map(|part| match part {
                Part::Text(text) => text.clone(),
                Part::Figure(figure) => figure.text(system),
            })
            .collect()
    }

    /// As it is kept where it has to be shown later: its text, with figures of one value in braces.
    #[must_use]
    pub fn written(&self) -> String {
        let part = |part: &Part| match part {
            Part::Text(text) => text.clone(),
            Part::Figure(figure) if figure.and.is_none() => figure.written(),
            Part::Figure(figure) => figure.text(System::Metric),
        };
        self.parts.iter().map(part).collect()
    }

    /// A sentence that was kept. Braces that hold no figure are a text's own.
    #[must_use]
    pub fn read(kept: &str) -> Self {
        let mut said = Self::default();
        let mut rest = kept;
        while let Some(open) = rest.find('{') {
            let figure =
                rest[open..].find('}').and_then(|close| Some((close, Figure::read(&rest[open + 1..open + close])?)));
            match figure {
                Some((close, figure)) => {
                    said.push(&rest[..open]);
                    said.push(figure);
                    rest = &rest[open + close + 1..];
                }
                None => {
                    said.push(&rest[..=open]);
                    rest = &rest[open + 1..];
                }
            }
        }
        said.then(rest)
    }

    /// A name and a value of it, in the unit that the name of a field ends with; nothing where that is no unit.
    #[must_use]
    pub fn of_field(field: &str, value: f64) -> Option<Self> {
        let unit = match field.rsplit('_').next()? {
            "mm" => "mm",
            "g" => "g",
            "c" => "\u{b0}C",
            "k" => "K",
            "min" => "min",
            "percent" => "%",
            _ => return None,
        };
        Some(Figure::in_unit(value, unit, 2)?.0.into())
    }

    /// With more after it.
    #[must_use]
    pub fn then(mut self, more: impl Into<Self>) -> Self {
        self.push(more);
        self
    }

    /// The same with a capital at its start.
    #[must_use]
    pub fn capital(mut self) -> Self {
        if let Some(Part::Text(text)) = self.parts.first_mut() {
            let mut letters = text.chars();
            if let Some(first) = letters.next() {
                *text = first.to_uppercase().chain(letters).collect();
            }
        }
        self
    }

    pub(crate) fn push(&mut self, more: impl Into<Self>) {
        for part in more.into().parts {
            match (self.parts.last_mut(), part) {
                (Some(Part::Text(before)), Part::Text(text)) => before.push_str(&text),
                (_, Part::Text(text)) if text.is_empty() => {}
                (_, part) => self.parts.push(part),
            }
        }
    }
}

impl From<Figure> for Sentence {
    fn from(figure: Figure) -> Self {
        Self { parts: vec![Part::Figure(figure)] }
    }
}

impl From<String> for Sentence {
    fn from(text: String) -> Self {
        Self { parts: if text.is_empty() { vec![] } else { vec![Part::Text(text)] } }
    }
}

impl From<&str> for Sentence {
    fn from(text: &str) -> Self {
        text.to_owned().into()
    }
}

impl From<&String> for Sentence {
    fn from(text: &String) -> Self {
        text.clone().into()
    }
}

impl From<u32> for Sentence {
    fn from(count: u32) -> Self {
        count.to_string().into()
    }
}

impl From<usize> for Sentence {
    fn from(count: usize) -> Self {
        count.to_string().into()
    }
}

impl From<Option<Self>> for Sentence {
    fn from(maybe: Option<Self>) -> Self {
        maybe.unwrap_or_default()
    }
}

/// A sentence of its pieces, one after the other: texts, figures and other sentences.
macro_rules! said {
    ($($part:expr),* $(,)?) => {{
        let mut said = $crate::sentence::Sentence::default();
        $( said.push($part); )*
        said
    }};
}
pub(crate) use said;

/// Several things in a row: `a, b and c`.
pub(crate) fn listed<T: Into<Sentence>>(things: impl IntoIterator<Item = T>) -> Sentence {
    let things: Vec<Sentence> = things.into_iter().map(Into::into).collect();
    let last = things.len().saturating_sub(1);
    let mut said = Sentence::default();
    for (i, thing) in things.into_iter().enumerate() {
        said.push(match i {
            0 => "",
            i if i == last => " and ",
            _ => ", ",
        });
        said.push(thing);
    }
    said
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::figure::degrees;
    use ready_slab_core::units::Temperature;

    #[test]
    fn texts_run_together_and_figures_stay_apart() {
        let said = said!["Leaves at ", degrees(Temperature::new_c(21.94), 1), ", ", "warm", "", " enough", 3_u32, "."];
        assert_eq!(said.parts().len(), 3);
        assert_eq!(said.text(System::Metric), "Leaves at 21.9 \u{b0}C, warm enough3.");
        assert_eq!(said.text(System::Us), "Leaves at 71.5\u{b0}F, warm enough3.");
    }

    #[test]
    fn what_is_kept_is_read_back_and_braces_of_a_name_stay() {
        let said = said!["thickness {of it} from ", Sentence::of_field("thickness_mm", 6.35), " to {length x}"];
        assert_eq!(said.written(), "thickness {of it} from {length 6.35} to {length x}");
        let read = Sentence::read(&said.written());
        assert_eq!(read.text(System::Us), "thickness {of it} from \u{bc} in to {length x}");
        assert_eq!(read.text(System::Metric), "thickness {of it} from 6.35 mm to {length x}");
        assert_eq!(Sentence::read("new cutter Gull").written(), "new cutter Gull");
    }

    #[test]
    fn a_list_ends_with_and() {
        let list = |things: &[&str]| listed(things.iter().copied()).text(System::Metric);
        assert_eq!(list(&["a"]), "a");
        assert_eq!(list(&["a", "b"]), "a and b");
        assert_eq!(list(&["a", "b", "c"]), "a, b and c");
    }
}
