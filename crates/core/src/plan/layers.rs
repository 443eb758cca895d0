//! The mix divided into layers, or into loads, with the water for each.
//!
//! A heap is built in cycles in the order of its method: dry browns below, greens
//! and scraps on them, dung and the fine things on top, each layer wetted as it is
//! laid. Below may lie a foundation of twigs, which is no part of the mix; the
//! last of the browns is kept for a cap. The number of cycles is chosen so that
//! layers are thick enough to spread and thin enough to mix, and where the sides
//! slope in, the upper cycles hold less. Methods that mix first get loads instead.
//! Masses are whole grams and water whole millilitres, so the layers add up to the
//! mix exactly.

mod order;
pub(crate) mod share;

use crate::base::finding::{Code, Finding, Severity};
use crate::base::quantity::Band;
use crate::base::words::closed_list;
use crate::mix::{Item, MixFigures};
use crate::plan::heap::{self, Filled, HeapSize, Shape};
use crate::plan::method::{Build, Method, PatternLayer, Vent};
use crate::plan::mind;
use crate::stock::material::{Group, Kind, Material, Particle};

/// What one lot brings to the heap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LayerItem {
    /// Amount and figures.
    pub item: Item,
    /// How people sort it: decides how thick it lies.
    pub kind: Kind,
    /// Which layer of a pattern it goes into.
    pub layer: PatternLayer,
    /// Measures it is counted in, if any: how many there are.
    pub measures: Option<f64>,
    /// Whether it drives ammonia off dung, so that the two must not touch.
    pub drives_off_ammonia: bool,
}

impl LayerItem {
    /// A part of a material; one that is not known is laid as a brown.
    #[must_use]
    pub fn new(item: Item, material: Option<&Material>, measures: Option<f64>) -> Self {
        let kind = material.map_or(Kind::Brown, |material| material.kind);
        let layer = match kind {
            _ if material.is_some_and(|material| {
                material.group == Group::Paper && material.particle != Particle::Fine
            }) =>
            {
                PatternLayer::Card
            }
            // Banana stems are brown by their carbon, and lie like greens: wet, they make no bottom.
            Kind::Brown | Kind::Bulking if item.figures.moisture.value.get() > LIES_LIKE_GREEN => {
                PatternLayer::Green
            }
            Kind::Brown | Kind::Bulking => PatternLayer::Brown,
            Kind::Green | Kind::Household => PatternLayer::Green,
            Kind::Manure => PatternLayer::Manure,
            Kind::Starter | Kind::Mineral | Kind::Liquid => PatternLayer::Soil,
        };
        let drives_off_ammonia = material.is_some_and(|material| {
            material.cautions.iter().any(|caution| caution.code == mind::DRIVES_OFF_AMMONIA)
        });
        Self { item, kind, layer, measures, drives_off_ammonia }
    }

    fn grams(&self) -> u64 {
        (self.item.wet_mass_kg * 1000.0).round() as u64
    }

    /// How thick it may lie [cm].
    ///
    /// # Source
    /// FAO 1987, Soil management: compost production and use in tropical and
    /// subtropical environments, Soils Bulletin 56, on layered heaps: browns 10–25,
    /// greens 5–10, manure 3–5, soil a sprinkle. Mineral and starter likewise;
    /// card lies a sheet or a few thick.
    #[must_use]
    pub const fn thickness_cm(&self) -> Band {
        match (self.layer, self.kind) {
            (PatternLayer::Card, _) => Band::fixed(0.3, 3.0),
            (PatternLayer::Green, Kind::Brown | Kind::Bulking) => Band::fixed(5.0, 10.0),
            (_, Kind::Brown | Kind::Bulking) => Band::fixed(10.0, 25.0),
            (_, Kind::Green | Kind::Household) => Band::fixed(5.0, 10.0),
            (_, Kind::Manure) => Band::fixed(3.0, 5.0),
            (_, Kind::Starter) => Band::fixed(1.0, 2.0),
            (_, Kind::Mineral | Kind::Liquid) => Band::fixed(0.1, 1.0),
        }
    }
}

