//! Heaps on build day: begun from a batch, laid step by step, put right, taken from stock.

pub mod act;
mod begin;
pub mod built;
pub mod heap;
mod knew;
pub(crate) mod standing;
pub mod supply;

pub use begin::{ahead, begin};
