//! Temperatures as they were read, and which of them can be used.
//!
//! Whatever a probe sends is kept. What cannot be true is marked with its reason and used for nothing: no
//! judgement, no picture's line, no proof of heat rests on it.

use std::collections::BTreeMap;

use super::entry::{ReadBy, Spot};
use super::hygiene::MEANT;
use crate::base::words::closed_list;

/// A temperature at one point.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// When, milliseconds since 1970, UTC.
    pub at_ms: i64,
    /// When it was written down here.
    pub recorded_ms: i64,
    /// Where.
    pub place: Spot,
    /// How deep [cm], if that was said.
    pub depth_cm: Option<f64>,
    /// How warm [°C].
    pub temp_c: f64,
    /// By what.
    pub by: ReadBy,
    /// From which of several probes or files, as a number of the caller's.
    pub source: u32,
}

closed_list! {
    /// Why a reading is used for nothing.
    Faulty {
        /// Under −40 or over 95 °C.
        Absurd = "absurd",
        /// The very same figure for a day, in a heap that is hot.
        Stuck = "stuck",
        /// It jumped from the reading before.
        Jump = "jump",
        /// Its time lies before the heap was begun, or after it was sent.
        Clock = "clock",
    }
}

/// A probe that gives the very same figure for so long is stuck [h].
const STUCK_H: i64 = 24;
/// So many equal readings at least: two a day apart may well be alike.
const STUCK_READINGS: usize = 4;
/// Only in a heap so hot, where nothing stands still [°C].
const STUCK_OVER_C: f64 = 45.0;
/// More than this is no heap's doing [K]...
const JUMP_C: f64 = 25.0;
/// ...within so short a time [min].
const JUMP_MIN: i64 = 10;
/// A clock may be so far ahead [min].
const AHEAD_MIN: i64 = 10;

const MINUTE_MS: i64 = 60_000;
const HOUR_MS: i64 = 60 * MINUTE_MS;

/// Which readings of a heap begun at a time are faulty, and why. They are given in the order of time.
///
/// What jumped is told from the last good reading of the same point: where a probe was pulled out for good,
/// its readings are believed again after ten minutes.
///
/// # Example
/// A spike between two good readings.
/// ```
/// use zymarch_core::tend::entry::{ReadBy, Spot};
/// use zymarch_core::tend::reading::{Faulty, Reading, faulty};
/// let at = |minute: i64, temp_c| Reading {
///     at_ms: minute * 60_000, recorded_ms: minute * 60_000, place: Spot::Core, depth_cm: None, temp_c,
///     by: ReadBy::Probe, source: 0,
/// };
/// let read = [at(0, 58.1), at(5, 91.0), at(10, 58.2), at(15, 130.0)];
/// assert_eq!(faulty(&read, 0), [None, Some(Faulty::Jump), None, Some(Faulty::Absurd)]);
/// ```
#[must_use]
pub fn faulty(readings: &[Reading], begun_ms: i64) -> Vec<Option<Faulty>> {
    let mut marks: Vec<Option<Faulty>> = readings
        .iter()
        .map(|reading| {
            let is_ahead = reading.at_ms > reading.recorded_ms + AHEAD_MIN * MINUTE_MS;
            if is_ahead || reading.at_ms < begun_ms - HOUR_MS {
                Some(Faulty::Clock)
            } else if !(MEANT[0]..=MEANT[1]).contains(&reading.temp_c) {
                Some(Faulty::Absurd)
            } else {
                None
            }
        })
        .collect();
    for of_point in points(readings).values() {
        jumps(readings, of_point, &mut marks);
        stuck(readings, of_point, &mut marks);
    }
    marks
}

/// The readings of each point, by their places.
fn points(readings: &[Reading]) -> BTreeMap<(u32, Spot, Option<u64>), Vec<usize>> {
    let mut points: BTreeMap<_, Vec<usize>> = BTreeMap::new();
    for (at, reading) in readings.iter().enumerate() {
        let depth = reading.depth_cm.map(f64::to_bits);
        points.entry((reading.source, reading.place, depth)).or_default().push(at);
    }
    points
}

fn jumps(readings: &[Reading], of_point: &[usize], marks: &mut [Option<Faulty>]) {
    let mut last: Option<&Reading> = None;
    for &at in of_point {
        let reading = &readings[at];
        if marks[at].is_some() {
            continue;
        }
        let jumped = last.is_some_and(|last| {
            reading.at_ms - last.at_ms <= JUMP_MIN * MINUTE_MS
                && (reading.temp_c - last.temp_c).abs() > JUMP_C
        });
        if jumped {
            marks[at] = Some(Faulty::Jump);
        } else {
            last = Some(reading);
        }
    }
}

