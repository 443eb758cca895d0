//! Every operation as every role and as a stranger; and how people come in and go.

mod support;

use std::collections::BTreeMap;

use serde_json::{Value, json};
use support::described::{Operation, api};
use support::{Asked, Server, text};
use tempfile::TempDir;
use zymarch_core::people::{Deed, Role};

const PASSPHRASE: &str = "three barrows of wet straw";

/// What an operation is for; none for those at the door.
fn deed_of(operation: &str) -> Option<Deed> {
    Some(match operation {
        "sign_in_door" | "sign_in" | "people_first" => return None,
        "about_about"
        | "about_limits"
        | "about_start"
        | "me_get"
        | "sign_out"
        | "passphrase_set"
        | "person_list"
        | "person_code"
        | "person_code_withdraw"
        | "device_cut_off"
        | "material_list"
        | "material_names"
        | "material_check"
        | "material_file"
        | "site_list"
        | "measure_list"
        | "measure_volume"
        | "lot_list"
        | "lot_history"
        | "field_test_list"
        | "field_test_reckon"
        | "sorted_out_list"
        | "scale_read"
        | "mix_sum"
        | "mix_working"
        | "mix_confidence"
        | "formulate_correct"
        | "formulate_thumb"
        | "mix_say"
        | "bench_ask"
        | "formulate_ask"
        | "choices_ask"
        | "method_suit"
        | "place_ask"
        | "prepare_ask"
        | "starter_list"
        | "method_list"
        | "batch_list"
        | "batch_get"
        | "heap_list"
        | "heap_get" => Deed::Look,
        "measure_create" | "measure_change" | "measure_remove" | "measure_restore" | "lot_create"
        | "lot_change" | "lot_remove" | "lot_restore" | "lot_happened" | "lot_event_undo"
        | "field_test_create" | "field_test_change" | "field_test_remove" | "field_test_restore"
        | "sorted_out_create" | "sorted_out_remove" | "sorted_out_restore" | "scale_hang"
        | "batch_create" | "batch_change" | "batch_remove" | "batch_restore" | "batch_take"
        | "batch_give_back" | "heap_begin" | "heap_lay" | "heap_plan_anew" | "heap_end" | "heap_undo"
        | "heap_remove" | "heap_restore" | "heap_take" | "heap_give_back" => Deed::Work,
        "site_create" | "site_change" | "site_remove" | "site_restore" => Deed::Keep,
        "material_create" | "material_change" | "material_remove" | "material_restore"
        | "material_import" | "method_copy" | "method_change" | "method_remove" | "method_restore" => {
            Deed::Book
        }
        "person_create" | "person_change" | "person_remove" | "person_restore" => Deed::LetIn,
        "security_list" => Deed::Govern,
        other => panic!("say who may do {other}"),
    })
}

/// A farm with people: what is at its first site, and how each of them is known.
struct Place {
    server: Server,
    _folder: TempDir,
    ids: BTreeMap<&'static str, String>,
    cookies: BTreeMap<&'static str, String>,
    people: BTreeMap<&'static str, String>,
}

impl Place {
    fn new() -> Self {
        let folder = TempDir::new().expect("a folder");
        let server = Server::demo(&folder.path().join("farm.sqlite"));
        let mut place = Self {
            server,
            _folder: folder,
            ids: BTreeMap::new(),
            cookies: BTreeMap::new(),
            people: BTreeMap::new(),
        };
        place.stock();
        place.let_in();
        place
    }

