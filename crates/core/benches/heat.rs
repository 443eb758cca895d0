//! The heat model over a season: held to 15 ms for 120 days at a step of an hour.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use zymarch_core::stock::material::Degradability::Medium;
use zymarch_core::tend::heat::run::{COARSE_STEP_H, FINE_STEP_H};
use zymarch_core::tend::heat::{Event, Form, Geometry, Happening, Part, Setting, Start, run};

/// Straw and fresh dung in two metres by two, turned four times.
fn speed(criterion: &mut Criterion) {
    let straw = Part {
        kg: 705.0,
        moisture: 0.12,
        ash: 0.07,
        nitrogen: 0.006,
        c_n: 75.0,
        lignin: 0.08,
        degradability: Medium,
        density_kg_m3: 60.0,
        settle: 0.6,
        ammonia_share: 0.05,
    };
    let dung = Part {
        kg: 2640.0,
        moisture: 0.82,
        ash: 0.18,
        nitrogen: 0.022,
        c_n: 20.0,
        lignin: 0.09,
        density_kg_m3: 900.0,
        settle: 0.95,
        ammonia_share: 0.2,
        ..straw
    };
    let mix = Start::of(&[straw, dung]);
    let turn = |day: f64| Event { at_h: day * 24.0, what: Happening::Turn { mixing: 0.85 } };
    for (name, step_h) in [("an hour", COARSE_STEP_H), ("a quarter of one", FINE_STEP_H)] {
        let square = Geometry::of(Form::Box { length_m: 2.0, width_m: 2.0 });
        let events = [21.0, 42.0, 70.0, 98.0].map(turn).to_vec();
        let setting = Setting { events, step_h, ..Setting::of(square) };
        criterion.bench_function(&format!("heat of 120 days, steps of {name}"), |b| {
            b.iter(|| run(black_box(&mix), &setting, 120));
        });
    }
}

criterion_group!(benches, speed);
criterion_main!(benches);
