//! What was laid stays, the sums follow it, and the rest brings the heap back.

use proptest::prelude::*;

use super::rest::{Way, ways};
use super::*;
use crate::base::quantity::Band;
use crate::mix::window::{Standing, Window};
use crate::plan::formulate::Status;
use crate::plan::layers::{LayerItem, plan};
use crate::stock::material;
use crate::stock::{Own, figures};

const BAY: Shape = Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 120.0 };

/// Supplies in measures of so many litres, with so many measures spare.
fn supply(id: &str, measure_l: Option<f64>, spare: f64) -> Lot {
    let row = material::find(id).expect("in the table");
    let figures = figures(Some(row), &Own::default()).expect("in the table");
    let step_kg = measure_l.map(|litres| litres * figures.density_kg_l.value);
    Lot::up_to(spare * step_kg.unwrap_or(1.0), figures, row.kind).in_steps(step_kg)
}

/// Straw in cloths of 60 L, dung in barrows of 70 L, scraps in buckets of 15 L, soil by weight.
fn terrace() -> Vec<Lot> {
    vec![
        supply("barley-straw", Some(60.0), 6.0),
        supply("sheep-manure", Some(70.0), 1.0),
        supply("vegetable-scraps", Some(15.0), 3.0),
        supply("garden-soil", None, 0.0),
    ]
}

const IDS: [&str; 4] = ["barley-straw", "sheep-manure", "vegetable-scraps", "garden-soil"];
const COUNTS: [f64; 4] = [16.0, 2.0, 5.0, 4.0];
const WATER_L: f64 = 72.0;

fn planned(supplies: &[Lot], method: Option<&str>) -> Vec<Step> {
    let parts: Vec<LayerItem> = (0..supplies.len())
        .map(|at| {
            let kg = COUNTS[at] * supplies[at].step_kg.unwrap_or(1.0);
            let item = Item { wet_mass_kg: kg, figures: supplies[at].figures };
            LayerItem::new(item, material::find(IDS[at]), supplies[at].step_kg.map(|_| COUNTS[at]))
        })
        .collect();
    let items: Vec<Item> = parts.iter().map(|part| part.item).collect();
    let method = method.map(|id| crate::plan::method::find(id).expect("listed"));
    let mix = sum(&items, WATER_L).expect("has nitrogen");
    steps(&plan(&parts, &mix, WATER_L, BAY, method), supplies)
}

fn kg_of(steps: &[Step], supply: usize) -> f64 {
    steps.iter().map(|step| step.kg_of(supply)).sum()
}

#[test]
fn the_steps_of_a_plan_hold_all_of_it() {
    let supplies = terrace();
    for method in [None, Some("layered-heap"), Some("rapid-turned"), Some("slow-bin")] {
        let steps = planned(&supplies, method);
        for (at, count) in COUNTS.iter().enumerate() {
            let whole = count * supplies[at].step_kg.unwrap_or(1.0);
            assert!((kg_of(&steps, at) - whole).abs() < 1e-6, "{method:?} {}", IDS[at]);
        }
        let water: f64 = steps.iter().map(|step| step.water_l).sum();
        assert!((water - WATER_L).abs() < 1e-9, "{method:?}");
    }
}

#[test]
fn what_is_mixed_first_is_a_step_a_load() {
    let supplies = terrace();
    let loads = planned(&supplies, Some("rapid-turned"));
    let loads: Vec<_> = loads.iter().filter(|step| step.cycle.is_some()).collect();
    assert!(loads.iter().all(|load| load.portions.len() == supplies.len()), "{loads:?}");
    assert!(loads.windows(2).all(|two| two[0].cycle < two[1].cycle));
}

#[test]
fn acts_come_to_a_stand_and_the_last_can_be_left_out() {
    let plan = planned(&terrace(), Some("layered-heap"));
    let short = Step { water_l: 1.0, ..plan[0].clone() };
    let acts = [
        Act::Planned { from: 0, steps: plan.clone() },
        Act::Laid { at: 0, step: plan[0].clone() },
        Act::Laid { at: 2, step: plan[2].clone() },
        Act::Laid { at: 1, step: plan[1].clone() },
        Act::Planned { from: 1, steps: Vec::new() },
        Act::Planned { from: 2, steps: plan[3..].to_vec() },
        Act::Laid { at: 0, step: short.clone() },
    ];
    let stand = Stand::of(acts.clone());
    assert_eq!(stand.laid, [short, plan[1].clone()]);
    assert_eq!(stand.rest(), &plan[3..]);
    assert_eq!(Stand::of(acts[..6].to_vec()).laid, plan[..2]);
    assert_eq!(Stand::of([]), Stand::default());
}

