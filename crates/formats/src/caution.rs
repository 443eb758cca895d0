//! Cautions on the wire. Their sentences stand in the locale files.

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::{caution, mind};

/// Something to mind with a material.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Caution {
    /// Stable word.
    pub code: &'static str,
    /// `info`, `caution`, `restrict` or `prohibit`.
    pub severity: &'static str,
    /// When in the work it is said: `stock`, `mix`, `method`, `build`, `use`.
    pub moments: Vec<&'static str>,
}

/// A caution that a mix, or the method chosen for it, calls up.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CautionNote {
    /// Stable word of the caution.
    pub code: &'static str,
    /// `info`, `caution`, `restrict` or `prohibit`.
    pub severity: &'static str,
    /// The item it is about, by its place.
    pub item: usize,
    /// `minded` or `refused`.
    pub stance: &'static str,
    /// `never`, `method`, `share` or `company`.
    pub reason: &'static str,
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
        Self {
            code: caution.code,
            severity: caution.severity.as_str(),
            moments: caution.moments().map(caution::Moment::as_str).collect(),
        }
    }
}

impl From<&mind::Note> for CautionNote {
    fn from(note: &mind::Note) -> Self {
        Self {
            code: note.caution.code,
            severity: note.caution.severity.as_str(),
            item: note.item,
            stance: note.stance.as_str(),
            reason: note.reason.as_str(),
            share_pct: note.share.map(|share| share.is * 100.0),
            most_pct: note.share.map(|share| share.most * 100.0),
            of_mass: note.share.map(|share| share.of_mass),
        }
    }
}
