//! Air, ground and rain around a heap.

use std::f64::consts::TAU;

/// The weather of a place, as it usually is or as it was measured.
#[derive(Debug, Clone, PartialEq)]
pub struct Weather {
    /// Mean of the air [°C].
    pub mean_c: f64,
    /// How far day and night lie from it [K].
    pub day_swing_c: f64,
    /// How far summer and winter do [K].
    pub season_swing_c: f64,
    /// The warmest day of the year: about 15 in the south, 200 in the north.
    pub warmest_day: f64,
    /// The day of the year at the start.
    pub start_day: f64,
    /// The hour of the day at the start.
    pub start_hour: f64,
    /// Relative humidity [-].
    pub humidity: f64,
    /// Height above the sea [m].
    pub altitude_m: f64,
    /// What was measured instead, hour by hour from the start [°C]; empty if nothing was.
    pub measured_c: Vec<f64>,
}

impl Default for Weather {
    fn default() -> Self {
        Self {
            mean_c: 18.0,
            day_swing_c: 5.0,
            season_swing_c: 0.0,
            warmest_day: 15.0,
            start_day: 15.0,
            start_hour: 12.0,
            humidity: 0.65,
            altitude_m: 0.0,
            measured_c: Vec::new(),
        }
    }
}

impl Weather {
    /// The air, so many hours after the start [°C]: warmest at three in the afternoon.
    #[must_use]
    pub fn air_c(&self, hours: f64) -> f64 {
        if let Some(air) = self.measured(hours) {
            return air;
        }
        self.season_c(hours) + self.day_swing_c * (TAU * (hours + self.start_hour - 15.0) / 24.0).cos()
    }

    /// The ground [°C]: the season's mean, or that of the last day of what was measured.
    #[must_use]
    pub fn ground_c(&self, hours: f64) -> f64 {
        if self.measured_c.is_empty() {
            return self.season_c(hours);
        }
        let at = |back: u32| self.measured((hours - f64::from(back)).max(0.0)).unwrap_or(self.mean_c);
        // Straight lines between the hours have the mean of their ends.
        (0..24).map(|back| f64::midpoint(at(back), at(back + 1))).sum::<f64>() / 24.0
    }

    fn season_c(&self, hours: f64) -> f64 {
        let day = self.start_day + (hours + self.start_hour) / 24.0;
        self.mean_c + self.season_swing_c * (TAU * (day - self.warmest_day) / 365.25).cos()
    }

    /// A straight line between the hours; beyond the last it stays.
    fn measured(&self, hours: f64) -> Option<f64> {
        let last = self.measured_c.len().checked_sub(1)?;
        let at = hours.clamp(0.0, last as f64);
        let (hour, part) = (at.floor(), at.fract());
        let from = self.measured_c[hour as usize];
        let to = self.measured_c[(hour as usize + 1).min(last)];
        Some(from + part * (to - from))
    }
}

/// Rain, evenly over some hours.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rain {
    /// When it begins, hours after the start.
    pub at_h: f64,
    /// For how long [h].
    pub hours: f64,
    /// How much in all [mm].
    pub mm: f64,
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_is_warmest_in_the_afternoon_and_in_summer() {
        let usual = Weather::default();
        assert!((usual.air_c(0.0) - 21.535_53).abs() < 1e-5);
        assert!((usual.air_c(3.0) - 23.0).abs() < 1e-9 && (usual.air_c(15.0) - 13.0).abs() < 1e-9);
        let northern = Weather { season_swing_c: 8.0, warmest_day: 200.0, start_day: 200.0, ..usual };
        assert!(northern.ground_c(0.0) > 25.9 && northern.ground_c(24.0 * 182.0) < 10.1);
    }

    #[test]
    fn what_was_measured_stands_in_for_it_with_straight_lines_between() {
        let measured = Weather { measured_c: vec![10.0, 14.0, 12.0], ..Weather::default() };
        assert_eq!([0.5, 1.0, 1.5, 9.0].map(|h| measured.air_c(h)), [12.0, 14.0, 13.0, 12.0]);
        assert!((measured.ground_c(500.0) - 12.0).abs() < 1e-9);
    }
}
