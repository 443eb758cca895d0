//! What a recipe comes to, by the sums of the book and by hand.

use zymarch_core::base::fault::Faults;
use zymarch_core::base::origin::Origin;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::window::Standing;
use zymarch_core::stock::caution::Stance;
use zymarch_formats::mix::MixAnswer;
use zymarch_formats::recipe::parse;

fn sum(text: &str) -> Result<MixAnswer, Faults> {
    zymarch_farm::mix::sum(&Catalogue::book(), &parse(text)?)
}

fn with_item(item: &str) -> String {
    format!(
        r#"{{"format":"zymarch-recipe/1","measures":[{{"id":"barrow","litres":70}}],
            "items":[{{"material":"wheat-straw","kg":24}},
                     {item}]}}"#
    )
}

#[test]
fn the_answer_agrees_with_the_hand_sums_of_the_core() {
    let text = r#"{"format":"zymarch-recipe/1","water_l":10,"items":[
        {"material":"wheat-straw","kg":24},{"material":"sheep-manure","kg":77},{"material":"vegetable-scraps","kg":24}]}"#;
    let got = sum(text).expect("has nitrogen");
    assert!((got.figures.c_n - 24.6216).abs() < 1e-3);
    assert!((got.figures.moisture_pct - 100.0 * 81.26 / 135.0).abs() < 1e-9);
    // 53.74 kg dry to 55 %: 53.74/0.45 − 135 = −15.58 L.
    assert!((got.water_to_add_l.aim + 15.5778).abs() < 1e-3);
    assert_eq!(got.figures.standing.c_n, Standing::Below);
}

#[test]
fn a_mix_without_nitrogen_is_refused_at_its_items() {
    let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"lime","kg":24}]}"#;
    let refusal = sum(text).expect_err("lime has none");
    assert_eq!(refusal.0[0].path.to_string(), "items");
}

#[test]
fn a_method_brings_its_own_windows_and_a_target_beats_them() {
    let ask = |more: &str| {
        let text = format!(
            r#"{{"format":"zymarch-recipe/1","items":[{{"material":"sheep-manure","kg":10}}],"method":"static-tower"{more}}}"#
        );
        sum(&text).expect("has nitrogen").windows
    };
    let tower = ask("");
    assert_eq!((tower.c_n, tower.moisture_pct), ([30.0, 45.0], [55.0, 65.0]));
    assert_eq!(tower.free_air_space_min_pct, 40.0);
    let own = ask(r#","target":{"c_n":[20,25]}"#);
    assert_eq!((own.c_n, own.moisture_pct), ([20.0, 25.0], [55.0, 65.0]));
}

#[test]
fn a_tested_figure_beats_all_others_and_says_so() {
    let item = r#"{"material":"cattle-manure-fresh","amount":1,"measure":"barrow","moisture_pct":60,
        "tests":[{"figure":"moisture_pct","value":72,"test":"drying","on":"2026-03-10"}]}"#;
    let answer = sum(&with_item(item)).expect("is sound");
    let figure = &answer.items[1].figures.moisture_pct;
    assert_eq!((figure.value, figure.origin), (72.0, Origin::Measured));
    assert_eq!(figure.test.as_ref().map(|test| test.on.as_str()), Some("2026-03-10"));
}

#[test]
fn a_method_calls_up_the_cautions_of_its_materials() {
    let text = with_item(r#"{"material":"wood-ash","kg":1}"#).replacen('{', r#"{"method":"worm-bin","#, 1);
    let answer = sum(&text).expect("is sound");
    assert!(
        answer
            .cautions
            .iter()
            .any(|note| (note.code, note.stance, note.item) == ("caustic", Stance::Refused, 1))
    );
}
