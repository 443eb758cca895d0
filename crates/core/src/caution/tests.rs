//! Every code of the list, by what it makes the tool do.

use super::*;
use crate::material::find as material;
use crate::method;
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

/// Code, moments it is said at, methods that refuse it, methods that mind it.
/// Methods by their first letters: R(apid) B(ay) L(ayered) M(straw-manure)
/// S(low bin) H(sheet) W(ire) T(ower) D(rum) U(tumbler) F(ibre) C(har) O(worms).
const TABLE: &[(&str, &str, &str, &str)] = &[
    ("never", "stock", "RBLMSHWTDUFCO", ""),
    ("not-open-heap", "stock", "RBLMSHWTDUFCO", ""),
    ("faecal-parasites", "stock", "RBLMSHWTDUFCO", ""),
    ("persistent-herbicide", "stock", "RBLMSHWTDUFCO", ""),
    ("hot-only", "method", "SHWTDUFCO", "RBLM"),
    ("pathogens-raw-manure", "stock build use", "", "SHWTDUFCO"),
    ("zoonotic", "stock build", "O", ""),
    ("local-rules", "stock use", "", ""),
    ("small-doses", "mix", "", ""),
    ("high-ph-drives-off-ammonia", "mix", "", ""),
    ("avoid-static", "method", "", "WTC"),
    ("toxic-raw", "stock build", "", ""),
    ("not-for-worms", "method", "O", "T"),
    ("plant-disease", "method use", "", "LSHWTDUFCO"),
    ("regrows", "method", "", "LSHWTDUFCO"),
    ("weed-seeds", "method", "", "LSHWTDUFCO"),
    ("attracts-pests", "stock", "", "SHW"),
    ("bury-deep", "build", "", ""),
    ("spray-check", "stock", "", ""),
    ("drug-residues", "stock", "", "TCO"),
    ("heavy-metal", "stock use", "", ""),
    ("saline", "use", "", "TO"),
    ("chloride", "use", "", ""),
    ("ammonia-loss", "stock", "", ""),
    ("leachate", "stock", "", "DUO"),
    ("odour", "stock build", "", ""),
    ("allelopathic", "use", "", "SHWDUFC"),
    ("caustic", "stock build", "O", ""),
    ("dust", "build", "", ""),
    ("tetanus", "build", "", ""),
    ("sharp", "build", "", ""),
    ("fire-risk", "stock", "", ""),
    ("foreign-bits", "stock", "", "O"),
    ("mats-when-wet", "build", "", "HWTCO"),
    ("acidic", "stock", "", "FO"),
    ("soak-first", "build", "", "WTCO"),
    ("chop-first", "build", "", ""),
    ("gloves", "build", "", ""),
];

const LETTERS: &str = "RBLMSHWTDUFCO";

fn letters(caution: Caution, stance: Stance) -> String {
    method::all()
        .iter()
        .zip(LETTERS.chars())
        .filter(|(method, _)| caution.in_method(method) == stance)
        .map(|(_, letter)| letter)
        .collect()
}

#[test]
fn every_code_is_said_refused_and_minded_as_the_table_has_it() {
    assert_eq!(TABLE.len(), all().count(), "a code is missing here");
    for (code, moments, refused, minded) in TABLE {
        let caution = find(code).unwrap_or_else(|| panic!("{code} is not on the list"));
        let said: Vec<_> = caution.moments().map(Moment::as_str).collect();
        assert_eq!(said.join(" "), *moments, "{code}");
        assert_eq!(letters(caution, Stance::Refused), *refused, "{code} refused");
        let sorted = |text: &str| LETTERS.chars().filter(|c| text.contains(*c)).collect::<String>();
        assert_eq!(letters(caution, Stance::Minded), sorted(minded), "{code} minded");
    }
}

#[test]
fn every_word_of_the_list_means_something() {
    for caution in all() {
        for word in [caution.refused_in, caution.minded_in, caution.share].iter().flat_map(|c| c.split(';')) {
            assert!(
                word.is_empty() || method::all().iter().any(|method| method.is_meant_by(word)),
                "{}: {word}",
                caution.code
            );
        }
        assert!(caution.moments().count() > 0, "{} is never said", caution.code);
        assert!(all().filter(|other| other.code == caution.code).count() == 1);
    }
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
    // 4 of 104 kg is 3.8 %; 8 of 108 kg is 7.4 %.
    assert_eq!(over(&[("barley-straw", 100.0), ("wood-ash", 4.0)], None), Vec::<&str>::new());
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
