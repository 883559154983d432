//! The one shape of errors (RFC 9457 problem details with field paths) and the one place where causes become status codes.

use crate::wire::{PartOfSentence, SentenceView, say};
use actix_web::http::StatusCode;
use actix_web::http::header::{self, ContentType};
use actix_web::{HttpResponse, ResponseError};
use ready_slab_core::error::{InputError, InputErrors, Problem as Problem_};
use ready_slab_store::StoreError;
use serde::{Deserialize, Serialize};
use std::time::Duration;
use utoipa::ToSchema;

/// What went wrong, as sent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Problem {
    /// A short name of the kind of fault.
    pub title: String,
    /// The HTTP status.
    pub status: u16,
    /// A sentence for people.
    pub detail: String,
    /// Faults of single fields; empty when the fault is of another kind.
    pub errors: Vec<FieldProblem>,
    /// Where somebody else was faster (412): what stands now, as the thing's own body.
    #[serde(skip_serializing_if = "Option::is_none", default)]
    #[schema(value_type = Option<Object>)]
    pub current: Option<serde_json::Value>,
    /// With it, the revision that stands now.
    #[serde(skip_serializing_if = "Option::is_none", default)]
    pub revision: Option<i64>,
}

/// A field that two have changed from the same state.
#[derive(Debug, Clone, PartialEq)]
pub struct StaleField {
    /// Its name.
    pub field: String,
    /// What it was when the refused change was made; unknown where that is long ago.
    pub was: Option<serde_json::Value>,
    /// What the other made of it.
    pub is: serde_json::Value,
    /// What the refused change would have made of it.
    pub wanted: serde_json::Value,
}

/// A fault of one field.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FieldProblem {
    /// Path of the field in the request, such as `lines[2].grams`.
    pub field: String,
    /// What is wrong with it.
    pub message: String,
    /// The message's pieces in order, its quantities in the units that are read; left out where there is none in it.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<PartOfSentence>,
    /// What would be accepted; empty where the message says it.
    pub accepted: String,
    /// What was given, in few words; null where nothing was, or where the message says it.
    #[serde(default)]
    pub given: Option<String>,
}

