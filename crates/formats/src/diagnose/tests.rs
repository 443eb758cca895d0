//! Logs of known trouble, at least two a cause, and of heaps that are well.

use serde_json::{Value, json};
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::tend::diagnose::{CauseCode, Clue};

use super::*;
use crate::field::document;

mod logs;

use logs::{BROWN, DRY, GOOD, GREEN, HEATED, LIMP, LOGS};

fn recipe(mix: &str) -> Value {
    let mut water = 0.0;
    let mut items = Vec::new();
    for part in mix.split(", ") {
        let (material, kg) = part.split_once(' ').expect("a material and kg");
        let kg: f64 = kg.parse().expect("kg");
        if material == "water" {
            water = kg;
        } else {
            items.push(json!({"material": material, "kg": kg}));
        }
    }
    json!({"format": "zymarch-recipe/1", "items": items, "water_l": water})
}

fn at(day: f64) -> String {
    let begun: Timestamp = "2026-03-01T08:00:00Z".parse().expect("a time");
    (begun + jiff::Span::new().minutes((day * 1440.0).round() as i64)).to_string()
}

/// `day kind words`, with `;` between.
fn log(text: &str) -> Vec<Value> {
    let entries = text.split(';').map(str::trim).filter(|entry| !entry.is_empty());
    entries
        .map(|entry| {
            let mut words = entry.split_whitespace();
            let day: f64 = words.next().and_then(|day| day.parse().ok()).expect("a day");
            let kind = words.next().expect("a kind");
            let rest: Vec<&str> = words.collect();
            let number = || rest[0].parse::<f64>().expect("a number");
            let mut what = match kind {
                "temperature" => json!({"temp_c": number()}),
                "air" => json!({"temp_c": number(), "place": "air"}),
                "stick" | "squeeze" => json!({"feel": rest[0]}),
                "smell" => json!({"smell": rest}),
                "seen" => json!({"signs": rest}),
                "height" => json!({"height_cm": number()}),
                "water" => json!({"litres": number(), "spread": "even"}),
                "rain" => json!({"mm": number()}),
                "beans" => json!({"grew": rest[0]}),
                _ => json!({}),
            };
            let kind = match kind {
                "air" => "temperature",
                "beans" => "bean-test",
                other => other,
            };
            what["kind"] = kind.into();
            what["at"] = at(day).into();
            what
        })
        .collect()
}

struct Told(DiagnoseAnswer);

impl Told {
    fn first(&self) -> Option<CauseCode> {
        self.0.causes.first().map(|of| of.code)
    }

    fn of(&self, code: CauseCode) -> Option<&CauseTold> {
        self.0.causes.iter().find(|of| of.code == code)
    }
}

fn asked(mix: &str, method: &str, days: f64, text: &str, more: Value) -> Result<Told, Faults> {
    let mut request = json!({
        "format": FORMAT, "recipe": recipe(mix), "method": method, "built_at": at(0.0), "now": at(days),
        "log": log(text),
    });
    for (key, value) in more.as_object().expect("fields") {
        request[key] = value.clone();
    }
    document::<DiagnoseRequest>(&request.to_string())?.answered(&Catalogue::book()).map(Told)
}

fn told(mix: &str, method: &str, days: f64, text: &str) -> Told {
    asked(mix, method, days, text, json!({})).expect("is answered")
}

#[test]
fn each_log_has_the_cause_that_a_seasoned_composter_would_name() {
    let mut wrong = Vec::new();
    for (cause, mix, method, days, text) in LOGS {
        let got = told(mix, method, *days, text);
        let all: Vec<_> = got.0.causes.iter().map(|of| (of.code.as_str(), of.weight)).collect();
        if got.first() != Some(*cause) {
            wrong.push(format!("{}: {text}\n   {all:?}", cause.as_str()));
        } else if got.0.nothing_wrong != cause.row().is_harmless {
            wrong.push(format!("{}: nothing wrong {}: {all:?}", cause.as_str(), got.0.nothing_wrong));
        }
    }
    assert!(wrong.is_empty(), "\n{}", wrong.join("\n"));
    for code in CauseCode::ALL.iter().filter(|code| **code != CauseCode::ColdWeather) {
        assert!(LOGS.iter().filter(|log| log.0 == *code).count() >= 2, "{code:?}");
    }
}

#[test]
fn one_smell_or_sign_may_stand_without_a_list() {
    let entry = |what: Value| {
        let text =
            json!({"at": at(3.0), "kind": what[0], what[1].as_str().expect("a field"): what[2]}).to_string();
        crate::field::read::<DiagnoseEntry>(&text)
    };
    let smell = |of: Value| entry(json!(["smell", "smell", of]));
    assert_eq!(smell(json!("sour")).expect("is read"), smell(json!(["sour"])).expect("is read"));
    let seen = |of: Value| entry(json!(["seen", "signs", of]));
    assert_eq!(seen(json!("steam")).expect("is read"), seen(json!(["steam"])).expect("is read"));
    let told = |of: Result<_, Faults>| of.expect_err("is wrong").0[0].path.to_string();
    assert_eq!(told(smell(json!("sweet"))), "smell");
    assert_eq!(told(seen(json!(["steam", "smoke"]))), "signs[1]");
    assert_eq!(told(smell(json!(7))), "smell");
}

