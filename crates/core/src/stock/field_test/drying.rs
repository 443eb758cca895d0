//! The drying test: the moisture of a sample, by weighing it wet and dry.

use super::reading;
use crate::base::fault::{At, Fault, FaultCode};
use crate::base::quantity::Fraction;
use crate::base::words::closed_list;

/// A sample, weighed before and again while it dries. All with the dish.
#[derive(Debug, Clone, PartialEq)]
pub struct Drying {
    /// The dish alone [g].
    pub dish_g: f64,
    /// Dish and fresh sample [g].
    pub wet_g: f64,
    /// Dish and sample while drying, in order [g]; one is enough.
    pub dried_g: Vec<f64>,
}

/// What a drying test says so far.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DryingResult {
    /// Water, share of fresh mass, by the last weighing.
    pub moisture: Fraction,
    /// Whether it has stopped losing weight.
    pub steadiness: Steadiness,
}

closed_list! {
    /// Whether a drying sample has stopped losing weight.
    Steadiness {
        /// Weighed once: taken on trust.
        Once = "once",
        /// Still losing weight: there is more water than was found so far.
        Falling = "falling",
        /// The last two weighings agree.
        Steady = "steady",
    }
}

/// Two weighings agree when they differ by less than this share of the fresh sample [-].
///
/// # Source
/// "Dry to constant weight": within about 1 % of the sample between weighings,
/// as in the oven method of Rynk 1992, On-Farm Composting Handbook (NRAES-54).
const AGREES_WITHIN: f64 = 0.01;

/// All water is no sample [-].
const WETTEST: f64 = 0.995;

/// Heaviest sample with its dish [g].
pub const HEAVIEST_G: f64 = 50_000.0;
const MOST_WEIGHINGS: usize = 50;

impl Drying {
    /// Moisture by the last weighing, and whether drying is over.
    ///
    /// # Formula
    /// ```text
    /// m = (wet − dry) / (wet − dish)
    /// ```
    ///
    /// # Source
    /// Moisture, wet basis, by loss on drying.
    ///
    /// # Errors
    /// A [`Fault`] of the weight that cannot be: a sample that gains weight
    /// by more than the scale's play, or weighs less than its dish.
    ///
    /// # Example
    /// A dish of 200 g holds 300 g of fresh dung; dried to 290 g in all, 210 g
    /// of water have gone: 70 %.
    /// ```
    /// use zymarch_core::stock::field_test::{Drying, Steadiness};
    /// let dung = Drying { dish_g: 200.0, wet_g: 500.0, dried_g: vec![340.0, 291.0, 290.0] };
    /// let found = dung.result()?;
    /// assert_eq!((found.moisture.get(), found.steadiness), (0.7, Steadiness::Steady));
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn result(&self) -> Result<DryingResult, Fault> {
        let dish = reading("dish_g", self.dish_g, true, HEAVIEST_G)?;
        let wet = reading("wet_g", self.wet_g, false, HEAVIEST_G)?;
        let sample = wet - dish;
        if sample <= 0.0 {
            return Err(Fault::of("wet_g", FaultCode::NotHeavier).with("least", dish));
        }
        if self.dried_g.len() > MOST_WEIGHINGS {
            return Err(Fault::of("dried_g", FaultCode::TooMany)
                .with("got", self.dried_g.len())
                .with("most", MOST_WEIGHINGS));
        }
        let mut before = wet;
        for (index, &weight) in self.dried_g.iter().enumerate() {
            let all = At::ROOT.key("dried_g");
            let at = all.index(index);
            let weight = reading("", weight, false, HEAVIEST_G).map_err(|fault| at.put(fault))?;
            if weight <= dish {
                return Err(at.fault(FaultCode::NotHeavier).with("least", dish));
            }
            if weight > before + sample * AGREES_WITHIN {
                return Err(at.fault(FaultCode::GainsWeight).with("before", before));
            }
            before = weight;
        }
        let last = *self.dried_g.last().ok_or_else(|| Fault::of("dried_g", FaultCode::Empty))?;
        let steadiness = match self.dried_g[..] {
            [.., a, b] if (a - b).abs() <= sample * AGREES_WITHIN => Steadiness::Steady,
            [_] => Steadiness::Once,
            _ => Steadiness::Falling,
        };
        let moisture = ((wet - last) / sample).clamp(0.0, 1.0);
        if moisture > WETTEST {
            return Err(Fault::of("dried_g", FaultCode::NotHeavier).with("least", dish));
        }
        let moisture = Fraction::new(moisture).map_err(|fault| Fault { path: "dried_g".into(), ..fault })?;
        Ok(DryingResult { moisture, steadiness })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn sample(dried_g: &[f64]) -> Drying {
        Drying { dish_g: 200.0, wet_g: 500.0, dried_g: dried_g.to_vec() }
    }

    #[test]
    fn a_sample_that_still_loses_weight_is_not_done() {
        assert_eq!(sample(&[340.0]).result().expect("reads").steadiness, Steadiness::Once);
        assert_eq!(sample(&[340.0, 300.0]).result().expect("reads").steadiness, Steadiness::Falling);
        assert_eq!(sample(&[340.0, 300.0, 298.0]).result().expect("reads").steadiness, Steadiness::Steady);
    }

    #[test]
    fn weights_that_cannot_be_are_named_by_place() {
        let field = |dried: &[f64]| sample(dried).result().expect_err("refused").path.to_string();
        assert_eq!(field(&[]), "dried_g");
        assert_eq!(field(&[340.0, 360.0]), "dried_g[1]");
        assert_eq!(field(&[199.0]), "dried_g[0]");
        assert_eq!(field(&[f64::NAN]), "dried_g[0]");
        assert_eq!(field(&[340.0; 60]), "dried_g");
        let light = Drying { dish_g: 500.0, ..sample(&[400.0]) };
        assert_eq!(light.result().expect_err("refused").path.to_string(), "wet_g");
    }

    proptest! {
        #[test]
        fn moisture_is_always_a_share(dish in 0.0..500.0_f64, fresh in 1.0..1000.0_f64, left in 0.01..1.0_f64) {
            let test = Drying { dish_g: dish, wet_g: dish + fresh, dried_g: vec![dish + fresh * left] };
            let found = test.result().expect("is sound");
            prop_assert!((found.moisture.get() - (1.0 - left)).abs() < 1e-6);
        }
    }
}
