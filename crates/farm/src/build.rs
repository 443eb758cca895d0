//! Heaps on build day: begun from a batch, laid step by step, put right, taken from stock.

pub mod act;
mod begin;
pub mod heap;
mod knew;
mod standing;
pub mod supply;

pub use begin::{ahead, begin};
