//! A heap's shape as columns of a batch, and as it stands in the log.

use rusqlite::Row;
use rusqlite::types::Type;
use serde::{Deserialize, Serialize};
use zymarch_core::plan::heap::{Shape, Sides};
use zymarch_core::plan::method::ShapeKind;

use crate::own;

/// A shape as it is written down.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct KeptShape {
    /// Which.
    pub shape: ShapeKind,
    /// Its sides.
    pub sides: Sides,
}

impl From<Shape> for KeptShape {
    fn from(shape: Shape) -> Self {
        Self { shape: shape.kind(), sides: shape.sides() }
    }
}

impl KeptShape {
    /// The shape; none if it was written by somebody who knows shapes that are not known here.
    #[must_use]
    pub fn shape(&self) -> Option<Shape> {
        Shape::of(self.shape, &self.sides).ok()
    }
}

/// The shape of a row.
pub(crate) fn from_row(row: &Row<'_>) -> rusqlite::Result<Shape> {
    let sides = Sides {
        length_cm: row.get("length_cm")?,
        width_cm: row.get("width_cm")?,
        top_cm: row.get("top_cm")?,
        diameter_cm: row.get("diameter_cm")?,
        height_cm: row.get("height_cm")?,
        columns: row.get("columns")?,
    };
    let kind = own::word(row, "shape", ShapeKind::parse)?;
    Shape::of(kind, &sides)
        .map_err(|bad| rusqlite::Error::FromSqlConversionFailure(0, Type::Text, Box::new(bad)))
}
