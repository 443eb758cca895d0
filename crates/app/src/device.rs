//! Simulated devices. They ship with the program so that every tool can be
//! tried without buying one, speak the open format that real ones speak, and
//! are called simulated wherever they appear.

pub(crate) mod player;
mod scale;

pub use scale::Scale;
