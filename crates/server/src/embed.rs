//! The front end, inside the program.

use crate::front::FrontEnd;
use crate::problem::ApiError;
use actix_web::http::header;
use actix_web::{HttpRequest, HttpResponse};
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

/// Replaced in the page by a fresh number for each answer, so that the few style elements our parts insert are allowed
/// by it and no others.
const NONCE_MARK: &str = "__CSP_NONCE__";

/// A script of the front end, as its build's manifest has it.
#[derive(Deserialize)]
struct Built {
    file: String,
    #[serde(default)]
    imports: Vec<String>,
}

/// Which of the scripts that are loaded when needed an address needs.
pub fn modules_of(path: &str) -> &'static [&'static str] {
    let parts: Vec<&str> = path.split('/').collect();
    let further = parts.len() > 3;
    match (parts.as_slice(), further) {
        ([""], _) => &["src/app/Shelf.tsx"],
        (["live"], _) => &["src/app/LivePage.tsx"],
        (["days"] | ["days", _], _) => &["src/day/DayPage.tsx"],
        (["bench", _], _) => &["src/bench/BenchPage.tsx"],
        (["pair"], _) => &["src/app/PairPage.tsx"],
        (["pantry"], _) => &["src/pantry/PantryPage.tsx"],
        (["new"], _) => &["src/begin/NewJobPage.tsx"],
        (["read"], _) => &["src/recipe/ReadPage.tsx"],
        (["kitchen"], _) => &["src/app/KitchenPage.tsx"],
        (["kitchen", "oven"], _) => &["src/kitchen/OvenPage.tsx"],
        (["jobs", _] | ["jobs", _, "order"], _) => &["src/stations/order/Order.tsx"],
        (["jobs", _, "clock"], _) => &["src/stations/clock/Clock.tsx"],
        (["jobs", _, "ledger"], _) => &["src/stations/ledger/Ledger.tsx"],
        (["jobs", _, "dough", ..], false) => &["src/stations/dough/first.ts"],
        (["jobs", _, "dough", ..], true) => &["src/stations/dough/first.ts", "src/stations/dough/views.ts"],
        (["jobs", _, "cold", ..], false) => &["src/stations/cold/first.ts"],
        (["jobs", _, "cold", ..], true) => &["src/stations/cold/first.ts", "src/stations/cold/views.ts"],
        (["jobs", _, "shape", ..], false) => &["src/stations/shape/first.ts"],
        (["jobs", _, "shape", ..], true) => &["src/stations/shape/first.ts", "src/stations/shape/views.ts"],
        (["jobs", _, "oven", ..], false) => &["src/stations/oven/first.ts"],
        (["jobs", _, "oven", ..], true) => &["src/stations/oven/first.ts", "src/stations/oven/views.ts"],
        _ => &[],
    }
}

static BUILT: LazyLock<HashMap<String, Built>> = LazyLock::new(|| {
    let file = FrontEnd::get(".vite/manifest.json");
    file.and_then(|f| serde_json::from_slice(&f.data).ok()).unwrap_or_default()
});

/// The file that the front end's build made of a module; nothing of one it does not have.
pub fn built(module: &str) -> Option<&'static str> {
    BUILT.get(module).map(|b| b.file.as_str())
}

/// Whether the front end was built at all.
pub fn is_built() -> bool {
    !BUILT.is_empty()
}

/// What the browser should fetch along with the page of an address: its script and all that this imports, so that nothing is asked for one
/// after the other.
pub fn hints(path: &str) -> Option<String> {
    let mut wanted: Vec<String> = modules_of(path).iter().map(|&key| key.to_owned()).collect();
    let mut at = 0;
    while let Some(built) = wanted.get(at).and_then(|key| BUILT.get(key)) {
        let more: Vec<String> = built.imports.iter().filter(|i| !wanted.contains(i)).cloned().collect();
        wanted.extend(more);
        at += 1;
    }
    let links: Vec<String> =
        wanted.iter().filter_map(|key| BUILT.get(key)).map(|b| format!("</{}>; rel=modulepreload", b.file)).collect();
    (!links.is_empty()).then(|| links.join(", "))
}

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

fn page(path: &str) -> Result<HttpResponse, ApiError> {
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
    let mut answer = HttpResponse::Ok();
    answer
        .content_type("text/html; charset=utf-8")
        .insert_header((header::CACHE_CONTROL, "no-cache"))
        .insert_header((header::CONTENT_SECURITY_POLICY, policy));
    if let Some(links) = hints(path) {
        answer.insert_header((header::LINK, links));
    }
    Ok(answer.body(html))
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
        return page("");
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
        None => page(path),
    }
}