    /// Something of each kind at the first site, and a second site beside it.
    fn stock(&mut self) {
        let ask = |method: &str, path: &str, body: &Value| {
            let answer = self.server.send(method, path, body);
            assert!(answer.status < 300, "{method} {path}: {answer:?}");
            answer.json()
        };
        let site = text(&self.server.get("/api/sites").json()[0]["id"]);
        let lots = self.server.get(&format!("/api/sites/{site}/lots")).json();
        let lot = text(&lots[0]["id"]);
        let measure = text(&self.server.get(&format!("/api/sites/{site}/measures")).json()[0]["id"]);
        let batch = text(&self.server.get(&format!("/api/sites/{site}/batches")).json()[0]["id"]);
        let heap = text(&ask("POST", &format!("/api/batches/{batch}/build"), &json!(null))["id"]);
        let entry = self.server.get(&format!("/api/lots/{lot}/history")).json();
        let test = ask("POST", &format!("/api/lots/{lot}/tests"), &body_of("field_test_create"));
        let out = ask("POST", &format!("/api/sites/{site}/sorted-out"), &body_of("sorted_out_create"));
        let other =
            ask("POST", "/api/sites", &json!({"name": "Lower plot", "altitude_m": null, "climate": null}));
        let theirs = ask(
            "POST",
            &format!("/api/sites/{}/lots", text(&other["id"])),
            &json!({"material": "wheat-straw", "label": null, "amount": 3, "unit": "kg", "measure_id": null}),
        );
        self.ids = BTreeMap::from([
            ("site", site),
            ("lot", lot),
            ("measure", measure),
            ("batch", batch),
            ("heap", heap),
            ("entry", text(&entry[0]["id"])),
            ("test", text(&test["id"])),
            ("sorted-out", text(&out["id"])),
            ("other site", text(&other["id"])),
            ("other lot", text(&theirs["id"])),
        ]);
    }

    /// The first owner on the machine, and everybody else by a code.
    fn let_in(&mut self) {
        let first = json!({"name": "Wayra", "passphrase": PASSPHRASE});
        let answer = self.server.send("POST", "/api/people/first", &first);
        assert_eq!((answer.status, text(&answer.json()["role"])), (200, "owner".into()), "{answer:?}");
        self.cookies.insert("owner", cookie(&answer));
        self.people.insert("owner", text(&answer.json()["id"]));
        let here = self.ids["site"].clone();
        let there = self.ids["other site"].clone();
        for (who, role, site) in [
            ("trainer", "trainer", &here),
            ("worker", "worker", &here),
            ("guest", "guest", &here),
            ("learner", "guest", &here),
            ("elsewhere", "worker", &there),
            ("other trainer", "trainer", &there),
        ] {
            let person = json!({"name": who, "role": role, "sites": [site]});
            let made = self.as_("owner", Asked::new("POST", "/api/people").json(&person));
            assert_eq!(made.status, 201, "{made:?}");
            let code = json!({"code": made.json()["invitation"]["code"]});
            let came = self.server.send("POST", "/api/sign-in", &code);
            assert_eq!(came.status, 200, "{came:?}");
            self.cookies.insert(who, cookie(&came));
            self.people.insert(who, text(&made.json()["person"]["id"]));
        }
    }

    fn as_(&self, who: &str, asked: Asked) -> support::Answer {
        let asked = match self.cookies.get(who) {
            Some(cookie) => asked.header("cookie", cookie),
            None => asked,
        };
        self.server.ask(asked)
    }

    fn asked(&self, operation: &Operation) -> Asked {
        let mut path = operation.path.clone();
        let is_of_people = operation.path.starts_with("/api/people");
        while let Some((start, end)) = path.find('{').zip(path.find('}')) {
            let id = match &path[start..=end] {
                "{device}" => self.device_of("learner"),
                _ if is_of_people => self.people["learner"].clone(),
                "{site}" => self.ids["site"].clone(),
                _ => self.ids.get(kind(&operation.path)).cloned().unwrap_or_else(|| named(&operation.path)),
            };
            path.replace_range(start..=end, &id);
        }
        if operation.id == "choices_ask" {
            path += "?aims=largest";
        }
        let asked = Asked::new(&operation.method, &path);
        if operation.body.is_some() { asked.json(&self.body(&operation.id)) } else { asked }
    }

