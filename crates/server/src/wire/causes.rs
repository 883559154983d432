//! What may be behind a bake, on the wire.

use super::sentence::{SentenceView, say};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::ledger::{Cause, CauseTest, Causes, Evidence, Seen, Suspect, Tell};
use ready_slab_words::{Name as _, causes as words};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Something that a baker may see.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SeenView {
    /// Its word.
    pub seen: Seen,
    /// What it is called.
    pub name: String,
}

impl SeenView {
    /// All of them.
    pub fn all() -> Vec<Self> {
        Seen::ALL.into_iter().map(Self::of).collect()
    }

    fn of(seen: Seen) -> Self {
        Self { seen, name: seen.name().to_owned() }
    }
}

/// What was seen, and what the baker answers.
#[derive(Debug, Clone, Deserialize, Serialize, IntoParams, ToSchema)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct CausesQuery {
    /// One to four, with commas between them: `spread_too_far,pale`.
    #[serde(default)]
    pub seen: String,
    /// Causes whose clue was so, with commas between them.
    #[serde(default)]
    pub so: String,
    /// And those whose clue was not.
    #[serde(default)]
    pub not: String,
}

fn listed<T: DeserializeOwned>(field: &str, text: &str) -> Result<Vec<T>, InputErrors> {
    let words = text.split(',').map(str::trim).filter(|w| !w.is_empty());
    words
        .map(|w| {
            serde_json::from_value(w.into()).map_err(|_| {
                let shown: String = w.chars().filter(|c| !c.is_control()).take(40).collect();
                InputError::refused(
                    field,
                    format!("Don\u{2019}t know \u{201c}{shown}\u{201d}. Use one from the list of causes."),
                )
                .into()
            })
        })
        .collect()
}

impl CausesQuery {
    /// What was seen.
    pub fn seen(&self) -> Result<Vec<Seen>, InputErrors> {
        listed("seen", &self.seen)
    }

    /// Clues: whether it was so.
    pub fn clues(&self) -> Result<Vec<(Cause, bool)>, InputErrors> {
        let of =
            |field, text, so| Ok::<_, InputErrors>(listed::<Cause>(field, text)?.into_iter().map(move |c| (c, so)));
        Ok(of("so", &self.so, true)?.chain(of("not", &self.not, false)?).collect())
    }
}

/// A cause, weighed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SuspectView {
    /// Its word.
    pub cause: Cause,
    /// What it is called.
    pub name: String,
    /// How likely, of all together.
    pub share_percent: f64,
    /// How much of what came out otherwise it explains; null where that is little or the forecast does not tell.
    pub explains: Option<SentenceView>,
    /// How often it is the reason.
    pub usual: SentenceView,
    /// What speaks for it.
    pub speaks_for: Vec<SentenceView>,
    /// What speaks against it.
    pub speaks_against: Vec<SentenceView>,
    /// What the baker is asked.
    pub asks: SentenceView,
    /// What was answered; null where nothing was.
    pub answered: Option<bool>,
    /// What helps, if it is that.
    pub remedy: SentenceView,
}

impl From<&Suspect> for SuspectView {
    fn from(s: &Suspect) -> Self {
        let told = |so: bool| s.evidence.iter().filter(|e| words::speaks_for(e) == Some(so)).map(say).collect();
        let usual = s.evidence.iter().find(|e| matches!(e, Evidence::Usual(_)));
        Self {
            cause: s.cause,
            name: s.cause.name().to_owned(),
            share_percent: 100.0 * s.share.value(),
            explains: s.explains.and_then(words::explains).map(Into::into),
            usual: usual.map_or_else(|| "".into(), say),
            speaks_for: told(true),
            speaks_against: told(false),
            asks: words::asks(s.cause).into(),
            answered: s.evidence.iter().find_map(|e| if let Evidence::Clue(so) = e { Some(*so) } else { None }),
            remedy: words::remedy(s.cause).into(),
        }
    }
}

/// The test that tells the first two apart.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CauseTestView {
    /// How it is made.
    pub says: SentenceView,
    /// Whose test it is.
    pub of: String,
    /// What it is told apart from.
    pub from: Option<String>,
    /// Tried by hand: it helps or it does not. Else pieces are measured beside others.
    pub by_hand: bool,
    /// So many, and as many beside them.
    pub pieces: u32,
}

impl From<&CauseTest> for CauseTestView {
    fn from(test: &CauseTest) -> Self {
        Self {
            says: say(test),
            of: test.of.name().to_owned(),
            from: test.from.map(|c| c.name().to_owned()),
            by_hand: test.tell == Tell::ByHand,
            pieces: test.pieces,
        }
    }
}

/// What may be behind a bake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CausesView {
    /// What was seen.
    pub seen: Vec<SeenView>,
    /// Across the piece, as forecast with no cause at all; null where nothing is forecast.
    pub forecast_percent: Option<f64>,
    /// As it came out.
    pub came_out_percent: Option<f64>,
    /// The likeliest first.
    pub suspects: Vec<SuspectView>,
    /// How likely it is something else.
    pub another_percent: f64,
    /// What tells the first two apart.
    pub test: Option<CauseTestView>,
}

impl CausesView {
    /// Of what was seen.
    pub fn new(seen: &[Seen], found: &Causes) -> Self {
        Self {
            seen: seen.iter().map(|s| SeenView::of(*s)).collect(),
            forecast_percent: found.forecast.map(|s| 100.0 * s.value()),
            came_out_percent: found.came_out.map(|s| 100.0 * s.value()),
            suspects: found.suspects.iter().map(Into::into).collect(),
            another_percent: 100.0 * found.another.value(),
            test: found.test.as_ref().map(Into::into),
        }
    }
}
