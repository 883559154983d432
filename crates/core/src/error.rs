//! What is wrong with an input: which field, what about it, and what would be accepted.

use crate::cold::never::Never;
use std::fmt;

/// One fault in the input. `field` is a path such as `kitchen.fridge_c` or `lines[2].grams`.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{}{problem}", if .field.is_empty() { String::new() } else { format!("{field}: ") })]
pub struct InputError {
    field: String,
    problem: Problem,
}

/// The ways in which an input can be refused.
#[derive(Debug, Clone, PartialEq)]
pub enum Problem {
    /// The value is NaN or infinite.
    NotFinite,
    /// The value lies outside the closed range.
    OutOfRange {
        /// What was given.
        value: f64,
        /// Least accepted value.
        min: f64,
        /// Greatest accepted value.
        max: f64,
        /// Unit of all three, as shown to people.
        unit: &'static str,
    },
    /// A text that does not read as the quantity wanted.
    Unreadable {
        /// What was given, cut to 40 characters.
        text: String,
        /// What would be accepted, with an example.
        accepted: &'static str,
    },
    /// Nothing was given where something is needed.
    Missing {
        /// What is needed.
        wanted: &'static str,
    },
    /// Longer than the limit, in `unit`.
    TooMany {
        /// What was given.
        count: usize,
        /// Greatest accepted count.
        max: usize,
        /// What is counted.
        unit: &'static str,
    },
    /// Refused for a reason of the trade or of safety, said in full.
    Refused {
        /// A whole sentence that names the offender, where it is and the limit.
        reason: String,
    },
    /// Chilled where it never gets ready.
    NeverReady(Never),
}

impl fmt::Display for Problem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NotFinite => write!(f, "Type a number."),
            Self::OutOfRange { value, unit, min, max } => {
                write!(f, "Use {}. You typed {}.", self.accepted(), with_unit(*value, unit))?;
                // What would be right in Fahrenheit most likely is meant so.
                let celsius = (value - 32.0) / 1.8;
                if *unit == "\u{b0}C" && value > max && (*min..=*max).contains(&celsius) {
                    write!(f, " Did you mean {value:.0}\u{b0}F?")?;
                }
                Ok(())
            }
            Self::Unreadable { text, accepted } => {
                write!(f, "Can\u{2019}t read \u{201c}{text}\u{201d}. Try {accepted}.")
            }
            Self::Missing { wanted } => write!(f, "Add {wanted}."),
            Self::TooMany { count, max, unit } => {
                write!(f, "At most {max} {unit}. You have {count}.")
            }
            Self::Refused { reason } => write!(f, "{reason}"),
            Self::NeverReady(_) => write!(f, "It won’t get ready there. Choose another place."),
        }
    }
}

impl Problem {
    /// What was given, in words; nothing where nothing was, or where the sentence says it already.
    pub fn given(&self) -> Option<String> {
        match self {
            Self::OutOfRange { value, unit, .. } => Some(with_unit(*value, unit)),
            Self::Unreadable { text, .. } => Some(text.clone()),
            Self::TooMany { count, unit, .. } => Some(format!("{count} {unit}")),
            Self::NotFinite | Self::Missing { .. } | Self::Refused { .. } | Self::NeverReady(_) => None,
        }
    }

    /// What would be accepted, in words; empty where the sentence says it already.
    pub fn accepted(&self) -> String {
        match self {
            Self::OutOfRange { min, max, unit, .. } => {
                format!("{} to {}", trimmed(*min), with_unit(*max, unit))
            }
            Self::Unreadable { accepted, .. } => (*accepted).to_owned(),
            Self::TooMany { max, unit, .. } => format!("at most {max} {unit}"),
            Self::NotFinite | Self::Missing { .. } | Self::Refused { .. } | Self::NeverReady(_) => String::new(),
        }
    }
}

fn trimmed(value: f64) -> String {
    let text = format!("{value:.3}");
    text.trim_end_matches('0').trim_end_matches('.').replace('-', "\u{2212}")
}

fn with_unit(value: f64, unit: &str) -> String {
    let gap = if unit.is_empty() { "" } else { " " };
    format!("{}{gap}{unit}", trimmed(value))
}

impl InputError {
    /// A fault of `field`.
    pub fn new(field: impl Into<String>, problem: Problem) -> Self {
        Self { field: field.into(), problem }
    }

    /// A refusal with a whole sentence.
    pub fn refused(field: impl Into<String>, reason: impl Into<String>) -> Self {
        Self::new(field, Problem::Refused { reason: reason.into() })
    }

