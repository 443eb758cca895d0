//! Heap shapes and layer plans on the wire.

use std::f64::consts::PI;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::Faults;
use zymarch_core::plan::heap::{self, fit};
use zymarch_core::plan::layers::{self, LayerRole};
use zymarch_core::plan::method::{Build, ShapeKind, Vent};

use crate::finding::{self, Finding};

/// A container or a pile, with the sides that are measured on it and no others.
#[derive(Debug, Clone, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeapShape {
    /// Which kind.
    pub shape: ShapeKind,
    /// Front to back of a box or pile, along a windrow, end to end of a lying drum, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub length_cm: Option<f64>,
    /// Side to side of a box, a pile or a windrow, on the ground, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub width_cm: Option<f64>,
    /// Side to side of a pile on top; all its sides slope alike, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub top_cm: Option<f64>,
    /// Across a ring, a drum or a tower, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub diameter_cm: Option<f64>,
    /// Rim, top or ridge above ground, of all but a lying drum, cm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub height_cm: Option<f64>,
    /// Columns of air in a tower.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub columns: Option<u8>,
}

impl HeapShape {
    /// The shape the core reckons with.
    ///
    /// # Errors
    /// [`Faults`] that name the side.
    pub fn resolve(&self) -> Result<heap::Shape, Faults> {
        let Self { shape, length_cm, width_cm, top_cm, diameter_cm, height_cm, columns } = *self;
        let sides = heap::Sides { length_cm, width_cm, top_cm, diameter_cm, height_cm, columns };
        heap::Shape::of(shape, &sides).map_err(Faults::from)
    }
}

impl From<heap::Shape> for HeapShape {
    fn from(shape: heap::Shape) -> Self {
        let heap::Sides { length_cm, width_cm, top_cm, diameter_cm, height_cm, columns } = shape.sides();
        Self { shape: shape.kind(), length_cm, width_cm, top_cm, diameter_cm, height_cm, columns }
    }
}

/// A mix laid out in a heap, from the ground up.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LayerPlan {
    /// How the materials go in.
    pub build: Build,
    /// Repeats, or loads.
    pub cycles: u32,
    /// Half the width of the section at heights from the ground to the rim, as pairs of height and half width, cm.
    pub outline: Vec<[f64; 2]>,
    /// Width of the section, cm.
    pub section_width_cm: f64,
    /// Rim of the container, cm.
    pub rim_cm: f64,
    /// What the container holds to the rim, litres.
    pub capacity_l: f64,
    /// Height of the built heap, cm.
    pub height_cm: f64,
    /// What is laid below and above the mix and is no part of it, litres.
    pub beside_l: f64,
    /// What lets air into the middle.
    pub vent: Vent,
    /// Where it stands, from the middle: across and along, cm.
    pub vents: Vec<[f64; 2]>,
    /// How the mix fits the heap, and what would make it fit.
    pub fit: HeapFit,
    /// From the ground up.
    pub layers: Vec<Layer>,
    /// What is worth saying; `item` is the part.
    pub findings: Vec<Finding>,
}

/// How a mix fits a heap.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapFit {
    /// The mix times this fills it to the rim.
    pub factor: f64,
    /// Heaps alike that hold the whole mix between them.
    pub heaps: u32,
    /// The sides of one heap of this kind that holds the whole mix; none for a drum, or if none is large enough.
    pub sides: Option<HeapShape>,
    /// Amounts that fill it, as the recipe says its items, in halves of a measure.
    pub filling: HeapAmounts,
    /// A sensible heap of every kind for this mix.
    pub shapes: Vec<HeapShape>,
}

/// A mix, made larger or smaller.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HeapAmounts {
    /// In the unit of each item, in the order of the recipe.
    pub amounts: Vec<f64>,
    /// Water to go with them, litres.
    pub water_l: f64,
}

/// One layer.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Layer {
    /// The item it is made of, by its place in the recipe; none if it is no part of the mix.
    pub item: Option<usize>,
    /// What it is for.
    pub role: LayerRole,
    /// Which repeat or load, from 1; none below and above them.
    pub cycle: Option<u32>,
    /// Fresh mass, g.
    pub grams: u64,
    /// Water to pour on it, mL.
    pub water_ml: u64,
    /// Measures of it, if it is counted in measures.
    pub measures: Option<f64>,
    /// Loose volume, litres.
    pub litres: f64,
    /// Thickness in the built heap, cm.
    pub thickness_cm: f64,
    /// Top above ground, cm.
    pub top_cm: f64,
}

impl LayerPlan {
    /// A plan on the wire.
    #[must_use]
    pub fn new(plan: &layers::LayerPlan, shape: heap::Shape, fit: HeapFit) -> Self {
        Self {
            build: plan.build,
            cycles: plan.cycles,
            outline: outline(shape),
            section_width_cm: shape.section_width_cm(),
            rim_cm: shape.height_cm(),
            capacity_l: shape.capacity_l(),
            height_cm: plan.height_cm,
            beside_l: plan.beside_l,
            vent: plan.vent,
            vents: plan.vents.iter().map(|&(across, along)| [across, along]).collect(),
            fit,
            layers: plan
                .layers
                .iter()
                .map(|layer| Layer {
                    item: layer.part,
                    role: layer.role,
                    cycle: layer.cycle,
                    grams: layer.grams,
                    water_ml: layer.water_ml,
                    measures: layer.measures,
                    litres: layer.litres,
                    thickness_cm: layer.thickness_cm,
                    top_cm: layer.top_cm,
                })
                .collect(),
            findings: finding::all(&plan.findings),
        }
    }
}

/// Two points for straight sides, more for round ones, closer where they bend most.
pub(crate) fn outline(shape: heap::Shape) -> Vec<[f64; 2]> {
    const ROUND: u32 = 32;
    let is_round = matches!(shape.kind(), ShapeKind::Windrow | ShapeKind::LyingDrum);
    let steps = if is_round { ROUND } else { 1 };
    (0..=steps)
        .map(|step| {
            let share = (1.0 - (PI * f64::from(step) / f64::from(steps)).cos()) / 2.0;
            let up = shape.height_cm() * share;
            [up, shape.width_at_cm(up) / 2.0]
        })
        .collect()
}

impl HeapFit {
    /// How a recipe, whose items are said as so many `amounts` in measures or not,
    /// fits a shape.
    #[must_use]
    pub fn new(found: &fit::Fit, amounts: &[(f64, bool)], water_l: f64) -> Self {
        let times = |factor: f64| HeapAmounts {
            amounts: amounts.iter().map(|&(amount, counted)| fit::scaled(amount, counted, factor)).collect(),
            water_l: (water_l * factor).round(),
        };
        Self {
            factor: found.factor,
            heaps: found.heaps,
            sides: found.sides.map(Into::into),
            filling: times(found.factor),
            shapes: found.shapes.iter().copied().map(Into::into).collect(),
        }
    }
}
