//! Sentences as people say them, and what is asked back.

use proptest::prelude::*;

use super::*;
use crate::stock::Materials;

fn measures() -> Vec<SayMeasure<'static>> {
    let named = [("barrow", 70.0), ("bucket", 12.0), ("sack", 90.0), ("01J-x", 60.0)];
    let names = |id| if id == "01J-x" { vec!["carrying cloth", "carrying cloths"] } else { vec![] };
    named.map(|(id, litres)| SayMeasure { id, litres, names: names(id) }).to_vec()
}

fn said(text: &str) -> Saying {
    let lots = [SayLot { id: "lot-7", name: "Pedro's straw", material: "barley-straw" }];
    read(text, &measures(), &lots, &Materials::book())
}

/// Each item as `material count unit`.
fn told(text: &str) -> Vec<String> {
    let got = said(text);
    assert_eq!(got.unknown, [], "{text}");
    got.items.iter().map(|item| format!("{} {}", item.material, amount(&item.of))).collect()
}

fn amount(of: &SaidOf) -> String {
    match of {
        SaidOf::Measures(count, id) => format!("{} {id}", (count * 1e6).round() / 1e6),
        SaidOf::Kilograms(kg) => format!("{} kg", (kg * 1e6).round() / 1e6),
        SaidOf::Litres(litres) => format!("{litres} L"),
        SaidOf::Number(count) => format!("{count} of what"),
    }
}

#[test]
fn what_people_say_becomes_lots() {
    for (text, items) in [
        (
            "4 barrows of straw, 2 of sheep manure and a bucket of scraps",
            vec!["wheat-straw 4 barrow", "sheep-manure 2 barrow", "vegetable-scraps 1 bucket"],
        ),
        (
            "four barrows straw two barrows cow dung",
            vec!["wheat-straw 4 barrow", "cattle-manure-fresh 2 barrow"],
        ),
        (
            "half a barrow of wood ash; 2 1/2 sacks of dry leaves",
            vec!["wood-ash 0.5 barrow", "tree-leaves-dry 2.5 sack"],
        ),
        ("a barrow and a half of horse manure", vec!["horse-manure-bedding 1.5 barrow"]),
        ("one and a half barrows of hay", vec!["grass-hay 1.5 barrow"]),
        (
            "½ barrow chook poo, 1½ barrows elephant grass",
            vec!["layer-hen-manure 0.5 barrow", "napier-grass 1.5 barrow"],
        ),
        ("three quarters of a sack of rice husks", vec!["rice-hulls 0.75 sack"]),
        ("half a dozen buckets of coffee grounds", vec!["coffee-grounds 6 bucket"]),
        ("a couple of barrows of wood chips", vec!["wood-chips-hardwood 2 barrow"]),
        (
            "1,050 kg straw and 2,5 barrows dung",
            vec!["wheat-straw 1050 kg", "cattle-manure-fresh 2.5 barrow"],
        ),
        (
            "100 lb of hay, 20kg chicken muck, 5 l cow urine",
            vec!["grass-hay 45.359237 kg", "layer-hen-manure 20 kg", "livestock-urine 5 L"],
        ),
        (
            "straw: 4 barrows\nsheep dung - 2 barrows\n* scraps 1 bucket",
            vec!["wheat-straw 4 barrow", "sheep-manure 2 barrow", "vegetable-scraps 1 bucket"],
        ),
        (
            "2 barrows of twigs and brushwood and a sack of sawdust",
            vec!["twigs-brushwood 2 barrow", "sawdust 1 sack"],
        ),
        ("2 heaped barrows of wet chopped maize stalks from the lower field", vec!["maize-stover 2 barrow"]),
        ("3 carrying cloths of weeds", vec!["green-weeds 3 01J-x"]),
        ("two buckets each of ash and lime", vec!["wood-ash 2 bucket", "lime 2 bucket"]),
        ("2 barrows of Pedro's straw", vec!["barley-straw 2 barrow"]),
        (
            "4 carretillas de paja, 2 de estiércol de oveja y un balde de restos de cocina",
            vec!["wheat-straw 4 barrow", "sheep-manure 2 barrow", "vegetable-scraps 1 bucket"],
        ),
        (
            "saco y medio de ceniza, media carretilla de gallinaza",
            vec!["wood-ash 1.5 sack", "layer-hen-manure 0.5 barrow"],
        ),
        (
            "dos y media carretillas de rastrojo de maíz con 30 kilos de guano de cuy",
            vec!["maize-stover 2.5 barrow", "guinea-pig-manure 30 kg"],
        ),
    ] {
        assert_eq!(told(text), items, "{text}");
    }
}

#[test]
fn slips_of_the_pen_are_read_over() {
    for (text, items) in [
        (
            "4 barows of starw and 2 bukets of shep manure",
            vec!["wheat-straw 4 barrow", "sheep-manure 2 bucket"],
        ),
        ("3 barrows of gaot manure", vec!["goat-manure 3 barrow"]),
        ("2 sacks of saw dust, 1 barrow of tithonea", vec!["sawdust 2 sack", "tithonia 1 barrow"]),
        ("1 barrow of vegtable scraps", vec!["vegetable-scraps 1 barrow"]),
    ] {
        assert_eq!(told(text), items, "{text}");
    }
}

#[test]
fn water_is_water() {
    let got = said("4 barrows of straw, 20 litres of water and 3 buckets of water");
    assert!((got.water_l - 56.0).abs() < 1e-9 && got.items.len() == 1 && got.unknown.is_empty());
    let got = said("2 barrows of water hyacinth and 10 litres of clean water from the tap");
    assert!((got.water_l - 10.0).abs() < 1e-9 && got.items[0].material == "water-hyacinth");
}

