//! What one step of an amount is, where amounts are stepped and where a mix is mended by steps.
//!
//! People carry whole measures. What is weighed or poured goes by one or ten of the unit they think in.

use crate::base::words::closed_list;

closed_list! {
    /// The units a person thinks in.
    Units {
        /// Kilograms and litres.
        Metric = "metric",
        /// Pounds and gallons.
        Us = "us",
    }
}

/// Kilograms in a pound, litres in a gallon: exact by definition (NIST Handbook 44, appendix C).
const POUND_KG: f64 = 0.453_592_37;
const GALLON_L: f64 = 3.785_411_784;

/// How an amount is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Counted {
    /// In containers.
    Measures,
    /// Weighed.
    Weighed,
    /// In loose litres.
    Poured,
}

/// Steps, in the units a person thinks in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Steps {
    /// Of what is counted.
    pub measures: f64,
    /// Of what is weighed, where there is little.
    pub weight: f64,
    /// Of what is weighed, where there is much.
    pub weight_of_much: f64,
    /// From here on it is much [kg].
    pub much_kg: f64,
    /// Of what is poured.
    pub volume: f64,
}

/// The steps.
pub const STEPS: Steps =
    Steps { measures: 1.0, weight: 1.0, weight_of_much: 10.0, much_kg: 20.0, volume: 10.0 };

/// One step of an amount [its measures, kg, L].
///
/// # Example
/// ```
/// use zymarch_core::mix::step::{Counted, Units, step};
///
/// assert_eq!(step(Counted::Measures, 7.0, Units::Metric), 1.0);
/// assert_eq!(step(Counted::Weighed, 12.0, Units::Metric), 1.0);
/// assert!((step(Counted::Weighed, 80.0, Units::Us) - 4.535_923_7).abs() < 1e-9, "ten pounds");
/// ```
#[must_use]
pub fn step(counted: Counted, amount: f64, units: Units) -> f64 {
    let (pound, gallon) = match units {
        Units::Metric => (1.0, 1.0),
        Units::Us => (POUND_KG, GALLON_L),
    };
    match counted {
        Counted::Measures => STEPS.measures,
        Counted::Weighed if amount < STEPS.much_kg => STEPS.weight * pound,
        Counted::Weighed => STEPS.weight_of_much * pound,
        Counted::Poured => STEPS.volume * gallon,
    }
}
