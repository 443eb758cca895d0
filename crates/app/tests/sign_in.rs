//! Guessing, old codes, doubled cookies, a clock that goes on: who comes in, and who does not.

mod support;

use std::path::Path;

use serde_json::{Value, json};
use support::{Answer, Asked, Server, text};
use tempfile::TempDir;

const PASSPHRASE: &str = "three barrows of wet straw";

fn code_of(answer: &Answer) -> String {
    text(&answer.json()["errors"][0]["code"])
}

fn cookie(answer: &Answer) -> String {
    assert_eq!(answer.status, 200, "{answer:?}");
    answer.header("set-cookie").split(';').next().expect("a pair").to_owned()
}

fn first(server: &Server) -> String {
    cookie(&server.send("POST", "/api/people/first", &json!({"name": "Wayra", "passphrase": PASSPHRASE})))
}

fn by_name(server: &Server, name: &str, passphrase: &str) -> Answer {
    server.send("POST", "/api/sign-in", &json!({"name": name, "passphrase": passphrase}))
}

fn by_code(server: &Server, code: &str) -> Answer {
    server.send("POST", "/api/sign-in", &json!({"code": code}))
}

fn me(server: &Server, cookie: &str) -> u16 {
    server.ask(Asked::new("GET", "/api/me").header("cookie", cookie)).status
}

fn site(server: &Server, cookie: &str) -> String {
    text(&server.ask(Asked::new("GET", "/api/sites").header("cookie", cookie)).json()[0]["id"])
}

fn invited(server: &Server, owner: &str, name: &str) -> Value {
    let person = json!({"name": name, "role": "worker", "sites": [site(server, owner)]});
    let made = server.ask(Asked::new("POST", "/api/people").header("cookie", owner).json(&person));
    assert_eq!(made.status, 201, "{made:?}");
    made.json()
}

fn at(data: &Path, now: &str) -> Server {
    Server::start_at(data, now)
}

#[test]
fn until_somebody_is_made_it_is_open_and_only_one_is_the_first() {
    let folder = TempDir::new().expect("a folder");
    let server = at(&folder.path().join("farm.sqlite"), "2026-03-14T08:00");
    assert_eq!(server.get("/api/sites").status, 200);
    let me_now = server.get("/api/me").json();
    assert_eq!((&me_now["id"], &me_now["role"]), (&Value::Null, &json!("owner")));
    assert_eq!(server.get("/api/sign-in").json(), json!({"has_people": false, "may_make_first": true}));
    for (name, passphrase, field, code) in [
        ("Wayra", "short", "passphrase", "passphrase-short"),
        ("Wayra", "passwordpassword", "passphrase", "passphrase-easy"),
        ("", PASSPHRASE, "name", "empty-name"),
    ] {
        let answer =
            server.send("POST", "/api/people/first", &json!({"name": name, "passphrase": passphrase}));
        assert_eq!(
            (answer.status, code_of(&answer), answer.fields()),
            (422, code.into(), vec![field.into()])
        );
    }
    let owner = first(&server);
    assert_eq!(server.get("/api/sites").status, 401);
    assert_eq!(me(&server, &owner), 200);
    assert_eq!(server.get("/api/sign-in").json(), json!({"has_people": true, "may_make_first": false}));
    let again =
        server.send("POST", "/api/people/first", &json!({"name": "Second", "passphrase": PASSPHRASE}));
    assert_eq!((again.status, code_of(&again)), (409, "not-the-first".into()));
    // Pages and scripts are there for whoever is to sign in; data are not.
    assert_eq!(server.get("/").status, 200);
}

#[test]
fn a_code_lets_in_once_and_only_while_it_holds() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = at(&data, "2026-03-14T08:00");
    let owner = first(&server);
    let made = invited(&server, &owner, "Amaru");
    let code = text(&made["invitation"]["code"]);
    let link = text(&made["invitation"]["link"]);
    assert_eq!(link, format!("http://127.0.0.1:8420/join#{code}"));
    assert!(made["invitation"]["qr"]["rows"].as_array().is_some_and(|rows| rows.len() > 20));
    // As somebody types it who reads it from a wall.
    let typed = code.to_lowercase().replace('-', " ").replace('0', "o").replace('1', "l");
    let amaru = cookie(&by_code(&server, &typed));
    assert_eq!(me(&server, &amaru), 200);
    let spent = by_code(&server, &code);
    assert_eq!((spent.status, code_of(&spent)), (401, "wrong-code".into()));
    // A new one makes the one before worthless; one that is withdrawn is too.
    let path = format!("/api/people/{}/code", text(&made["person"]["id"]));
    let make = || text(&server.ask(Asked::new("POST", &path).header("cookie", &owner)).json()["code"]);
    let (older, newer) = (make(), make());
    assert_eq!(by_code(&server, &older).status, 401);
    assert_eq!(server.ask(Asked::new("DELETE", &path).header("cookie", &owner)).status, 204);
    assert_eq!(by_code(&server, &newer).status, 401);
    let last = make();
    drop(server);
    // Two days later.
    let server = at(&data, "2026-03-16T08:01");
    assert_eq!(by_code(&server, &last).status, 401);
    assert_eq!(me(&server, &amaru), 200, "who is in stays in");
}

