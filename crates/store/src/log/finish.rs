//! What the entries of finishing hold: harvest, compost put down, used, found out about.

use serde::{Deserialize, Serialize};
use zymarch_core::finish::apply::Use;
use zymarch_core::finish::lab::LabFound;

use crate::id::{CompostId, GroundId, HeapId, LotId};

/// Compost was taken out of a heap.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Harvested {
    /// What came of it.
    pub compost: CompostId,
    /// How much, without the rejects [L].
    pub litres: f64,
    /// Whether that was all of the heap.
    pub is_last: bool,
}

/// Compost, as it was taken out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Stored {
    /// Of which heap.
    pub heap: HeapId,
    /// What it is called.
    pub name: String,
    /// How much, without the rejects [L].
    pub litres: f64,
    /// What a litre of it weighs [kg/L].
    pub density_kg_l: f64,
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// Through which mesh [mm], if it was screened.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mesh_mm: Option<f64>,
    /// What the screen held back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rejects: Option<Rejects>,
    /// What all of the heap should have given [L], as it was expected then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub expected_l: Option<f64>,
    /// Whether that was all of the heap.
    pub is_last: bool,
    /// Whether the heap was ready then, as far as was recorded.
    pub was_ready: bool,
}

/// What the screen held back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Rejects {
    /// The lot that it became.
    pub lot: LotId,
    /// How much [L].
    pub litres: f64,
}

/// Compost went to where it is used.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Applied {
    /// Where, if that is a place that is written down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ground: Option<GroundId>,
    /// For what.
    #[serde(rename = "use")]
    pub used: Use,
    /// How much [L].
    pub litres: f64,
    /// The same [kg].
    pub kg: f64,
    /// The person's words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// What a laboratory or a kit found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Found {
    /// The day of the sample.
    pub made_on: String,
    /// Who found it, in the person's words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<String>,
    /// What.
    #[serde(flatten)]
    pub result: LabFound,
}
