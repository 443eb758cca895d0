//! Everything the core can say has words on the screen.

use serde_json::Value;
use zymarch_core::base::finding::Code;
use zymarch_core::log::EntryKind;
use zymarch_core::mix::confidence::NarrowingTest;
use zymarch_core::mix::thumb::WeighedBy;
use zymarch_core::mix::window::Flaw;
use zymarch_core::mix::working::BoardFigure;
use zymarch_core::people::{Role, SecurityKind};
use zymarch_core::plan::formulate::{Aim, LimitCode};
use zymarch_core::plan::layers::LayerRole;
use zymarch_core::plan::method::{self, Build, PatternLayer, ShapeKind, Turned, Vent, Watering};
use zymarch_core::plan::mind::Reason;
use zymarch_core::plan::prepare::Job;
use zymarch_core::plan::starter::{self, Chore, Evidence, Hazard, Timing};
use zymarch_core::plan::suit::{SuitCode, UsedFor, Weighs};
use zymarch_core::stock::caution::{self, Stance};
use zymarch_core::stock::field_test::{BeanVerdict, Feel, Steadiness, TestKind};
use zymarch_core::stock::freshness::Rescue;
use zymarch_core::stock::material::{self, Degradability, Group, ImplausibleCode, Kind, Particle};
use zymarch_core::tend::entry::{AeratedBy, CoverWith, Sign, Smell, Source, Spot, SqueezeFeel, StickFeel};
use zymarch_core::tend::reading::Faulty;
use zymarch_core::tend::simulated::RodFault;

fn words() -> Value {
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../../locales/en.json");
    let text = std::fs::read_to_string(file).expect("is there");
    serde_json::from_str(&text).expect("is JSON")
}

fn missing<'a>(section: &str, codes: impl IntoIterator<Item = &'a str>) -> Vec<String> {
    let words = words();
    let known = words[section].as_object().unwrap_or_else(|| panic!("there is no section {section}"));
    codes
        .into_iter()
        .filter(|code| known.get(*code).and_then(Value::as_str).is_none_or(|text| text.trim().is_empty()))
        .map(str::to_owned)
        .collect()
}

#[test]
fn every_finding_is_worded() {
    assert_eq!(missing("finding", Code::ALL.iter().map(|code| code.as_str())), [""; 0]);
}

#[test]
fn every_caution_is_worded_and_none_is_worded_for_nothing() {
    let cautions: Vec<_> = caution::all().collect();
    assert_eq!(missing("caution", cautions.iter().map(|caution| caution.code)), [""; 0]);
    let words = words();
    for code in words["caution"].as_object().expect("a section").keys() {
        assert!(cautions.iter().any(|caution| caution.code == code), "{code} is worded but not on the list");
    }
    assert_eq!(missing("severity", cautions.iter().map(|caution| caution.severity.as_str())), [""; 0]);
}

