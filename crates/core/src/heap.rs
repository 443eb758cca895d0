//! The physical pile: its shape, what it holds, whether it can keep its heat.
//!
//! Straight-sided containers so far: a box or bay, and a ring. How the mix is
//! divided inside them is in [`layers`](crate::layers).

use std::f64::consts::PI;

use crate::finding::{Code, Finding, Severity};

/// Below this a heap loses its heat faster than it makes it [L].
///
/// # Source
/// About a cubic yard (0.76 m³) is the usual least size for a hot pile: Rynk
/// 1992, On-Farm Composting Handbook (NRAES-54), chapter on methods.
pub const LEAST_HOT_VOLUME_L: f64 = 760.0;

/// From this on a heap keeps its heat well: 1 × 1 × 1 m [L]. See [`LEAST_HOT_VOLUME_L`].
pub const SURE_HOT_VOLUME_L: f64 = 1000.0;

/// A heap flatter or narrower than this cools through, whatever its volume [cm].
pub const LEAST_HOT_SIDE_CM: f64 = 75.0;

/// Above this a heap packs under its own weight and chokes [cm]. See [`LEAST_HOT_VOLUME_L`].
pub const TALLEST_CM: f64 = 200.0;

/// Sides accepted, from a flower box to a field bunker [cm].
pub const SIDE_CM: (f64, f64) = (10.0, 1000.0);

/// A container or a pile with straight sides.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Shape {
    /// A box or bay.
    Box {
        /// Front to back [cm].
        length_cm: f64,
        /// Side to side, the side drawn in section [cm].
        width_cm: f64,
        /// Rim above ground [cm].
        height_cm: f64,
    },
    /// A ring of mesh or boards.
    Ring {
        /// Across [cm].
        diameter_cm: f64,
        /// Rim above ground [cm].
        height_cm: f64,
    },
}

/// Refused: a side that is not a side.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[error("{field} must be between {} and {} cm, got {value}", SIDE_CM.0, SIDE_CM.1)]
pub struct BadSide {
    /// The dimension.
    pub field: &'static str,
    /// What was given.
    pub value: f64,
}

impl Shape {
    /// The same shape, checked.
    ///
    /// # Errors
    /// [`BadSide`] for a side outside [`SIDE_CM`]; NaN is refused too.
    pub fn checked(self) -> Result<Self, BadSide> {
        let sides = match self {
            Self::Box { length_cm, width_cm, height_cm } => {
                vec![("length_cm", length_cm), ("width_cm", width_cm), ("height_cm", height_cm)]
            }
            Self::Ring { diameter_cm, height_cm } => {
                vec![("diameter_cm", diameter_cm), ("height_cm", height_cm)]
            }
        };
        let bad = sides.into_iter().find(|(_, side)| !(SIDE_CM.0..=SIDE_CM.1).contains(side));
        match bad {
            Some((field, value)) => Err(BadSide { field, value }),
            None => Ok(self),
        }
    }

    /// Ground it stands on [cm²].
    #[must_use]
    pub fn footprint_cm2(self) -> f64 {
        match self {
            Self::Box { length_cm, width_cm, .. } => length_cm * width_cm,
            Self::Ring { diameter_cm, .. } => PI * diameter_cm * diameter_cm / 4.0,
        }
    }

    /// Width of the section drawn [cm].
    #[must_use]
    pub const fn section_width_cm(self) -> f64 {
        match self {
            Self::Box { width_cm, .. } => width_cm,
            Self::Ring { diameter_cm, .. } => diameter_cm,
        }
    }

    /// Rim above ground [cm].
    #[must_use]
    pub const fn height_cm(self) -> f64 {
        match self {
            Self::Box { height_cm, .. } | Self::Ring { height_cm, .. } => height_cm,
        }
    }

    /// What it holds, filled to the rim [L].
    ///
    /// # Example
    /// A bay of 110 × 110 × 100 cm holds 1,210 L.
    /// ```
    /// use zymarch_core::heap::Shape;
    /// let bay = Shape::Box { length_cm: 110.0, width_cm: 110.0, height_cm: 100.0 };
    /// assert!((bay.capacity_l() - 1210.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn capacity_l(self) -> f64 {
        self.footprint_cm2() * self.height_cm() / 1000.0
    }

    /// How high a volume stands in it [cm].
    #[must_use]
    pub fn height_of_cm(self, volume_l: f64) -> f64 {
        volume_l * 1000.0 / self.footprint_cm2()
    }

    fn least_side_cm(self) -> f64 {
        match self {
            Self::Box { length_cm, width_cm, .. } => length_cm.min(width_cm),
            Self::Ring { diameter_cm, .. } => diameter_cm,
        }
    }
}

