//! Cautions on the wire. Their sentences stand in the locale files.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::plan::mind::{self, Reason};
use zymarch_core::stock::caution::{self, CautionSeverity, Moment, Stance};

/// Something to mind with a material.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Caution {
    /// Stable word.
    pub code: &'static str,
    /// How grave it is.
    pub severity: CautionSeverity,
    /// When in the work it is said.
    pub moments: Vec<Moment>,
}

/// A caution that a mix, or the method chosen for it, calls up.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CautionNote {
    /// Stable word of the caution.
    pub code: &'static str,
    /// How grave it is.
    pub severity: CautionSeverity,
    /// The item it is about, by its place.
    pub item: usize,
    /// What becomes of it.
    pub stance: Stance,
    /// Why.
    pub reason: Reason,
    /// Of a share: what it is, %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub share_pct: Option<f64>,
    /// Of a share: what is good at most, %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub most_pct: Option<f64>,
    /// Of a share: whether it is of the fresh mass; else of the loose volume.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub of_mass: Option<bool>,
}

impl From<&caution::Caution> for Caution {
    fn from(caution: &caution::Caution) -> Self {
        Self { code: caution.code, severity: caution.severity, moments: caution.moments().collect() }
    }
}

impl From<&mind::Note> for CautionNote {
    fn from(note: &mind::Note) -> Self {
        Self {
            code: note.caution.code,
            severity: note.caution.severity,
            item: note.item,
            stance: note.stance,
            reason: note.reason,
            share_pct: note.share.map(|share| share.is * 100.0),
            most_pct: note.share.map(|share| share.most * 100.0),
            of_mass: note.share.map(|share| share.of_mass),
        }
    }
}
