//! Tending: what is read of a heap, seen at it and done to it, what it is expected to do, and what its
//! recorded heat shows.

mod ask;
pub mod calendar;
pub(crate) mod case;
pub(crate) mod course;
pub mod entry;
pub mod export;
pub mod import;
pub(crate) mod judge;
pub mod judgement;
pub mod photo;
pub mod probe;
pub mod report;
pub mod rules;
pub(crate) mod series;
pub mod simulated;
pub mod strip;
pub mod tended;
pub mod today;
pub mod trace;
mod weather;

pub use ask::{diagnose, heat, hours, hygiene};
pub(crate) use course::KeptCourses;
pub use course::document;
pub(crate) use judge::KeptJudgements;
pub use judge::judge_all;
pub(crate) use series::KeptSeries;
