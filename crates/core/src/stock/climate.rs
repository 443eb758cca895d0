//! The climate of a site: what a year is like there, month by month.
//!
//! A person knows their months better than a formula: how warm the days are in
//! the mean, how far they swing between night and noon, how much rain falls.
//! The course within a month is not kept here.

use crate::base::fault::Fault;
use crate::base::quantity;

/// What a month is usually like.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Month {
    /// Mean air temperature [degrees C].
    pub mean_c: f64,
    /// How far the day rises above, and the night falls below, the mean [K].
    pub swing_c: f64,
    /// Rain in the whole month [mm].
    pub rain_mm: f64,
}

/// What the figures of a month may be: mean and swing of the air [degrees C, K], rain [mm].
pub const MONTH_LIMITS: [(&str, (f64, f64)); 3] =
    [("mean_c", (-40.0, 45.0)), ("swing_c", (0.0, 25.0)), ("rain_mm", (0.0, 3000.0))];

impl Month {
    /// A month, checked.
    ///
    /// # Errors
    /// A [`Fault`] outside −40 to 45 degrees C, a swing of 0 to 25 K, or 0 to 3000 mm.
    pub fn new(mean_c: f64, swing_c: f64, rain_mm: f64) -> Result<Self, Fault> {
        for ((field, (low, high)), value) in MONTH_LIMITS.into_iter().zip([mean_c, swing_c, rain_mm]) {
            quantity::within(value, low, high).map_err(|fault| Fault { path: field.into(), ..fault })?;
        }
        Ok(Self { mean_c, swing_c, rain_mm })
    }
}

/// Twelve months, January first.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Climate(pub [Month; 12]);

impl Climate {
    /// The month of a number, 1 to 12; another number is taken as the nearest.
    #[must_use]
    pub fn month(&self, number: u8) -> Month {
        self.0[usize::from(number.clamp(1, 12)) - 1]
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn months_that_no_place_has_are_refused_by_figure() {
        let field = |mean, swing, rain| Month::new(mean, swing, rain).expect_err("refused").path.to_string();
        assert_eq!(field(60.0, 5.0, 10.0), "mean_c");
        assert_eq!(field(10.0, -1.0, 10.0), "swing_c");
        assert_eq!(field(10.0, 5.0, f64::NAN), "rain_mm");
    }

    #[test]
    fn months_are_counted_from_one() {
        let mut months = [Month { mean_c: 0.0, swing_c: 0.0, rain_mm: 0.0 }; 12];
        months[11].mean_c = 12.0;
        assert_eq!(Climate(months).month(12).mean_c, 12.0);
        assert_eq!(Climate(months).month(13).mean_c, 12.0);
    }
}
