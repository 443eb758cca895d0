//! A weather station: air through the day, and now and then rain.

use super::{chance, wander};
use crate::stock::climate::Climate;
use crate::tend::expected::{Sky, air_c};

/// A station at a site.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Station<'a> {
    /// What its months are like, if that was written down.
    pub climate: Option<&'a Climate>,
    /// Which of all the years that could be.
    pub seed: u64,
}

/// A day, as a station tells it.
#[derive(Debug, Clone, PartialEq)]
pub struct Day {
    /// The air at each hour from midnight [°C].
    pub air_c: [f64; 24],
    /// Rain: the hour it began, how long [h], how much [mm]; none on a dry day.
    pub rain: Option<(u8, f64, f64)>,
}

/// What falls on a day of rain, in the mean [mm].
const RAINY_DAY_MM: f64 = 7.0;
/// Where nothing is known of a site, rain falls so often [share of days].
const USUAL_RAINY: f64 = 0.2;

impl Station<'_> {
    /// A day of the year, from 1, that is so many days since 1970.
    #[must_use]
    pub fn day(&self, day_of_year: u16, since_1970: i64) -> Day {
        let start_day = f64::from(day_of_year);
        let sky = Sky { climate: self.climate, start_day, start_hour: 0.0, read: &[] };
        let usual = air_c(&sky, 23);
        let mut air = [0.0; 24];
        for (hour, (air, usual)) in air.iter_mut().zip(usual).enumerate() {
            let at = since_1970 as f64 + hour as f64 / 24.0;
            let slow = 3.0 * wander(self.seed, at / 2.5) + 0.8 * wander(self.seed ^ 0xa1, at * 6.0);
            *air = ((usual + slow) * 10.0).round() / 10.0;
        }
        Day { air_c: air, rain: self.rain(day_of_year, since_1970) }
    }

    fn rain(&self, day_of_year: u16, since_1970: i64) -> Option<(u8, f64, f64)> {
        let month = (f64::from(day_of_year) / 30.44).floor() as u8 + 1;
        let often = self
            .climate
            .map_or(USUAL_RAINY, |climate| (climate.month(month).rain_mm / 30.0 / RAINY_DAY_MM).min(0.9));
        let of = |what: u64| chance(self.seed ^ what, since_1970 as u64);
        if of(0x7a) >= often {
            return None;
        }
        let mm = (-RAINY_DAY_MM * (1.0 - of(0x7b)).ln()).clamp(0.5, 80.0);
        let hours = 1.0 + (7.0 * of(0x7c)).floor();
        Some(((of(0x7d) * 16.0) as u8, hours, (mm * 10.0).round() / 10.0))
    }
}
