//! Weigh one full measure: the loose density of a material.

use super::{HEAVIEST_KG, reading};
use crate::base::fault::{Fault, FaultCode};
use crate::stock::measure::LARGEST_MEASURE_L;

/// One full measure on a scale.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weigh {
    /// What the measure holds [L].
    pub litres: f64,
    /// Full, with the measure itself [kg].
    pub full_kg: f64,
    /// The measure alone [kg].
    pub empty_kg: f64,
}

/// The lightest and heaviest stuff there is, loose [kg/L].
const DENSITY_KG_L: (f64, f64) = (0.001, 5.0);

impl Weigh {
    /// Loose density [kg/L].
    ///
    /// # Formula
    /// ```text
    /// ρ = (full − empty) / V
    /// ```
    ///
    /// # Source
    /// Definition of bulk density; the field way of Rynk 1992, On-Farm
    /// Composting Handbook (NRAES-54), with a bucket and a scale.
    ///
    /// # Errors
    /// A [`Fault`] if the full one weighs no more than the empty one, or the
    /// density is none that a material has.
    ///
    /// # Example
    /// A basket of 22 L weighs 9.2 kg full of wet leaves and 1.2 kg empty: 8 kg, 0.364 kg/L.
    /// ```
    /// use zymarch_core::stock::field_test::Weigh;
    /// let leaves = Weigh { litres: 22.0, full_kg: 9.2, empty_kg: 1.2 };
    /// assert!((leaves.density_kg_l()? - 0.3636).abs() < 1e-4);
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn density_kg_l(&self) -> Result<f64, Fault> {
        let litres = reading("litres", self.litres, false, LARGEST_MEASURE_L)?;
        let full = reading("full_kg", self.full_kg, false, HEAVIEST_KG)?;
        let empty = reading("empty_kg", self.empty_kg, true, HEAVIEST_KG)?;
        if full <= empty {
            return Err(Fault::of("full_kg", FaultCode::NotHeavier).with("least", empty));
        }
        let density = (full - empty) / litres;
        if !(DENSITY_KG_L.0..=DENSITY_KG_L.1).contains(&density) {
            return Err(Fault::of("full_kg", FaultCode::TooHeavy).with("density_kg_l", density));
        }
        Ok(density)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn impossible_weights_are_refused_by_field() {
        let field = |litres, full_kg, empty_kg| {
            Weigh { litres, full_kg, empty_kg }.density_kg_l().expect_err("refused").path.to_string()
        };
        assert_eq!(field(0.0, 5.0, 1.0), "litres");
        assert_eq!(field(12.0, 1.0, 1.0), "full_kg");
        assert_eq!(field(12.0, 90.0, 1.0), "full_kg");
        assert_eq!(field(12.0, f64::NAN, 1.0), "full_kg");
        assert_eq!(field(12.0, 5.0, -1.0), "empty_kg");
    }
}