    /// A device of somebody; one that there never was, if they have none.
    fn device_of(&self, who: &str) -> String {
        let people = self.as_("owner", Asked::new("GET", "/api/people")).json();
        let people = people.as_array().expect("a list").clone();
        let device = people.iter().find(|one| one["name"] == who).map(|one| &one["devices"][0]["id"]);
        device.and_then(Value::as_str).unwrap_or("019ff000-0000-7000-8000-000000000000").to_owned()
    }

    fn body(&self, operation: &str) -> Value {
        let mut body = body_of(operation);
        if operation == "bench_ask" {
            body["site"] = json!(self.ids["site"]);
        }
        if operation.starts_with("method_c") {
            let all = self.as_("owner", Asked::new("GET", "/api/methods")).json();
            let method = support::method_fields(&all, "rapid-turned", "Ours");
            body = json!({"base": "rapid-turned", "method": method});
            if operation == "method_change" {
                body = json!({"version": 99, "method": method});
            }
        }
        if operation == "person_create" || operation == "person_change" {
            let person = json!({"name": "Sami", "role": "guest", "sites": [self.ids["site"]]});
            body =
                if operation == "person_create" { person } else { json!({"version": 99, "person": person}) };
        }
        body
    }

    /// Everything that is written down, but for who came when.
    fn everything(&self) -> String {
        let conn = rusqlite::Connection::open(self._folder.path().join("farm.sqlite")).expect("opens");
        let mut names = conn
            .prepare("SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name")
            .expect("is SQL");
        let names: Vec<String> =
            names.query_map([], |row| row.get(0)).expect("reads").map(|name| name.expect("a name")).collect();
        let quiet = ["session", "security_entry", "failed_sign_in", "sign_in_code"];
        let mut all = String::new();
        for name in names.iter().filter(|name| !quiet.contains(&name.as_str())) {
            let mut rows = conn.prepare(&format!("SELECT * FROM \"{name}\"")).expect("is SQL");
            let columns = rows.column_count();
            let mut rows = rows.query([]).expect("reads");
            while let Some(row) = rows.next().expect("reads") {
                for column in 0..columns {
                    let value: rusqlite::types::Value = row.get(column).expect("a value");
                    all += &format!("{name} {value:?} ");
                }
                all.push('\n');
            }
        }
        all
    }
}

fn cookie(answer: &support::Answer) -> String {
    let set = answer.header("set-cookie");
    assert!(set.contains("; Path=/; HttpOnly; SameSite=Strict; Max-Age="), "{set}");
    set.split(';').next().expect("a pair").to_owned()
}

fn kind(path: &str) -> &'static str {
    let of = [
        ("/api/sites", "site"),
        ("/api/lots", "lot"),
        ("/api/measures", "measure"),
        ("/api/batches", "batch"),
        ("/api/heaps", "heap"),
        ("/api/tests", "test"),
        ("/api/sorted-out", "sorted-out"),
        ("/api/lot-events", "entry"),
    ];
    of.into_iter().find(|(start, _)| path.starts_with(start)).map_or("", |(_, kind)| kind)
}

/// What is named by a word and not by a key.
fn named(path: &str) -> String {
    if path.starts_with("/api/methods") { "slow-heap".into() } else { "our-chips".into() }
}

/// Something that is read without a fault, so that whether one may is all that is asked.
fn body_of(operation: &str) -> Value {
    let lot =
        json!({"material": "wheat-straw", "label": null, "amount": 1, "unit": "kg", "measure_id": null});
    let part = json!({"lot_id": null, "material": "sheep-manure", "label": null, "amount": 5, "unit": "kg", "measure_id": null, "measure_litres": null});
    let heap = json!({"shape": "box", "length_cm": 100, "width_cm": 100, "height_cm": 100});
    let batch = json!({"name": "New one", "water_l": 0, "heap": heap, "items": [part]});
    match operation {
        "bench_ask" => {
            json!({"recipe": {"format": "zymarch-recipe/1", "items": [{"material": "wheat-straw", "kg": 10}, {"material": "sheep-manure", "kg": 10}]}, "heap": null})
        }
        "lot_create" => lot,
        "lot_happened" => json!({"kind": "used", "amount": 0.1}),
        "field_test_create" => {
            json!({"made_on": "2026-03-14", "readings": {"kind": "squeeze", "feel": "holds"}})
        }
        "sorted_out_create" => json!({"material": "pet-faeces", "made_on": "2026-03-14"}),
        "site_create" => json!({"name": "Newest", "altitude_m": null, "climate": null}),
        "batch_create" => batch,
        "batch_change" => json!({"version": 99, "batch": batch}),
        other => {
            let api = api();
            let operation = api.operations.iter().find(|one| one.id == other).expect("is described");
            operation.body.as_ref().map_or(Value::Null, |schema| api.example(schema, 0))
        }
    }
}

