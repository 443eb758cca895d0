//! Knowing what is on hand, over a real server: measures, tests, materials,
//! what comes and goes, and what must not go in.

mod support;

use serde_json::{Value, json};
use support::{Answer, Asked, Server, text};
use tempfile::TempDir;

struct Farm {
    server: Server,
    site: String,
    _folder: TempDir,
}

fn farm() -> Farm {
    let folder = TempDir::new().expect("a folder");
    let server = Server::start_at(&folder.path().join("farm.sqlite"), "2026-03-14T08:00");
    let site = server.get("/api/sites").json()[0]["id"].as_str().expect("a first site").to_owned();
    Farm { server, site, _folder: folder }
}

impl Farm {
    fn at_site(&self, what: &str) -> String {
        format!("/api/sites/{}/{what}", self.site)
    }

    fn lot(&self, material: &str, amount: f64, unit: &str, measure: Option<&str>) -> Value {
        let lot = json!({"material": material, "label": null, "amount": amount, "unit": unit, "measure_id": measure});
        let answer = self.server.send("POST", &self.at_site("lots"), &lot);
        assert_eq!(answer.status, 201, "{answer:?}");
        answer.json()
    }

    fn now_of(&self, lot: &Value) -> Value {
        let lots = self.server.get(&self.at_site("lots")).json();
        lots.as_array().expect("a list").iter().find(|one| one["id"] == lot["id"]).expect("is there").clone()
    }

    fn test(&self, lot: &Value, readings: Value) -> Answer {
        let body = json!({"made_on": "2026-03-14", "readings": readings});
        self.server.send("POST", &format!("/api/lots/{}/tests", text(&lot["id"])), &body)
    }

    fn measure(&self, name: &str, way: Value) -> Answer {
        let body = json!({"name": name, "plural": format!("{name}s"), "glyph": "other", "way": way});
        self.server.send("POST", &self.at_site("measures"), &body)
    }
}

fn near(value: &Value, expected: f64) -> bool {
    value.as_f64().is_some_and(|value| (value - expected).abs() < 1e-6)
}

#[test]
fn a_measure_chain_tells_what_nine_cart_loads_weigh() {
    let farm = farm();
    let basket = farm.measure("basket", json!({"by": "litres", "litres": 22})).json();
    let cart =
        farm.measure("cart load", json!({"by": "measures", "count": 6, "measure_id": basket["id"]})).json();
    assert!(near(&cart["litres"], 132.0), "{cart}");

    // A basket of wet leaves weighs 8 kg without the basket.
    let leaves = farm.lot("tree-leaves-fresh", 9.0, "measure", cart["id"].as_str());
    let weighed = farm.test(&leaves, json!({"kind": "weigh", "litres": 22, "full_kg": 9.2, "empty_kg": 1.2}));
    assert_eq!(weighed.status, 201, "{weighed:?}");
    let leaves = farm.now_of(&leaves);
    assert!(near(&leaves["kg"], 432.0), "{leaves}");
    assert_eq!(leaves["figures"]["density_kg_l"]["origin"], "measured");
    assert_eq!(leaves["figures"]["density_kg_l"]["test"], json!({"kind": "weigh", "on": "2026-03-14"}));

    // The basket turns out to be larger; the cart follows.
    let larger = json!({"version": 1, "measure": {"name": "basket", "plural": "baskets", "glyph": "other",
                        "way": {"by": "cylinder", "across_cm": 30, "height_cm": 40}}});
    let path = format!("/api/measures/{}", text(&basket["id"]));
    assert_eq!(farm.server.send("PUT", &path, &larger).status, 200);
    let litres = std::f64::consts::PI / 4.0 * 900.0 * 40.0 / 1000.0;
    assert!(near(&farm.now_of(&leaves)["litres"], 9.0 * 6.0 * litres));
}

