//! What every request passes: Host and Origin checks, and the headers that keep the browser strict.

use crate::paths::routed;
use crate::problem::ApiError;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::http::header::{self, HeaderMap, HeaderName, HeaderValue};
use actix_web::middleware::Next;
use actix_web::{ResponseError, web};
use std::net::IpAddr;

/// Names under which the server may be addressed, without port.
#[derive(Debug, Clone)]
pub struct AllowedHosts {
    names: Vec<String>,
    any_number: bool,
    tls: bool,
}

impl Default for AllowedHosts {
    fn default() -> Self {
        Self::new(&[])
    }
}

impl AllowedHosts {
    /// The loopback names, and those given.
    pub fn new(extra: &[String]) -> Self {
        let mut names: Vec<String> = ["localhost", "127.0.0.1", "[::1]"].map(str::to_owned).to_vec();
        names.extend(extra.iter().map(|h| h.to_lowercase()));
        Self { names, any_number: false, tls: false }
    }

    /// And every address that is a number, where the server listens on all of this machine's: a name that points here but is not ours (DNS rebinding) is
    /// none.
    #[must_use]
    pub fn and_numbers(self, any_number: bool) -> Self {
        Self { any_number, ..self }
    }

    /// And by HTTPS only, which browsers then keep to for a year (RFC 6797). They leave it aside for addresses that are numbers.
    #[must_use]
    pub fn by_tls(self, tls: bool) -> Self {
        Self { tls, ..self }
    }

    /// Whether a request may name this host, with any port.
    pub fn allows(&self, authority: &str) -> bool {
        let authority = authority.to_lowercase();
        let host = match authority.rsplit_once(':') {
            Some((host, port)) if port.bytes().all(|b| b.is_ascii_digit()) && !host.is_empty() => host,
            _ => authority.as_str(),
        };
        let number = || host.trim_start_matches('[').trim_end_matches(']').parse::<IpAddr>().is_ok();
        self.names.iter().any(|h| h == host) || (self.any_number && number())
    }
}

fn text<'a>(headers: &'a HeaderMap, name: &HeaderName) -> Option<&'a str> {
    headers.get(name).and_then(|v| v.to_str().ok())
}

fn check(request: &ServiceRequest, hosts: &AllowedHosts) -> Result<(), ApiError> {
    let headers = request.headers();
    // A name that points here but is not ours (DNS rebinding) shows in the Host header.
    let host = text(headers, &header::HOST).ok_or(ApiError::Forbidden("The request has no Host header."))?;
    if !hosts.allows(host) {
        return Err(ApiError::Forbidden(
            "This server doesn’t answer to that host name. Start it with --allow-host NAME to add it.",
        ));
    }
    let changes = !matches!(*request.method(), Method::GET | Method::HEAD | Method::OPTIONS);
    if changes
        && let Some(origin) = text(headers, &header::ORIGIN)
        && !origin.split_once("://").is_some_and(|(_, authority)| authority.eq_ignore_ascii_case(host))
    {
        return Err(ApiError::Forbidden("Only Ready Slab’s own pages can make changes."));
    }
    // What browsers say of the page that asks (W3C Fetch Metadata); other programs say nothing. What is read may take long to compute, too.
    let site = text(headers, &HeaderName::from_static("sec-fetch-site"));
    let foreign = site.is_some_and(|s| s == "cross-site" || s == "same-site");
    if foreign && (changes || routed(request).starts_with("/api")) {
        return Err(ApiError::Forbidden("Only Ready Slab’s own pages can ask for this."));
    }
    Ok(())
}

/// Refuses foreign hosts and origins and sets the security headers on every answer.
pub async fn guard(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<EitherBody<impl MessageBody>>, actix_web::Error> {
    let mut request = request;
    // What may be asked may be asked for its head: the answer's body is left out on the way.
    if request.method() == Method::HEAD {
        request.head_mut().method = Method::GET;
    }
    let tls = request.app_data::<web::Data<AllowedHosts>>().is_some_and(|hosts| hosts.tls);
    let verdict = match request.app_data::<web::Data<AllowedHosts>>() {
        Some(hosts) => check(&request, hosts),
        None => Err(ApiError::Broken),
    };
    let mut response = match verdict {
        Ok(()) => next.call(request).await?.map_into_left_body(),
        Err(error) => request.into_response(error.error_response()).map_into_right_body(),
    };
    let headers = response.headers_mut();
    for (name, value) in [
        ("x-content-type-options", "nosniff"),
        ("referrer-policy", "no-referrer"),
        ("x-frame-options", "DENY"),
        ("cross-origin-opener-policy", "same-origin"),
        ("cross-origin-resource-policy", "same-origin"),
        ("permissions-policy", "camera=(), microphone=(), geolocation=()"),
    ] {
        headers.insert(HeaderName::from_static(name), HeaderValue::from_static(value));
    }
    if tls {
        headers.insert(header::STRICT_TRANSPORT_SECURITY, HeaderValue::from_static("max-age=31536000"));
    }
    if !headers.contains_key(header::CONTENT_SECURITY_POLICY) {
        headers.insert(
            header::CONTENT_SECURITY_POLICY,
            HeaderValue::from_static("default-src 'none'; frame-ancestors 'none'"),
        );
    }
    Ok(response)
}
