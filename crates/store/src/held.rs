//! How much there is of something, in the unit the person said it in.

use rusqlite::Row;
use serde::{Deserialize, Serialize};
use zymarch_core::stock::ledger::In;

use crate::id::MeasureId;

/// How much there is, in the unit the person said it in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(tag = "unit", rename_all = "lowercase")]
pub enum Held {
    /// Weighed [kg].
    #[serde(rename = "kg")]
    Kilograms {
        /// How many.
        amount: f64,
    },
    /// Loose [L].
    #[serde(rename = "litre")]
    Litres {
        /// How many.
        amount: f64,
    },
    /// Counted in a container.
    #[serde(rename = "measure")]
    Measures {
        /// How many.
        amount: f64,
        /// Which.
        measure: MeasureId,
    },
}

impl Held {
    /// So much in a unit.
    #[must_use]
    pub const fn new(amount: f64, unit: In<MeasureId>) -> Self {
        match unit {
            In::Kilograms => Self::Kilograms { amount },
            In::Litres => Self::Litres { amount },
            In::Measures(measure) => Self::Measures { amount, measure },
        }
    }

    /// How much, in the unit it is said in.
    #[must_use]
    pub const fn amount(self) -> f64 {
        match self {
            Self::Kilograms { amount } | Self::Litres { amount } | Self::Measures { amount, .. } => amount,
        }
    }

    /// The unit it is said in.
    #[must_use]
    pub const fn unit(self) -> In<MeasureId> {
        match self {
            Self::Kilograms { .. } => In::Kilograms,
            Self::Litres { .. } => In::Litres,
            Self::Measures { measure, .. } => In::Measures(measure),
        }
    }

    /// The container it is counted in, if it is.
    #[must_use]
    pub const fn measure(self) -> Option<MeasureId> {
        match self {
            Self::Measures { measure, .. } => Some(measure),
            _ => None,
        }
    }

    /// Another amount in the same unit.
    #[must_use]
    pub const fn with_amount(self, amount: f64) -> Self {
        Self::new(amount, self.unit())
    }

    pub(crate) fn columns(self) -> (f64, &'static str, Option<MeasureId>) {
        let word = match self {
            Self::Kilograms { .. } => "kg",
            Self::Litres { .. } => "litre",
            Self::Measures { .. } => "measure",
        };
        (self.amount(), word, self.measure())
    }

    pub(crate) fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let amount: f64 = row.get("amount")?;
        let measure: Option<MeasureId> = row.get("measure_id")?;
        let unit: String = row.get("unit")?;
        Ok(match (unit.as_str(), measure) {
            (_, Some(measure)) => Self::Measures { amount, measure },
            ("litre", None) => Self::Litres { amount },
            (_, None) => Self::Kilograms { amount },
        })
    }
}
