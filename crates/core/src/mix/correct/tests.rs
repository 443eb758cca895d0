//! Every correction does what it says, trades no fault for a worse, and those that need least
//! stand first.

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

fn commons() -> Vec<Lot> {
    common()
        .map(|row| Lot::up_to(1e5, figures(Some(row), &Own::default()).expect("in the table"), row.kind))
        .collect()
}

fn all_of(items: &[Item], water_l: f64, offered: &[Lot]) -> Vec<(Flaw, Vec<Correction>)> {
    let windows = Windows::default();
    corrections(&Asked { items, water_l, offered, on_hand: offered.len(), windows: &windows, air_c: None })
}

fn asked(items: &[Item], water_l: f64, flaw: Flaw, ids: &[&str]) -> Vec<Correction> {
    let offered: Vec<_> = ids.iter().map(|id| plenty(id)).collect();
    let found = all_of(items, water_l, &offered).into_iter().find(|(of, _)| *of == flaw);
    found.unwrap_or_else(|| panic!("{flaw:?} is not found")).1
}

fn acts(choices: &[Correction]) -> Vec<Act> {
    choices.iter().map(|one| one.act).collect()
}

#[test]
fn wet_scraps_want_something_dry() {
    let items = [item("vegetable-scraps", 100.0), item("sheep-manure", 50.0)];
    let got = asked(&items, 0.0, Flaw::TooWet, &["wheat-straw"]);
    let straw = got.iter().find(|one| one.act == Act::Add).expect("straw is dry");
    // To the wet edge (0.60·150 − 117) / (0.12 − 0.60) = 56.25 kg, to the middle 80.23 kg.
    assert!(straw.kg > 56.2 && straw.kg < 80.3, "{}", straw.kg);
    assert!(straw.after.moisture < 0.6 && straw.after.c_n < 40.0);
    // What is wetter still is no help.
    let with_urine = asked(&items, 0.0, Flaw::TooWet, &["human-urine"]);
    assert!(!acts(&with_urine).contains(&Act::Add));
}

#[test]
fn scraps_are_not_wilted_and_grass_is() {
    let of = |id: &str| acts(&asked(&[item(id, 100.0)], 0.0, Flaw::TooWet, &[]));
    assert!(!of("vegetable-scraps").contains(&Act::Wilt));
    assert!(of("grass-clippings").contains(&Act::Wilt));
    // Water that runs off in a day mends what is a little too wet, and not what is sodden.
    let little = [item("vegetable-scraps", 60.0), item("wheat-straw", 25.0)];
    assert!(acts(&asked(&little, 0.0, Flaw::TooWet, &[])).contains(&Act::Drain));
    assert!(!of("water-hyacinth").contains(&Act::Drain));
}

#[test]
fn wilting_says_how_much_water_and_about_how_long() {
    let items = [item("grass-clippings", 100.0), item("wheat-straw", 20.0)];
    let got = asked(&items, 0.0, Flaw::TooWet, &[]);
    let wilt = got.iter().find(|one| one.act == Act::Wilt).expect("grass wilts");
    // Q − Σd/(1 − 0.60) = 120 − 37.6/0.40 = 26 kg of the 80 in the grass.
    assert!((wilt.kg - 26.0).abs() < 1e-3, "{}", wilt.kg);
    assert_eq!(wilt.items, [0]);
    let days = wilt.days.expect("said");
    // −ln(1 − 26/80) = 0.393, at 0.80 and 0.35 a day.
    assert!((days.low() - 0.491).abs() < 0.01 && (days.high() - 1.123).abs() < 0.01, "{days:?}");
    let windows = Windows::default();
    let cold =
        Asked { items: &items, water_l: 0.0, offered: &[], on_hand: 0, windows: &windows, air_c: Some(8.0) };
    let cold = corrections(&cold).into_iter().flat_map(|(_, all)| all).find(|one| one.act == Act::Wilt);
    assert!((cold.expect("slower").days.expect("said").low() - 2.0 * days.low()).abs() < 1e-9);
}

#[test]
fn poured_water_is_left_out_first() {
    let items = [item("wheat-straw", 60.0), item("sheep-manure", 150.0)];
    let got = asked(&items, 300.0, Flaw::TooWet, &["wheat-straw"]);
    assert_eq!(got[0].act, Act::LessWater);
    assert!((got[0].after.moisture - 0.55).abs() < 1e-9);
}

#[test]
fn dry_wants_water_first_and_straw_may_stand_in_it() {
    let items = [item("wheat-straw", 40.0), item("sheep-manure", 100.0)];
    let got = asked(&items, 0.0, Flaw::TooDry, &[]);
    assert_eq!(acts(&got), [Act::Water, Act::Soak]);
    assert!((got[0].after.moisture - 0.55).abs() < 1e-9);
    assert_eq!(got[1].items, [0]);
}

#[test]
fn a_sodden_mass_wants_something_open() {
    let items = [item("cattle-manure-fresh", 200.0)];
    let got = asked(&items, 0.0, Flaw::TooDense, &["maize-stover"]);
    let stover = got.iter().find(|one| one.act == Act::Add).expect("opens it");
    let line = stover.line.as_ref().expect("of one thing");
    assert!((line.result - stover.kg).abs() < 1e-9);
    let with = [items[0], item("maize-stover", stover.kg)];
    assert!((sum(&with, 0.0).expect("has nitrogen").free_air_space - 0.35).abs() < 1e-9);
}

