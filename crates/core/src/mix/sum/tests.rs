//! Hand values, then the laws every mix obeys.

use proptest::prelude::*;

use super::*;
use crate::base::fault::FaultCode;
use crate::base::quantity::Fraction;
use crate::stock::material::{self, find};
use crate::stock::{Own, figures};

fn item(id: &str, wet_mass_kg: f64) -> Item {
    Item { wet_mass_kg, figures: figures(find(id), &Own::default()).expect("in the table") }
}

#[test]
fn straw_manure_and_scraps_by_hand() {
    // Dry: 24·0.88 = 21.12; 77·0.38 = 29.26; 24·0.14 = 3.36; together 53.74 kg.
    // N: 0.1056 + 0.76076 + 0.084 = 0.95036. C: 9.7152 + 12.17216 + 1.512 = 23.39936.
    // Water: 2.88 + 47.74 + 20.64 + 10 = 81.26 in 135 kg.
    // Loose: 480 + 140 + 48 = 668 L. Heap: 240 + 126 + 28.8 = 394.8 L. Framed: 480/668.
    // Ash: 1.4784 + 5.852 + 0.336 = 7.6664; organic 46.0736.
    // Filled: 81.26 + 28.796 + 2.89298 = 112.949 L; air 1 − 112.949/394.8 = 0.71391.
    // Held: 21.12·82/18 + 29.26·64/36 + 3.36·52/48 = 96.213 + 52.018 + 3.64 = 151.871 kg; 151.871/205.611.
    let got =
        sum(&[item("wheat-straw", 24.0), item("sheep-manure", 77.0), item("vegetable-scraps", 24.0)], 10.0)
            .expect("has nitrogen");
    let close = |a: f64, b: f64| (a - b).abs() < 1e-4 * b.abs();
    assert!(close(got.dry_matter_kg, 53.74));
    assert!(close(got.nitrogen_kg, 0.95036));
    assert!(close(got.carbon_kg, 23.39936));
    assert!(close(got.c_n, 24.6216), "{}", got.c_n);
    assert!(close(got.wet_mass_kg, 135.0));
    assert!(close(got.moisture, 81.26 / 135.0));
    assert!(close(got.volume_l, 668.0));
    assert!(close(got.heap_volume_l, 394.8));
    assert!(close(got.density_kg_l, 135.0 / 394.8));
    assert!(close(got.free_air_space, 0.71391), "{}", got.free_air_space);
    assert!(close(got.structured, 480.0 / 668.0));
    assert!(close(got.wet_max.expect("known of all"), 151.871 / 205.611), "{:?}", got.wet_max);
    assert_eq!(got.c_n_counted, got.c_n, "there is no wood in it");
}

#[test]
fn the_mix_ratio_is_not_the_average_of_the_ratios() {
    // Equal dry matter of N 2 % at 20:1 and N 0.5 % at 100:1: (0.4 + 0.5)/(0.02 + 0.005) = 36, not 60.
    let of = |n, c_n| Item {
        wet_mass_kg: 1.0,
        figures: figures(
            None,
            &Own {
                moisture: Some(Fraction::ZERO),
                nitrogen: Fraction::new(n).ok(),
                c_n: Some(c_n),
                ash: Some(Fraction::ZERO),
                density_kg_l: Some(0.1),
                ..Own::default()
            },
        )
        .expect("all given"),
    };
    let got = sum(&[of(0.02, 20.0), of(0.005, 100.0)], 0.0).expect("has nitrogen");
    assert!((got.c_n - 36.0).abs() < 1e-9);
}

#[test]
fn ash_weighs_and_takes_room_but_leaves_the_ratio_alone() {
    let plain = sum(&[item("sheep-manure", 50.0)], 0.0).expect("has nitrogen");
    let ashed = sum(&[item("sheep-manure", 50.0), item("garden-soil", 20.0)], 0.0).expect("has nitrogen");
    assert_eq!(plain.c_n, ashed.c_n);
    assert!(ashed.wet_mass_kg > plain.wet_mass_kg && ashed.heap_volume_l > plain.heap_volume_l);
}

