//! A farm with people: somebody of each role at its first site, and some at another.

use std::collections::BTreeMap;

use serde_json::{Value, json};
use tempfile::TempDir;

use super::described::{Operation, api};
use super::{Answer, Asked, Server, method_fields, text};

const PASSPHRASE: &str = "three barrows of wet straw";

/// A farm with people: what is at its first site, and how each of them is known.
pub struct Place {
    pub server: Server,
    pub folder: TempDir,
    pub ids: BTreeMap<&'static str, String>,
    pub cookies: BTreeMap<&'static str, String>,
    pub people: BTreeMap<&'static str, String>,
}

impl Place {
    pub fn new() -> Self {
        let folder = TempDir::new().expect("a folder");
        let server = Server::demo(&folder.path().join("farm.sqlite"));
        let mut place =
            Self { server, folder, ids: BTreeMap::new(), cookies: BTreeMap::new(), people: BTreeMap::new() };
        place.stock();
        place.let_in();
        place
    }

    /// Something of each kind at the first site, and a second site beside it.
    pub fn stock(&mut self) {
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
        // One that stands already: compost was taken out of it, and there is a bed for that.
        let stands =
            ask("POST", &format!("/api/batches/{batch}/built"), &json!({"at": "2025-12-01T08:00:00Z"}));
        let taken = json!({"compost": {"amount": 50, "unit": "litre"}, "is_last": false});
        let compost = ask("POST", &format!("/api/heaps/{}/harvest", text(&stands["id"])), &taken);
        let ground = ask("POST", &format!("/api/sites/{site}/grounds"), &body_of("ground_create"));
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
            ("compost", text(&compost["id"])),
            ("ground", text(&ground["id"])),
            ("other site", text(&other["id"])),
            ("other lot", text(&theirs["id"])),
        ]);
    }

    /// The first owner on the machine, and everybody else by a code.
    pub fn let_in(&mut self) {
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

    pub fn as_(&self, who: &str, asked: Asked) -> Answer {
        let asked = match self.cookies.get(who) {
            Some(cookie) => asked.header("cookie", cookie),
            None => asked,
        };
        self.server.ask(asked)
    }

    pub fn asked(&self, operation: &Operation) -> Asked {
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
    pub fn device_of(&self, who: &str) -> String {
        let people = self.as_("owner", Asked::new("GET", "/api/people")).json();
        let people = people.as_array().expect("a list").clone();
        let device = people.iter().find(|one| one["name"] == who).map(|one| &one["devices"][0]["id"]);
        device.and_then(Value::as_str).unwrap_or("019ff000-0000-7000-8000-000000000000").to_owned()
    }

    pub fn body(&self, operation: &str) -> Value {
        let mut body = body_of(operation);
        if operation == "bench_ask" {
            body["site"] = json!(self.ids["site"]);
        }
        if operation.starts_with("method_c") {
            let all = self.as_("owner", Asked::new("GET", "/api/methods")).json();
            let method = method_fields(&all, "rapid-turned", "Ours");
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
    pub fn everything(&self) -> String {
        let conn = rusqlite::Connection::open(self.folder.path().join("farm.sqlite")).expect("opens");
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

pub fn cookie(answer: &Answer) -> String {
    let set = answer.header("set-cookie");
    assert!(set.contains("; Path=/; HttpOnly; SameSite=Strict; Max-Age="), "{set}");
    set.split(';').next().expect("a pair").to_owned()
}

pub fn kind(path: &str) -> &'static str {
    let of = [
        ("/api/sites", "site"),
        ("/api/lots", "lot"),
        ("/api/measures", "measure"),
        ("/api/batches", "batch"),
        ("/api/heaps", "heap"),
        ("/api/tests", "test"),
        ("/api/sorted-out", "sorted-out"),
        ("/api/lot-events", "entry"),
        ("/api/compost", "compost"),
        ("/api/grounds", "ground"),
    ];
    of.into_iter().find(|(start, _)| path.starts_with(start)).map_or("", |(_, kind)| kind)
}

/// What is named by a word and not by a key.
fn named(path: &str) -> String {
    if path.starts_with("/api/methods") { "slow-heap".into() } else { "our-chips".into() }
}

/// Something that is read without a fault, so that whether one may is all that is asked.
pub fn body_of(operation: &str) -> Value {
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
        "ground_create" => {
            json!({"name": "Oca bed", "kind": "bed", "area_m2": 12, "touches_soil": true, "is_eaten_raw": true})
        }
        "site_set_rules" => json!({"version": 0, "follows": ["mild"]}),
        "batch_create" => batch,
        "batch_change" => json!({"version": 99, "batch": batch}),
        other => {
            let api = api();
            let operation = api.operations.iter().find(|one| one.id == other).expect("is described");
            operation.body.as_ref().map_or(Value::Null, |schema| api.example(schema, 0))
        }
    }
}

/// What is wrong, by its code; empty where nothing is.
pub fn code(answer: &Answer) -> String {
    if answer.header("content-type") != "application/problem+json" {
        return String::new();
    }
    text(&answer.json()["errors"][0]["code"])
}
