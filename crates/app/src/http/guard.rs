//! Who may ask: only pages that this server itself gave, under a name of its own.
//!
//! A web page elsewhere must not reach a farm's data. It cannot name this
//! server in its `Host` by pointing a name of its own at it, and it
//! cannot send its own `Origin`. What a browser says of a request from another
//! site is believed too.

use axum::extract::{Request, State};
use axum::http::Uri;
use axum::http::header::{self, HeaderMap, HeaderName, HeaderValue};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use zymarch_core::base::fault::{Fault, FaultCode};

use super::problem::ApiError;
use super::ways::Ways;
use crate::state::App;

/// What a browser says of a request that no other page had a hand in.
const OWN_PAGES: [&str; 2] = ["same-origin", "none"];

/// Refuses strangers, and puts the security headers on every answer.
pub(crate) async fn check(State(app): State<App>, request: Request, next: Next) -> Response {
    let (parts, body) = request.into_parts();
    let is_sealed = app.ways.came(&parts).is_sealed;
    let refused = stranger(&app.ways, is_sealed, &parts.uri, &parts.headers);
    let request = Request::from_parts(parts, body);
    let mut response = match refused {
        Some(header) => {
            ApiError::from(Fault::new(FaultCode::Stranger).with("header", header)).into_response()
        }
        None => next.run(request).await,
    };
    harden(response.headers_mut(), app.ways.is_only_sealed());
    response
}

fn stranger(ways: &Ways, is_sealed: bool, uri: &Uri, headers: &HeaderMap) -> Option<&'static str> {
    // Two of a kind, and it is not known which one a browser meant.
    let text = |name: HeaderName| -> Result<Option<&str>, ()> {
        let mut all = headers.get_all(name).iter();
        match (all.next(), all.next()) {
            (None, _) => Ok(None),
            (Some(value), None) => value.to_str().map(Some).map_err(|_| ()),
            (Some(_), Some(_)) => Err(()),
        }
    };
    let target = uri.authority().map(axum::http::uri::Authority::as_str);
    let host = match (text(header::HOST), target) {
        (Ok(Some(host)), None) => host,
        (Ok(None), Some(target)) => target,
        // A target that names a host of its own names the same one.
        (Ok(Some(host)), Some(target)) if host.eq_ignore_ascii_case(target) => host,
        _ => return Some("Host"),
    };
    if !ways.is_own(host) {
        return Some("Host");
    }
    match text(header::ORIGIN) {
        Ok(None) => {}
        Ok(Some(origin)) if origin.eq_ignore_ascii_case(&ways.origin(host, is_sealed)) => {}
        _ => return Some("Origin"),
    }
    let is_own_page = match text(HeaderName::from_static("sec-fetch-site")) {
        Ok(None) => true,
        Ok(Some(site)) => OWN_PAGES.contains(&site),
        Err(()) => false,
    };
    // A link on another page may lead to the app's pages, though not to its data.
    if !is_own_page && uri.path().starts_with("/api") {
        return Some("Sec-Fetch-Site");
    }
    None
}

pub(crate) fn harden(headers: &mut HeaderMap, is_only_sealed: bool) {
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
    if is_only_sealed {
        let always = HeaderValue::from_static("max-age=31536000");
        headers.insert(header::STRICT_TRANSPORT_SECURITY, always);
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
    use std::net::IpAddr;

    fn here() -> Ways {
        Ways::Machine { at: IpAddr::V4(std::net::Ipv4Addr::LOCALHOST) }
    }

    fn asked(target: &str, headers: &[(&'static str, &'static str)]) -> Option<&'static str> {
        let mut all = HeaderMap::new();
        for (name, value) in headers {
            all.append(HeaderName::from_static(name), HeaderValue::from_static(value));
        }
        stranger(&here(), false, &target.parse().expect("a target"), &all)
    }

    #[test]
    fn strangers_are_told_by_what_gives_them_away() {
        let host = ("host", "127.0.0.1:8420");
        assert_eq!(asked("/api/sites", &[host]), None);
        assert_eq!(asked("/api/sites", &[]), Some("Host"));
        assert_eq!(asked("/api/sites", &[host, ("host", "127.0.0.1:8420")]), Some("Host"), "doubled");
        assert_eq!(asked("/api/sites", &[host, ("host", "farm.example")]), Some("Host"));
        assert_eq!(asked("http://127.0.0.1:8420/api/sites", &[host]), None);
        assert_eq!(asked("http://farm.example/api/sites", &[host]), Some("Host"), "another target");
        let origin = ("origin", "http://127.0.0.1:8420");
        assert_eq!(asked("/api/sites", &[host, origin]), None);
        assert_eq!(asked("/api/sites", &[host, origin, ("origin", "http://farm.example")]), Some("Origin"));
        assert_eq!(asked("/api/sites", &[host, ("origin", "http://localhost:8420")]), Some("Origin"));
        assert_eq!(asked("/api/sites", &[host, ("origin", "null")]), Some("Origin"));
        for (site, refused) in [
            ("same-origin", None),
            ("none", None),
            ("same-site", Some("Sec-Fetch-Site")),
            ("cross-site", Some("Sec-Fetch-Site")),
        ] {
            assert_eq!(asked("/api/sites", &[host, ("sec-fetch-site", site)]), refused, "{site}");
        }
        assert_eq!(asked("/bench", &[host, ("sec-fetch-site", "cross-site")]), None, "a link from elsewhere");
    }
}