#[test]
fn wood_counts_by_what_decays_of_it() {
    // Chips: 100·0.6 = 60 kg dry, 0.072 kg N, 29.52 kg C; a tenth of both counts.
    // Grass: 100·0.2 = 20 kg dry, 0.64 kg N, 8.96 kg C.
    let got = sum(&[item("wood-chips-hardwood", 100.0), item("grass-clippings", 100.0)], 0.0)
        .expect("has nitrogen");
    assert!((got.c_n - (29.52 + 8.96) / (0.072 + 0.64)).abs() < 1e-9);
    assert!((got.c_n_counted - (2.952 + 8.96) / (0.0072 + 0.64)).abs() < 1e-9);
    assert!((got.locked - 29.52 / (29.52 + 8.96)).abs() < 1e-9);
}

#[test]
fn what_is_poured_fills_voids() {
    let dry = sum(&[item("wheat-straw", 60.0)], 0.0).expect("has nitrogen");
    let wet = sum(&[item("wheat-straw", 60.0), item("livestock-urine", 40.0)], 0.0).expect("has nitrogen");
    assert_eq!((dry.heap_volume_l, dry.structured), (wet.heap_volume_l, wet.structured));
    assert!(wet.free_air_space < dry.free_air_space && wet.nitrogen_kg > dry.nitrogen_kg);
    assert_eq!(sum(&[item("livestock-urine", 40.0)], 0.0), Err(Fault::new(FaultCode::MixEmpty)));
}

#[test]
fn what_nothing_is_known_of_is_taken_to_hold_a_frame() {
    let bare = Own {
        moisture: Fraction::new(0.6).ok(),
        nitrogen: Fraction::new(0.01).ok(),
        c_n: Some(40.0),
        ash: Fraction::new(0.1).ok(),
        density_kg_l: Some(0.3),
        ..Own::default()
    };
    let unknown = Item { wet_mass_kg: 50.0, figures: figures(None, &bare).expect("has all") };
    let alone = sum(&[unknown], 0.0).expect("has nitrogen");
    assert_eq!((alone.structured, alone.is_structure_known, alone.wet_max), (1.0, false, None));
    let with = sum(&[unknown, item("grass-clippings", 10.0)], 0.0).expect("has nitrogen");
    assert!(with.structured < 1.0 && with.is_structure_known && with.wet_max.is_some());
}

#[test]
fn nothing_has_no_figures() {
    assert_eq!(sum(&[], 0.0), Err(Fault::new(FaultCode::MixEmpty)));
    assert_eq!(sum(&[item("wheat-straw", 0.0)], 5.0), Err(Fault::new(FaultCode::MixEmpty)));
}

#[test]
fn a_mix_without_nitrogen_has_no_ratio() {
    assert_eq!(sum(&[item("lime", 5.0), item("wood-ash", 5.0)], 0.0), Err(Fault::new(FaultCode::NoNitrogen)));
}

fn any_item() -> impl Strategy<Value = Item> {
    let rows = material::all().len();
    (0..rows, 0.001..5_000.0_f64).prop_map(|(row, wet_mass_kg)| item(&material::all()[row].id, wet_mass_kg))
}

fn any_mix() -> impl Strategy<Value = Vec<Item>> {
    prop::collection::vec(any_item(), 1..12)
        .prop_filter("has nitrogen", |items| items.iter().any(|i| i.nitrogen_kg() > 0.0))
        .prop_filter("is not all poured", |items| items.iter().any(|i| !i.is_poured()))
}

fn ratios(mix: &MixFigures) -> [f64; 5] {
    [mix.c_n, mix.available_c_n, mix.moisture, mix.density_kg_l, mix.free_air_space]
}

