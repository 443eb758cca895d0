//! Fractions, amounts and bands, checked once where they enter.
//!
//! A formula that takes these never meets NaN, a negative amount, or a percent
//! where a fraction was meant. Plain `f64` with the unit in its name is used
//! inside the formulas; these types stand at their doors.

use crate::base::fault::{Fault, FaultCode};

/// The largest single amount accepted, in kilograms or litres.
///
/// A thousand tonnes: no smallholding piles more, and a sum of such amounts
/// still keeps its grams in an `f64`.
pub const LARGEST_AMOUNT: f64 = 1_000_000.0;

/// A share of a whole, from 0 to 1. Not a percentage.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Fraction(f64);

impl Fraction {
    /// Nothing of it.
    pub const ZERO: Self = Self(0.0);

    /// All.
    pub const ONE: Self = Self(1.0);

    /// A fraction from a number.
    ///
    /// # Errors
    /// [`FaultCode::NotAFraction`] unless `value` is from 0 to 1; NaN is refused too.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::base::quantity::Fraction;
    /// assert_eq!(Fraction::new(0.55)?.get(), 0.55);
    /// assert!(Fraction::new(55.0).is_err());
    /// # Ok::<(), zymarch_core::base::fault::Fault>(())
    /// ```
    pub fn new(value: f64) -> Result<Self, Fault> {
        if (0.0..=1.0).contains(&value) {
            Ok(Self(value))
        } else {
            Err(Fault::new(FaultCode::NotAFraction).with("got", value))
        }
    }

    /// A fraction from a percentage, 0 to 100.
    ///
    /// # Errors
    /// [`FaultCode::NotAFraction`] outside that range, with the value as a fraction.
    pub fn from_percent(percent: f64) -> Result<Self, Fault> {
        Self::new(percent / 100.0)
    }

    /// The number, 0 to 1.
    #[must_use]
    pub const fn get(self) -> f64 {
        self.0
    }

    /// The number as a percentage, 0 to 100, rounded to a billionth: 0.14 times
    /// 100 is 14.000000000000002, and what was typed should come back as typed.
    #[must_use]
    pub fn percent(self) -> f64 {
        (self.0 * 1e11).round() / 1e9
    }

    /// What is left of the whole: `1 - self`.
    #[must_use]
    pub fn rest(self) -> f64 {
        1.0 - self.0
    }
}

impl serde::Serialize for Fraction {
    fn serialize<S: serde::Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        to.serialize_f64(self.0)
    }
}

impl<'de> serde::Deserialize<'de> for Fraction {
    fn deserialize<D: serde::Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
        Self::new(f64::deserialize(from)?).map_err(serde::de::Error::custom)
    }
}

/// A low and a high edge, `low <= high`, both finite.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Band {
    low: f64,
    high: f64,
}

impl Band {
    /// A band between two edges.
    ///
    /// # Errors
    /// [`FaultCode::NotABand`] if the edges are not finite or stand in the wrong order.
    pub fn new(low: f64, high: f64) -> Result<Self, Fault> {
        if low.is_finite() && high.is_finite() && low <= high {
            Ok(Self { low, high })
        } else {
            Err(Fault::new(FaultCode::NotABand).with("low", low).with("high", high))
        }
    }

    /// For the figures of this crate, whose order is seen in the source.
    pub(crate) const fn fixed(low: f64, high: f64) -> Self {
        assert!(low <= high);
        Self { low, high }
    }

    /// A band written as `low..high`.
    #[must_use]
    pub fn parse(text: &str) -> Option<Self> {
        let (low, high) = text.split_once("..")?;
        Self::new(low.parse().ok()?, high.parse().ok()?).ok()
    }

    /// The lower edge.
    #[must_use]
    pub const fn low(self) -> f64 {
        self.low
    }

    /// The higher edge.
    #[must_use]
    pub const fn high(self) -> f64 {
        self.high
    }

    /// Half-way between the edges.
    #[must_use]
    pub fn middle(self) -> f64 {
        f64::midpoint(self.low, self.high)
    }

    /// Whether a value lies in the band, edges included, allowing for the last
    /// digits that arithmetic loses.
    #[must_use]
    pub fn holds(self, value: f64) -> bool {
        value >= self.low - 1e-9 && value <= self.high + 1e-9
    }
}

/// As [`Band::parse`] reads it.
impl std::fmt::Display for Band {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(to, "{}..{}", self.low, self.high)
    }
}

/// A value within edges, both included; NaN is refused too.
///
/// # Errors
/// [`FaultCode::OutOfRange`], with the edges and the value.
pub fn within(value: f64, low: f64, high: f64) -> Result<f64, Fault> {
    if (low..=high).contains(&value) {
        Ok(value)
    } else {
        Err(Fault::new(FaultCode::OutOfRange).with("low", low).with("high", high).with("got", value))
    }
}

/// A value above an edge and at most another; NaN is refused too.
///
/// # Errors
/// [`FaultCode::NotAbove`], with the edges and the value.
pub fn above(value: f64, above: f64, most: f64) -> Result<f64, Fault> {
    if value > above && value <= most {
        Ok(value)
    } else {
        Err(Fault::new(FaultCode::NotAbove).with("above", above).with("most", most).with("got", value))
    }
}

/// Checks an amount in kilograms, litres or measures: finite, not negative,
/// not above [`LARGEST_AMOUNT`].
///
/// # Errors
/// A [`Fault`], with the value and the rule it breaks.
pub fn amount(value: f64) -> Result<f64, Fault> {
    if !value.is_finite() {
        Err(Fault::new(FaultCode::NotANumber))
    } else if value < 0.0 {
        Err(Fault::new(FaultCode::Negative).with("got", value))
    } else if value > LARGEST_AMOUNT {
        Err(Fault::new(FaultCode::TooLarge).with("got", value).with("most", LARGEST_AMOUNT))
    } else {
        Ok(value)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_percentage_is_not_taken_for_a_fraction() {
        let fault = Fraction::new(55.0).expect_err("a percentage");
        assert_eq!((fault.code, fault.params), (FaultCode::NotAFraction, vec![("got", 55.0.into())]));
        assert_eq!(Fraction::from_percent(55.0).map(Fraction::get), Ok(0.55));
    }

    #[test]
    fn nan_is_refused_at_every_door() {
        assert!(Fraction::new(f64::NAN).is_err());
        assert!(Band::new(f64::NAN, 1.0).is_err());
        assert_eq!(amount(f64::NAN).expect_err("no number").code, FaultCode::NotANumber);
        assert_eq!(amount(f64::INFINITY).expect_err("no number").code, FaultCode::NotANumber);
    }

    #[test]
    fn an_amount_is_neither_negative_nor_absurd() {
        assert_eq!(amount(-0.1).expect_err("negative").code, FaultCode::Negative);
        assert_eq!(amount(2e6).expect_err("absurd").code, FaultCode::TooLarge);
        assert_eq!(amount(0.0), Ok(0.0));
    }

    #[test]
    fn a_band_holds_its_own_edges() {
        let band = Band::fixed(25.0, 30.0);
        assert!(band.holds(25.0) && band.holds(30.0) && !band.holds(30.1));
        assert!(Band::new(30.0, 25.0).is_err());
    }
}
