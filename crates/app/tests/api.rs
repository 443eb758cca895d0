//! The API over a real server and a real data file.

mod support;

use serde_json::{Value, json};
use support::{Asked, Server, text};
use tempfile::TempDir;

struct Farm {
    server: Server,
    site: String,
    barrow: String,
    _folder: TempDir,
}

fn farm() -> Farm {
    let folder = TempDir::new().expect("a folder");
    let server = Server::start(&folder.path().join("farm.sqlite"));
    let site = server.get("/api/sites").json()[0]["id"].as_str().expect("a first site").to_owned();
    let measures = server.get(&format!("/api/sites/{site}/measures")).json();
    let barrow =
        measures.as_array().expect("a list").iter().find(|m| m["name"] == "barrow").expect("comes with one");
    Farm { barrow: text(&barrow["id"]), server, site, _folder: folder }
}

impl Farm {
    fn lots(&self) -> String {
        format!("/api/sites/{}/lots", self.site)
    }

    fn batches(&self) -> String {
        format!("/api/sites/{}/batches", self.site)
    }

    fn straw(&self, barrows: f64) -> Value {
        json!({"material": "barley-straw", "label": null, "amount": barrows, "unit": "measure",
               "measure_id": self.barrow, "own": {"moisture_pct": 14}})
    }

    fn batch(&self, name: &str, barrows: f64) -> Value {
        json!({"name": name, "water_l": 60, "heap": {"shape": "box", "length_cm": 110, "width_cm": 110, "height_cm": 100},
               "items": [{"lot_id": null, "material": "barley-straw", "label": null, "amount": barrows, "unit": "measure",
                          "measure_id": self.barrow, "measure_litres": 70, "own": {}},
                         {"lot_id": null, "material": "sheep-manure", "label": null, "amount": 70, "unit": "kg",
                          "measure_id": null, "measure_litres": null, "own": {}}]})
    }
}

#[test]
fn a_lot_is_added_changed_removed_and_brought_back() {
    let farm = farm();
    let added = farm.server.send("POST", &farm.lots(), &farm.straw(4.0));
    assert_eq!(added.status, 201, "{added:?}");
    let lot = added.json();
    // 4 barrows of 70 L; the book's 0.05 kg/L at 12 % becomes 0.05 · 0.88/0.86 at 14 %.
    let kg = 280.0 * 0.05 * 0.88 / 0.86;
    assert!((lot["kg"].as_f64().expect("a weight") - kg).abs() < 1e-9);
    assert_eq!(lot["figures"]["moisture_pct"], json!({"value": 14.0, "origin": "own"}));
    assert_eq!(lot["figures"]["density_kg_l"]["origin"], "derived");
    assert_eq!(lot["own"], json!({"moisture_pct": 14.0}));

    let path = format!("/api/lots/{}", text(&lot["id"]));
    let changed = farm.server.send("PUT", &path, &json!({"version": 1, "lot": farm.straw(6.0)}));
    assert_eq!((changed.status, changed.json()["amount"].as_f64()), (200, Some(6.0)));

    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 204);
    assert_eq!(farm.server.get(&farm.lots()).json(), json!([]));
    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 404);
    let back = farm.server.ask(Asked::new("POST", &format!("{path}/restore")));
    assert_eq!((back.status, back.json()["amount"].as_f64()), (200, Some(6.0)));
    assert_eq!(farm.server.get(&farm.lots()).json().as_array().map(Vec::len), Some(1));
}

#[test]
fn a_stale_change_gets_a_conflict_that_names_the_version() {
    let farm = farm();
    let lot = farm.server.send("POST", &farm.lots(), &farm.straw(4.0)).json();
    let path = format!("/api/lots/{}", text(&lot["id"]));
    let change = |barrows| farm.server.send("PUT", &path, &json!({"version": 1, "lot": farm.straw(barrows)}));
    assert_eq!(change(5.0).status, 200);
    let stale = change(7.0);
    assert_eq!((stale.status, stale.json()["errors"][0]["params"]["current"].as_f64()), (409, Some(2.0)));
    assert_eq!(farm.server.get(&farm.lots()).json()[0]["amount"].as_f64(), Some(5.0));
}

