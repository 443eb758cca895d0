//! How sure the sums of a recipe are.

use zymarch_core::catalogue::Catalogue;
use zymarch_core::stock::Counted;
use zymarch_farm::mix::confidence;
use zymarch_formats::confidence::ConfidenceAnswer;
use zymarch_formats::recipe::parse;

fn asked(items: &str) -> ConfidenceAnswer {
    let text = format!(
        r#"{{"format":"zymarch-recipe/1","measures":[{{"id":"barrow","litres":70}}],"water_l":40,"items":[{items}]}}"#
    );
    confidence(&Catalogue::book(), &parse(&text).expect("well formed")).expect("has nitrogen")
}

#[test]
fn weighed_and_counted_amounts_are_told_apart() {
    let got = asked(
        r#"{"material":"wheat-straw","kg":28},{"material":"sheep-manure","amount":2,"measure":"barrow"}"#,
    );
    assert_eq!(
        got.ranges.iter().map(|one| one.counted).collect::<Vec<_>>(),
        [Counted::ByMass, Counted::ByVolume]
    );
    assert_eq!(got.ranges[0].c_n, [64.0, 92.0, 135.0]);
}

#[test]
fn a_drying_test_in_the_recipe_narrows_its_moisture() {
    let plain = asked(r#"{"material":"sheep-manure","kg":77}"#);
    let tested = asked(
        r#"{"material":"sheep-manure","kg":77,"tests":[{"figure":"moisture_pct","value":62,"test":"drying","on":"2026-03-10"}]}"#,
    );
    let width = |got: &ConfidenceAnswer| got.middles.moisture_pct[1] - got.middles.moisture_pct[0];
    assert!(width(&tested) < width(&plain) / 2.0);
}

#[test]
fn a_mix_of_lime_is_refused_at_its_items() {
    let recipe = parse(r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":1}]}"#);
    let refusal = confidence(&Catalogue::book(), &recipe.expect("well formed")).expect_err("no nitrogen");
    assert_eq!(refusal.0[0].path.to_string(), "items");
}