/// All causes of a failed request.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The body is not JSON.
    #[error("The request isn’t JSON: {0}")]
    NotJson(String),
    /// Values are missing, of the wrong kind or out of range.
    #[error(transparent)]
    Input(#[from] InputErrors),
    /// The memory refused or failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// Somebody else changed the same fields first.
    #[error("Someone else changed {} first. Compare and choose.", listed(.fields))]
    Stale {
        /// Which.
        fields: Vec<StaleField>,
        /// What stands.
        current: serde_json::Value,
        /// Its revision.
        revision: i64,
    },
    /// No such route.
    #[error("There’s nothing at {0}.")]
    NoSuchPath(String),
    /// A route that is there, asked in a way it does not know.
    #[error("{path} takes {allowed}, not {method}.")]
    WrongMethod {
        /// Where.
        path: String,
        /// How it was asked.
        method: String,
        /// How it may be asked.
        allowed: String,
    },
    /// The body is over its limit.
    #[error("The request is over {limit_bytes} bytes. Send less.")]
    TooLarge {
        /// The limit.
        limit_bytes: usize,
    },
    /// The body broke off or could not be read.
    #[error("Couldn’t read the request: {0}")]
    Unreadable(String),
    /// Who asks is not known here.
    #[error("This device isn’t connected. Open /pair on it and enter a code.")]
    NotLetIn,
    /// Refused for safety.
    #[error("{0}")]
    Forbidden(&'static str),
    /// As much is being computed as the machine can bear.
    #[error("{0}")]
    Busy(&'static str),
    /// More was asked from one place than is answered.
    #[error("{0}")]
    TooMany(&'static str),
    /// A computation ended unexpectedly; a bug of ours.
    #[error("The calculation failed. Try again.")]
    Broken,
}

impl From<InputError> for ApiError {
    fn from(error: InputError) -> Self {
        Self::Input(error.into())
    }
}

impl From<actix_web::error::BlockingError> for ApiError {
    fn from(_: actix_web::error::BlockingError) -> Self {
        Self::Broken
    }
}

impl ApiError {
    fn title(&self) -> &'static str {
        match self {
            Self::NotJson(_) => "Not JSON",
            Self::Input(_) => "Check these values",
            Self::Store(StoreError::NotFound { .. }) => "Not found",
            Self::Store(StoreError::InUse { .. }) => "Still in use",
            Self::Store(StoreError::Damaged { .. }) => "Damaged record",
            Self::Store(StoreError::Closed) => "closed",
            Self::Store(StoreError::Busy) => "busy",
            Self::Store(StoreError::Full) => "Disk full",
            Self::Store(StoreError::FileThere { .. }) => "Already exists",
            Self::Store(StoreError::NotAnArchive { .. }) => "Not an archive",
            // All else is about the file.
            Self::Store(_) => "Bakery file problem",
            Self::NoSuchPath(_) => "Not found",
            Self::WrongMethod { .. } => "Method not allowed",
            Self::Stale { .. } => "Changed by someone else",
            Self::TooLarge { .. } => "Too large",
            Self::Unreadable(_) => "unreadable",
            Self::NotLetIn => "Device not connected",
            Self::Forbidden(_) => "forbidden",
            Self::Busy(_) => "busy",
            Self::TooMany(_) => "too many",
            Self::Broken => "Calculation failed",
        }
    }

    /// The problem as sent.
    pub fn problem(&self) -> Problem {
        let errors = match self {
            Self::Input(errors) => errors
                .all()
                .iter()
                .map(|e| {
                    let SentenceView { text, parts } = say(e.problem());
                    // A client without parts reads the scale beside its degrees.
                    let message = match e.problem() {
                        Problem_::NeverReady(_) => text,
                        itself => itself.to_string(),
                    };
                    FieldProblem {
                        field: e.field().to_owned(),
                        message,
                        parts,
                        accepted: e.problem().accepted(),
                        given: e.problem().given(),
                    }
                })
                .collect(),
            Self::Stale { fields, .. } => fields
                .iter()
                .map(|f| FieldProblem {
                    field: f.field.clone(),
                    message: format!(
                        "Now {}; it was {} when you changed it.",
                        shown(&f.is),
                        f.was.as_ref().map_or_else(|| "something else".to_owned(), shown)
                    ),
                    parts: vec![],
                    accepted: format!("{} or {}", shown(&f.is), shown(&f.wanted)),
                    given: Some(shown(&f.wanted)),
                })
                .collect(),
            _ => Vec::new(),
        };
        let (current, revision) = match self {
            Self::Stale { current, revision, .. } => (Some(current.clone()), Some(*revision)),
            _ => (None, None),
        };
        Problem {
            title: self.title().to_owned(),
            status: self.status_code().as_u16(),
            detail: match self {
                // Inner workings of the database stay in the log.
                Self::Store(StoreError::Database(_) | StoreError::Migration(_)) => {
                    "Couldn’t read or write the bakery file. See the server log.".to_owned()
                }
                other => other.to_string(),
            },
            errors,
            current,
            revision,
        }
    }
}

fn listed(fields: &[StaleField]) -> String {
    fields.iter().map(|f| f.field.as_str()).collect::<Vec<_>>().join(", ")
}

/// A value in few words.
fn shown(value: &serde_json::Value) -> String {
    match value {
        serde_json::Value::Null => "nothing".to_owned(),
        serde_json::Value::Array(all) => format!("{} entries", all.len()),
        serde_json::Value::Object(_) => "a different choice".to_owned(),
        serde_json::Value::String(s) => s.replace('_', " "),
        serde_json::Value::Bool(_) | serde_json::Value::Number(_) => value.to_string(),
    }
}

/// Whoever has asked too often is turned away for so long. Our own choice.
pub const TURNED_AWAY_FOR: Duration = Duration::from_secs(600);
/// After so many seconds it is worth asking again. Our own choice.
const RETRY_AFTER_S: u32 = 2;

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        match self {
            Self::NotJson(_) | Self::Unreadable(_) => StatusCode::BAD_REQUEST,
            Self::Input(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Self::Store(StoreError::NotFound { .. }) | Self::NoSuchPath(_) => StatusCode::NOT_FOUND,
            Self::Store(StoreError::InUse { .. } | StoreError::FileThere { .. }) => StatusCode::CONFLICT,
            Self::Store(StoreError::Closed) => StatusCode::GONE,
            Self::Store(StoreError::Busy) => StatusCode::SERVICE_UNAVAILABLE,
            Self::Store(StoreError::Full) => StatusCode::INSUFFICIENT_STORAGE,
            Self::Store(_) | Self::Broken => StatusCode::INTERNAL_SERVER_ERROR,
            Self::WrongMethod { .. } => StatusCode::METHOD_NOT_ALLOWED,
            Self::Stale { .. } => StatusCode::PRECONDITION_FAILED,
            Self::TooLarge { .. } => StatusCode::PAYLOAD_TOO_LARGE,
            Self::NotLetIn => StatusCode::UNAUTHORIZED,
            Self::Forbidden(_) => StatusCode::FORBIDDEN,
            Self::Busy(_) => StatusCode::SERVICE_UNAVAILABLE,
            Self::TooMany(_) => StatusCode::TOO_MANY_REQUESTS,
        }
    }

    fn error_response(&self) -> HttpResponse {
        if self.status_code().is_server_error() {
            tracing::error!(error = %self, "request failed");
        }
        let mut response = HttpResponse::build(self.status_code());
        if let Self::WrongMethod { allowed, .. } = self {
            response.insert_header((header::ALLOW, allowed.as_str()));
        }
        match self.status_code() {
            StatusCode::SERVICE_UNAVAILABLE => _ = response.insert_header((header::RETRY_AFTER, RETRY_AFTER_S)),
            StatusCode::TOO_MANY_REQUESTS => {
                _ = response.insert_header((header::RETRY_AFTER, TURNED_AWAY_FOR.as_secs().to_string()));
            }
            _ => {}
        }
        response
            .insert_header(ContentType("application/problem+json".parse().expect("a media type")))
            .json_body(&self.problem())
    }
}

trait JsonBody {
    fn json_body(&mut self, value: &impl Serialize) -> HttpResponse;
}

impl JsonBody for actix_web::HttpResponseBuilder {
    /// As `json`, but keeping the content type already set.
    fn json_body(&mut self, value: &impl Serialize) -> HttpResponse {
        self.body(serde_json::to_string(value).unwrap_or_default())
    }
}

/// Reads a JSON body, with the path of the field at fault.
pub fn parse<T: for<'a> Deserialize<'a>>(body: &[u8]) -> Result<T, ApiError> {
    let mut reader = serde_json::Deserializer::from_slice(body);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|e| {
        let path = e.path().to_string();
        let inner = e.into_inner();
        if inner.is_data() { field_fault(&path, &inner.to_string()) } else { ApiError::NotJson(place_of(&inner)) }
    })?;
    reader.end().map_err(|e| ApiError::NotJson(place_of(&e)))?;
    Ok(value)
}

