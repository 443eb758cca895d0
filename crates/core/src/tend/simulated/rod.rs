//! A rod with three points, stuck into a heap.

use super::{chance, wander};
use crate::base::words::closed_list;
use crate::tend::entry::Spot;
use crate::tend::expected::temp_at;
use crate::tend::heat::Hour;

closed_list! {
    /// What is wrong with a rod, on request.
    RodFault {
        /// It gives the same figure again and again.
        Stuck = "stuck",
        /// Some of what it sends is lost, and at times all of it for hours.
        Dropped = "dropped",
        /// Now and then it reads far too much.
        Spike = "spike",
        /// Its battery runs down: it reads less and less, and then nothing.
        Battery = "battery",
        /// Its clock is wrong.
        Clock = "clock",
    }
}

/// Its points, from the tip out.
pub const ROD_PLACES: [Spot; 3] = [Spot::Core, Spot::HalfWay, Spot::Edge];

/// A rod.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rod {
    /// Minutes from one reading to the next.
    pub every_min: u32,
    /// Which of all the rods that could be.
    pub seed: u64,
    /// What is wrong with it, and from which hour on.
    pub fault: Option<(RodFault, f64)>,
}

/// What a rod sends: its three points at one time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sent {
    /// When it was read, hours after the heap was built.
    pub at_h: f64,
    /// When its clock says it was, hours after the heap was built.
    pub said_h: f64,
    /// The points of [`ROD_PLACES`], to the tenth [°C].
    pub temp_c: [f64; 3],
}

/// A battery lasts so long once it runs down [h].
const RUNS_DOWN_H: f64 = 48.0;
/// A wrong clock is so far ahead [h].
const CLOCK_AHEAD_H: f64 = 26.0;

impl Rod {
    /// Its reading of a number, from 0 when the heap was built; none if it is lost or beyond the course.
    #[must_use]
    pub fn reading(&self, hours: &[Hour], number: u64) -> Option<Sent> {
        let at_h = number as f64 * f64::from(self.every_min) / 60.0;
        let fault = self.fault.filter(|(_, from_h)| at_h >= *from_h);
        let since_h = fault.map_or(0.0, |(_, from_h)| at_h - from_h);
        let read_h = if let Some((RodFault::Stuck, from_h)) = fault { from_h } else { at_h };
        let mut temp_c = self.true_c(hours, read_h)?;
        let mut said_h = at_h;
        match fault.map(|(fault, _)| fault) {
            Some(RodFault::Dropped) => {
                let is_gone = chance(self.seed ^ 0xd0, (since_h / 7.0) as u64) < 0.25;
                if is_gone || chance(self.seed ^ 0xd1, number) < 0.2 {
                    return None;
                }
            }
            Some(RodFault::Spike) => {
                for (point, temp) in temp_c.iter_mut().enumerate() {
                    if chance(self.seed ^ 0x5e, number * 3 + point as u64) < 0.03 {
                        *temp = 100.0 + 60.0 * chance(self.seed ^ 0x5f, number);
                    }
                }
            }
            Some(RodFault::Battery) => {
                if since_h > RUNS_DOWN_H {
                    return None;
                }
                temp_c = temp_c.map(|temp| temp * (1.0 - 0.5 * (since_h / RUNS_DOWN_H).powi(3)));
            }
            Some(RodFault::Clock) => said_h += CLOCK_AHEAD_H,
            Some(RodFault::Stuck) | None => {}
        }
        Some(Sent { at_h, said_h, temp_c: temp_c.map(|temp| (temp * 10.0).round() / 10.0) })
    }

    /// What its points have, with what no two probes agree in.
    fn true_c(&self, hours: &[Hour], at_h: f64) -> Option<[f64; 3]> {
        let [core, shell] = temp_at(hours, at_h)?;
        let air = hours[(at_h as usize).min(hours.len() - 1)].air_c;
        let points = [core, 0.55 * core + 0.45 * shell, 0.75 * shell + 0.25 * air];
        let mut read = [0.0; 3];
        for (point, (read, temp)) in read.iter_mut().zip(points).enumerate() {
            let seed = self.seed.wrapping_mul(7).wrapping_add(point as u64);
            let stands = 4.0 * chance(seed, 1 << 40) - 2.0;
            let slow = 1.6 * wander(seed ^ 0x51, at_h / 31.0) + 0.7 * wander(seed ^ 0x52, at_h / 6.0);
            let fine = 0.3 * (chance(seed ^ 0x53, (at_h * 60.0) as u64) - 0.5);
            let far = ((temp - air) / 20.0).clamp(0.0, 1.0);
            *read = temp + far * (stands + slow) + fine;
        }
        Some(read)
    }
}