#[test]
fn a_device_signs_in_anew_after_its_time_or_when_it_does_not_come_for_a_month() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = at(&data, "2026-03-14T08:00");
    let owner = first(&server);
    let amaru = cookie(&by_code(&server, &text(&invited(&server, &owner, "Amaru")["invitation"]["code"])));
    drop(server);
    // Who lets others in: a month, whatever happens.
    assert_eq!(me(&at(&data, "2026-04-10T07:00"), &owner), 200);
    assert_eq!(me(&at(&data, "2026-04-13T09:00"), &owner), 401);
    let server = at(&data, "2026-04-13T09:00");
    assert_eq!(me(&server, &cookie(&by_name(&server, "WAYRA", PASSPHRASE))), 200);
    drop(server);
    // Who works: half a year, as long as they come within each month.
    for day in ["04-10", "05-08", "06-05", "07-03", "08-01", "08-28"] {
        assert_eq!(me(&at(&data, &format!("2026-{day}T08:00")), &amaru), 200, "{day}");
    }
    assert_eq!(me(&at(&data, "2026-09-11T08:00"), &amaru), 401);
    // Who was made a trainer since is one in this too.
    let server = at(&data, "2026-08-28T09:00");
    assert_eq!(me(&server, &amaru), 200);
    let owner = cookie(&by_name(&server, "Wayra", PASSPHRASE));
    let people = server.ask(Asked::new("GET", "/api/people").header("cookie", &owner)).json();
    let other =
        people.as_array().expect("a list").iter().find(|one| one["name"] == "Amaru").expect("is there");
    let person = json!({"name": "Amaru", "role": "trainer", "sites": other["sites"]});
    let change = json!({"version": other["version"], "person": person});
    let path = format!("/api/people/{}", text(&other["id"]));
    assert_eq!(server.ask(Asked::new("PUT", &path).header("cookie", &owner).json(&change)).status, 200);
    assert_eq!(me(&server, &amaru), 401);
    drop(server);
    let server = at(&data, "2026-09-12T08:00");
    let owner = cookie(&by_name(&server, "Wayra", PASSPHRASE));
    let sami = cookie(&by_code(&server, &text(&invited(&server, &owner, "Sami")["invitation"]["code"])));
    drop(server);
    assert_eq!(me(&at(&data, "2026-10-11T08:00"), &sami), 200);
    assert_eq!(me(&at(&data, "2026-11-12T08:00"), &sami), 401, "a month away");
}

#[test]
fn guessing_gets_slow_and_stays_so_after_a_restart() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = at(&data, "2026-03-14T08:00");
    first(&server);
    for nth in 0..4 {
        let answer = by_name(&server, "Wayra", &format!("wrong wrong wrong {nth}"));
        assert_eq!((answer.status, code_of(&answer)), (401, "wrong-passphrase".into()));
    }
    // Whoever is not there at all is told the same.
    let server = at(&data, "2026-03-14T08:00:10");
    let nobody = by_name(&server, "Nobody", PASSPHRASE);
    assert_eq!((nobody.status, code_of(&nobody)), (401, "wrong-passphrase".into()));
    let slowed = by_name(&server, "Wayra", PASSPHRASE);
    assert_eq!((slowed.status, code_of(&slowed)), (429, "slowed".into()), "even the right one waits");
    assert_eq!(slowed.header("retry-after"), "4");
    // Codes from the same place wait too.
    assert_eq!(code_of(&by_code(&server, "7K3QD-2M9XT")), "slowed");
    drop(server);
    let server = at(&data, "2026-03-14T08:00:11");
    assert_eq!(code_of(&by_name(&server, "Wayra", PASSPHRASE)), "slowed", "kept across a restart");
    drop(server);
    let server = at(&data, "2026-03-14T08:00:16");
    let owner = cookie(&by_name(&server, "Wayra", PASSPHRASE));
    // What came off is forgotten: four more are free.
    for _ in 0..4 {
        assert_eq!(by_name(&server, "Wayra", "wrong wrong wrong").status, 401);
    }
    assert_eq!(by_name(&server, "Wayra", PASSPHRASE).status, 429);
    let noted = server.ask(Asked::new("GET", "/api/security").header("cookie", &owner)).json();
    let count =
        |kind: &str| noted.as_array().expect("a list").iter().filter(|one| one["kind"] == kind).count();
    assert!(count("not-let-in") >= 9 && count("slowed") >= 2, "{noted}");
}

#[test]
fn many_guesses_at_once_count_as_many() {
    let folder = TempDir::new().expect("a folder");
    let server = Server::process_now(&folder.path().join("farm.sqlite"));
    first(&server);
    let tried: Vec<u16> = std::thread::scope(|scope| {
        let guesses: Vec<_> = (0..40)
            .map(|nth| {
                let server = &server;
                scope.spawn(move || by_name(server, "Wayra", &format!("wrong wrong wrong {nth}")).status)
            })
            .collect();
        guesses.into_iter().map(|guess| guess.join().expect("ends")).collect()
    });
    let wrong = tried.iter().filter(|&&status| status == 401).count();
    assert!(wrong <= 6, "{wrong} of 40 were looked at: {tried:?}");
    assert_eq!(tried.iter().filter(|&&status| status == 429).count(), 40 - wrong);
}

