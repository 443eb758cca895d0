//! Who may ask: only pages that this server itself gave to this machine.
//!
//! A web page elsewhere must not reach a farm's data. It cannot name this
//! server in its `Host` by pointing a name of its own at 127.0.0.1, and it
//! cannot send its own `Origin`. What a browser says of a request from another
//! site is believed too.

use axum::extract::Request;
use axum::http::Uri;
use axum::http::header::{self, HeaderMap, HeaderName, HeaderValue};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use zymarch_core::base::fault::{Fault, FaultCode};

use super::problem::ApiError;

const OWN_NAMES: [&str; 3] = ["127.0.0.1", "localhost", "[::1]"];

/// Refuses strangers, and puts the security headers on every answer.
pub(crate) async fn check(request: Request, next: Next) -> Response {
    let refused = stranger(request.uri(), request.headers());
    let mut response = match refused {
        Some(header) => {
            ApiError::from(Fault::new(FaultCode::Stranger).with("header", header)).into_response()
        }
        None => next.run(request).await,
    };
    harden(response.headers_mut());
    response
}

fn stranger(uri: &Uri, headers: &HeaderMap) -> Option<&'static str> {
    let text = |name: HeaderName| headers.get(name).map(|value| value.to_str().unwrap_or(""));
    let host =
        text(header::HOST).or_else(|| uri.authority().map(|authority| authority.as_str())).unwrap_or("");
    if !is_own(host) {
        return Some("Host");
    }
    if let Some(origin) = text(header::ORIGIN)
        && origin != format!("http://{host}")
    {
        return Some("Origin");
    }
    let elsewhere = text(HeaderName::from_static("sec-fetch-site")) == Some("cross-site");
    if elsewhere && uri.path().starts_with("/api/") {
        return Some("Sec-Fetch-Site");
    }
    None
}

fn is_own(host: &str) -> bool {
    OWN_NAMES.iter().any(|name| {
        host.strip_prefix(name).is_some_and(|rest| {
            rest.is_empty()
                || rest
                    .strip_prefix(':')
                    .is_some_and(|port| !port.is_empty() && port.bytes().all(|byte| byte.is_ascii_digit()))
        })
    })
}

fn harden(headers: &mut HeaderMap) {
    let fixed = [
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::X_FRAME_OPTIONS, "DENY"),
        (header::REFERRER_POLICY, "no-referrer"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (HeaderName::from_static("permissions-policy"), "geolocation=(), microphone=(), camera=()"),
    ];
    for (name, value) in fixed {
        headers.insert(name, HeaderValue::from_static(value));
    }
    if !headers.contains_key(header::CONTENT_SECURITY_POLICY) {
        headers.insert(
            header::CONTENT_SECURITY_POLICY,
            HeaderValue::from_static("default-src 'none'; frame-ancestors 'none'"),
        );
    }
    if !headers.contains_key(header::CACHE_CONTROL) {
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_the_names_of_this_machine_are_its_own() {
        for own in ["127.0.0.1", "127.0.0.1:8420", "localhost:80", "[::1]:8420"] {
            assert!(is_own(own), "{own}");
        }
        for foreign in [
            "",
            "farm.example",
            "127.0.0.1.farm.example",
            "localhost:",
            "localhost:80x",
            "127.0.0.1@farm.example",
            "10.0.0.1",
        ] {
            assert!(!is_own(foreign), "{foreign}");
        }
    }
}