#[test]
fn a_measure_cannot_be_counted_in_itself() {
    let farm = farm();
    let a = farm.measure("a", json!({"by": "litres", "litres": 10})).json();
    let b = farm.measure("b", json!({"by": "measures", "count": 2, "measure_id": a["id"]})).json();
    let round = json!({"version": 1, "measure": {"name": "a", "plural": "as", "glyph": "other",
                       "way": {"by": "measures", "count": 2, "measure_id": b["id"]}}});
    let path = format!("/api/measures/{}", text(&a["id"]));
    assert_eq!(farm.server.send("PUT", &path, &round).fields(), ["way.measure_id"]);
    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 409, "b is counted in it");
    assert_eq!(
        farm.measure(
            "c",
            json!({"by": "measures", "count": 2, "measure_id": "019cea39-a200-7000-8000-000000000999"})
        )
        .fields(),
        ["way.measure_id"]
    );
    assert_eq!(
        farm.measure("c", json!({"by": "cone", "top_cm": 0, "bottom_cm": 1, "height_cm": 1})).fields(),
        ["way.top_cm"]
    );
    let volume = json!({"way": {"by": "counted", "count": 5, "litres_each": 12}, "heaped": 1.1});
    assert!(near(&farm.server.send("POST", "/api/measures/volume", &volume).json()["litres"], 66.0));
}

#[test]
fn a_test_gives_its_figure_and_takes_it_along_when_removed() {
    let farm = farm();
    let dung = farm.lot("cattle-manure-fresh", 100.0, "kg", None);
    let book = dung["figures"]["moisture_pct"].clone();
    assert_eq!(book["origin"], "book");
    farm.test(&dung, json!({"kind": "squeeze", "feel": "holds"}));
    assert!(near(&farm.now_of(&dung)["figures"]["moisture_pct"]["value"], 55.0));
    // Of the same day, the scale beats the hand.
    let dried = farm
        .test(&dung, json!({"kind": "drying", "dish_g": 200, "wet_g": 500, "dried_g": [400, 340]}))
        .json();
    assert_eq!(
        (dried["answer"]["goes_on"].as_bool(), dried["answer"]["steadiness"].as_str()),
        (Some(true), Some("falling"))
    );
    assert!(
        near(&farm.now_of(&dung)["figures"]["moisture_pct"]["value"], 55.0),
        "still falling: nothing yet"
    );
    let path = format!("/api/tests/{}", text(&dried["id"]));
    let steady = json!({"version": 1, "test": {"made_on": "2026-03-14",
                        "readings": {"kind": "drying", "dish_g": 200, "wet_g": 500, "dried_g": [400, 340, 339]}}});
    assert_eq!(farm.server.send("PUT", &path, &steady).json()["answer"]["steadiness"], "steady");
    let now = farm.now_of(&dung);
    assert!(near(&now["figures"]["moisture_pct"]["value"], 100.0 * 161.0 / 300.0), "{now}");
    assert_eq!(now["figures"]["moisture_pct"]["test"]["kind"], "drying");
    assert_eq!(farm.server.send("PUT", &path, &steady).status, 409);
    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 204);
    assert!(near(&farm.now_of(&dung)["figures"]["moisture_pct"]["value"], 55.0));
    assert_eq!(farm.server.ask(Asked::new("POST", &format!("{path}/restore"))).status, 200);
    assert_eq!(
        farm.server.get(&format!("/api/lots/{}/tests", text(&dung["id"]))).json().as_array().map(Vec::len),
        Some(2)
    );
}

#[test]
fn a_bucket_test_leans_on_what_was_weighed_loose() {
    let farm = farm();
    let straw = farm.lot("barley-straw", 10.0, "litre", None);
    farm.test(&straw, json!({"kind": "weigh", "litres": 60, "full_kg": 3.4, "empty_kg": 0.4}));
    let packed = farm
        .test(&straw, json!({"kind": "bucket", "litres": 10, "full_kg": 1.6, "empty_kg": 0.6, "water_l": 8}));
    assert!(near(&packed.json()["answer"]["settle"], 0.5), "{packed:?}");
    let now = farm.now_of(&straw);
    assert_eq!(now["figures"]["settle"]["origin"], "measured");
    // What one weighing found serves every lot of the material at the site.
    let second = farm.lot("barley-straw", 60.0, "litre", None);
    assert!(near(&second["kg"], 3.0), "{second}");
}

