//! Tending: what is read of a heap, seen at it and done to it, what it is expected to do, and what its
//! recorded heat shows.

mod ask;
mod course;
pub mod entry;
pub mod export;
pub mod import;
pub mod photo;
pub mod probe;
pub mod report;
mod series;
pub mod simulated;
pub mod strip;
pub mod tended;
pub mod trace;
mod weather;

pub use ask::{diagnose, heat, hours, hygiene};
pub(crate) use course::KeptCourses;
pub use course::document;
pub(crate) use series::KeptSeries;