#[test]
fn every_operation_is_for_those_it_is_for_and_nobody_else() {
    let place = Place::new();
    let (mut seen, all) = (0, &api().operations);
    let before = place.everything();
    // Those who may not, first: nothing of theirs leaves a trace.
    for operation in all {
        let Some(deed) = deed_of(&operation.id) else { continue };
        let stranger = place.as_("nobody", place.asked(operation));
        assert_eq!((stranger.status, code(&stranger)), (401, "sign-in-first".into()), "{operation:?}");
        for &role in Role::ALL.iter().filter(|role| !role.may(deed)) {
            let answer = place.as_(role.as_str(), place.asked(operation));
            assert_eq!(code(&answer), "not-your-role", "{role:?} {operation:?}: {answer:?}");
            assert_eq!(answer.status, 403);
            seen += 1;
        }
    }
    assert_eq!(place.everything(), before);
    assert!(seen > 60, "{seen}");
    for operation in all {
        let Some(deed) = deed_of(&operation.id) else { continue };
        for &role in Role::ALL.iter().filter(|role| role.may(deed)) {
            // What ends a session is another test's.
            if ["sign_out", "passphrase_set", "device_cut_off"].contains(&operation.id.as_str()) {
                continue;
            }
            let answer = place.as_(role.as_str(), place.asked(operation));
            let refused = ["sign-in-first", "not-your-role"].contains(&code(&answer).as_str());
            assert!(!refused && answer.status < 500, "{role:?} {operation:?}: {answer:?}");
        }
    }
}

#[test]
fn another_farms_ids_look_like_ids_that_never_were() {
    let place = Place::new();
    let before = place.everything();
    let mut seen = 0;
    for operation in &api().operations {
        let is_of_a_site = !kind(&operation.path).is_empty() && operation.path.contains('{');
        if !is_of_a_site && operation.id != "bench_ask" {
            continue;
        }
        for who in ["elsewhere", "other trainer"] {
            let theirs = place.as_(who, place.asked(operation));
            let refused =
                if deed_of(&operation.id) == Some(Deed::Keep) && who == "elsewhere" { 403 } else { 404 };
            assert_eq!(theirs.status, refused, "{who} {operation:?}: {theirs:?}");
            for id in place.ids.values() {
                assert!(!theirs.text.contains(id.as_str()), "{operation:?}: {theirs:?}");
            }
            seen += 1;
        }
    }
    assert!(seen > 80, "{seen}");
    assert_eq!(place.everything(), before);
}