fn stuck(readings: &[Reading], of_point: &[usize], marks: &mut [Option<Faulty>]) {
    let good: Vec<usize> = of_point
        .iter()
        .copied()
        .filter(|&at| {
            marks[at].is_none() && readings[at].by == ReadBy::Probe && readings[at].place != Spot::Air
        })
        .collect();
    for run in good.chunk_by(|a, b| tenths(&readings[*a]) == tenths(&readings[*b])) {
        let [first, .., last] = run else { continue };
        let (from, to) = (readings[*first].at_ms, readings[*last].at_ms);
        if run.len() < STUCK_READINGS || to - from < STUCK_H * HOUR_MS {
            continue;
        }
        if readings[*first].temp_c > STUCK_OVER_C || is_hot(readings, marks, from, to) {
            for &at in run {
                marks[at] = Some(Faulty::Stuck);
            }
        }
    }
}

fn tenths(reading: &Reading) -> i64 {
    (reading.temp_c * 10.0).round() as i64
}

/// Whether the core was hot in a time, by a reading that is not faulty.
fn is_hot(readings: &[Reading], marks: &[Option<Faulty>], from: i64, to: i64) -> bool {
    let start = readings.partition_point(|reading| reading.at_ms < from);
    readings[start..]
        .iter()
        .zip(&marks[start..])
        .take_while(|(reading, _)| reading.at_ms <= to)
        .any(|(reading, mark)| mark.is_none() && reading.place == Spot::Core && reading.temp_c > STUCK_OVER_C)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(minute: i64, temp_c: f64) -> Reading {
        let at_ms = minute * MINUTE_MS;
        Reading {
            at_ms,
            recorded_ms: at_ms,
            place: Spot::Core,
            depth_cm: None,
            temp_c,
            by: ReadBy::Probe,
            source: 0,
        }
    }

    fn hourly(hours: i64, temp_c: impl Fn(i64) -> f64) -> Vec<Reading> {
        (0..=hours).map(|hour| at(hour * 60, temp_c(hour))).collect()
    }

    #[test]
    fn the_very_same_figure_for_a_day_is_stuck_where_it_is_hot() {
        let is_stuck =
            |readings: &[Reading]| faulty(readings, 0).iter().all(|mark| *mark == Some(Faulty::Stuck));
        assert!(is_stuck(&hourly(24, |_| 57.04)));
        assert!(!is_stuck(&hourly(23, |_| 57.04)), "less than a day");
        assert!(!is_stuck(&hourly(30, |_| 21.0)), "a cold heap does stand still");
        assert!(!is_stuck(&hourly(30, |hour| 57.0 + 0.1 * (hour % 2) as f64)));
        let by_hand: Vec<_> =
            hourly(30, |_| 57.0).into_iter().map(|of| Reading { by: ReadBy::Thermometer, ..of }).collect();
        assert!(!is_stuck(&by_hand), "a person rounds");
    }

    #[test]
    fn what_is_stuck_at_the_edge_shows_by_a_hot_core() {
        let mut all = hourly(30, |hour| 60.0 + 0.3 * (hour % 5) as f64);
        all.extend(hourly(30, |_| 31.5).into_iter().map(|of| Reading { place: Spot::Edge, ..of }));
        all.sort_by_key(|of| of.at_ms);
        let marks = faulty(&all, 0);
        for (reading, mark) in all.iter().zip(marks) {
            assert_eq!(mark.is_some(), reading.place == Spot::Edge);
        }
    }

    #[test]
    fn a_probe_pulled_out_for_good_is_believed_again() {
        let read = [at(0, 60.0), at(5, 22.0), at(10, 22.0), at(15, 22.0), at(20, 22.0)];
        let jump = Some(Faulty::Jump);
        assert_eq!(faulty(&read, 0), [None, jump, jump, None, None]);
        let exactly = [at(0, 60.0), at(10, 35.0)];
        assert_eq!(faulty(&exactly, 0), [None, None], "25 K is not more than 25 K");
    }

    #[test]
    fn a_clock_that_is_wrong_is_told_from_when_it_was_sent() {
        let early = Reading { at_ms: -2 * HOUR_MS, ..at(0, 50.0) };
        let late = Reading { at_ms: 11 * MINUTE_MS, ..at(0, 50.0) };
        let near = Reading { at_ms: 9 * MINUTE_MS, ..at(0, 50.0) };
        let clock = Some(Faulty::Clock);
        assert_eq!(faulty(&[early, near, late], 0), [clock, None, clock]);
    }
}