#[test]
fn beans_with_signs_of_weed_killer_keep_a_lot_out() {
    let farm = farm();
    let dung = farm.lot("donkey-manure", 100.0, "kg", None);
    let beans = |deformed: u32, judged: Value| {
        json!({"made_on": "2026-02-20", "readings": {"kind": "bean", "sown": 10, "up": 9, "deformed": deformed,
               "control_sown": 10, "control_up": 10, "control_deformed": 0, "judged_on": judged}})
    };
    let path = format!("/api/lots/{}/tests", text(&dung["id"]));
    let growing = farm.server.send("POST", &path, &beans(0, Value::Null)).json();
    assert_eq!(growing["answer"]["days"].as_i64(), Some(22));
    assert_eq!(farm.now_of(&dung)["must_not_go_in"], false);
    let change = json!({"version": 1, "test": beans(4, json!("2026-03-08"))});
    let judged = farm.server.send("PUT", &format!("/api/tests/{}", text(&growing["id"])), &change);
    assert_eq!(judged.json()["answer"]["verdict"], "signs", "{judged:?}");
    let now = farm.now_of(&dung);
    assert_eq!(now["must_not_go_in"], true);

    // A later sowing does not wash it clean: neither one whose control failed nor one without a sign.
    for (up, control_up) in [(9, 2), (10, 10)] {
        let later = json!({"made_on": "2026-02-26", "readings": {"kind": "bean", "sown": 10, "up": up, "deformed": 0,
            "control_sown": 10, "control_up": control_up, "control_deformed": 0, "judged_on": "2026-03-13"}});
        assert_eq!(farm.server.send("POST", &path, &later).status, 201);
        assert_eq!(farm.now_of(&dung)["must_not_go_in"], true);
    }

    let batch = json!({"name": "Heap", "water_l": 0, "heap": {"shape": "ring", "diameter_cm": 100, "height_cm": 100},
                       "items": [{"lot_id": dung["id"], "material": "donkey-manure", "label": null, "amount": 50,
                                  "unit": "kg", "measure_id": null, "measure_litres": null, "tests": now["tests"]}]});
    assert_eq!(farm.server.send("POST", &farm.at_site("batches"), &batch).fields(), ["items[0].material"]);
    assert_eq!(farm.server.send("POST", &path, &beans(11, Value::Null)).fields(), ["readings.deformed"]);
    let early = beans(0, json!("2026-02-01"));
    assert_eq!(farm.server.send("POST", &path, &early).fields(), ["readings.judged_on"]);
}

#[test]
fn bad_readings_are_refused_by_field_and_nothing_is_kept() {
    let farm = farm();
    let dung = farm.lot("sheep-manure", 100.0, "kg", None);
    let refused = |readings: Value| farm.test(&dung, readings).fields();
    assert_eq!(
        refused(json!({"kind": "weigh", "litres": 10, "full_kg": 1, "empty_kg": 2})),
        ["readings.full_kg"]
    );
    assert_eq!(
        refused(json!({"kind": "drying", "dish_g": 1, "wet_g": 2, "dried_g": []})),
        ["readings.dried_g"]
    );
    assert_eq!(refused(json!({"kind": "squeeze", "feel": "mushy"})), ["readings.feel"]);
    assert_eq!(farm.test(&dung, json!({"kind": "taste"})).status, 422);
    let tomorrow = json!({"made_on": "2026-03-15", "readings": {"kind": "squeeze", "feel": "holds"}});
    let path = format!("/api/lots/{}/tests", text(&dung["id"]));
    assert_eq!(farm.server.send("POST", &path, &tomorrow).fields(), ["made_on"]);
    assert_eq!(
        farm.server.send("POST", "/api/lots/019cea39-a200-7000-8000-000000000999/tests", &tomorrow).status,
        404
    );
    assert_eq!(farm.server.get(&path).json(), json!([]));
}

