//! Findings on the wire: a code, how much it weighs, and its numbers.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::finding::{self, Code, Severity};

/// One thing worth saying. Its wording stands in the locale files.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// What was found.
    pub code: Code,
    /// How much it weighs.
    pub severity: Severity,
    /// The item it is about, by its place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub item: Option<usize>,
    /// The numbers that go into the sentence.
    pub params: BTreeMap<&'static str, f64>,
}

impl From<&finding::Finding> for Finding {
    fn from(found: &finding::Finding) -> Self {
        Self {
            code: found.code,
            severity: found.severity,
            item: found.item,
            params: found.params.iter().copied().collect(),
        }
    }
}

/// Many at once.
#[must_use]
pub fn all(found: &[finding::Finding]) -> Vec<Finding> {
    found.iter().map(Finding::from).collect()
}
