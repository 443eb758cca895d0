//! Layers add up, lie in order, and keep whole measures whole.

use proptest::prelude::*;

use super::share::{over, proportional};
use super::*;
use crate::mix::sum;
use crate::plan::method;
use crate::stock::material;
use crate::stock::{Own, figures};

const BAY: Shape = Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 };

fn part(id: &str, wet_mass_kg: f64, measures: Option<f64>) -> LayerItem {
    let material = material::find(id).expect("in the table");
    let figures = figures(Some(material), &Own::default()).expect("in the table");
    LayerItem::new(Item { wet_mass_kg, figures }, Some(material), measures)
}

fn plan_by(parts: &[LayerItem], water_l: f64, shape: Shape, method: Option<&str>) -> LayerPlan {
    let items: Vec<_> = parts.iter().map(|part| part.item).collect();
    let method = method.map(|id| method::find(id).expect("listed"));
    plan(parts, &sum(&items, water_l).expect("has nitrogen"), water_l, shape, method)
}

fn plan_of(parts: &[LayerItem], water_l: f64) -> LayerPlan {
    plan_by(parts, water_l, BAY, None)
}

fn terrace() -> Vec<LayerItem> {
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
            .filter(|layer| layer.cycle == Some(cycle))
            .filter_map(|layer| layer.part)
            .map(|part| parts[part].layer)
            .collect();
        assert!(places.is_sorted(), "{places:?}");
    }
}

/// What lies directly on what, from the ground up.
fn touching(parts: &[LayerItem], plan: &LayerPlan) -> Vec<(PatternLayer, bool)> {
    let parts: Vec<_> = plan.layers.iter().filter_map(|layer| layer.part).map(|part| parts[part]).collect();
    parts.iter().map(|part| (part.layer, part.drives_off_ammonia)).collect()
}

#[test]
fn ash_touches_no_dung_in_any_cycle() {
    let dung = |(layer, _): (PatternLayer, bool)| layer == PatternLayer::Manure;
    for with_greens in [true, false] {
        let mut parts = vec![
            part("goat-manure", 60.0, Some(2.0)),
            part("wood-ash", 3.0, None),
            part("maize-stover", 60.0, Some(16.0)),
            part("garden-soil", 6.0, None),
        ];
        if with_greens {
            parts.push(part("vegetable-scraps", 24.0, Some(4.0)));
        } else {
            // Straw and dung alone: every place in a cycle touches dung.
            parts.truncate(3);
        }
        let plan = plan_of(&parts, 90.0);
        assert!(plan.cycles > 1);
        let laid = touching(&parts, &plan);
        assert!(laid.iter().any(|(_, is_ash)| *is_ash));
        for two in laid.windows(2) {
            let is_ash_on_dung = two[0].1 && dung(two[1]) || two[1].1 && dung(two[0]);
            assert!(!is_ash_on_dung, "{laid:?}");
        }
    }
}

#[test]
fn wet_banana_stems_are_laid_like_greens_and_never_lie_lowest() {
    let parts = [
        part("banana-pseudostem", 60.0, None),
        part("maize-stover", 60.0, None),
        part("goat-manure", 60.0, None),
    ];
    let plan = plan_of(&parts, 10.0);
    assert_eq!(plan.layers[0].part, Some(1));
    assert_eq!(parts[0].layer, PatternLayer::Green);
}

#[test]
fn dry_straw_takes_the_water_and_wet_scraps_none() {
    let plan = plan_of(&terrace(), 72.0);
    for layer in &plan.layers {
        match layer.part {
            Some(1) => assert!(layer.water_ml > 0),
            Some(2) => assert_eq!(layer.water_ml, 0),
            _ => {}
        }
    }
}