#[test]
fn lots_take_deliveries_and_use_and_each_can_be_undone() {
    let farm = farm();
    let scraps = farm.lot("vegetable-scraps", 3.0, "kg", None);
    let path = format!("/api/lots/{}/history", text(&scraps["id"]));
    let happened =
        |kind: &str, amount: f64| farm.server.send("POST", &path, &json!({"kind": kind, "amount": amount}));
    assert!(near(&happened("delivered", 2.0).json()["amount"], 5.0));
    assert!(near(&happened("used", 4.0).json()["amount"], 1.0));
    assert_eq!(happened("used", 4.0).fields(), ["amount"]);
    assert_eq!(happened("used", 0.0).fields(), ["amount"]);
    assert_eq!(happened("used", -1.0).fields(), ["amount"]);
    let history = farm.server.get(&path).json();
    let kinds: Vec<_> =
        history.as_array().expect("a list").iter().map(|event| event["kind"].clone()).collect();
    assert_eq!(kinds, ["used", "delivered", "came"]);
    let undone =
        farm.server.ask(Asked::new("DELETE", &format!("/api/lot-events/{}", text(&history[0]["id"]))));
    assert!(near(&undone.json()["amount"], 5.0), "{undone:?}");
}

#[test]
fn what_spoils_first_stands_on_top_and_says_what_to_do() {
    let farm = farm();
    farm.lot("barley-straw", 10.0, "kg", None);
    let old = json!({"material": "vegetable-scraps", "label": null, "amount": 5, "unit": "kg", "measure_id": null,
                     "gathered_on": "2026-03-09"});
    assert_eq!(farm.server.send("POST", &farm.at_site("lots"), &old).status, 201);
    farm.lot("grass-clippings", 10.0, "kg", None);
    let lots = farm.server.get(&farm.at_site("lots")).json();
    let order: Vec<_> = lots.as_array().expect("a list").iter().map(|lot| lot["material"].clone()).collect();
    assert_eq!(order, ["vegetable-scraps", "grass-clippings", "barley-straw"]);
    assert_eq!((lots[0]["age_days"].as_i64(), lots[0]["days_left"].as_i64()), (Some(5), Some(-3)));
    assert_eq!((lots[0]["rescue"].as_str(), lots[2]["days_left"].as_i64()), (Some("mix-dry-and-bury"), None));
    let mut tomorrow = old.clone();
    tomorrow["gathered_on"] = json!("2026-03-20");
    assert_eq!(farm.server.send("POST", &farm.at_site("lots"), &tomorrow).fields(), ["gathered_on"]);
}

#[test]
fn in_a_hot_month_things_keep_half_as_long() {
    let farm = farm();
    let clippings = farm.lot("coffee-grounds", 10.0, "kg", None);
    let mild = clippings["days_left"].as_i64().expect("spoils");
    let months = vec![json!({"mean_c": 29, "swing_c": 5, "rain_mm": 10}); 12];
    let site = json!({"version": 1, "site": {"name": "Hot plot", "altitude_m": 100, "climate": months}});
    assert_eq!(farm.server.send("PUT", &format!("/api/sites/{}", farm.site), &site).status, 200);
    assert_eq!(farm.now_of(&clippings)["days_left"].as_i64(), Some(mild / 2));
}

