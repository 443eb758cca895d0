//! Speed of formulation: any amounts and whole measures, over stocks of some size.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use zymarch_core::base::quantity::Band;
use zymarch_core::mix::window::Windows;
use zymarch_core::plan::formulate::{Aim, Wanted, formulate};
use zymarch_core::stock::Lot;
use zymarch_core::stock::material;
use zymarch_core::stock::{Own, figures};

/// The first lots of the table that are food for a heap and not refused, a
/// few barrows of each.
fn stock(lots: usize, whole: bool) -> Wanted {
    let lots = material::all()
        .iter()
        .filter(|row| !row.must_not_go_in() && row.c_n.typical > 0.0)
        .step_by(material::all().len() / (lots + 5).min(60))
        .chain(material::all().iter().filter(|row| !row.must_not_go_in() && row.c_n.typical > 0.0))
        .take(lots)
        .enumerate()
        .map(|(place, row)| {
            let figures = figures(Some(row), &Own::default()).expect("in the table");
            let barrow = 70.0 * figures.density_kg_l.value;
            Lot {
                figures,
                uncertainty: None,
                kind: row.kind,
                most_kg: barrow * (2 + place % 5) as f64,
                least_kg: 0.0,
                cost_per_kg: 0.01 * (place % 7) as f64,
                urgency: 1.0 / row.keeps_days.map_or(365.0, f64::from),
                step_kg: whole.then_some(barrow),
            }
        })
        .collect();
    Wanted {
        lots,
        windows: Windows::new(Windows::default().c_n(), Windows::default().moisture(), 0.30),
        volume_l: Band::new(800.0, 1500.0).ok(),
        caps: Vec::new(),
        aim: Aim::UseSoonest,
        is_cautious: false,
        water_max_l: None,
        water_step_l: whole.then_some(1.0),
    }
}

fn speed(criterion: &mut Criterion) {
    for lots in [10, 30, 100] {
        let wanted = stock(lots, false);
        criterion
            .bench_function(&format!("formulate {lots} lots"), |b| b.iter(|| formulate(black_box(&wanted))));
    }
    for lots in [12, 20] {
        for aim in [Aim::UseSoonest, Aim::Balanced] {
            let wanted = Wanted { aim, ..stock(lots, true) };
            criterion.bench_function(&format!("{lots} lots in whole measures, {}", aim.as_str()), |b| {
                b.iter(|| formulate(black_box(&wanted)));
            });
        }
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().sample_size(20);
    targets = speed
}
criterion_main!(benches);
