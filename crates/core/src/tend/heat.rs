//! The heat that should be: hour by hour how warm, moist and airy a heap of this make is expected to be.
//!
//! A teaching and expectation model of two zones, core and shell, each well mixed inside. It
//! is tuned by hand on situations that practice describes and **has not been validated**:
//! its course is drawn as a band ([`BAND_C`]), never as a line of truth, and proves nothing of
//! hygiene. Wind, sun, worms, methane, preserved or frozen stuff are not in it.
//!
//! | file | what it holds |
//! |---|---|
//! | [`functions`] | small functions of temperature, air and ammonia |
//! | [`weather`] | air, ground and rain |
//! | [`start`] | what a mix brings |
//! | [`shape`] | surfaces of a heap, whatever it has shrunk to |
//! | [`state`] | what is kept of it, and what follows |
//! | [`air`] | how air and oxygen come in |
//! | [`rates`] | all rates of change, in one place |
//! | [`events`] | turning, watering, adding |
//! | [`run`] | the hours, one after the other |
//! | [`record`] | what is told of each, and of all |
//!
//! # Source
//! Form after Haug 1993, The Practical Handbook of Compost Engineering; constants as each
//! is marked in [`constants`]. Where one is called fitted no publication supports it.

mod air;
pub mod constants;
pub mod events;
pub mod functions;
mod rates;
pub mod record;
pub mod run;
pub mod shape;
pub mod start;
pub mod state;
pub mod weather;

pub use events::{Event, Happening, Pouring};
pub use record::{Day, Hour, Summary};
pub use run::{Course, Onward, Setting, onward, run};
pub use shape::{Columns, Cover, Form, Geometry};
pub use start::{Part, Start, ammonia_share};
pub use state::{Make, State};
pub use weather::{Rain, Weather};

/// How far real readings may lie from what is expected, either way [K]; more in the first three days.
pub const BAND_C: f64 = 8.0;

#[cfg(test)]
mod tests;
