//! What a rule of thumb truly gives.

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_farm::mix::thumb;
use zymarch_formats::thumb::{ThumbAnswer, parse};

fn asked(text: &str) -> Result<ThumbAnswer, Faults> {
    thumb(&Catalogue::book(), &parse(text)?)
}

#[test]
fn every_wrong_field_is_named() {
    let refusal = asked(
        r#"{"format":"zymarch-thumb/1","by":"volume","parts":[{"parts":-1,"of":[{"material":"wheat-straw","kg":2}]},{"parts":1,"of":[]}]}"#,
    )
    .expect_err("all wrong");
    let fields: Vec<_> = refusal.0.iter().map(|fault| fault.path.to_string()).collect();
    let unknown = asked(r#"{"format":"zymarch-thumb/1","by":"handfuls","parts":[]}"#).expect_err("unknown");
    assert_eq!(unknown.0[0].path.to_string(), "by");
    assert_eq!(fields, ["parts[0].parts", "parts[0].of[0]", "parts[1].of"]);
}

#[test]
fn an_unknown_material_is_named_where_the_rule_has_it() {
    let refusal = asked(
        r#"{"format":"zymarch-thumb/1","by":"weight","parts":[{"parts":1,"of":[{"material":"wheat-straw"},{"material":"moondust"}]}]}"#,
    )
    .expect_err("unknown");
    assert_eq!(refusal.0[0].path.to_string(), "parts[0].of[1].material");
}

#[test]
fn a_part_may_be_shared_and_figures_overridden() {
    let got = asked(
        r#"{"format":"zymarch-thumb/1","by":"volume","parts":[{"parts":2,"of":[{"material":"wheat-straw","c_n":80},{"material":"tree-leaves-dry"}]},{"parts":1,"of":[{"material":"sheep-manure"}]}]}"#,
    )
    .expect("sound");
    assert_eq!(got.items.iter().map(|item| item.part).collect::<Vec<_>>(), [0, 0, 1]);
    assert_eq!(got.items[0].c_n, 80.0);
    assert_eq!(got.mended.len(), 2);
}
