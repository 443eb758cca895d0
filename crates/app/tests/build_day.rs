//! Build day over a real server: begun, laid, amended, planned anew, undone, and
//! gone on with after the power was cut.

mod support;

use std::path::Path;

use serde_json::{Value, json};
use support::{Answer, Server, text};
use tempfile::TempDir;

const NOW: &str = "2026-03-22T09:00";

/// Straw and dung by weight in a bay, right by the usual windows.
fn batch(server: &Server, straw_lot: &Value) -> String {
    let item = |material: &str, amount: f64, lot: &Value| {
        json!({"lot_id": lot, "material": material, "label": null, "amount": amount, "unit": "kg",
               "measure_id": null, "measure_litres": null, "own": {}})
    };
    let batch = json!({"name": "Terrace heap", "water_l": 50, "method": "layered-heap",
        "heap": {"shape": "box", "length_cm": 120, "width_cm": 120, "height_cm": 120},
        "items": [item("wheat-straw", 66.0, straw_lot), item("sheep-manure", 160.0, &Value::Null)]});
    let answer = server.send("POST", &server.at_site("batches"), &batch);
    assert_eq!(answer.status, 201, "{answer:?}");
    text(&answer.json()["id"])
}

fn begin(server: &Server, batch: &str) -> Value {
    let answer = server.send("POST", &format!("/api/batches/{batch}/build"), &json!({}));
    assert_eq!(answer.status, 201, "{answer:?}");
    answer.json()
}

fn act(server: &Server, heap: &Value, what: &str, more: &Value) -> Answer {
    let mut body = json!({"after": heap["head"]});
    for (name, value) in more.as_object().expect("an object") {
        body[name] = value.clone();
    }
    server.send("POST", &format!("/api/heaps/{}/{what}", text(&heap["id"])), &body)
}

/// Lays the next step, each of its portions so many times as planned.
fn lay(server: &Server, heap: &Value, times: f64) -> Value {
    let at = heap["build"]["laid"].as_u64().expect("a number") as usize;
    let step = &heap["build"]["steps"][at];
    let portions: Vec<_> = step["portions"]
        .as_array()
        .expect("a list")
        .iter()
        .map(|one| json!({"item": one["item"], "amount": one["amount"].as_f64().expect("a number") * times}))
        .collect();
    let answer =
        act(server, heap, "lay", &json!({"step": at, "portions": portions, "water_l": step["water_l"]}));
    assert_eq!(answer.status, 200, "{answer:?}");
    answer.json()
}

fn steps(heap: &Value) -> usize {
    heap["build"]["steps"].as_array().expect("a list").len()
}

fn number(value: &Value) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("{value} is no number"))
}

fn farm(data: &Path) -> (Server, String) {
    let server = Server::start_at(data, NOW);
    let lot =
        json!({"material": "wheat-straw", "label": null, "amount": 100, "unit": "kg", "measure_id": null});
    let lot = server.send("POST", &server.at_site("lots"), &lot).json();
    let batch = batch(&server, &lot["id"]);
    (server, batch)
}

#[test]
fn a_heap_is_built_layer_by_layer_and_adds_up() {
    let folder = TempDir::new().expect("a folder");
    let (server, batch) = farm(&folder.path().join("farm.sqlite"));
    let mut heap = begin(&server, &batch);
    assert_eq!(heap["name"], "Terrace heap");
    assert_eq!(heap["build"]["anew"], json!([]), "as planned it is right: {}", heap["build"]["at_end"]);
    let plan = steps(&heap);
    let mut last = 0.0;
    for laid in 1..=plan {
        heap = lay(&server, &heap, 1.0);
        assert_eq!(heap["build"]["laid"], laid);
        let height = number(&heap["build"]["height_cm"]);
        assert!(height >= last);
        last = height;
    }
    assert!((number(&heap["build"]["so_far"]["wet_mass_kg"]) - 276.0).abs() < 1e-3);
    let answer = act(&server, &heap, "lay", &json!({"step": plan, "portions": [], "water_l": 0}));
    assert_eq!((answer.status, answer.fields()), (422, vec!["step".to_owned()]));
    // One more of the same batch is another heap with another name.
    assert_eq!(begin(&server, &batch)["name"], "Terrace heap 2");
}