/// Reads a JSON value that was already parsed, with the path of the field at fault.
pub fn parse_value<T: for<'a> Deserialize<'a>>(value: serde_json::Value) -> Result<T, ApiError> {
    serde_path_to_error::deserialize(value).map_err(|e| {
        let path = e.path().to_string();
        field_fault(&path, &e.into_inner().to_string())
    })
}

fn place_of(error: &serde_json::Error) -> String {
    if error.is_eof() && error.line() <= 1 && error.column() == 0 {
        return "the body is empty".to_owned();
    }
    let what = if error.is_eof() { "it breaks off" } else { "it cannot be read" };
    format!("{what} at line {}, column {}", error.line(), error.column())
}

/// What a reader says of a value, as the fault of a field: which, what was given, what is accepted, in words a person uses.
pub fn field_fault(path: &str, message: &str) -> ApiError {
    let said = message.split(" at line ").next().unwrap_or(message);
    let path = if path == "." { "" } else { path };
    let within =
        |name: &str| if path.is_empty() || path.ends_with(name) { name.to_owned() } else { format!("{path}.{name}") };
    let quoted = |text: &str| text.split('`').nth(1).unwrap_or("").to_owned();
    let choices = |text: &str| -> String {
        let all: Vec<&str> = text.split('`').skip(3).step_by(2).collect();
        all.iter().map(|w| format!("\u{201c}{w}\u{201d}")).collect::<Vec<_>>().join(", ")
    };
    let fault = |field: String, reason: String| ApiError::from(InputError::refused(field, reason));
    if said.starts_with("missing field") {
        return InputError::new(within(&quoted(said)), Problem_::Missing { wanted: "a value" }).into();
    }
    if said.starts_with("unknown field") {
        let name = quoted(said);
        let known = choices(said);
        let known: Vec<&str> = known.split(", ").map(|w| w.trim_matches(['\u{201c}', '\u{201d}'])).collect();
        let like =
            known.iter().max_by(|a, b| strsim::jaro_winkler(a, &name).total_cmp(&strsim::jaro_winkler(b, &name)));
        let like = like
            .filter(|l| strsim::jaro_winkler(l, &name) > 0.8)
            .map_or(String::new(), |l| format!(" Did you mean \u{201c}{l}\u{201d}?"));
        return fault(within(&name), format!("No such field.{like}"));
    }
    if said.starts_with("unknown variant") {
        return fault(path.to_owned(), format!("Use one of {}, not \u{201c}{}\u{201d}.", choices(said), quoted(said)));
    }
    if let Some(rest) = said.strip_prefix("invalid type: ").or_else(|| said.strip_prefix("invalid value: ")) {
        let (given, wanted) = rest.split_once(", expected ").unwrap_or((rest, ""));
        let given =
            given.replace("string ", "").replace('`', "").replace("floating point ", "").replace("integer ", "");
        let given = match given.as_str() {
            "map" => "an object".to_owned(),
            "sequence" => "a list".to_owned(),
            "null" => "nothing".to_owned(),
            other => other.to_owned(),
        };
        return fault(path.to_owned(), format!("Use {}, not {given}.", kind_words(wanted)));
    }
    if said.starts_with("duplicate field") {
        return fault(within(&quoted(said)), "Given twice. Keep one.".to_owned());
    }
    fault(path.to_owned(), kind_words(said))
}

