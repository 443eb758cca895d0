//! Columns of a heap's shape, that a batch and the heap built of it share.

use rusqlite::Row;
use rusqlite::types::Type;
use zymarch_core::heap::{Shape, Sides};
use zymarch_core::method::ShapeKind;

use crate::own;

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
