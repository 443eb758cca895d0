//! Findings on the wire: a code, how much it weighs, and its numbers.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

/// One thing worth saying. Its wording stands in the locale files.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// What was found, a stable word.
    pub code: &'static str,
    /// `info`, `warn` or `fail`.
    pub severity: &'static str,
    /// The item it is about, by its place.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub item: Option<usize>,
    /// The numbers that go into the sentence.
    pub params: BTreeMap<&'static str, f64>,
}

impl From<&zymarch_core::finding::Finding> for Finding {
    fn from(found: &zymarch_core::finding::Finding) -> Self {
        Self {
            code: found.code.as_str(),
            severity: found.severity.as_str(),
            item: found.item,
            params: found.params.iter().copied().collect(),
        }
    }
}

/// Many at once.
#[must_use]
pub fn all(found: &[zymarch_core::finding::Finding]) -> Vec<Finding> {
    found.iter().map(Finding::from).collect()
}
