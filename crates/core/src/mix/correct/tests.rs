//! Every correction does what it says, and those that need least stand first.

use proptest::prelude::*;

use super::*;
use crate::mix::sum;
use crate::stock::material::{Kind, all, common, find};
use crate::stock::{Figures, Own, figures};

fn of(id: &str) -> Figures {
    figures(find(id), &Own::default()).expect("in the table")
}

fn item(id: &str, wet_mass_kg: f64) -> Item {
    Item { wet_mass_kg, figures: of(id) }
}

fn plenty(id: &str) -> Lot {
    Lot::up_to(1e5, of(id), Kind::Brown)
}

fn asked(items: &[Item], water_l: f64, flaw: Flaw, ids: &[&str]) -> Vec<Correction> {
    let offered: Vec<_> = ids.iter().map(|id| plenty(id)).collect();
    corrections(items, water_l, flaw, &offered, &Windows::default())
}

#[test]
fn wet_scraps_want_something_dry() {
    let items = [item("vegetable-scraps", 100.0), item("sheep-manure", 50.0)];
    let mix = sum(&items, 0.0).expect("has nitrogen");
    assert!(flaws(&mix, &Windows::default()).contains(&Flaw::TooWet));
    // (0.55·150 − (86 + 31)) / (0.12 − 0.55) = 80.23 kg of straw.
    let got = asked(&items, 0.0, Flaw::TooWet, &["wheat-straw"]);
    assert!((got[0].kg - 80.2326).abs() < 1e-3, "{}", got[0].kg);
    assert!((got[0].after.moisture - 0.55).abs() < 1e-9);
    // What is wetter still is no help.
    assert!(asked(&items, 0.0, Flaw::TooWet, &["human-urine"]).is_empty());
}

#[test]
fn dry_wants_water_first() {
    let items = [item("wheat-straw", 40.0), item("sheep-manure", 100.0)];
    let got = asked(&items, 0.0, Flaw::TooDry, &["vegetable-scraps"]);
    assert_eq!(got[0].with, None);
    assert!((got[0].after.moisture - 0.55).abs() < 1e-9);
}

#[test]
fn a_sodden_mass_wants_something_open() {
    let items = [item("cattle-manure-fresh", 200.0)];
    let mix = sum(&items, 0.0).expect("has nitrogen");
    assert!(flaws(&mix, &Windows::default()).contains(&Flaw::TooDense));
    let got = asked(&items, 0.0, Flaw::TooDense, &["maize-stover"]);
    let line = &got[0].line;
    assert!((line.result - got[0].kg).abs() < 1e-9);
    let with = [items[0], item("maize-stover", got[0].kg)];
    assert!((sum(&with, 0.0).expect("has nitrogen").free_air_space - 0.35).abs() < 1e-9);
}

#[test]
fn amounts_come_in_whole_steps_and_no_more_than_there_are() {
    let items = [item("wheat-straw", 100.0)];
    let barrow = Lot { step_kg: Some(38.5), most_kg: 200.0, ..plenty("sheep-manure") };
    let got = corrections(&items, 150.0, Flaw::TooBrown, &[barrow], &Windows::default());
    // 249.7 kg would be wanted; five barrows of 38.5 kg are all there are.
    assert!((got[0].kg - 192.5).abs() < 1e-9, "{}", got[0].kg);
    let none = Lot { most_kg: 10.0, ..barrow };
    assert!(corrections(&items, 150.0, Flaw::TooBrown, &[none], &Windows::default()).is_empty());
}

#[test]
fn a_right_mix_has_no_fault() {
    let items = [item("wheat-straw", 60.0), item("sheep-manure", 150.0)];
    let mix = sum(&items, 25.0).expect("has nitrogen");
    assert_eq!(flaws(&mix, &Windows::default()), []);
}

#[test]
fn the_list_is_short_and_what_puts_all_right_with_least_stands_first() {
    let items = [item("wheat-straw", 60.0), item("tree-leaves-dry", 30.0)];
    let offered: Vec<_> = common()
        .map(|row| Lot::up_to(1e5, figures(Some(row), &Own::default()).expect("in the table"), row.kind))
        .collect();
    let got = corrections(&items, 0.0, Flaw::TooBrown, &offered, &Windows::default());
    assert!(!got.is_empty() && got.len() <= 6);
    assert!(got[0].puts_right(), "{:?}", got[0]);
}

proptest! {
    #[test]
    fn a_correction_of_any_amount_reaches_its_middle(
        first in 0..129_usize, second in 0..129_usize, with in 0..129_usize,
        kg in (1.0..500.0_f64, 1.0..500.0_f64), water_l in 0.0..200.0_f64,
    ) {
        let items = [item(&all()[first].id, kg.0), item(&all()[second].id, kg.1)];
        let windows = Windows::default();
        let Ok(mix) = sum(&items, water_l) else { return Ok(()) };
        for fault in flaws(&mix, &windows) {
            for found in corrections(&items, water_l, fault, &[plenty(&all()[with].id)], &windows) {
                prop_assert!(found.kg > 0.0 && found.after.heap_volume_l.is_finite());
                match fault {
                    Flaw::TooGreen | Flaw::TooBrown => prop_assert!((found.after.c_n - 27.5).abs() < 1e-6),
                    Flaw::TooDry | Flaw::TooWet => prop_assert!((found.after.moisture - 0.55).abs() < 1e-6),
                    Flaw::TooDense => {}
                }
            }
        }
    }
}