#[test]
fn every_closed_list_that_people_meet_is_worded() {
    assert_eq!(missing("group", Group::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("degradability", Degradability::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("particle", Particle::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("doubt", ImplausibleCode::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("method", method::all().iter().map(|one| one.id.as_str())), [""; 0]);
    assert_eq!(missing("rescue", Rescue::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("test", TestKind::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("feel", Feel::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("beans", BeanVerdict::ALL.iter().map(|one| one.as_str())), [""; 0]);
    let steadiness = [Steadiness::Once, Steadiness::Falling, Steadiness::Steady];
    assert_eq!(missing("steadiness", steadiness.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("reason", Reason::ALL.iter().map(|one| one.as_str())), [""; 0]);
    let said = Stance::ALL.iter().filter(|one| **one != Stance::Free);
    assert_eq!(missing("stance", said.map(|one| one.as_str())), [""; 0]);
}

#[test]
fn every_kind_and_every_figure_is_worded() {
    assert_eq!(missing("kind", Kind::ALL.iter().map(|kind| kind.as_str())), [""; 0]);
    let words = words();
    for part in ["figure", "note"] {
        for figure in BoardFigure::ALL {
            assert!(
                words["working"][part][figure.as_str()].is_string(),
                "working.{part}.{}",
                figure.as_str()
            );
        }
    }
}

/// Words that stand deeper in the file than a section.
fn unworded<'a>(path: &str, codes: impl IntoIterator<Item = &'a str>) -> Vec<String> {
    let words = words();
    let known = path.split('.').fold(&words, |at, part| &at[part]);
    codes.into_iter().filter(|code| !known[*code].is_string()).map(str::to_owned).collect()
}

#[test]
fn the_words_of_the_log_are_worded() {
    let kinds = EntryKind::ALL.iter().filter(|kind| kind.is_of_tending());
    assert_eq!(unworded("tend.kind", kinds.clone().map(|one| one.as_str())), [""; 0]);
    let by_hand = kinds.filter(|kind| **kind != EntryKind::Readings).map(|one| one.as_str());
    for part in ["do", "title"] {
        assert_eq!(unworded(&format!("tend.{part}"), by_hand.clone()), [""; 0]);
    }
    for part in ["feel", "feelHint"] {
        assert_eq!(unworded(&format!("tend.{part}"), StickFeel::ALL.iter().map(|one| one.as_str())), [""; 0]);
    }
    for part in ["squeezed", "squeezedHint"] {
        assert_eq!(
            unworded(&format!("tend.{part}"), SqueezeFeel::ALL.iter().map(|one| one.as_str())),
            [""; 0]
        );
    }
    for part in ["place", "at"] {
        assert_eq!(unworded(&format!("tend.{part}"), Spot::ALL.iter().map(|one| one.as_str())), [""; 0]);
    }
    for part in ["coverWith", "covered"] {
        assert_eq!(unworded(&format!("tend.{part}"), CoverWith::ALL.iter().map(|one| one.as_str())), [""; 0]);
    }
    for part in ["airBy", "aerated"] {
        assert_eq!(unworded(&format!("tend.{part}"), AeratedBy::ALL.iter().map(|one| one.as_str())), [""; 0]);
    }
    assert_eq!(unworded("tend.smelled", Smell::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("tend.sign", Sign::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("tend.pack", Source::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("tend.faulty", Faulty::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("probe.fault", RodFault::ALL.iter().map(|one| one.as_str())), [""; 0]);
}

#[test]
fn what_formulating_says_is_worded() {
    assert_eq!(unworded("choices.aim", Aim::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("choices.also", Aim::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("correct.fault", Flaw::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("rules.by", WeighedBy::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("rules.why", WeighedBy::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("sure.help", NarrowingTest::ALL.iter().map(|one| one.as_str())), [""; 0]);
    let windows = [
        LimitCode::CnLow,
        LimitCode::CnHigh,
        LimitCode::Dry,
        LimitCode::Wet,
        LimitCode::Air,
        LimitCode::VolumeLow,
    ];
    assert_eq!(unworded("choices.miss", windows.iter().map(|one| one.as_str())), [""; 0]);
    let held = windows.iter().chain(&[LimitCode::VolumeHigh, LimitCode::Cap]);
    assert_eq!(unworded("choices.held", held.map(|one| one.as_str())), [""; 0]);
}

#[test]
fn every_method_is_told_whole() {
    for method in method::all() {
        let parts = ["what", "choose", "how1", "how2", "how3", "how4", "how5", "mind"];
        assert_eq!(unworded(&format!("methodText.{}", method.id), parts), [""; 0], "{}", method.id);
    }
    assert_eq!(missing("suit", SuitCode::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("use", UsedFor::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("weighs", Weighs::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("shape", ShapeKind::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("pattern", PatternLayer::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("methods.watering", Watering::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("methods.built", Build::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("layers.vent", Vent::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("role", Role::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("people.roleMeans", Role::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("comings", SecurityKind::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("layers.role", LayerRole::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("methods.turned", Turned::ALL.iter().map(|one| one.as_str())), [""; 0]);
}

#[test]
fn everything_to_be_prepared_is_worded() {
    assert_eq!(missing("job", Job::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("step", Chore::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(missing("hazard", Hazard::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("prepare.evidence", Evidence::ALL.iter().map(|one| one.as_str())), [""; 0]);
    assert_eq!(unworded("prepare.timing", Timing::ALL.iter().map(|one| one.as_str())), [""; 0]);
    for starter in starter::all() {
        assert_eq!(unworded(&format!("starter.{}", starter.id), ["name", "what"]), [""; 0], "{}", starter.id);
        assert_eq!(missing("ingredient", starter.ingredients.iter().map(|one| one.id.as_str())), [""; 0]);
    }
}

#[test]
fn every_letter_on_the_board_is_explained() {
    use zymarch_core::mix::window::Windows;
    use zymarch_core::mix::{Item, sum};
    use zymarch_core::{mix::correct, mix::thumb, mix::working, stock};

    let figures =
        stock::figures(material::find("sheep-manure"), &stock::Own::default()).expect("in the table");
    let items = [Item { wet_mass_kg: 10.0, figures }];
    let mix = sum(&items, 1.0).expect("has nitrogen");
    let windows = Windows::default();
    let mut lines: Vec<_> = BoardFigure::ALL
        .iter()
        .flat_map(|figure| working::of(*figure, &items, 1.0, &mix, &windows).lines)
        .collect();
    let rule = [thumb::RulePart { parts: 1.0, of: vec![figures] }];
    let rule = thumb::thumb(thumb::By::Volume, &rule, &windows).expect("has nitrogen");
    lines.extend(rule.ladder.into_iter().flat_map(|rung| rung.lines));
    let straw = stock::figures(material::find("wheat-straw"), &stock::Own::default()).expect("in the table");
    let straw = stock::Lot::up_to(1e5, straw, Kind::Brown);
    // Too brown and dry, too wet, and what packs: each flaw with its line.
    for (id, kg, water_l) in
        [("wheat-straw", 40.0, 0.0), ("sheep-manure", 10.0, 5.0), ("grass-clippings", 40.0, 0.0)]
    {
        let figures = stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
        let items = [Item { wet_mass_kg: kg, figures }];
        let asked = correct::Asked {
            items: &items,
            water_l,
            offered: &[straw],
            on_hand: 1,
            windows: &windows,
            air_c: None,
        };
        let found = correct::corrections(&asked).into_iter().flat_map(|(_, choices)| choices);
        lines.extend(found.filter_map(|one| one.line));
    }
    let words = words();
    for input in lines.iter().flat_map(|line| &line.inputs) {
        let letter = input.symbol.trim_start_matches('Σ');
        assert!(words["working"]["letters"][letter].is_string(), "{letter}");
    }
}
