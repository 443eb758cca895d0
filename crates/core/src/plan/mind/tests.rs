//! Mixes that call up cautions, and mixes that do not.

use super::*;
use crate::plan::method;
use crate::stock::material::find as material;
use crate::stock::{Own, figures};

fn item(id: &str, wet_mass_kg: f64) -> (Option<&'static Material>, Item) {
    let row = material(id);
    (row, Item { wet_mass_kg, figures: figures(row, &Own::default()).expect("in the table") })
}

fn notes(items: &[(&str, f64)], c_n: f64, by: Option<&str>) -> Vec<(&'static str, usize, Stance, Reason)> {
    let held: Vec<_> = items.iter().map(|(id, kg)| item(id, *kg)).collect();
    let parts: Vec<_> = held.iter().map(|(row, item)| (*row, item)).collect();
    let by = by.map(|id| method::find(id).expect("listed"));
    of_mix(&parts, c_n, by)
        .into_iter()
        .map(|note| (note.caution.code, note.item, note.stance, note.reason))
        .collect()
}

#[test]
fn what_goes_into_no_heap_is_refused_without_a_method() {
    for id in ["pet-faeces", "meat-dairy-oily-scraps"] {
        let found = notes(&[("barley-straw", 20.0), (id, 1.0)], 27.0, None);
        assert!(
            found.iter().any(|note| (note.1, note.2, note.3) == (1, Stance::Refused, Reason::Never)),
            "{id}"
        );
    }
}

#[test]
fn nothing_is_said_of_what_has_no_amount() {
    assert_eq!(notes(&[("barley-straw", 20.0), ("pet-faeces", 0.0)], 27.0, Some("slow-bin")), []);
}

#[test]
fn ash_beside_dung_or_in_a_green_mix_drives_off_ammonia() {
    let says = |items: &[(&str, f64)], c_n| {
        notes(items, c_n, None).iter().any(|note| note.0 == DRIVES_OFF_AMMONIA && note.3 == Reason::Company)
    };
    assert!(says(&[("sheep-manure", 50.0), ("wood-ash", 1.0)], 30.0));
    assert!(says(&[("grass-clippings", 50.0), ("wood-ash", 1.0)], 18.0));
    assert!(!says(&[("barley-straw", 50.0), ("wood-ash", 1.0)], 60.0));
}

#[test]
fn doses_are_capped_by_mass_for_minerals_and_by_volume_for_the_rest() {
    let over = |items: &[(&str, f64)], by| {
        notes(items, 27.0, by)
            .into_iter()
            .filter(|note| note.3 == Reason::Share)
            .map(|note| note.0)
            .collect::<Vec<_>>()
    };
    // 3 of 103 kg is 2.9 %; 8 of 108 kg is 7.4 %.
    assert_eq!(over(&[("barley-straw", 100.0), ("wood-ash", 3.0)], None), Vec::<&str>::new());
    assert_eq!(over(&[("barley-straw", 100.0), ("wood-ash", 8.0)], None), [SMALL_DOSES]);
    // 100 kg straw is 2000 L; 110 kg sawdust at 0.22 is 500 L, a fifth; 150 kg is more.
    assert_eq!(over(&[("barley-straw", 100.0), ("sawdust", 105.0)], None), Vec::<&str>::new());
    assert_eq!(over(&[("barley-straw", 100.0), ("sawdust", 150.0)], None), [SMALL_DOSES]);
    assert_eq!(over(&[("barley-straw", 100.0), ("sawdust", 150.0)], Some("fibre-bed")), Vec::<&str>::new());
}

#[test]
fn sawdust_is_refused_as_a_main_material_where_nothing_is_turned() {
    let stance = |kg, by| {
        notes(&[("barley-straw", 100.0), ("sawdust", kg)], 27.0, Some(by))
            .into_iter()
            .find(|note| note.0 == "avoid-static")
            .map(|note| note.2)
    };
    assert_eq!(stance(200.0, "static-tower"), Some(Stance::Refused));
    assert_eq!(stance(20.0, "static-tower"), Some(Stance::Minded));
    assert_eq!(stance(200.0, "bay-turned"), None);
}

#[test]
fn salty_seaweed_is_refused_to_worms_in_bulk_only() {
    let stance = |kg| {
        notes(&[("barley-straw", 100.0), ("seaweed", kg)], 27.0, Some("worm-bin"))
            .into_iter()
            .find(|note| note.0 == "saline")
            .map(|note| note.2)
    };
    assert_eq!((stance(400.0), stance(10.0)), (Some(Stance::Refused), Some(Stance::Minded)));
}

#[test]
fn refusals_stand_first() {
    let found =
        notes(&[("green-weeds", 50.0), ("barley-straw", 10.0), ("pet-faeces", 1.0)], 27.0, Some("worm-bin"));
    let stances: Vec<_> = found.iter().map(|note| note.2).collect();
    assert!(stances.is_sorted_by(|a, b| a >= b), "{found:?}");
}
