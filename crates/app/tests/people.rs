//! How people come and go: whom a trainer lets in, who is cut off, and what is noted of it.

mod support;

use serde_json::{Value, json};
use support::people::{Place, body_of, code};
use support::{Asked, text};

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
