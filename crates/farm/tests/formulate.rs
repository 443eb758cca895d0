//! The best mix that a stock allows: requests read, refused by field, and answered.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::KeptDraws;
use zymarch_core::plan::formulate::{LimitCode, Status};
use zymarch_core::stock::Counted;
use zymarch_farm::plan::formulate;
use zymarch_formats::formulate::{FormulateAnswer, parse};

const STOCK: &str = r#"[{"material":"wheat-straw","kg_available":60,"measure":"barrow"},
    {"material":"sheep-manure","amount":4,"measure":"barrow"},
    {"material":"vegetable-scraps","litres_available":60,"measure":"barrow","urgency":1}]"#;

fn ask(more: &str) -> Result<FormulateAnswer, Faults> {
    let text = format!(
        r#"{{"format":"zymarch-formulate/1","stock":{STOCK},"measures":[{{"id":"barrow","litres":70}},{{"id":"bucket","litres":12}}]{more}}}"#
    );
    formulate(&Catalogue::book(), &KeptDraws::default(), &parse(&text)?)
}

fn fields(more: &str) -> Vec<String> {
    ask(more).expect_err("refused").0.into_iter().map(|fault| fault.path.to_string()).collect()
}

#[test]
fn the_largest_mix_is_found_and_summed() {
    let got = ask(r#","aim":"largest""#).expect("is sound");
    assert_eq!((got.status, got.proven, got.items.len()), (Status::Ok, true, 3));
    let mix = got.mix.expect("holds something");
    assert!((25.0..=30.000_1).contains(&mix.figures.c_n), "{}", mix.figures.c_n);
    assert!((mix.figures.heap_volume_l - got.objective).abs() < 1e-3);
    assert!(!got.binding.is_empty() && got.missing.is_empty());
}

#[test]
fn whole_measures_come_with_their_counts() {
    let got = ask(r#","aim":"largest","whole_measures":true,"water_measure":"bucket""#).expect("is sound");
    for item in &got.items {
        let count = item.count.expect("counted in barrows");
        assert_eq!((count, item.measure.as_deref()), (count.round(), Some("barrow")));
    }
    let buckets = got.water_count.expect("carried in buckets");
    assert_eq!(buckets, buckets.round());
}

#[test]
fn a_pin_is_kept_to_the_gram() {
    let pinned = STOCK.replace(r#""urgency":1"#, r#""kg_fixed":12.345"#);
    let text = format!(
        r#"{{"format":"zymarch-formulate/1","stock":{pinned},"measures":[{{"id":"barrow","litres":70}}],"aim":"balanced"}}"#
    );
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(&text).expect("well formed"))
        .expect("is sound");
    assert!((got.items[2].kg - 12.345).abs() < 1e-6, "{:?}", got.items[2]);
}

#[test]
fn nothing_fitting_names_what_is_missing() {
    let text = r#"{"format":"zymarch-formulate/1","aim":"largest","stock":[{"material":"wheat-straw","kg_available":60}]}"#;
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(text).expect("well formed"))
        .expect("is sound");
    assert_eq!(got.status, Status::Nearest);
    assert!(got.mix.is_some() && got.missing.len() > 3, "{:?}", got.missing);
    assert!(got.missing.is_sorted_by(|a, b| a.litres <= b.litres));
}

#[test]
fn bad_fields_are_named() {
    assert_eq!(fields(r#","aim":"tastiest""#), ["aim"]);
    assert_eq!(fields(r#","aim":"cheapest""#), ["target.volume_l"]);
    assert_eq!(fields(r#","aim":"largest","target":{"volume_l":[900,100]}"#), ["target.volume_l"]);
    assert_eq!(fields(r#","aim":"largest","target":{"c_n":[30,20]}"#), ["target.c_n"]);
    assert_eq!(fields(r#","aim":"largest","whole_step":0.3"#), ["whole_step"]);
    assert_eq!(fields(r#","aim":"largest","water_max_l":-1"#), ["water_max_l"]);
    assert_eq!(fields(r#","aim":"largest","water_measure":"cup""#), ["water_measure"]);
    assert_eq!(
        fields(r#","aim":"largest","share_caps":[{"kind":"gravel","max_wet_pct":40}]"#),
        ["share_caps[0].kind"]
    );
    assert_eq!(
        fields(r#","aim":"largest","share_caps":[{"max_wet_pct":140}]"#),
        ["share_caps[0].max_wet_pct"]
    );
    let stock = |lot: &str| {
        let text = format!(r#"{{"format":"zymarch-formulate/1","aim":"largest","stock":[{lot}]}}"#);
        let refusal = parse(&text)
            .and_then(|request| formulate(&Catalogue::book(), &KeptDraws::default(), &request))
            .expect_err("refused");
        refusal.0.into_iter().map(|fault| fault.path.to_string()).collect::<Vec<_>>()
    };
    assert_eq!(stock(r#"{"material":"wheat-straw","kg_available":-1}"#), ["stock[0].kg_available"]);
    assert_eq!(stock(r#"{"material":"wheat-straw"}"#), ["stock[0]"]);
    assert_eq!(stock(r#"{"material":"wheat-straw","kg_available":5,"kg_min":9}"#), ["stock[0].kg_min"]);
    assert_eq!(stock(r#"{"material":"wheat-straw","kg_available":5,"kg_fixed":-9}"#), ["stock[0].kg_fixed"]);
    assert_eq!(stock(r#"{"material":"moon-dust","kg_available":5}"#), ["stock[0].material"]);
    assert_eq!(stock(""), ["stock"]);
}

#[test]
fn what_must_not_go_in_is_not_mixed_in() {
    let text = r#"{"format":"zymarch-formulate/1","aim":"largest","stock":[{"material":"wheat-straw","kg_available":60},
        {"material":"sheep-manure","kg_available":100},{"material":"pet-faeces","kg_available":50}]}"#;
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(text).expect("well formed"))
        .expect("is sound");
    assert_eq!((got.status, got.items[2].kg), (Status::Ok, 0.0));
}

#[test]
fn prices_and_doubts_come_with_the_answer() {
    let priced = STOCK.replace(r#""kg_available":60"#, r#""kg_available":60,"cost_per_kg":0.5"#);
    let text = format!(
        r#"{{"format":"zymarch-formulate/1","aim":"largest","stock":{priced},"measures":[{{"id":"barrow","litres":70}}]}}"#
    );
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(&text).expect("well formed"))
        .expect("is sound");
    assert!((got.cost.expect("straw has a price") - got.items[0].kg * 0.5).abs() < 1e-6);
    let sure = got.confidence.expect("holds something");
    // What stands in kilograms was weighed, what stands in barrows and litres was counted.
    assert_eq!(
        sure.ranges.iter().map(|one| one.counted).collect::<Vec<_>>(),
        [Counted::ByMass, Counted::ByVolume, Counted::ByVolume]
    );
    assert!(ask(r#","aim":"largest""#).expect("is sound").cost.is_none());
}

#[test]
fn a_cautious_mix_is_surer_or_the_same() {
    let sure = |more: &str| {
        ask(&format!(r#","aim":"least-water","target":{{"volume_l":[400,2000]}}{more}"#))
            .expect("is sound")
            .confidence
            .expect("holds something")
            .in_workable_pct
    };
    assert!(sure(r#","cautious":true"#) >= sure(""));
}

#[test]
fn what_is_known_at_the_site_is_looked_at_first() {
    let text = r#"{"format":"zymarch-formulate/1","aim":"largest","known":["faba-bean-haulm","sheep-manure"],
        "stock":[{"material":"wheat-straw","kg_available":60}]}"#;
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(text).expect("well formed"))
        .expect("is sound");
    let known: Vec<bool> = got.missing.iter().map(|one| one.known).collect();
    assert!(known[0] && known.is_sorted_by(|a, b| a >= b), "{known:?}");
    assert!(got.missing.iter().all(|one| one.mix_kg.len() == 2 && one.mix_kg[1] > 0.0));
    let refusal = formulate(
        &Catalogue::book(),
        &KeptDraws::default(),
        &parse(&text.replace("sheep-manure", "unicorn-manure")).expect("well formed"),
    );
    assert_eq!(refusal.expect_err("unknown").0[0].path.to_string(), "known[1]");
}

#[test]
fn a_lot_left_over_says_what_holds_it_back() {
    let text = r#"{"format":"zymarch-formulate/1","aim":"largest",
        "stock":[{"material":"wheat-straw","kg_available":60},{"material":"sheep-manure","kg_available":60}]}"#;
    let got = formulate(&Catalogue::book(), &KeptDraws::default(), &parse(text).expect("well formed"))
        .expect("is sound");
    assert_eq!(got.items[0].held_back, [LimitCode::CnHigh]);
    assert!(got.items[1].held_back.is_empty() && got.items[1].worth_of_more > Some(0.0));
}
