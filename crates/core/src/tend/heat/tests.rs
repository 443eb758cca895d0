//! The model against its cases and its laws.

#[allow(clippy::approx_constant, reason = "figures of a table that only look like constants")]
mod cases;
mod laws;

use super::*;
use crate::stock::material::Degradability::{self, Fast, Medium, Slow, VerySlow};

/// So much of a material, by name, as the cases know it.
fn part(name: &str, kg: f64) -> Part {
    let of = |moisture, ash, nitrogen, c_n, lignin, degradability, density_kg_m3, settle, ammonia_share| {
        Part { kg, moisture, ash, nitrogen, c_n, lignin, degradability, density_kg_m3, settle, ammonia_share }
    };
    let class: Degradability = match name {
        "leaves" => Slow,
        "clippings" | "wilted" | "scraps" => Fast,
        "chips" => VerySlow,
        _ => Medium,
    };
    match name {
        "straw" => of(0.12, 0.07, 0.006, 75.0, 0.08, class, 60.0, 0.6, 0.05),
        "stover" => of(0.15, 0.07, 0.007, 66.0, 0.05, class, 110.0, 0.7, 0.05),
        "leaves" => of(0.40, 0.09, 0.009, 52.0, 0.16, class, 120.0, 0.6, 0.05),
        "clippings" => of(0.80, 0.11, 0.032, 14.0, 0.04, class, 240.0, 0.75, 0.05),
        "wilted" => of(0.30, 0.11, 0.032, 14.0, 0.04, class, 150.0, 0.65, 0.05),
        "scraps" => of(0.86, 0.10, 0.025, 18.0, 0.04, class, 500.0, 0.85, 0.05),
        "cattle" => of(0.82, 0.18, 0.022, 20.0, 0.09, class, 900.0, 0.95, 0.2),
        "drymanure" => of(0.25, 0.18, 0.022, 20.0, 0.09, class, 500.0, 0.9, 0.1),
        "litter" => of(0.32, 0.22, 0.036, 11.0, 0.07, class, 450.0, 0.85, 0.2),
        "chips" => of(0.40, 0.015, 0.0012, 410.0, 0.22, class, 260.0, 0.95, 0.05),
        "water" => of(1.0, 0.0, 0.0, 0.0, 0.0, class, 0.0, 1.0, 0.0),
        other => panic!("no {other} in the cases"),
    }
}

fn mix(parts: &[(&str, f64)]) -> Start {
    Start::of(&parts.iter().map(|(name, kg)| part(name, *kg)).collect::<Vec<_>>())
}

/// The good mix of the cases, with so much water.
fn good(water: f64) -> Start {
    mix(&[("stover", 222.0), ("wilted", 110.0), ("drymanure", 100.0), ("water", water)])
}

fn bay_of(side_m: f64) -> Geometry {
    Geometry { side_open: 0.5, ..Geometry::of(Form::Box { length_m: side_m, width_m: side_m }) }
}

fn turn_on(day: f64) -> Event {
    Event { at_h: day * 24.0, what: Happening::Turn { mixing: constants::TURN_MIXES } }
}

fn water_on(day: f64, litres: f64) -> Event {
    Event { at_h: day * 24.0, what: Happening::Water { litres, spread: Pouring::Even, temp_c: None } }
}
