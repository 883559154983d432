//! Tables of routes: which of them a rule is about.

use actix_web::dev::ServiceRequest;
use actix_web::http::Method;

/// A method and a path; `*` stands for one part of it, and at its end for all that follows.
pub type Pattern = (&'static str, &'static str);

/// Whether a table names a request, of whichever bakery.
pub fn named(table: &[Pattern], method: &Method, path: &str) -> bool {
    table.iter().any(|(m, pattern)| *m == method.as_str() && fits(pattern, path))
}

fn fits(pattern: &str, path: &str) -> bool {
    let mut parts = path.split('/');
    let mut wanted = pattern.split('/').peekable();
    while let Some(part) = wanted.next() {
        let last = wanted.peek().is_none();
        match (part, parts.next()) {
            ("*", Some(_)) if last => return true,
            ("*", Some(_)) => {}
            (part, Some(given)) if part == given => {}
            _ => return false,
        }
    }
    parts.next().is_none()
}

/// Under which the demo's pages and routes are.
pub const DEMO: &str = "/demo";

/// The path of a request as it will be routed, of whichever bakery: the router reads `%61` as `a`, so whoever decides by a path must, too.
pub fn routed(request: &ServiceRequest) -> &str {
    in_any_bakery(request.match_info().as_str())
}

/// A path without the prefix of the demo.
pub fn in_any_bakery(path: &str) -> &str {
    path.strip_prefix(DEMO).filter(|rest| rest.starts_with('/')).unwrap_or(path)
}
