//! The mix divided into layers, with the water for each.
//!
//! A heap is built in equal cycles: dry browns below, greens and scraps on
//! them, dung and the fine things on top, each layer wetted as it is laid. The
//! number of cycles is chosen so that layers are thick enough to spread and thin
//! enough to mix. Masses are whole grams and water whole millilitres, so the
//! layers add up to the mix exactly. Foundations, separators and tapering sides
//! are left to the methods, which are not here yet.

use crate::finding::{Code, Finding, Severity};
use crate::heap::{self, Shape};
use crate::material::Kind;
use crate::mix::{Item, MixFigures};
use crate::quantity::Band;

/// What one lot brings to the heap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Part {
    /// Amount and figures.
    pub item: Item,
    /// How people sort it: decides its place in a cycle and how thick it lies.
    pub kind: Kind,
    /// Measures it is counted in, if any: how many there are.
    pub measures: Option<f64>,
}

/// One layer, as it is laid.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Layer {
    /// The part it is made of, by its place in the mix.
    pub part: usize,
    /// Which repeat it belongs to, from 1.
    pub cycle: u32,
    /// Fresh mass [g].
    pub grams: u64,
    /// Water to pour on it [mL].
    pub water_ml: u64,
    /// Measures of it, if the part is counted in measures.
    pub measures: Option<f64>,
    /// Loose volume [L].
    pub litres: f64,
    /// Thickness in the built heap [cm].
    pub thickness_cm: f64,
    /// Top of it above ground [cm].
    pub top_cm: f64,
}

/// A mix laid out in a heap, from the ground up.
#[derive(Debug, Clone, PartialEq)]
pub struct Plan {
    /// Repeats.
    pub cycles: u32,
    /// Layers from the ground up.
    pub layers: Vec<Layer>,
    /// Height of the built heap [cm].
    pub height_cm: f64,
    /// What is worth saying about size and thickness; `item` is the part.
    pub findings: Vec<Finding>,
}

/// How thick a layer of a kind may lie [cm].
///
/// # Source
/// FAO 1987, Soil management: compost production and use in tropical and
/// subtropical environments, Soils Bulletin 56, on layered heaps: browns 10–25,
/// greens 5–10, manure 3–5, soil a sprinkle. Mineral and starter likewise.
#[must_use]
pub const fn thickness_cm(kind: Kind) -> Band {
    match kind {
        Kind::Brown | Kind::Bulking => Band::fixed(10.0, 25.0),
        Kind::Green | Kind::Household => Band::fixed(5.0, 10.0),
        Kind::Manure => Band::fixed(3.0, 5.0),
        Kind::Starter => Band::fixed(1.0, 2.0),
        Kind::Mineral | Kind::Liquid => Band::fixed(0.1, 1.0),
    }
}

/// Place in a cycle: stiff stuff below, fine stuff on top where it sifts down.
const fn place_in_cycle(kind: Kind) -> u8 {
    match kind {
        Kind::Bulking => 0,
        Kind::Brown => 1,
        Kind::Green => 2,
        Kind::Household => 3,
        Kind::Manure => 4,
        Kind::Starter => 5,
        Kind::Mineral => 6,
        Kind::Liquid => 7,
    }
}

/// The most repeats that are tried.
const MOST_CYCLES: u32 = 20;

/// Divides a mix into layers for a shape.
///
/// Parts without mass are left out. Each part is divided into as many shares as
/// there are cycles, in whole measures where it can be, else in halves or
/// quarters; a remainder goes on the first layer. Water is shared by need: a
/// layer's need is the water that brings it to the moisture of the whole mix,
/// so dry browns take most and wet scraps none.
#[must_use]
pub fn plan(parts: &[Part], mix: &MixFigures, water_l: f64, shape: Shape) -> Plan {
    let mut order: Vec<usize> = (0..parts.len()).filter(|&part| grams_of(&parts[part]) > 0).collect();
    order.sort_by_key(|&part| (place_in_cycle(parts[part].kind), part));
    let cycles = (1..=MOST_CYCLES)
        .min_by(|&a, &b| {
            let cost = |cycles| unease(parts, &order, shape, cycles);
            cost(a).total_cmp(&cost(b))
        })
        .unwrap_or(1);
    let mut layers = divide(parts, &order, cycles);
    share_water(&mut layers, parts, mix.moisture, water_l);
    stack(&mut layers, parts, shape);
    let findings = judge(&layers, parts, shape, mix.heap_volume_l);
    Plan { cycles, height_cm: layers.last().map_or(0.0, |layer| layer.top_cm), layers, findings }
}

fn grams_of(part: &Part) -> u64 {
    (part.item.wet_mass_kg * 1000.0).round() as u64
}

/// How badly a number of cycles suits: layers outside their thickness, each by
/// its share of the heap, and measures that have to be split. Too thick weighs
/// most, since thick layers do not mix; a small lot lies thin in any case. The
/// weights are our judgement.
fn unease(parts: &[Part], order: &[usize], shape: Shape, cycles: u32) -> f64 {
    const TOO_THICK: f64 = 4.0;
    const TOO_THIN: f64 = 0.5;
    const SPLIT_MEASURE: f64 = 0.02;
    const ONE_MORE_CYCLE: f64 = 0.01;
    let whole: f64 = order.iter().map(|&part| parts[part].item.heap_volume_l()).sum();
    let of = |&index: &usize| {
        let part = &parts[index];
        let volume = part.item.heap_volume_l();
        let thickness = shape.height_of_cm(volume) / f64::from(cycles);
        let range = thickness_cm(part.kind);
        let outside = if thickness > range.high() {
            TOO_THICK * (thickness / range.high()).ln()
        } else if thickness < range.low() {
            TOO_THIN * (range.low() / thickness).ln()
        } else {
            0.0
        };
        let is_split = part.measures.is_some_and(|measures| (measures / f64::from(cycles)).fract() > 1e-9);
        outside * volume / whole + if is_split { SPLIT_MEASURE } else { 0.0 }
    };
    order.iter().map(of).sum::<f64>() + ONE_MORE_CYCLE * f64::from(cycles)
}

