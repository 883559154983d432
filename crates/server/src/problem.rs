//! The one shape of errors (RFC 9457 problem details with field paths) and the one place where causes become status codes.

use actix_web::http::StatusCode;
use actix_web::http::header::ContentType;
use actix_web::{HttpResponse, ResponseError};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_store::StoreError;
use serde::{Deserialize, Serialize};
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
}

/// A fault of one field.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FieldProblem {
    /// Path of the field in the request, such as `lines[2].grams`.
    pub field: String,
    /// What is wrong with it.
    pub message: String,
    /// What would be accepted; empty where the message says it.
    pub accepted: String,
}

/// All causes of a failed request.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The body is not JSON.
    #[error("the request is not JSON: {0}")]
    NotJson(String),
    /// Values are missing, of the wrong kind or out of range.
    #[error(transparent)]
    Input(#[from] InputErrors),
    /// The memory refused or failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// No such route.
    #[error("there is nothing at {0}")]
    NoSuchPath(String),
    /// The body is over its limit.
    #[error("the request is larger than {limit_bytes} bytes")]
    TooLarge {
        /// The limit.
        limit_bytes: usize,
    },
    /// The body broke off or could not be read.
    #[error("the request could not be read: {0}")]
    Unreadable(String),
    /// Refused for safety.
    #[error("{0}")]
    Forbidden(&'static str),
    /// As much is being computed as the machine can bear.
    #[error("{0}")]
    Busy(&'static str),
    /// A computation ended unexpectedly; a bug of ours.
    #[error("the computation broke off")]
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
            Self::NotJson(_) => "not JSON",
            Self::Input(_) => "values that cannot be used",
            Self::Store(StoreError::NotFound { .. }) => "not found",
            Self::Store(StoreError::InUse { .. }) => "in use",
            Self::Store(StoreError::Damaged { .. }) => "damaged record",
            Self::Store(StoreError::Database(_) | StoreError::Migration(_)) => "bakery file failed",
            Self::NoSuchPath(_) => "not found",
            Self::TooLarge { .. } => "too large",
            Self::Unreadable(_) => "unreadable",
            Self::Forbidden(_) => "forbidden",
            Self::Busy(_) => "busy",
            Self::Broken => "broken off",
        }
    }

    /// The problem as sent.
    pub fn problem(&self) -> Problem {
        let errors = match self {
            Self::Input(errors) => errors
                .all()
                .iter()
                .map(|e| FieldProblem {
                    field: e.field().to_owned(),
                    message: e.problem().to_string(),
                    accepted: e.problem().accepted(),
                })
                .collect(),
            _ => Vec::new(),
        };
        Problem {
            title: self.title().to_owned(),
            status: self.status_code().as_u16(),
            detail: match self {
                // Inner workings of the database stay in the log.
                Self::Store(StoreError::Database(_) | StoreError::Migration(_)) => {
                    "the bakery file could not be read or written; see the server's log".to_owned()
                }
                other => other.to_string(),
            },
            errors,
        }
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        match self {
            Self::NotJson(_) | Self::Unreadable(_) => StatusCode::BAD_REQUEST,
            Self::Input(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Self::Store(StoreError::NotFound { .. }) | Self::NoSuchPath(_) => StatusCode::NOT_FOUND,
            Self::Store(StoreError::InUse { .. }) => StatusCode::CONFLICT,
            Self::Store(StoreError::Damaged { .. } | StoreError::Database(_) | StoreError::Migration(_))
            | Self::Broken => StatusCode::INTERNAL_SERVER_ERROR,
            Self::TooLarge { .. } => StatusCode::PAYLOAD_TOO_LARGE,
            Self::Forbidden(_) => StatusCode::FORBIDDEN,
            Self::Busy(_) => StatusCode::SERVICE_UNAVAILABLE,
        }
    }

    fn error_response(&self) -> HttpResponse {
        if self.status_code().is_server_error() {
            tracing::error!(error = %self, "request failed");
        }
        HttpResponse::build(self.status_code())
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
        if inner.is_data() {
            let field = if path == "." { String::new() } else { path };
            ApiError::from(InputError::refused(field, in_words(&inner.to_string())))
        } else {
            ApiError::NotJson(inner.to_string())
        }
    })?;
    reader.end().map_err(|e| ApiError::NotJson(e.to_string()))?;
    Ok(value)
}

/// Reads a JSON value that was already parsed, with the path of the field at fault.
pub fn parse_value<T: for<'a> Deserialize<'a>>(value: serde_json::Value) -> Result<T, ApiError> {
    serde_path_to_error::deserialize(value).map_err(|e| {
        let path = e.path().to_string();
        let field = if path == "." { String::new() } else { path };
        ApiError::from(InputError::refused(field, in_words(&e.into_inner().to_string())))
    })
}

/// The reader's message without its place in the text, in words a person uses.
fn in_words(message: &str) -> String {
    let said = message.split(" at line ").next().unwrap_or(message);
    [
        ("expected f64", "a number is needed"),
        ("expected u32", "a whole number, 0 or more, is needed"),
        ("expected i64", "a whole number is needed"),
        ("expected a map", "an object is needed"),
        ("expected a sequence", "a list is needed"),
        ("expected a string", "a text is needed"),
        ("expected a boolean", "true or false is needed"),
    ]
    .into_iter()
    .fold(said.to_owned(), |text, (from, to)| text.replace(from, to))
}