#[test]
fn nothing_is_reached_through_an_id_in_a_body() {
    let place = Place::new();
    let (there, lot) = (place.ids["other site"].clone(), place.ids["lot"].clone());
    let ask =
        |method: &str, path: &str, body: &Value| place.as_("elsewhere", Asked::new(method, path).json(body));
    // A lot of another site in a recipe: it could be taken from.
    let mut batch = body_of("batch_create");
    batch["items"][0]["lot_id"] = json!(lot);
    let answer = ask("POST", &format!("/api/sites/{there}/batches"), &batch);
    assert_eq!((answer.status, code(&answer)), (422, "no-such-lot".into()), "{answer:?}");
    assert_eq!(answer.fields(), ["items[0].lot_id"]);
    // A new record that takes the id of another's.
    let answer = ask("POST", &format!("/api/sites/{there}/lots?id={lot}"), &body_of("lot_create"));
    assert_eq!(answer.status, 404, "{answer:?}");
    // Another's container.
    let mut theirs = body_of("lot_create");
    theirs["unit"] = json!("measure");
    theirs["measure_id"] = json!(place.ids["measure"]);
    let answer = ask("POST", &format!("/api/sites/{there}/lots"), &theirs);
    assert_eq!((answer.status, code(&answer)), (422, "no-such-measure".into()), "{answer:?}");
    // A page that was open on another site opens one of their own.
    let start =
        place.as_("elsewhere", Asked::new("GET", &format!("/api/start?site={}", place.ids["site"]))).json();
    assert_eq!(text(&start["open"]["site"]["id"]), there);
    assert_eq!(start["sites"].as_array().map(Vec::len), Some(1));
    assert_eq!(start["me"]["role"], "worker");
    // Nor does the right site lead to another's lot by name.
    let mut bench = body_of("bench_ask");
    bench["site"] = json!(there);
    bench["lots"] = json!([lot, null]);
    let answer = ask("POST", "/api/bench", &bench);
    assert!(!answer.text.contains(&lot), "{answer:?}");
}

#[test]
fn a_trainer_lets_in_learners_at_their_own_plots_and_nobody_else() {
    let place = Place::new();
    let (here, there) = (place.ids["site"].clone(), place.ids["other site"].clone());
    let add = |who: &str, name: &str, role: &str, sites: &[&str]| {
        let person = json!({"name": name, "role": role, "sites": sites});
        place.as_(who, Asked::new("POST", "/api/people").json(&person))
    };
    assert_eq!(add("trainer", "Killa", "worker", &[&here]).status, 201);
    for (role, sites, refused) in [
        ("trainer", vec![here.as_str()], "not-your-role"),
        ("owner", vec![], "not-your-role"),
        ("worker", vec![there.as_str()], "no-such-site"),
        ("guest", vec![here.as_str(), there.as_str()], "no-such-site"),
        ("guest", vec![], "no-site-given"),
    ] {
        assert_eq!(code(&add("trainer", "Inti", role, &sites)), refused, "{role} {sites:?}");
    }
    assert_eq!(
        code(&add("owner", "KILLA", "guest", &[&here])),
        "name-taken",
        "in other letters it is the same"
    );
    // Whom a trainer sees: themselves and the learners of their plots.
    let seen = |who: &str| -> Vec<String> {
        let people = place.as_(who, Asked::new("GET", "/api/people")).json();
        people.as_array().expect("a list").iter().map(|one| text(&one["name"])).collect()
    };
    assert_eq!(seen("trainer"), ["trainer", "worker", "guest", "learner", "Killa"]);
    assert_eq!(seen("worker"), ["worker"]);
    assert_eq!(seen("owner").len(), 8);
    // A code for an owner would make a trainer one.
    for (who, whom, status) in [
        ("trainer", "owner", 404),
        ("trainer", "elsewhere", 404),
        ("trainer", "worker", 201),
        ("worker", "guest", 404),
        ("worker", "worker", 201),
    ] {
        let path = format!("/api/people/{}/code", place.people[whom]);
        assert_eq!(place.as_(who, Asked::new("POST", &path)).status, status, "{who} {whom}");
    }
    // A plot that a trainer opens is theirs, and no other trainer's.
    let plot = body_of("site_create");
    let opened = place.as_("trainer", Asked::new("POST", "/api/sites").json(&plot));
    assert_eq!(opened.status, 201);
    let sites = |who: &str| place.as_(who, Asked::new("GET", "/api/sites")).json().as_array().map(Vec::len);
    assert_eq!((sites("trainer"), sites("other trainer"), sites("owner")), (Some(2), Some(1), Some(3)));
}

