//! The front end, inside the program.

use crate::problem::ApiError;
use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct FrontEnd;

/// Replaced in the page by a fresh number for each answer, so that the few style elements our parts insert are allowed
/// by it and no others.
const NONCE_MARK: &str = "__CSP_NONCE__";

fn media_type(path: &str) -> &'static str {
    match path.rsplit('.').next() {
        Some("html") => "text/html; charset=utf-8",
        Some("js") => "text/javascript; charset=utf-8",
        Some("css") => "text/css; charset=utf-8",
        Some("svg") => "image/svg+xml",
        Some("woff2") => "font/woff2",
        Some("webmanifest" | "json") => "application/json",
        _ => "application/octet-stream",
    }
}

fn page() -> Result<HttpResponse, ApiError> {
    let file = FrontEnd::get("index.html").ok_or_else(|| ApiError::NoSuchPath("the front end".to_owned()))?;
    let mut bytes = [0_u8; 16];
    getrandom::fill(&mut bytes).map_err(|_| ApiError::Broken)?;
    let nonce: String = bytes.iter().map(|b| format!("{b:02x}")).collect();
    let html = String::from_utf8_lossy(&file.data).replace(NONCE_MARK, &nonce);
    let policy = format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data: blob:; \
         font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; \
         frame-ancestors 'none'"
    );
    Ok(HttpResponse::Ok()
        .content_type("text/html; charset=utf-8")
        .insert_header((header::CACHE_CONTROL, "no-cache"))
        .insert_header((header::CONTENT_SECURITY_POLICY, policy))
        .body(html))
}

fn accepts_gzip(request: &HttpRequest) -> bool {
    let accepted = request.headers().get(header::ACCEPT_ENCODING).and_then(|v| v.to_str().ok()).unwrap_or("");
    accepted.split(',').any(|part| part.trim().split(';').next() == Some("gzip") && !part.contains("q=0"))
}

/// Answers every path outside the API: a file of the front end, or its page for a deep link.
pub async fn serve(request: HttpRequest) -> Result<HttpResponse, ApiError> {
    let path = request.path().trim_start_matches('/');
    let asked = |allowed: String| ApiError::WrongMethod {
        path: request.path().to_owned(),
        method: request.method().to_string(),
        allowed,
    };
    if path.starts_with("api/") || path == "api" {
        let methods = crate::description::methods_of(request.path());
        return Err(if methods.is_empty() {
            ApiError::NoSuchPath(request.path().to_owned())
        } else {
            asked(methods.join(", "))
        });
    }
    if request.method() != actix_web::http::Method::GET {
        return Err(asked("GET, HEAD".to_owned()));
    }
    if path.is_empty() || path == "index.html" {
        return page();
    }
    let zipped = accepts_gzip(&request).then(|| FrontEnd::get(&format!("{path}.gz"))).flatten();
    let encoding = if zipped.is_some() { "gzip" } else { "identity" };
    match zipped.or_else(|| FrontEnd::get(path)) {
        Some(file) => {
            let forever = path.starts_with("assets/");
            let cache = if forever { "public, max-age=31536000, immutable" } else { "no-cache" };
            Ok(HttpResponse::Ok()
                .content_type(media_type(path))
                .insert_header((header::CACHE_CONTROL, cache))
                .insert_header((header::VARY, "accept-encoding"))
                // Also keeps the compression of other answers away from these.
                .insert_header((header::CONTENT_ENCODING, encoding))
                .body(file.data.into_owned()))
        }
        // What looks like a file and is none is missing; anything else is a place in the front end.
        None if path.rsplit('/').next().is_some_and(|last| last.contains('.')) => {
            Err(ApiError::NoSuchPath(request.path().to_owned()))
        }
        None => page(),
    }
}
