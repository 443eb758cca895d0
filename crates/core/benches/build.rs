//! Speed of what is reckoned at every tick of build day.
//!
//! `cargo bench -p zymarch-core`; what is held to stands in ARCHITECTURE.md.

use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use zymarch_core::build::{Portion, Step, progress, rest};
use zymarch_core::mix::window::Windows;
use zymarch_core::plan::heap::Shape;
use zymarch_core::plan::layers::LayerRole;
use zymarch_core::stock::Lot;
use zymarch_core::stock::material::Kind;
use zymarch_core::{stock, stock::material};

const BAY: Shape = Shape::Box { length_cm: 150.0, width_cm: 150.0, height_cm: 150.0 };

/// Measures of each in one cycle, of so many litres.
const SIX: [(&str, f64, f64); 6] = [
    ("barley-straw", 60.0, 6.0),
    ("faba-bean-haulm", 60.0, 3.0),
    ("vegetable-scraps", 15.0, 2.0),
    ("grass-clippings", 40.0, 1.0),
    ("sheep-manure", 70.0, 1.0),
    ("guinea-pig-manure", 70.0, 1.0),
];

fn supplies() -> Vec<Lot> {
    SIX.iter()
        .map(|&(id, litres, _)| {
            let figures = stock::figures(material::find(id), &stock::Own::default()).expect("in the table");
            let each = litres * figures.density_kg_l.value;
            Lot::up_to(4.0 * each, figures, Kind::Brown).in_steps(Some(each))
        })
        .collect()
}

/// Four cycles of six layers; of the first, no dung went in.
fn steps(supplies: &[Lot]) -> Vec<Step> {
    (0..24)
        .map(|place| {
            let supply = place % SIX.len();
            let each = supplies[supply].step_kg.expect("counted");
            let count = if place == 4 { 0.0 } else { SIX[supply].2 };
            Step {
                role: LayerRole::Mix,
                cycle: Some(place as u32 / 6 + 1),
                portions: vec![Portion { supply, kg: count * each }],
                water_l: 6.0,
                beside_l: 0.0,
            }
        })
        .collect()
}

fn build_day(c: &mut Criterion) {
    let supplies = supplies();
    let steps = steps(&supplies);
    let (laid, to_come) = steps.split_at(6);
    let windows = Windows::default();
    c.bench_function("progress of 24 layers", |b| {
        b.iter(|| progress(black_box(&supplies), laid, to_come, BAY, &windows));
    });
    c.bench_function("rest of 18 layers planned anew", |b| {
        b.iter(|| rest::ways(black_box(&supplies), laid, to_come, (BAY, None), &windows));
    });
}

criterion_group!(benches, build_day);
criterion_main!(benches);