#[test]
fn who_is_cut_off_is_out_with_the_next_request_and_the_last_owner_stays() {
    let place = Place::new();
    let mine = |who: &str| place.as_(who, Asked::new("GET", "/api/me")).status;
    assert_eq!(mine("guest"), 200);
    let path = format!("/api/people/{}/devices/{}", place.people["guest"], place.device_of("guest"));
    assert_eq!(place.as_("worker", Asked::new("DELETE", &path)).status, 404, "not theirs to do");
    assert_eq!(place.as_("trainer", Asked::new("DELETE", &path)).status, 204);
    assert_eq!(mine("guest"), 401);
    // One who leaves; one who is taken off the list, and comes back with nothing in hand.
    assert_eq!(place.as_("worker", Asked::new("POST", "/api/sign-out")).status, 204);
    assert_eq!(mine("worker"), 401);
    let elsewhere = format!("/api/people/{}", place.people["elsewhere"]);
    assert_eq!(place.as_("owner", Asked::new("DELETE", &elsewhere)).status, 204);
    assert_eq!(mine("elsewhere"), 401);
    assert_eq!(place.as_("owner", Asked::new("POST", &format!("{elsewhere}/restore"))).status, 200);
    assert_eq!(mine("elsewhere"), 401);
    // Somebody whose role is changed is it at once.
    let people = place.as_("owner", Asked::new("GET", "/api/people")).json();
    let trainer =
        people.as_array().expect("a list").iter().find(|one| one["name"] == "trainer").expect("is there");
    let change = json!({"version": trainer["version"], "person": {"name": "trainer", "role": "guest", "sites": trainer["sites"]}});
    let path = format!("/api/people/{}", place.people["trainer"]);
    assert_eq!(place.as_("owner", Asked::new("PUT", &path).json(&change)).status, 200);
    assert_eq!(place.as_("owner", Asked::new("PUT", &path).json(&change)).status, 409, "changed meanwhile");
    let lots = format!("/api/sites/{}/lots", place.ids["site"]);
    assert_eq!(place.as_("trainer", Asked::new("POST", &lots).json(&body_of("lot_create"))).status, 403);
    // Without an owner nobody could let anybody in.
    let owner = format!("/api/people/{}", place.people["owner"]);
    assert_eq!(code(&place.as_("owner", Asked::new("DELETE", &owner))), "last-owner");
    let change =
        json!({"version": 1, "person": {"name": "Wayra", "role": "worker", "sites": [place.ids["site"]]}});
    assert_eq!(code(&place.as_("owner", Asked::new("PUT", &owner).json(&change))), "last-owner");
    assert_eq!(mine("owner"), 200);
    // All of it was noted, with who did it.
    let noted = place.as_("owner", Asked::new("GET", "/api/security")).json();
    let told: Vec<(String, Value)> = noted
        .as_array()
        .expect("a list")
        .iter()
        .map(|one| (text(&one["kind"]), one["who"].clone()))
        .collect();
    for (kind, who) in [
        ("cut-off", "trainer"),
        ("left", "worker"),
        ("person-removed", "Wayra"),
        ("person-changed", "Wayra"),
        ("first-owner", "Wayra"),
        ("refused", "trainer"),
    ] {
        assert!(told.contains(&(kind.into(), json!(who))), "{kind} {who}: {told:?}");
    }
}

#[test]
fn the_log_says_who_did_it() {
    let place = Place::new();
    let path = format!("/api/lots/{}/history", place.ids["lot"]);
    let noted = place.as_(
        "worker",
        Asked::new("POST", &path).json(&body_of("lot_happened")).header("x-device", "field phone"),
    );
    assert_eq!(noted.status, 200, "{noted:?}");
    let history = place.as_("guest", Asked::new("GET", &path)).json();
    assert_eq!((&history[0]["by"], &history[0]["device"]), (&json!("worker"), &json!("field phone")));
    assert_eq!(history[1]["by"], Value::Null, "nobody had been made then");
}

fn code(answer: &support::Answer) -> String {
    if answer.header("content-type") != "application/problem+json" {
        return String::new();
    }
    text(&answer.json()["errors"][0]["code"])
}
