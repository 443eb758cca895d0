//! What is measured on a shape, and whether it makes one.

use super::shape::Shape;
use crate::base::fault::{Fault, FaultCode};
use crate::base::quantity;
use crate::plan::method::ShapeKind;

/// Sides accepted, from a flower box to a field bunker [cm].
pub const SIDE_CM: (f64, f64) = (10.0, 1000.0);

/// Longest windrow accepted [cm].
pub const LONGEST_CM: f64 = 10_000.0;

/// Columns of air accepted in a tower.
pub const MOST_COLUMNS: u8 = 19;

/// What is measured on a shape: only the sides that it has.
#[derive(Debug, Clone, Copy, PartialEq, Default, serde::Serialize, serde::Deserialize)]
#[serde(default)]
pub struct Sides {
    /// Front to back, or along [cm].
    pub length_cm: Option<f64>,
    /// Side to side [cm].
    pub width_cm: Option<f64>,
    /// Side to side on top [cm].
    pub top_cm: Option<f64>,
    /// Across [cm].
    pub diameter_cm: Option<f64>,
    /// Height [cm].
    pub height_cm: Option<f64>,
    /// Columns of air.
    pub columns: Option<u8>,
}

fn missing(field: &'static str, kind: ShapeKind) -> Fault {
    Fault::of(field, FaultCode::SideMissing).with("shape", kind.as_str())
}

impl Shape {
    /// A shape from its sides, checked.
    ///
    /// # Errors
    /// A [`Fault`] for a side that is missing, does not belong, or lies outside
    /// [`SIDE_CM`] (a windrow may be as long as [`LONGEST_CM`]); NaN is refused
    /// too, and a pile that is wider on top than on the ground.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::plan::heap::{Shape, Sides};
    /// use zymarch_core::plan::method::ShapeKind;
    /// let sides = Sides { diameter_cm: Some(95.0), height_cm: Some(110.0), ..Sides::default() };
    /// let ring = Shape::of(ShapeKind::Ring, &sides).expect("a ring");
    /// assert_eq!(ring.capacity_l().round(), 780.0);
    /// assert!(Shape::of(ShapeKind::Box, &sides).is_err());
    /// ```
    pub fn of(kind: ShapeKind, sides: &Sides) -> Result<Self, Fault> {
        let need = |field, side: Option<f64>| side.ok_or(missing(field, kind));
        let length = || need("length_cm", sides.length_cm);
        let width = || need("width_cm", sides.width_cm);
        let diameter = || need("diameter_cm", sides.diameter_cm);
        let height = || need("height_cm", sides.height_cm);
        let shape = match kind {
            ShapeKind::Box => Self::Box { length_cm: length()?, width_cm: width()?, height_cm: height()? },
            ShapeKind::Ring => Self::Ring { diameter_cm: diameter()?, height_cm: height()? },
            ShapeKind::Pile => Self::Pile {
                length_cm: length()?,
                width_cm: width()?,
                top_cm: need("top_cm", sides.top_cm)?,
                height_cm: height()?,
            },
            ShapeKind::Windrow => {
                Self::Windrow { length_cm: length()?, width_cm: width()?, height_cm: height()? }
            }
            ShapeKind::Drum => Self::Drum { diameter_cm: diameter()?, height_cm: height()? },
            ShapeKind::LyingDrum => Self::LyingDrum { diameter_cm: diameter()?, length_cm: length()? },
            ShapeKind::Tower => Self::Tower {
                diameter_cm: diameter()?,
                height_cm: height()?,
                columns: sides.columns.ok_or(missing("columns", kind))?,
            },
        };
        let has = shape.sides();
        let given = |side: &Sides| {
            [
                ("length_cm", side.length_cm),
                ("width_cm", side.width_cm),
                ("top_cm", side.top_cm),
                ("diameter_cm", side.diameter_cm),
                ("height_cm", side.height_cm),
                ("columns", side.columns.map(f64::from)),
            ]
        };
        for ((field, asked), (_, own)) in given(sides).into_iter().zip(given(&has)) {
            let Some(value) = asked else { continue };
            if own.is_none() {
                return Err(Fault::of(field, FaultCode::SideUnwanted).with("shape", kind.as_str()));
            }
            let (low, high) = match (field, kind) {
                ("columns", _) => (0.0, f64::from(MOST_COLUMNS)),
                ("length_cm", ShapeKind::Windrow) => (SIDE_CM.0, LONGEST_CM),
                // All sides slope alike, so the shorter one closes first.
                ("top_cm", _) => {
                    let (length, width) = (has.length_cm.unwrap_or(0.0), has.width_cm.unwrap_or(0.0));
                    ((width - length).max(0.0), width)
                }
                _ => SIDE_CM,
            };
            quantity::within(value, low, high).map_err(|fault| Fault { path: field.into(), ..fault })?;
        }
        Ok(shape)
    }

    /// What kind it is.
    #[must_use]
    pub const fn kind(self) -> ShapeKind {
        match self {
            Self::Box { .. } => ShapeKind::Box,
            Self::Ring { .. } => ShapeKind::Ring,
            Self::Pile { .. } => ShapeKind::Pile,
            Self::Windrow { .. } => ShapeKind::Windrow,
            Self::Drum { .. } => ShapeKind::Drum,
            Self::LyingDrum { .. } => ShapeKind::LyingDrum,
            Self::Tower { .. } => ShapeKind::Tower,
        }
    }

    /// The sides that are measured on it.
    #[must_use]
    pub fn sides(self) -> Sides {
        let mut sides = Sides::default();
        match self {
            Self::Box { length_cm, width_cm, height_cm }
            | Self::Windrow { length_cm, width_cm, height_cm } => {
                sides.length_cm = Some(length_cm);
                sides.width_cm = Some(width_cm);
                sides.height_cm = Some(height_cm);
            }
            Self::Pile { length_cm, width_cm, top_cm, height_cm } => {
                sides.length_cm = Some(length_cm);
                sides.width_cm = Some(width_cm);
                sides.top_cm = Some(top_cm);
                sides.height_cm = Some(height_cm);
            }
            Self::Ring { diameter_cm, height_cm } | Self::Drum { diameter_cm, height_cm } => {
                sides.diameter_cm = Some(diameter_cm);
                sides.height_cm = Some(height_cm);
            }
            Self::LyingDrum { diameter_cm, length_cm } => {
                sides.diameter_cm = Some(diameter_cm);
                sides.length_cm = Some(length_cm);
            }
            Self::Tower { diameter_cm, height_cm, columns } => {
                sides.diameter_cm = Some(diameter_cm);
                sides.height_cm = Some(height_cm);
                sides.columns = Some(columns);
            }
        }
        sides
    }
}
