//! Changes that say what they were made from: the revision in `If-Match`, three-way merging field by field, and `ETag` on answers.

use crate::problem::{ApiError, StaleField, parse_value};
use actix_web::body::BoxBody;
use actix_web::http::header::{ETAG, HeaderValue, IF_MATCH};
use actix_web::{HttpRequest, HttpResponse, Responder};
use ready_slab_core::error::{InputError, Problem};
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::{Map, Value};

/// A field that changed, with what it was and is.
pub type Changed = (String, Value, Value);

/// An answer with the revision it shows as its entity tag.
pub struct Tagged<T>(pub T, pub i64);

impl<T: Serialize> Responder for Tagged<T> {
    type Body = BoxBody;

    fn respond_to(self, _: &HttpRequest) -> HttpResponse {
        HttpResponse::Ok().insert_header((ETAG, tag(self.1))).json(self.0)
    }
}

/// A revision as an entity tag (RFC 9110, 8.8.3).
fn tag(revision: i64) -> HeaderValue {
    HeaderValue::from_str(&format!("\"{revision}\"")).expect("digits and quotes are a header's")
}

/// The revision that a change was made from; nothing where the request does not say, or says any (`*`).
pub fn made_from(request: &HttpRequest) -> Result<Option<i64>, ApiError> {
    let Some(header) = request.headers().get(IF_MATCH) else { return Ok(None) };
    let text = header.to_str().unwrap_or("").trim();
    if text == "*" {
        return Ok(None);
    }
    let number = text.strip_prefix("W/").unwrap_or(text).trim_matches('"');
    match number.parse::<i64>() {
        Ok(number) if number >= 0 => Ok(Some(number)),
        _ => {
            let text = text.chars().filter(|c| !c.is_control()).take(40).collect();
            let accepted = "the revision from the ETag, such as \"7\"";
            Err(InputError::new("If-Match", Problem::Unreadable { text, accepted }).into())
        }
    }
}

/// What a thing was like at the revision that a change was made from.
pub enum Base<T> {
    /// The change was made from what stands, or does not say.
    AsItStands,
    /// It was made from this.
    Older(T),
    /// It was made from a revision that is no longer known: everything may have changed.
    Unknown,
}

impl<T> Base<T> {
    /// Of a thing at `now`, what it was at `from`.
    pub fn of(from: Option<i64>, now: i64, older: Option<T>) -> Self {
        match (from, older) {
            (Some(from), _) if from == now => Self::AsItStands,
            (None, _) => Self::AsItStands,
            (Some(_), Some(older)) => Self::Older(older),
            (Some(_), None) => Self::Unknown,
        }
    }
}

fn object(value: &impl Serialize) -> Result<Map<String, Value>, ApiError> {
    match serde_json::to_value(value) {
        Ok(Value::Object(fields)) => Ok(fields),
        Ok(_) | Err(_) => Err(ApiError::Broken),
    }
}

/// `current` with the fields of the patch in place (JSON Merge Patch, one level), and the names of those that changed.
///
/// Fails with what stands where one of those fields was changed since the patch was made, also where it was changed to the same: who counts by reading and
/// writing back must hear of every other one.
pub fn merged<T: Serialize + DeserializeOwned>(
    patch: Map<String, Value>,
    current: &T,
    base: &Base<T>,
    revision: i64,
) -> Result<(T, Vec<Changed>), ApiError> {
    let mut whole = object(current)?;
    let base = match base {
        Base::AsItStands => None,
        Base::Older(older) => Some(object(older)?),
        Base::Unknown => Some(Map::new()),
    };
    let mut stale = Vec::new();
    if let Some(base) = &base {
        for (name, wanted) in &patch {
            let (then, now) = (base.get(name), whole.get(name));
            // A field that this kind of thing does not have is told as such below.
            if now.is_some() && then != now {
                stale.push(StaleField {
                    field: name.clone(),
                    was: then.cloned(),
                    is: now.cloned().unwrap_or(Value::Null),
                    wanted: wanted.clone(),
                });
            }
        }
    }
    if !stale.is_empty() {
        return Err(ApiError::Stale { fields: stale, current: Value::Object(whole), revision });
    }
    let mut changed = Vec::new();
    for (name, value) in patch {
        let before = whole.insert(name.clone(), value.clone()).unwrap_or(Value::Null);
        if before != value {
            changed.push((name, before, value));
        }
    }
    Ok((parse_value(Value::Object(whole))?, changed))
}