#[test]
fn a_batch_takes_its_amounts_from_stock_and_gives_them_back() {
    let farm = farm();
    let (straw, dung) =
        (farm.lot("barley-straw", 40.0, "kg", None), farm.lot("sheep-manure", 100.0, "litre", None));
    let part = |lot: &Value, amount: f64| {
        json!({"lot_id": lot["id"], "material": lot["material"], "label": null, "amount": amount, "unit": "kg",
               "measure_id": null, "measure_litres": null})
    };
    let heap = |kg: f64| {
        json!({"name": "Heap", "water_l": 10, "heap": {"shape": "ring", "diameter_cm": 100, "height_cm": 100},
               "method": "bay-turned", "items": [part(&straw, kg), part(&dung, 22.0)]})
    };
    let batch = farm.server.send("POST", &farm.at_site("batches"), &heap(30.0)).json();
    let path = format!("/api/batches/{}", text(&batch["id"]));
    let ask = |act: &str, version: i64| {
        farm.server.send("POST", &format!("{path}/{act}"), &json!({"version": version}))
    };
    let taken = ask("take", 1);
    assert_eq!(taken.json()["taken_at"], "2026-03-14T08:00:00Z", "{taken:?}");
    assert!(near(&farm.now_of(&straw)["amount"], 10.0));
    // 22 kg at the book's density, in litres.
    let density = dung["figures"]["density_kg_l"]["value"].as_f64().expect("a density");
    assert!(near(&farm.now_of(&dung)["amount"], 100.0 - 22.0 / density));
    assert_eq!(ask("take", 2).status, 422, "once is enough");

    // A changed batch takes the difference; more than there is changes nothing.
    let change = |kg: f64, version: i64| {
        farm.server.send("PUT", &path, &json!({"version": version, "batch": heap(kg)}))
    };
    assert_eq!(change(35.0, 2).status, 200);
    assert!(near(&farm.now_of(&straw)["amount"], 5.0));
    assert_eq!(change(60.0, 3).fields(), ["items[0].amount"]);
    assert!(near(&farm.now_of(&straw)["amount"], 5.0));

    // Removing gives back, bringing back takes again.
    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 204);
    assert!(near(&farm.now_of(&straw)["amount"], 40.0) && near(&farm.now_of(&dung)["amount"], 100.0));
    let back = farm.server.ask(Asked::new("POST", &format!("{path}/restore")));
    assert!(near(&farm.now_of(&straw)["amount"], 5.0));
    let given = ask("give-back", back.json()["version"].as_i64().expect("a version"));
    assert_eq!((given.status, given.json()["taken_at"].clone()), (200, Value::Null));
    assert!(near(&farm.now_of(&straw)["amount"], 40.0) && near(&farm.now_of(&dung)["amount"], 100.0));
    let history = farm.server.get(&format!("/api/lots/{}/history", text(&straw["id"]))).json();
    assert_eq!(
        (history[0]["kind"].as_str(), history[0]["taker"].as_str()),
        (Some("given-back"), Some("Heap"))
    );
}

#[test]
fn what_goes_into_no_heap_is_refused_but_can_be_recorded_as_sorted_out() {
    let farm = farm();
    let lot = json!({"material": "pet-faeces", "label": null, "amount": 1, "unit": "kg", "measure_id": null});
    assert_eq!(farm.server.send("POST", &farm.at_site("lots"), &lot).fields(), ["material"]);
    let record = json!({"material": "pet-faeces", "kg": 1, "went_to": "buried away from beds", "made_on": "2026-03-14"});
    let kept = farm.server.send("POST", &farm.at_site("sorted-out"), &record);
    assert_eq!(kept.status, 201, "{kept:?}");
    assert_eq!(farm.server.get(&farm.at_site("sorted-out")).json()[0]["went_to"], "buried away from beds");
    let path = format!("/api/sorted-out/{}", text(&kept.json()["id"]));
    assert_eq!(farm.server.ask(Asked::new("DELETE", &path)).status, 204);
    assert_eq!(farm.server.get(&farm.at_site("sorted-out")).json(), json!([]));
    assert_eq!(farm.server.ask(Asked::new("POST", &format!("{path}/restore"))).status, 200);
    let bad = json!({"material": "moon-dust", "made_on": "2026-03-14"});
    assert_eq!(farm.server.send("POST", &farm.at_site("sorted-out"), &bad).fields(), ["material"]);
}

fn own_straw() -> Value {
    json!({"name": "Straw of the lower field", "kind": "brown", "group": "crop residue", "moisture_pct": 14,
           "n_pct": 0.6, "c_n": 78, "ash_pct": 7, "density_kg_l": 0.06, "settle": 0.5, "degradability": "medium",
           "particle": "medium", "structure": 2, "cautions": ["dust"], "source": "own"})
}