closed_list! {
    /// What a layer is for.
    LayerRole {
        /// Coarse stuff on the ground, that lets air in and water out; no part of the mix.
        Foundation = "foundation",
        /// A part of the mix.
        Mix = "mix",
        /// A sheet of card between two others.
        Separator = "separator",
        /// The last layer, which keeps heat in and flies out.
        Cap = "cap",
    }
}

/// One layer, as it is laid.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Layer {
    /// The part it is made of, by its place in the mix; none if it is no part of the mix.
    pub part: Option<usize>,
    /// What it is for.
    pub role: LayerRole,
    /// Which repeat or load it belongs to, from 1; none below and above them.
    pub cycle: Option<u32>,
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
pub struct LayerPlan {
    /// How the materials go in: in layers, or in loads that are mixed first.
    pub build: Build,
    /// Repeats, or loads.
    pub cycles: u32,
    /// Layers from the ground up.
    pub layers: Vec<Layer>,
    /// Height of the built heap [cm].
    pub height_cm: f64,
    /// What is laid below and above the mix and is no part of it [L].
    pub beside_l: f64,
    /// What lets air into the middle.
    pub vent: Vent,
    /// Where it stands, from the middle: across and along [cm].
    pub vents: Vec<(f64, f64)>,
    /// Whether it is big enough to heat.
    pub size: HeapSize,
    /// What is worth saying about size and thickness; `item` is the part.
    pub findings: Vec<Finding>,
}

/// Wetter than this, a brown is laid like a green [-]. Our judgement.
const LIES_LIKE_GREEN: f64 = 0.7;

/// The most repeats that are tried.
const MOST_CYCLES: u32 = 20;

/// A cap is kept back from a brown only if at least as much again is left [-].
const MOST_FOR_CAP: f64 = 0.5;

/// Divides a mix into layers for a shape, by the pattern of a method.
///
/// Parts without mass are left out. Each part is divided over the cycles, in
/// whole measures where it can be, else in halves or quarters; a remainder goes
/// where it is missed most, and else on the lowest layers, where there is room. Water is shared by need: a
/// layer's need is the water that brings it to the moisture of the whole mix,
/// so dry browns take most and wet scraps none.
#[must_use]
pub fn plan(
    parts: &[LayerItem],
    mix: &MixFigures,
    water_l: f64,
    shape: Shape,
    method: Option<&Method>,
) -> LayerPlan {
    let build = method.map_or(Build::Layers, |method| method.build);
    let order = order::of(parts, method);
    let frame = Frame::new(parts, &order, mix.heap_volume_l, shape, method);
    let cycles = (1..=MOST_CYCLES)
        .map(|cycles| (cycles, share::unease(parts, &order, &frame, build, cycles)))
        .min_by(|(_, a), (_, b)| a.total_cmp(b))
        .map_or(1, |(cycles, _)| cycles);
    let mut layers = divide(parts, &order, &frame, build, cycles);
    share_water(&mut layers, parts, mix.moisture, water_l);
    stack(&mut layers, parts, shape);
    let filled = Filled {
        shape,
        heap_volume_l: mix.heap_volume_l,
        loose_l: mix.volume_l,
        beside_l: frame.beside_l(),
        method,
    };
    let mut findings = heap::findings(&filled);
    if build != Build::Mixed {
        findings.extend(thicknesses(&layers, parts));
    }
    let vent = method.map_or(Vent::None, |method| method.vent);
    LayerPlan {
        build,
        cycles,
        height_cm: layers.last().map_or(0.0, |layer| layer.top_cm),
        beside_l: frame.beside_l(),
        vent,
        vents: vents(vent, shape, method),
        size: heap::size_in(&filled),
        layers,
        findings,
    }
}

/// The parts of one heap, where so many alike hold the mix.
#[must_use]
pub fn share_of(parts: &[LayerItem], heaps: u32) -> Vec<LayerItem> {
    let by = f64::from(heaps.max(1));
    let share = |part: &LayerItem| LayerItem {
        item: Item { wet_mass_kg: part.item.wet_mass_kg / by, ..part.item },
        measures: part.measures.map(|measures| measures / by),
        ..*part
    };
    parts.iter().map(share).collect()
}

