//! Who may ask: only pages that this server itself gave to this machine.
//!
//! A web page elsewhere must not reach a farm's data. It cannot name this
//! server in its `Host` by pointing a name of its own at 127.0.0.1, and it
//! cannot send its own `Origin`. What a browser says of a request from another
//! site is believed too.

use std::net::IpAddr;

use axum::extract::{Request, State};
use axum::http::Uri;
use axum::http::header::{self, HeaderMap, HeaderName, HeaderValue};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use zymarch_core::base::fault::{Fault, FaultCode};

use super::problem::ApiError;

const OWN_NAMES: [&str; 3] = ["127.0.0.1", "localhost", "[::1]"];

/// What a browser says of a request that no other page had a hand in.
const OWN_PAGES: [&str; 2] = ["same-origin", "none"];

/// Refuses strangers, and puts the security headers on every answer.
pub(crate) async fn check(State(at): State<IpAddr>, request: Request, next: Next) -> Response {
    let refused = stranger(at, request.uri(), request.headers());
    let mut response = match refused {
        Some(header) => {
            ApiError::from(Fault::new(FaultCode::Stranger).with("header", header)).into_response()
        }
        None => next.run(request).await,
    };
    harden(response.headers_mut());
    response
}

fn stranger(at: IpAddr, uri: &Uri, headers: &HeaderMap) -> Option<&'static str> {
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
    if !is_own(host, at) {
        return Some("Host");
    }
    match text(header::ORIGIN) {
        Ok(None) => {}
        Ok(Some(origin)) if origin == format!("http://{host}") => {}
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

/// Whether a host is this machine, by one of its names or the address it listens on.
fn is_own(host: &str, at: IpAddr) -> bool {
    let bound = match at {
        IpAddr::V4(at) => at.to_string(),
        IpAddr::V6(at) => format!("[{at}]"),
    };
    OWN_NAMES.into_iter().chain([bound.as_str()]).any(|name| {
        let Some((start, rest)) = host.split_at_checked(name.len()) else { return false };
        let is_port = |rest: &str| {
            rest.strip_prefix(':')
                .is_some_and(|port| !port.is_empty() && port.bytes().all(|byte| byte.is_ascii_digit()))
        };
        start.eq_ignore_ascii_case(name) && (rest.is_empty() || is_port(rest))
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

    const AT: IpAddr = IpAddr::V4(std::net::Ipv4Addr::LOCALHOST);

    #[test]
    fn only_the_names_of_this_machine_are_its_own() {
        for own in ["127.0.0.1", "127.0.0.1:8420", "localhost:80", "LocalHost:80", "[::1]:8420"] {
            assert!(is_own(own, AT), "{own}");
        }
        for foreign in [
            "",
            "farm.example",
            "127.0.0.1.farm.example",
            "localhost:",
            "localhost:80x",
            "127.0.0.1@farm.example",
            "10.0.0.1",
            "127.0.0.2",
        ] {
            assert!(!is_own(foreign, AT), "{foreign}");
        }
        let other: IpAddr = "127.0.0.2".parse().expect("an address");
        assert!(is_own("127.0.0.2:8420", other), "the address it listens on is its name");
    }

    fn asked(target: &str, headers: &[(&'static str, &'static str)]) -> Option<&'static str> {
        let mut all = HeaderMap::new();
        for (name, value) in headers {
            all.append(HeaderName::from_static(name), HeaderValue::from_static(value));
        }
        stranger(AT, &target.parse().expect("a target"), &all)
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
