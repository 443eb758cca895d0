//! Who is answered, and with what headers.

mod support;

use serde_json::json;
use support::{Asked, Server};
use tempfile::TempDir;

fn server() -> (Server, TempDir) {
    let folder = TempDir::new().expect("a folder");
    (Server::start(&folder.path().join("farm.sqlite")), folder)
}

#[test]
fn a_foreign_host_is_refused() {
    let (server, _folder) = server();
    for path in ["/", "/api/sites"] {
        for host in ["farm.example", "farm.example:8420", "127.0.0.1.farm.example", "10.0.0.7:8420"] {
            let answer = server.ask(Asked::new("GET", path).header("host", host));
            assert_eq!(answer.status, 403, "{host} {path}");
            assert!(answer.text.contains("Host"), "{answer:?}");
        }
    }
}

#[test]
fn a_foreign_origin_is_refused_and_writes_nothing() {
    let (server, _folder) = server();
    let lot = json!({"material": "barley-straw", "label": null, "amount": 1, "unit": "kg", "measure_id": null, "own": {}});
    for origin in ["http://farm.example", "null", "https://127.0.0.1", "http://127.0.0.1:1"] {
        let answer =
            server.ask(Asked::new("POST", &server.at_site("lots")).json(&lot).header("origin", origin));
        assert_eq!(answer.status, 403, "{origin}");
    }
    assert_eq!(server.get(&server.at_site("lots")).json(), json!([]));
    let own = server.address().to_owned();
    let answer = server.ask(Asked::new("POST", &server.at_site("lots")).json(&lot).header("origin", &own));
    assert_eq!(answer.status, 201, "{answer:?}");
}

#[test]
fn a_request_from_another_site_is_refused() {
    let (server, _folder) = server();
    let answer = server.ask(Asked::new("GET", "/api/sites").header("sec-fetch-site", "cross-site"));
    assert_eq!(answer.status, 403);
    // A link on another page may still lead here.
    assert_eq!(server.ask(Asked::new("GET", "/").header("sec-fetch-site", "cross-site")).status, 200);
}

#[test]
fn every_answer_carries_the_security_headers() {
    let (server, _folder) = server();
    for path in ["/", "/stock", "/api/sites", "/api/nothing", "/icon.svg"] {
        let answer = server.get(path);
        assert_eq!(answer.header("x-content-type-options"), "nosniff", "{path}");
        assert_eq!(answer.header("x-frame-options"), "DENY", "{path}");
        assert_eq!(answer.header("referrer-policy"), "no-referrer", "{path}");
        let policy = answer.header("content-security-policy");
        assert!(
            policy.contains("default-src") && policy.contains("frame-ancestors 'none'"),
            "{path}: {policy}"
        );
        assert!(!policy.contains("unsafe"), "{path}: {policy}");
        assert_eq!(answer.header("access-control-allow-origin"), "", "{path}");
    }
}

#[test]
fn the_word_that_lets_styles_in_is_new_each_time() {
    let (server, _folder) = server();
    let nonce = || server.get("/").header("content-security-policy").to_owned();
    assert_ne!(nonce(), nonce());
    assert!(!server.get("/").text.contains("__NONCE__"));
}

#[test]
fn the_web_files_are_in_the_program() {
    let (server, _folder) = server();
    let page = server.get("/bench");
    assert_eq!((page.status, page.header("content-type")), (200, "text/html; charset=utf-8"));
    let script = page
        .text
        .split("src=\"")
        .nth(1)
        .and_then(|rest| rest.split('"').next())
        .expect("the page has a script");
    let file = server.ask(Asked::new("GET", script).header("accept-encoding", "identity"));
    assert_eq!(file.status, 200);
    assert!(file.header("cache-control").contains("immutable"));
    assert_eq!(server.get("/assets/none.js").status, 404);
}

#[test]
fn scripts_come_packed_as_they_were_built() {
    let (server, _folder) = server();
    let page = server.get("/bench");
    let script =
        page.text.split('"').find(|part| part.starts_with("/assets/library-")).expect("a long script");
    let asked = |codings: &str| {
        let answer = server.ask(Asked::new("GET", script).header("accept-encoding", codings));
        assert_eq!(answer.header("vary"), "accept-encoding", "{codings}");
        let length: u64 = answer.header("content-length").parse().expect("its length is known");
        (answer.header("content-encoding").to_owned(), length, answer.header("etag").to_owned())
    };
    let (plain, gzip, brotli) = (asked("identity"), asked("gzip"), asked("gzip, deflate, br"));
    assert_eq!((plain.0.as_str(), gzip.0.as_str(), brotli.0.as_str()), ("", "gzip", "br"));
    assert!(brotli.1 < gzip.1 && gzip.1 < plain.1 / 2, "{} {} {}", brotli.1, gzip.1, plain.1);
    assert!(plain.2 != gzip.2 && gzip.2 != brotli.2);
    assert_eq!(asked("br;q=0, gzip").0, "gzip");
    // Known already: nothing is sent again.
    let known = Asked::new("GET", script).header("accept-encoding", "br").header("if-none-match", &brotli.2);
    assert_eq!(server.ask(known).status, 304);
    assert_eq!(server.get(&format!("{script}.br")).status, 404);
}
