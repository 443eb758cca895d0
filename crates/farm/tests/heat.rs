//! `zymarch-heat/1`: from a document to the heat that should be, and what is refused of it.

use serde_json::{Value, json};
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_farm::tend::heat;
use zymarch_formats::field::document;
use zymarch_formats::heat::HeatAnswer;

/// The good mix in a bay, as a board would have it.
fn bay() -> Value {
    json!({
        "format": "zymarch-heat/1", "days": 10,
        "geometry": {"shape": "box", "length_m": 1.2, "width_m": 1.2, "side_open": 0.5},
        "materials": [
            {"name": "stover", "kg": 222, "moisture_pct": 15, "ash_pct": 7, "n_pct": 0.7, "c_n": 66,
             "lignin_pct": 5, "degradability": "medium", "density_kg_l": 0.11, "settle": 0.7},
            {"name": "wilted grass", "kg": 110, "moisture_pct": 30, "ash_pct": 11, "n_pct": 3.2, "c_n": 14,
             "lignin_pct": 4, "degradability": "fast", "density_kg_l": 0.15, "settle": 0.65},
            {"name": "dry dung", "kg": 100, "moisture_pct": 25, "ash_pct": 18, "n_pct": 2.2, "c_n": 20,
             "lignin_pct": 9, "density_kg_l": 0.5, "settle": 0.9, "ammonia_share": 0.1},
            {"name": "water", "kg": 365, "moisture_pct": 100, "density_kg_l": 0},
        ],
    })
}

fn asked(document_: &Value, with_hours: bool) -> Result<HeatAnswer, Faults> {
    heat(&Catalogue::book(), &document(&document_.to_string())?, with_hours)
}

fn refused(change: impl FnOnce(&mut Value)) -> Vec<String> {
    let mut sent = bay();
    change(&mut sent);
    let faults = asked(&sent, false).expect_err("refused");
    faults.0.iter().map(|fault| fault.path.to_string()).collect()
}

#[test]
fn a_good_mix_in_a_bay_is_hot_on_its_second_day() {
    let got = asked(&bay(), false).expect("is reckoned");
    assert!((got.summary.peak_core_c - 70.0).abs() < 0.1 && (got.summary.peak_core_day - 2.21).abs() < 0.05);
    assert!((got.start.volume_m3 - 1.7009).abs() < 1e-4 && (got.start.fas_pct - 61.2).abs() < 0.05);
    assert_eq!((got.days.len(), got.hours.len()), (11, 0));
    let hourly = asked(&bay(), true).expect("is reckoned");
    assert_eq!(hourly.hours.len(), 241);
    assert_eq!(hourly.days, got.days);
}

#[test]
fn a_material_of_the_table_brings_its_figures_and_what_is_given_stands_instead() {
    let mut sent = bay();
    sent["materials"] = json!([
        {"material": "barley-straw", "kg": 150},
        {"material": "sheep-manure", "kg": 260},
        {"name": "water", "kg": 120, "moisture_pct": 100, "density_kg_l": 0},
    ]);
    let plain = asked(&sent, false).expect("is reckoned");
    assert!(plain.summary.peak_core_c > 40.0, "{:?}", plain.summary);
    sent["materials"][0]["moisture_pct"] = json!(60);
    assert!(asked(&sent, false).expect("is reckoned").start.moisture_pct > plain.start.moisture_pct + 5.0);
}

#[test]
fn measured_weather_stands_in_for_the_usual_and_what_is_done_is_done() {
    let mut sent = bay();
    sent["weather"] = json!({"hourly_c": vec![2.0; 241]});
    let cold = asked(&sent, false).expect("is reckoned");
    assert!(cold.days.len() == 11 && cold.summary.peak_core_c < 69.0);
    sent = bay();
    sent["events"] = json!([
        {"kind": "turn", "at_h": 72}, {"kind": "water", "at_h": 72, "litres": 30, "spread": "even", "temp_c": null},
        {"kind": "add", "at_h": 100, "materials": [{"material": "vegetable-scraps", "kg": 20}]},
    ]);
    sent["rain"] = json!([{"at_h": 150, "hours": 8, "mm": 14}]);
    let tended = asked(&sent, true).expect("is reckoned");
    let still = asked(&bay(), true).expect("is reckoned");
    assert_eq!(tended.hours[72], still.hours[72], "told before it is done");
    assert_ne!(tended.hours[73], still.hours[73]);
}

#[test]
fn every_wrong_field_is_named() {
    type Change = fn(&mut Value);
    let cases: [(Change, &[&str]); 16] = [
        (|of| of["days"] = json!(0), &["days"]),
        (|of| of["days"] = json!(800), &["days"]),
        (|of| of["step_h"] = json!(0.001), &["step_h"]),
        (|of| of["start_temp_c"] = json!(200), &["start_temp_c"]),
        (|of| of["geometry"]["shape"] = json!("cone"), &["geometry.shape"]),
        (|of| of["geometry"]["length_m"] = Value::Null, &["geometry.length_m"]),
        (|of| of["geometry"]["diameter_m"] = json!(1), &["geometry.diameter_m"]),
        (|of| of["geometry"]["length_m"] = json!(0.1), &["geometry.length_m"]),
        (|of| of["geometry"]["side_open"] = json!(2), &["geometry.side_open"]),
        (|of| of["materials"] = json!([]), &["materials"]),
        (|of| of["materials"][0]["c_n"] = Value::Null, &["materials[0].c_n"]),
        (|of| of["materials"][1] = json!({"material": "moondust", "kg": 1}), &["materials[1].material"]),
        (|of| of["materials"][2]["kg"] = json!(-3), &["materials[2].kg"]),
        (|of| of["weather"] = json!({"humidity_pct": 140}), &["weather.humidity_pct"]),
        (|of| of["rain"] = json!([{"at_h": -1, "hours": 0, "mm": 5}]), &["rain[0].at_h", "rain[0].hours"]),
        (
            |of| of["events"] = json!([{"kind": "turn", "at_h": 999, "mixing": 3}]),
            &["events[0].mixing", "events[0].at_h"],
        ),
    ];
    for (change, fields) in cases {
        assert_eq!(refused(change), fields);
    }
    assert_eq!(refused(|of| of["events"] = json!([{"kind": "sing", "at_h": 1}])).len(), 1);
    let water = json!([{"name": "water", "kg": 10, "moisture_pct": 100, "density_kg_l": 0}]);
    assert_eq!(refused(|of| of["materials"] = water), ["materials"], "nothing to eat");
}