#[test]
fn a_heap_goes_on_where_it_was_when_the_power_was_cut() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let (first, batch) = farm(&data);
    drop(first);
    let server = Server::process(&data);
    let mut heap = begin(&server, &batch);
    for times in [1.0, 1.2, 1.0] {
        heap = lay(&server, &heap, times);
    }
    server.kill();
    let server = Server::process(&data);
    let again = server.get(&format!("/api/heaps/{}", text(&heap["id"]))).json();
    assert_eq!(again, heap);
    assert_eq!(begin(&server, &batch)["id"], heap["id"], "begun again it goes on");
    let listed = &server.get(&server.at_site("heaps")).json()[0];
    assert_eq!((&listed["id"], &listed["laid"]), (&heap["id"], &heap["build"]["laid"]));
}

#[test]
fn what_leaves_the_windows_is_planned_anew_in_one_go_and_undone() {
    let folder = TempDir::new().expect("a folder");
    let (server, batch) = farm(&folder.path().join("farm.sqlite"));
    let mut heap = begin(&server, &batch);
    let c_n = |heap: &Value| heap["build"]["at_end"]["standing"]["c_n"].clone();
    assert_eq!(c_n(&heap), "right");
    while c_n(&heap) == "right" {
        let at = number(&heap["build"]["laid"]) as usize;
        let is_straw = heap["build"]["steps"][at]["portions"][0]["item"] == 0;
        heap = lay(&server, &heap, if is_straw { 2.5 } else { 1.0 });
    }
    let told = heap["build"]["anew"][0].clone();
    assert_eq!(told["status"], "ok", "{told}");
    let mended = act(&server, &heap, "anew", &json!({}));
    assert_eq!(mended.status, 200, "{mended:?}");
    let mended = mended.json();
    assert_eq!(c_n(&mended), "right");
    assert_eq!(mended["build"]["anew"], json!([]));
    assert_eq!(mended["build"]["laid"], heap["build"]["laid"], "what was laid stays");
    let laid = number(&heap["build"]["laid"]) as usize;
    let steps = |of: &Value| of["steps"].as_array().expect("steps").clone();
    assert_eq!(
        steps(&mended["build"])[laid..],
        steps(&told),
        "it is planned as it was offered, tops and all"
    );
    assert!((number(&mended["build"]["at_end"]["c_n"]) - number(&told["at_end"]["c_n"])).abs() < 0.05);
    let undone = act(&server, &mended, "undo", &json!({})).json();
    assert_eq!(undone["build"]["steps"], heap["build"]["steps"]);
    let stale = act(&server, &mended, "undo", &json!({}));
    assert_eq!(stale.status, 409, "{stale:?}");
}

#[test]
fn something_that_nobody_planned_goes_in_and_comes_out_again() {
    let folder = TempDir::new().expect("a folder");
    let (server, batch) = farm(&folder.path().join("farm.sqlite"));
    let begun = begin(&server, &batch);
    let leaves = json!({"lot_id": null, "material": "tree-leaves-dry", "label": "from the lane", "amount": 0, "unit": "kg",
                        "measure_id": null, "measure_litres": null, "own": {}});
    let lay = |heap: &Value, portions: Value, new_items: Value| {
        act(
            &server,
            heap,
            "lay",
            &json!({"step": 0, "portions": portions, "water_l": 9, "new_items": new_items}),
        )
    };
    let heap =
        lay(&begun, json!([{"item": 0, "amount": 5}, {"item": 2, "amount": 4}]), json!([leaves])).json();
    assert_eq!(heap["items"][2]["label"], "from the lane");
    assert_eq!(heap["build"]["so_far"]["wet_mass_kg"], 18.0);
    assert_eq!(heap["build"]["steps"][0]["planned"]["portions"], begun["build"]["steps"][0]["portions"]);
    // Put right afterwards: it was more.
    let heap = lay(&heap, json!([{"item": 0, "amount": 5}, {"item": 2, "amount": 6}]), json!([])).json();
    assert_eq!(
        (heap["build"]["laid"].clone(), heap["build"]["so_far"]["wet_mass_kg"].clone()),
        (json!(1), json!(20.0))
    );
    for (portions, field) in [
        (json!([{"item": 3, "amount": 1}]), "portions[0].item"),
        (json!([{"item": 0, "amount": 1}, {"item": 0, "amount": 1}]), "portions[1].item"),
        (json!([{"item": 0, "amount": -1}]), "portions[0].amount"),
    ] {
        let answer = lay(&heap, portions, json!([]));
        assert_eq!((answer.status, answer.fields()), (422, vec![field.to_owned()]));
    }
    // What must not go into any heap is refused here as well, though it has no amount as an item.
    let ash = json!({"lot_id": null, "material": "coal-ash", "label": null, "amount": 0, "unit": "kg",
                     "measure_id": null, "measure_litres": null, "own": {}});
    let answer = lay(&heap, json!([{"item": 0, "amount": 5}, {"item": 3, "amount": 1}]), json!([ash]));
    assert_eq!((answer.status, answer.fields()), (422, vec!["portions[1].item".to_owned()]));
    let ended = act(&server, &heap, "end", &json!({})).json();
    assert_eq!(steps(&ended), 1);
    let back = act(&server, &ended, "undo", &json!({})).json();
    assert_eq!(steps(&back), steps(&begun));
}

