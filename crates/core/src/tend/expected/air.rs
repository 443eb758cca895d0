//! The air at a site, hour by hour: as it was read there, else as its months are.

use std::f64::consts::TAU;

use crate::stock::climate::Climate;

/// What is known of the air of a site, from the time a heap was built.
#[derive(Debug, Clone, Copy)]
pub struct Sky<'a> {
    /// What its months are like, if that was written down.
    pub climate: Option<&'a Climate>,
    /// The day of the year at the start, from 1.
    pub start_day: f64,
    /// The hour of the day at the start, by the site's clock.
    pub start_hour: f64,
    /// What was read there: hours after the start, °C; in order.
    pub read: &'a [(f64, f64)],
}

/// Where nothing is known of a site [°C, K].
const USUAL: [f64; 2] = [18.0, 5.0];

/// Readings so far apart are joined by a straight line; where there are none for longer, the months are taken [h].
const JOINED_H: f64 = 6.0;

/// The longest month is so long [days].
const MONTH_DAYS: f64 = 365.25 / 12.0;

/// The air at each whole hour, from the start for so many hours [°C].
///
/// # Example
/// Read at noon and at four; nothing more is known.
/// ```
/// use zymarch_core::tend::expected::{Sky, air_c};
/// let sky = Sky { climate: None, start_day: 80.0, start_hour: 12.0, read: &[(0.0, 20.0), (4.0, 24.0)] };
/// let air = air_c(&sky, 5);
/// assert_eq!(air[..5], [20.0, 21.0, 22.0, 23.0, 24.0]);
/// assert!((air[5] - (18.0 + 5.0 * (std::f64::consts::TAU * 2.0 / 24.0).cos())).abs() < 1e-9);
/// ```
#[must_use]
pub fn air_c(sky: &Sky<'_>, hours: u32) -> Vec<f64> {
    let mut next = 0;
    (0..=hours)
        .map(|hour| {
            let at = f64::from(hour);
            while next < sky.read.len() && sky.read[next].0 < at {
                next += 1;
            }
            let before = next.checked_sub(1).map(|last| sky.read[last]);
            match (before, sky.read.get(next)) {
                (_, Some(&(on, temp))) if on == at => temp,
                (Some((from, low)), Some(&(to, high))) if to - from <= JOINED_H => {
                    low + (at - from) / (to - from) * (high - low)
                }
                _ => sky.usual_c(at),
            }
        })
        .collect()
}

impl Sky<'_> {
    /// As it usually is: warmest at three in the afternoon.
    fn usual_c(&self, at_h: f64) -> f64 {
        let day = self.start_day - 1.0 + (self.start_hour + at_h) / 24.0;
        let [mean, swing] = self.climate.map_or(USUAL, |climate| month(climate, day));
        mean + swing * (TAU * (at_h + self.start_hour - 15.0) / 24.0).cos()
    }
}

/// Mean and swing on a day of the year, straight from the middle of one month to that of the next.
fn month(climate: &Climate, day: f64) -> [f64; 2] {
    let at = (day / MONTH_DAYS - 0.5).rem_euclid(12.0);
    let (from, part) = (at.floor() as u8 % 12, at.fract());
    let (from, to) = (climate.month(from + 1), climate.month((from + 1) % 12 + 1));
    [from.mean_c + part * (to.mean_c - from.mean_c), from.swing_c + part * (to.swing_c - from.swing_c)]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::stock::climate::Month;

    #[test]
    fn a_month_is_as_it_was_written_in_its_middle() {
        let mut months = [Month { mean_c: 10.0, swing_c: 6.0, rain_mm: 0.0 }; 12];
        months[6] = Month { mean_c: 22.0, swing_c: 8.0, rain_mm: 0.0 };
        let climate = Climate(months);
        let middle = 6.5 * MONTH_DAYS;
        assert!((month(&climate, middle)[0] - 22.0).abs() < 1e-9);
        assert!((month(&climate, middle + MONTH_DAYS / 2.0)[0] - 16.0).abs() < 1e-9);
        assert!((month(&climate, 0.0)[0] - 10.0).abs() < 1e-9);
        assert!((month(&climate, 366.0)[1] - 6.0).abs() < 1e-9);
    }

    #[test]
    fn a_long_gap_is_filled_by_the_months() {
        let sky = Sky { climate: None, start_day: 1.0, start_hour: 15.0, read: &[(0.0, 30.0), (48.0, 30.0)] };
        let air = air_c(&sky, 49);
        assert_eq!((air[0], air[48]), (30.0, 30.0));
        assert!((air[24] - 23.0).abs() < 1e-9);
        assert!((air[12] - 13.0).abs() < 1e-9);
    }
}