#[test]
fn the_sums_follow_what_was_laid_and_the_tops_rise() {
    let supplies = terrace();
    let plan = planned(&supplies, Some("layered-heap"));
    let windows = Windows::default();
    let mut last = 0.0;
    for done in 0..=plan.len() {
        let (laid, rest) = plan.split_at(done);
        let got = progress(&supplies, laid, rest, BAY, &windows);
        let mass = got.so_far.map_or(0.0, |mix| mix.wet_mass_kg);
        let by_hand: f64 = laid.iter().map(|step| step.water_l).sum::<f64>()
            + (0..supplies.len()).map(|at| kg_of(laid, at)).sum::<f64>();
        assert!(got.so_far.is_none() || (mass - by_hand).abs() < 1e-9, "{mass} {by_hand}");
        assert!(got.tops_cm.is_sorted());
        let end = got.at_end.expect("has nitrogen").c_n;
        assert!(last == 0.0 || (end - last).abs() < 1e-9, "nothing was changed");
        last = end;
    }
}

/// By hand: the dung is short, so the heap would end too brown; of all that can be
/// done, leaving out straw and putting in scraps, the least is done.
#[test]
fn a_short_layer_is_made_up_for_by_the_rest() {
    let supplies = terrace();
    let windows = Windows::default();
    let mut plan = planned(&supplies, Some("layered-heap"));
    let dung = plan.iter().position(|step| step.kg_of(1) > 0.0).expect("has dung");
    plan[dung].portions[0].kg *= 0.25;
    let (laid, rest) = plan.split_at(dung + 1);
    let off = progress(&supplies, laid, rest, BAY, &windows);
    assert_eq!(off.standings.expect("has nitrogen").of(Window::CN), Standing::Above);
    let new = ways(&supplies, laid, rest, (BAY, None), &windows).swap_remove(0);
    assert_eq!((new.status, new.way), (Status::Ok, Way::Size));
    assert!(windows.standings(&new.at_end).are_right());
    for (at, supply) in supplies.iter().enumerate() {
        if let Some(each) = supply.step_kg {
            let halves = kg_of(&new.steps, at) / each * 2.0;
            assert!((halves - halves.round()).abs() < 1e-6, "{} {halves}", IDS[at]);
        }
    }
    let more_or_less = |at: usize| kg_of(&new.steps, at) - kg_of(rest, at);
    assert!(more_or_less(0) <= 1e-9 && more_or_less(1) >= -1e-9 && more_or_less(2) >= -1e-9);
}

/// The dung is short: whoever keeps the size takes scraps from the stock, whoever keeps the stock
/// builds a smaller heap, and both are told how high and whether it heats.
#[test]
fn there_are_two_ways_one_keeps_the_size_and_one_the_stock() {
    let supplies = terrace();
    let windows = Windows::default();
    let mut plan = planned(&supplies, Some("layered-heap"));
    let dung = plan.iter().position(|step| step.kg_of(1) > 0.0).expect("has dung");
    plan[dung].portions[0].kg *= 0.5;
    let (laid, rest) = plan.split_at(dung + 1);
    let litres = |steps: &[Step]| steps.iter().map(|step| step.heap_volume_l(&supplies)).sum::<f64>();
    let [size, stock] = &ways(&supplies, laid, rest, (BAY, None), &windows)[..] else { panic!("two ways") };
    assert_eq!((size.way, stock.way), (Way::Size, Way::Stock));
    assert!(litres(&size.steps) + litres(laid) >= 0.95 * (litres(rest) + litres(laid)) - 1e-6);
    assert!((0..supplies.len()).all(|at| kg_of(&stock.steps, at) <= kg_of(rest, at) + 1e-6));
    assert!(stock.height_cm < size.height_cm);
    assert!((size.height_cm - BAY.height_of_cm(litres(&size.steps) + litres(laid))).abs() < 0.01);
}

