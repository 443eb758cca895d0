//! Whatever is sent to whichever operation: an answer, never a fall. The
//! operations and what they take are read from the description of the API, so
//! that a new one is tried without a line here.

mod support;

use serde_json::{Value, json};
use support::described::{Operation, api};
use support::{Asked, Server, text};
use tempfile::TempDir;

/// Values that stand where another is wanted.
fn odd() -> Vec<Value> {
    vec![
        Value::Null,
        json!(true),
        json!(""),
        json!("\u{0}\u{202e}💥"),
        json!("x".repeat(2000)),
        json!("2026-02-30"),
        json!(0),
        json!(-1),
        json!(1e308),
        json!(-1e308),
        json!(5e-324),
        json!(9_223_372_036_854_775_807_i64),
        json!([]),
        json!({}),
        json!([[[[1]]]]),
    ]
}

/// Every place in a value, as a way to it.
fn places(value: &Value, way: &str, found: &mut Vec<String>) {
    found.push(way.to_owned());
    match value {
        Value::Object(fields) => {
            for (name, of) in fields {
                places(of, &format!("{way}/{name}"), found);
            }
        }
        Value::Array(items) => {
            for (index, of) in items.iter().enumerate() {
                places(of, &format!("{way}/{index}"), found);
            }
        }
        _ => {}
    }
}

/// What is there, by the start of its address, so that what is sent reaches all the way in.
fn there(server: &Server) -> Vec<(&'static str, String)> {
    let first = |what: &str| text(&server.get(&server.at_site(what)).json()[0]["id"]);
    let (lot, batch) = (first("lots"), first("batches"));
    let heap = server.ask(Asked::new("POST", &format!("/api/batches/{batch}/build"))).json();
    let test = json!({"made_on": "2026-03-14", "readings": {"kind": "squeeze", "feel": "holds"}});
    let test = server.send("POST", &format!("/api/lots/{lot}/tests"), &test).json();
    let out = json!({"material": "pet-faeces", "made_on": "2026-03-14"});
    let out = server.send("POST", &server.at_site("sorted-out"), &out).json();
    let used = json!({"kind": "used", "amount": 0.1});
    server.send("POST", &format!("/api/lots/{lot}/history"), &used);
    let event = server.get(&format!("/api/lots/{lot}/history")).json()[0]["id"].clone();
    vec![
        ("/api/sites/", server.at_site("").split('/').nth(3).expect("an id").to_owned()),
        ("/api/measures/", first("measures")),
        ("/api/lots/", lot),
        ("/api/lot-events/", text(&event)),
        ("/api/tests/", text(&test["id"])),
        ("/api/sorted-out/", text(&out["id"])),
        ("/api/batches/", batch),
        ("/api/heaps/", text(&heap["id"])),
        ("/api/materials/", "wheat-straw".into()),
        ("/api/methods/", "bay-turned".into()),
    ]
}

#[test]
fn no_request_makes_it_fall() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::demo(&folder.path().join("demo.sqlite"));
    let there = there(&server);
    let api = api();
    assert!(api.operations.len() > 40, "the description was read");
    let mut asked = 0;
    // Once there are people nothing is answered without one: theirs come last.
    let mut operations: Vec<&Operation> = api.operations.iter().collect();
    operations.sort_by_key(|one| one.path.contains("/people"));
    for Operation { method, path, body, .. } in operations {
        for id in ["real", "019cea39-a200-7000-8000-000000000999", "-1", "x", "%F0%9F%92%A5"] {
            let known = there.iter().find(|(start, _)| path.starts_with(start)).map(|(_, id)| id.as_str());
            let key = if id == "real" { known.unwrap_or("none") } else { id };
            let path = ["{id}", "{site}"].iter().fold(path.clone(), |path, part| path.replace(part, key));
            let request = Asked::new(method, &path);
            let Some(schema) = body else {
                answered(&server, request, method, &path);
                asked += 1;
                if method == "DELETE" {
                    // What comes after is to be tried on something that is there.
                    answered(&server, Asked::new("POST", &format!("{path}/restore")), "POST", &path);
                }
                continue;
            };
            let whole = api.example(schema, 0);
            answered(&server, request.json(&whole), method, &path);
            asked += 1;
            if id != "real" {
                continue;
            }
            let mut found = Vec::new();
            places(&whole, "", &mut found);
            for place in found {
                for value in odd() {
                    let mut changed = whole.clone();
                    if let Some(at) = changed.pointer_mut(&place) {
                        *at = value;
                    }
                    answered(
                        &server,
                        Asked::new(method, &path).json(&changed),
                        method,
                        &format!("{path} {place}"),
                    );
                    asked += 1;
                }
            }
        }
    }
    assert!(asked > 3000, "only {asked} were tried");
    assert!(matches!(server.get("/api/sites").status, 200 | 401));
}

/// Answered, and not with the words of a fall; what is refused is a problem document.
fn answered(server: &Server, asked: Asked, method: &str, at: &str) {
    let answer = server.try_ask(asked).unwrap_or_else(|| panic!("{method} {at}: the connection broke"));
    assert!(answer.status < 500, "{method} {at}: {} {}", answer.status, answer.text);
    let refused = [409, 415, 422].contains(&answer.status);
    assert!(
        !refused || answer.header("content-type") == "application/problem+json",
        "{method} {at}: {answer:?}"
    );
}

#[test]
fn broken_documents_are_refused_and_not_read() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::start(&folder.path().join("farm.sqlite"));
    for Operation { id: operation, method, path, body } in &api().operations {
        // A probe is asked first who it is: `probes.rs` has what it sends wrongly.
        if body.is_none() || operation == "probe_report" {
            continue;
        }
        let id = "019cea39-a200-7000-8000-000000000999";
        let names = ["{id}", "{site}", "{entry}", "{probe}"];
        let path = names.iter().fold(path.clone(), |path, name| path.replace(name, id));
        for text in
            ["", "{", "null", "[]", "\"word\"", "{\"a\":1}", "{} trailing", "\u{feff}[]", "{\"a\":NaN}"]
        {
            let answer = server.ask(Asked::new(method, &path).text(text));
            assert_eq!(answer.status, 422, "{method} {path} {text}: {}", answer.text);
            assert!(!answer.json()["detail"].as_str().expect("says why").is_empty());
        }
    }
}
