//! A probe is known by what it holds, writes readings of its heap, and can do nothing else.

mod support;

use serde_json::{Value, json};
use support::described::api;
use support::people::{Place, code};
use support::{Answer, Asked, text};

const HEAP: &str = "heap";

/// A farm with people, and a probe in its heap.
struct Farm {
    place: Place,
    heap: String,
    id: String,
    token: String,
}

impl Farm {
    fn new() -> Self {
        let place = Place::new();
        let heap = place.ids[HEAP].clone();
        let path = format!("/api/heaps/{heap}/probes");
        let made = place.as_("owner", Asked::new("POST", &path).json(&json!({"name": "Rod"}))).json();
        Self { heap, id: text(&made["id"]), token: text(&made["token"]), place }
    }

    fn sends(&self, token: &str, pack: &Value) -> Answer {
        let asked = Asked::new("POST", "/api/readings").header("authorization", &format!("Bearer {token}"));
        let asked = asked.header("content-type", "application/senml+json").text(&pack.to_string());
        self.place.as_("nobody", asked)
    }

    fn shown(&self) -> Value {
        self.place.as_("owner", Asked::new("GET", &format!("/api/heaps/{}/trace", self.heap))).json()
    }

    fn readings(&self) -> u64 {
        self.shown()["lines"]
            .as_array()
            .into_iter()
            .flatten()
            .filter_map(|line| line["readings"].as_u64())
            .sum()
    }
}

fn pack(temps: &[f64]) -> Value {
    let record =
        |(nth, temp): (usize, &f64)| json!({"n": "core", "u": "Cel", "v": temp, "t": -60 * (nth as i64)});
    temps.iter().enumerate().map(record).collect()
}

#[test]
fn it_writes_readings_of_its_heap_once() {
    let farm = Farm::new();
    let sent = farm.sends(&farm.token, &pack(&[41.0, 40.5, 40.0]));
    assert_eq!((sent.status, sent.json()["new"].as_u64()), (200, Some(3)), "{sent:?}");
    assert_eq!(farm.readings(), 3);
    let absolute = json!([{"n": "edge", "u": "K", "v": 300.15, "t": 1_900_000_000_u64}]);
    let future = farm.sends(&farm.token, &absolute);
    assert_eq!(future.status, 200, "what a wrong clock says is kept");
    assert_eq!(
        (farm.readings(), farm.shown()["faulty_count"].as_u64()),
        (3, Some(1)),
        "and used for nothing"
    );
    let twice = farm.sends(&farm.token, &absolute).json();
    assert_eq!((twice["new"].as_u64(), twice["known"].as_u64()), (Some(0), Some(1)));
    let seen = farm.place.as_("owner", Asked::new("GET", &format!("/api/heaps/{}/probes", farm.heap))).json();
    assert!(seen[0]["seen_at"].is_string() && !seen.to_string().contains(&farm.token));
}

#[test]
fn it_can_do_nothing_else() {
    let farm = Farm::new();
    let before = farm.place.everything();
    for operation in &api().operations {
        if ["sign_in_door", "sign_in", "people_first", "probe_report", "calendar_fetch"]
            .contains(&operation.id.as_str())
        {
            continue;
        }
        let bearer = format!("Bearer {}", farm.token);
        let answer = farm.place.as_("nobody", farm.place.asked(operation).header("authorization", &bearer));
        assert_eq!((answer.status, code(&answer)), (401, "sign-in-first".into()), "{operation:?}");
    }
    assert_eq!(farm.place.everything(), before);
}

#[test]
fn cut_off_it_sends_nothing_more_and_its_data_go_out_whole() {
    let farm = Farm::new();
    farm.sends(&farm.token, &pack(&[41.0, 40.5]));
    let path = format!("/api/heaps/{}/probes/{}", farm.heap, farm.id);
    assert_eq!(farm.place.as_("owner", Asked::new("DELETE", &path)).status, 204);
    let refused = farm.sends(&farm.token, &pack(&[39.0]));
    assert_eq!((refused.status, code(&refused)), (401, "no-such-probe".into()));
    assert_eq!(farm.readings(), 2, "what it sent stays");
    assert_eq!(farm.place.as_("owner", Asked::new("POST", &format!("{path}/take-out"))).status, 204);
    assert_eq!(farm.readings(), 0);
}

#[test]
fn whoever_holds_no_token_of_a_probe_writes_nothing() {
    let farm = Farm::new();
    for token in ["", "guess", &farm.id, &farm.token.to_lowercase()] {
        let refused = farm.sends(token, &pack(&[50.0]));
        assert_eq!((refused.status, code(&refused)), (401, "no-such-probe".into()), "{token}");
    }
    // Nor does whoever is signed in: a person writes by hand.
    let asked = Asked::new("POST", "/api/readings").json(&pack(&[50.0]));
    assert_eq!(farm.place.as_("owner", asked).status, 401);
    assert_eq!(farm.readings(), 0);
}

#[test]
fn what_it_sends_wrongly_is_named_and_nothing_of_it_is_kept() {
    let farm = Farm::new();
    for (pack, fields) in [
        (json!([{"n": "core", "u": "Cel", "v": 50}, {"n": "core", "u": "degF", "v": 120}]), vec!["[1].u"]),
        (json!([{"n": "somewhere", "u": "Cel", "v": 50}]), vec!["[0].n"]),
        (json!([{"n": "core", "u": "Cel"}]), vec!["[0].v"]),
        (json!([]), vec![""]),
        (json!({"n": "core"}), vec![""]),
    ] {
        let refused = farm.sends(&farm.token, &pack);
        assert_eq!(
            (refused.status, refused.fields()),
            (422, fields.iter().map(|f| (*f).to_owned()).collect()),
            "{pack}"
        );
    }
    assert_eq!(farm.readings(), 0);
}