#[test]
fn cold_air_is_named_where_it_is_cold() {
    let cold = json!({"weather": {"mean_c": 0.0, "day_swing_c": 4.0}});
    let text = "3 temperature 24; 7.5 temperature 27; 7.5 squeeze right";
    let got = asked(GOOD, "bay-turned", 8.0, text, cold.clone()).expect("is answered");
    assert_eq!(got.first(), Some(CauseCode::ColdWeather), "{:?}", got.0.causes);
    let read = "3 stick cool; 6 air 1; 7 air -2; 8 air 3; 8.5 stick cool; 8.5 squeeze right";
    let by_hand = told(GOOD, "layered-heap", 9.0, read);
    assert_eq!(by_hand.first(), Some(CauseCode::ColdWeather), "{:?}", by_hand.0.causes);
    let young = asked(GOOD, "bay-turned", 4.0, "3.5 temperature 19", cold).expect("is answered");
    assert!(young.of(CauseCode::TooSoon).is_some(), "up to five days in the cold");
}

#[test]
fn of_heaps_that_are_well_nothing_is_wrong() {
    let well = [
        (
            "bay-turned",
            6.0,
            "2 temperature 55; 4 temperature 62; 5.8 temperature 64; 5.8 squeeze right; 5.8 smell none; 5.8 seen steam white-threads",
        ),
        (
            "rapid-turned",
            12.0,
            "2 temperature 58; 4 turn; 6 turn; 8 turn; 10 turn; 11.5 temperature 60; 11.5 smell earthy",
        ),
        (
            "layered-heap",
            20.0,
            "3 stick hot; 8 stick cannot-hold; 14 turn; 19.5 stick hot; 19.5 squeeze right",
        ),
        (
            "slow-bin",
            40.0,
            "10 temperature 29; 39 temperature 22; 39 squeeze right; 39 smell earthy; 39 seen worms",
        ),
        (
            "static-tower",
            25.0,
            "3 temperature 60; 8 temperature 55; 16 temperature 37; 24.5 temperature 26; 24.5 squeeze right",
        ),
        ("bay-turned", 9.0, ""),
        ("bay-turned", 8.6, "2 temperature 57; 5 temperature 63; 7.9 turn; 8.5 temperature 38"),
    ];
    let worms = told(
        "vegetable-scraps 20, cardboard 4, water 5",
        "worm-bin",
        30.0,
        "29 temperature 22; 29 squeeze wet; 29 seen worms",
    );
    assert!(worms.0.nothing_wrong, "worms want it wet: {:?}", worms.0.causes);
    for (method, days, text) in well {
        let got = told(GOOD, method, days, text);
        let all: Vec<_> = got.0.causes.iter().map(|of| (of.code.as_str(), of.weight)).collect();
        assert!(got.0.nothing_wrong, "{method}: {text}: {all:?}");
    }
}

/// A reading that says the opposite keeps a cause off the list, whatever else speaks for it.
#[test]
fn no_cause_stands_that_a_reading_contradicts() {
    let smelly = "5 temperature 34; 6.5 temperature 30; 6.5 smell sour rotten; 6.5 seen matted; 6.5 squeeze";
    for (feel, gone) in [
        ("dusty", [CauseCode::TooWet, CauseCode::Packed, CauseCode::AirUsedUp]),
        ("right", [CauseCode::TooWet, CauseCode::TooDry, CauseCode::DriedOut]),
        ("sodden", [CauseCode::TooDry, CauseCode::DriedOut, CauseCode::TooBrown]),
    ] {
        let got = told(LIMP, "bay-turned", 7.0, &format!("{smelly} {feel}"));
        for code in gone {
            assert!(got.of(code).is_none(), "{feel}: {code:?}");
        }
    }
    let hot = told(DRY, "bay-turned", 6.0, "3 temperature 60; 5.8 temperature 61");
    for code in [CauseCode::TooSmall, CauseCode::ColdWeather, CauseCode::Done, CauseCode::TooSoon] {
        assert!(hot.of(code).is_none(), "{code:?}");
    }
    assert!(
        told(GOOD, "bay-turned", 60.0, "5 temperature 60; 40 temperature 30")
            .of(CauseCode::WeedKiller)
            .is_none()
    );
    let well = told(GOOD, "bay-turned", 60.0, "50 beans stunted; 55 beans well");
    assert!(well.of(CauseCode::WeedKiller).is_none(), "the newer trial counts");
}