/// Whether a volume can keep its heat, apart from any shape.
#[must_use]
pub fn size_finding(heap_volume_l: f64) -> Option<Finding> {
    let litres = [("heap_volume_l", heap_volume_l)];
    if heap_volume_l < LEAST_HOT_VOLUME_L {
        Some(Finding::new(Code::TooSmallToHeat, Severity::Warn, &litres))
    } else if heap_volume_l < SURE_HOT_VOLUME_L {
        Some(Finding::new(Code::JustBigEnough, Severity::Info, &litres))
    } else {
        None
    }
}

/// What is worth saying about a volume of mix in a shape.
///
/// A heap is as small as its smallest side: three square metres of mix thirty
/// centimetres high does not heat.
#[must_use]
pub fn findings(shape: Shape, heap_volume_l: f64) -> Vec<Finding> {
    let mut found = Vec::new();
    let room = shape.capacity_l() - heap_volume_l;
    let fills_pct = 100.0 * heap_volume_l / shape.capacity_l();
    if room < -0.5 {
        found.push(Finding::new(
            Code::Overflows,
            Severity::Fail,
            &[("litres", -room), ("height_cm", shape.height_of_cm(heap_volume_l))],
        ));
    } else if fills_pct < 80.0 {
        found.push(Finding::new(
            Code::RoomLeft,
            Severity::Info,
            &[("litres", room), ("fills_pct", fills_pct)],
        ));
    }
    let height = shape.height_of_cm(heap_volume_l);
    let size = size_finding(heap_volume_l);
    let thinnest = shape.least_side_cm().min(height);
    match size {
        Some(finding) if finding.code == Code::TooSmallToHeat => found.push(finding),
        _ if thinnest < LEAST_HOT_SIDE_CM => found.push(Finding::new(
            Code::TooSmallToHeat,
            Severity::Warn,
            &[("heap_volume_l", heap_volume_l), ("least_side_cm", thinnest)],
        )),
        _ => found.extend(size),
    }
    if height > TALLEST_CM {
        found.push(Finding::new(Code::TooTall, Severity::Warn, &[("height_cm", height)]));
    }
    found.sort_by_key(|finding| std::cmp::Reverse(finding.severity));
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    const BAY: Shape = Shape::Box { length_cm: 100.0, width_cm: 120.0, height_cm: 100.0 };

    fn codes(shape: Shape, litres: f64) -> Vec<Code> {
        findings(shape, litres).iter().map(|finding| finding.code).collect()
    }

    #[test]
    fn a_ring_holds_a_cylinder() {
        // π · 50² · 100 cm³ = 785.4 L.
        let ring = Shape::Ring { diameter_cm: 100.0, height_cm: 100.0 };
        assert!((ring.capacity_l() - 785.398).abs() < 0.001);
        assert!((ring.height_of_cm(392.699) - 50.0).abs() < 0.001);
    }

    #[test]
    fn what_does_not_fit_is_said_in_litres() {
        let found = findings(BAY, 1500.0);
        assert_eq!(found[0].code, Code::Overflows);
        assert_eq!(found[0].params[0], ("litres", 300.0));
    }

    #[test]
    fn half_a_cubic_metre_is_too_small_to_heat() {
        assert!(codes(BAY, 500.0).contains(&Code::TooSmallToHeat));
        assert!(
            codes(BAY, 900.0).contains(&Code::JustBigEnough)
                || codes(BAY, 900.0).contains(&Code::TooSmallToHeat)
        );
        assert_eq!(codes(BAY, 1150.0), []);
    }

    #[test]
    fn a_wide_flat_heap_does_not_heat_though_it_is_large() {
        let field = Shape::Box { length_cm: 400.0, width_cm: 400.0, height_cm: 100.0 };
        assert!(codes(field, 4800.0).contains(&Code::TooSmallToHeat));
    }

    #[test]
    fn above_two_metres_it_packs() {
        let tower = Shape::Box { length_cm: 150.0, width_cm: 150.0, height_cm: 300.0 };
        assert!(codes(tower, 6000.0).contains(&Code::TooTall));
    }

    #[test]
    fn sides_that_are_not_sides_are_named() {
        let bad = Shape::Ring { diameter_cm: f64::NAN, height_cm: 100.0 }.checked();
        assert!(matches!(bad, Err(BadSide { field: "diameter_cm", .. })));
        assert!(BAY.checked().is_ok());
    }
}
