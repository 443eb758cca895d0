//! What a container holds: from its sides, by pouring, or by other containers.
//!
//! Few people know the litres of their basket. A tape gives them, or a bucket
//! of known size counted in, or another measure it takes so many of; heaping
//! adds a share on top.

use std::f64::consts::PI;

use super::LARGEST_MEASURE_L;
use crate::base::fault::Fault;
use crate::base::quantity;

/// How a container's volume is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Way {
    /// Written on it, or known.
    Litres(f64),
    /// Straight and round.
    Cylinder {
        /// Inside, across [cm].
        across_cm: f64,
        /// Inside [cm].
        height_cm: f64,
    },
    /// Round, wider at one end: buckets and baskets.
    Cone {
        /// Inside, across the top [cm].
        top_cm: f64,
        /// Inside, across the bottom [cm].
        bottom_cm: f64,
        /// Inside, upright [cm].
        height_cm: f64,
    },
    /// With straight sides: crates, carts, bales.
    Box {
        /// Inside [cm].
        length_cm: f64,
        /// Inside [cm].
        width_cm: f64,
        /// Inside [cm].
        height_cm: f64,
    },
    /// By counting what goes in: buckets of water, or baskets to the cart.
    Counted {
        /// How many go in.
        count: f64,
        /// What each holds [L].
        litres_each: f64,
    },
}

/// A container, as it is filled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Vessel {
    /// How its volume is known.
    pub way: Way,
    /// Filled to, as a share of level full: 1 level, 1.2 well heaped.
    pub heaped: f64,
}

/// Longest side of a measure [cm]: ten metres, a trailer.
pub const LONGEST_CM: f64 = 1000.0;
/// Most that are counted into a measure.
pub const MOST_COUNTED: f64 = 1000.0;
/// How full a measure may be, as a share of level: nothing heaps higher than double.
pub const HEAPED: (f64, f64) = (0.25, 2.0);

/// What a container holds as it is filled [L].
///
/// # Formula
/// ```text
/// cylinder  V = π/4 · d² · h
/// cut cone  V = π/12 · h · (D² + D·d + d²)
/// box       V = l · w · h
/// counted   V = n · v
/// ```
/// Lengths in cm give cm³, a thousand of which are a litre; all times the heaped share.
///
/// # Source
/// Solid geometry.
///
/// # Errors
/// A [`Fault`], which names the figure.
///
/// # Example
/// A bucket 28 cm across the top, 22 at the bottom, 24 high:
/// π/12 · 24 · (784 + 616 + 484) = 11 837 cm³.
/// ```
/// use zymarch_core::stock::measure::vessel::{Vessel, Way, litres};
/// let bucket = Vessel { way: Way::Cone { top_cm: 28.0, bottom_cm: 22.0, height_cm: 24.0 }, heaped: 1.0 };
/// assert!((litres(&bucket)? - 11.84).abs() < 0.01);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
pub fn litres(vessel: &Vessel) -> Result<f64, Fault> {
    let side = |field, value| within(field, value, 0.0, LONGEST_CM);
    let level = match vessel.way {
        Way::Litres(litres) => litres,
        Way::Cylinder { across_cm, height_cm } => {
            let (d, h) = (side("across_cm", across_cm)?, side("height_cm", height_cm)?);
            PI / 4.0 * d * d * h / 1000.0
        }
        Way::Cone { top_cm, bottom_cm, height_cm } => {
            let (wide, narrow, h) =
                (side("top_cm", top_cm)?, side("bottom_cm", bottom_cm)?, side("height_cm", height_cm)?);
            PI / 12.0 * h * (wide * wide + wide * narrow + narrow * narrow) / 1000.0
        }
        Way::Box { length_cm, width_cm, height_cm } => {
            side("length_cm", length_cm)? * side("width_cm", width_cm)? * side("height_cm", height_cm)?
                / 1000.0
        }
        Way::Counted { count, litres_each } => {
            within("count", count, 0.0, MOST_COUNTED)?
                * within("litres_each", litres_each, 0.0, LARGEST_MEASURE_L)?
        }
    };
    let heaped = within("heaped", vessel.heaped, HEAPED.0 - 1e-9, HEAPED.1)?;
    within("litres", level * heaped, 0.0, LARGEST_MEASURE_L)
}

fn within(field: &'static str, value: f64, low: f64, high: f64) -> Result<f64, Fault> {
    quantity::above(value, low, high).map_err(|fault| Fault { path: field.into(), ..fault })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn level(way: Way) -> Result<f64, Fault> {
        litres(&Vessel { way, heaped: 1.0 })
    }

    #[test]
    fn a_chain_of_measures_gives_the_cart() {
        // A basket of 22 L, six to the cart load, nine loads of wet leaves at 8 kg a basket: 432 kg.
        let cart = level(Way::Counted { count: 6.0, litres_each: 22.0 }).expect("is a cart");
        assert_eq!(cart, 132.0);
        let density = 8.0 / 22.0;
        let load = crate::stock::measure::Amount::Measures { count: 9.0, litres_each: cart };
        assert!((load.mass_kg(density) - 432.0).abs() < 1e-9);
    }

    #[test]
    fn heaping_adds_its_share() {
        let barrow = Vessel { way: Way::Litres(70.0), heaped: 1.2 };
        assert!((litres(&barrow).expect("is a barrow") - 84.0).abs() < 1e-9);
    }

    #[test]
    fn what_cannot_be_is_refused_by_figure() {
        let field = |way| level(way).expect_err("refused").path.to_string();
        assert_eq!(field(Way::Cylinder { across_cm: 0.0, height_cm: 10.0 }), "across_cm");
        assert_eq!(field(Way::Cone { top_cm: 30.0, bottom_cm: f64::NAN, height_cm: 10.0 }), "bottom_cm");
        assert_eq!(field(Way::Box { length_cm: 1000.0, width_cm: 1000.0, height_cm: 1000.0 }), "litres");
        assert_eq!(field(Way::Counted { count: -1.0, litres_each: 10.0 }), "count");
        assert_eq!(field(Way::Litres(0.0)), "litres");
        assert_eq!(
            litres(&Vessel { way: Way::Litres(10.0), heaped: 9.0 }).expect_err("refused").path.to_string(),
            "heaped"
        );
    }

    proptest! {
        #[test]
        fn a_cone_lies_between_the_cylinders_of_its_ends(a in 5.0..100.0_f64, b in 5.0..100.0_f64, height_cm in 5.0..100.0_f64) {
            let cone = level(Way::Cone { top_cm: a, bottom_cm: b, height_cm });
            let of = |across_cm| level(Way::Cylinder { across_cm, height_cm }).expect("is one");
            let cone = cone.expect("is one");
            prop_assert!(cone >= of(a.min(b)) * 0.999_999 && cone <= of(a.max(b)) * 1.000_001);
        }
    }
}