/// Without a handful squeezed two causes of a stink stand, and the check is the answer.
#[test]
fn where_only_a_check_tells_two_apart_both_stand() {
    let text = "4 temperature 35; 6 rain 30; 7.5 temperature 32; 7.5 smell sour rotten; 7.5 seen matted";
    let got = told(GOOD, "bay-turned", 8.0, text);
    for code in [CauseCode::TooWet, CauseCode::Packed] {
        let cause = got.of(code).unwrap_or_else(|| panic!("{code:?}"));
        assert!(cause.weight >= 0.5);
        assert_eq!(cause.check, Check::SqueezeInside);
    }
}

#[test]
fn what_mends_it_comes_with_amounts() {
    let dry = told(DRY, "bay-turned", 7.0, "2 temperature 27; 6.5 temperature 29; 6.5 squeeze dusty");
    let water = dry.0.causes[0].remedy.iter().find(|act| act.act == ActKind::Water).expect("is watered");
    let litres = water.litres.expect("so much");
    assert!((120.0..330.0).contains(&litres), "{litres}");
    let brown = told(BROWN, "bay-turned", 9.0, LOGS.iter().find(|log| log.1 == BROWN).expect("one").4);
    let green = brown.0.causes[0].remedy.iter().find(|act| act.act == ActKind::AddGreen).expect("is fed");
    assert_eq!(green.material.as_deref(), Some("goat-manure"));
    assert!(green.kg.is_some_and(|kg| (60.0..800.0).contains(&kg)), "{green:?}");
    let soon = told(GOOD, "bay-turned", 1.0, "0.9 temperature 24");
    assert_eq!(soon.0.causes[0].remedy[0].until.as_deref(), Some(at(3.0).as_str()));
    let green = told(GREEN, "bay-turned", 5.0, "2 temperature 62; 4.5 temperature 66; 4.5 smell ammonia");
    let straw = green.0.causes[0].remedy.iter().find(|act| act.kg.is_some()).expect("is mixed in");
    assert!(straw.kg.is_some_and(|kg| (20.0..400.0).contains(&kg)), "{straw:?}");
}

/// What was mended is gone from the list: turned and dry stuff mixed in, it smells no more.
#[test]
fn what_was_mended_is_seen_to_recover() {
    let stinks = format!("{HEATED} 8 temperature 40; 8 smell sour rotten; 8 seen matted; 8 squeeze wet;");
    let ill = told(GOOD, "bay-turned", 8.2, &stinks);
    assert!(!ill.0.nothing_wrong);
    let mended = format!(
        "{stinks} 8.5 turn; 9.5 temperature 47; 11 temperature 58; 11 smell earthy; 11 squeeze right"
    );
    let well = told(GOOD, "bay-turned", 11.2, &mended);
    assert!(well.0.nothing_wrong, "{:?}", well.0.causes);
}

#[test]
fn what_is_used_for_nothing_is_named() {
    let text =
        "-1 temperature 20; 2 temperature 58; 2.003 temperature 91; 3 temperature 140; 9 temperature 60";
    let got = told(GOOD, "bay-turned", 5.0, text).0;
    let reasons: Vec<_> = got.left_out.iter().map(|of| of.reason).collect();
    assert_eq!(reasons, [LogLeft::BeforeBuilt, LogLeft::Jump, LogLeft::Absurd, LogLeft::InFuture]);
    assert!(got.causes.iter().all(|of| of.speaks_for.iter().all(|clue| clue.code != Clue::Over75)));
}

#[test]
fn every_wrong_field_is_named_with_its_place() {
    let paths = |of: Result<Told, Faults>| -> Vec<String> {
        of.err().expect("refused").0.iter().map(|fault| fault.path.to_string()).collect()
    };
    let bad = json!({"method": "boiling", "now": "soon", "log": [
        {"at": at(1.0), "kind": "water", "litres": -3.0, "spread": "even"},
        {"at": "never", "kind": "turn"},
        {"at": at(1.0), "kind": "add", "items": [{"material": "gold", "kg": 3.0}]},
    ]});
    let got = paths(asked(GOOD, "bay-turned", 5.0, "", bad));
    assert_eq!(got, ["method", "now", "log[1].at", "log[0].litres", "log[2].items[0].material"]);
    let unknown = json!({"log": [{"at": at(1.0), "kind": "sing"}]});
    assert!(paths(asked(GOOD, "bay-turned", 5.0, "", unknown))[0].starts_with("log[0]"));
    let stray = json!({"log": [{"at": at(1.0), "kind": "stick", "feel": "hot", "loud": true}]});
    assert!(paths(asked(GOOD, "bay-turned", 5.0, "", stray))[0].starts_with("log[0]"));
    assert_eq!(paths(asked(GOOD, "bay-turned", 5.0, "", json!({"now": at(-1.0)}))), ["now"]);
    let shape = json!({"geometry": {"shape": "box", "length_m": 1.0}});
    assert_eq!(paths(asked(GOOD, "bay-turned", 5.0, "", shape)), ["geometry.width_m"]);
}
