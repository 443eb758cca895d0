//! Layers add up, lie in order, and keep whole measures whole.

use proptest::prelude::*;

use super::*;
use crate::material;
use crate::mix::sum;
use crate::stock::{Own, figures};

const BAY: Shape = Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 };

fn part(id: &str, wet_mass_kg: f64, measures: Option<f64>) -> Part {
    let material = material::find(id).expect("in the table");
    let figures = figures(Some(material), &Own::default()).expect("in the table");
    Part { item: Item { wet_mass_kg, figures }, kind: material.kind, measures }
}

fn plan_of(parts: &[Part], water_l: f64) -> Plan {
    let items: Vec<_> = parts.iter().map(|part| part.item).collect();
    plan(parts, &sum(&items, water_l).expect("has nitrogen"), water_l, BAY)
}

fn terrace() -> Vec<Part> {
    vec![
        part("sheep-manure", 77.0, Some(2.0)),
        part("barley-straw", 54.0, Some(18.0)),
        part("vegetable-scraps", 24.0, Some(4.0)),
    ]
}

#[test]
fn browns_lie_below_greens_and_dung_in_every_cycle() {
    let parts = terrace();
    let plan = plan_of(&parts, 72.0);
    for cycle in 1..=plan.cycles {
        let places: Vec<_> = plan
            .layers
            .iter()
            .filter(|layer| layer.cycle == cycle)
            .map(|layer| place_in_cycle(parts[layer.part].kind))
            .collect();
        assert!(places.is_sorted(), "{places:?}");
    }
}

#[test]
fn dry_straw_takes_the_water_and_wet_scraps_none() {
    let plan = plan_of(&terrace(), 72.0);
    for layer in &plan.layers {
        match layer.part {
            1 => assert!(layer.water_ml > 0),
            2 => assert_eq!(layer.water_ml, 0),
            _ => {}
        }
    }
}

#[test]
fn whole_measures_stay_whole_where_they_divide() {
    let plan = plan_of(&terrace(), 72.0);
    for layer in plan.layers.iter().filter(|layer| layer.part == 1) {
        let count = layer.measures.expect("counted in cloths");
        assert!(count.fract().abs() < 1e-9, "{count}");
    }
}

#[test]
fn the_height_is_the_heap_volume_over_the_ground() {
    let parts = terrace();
    let plan = plan_of(&parts, 72.0);
    let litres: f64 = parts.iter().map(|part| part.item.heap_volume_l()).sum();
    assert!((plan.height_cm - BAY.height_of_cm(litres)).abs() < 1e-3);
}

#[test]
fn two_barrows_over_three_cycles_go_in_quarters() {
    let counts: Vec<_> =
        shares(&part("sheep-manure", 77.0, Some(2.0)), 3).iter().map(|share| share.measures).collect();
    assert_eq!(counts, [Some(1.0), Some(0.5), Some(0.5)]);
}

#[test]
fn thick_straw_is_divided_though_small_lots_then_lie_thin() {
    let mut parts = vec![part("barley-straw", 54.0, Some(18.0))];
    parts.extend(
        ["sheep-manure", "pig-manure", "rabbit-manure", "goat-manure"].map(|id| part(id, 12.0, Some(1.0))),
    );
    let plan = plan_of(&parts, 60.0);
    assert!(plan.cycles >= 2, "{}", plan.cycles);
    assert!(plan.layers.iter().all(|layer| layer.thickness_cm <= 25.0 + 1e-9));
}

#[test]
fn a_single_material_is_one_layer_a_cycle() {
    let plan = plan_of(&[part("sheep-manure", 100.0, None)], 0.0);
    assert_eq!(plan.layers.len(), plan.cycles as usize);
}

fn any_parts() -> impl Strategy<Value = Vec<Part>> {
    let rows = material::all().len();
    let one = (0..rows, 0.0..2_000.0_f64, prop::option::of(0.25..40.0_f64))
        .prop_map(|(row, kg, measures)| part(&material::all()[row].id, kg, measures));
    prop::collection::vec(one, 1..10)
        .prop_filter("has nitrogen", |parts| parts.iter().any(|part| part.item.nitrogen_kg() > 0.001))
}

proptest! {
    #[test]
    fn layers_add_up_to_the_mix_to_the_gram_and_the_millilitre(parts in any_parts(), water_l in 0.0..3_000.0_f64) {
        let plan = plan_of(&parts, water_l);
        for (index, part) in parts.iter().enumerate() {
            let grams: u64 = plan.layers.iter().filter(|l| l.part == index).map(|l| l.grams).sum();
            prop_assert_eq!(grams, grams_of(part));
            if let (Some(measures), true) = (part.measures, grams > 0) {
                let counted: f64 = plan.layers.iter().filter(|l| l.part == index).filter_map(|l| l.measures).sum();
                // A part of a few grams may leave a cycle empty.
                prop_assert!((counted - measures).abs() < 1e-6 || grams < 100);
            }
        }
        let water: u64 = plan.layers.iter().map(|l| l.water_ml).sum();
        prop_assert_eq!(water, (water_l * 1000.0).round() as u64);
    }

    #[test]
    fn heights_rise_from_the_ground_without_gaps(parts in any_parts()) {
        let plan = plan_of(&parts, 0.0);
        let mut top = 0.0;
        for layer in &plan.layers {
            prop_assert!(layer.thickness_cm > 0.0);
            prop_assert!((layer.top_cm - top - layer.thickness_cm).abs() < 1e-6);
            top = layer.top_cm;
        }
    }

    #[test]
    fn a_number_is_split_without_loss(total in 0..10_000_000_u64, weights in prop::collection::vec(0..1_000_u64, 1..30)) {
        prop_assume!(weights.iter().any(|&w| w > 0));
        prop_assert_eq!(proportional(total, &weights).iter().sum::<u64>(), total);
    }
}
