//! The state of a heap now: what is left of it, how moist and how high it is, and how sure that is.
//!
//! The model says what should be left of what was built and added; what was measured since puts it right. A
//! measurement and the model are weighed by how far each may be off, and what the model does after a
//! measurement goes on from there. Diagnosis, watering and yield all start from this one answer.
//!
//! # Source
//! Weighing by variance, forward in time: Kalman R.E. 1960, A new approach to linear filtering and
//! prediction problems, J. Basic Engineering 82, in one dimension. How far the model and a hand may be off is our judgement.

use super::heat::Hour;

/// A figure, and within what it lies nine times of ten.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Guess {
    /// The likeliest.
    pub value: f64,
    /// Lowest.
    pub low: f64,
    /// Highest.
    pub high: f64,
    /// How many measurements it rests on; none if the model alone says so.
    pub measured: usize,
}

/// Something that was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Measured {
    /// Water of a handful, share of fresh mass [-].
    Moisture(f64),
    /// Room, by its height [m³].
    Volume(f64),
}

/// A heap now.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Now {
    /// Fresh mass [kg].
    pub wet_kg: Guess,
    /// Dry matter [kg].
    pub dry_kg: Guess,
    /// Water, share of fresh mass [-].
    pub moisture: Guess,
    /// Carbon to nitrogen [-].
    pub c_n: Guess,
    /// Room [m³].
    pub volume_m3: Guess,
    /// Room left, share of what was built [-].
    pub volume_left: Guess,
}

impl Now {
    /// The same, of so much of the heap as is left once some was taken out [-].
    #[must_use]
    pub fn of_share(&self, left: f64) -> Self {
        let part =
            |of: Guess| Guess { value: of.value * left, low: of.low * left, high: of.high * left, ..of };
        Self {
            wet_kg: part(self.wet_kg),
            dry_kg: part(self.dry_kg),
            volume_m3: part(self.volume_m3),
            volume_left: part(self.volume_left),
            ..*self
        }
    }
}

/// How far something may be off: at the start, more each day, and when it is measured.
struct Doubt {
    start: f64,
    day: f64,
    measured: f64,
}

/// Water, as a share [-]: a hand is right to five points.
const OF_MOISTURE: Doubt = Doubt { start: 0.03, day: 0.008, measured: 0.05 };
/// Room, as a share of itself [-]: a tape to five in a hundred, since no heap is flat.
const OF_VOLUME: Doubt = Doubt { start: 0.08, day: 0.010, measured: 0.05 };
/// Nine of ten lie within so many standard deviations.
const NINE_OF_TEN: f64 = 1.645;
/// Of what the model says was eaten, so much may be more or less [-].
const OF_EATEN: f64 = 0.3;
/// What was put in is known so well [-].
const OF_PUT_IN: f64 = 0.04;
/// Carbon to nitrogen [-].
const OF_C_N: f64 = 0.12;

/// How far a heap is from the model, and how sure that is, after what was measured.
struct Off {
    by: f64,
    variance: f64,
    measured: usize,
}

impl Doubt {
    /// From measurements, each so many hours after the start and so far from the model, up to an hour.
    fn after(&self, measured: &[(f64, f64)], now_h: f64) -> Off {
        let mut off = Off { by: 0.0, variance: self.start * self.start, measured: 0 };
        let mut last_h = 0.0;
        for &(at_h, by) in measured {
            off.variance += self.grown(at_h - last_h);
            let weight = off.variance / (off.variance + self.measured * self.measured);
            off.by += weight * (by - off.by);
            off.variance *= 1.0 - weight;
            off.measured += 1;
            last_h = at_h;
        }
        off.variance += self.grown(now_h - last_h);
        off
    }

    fn grown(&self, hours: f64) -> f64 {
        self.day * self.day * hours.max(0.0) / 24.0
    }
}

impl Off {
    fn spread(&self) -> f64 {
        NINE_OF_TEN * self.variance.sqrt()
    }
}