#[test]
fn a_material_of_ones_own_is_stock_like_any_other() {
    let farm = farm();
    let made = farm.server.send("POST", "/api/materials", &own_straw());
    assert_eq!(made.status, 201, "{made:?}");
    let lot = farm.lot("straw-of-the-lower-field", 12.0, "kg", None);
    assert_eq!(lot["figures"]["c_n"], json!({"value": 78.0, "origin": "own"}));
    assert!(near(&lot["litres"], 200.0));
    let recipe =
        json!({"format": "zymarch-recipe/1", "items": [{"material": "straw-of-the-lower-field", "kg": 12}]});
    assert!(near(&farm.server.send("POST", "/api/mix", &recipe).json()["c_n"], 78.0));

    let mut doubtful = own_straw();
    doubtful["n_pct"] = json!(2);
    let checked = farm.server.send("POST", "/api/materials/check", &doubtful).json();
    assert_eq!(checked["doubts"][0]["code"], "carbon");
    let mut bad = own_straw();
    bad["settle"] = json!(7);
    assert_eq!(farm.server.send("POST", "/api/materials", &bad).fields(), ["settle"]);
    assert_eq!(farm.server.send("POST", "/api/materials", &own_straw()).status, 409);

    let path = "/api/materials/straw-of-the-lower-field";
    assert_eq!(farm.server.ask(Asked::new("DELETE", path)).status, 204);
    assert!(near(&farm.now_of(&lot)["kg"], 12.0), "a lot keeps what it is made of");
    assert_eq!(farm.server.ask(Asked::new("POST", &format!("{path}/restore"))).status, 200);
    let mut drier = own_straw();
    drier["moisture_pct"] = json!(10);
    let changed = farm.server.send("PUT", path, &json!({"version": 3, "material": drier}));
    assert_eq!(changed.status, 200, "{changed:?}");
    assert!(near(&farm.now_of(&lot)["figures"]["moisture_pct"]["value"], 10.0));
}

#[test]
fn materials_go_out_as_csv_and_come_back_all_or_nothing() {
    let farm = farm();
    farm.server.send("POST", "/api/materials", &own_straw());
    let file = farm.server.get("/api/materials.csv?own=true");
    assert_eq!(file.header("content-type"), "text/csv; charset=utf-8");
    let all = farm.server.get("/api/materials.csv").text;
    assert_eq!(all.lines().count(), 170);
    let ask = |csv: &str, write: bool| {
        farm.server.send("POST", "/api/materials/import", &json!({"csv": csv, "write": write}))
    };
    let same = ask(&all, true).json();
    assert!(same["rows"].as_array().expect("rows").iter().all(|row| row["what"] == "same"), "{same}");

    let changed = file.text.replace("lower field,", "upper field,");
    let three = format!(
        "{changed}{}{}{}",
        "another,Another,,,,beige,crop residue,12,8,20,0.5,0.35,0.7,92,64,135,7,9,0.05,0.03,0.09,0.5,,,slow,medium,2,,,,,own,\n",
        "wheat-straw,Mine,,,,brown,crop residue,12,8,20,0.5,0.35,0.7,92,64,135,7,9,0.05,0.03,0.09,0.5,,,slow,medium,2,,,,,own,\n",
        "third,Third,,,,brown,crop residue,wet,8,20,0.5,0.35,0.7,92,64,135,7,9,0.05,0.03,0.09,0.5,,,slow,medium,2,,,,,own,\n"
    );
    let seen = ask(&three, false).json();
    let what: Vec<_> = seen["rows"].as_array().expect("rows").iter().map(|row| row["what"].clone()).collect();
    assert_eq!(what, ["changed", "bad", "bad", "bad"]);
    assert_eq!(seen["rows"][1]["faults"][0]["field"], "kind");
    let refused = ask(&three, true);
    assert_eq!(refused.fields(), ["kind", "id", "moisture_pct"]);
    assert_eq!(refused.json()["errors"][2]["line"].as_i64(), Some(5));
    assert_eq!(
        farm.server.get("/api/materials").json()[0]["name"],
        "Straw of the lower field",
        "nothing was taken"
    );
    assert_eq!(ask(&changed, true).json()["written"], true);
    assert_eq!(farm.server.get("/api/materials").json()[0]["name"], "Straw of the upper field");
    assert!(ask("id,name\nx,X\n", false).fields().contains(&"kind".to_owned()));
}

