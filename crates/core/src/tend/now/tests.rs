//! The model alone, and put right by what was measured.

use proptest::prelude::*;

use super::*;
use crate::stock::material::Degradability;
use crate::tend::heat::{Form, Geometry, Part, Setting, Start, run};

fn hours(days: u32) -> Vec<Hour> {
    let mix = Part {
        kg: 400.0,
        moisture: 0.58,
        ash: 0.10,
        nitrogen: 0.016,
        c_n: 28.0,
        lignin: 0.08,
        degradability: Degradability::Medium,
        density_kg_m3: 300.0,
        settle: 0.8,
        ammonia_share: 0.05,
    };
    let setting =
        Setting { step_h: 1.0, ..Setting::of(Geometry::of(Form::Box { length_m: 1.2, width_m: 1.2 })) };
    run(&Start::of(&[mix]), &setting, days).expect("can be reckoned").hours
}

#[test]
fn without_measurements_it_is_the_model_and_less_sure_every_day() {
    let (early, late) = (hours(2), hours(60));
    let (early, late) = (now(&early, &[]).expect("is"), now(&late, &[]).expect("is"));
    let width = |of: Guess| of.high - of.low;
    assert!(width(late.moisture) > width(early.moisture));
    assert_eq!(late.moisture.measured, 0);
    assert!((late.wet_kg.value * (1.0 - late.moisture.value) - late.dry_kg.value).abs() < 1e-9);
    assert!(late.volume_left.value < early.volume_left.value && early.volume_left.value < 1.0);
    assert!(now(&[], &[]).is_none());
}

/// By hand: on the first hour the model may be off by 0.03 and the hand by 0.05, so a squeeze weighs
/// 0.03²/(0.03² + 0.05²) = 0.265.
#[test]
fn a_measurement_weighs_by_how_far_it_may_be_off() {
    let hours = hours(0);
    let model = hours[0].moisture;
    let got = now(&hours, &[(0.0, Measured::Moisture(model + 0.1))]).expect("is").moisture;
    assert!((got.value - (model + 0.1 * 0.0009 / 0.0034)).abs() < 1e-9, "{got:?}");
    assert_eq!(got.measured, 1);
}

proptest! {
    /// What is measured draws the figure its way and never past itself, and makes it surer.
    #[test]
    fn measured_lies_between(day in 0.0..30.0_f64, share in 0.3..0.75_f64, times in 0.5..1.5_f64) {
        let hours = hours(30);
        let at = day * 24.0;
        let then = hours[at.round() as usize];
        let model = now(&hours, &[]).expect("is");
        let measured = [(at, Measured::Moisture(share)), (at, Measured::Volume(then.volume_m3 * times))];
        let got = now(&hours, &measured).expect("is");
        let between = |value: f64, a: f64, b: f64| value >= a.min(b) - 1e-9 && value <= a.max(b) + 1e-9;
        prop_assert!(between(got.moisture.value - model.moisture.value, 0.0, share - then.moisture));
        prop_assert!(between(got.volume_m3.value / model.volume_m3.value, 1.0, times));
        prop_assert!(got.moisture.high - got.moisture.low <= model.moisture.high - model.moisture.low + 1e-9);
        for of in [got.wet_kg, got.dry_kg, got.moisture, got.c_n, got.volume_m3, got.volume_left] {
            prop_assert!(of.low <= of.value && of.value <= of.high);
        }
    }
}
