//! A refusal on the wire: where, what, and the numbers of its sentence.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Param};

/// One thing wrong with an input. The sentence stands in the locale files under `fault`.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FaultAnswer {
    /// Its path, as `items[1].moisture_pct`; empty for the whole.
    pub field: String,
    /// Its line in the text sent, where that is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<usize>,
    /// What.
    pub code: FaultCode,
    /// The numbers and words of its sentence.
    pub params: BTreeMap<&'static str, FaultParam>,
}

/// A number or word of a sentence.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(untagged)]
pub enum FaultParam {
    /// A number.
    Number(f64),
    /// A word.
    Text(String),
    /// Several.
    Words(Vec<String>),
}

impl From<&Fault> for FaultAnswer {
    fn from(fault: &Fault) -> Self {
        let param = |param: &Param| match param {
            Param::Number(number) => FaultParam::Number(*number),
            Param::Text(text) => FaultParam::Text(text.clone()),
            Param::Words(words) => FaultParam::Words(words.clone()),
        };
        Self {
            field: fault.path.to_string(),
            line: fault.line,
            code: fault.code,
            params: fault.params.iter().map(|(name, value)| (*name, param(value))).collect(),
        }
    }
}