/// A heap at the last hour of its course, put right by what was measured, each so many hours after the start
/// and in that order; none if it has no course.
///
/// # Example
/// A squeeze that says drier than the model draws it half way there.
/// ```
/// use zymarch_core::tend::heat::{Form, Geometry, Part, Setting, Start, run};
/// use zymarch_core::tend::now::{Measured, now};
/// use zymarch_core::stock::material::Degradability::Medium;
/// let straw = Part {
///     kg: 300.0, moisture: 0.6, ash: 0.1, nitrogen: 0.015, c_n: 30.0, lignin: 0.08, degradability: Medium,
///     density_kg_m3: 300.0, settle: 0.8, ammonia_share: 0.05,
/// };
/// let bay = Setting::of(Geometry::of(Form::Box { length_m: 1.0, width_m: 1.0 }));
/// let hours = run(&Start::of(&[straw]), &bay, 20)?.hours;
/// let model = now(&hours, &[]).expect("has a course").moisture;
/// let drier = now(&hours, &[(480.0, Measured::Moisture(0.35))]).expect("has a course").moisture;
/// assert!(drier.value < model.value && drier.value > 0.35);
/// assert!(drier.high - drier.low < model.high - model.low);
/// # Ok::<(), zymarch_core::base::fault::Fault>(())
/// ```
#[must_use]
pub fn now(hours: &[Hour], measured: &[(f64, Measured)]) -> Option<Now> {
    let (first, last) = (hours.first()?, hours.last()?);
    let now_h = f64::from(last.hour);
    let at = |at_h: f64| {
        let place = (at_h.round().max(0.0) as usize).min(hours.len() - 1);
        &hours[place]
    };
    let of_moisture: Vec<(f64, f64)> = measured
        .iter()
        .filter_map(|(at_h, of)| match of {
            Measured::Moisture(share) => Some((*at_h, share - at(*at_h).moisture)),
            Measured::Volume(_) => None,
        })
        .collect();
    let of_volume: Vec<(f64, f64)> = measured
        .iter()
        .filter_map(|(at_h, of)| match of {
            Measured::Volume(m3) if *m3 > 0.0 => Some((*at_h, (m3 / at(*at_h).volume_m3).ln())),
            _ => None,
        })
        .collect();
    let moist = OF_MOISTURE.after(&of_moisture, now_h);
    let room = OF_VOLUME.after(&of_volume, now_h);
    let share = |by: f64| (last.moisture + by).clamp(0.05, 0.92);
    let moisture = Guess {
        value: share(moist.by),
        low: share(moist.by - moist.spread()),
        high: share(moist.by + moist.spread()),
        measured: moist.measured,
    };
    let eaten = (first.dry_kg - last.dry_kg).max(0.0);
    let dry = last.dry_kg;
    let off_kg = OF_EATEN * eaten + OF_PUT_IN * first.dry_kg;
    let dry_kg = modelled(dry, off_kg, off_kg);
    let wet = |dry: f64, moisture: f64| dry / (1.0 - moisture);
    let wet_kg = Guess {
        value: wet(dry, moisture.value),
        low: wet(dry_kg.low, moisture.low),
        high: wet(dry_kg.high, moisture.high),
        measured: moist.measured,
    };
    let times = |by: f64| last.volume_m3 * by.exp();
    let volume_m3 = Guess {
        value: times(room.by),
        low: times(room.by - room.spread()),
        high: times(room.by + room.spread()),
        measured: room.measured,
    };
    let left = |m3: f64| m3 / first.volume_m3;
    Some(Now {
        wet_kg,
        dry_kg,
        moisture,
        c_n: modelled(last.c_n, OF_C_N * last.c_n, OF_C_N * last.c_n),
        volume_left: Guess {
            value: left(volume_m3.value),
            low: left(volume_m3.low),
            high: left(volume_m3.high),
            measured: room.measured,
        },
        volume_m3,
    })
}

fn modelled(value: f64, less: f64, more: f64) -> Guess {
    Guess { value, low: (value - less).max(0.0), high: value + more, measured: 0 }
}

#[cfg(test)]
mod tests;