#[test]
fn bad_lots_are_refused_by_field_and_nothing_is_kept() {
    let farm = farm();
    let with = |field: &str, value: Value| {
        let mut lot = farm.straw(4.0);
        lot[field] = value;
        farm.server.send("POST", &farm.lots(), &lot)
    };
    assert_eq!(with("material", json!("moon-dust")).fields(), ["material"]);
    assert_eq!(with("material", json!("")).fields(), ["material"]);
    assert_eq!(with("amount", json!(-1)).fields(), ["amount"]);
    assert_eq!(with("amount", json!(1e300)).fields(), ["amount"]);
    assert_eq!(with("amount", json!("four")).fields(), ["amount"]);
    assert_eq!(with("measure_id", json!(null)).fields(), ["measure_id"]);
    assert_eq!(with("label", json!("x".repeat(500))).fields(), ["label"]);
    assert_eq!(with("own", json!({"moisture_pct": 150})).fields(), ["moisture_pct"]);
    assert_eq!(with("measure_id", json!(9999)).status, 422);
    // Each factor is allowed, the product is a mountain.
    let big = farm.server.send(
        "POST",
        &format!("/api/sites/{}/measures", farm.site),
        &json!({"name": "pond", "plural": "ponds", "way": {"by": "litres", "litres": 20_000}, "glyph": "other"}),
    );
    let mut mountain = farm.straw(1_000_000.0);
    mountain["measure_id"] = big.json()["id"].clone();
    assert_eq!(farm.server.send("POST", &farm.lots(), &mountain).status, 422);
    assert_eq!(farm.server.get(&farm.lots()).json(), json!([]));
}

#[test]
fn a_measure_cannot_grow_until_a_lot_in_it_is_impossible() {
    let farm = farm();
    farm.server.send("POST", &farm.lots(), &farm.straw(10_000.0));
    let bucket = json!({"name": "barrow", "plural": "barrows", "way": {"by": "litres", "litres": 20_000}, "glyph": "barrow"});
    let path = format!("/api/measures/{}", farm.barrow);
    let refused = farm.server.send("PUT", &path, &json!({"version": 1, "measure": bucket}));
    assert_eq!(refused.fields(), ["litres"]);
    assert_eq!(farm.server.get(&farm.lots()).status, 200);
}

#[test]
fn a_batch_is_saved_listed_reopened_changed_and_copied() {
    let farm = farm();
    let saved = farm.server.send("POST", &farm.batches(), &farm.batch("Terrace heap", 8.0));
    assert_eq!(saved.status, 201, "{saved:?}");
    let path = format!("/api/batches/{}", text(&saved.json()["id"]));
    assert_eq!(farm.server.get(&path).json(), saved.json());

    let changed =
        farm.server.send("PUT", &path, &json!({"version": 1, "batch": farm.batch("Terrace heap", 9.0)}));
    assert_eq!(changed.json()["items"][0]["amount"].as_f64(), Some(9.0));
    let taken = farm.server.send("POST", &farm.batches(), &farm.batch("Terrace heap", 9.0));
    assert_eq!((taken.status, taken.fields()), (409, vec!["name".to_owned()]));
    assert_eq!(farm.server.send("POST", &farm.batches(), &farm.batch("Terrace heap, copy", 9.0)).status, 201);
    let names: Vec<_> = farm
        .server
        .get(&farm.batches())
        .json()
        .as_array()
        .expect("a list")
        .iter()
        .map(|b| b["name"].clone())
        .collect();
    assert_eq!(names.len(), 2);
}

#[test]
fn bad_batches_are_refused_by_field() {
    let farm = farm();
    let with = |edit: &dyn Fn(&mut Value)| {
        let mut batch = farm.batch("Terrace heap", 8.0);
        edit(&mut batch);
        farm.server.send("POST", &farm.batches(), &batch).fields()
    };
    assert_eq!(with(&|b| b["name"] = json!("  ")), ["name"]);
    assert_eq!(with(&|b| b["water_l"] = json!(-1)), ["water_l"]);
    assert_eq!(with(&|b| b["items"] = json!([])), ["items"]);
    assert_eq!(with(&|b| b["items"][1]["amount"] = json!(-1)), ["items[1].amount"]);
    assert_eq!(with(&|b| b["items"][0]["measure_litres"] = json!(null)), ["items[0].measure_litres"]);
    assert_eq!(with(&|b| b["heap"]["width_cm"] = json!(0)), ["heap.width_cm"]);
    assert_eq!(farm.server.get(&farm.batches()).json(), json!([]));
}

