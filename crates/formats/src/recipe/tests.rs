use super::*;

fn with_item(item: &str) -> String {
    format!(
        r#"{{"format":"zymarch-recipe/1","measures":[{{"id":"barrow","litres":70}}],
            "items":[{{"material":"wheat-straw","kg":24}},
                     {item}]}}"#
    )
}

/// Path of everything refused, and what it says.
fn refused(text: &str) -> Vec<(String, String)> {
    let Faults(faults) = match parse(text) {
        Ok(recipe) => recipe.resolve(&Catalogue::book()).expect_err("should be refused"),
        Err(faults) => faults,
    };
    faults.into_iter().map(|fault| (fault.path.to_string(), fault.to_string())).collect()
}

#[test]
fn amounts_are_read_in_all_three_ways() {
    for (item, kg) in [
        (r#"{"material":"sheep-manure","kg":77}"#, 77.0),
        (r#"{"material":"sheep-manure","litres":140}"#, 77.0),
        (r#"{"material":"sheep-manure","amount":2,"measure":"barrow"}"#, 77.0),
    ] {
        let book = Catalogue::book();
        let resolved = parse(&with_item(item)).and_then(|recipe| recipe.resolve(&book)).expect(item);
        assert!((resolved.items[1].wet_mass_kg - kg).abs() < 1e-9, "{item}");
    }
}

#[test]
fn each_bad_field_is_named() {
    for (item, field) in [
        (r#"{"material":"sheep-manure","kg":-1}"#, "items[1].kg"),
        (r#"{"material":"sheep-manure","kg":1e9}"#, "items[1].kg"),
        (r#"{"material":"sheep-manure","kg":"ten"}"#, "items[1].kg"),
        (r#"{"material":"sheep-manure","litres":-5}"#, "items[1].litres"),
        (r#"{"material":"sheep-manure"}"#, "items[1]"),
        (r#"{"material":"sheep-manure","kg":1,"litres":2}"#, "items[1]"),
        (r#"{"material":"sheep-manure","amount":2}"#, "items[1].measure"),
        (r#"{"material":"sheep-manure","amount":2,"measure":"cart"}"#, "items[1].measure"),
        (r#"{"material":"sheep-manure","kg":1,"moisture_pct":100}"#, "items[1].moisture_pct"),
        (r#"{"material":"sheep-manure","kg":1,"moisture_pct":-3}"#, "items[1].moisture_pct"),
        (r#"{"material":"sheep-manure","kg":1,"density_kg_l":0}"#, "items[1].density_kg_l"),
        (r#"{"material":"sheep-manure","kg":1,"settle":1.5}"#, "items[1].settle"),
        (r#"{"material":"sheep-manure","kg":1,"ash_pct":60,"lignin_pct":50}"#, "items[1].lignin_pct"),
        (r#"{"material":"yak-dung","kg":1}"#, "items[1].material"),
        (r#"{"material":"yak-dung","kg":1,"moisture_pct":70}"#, "items[1].n_pct"),
    ] {
        let found = refused(&with_item(item));
        assert_eq!(found.len(), 1, "{item}: {found:?}");
        assert_eq!(found[0].0, field, "{item}: {found:?}");
    }
}

#[test]
fn a_misspelt_field_is_not_passed_over() {
    let text = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":1}],"watre_l":3}"#;
    assert!(refused(text)[0].1.contains("watre_l"));
}

#[test]
fn a_misspelt_figure_of_an_item_is_not_passed_over() {
    let found = refused(&with_item(r#"{"material":"sheep-manure","kg":1,"moisture":60}"#));
    assert!(found[0].0.starts_with("items[1]") && found[0].1.contains("moisture"), "{found:?}");
}

#[test]
fn an_unknown_material_with_all_figures_is_allowed() {
    let text = with_item(
        r#"{"material":"yak-dung","kg":1,"moisture_pct":70,"n_pct":2,"c_n":20,"ash_pct":18,"density_kg_l":0.8}"#,
    );
    let book = Catalogue::book();
    assert!(parse(&text).and_then(|recipe| recipe.resolve(&book)).is_ok());
}

#[test]
fn a_likely_slip_is_answered_with_the_nearest_name() {
    let found = refused(&with_item(r#"{"material":"sheep-manur","kg":1}"#));
    assert!(
        found[0].1.contains("unknown-material-near") && found[0].1.contains("sheep-manure\""),
        "{found:?}"
    );
}

#[test]
fn another_version_is_refused_as_such_whatever_else_it_holds() {
    let found = refused("{\n\"format\":\"zymarch-recipe/2\",\"stuff\":[]}");
    assert_eq!(found[0].0, "format");
}

#[test]
fn broken_documents_say_where() {
    for text in ["", "{", "[]", "nonsense", "{\"format\":\"zymarch-recipe/1\",\"items\":[}", "{} {}", "null"]
    {
        assert!(parse(text).is_err(), "{text}");
    }
    let refusal = parse("{\"format\":\"zymarch-recipe/1\",\n\"items\":[}").expect_err("broken");
    assert_eq!(refusal.0[0].line, Some(2));
}

#[test]
fn a_document_of_ten_megabytes_is_refused_before_it_is_read() {
    let huge = format!("{{\"format\":\"zymarch-recipe/1\",\"name\":\"{}\"}}", "x".repeat(10 << 20));
    assert!(refused(&huge)[0].1.contains("document-too-large"));
}

#[test]
fn targets_in_the_wrong_order_or_out_of_reach_are_named() {
    let base = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":1}],"target":"#;
    for (target, field) in [
        (r#"{"c_n":[30,25]}"#, "target.c_n"),
        (r#"{"moisture_pct":[50,100]}"#, "target.moisture_pct"),
        (r#"{"free_air_space_min_pct":120}"#, "target.free_air_space_min_pct"),
    ] {
        assert_eq!(refused(&format!("{base}{target}}}"))[0].0, field);
    }
}

#[test]
fn measures_are_checked_too() {
    let base = r#"{"format":"zymarch-recipe/1","items":[{"material":"wheat-straw","kg":1}],"measures":"#;
    for (measures, field) in [
        (r#"[{"id":"b","litres":0}]"#, "measures[0].litres"),
        (r#"[{"id":"b","litres":1},{"id":"b","litres":2}]"#, "measures[1].id"),
    ] {
        assert_eq!(refused(&format!("{base}{measures}}}"))[0].0, field);
    }
}

#[test]
fn every_fault_is_named_at_once() {
    let text = r#"{"format":"zymarch-recipe/1","water_l":-1,"items":[{"material":"nothing","kg":1},{"material":"wheat-straw","kg":-1}]}"#;
    let fields: Vec<_> = refused(text).into_iter().map(|(field, _)| field).collect();
    assert_eq!(fields, ["items[0].material", "items[1].kg", "water_l"]);
}

proptest::proptest! {
    #[test]
    fn no_text_makes_it_panic(text in ".{0,200}") {
        let book = Catalogue::book();
        let _ = parse(&text).map(|recipe| recipe.resolve(&book).is_ok());
    }

    #[test]
    fn no_numbers_make_it_panic_or_give_nan(kg in proptest::num::f64::ANY, moisture in proptest::num::f64::ANY, water in proptest::num::f64::ANY) {
        let recipe = Recipe {
            format: FORMAT.into(), name: None, measures: vec![], water_l: water, target: RecipeTarget::default(),
            items: vec![RecipeItem {
                material: "sheep-manure".into(), kg: Some(kg),
                moisture_pct: Some(moisture), ..RecipeItem::default()
            }],
            method: None,
        };
        if let Ok(resolved) = recipe.resolve(&Catalogue::book()) {
            proptest::prop_assert!(resolved.water_l.is_finite() && resolved.items[0].wet_mass_kg.is_finite());
        }
    }
}

#[test]
fn bad_tests_and_methods_are_named() {
    let fields = |item: &str, more: &str| {
        let text = with_item(item).replacen('{', &format!("{{{more}"), 1);
        refused(&text).into_iter().map(|(path, _)| path).collect::<Vec<_>>()
    };
    let item = |test: &str| format!(r#"{{"material":"cattle-manure-fresh","kg":1,"tests":[{test}]}}"#);
    let test = |value: &str, kind: &str, on: &str| {
        item(&format!(r#"{{"figure":"moisture_pct","value":{value},"test":"{kind}","on":"{on}"}}"#))
    };
    assert_eq!(fields(&test("172", "drying", "2026-03-10"), ""), ["items[1].tests[0].value"]);
    assert_eq!(fields(&test("72", "tasting", "2026-03-10"), ""), ["items[1].tests[0].test"]);
    assert_eq!(fields(&test("72", "drying", "yesterday"), ""), ["items[1].tests[0].on"]);
    assert_eq!(fields(r#"{"material":"lime","kg":1}"#, r#""method":"bonfire","#), ["method"]);
}
