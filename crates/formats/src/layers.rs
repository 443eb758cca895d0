//! Heap shapes and layer plans on the wire.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::heap;
use zymarch_core::layers;

use crate::field::Refusal;
use crate::finding::{self, Finding};

/// A container or pile with straight sides.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(tag = "shape", rename_all = "lowercase", deny_unknown_fields)]
pub enum HeapShape {
    /// A box or bay.
    Box {
        /// Front to back, cm.
        length_cm: f64,
        /// Side to side, cm.
        width_cm: f64,
        /// Rim above ground, cm.
        height_cm: f64,
    },
    /// A ring of mesh or boards.
    Ring {
        /// Across, cm.
        diameter_cm: f64,
        /// Rim above ground, cm.
        height_cm: f64,
    },
}

impl HeapShape {
    /// The shape the core reckons with.
    ///
    /// # Errors
    /// A [`Refusal`] that names the side under `field`.
    pub fn resolve(self, field: &str) -> Result<heap::Shape, Refusal> {
        let shape = match self {
            Self::Box { length_cm, width_cm, height_cm } => {
                heap::Shape::Box { length_cm, width_cm, height_cm }
            }
            Self::Ring { diameter_cm, height_cm } => heap::Shape::Ring { diameter_cm, height_cm },
        };
        shape.checked().map_err(|bad| Refusal::one(format!("{field}.{}", bad.field), bad.to_string()))
    }
}

/// A mix laid out in a heap, from the ground up.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LayerPlan {
    /// Repeats.
    pub cycles: u32,
    /// Width of the section, cm.
    pub section_width_cm: f64,
    /// Rim of the container, cm.
    pub rim_cm: f64,
    /// What the container holds to the rim, litres.
    pub capacity_l: f64,
    /// Height of the built heap, cm.
    pub height_cm: f64,
    /// From the ground up.
    pub layers: Vec<Layer>,
    /// What is worth saying; `item` is the part.
    pub findings: Vec<Finding>,
}

/// One layer.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Layer {
    /// The item it is made of, by its place in the recipe.
    pub item: usize,
    /// Which repeat, from 1.
    pub cycle: u32,
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
    pub fn new(plan: &layers::Plan, shape: heap::Shape) -> Self {
        Self {
            cycles: plan.cycles,
            section_width_cm: shape.section_width_cm(),
            rim_cm: shape.height_cm(),
            capacity_l: shape.capacity_l(),
            height_cm: plan.height_cm,
            layers: plan
                .layers
                .iter()
                .map(|layer| Layer {
                    item: layer.part,
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