#[test]
fn a_copied_row_is_known_by_its_own_name_and_leaves_the_book_its_names() {
    let book = Materials::book();
    let mut mine = book.find("wheat-straw").unwrap().clone();
    mine.id = "school-straw".into();
    mine.name = "Straw of the school".into();
    mine.names.push("barn leavings".into());
    let materials = Materials::with_own([mine]);
    let read_as = |text: &str| read(text, &measures(), &[], &materials).items[0].material.to_owned();
    assert_eq!(read_as("4 barrows of straw"), "wheat-straw");
    assert_eq!(read_as("4 barrows of straw of the school"), "school-straw");
    assert_eq!(read_as("4 barrows of barn leavings"), "school-straw");
    // In a recipe too.
    let named = |name: &str| materials.named(name).map(|row| row.id.clone());
    assert_eq!(named("straw").as_deref(), Some("wheat-straw"));
    assert_eq!(named("barn leavings").as_deref(), Some("school-straw"));
}

#[test]
fn a_lot_is_known_by_its_own_name() {
    assert_eq!(said("a sack of Pedro's straw").items[0].lot.as_deref(), Some("lot-7"));
}

/// What is asked back: what of, the text, and the nearest.
fn asked(text: &str) -> Vec<(NotSaid, String, Vec<String>)> {
    let part = |place: Place| text.chars().skip(place.from).take(place.to - place.from).collect();
    said(text).unknown.into_iter().map(|one| (one.what, part(one.place), one.nearest)).collect()
}

#[test]
fn what_is_not_understood_is_marked_and_asked_back() {
    let got = asked("4 barrows of straw and 2 barrows of moon rocks");
    assert_eq!(
        (got[0].0, got[0].1.as_str(), got[0].2.len()),
        (NotSaid::Material, "2 barrows of moon rocks", 3)
    );
    let got = asked("3 skips of straw");
    assert_eq!((got[0].0, got[0].1.as_str(), got[0].2.len()), (NotSaid::Measure, "3 skips of straw", 3));
    let got = asked("4 barrows of straw, some grass clippings");
    assert_eq!((got[0].0, got[0].1.as_str()), (NotSaid::Amount, "some grass clippings"));
    assert_eq!(asked("a few barrows of leaves")[0].0, NotSaid::Amount);
    assert_eq!(asked("-3 barrows of straw")[0].0, NotSaid::Amount);
    assert_eq!(asked("0 barrows of straw")[0].0, NotSaid::Amount);
    assert_eq!(asked("4 straw")[0].0, NotSaid::Measure);
    // Straw of what is not known is no wheat straw.
    let got = asked("3 barrows of banana straw");
    assert_eq!(got[0].0, NotSaid::Material);
    assert!(got[0].2.iter().any(|id| id.starts_with("banana")), "{got:?}");
}

#[test]
fn everyday_names_come_to_their_rows() {
    let materials = Materials::book();
    let names = Names::new(&materials, &[]);
    let all: Vec<(&str, &str)> = include_str!("everyday.csv")
        .lines()
        .skip(1)
        .map(|line| line.split_once(',').expect("two columns"))
        .collect();
    assert!(all.len() >= 200, "{}", all.len());
    let wrong: Vec<String> = all
        .iter()
        .filter_map(|(name, id)| {
            let got = names.find(name).map(|like| like.material);
            (got != Some(*id)).then(|| format!("{name}: {got:?}, not {id}"))
        })
        .collect();
    assert_eq!(wrong, [""; 0]);
}

#[test]
fn every_name_of_the_table_stands_for_one_row() {
    let mut seen = std::collections::HashMap::new();
    for row in crate::stock::material::all() {
        for name in row.names.iter().chain(&row.names_es) {
            let before = seen.insert(crate::stock::material::folded(name), &row.id);
            assert!(before.is_none_or(|other| *other == row.id), "{name}: {before:?} and {}", row.id);
        }
    }
}

#[test]
fn every_line_of_the_words_is_read() {
    for line in include_str!("../../../data/say-words.csv").lines().skip(1) {
        let word = line.split([',', ';']).next_back().expect("words");
        assert!(!words::roles(&crate::stock::material::folded(word)).is_empty(), "{line}");
    }
}

#[test]
fn a_text_made_to_take_long_does_not() {
    for part in ["a l ", "a ", "one barrow ", "1kg", "straw and ", "xyzzy", "½"] {
        let text: String = part.chars().cycle().take(LONGEST).collect();
        let got = said(&text);
        assert!(!got.items.is_empty() || !got.unknown.is_empty(), "{part}");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    /// Whatever is said, nothing is lost: every place lies in the text, in order, and no panic.
    #[test]
    fn anything_may_be_said(text in "[ -~ñáéí½,\\n]{0,120}") {
        let got = said(&text);
        let letters = text.chars().count();
        for place in got.items.iter().map(|item| item.place).chain(got.unknown.iter().map(|one| one.place)) {
            prop_assert!(place.from < place.to && place.to <= letters, "{place:?} in {text:?}");
        }
    }

    #[test]
    fn any_number_of_barrows_is_read_as_it_is_written(quarters in 1..4000_u32) {
        let count = f64::from(quarters) / 4.0;
        prop_assert_eq!(told(&format!("{count} barrows of straw")), [format!("wheat-straw {count} barrow")]);
    }
}