#[test]
fn too_little_water_is_made_up_by_water_alone() {
    let supplies = terrace();
    let moisture = Band::new(0.54, 0.60).expect("in order");
    let windows = Windows::new(Windows::default().c_n(), moisture, 0.35);
    let mut plan = planned(&supplies, Some("layered-heap"));
    for step in &mut plan {
        step.water_l = 0.0;
    }
    let (laid, rest) = plan.split_at(3);
    assert!(progress(&supplies, laid, rest, BAY, &windows).is_off());
    let new = ways(&supplies, laid, rest, (BAY, None), &windows).swap_remove(0);
    assert_eq!(new.status, Status::Ok);
    for (at, id) in IDS.iter().enumerate() {
        assert!((kg_of(&new.steps, at) - kg_of(rest, at)).abs() < 1e-3, "{id}");
    }
    assert!((new.at_end.moisture - windows.moisture().middle()).abs() < 1e-3);
}

#[test]
fn after_the_last_layer_one_more_can_put_it_right() {
    let supplies = [supply("barley-straw", Some(60.0), 9.0), supply("sheep-manure", Some(70.0), 2.0)];
    let lay = |supply: usize, count: f64, water_l| Step {
        role: LayerRole::Mix,
        cycle: Some(1),
        portions: vec![Portion { supply, kg: count * supplies[supply].step_kg.expect("counted") }],
        water_l,
        beside_l: 0.0,
    };
    let laid = [lay(0, 8.0, 30.0), lay(1, 2.0, 10.0)];
    let windows = Windows::default();
    let before = progress(&supplies, &laid, &[], BAY, &windows).standings.expect("has nitrogen");
    assert!(matches!(before.of(Window::CN), Standing::Below | Standing::FarBelow));
    let new = ways(&supplies, &laid, &[], (BAY, None), &windows).swap_remove(0);
    assert_eq!((new.status, new.steps.len()), (Status::Ok, 1));
    assert_eq!(new.steps[0].portions[0].supply, 0);
}

#[test]
fn what_cannot_be_put_right_is_changed_only_if_it_comes_much_nearer() {
    let try_with = |spare: f64| {
        let supplies = [supply("barley-straw", Some(60.0), 0.0), supply("sheep-manure", Some(70.0), spare)];
        let lay = |supply: usize, count: f64| Step {
            role: LayerRole::Mix,
            cycle: Some(1),
            portions: vec![Portion { supply, kg: count * supplies[supply].step_kg.expect("counted") }],
            water_l: 20.0,
            beside_l: 0.0,
        };
        let windows = Windows::default();
        let (laid, rest) = ([lay(0, 20.0)], [lay(1, 0.5)]);
        let was = progress(&supplies, &laid, &rest, BAY, &windows).at_end.expect("has nitrogen");
        (was, ways(&supplies, &laid, &rest, (BAY, None), &windows).into_iter().next())
    };
    assert_eq!(try_with(0.0).1, None, "there is nothing to put in");
    let (was, new) = try_with(0.75);
    let new = new.expect("there is more dung");
    assert_eq!(new.status, Status::Nearest);
    assert!(new.at_end.c_n < was.c_n && new.at_end.c_n > Windows::default().c_n().high());
    assert_eq!(try_with(3.0).1.map(|new| new.status), Some(Status::Ok));
}

proptest! {
    /// However the first steps went, what is planned anew uses no more than there is,
    /// and is right whenever it says so.
    #[test]
    fn the_rest_keeps_to_what_there_is(times in proptest::collection::vec(0.0..2.0_f64, 6), done in 1..6_usize) {
        let supplies = terrace();
        let windows = Windows::default();
        let mut plan = planned(&supplies, Some("layered-heap"));
        for (step, times) in plan.iter_mut().zip(times).take(done) {
            step.water_l *= times;
            step.portions.iter_mut().for_each(|portion| portion.kg *= times);
        }
        let (laid, rest) = plan.split_at(done);
        for new in ways(&supplies, laid, rest, (BAY, None), &windows) {
        for (at, supply) in supplies.iter().enumerate() {
            let spare = if new.way == Way::Stock { 0.0 } else { supply.most_kg };
            prop_assert!(kg_of(&new.steps, at) <= kg_of(rest, at) + spare + 1e-3);
        }
        let all: Vec<Step> = laid.iter().chain(&new.steps).cloned().collect();
        let got = progress(&supplies, &all, &[], BAY, &windows).at_end.expect("has nitrogen");
        prop_assert!((got.c_n - new.at_end.c_n).abs() < 1e-6);
        prop_assert!(new.status != Status::Ok || windows.standings(&got).are_right(), "{got:?}");
        }
    }
}
