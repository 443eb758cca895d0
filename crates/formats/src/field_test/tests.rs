//! Worked examples and laws of field test.

use super::*;
use zymarch_core::{stock, stock::material};

fn read(text: &str) -> Readings {
    crate::field::read(text).expect("well formed")
}

#[test]
fn each_test_gives_the_figure_it_is_made_for() {
    let lot = stock::figures(material::find("barley-straw"), &stock::Own::default()).expect("in the table");
    let gives = |text: &str, days| {
        let given = read(text).gives(Some(&lot), days, "2026-03-10");
        given
            .into_iter()
            .map(|test| (test.figure, (test.value * 1000.0).round() / 1000.0))
            .collect::<Vec<_>>()
    };
    use RecipeFigure::{DensityKgL, Herbicide, MoisturePct, Settle};
    assert_eq!(
        gives(r#"{"kind":"weigh","litres":22,"full_kg":9.2,"empty_kg":1.2}"#, 0),
        [(DensityKgL, 0.364)]
    );
    assert_eq!(
        gives(r#"{"kind":"drying","dish_g":200,"wet_g":500,"dried_g":[290]}"#, 0),
        [(MoisturePct, 70.0)]
    );
    assert_eq!(gives(r#"{"kind":"squeeze","feel":"drops"}"#, 0), [(MoisturePct, 64.0)]);
    // Straw at 0.05 kg/L loose packs to 0.1: half.
    assert_eq!(
        gives(r#"{"kind":"bucket","litres":10,"full_kg":1.6,"empty_kg":0.6,"water_l":8}"#, 0),
        [(Settle, 0.5)]
    );
    let beans = r#"{"kind":"bean","sown":10,"up":9,"deformed":4,"control_sown":10,"control_up":10,
                    "control_deformed":0,"judged_on":"2026-03-26"}"#;
    assert_eq!(gives(beans, 16), [(Herbicide, 1.0)]);
    assert_eq!(gives(beans, 10), []);
}

#[test]
fn a_sample_that_still_falls_gives_nothing_yet() {
    let falling = read(r#"{"kind":"drying","dish_g":200,"wet_g":500,"dried_g":[400,340]}"#);
    let answer = falling.answer(None, 0).expect("reads");
    assert_eq!((answer.goes_on, answer.gives.len(), answer.steadiness), (true, 0, Some(Steadiness::Falling)));
}

#[test]
fn a_bad_reading_is_named() {
    assert!(crate::field::read::<Readings>(r#"{"kind":"squeeze","feel":"mushy"}"#).is_err());
    let bad = read(r#"{"kind":"drying","dish_g":200,"wet_g":500,"dried_g":[340,400]}"#);
    assert_eq!(bad.answer(None, 0).expect_err("gains").path.to_string(), "dried_g[1]");
    assert!(crate::field::read::<Readings>(r#"{"kind":"taste"}"#).is_err());
}

#[test]
fn beans_that_still_grow_say_nothing() {
    let growing = read(
        r#"{"kind":"bean","sown":10,"up":0,"deformed":0,"control_sown":10,"control_up":0,"control_deformed":0,
            "judged_on":null}"#,
    );
    let answer = growing.answer(None, 9).expect("reads");
    assert_eq!((answer.goes_on, answer.verdict, answer.days), (true, None, Some(9)));
}
