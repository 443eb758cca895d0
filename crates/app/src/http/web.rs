//! The web files, embedded in the program.

use axum::body::Body;
use axum::http::header::{
    ACCEPT_ENCODING, CACHE_CONTROL, CONTENT_ENCODING, CONTENT_SECURITY_POLICY, CONTENT_TYPE, HeaderValue,
    VARY,
};
use axum::http::{HeaderMap, Method, StatusCode, Uri, header};
use axum::response::{Html, IntoResponse, Response};
use rust_embed::RustEmbed;

use zymarch_core::base::fault::{Fault, FaultCode};

use super::problem::ApiError;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
struct WebFiles;

/// Stands in the page for the word that lets its own style and script elements in.
const NONCE_PLACE: &str = "__NONCE__";

/// A web file, or the page itself for any address that the page knows how to show.
pub(crate) async fn file(method: Method, uri: Uri, headers: HeaderMap) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path == "api" || path.starts_with("api/") {
        return nothing_at(uri.path());
    }
    if method != Method::GET && method != Method::HEAD {
        return ApiError::from(Fault::new(FaultCode::OnlyRead)).into_response();
    }
    match WebFiles::get(path) {
        Some(_) if path == "index.html" => page(),
        // A packed file is another form of the one beside it, and has no address of its own.
        Some(_) if PACKED.iter().any(|(_, ending)| path.ends_with(ending)) => nothing_at(path),
        Some(file) => asset(path, file, &headers),
        None if path.starts_with("assets/") || path.contains('.') => nothing_at(path),
        None => page(),
    }
}

/// An address of the API that is there, asked in a way it is not.
pub(crate) async fn other_method() -> Response {
    ApiError::from(Fault::new(FaultCode::OtherMethod)).into_response()
}

fn nothing_at(path: &str) -> Response {
    ApiError::from(Fault::new(FaultCode::NothingThere).with("path", path)).into_response()
}

fn asset(path: &str, file: rust_embed::EmbeddedFile, asked: &HeaderMap) -> Response {
    let hash = file.metadata.sha256_hash();
    let packed = PACKED.iter().find_map(|&(coding, ending)| {
        let file = takes(asked, coding).then(|| WebFiles::get(&format!("{path}{ending}"))).flatten()?;
        Some((coding, file.data))
    });
    let (coding, data) = packed.map_or((None, file.data), |(coding, data)| (Some(coding), data));
    let tag: String = hash[..8].iter().map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("\"{tag}{}\"", coding.map_or(String::new(), |coding| format!("-{coding}")));
    if asked.get(header::IF_NONE_MATCH).is_some_and(|known| known.as_bytes() == tag.as_bytes()) {
        return StatusCode::NOT_MODIFIED.into_response();
    }
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Built files carry a hash of their contents in their name.
    let keep = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut response = Response::new(Body::from(data));
    let headers = response.headers_mut();
    headers.insert(VARY, HeaderValue::from_static("accept-encoding"));
    if let Some(coding) = coding {
        headers.insert(CONTENT_ENCODING, HeaderValue::from_static(coding));
    }
    if path == WORKER {
        // What it may fetch is what its own answer says; by default nothing may be.
        headers.insert(CONTENT_SECURITY_POLICY, HeaderValue::from_static("default-src 'self'"));
    }
    for (name, value) in [(CONTENT_TYPE, kind.as_ref()), (CACHE_CONTROL, keep), (header::ETAG, &tag)] {
        if let Ok(value) = HeaderValue::from_str(value) {
            headers.insert(name, value);
        }
    }
    response
}

/// The script that keeps the app on a device.
const WORKER: &str = "worker.js";

/// The forms that text was packed in when it was built, the shortest first.
const PACKED: [(&str, &str); 2] = [("br", ".br"), ("gzip", ".gz")];

/// Whether an answer may be packed so.
fn takes(asked: &HeaderMap, coding: &str) -> bool {
    let codings = asked.get_all(ACCEPT_ENCODING).iter().filter_map(|value| value.to_str().ok());
    codings.flat_map(|value| value.split(',')).any(|one| {
        let mut parts = one.split(';').map(str::trim);
        let is_named = parts.next().is_some_and(|name| name.eq_ignore_ascii_case(coding));
        let weight = parts.find_map(|part| part.strip_prefix("q=")?.parse::<f32>().ok());
        is_named && weight != Some(0.0)
    })
}

fn page() -> Response {
    let Some(file) = WebFiles::get("index.html") else {
        return nothing_at("index.html");
    };
    let Some(nonce) = nonce() else {
        return ApiError::from(Fault::new(FaultCode::Broken).with("why", "no random numbers"))
            .into_response();
    };
    let html = String::from_utf8_lossy(&file.data).replace(NONCE_PLACE, &nonce);
    let policy = format!(
        "default-src 'self'; script-src 'self' 'nonce-{nonce}'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; object-src 'none'; \
         base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    );
    let mut response = Html(html).into_response();
    let headers = response.headers_mut();
    headers.insert(CACHE_CONTROL, HeaderValue::from_static("no-store"));
    if let Ok(policy) = HeaderValue::from_str(&policy) {
        headers.insert(CONTENT_SECURITY_POLICY, policy);
    }
    response
}

pub(crate) fn nonce() -> Option<String> {
    let mut bytes = [0_u8; 16];
    getrandom::fill(&mut bytes).ok()?;
    Some(bytes.iter().map(|byte| format!("{byte:02x}")).collect())
}
