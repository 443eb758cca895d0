//! Tending: what a heap does over time, and what is done to it.

pub mod heat;
pub mod hygiene;