/// Kinds of values as people name them.
fn kind_words(said: &str) -> String {
    match said {
        "f64" | "f32" => "a number",
        "u32" | "u64" | "usize" | "u16" | "u8" => "a whole number, 0 or more",
        "i64" | "i32" => "a whole number",
        "a string" | "string" => "text",
        "a boolean" => "true or false",
        "a sequence" => "a list",
        "a map" => "an object",
        "invalid digit found in string" => "Use a whole number, 0 or more.",
        "invalid float literal" => "Use a number.",
        "provided string was not `true` or `false`" => "Use true or false.",
        _ if said.starts_with("struct ") || said.starts_with("internally tagged") => "an object",
        _ if said.starts_with("string or map") || said.starts_with("enum ") => "one of its values",
        _ if said.starts_with("an array of length") => {
            return format!("a list {}", said.trim_start_matches("an array "));
        }
        _ => return said.to_owned(),
    }
    .to_owned()
}

/// Query strings whose faults are told as all others are.
pub struct Query<T>(pub T);

impl<T> std::ops::Deref for Query<T> {
    type Target = T;

    fn deref(&self) -> &T {
        &self.0
    }
}

impl<T: serde::de::DeserializeOwned> actix_web::FromRequest for Query<T> {
    type Error = ApiError;
    type Future = std::future::Ready<Result<Self, ApiError>>;

    fn from_request(request: &actix_web::HttpRequest, _: &mut actix_web::dev::Payload) -> Self::Future {
        let pairs = form_urlencoded::parse(request.query_string().as_bytes());
        let read = serde_path_to_error::deserialize(serde_urlencoded::Deserializer::new(pairs));
        std::future::ready(read.map(Self).map_err(|e| {
            let path = e.path().to_string();
            field_fault(&path, &e.into_inner().to_string())
        }))
    }
}