    /// The path of the field.
    pub fn field(&self) -> &str {
        &self.field
    }

    /// What is wrong with it.
    pub fn problem(&self) -> &Problem {
        &self.problem
    }

    /// The same fault, seen from one level further out.
    #[must_use]
    pub fn within(mut self, parent: &str) -> Self {
        self.field = if self.field.is_empty() {
            parent.to_owned()
        } else if self.field.starts_with('[') {
            format!("{parent}{}", self.field)
        } else {
            format!("{parent}.{}", self.field)
        };
        self
    }
}

/// All faults of one input, never empty.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{}", .0.iter().map(ToString::to_string).collect::<Vec<_>>().join("; "))]
pub struct InputErrors(Vec<InputError>);

impl InputErrors {
    /// The faults in the order they were found.
    pub fn all(&self) -> &[InputError] {
        &self.0
    }

    /// The same faults, seen from one level further out.
    #[must_use]
    pub fn within(self, parent: &str) -> Self {
        Self(self.0.into_iter().map(|e| e.within(parent)).collect())
    }
}

impl From<InputError> for InputErrors {
    fn from(error: InputError) -> Self {
        Self(vec![error])
    }
}

/// Collects faults, so that a form is told all of them at once.
#[derive(Debug, Default)]
pub struct Checks(Vec<InputError>);

impl Checks {
    /// No faults yet.
    pub fn new() -> Self {
        Self::default()
    }

    /// Notes a fault when `value` is not finite or outside `min..=max`.
    pub fn range(&mut self, field: &str, value: f64, min: f64, max: f64, unit: &'static str) {
        if !value.is_finite() {
            self.0.push(InputError::new(field, Problem::NotFinite));
        } else if value < min || value > max {
            self.0.push(InputError::new(field, Problem::OutOfRange { value, min, max, unit }));
        }
    }

    /// Notes a fault when the text is blank or longer than `max` characters.
    pub fn text(&mut self, field: &str, text: &str, max: usize, wanted: &'static str) {
        let count = text.chars().count();
        if text.trim().is_empty() {
            self.0.push(InputError::new(field, Problem::Missing { wanted }));
        } else if count > max {
            self.0.push(InputError::new(field, Problem::TooMany { count, max, unit: "characters" }));
        }
    }

    /// Notes a fault when a list is longer than `max`.
    pub fn limit(&mut self, field: &str, count: usize, max: usize, unit: &'static str) {
        if count > max {
            self.0.push(InputError::new(field, Problem::TooMany { count, max, unit }));
        }
    }

    /// Notes a fault found elsewhere.
    pub fn push(&mut self, error: InputError) {
        self.0.push(error);
    }

    /// Keeps the value of a nested check or notes its faults.
    pub fn take<T>(&mut self, parent: &str, result: Result<T, InputErrors>) -> Option<T> {
        match result {
            Ok(value) => Some(value),
            Err(errors) => {
                self.0.extend(errors.within(parent).0);
                None
            }
        }
    }

    /// Keeps the value of a check whose faults already name their fields, or notes them.
    pub fn keep<T>(&mut self, result: Result<T, InputErrors>) -> Option<T> {
        match result {
            Ok(value) => Some(value),
            Err(errors) => {
                self.0.extend(errors.0);
                None
            }
        }
    }

    /// `value` when nothing was noted, else all faults.
    pub fn finish<T>(self, value: T) -> Result<T, InputErrors> {
        if self.0.is_empty() { Ok(value) } else { Err(InputErrors(self.0)) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fault_names_the_value_the_place_and_the_accepted_range() {
        let mut checks = Checks::new();
        checks.range("thickness_mm", 40.0, 2.0, 25.0, "mm");
        checks.range("fridge_c", f64::NAN, -5.0, 15.0, "\u{b0}C");
        checks.text("name", "  ", 80, "a name");
        let errors = checks.finish(()).unwrap_err().within("job");
        let said: Vec<String> = errors.all().iter().map(ToString::to_string).collect();
        assert_eq!(
            said,
            [
                "job.thickness_mm: Use 2 to 25 mm. You typed 40 mm.",
                "job.fridge_c: Type a number.",
                "job.name: Add a name.",
            ]
        );
        assert_eq!(errors.all()[0].problem().accepted(), "2 to 25 mm");
    }

    #[test]
    fn an_index_joins_its_list_without_a_dot() {
        let error = InputError::new("[2].grams", Problem::NotFinite).within("lines");
        assert_eq!(error.field(), "lines[2].grams");
    }
}
