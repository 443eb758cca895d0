//! The API's description and what is made from it must not drift apart.

use std::path::Path;
use std::process::Command;

const WEB: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web");

#[test]
fn the_description_kept_for_the_web_client_is_the_servers() {
    let kept = std::fs::read_to_string(Path::new(WEB).join("src/api/openapi.json")).expect("is kept");
    let now = serde_json::to_string_pretty(&zymarch::api::description()).expect("is JSON");
    assert!(kept.trim() == now.trim(), "the API has changed: run `make types` and commit what it writes");
}

#[test]
fn the_types_of_the_web_client_are_made_from_the_description() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let made = folder.path().join("schema.d.ts");
    let done = Command::new("npx")
        .args(["--no-install", "openapi-typescript", "src/api/openapi.json", "-o"])
        .arg(&made)
        .current_dir(WEB)
        .output()
        .expect("npx runs; `make deps` installs what it needs");
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
    let kept = std::fs::read_to_string(Path::new(WEB).join("src/api/schema.d.ts")).expect("is kept");
    let made = std::fs::read_to_string(made).expect("was made");
    assert!(kept == made, "the types are old: run `make types` and commit what it writes");
}

#[test]
fn every_operation_has_a_name_of_its_own() {
    let description = serde_json::to_value(zymarch::api::description()).expect("is JSON");
    let mut names: Vec<String> = description["paths"]
        .as_object()
        .expect("paths")
        .values()
        .flat_map(|path| path.as_object().expect("operations").values())
        .map(|operation| operation["operationId"].to_string())
        .collect();
    let count = names.len();
    names.sort();
    names.dedup();
    assert_eq!(names.len(), count);
    assert!(count > 15);
}

#[test]
fn the_schemas_kept_in_the_papers_are_those_of_the_formats() {
    for (format, _) in zymarch::api::schema::FORMATS {
        let file = format!("{}/../docs/schemas/{}.json", WEB, format.replace('/', "-"));
        let kept = std::fs::read_to_string(&file).unwrap_or_else(|error| panic!("{file}: {error}"));
        let now = zymarch::api::schema::of(format).expect("has a schema");
        let kept: serde_json::Value = serde_json::from_str(&kept).expect("is JSON");
        assert!(kept == now, "{format} has changed: run `make types` and commit what it writes");
    }
}

/// A part that lets nothing stand beside it can never be met together with another.
#[test]
fn every_schema_can_be_met() {
    let description = serde_json::to_value(zymarch::api::description()).expect("is JSON");
    let schemas = description["components"]["schemas"].as_object().expect("schemas");
    let is_closed = |part: &serde_json::Value| {
        let name = part["$ref"].as_str().and_then(|name| name.rsplit('/').next());
        name.map_or(part, |name| &schemas[name])["additionalProperties"] == serde_json::Value::Bool(false)
    };
    for (name, schema) in schemas {
        let parts = schema["allOf"].as_array().cloned().unwrap_or_default();
        assert!(!parts.iter().any(is_closed), "{name}");
    }
    // What a record is holds both what was written and what was made of it.
    let lot = schemas["Lot"]["properties"].as_object().expect("fields");
    assert!(lot.contains_key("amount") && lot.contains_key("days_left"));
    assert_eq!(schemas["LotFields"]["additionalProperties"], false, "a request stays closed");
}

#[test]
fn every_refusal_of_every_operation_is_described_as_a_problem() {
    let description = serde_json::to_value(zymarch::api::description()).expect("is JSON");
    let paths = description["paths"].as_object().expect("paths");
    for (path, operations) in paths {
        for (method, operation) in operations.as_object().expect("operations") {
            for status in ["400", "403", "404", "405", "408", "409", "413", "415", "422", "500", "503"] {
                let content = &operation["responses"][status]["content"]["application/problem+json"];
                assert!(content.is_object(), "{method} {path} {status}");
            }
        }
    }
}