fn divide(parts: &[Part], order: &[usize], cycles: u32) -> Vec<Layer> {
    let shares: Vec<_> = order.iter().map(|&part| shares(&parts[part], cycles)).collect();
    let mut layers = Vec::new();
    for cycle in 0..cycles as usize {
        for (&part, shares) in order.iter().zip(&shares) {
            let Share { grams, measures } = shares[cycle];
            if grams > 0 {
                layers.push(Layer {
                    part,
                    cycle: cycle as u32 + 1,
                    grams,
                    water_ml: 0,
                    measures,
                    litres: grams as f64 / 1000.0 / parts[part].item.figures.density_kg_l.value,
                    thickness_cm: 0.0,
                    top_cm: 0.0,
                });
            }
        }
    }
    layers
}

#[derive(Clone, Copy)]
struct Share {
    grams: u64,
    measures: Option<f64>,
}

/// A part's share for each cycle. Counted in the coarsest of whole, half and
/// quarter measures that gives every cycle some; else by weight alone.
fn shares(part: &Part, cycles: u32) -> Vec<Share> {
    let total = grams_of(part);
    let n = cycles as usize;
    let by_weight = |units: &[u64]| -> Vec<u64> { proportional(total, units) };
    let Some(measures) = part.measures else {
        return by_weight(&vec![1; n]).into_iter().map(|grams| Share { grams, measures: None }).collect();
    };
    for per_measure in [1.0, 2.0, 4.0] {
        let units = measures * per_measure;
        let whole = units.floor() as u64;
        if (units - units.round()).abs() < 1e-9 && whole >= u64::from(cycles) {
            let even = proportional(units.round() as u64, &vec![1; n]);
            let grams = by_weight(&even);
            return even
                .into_iter()
                .zip(grams)
                .map(|(units, grams)| Share { grams, measures: Some(units as f64 / per_measure) })
                .collect();
        }
    }
    by_weight(&vec![1; n])
        .into_iter()
        .map(|grams| Share { grams, measures: Some(measures / f64::from(cycles)) })
        .collect()
}

/// Splits a whole number in proportion to weights, losing nothing: each share is
/// the step between rounded running totals, larger shares first for equal weights.
fn proportional(total: u64, weights: &[u64]) -> Vec<u64> {
    let sum: u128 = weights.iter().map(|&weight| u128::from(weight)).sum();
    if sum == 0 {
        return vec![0; weights.len()];
    }
    let mut running: u128 = 0;
    let mut given: u64 = 0;
    weights
        .iter()
        .map(|&weight| {
            running += u128::from(weight);
            // Rounded up, so that what is left over falls on the lower layers.
            let upto = (u128::from(total) * running).div_ceil(sum) as u64;
            let share = upto - given;
            given = upto;
            share
        })
        .collect()
}

fn share_water(layers: &mut [Layer], parts: &[Part], moisture: f64, water_l: f64) {
    let total_ml = (water_l * 1000.0).round() as u64;
    let need = |layer: &Layer| {
        let own = parts[layer.part].item.figures.moisture.value;
        let dry_grams = layer.grams as f64 * own.rest();
        let wanted = dry_grams / (1.0 - moisture).max(1e-6) - layer.grams as f64;
        wanted.max(0.0).round() as u64
    };
    let mut needs: Vec<u64> = layers.iter().map(need).collect();
    if needs.iter().all(|&need| need == 0) {
        needs = layers.iter().map(|layer| layer.grams).collect();
    }
    for (layer, water_ml) in layers.iter_mut().zip(proportional(total_ml, &needs)) {
        layer.water_ml = water_ml;
    }
}

fn stack(layers: &mut [Layer], parts: &[Part], shape: Shape) {
    let mut top = 0.0;
    for layer in layers {
        let settled = layer.litres * parts[layer.part].item.figures.settle.value;
        layer.thickness_cm = shape.height_of_cm(settled);
        top += layer.thickness_cm;
        layer.top_cm = top;
    }
}

fn judge(layers: &[Layer], parts: &[Part], shape: Shape, heap_volume_l: f64) -> Vec<Finding> {
    let mut found = heap::findings(shape, heap_volume_l);
    for (index, part) in parts.iter().enumerate() {
        let thickest = layers
            .iter()
            .filter(|layer| layer.part == index)
            .map(|layer| layer.thickness_cm)
            .fold(0.0, f64::max);
        let range = thickness_cm(part.kind);
        let params = [("thickness_cm", thickest), ("low_cm", range.low()), ("high_cm", range.high())];
        // Half as much again still spreads and mixes; less than half cannot be seen as a layer.
        if thickest > range.high() * 1.5 {
            found.push(Finding::new(Code::LayerThick, Severity::Info, &params).about(index));
        } else if thickest > 0.0 && thickest < range.low() * 0.5 {
            found.push(Finding::new(Code::LayerThin, Severity::Info, &params).about(index));
        }
    }
    found
}

#[cfg(test)]
mod tests;
