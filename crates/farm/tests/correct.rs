//! What to add to a mix to bring it to the middle.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::window::Flaw;
use zymarch_farm::mix::correct;
use zymarch_formats::correct::{CorrectAnswer, parse};

fn asked(with: &str) -> Result<CorrectAnswer, Faults> {
    let text = format!(
        r#"{{"format":"zymarch-correct/1","fetched_in_l":70,"with":[{with}],"recipe":{{"format":"zymarch-recipe/1",
           "measures":[{{"id":"barrow","litres":70}}],"water_l":60,"items":[{{"material":"wheat-straw","amount":12,"measure":"barrow"}}]}}}}"#
    );
    correct(&Catalogue::book(), &parse(&text)?)
}

#[test]
fn what_is_on_hand_stands_before_what_would_be_fetched() {
    let got = asked(r#"{"with":{"material":"sheep-manure","amount":1,"measure":"barrow"},"can_add":9}"#)
        .expect("sound");
    let brown = &got.flaws[0];
    assert_eq!((brown.flaw, brown.choices[0].step), (Flaw::TooBrown, Some(0)));
    assert!((brown.choices[0].count.expect("in barrows").fract()).abs() < 1e-9);
    assert!(brown.choices[1..].iter().all(|choice| choice.material.as_deref() != Some("sheep-manure")));
    // In halves of the barrow they would be fetched in.
    assert!(
        brown.choices[1..].iter().all(|choice| (choice.count.expect("counted") * 2.0).fract().abs() < 1e-6)
    );
}

#[test]
fn a_bad_step_is_named() {
    let refusal = asked(r#"{"with":{"material":"sheep-manure","amount":-1,"measure":"barrow"},"can_add":9}"#);
    assert_eq!(refusal.expect_err("negative").0[0].path.to_string(), "with[0].amount");
}
