//! What is told a phone that comes unsealed: how it comes to trust this farm, and where to go then.
//!
//! One page and one file, and nothing of the farm.

use axum::http::header::{CONTENT_DISPOSITION, CONTENT_SECURITY_POLICY, CONTENT_TYPE};
use axum::http::{Method, StatusCode, Uri};
use axum::response::{Html, IntoResponse, Response};

use crate::http::web;
use crate::state::App;
use crate::words::said;

/// Where the authority is fetched.
const AUTHORITY: &str = "/zymarch-authority.crt";

/// Answers whoever comes unsealed from elsewhere.
pub(crate) async fn answer(app: App, method: Method, uri: Uri) -> Response {
    if method != Method::GET && method != Method::HEAD {
        return StatusCode::UPGRADE_REQUIRED.into_response();
    }
    match (uri.path(), app.ways.authority()) {
        (AUTHORITY, Some(authority)) => (
            [
                (CONTENT_TYPE, "application/x-x509-ca-cert"),
                (CONTENT_DISPOSITION, "attachment; filename=\"zymarch-authority.crt\""),
            ],
            authority.der(),
        )
            .into_response(),
        _ => page(&app),
    }
}

fn page(app: &App) -> Response {
    let Some(nonce) = web::nonce() else { return StatusCode::INTERNAL_SERVER_ERROR.into_response() };
    let line = |key: &str| escaped(&said(&format!("door{key}"), &[]));
    let goes_to = escaped(&app.ways.best_origin(""));
    let link = format!("<p class=\"go\"><a href=\"{goes_to}/\">{}</a></p><p>{goes_to}</p>", line("Open"));
    let how = app.ways.authority().map_or_else(String::new, |authority| {
        let steps: String = ["Android", "IPhone", "Computer"]
            .iter()
            .map(|on| format!("<h2>{}</h2><p>{}</p>", line(&format!("{on}Title")), line(on)))
            .collect();
        format!(
            "<p>{}</p><p class=\"go\"><a href=\"{AUTHORITY}\">{}</a></p>{steps}<p class=\"mark\">{}<br>{}</p><p>{}</p>",
            line("Why"),
            line("Fetch"),
            line("Mark"),
            escaped(&authority.fingerprint()),
            line("Near"),
        )
    });
    let page = Html(format!(
        "<!doctype html><html lang=\"en\"><meta charset=\"utf-8\">\
         <meta name=\"viewport\" content=\"width=device-width, initial-scale=1\"><title>Zymarch</title>\
         <style nonce=\"{nonce}\">{STYLE}</style><main><h1>{}</h1>{how}<h2>{}</h2>{link}</main></html>",
        line("Title"),
        line("Then"),
    ));
    let policy = format!("default-src 'none'; style-src 'nonce-{nonce}'; frame-ancestors 'none'");
    ([(CONTENT_SECURITY_POLICY, policy)], page).into_response()
}

/// The look of the app, as far as one page needs it.
const STYLE: &str = "body{margin:0;background:#fbf9f4;color:#14222a;font:1rem/1.45 sans-serif}\
    main{max-width:34rem;margin:0 auto;padding:20px 16px}h1{font-size:1.6rem}h2{font-size:1rem;margin:22px 0 2px}\
    p{margin:4px 0 10px}.go a{display:block;padding:14px;background:#0b5566;color:#fff;text-align:center;\
    text-decoration:none;font-weight:600;border-radius:3px}.mark{overflow-wrap:anywhere;font-size:.875rem}";

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_in_a_name_becomes_part_of_the_page() {
        assert_eq!(escaped("<b>\"&"), "&lt;b&gt;&quot;&amp;");
    }
}
