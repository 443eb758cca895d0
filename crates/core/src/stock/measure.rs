//! The person's own containers, and amounts counted in them.
//!
//! People fork barrows and tip buckets; they do not weigh. A measure has a
//! volume in litres, an amount is a count of measures, loose litres, or
//! kilograms, and a loose density turns one into the other. A container's
//! volume is found in [`vessel`].

pub mod vessel;

use crate::base::fault::Fault;
use crate::base::quantity;

/// The largest container accepted, in litres: a trailer, not a lake.
pub const LARGEST_MEASURE_L: f64 = 20_000.0;

/// How much of something, as the person said it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Amount {
    /// Weighed.
    Kilograms(f64),
    /// Loose litres, as forked into a container.
    Litres(f64),
    /// So many measures of a known volume.
    Measures {
        /// How many; parts are allowed.
        count: f64,
        /// Litres one holds.
        litres_each: f64,
    },
}

impl Amount {
    /// The same amount, checked.
    ///
    /// # Errors
    /// A [`Fault`] for a count, weight or volume that cannot be.
    pub fn checked(self) -> Result<Self, Fault> {
        match self {
            Self::Kilograms(value) | Self::Litres(value) => quantity::amount(value).map(|_| self),
            Self::Measures { count, litres_each } => {
                quantity::amount(count)?;
                quantity::amount(litres_each)?;
                quantity::amount(count * litres_each).map(|_| self)
            }
        }
    }

    /// The field of the open formats that says it.
    #[must_use]
    pub const fn field(self) -> &'static str {
        match self {
            Self::Kilograms(_) => "kg",
            Self::Litres(_) => "litres",
            Self::Measures { .. } => "amount",
        }
    }

    /// Mass [kg] at a loose density.
    ///
    /// # Formula
    /// ```text
    /// q = V · ρ      V = count · litres_each
    /// ```
    /// `V` loose volume [L], `ρ` loose density [kg/L].
    ///
    /// # Source
    /// Definition of bulk density.
    ///
    /// # Example
    /// Two 70 L barrows of sheep manure at 0.55 kg/L weigh 77 kg.
    /// ```
    /// use zymarch_core::stock::measure::Amount;
    /// let two_barrows = Amount::Measures { count: 2.0, litres_each: 70.0 };
    /// assert!((two_barrows.mass_kg(0.55) - 77.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn mass_kg(self, density_kg_l: f64) -> f64 {
        match self {
            Self::Kilograms(kilograms) => kilograms,
            Self::Litres(litres) => litres * density_kg_l,
            Self::Measures { count, litres_each } => count * litres_each * density_kg_l,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn weight_volume_and_count_agree() {
        let density = 0.5;
        let by_count = Amount::Measures { count: 3.0, litres_each: 12.0 };
        assert_eq!(by_count.mass_kg(density), 18.0);
        assert_eq!(Amount::Litres(36.0).mass_kg(density), 18.0);
        assert_eq!(Amount::Kilograms(18.0).mass_kg(density), 18.0);
    }

    #[test]
    fn an_absurd_product_is_refused_though_its_factors_are_not() {
        let huge = Amount::Measures { count: 1e6, litres_each: 1e4 };
        assert_eq!(huge.checked().expect_err("absurd").code, crate::base::fault::FaultCode::TooLarge);
    }
}