/// What a cap would take that is no part of the mix, if the mix were so many times
/// as large [L]: a large mix has browns enough to keep one back, a small one has not.
#[must_use]
pub fn cap_beside_l(parts: &[LayerItem], times: f64, shape: Shape, method: Option<&Method>) -> f64 {
    let larger: Vec<LayerItem> = parts
        .iter()
        .map(|part| {
            let item = Item { wet_mass_kg: part.item.wet_mass_kg * times, ..part.item };
            LayerItem { item, ..*part }
        })
        .collect();
    let mix_l = larger.iter().map(|part| part.item.heap_volume_l()).sum();
    let frame = Frame::new(&larger, &order::of(&larger, method), mix_l, shape, method);
    frame.beside_l() - frame.foundation_l
}

/// What lies below the cycles and above them.
struct Frame {
    shape: Shape,
    /// Foundation [L].
    foundation_l: f64,
    /// The mix, as it settles [L].
    mix_l: f64,
    /// Cap [L].
    cap_l: f64,
    /// The part that the cap is kept back from; none if it is no part of the mix.
    cap_part: Option<usize>,
}

impl Frame {
    fn new(parts: &[LayerItem], order: &[usize], mix_l: f64, shape: Shape, method: Option<&Method>) -> Self {
        let foundation_l = heap::foundation_l(shape, method);
        let top = shape.height_of_cm(foundation_l + mix_l);
        let cap_cm = method.map_or(0.0, |method| method.cap_cm);
        let cap_l = shape.volume_below_l(top) - shape.volume_below_l((top - cap_cm).max(0.0));
        let is_enough = |&&part: &&usize| {
            parts[part].kind == Kind::Brown
                && parts[part].layer == PatternLayer::Brown
                && cap_l <= parts[part].item.heap_volume_l() * MOST_FOR_CAP
        };
        let cap_part = order.iter().find(is_enough).copied();
        Self { shape, foundation_l, mix_l, cap_l, cap_part }
    }

    /// What is no part of the mix [L].
    fn beside_l(&self) -> f64 {
        self.foundation_l + if self.cap_part.is_none() { self.cap_l } else { 0.0 }
    }

    /// Volume of each cycle, each as thick as the others, with their sum as one [-].
    fn cycle_shares(&self, cycles: u32) -> Vec<f64> {
        let kept = if self.cap_part.is_some() { self.cap_l } else { 0.0 };
        let low = self.shape.height_of_cm(self.foundation_l);
        let high = self.shape.height_of_cm(self.foundation_l + self.mix_l - kept);
        let upto =
            |cycle: u32| self.shape.volume_below_l(low + (high - low) * f64::from(cycle) / f64::from(cycles));
        let whole = upto(cycles) - upto(0);
        (0..cycles)
            .map(
                |cycle| {
                    if whole > 0.0 {
                        (upto(cycle + 1) - upto(cycle)) / whole
                    } else {
                        1.0 / f64::from(cycles)
                    }
                },
            )
            .collect()
    }
}

fn divide(parts: &[LayerItem], order: &[usize], frame: &Frame, build: Build, cycles: u32) -> Vec<Layer> {
    let by_cycle = frame.cycle_shares(cycles);
    let shares: Vec<_> = order
        .iter()
        .map(|&part| {
            // Loads are alike: what slopes is filled as high as it takes.
            if build == Build::Mixed {
                return share::alike(&parts[part], cycles);
            }
            if order::lies_lowest(parts, order, part) {
                let lowest: Vec<f64> = (0..cycles).map(|cycle| f64::from(u8::from(cycle == 0))).collect();
                return share::over(parts[part].grams(), parts[part].measures, &lowest, 0.0);
            }
            let volume = parts[part].item.heap_volume_l();
            let kept = if frame.cap_part == Some(part) { frame.cap_l / volume } else { 0.0 };
            share::over(parts[part].grams(), parts[part].measures, &by_cycle, kept)
        })
        .collect();
    let mut layers = Vec::new();
    layers.extend((frame.foundation_l > 0.0).then(|| beside(LayerRole::Foundation, frame.foundation_l)));
    for cycle in 0..cycles as usize {
        for (&part, shares) in order.iter().zip(&shares) {
            let role =
                if parts[part].layer == PatternLayer::Card { LayerRole::Separator } else { LayerRole::Mix };
            layers.extend(laid(parts, part, &shares[cycle], role, Some(cycle as u32 + 1)));
        }
    }
    for (&part, shares) in order.iter().zip(&shares) {
        layers.extend(
            shares.get(cycles as usize).and_then(|share| laid(parts, part, share, LayerRole::Cap, None)),
        );
    }
    if frame.cap_part.is_none() && frame.cap_l > 0.0 {
        layers.push(beside(LayerRole::Cap, frame.cap_l));
    }
    layers
}

