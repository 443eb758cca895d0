//! A way of composting copied and changed, over a real server: it judges mixes,
//! is ranked, and cannot change away what keeps people well.

mod support;

use serde_json::{Value, json};
use support::{Server, method_fields, text};
use tempfile::TempDir;

fn mix(method: &str) -> Value {
    json!({"format": "zymarch-recipe/1", "water_l": 50, "method": method, "items": [
        {"material": "wheat-straw", "kg": 70}, {"material": "sheep-manure", "kg": 110}]})
}

#[test]
fn a_copied_way_judges_is_ranked_and_stays_with_its_batches() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::start(&data);
    let mut mine = method_fields(&server.get("/api/methods").json(), "bay-turned", "Bays for straw");
    mine["c_n"] = json!([30, 40]);
    let made = server.send("POST", "/api/methods", &json!({"base": "bay-turned", "method": mine}));
    assert_eq!(made.status, 201, "{made:?}");
    let made = made.json();
    assert_eq!(
        (&made["id"], &made["base"], &made["heat"]),
        (&json!("bays-for-straw"), &json!("bay-turned"), &json!("hot"))
    );

    let stand = |way: &str| server.send("POST", "/api/mix", &mix(way)).json()["standing"]["c_n"].clone();
    assert_eq!((stand("bay-turned"), stand("bays-for-straw")), (json!("above"), json!("right")));
    let ranked = |server: &Server| -> Vec<String> {
        let answer = server.send("POST", "/api/methods/suit", &json!({"recipe": mix("bay-turned")})).json();
        answer
            .as_array()
            .expect("a list")
            .iter()
            .map(|one| one["id"].as_str().expect("an id").to_owned())
            .collect()
    };
    assert_eq!(ranked(&server).len(), 16);

    let batch = json!({"name": "Straw heap", "water_l": 50, "method": "bays-for-straw",
        "heap": {"shape": "box", "length_cm": 110, "width_cm": 110, "height_cm": 120},
        "items": [{"lot_id": null, "material": "wheat-straw", "label": null, "amount": 70, "unit": "kg",
                   "measure_id": null, "measure_litres": null, "own": {}},
                  {"lot_id": null, "material": "sheep-manure", "label": null, "amount": 110, "unit": "kg",
                   "measure_id": null, "measure_litres": null, "own": {}}]});
    let batch = server.send("POST", &server.at_site("batches"), &batch).json();
    assert_eq!(server.send("DELETE", "/api/methods/bays-for-straw", &json!({})).status, 204);
    assert_eq!(ranked(&server).len(), 15, "what was removed is not offered");
    server.kill();
    let server = Server::start(&data);
    let heap = server.send("POST", &format!("/api/batches/{}/build", text(&batch["id"])), &json!({})).json();
    assert_eq!(heap["build"]["windows"]["c_n"], json!([30.0, 40.0]), "the batch keeps its way");
    let back = server.send("POST", "/api/methods/bays-for-straw/restore", &json!({})).json();
    assert_eq!(back["c_n"], json!([30.0, 40.0]));
}

#[test]
fn what_cannot_be_is_named_and_nothing_is_written() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::start(&folder.path().join("farm.sqlite"));
    let good = method_fields(&server.get("/api/methods").json(), "rapid-turned", "Mine");
    for (key, value, field) in [
        ("name", json!(" "), "name"),
        ("c_n", json!([40, 30]), "c_n"),
        ("moisture_pct", json!([10, 60]), "moisture_pct"),
        ("turn_every_days", json!([2, 9]), "turn_every_days"),
        ("turn_every_days", Value::Null, "turn_every_days"),
        ("pattern", json!(["brown"]), "pattern"),
        ("pattern", json!(["glitter"]), "method.pattern[0]"),
    ] {
        let mut bad = good.clone();
        bad[key] = value;
        let answer = server.send("POST", "/api/methods", &json!({"base": "rapid-turned", "method": bad}));
        assert_eq!((answer.status, answer.fields()), (422, vec![field.to_owned()]), "{answer:?}");
    }
    let answer = server.send("POST", "/api/methods", &json!({"base": "moon-dance", "method": good}));
    assert_eq!(answer.fields(), ["base"]);
    assert_eq!(server.get("/api/methods").json().as_array().map(Vec::len), Some(15));
}

#[test]
fn a_copy_is_changed_at_the_version_that_was_read_and_names_stay_apart() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::start(&folder.path().join("farm.sqlite"));
    let make = |name: &str| {
        let method = method_fields(&server.get("/api/methods").json(), "slow-bin", name);
        server.send("POST", "/api/methods", &json!({"base": "slow-bin", "method": method}))
    };
    let first = make("Corner bin").json();
    assert_eq!(make("Corner bin").status, 409, "one name, one way");
    let mut changed = method_fields(&server.get("/api/methods").json(), "corner-bin", "Corner bin");
    changed["check_days"] = json!([3, 5]);
    let body = json!({"version": first["version"], "method": changed});
    let second = server.send("PUT", "/api/methods/corner-bin", &body);
    assert_eq!(second.json()["check_days"], json!([3.0, 5.0]));
    assert_eq!(server.send("PUT", "/api/methods/corner-bin", &body).status, 409, "it was changed since");
    assert_eq!(server.send("PUT", "/api/methods/bay-turned", &body).status, 404, "the book stays as it is");
    // Names without a Latin letter have ids as well, and two of them two.
    assert_eq!(make("堆肥").json()["id"], "own-method");
    assert_eq!(make("肥料").json()["id"], "own-method-2");
}
