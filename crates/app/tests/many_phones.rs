//! A course comes back from the field: two hundred phones, each with what was done on it, all at once, at a
//! server that dies in the middle of it. Nothing is lost and nothing counts twice.

mod support;

use std::collections::HashMap;
use std::sync::RwLock;
use std::sync::atomic::{AtomicU32, Ordering};
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use support::{Asked, Server, text};
use uuid::Uuid;

const PHONES: usize = 200;
/// What each brings of the lot that all share.
const EACH: f64 = 0.25;
/// How long anything may take before it is a fault and no wait.
const LONG: Duration = Duration::from_secs(120);

/// One act that waits on a phone.
struct Act {
    method: &'static str,
    path: String,
    body: Value,
}

impl Act {
    fn asked(&self) -> Asked {
        Asked::new(self.method, &self.path).header("x-done-at", "2026-03-12T15:00:00Z").json(&self.body)
    }
}

/// What was done on one phone, each with an id of its own: more of the shared lot came, twice; a lot of its
/// own was written down, tested, and some of it used.
fn done(server: &Server, shared: &str) -> Vec<Act> {
    let (lot, test) = (Uuid::now_v7(), Uuid::now_v7());
    let post = |path: String, body: Value| Act { method: "POST", path, body };
    let came = || json!({"kind": "delivered", "amount": EACH, "entry": Uuid::now_v7()});
    let test_body = json!({"made_on": "2026-03-12", "readings": {"kind": "squeeze", "feel": "holds"}});
    let used = json!({"kind": "used", "amount": 1, "entry": Uuid::now_v7()});
    vec![
        post(format!("/api/lots/{shared}/history"), came()),
        post(
            format!("{}?id={lot}", server.at_site("lots")),
            json!({"material": "barley-straw", "amount": 5, "unit": "kg", "own": {}}),
        ),
        post(format!("/api/lots/{lot}/tests?id={test}"), test_body),
        post(format!("/api/lots/{lot}/history"), used),
        post(format!("/api/lots/{shared}/history"), came()),
    ]
}

/// Sends what waits, in order, until the server has said of each that it has it. Every third phone loses
/// its first answers, and sends again what has arrived.
fn comes_back(number: usize, acts: &[Act], server: &RwLock<Option<Server>>, arrived: &AtomicU32) {
    for act in acts {
        let mut answers_lost = if number.is_multiple_of(3) { 1 } else { 0 };
        let since = Instant::now();
        loop {
            let answer =
                server.read().expect("nobody panics").as_ref().and_then(|it| it.try_ask(act.asked()));
            match answer {
                Some(answer) if answer.status < 300 && answers_lost > 0 => answers_lost -= 1,
                Some(answer) if answer.status < 300 => break,
                Some(answer) => assert!(
                    answer.status == 503 || answer.status == 429,
                    "{} {}: {} {}",
                    act.method,
                    act.path,
                    answer.status,
                    answer.text
                ),
                None => {}
            }
            assert!(since.elapsed() < LONG, "{} {} does not arrive", act.method, act.path);
            std::thread::sleep(Duration::from_millis(20));
        }
        arrived.fetch_add(1, Ordering::Relaxed);
    }
}

#[test]
fn two_hundred_phones_come_back_at_once_and_the_server_dies_in_between() {
    let folder = tempfile::TempDir::new().expect("a folder");
    let data = folder.path().join("demo.sqlite");
    let first = Server::demo_process(&data);
    let lots = first.get(&first.at_site("lots")).json();
    let shared = text(&lots[0]["id"]);
    let (before, had) =
        (lots[0]["amount"].as_f64().expect("an amount"), lots.as_array().expect("a list").len());
    let phones: Vec<Vec<Act>> = (0..PHONES).map(|_| done(&first, &shared)).collect();
    let all = phones.iter().map(Vec::len).sum::<usize>() as u32;

    let (server, arrived) = (RwLock::new(Some(first)), AtomicU32::new(0));
    std::thread::scope(|scope| {
        for (number, acts) in phones.iter().enumerate() {
            let (server, arrived) = (&server, &arrived);
            scope.spawn(move || comes_back(number, acts, server, arrived));
        }
        // Its power fails while the half is on its way, under the hands of those that are sending.
        let since = Instant::now();
        while arrived.load(Ordering::Relaxed) < all / 3 && since.elapsed() < LONG {
            std::thread::sleep(Duration::from_millis(5));
        }
        let pid = server.read().expect("nobody panics").as_ref().map(Server::pid).expect("runs");
        let killed = std::process::Command::new("kill").args(["-KILL", &pid.to_string()]).status();
        assert!(killed.expect("there is a kill").success());
        let mut stands = server.write().expect("nobody panics");
        drop(stands.take());
        *stands = Some(Server::process(&data));
    });

    let server = server.into_inner().expect("nobody panics").expect("runs");
    let lots = server.get(&server.at_site("lots")).json();
    let by_id: HashMap<String, &Value> =
        lots.as_array().expect("a list").iter().map(|lot| (text(&lot["id"]), lot)).collect();
    assert_eq!(by_id.len(), had + PHONES, "each wrote down one lot");
    let now = by_id[&shared]["amount"].as_f64().expect("an amount");
    assert!((now - before - 2.0 * EACH * PHONES as f64).abs() < 1e-6, "{before} and then {now}");
    let came = server.get(&format!("/api/lots/{shared}/history")).json();
    let came = came.as_array().expect("a list");
    let delivered: Vec<_> = came.iter().filter(|one| one["kind"] == "delivered").collect();
    assert_eq!(delivered.len(), 2 * PHONES);
    for acts in &phones {
        let id = acts[1].path.rsplit('=').next().expect("an id");
        let lot = by_id[id];
        assert_eq!(lot["amount"], 4.0, "some was used once");
        let list = |what: &str| server.get(&format!("/api/lots/{id}/{what}")).json();
        assert_eq!(list("tests").as_array().map(Vec::len), Some(1), "and tested once");
        // It was done two days ago, whenever it was told.
        let history = list("history");
        let times = history.as_array().expect("a list").iter().map(|one| text(&one["at"]));
        assert!(times.clone().all(|at| at.starts_with("2026-03-12T15:00:00")), "{history}");
        assert_eq!(times.count(), 2);
    }
    drop(server);
    let checked = std::process::Command::new(env!("CARGO_BIN_EXE_zymarch")).arg("check").arg(&data).output();
    let checked = checked.expect("the program runs");
    assert!(checked.status.success(), "{}", String::from_utf8_lossy(&checked.stdout));
}