#[test]
fn what_packs_wants_a_frame() {
    let items = [item("grass-clippings", 60.0), item("tree-leaves-dry", 20.0)];
    let got = asked(&items, 40.0, Flaw::Packs, &["wheat-straw", "sawdust"]);
    assert!(got.iter().all(|one| one.with != Some(1)), "dust holds no frame");
    let straw = got.iter().find(|one| one.with == Some(0)).expect("straw does");
    assert!(straw.after.structured >= 1.0 / 3.0 - 1e-9);
}

#[test]
fn a_dry_rich_litter_is_no_way_to_dry_scraps() {
    let items = [item("vegetable-scraps", 150.0), item("wheat-straw", 10.0)];
    let got = asked(&items, 0.0, Flaw::TooWet, &["broiler-litter"]);
    assert!(!acts(&got).contains(&Act::Add), "{got:?}");
}

#[test]
fn nobody_mends_a_little_with_a_cartload() {
    let items = [item("water-hyacinth", 200.0)];
    for (flaw, choices) in all_of(&items, 0.0, &[plenty("horse-manure-bedding")]) {
        assert!(choices.iter().all(|one| one.kg <= 400.0), "{flaw:?}: {choices:?}");
    }
}

#[test]
fn where_none_alone_does_two_do() {
    let items = [item("vegetable-scraps", 120.0)];
    let offered = [plenty("wheat-straw"), plenty("tree-leaves-dry"), plenty("sheep-manure")]
        .map(|lot| Lot { step_kg: Some(70.0 * lot.figures.density_kg_l.value), ..lot });
    let found = all_of(&items, 0.0, &offered);
    for (flaw, choices) in &found {
        if choices.iter().any(|one| one.act != Act::AddTwo && one.puts_right()) {
            continue;
        }
        let pair = choices.iter().find(|one| one.act == Act::AddTwo).unwrap_or_else(|| panic!("{flaw:?}"));
        assert!(Windows::default().work(&pair.after));
        let (place, kg) = pair.and.expect("two");
        assert!(place != pair.with.expect("two") && kg > 0.0);
    }
}

#[test]
fn amounts_come_in_whole_steps_and_no_more_than_there_are() {
    let items = [item("wheat-straw", 100.0)];
    let barrow = Lot { step_kg: Some(38.5), most_kg: 192.5, ..plenty("sheep-manure") };
    let of = |lot: Lot| all_of(&items, 150.0, &[lot]).into_iter().find(|(flaw, _)| *flaw == Flaw::TooBrown);
    // 249.7 kg would be wanted, twice the mass at most; five barrows of 38.5 kg are all there are.
    let (_, got) = of(barrow).expect("too brown");
    assert!((got[0].kg - 192.5).abs() < 1e-9, "{}", got[0].kg);
    let (_, none) = of(Lot { most_kg: 10.0, ..barrow }).expect("too brown");
    assert!(none.is_empty());
}

#[test]
fn a_right_mix_has_no_fault() {
    let items = [item("wheat-straw", 60.0), item("sheep-manure", 150.0)];
    let mix = sum(&items, 25.0).expect("has nitrogen");
    assert_eq!(flaws(&mix, &Windows::default()), []);
    assert!(all_of(&items, 25.0, &commons()).is_empty());
}

#[test]
fn the_list_is_short_and_what_puts_all_right_with_least_stands_first() {
    let items = [item("wheat-straw", 60.0), item("barley-straw", 30.0)];
    let offered = commons();
    let found = all_of(&items, 90.0, &offered);
    let (_, got) = found.iter().find(|(flaw, _)| *flaw == Flaw::TooBrown).expect("too brown");
    assert!(!got.is_empty() && got.len() <= MOST + 3);
    assert!(got[0].puts_right(), "{:?}", got[0]);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Whatever is offered leaves every figure workable, or no further out than it was; and the
    /// sums afterwards are those of the mix that is described.
    #[test]
    fn nothing_that_is_offered_trades_a_fault_for_a_worse(
        first in 0..167_usize, second in 0..167_usize, kg in (1.0..500.0_f64, 1.0..500.0_f64), water_l in 0.0..200.0_f64,
    ) {
        let items = [item(&all()[first].id, kg.0), item(&all()[second].id, kg.1)];
        let windows = Windows::default();
        let Ok(mix) = sum(&items, water_l) else { return Ok(()) };
        let offered = commons();
        for (_, choices) in all_of(&items, water_l, &offered) {
            for found in choices {
                prop_assert!(found.kg > 0.0 && found.after.heap_volume_l.is_finite());
                prop_assert!(windows.distance(&found.after, true) < windows.distance(&mix, true));
                prop_assert!(!windows.pushes_out(&mix, &found.after), "{:?}", found);
                let mut with = items.to_vec();
                let parts = found.with.map(|place| (place, found.kg)).into_iter().chain(found.and);
                with.extend(parts.map(|(place, kg)| Item { wet_mass_kg: kg, figures: offered[place].figures }));
                let water = match found.act {
                    Act::Add | Act::AddTwo => found.then_water_l,
                    Act::Water | Act::Soak => found.kg,
                    Act::LessWater | Act::Drain | Act::Wilt => -found.kg,
                    Act::Chop => 0.0,
                };
                let again = Totals::of_all(&with).plus(Totals::of_water(water_l + water)).figures().expect("sums");
                prop_assert!((again.moisture - found.after.moisture).abs() < 1e-9);
                prop_assert!((again.c_n_counted - found.after.c_n_counted).abs() < 1e-6);
            }
        }
    }
}