#[test]
fn whole_measures_stay_whole_where_they_divide() {
    let plan = plan_of(&terrace(), 72.0);
    for layer in plan.layers.iter().filter(|layer| layer.part == Some(1)) {
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
        over(77_000, Some(2.0), &[1.0 / 3.0; 3], 0.0).iter().map(|share| share.measures).collect();
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

const PILE: Shape = Shape::Pile { length_cm: 200.0, width_cm: 180.0, top_cm: 90.0, height_cm: 150.0 };

fn large() -> Vec<LayerItem> {
    vec![
        part("sheep-manure", 310.0, Some(8.0)),
        part("barley-straw", 120.0, Some(40.0)),
        part("vegetable-scraps", 96.0, Some(16.0)),
    ]
}

#[test]
fn a_layered_heap_stands_on_twigs_and_is_capped_with_straw() {
    let parts = large();
    let plan = plan_by(&parts, 200.0, PILE, Some("layered-heap"));
    let (first, last) = (plan.layers[0], *plan.layers.last().expect("some"));
    assert_eq!((first.role, first.part, first.grams), (LayerRole::Foundation, None, 0));
    // Twenty centimetres of a heap that narrows from 200 × 180 by 12 cm: by the prismoid formula.
    let by_hand = 20.0 / 6.0 * (36_000.0 + 4.0 * 194.0 * 174.0 + 188.0 * 168.0) / 1000.0;
    assert!((first.litres - by_hand).abs() < 1.0, "{} {by_hand}", first.litres);
    assert!((first.top_cm - 20.0).abs() < 1e-6);
    assert_eq!((last.role, last.part, last.cycle), (LayerRole::Cap, Some(1), None));
    assert!((5.0..16.0).contains(&last.thickness_cm), "{}", last.thickness_cm);
    assert_eq!(plan.vents, [(0.0, 0.0)]);
}

#[test]
fn upper_cycles_of_a_sloping_heap_hold_less() {
    let parts = large();
    let plan = plan_by(&parts, 200.0, PILE, Some("layered-heap"));
    let of = |cycle| -> u64 {
        plan.layers.iter().filter(|layer| layer.cycle == Some(cycle)).map(|layer| layer.grams).sum()
    };
    assert!(plan.cycles >= 3, "{}", plan.cycles);
    assert!(of(1) as f64 > 1.1 * of(plan.cycles) as f64, "{} {}", of(1), of(plan.cycles));
}

#[test]
fn without_straw_the_cap_is_no_part_of_the_mix() {
    let parts = [part("sheep-manure", 400.0, None), part("vegetable-scraps", 96.0, None)];
    let plan = plan_by(&parts, 0.0, PILE, Some("layered-heap"));
    let last = plan.layers.last().expect("some");
    assert_eq!((last.role, last.part, last.grams), (LayerRole::Cap, None, 0));
    assert!(last.litres > 0.0 && last.water_ml == 0);
}

#[test]
fn sheets_of_card_lie_between_the_greens() {
    let parts = [
        part("cardboard", 60.0, Some(12.0)),
        part("vegetable-scraps", 200.0, Some(30.0)),
        part("barley-straw", 20.0, Some(6.0)),
    ];
    let plan = plan_by(&parts, 60.0, BAY, Some("sheet-layered"));
    let first: Vec<_> = plan.layers.iter().filter(|layer| layer.cycle == Some(1)).collect();
    let (green, card) =
        (first.iter().position(|l| l.part == Some(1)), first.iter().position(|l| l.part == Some(0)));
    assert!(green < card, "{first:?}");
    assert!(plan.layers.iter().filter(|l| l.part == Some(0)).all(|l| l.role == LayerRole::Separator));
}

#[test]
fn what_is_mixed_first_comes_in_loads_that_are_alike() {
    let parts = large();
    let plan = plan_by(&parts, 200.0, BAY, Some("rapid-turned"));
    assert_eq!(plan.build, Build::Mixed);
    let loose: f64 = parts.iter().map(|part| part.item.volume_l()).sum();
    assert!((75.0..300.0).contains(&(loose / f64::from(plan.cycles))), "{}", plan.cycles);
    assert!(plan.layers.iter().all(|layer| layer.role == LayerRole::Mix));
    for layer in plan.layers.iter().filter(|layer| layer.part == Some(0)) {
        assert!(layer.grams.abs_diff(310_000 / u64::from(plan.cycles)) < 20_000, "{}", layer.grams);
    }
}

#[test]
fn a_tower_has_its_columns_and_a_mesh_ring_its_pipe() {
    let tower = Shape::Tower { diameter_cm: 140.0, height_cm: 180.0, columns: 4 };
    assert_eq!(plan_by(&large(), 200.0, tower, Some("static-tower")).vents.len(), 4);
    let ring = Shape::Ring { diameter_cm: 95.0, height_cm: 110.0 };
    assert_eq!(plan_by(&terrace(), 72.0, ring, Some("wire-ring")).vents.len(), 1);
    assert_eq!(plan_of(&terrace(), 72.0).vents, []);
}

fn any_shape() -> impl Strategy<Value = Shape> {
    prop::sample::select(vec![
        BAY,
        PILE,
        Shape::Ring { diameter_cm: 95.0, height_cm: 110.0 },
        Shape::Windrow { length_cm: 300.0, width_cm: 220.0, height_cm: 110.0 },
        Shape::Drum { diameter_cm: 57.0, height_cm: 85.0 },
        Shape::LyingDrum { diameter_cm: 57.0, length_cm: 85.0 },
        Shape::Tower { diameter_cm: 120.0, height_cm: 170.0, columns: 4 },
    ])
}

fn any_method() -> impl Strategy<Value = Option<&'static str>> {
    let ids: Vec<_> = method::all().iter().map(|method| method.id.as_str()).collect();
    prop::option::of(prop::sample::select(ids))
}

fn any_parts() -> impl Strategy<Value = Vec<LayerItem>> {
    let rows = material::all().len();
    let one = (0..rows, 0.0..2_000.0_f64, prop::option::of(0.25..40.0_f64))
        .prop_map(|(row, kg, measures)| part(&material::all()[row].id, kg, measures));
    prop::collection::vec(one, 1..10)
        .prop_filter("has nitrogen", |parts| parts.iter().any(|part| part.item.nitrogen_kg() > 0.001))
        .prop_filter("is not all poured", |parts| parts.iter().any(|part| part.item.heap_volume_l() > 0.001))
}

proptest! {
    #[test]
    fn layers_add_up_to_the_mix_to_the_gram_and_the_millilitre(
        parts in any_parts(), water_l in 0.0..3_000.0_f64, shape in any_shape(), method in any_method(),
    ) {
        let plan = plan_by(&parts, water_l, shape, method);
        for (index, part) in parts.iter().enumerate() {
            let grams: u64 = plan.layers.iter().filter(|l| l.part == Some(index)).map(|l| l.grams).sum();
            prop_assert_eq!(grams, part.grams());
            if let (Some(measures), true) = (part.measures, grams > 0) {
                let counted: f64 = plan.layers.iter().filter(|l| l.part == Some(index)).filter_map(|l| l.measures).sum();
                // A part of a few grams may leave a cycle empty.
                prop_assert!((counted - measures).abs() < 1e-6 || grams < 100);
            }
        }
        let water: u64 = plan.layers.iter().map(|l| l.water_ml).sum();
        prop_assert_eq!(water, (water_l * 1000.0).round() as u64);
    }

    #[test]
    fn heights_rise_from_the_ground_without_gaps(
        parts in any_parts(), shape in any_shape(), method in any_method(),
    ) {
        let plan = plan_by(&parts, 0.0, shape, method);
        let mut top = 0.0;
        for layer in &plan.layers {
            // What is poured has no height, and what is too much for sloping sides stands no higher.
            let is_poured = layer.part.is_some_and(|part| parts[part].item.is_poured());
            prop_assert!(layer.thickness_cm > 0.0 || is_poured || !shape.is_straight());
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
