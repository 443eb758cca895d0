//! How a heap stands, for the model: its shape and method as footprint, open sides, cover and air columns.

use crate::plan::heap::{COLUMN_CM, Shape};
use crate::plan::layers::vents;
use crate::plan::method::{Method, Vent};
use crate::tend::heat::{Columns, Cover, Form, Geometry};

/// Share of the side that lets air through.
const BAY_OPEN: f64 = 0.5;
const SHUT: f64 = 0.02;
const OPEN: f64 = 1.0;

/// How a heap of a shape, made by a method, stands.
///
/// A cut pyramid is taken as a box as wide as it is half way up, a lying drum as a box of the same length and room.
///
/// # Example
/// ```
/// use zymarch_core::plan::heap::Shape;
/// use zymarch_core::tend::{expected::geometry, heat::Form};
/// let ring = geometry(Shape::Ring { diameter_cm: 120.0, height_cm: 120.0 }, None);
/// assert_eq!((ring.form, ring.side_open), (Form::Cylinder { diameter_m: 1.2 }, 1.0));
/// ```
#[must_use]
pub fn geometry(shape: Shape, method: Option<&Method>) -> Geometry {
    let m = |cm: f64| cm / 100.0;
    let (form, side_open, cover) = match shape {
        Shape::Box { length_cm, width_cm, .. } => {
            (Form::Box { length_m: m(length_cm), width_m: m(width_cm) }, BAY_OPEN, Cover::None)
        }
        Shape::Ring { diameter_cm, .. } | Shape::Tower { diameter_cm, .. } => {
            (Form::Cylinder { diameter_m: m(diameter_cm) }, OPEN, Cover::None)
        }
        Shape::Pile { length_cm, width_cm, top_cm, .. } => {
            let in_cm = (width_cm - top_cm) / 2.0;
            let form = Form::Box { length_m: m(length_cm - in_cm), width_m: m(width_cm - in_cm) };
            (form, OPEN, Cover::None)
        }
        Shape::Windrow { length_cm, width_cm, .. } => {
            (Form::Windrow { length_m: m(length_cm), width_m: m(width_cm) }, OPEN, Cover::None)
        }
        Shape::Drum { diameter_cm, .. } => {
            (Form::Cylinder { diameter_m: m(diameter_cm) }, SHUT, Cover::Sheet)
        }
        Shape::LyingDrum { diameter_cm, length_cm } => {
            let across = diameter_cm * std::f64::consts::FRAC_PI_4;
            (Form::Box { length_m: m(length_cm), width_m: m(across) }, SHUT, Cover::Sheet)
        }
    };
    let vent = method.map_or(Vent::None, |method| method.vent);
    let count = match (vent, shape) {
        (Vent::Pipe | Vent::Columns, _) => vents(vent, shape, method).len() as u32,
        (_, Shape::Tower { columns, .. }) => u32::from(columns),
        _ => 0,
    };
    let columns = Columns { count, diameter_m: m(COLUMN_CM) };
    Geometry { side_open, cover, columns, ..Geometry::of(form) }
}
