//! Speed of the sums that run at every tap on the bench.
//!
//! `cargo bench -p zymarch-core`; what is held to stands in ARCHITECTURE.md.

use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use zymarch_core::mix::confidence::{DRAWS, KeptDraws, SEED, confidence};
use zymarch_core::mix::mend::{self, Candidate};
use zymarch_core::mix::window::Windows;
use zymarch_core::mix::{Item, sum};
use zymarch_core::plan::heap::Shape;
use zymarch_core::plan::layers::{self, LayerItem};
use zymarch_core::stock::material::Kind;
use zymarch_core::stock::{Counted, Lot, Uncertainty, ranges};
use zymarch_core::{stock, stock::material};

const TWELVE: [(&str, f64); 12] = [
    ("barley-straw", 54.0),
    ("faba-bean-haulm", 36.0),
    ("sheep-manure", 20.0),
    ("guinea-pig-manure", 46.0),
    ("vegetable-scraps", 24.0),
    ("tree-leaves-dry", 12.0),
    ("coffee-grounds", 6.0),
    ("grass-clippings", 18.0),
    ("layer-hen-manure", 9.0),
    ("wood-ash", 1.0),
    ("garden-soil", 15.0),
    ("hedge-prunings", 14.0),
];

fn parts() -> Vec<LayerItem> {
    TWELVE
        .iter()
        .map(|&(id, wet_mass_kg)| {
            let material = material::find(id).expect("in the table");
            let figures = stock::figures(Some(material), &stock::Own::default()).expect("in the table");
            LayerItem::new(Item { wet_mass_kg, figures }, Some(material), Some(3.0))
        })
        .collect()
}

fn speed(criterion: &mut Criterion) {
    let parts = parts();
    let items: Vec<_> = parts.iter().map(|part| part.item).collect();
    let mix = sum(&items, 60.0).expect("has nitrogen");
    let candidates: Vec<_> = items
        .iter()
        .enumerate()
        .map(|(index, item)| Candidate {
            lot: Lot::up_to(12.0 * item.wet_mass_kg, item.figures, Kind::Brown)
                .in_steps(Some(item.wet_mass_kg)),
            in_mix: Some(index),
        })
        .collect();
    let bay = Shape::Box { length_cm: 120.0, width_cm: 120.0, height_cm: 120.0 };
    criterion.bench_function("mix of 12 items", |b| b.iter(|| sum(black_box(&items), 60.0)));
    criterion.bench_function("best step over 12 lots", |b| {
        b.iter(|| mend::best(black_box(&items), 400.0, &candidates, &Windows::default()));
    });
    let own = stock::Own::default();
    let uncertainties: Vec<_> = TWELVE
        .iter()
        .zip(&items)
        .map(|((id, _), item)| Uncertainty {
            ranges: ranges(material::find(id), &own, &item.figures),
            counted: Counted::ByVolume,
        })
        .collect();
    criterion.bench_function("confidence of 12 items, 2000 draws", |b| {
        b.iter(|| confidence(black_box(&items), &uncertainties, 60.0, &Windows::default(), DRAWS, SEED));
    });
    let kept = KeptDraws::default();
    let mut kg = 54.0;
    criterion.bench_function("confidence of 12 items, 2000 draws, after a tap", |b| {
        let mut items = items.clone();
        b.iter(|| {
            kg = if kg > 100.0 { 54.0 } else { kg + 1.0 };
            items[0].wet_mass_kg = kg;
            kept.confidence(black_box(&items), &uncertainties, 60.0, &Windows::default(), DRAWS, SEED)
        });
    });
    criterion.bench_function("layers of 12 parts", |b| {
        b.iter(|| layers::plan(black_box(&parts), &mix, 60.0, bay, None))
    });
}

criterion_group!(benches, speed);
criterion_main!(benches);
