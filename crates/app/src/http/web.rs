//! The web files, embedded in the program.

use axum::body::Body;
use axum::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY, CONTENT_TYPE, HeaderValue};
use axum::http::{HeaderMap, Method, StatusCode, Uri, header};
use axum::response::{Html, IntoResponse, Response};
use rust_embed::RustEmbed;

use zymarch_core::base::fault::{Fault, FaultCode};

use super::problem::ApiError;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
struct WebFiles;

/// Stands in the page for the word that lets its own style elements in.
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
    let tag: String = file.metadata.sha256_hash()[..8].iter().map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("\"{tag}\"");
    if asked.get(header::IF_NONE_MATCH).is_some_and(|known| known.as_bytes() == tag.as_bytes()) {
        return StatusCode::NOT_MODIFIED.into_response();
    }
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Built files carry a hash of their contents in their name.
    let keep = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut response = Response::new(Body::from(file.data));
    let headers = response.headers_mut();
    for (name, value) in [(CONTENT_TYPE, kind.as_ref()), (CACHE_CONTROL, keep), (header::ETAG, &tag)] {
        if let Ok(value) = HeaderValue::from_str(value) {
            headers.insert(name, value);
        }
    }
    response
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
        "default-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; object-src 'none'; \
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

fn nonce() -> Option<String> {
    let mut bytes = [0_u8; 16];
    getrandom::fill(&mut bytes).ok()?;
    Some(bytes.iter().map(|byte| format!("{byte:02x}")).collect())
}
