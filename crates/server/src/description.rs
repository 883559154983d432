//! The API described by itself: its routes, what they answer and how they fail.

use crate::routes::{Description, configure};
use actix_web::App;
use std::sync::LazyLock;
use utoipa::OpenApi as _;
use utoipa::openapi::{OpenApi, RefOr};
use utoipa_actix_web::AppExt as _;

/// The description of the API.
pub fn description() -> OpenApi {
    let (_, mut api) =
        App::new().into_utoipa_app().openapi(Description::openapi()).configure(configure).split_for_parts();
    // Faults have a media type of their own (RFC 9457).
    for item in api.paths.paths.values_mut() {
        for operation in
            [&mut item.get, &mut item.put, &mut item.post, &mut item.delete, &mut item.patch].into_iter().flatten()
        {
            for (status, response) in &mut operation.responses.responses {
                let RefOr::T(response) = response else { continue };
                if status.starts_with(['4', '5'])
                    && let Some(content) = response.content.shift_remove("application/json")
                {
                    response.content.insert("application/problem+json".to_owned(), content);
                }
            }
        }
    }
    api
}

/// Methods that a path of the API knows, by its description; none where there is no such path.
pub fn methods_of(path: &str) -> Vec<&'static str> {
    static KNOWN: LazyLock<Vec<(Vec<String>, Vec<&'static str>)>> = LazyLock::new(|| {
        let api = description();
        let one = |(path, item): (&String, &utoipa::openapi::PathItem)| {
            let methods = [
                (item.get.is_some(), "GET"),
                (item.get.is_some(), "HEAD"),
                (item.post.is_some(), "POST"),
                (item.put.is_some(), "PUT"),
                (item.patch.is_some(), "PATCH"),
                (item.delete.is_some(), "DELETE"),
            ];
            let methods = methods.into_iter().filter(|m| m.0).map(|m| m.1).collect();
            (path.split('/').map(str::to_owned).collect(), methods)
        };
        api.paths.paths.iter().map(one).collect()
    });
    let parts: Vec<&str> = path.split('/').collect();
    let fits = |known: &[String]| {
        known.len() == parts.len() && known.iter().zip(&parts).all(|(k, p)| k.starts_with('{') || k == p)
    };
    KNOWN.iter().find(|(known, _)| fits(known)).map(|(_, methods)| methods.clone()).unwrap_or_default()
}
