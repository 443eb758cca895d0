//! What the forms are told may be written is what is taken, and a little beyond it is refused
//! at that field: the forms and the rules cannot drift apart.

mod support;

use serde_json::{Value, json};
use support::{Server, text};
use tempfile::TempDir;

fn server() -> (Server, Value, TempDir) {
    let folder = TempDir::new().expect("a folder");
    let server = Server::demo(&folder.path().join("farm.sqlite"));
    let limits = server.get("/api/limits").json();
    (server, limits, folder)
}

fn pair(limits: &Value) -> (f64, f64) {
    (limits[0].as_f64().expect("a lowest"), limits[1].as_f64().expect("a highest"))
}

/// Names and limits of a table of them.
fn table<'a>(limits: &'a Value, of: &str) -> Vec<(&'a str, f64, f64)> {
    let rows = limits[of].as_object().unwrap_or_else(|| panic!("no table {of}"));
    assert!(!rows.is_empty(), "{of}");
    rows.iter().map(|(name, edges)| (name.as_str(), pair(edges).0, pair(edges).1)).collect()
}

/// Whether a request is refused at a field, whatever stands before it in the path.
fn is_refused_at(server: &Server, method: &str, path: &str, body: &Value, field: &str) -> bool {
    let answer = server.send(method, path, body);
    if answer.status < 300 {
        return false;
    }
    assert_eq!(answer.status, 422, "{field}: {answer:?}");
    answer
        .fields()
        .iter()
        .any(|at| at.rsplit('.').next().is_some_and(|last| last.split('[').next() == Some(field)))
}

fn straw() -> Value {
    json!({"name": "Ours", "kind": "brown", "group": "crop residue", "moisture_pct": 12.0, "n_pct": 0.6,
           "c_n": 80.0, "ash_pct": 7.0, "lignin_pct": 8.0, "density_kg_l": 0.05, "settle": 0.5, "p_pct": 0.1,
           "k_pct": 1.0, "structure": 1.0, "keeps_days": 90.0, "degradability": "slow", "particle": "medium",
           "source": "weighed here"})
}

#[test]
fn a_material_is_refused_just_beyond_what_the_form_is_told() {
    let (server, limits, _folder) = server();
    assert_eq!(server.send("POST", "/api/materials/check", &straw()).status, 200);
    for (figure, low, high) in table(&limits, "material") {
        let is_whole = matches!(figure, "structure" | "keeps_days");
        let beyond = if is_whole { 1.0 } else { (high - low) * 1e-6 };
        for value in [low - beyond, high + beyond] {
            let mut body = straw();
            body[figure] = json!(value);
            assert!(
                is_refused_at(&server, "POST", "/api/materials/check", &body, figure),
                "{figure} {value}"
            );
        }
    }
}

#[test]
fn a_method_is_refused_just_beyond_what_the_form_is_told() {
    let (server, limits, _folder) = server();
    let methods = server.get("/api/methods").json();
    let bays =
        methods.as_array().expect("a list").iter().find(|one| one["id"] == "bay-turned").expect("listed");
    let mut sound = json!({"name": "Our bays", "pattern": bays["pattern"]});
    for (figure, ..) in table(&limits, "method") {
        sound[figure] = bays[figure].clone();
    }
    for (figure, low, high) in table(&limits, "method") {
        for value in [low - 1.0, high + 1.0] {
            let mut method = sound.clone();
            method[figure] = match &sound[figure] {
                Value::Array(_) => json!([value.min(high), value.max(low)]),
                _ => json!(value),
            };
            let body = json!({"base": "bay-turned", "method": method});
            assert!(is_refused_at(&server, "POST", "/api/methods", &body, figure), "{figure} {value}");
        }
    }
    assert_eq!(
        server.send("POST", "/api/methods", &json!({"base": "bay-turned", "method": sound})).status,
        201
    );
}