#[test]
fn what_cannot_be_read_is_answered_as_a_problem() {
    let farm = farm();
    let mix = |asked: Asked| farm.server.ask(asked);
    let broken = mix(Asked::new("POST", "/api/mix").text("{\"format\":\n!"));
    assert_eq!(broken.status, 422);
    assert_eq!(broken.json()["errors"][0]["line"].as_i64(), Some(2));
    assert_eq!(mix(Asked::new("POST", "/api/mix").header("content-type", "text/plain")).status, 415);
    assert_eq!(farm.server.get("/api/nothing").status, 404);
    assert_eq!(farm.server.get("/api/sites/99/lots").status, 404);
    assert_eq!(farm.server.get("/api/batches/notanumber").status, 404);
    let negative = json!({"format": "zymarch-recipe/1", "items": [{"material": "wheat-straw", "kg": -1}]});
    assert_eq!(farm.server.send("POST", "/api/mix", &negative).fields(), ["items[0].kg"]);
    let lime = json!({"format": "zymarch-recipe/1", "items": [{"material": "lime", "kg": 1}]});
    assert_eq!(farm.server.send("POST", "/api/mix", &lime).fields(), ["items"]);
}

#[test]
fn ten_megabytes_are_turned_away() {
    let farm = farm();
    let huge = json!({"format": "zymarch-recipe/1", "name": "x".repeat(10 << 20), "items": []});
    // The connection may be closed before all of it is sent; either way nothing is accepted.
    if let Some(answer) = farm.server.try_ask(Asked::new("POST", "/api/mix").json(&huge)) {
        assert_eq!(answer.status, 413, "{}", answer.text);
        assert_eq!(answer.header("content-type"), "application/problem+json");
    }
    assert_eq!(farm.server.get("/api/about").status, 200);
}

#[test]
fn many_writers_at_once_lose_nothing() {
    let farm = farm();
    std::thread::scope(|scope| {
        for _ in 0..8 {
            scope.spawn(|| {
                for _ in 0..10 {
                    assert_eq!(farm.server.send("POST", &farm.lots(), &farm.straw(1.0)).status, 201);
                }
            });
        }
    });
    assert_eq!(farm.server.get(&farm.lots()).json().as_array().map(Vec::len), Some(80));
}

#[test]
fn what_is_sent_twice_is_written_once_and_says_on_which_device() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = Server::start(&data);
    let straw =
        json!({"material": "barley-straw", "label": null, "amount": 4, "unit": "kg", "measure_id": null});
    let id = "019cea39-a200-7000-8000-00000000abcd";
    for _ in 0..2 {
        let path = format!("{}?id={id}", server.at_site("lots"));
        let answer =
            server.ask(Asked::new("POST", &path).json(&straw).header("x-device", "phone of the lower plot"));
        assert_eq!((answer.status, text(&answer.json()["id"])), (201, id.to_owned()), "{answer:?}");
    }
    let used = json!({"entry": "019cea39-a200-7000-8000-00000000beef", "kind": "used", "amount": 1});
    for _ in 0..2 {
        let answer = server.send("POST", &format!("/api/lots/{id}/history"), &used);
        assert_eq!((answer.status, answer.json()["amount"].as_f64()), (200, Some(3.0)), "{answer:?}");
    }
    assert_eq!(server.get(&server.at_site("lots")).json().as_array().map(Vec::len), Some(1));
    let conn = zymarch_store::Connection::open(&data).expect("opens");
    let came: (String, i64) = conn
        .query_row("SELECT device, count(*) FROM entry WHERE kind = 'came'", [], |row| {
            Ok((row.get(0)?, row.get(1)?))
        })
        .expect("reads");
    assert_eq!(came, ("phone of the lower plot".to_owned(), 1));
    assert_eq!(
        server.ask(Asked::new("POST", &format!("{}?id=x", server.at_site("lots"))).json(&straw)).fields(),
        ["id"]
    );
}
