//! Every material of the book has its hatch written down, once and for good.

use std::collections::BTreeMap;
use std::path::Path;

use zymarch_core::stock::material;

#[test]
fn every_material_of_the_book_has_a_hatch_that_is_kept() {
    let file = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/src/kit/hatches.json");
    let text = std::fs::read_to_string(file).expect("is there");
    let kept: BTreeMap<String, String> = serde_json::from_str(&text).expect("is a map");
    let missing: Vec<_> = material::all().iter().filter(|row| !kept.contains_key(&row.id)).collect();
    assert!(missing.is_empty(), "give each a line in web/src/kit/hatches.json: {missing:?}");
    let gone: Vec<_> = kept.keys().filter(|id| material::find(id).is_none()).collect();
    assert!(gone.is_empty(), "no longer in the table: {gone:?}");
}