#[test]
fn a_lots_own_figures_are_refused_just_beyond_what_the_form_is_told() {
    let (server, limits, _folder) = server();
    let lot = |own: Value| json!({"material": "barley-straw", "label": null, "amount": 4, "unit": "kg", "measure_id": null, "own": own});
    for (figure, low, high) in table(&limits, "own") {
        for value in [low - 1.0, high * 1.01] {
            let body = lot(json!({figure: value}));
            assert!(
                is_refused_at(&server, "POST", &server.at_site("lots"), &body, figure),
                "{figure} {value}"
            );
        }
    }
    let (_, most) = pair(&limits["amount"]);
    let mut body = lot(json!({}));
    body["amount"] = json!(most * 1.001);
    assert!(is_refused_at(&server, "POST", &server.at_site("lots"), &body, "amount"));
    let letters = usize::try_from(limits["name_letters"].as_u64().expect("a number")).expect("is small");
    body["amount"] = json!(1);
    body["label"] = json!("a".repeat(letters + 1));
    assert!(is_refused_at(&server, "POST", &server.at_site("lots"), &body, "label"));
    body["label"] = json!("a".repeat(letters));
    assert_eq!(server.send("POST", &server.at_site("lots"), &body).status, 201);
}

#[test]
fn tests_measures_sites_and_heaps_are_refused_just_beyond_what_their_forms_are_told() {
    let (server, limits, _folder) = server();
    let lot = text(&server.get(&server.at_site("lots")).json()[0]["id"]);
    let reckon = format!("/api/lots/{lot}/tests/reckon");
    let test = |readings: Value| json!({"made_on": "2026-03-14", "readings": readings});
    let heaviest = pair(&limits["weight_kg"]).1;
    let weigh = test(json!({"kind": "weigh", "litres": 70, "full_kg": heaviest + 1.0, "empty_kg": 5}));
    assert!(is_refused_at(&server, "POST", &reckon, &weigh, "full_kg"));
    let sample = pair(&limits["sample_g"]).1;
    let drying = test(json!({"kind": "drying", "dish_g": 1, "wet_g": sample + 1.0, "dried_g": [3]}));
    assert!(is_refused_at(&server, "POST", &reckon, &drying, "wet_g"));
    let (fewest, most) = pair(&limits["beans"]);
    for sown in [fewest - 1.0, most + 1.0] {
        let bean =
            test(json!({"kind": "bean", "sown": sown as i64, "up": 1, "deformed": 0, "control_sown": 10,
                               "control_up": 9, "control_deformed": 0, "judged_on": null}));
        assert!(is_refused_at(&server, "POST", &reckon, &bean, "sown"), "{sown}");
    }

    let volume = |heaped: f64, side: f64| json!({"way": {"by": "cylinder", "across_cm": side, "height_cm": 40}, "heaped": heaped});
    let (flat, high) = pair(&limits["heaped"]);
    for heaped in [flat - 0.01, high + 0.01] {
        assert!(
            is_refused_at(&server, "POST", "/api/measures/volume", &volume(heaped, 30.0), "heaped"),
            "{heaped}"
        );
    }
    let longest = pair(&limits["measure_cm"]).1;
    assert!(is_refused_at(&server, "POST", "/api/measures/volume", &volume(1.0, longest + 1.0), "across_cm"));

    let (low, high) = pair(&limits["altitude_m"]);
    for altitude in [low - 1.0, high + 1.0] {
        let site = json!({"name": "Upper plot", "altitude_m": altitude, "climate": null});
        assert!(is_refused_at(&server, "POST", "/api/sites", &site, "altitude_m"), "{altitude}");
    }

    let recipe = json!({"format": "zymarch-recipe/1", "items": [{"material": "barley-straw", "kg": 20}]});
    for (side, low, high) in table(&limits, "side").into_iter().filter(|(side, ..)| *side == "height_cm") {
        for value in [low - 1.0, high + 1.0] {
            let heap = json!({"shape": "box", "length_cm": 110, "width_cm": 110, side: value});
            let body = json!({"recipe": recipe, "heap": heap});
            assert!(is_refused_at(&server, "POST", "/api/bench", &body, side), "{side} {value}");
        }
    }
}
