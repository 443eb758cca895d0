//! The bucket test: how dense and how open stuff is once it is packed.

use super::{HEAVIEST_KG, reading};
use crate::base::fault::{Fault, FaultCode};
use crate::base::quantity::Fraction;
use crate::stock::figures::{ASH_DENSITY_KG_L, ORGANIC_DENSITY_KG_L};
use crate::stock::measure::LARGEST_MEASURE_L;

/// A bucket filled in thirds, each dropped ten times from 15 cm, and, if the
/// air was to be found, filled up with water to the brim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bucket {
    /// What the bucket holds [L].
    pub litres: f64,
    /// Full, with the bucket [kg].
    pub full_kg: f64,
    /// The bucket alone [kg].
    pub empty_kg: f64,
    /// Water that went in until it stood at the brim [L].
    pub water_l: Option<f64>,
}

/// What a bucket test found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BucketResult {
    /// Packed density [kg/L].
    pub density_kg_l: f64,
    /// Free air space, if water was filled in [-].
    pub free_air_space: Option<f64>,
}

impl Bucket {
    /// Packed density, and the air that the water took the place of.
    ///
    /// # Formula
    /// ```text
    /// ρ = (full − empty) / V      F = water / V
    /// ```
    ///
    /// # Source
    /// The five-gallon-bucket test used with aerated piles, after Rynk 1992
    /// (NRAES-54) and Haug 1993, The Practical Handbook of Compost Engineering.
    ///
    /// # Errors
    /// A [`Fault`] of what cannot be, such as more water than the bucket holds.
    ///
    /// # Example
    /// 10 L that weigh 5.1 kg with a bucket of 0.6 kg, and take 4.2 L of water.
    /// ```
    /// use zymarch_core::stock::field_test::Bucket;
    /// let mix = Bucket { litres: 10.0, full_kg: 5.1, empty_kg: 0.6, water_l: Some(4.2) };
    /// let found = mix.result()?;
    /// assert!((found.density_kg_l - 0.45).abs() < 1e-9);
    /// assert!((found.free_air_space.expect("water was filled in") - 0.42).abs() < 1e-9);
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn result(&self) -> Result<BucketResult, Fault> {
        let litres = reading("litres", self.litres, false, LARGEST_MEASURE_L)?;
        let full = reading("full_kg", self.full_kg, false, HEAVIEST_KG)?;
        let empty = reading("empty_kg", self.empty_kg, true, HEAVIEST_KG)?;
        if full <= empty {
            return Err(Fault::of("full_kg", FaultCode::NotHeavier).with("least", empty));
        }
        let density_kg_l = (full - empty) / litres;
        if density_kg_l > 5.0 {
            return Err(Fault::of("full_kg", FaultCode::TooHeavy).with("density_kg_l", density_kg_l));
        }
        let free_air_space = match self.water_l {
            None => None,
            Some(water) => {
                let water = reading("water_l", water, true, LARGEST_MEASURE_L)?;
                if water >= litres {
                    return Err(Fault::of("water_l", FaultCode::MoreThanThereIs)
                        .with("got", water)
                        .with("most", litres));
                }
                Some(water / litres)
            }
        };
        Ok(BucketResult { density_kg_l, free_air_space })
    }
}

impl BucketResult {
    /// The volume in a built heap as a share of the loose volume [-].
    ///
    /// The same stuff weighs `ρ_loose` to the litre as forked and `ρ_packed`
    /// as it lies in a heap, so a loose litre sinks to their quotient. Held in
    /// 0.05 to 1: nothing swells when it is packed.
    #[must_use]
    pub fn settle(&self, loose_density_kg_l: f64) -> f64 {
        (loose_density_kg_l / self.density_kg_l).clamp(0.05, 1.0)
    }
}

/// Free air space from a packed density, when no water was filled in [-].
///
/// # Formula
/// ```text
/// F = 1 − ρ·(m/1.0 + (1 − m)·((1 − a)/1.6 + a/2.65))
/// ```
/// `ρ` packed density [kg/L], `m` moisture, `a` ash of the dry matter. Held at 0 or above.
///
/// # Source
/// As [`ORGANIC_DENSITY_KG_L`].
#[must_use]
pub fn air_from_density(density_kg_l: f64, moisture: Fraction, ash: Fraction) -> f64 {
    let solids = ash.rest() / ORGANIC_DENSITY_KG_L + ash.get() / ASH_DENSITY_KG_L;
    (1.0 - density_kg_l * (moisture.get() + moisture.rest() * solids)).max(0.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn readings_that_cannot_be_are_refused_by_field() {
        let sound = Bucket { litres: 10.0, full_kg: 5.0, empty_kg: 0.6, water_l: Some(4.0) };
        let field = |bucket: Bucket| bucket.result().expect_err("refused").path.to_string();
        assert_eq!(field(Bucket { water_l: Some(10.0), ..sound }), "water_l");
        assert_eq!(field(Bucket { water_l: Some(-1.0), ..sound }), "water_l");
        assert_eq!(field(Bucket { full_kg: 0.5, ..sound }), "full_kg");
        assert_eq!(field(Bucket { full_kg: 99.0, ..sound }), "full_kg");
        assert_eq!(field(Bucket { litres: f64::INFINITY, ..sound }), "litres");
    }

    #[test]
    fn air_by_density_agrees_with_the_sum_by_hand() {
        // 0.6 kg/L at 60 % water and 25 % ash: 0.36 water + 0.24·(0.75/1.6 + 0.25/2.65) = 0.4951.
        let share = |value| Fraction::new(value).expect("a share");
        assert!((air_from_density(0.6, share(0.6), share(0.25)) - 0.5049).abs() < 1e-4);
        assert_eq!(air_from_density(3.0, share(0.6), share(0.25)), 0.0);
    }

    #[test]
    fn straw_that_packs_to_double_settles_to_half() {
        let packed = BucketResult { density_kg_l: 0.1, free_air_space: None };
        assert_eq!(packed.settle(0.05), 0.5);
        assert_eq!(packed.settle(0.2), 1.0);
    }
}
