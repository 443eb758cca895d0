//! Tending: what a heap does over time, and what is done to it.

pub mod diagnose;
pub mod entry;
pub mod expected;
pub mod heat;
pub mod hygiene;
pub mod now;
pub mod reading;
pub mod ready;
pub mod schedule;
pub mod school;
pub mod simulated;
pub mod thin;