#[test]
fn a_heap_can_be_put_away_and_brought_back() {
    let folder = TempDir::new().expect("a folder");
    let (server, batch) = farm(&folder.path().join("farm.sqlite"));
    let heap = begin(&server, &batch);
    let undo = act(&server, &heap, "undo", &json!({}));
    assert_eq!(undo.status, 404, "the plan it was begun by stays: {undo:?}");
    let path = format!("/api/heaps/{}", text(&heap["id"]));
    assert_eq!(server.send("DELETE", &path, &json!({})).status, 204);
    assert_eq!(server.get(&path).status, 404);
    let back = server.send("POST", &format!("{path}/restore"), &json!({})).json();
    assert_eq!(back["build"], heap["build"]);
}

#[test]
fn stock_follows_what_truly_went_in() {
    let folder = TempDir::new().expect("a folder");
    let (server, batch) = farm(&folder.path().join("farm.sqlite"));
    let left = || number(&server.get(&server.at_site("lots")).json()[0]["amount"]);
    let straw = |heap: &Value| -> f64 {
        let steps = heap["build"]["steps"].as_array().expect("a list");
        let laid = steps[..number(&heap["build"]["laid"]) as usize].iter();
        let portions = laid.flat_map(|step| step["portions"].as_array().expect("a list").clone());
        portions.filter(|one| one["item"] == 0).map(|one| number(&one["amount"])).sum()
    };
    // The batch took its recipe; the heap takes what went in instead, not as well.
    let version = server.get(&format!("/api/batches/{batch}")).json()["version"].clone();
    let take = json!({"version": version});
    assert_eq!(server.send("POST", &format!("/api/batches/{batch}/take"), &take).status, 200);
    assert!((left() - 34.0).abs() < 1e-6);
    let mut heap = begin(&server, &batch);
    heap = lay(&server, &heap, 1.5);
    heap = lay(&server, &heap, 1.0);
    let took = act(&server, &heap, "take", &json!({}));
    assert_eq!(took.status, 200, "{took:?}");
    heap = took.json();
    assert!((left() - (100.0 - straw(&heap))).abs() < 1e-6, "{} {}", left(), straw(&heap));
    assert_eq!(act(&server, &heap, "take", &json!({})).status, 422, "not twice");
    let now = server.get(&format!("/api/batches/{batch}")).json();
    assert!(now["taken_at"].is_null());
    let take = |version: &Value| {
        server.send("POST", &format!("/api/batches/{batch}/take"), &json!({"version": version})).status
    };
    assert_eq!(take(&json!(99)), 409, "another version than was read");
    assert_eq!(take(&now["version"]), 422, "the heap took it");

    heap = lay(&server, &heap, 1.0);
    assert!((left() - (100.0 - straw(&heap))).abs() < 1e-6, "a layer more");
    heap = act(&server, &heap, "undo", &json!({})).json();
    assert!((left() - (100.0 - straw(&heap))).abs() < 1e-6, "a layer less");
    let history = server.get(&format!("/api/lots/{}/history", text(&heap["items"][0]["lot_id"]))).json();
    assert_eq!((&history[0]["kind"], &history[0]["taker"]), (&json!("heap-took"), &json!("Terrace heap")));

    let path = format!("/api/heaps/{}", text(&heap["id"]));
    assert_eq!(server.send("DELETE", &path, &json!({})).status, 204);
    assert!((left() - 100.0).abs() < 1e-6, "put away, it has taken nothing");
    heap = server.send("POST", &format!("{path}/restore"), &json!({})).json();
    assert!((left() - (100.0 - straw(&heap))).abs() < 1e-6);
    heap = act(&server, &heap, "give-back", &json!({})).json();
    assert!(heap["taken_at"].is_null());
    assert!((left() - 100.0).abs() < 1e-6);
}
