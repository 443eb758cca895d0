//! A calendar fetches tasks from an address of its own: of one site, as long as whoever made it sees that, and
//! nothing else.

mod support;

use serde_json::json;
use support::people::{Place, code};
use support::{Answer, Asked, text};

/// A farm with people.
struct Farm {
    place: Place,
    site: String,
}

impl Farm {
    fn new() -> Self {
        let place = Place::new();
        let site = place.ids["site"].clone();
        Self { place, site }
    }

    fn feed(&self) -> String {
        format!("/api/sites/{}/calendar", self.site)
    }

    fn made_by(&self, who: &str) -> String {
        let made = self.place.as_(who, Asked::new("POST", &self.feed()));
        assert_eq!(made.status, 200, "{made:?}");
        text(&made.json()["path"])
    }

    /// As a calendar asks: without a session.
    fn fetched(&self, path: &str) -> Answer {
        self.place.as_("nobody", Asked::new("GET", path))
    }
}

#[test]
fn an_address_is_of_one_site_and_is_ended_by_its_maker_alone() {
    let farm = Farm::new();
    let (mine, theirs) = (farm.made_by("owner"), farm.made_by("worker"));
    for path in [&mine, &theirs, &format!("{mine}.ics")] {
        let got = farm.fetched(path);
        assert_eq!((got.status, got.header("content-type")), (200, "text/calendar; charset=utf-8"));
        assert!(got.text.starts_with("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"), "{}", got.text);
        assert_eq!(got.text.matches("PRODID").count(), 1);
        assert!(got.text.trim_end().ends_with("END:VCALENDAR"));
    }
    assert_eq!(farm.place.as_("owner", Asked::new("DELETE", &farm.feed())).status, 204);
    assert_eq!(code(&farm.fetched(&mine)), "not-found");
    assert_eq!(farm.fetched(&theirs).status, 200, "each has their own");
    let anew = farm.made_by("worker");
    assert_eq!(farm.fetched(&theirs).status, 404, "a new one ends the one before");
    assert_eq!(farm.fetched(&anew).status, 200);
}

#[test]
fn an_address_opens_nothing_else_and_is_told_once() {
    let farm = Farm::new();
    let path = farm.made_by("owner");
    let secret = path.rsplit('/').next().expect("has one").to_owned();
    let told = farm.place.as_("owner", Asked::new("GET", &farm.feed()));
    assert!(!told.text.contains(&secret) && told.json()["made_at"].is_string(), "{told:?}");
    assert!(!farm.place.everything().contains(&secret));
    let asked = Asked::new("GET", &format!("/api/sites/{}/today", farm.site));
    let asked = asked.header("authorization", &format!("Bearer {secret}"));
    assert_eq!(farm.place.as_("nobody", asked).status, 401);
    for odd in ["", "x", "..", "%00", &"a".repeat(5000)] {
        let answer = farm.fetched(&format!("/api/calendar/{odd}"));
        assert!([400, 404, 405, 414, 431].contains(&answer.status), "{odd:.20}: {answer:?}");
    }
}

#[test]
fn whoever_loses_a_site_loses_its_calendar() {
    let farm = Farm::new();
    let path = farm.made_by("worker");
    assert_eq!(farm.fetched(&path).status, 200);
    let people = farm.place.as_("owner", Asked::new("GET", "/api/people")).json();
    let worker = people
        .as_array()
        .into_iter()
        .flatten()
        .find(|one| {
            one["role"] == "worker"
                && one["sites"].as_array().is_some_and(|sites| sites.contains(&json!(farm.site)))
        })
        .expect("is there")
        .clone();
    let removed =
        farm.place.as_("owner", Asked::new("DELETE", &format!("/api/people/{}", text(&worker["id"]))));
    assert!(removed.status < 300, "{removed:?}");
    assert_eq!(farm.fetched(&path).status, 404);
}
