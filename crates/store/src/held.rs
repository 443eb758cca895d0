//! How much there is of something, in the unit the person said it in.

use rusqlite::{Connection, OptionalExtension, Row};

use crate::error::StoreError;
use crate::id::{LotId, MeasureId};

/// How much there is, in the unit the person said it in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Held {
    /// Weighed [kg].
    Kilograms(f64),
    /// Loose [L].
    Litres(f64),
    /// Counted in a container.
    Measures {
        /// How many.
        count: f64,
        /// Which.
        measure: MeasureId,
    },
}

impl Held {
    /// How much, in the unit it is said in.
    #[must_use]
    pub const fn amount(self) -> f64 {
        match self {
            Self::Kilograms(amount) | Self::Litres(amount) | Self::Measures { count: amount, .. } => amount,
        }
    }

    /// Another amount in the same unit.
    #[must_use]
    pub const fn with_amount(self, amount: f64) -> Self {
        match self {
            Self::Kilograms(_) => Self::Kilograms(amount),
            Self::Litres(_) => Self::Litres(amount),
            Self::Measures { measure, .. } => Self::Measures { count: amount, measure },
        }
    }

    /// Whether another is said in the same unit.
    #[must_use]
    pub fn is_alike(self, other: Self) -> bool {
        self.with_amount(0.0) == other.with_amount(0.0)
    }

    pub(crate) fn columns(self) -> (f64, &'static str, Option<MeasureId>) {
        match self {
            Self::Kilograms(amount) => (amount, "kg", None),
            Self::Litres(amount) => (amount, "litre", None),
            Self::Measures { count, measure } => (count, "measure", Some(measure)),
        }
    }

    pub(crate) fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let amount: f64 = row.get("amount")?;
        let measure: Option<MeasureId> = row.get("measure_id")?;
        let unit: String = row.get("unit")?;
        Ok(match (unit.as_str(), measure) {
            (_, Some(measure)) => Self::Measures { count: amount, measure },
            ("litre", None) => Self::Litres(amount),
            (_, None) => Self::Kilograms(amount),
        })
    }
}

/// How much there is of a lot, removed or not.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn of_lot(conn: &Connection, id: LotId) -> Result<Held, StoreError> {
    conn.query_row("SELECT amount, unit, measure_id FROM lot WHERE id = ?1", [id], Held::from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "lot" })
}