#[test]
fn sites_have_each_their_own_stock() {
    let farm = farm();
    farm.lot("barley-straw", 10.0, "kg", None);
    let second = farm.server.send("POST", "/api/sites", &json!({"name": " Lower plot ", "altitude_m": 2500}));
    assert_eq!((second.status, second.json()["name"].as_str()), (201, Some("Lower plot")));
    let id = text(&second.json()["id"]);
    assert_eq!(farm.server.get(&format!("/api/sites/{id}/lots")).json(), json!([]));
    assert_eq!(
        farm.server.get(&format!("/api/sites/{id}/measures")).json().as_array().map(Vec::len),
        Some(2)
    );
    let put = |body: Value| {
        farm.server.send("PUT", &format!("/api/sites/{id}"), &json!({"version": 1, "site": body}))
    };
    assert_eq!(put(json!({"name": ""})).fields(), ["name"]);
    assert_eq!(put(json!({"name": "x", "altitude_m": 99999})).fields(), ["altitude_m"]);
    assert_eq!(put(json!({"name": "x", "climate": []})).fields(), ["climate"]);
    let hot = vec![json!({"mean_c": 99, "swing_c": 5, "rain_mm": 10}); 12];
    assert_eq!(put(json!({"name": "x", "climate": hot})).fields()[0], "climate[0].mean_c");
    assert_eq!(farm.server.ask(Asked::new("DELETE", &format!("/api/sites/{id}"))).status, 204);
    assert_eq!(farm.server.ask(Asked::new("DELETE", &format!("/api/sites/{}", farm.site))).status, 409);
}

#[test]
fn the_simulated_scale_speaks_senml_and_says_that_it_is_simulated() {
    let farm = farm();
    let hung = farm.server.send("PUT", "/api/simulated/scale", &json!({"kg": 8.12}));
    assert_eq!(hung.header("content-type"), "application/senml+json");
    assert!(hung.json()[2]["n"] == "simulated" && hung.json()[0]["u"] == "kg");
    let mut shown = hung.json();
    for _ in 0..100 {
        if shown[1]["vb"] == true {
            break;
        }
        std::thread::sleep(std::time::Duration::from_millis(100));
        shown = farm.server.get("/api/simulated/scale").json();
    }
    assert!(near(&shown[0]["v"], 8.12), "{shown}");
    assert_eq!(farm.server.send("PUT", "/api/simulated/scale", &json!({"kg": -1})).fields(), ["kg"]);
}

#[test]
fn the_stock_is_formulated_with_measured_figures_and_own_materials() {
    let farm = farm();
    farm.server.send("POST", "/api/materials", &own_straw());
    let ask = |more: Value| {
        let mut body = json!({"format": "zymarch-formulate/1", "aim": "largest", "stock": [
            {"material": "straw-of-the-lower-field", "kg_available": 60},
            {"material": "sheep-manure", "kg_available": 100,
             "tests": [{"figure": "moisture_pct", "value": 56, "test": "drying", "on": "2026-03-08"}]}]});
        body.as_object_mut().expect("an object").extend(more.as_object().expect("an object").clone());
        farm.server.send("POST", "/api/formulate", &body)
    };
    let found = ask(json!({}));
    assert_eq!(found.json()["status"], "ok", "{found:?}");
    assert_eq!(found.json()["mix"]["items"][1]["figures"]["moisture_pct"]["origin"], "measured");
    assert_eq!(ask(json!({"aim": "cheapest"})).fields(), ["target.volume_l"]);
    assert_eq!(ask(json!({"stock": []})).fields(), ["stock"]);
    let nothing = ask(json!({"stock": [{"material": "sawdust", "kg_available": 10}]}));
    assert_eq!((nothing.status, nothing.json()["status"].as_str()), (200, Some("nearest")));
    assert_eq!(nothing.json()["misses"][0]["code"], "c-n-high");
}