proptest! {
    #[test]
    fn scaling_all_amounts_leaves_the_ratios_unchanged(items in any_mix(), water in 0.0..500.0_f64, times in 0.01..100.0_f64) {
        let scaled: Vec<_> = items.iter().map(|i| Item { wet_mass_kg: i.wet_mass_kg * times, ..*i }).collect();
        let (one, many) = (sum(&items, water).unwrap(), sum(&scaled, water * times).unwrap());
        for (a, b) in ratios(&one).into_iter().zip(ratios(&many)) {
            prop_assert!((a - b).abs() <= 1e-9 * a.abs().max(1.0));
        }
        prop_assert!((many.dry_matter_kg - one.dry_matter_kg * times).abs() <= 1e-9 * many.dry_matter_kg);
    }

    #[test]
    fn adding_water_never_changes_the_ratio_of_carbon(items in any_mix(), water in 0.0..5_000.0_f64) {
        let (dry, wet) = (sum(&items, 0.0).unwrap(), sum(&items, water).unwrap());
        prop_assert_eq!(dry.c_n, wet.c_n);
        prop_assert_eq!(dry.available_c_n, wet.available_c_n);
        prop_assert_eq!(dry.heap_volume_l, wet.heap_volume_l);
        prop_assert!(wet.moisture >= dry.moisture);
        // Each litre of water takes the place of a litre of air, and of nothing else.
        let filled = (dry.free_air_space - wet.free_air_space) * dry.heap_volume_l;
        prop_assert!((filled - water).abs() <= 1e-9 * (water + dry.heap_volume_l + dry.wet_mass_kg));
    }

    #[test]
    fn a_mix_lies_between_its_materials(items in any_mix()) {
        let mix = sum(&items, 0.0).unwrap();
        let between = |value: f64, of: &dyn Fn(&Item) -> Option<f64>| {
            let all: Vec<f64> = items.iter().filter_map(of).collect();
            let low = all.iter().copied().fold(f64::INFINITY, f64::min);
            let high = all.iter().copied().fold(f64::NEG_INFINITY, f64::max);
            value >= low - 1e-9 * low.abs() && value <= high + 1e-9 * high.abs()
        };
        prop_assert!(between(mix.c_n, &|i| (i.nitrogen_kg() > 0.0).then_some(i.figures.c_n.value)));
        prop_assert!(between(mix.moisture, &|i| Some(i.figures.moisture.value.get())));
        let air = |i: &Item| 1.0 - (i.water_kg() + i.solids_l()) / i.heap_volume_l();
        // What is poured has no room of its own, and takes from that of the others.
        if !items.iter().any(Item::is_poured) {
            prop_assert!(between(mix.free_air_space, &|i| Some(air(i))));
        }
        prop_assert!(between(mix.c_n_counted, &|i| (i.nitrogen_kg() > 0.0).then_some(i.figures.c_n.value)));
        prop_assert!(between(mix.wet_max.unwrap(), &|i| i.figures.wet_max.map(|wettest| wettest.value.get())));
    }

    #[test]
    fn order_does_not_matter(items in any_mix(), water in 0.0..500.0_f64) {
        let mut reversed = items.clone();
        reversed.reverse();
        let (one, other) = (sum(&items, water).unwrap(), sum(&reversed, water).unwrap());
        for (a, b) in ratios(&one).into_iter().zip(ratios(&other)) {
            prop_assert!((a - b).abs() <= 1e-9 * a.abs().max(1.0));
        }
    }

    #[test]
    fn available_carbon_is_never_more_than_carbon(items in any_mix()) {
        let mix = sum(&items, 0.0).unwrap();
        prop_assert!(mix.available_c_n <= mix.c_n * (1.0 + 1e-9));
    }

    #[test]
    fn the_water_asked_for_brings_the_moisture_asked_for(items in any_mix(), wanted in 0.05..0.95_f64) {
        let mix = sum(&items, 0.0).unwrap();
        let need = water_to_add(mix.dry_matter_kg, mix.wet_mass_kg, Band::new(wanted, wanted).unwrap()).aim;
        prop_assume!(need >= 0.0);
        prop_assert!((sum(&items, need).unwrap().moisture - wanted).abs() < 1e-9);
    }

    #[test]
    fn no_figures_yield_nan_or_a_panic(
        mass in 0.0..1e6_f64, moisture in 0.0..=1.0_f64, n in 0.0..=1.0_f64, c_n in 0.0..1_000.0_f64,
        ash in 0.0..=1.0_f64, lignin in 0.0..=1.0_f64, density in 0.001..5.0_f64, settle in 0.05..=1.0_f64, water in 0.0..1e6_f64,
    ) {
        let own = Own {
            moisture: Fraction::new(moisture).ok(), nitrogen: Fraction::new(n).ok(), c_n: Some(c_n), ash: Fraction::new(ash).ok(),
            lignin: Fraction::new(lignin).ok(), density_kg_l: Some(density), settle: Some(settle), chopped: false,
            ..Own::default()
        };
        let items = [Item { wet_mass_kg: mass, figures: figures(None, &own).unwrap() }];
        if let Ok(mix) = sum(&items, water) {
            prop_assert!(ratios(&mix).into_iter().all(f64::is_finite));
        }
    }
}