#[test]
fn a_passphrase_of_ones_own_needs_the_old_one_and_signs_other_devices_out() {
    let folder = TempDir::new().expect("a folder");
    let server = at(&folder.path().join("farm.sqlite"), "2026-03-14T08:00");
    let owner = first(&server);
    let other = cookie(&by_name(&server, "Wayra", PASSPHRASE));
    let set = |cookie: &str, body: &Value| {
        server.ask(Asked::new("PUT", "/api/me/passphrase").header("cookie", cookie).json(body))
    };
    let new = "four sacks of dry leaves";
    let wrong = set(&owner, &json!({"old": "not the one at all", "new": new}));
    assert_eq!((wrong.status, wrong.fields()), (401, vec!["old".to_owned()]), "{wrong:?}");
    let fresh = cookie(&set(&owner, &json!({"old": PASSPHRASE, "new": new})));
    assert_eq!((me(&server, &owner), me(&server, &other), me(&server, &fresh)), (401, 401, 200));
    assert_eq!(by_name(&server, "Wayra", PASSPHRASE).status, 401);
    assert_eq!(by_name(&server, "Wayra", new).status, 200);
    // Who came by a code has none to tell yet.
    let made = invited(&server, &fresh, "Amaru");
    let amaru = cookie(&by_code(&server, &text(&made["invitation"]["code"])));
    assert_eq!(set(&amaru, &json!({"new": "a bucket of guinea pigs"})).status, 200);
    assert_eq!(by_name(&server, "amaru", "a bucket of guinea pigs").status, 200);
}

#[test]
fn what_is_sent_oddly_lets_nobody_in() {
    let folder = TempDir::new().expect("a folder");
    let server = at(&folder.path().join("farm.sqlite"), "2026-03-14T08:00");
    let owner = first(&server);
    let ask = |headers: &[(&str, &str)]| {
        let mut asked = Asked::new("GET", "/api/me");
        for (name, value) in headers {
            asked = asked.header(name, value);
        }
        server.ask(asked).status
    };
    assert_eq!(ask(&[("cookie", &owner)]), 200);
    assert_eq!(ask(&[("cookie", &format!("{owner}; {owner}"))]), 401, "two of it");
    assert_eq!(ask(&[("cookie", &format!("__Host-{owner}"))]), 401, "the name of a sealed one");
    assert_eq!(ask(&[("cookie", &owner.to_lowercase())]), 401);
    assert_eq!(ask(&[("cookie", "zymarch=")]), 401);
    assert_eq!(ask(&[("authorization", &format!("Bearer {}", &owner[8..]))]), 401);
    assert_eq!(ask(&[("cookie", &owner), ("sec-fetch-site", "cross-site")]), 403, "a foreign page");
    assert_eq!(ask(&[("cookie", &owner), ("origin", "http://farm.example")]), 403, "a foreign page");
    assert_eq!(ask(&[("cookie", &owner), ("host", "farm.example")]), 403, "another name for this machine");
    // A form of a foreign page cannot send JSON, and what it can is not read.
    let form = Asked::new("POST", "/api/sign-in").text("code=7K3QD-2M9XT");
    assert!(server.ask(form.header("content-type", "text/plain")).status >= 400);
    for body in [
        json!({}),
        json!({"code": null}),
        json!({"code": "", "name": "Wayra", "passphrase": PASSPHRASE}),
        json!({"name": "Wayra"}),
        json!({"code": "' OR 1=1 --"}),
        json!({"code": "\u{0}".repeat(500)}),
        json!({"name": "Wayra", "passphrase": "x".repeat(100_000)}),
    ] {
        let answer = server.send("POST", "/api/sign-in", &body);
        assert!(matches!(answer.status, 401 | 422 | 429), "{body}: {answer:?}");
        assert_eq!(answer.header("set-cookie"), "");
    }
}

#[test]
fn nothing_that_lets_somebody_in_is_kept_in_the_file() {
    let folder = TempDir::new().expect("a folder");
    let data = folder.path().join("farm.sqlite");
    let server = at(&data, "2026-03-14T08:00");
    let owner = first(&server);
    let code = text(&invited(&server, &owner, "Amaru")["invitation"]["code"]);
    drop(server);
    let token = owner.split('=').nth(1).expect("a value");
    let mut seen = 0;
    for entry in std::fs::read_dir(folder.path()).expect("lists") {
        let bytes = std::fs::read(entry.expect("a file").path()).expect("reads");
        for secret in [PASSPHRASE, token, code.as_str(), &code.replace('-', "")] {
            assert!(!bytes.windows(secret.len()).any(|part| part == secret.as_bytes()), "{secret}");
        }
        seen += bytes.len();
    }
    assert!(seen > 10_000);
}