fn laid(
    parts: &[LayerItem],
    part: usize,
    share: &share::Share,
    role: LayerRole,
    cycle: Option<u32>,
) -> Option<Layer> {
    (share.grams > 0).then(|| Layer {
        part: Some(part),
        role,
        cycle,
        grams: share.grams,
        water_ml: 0,
        measures: share.measures,
        litres: share.grams as f64 / 1000.0 / parts[part].item.figures.density_kg_l.value,
        thickness_cm: 0.0,
        top_cm: 0.0,
    })
}

const fn beside(role: LayerRole, litres: f64) -> Layer {
    Layer {
        part: None,
        role,
        cycle: None,
        grams: 0,
        water_ml: 0,
        measures: None,
        litres,
        thickness_cm: 0.0,
        top_cm: 0.0,
    }
}

fn share_water(layers: &mut [Layer], parts: &[LayerItem], moisture: f64, water_l: f64) {
    let thirst = |layer: &Layer| {
        let own = |part: usize| parts[part].item.figures.moisture.value;
        layer.part.map_or(0, |part| share::thirst_ml(layer.grams as f64, own(part), moisture))
    };
    let thirsts: Vec<u64> = layers.iter().map(thirst).collect();
    let grams: Vec<u64> = layers.iter().map(|layer| layer.grams).collect();
    let poured = share::poured((water_l * 1000.0).round() as u64, &thirsts, &grams);
    for (layer, water_ml) in layers.iter_mut().zip(poured) {
        layer.water_ml = water_ml;
    }
}

fn stack(layers: &mut [Layer], parts: &[LayerItem], shape: Shape) {
    let (mut litres, mut top) = (0.0, 0.0);
    for layer in layers {
        litres += layer.litres * layer.part.map_or(1.0, |part| parts[part].item.figures.settle.value);
        layer.top_cm = shape.height_of_cm(litres);
        layer.thickness_cm = layer.top_cm - top;
        top = layer.top_cm;
    }
}

/// Where sticks, pipes or columns stand, from the middle, across and along [cm]: one
/// stick for every metre and a half of a long heap.
#[must_use]
pub fn vents(vent: Vent, shape: Shape, method: Option<&Method>) -> Vec<(f64, f64)> {
    const STICK_EVERY_CM: f64 = 150.0;
    match vent {
        Vent::None => Vec::new(),
        Vent::Stick => {
            let length = shape.sides().length_cm.unwrap_or(shape.section_width_cm());
            let count = (length / STICK_EVERY_CM).round().max(1.0) as u32;
            let along = |stick: u32| length * ((f64::from(stick) + 0.5) / f64::from(count) - 0.5);
            (0..count).map(|stick| (0.0, along(stick))).collect()
        }
        Vent::Pipe | Vent::Columns => match shape {
            Shape::Ring { diameter_cm, .. } | Shape::Tower { diameter_cm, .. } => {
                heap::air::pipes(diameter_cm, heap::pipes_in(shape, method))
            }
            _ => Vec::new(),
        },
    }
}

fn thicknesses(layers: &[Layer], parts: &[LayerItem]) -> Vec<Finding> {
    let mut found = Vec::new();
    for (index, part) in parts.iter().enumerate() {
        let thickest = layers
            .iter()
            .filter(|layer| layer.part == Some(index))
            .map(|layer| layer.thickness_cm)
            .fold(0.0, f64::max);
        let range = part.thickness_cm();
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
